"""The sheet of a part: where each figure comes from, and what a change of it writes."""

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
