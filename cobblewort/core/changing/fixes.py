"""Ways out of a snag, each evaluated in the plan, and candidates for a role alike."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from decimal import Decimal

from cobblewort.core import words
from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.errors import InputError
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import SEVERITY_RANK, Severity
from cobblewort.core.judging.remedies import joining_leads
from cobblewort.core.judging.rules import RULES
from cobblewort.core.parts.model import Origin
from cobblewort.core.parts.telling import telling_figure
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import (
    AddLine,
    Change,
    EditLine,
    Patch,
    PinPlug,
    RemoveLine,
    SetFields,
    SwapPart,
    apply_patch,
)
from cobblewort.core.plans.plan import KINDS_FOR_ROLE, Plan, Role
from cobblewort.core.verdict.evaluate import judgement_of
from cobblewort.core.verdict.judgement import Judgement, judge_kit
from cobblewort.core.verdict.report import FamilyReport

MOST_FIXES = 6
_WORTH_SAMPLING = 12
_HANDWORK, _DOING_WITHOUT = 1, 2
_CHAIN_STARTS = 3
_CHAIN_STEPS = 24
_MOST_CHAINS = 2
"""How many first steps, and how many second steps after each, a chain is looked for among, and how
many chains are proposed."""


@dataclass(slots=True, frozen=True)
class Effect:
    """What a change does to a plan: severities by ruler, and differences against now.

    `settles` counts the snags that stop it or make it tight now and are gone then. `cost_delta` is
    in plan currency, `source_delta_a` is at the heaviest state out of the supplies, `die_delta_k`
    in the warmest hard state; None where one side is not known.
    """

    severity: Severity
    stops: int
    tight: int
    settles: int
    cost_delta: Decimal
    source_delta_a: float | None
    die_delta_k: float | None
    source_delta_w: float | None
    families: dict[str, Severity]


@dataclass(slots=True, frozen=True)
class Fix:
    """A patch, what it resolves, what it newly breaks, and the rulers as they would be after it."""

    title: str
    patch: Patch
    resolves: list[str]
    breaks: list[str]
    effect: Effect
    after: list[FamilyReport]


@dataclass(slots=True, frozen=True)
class Candidate:
    """A part for a role, judged in the plan. `reason` is the worst snag that it would bring.

    `brings` names the lead that comes with it, where it would not be joined to anything without.
    """

    part: str
    origin: Origin
    name: str
    maker: str
    summary: str
    figure: str
    price: Decimal | None
    currency: str
    current: bool
    patch: Patch
    brings: str
    reason: str
    effect: Effect


def effect_of(before: Judgement, after: Judgement) -> Effect:
    """How a plan after a change differs from before."""
    amps_before, watts_before = power_of(before.kit).heaviest
    amps_after, watts_after = power_of(after.kit).heaviest
    return Effect(
        severity=after.severity,
        stops=after.count("stops"),
        tight=after.count("tight"),
        settles=len(_settled(before, after)),
        cost_delta=cost_of(after.kit).total - cost_of(before.kit).total,
        source_delta_a=_delta(amps_before, amps_after),
        die_delta_k=_delta(_warmest_c(before), _warmest_c(after)),
        source_delta_w=_delta(watts_before, watts_after),
        families=after.severities,
    )


def _settled(before: Judgement, after: Judgement) -> list[str]:
    left = {finding.id for finding in after.findings}
    return [f.id for f in before.findings if f.severity in ("stops", "tight") and f.id not in left]


def _delta(before: float | None, after: float | None) -> float | None:
    return None if before is None or after is None else after - before


def _warmest_c(judgement: Judgement) -> float | None:
    """The die in the warmest state that must hold; None where it is not known."""
    heat = heat_of(judgement.kit)
    if heat.board is None:
        return None
    hard = [n for n, state in enumerate(heat.states) if state.hard]
    return float(heat.wanted_die_c[hard, 0].max())


def propose_fixes(
    plan: Plan, catalogue: Catalogue, finding_id: str, samples: int = 1, *, chains: bool = True
) -> list[Fix]:
    """Patches that resolve a finding, best first.

    `chains` looks for two steps too where one does not suffice.

    A fix is only proposed when the finding is gone after it, or less severe, and nothing new stops
    the plan. Ranked: resolves the finding wholly, breaks nothing, costs least.

    Raises
    ------
    InputError
        If the plan has no such finding.
    """
    before = judgement_of(plan, catalogue, samples)
    finding = before.finding(finding_id)
    if finding is None:
        raise InputError([("finding", f"the plan has no snag '{finding_id}' now; look again")])
    tries = _patches(before.kit, finding)
    quick = before if samples == 1 else judgement_of(plan, catalogue)
    if quick.finding(finding_id) is not None:
        ranked = _ranked(plan, catalogue, finding, quick, tries, 1)
        if chains and not any(finding_id in fix.resolves and not fix.breaks for fix in ranked):
            longer = _chains(plan, catalogue, finding, quick, tries)
            found = _ranked(plan, catalogue, finding, quick, longer, 1)[:_MOST_CHAINS]
            ranked = _sorted(finding, ranked + found)
        if samples == 1:
            return _shortlist(ranked, MOST_FIXES)
        tries = [fix.patch for fix in _shortlist(ranked, _WORTH_SAMPLING)]
    return _shortlist(_ranked(plan, catalogue, finding, before, tries, samples), MOST_FIXES)


def _shortlist(ranked: list[Fix], most: int) -> list[Fix]:
    """The best ones, among them one by handwork where there is any."""
    best, by_hand = ranked[:most], [fix for fix in ranked[most:] if _asks(fix.patch) == _HANDWORK]
    if by_hand and all(_asks(fix.patch) != _HANDWORK for fix in best):
        best = [*best[:-1], by_hand[0]]
    return best


def _patches(kit: Kit, finding: Finding) -> list[Patch]:
    """What the remedies of a finding's rule propose, each once."""
    patches: dict[str, Patch] = {}
    for remedy in RULES[finding.rule].remedies:
        patches.update((repr(patch), patch) for patch in remedy(kit, finding))
    return list(patches.values())


