"""What kits are compared by: a figure each, and the step below which nobody minds a difference."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from math import ceil, inf, log
from typing import Literal

import numpy as np

from cobblewort.core import words
from cobblewort.core.aspects.cost.aspect import ASPECT as COST
from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.data.model import of as data_of
from cobblewort.core.aspects.fit.model import stack_of
from cobblewort.core.aspects.heat.aspect import ASPECT as HEAT
from cobblewort.core.aspects.lifetime.aspect import ASPECT as LIFETIME
from cobblewort.core.aspects.noise.aspect import ASPECT as NOISE
from cobblewort.core.aspects.noise.model import of as noise_of
from cobblewort.core.aspects.noise.model import sum_of_levels_dba
from cobblewort.core.aspects.power.daily_energy import day_energy_wh
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Margin
from cobblewort.core.parts.model import Part
from cobblewort.core.text import Figure
from cobblewort.core.verdict.evaluation import Evaluation

CriterionId = Literal[
    "price", "watts", "noise", "margin", "headroom", "litres", "years", "rate", "work", "tight"
]

_USUAL_EFFICIENCY = 0.85
"""Of a power supply that states none: typical, from memory."""
_ROUNDING = 1e-6
"""Of a step: what arithmetic leaves of a figure that is a whole number of steps."""
MOST_HEADROOM_K = 20.0
MOST_YEARS = 10.0
"""Beyond these nobody gains from more."""
_MOST_MB_S = 1e5
"""Stands for the rate where nothing is transferred."""
_BY_HAND = frozenset({"FIT-21", "FIT-30", "FIT-38", "SOFT-03", "SOFT-07"})
"""Rules that tell of work: to open the case, to cut, to build a driver, to wire."""


@dataclass(slots=True, frozen=True)
class Criterion:
    """A figure of a kit. `step` is its resolution, a share of the figure where it is `relative`;
    more is better where `more` is set. `help` says in a sentence what it is.

    `best` is what no kit betters. `begun` is the best that a kit can come to of which a part is
    judged, None where nothing more is known before the whole; `fed` says that it is known once
    there is a power supply.
    """

    id: CriterionId
    label: str
    help: str
    unit: str
    step: float
    more: bool
    of: Callable[[Evaluation], float]
    best: float = 0.0
    begun: Callable[[Evaluation], float] | None = None
    fed: bool = False
    relative: bool = False

    def worth(self, value: float) -> int:
        """A figure in whole steps, the less the better, rounded to the worse side."""
        return ceil(self._steps(value) - _ROUNDING)

    def worth_of_draws(self, values: FloatArray) -> FloatArray:
        """The same of a figure in every draw."""
        if self.relative:
            values, step = np.log(np.maximum(values, 1e-6)), log(1 + self.step)
        else:
            step = self.step
        return np.ceil((-values if self.more else values) / step - _ROUNDING)

    def bound(self, value: float) -> int:
        """The best that kits with a figure no better than this one can come to.

        What is worked out of a part of a kit differs by a little from what the whole comes to.
        """
        if value in (inf, -inf):
            return -(10**12)
        steps = self._steps(value)
        return ceil(steps - abs(steps) * 1e-4 - _ROUNDING)

    def _steps(self, value: float) -> float:
        if self.relative:
            value, step = log(max(value, 1e-6)), log(1 + self.step)
        else:
            step = self.step
        return (-value if self.more else value) / step


def price_of(evaluation: Evaluation) -> float:
    """What all copies cost."""
    return float(cost_of(evaluation.kit).total)


def mean_watts_of(evaluation: Evaluation) -> float:
    """Mean power at the wall over a day, by the efficiency of the power supply. [W]"""
    return mean_watts(evaluation.kit)


def mean_watts(kit: Kit) -> float:
    """The same of a kit that need not be judged. [W]"""
    return float(mean_watts_drawn(kit)[0])


def mean_watts_drawn(kit: Kit) -> FloatArray:
    """The same in every draw, shape (samples,), behind a supply of nominal efficiency. [W]"""
    drawn_w = day_energy_wh(kit.plan.schedule, power_of(kit)) / 24
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


def headroom_k(evaluation: Evaluation) -> float:
    """Degrees to the nearest limit of temperature, 20 at most. [K]"""
    spare = (m.spare for m in evaluation.margins if m.family == HEAT.family and m.unit == "°C")
    return min(MOST_HEADROOM_K, min(spare, default=MOST_HEADROOM_K))


def litres_of(evaluation: Evaluation) -> float:
    """Outside volume of the case; of the boards where there is none. [l]"""
    stack = stack_of(evaluation.kit)
    litres = None if stack.case is None else case_litres(stack.case.part)
    if litres is not None:
        return litres
    main = None if stack.board is None else stack.board.part.stack
    if main is None:
        return 0.0
    reached = [stack.reach_mm("above"), stack.reach_mm("below")]
    high_mm = main.thickness_mm.nominal + sum(float(one[1][0]) for one in reached if one)
    return main.length_mm * main.width_mm * high_mm / 1e6


def case_litres(part: Part) -> float | None:
    """Outside volume of a case; None of what is none. [l]"""
    case = part.case
    if case is None:
        return None
    inner = (case.inner_length_mm, case.inner_width_mm, case.inner_height_mm)
    length, width, height = (side + 2 * case.wall_mm for side in inner)
    return length * width * height / 1e6


def years_of(evaluation: Evaluation) -> float:
    """Years of what lasts least, ten at most."""
    years = (
        m.value for m in evaluation.margins if m.family == LIFETIME.family and m.unit == "years"
    )
    return min(MOST_YEARS, min(years, default=MOST_YEARS))


def slowest_mb_s(evaluation: Evaluation) -> float:
    """Rate of the slowest transfer, each as it is planned. [MB/s]"""
    situations = data_of(evaluation.kit).situations
    rates = (
        float(nominal(moved.rate_mb_s))
        for situation in situations
        if not situation.worst_case
        for moved in situation.moved
    )
    return min(rates, default=_MOST_MB_S)


def work_of(evaluation: Evaluation) -> float:
    """How much there is to do by hand beside plugging together: cut, wire, build a driver; each
    cable between others counts too.
    """
    told = sum(finding.rule in _BY_HAND for finding in evaluation.findings)
    return float(told + _between(evaluation.kit))


def _work_begun(evaluation: Evaluation) -> float:
    return float(sum(one.rule in _BY_HAND for one in told_of(evaluation)))


def _between(kit: Kit) -> int:
    """Cables that lie between a port and another part's own cable."""
    cables = kit.items.of_role("cable")
    return sum(any(s.role == "host" for s in one.part.sockets.values()) for one in cables)


