"""Boards on boards, blocks in space, and what holds them together."""

from dataclasses import asdict, replace
from typing import Any

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from cobblewort.core.aspects.fit.collisions import PlacedBox, overlap_of
from cobblewort.core.aspects.fit.fasteners import Fastener
from cobblewort.core.aspects.fit.model import fasteners_of
from cobblewort.core.aspects.fit.template import template
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.judging.kit import Kit
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import EditLine, apply_patch
from cobblewort.core.plans.plan import Plan
from cobblewort.core.standards import fasteners as sizes
from tests.kits import checked, kit, margin, shipped, told, with_part

FAST = ("B10", "S03", "M02")


def on_standoffs(plan: Plan, line: str, length_mm: float) -> Plan:
    """The plan with a board raised."""
    return apply_patch(plan, (EditLine(line=line, standoff_mm=length_mm),))


def two_above(**lower: Any) -> Catalogue:
    """The catalogue with a lower board of one's own."""
    return with_part(
        id="A99",
        kind="storage_adapter",
        part_class="m2_above",
        maker="m",
        model="Low",
        add_on={"height_mm": 17, "clear_mm": 9, **lower},
    )


def wanted(*parts: str) -> list[Fastener]:
    """What a kit wants."""
    return fasteners_of(Kit(kit(*parts), shipped(), 1))


def test_the_second_board_stands_on_the_first() -> None:
    """9 mm free and a board of 1.6 mm under it, then 14 mm: 9 + 1.6 + 14 = 24.6 mm (by hand)."""
    report = checked(kit(*FAST, "A99", "D03", "X04", "E12"), catalogue=two_above())
    above = next(r for r in report.fit.reaches if r.side == "above")
    assert (above.label, above.reach_mm) == ("Lute", pytest.approx(24.6))


def test_what_is_tall_on_the_lower_board_reaches_into_the_upper() -> None:
    """A lower board of 17 mm with 9 mm under it carries parts of 17 - 9 - 1.6 = 6.4 mm."""
    report = checked(kit(*FAST, "A99", "D03", "X04", "E12"), catalogue=two_above())
    found = margin(report, "FIT-23:X04#1")
    assert (found.value, found.limit) == (pytest.approx(6.4), 9)
    tall = checked(kit(*FAST, "A99", "D03", "X04", "E12"), catalogue=two_above(height_mm=21))
    assert told(tall, "FIT-23")[0].severity == "problem"


def test_taller_standoffs_make_room_for_the_cooler() -> None:
    """13.9 mm of cooler, 9 mm as delivered: of the standard lengths 14 is the shortest that does;
    its fan has to breathe through what is left.
    """
    plan = kit(*FAST, "A01", "D03", "K05", "E12", "F01")
    (finding,) = told(checked(plan), "FIT-06")
    first = propose_fixes(plan, shipped(), finding.id)[0]
    assert isinstance(first.patch[0], EditLine)
    assert first.patch[0].standoff_mm == 14
    assert first.title.text == "Put Overlay on 14 mm standoffs"
    assert first.effect.cost_delta == 0
    after = checked(apply_patch(plan, first.patch))
    assert told(after, "FIT-06") == []
    assert margin(after, "FIT-06:A01#1").spare == pytest.approx(14 - 13.9)
    above = next(r for r in after.fit.reaches if r.side == "above")
    assert above.reach_mm == pytest.approx(17 + 5)


def test_standoffs_shorter_than_delivered_change_nothing() -> None:
    """The maker's own height is the least there is."""
    plan = kit(*FAST, "A02", "D06", "E12")
    assert checked(on_standoffs(plan, "A02", 5)).fit.boxes == checked(plan).fit.boxes


def test_standoffs_go_back_to_as_delivered() -> None:
    """0 takes the choice away again."""
    plan = on_standoffs(kit(*FAST, "A01", "D03", "E12"), "A01", 15)
    assert plan.line("A01").standoff_mm == 15
    assert on_standoffs(plan, "A01", 0).line("A01").standoff_mm is None


