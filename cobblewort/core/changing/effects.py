"""What a change does to a plan: two judgements held against each other."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal

from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.judging.severity import Severity
from cobblewort.core.verdict.evaluation import Evaluation


@dataclass(slots=True, frozen=True)
class Effect:
    """What a change does to a plan: severities by ruler, and differences against now.

    `resolves` counts the snags that stop it or make it tight now and are gone then. `cost_delta` is
    in plan currency, `source_delta_a` is at the heaviest state out of the supplies, `die_delta_k`
    in the warmest hard state; None where one side is not known.
    """

    severity: Severity
    problems: int
    tight: int
    resolves: int
    cost_delta: Decimal
    source_delta_a: float | None
    die_delta_k: float | None
    source_delta_w: float | None
    families: dict[str, Severity]


def effect_of(before: Evaluation, after: Evaluation) -> Effect:
    """How a plan after a change differs from before."""
    amps_before, watts_before = power_of(before.kit).heaviest
    amps_after, watts_after = power_of(after.kit).heaviest
    return Effect(
        severity=after.severity,
        problems=after.count("problem"),
        tight=after.count("tight"),
        resolves=len(resolved(before, after)),
        cost_delta=cost_of(after.kit).total - cost_of(before.kit).total,
        source_delta_a=_delta(amps_before, amps_after),
        die_delta_k=_delta(_warmest_c(before), _warmest_c(after)),
        source_delta_w=_delta(watts_before, watts_after),
        families=after.severities,
    )


def resolved(before: Evaluation, after: Evaluation) -> list[str]:
    """Ids of the snags that stop it or make it tight before, and are gone or mere notes after."""
    snags = ("problem", "tight")
    left = {finding.id for finding in after.findings if finding.severity in snags}
    return [f.id for f in before.findings if f.severity in snags and f.id not in left]


def _delta(before: float | None, after: float | None) -> float | None:
    return None if before is None or after is None else after - before


def _warmest_c(evaluation: Evaluation) -> float | None:
    """The die in the warmest state that must hold; None where it is not known."""
    heat = heat_of(evaluation.kit)
    if heat.board is None:
        return None
    hard = [n for n, state in enumerate(heat.states) if state.hard]
    return float(heat.wanted_die_c[hard, 0].max())
