"""Where boards stand in their case: pegs, compartments, plates with several, places by hand."""

from __future__ import annotations

from typing import Any

import pytest

from cobblewort.core.aspects.fit.model import standing_of
from cobblewort.core.aspects.fit.placement import Outline, Standing
from cobblewort.core.aspects.fit.template import template
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.judging.kit import Kit
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import EditLine, apply_patch
from cobblewort.core.plans.plan import FloorPosition, Plan
from tests.kits import checked, kit, margin, shipped, told, with_part

BOARD = ("B06", "S01", "M02")
"""Its board is 86 x 56 mm."""


def box(**case: Any) -> Catalogue:
    """A shell of 200 x 100 mm whose floor is drilled by hand."""
    return with_part(
        id="E90",
        kind="case",
        part_class="vented_plastic",
        maker="m",
        model="Shell",
        case={
            "inner_length_mm": 200,
            "inner_width_mm": 100,
            "inner_height_mm": 50,
            "max_above_mm": 36,
            "max_below_mm": 8,
            "any_holes": True,
            **case,
        },
    )


def put(plan: Plan, x_mm: float, y_mm: float) -> Plan:
    """The board at a place of the user's."""
    return apply_patch(plan, (EditLine(line="B06", position=FloorPosition(x_mm=x_mm, y_mm=y_mm)),))


def mounting(plan: Plan, catalogue: Catalogue) -> Standing:
    """Where the boards of a plan stand."""
    found = standing_of(Kit(plan, catalogue, 1))
    assert found is not None
    return found


def peg(x_mm: float, y_mm: float, **more: Any) -> dict[str, Any]:
    """A peg of 10 x 10 mm."""
    return {"label": "peg", "x_mm": x_mm, "y_mm": y_mm, "length_mm": 10, "width_mm": 10, **more}


def test_a_board_stands_in_the_middle() -> None:
    """(200 - 86) / 2 and (100 - 56) / 2."""
    main = mounting(kit(*BOARD, "E90"), box()).main
    assert main == Outline(57, 22, 86, 56)


@pytest.mark.parametrize(
    ("post", "x_mm"),
    [
        (peg(90, 45), 100.0),  # right of a peg in the middle
        (peg(20, 45), 57),  # a peg beside it
        (peg(90, 45, height_mm=5), 57),  # one that ends under it, 8 mm above the floor
    ],
)
def test_a_peg_is_a_place_and_not_a_smaller_box(post: dict[str, Any], x_mm: float) -> None:
    """The board moves beside it, the room for it stays what it is, and nothing is told."""
    catalogue, plan = box(posts={"one": post}), kit(*BOARD, "E90")
    assert mounting(plan, catalogue).main.x_mm == x_mm
    report = checked(plan, 1, catalogue)
    assert told(report, "FIT-41") == []
    assert margin(report, "FIT-04:length").limit == 200


def test_fit_41_a_peg_under_the_board() -> None:
    """Told where the board was put on it or has no other place, until the peg is cut off."""
    catalogue = box(posts={"one": peg(90, 45)})
    plan = put(kit(*BOARD, "E90"), 60, 20)
    (finding,) = told(checked(plan, 1, catalogue), "FIT-41")
    assert finding.sentence.text == (
        "Hurdle 2 rests on a peg of the Shell case. Move the board or remove the peg."
    )
    titles = [fix.title.text for fix in propose_fixes(plan, catalogue, finding.id)]
    assert "Move Hurdle 2 to the middle" in titles
    assert "Cut openings in Shell by hand" in titles
    cut = apply_patch(plan, (EditLine(line="E90", modified=True),))
    assert told(checked(cut, 1, catalogue), "FIT-41") == []
    tight = box(inner_length_mm=90, inner_width_mm=60, posts={"one": peg(40, 25)})
    assert told(checked(kit(*BOARD, "E90"), 1, tight), "FIT-41") != []


def test_a_board_that_is_put_over_the_wall() -> None:
    """150 + 86 mm are more than 200: it would go in, but not there."""
    plan = put(kit(*BOARD, "E90"), 150, 20)
    report = checked(plan, 1, box())
    (finding,) = told(report, "FIT-04")
    assert "86.0 mm; the Shell case has 50.0 mm left from its" in finding.sentence.text
    titles = [fix.title.text for fix in propose_fixes(plan, box(), finding.id)]
    assert titles[0] == "Move Hurdle 2 to the middle"
    assert told(checked(put(plan, 114, 44), 1, box()), "FIT-04") == []
    (finding,) = told(checked(put(plan, 2000, 20), 1, box()), "FIT-04")
    assert "Shell case has 0.0 mm left from its" in finding.sentence.text


