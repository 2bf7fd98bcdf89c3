"""Ways out of a snag, each evaluated in the plan."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass

from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.changing.describe import describe
from cobblewort.core.changing.effects import Effect, effect_of, resolved
from cobblewort.core.errors import InputError
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.rules import RULES
from cobblewort.core.judging.severity import SEVERITY_RANK
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import (
    AddLine,
    EditLine,
    Patch,
    RemoveLine,
    SetFields,
    SwapPart,
    apply_patch,
)
from cobblewort.core.plans.plan import Plan
from cobblewort.core.text import Text
from cobblewort.core.verdict.evaluate import evaluation_of
from cobblewort.core.verdict.evaluation import Evaluation, judge_kit
from cobblewort.core.verdict.report import FamilyReport

MOST_FIXES = 6
_MOST_OF_A_LINE = 2
_WORTH_SAMPLING = 12
_HANDWORK, _DOING_WITHOUT = 1, 2
_CHAIN_STARTS = 3
_CHAIN_STEPS = 24
_MOST_CHAINS = 2
"""How many first steps, and how many second steps after each, a chain is looked for among, and how
many chains are proposed."""


_WORSE_BY = 0.02
"""A margin that shrinks by less than this share of its limit is told as unchanged."""


@dataclass(slots=True, frozen=True)
class Becomes:
    """A snag's figure before a change and after it."""

    before: float
    after: float
    unit: str


@dataclass(slots=True, frozen=True)
class Fix:
    """A patch, what it resolves, what it newly breaks, and the rulers as they would be after it.

    `becomes` is what becomes of the figure of the snag it is for, `worsens` what gets worse of
    what is wrong already.
    """

    title: Text
    patch: Patch
    resolves: list[str]
    breaks: list[Text]
    worsens: list[Text]
    becomes: Becomes | None
    effect: Effect
    after: list[FamilyReport]


def propose_fixes(plan: Plan, catalogue: Catalogue, finding_id: str, samples: int = 1) -> list[Fix]:
    """Patches that resolve a finding, best first.


    A fix is only proposed when the finding is gone after it, or less severe, and nothing new stops
    the plan. Ranked: resolves the finding wholly, breaks nothing, costs least.
    Empty where the plan has no such finding, or no longer.
    """
    before = evaluation_of(plan, catalogue, samples)
    finding = before.finding(finding_id)
    if finding is None:
        return []
    tries = _patches(before.kit, finding)
    quick = before if samples == 1 else evaluation_of(plan, catalogue)
    if quick.finding(finding_id) is not None:
        ranked = _ranked(plan, catalogue, finding, quick, tries, 1)
        if not any(finding_id in fix.resolves and not fix.breaks for fix in ranked):
            longer = _chains(plan, catalogue, finding, quick, tries)
            found = _ranked(plan, catalogue, finding, quick, longer, 1)[:_MOST_CHAINS]
            ranked = _sorted(finding, ranked + found)
        if samples == 1:
            return _shortlist(ranked, MOST_FIXES)
        tries = [fix.patch for fix in _shortlist(ranked, _WORTH_SAMPLING)]
    return _shortlist(_ranked(plan, catalogue, finding, before, tries, samples), MOST_FIXES)


def _shortlist(ranked: list[Fix], most: int) -> list[Fix]:
    """The best ones, among them one by handwork where there is any, and no more than two that
    swap one and the same line.
    """
    in_order = ranked
    swaps: Counter[str] = Counter()
    first: list[Fix] = []
    rest: list[Fix] = []
    for fix in ranked:
        line = fix.patch[0].line if isinstance(fix.patch[0], SwapPart) else None
        swaps[line or ""] += line is not None
        (rest if line is not None and swaps[line] > _MOST_OF_A_LINE else first).append(fix)
    ranked = first + rest
    best, by_hand = ranked[:most], [fix for fix in ranked[most:] if _asks(fix.patch) == _HANDWORK]
    if by_hand and all(_asks(fix.patch) != _HANDWORK for fix in best):
        best = [*best[:-1], by_hand[0]]
    return [fix for fix in in_order if fix in best]


def _patches(kit: Kit, finding: Finding) -> list[Patch]:
    """What the remedies of a finding's rule propose, each once."""
    patches: dict[str, Patch] = {}
    for remedy in RULES[finding.rule].remedies:
        patches.update((repr(patch), patch) for patch in remedy(kit, finding))
    return list(patches.values())


def _chains(
    plan: Plan, catalogue: Catalogue, finding: Finding, before: Evaluation, patches: list[Patch]
) -> list[Patch]:
    """Two steps where one does not suffice.

    The first step settles the finding and brings one new snag, which the second is to settle; or
    it leaves less of the finding, and the second goes on from there.
    """
    starts = []
    for patch in patches:
        try:
            changed = apply_patch(plan, patch)
        except InputError:
            continue
        after = evaluation_of(changed, catalogue, like=before)
        kit = after.kit
        left = after.finding(finding.id)
        new = [f for f in _worse(before, after) if f.severity == "problem"]
        if left is None and len(new) == 1:
            starts.append((0, cost_of(after.kit).total, patch, kit, new[0]))
        elif left is not None and not new and _spare(after, left) > _spare(before, finding):
            starts.append((1, cost_of(after.kit).total, patch, kit, left))
    starts.sort(key=lambda start: (start[0], start[1], repr(start[2])))
    chains = []
    for _, _, patch, kit, next_finding in starts[:_CHAIN_STARTS]:
        seconds = _patches(kit, next_finding)
        chains += [
            (*patch, *second)
            for second in [s for s in seconds if _goes_on(plan, kit.plan, s)][:_CHAIN_STEPS]
        ]
    return chains