def test_the_cable_ends_the_climb() -> None:
    """20 mm is the typical most that a flat cable allows; pins allow nothing."""
    plan = on_standoffs(kit(*FAST, "A01", "D03", "E12"), "A01", 25)
    (finding,) = told(checked(plan), "FIT-26")
    assert (finding.severity, finding.margin) == ("problem", "FIT-26:A01#1")
    pinned = on_standoffs(kit("B06", "S01", "M02", "X04", "E12"), "X04", 12)
    assert "fix its height" in told(checked(pinned), "FIT-26")[0].sentence.text


def test_a_drive_over_a_socket_is_found_where_it_is() -> None:
    """A board of 86 mm at 11 mm lies in the network socket (from x = 67, 13.5 mm high), and the
    drives on it in the USB sockets (from x = 71, 16 mm high).
    """
    twin = shipped().document(shipped().part("A05"))
    low = shipped().extended([{**twin, "add_on": {**twin["add_on"], "clear_mm": 11}}])
    report = checked(kit(*FAST, "A05", "2xD06", "E12"), catalogue=low)
    sentences = " ".join(f.sentence.text for f in told(report, "FIT-24"))
    assert "Twin collides with the Ethernet of Mullion 8" in sentences
    assert "Kerb 1T #2 collides with the USB of Mullion 8" in sentences
    for overlap in report.fit.overlaps:
        assert overlap.x_mm >= 67
        assert overlap.z_mm + overlap.dz_mm <= 16
    assert told(checked(kit(*FAST, "A05", "2xD06", "E12")), "FIT-24") == []


def test_a_plain_sink_moves_aside_and_one_with_a_fan_does_not() -> None:
    """40 mm across about a die at 31 mm would lie on the header from 50 mm on, by 1 mm."""
    report = checked(kit("B04", "S06", "M02", "K03", "E12"))
    sink = next(b for b in report.fit.boxes if b.look == "sink")
    assert sink.y_mm + sink.dy_mm == pytest.approx(50)
    assert told(report, "FIT-24") == []
    clipped = checked(kit("B04", "S06", "M02", "K05", "E12"))
    assert "header" in told(clipped, "FIT-24")[0].sentence.text


def block(*sides: float) -> PlacedBox:
    """A block by its corner and its sides."""
    return PlacedBox("p", "l", "b", "body", *sides)


blocks = st.builds(
    block, *[st.floats(-50, 50) for _ in range(3)], *[st.floats(0.5, 60) for _ in range(3)]
)


@given(blocks, blocks)
def test_an_overlap_is_the_same_from_both_sides_and_in_the_mirror(
    one: PlacedBox, other: PlacedBox
) -> None:
    """Mirrored along the board, everything keeps its room; and the overlap lies within both."""
    found, back = overlap_of(one, other), overlap_of(other, one)
    mirror = [replace(b, x_mm=86 - b.x_mm - b.dx_mm) for b in (one, other)]
    mirrored = overlap_of(*mirror)
    assert (found is None) == (back is None)
    if found is None or back is None:
        return
    assert (found.dx_mm, found.dy_mm, found.dz_mm) == (back.dx_mm, back.dy_mm, back.dz_mm)
    assert found.dz_mm <= min(one.dz_mm, other.dz_mm) + 1e-9
    if found.dx_mm > 0.2:
        assert mirrored is not None
        assert mirrored.dx_mm == pytest.approx(found.dx_mm)
        assert mirrored.x_mm == pytest.approx(86 - found.x_mm - found.dx_mm, abs=1e-6)


def test_a_stack_in_the_mirror_keeps_its_gaps() -> None:
    """Every box of the board on the other side: the same free heights, the same overlaps."""
    board = shipped().document(shipped().part("B10"))
    boxes = shipped().part("B10").boxes
    turned = {
        name: {**asdict(box), "x_mm": 86 - box.x_mm - box.dx_mm} for name, box in boxes.items()
    }
    mirror = shipped().extended([{**board, "boxes": turned}])
    parts = (*FAST, "A02", "D03", "K06", "E12")
    here, there = checked(kit(*parts)), checked(kit(*parts), catalogue=mirror)
    assert here.fit.gaps == there.fit.gaps
    assert [m.spare for m in here.margins if m.family == "fit"] == [
        m.spare for m in there.margins if m.family == "fit"
    ]