def tight_of(evaluation: Evaluation) -> float:
    """How much is tight, the price left out."""
    return float(len(list(tight_in(evaluation.findings))))


def tight_in(findings: Iterable[Finding]) -> Iterator[Finding]:
    """What is tight of some findings; the price is a criterion of its own."""
    return (f for f in findings if f.severity == "tight" and f.family != COST.family)


def told_of(evaluation: Evaluation) -> Iterator[Finding]:
    """What the rules said that were asked."""
    return (one for outcome in evaluation.outcomes.values() for one in outcome.findings)


CRITERIA: dict[CriterionId, Criterion] = {
    criterion.id: criterion
    for criterion in (
        Criterion("price", "Price", "What you pay for all parts.", "", 1, False, price_of),
        Criterion(
            "watts",
            "Mean power",
            "Average power at the wall over your daily schedule.",
            "W",
            0.1,
            False,
            mean_watts_of,
            begun=mean_watts_of,
            fed=True,
        ),
        Criterion(
            "noise",
            "Noise",
            "Fans and hard disks together, heard at 1 m.",
            "dB(A)",
            0.5,
            False,
            noise_of_kit,
            begun=noise_of_kit,
            fed=True,
        ),
        Criterion(
            "margin",
            "Tightest margin",
            "The least spare of all limits, as a share of the limit. At 0 % a limit is reached.",
            "",
            0.02,
            True,
            margin_of_kit,
            1.0,
            margin_of_kit,
            fed=True,
        ),
        Criterion(
            "headroom",
            "Temperature headroom",
            "Degrees to the nearest temperature limit on the hottest day; 20 are enough.",
            "°C",
            1,
            True,
            headroom_k,
            MOST_HEADROOM_K,
        ),
        Criterion("litres", "Volume", "Outside volume of the case.", "l", 0.05, False, litres_of),
        Criterion(
            "years",
            "Lifetime",
            "Years until the first part is worn out, ten at most.",
            "years",
            0.5,
            True,
            years_of,
            MOST_YEARS,
            years_of,
        ),
        Criterion(
            "rate",
            "Slowest transfer",
            "Rate of the slowest of your transfers.",
            "MB/s",
            0.05,
            True,
            slowest_mb_s,
            _MOST_MB_S,
            relative=True,
        ),
        Criterion(
            "work",
            "Manual work",
            "Holes to cut, wires, drivers to build, cables between others.",
            "",
            1,
            False,
            work_of,
            begun=_work_begun,
        ),
        Criterion(
            "tight",
            "Tight limits",
            "How many limits are tight.",
            "",
            1,
            False,
            tight_of,
            begun=lambda begun: float(len(list(tight_in(told_of(begun))))),
        ),
    )
}
USUAL: tuple[CriterionId, ...] = ("price", "watts", "noise", "margin")
"""By what kits are compared unless somebody chooses."""


def shown(criterion: Criterion, value: float, currency: str) -> Figure:
    """A figure as it is told: money in a currency, a margin in percent of its bar."""
    if criterion.id == "price":
        return words.money(value, currency)
    if criterion.id == "margin":
        return words.percent(value)
    decimals = 2 if criterion.step < 0.1 else 1 if criterion.step < 1 else 0
    return Figure(value, criterion.unit, decimals, criterion.id == "headroom")


def dominates(one: Sequence[int], other: Sequence[int]) -> bool:
    """Whether one is as good in every criterion and so leaves the other nothing to be better in."""
    return all(own <= there for own, there in zip(one, other, strict=True))
