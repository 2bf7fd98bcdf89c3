"""The registry of rules: one rule is one function with its explanation beside it."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from functools import cache, partial

from cobblewort.core import words
from cobblewort.core.judging.findings import Finding, Remark
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import (
    FAMILIES,
    HOLDS_TIGHT_SHARE,
    Check,
    Family,
    Margin,
    Severity,
    margin_of,
)
from cobblewort.core.plans.patch import Patch

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
        judged: list[tuple[Margin, Check]] = []
        findings: list[Finding] = []
        self.judge(kit, judged, findings)
        return [margin for margin, _ in judged], findings

    def judge(self, kit: Kit, judged: list[tuple[Margin, Check]], findings: list[Finding]) -> None:
        """Add the margins of this rule for a kit, with what they were made of, and its findings."""
        for outcome in self.function(kit):
            if isinstance(outcome, Remark):
                findings.append(self._finding(outcome, outcome.severity, outcome.sentence))
                continue
            margin = margin_of(self.id, self.family, outcome, kit.samples)
            judged.append((margin, outcome))
            if margin.severity != "sound":
                say = partial(_sentence, outcome, margin)
                findings.append(self._finding(outcome, margin.severity, say, margin.id))

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
def _by_family(count: int) -> list[tuple[Family, list[Rule]]]:
    del count  # a rule that is registered later asks for the list anew
    rules = sorted(RULES.values(), key=lambda rule: rule.id)
    return [(family, [rule for rule in rules if rule.family == family]) for family in FAMILIES]


def rules_by_family() -> list[tuple[Family, list[Rule]]]:
    """The rules of each family by number, whatever the order in which modules were loaded."""
    return _by_family(len(RULES))


def rules_in_order() -> list[Rule]:
    """Every rule by family and number."""
    return [rule for _, rules in rules_by_family() for rule in rules]


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
