"""How sure it is that a kit is beaten by no other: the share of draws in which none beats it.

Draws go by part and figure, so that two kits with the same part have the same luck with it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence

import numpy as np

from cobblewort.core.aspects.cost.aspect import ASPECT as COST
from cobblewort.core.aspects.data.model import of as data_of
from cobblewort.core.aspects.heat.aspect import ASPECT as HEAT
from cobblewort.core.aspects.lifetime.aspect import ASPECT as LIFETIME
from cobblewort.core.aspects.noise.aspect import ASPECT as NOISE
from cobblewort.core.aspects.noise.model import of as noise_of
from cobblewort.core.changing.suggest.criteria import (
    CRITERIA,
    MOST_HEADROOM_K,
    MOST_YEARS,
    CriterionId,
    mean_watts_drawn,
)
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.judging.margin import Margin, ruler_shares
from cobblewort.core.verdict.evaluation import Evaluation


def steps_drawn(evaluation: Evaluation, criteria: Sequence[CriterionId]) -> FloatArray:
    """A judged kit's place in each criterion in every draw, in steps, shape (criteria, samples)."""
    count = evaluation.kit.samples
    rows = []
    for name in criteria:
        criterion = CRITERIA[name]
        drawn = _DRAWN[name](evaluation) if name in _DRAWN else None
        if drawn is None:
            rows.append(np.full(count, float(criterion.worth(criterion.of(evaluation)))))
        else:
            rows.append(criterion.worth_of_draws(np.broadcast_to(drawn, count)))
    return np.array(rows)


def stays(steps: Sequence[FloatArray]) -> list[float]:
    """For each of some kits the share of draws in which none of the others beats it.

    Parameters
    ----------
    steps : sequence of ndarray, shape (criteria, samples)
        As `steps_drawn` tells them; sample 0 is nominal and does not count.
    """
    drawn = [own[:, 1:] for own in steps]
    shares = []
    for place, own in enumerate(drawn):
        beaten = np.zeros(own.shape[1], dtype=bool)
        for other_place, other in enumerate(drawn):
            if other_place != place:
                worse = (other > own).any(axis=0)
                alike = (other == own).all(axis=0)
                beaten |= ~worse & (~alike | (other_place < place))
        shares.append(1.0 - float(beaten.mean()) if beaten.size else 1.0)
    return shares


def _tightest(evaluation: Evaluation) -> FloatArray | None:
    shares = [
        np.maximum(0.0, share) if margin.planned == "ok" else share
        for margin, check in evaluation.checked
        if margin.family not in (COST.family, NOISE.family)
        for share in (ruler_shares(margin, check, evaluation.kit.samples),)
    ]
    return np.minimum.reduce(shares) if shares else None


def _spares(evaluation: Evaluation, family: str, unit: str) -> Iterator[tuple[Margin, FloatArray]]:
    """The spare of each margin of a kind in every draw, in the state that the margin tells."""
    for margin, check in evaluation.checked:
        if margin.family == family and margin.unit == unit:
            yield margin, check.spares(evaluation.kit.samples)[margin.states.index(margin.state)]


def _headroom_k(evaluation: Evaluation) -> FloatArray | None:
    spares = [spare for _, spare in _spares(evaluation, HEAT.family, "°C")]
    return np.minimum(MOST_HEADROOM_K, np.minimum.reduce(spares)) if spares else None


def _years(evaluation: Evaluation) -> FloatArray | None:
    years = [
        spare + margin.limit for margin, spare in _spares(evaluation, LIFETIME.family, "years")
    ]
    return np.minimum(MOST_YEARS, np.minimum.reduce(years)) if years else None


def _slowest(evaluation: Evaluation) -> FloatArray | None:
    rates = [
        np.broadcast_to(np.asarray(moved.rate_mb_s), evaluation.kit.samples)
        for situation in data_of(evaluation.kit).situations
        if not situation.worst_case
        for moved in situation.moved
    ]
    return np.minimum.reduce(rates) if rates else None


_DRAWN: dict[CriterionId, Callable[[Evaluation], FloatArray | None]] = {
    "watts": lambda evaluation: mean_watts_drawn(evaluation.kit),
    "noise": lambda evaluation: noise_of(evaluation.kit).level_dba,
    "margin": _tightest,
    "headroom": _headroom_k,
    "years": _years,
    "rate": _slowest,
}
"""A kit's figure in every draw, None where there is none; the others are the same in all."""
