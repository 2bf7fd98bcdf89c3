"""Any figure that a form accepts can be judged: each end of what it takes, of some the middle."""

from __future__ import annotations

import random
from collections.abc import Iterator
from functools import cache
from typing import Any

import pytest

from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.errors import InputError
from cobblewort.core.parts.model import Part
from cobblewort.core.parts.sheet import SheetFigure, with_figures
from tests.kits import checked, kit, shipped

ONE_OF_EACH = (
    "B10",
    "S03",
    "S12",
    "S30",
    "C02",
    "H03",
    "M02",
    "D06",
    "D11",
    "A06",
    "A12",
    "X04",
    "X28",
    "K03",
    "K05",
    "E03",
    "E11",
    "F01",
    "T04",
)
KITS = {
    "board": ("S03", "M02", "K03", "E03"),
    "power_supply": ("B10", "C02", "M02", "K03", "E03"),
    "cable": ("B10", "S05", "M02", "E03"),
    "hub": ("B10", "S03", "M02", "X07", "E03"),
    "card": ("B10", "S03", "E03"),
    "drive": ("B10", "S03", "M02", "A06", "A12", "E03"),
    "storage_adapter": ("B10", "S03", "M02", "D06", "D11", "E03"),
    "device": ("B10", "S03", "M02", "E03"),
    "cooler": ("B10", "S03", "M02", "E03"),
    "case": ("B10", "S03", "M02", "K03"),
    "fastener": ("B10", "S03", "M02", "A02", "D06", "E12"),
    "tool": ("B10", "S03", "M02", "E03"),
}
"""What each kind is judged beside."""
VALUES = (0, 1e-6, 0.01, 0.5, 0.92, 1, 40, 90, 2000, 1e6, -40)


def accepted(part: Part, figure: SheetFigure, *, middle: bool) -> Iterator[dict[str, Any]]:
    """Documents in which the figure has the least and the greatest value it may, or one between."""
    catalogue = shipped()

    @cache
    def with_value(value: float) -> dict[str, Any] | None:
        changed = with_figures(
            catalogue.sheet(part),
            dict(catalogue.document(part)),
            {figure.path: {"nominal": value, "basis": "estimate"}},
        )
        try:
            catalogue.complete(changed)
        except InputError:
            return None
        return changed

    rising = sorted(VALUES)
    least = next((v for v in rising if with_value(v) is not None), None)
    if least is None:
        return
    most = next(v for v in reversed(rising) if with_value(v) is not None)
    between = [v for v in rising if least < v < most] if middle else []
    for value in dict.fromkeys((least, *between[len(between) // 2 :][:1], most)):
        document = with_value(value)
        if document is not None:
            yield document


@pytest.mark.parametrize("part_id", ONE_OF_EACH)
def test_any_figure_that_a_form_accepts_can_be_judged(part_id: str, is_long: bool) -> None:
    """Every figure of the sheet in a small kit, or a fifth of them: a report, never an
    exception.
    """
    part = shipped().part(part_id)
    beside = [other for other in KITS[part.kind] if other != part_id]
    plan = kit(part_id, *beside, budget="100", place={"noise_max_dba": 30})
    tried = 0
    figures = list(enumerate(shipped().sheet(part).figures))
    if not is_long:
        figures = random.Random(part_id).sample(figures, (len(figures) + 4) // 5)
    for number, figure in figures:
        for document in accepted(part, figure, middle=number % 8 == 0):
            samples = 4 if number % 8 == 0 else 1
            report = checked(plan, samples, shipped().extended([document]))
            assert len(report.lines) == len(plan.lines), figure.path
            tried += 1
    assert tried > 0 or not is_long or part.kind in ("tool", "fastener")


def test_a_source_with_a_voltage_behind_a_converter() -> None:
    """The supply sets its rail; reports, ways out and workings are there all the same."""
    odd = {
        **shipped().document(shipped().part("S03")),
        "id": "S03",
        "rails": {"out": {"out_v": 5.0, "efficiency": 0.92}},
    }
    catalogue = shipped().extended([odd])
    plan = kit("B10", "S03", "M02", "X06", "X07", "E03")
    report = checked(plan, 16, catalogue)
    plain = checked(plan, 16)
    assert report.power.nodes[0].voltage_v == plain.power.nodes[0].voltage_v
    for finding in report.findings:
        if finding.has_fixes:
            propose_fixes(plan, catalogue, finding.id)


@pytest.mark.parametrize("efficiency", [0.92, 0.97, 1])
def test_an_efficiency_close_to_one_is_accepted(efficiency: float) -> None:
    """Its band ends at 1: nothing gives off more than it takes in."""
    own = {**shipped().document(shipped().part("S12")), "id": "S12"}
    own["source"] = {**own["source"], "efficiency": efficiency}
    source = shipped().complete(own).source
    assert source is not None
    assert source.efficiency is not None
    assert source.efficiency.high <= 1
    assert checked(kit("B10", "S12", "M02", "E03"), 16, shipped().extended([own])).heat.nodes
