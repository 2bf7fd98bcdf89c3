"""`explain`: the working of one figure, asked for when somebody wants it."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from cobblewort.core import words
from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.aspects.heat.workings import heat_sum
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.aspects.power.workings import converter_input_sum, current_sum, voltage_sum
from cobblewort.core.errors import InputError
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.judging.findings import Remark
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import margin_of
from cobblewort.core.judging.rules import RULES, Rule
from cobblewort.core.judging.working import Doubt, Sum, Term, Working, computed_term
from cobblewort.core.parts.names import figure_words
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan

MOST_DOUBTS = 3
_LEAST_SHARE = 0.02
_CIRCUIT = "Kirchhoff's and Ohm's laws; P = V I"


def explain(plan: Plan, catalogue: Catalogue, figure: str, samples: int = 256) -> Working:
    """How a figure of the plan's report comes about.

    Parameters
    ----------
    plan, catalogue : Plan, Catalogue
        As for `evaluate`.
    figure : str
        The id of a margin, or `rail:{node}:a@{state}` (current), `:v@` (voltage), `:in@` (into a
        converter), `heat:{node}@{state}`, `heat:hottest_ambient`, `cost:total`.
    samples : int
        Draws from which the doubts are told; 1 leaves them out.

    Raises
    ------
    InputError
        If the report has no such figure.
    """
    kit = Kit(plan, catalogue, samples)
    kind, _, rest = figure.partition(":")
    if kind in RULES:
        return _margin_working(kit, figure, RULES[kind], rest)
    if kind == "rail":
        return _rail_working(kit, figure, rest)
    if kind == "heat" and heat_of(kit).board is not None:
        found = heat_sum(kit, rest)
        if found is not None:
            label, unit, values, state, formula = found
            source = RULES["HEAT-01"].source
            return _working(kit, figure, label, formula, values, unit, state, source)
    if figure == "cost:total":
        return _cost_working(kit)
    raise _unknown(figure)


def _unknown(figure: str) -> InputError:
    return InputError([("figure", f"the plan has no figure '{figure}' now; look again")])


def _margin_working(kit: Kit, figure: str, rule: Rule, subject: str) -> Working:
    for outcome in rule.function(kit):
        if isinstance(outcome, Remark) or outcome.subject != subject or outcome.working is None:
            continue
        margin = margin_of(rule.id, rule.family, outcome, kit.samples)
        state = list(outcome.states).index(margin.state)
        spare = outcome.spares(kit.samples)[state]
        formula = outcome.working(state)
        return _working(
            kit, figure, f"Spare: {margin.label}", formula, spare, margin.unit, margin.state,
            rule.source,
        )  # fmt: skip
    raise _unknown(figure)


def _rail_working(kit: Kit, figure: str, rest: str) -> Working:
    name, _, tail = rest.rpartition(":")
    quantity, _, state_id = tail.partition("@")
    power = power_of(kit)
    place = power.index(name)
    states = [state.id for state in power.states]
    if place is None or state_id not in states or quantity not in ("a", "v", "in"):
        raise _unknown(figure)
    state = states.index(state_id)
    label = f"{power.nodes[place].piece.name}, {power.nodes[place].rail.label}"
    build, values, unit = {
        "a": (current_sum, power.current_a, "A"),
        "v": (voltage_sum, power.voltage_v, "V"),
        "in": (converter_input_sum, power.input_a, "A"),
    }[quantity]
    return _working(
        kit, figure, f"{'Voltage at' if unit == 'V' else 'Current into'} {label}",
        build(kit, place, state), values[place, state], unit, power.states[state].label, _CIRCUIT,
    )  # fmt: skip


def _cost_working(kit: Kit) -> Working:
    inputs: list[Term] = []
    for cost in cost_of(kit).lines:
        if cost.to_pay:
            name = kit.catalogue.of_line(kit.plan.line(cost.line)).model
            symbol = f"c_{len(inputs) + 1}"
            inputs.append(computed_term(symbol, name, kit.plan.currency, float(cost.to_pay), None))
    formula = Sum("what is neither owned nor borrowed, added up",
                  " + ".join(term.symbol for term in inputs) or "0", inputs)  # fmt: skip
    total = np.full(kit.samples, float(cost_of(kit).total))
    source = RULES["COST-01"].source
    return _working(kit, "cost:total", "The bill", formula, total, kit.plan.currency, "", source)


def _working(
    kit: Kit, figure: str, label: str, formula: Sum, values: FloatArray, unit: str, state: str,
    source: str,
) -> Working:  # fmt: skip
    doubts = _doubts(kit, values)
    measure = next((_advice(doubt) for doubt in doubts if not _out_of_reach(doubt)), "")
    return Working(
        figure, label, formula.words, formula.expression, formula.inputs, float(values[0]), unit,
        state, source, doubts, measure,
    )  # fmt: skip


def _advice(doubt: Doubt) -> str:
    return f"Measure {doubt.label}: it accounts for {words.percent(doubt.share)} of the band."


def _out_of_reach(doubt: Doubt) -> bool:
    """Whether a hobbyist has no means to measure it."""
    return any(doubt.label.startswith(figure_words(name)) for name in _NOT_MEASURED)


def _doubts(kit: Kit, values: FloatArray) -> list[Doubt]:
    """Uncertain figures by the share of the variance that goes with them: squared correlation."""
    drawn = values[1:]
    if drawn.size < 2 or float(np.std(drawn)) < 1e-9 * max(1.0, abs(float(values[0]))):
        return []
    found: dict[str, Doubt] = {}
    for label, basis, figure in _uncertain(kit):
        share = float(np.corrcoef(figure[1:], drawn)[0, 1]) ** 2
        if share >= _LEAST_SHARE and (label not in found or found[label].share < share):
            found[label] = Doubt(label, share, basis)
    return sorted(found.values(), key=lambda doubt: -doubt.share)[:MOST_DOUBTS]


def _uncertain(kit: Kit) -> Iterator[tuple[str, str, FloatArray]]:
    seen: set[str] = set()
    for piece in kit.pieces:
        if piece.part.id in seen:
            continue
        seen.add(piece.part.id)
        for path, basis, values in piece.compiled.uncertain():
            yield f"{figure_words(path)} of {piece.part.model}", basis, values


_NOT_MEASURED = ("fan_exchange_share", "soc_share_idle", "soc_share_peak", "emissivity")
