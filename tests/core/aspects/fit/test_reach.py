"""Buttons, latches, fans at walls, boards in a row, front sockets, tabs and angled plugs."""

import pytest

from cobblewort.core.aspects.fit.assign import assign
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.judging.item import expand
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import EditLine, apply_patch
from cobblewort.core.plans.plan import Plan
from tests.kits import SMALL, checked, kit, margin, shipped, told


def changed(part_id: str, **fields: object) -> Catalogue:
    """The shipped catalogue with one part changed."""
    return shipped().extended([{**shipped().document(shipped().part(part_id)), **fields}])


def cut(plan: Plan, line: str) -> Plan:
    """A case cut by hand."""
    return apply_patch(plan, (EditLine(line=line, modified=True),))


def test_a_button_behind_a_wall() -> None:
    """The vented case has an opening for it, the sealed one none, and open plates have no wall."""
    sealed = checked(kit("B10", "S03", "M02", "K05", "E04"))
    assert [f.sentence.text for f in told(sealed, "FIT-35")] == [
        "The Shut 86 case covers the power button of Mullion 8. Open the case to press it."
    ]
    for case in ("E03", "E01"):
        assert told(checked(kit("B10", "S03", "M02", "K05", case)), "FIT-35") == []
    assert told(checked(kit("B06", "S01", "M02", "K03", "E04")), "FIT-35") == []


def test_the_button_is_among_what_is_cut() -> None:
    """A sealed box that is cut by hand gets a hole for it, on the template too."""
    plan = cut(kit("B10", "S03", "M02", "K05", "E04"), "E04")
    assert "power button" in told(checked(plan), "FIT-30")[0].sentence.text
    assert told(checked(plan), "FIT-35") == []


def test_the_way_of_a_hand_is_drawn() -> None:
    """A finger before the button, outside the edge; behind a wall the case comes off first."""
    report = checked(kit("B10", "S03", "M02", "K05", "E04"))
    zone = next(z for z in report.fit.access if z.label == "press the power button")
    assert zone.first == ("open Shut 86",)
    assert zone.x_mm + zone.dx_mm == 0
    assert zone.y_mm + zone.dy_mm / 2 == 44
    assert (zone.dx_mm, zone.dy_mm, zone.dz_mm) == (12, 12, 12), "a fingertip, common practice"
    free = checked(kit("B10", "S03", "M02", "K05", "E03"))
    assert all(z.first == () for z in free.fit.access if z.label.startswith("to press"))


def test_a_latch_under_a_board() -> None:
    """The camera's latch under a board above: the cable goes in first; without a camera nothing."""
    kit_of = ("B06", "S01", "M02", "X04", "E01")
    plan = kit(*kit_of, "X28")
    found = told(checked(plan), "FIT-35")
    assert [f.severity for f in found] == ["note"]
    assert found[0].sentence.text.startswith("The latch for Eyebright 8 is under Lute.")
    zone = next(z for z in checked(plan).fit.access if "latch" in z.label)
    assert zone.first == ("remove Lute",)
    assert zone.dz_mm == 12, "the lift of a latch is less than a finger wants"
    assert told(checked(kit(*kit_of)), "FIT-35") == []


def test_a_latch_under_a_cooler() -> None:
    """A plate that ends beside the latch leaves it free; one over it does not let it rise."""
    covered = told(checked(kit("B06", "S01", "M02", "K03", "E01", "X28")), "FIT-35")
    assert covered[0].sentence.text.startswith("The latch for Eyebright 8 needs 2.0 mm to open")
    short = {"cooler": {"r_still_k_w": 7, "height_mm": 11, "length_mm": 20, "width_mm": 20}}
    free = checked(kit("B06", "S01", "M02", "K03", "E01", "X28"), 1, changed("K03", **short))
    assert told(free, "FIT-35") == []


@pytest.mark.parametrize(
    ("inner_mm", "way_mm"), [(200, 65.5), (100, 15.5), (90, 10.5), (89, 10.0), (88, 9.5)]
)
def test_the_way_of_the_air_from_a_tower(inner_mm: float, way_mm: float) -> None:
    """The die at 31 mm, 45 mm long: 8.5 mm from the board's edge, and half of what is beyond it."""
    case = shipped().document(shipped().part("E03"))["case"]
    catalogue = changed("E03", case={**case, "inner_length_mm": inner_mm, "max_above_mm": 60})
    report = checked(kit("B10", "S03", "M02", "K07", "E03"), 1, catalogue)
    found = margin(report, "FIT-36:K07#1")
    assert found.value == pytest.approx(way_mm)
    assert found.severity == ("tight" if way_mm < 10 else "ok")


def test_a_fan_that_blows_down_or_an_open_shell_minds_no_wall() -> None:
    """Only what blows along the board, and only between walls."""
    for parts in (("K05", "E03"), ("K07", "E01")):
        report = checked(kit("B10", "S03", "M02", *parts))
        assert report.margin(f"FIT-36:{parts[0]}#1") is None


def test_two_boards_in_a_case_for_one() -> None:
    """It is told, with how many there are."""
    found = told(checked(kit("2xB06", "2xS01", "2xM02", "E03")), "FIT-37")
    assert [f.sentence.text for f in found] == [
        "The Vent 86 Tall case has 1 position for a board; the kit has 2 boards."
    ]


