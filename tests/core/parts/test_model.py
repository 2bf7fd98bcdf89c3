import math
from typing import Any

import pytest

from cobblewort.core.errors import InputError
from cobblewort.core.parts.model import PART, Part
from tests.kits import checked, kit, shipped

ABSURD: list[Any] = [0, -1, -1e9, 1e9, math.nan, math.inf, "", "much", True, [], {}, [3, 2, 1]]


def paths(value: Any, path: tuple[str, ...] = ()) -> list[tuple[str, ...]]:
    """Where the figures of a dumped part stand."""
    if isinstance(value, dict):
        if "nominal" in value:
            return [path]
        return [found for key, item in value.items() for found in paths(item, (*path, key))]
    return []


def with_figure(part: Part, path: tuple[str, ...], figure: Any) -> dict[str, Any]:
    """The part's document with one figure replaced."""
    document = PART.dump_python(part, mode="json", exclude_none=True)
    place = document
    for step in path[:-1]:
        place = place[step]
    place[path[-1]] = figure
    return document


@pytest.mark.parametrize("part_id", ["B10", "S03", "S01", "C02", "H03", "A06", "D11", "K05", "E03"])
def test_absurd_figures_give_sentences_or_a_judgement(part_id: str) -> None:
    """Each figure of each kind of part: refused with its place, or the kit is judged."""
    parts = ["B10", "S03", "M02", "A06", "D04", "K05", "E03", "H03", "A12", "D11"]
    if part_id not in parts:
        parts = ["B10", "S05" if part_id == "C02" else "S01", "M02", "K05", "E03"]
        parts += ["C02"] if part_id == "C02" else []
    plan = kit(*parts)
    part = shipped().part(part_id)
    refused = judged_anyway = 0
    for path in paths(PART.dump_python(part, mode="json")):
        for figure in ABSURD:
            problems: list[tuple[str, str]] = []
            try:
                catalogue = shipped().extended([with_figure(part, path, figure)])
            except InputError as error:
                problems = error.problems
            if problems:
                assert all(place.startswith("parts.0") and text for place, text in problems)
                refused += 1
                continue
            report = checked(plan, 4, catalogue)
            assert all(math.isfinite(margin.spare) for margin in report.margins), (path, figure)
            judged_anyway += 1
    assert refused > judged_anyway


@pytest.mark.parametrize(
    ("field", "figure", "sentence"),
    [
        ("r_db_k_w", 0, "must be above 0"),
        ("r_ba_k_w", -3, "must be above 0"),
        ("r_jc_k_w", 1e9, "at most 1e"),
        ("soc_share_peak", 1.2, "at most 1"),
    ],
)
def test_a_thermal_figure_out_of_its_range(field: str, figure: float, sentence: str) -> None:
    """The sentence names the field and the range."""
    document = {
        "id": "x",
        "kind": "board",
        "part_class": "fast_card",
        "maker": "m",
        "model": "x",
        "board_heat": {field: figure},
    }
    with pytest.raises(InputError, match=sentence) as caught:
        shipped().extended([document])
    assert caught.value.problems[0][0] == f"parts.0.board_heat.{field}"


def test_a_load_that_falls_is_refused() -> None:
    """Idle above peak is a slip of the pen."""
    document = {
        "id": "x",
        "kind": "board",
        "part_class": "fast_card",
        "maker": "m",
        "model": "x",
        "loads": {"own": {"idle": 9, "normal": 5, "peak": 10}},
    }
    with pytest.raises(InputError, match="must rise in that order"):
        shipped().extended([document])


def test_every_shipped_part_is_named_and_priced() -> None:
    """Maker, model, summary and price for each; ids once; at least sixty of them."""
    parts = [part for part in shipped().parts() if part.origin == "pack"]
    assert len(parts) >= 60
    assert len({part.id for part in parts}) == len(parts)
    assert all(part.maker and part.model and part.summary for part in parts)
    assert all(part.price is not None or part.kind == "machine" for part in parts)
    kinds = {part.kind for part in parts}
    assert kinds >= {
        "board",
        "power_supply",
        "card",
        "drive",
        "device",
        "hub",
        "cooler",
        "case",
        "cable",
    }