def test_gaps_are_drawn_where_the_margins_are() -> None:
    """The free height over the cooler is the spare of its margin."""
    report = checked(kit(*FAST, "A02", "D06", "K05", "E12"))
    (gap,) = report.fit.gaps
    assert (gap.below, gap.above) == ("Windrow", "Overlay Long")
    assert gap.gap_mm == pytest.approx(margin(report, "FIT-06:A02#1").spare)


def test_the_way_of_the_card_and_of_the_plugs() -> None:
    """The card comes out to the left; the supply plug goes in from below."""
    zones = {z.label: z for z in checked(kit(*FAST, "K05", "E03")).fit.access}
    card = zones["remove Plain 32"]
    assert (card.x_mm, card.x_mm + card.dx_mm) == (-15, 0)
    assert card.first == ()
    plug = zones["plug in Kettle 27"]
    assert plug.y_mm + plug.dy_mm <= 0


@pytest.mark.parametrize(
    ("through_mm", "depth_mm", "screw_mm"),
    [
        (1.6, 6, 4),
        (1.6, 2, None),
        (2.5, 2.5, 5),
        (2.4, 6, 5),
        (8, 6, 10),
        (1.6, 8, 4),
        (12, 6, None),
    ],
)
def test_the_screw_holds_and_does_not_bottom_out(
    through_mm: float, depth_mm: float, screw_mm: float | None
) -> None:
    """At least 2 mm of thread, at most its depth (by hand, from the lengths in the shops)."""
    assert sizes.screw_for(through_mm, depth_mm) == screw_mm


@given(st.floats(0.5, 12), st.floats(2, 6))
def test_a_screw_that_is_found_is_one_that_does(through_mm: float, depth_mm: float) -> None:
    """Neither comes loose nor comes through; no shorter one would hold."""
    assume(
        all(abs(x - through_mm - edge) > 1e-6 for x in sizes.SCREWS_MM for edge in (2, depth_mm))
    )
    found = sizes.screw_for(through_mm, depth_mm)
    good = [x for x in sizes.SCREWS_MM if through_mm + 2 <= x <= through_mm + depth_mm]
    # A thread holds from 2 mm on; the comparison is the definition turned round.
    assert found == (min(good) if good else None)


def test_a_board_above_wants_four_of_each() -> None:
    """16 mm free: standoffs of 16 mm, and screws of 4 mm through 1.6 mm of board."""
    found = wanted(*FAST, "A02", "D06", "E03")
    assert [(f.kind, f.length_mm, f.count) for f in found] == [("standoff", 16, 4), ("screw", 4, 4)]


def test_pins_that_fix_the_height_are_met_with_washers() -> None:
    """9 mm of header is no length in the shops: 8 mm and 1 mm of washers."""
    found = wanted("B06", "S01", "M02", "X04", "E03")
    assert (found[0].length_mm, found[0].washers_mm) == (8, pytest.approx(1))


def test_a_plate_wants_standoffs_that_its_screws_can_hold_in() -> None:
    """Below the board 2.2 mm and 1 mm of air; 4 mm would do, but a screw of 4 mm through a board of
    1.4 mm wants 2.6 mm of thread, which only half of a standoff of 6 mm has.
    """
    found = wanted("B06", "S01", "M02", "E12")
    assert [(f.kind, f.length_mm) for f in found] == [("standoff", 6), ("screw", 5), ("screw", 4)]


def test_a_bought_case_brings_its_own_screws() -> None:
    """Nothing is wanted beside them."""
    assert wanted("B06", "S01", "M02", "E03") == []
    assert told(checked(kit("B06", "S01", "M02", "K03", "E03")), "FIT-27") == []


def test_a_missing_bag_is_told_and_added_by_a_fix() -> None:
    """With what it has to hold."""
    plan = kit(*FAST, "A02", "D06", "K05", "E03")
    (finding,) = told(checked(plan), "FIT-27")
    assert "4 × standoff 16 mm" in finding.sentence.text
    first = propose_fixes(plan, shipped(), finding.id)[0]
    assert first.title.text.startswith("Add Standoff Set")
    assert told(checked(apply_patch(plan, first.patch)), "FIT-27") == []


