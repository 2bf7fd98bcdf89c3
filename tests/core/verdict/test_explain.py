import ast
import math
import operator
from collections.abc import Callable
from typing import Any

import pytest

from cobblewort.core.errors import InputError
from cobblewort.core.judging.working import Working
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from cobblewort.core.verdict.explain import explain
from cobblewort.core.verdict.report import Report
from cobblewort.formats.shipped import shipped_classes, shipped_parts
from tests.kits import SMALL, checked, demo, kit, shipped

BIG = kit(
    "B10",
    "S05",
    "C02",
    "M02",
    "A06",
    "D06",
    "D04",
    "H03",
    "A12",
    "D11",
    "X06",
    "X07",
    "K05",
    "E03",
    budget="500",
    place={"ambient_max_c": 43},
)
TO_AND_FRO: list[dict[str, Any]] = [
    {"id": "in", "text": "in", "source": "network", "target": "storage", "amount_gb": 200},
    {
        "id": "out",
        "text": "out",
        "source": "storage",
        "target": "network",
        "amount_gb": 20,
        "protocol": "older",
    },
    {
        "id": "ok",
        "text": "ok",
        "source": "audio_in",
        "target": "storage",
        "stream_mb_s": 2,
        "hours_a_day": 3,
    },
    {"id": "image", "text": "image", "source": "boot_drive", "target": "storage", "amount_gb": 3},
]
PLANS = {
    "small": kit(*SMALL, budget="90"),
    "big": BIG,
    "open": kit("B10", "S03", "M02", "K07", "E01"),
    "bare": kit("B06", "S07", "C04", "M02", "E04"),
    "above": kit("B10", "S03", "M02", "K03", "A02", "D06", "E03"),
    "twins": kit(
        "B10",
        "S01",
        "M02",
        "D11",
        "K05",
        "E03",
        schedule=[
            {"name": "work", "hours": 12, "activity": "idle"},
            {"name": "work", "hours": 12, "activity": "full"},
        ],
    ),
    "choir": demo("choir-recorder"),
    "moss": demo("moss-cabinet"),
    "parity": kit(
        "B06",
        "S01",
        "M02",
        "4xD09",
        "4xA12",
        "H03",
        "E01",
        transfers=TO_AND_FRO,
        storage_use={"layout": "double_parity", "encrypted": True, "file_system": "checksummed"},
    ),
    "mirror": kit(
        "B04",
        "S06",
        "M02",
        "X07",
        "2xD11",
        "2xA12",
        "H03",
        "E01",
        transfers=TO_AND_FRO,
        storage_use={"layout": "mirror"},
    ),
    "hot": kit("B10", "S03", "M02", "A04", "D03", "E04", transfers=TO_AND_FRO),
    "wifi": kit("B07", "S01", "M05", "E01", transfers=TO_AND_FRO, place={"network": "wifi"}),
    "solar": kit(
        "B06",
        "S33",
        "M02",
        "K06",
        "E03",
        "A12",
        "D11",
        place={"power": "solar", "noise_max_dba": 30},
    ),
}

OPERATORS: dict[type[ast.operator], Callable[[float, float], float]] = {
    ast.Add: operator.add,
    ast.Sub: operator.sub,
    ast.Mult: operator.mul,
    ast.Div: operator.truediv,
    ast.Pow: operator.pow,
}


def worked_out(working: Working) -> float:
    """The expression with the values of its inputs: arithmetic, min, max, sqrt, log10, no more."""
    values = {term.symbol: term.value for term in working.inputs}
    assert len(values) == len(working.inputs), "two inputs share a symbol"

    def value(node: Any) -> float:
        match node:
            case ast.BinOp():
                return OPERATORS[type(node.op)](value(node.left), value(node.right))
            case ast.Name():
                return values[node.id]
            case ast.Constant():
                return float(node.value)
            case ast.Call(func=ast.Name(id="min" | "max" | "sqrt" | "log10" as name)):
                function = {"min": min, "max": max, "sqrt": math.sqrt, "log10": math.log10}[name]
                return function(*map(value, node.args))
        raise AssertionError(f"not plain arithmetic: {ast.dump(node)}")

    return value(ast.parse(working.expression, mode="eval").body)


def figures(report: Report) -> list[str]:
    """Every figure of a report that can be asked about."""
    found = [margin.id for margin in report.margins]
    for node in report.power.nodes:
        for state in report.power.states:
            found += [f"rail:{node.id}:{quantity}@{state.id}" for quantity in "av"]
    for heat_node in report.heat.nodes:
        found += [f"heat:{heat_node.id}@{state.id}" for state in report.heat.states]
    for situation in report.data.situations:
        found += [link.figure for moved in situation.moved for link in moved.links]
    return [*found, "heat:hottest_ambient", "cost:total"]


@pytest.mark.parametrize("name", list(PLANS))
def test_every_working_gives_its_figure(name: str) -> None:
    """Worked out from its stated inputs and formula, each figure of the report comes out."""
    plan: Plan = PLANS[name]
    report = checked(plan)
    margins = {margin.id: margin for margin in report.margins}
    for figure in figures(report):
        working = explain(plan, shipped(), figure, samples=1)
        # The case is iterated to a few hundredths of a kelvin; all else is exact.
        slack = 0.1 if figure.startswith("heat:") else 1e-5
        assert worked_out(working) == pytest.approx(working.result, rel=1e-5, abs=slack), figure
        if figure in margins:
            assert working.result == pytest.approx(margins[figure].spare, abs=1e-9)
            assert working.state == margins[figure].state_label
        assert working.source
        assert working.words


