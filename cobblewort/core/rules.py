"""The registry of rules: one rule is one function with its explanation beside it."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from functools import cache, partial

from cobblewort.core import words
from cobblewort.core.findings import Finding, Remark
from cobblewort.core.kit import Kit
from cobblewort.core.margin import (
    FAMILIES,
    HOLDS_TIGHT_SHARE,
    Check,
    Family,
    Margin,
    Severity,
    judge,
)
from cobblewort.core.patch import Patch

RuleFunction = Callable[[Kit], Iterable[Check | Remark]]
Remedy = Callable[[Kit, Finding], Iterator[Patch]]


@dataclass(slots=True, frozen=True)
class Rule:
    """What a rule checks and why, its formula in words and symbols, and where that comes from."""

    id: str
    family: Family
    title: str
    why: str
    formula: str
    source: str
    function: RuleFunction
    remedies: tuple[Remedy, ...]

    def judged(self, kit: Kit) -> tuple[list[Margin], list[Finding]]:
        """The margins and findings of this rule for a kit."""
        margins: list[Margin] = []
        findings: list[Finding] = []
        for outcome in self.function(kit):
            if isinstance(outcome, Remark):
                findings.append(self._finding(outcome, outcome.severity, outcome.sentence))
                continue
            margin = judge(self.id, self.family, outcome)
            margins.append(margin)
            if margin.severity != "sound":
                say = partial(_sentence, outcome, margin)
                findings.append(self._finding(outcome, margin.severity, say, margin.id))
        return margins, findings

    def _finding(
        self, outcome: Remark | Check, severity: Severity, say: str | Callable[[], str],
        margin_id: str | None = None,
    ) -> Finding:  # fmt: skip
        return Finding(
            f"{self.id}:{outcome.subject}", self.id, self.family, severity, say, outcome.lines,
            outcome.sockets, self.source, margin_id,
            bool(self.remedies) and severity in ("stops", "tight"),
        )  # fmt: skip


def _sentence(check: Check, margin: Margin) -> str:
    """What a rule says of a margin; and how sure that is, where nominal figures would do."""
    text = check.sentence(margin)
    if margin.spare < 0 or margin.holds_share is None or margin.holds_share >= HOLDS_TIGHT_SHARE:
        return text
    return f"{text} It holds with {words.percent(margin.holds_share)} of the likely figures."


RULES: dict[str, Rule] = {}


@cache
def _in_order(count: int) -> list[Rule]:
    del count  # a rule that is registered later asks for the list anew
    return sorted(RULES.values(), key=lambda rule: (FAMILIES.index(rule.family), rule.id))


def rules_in_order() -> list[Rule]:
    """Every rule by family and number, whatever the order in which their modules were loaded."""
    return _in_order(len(RULES))


def rule(
    rule_id: str,
    family: Family,
    title: str,
    *,
    why: str,
    formula: str,
    source: str,
    remedies: tuple[Remedy, ...] = (),
) -> Callable[[RuleFunction], RuleFunction]:
    """Register the decorated function under a stable id. Raises ValueError if the id is taken."""

    def register(function: RuleFunction) -> RuleFunction:
        if rule_id in RULES:
            raise ValueError(f"rule {rule_id} is registered twice")
        RULES[rule_id] = Rule(rule_id, family, title, why, formula, source, function, remedies)
        return function

    return register
