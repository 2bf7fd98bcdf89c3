"""The registry of rules: one rule is one function with its explanation beside it."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass

from cobblewort.core import words
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.kit import Inputs, Kit, Read, inputs_of
from cobblewort.core.judging.margin import Check, Margin, got_share, margin_of
from cobblewort.core.judging.severity import KEPT_SOUND, Severity
from cobblewort.core.plans.patch import Patch
from cobblewort.core.plans.plan import Role
from cobblewort.core.text import Text, say

RuleFunction = Callable[..., Iterable[Check | Observation]]
"""Called with the values of what a rule declares to read."""
Remedy = Callable[[Kit, Finding], Iterator[Patch]]


@dataclass(slots=True, frozen=True)
class Outcome:
    """What a rule has to say of a kit: margins, with what they were made of, and findings."""

    checked: Sequence[tuple[Margin, Check]]
    findings: Sequence[Finding]


_SILENT = Outcome((), ())
"""Of a rule that has nothing to say: most have not, of most kits."""


@dataclass(slots=True, frozen=True)
class Rule:
    """What a rule checks and why, its formula in words and symbols, and where that comes from.

    `inputs` are the values that its function is called with: while they stay, it says the same.
    Notes of one that is told `aside` are what every kit of its kind has to mind: they stand under
    Take care and Needed for set-up, not among the snags. `eased_by` are the roles by which a part
    that is added can make better what it says; parts of all others only load. Cooler and case are
    stated where they do so by the speed alone that heat leaves. None where nobody states it: then
    only a whole kit is judged by it.
    """

    id: str
    family: str
    title: str
    why: str
    formula: str
    source: str
    function: RuleFunction
    inputs: Inputs
    remedies: tuple[Remedy, ...]
    aside: bool
    eased_by: frozenset[Role] | None

    def may_cut(self, still_open: frozenset[Role]) -> bool:
        """Whether what it says of a kit holds whatever is added in the roles that are open."""
        return self.eased_by is not None and not self.eased_by & still_open

    def judge(self, kit: Kit) -> Outcome:
        """What this rule has to say of a kit."""
        checked: list[tuple[Margin, Check]] = []
        findings: list[Finding] = []
        for outcome in self.function(*self.inputs.of(kit)):
            if isinstance(outcome, Observation):
                if (severity := outcome.severity) != "ok":
                    findings.append(self._finding(outcome, severity, outcome.sentence, None))
                continue
            margin = margin_of(self.id, self.family, outcome, kit.samples)
            checked.append((margin, outcome))
            if margin.severity != "ok":
                sentence = _sentence(kit, outcome, margin)
                findings.append(self._finding(outcome, margin.severity, sentence, margin.id))
        return Outcome(checked, findings) if checked or findings else _SILENT

    def _finding(
        self, outcome: Observation | Check, severity: Severity, sentence: Text, margin: str | None
    ) -> Finding:
        return Finding(
            id=f"{self.id}:{outcome.subject}",
            rule=self.id,
            family=self.family,
            severity=severity,
            sentence=sentence,
            lines=outcome.lines,
            sockets=outcome.sockets,
            source=self.source,
            margin=margin,
            has_fixes=bool(self.remedies) and severity in ("problem", "tight"),
            unknown=outcome.consequence.unknown,
        )


def _by_class(kit: Kit, margin: Margin) -> bool:
    """Whether what a margin is about is known by typical values more than by its own."""
    if margin.unit not in _MEASURED:
        return False
    parts = [kit.catalogue.of_line(kit.plan.line(line)) for line in margin.lines]
    return sum(part.origin == "typical" for part in parts) * 2 > len(parts)


def _sentence(kit: Kit, check: Check, margin: Margin) -> Text:
    """What a rule says of a margin; how sure that is, where nominal figures would do, and whether
    it rests on typical values.
    """
    text = _said(check, margin)
    return text + " Based on typical values." if _by_class(kit, margin) else text


def _said(check: Check, margin: Margin) -> Text:
    if margin.breaks_in_worst_case:
        return check.sentence(margin.stressed())
    text = check.sentence(margin)
    holds = margin.holds_share
    if holds is None or holds >= check.consequence.least_share:
        return text
    if check.consequence.kind == "slows":
        if margin.planned != "tight" or got_share(margin, check) < KEPT_SOUND:
            return text
        most = words.percent(KEPT_SOUND)
        return text + say(" Keeps {most} in {cases}.", most=most, cases=words.likely(holds))
    return text + say(" OK in {cases}.", cases=words.likely(holds)) if margin.spare >= 0 else text


_MEASURED = ("A", "V", "W", "°C", "mm", "dB(A)")
"""Units of what parts state, other than money and counts."""

RULES: dict[str, Rule] = {}


def rule(
    rule_id: str,
    family: str,
    title: str,
    *,
    why: str,
    formula: str,
    source: str,
    reads: tuple[Read, ...],
    remedies: tuple[Remedy, ...] = (),
    aside: bool = False,
    eased_by: tuple[Role, ...] | None = None,
) -> Callable[[RuleFunction], RuleFunction]:
    """Register the decorated function under a stable id.

    Raises
    ------
    ValueError
        If the id is taken, a plan has no such facet, or the function takes other values.
    """

    def register(function: RuleFunction) -> RuleFunction:
        if rule_id in RULES:
            raise ValueError(f"rule {rule_id} is registered twice")
        RULES[rule_id] = Rule(
            rule_id,
            family,
            title,
            why,
            formula,
            source,
            function,
            inputs_of(reads, function),
            remedies,
            aside,
            None if eased_by is None else frozenset(eased_by),
        )
        return function

    return register
