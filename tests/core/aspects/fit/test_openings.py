"""What leaves the case: openings, glands, the card, and labels."""

from dataclasses import replace
from typing import Any

import pytest

from cobblewort.core.aspects.fit.openings import gland_for, opening_at, passes
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.parts.model import Case, Gland, Opening, PlugBody, SocketFace
from cobblewort.core.plans.patch import EditLine, SwapPart, apply_patch
from tests.kits import SMALL, checked, kit, shipped, told, with_part


def shell(**fields: Any) -> Any:
    """The catalogue with a case of one's own in which openings are as given."""
    case = {
        "inner_length_mm": 98,
        "inner_width_mm": 68,
        "inner_height_mm": 58,
        "max_above_mm": 40,
        "max_below_mm": 14,
        "openings": None,
        **fields,
    }
    return with_part(
        id="E99", kind="case", part_class="vented_plastic", maker="m", model="Tin", case=case
    )


def test_a_full_set_of_openings_lets_everything_out() -> None:
    """And says nothing."""
    report = checked(kit(*SMALL, "X06"))
    for rule in ("FIT-19", "FIT-20", "FIT-21", "FIT-22"):
        assert told(report, rule) == []


def test_a_moulded_plug_that_is_wider_than_its_opening_does_not_reach_the_inlet() -> None:
    """12 x 6.5 mm through 11 x 6 mm (the trap of the layered case)."""
    (finding,) = told(checked(kit("B06", "S01", "M02", "K03", "E06")), "FIT-19")
    assert finding.severity == "problem"
    assert "(12\u00a0× 6.5 mm)" in finding.sentence.text
    assert "(11\u00a0× 6 mm)" in finding.sentence.text


def test_a_micro_plug_of_11_by_7_does_not_go_through_11_by_6_either() -> None:
    """Height counts as much as width."""
    finding = told(checked(kit("B04", "S06", "M02", "E06")), "FIT-19")[0]
    assert "(11\u00a0× 7 mm)" in finding.sentence.text


def test_a_socket_behind_a_closed_wall_is_named() -> None:
    """Without an opening at the second stack, the thing in it does not go in."""
    only = dict.fromkeys(("usb_a", "usb_b", "net", "video", "card"))
    report = checked(kit("B06", "S01", "M02", "K03", "E99", "X06"), catalogue=shell(openings=only))
    (finding,) = told(report, "FIT-19")
    assert finding.sentence.text.startswith("The Tin case has no opening at the USB 2 port of")
    assert [f.severity for f in told(report, "FIT-21")] == ["note"]


def test_unknown_openings_are_said_to_be_unknown() -> None:
    """A rule never passes in silence."""
    report = checked(kit("B06", "S01", "M02", "K03", "E99"), catalogue=shell())
    (finding,) = told(report, "FIT-19")
    assert finding.severity == "note"
    assert finding.sentence.text.startswith("Not checked:")


def test_an_open_side_lets_everything_out_there() -> None:
    """And only there: the card slot lies on the left."""
    catalogue = shell(open_edges=["right", "lower"])
    report = checked(kit("B06", "S01", "M02", "K03", "E99", "X06"), catalogue=catalogue)
    assert told(report, "FIT-19") == []
    assert len(told(report, "FIT-21")) == 1


@pytest.mark.parametrize("case", ["E01", "E15"])
def test_open_plates_and_a_shell_of_ones_own_want_no_openings(case: str) -> None:
    """There are no walls, or they are cut to measure."""
    report = checked(kit("B06", "S01", "M02", "K03", case, "X06"))
    assert [f for f in report.findings if f.rule in ("FIT-19", "FIT-20", "FIT-21")] == []


def test_two_grommets_take_two_leads_and_not_three() -> None:
    """The supply lead and one microphone; the network lead counts where it is asked for."""
    base = ("B06", "S01", "M02", "K03", "E04", "X06")
    assert told(checked(kit(*base)), "FIT-20") == []
    requirements = [{"id": "net", "text": "by wire", "function": "ethernet"}]
    (finding,) = told(checked(kit(*base, requirements=requirements)), "FIT-20")
    assert finding.sentence.text == (
        "The Shut 86 case has 2 glands for 3 cables: Kettle 15, Choirdesk 16 and the Ethernet "
        "cable."
    )


