"""The rules of everyday knowledge, each beside the near miss in which it stays silent."""

from __future__ import annotations

from typing import Any

import pytest

from cobblewort.core.aspects.fit.template import template
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.judging.kit import Kit
from cobblewort.core.verdict.evaluate import evaluation_of
from tests.kits import SMALL, checked, kit, margin, shipped, told, with_part

ADAPTER: dict[str, Any] = {
    "id": "X90",
    "kind": "device",
    "part_class": "usb2_device",
    "maker": "m",
    "model": "Ferry",
    "offers": {"ethernet": {"amount": 115}},
    "plugs": {"usb": {"connectors": ["usb-a"], "generation": 3}},
}


def fast(at_least: float) -> list[dict[str, Any]]:
    """A need of a wired network."""
    return [{"id": "net", "text": "copies", "function": "ethernet", "at_least": at_least}]


COPIES = {
    "id": "copies",
    "text": "copies",
    "source": "network",
    "target": "storage",
    "amount_gb": 20,
}


@pytest.mark.parametrize(("parts", "most"), [(("X90",), 41), (("X90", "D09", "A12"), 30)])
def test_a_gigabit_adapter_gives_what_its_bus_lets_by(parts: tuple[str, ...], most: float) -> None:
    """On a USB 2 bus what people get of it (35 MB/s), shared with a disk less than 30; on USB 3 the
    wire decides. Common practice.
    """
    catalogue = with_part(**ADAPTER)
    transfers = [COPIES] if "D09" in parts else []
    slow = checked(
        kit("B04", "S06", "M02", *parts, requirements=fast(80), transfers=transfers), 1, catalogue
    )
    (requirement,) = slow.purpose
    assert 15 < (requirement.have or 0) < most
    assert [f.severity for f in told(slow, "DATA-01")] == ["problem"]
    assert told(slow, "NEED-02") == []  # one snag, not two
    quick = checked(kit("B06", "S01", "M02", "X90", requirements=fast(100)), 1, catalogue)
    assert told(quick, "DATA-01") == []


@pytest.mark.parametrize(
    ("parts", "told_of"),
    [
        (("X10", "D09", "A12"), True),
        (("X11", "D09", "A12"), False),  # 5 GHz
        (("X10", "X05"), False),  # nothing there speaks USB 3
        (("X10", "C07", "D09", "A12"), False),  # on its extension
    ],
)
def test_fit_40_a_stick_beside_usb_3(parts: tuple[str, ...], told_of: bool) -> None:
    """Only what hears at 2.4 GHz, only beside USB 3 in use, and not on an extension."""
    assert bool(told(checked(kit("B06", "S01", "M02", *parts)), "FIT-40")) == told_of


def test_fit_39_a_disk_in_its_bay_is_not_loose() -> None:
    """Two flat ones in a tower with bays; the same two beside a small case."""
    flat = with_part(**{**shipped().document(shipped().part("D11")), "id": "D11"})
    assert told(checked(kit(*SMALL, "2xD11", "2xA12"), 1, flat), "FIT-39") != []
    (still,) = told(checked(kit(*SMALL, "D09", "A12")), "FIT-39")
    assert "that could pull the cable" in still.sentence.text  # it does not spin
    assert told(checked(kit("B06", "S01", "M02", "D09", "A12", "E11")), "FIT-39") == []
    assert told(checked(kit("B10", "S03", "M02", "A04", "D03", "E03")), "FIT-39") == []


@pytest.mark.parametrize(
    ("price", "words"), [("356", "4.0 times"), ("80", "this kit €89. Consider buying"), (None, "")]
)
def test_cost_03_against_a_ready_made(price: str | None, words: str) -> None:
    """89 for the kit."""
    report = checked(kit(*SMALL, ready_made={"name": "It", "price": price}))
    assert report.cost.total == 89
    sentences = [f.sentence.text for f in told(report, "COST-03")]
    assert (sentences == []) if not words else words in sentences[0]