def test_a_bag_without_the_length_is_not_enough() -> None:
    """Two standoffs of 5 and 6 mm do not hold 16 mm apart."""
    bag = with_part(
        id="F99",
        kind="fastener",
        maker="m",
        model="Few",
        fasteners={"standoffs_mm": [5, 6], "screws_mm": [4]},
    )
    (finding,) = told(checked(kit(*FAST, "A02", "D06", "E03", "F99"), catalogue=bag), "FIT-27")
    assert "No standoff in the kit has the length" in finding.sentence.text


def test_a_second_cooler_has_no_place() -> None:
    """There is one die."""
    (finding,) = told(checked(kit(*FAST, "K03", "K05", "E12")), "FIT-25")
    assert finding.sentence.text == (
        "The Griddle cooler is already on the processor; the Windrow cooler has no processor to "
        "cool."
    )


def test_a_second_case_is_left_over() -> None:
    """The board stands in the first one."""
    (finding,) = told(checked(kit(*FAST, "E02", "E03")), "FIT-44")
    assert finding.lines == ("E03",)
    assert "Nothing is in the" in finding.sentence.text


def test_each_board_of_a_row_has_a_cooler_of_its_own() -> None:
    """Two boards, two dies; the third cooler is one too many."""
    row = ("2xB10", "2xS03", "2xM02", "E14")
    assert told(checked(kit(*row, "2xK03")), "FIT-25") == []
    (finding,) = told(checked(kit(*row, "2xK03", "K05")), "FIT-25")
    assert finding.sentence.text == (
        "Each of the 2 processors already has a cooler; the Windrow cooler has no processor to "
        "cool."
    )


def test_a_fan_under_a_board_wants_air() -> None:
    """16 mm free less 13.9 mm of cooler: 2.1 mm, as usual; a taller one leaves less, a note."""
    report = checked(kit(*FAST, "A02", "D06", "K05", "E12", "F01"))
    found = margin(report, "FIT-29:K05#1")
    assert (found.value, found.limit, found.severity) == (pytest.approx(2.1), 2, "ok")
    taller = {**shipped().document(shipped().part("K05"))}
    taller["cooler"] = {**taller["cooler"], "height_mm": 12}
    closer = checked(
        kit(*FAST, "A02", "D06", "K05", "E12", "F01"), catalogue=shipped().extended([taller])
    )
    (note,) = told(closer, "FIT-29")
    assert note.severity == "note"
    assert "under Overlay Long" in note.sentence.text


@pytest.mark.parametrize(("case", "fires"), [("E02", False), ("E03", False), ("E01", False)])
def test_a_fan_under_a_lid_has_air_where_there_is_room(case: str, fires: bool) -> None:
    """19 mm less 13.9 mm leaves 5.1 mm; open plates have no lid; a plate sink has no fan."""
    assert bool(told(checked(kit(*FAST, "K05", case)), "FIT-29")) == fires
    assert checked(kit(*FAST, "K03", case)).margin("FIT-29:K03#1") is None


def test_what_comes_off_before_the_card_does() -> None:
    """A closed box is opened; a board that lies over the slot is taken off."""
    boxed = {z.label: z.first for z in checked(kit(*FAST, "K03", "E12")).fit.access}
    assert boxed["remove Plain 32"] == ("open Culvert S",)
    over = with_part(
        id="A98", kind="storage_adapter", part_class="m2_below", maker="m", model="Over"
    )
    covered = checked(kit(*FAST, "A98", "D03", "E03"), catalogue=over)
    zones = {z.label: z.first for z in covered.fit.access}
    assert zones["remove Plain 32"] == ("remove Over",)
    assert told(covered, "FIT-10")[0].severity == "tight"


def test_the_top_sheets_are_left_off_where_it_is_too_low() -> None:
    """A tower of 52 mm in 22 mm: open above there is no limit, and it says what that means."""
    plan = kit(*FAST, "K07", "E06", place={"within_reach_of": "children"})
    finding = next(f for f in told(checked(plan), "FIT-05") if f.id.endswith("above"))
    fixes = propose_fixes(plan, shipped(), finding.id)
    off = next(f for f in fixes if f.title.text == "Remove the top sheets of Leaf Stack")
    assert off.effect.cost_delta == 0
    after = checked(apply_patch(plan, off.patch))
    assert told(after, "FIT-05") == []
    assert "open on top: 2 sheets" in told(after, "FIT-32")[0].sentence.text
    assert told(after, "SAFE-03"), "children can reach in now"
    assert told(checked(plan), "SAFE-03") == []