@pytest.mark.parametrize("name", ["big", "small", "bare", "twins"])
def test_what_an_input_refers_to_has_the_value_that_is_stated(name: str) -> None:
    """Following an input to its own working gives the same number, all the way down."""
    plan: Plan = PLANS[name]
    queue = [margin.id for margin in checked(plan).margins]
    seen: set[str] = set()
    while queue:
        figure = queue.pop()
        if figure in seen:
            continue
        seen.add(figure)
        for term in explain(plan, shipped(), figure, samples=1).inputs:
            if term.figure is not None:
                there = explain(plan, shipped(), term.figure, samples=1)
                assert there.result == pytest.approx(term.value, rel=1e-9, abs=1e-9), term.figure
                queue.append(term.figure)
    assert any(figure.startswith("rail:") for figure in seen)
    assert any(figure.startswith("heat:") for figure in seen)


def test_inputs_say_what_they_rest_on() -> None:
    """A maker's figure, a class figure, the plan and a standard are told apart."""
    working = explain(BIG, shipped(), "PWR-02:S05#1.out", samples=1)
    basis = {term.symbol: term.basis for term in working.inputs}
    assert basis == {
        "I_rated": "datasheet",
        "k": "datasheet",
        "T": "plan",
        "T_full": "datasheet",
        "I": "calculated",
    }
    flag = explain(BIG, shipped(), "PWR-07:X07#1", samples=1)
    assert {term.basis for term in flag.inputs} == {"calculated", "standard"}
    brownout = explain(BIG, shipped(), "PWR-06:B10#1.brownout", samples=1)
    assert "typical" in {term.basis for term in brownout.inputs}


def test_doubts_name_what_makes_a_band_wide() -> None:
    """The die's band in a vented case with a clip-on: resistances and draw, widest first."""
    working = explain(BIG, shipped(), "HEAT-01:B10#1.die")
    assert 1 <= len(working.doubts) <= 3
    shares = [doubt.share for doubt in working.doubts]
    assert shares == sorted(shares, reverse=True)
    assert any(doubt.label in working.measure.text for doubt in working.doubts)


def test_nobody_is_sent_to_measure_what_cannot_be_measured() -> None:
    """How much a fan moves through the vents is the widest doubt; the advice is the next one."""
    working = explain(BIG, shipped(), "HEAT-01:B10#1.die")
    assert working.doubts[0].label.startswith("the share of air that")
    assert "through the vents" not in working.measure.text


def test_a_voltage_is_in_doubt_for_its_supply_and_its_limit() -> None:
    """The set voltage's tolerance is among what makes the flag's margin wide."""
    labels = [d.label for d in explain(PLANS["small"], shipped(), "PWR-06:B06#1.flag").doubts]
    assert any("the set voltage of Kettle 15" in label for label in labels)


def test_what_has_no_band_has_no_doubts() -> None:
    """A sum of prices is not uncertain."""
    assert explain(BIG, shipped(), "cost:total").doubts == []


@pytest.mark.parametrize(
    "figure",
    [
        "",
        "nope",
        "PWR-02:none",
        "rail:none:a@idle",
        "rail:B10#1.main:x@idle",
        "rail:B10#1.main:a@never",
        "heat:die@never",
        "heat:moon@idle",
        "NEED-01:x",
        "cost:none",
    ],
)
def test_a_figure_that_is_not_there(figure: str) -> None:
    """A sentence, never a traceback."""
    with pytest.raises(InputError, match="has no value"):
        explain(BIG, shipped(), figure, samples=1)


@pytest.mark.parametrize("name", ["big", "choir"])
def test_a_working_is_the_same_whatever_was_judged_before(name: str) -> None:
    """With a catalogue that nobody has used, and with one that has judged other plans."""
    plan: Plan = PLANS[name]
    used = shipped()
    for other in PLANS.values():
        checked(other, 64, used)
    margins = [margin.id for margin in checked(plan, 1).margins]
    for figure in [*margins[::3], "heat:hottest_ambient"]:
        fresh = Catalogue.from_documents(shipped_parts(), shipped_classes())
        assert explain(plan, used, figure, 64) == explain(plan, fresh, figure, 64), figure


def test_only_what_moves_a_figure_is_doubted() -> None:
    """The wall of a case goes along with a current by chance, and has no part in it."""
    plan: Plan = PLANS["big"]
    doubted = set()
    for margin in checked(plan).margins:
        if margin.family == "power":
            doubted |= {doubt.label for doubt in explain(plan, shipped(), margin.id, 64).doubts}
    assert any("draw" in label for label in doubted)
    assert not [label for label in doubted if shipped().part("E03").model in label]


def test_a_doubt_of_a_part_that_the_plan_carries() -> None:
    """Its figures are moved like any other."""
    own = {
        **shipped().document(shipped().part("A12")),
        "id": "P1",
        "model": "Mine",
        "loads": {
            "own": {"idle": [0.1, 0.3, 0.9], "normal": [0.2, 0.8, 2.0], "peak": [0.2, 1.0, 3.0]}
        },
    }
    lines = [*kit(*SMALL).lines, {"id": "mine", "role": "add_on", "part": "P1"}]
    plan = Plan.model_validate({"name": "carried", "lines": lines, "parts": [own]})
    board = next(m for m in checked(plan).margins if m.rule == "PWR-02")
    assert explain(plan, shipped(), board.id).doubts[0].label == "the draw of Mine"