def test_a_jacket_outside_the_clamping_range_is_told() -> None:
    """4.5 mm in a gland for 7 to 13 mm."""
    catalogue = shell(
        glands={"one": {"clamp_min_mm": 7, "clamp_max_mm": 13, "bore_mm": 15, "split": True}}
    )
    (finding,) = told(
        checked(kit("B06", "S01", "M02", "K03", "E99"), catalogue=catalogue), "FIT-20"
    )
    assert "its jacket is 4.5 mm thick; the free glands clamp 7 to 13" in finding.sentence.text


@pytest.mark.parametrize(
    ("jacket_mm", "body", "found"),
    [
        # Thread and clamping range of glands as makers print them: common practice.
        (5.0, None, "m16"),
        (7.0, PlugBody(width_mm=11, height_mm=7), "m20"),
        (7.5, PlugBody(width_mm=16, height_mm=7), None),
        (None, PlugBody(width_mm=8, height_mm=4), "m16"),
        (14.0, None, None),
    ],
)
def test_the_tightest_gland_that_seals_and_passes(
    jacket_mm: float | None, body: PlugBody | None, found: str | None
) -> None:
    """M16 clamps 5 to 10 mm with a bore of 11 mm, M20 7 to 13 mm with 15 mm."""
    glands = {
        "m20": Gland(clamp_min_mm=7, clamp_max_mm=13, bore_mm=15),
        "m16": Gland(clamp_min_mm=5, clamp_max_mm=10, bore_mm=11),
    }
    gland = gland_for(list(glands.values()), jacket_mm, body)
    assert (None if gland is None else next(n for n, g in glands.items() if g is gland)) == found


def test_a_split_insert_lets_any_plug_by() -> None:
    """It is laid round the lead."""
    split = Gland(clamp_min_mm=3, clamp_max_mm=8, bore_mm=8, split=True)
    assert gland_for([split], 4.5, PlugBody(width_mm=16, height_mm=14)) is split


def test_an_opening_is_found_by_the_middle_of_the_socket() -> None:
    """On the same edge, within half its width and height."""
    case = shipped().part("E03").case
    assert isinstance(case, Case)
    inside = SocketFace(edge="right", along_mm=28, z_mm=11.7, width_mm=13, height_mm=6)
    assert opening_at(case, inside) is case.openings["usb_a"]
    assert opening_at(case, replace(inside, **{"edge": "left", "z_mm": 11.7})) is None
    assert opening_at(case, replace(inside, **{"z_mm": 16.1})) is None
    hole = Opening(edge="lower", along_mm=0, z_mm=0, width_mm=12, height_mm=6.5)
    assert passes(PlugBody(width_mm=12, height_mm=6.5), hole)
    assert not passes(PlugBody(width_mm=12.1, height_mm=6.5), hole)


def test_a_look_alike_asks_for_a_label() -> None:
    """A panel socket in the shape of a network socket."""
    (finding,) = told(checked(kit(*SMALL, "X31")), "FIT-22")
    assert finding.severity == "note"
    assert "looks like an Ethernet port" in finding.sentence.text


def test_openings_that_are_cut_by_hand_are_a_way_out() -> None:
    """It costs nothing; what is to be cut is told, with the usual caution."""
    plan = kit("B06", "S01", "M02", "K03", "E06")
    (finding,) = told(checked(plan), "FIT-19")
    fixes = propose_fixes(plan, shipped(), finding.id)
    cut = next(fix for fix in fixes if fix.title.text == "Cut openings in Leaf Stack by hand")
    assert cut.effect.cost_delta == 0
    after = checked(apply_patch(plan, cut.patch))
    assert told(after, "FIT-19") == []
    (note,) = told(after, "FIT-30")
    assert note.severity == "note"
    assert "Cut openings in" in note.sentence.text
    assert "sharp edges" in note.sentence.text


def test_another_case_is_not_cut() -> None:
    """What was done to the one in the kit is not done to the next."""
    cut = apply_patch(kit(*SMALL), (EditLine(line="E03", modified=True),))
    swapped = apply_patch(cut, (SwapPart(line="E03", part="E06"),))
    assert swapped.line("E03").modified is False
    assert told(checked(swapped), "FIT-19")


def test_a_cut_box_is_no_longer_known_to_be_tight() -> None:
    """Its rating was given for what its maker closed."""
    plan = kit("B06", "S01", "M02", "K03", "E12", place={"wet": True})
    assert told(checked(plan), "FIT-11") == []
    cut = apply_patch(plan, (EditLine(line="E12", modified=True),))
    assert [f.severity for f in told(checked(cut), "FIT-11")] == ["tight"]
