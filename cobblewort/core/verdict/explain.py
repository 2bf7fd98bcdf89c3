"""`explain`: the working of one figure, asked for when somebody wants it."""

from __future__ import annotations

from typing import Literal

from cobblewort.core import words
from cobblewort.core.errors import InputError
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.rules import RULES, Rule
from cobblewort.core.judging.working import Doubt, Explained, Working
from cobblewort.core.parts.compiled import Moved
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from cobblewort.core.text import EMPTY, Text, say
from cobblewort.core.verdict.doubts import LEAST_SHARE, going_along, is_out_of_reach
from cobblewort.core.verdict.report import ASPECTS

MOST_DOUBTS = 3


def explain(plan: Plan, catalogue: Catalogue, figure: str, samples: int = 256) -> Working:
    """How a figure of the plan's report comes about.

    Parameters
    ----------
    plan, catalogue : Plan, Catalogue
        As for `evaluate`.
    figure : str
        The id of a margin, or of a figure that an aspect explains: `rail:{node}:a@{state}`
        (current), `:v@` (voltage), `:in@` (into a converter), `heat:{node}@{state}`,
        `heat:hottest_ambient`, `cost:total`.
    samples : int
        Draws from which the doubts are told; 1 leaves them out.

    Raises
    ------
    InputError
        If the report has no such figure.
    """
    kit = Kit(plan, catalogue, samples)
    found = explained(kit, figure)
    if found is None:
        raise InputError([("figure", f"The plan has no value '{figure}' any more. Reload.")])
    doubts = _doubts(kit, figure, found.values)
    measure = next((_advice(doubt) for doubt in doubts if not is_out_of_reach(doubt.label)), EMPTY)
    formula = found.formula
    return Working(
        figure,
        found.label,
        formula.words,
        formula.expression,
        formula.inputs,
        float(found.values[0]),
        found.unit,
        found.state,
        found.source,
        doubts,
        measure,
    )


def explained(kit: Kit, figure: str) -> Explained | None:
    """A margin, or a figure of an aspect; None where the kit has none of that id."""
    rule = RULES.get(figure.partition(":")[0])
    if rule is not None:
        return _margin_explained(kit, figure, rule)
    told = (aspect.explained(kit, figure) for aspect in ASPECTS if aspect.explained)
    return next((found for found in told if found is not None), None)


def _margin_explained(kit: Kit, figure: str, rule: Rule) -> Explained | None:
    for margin, check in rule.judge(kit).checked:
        if margin.id == figure and check.working is not None:
            state = check.states.ids.index(margin.state)
            spare = check.spares(kit.samples)[state]
            return Explained(
                f"Spare: {margin.label}",
                check.working(state),
                spare,
                margin.unit,
                margin.state_label,
                rule.source,
            )
    return None


def _advice(doubt: Doubt) -> Text:
    return say(
        "Measure {value}: it accounts for {share} of the likely range.",
        value=doubt.label,
        share=words.percent(doubt.share),
    )


def _doubts(kit: Kit, figure: str, values: FloatArray) -> list[Doubt]:
    """Uncertain figures by the share of the variance that goes with them, most first.

    Each share is what a figure adds to those before it (squared correlation with what they leave),
    so that figures that share a draw count once and all together come to no more than the whole.
    Among some two hundred figures one or the other goes along by chance: only those count that
    move the result when they alone are moved.
    """
    doubts: dict[str, Doubt] = {}
    before: list[FloatArray] = []
    for along in going_along(kit, values):
        own = _apart_from(along.samples, before)
        share = 0.0 if own is None else _explained_share(own, values[1:])
        if share < LEAST_SHARE or along.label in doubts:
            continue
        if own is not None and _moves(kit, figure, float(values[0]), along.part, along.path):
            doubts[along.label] = Doubt(along.label, share, along.basis)
            before.append(own)
        if len(doubts) == MOST_DOUBTS:
            break
    return sorted(doubts.values(), key=lambda doubt: -doubt.share)


def _apart_from(samples: FloatArray, before: list[FloatArray]) -> FloatArray | None:
    """What of a figure's draws does not go with those before it; None where nothing is left."""
    centred = samples - samples.mean()
    own = centred
    for other in before:
        own = own - other * (own @ other) / (other @ other)
    return own if own @ own > 1e-9 * (centred @ centred) else None


def _explained_share(own: FloatArray, drawn: FloatArray) -> float:
    """Share of the variance of a result that goes with a centred figure, 0 to 1."""
    result = drawn - drawn.mean()
    share: float = (own @ result) ** 2 / ((own @ own) * (result @ result))
    return share


def _moves(kit: Kit, figure: str, value: float, part: Part, path: str) -> bool:
    """Whether a figure of the kit is another when one figure of a part is moved."""
    plan = kit.plan.model_copy(update={"parts": ()})  # which are in the kit's catalogue already
    for end in _ENDS:
        moved = Kit(plan, kit.catalogue.with_moved(part, Moved(path, end)), 1)
        found = explained(moved, figure)
        if found is None or abs(float(found.values[0]) - value) > 1e-6 * max(1.0, abs(value)):
            return True
    return False


_ENDS: tuple[Literal["low", "high"], ...] = ("low", "high")
