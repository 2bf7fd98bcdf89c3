"""Where a kit of one's own stands beside those that are suggested."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from cobblewort.core.aspects.cost.aspect import ASPECT as COST
from cobblewort.core.changing.suggest.criteria import CRITERIA, CriterionId, dominates, tight_in
from cobblewort.core.changing.suggest.search import Suggested, Suggestion, Tried, bought
from cobblewort.core.text import Text
from cobblewort.core.verdict.evaluation import Evaluation


@dataclass(slots=True, frozen=True)
class OwnKit:
    """A kit's figures in each criterion, in steps too, what stops it, whatever others do, and what
    is tight.
    """

    values: dict[CriterionId, float]
    steps: tuple[int, ...]
    stopped: tuple[Text, ...]
    tight: tuple[Text, ...]


@dataclass(slots=True, frozen=True)
class Beaten:
    """The first kit that is as good in everything, and in what it is better; none where both are
    alike.
    """

    by: int
    better_in: tuple[CriterionId, ...]


def own_kit(evaluation: Evaluation, criteria: Sequence[CriterionId]) -> OwnKit:
    """A judged kit by the criteria that are asked for."""
    values = {name: CRITERIA[name].of(evaluation) for name in criteria}
    steps = tuple(CRITERIA[name].worth(values[name]) for name in criteria)
    stopped = tuple(
        finding.sentence
        for finding in evaluation.findings
        if finding.severity == "problem" and finding.family != COST.family
    )
    tight = tuple(finding.sentence for finding in tight_in(evaluation.findings))
    return OwnKit(values, steps, stopped, tight)


def beaten(own: OwnKit | Tried, kits: Sequence[Suggested]) -> Beaten | None:
    """The first of some kits that leaves one's own nothing to be better in, or None."""
    for place, kit in enumerate(kits):
        if dominates(kit.steps, own.steps):
            better = (
                name
                for name, theirs, mine in zip(own.values, kit.steps, own.steps, strict=True)
                if theirs < mine
            )
            return Beaten(place, tuple(better))
    return None


def also_tried(found: Suggestion) -> list[tuple[Tried, Beaten]]:
    """Kits that were tried and are beaten, each with what beats it first."""
    shown = {bought(kit.plan) for kit in found.kits}
    others = (one for one in found.tried if one.parts not in shown)
    told = ((one, beaten(one, found.kits)) for one in others)
    return [(one, by) for one, by in told if by is not None]
