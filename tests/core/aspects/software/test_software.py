"""Images, drivers, and what is needed for the evening of setting up."""

from typing import Any

import pytest

from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.plans.patch import apply_patch
from cobblewort.core.plans.plan import Plan
from tests.kits import SMALL, checked, kit, shipped, told, with_part

IMAGE = {"name": "Slim image", "card_gb": 4, "memory_gb": 1}


def started_from(**image: Any) -> Plan:
    """A small kit with an image."""
    return kit(*SMALL, image={**IMAGE, **image})


@pytest.mark.parametrize(
    ("families", "severity"),
    [([], None), (["Marlpit"], None), (["marlpit", "Quillwort"], None), (["Gorsewick"], "problem")],
)
def test_an_image_starts_only_on_its_own_family(families: list[str], severity: str | None) -> None:
    """One that names none is for any; letter case does not matter."""
    found = told(checked(started_from(families=families)), "SOFT-01")
    assert [f.severity for f in found] == ([] if severity is None else [severity])


def test_a_board_of_the_right_family_is_a_way_out() -> None:
    """Other things may have to follow; the image is right then."""
    plan = started_from(families=["Gorsewick"])
    (finding,) = told(checked(plan), "SOFT-01")
    fixes = propose_fixes(plan, shipped(), finding.id)
    assert fixes
    for fix in fixes:
        assert told(checked(apply_patch(plan, fix.patch)), "SOFT-01") == []


def test_an_unknown_family_is_said_to_be_unknown() -> None:
    """A board of class figures alone states none."""
    plan = kit("any-middle-card", "S01", "M02", image={**IMAGE, "families": ["Marlpit"]})
    (finding,) = told(checked(plan), "SOFT-01")
    assert (finding.severity, finding.sentence.text[:10]) == ("note", "Not checke")


@pytest.mark.parametrize(
    ("board", "supply", "bits", "fires"),
    [("B06", "S01", 32, False), ("B06", "S01", 64, False), ("B10", "S03", 32, True)],
)
def test_word_sizes(board: str, supply: str, bits: int, fires: bool) -> None:
    """The fast cards run 64 bits only (class figure)."""
    plan = kit(board, supply, "M02", image={**IMAGE, "bits": bits})
    assert bool(told(checked(plan), "SOFT-02")) == fires


def test_a_driver_that_has_to_be_built_is_named_once_a_line() -> None:
    """However many of the part there are."""
    (finding,) = told(checked(kit("B06", "S01", "M02", "2xX11")), "SOFT-03")
    assert finding.sentence.text.startswith(
        "The standard image has no driver for Hop AC (Wi-Fi). Build it"
    )
    assert told(checked(kit(*SMALL, "X10")), "SOFT-03") == []


def test_the_country_is_asked_for_where_a_radio_is_wanted() -> None:
    """And not where it merely is there."""
    requirements = [{"id": "r", "text": "on Wi-Fi", "function": "wifi"}]
    assert told(checked(kit(*SMALL, requirements=requirements)), "SOFT-04")
    assert told(checked(kit(*SMALL)), "SOFT-04") == []


def test_what_setting_up_takes() -> None:
    """A reader for a card; keyboard, mouse and screen for a desktop."""
    bare = kit("B06", "S01", "M02", image={**IMAGE, "desktop": True})
    (finding,) = told(checked(bare), "SOFT-05")
    assert "needs a card reader, a keyboard, a mouse and a screen with its" in (
        finding.sentence.text
    )
    full = kit("B06", "S01", "M02", "T01", "T02", "T03", "T04", image={**IMAGE, "desktop": True})
    assert told(checked(full), "SOFT-05") == []


def test_a_slot_that_is_pushed_asks_for_a_soak() -> None:
    """And runs at twice the rate: 984.6 MB/s a lane of generation 3 against 500.0 of generation 2
    (PCI Express Base specification, from memory).
    """
    parts = ("B10", "S03", "M02", "A02", "D06", "K05", "E12")
    plan, pushed = kit(*parts), kit(*parts, settings={"push_slot": True})
    links = [
        next(c.link.text for c in checked(p).fit.connections if c.plug == "D06#1.m2")
        for p in (plan, pushed)
    ]
    assert links == ["PCIe Gen 2 ×1, 500 MB/s raw", "PCIe Gen 3 ×1, 985 MB/s raw"]
    assert told(checked(plan), "SOFT-06") == []
    (finding,) = told(checked(pushed), "SOFT-06")
    assert finding.severity == "tight"
    first = propose_fixes(pushed, shipped(), finding.id)[0]
    assert first.title.text == "Run the drive slot at its certified rate"
    assert apply_patch(pushed, first.patch).settings.push_slot is False


def test_soft_05_a_drive_without_a_card_wants_something_to_write_it() -> None:
    """A card beside it does; neither a reader helps."""
    drive = kit("B10", "S03", "A04", "D03", "K05", "E03")
    lines = tuple(
        line.model_copy(update={"role": "boot_drive"}) if line.part == "D03" else line
        for line in drive.lines
    )
    (note,) = told(checked(drive.model_copy(update={"lines": lines})), "SOFT-05")
    assert "the drive" in note.sentence.text
    assert "reader" not in note.sentence.text
    assert "a card to start from first" in note.sentence.text
    with_card = drive.model_copy(update={"lines": (*lines, kit("M02").lines[0])})
    (note,) = told(checked(with_card), "SOFT-05")
    assert note.sentence.text.startswith("Set-up needs a card reader.")


@pytest.mark.parametrize(("network", "needs"), [("ethernet", ""), ("wifi", "a card reader")])
def test_soft_05_a_board_that_fetches_its_image_needs_no_reader(network: str, needs: str) -> None:
    """Where there is Ethernet for it."""
    board = {
        "id": "B90",
        "kind": "board",
        "part_class": "fast_card",
        "maker": "m",
        "model": "Board",
        "runs": {"fetches_image": True},
    }
    plan = kit("B90", "S03", "M02", place={"network": network})
    found = [f.sentence.text for f in told(checked(plan, 1, with_part(**board)), "SOFT-05")]
    assert [needs in text for text in found] == ([True] if needs else [])


def test_soft_07_wires_resistors_and_the_lead_of_a_picture() -> None:
    """Two wires each; the resistor that was worked out; silent where the lead is there."""
    lamp = {"id": "lamp", "kind": "led", "label": "lamp", "pin": 11}
    (wires,) = told(checked(kit("B06", "S01", "M02", wired=[lamp])), "SOFT-07")
    assert "2 jumper wires and 1 resistor of" in wires.sentence.text
    shows = [{"id": "it", "text": "a picture", "function": "video_out"}]
    (cable,) = told(checked(kit("B06", "S01", "M02", requirements=shows)), "SOFT-07")
    assert cable.sentence.text == ("The kit has no video cable. Hurdle 2 has a micro video port.")
    assert told(checked(kit("B06", "S01", "M02", "C12", requirements=shows)), "SOFT-07") == []
