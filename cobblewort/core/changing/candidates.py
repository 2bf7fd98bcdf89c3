"""Every part that could take a role, judged in the plan."""

from __future__ import annotations

from dataclasses import dataclass, replace
from decimal import Decimal

from cobblewort.core.changing.effects import Effect, effect_of
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.remedies import joining_cables
from cobblewort.core.parts.key_value import key_value
from cobblewort.core.parts.model import Origin
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import (
    AddLine,
    Change,
    Patch,
    SwapPart,
    apply_patch,
)
from cobblewort.core.plans.plan import KINDS_FOR_ROLE, Plan, Role
from cobblewort.core.text import EMPTY, Text
from cobblewort.core.verdict.evaluate import evaluation_of
from cobblewort.core.verdict.evaluation import Evaluation

_UNJOINED = ("FIT-09", "PWR-01")
_WORTH_SAMPLING = 6
_SAMPLES = 64
"""How many of the best are judged with their draws too, and with how many: a verdict may hang on
them."""


@dataclass(slots=True, frozen=True)
class Candidate:
    """A part for a role, checked in the plan.

    `reason` is the worst snag that it would cause, `figure` its key value. `brings` names the cable
    that comes with it, where it would not be joined to anything without.
    """

    part: str
    origin: Origin
    name: str
    maker: str
    summary: str
    figure: Text
    price: Decimal | None
    currency: str
    current: bool
    patch: Patch
    brings: str
    reason: Text
    effect: Effect


def candidates(
    plan: Plan, catalogue: Catalogue, role: Role, line_id: str | None = None
) -> list[Candidate]:
    """Every part that could take a role, evaluated in the plan at nominal figures, the best ones
    with their draws.

    With `line_id` each is tried in place of that line's part, otherwise as a new line. Those that
    bring something new that stops the plan come last, with the reason; else fewest snags first,
    then cost, and what stands for a class only after what can be bought.
    """
    own = catalogue.for_plan(plan)
    before = evaluation_of(plan, catalogue)
    known = {f.id for f in before.findings if f.severity == "problem"}
    current = plan.line(line_id).part if line_id is not None else None
    found = []
    for part in own.parts(KINDS_FOR_ROLE[role]):
        change: Change = (
            AddLine(role=role, part=part.id)
            if line_id is None
            else SwapPart(line=line_id, part=part.id)
        )
        is_current = part.id == current
        patch: Patch = (change,)
        after = before
        if not is_current:
            after = evaluation_of(apply_patch(plan, patch), catalogue, like=before)
        brings = ""
        if role != "cable" and not is_current and _lacks_a_cable(before, after):
            patch, after, brings = _with_cable(plan, catalogue, patch, before, after)
        new = [f for f in after.findings if f.severity == "problem" and f.id not in known]
        price = plan.price_of(part)
        found.append(
            Candidate(
                part=part.id,
                origin=part.origin,
                name=part.model,
                maker=part.maker,
                summary=part.summary,
                figure=key_value(part),
                price=part.price if price is None else price,
                currency=part.currency if price is None else plan.currency,
                current=is_current,
                patch=patch,
                brings=brings,
                reason=new[0].sentence if new else EMPTY,
                effect=effect_of(before, after),
            )
        )
    found.sort(key=_candidate_rank)
    sure = _with_draws(plan, catalogue, found[:_WORTH_SAMPLING])
    return sorted([*sure, *found[_WORTH_SAMPLING:]], key=_candidate_rank)


def _with_draws(plan: Plan, catalogue: Catalogue, found: list[Candidate]) -> list[Candidate]:
    """The same, by what they change where figures are as uncertain as they are."""
    before = evaluation_of(plan, catalogue, _SAMPLES)
    sure = []
    for candidate in found:
        if candidate.reason:  # what stops it at nominal figures stops it
            sure.append(candidate)
            continue
        after = before
        if not candidate.current:
            changed = apply_patch(plan, candidate.patch)
            after = evaluation_of(changed, catalogue, _SAMPLES, like=before)
        sure.append(replace(candidate, effect=effect_of(before, after)))
    return sure


def _lacks_a_cable(before: Evaluation, after: Evaluation) -> bool:
    """Whether a change leaves the board without the lead that would feed it."""
    known = {f.id for f in before.findings}
    return any(f.rule in _UNJOINED and f.id not in known for f in after.findings)


def _with_cable(
    plan: Plan, catalogue: Catalogue, patch: Patch, before: Evaluation, after: Evaluation
) -> tuple[Patch, Evaluation, str]:
    """The same change with the lead that leaves the fewest snags, the cheapest of those."""
    cables = joining_cables(Kit(apply_patch(plan, patch), catalogue, 1))
    best, brings = (patch, after), ""
    for cable in cables:
        longer: Patch = (*patch, AddLine(role="cable", part=cable.id))
        joined = evaluation_of(apply_patch(plan, longer), catalogue, like=before)
        if _snags(before, joined) < _snags(before, best[1]):
            best, brings = (longer, joined), cable.model
    return *best, brings


def _snags(before: Evaluation, after: Evaluation) -> tuple[bool, int, int]:
    """Unjoined is worse than joined with snags: those at least tell what is wrong with it."""
    return _lacks_a_cable(before, after), after.count("problem"), after.count("tight")


def _candidate_rank(candidate: Candidate) -> tuple[bool, bool, int, int, Decimal, str]:
    price = Decimal("Infinity") if candidate.price is None else candidate.price
    effect = candidate.effect
    no_real_part = candidate.origin == "typical"
    return (
        bool(candidate.reason),
        no_real_part,
        effect.problems,
        effect.tight,
        price,
        candidate.part,
    )