def test_plugs_reach_into_the_next_board() -> None:
    """In a tray 10 mm apart: the second board's inlet faces the first, whose lower edge is free."""
    plan = kit("2xB10", "2xS04", "2xC02", "2xM02", "2xK05", "E14")
    found = told(checked(plan), "FIT-37")
    assert len(found) == 1
    assert "protrudes 26.0 mm from Mullion 8 #2" in found[0].sentence.text
    titles = [fix.title.text for fix in propose_fixes(plan, shipped(), found[0].id)]
    assert "Swap Braid C5 for Elbow C5" in titles
    angled = kit("2xB10", "2xS04", "2xC08", "2xM02", "2xK05", "E14")
    assert told(checked(angled), "FIT-37") == []
    assert told(checked(kit("5xB10", "E14")), "FIT-37")[0].sentence.text.startswith(
        "The Tray 1U case has"
    )


def test_an_angled_plug_takes_room_beside_its_socket() -> None:
    """Its block is shifted by 9 mm: 15 mm to either side of there, and 9 mm out of the edge."""
    report = checked(kit("B10", "S04", "C08", "M02"))
    body = next(box for box in report.fit.plugs if box.line == "C08")
    assert (body.x_mm, body.dx_mm) == (11.5 + 9 - 15, 30)
    assert (body.dy_mm, body.dz_mm) == (9, 6.5)
    assert body.y_mm == -10


@pytest.mark.parametrize(("rise_mm", "crowded"), [(3, True), (-3, False)])
def test_an_angled_plug_keeps_its_neighbour_out_on_one_side_only(
    rise_mm: float, crowded: bool
) -> None:
    """In the lower socket of a stack: bent upward it is in the way of the upper one."""
    body = {"width_mm": 12, "height_mm": 8, "length_mm": 20, "rise_mm": rise_mm}
    catalogue = changed("X10", plugs={"usb": {"body": body}})
    plan = kit("B04", "S06", "M02", "X10", "X05")
    into = {"X10": "B04#1.usb1", "X05": "B04#1.usb2"}
    lines = tuple(
        line.model_copy(update={"pins": {"usb": into[line.id]} if line.id in into else {}})
        for line in plan.lines
    )
    found = assign(expand(plan.model_copy(update={"lines": lines}), catalogue, 1))
    assert bool(found.crowded) == crowded


def test_tabs_are_in_the_way_until_they_are_cut() -> None:
    """90 mm inside less 7 of tabs: a card of 86 mm goes in when they are gone."""
    plan = kit("B06", "S01", "M02", "K03", "E16")
    report = checked(plan)
    assert margin(report, "FIT-04:length").limit == 83
    finding = told(report, "FIT-04")[0]
    assert "case has 83.0 mm inside between its tabs" in finding.sentence.text
    fixes = propose_fixes(plan, shipped(), finding.id)
    by_hand = next(f for f in fixes if f.title.text == "Cut openings in Second Life by hand")
    assert finding.id in by_hand.resolves
    report = checked(cut(plan, "E16"))
    assert margin(report, "FIT-04:length").limit == 90
    assert "the tabs (7 mm)" in told(report, "FIT-30")[0].sentence.text


def test_a_front_socket_wants_a_hole() -> None:
    """In a bought case it has none until it is cut; a shell of one's own is told the size."""
    plan = kit(*SMALL, "C14")
    finding = told(checked(plan), "FIT-38")[0]
    assert (finding.severity, "14\u00a0× 7 mm" in finding.sentence.text) == ("tight", True)
    titles = [fix.title.text for fix in propose_fixes(plan, shipped(), finding.id)]
    assert any("by hand" in title for title in titles)
    own = told(checked(kit("B06", "S01", "M02", "K03", "E15", "C14")), "FIT-38")
    assert [f.severity for f in own] == ["note"]
    assert told(checked(kit("B06", "S01", "M02", "K03", "E01", "C14")), "FIT-38") == []


def test_a_front_socket_brings_a_socket() -> None:
    """A stick can go in there, and draws through its lead."""
    plan = kit(*SMALL, "C14", "X10")
    sockets = {ref.socket.label for ref in assign(expand(plan, shipped(), 1)).sockets.values()}
    assert "front port" in sockets


def test_the_way_of_a_card_begins_at_its_slot() -> None:
    """15 mm out from the left edge, as wide and high as the slot, about its middle."""
    slot = shipped().part("B06").sockets["card"].face
    assert slot is not None
    zone = next(z for z in checked(kit("B06", "M02")).fit.access if z.label.startswith("remove "))
    assert (zone.x_mm, zone.dx_mm) == (-15, 15)
    assert (zone.y_mm, zone.dy_mm) == (slot.along_mm - slot.width_mm / 2, slot.width_mm)
    assert (zone.z_mm, zone.dz_mm) == (slot.z_mm - slot.height_mm / 2, slot.height_mm)
    button = next(z for z in checked(kit("B10", "M02")).fit.access if "press" in z.label)
    face = next(iter(shipped().part("B10").buttons.values())).face
    assert button.z_mm + button.dz_mm / 2 == pytest.approx(face.z_mm)