def _chains(
    plan: Plan, catalogue: Catalogue, finding: Finding, before: Judgement, patches: list[Patch]
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
        after = judgement_of(changed, catalogue, like=before)
        kit = after.kit
        left = after.finding(finding.id)
        new = [f for f in _worse(before, after) if f.severity == "stops"]
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
        if isinstance(change, RemoveLine) and changed.line(change.line).role != "lead":
            return False
    return True


def _spare(judgement: Judgement, finding: Finding) -> float:
    """How far the margin of a finding is from its limit; nothing to tell without one."""
    margin = judgement.margin(finding.margin or "")
    return 0.0 if margin is None else margin.spare


def _ranked(
    plan: Plan, catalogue: Catalogue, finding: Finding, before: Judgement, patches: Iterable[Patch],
    samples: int,
) -> list[Fix]:  # fmt: skip
    fixes = []
    for patch in patches:
        fix = _tried(plan, catalogue, finding, before, patch, samples)
        if fix is not None:
            fixes.append(fix)
    return _sorted(finding, fixes)


def _asks(patch: Patch) -> int:
    """What a way out asks besides money: nothing, handwork, or doing without."""
    if all(isinstance(change, RemoveLine) for change in patch):
        return _DOING_WITHOUT
    by_hand = any(isinstance(change, EditLine) and change.modified for change in patch)
    return _HANDWORK if by_hand else 0


def _sorted(finding: Finding, fixes: list[Fix]) -> list[Fix]:
    """Best first: settles the finding, breaks nothing, gives nothing up, settles most, costs least.

    Leaving something out is always cheapest and never what somebody bought it for; sawing is cheap
    and not for everybody.
    """
    return sorted(
        fixes,
        key=lambda f: (
            finding.id not in f.resolves, len(f.breaks),
            _asks(f.patch), -len(f.resolves),
            f.effect.cost_delta, len(f.patch), f.title,
        ),
    )  # fmt: skip


def _tried(
    plan: Plan,
    catalogue: Catalogue,
    finding: Finding,
    before: Judgement,
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
    if any(f.severity == "stops" for f in worse):
        return None
    return Fix(
        title=describe(plan, catalogue, patch),
        patch=patch,
        resolves=_settled(before, after),
        breaks=[f.sentence for f in worse],
        effect=effect_of(before, after),
        after=after.families,
    )


def _still_there(kit: Kit, finding: Finding) -> bool:
    """Whether a finding is as severe as before, by the rule that it comes from."""
    findings = RULES[finding.rule].judge(kit).findings
    rank = SEVERITY_RANK[finding.severity]
    return any(f.id == finding.id and SEVERITY_RANK[f.severity] >= rank for f in findings)


def _worse(before: Judgement, after: Judgement) -> list[Finding]:
    """Snags that a change brings, or makes more severe; notes aside."""
    rank = {f.id: SEVERITY_RANK[f.severity] for f in before.findings}
    return [
        f
        for f in after.findings
        if SEVERITY_RANK[f.severity] > rank.get(f.id, 0) and f.severity in ("stops", "tight")
    ]


def candidates(
    plan: Plan, catalogue: Catalogue, role: Role, line_id: str | None = None
) -> list[Candidate]:
    """Every part that could take a role, evaluated in the plan at nominal figures.

    With `line_id` each is tried in place of that line's part, otherwise as a new line. Those that
    bring something new that stops the plan come last, with the reason; else fewest snags first,
    then cost, and what stands for a class only after what can be bought.
    """
    own = catalogue.for_plan(plan)
    before = judgement_of(plan, catalogue)
    known = {f.id for f in before.findings if f.severity == "stops"}
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
            after = judgement_of(apply_patch(plan, patch), catalogue, like=before)
        brings = ""
        if role != "lead" and not is_current and _lacks_a_lead(before, after):
            patch, after, brings = _with_lead(plan, catalogue, patch, before, after)
        new = [f for f in after.findings if f.severity == "stops" and f.id not in known]
        found.append(
            Candidate(
                part=part.id,
                origin=part.origin,
                name=part.model,
                maker=part.maker,
                summary=part.summary,
                figure=telling_figure(part),
                price=part.price,
                currency=part.currency,
                current=is_current,
                patch=patch,
                brings=brings,
                reason=new[0].sentence if new else "",
                effect=effect_of(before, after),
            )
        )
    return sorted(found, key=_candidate_rank)


_UNJOINED = ("FIT-09", "PWR-01")


def _lacks_a_lead(before: Judgement, after: Judgement) -> bool:
    """Whether a change leaves the board without the lead that would feed it."""
    known = {f.id for f in before.findings}
    return any(f.rule in _UNJOINED and f.id not in known for f in after.findings)


def _with_lead(
    plan: Plan, catalogue: Catalogue, patch: Patch, before: Judgement, after: Judgement
) -> tuple[Patch, Judgement, str]:
    """The same change with the lead that leaves the fewest snags, the cheapest of those."""
    leads = joining_leads(Kit(apply_patch(plan, patch), catalogue, 1))
    best, brings = (patch, after), ""
    for lead in leads:
        longer: Patch = (*patch, AddLine(role="lead", part=lead.id))
        joined = judgement_of(apply_patch(plan, longer), catalogue, like=before)
        if _snags(before, joined) < _snags(before, best[1]):
            best, brings = (longer, joined), lead.model
    return *best, brings


def _snags(before: Judgement, after: Judgement) -> tuple[bool, int, int]:
    """Unjoined is worse than joined with snags: those at least tell what is wrong with it."""
    return _lacks_a_lead(before, after), after.count("stops"), after.count("tight")


def _candidate_rank(candidate: Candidate) -> tuple[bool, bool, int, int, Decimal, str]:
    price = Decimal("Infinity") if candidate.price is None else candidate.price
    effect = candidate.effect
    no_real_part = candidate.origin == "class"
    return (
        bool(candidate.reason), no_real_part, effect.stops, effect.tight, price, candidate.part,
    )  # fmt: skip


def describe(plan: Plan, catalogue: Catalogue, patch: Patch) -> str:
    """A patch in words: what comes, what goes, what moves."""
    own = catalogue.for_plan(plan)
    texts = []
    pins = [change for change in patch if isinstance(change, PinPlug)]
    for change in patch:
        before, lines = plan, {line.id: line.part for line in plan.lines}
        plan = apply_patch(plan, (change,))
        match change:
            case AddLine():
                texts.append(f"add {own.part(change.part).model}")
            case SwapPart():
                old, new = own.part(lines[change.line]), own.part(change.part)
                texts.append(f"{new.model} instead of {old.model}")
            case RemoveLine():
                texts.append(f"leave out {own.part(lines[change.line]).model}")
            case EditLine():
                texts.append(_edit_words(change, own.part(lines[change.line]).model))
            case SetFields():
                texts.append(_set_words(change, before))
            case PinPlug():
                pass
    if pins:
        moved = dict.fromkeys(own.of_line(plan.line(pin.line)).model for pin in pins)
        texts.append(f"plug {' and '.join(moved)} into it")
    text = ", ".join(texts)
    return text[:1].upper() + text[1:]


def _edit_words(change: EditLine, model: str) -> str:
    """What changing a line does, in words."""
    if change.sheets_off is not None:
        return f"leave the top sheets of {model} off"
    if change.modified is not None:
        return f"cut {model} by hand"
    if change.standoff_mm is not None:
        return f"put {model} on standoffs of {change.standoff_mm:g} mm"
    if change.addresses:
        addresses = words.listed(f"0x{address:02X}" for address in change.addresses.values())
        return f"set {model} to {addresses}"
    return f"newest figures of {model}" if change.part_revision else f"change {model}"


def _set_words(change: SetFields, plan: Plan) -> str:
    """What setting fields of the plan does, in words."""
    settings = change.fields.get("settings")
    if isinstance(settings, dict):
        now = plan.settings.model_dump()
        changed = {name: value for name, value in settings.items() if value != now.get(name)}
        if "lift_port_limit" in changed:
            verb = "lift" if changed["lift_port_limit"] else "leave"
            return f"{verb} the port limit in the board's settings"
        if "push_slot" in changed:
            rate = "beyond its" if changed["push_slot"] else "at its certified"
            return f"run the drive slot {rate} rate"
    wired = change.fields.get("wired")
    if isinstance(wired, list):
        pins = {entry.id: entry.pin for entry in plan.wired}
        moved = [w for w in wired if isinstance(w, dict) and pins.get(w["id"]) != w["pin"]]
        if len(moved) == 1:
            return f"wire {moved[0]['label']} to pin {moved[0]['pin']}"
        return "a bare LED with its resistor"
    image = change.fields.get("image")
    if isinstance(image, dict) and "name" in image:
        return f"{image['name']} instead of the image before"
    return f"change {', '.join(change.fields)}"
