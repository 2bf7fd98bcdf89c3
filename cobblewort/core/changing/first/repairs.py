"""Ways out of what is wrong with a draft, and how wrong it is."""

from __future__ import annotations

from cobblewort.core.aspects.purpose.model import RequirementResult
from cobblewort.core.changing.first.draft import SAMPLES, Draft, Shop
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.errors import InputError
from cobblewort.core.judging.findings import Finding
from cobblewort.core.plans.patch import Patch, apply_patch
from cobblewort.core.plans.plan import Plan
from cobblewort.core.text import say
from cobblewort.core.verdict.evaluate import evaluation_of
from cobblewort.core.verdict.evaluation import Evaluation

_MOST_REPAIRS = 3


def repaired(
    shop: Shop, draft: Draft, checked: Evaluation, families: tuple[str, ...]
) -> Evaluation:
    """Take the best ways out of what stops it, while they lead to fewer snags."""
    for _ in range(_MOST_REPAIRS):
        stopping = (f for f in checked.findings if f.severity == "problem" and f.has_fixes)
        snag = next((f for f in stopping if f.family in families), None)
        after = None if snag is None else _without(shop, draft, snag, 1)
        if snag is None or after is None or after.count("problem") >= checked.count("problem"):
            return checked
        checked = _taken(shop, draft, after, snag)
    return checked


def eased(shop: Shop, draft: Draft, checked: Evaluation) -> Evaluation:
    """Take ways out of what is tight too, once nothing stops it; judged with its draws."""
    for snag in tight(checked)[:_MOST_REPAIRS]:
        if checked.count("problem") or not snag.has_fixes or checked.finding(snag.id) is None:
            continue
        after = _without(shop, draft, snag, SAMPLES)
        if after is None or after.count("problem") or len(tight(after)) >= len(tight(checked)):
            continue
        shop.passed_over.setdefault(draft.plan.line("board").part, draft.plan)
        checked = _taken(shop, draft, after, snag)
    return checked


def _without(shop: Shop, draft: Draft, snag: Finding, samples: int) -> Evaluation | None:
    """The draft after the best way out of a snag that keeps what was chosen for a need."""
    try:
        fixes = propose_fixes(draft.plan, shop.catalogue, snag.id, samples, chains=False)
    except InputError:
        return None
    fix = next((f for f in fixes if not _removes(draft.plan, f.patch)), None)
    if fix is None:
        return None
    return evaluation_of(apply_patch(draft.plan, fix.patch), shop.catalogue, samples)


def _taken(shop: Shop, draft: Draft, after: Evaluation, snag: Finding) -> Evaluation:
    """Go on from a way out of a snag, and say what it settles."""
    before = {line.id: line.part for line in draft.plan.lines}
    draft.plan = after.kit.plan
    for line in draft.plan.lines:
        if before.get(line.id) != line.part:
            draft.reasons[line.id] = say("Fixes: {snag}", snag=snag.sentence)
    return after


def tight(checked: Evaluation) -> list[Finding]:
    """What is tight in a kit apart from its cost."""
    return [f for f in checked.findings if f.severity == "tight" and f.family != "cost"]


def stopping(checked: Evaluation) -> int:
    """What stops a kit apart from its cost, which no further part makes less."""
    return sum(f.severity == "problem" and f.family != "cost" for f in checked.findings)


def lacking_of(result: RequirementResult) -> int:
    """How far a kit is from a need: 1 for too little, 2 for nothing of it."""
    return {"too_little": 1, "missing": 2}.get(result.reason, 0)


def _removes(plan: Plan, patch: Patch) -> bool:
    """Whether a way out takes something away that was chosen for a need, asks for another place, or
    for a setting, which is its owner's choice.
    """
    roles = {line.id: line.role for line in plan.lines}
    return any(
        (c.op == "remove" and roles.get(c.line) != "cable")
        or (c.op == "set" and c.fields.keys() & {"place", "settings", "storage_use"})
        for c in patch
    )
