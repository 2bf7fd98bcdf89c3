"""What kits are compared by: a figure each, and the step below which nobody minds a difference."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from math import ceil, inf
from typing import Literal

import numpy as np

from cobblewort.core import words
from cobblewort.core.aspects.cost.aspect import ASPECT as COST
from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.noise.aspect import ASPECT as NOISE
from cobblewort.core.aspects.noise.model import of as noise_of
from cobblewort.core.aspects.noise.model import sum_of_levels_dba
from cobblewort.core.aspects.power.daily_energy import day_energy_wh
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Margin
from cobblewort.core.parts.model import Part
from cobblewort.core.text import Figure
from cobblewort.core.verdict.evaluation import Evaluation

CriterionId = Literal["price", "watts", "noise", "margin", "tight"]

_USUAL_EFFICIENCY = 0.85
"""Of a power supply that states none: typical, from memory."""
_ROUNDING = 1e-6
"""Of a step: what arithmetic leaves of a figure that is a whole number of steps."""


@dataclass(slots=True, frozen=True)
class Criterion:
    """A figure of a kit. `step` is its resolution; more is better where `more` is set."""

    id: CriterionId
    label: str
    unit: str
    step: float
    more: bool
    of: Callable[[Evaluation], float]

    def worth(self, value: float) -> int:
        """A figure in whole steps, the less the better, rounded to the worse side."""
        steps = (-value if self.more else value) / self.step
        return ceil(steps - _ROUNDING)

    def bound(self, value: float) -> int:
        """The best that kits with a figure no better than this one can come to.

        What is worked out of a part of a kit differs by a little from what the whole comes to.
        """
        if value in (inf, -inf):
            return -(10**12)
        steps = (-value if self.more else value) / self.step
        return ceil(steps - abs(steps) * 1e-4 - _ROUNDING)


def price_of(evaluation: Evaluation) -> float:
    """What all copies cost."""
    return float(cost_of(evaluation.kit).total)


def mean_watts_of(evaluation: Evaluation) -> float:
    """Mean power at the wall over a day, by the efficiency of the power supply. [W]"""
    return mean_watts(evaluation.kit)


def mean_watts(kit: Kit) -> float:
    """The same of a kit that need not be judged. [W]"""
    drawn_w = float(day_energy_wh(kit.plan.schedule, power_of(kit))[0]) / 24
    supplies = [item.part.source for item in kit.items.of_role("power_supply")]
    source = next((own for own in supplies if own is not None), None)
    stated = None if source is None else source.efficiency
    return drawn_w / (_USUAL_EFFICIENCY if stated is None else stated.nominal)


def noise_of_kit(evaluation: Evaluation) -> float:
    """Level of all that turns, at 1 m. [dB(A)]"""
    return float(noise_of(evaluation.kit).level_dba[0])


def part_dba(part: Part) -> float:
    """Level of a part, 0 where nobody states it. [dB(A)]"""
    return 0.0 if part.noise_dba is None else part.noise_dba.nominal


def added_dba(levels_dba: Iterable[float]) -> float:
    """Several levels together; 0 stands for silence. [dB(A)]"""
    heard = [np.array(level) for level in levels_dba if level]
    return float(sum_of_levels_dba(heard)) if heard else 0.0


def margin_of_kit(evaluation: Evaluation) -> float:
    """The tightest planned margin as a share of its bar."""
    return tightest(evaluation.margins)


def tightest(margins: Iterable[Margin]) -> float:
    """The least share of a bar; cost and noise are criteria of their own. 1 where there is none.

    What is at its limit and does no harm there counts as nothing to spare, not as less.
    """
    return min(
        (
            max(0.0, margin.ruler_share) if margin.planned == "ok" else margin.ruler_share
            for margin in margins
            if margin.family not in (COST.family, NOISE.family)
        ),
        default=1.0,
    )


def tight_of(evaluation: Evaluation) -> float:
    """How much is tight, the price left out."""
    return float(len(list(tight_in(evaluation.findings))))


def tight_in(findings: Iterable[Finding]) -> Iterator[Finding]:
    """What is tight of some findings; the price is a criterion of its own."""
    return (f for f in findings if f.severity == "tight" and f.family != COST.family)


CRITERIA: dict[CriterionId, Criterion] = {
    criterion.id: criterion
    for criterion in (
        Criterion("price", "Price", "", 1, False, price_of),
        Criterion("watts", "Mean power", "W", 0.1, False, mean_watts_of),
        Criterion("noise", "Noise", "dB(A)", 0.5, False, noise_of_kit),
        Criterion("margin", "Tightest margin", "", 0.02, True, margin_of_kit),
        Criterion("tight", "Tight limits", "", 1, False, tight_of),
    )
}


def shown(criterion: Criterion, value: float, currency: str) -> Figure:
    """A figure as it is told: money in a currency, a margin in percent of its bar."""
    if criterion.id == "price":
        return words.money(value, currency)
    if criterion.id == "margin":
        return words.percent(value)
    return Figure(value, criterion.unit, 1 if criterion.step <= 0.1 else 0)


def dominates(one: Sequence[int], other: Sequence[int]) -> bool:
    """Whether one is as good in every criterion and so leaves the other nothing to be better in."""
    return all(own <= there for own, there in zip(one, other, strict=True))