def test_a_case_in_one_piece_has_no_sheets_to_leave_off() -> None:
    """Saying so changes nothing."""
    said = (EditLine(line="E02", sheets_off=True),)
    plan = apply_patch(kit(*FAST, "K07", "E02"), said)
    assert told(checked(plan), "FIT-05")
    assert told(checked(plan), "FIT-32") == []


def test_a_flat_cable_goes_up_in_two_quarter_bends() -> None:
    """16 mm of rise, bends of 5 mm and stiff ends of 6 mm: 16 + (pi - 2) 5 + 6 = 27.7 mm (by hand);
    the class typically has 50 mm.
    """
    found = margin(checked(kit(*FAST, "A02", "D06", "E12", "F01")), "FIT-33:A02#1")
    assert found.value == pytest.approx(16 + (3.14159265 - 2) * 5 + 6)
    assert found.limit == 50


def test_taller_standoffs_pull_at_the_cable() -> None:
    """Each millimetre of rise is one of cable."""
    plan = kit(*FAST, "A01", "D03", "E12", "F01")
    low = margin(checked(plan), "FIT-33:A01#1").spare
    high = margin(checked(on_standoffs(plan, "A01", 20)), "FIT-33:A01#1").spare
    assert low - high == pytest.approx(20 - 9)


def test_a_board_below_has_its_cable_too() -> None:
    """12 mm below less its own 1.6 mm of board."""
    found = margin(checked(kit(*FAST, "A06", "D06", "D04", "E12", "F01")), "FIT-33:A06#1")
    assert found.value == pytest.approx(12 - 1.6 + (3.14159265 - 2) * 5 + 6)


def test_drives_lie_on_their_board_with_room_at_its_edge() -> None:
    """Four millimetres in from two edges, as a screw beside them wants; side by side, not through.

    Common practice: where a drive board's maker does not draw it, its drives are not at the edge.
    """
    boxes = {box.item: box for box in checked(kit(*FAST, "A06", "D06", "D04", "E01")).fit.boxes}
    one, two = boxes["D06#1"], boxes["D04#1"]
    assert min((one.x_mm, one.y_mm), (two.x_mm, two.y_mm)) == (4, 4)
    assert one.x_mm == two.x_mm
    near, far = sorted((one, two), key=lambda box: box.y_mm)
    assert far.y_mm > near.y_mm + near.dy_mm


def test_a_shell_made_to_measure_is_as_high_as_it_is_stated() -> None:
    """44 mm inside, less 6 below and 1.4 of board: 36.6 above it, judged, drawn and cut."""
    plan = kit("B06", "S01", "M02", "K03", "E15", "F01")
    report = checked(plan)
    above = margin(report, "FIT-05:above")
    assert above.limit == pytest.approx(44 - 6 - 1.4)
    assert report.fit.case is not None
    assert report.fit.case.max_above_mm == above.limit
    walls = template(Kit(plan, shipped(), 1))[1:]
    assert {panel.height_mm for panel in walls} == {44.0}
    bought = margin(checked(kit("B06", "S01", "M02", "K03", "E03")), "FIT-05:above")
    assert bought.limit == 40


def test_what_stands_beside_the_case_is_told() -> None:
    """With its socket and how far it may be away, cables between them added; not a module inside,
    nor a disk in its bay.
    """
    report = checked(kit("B10", "S03", "M02", "A04", "D03", "D11", "A12", "K05", "E03"))
    told_of = {(thing.label, thing.at, thing.reach_m) for thing in report.fit.outside}
    assert told_of == {
        ("Kettle 27", "power input of Mullion 8", 1.2),
        ("Drum 1T", "disk plug of Leash Q", None),
        ("Leash Q", "USB 3 port of Mullion 8", 0.2),
    }
    bay = checked(kit("B06", "S01", "M02", "D09", "A12", "E11"))
    assert [thing.label for thing in bay.fit.outside] == ["Kettle 15", "Leash Q"]
    cables = checked(kit("B06", "S30", "C01", "M02", "C07", "X09"))
    assert [(thing.at, thing.reach_m) for thing in cables.fit.outside] == [
        ("power input of Hurdle 2", 1.0),
        ("USB 3 port of Hurdle 2", 0.3),
    ]