def test_cost_03_a_larger_drive_for_less() -> None:
    """Of the same shape and worse in nothing; a slower one or an owned line is no bargain."""
    bargain = {
        **shipped().document(shipped().part("D09")),
        "id": "D91",
        "model": "Bargain",
        "price": "30",
        "storage": {"capacity_gb": 960},
    }
    slower = {**bargain, "drive": {**bargain["drive"], "write_mb_s": 90}}
    plan = kit("B06", "S01", "M02", "D09", "A12")
    (note,) = told(checked(plan, 1, shipped().extended([bargain])), "COST-03")
    assert note.sentence.text.startswith("Bargain holds 960 GB")
    assert told(checked(plan, 1, shipped().extended([slower])), "COST-03") == []


@pytest.mark.parametrize(
    ("parts", "fields", "subject", "told_of"),
    [
        (("D11", "A12"), {}, "spinning", True),
        (("D09", "A12"), {}, "spinning", False),
        (("K05", "E01"), {}, "blades", True),
        (("K05", "E03"), {}, "blades", False),
        (("K03", "E01"), {}, "blades", False),
        (("X28",), {}, "watching", True),
        (("X28",), {"place": {"within_reach_of": "nobody"}}, "watching", False),
    ],
)
def test_safe_04_only_what_the_kit_has(
    parts: tuple[str, ...], fields: dict[str, Any], subject: str, told_of: bool
) -> None:
    """Disks that spin, blades in the open, cameras where people are."""
    report = checked(kit("B06", "S01", "M02", *parts, **fields))
    assert (f"SAFE-04:{subject}" in {f.id for f in told(report, "SAFE-04")}) == told_of


def test_safe_04_is_not_said_twice() -> None:
    """The power bank's own words on its cells, and the vehicle converter's on its fuse."""
    for supply, place in ((("S30", "C01"), {"power": "battery"}), (("S14",), {"power": "vehicle"})):
        said = told(checked(kit("B06", *supply, "M02", place=place)), "SAFE-04")
        assert {f.id for f in said} == {"SAFE-04:static"}


def test_one_caution_of_two_parts_is_told_once() -> None:
    """Both their lines are named."""
    cautions = told(checked(kit("B06", "S01", "M02", "E12", "E13")), "SAFE-01")
    assert [f.lines for f in cautions] == [("E12", "E13")]


def test_a_burst_at_the_start_is_ridden_out() -> None:
    """One disk on a board's own socket: 87 % of it for a second, in some draws more; sound."""
    report = checked(kit("B06", "S01", "M02", "D11", "A12", "E01"), 256)
    socket = margin(report, "PWR-05:B06#1.usb1")
    assert socket.spare_p05 is not None
    assert socket.spare_p05 < 0 < socket.spare
    assert socket.severity == "ok"


@pytest.mark.parametrize("board", ["B04", "B10"])
def test_a_board_that_nothing_feeds_is_always_told(board: str) -> None:
    """Every supply with every lead or none: dark and told, or fed and not called dark."""
    cables = [
        part.id
        for part in shipped().parts(("cable",))
        if part.origin != "typical" and any(p.role == "power_out" for p in part.plugs.values())
    ]
    supplies = [part.id for part in shipped().parts(("power_supply",)) if part.origin != "typical"]
    for supply in supplies:
        for cable in [[], *([cable] for cable in cables)]:
            plan = kit(board, supply, *cable, "M02")
            found = evaluation_of(plan, shipped())
            dark = any(i.part.kind == "board" for i in power_of(found.kit).forest.unfed)
            said = {f.rule for f in found.findings if f.severity == "problem"}
            assert bool(said & {"FIT-01", "FIT-09", "PWR-01"}) == dark, (supply, cable)


@pytest.mark.parametrize(
    ("case", "words"),
    [("E01", ""), ("E03", "a slot for its cable."), ("E12", "watertight slot for")],
)
def test_fit_38_a_camera_looks_out(case: str, words: str) -> None:
    """Through a hole, through a window against water, or freely between open plates."""
    said = told(checked(kit("B06", "S01", "M02", "X28", case)), "FIT-38")
    assert (said == []) if not words else words in said[0].sentence.text


def test_a_box_with_glands_has_no_cuts_at_its_sockets() -> None:
    """Its template drills the plate and leaves the walls alone; one made to measure is cut."""
    for case, cut in (("E12", False), ("E15", True)):
        walls = template(Kit(kit("B06", "S01", "M02", case, "F01"), shipped(), 1))[1:]
        assert any(wall.cutouts for wall in walls) == cut


