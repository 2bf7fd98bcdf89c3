"""The sheet of a part: where each figure comes from, and what a change of it writes."""

from collections import Counter
from typing import Any

import pytest

from cobblewort.core.errors import InputError
from cobblewort.core.parts.sheet import PartSheet, changed_figures, with_figures
from tests.kits import shipped

DOCUMENT: dict[str, Any] = {
    "id": "mine",
    "kind": "board",
    "part_class": "middle_card",
    "maker": "m",
    "model": "Mine",
    "price": "40",
    "loads": {"own": {"peak": 6.5}},
    "stack": {"above_mm": 17},
}


def sheet(document: dict[str, Any] = DOCUMENT) -> PartSheet:
    """The sheet of a document."""
    catalogue = shipped().extended([document])
    return catalogue.sheet(catalogue.part("mine"))


def figure(of: PartSheet, path: str) -> Any:
    """One figure of a sheet."""
    return next(entry for entry in of.figures if entry.path == path)


def test_each_figure_says_whose_it_is_and_what_it_falls_back_to() -> None:
    """A stated figure is the part's own; the others are the class's, with its band."""
    peak, idle = figure(sheet(), "loads.own.peak"), figure(sheet(), "loads.own.idle")
    assert (peak.own, peak.nominal, peak.unit, peak.class_nominal) == (True, 6.5, "W", 6.4)
    assert (idle.own, idle.basis, idle.nominal, idle.low) == (False, "typical", 2.7, 2.0)
    assert figure(sheet(), "board_heat.throttle_c").unit == "°C"
    assert figure(sheet(), "loads.own.start").nominal is None, "not stated, and may be"


def test_headings_follow_the_order_of_the_sheet() -> None:
    """All figures under one heading stand together."""
    groups = [entry.group for entry in sheet().figures]
    assert len(set(groups)) == sum(a != b for a, b in zip(["", *groups], groups, strict=False))


@pytest.mark.parametrize("part", shipped().parts(), ids=lambda part: part.id)
def test_every_part_of_the_catalogue_has_a_readable_sheet(part: Any) -> None:
    """A label and, unless it is a share, a unit for each figure; no path twice; no code names."""
    shown = shipped().sheet(part)
    paths = [entry.path for entry in shown.figures]
    assert len(set(paths)) == len(paths)
    for entry in shown.figures:
        assert entry.label[0].isupper()
        assert "_" not in entry.label
        bare = ("absorptance", "fins", "share", "efficiency", "emissivity")
        bare += ("soc_share_idle", "soc_share_peak", "fan_exchange_share")
        assert entry.unit or entry.path.endswith(bare), entry.path


def test_a_measured_figure_is_written_with_its_basis_and_read_back() -> None:
    """3 % either way; a data sheet's figure is written bare."""
    changed = with_figures(
        sheet(),
        DOCUMENT,
        {
            "loads.own.idle": {"nominal": 2.5, "basis": "measured"},
            "stack.length_mm": {"nominal": 85.5},
            "voltages.undervoltage_v": {"nominal": 4.7},
        },
    )
    assert changed["stack"] == {"above_mm": 17, "length_mm": 85.5}
    assert changed["voltages"] == {"undervoltage_v": 4.7}
    idle = figure(sheet(changed), "loads.own.idle")
    assert (idle.own, idle.basis, idle.low) == (True, "measured", pytest.approx(2.425))
    assert DOCUMENT["loads"] == {"own": {"peak": 6.5}}, "the old document is as it was"


def test_an_emptied_figure_falls_back_to_its_class() -> None:
    """Taken out of the document with what it leaves empty."""
    changed = with_figures(sheet(), DOCUMENT, {"loads.own.peak": None})
    assert "loads" not in changed
    assert figure(sheet(changed), "loads.own.peak").nominal == 6.4


def test_a_figure_that_a_part_cannot_have_is_refused() -> None:
    """With its path; nothing is written."""
    with pytest.raises(InputError, match=r"cooler\.height_mm: this part has no such value"):
        with_figures(sheet(), DOCUMENT, {"cooler.height_mm": {"nominal": 3}})


def test_what_changed_is_told_in_words() -> None:
    """Each figure with its unit, before and after; the price too; nothing for the same."""
    changed = with_figures(sheet(), DOCUMENT, {"loads.own.peak": {"nominal": 7.2}})
    changed["price"] = None
    assert changed_figures(sheet(), sheet(changed)) == [
        "price: €40 to no price",
        "draw at peak load: 6.5 W to 7.2 W",
    ]
    assert changed_figures(sheet(), sheet()) == []
    renamed = {**DOCUMENT, "model": "Other"}
    assert changed_figures(sheet(), sheet(renamed)) == ["name or description"]


def test_every_card_and_drive_is_asked_for_its_capacity() -> None:
    """Though its class cannot say it; what is typed then is what it holds."""
    for part in shipped().parts(("card", "drive")):
        paths = [figure.path for figure in shipped().sheet(part).figures]
        assert paths.count("storage.capacity_gb") == 1, part.id
    card = shipped().part("any-memory-card")
    sheet = shipped().sheet(card)
    document = with_figures(sheet, {"id": "own"}, {"storage.capacity_gb": {"nominal": 64}})
    assert document["storage"] == {"capacity_gb": 64}


def test_no_figure_is_asked_for_twice() -> None:
    """No two of a part have one label under one heading."""
    for part in shipped().parts():
        named = Counter((f.group, f.label) for f in shipped().sheet(part).figures)
        assert [name for name, times in named.items() if times > 1] == [], part.id


def doubts(part_class: str, kind: str, **own: Any) -> dict[str, str]:
    """What is hard to believe of a part of a class that states these figures, by path."""
    document = {**DOCUMENT, "kind": kind, "part_class": part_class, **own}
    del document["loads"], document["stack"]
    return {f.path: f.doubt.text for f in sheet(document).figures if f.doubt is not None}


def test_a_figure_far_from_what_is_typical_is_doubted() -> None:
    """A slip of the key or unit is told; what a good or poor part may well have is not."""

    def supply(volts: float) -> dict[str, str]:
        return doubts("usb_c_fixed", "power_supply", source={"set_v": volts, "rated_a": 3})

    def shell(above_mm: float) -> dict[str, str]:
        case = {"max_above_mm": above_mm, "inner_height_mm": 40}
        return doubts("vented_plastic", "case", case=case)

    assert list(supply(3000).values()) == ["3000 V is far above the typical 5.1 V."]
    assert supply(0.5).keys() == {"source.set_v"}
    assert (supply(5.25), supply(12)) == ({}, {})
    assert shell(60) == {
        "case.max_above_mm": "60.0 mm above the board, in a case with an inner height of 40.0 mm."
    }
    assert shell(30) == {}


def test_nobody_doubts_what_is_shipped() -> None:
    """No part of the catalogue has a figure that is called far off."""
    found = {
        (part.id, figure.path): figure.doubt.text
        for part in shipped().parts()
        for figure in shipped().sheet(part).figures
        if figure.doubt is not None
    }
    assert found == {}