def test_standoffs_of_its_own_keep_a_board_where_they_are() -> None:
    """A place of the user's is not silently dropped."""
    plan = put(kit(*BOARD, "E03"), 1, 1)
    (finding,) = told(checked(plan), "FIT-41")
    assert finding.severity == "note"
    assert mounting(plan, shipped()).main.x_mm == (98 - 86) / 2


def test_a_compartment_is_the_room() -> None:
    """The smallest that takes the board, with its own height; or the one it is put into."""
    plan = kit(*BOARD, "E17")
    inside = mounting(plan, shipped())
    assert (inside.label, inside.room.length_mm) == ("side compartment", 87)
    report = checked(plan)
    assert margin(report, "FIT-05:above").limit == 30
    assert margin(report, "FIT-04:length").limit == 87
    assert report.fit.case is not None
    assert report.fit.case.room == "side compartment"
    moved = put(plan, 5, 60)
    assert mounting(moved, shipped()).label == "large compartment"
    assert margin(checked(moved), "FIT-05:above").limit == 36
    assert mounting(put(plan, 158, 5), shipped()).label == "side compartment"


def test_a_plate_carries_several_boards() -> None:
    """Two in a row, 10 mm and more apart; four in two rows; five have no room on 200 x 130 mm."""
    two = mounting(kit("2xB06", "E90"), box())
    (_, first), (_, second) = two.boards
    assert second.x_mm - first.x_mm - first.length_mm == 10
    assert first.x_mm + second.x_mm + second.length_mm == 200
    rooms = box(inner_width_mm=130)
    four = [at for _, at in mounting(kit("4xB06", "E90"), rooms).boards]
    assert not any(one.meets(other) for one in four for other in four if one is not other)
    assert told(checked(kit("4xB06", "E90"), 1, rooms), "FIT-41") == []
    over = told(checked(kit("5xB06", "E90"), 1, rooms), "FIT-41")
    assert [finding.severity for finding in over] == ["problem"]
    assert "not fit beside the other" in over[0].sentence.text
    assert told(checked(kit("2xB06", "E90"), 1, box()), "FIT-37") == []


def test_the_template_follows_where_boards_stand() -> None:
    """Holes, outlines and cut-outs move with the board; each board has its own, pegs are drawn."""
    catalogue = box(posts={"one": peg(5, 5)}, any_holes=True, self_made=True)
    middle, moved = (
        template(Kit(plan, catalogue, 1))
        for plan in (kit(*BOARD, "E90"), put(kit(*BOARD, "E90"), 10, 30))
    )
    shift = [
        (b.x_mm - a.x_mm, b.y_mm - a.y_mm)
        for a, b in zip(middle[0].holes, moved[0].holes, strict=True)
    ]
    assert shift == [(10 - 57, 30 - 22)] * 4
    by_name = {panel.name: panel for panel in moved}
    for panel in middle[1:]:
        other = by_name[panel.name]
        along = {"Left wall": -8, "Right wall": 8, "Front wall": -47, "Back wall": 47}
        for a, b in zip(panel.cutouts, other.cutouts, strict=True):
            assert b.x_mm - a.x_mm == pytest.approx(along[panel.name])
    assert [guide.label for guide in moved[0].guides] == ["Hurdle 2", "peg"]
    several = template(Kit(kit("2xB06", "S01", "M02", "E90"), catalogue, 1))
    assert len(several[0].holes) == 8


def test_boards_in_a_row_are_as_far_apart_as_from_the_walls() -> None:
    """Two of 86 mm leave 28 of 200: a third each, and never less than 10 nor more than 40."""
    for length_mm, gap_mm in ((200, 28 / 3), (214, 14), (400, 40)):
        standing = mounting(kit("2xB06", "S01", "M02", "E90"), box(inner_length_mm=length_mm))
        gap = standing.boards[1][1].x_mm - (standing.main.x_mm + standing.main.length_mm)
        assert gap == pytest.approx(max(10, gap_mm)), length_mm


def test_each_board_on_a_plate_wants_its_standoffs() -> None:
    """Four for each, told together."""
    report = checked(kit("2xB06", "S01", "M02", "E90"), 1, box())
    standoffs = [f for f in report.fit.fasteners if f.kind == "standoff"]
    assert [f.count for f in standoffs] == [4, 4]


def test_what_is_on_the_floor_is_drawn() -> None:
    """The other board, the compartments and pegs, in the frame of the main board."""
    report = checked(kit("2xB06", "S01", "M02", "E17"))
    looks = [box.look for box in report.fit.beside if box.look in ("pcb", "room", "post")]
    assert looks == ["pcb", "room", "room", "post", "post"]
    shell = report.fit.case
    assert shell is not None
    peg_box = next(box for box in report.fit.beside if box.look == "post")
    assert (peg_box.x_mm, peg_box.y_mm) == (shell.inner_x_mm + 70, shell.inner_y_mm + 62)
