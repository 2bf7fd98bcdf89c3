"""The registry of rules: one rule is one function with its explanation beside it."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import partial

from cobblewort.core import words
from cobblewort.core.judging.findings import Finding, Remark
from cobblewort.core.judging.kit import Kit, Reads, closed
from cobblewort.core.judging.margin import (
    HOLDS_TIGHT_SHARE,
    Check,
    Margin,
    Severity,
    margin_of,
)
from cobblewort.core.plans.patch import Patch

RuleFunction = Callable[[Kit], Iterable[Check | Remark]]
Remedy = Callable[[Kit, Finding], Iterator[Patch]]


@dataclass(slots=True, frozen=True)
class Outcome:
    """What a rule has to say of a kit: margins, with what they were made of, and findings.

    Workings are made when somebody asks, so it points at its kit.
    """

    kit: Kit | None
    judged: Sequence[tuple[Margin, Check]]
    findings: Sequence[Finding]


_SILENT = Outcome(None, (), ())
"""Of a rule that has nothing to say: most have not, of most kits."""


@dataclass(slots=True, frozen=True)
class Rule:
    """What a rule checks and why, its formula in words and symbols, and where that comes from.

    `reads` are the facets of a plan that its function looks at: while none of them changes, it says
    the same.
    """

    id: str
    family: str
    title: str
    why: str
    formula: str
    source: str
    function: RuleFunction
    reads: frozenset[str]
    remedies: tuple[Remedy, ...]

    def judge(self, kit: Kit) -> Outcome:
        """What this rule has to say of a kit."""
        outcomes = list(self.function(kit))
        if not outcomes:
            return _SILENT
        judged: list[tuple[Margin, Check]] = []
        findings: list[Finding] = []
        for outcome in outcomes:
            if isinstance(outcome, Remark):
                findings.append(self._finding(outcome, outcome.severity, outcome.sentence, None))
                continue
            margin = margin_of(self.id, self.family, outcome, kit.samples)
            judged.append((margin, outcome))
            if margin.severity != "sound":
                finding = self._finding(outcome, margin.severity, "", margin.id)
                finding.say_later(partial(_sentence, outcome, margin))
                findings.append(finding)
        return Outcome(kit, judged or (), findings or ())

    def _finding(
        self, outcome: Remark | Check, severity: Severity, sentence: str, margin: str | None
    ) -> Finding:
        return Finding(
            f"{self.id}:{outcome.subject}", self.id, self.family, severity, sentence, outcome.lines,
            outcome.sockets, self.source, margin,
            bool(self.remedies) and severity in ("stops", "tight"),
        )  # fmt: skip


def _sentence(check: Check, margin: Margin) -> str:
    """What a rule says of a margin; and how sure that is, where nominal figures would do."""
    if check.kept is None and margin.breaks_in_stress:
        return check.sentence(margin.stressed())
    text = check.sentence(margin)
    if margin.spare < 0 or margin.holds_share is None or margin.holds_share >= HOLDS_TIGHT_SHARE:
        return text
    return f"{text} It holds with {words.share(margin.holds_share)} of the likely figures."


RULES: dict[str, Rule] = {}


def rule(
    rule_id: str,
    family: str,
    title: str,
    *,
    why: str,
    formula: str,
    source: str,
    reads: tuple[Reads, ...],
    remedies: tuple[Remedy, ...] = (),
) -> Callable[[RuleFunction], RuleFunction]:
    """Register the decorated function under a stable id.

    Raises
    ------
    ValueError
        If the id is taken, or a plan has no such facet.
    """

    def register(function: RuleFunction) -> RuleFunction:
        if rule_id in RULES:
            raise ValueError(f"rule {rule_id} is registered twice")
        RULES[rule_id] = Rule(
            rule_id, family, title, why, formula, source, function, closed(reads), remedies
        )  # fmt: skip
        return function

    return register
