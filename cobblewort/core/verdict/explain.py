"""`explain`: the working of one figure, asked for when somebody wants it."""

from __future__ import annotations

from typing import Literal

import numpy as np

from cobblewort.core import words
from cobblewort.core.errors import InputError
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.rules import RULES, Rule
from cobblewort.core.judging.working import Doubt, Explained, Working
from cobblewort.core.parts.compiled import Moved
from cobblewort.core.parts.model import Part
from cobblewort.core.parts.names import figure_words
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from cobblewort.core.text import EMPTY, Text, say
from cobblewort.core.verdict.report import ASPECTS

MOST_DOUBTS = 3
_LEAST_SHARE = 0.02


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
    measure = next((_advice(doubt) for doubt in doubts if not _out_of_reach(doubt)), EMPTY)
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


def _out_of_reach(doubt: Doubt) -> bool:
    """Whether a hobbyist has no means to measure it."""
    return any(doubt.label.startswith(figure_words(name)) for name in _NOT_MEASURED)


def _doubts(kit: Kit, figure: str, values: FloatArray) -> list[Doubt]:
    """Uncertain figures by the share of the variance that goes with them, most first.

    Each share is what a figure adds to those before it (squared correlation with what they leave),
    so that figures that share a draw count once and all together come to no more than the whole.
    Among some two hundred figures one or the other goes along by chance: only those count that
    move the result when they alone are moved.
    """
    drawn = values[1:]
    if drawn.size < 2 or float(np.std(drawn)) < 1e-9 * max(1.0, abs(float(values[0]))):
        return []
    found = [
        (float(np.corrcoef(samples[1:], drawn)[0, 1]) ** 2, samples[1:], part, path, basis)
        for part in dict.fromkeys(item.compiled for item in kit.items)
        for path, basis, samples in part.uncertain()
    ]
    likely = sorted((f for f in found if f[0] >= _LEAST_SHARE), key=lambda f: -f[0])
    doubts: dict[str, Doubt] = {}
    before: list[FloatArray] = []
    for _, samples, compiled, path, basis in likely:
        label = f"{figure_words(path)} of {compiled.part.model}"
        own = _apart_from(samples, before)
        share = 0.0 if own is None else _explained_share(own, drawn)
        if share < _LEAST_SHARE or label in doubts:
            continue
        if own is not None and _moves(kit, figure, float(values[0]), compiled.part, path):
            doubts[label] = Doubt(label, share, basis)
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
_NOT_MEASURED = ("fan_exchange_share", "soc_share_idle", "soc_share_peak", "emissivity")
"""What a hobbyist has no means to measure."""