def _goes_on(plan: Plan, changed: Plan, second: Patch) -> bool:
    """Whether a second step leaves alone what the first one did, and takes out no more than leads.

    What the first step added or swapped could have been chosen better in one step.
    """
    before = {line.id: line.part for line in plan.lines}
    touched = {line.id for line in changed.lines if before.get(line.id) != line.part}
    added = {line.part for line in changed.lines if line.id not in before}
    for change in second:
        if isinstance(change, AddLine) and change.part in added:
            return False
        if isinstance(change, SwapPart | RemoveLine) and change.line in touched:
            return False
        if isinstance(change, RemoveLine) and changed.line(change.line).role != "cable":
            return False
    return True


def _spare(evaluation: Evaluation, finding: Finding) -> float:
    """How far the margin of a finding is from its limit; nothing to tell without one."""
    margin = evaluation.margin(finding.margin or "")
    return 0.0 if margin is None else margin.spare


def _ranked(
    plan: Plan,
    catalogue: Catalogue,
    finding: Finding,
    before: Evaluation,
    patches: Iterable[Patch],
    samples: int,
) -> list[Fix]:
    fixes = []
    for patch in patches:
        fix = _tried(plan, catalogue, finding, before, patch, samples)
        if fix is not None:
            fixes.append(fix)
    return _sorted(finding, fixes)


def _asks(patch: Patch) -> int:
    """What a way out asks besides money: nothing, handwork or another place, or doing without."""
    if all(isinstance(change, RemoveLine) for change in patch):
        return _DOING_WITHOUT
    by_hand = any(isinstance(change, EditLine) and change.modified for change in patch)
    by_word = any(isinstance(change, SetFields) and "place" in change.fields for change in patch)
    return _HANDWORK if by_hand or by_word else 0


def _sorted(finding: Finding, fixes: list[Fix]) -> list[Fix]:
    """Best first: settles the finding, breaks nothing, gives nothing up, settles most, costs least.

    Leaving something out is always cheapest and never what somebody bought it for; sawing is cheap
    and not for everybody.
    """
    return sorted(
        fixes,
        key=lambda f: (
            finding.id not in f.resolves,
            len(f.breaks),
            _asks(f.patch),
            -len(f.resolves),
            f.effect.cost_delta,
            len(f.patch),
            f.title.text,
        ),
    )


def _tried(
    plan: Plan,
    catalogue: Catalogue,
    finding: Finding,
    before: Evaluation,
    patch: Patch,
    samples: int,
) -> Fix | None:
    try:
        changed = apply_patch(plan, patch)
    except InputError:
        return None  # a remedy may reach past a limit of plans, such as 400 pieces
    kit = Kit(changed, catalogue, samples, before.kit)
    if _still_there(kit, finding):  # the finding's own rule alone: most tries end here
        return None
    after = judge_kit(kit, like=before)
    worse = _worse(before, after)
    if any(f.severity == "problem" for f in worse):
        return None
    return Fix(
        title=describe(plan, catalogue, patch),
        patch=patch,
        resolves=resolved(before, after),
        breaks=[f.sentence for f in worse],
        worsens=_worsened(before, after),
        becomes=_becomes(before, after, finding),
        effect=effect_of(before, after),
        after=after.families,
    )


def _becomes(before: Evaluation, after: Evaluation, finding: Finding) -> Becomes | None:
    """What becomes of a finding's figure, where its limit is still there to hold it against."""
    if finding.margin is None:
        return None
    old, new = before.margin(finding.margin), after.margin(finding.margin)
    if old is None or new is None:
        return None
    if old.breaks_in_worst_case:
        old, new = old.stressed(), new.stressed()
    return Becomes(old.value, new.value, old.unit)


def _worsened(before: Evaluation, after: Evaluation) -> list[Text]:
    """Snags that are there before and after, as severe as they were, with less to spare."""
    told = []
    for finding in after.findings:
        if finding.severity not in ("problem", "tight") or finding.margin is None:
            continue
        old, new = before.margin(finding.margin), after.margin(finding.margin)
        if old is None or new is None or before.finding(finding.id) is None:
            continue
        if old.severity == new.severity and old.spare - new.spare > _WORSE_BY * abs(old.limit):
            told.append(finding.sentence)
    return told


def _still_there(kit: Kit, finding: Finding) -> bool:
    """Whether a finding is as severe as before, by the rule that it comes from."""
    findings = RULES[finding.rule].judge(kit).findings
    rank = SEVERITY_RANK[finding.severity]
    return any(f.id == finding.id and SEVERITY_RANK[f.severity] >= rank for f in findings)


def _worse(before: Evaluation, after: Evaluation) -> list[Finding]:
    """Snags that a change brings, or makes more severe; notes aside."""
    rank = {f.id: SEVERITY_RANK[f.severity] for f in before.findings}
    return [
        f
        for f in after.findings
        if SEVERITY_RANK[f.severity] > rank.get(f.id, 0) and f.severity in ("problem", "tight")
    ]