def test_a_card_in_an_extender_is_reached_where_it_is() -> None:
    """No case has to be opened for it, and no hand goes to the slot; without one both are told."""
    case = {**shipped().document(shipped().part("E02")), "id": "E02"}
    case["case"] = {**case["case"], "openings": {"card": None}}
    shut = shipped().extended([case])
    parts = ("B06", "S01", "M02", "K03", "E02")
    plain, far = (checked(kit(*parts, *more), 1, shut) for more in ((), ("C17",)))
    assert told(plain, "FIT-21") != []
    assert any(zone.label == "remove Plain 32" for zone in plain.fit.access)
    assert told(far, "FIT-21") == []
    assert not any("to pull" in zone.label for zone in far.fit.access)
    assert ("M02#1.card", "C17#1.out") in {(c.plug, c.socket) for c in far.fit.connections}


def test_a_cooler_and_a_board_made_for_each_other() -> None:
    """0.5 mm too high by the drawings, and sold together: nothing is said."""
    board = shipped().document(shipped().part("A01"))
    parts = ("B10", "S03", "M02", "A01", "D03", "K05")
    low = {**board["add_on"], "clear_mm": 13.0}
    told_of = checked(kit(*parts), 1, shipped().extended([{**board, "add_on": low}]))
    assert told(told_of, "FIT-06") + told(told_of, "FIT-29") != []
    bundle = {**board, "add_on": {**low, "fits_under": ["K05"]}}
    sold = checked(kit(*parts), 1, shipped().extended([bundle]))
    assert told(sold, "FIT-06") + told(sold, "FIT-29") == []
    assert not any(m.rule == "FIT-06" for m in sold.margins)


def test_things_outside_have_a_size_and_a_reach() -> None:
    """A disk in its 2.5-inch frame (SFF-8201: 69.85 x 100.45 mm) and the lead it hangs on."""
    report = checked(kit(*SMALL, "D09", "A12", "X23"))
    things = {thing.label: thing for thing in report.fit.outside}
    assert things["Flagstone 480"].size_mm == (100, 70, 7)
    assert things["Leash Q"].reach_m == 0.2
    assert things["Probe 3"].reach_m == 3


def sentences(parts: tuple[str, ...], rule: str, catalogue: Any = None, **fields: Any) -> str:
    """What a rule says of a kit."""
    report = checked(kit(*parts, **fields), 1, catalogue)
    return " ".join(finding.sentence.text for finding in told(report, rule))


def test_a_larger_card_for_less() -> None:
    """Told where it lasts as long and writes as fast; not where nobody says how long it lasts, and
    never of one that is there already.
    """
    better: dict[str, Any] = {
        "id": "M90",
        "kind": "card",
        "part_class": "memory_card",
        "maker": "m",
        "model": "Roomy",
        "price": "17",
        "storage": {"capacity_gb": 128, "endurance_tb": 90, "write_mb_s": 40},
    }
    parts = ("B06", "S01", "M05")
    assert "Roomy holds 128 GB for €17" in sentences(parts, "COST-03", with_part(**better))
    silent = {**better, "storage": {"capacity_gb": 128}}
    sooner = {**better, "storage": {**better["storage"], "endurance_tb": 60}}
    slower = {**better, "storage": {**better["storage"], "write_mb_s": 20}}
    for other in (silent, sooner, slower):
        assert "Roomy" not in sentences(parts, "COST-03", with_part(**other))


def test_a_much_faster_board_for_little_more() -> None:
    """Told of what stands alike and gives the same; not where watts are short, where it would be
    too cold for it, nor where it is hardly faster.
    """
    parts = ("B04", "S06", "M02")
    better = "Hurdle 2 costs €11 more than Stile and is 2.2 times as fast"
    assert better in sentences(parts, "COST-03")
    assert better not in sentences(parts, "COST-03", place={"power": "solar"})
    assert better not in sentences(parts, "COST-03", place={"ambient_min_c": -15})
    assert sentences(("B07", "S03", "M02"), "COST-03") == ""  # the faster one has no sound out
    assert sentences(("B10", "S03", "M02"), "COST-03") == ""
