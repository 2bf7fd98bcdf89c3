"""A kit as the rules find it: margins, findings and rulers, before anything is laid out."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable
from dataclasses import dataclass

from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import SEVERITY_RANK, Check, Family, Margin, Severity
from cobblewort.core.judging.rules import Rule, rules_by_family
from cobblewort.core.verdict.report import FamilyReport

RULERS: tuple[tuple[Family, str], ...] = (
    ("fit", "Fit"), ("supply", "Supply"), ("heat", "Heat"), ("data", "Data"),
    ("life", "Life"), ("cost", "Cost"), ("noise", "Noise"),
)  # fmt: skip
"""The seven rulers in their order."""
_MISSING: dict[Family, str] = {
    "supply": "no supply", "heat": "no board", "cost": "no budget", "noise": "no limit",
}  # fmt: skip
"""What a kit lacks where the rules of a family have nothing to look at."""


@dataclass(slots=True)
class Judgement:
    """What the rules have to say about a kit; `findings` stand worst first.

    `judged` holds each margin with the check it was made of.
    """

    kit: Kit
    judged: list[tuple[Margin, Check]]
    findings: list[Finding]

    @property
    def margins(self) -> list[Margin]:
        """How the kit stands to each limit."""
        return [margin for margin, _ in self.judged]

    @property
    def severity(self) -> Severity:
        """The worst there is."""
        return self.findings[0].severity if self.findings else "sound"

    @property
    def families(self) -> list[FamilyReport]:
        """The seven rulers."""
        margins: dict[Family, list[Margin]] = defaultdict(list)
        for margin in self.margins:
            margins[margin.family].append(margin)
        findings: dict[Family, list[Finding]] = defaultdict(list)
        for finding in self.findings:
            findings[finding.family].append(finding)
        return [_family(f, label, margins[f], findings[f]) for f, label in RULERS]

    @property
    def severities(self) -> dict[str, Severity]:
        """Those of the seven rulers."""
        worst: dict[str, Severity] = {}
        for finding in self.findings:  # worst first
            worst.setdefault(finding.family, finding.severity)
        return {family: worst.get(family, "sound") for family, _ in RULERS}

    def finding(self, finding_id: str) -> Finding | None:
        """The finding with this id, or None."""
        return next((f for f in self.findings if f.id == finding_id), None)

    def margin(self, margin_id: str) -> Margin | None:
        """The margin with this id, or None."""
        return next((m for m in self.margins if m.id == margin_id), None)

    def count(self, severity: Severity) -> int:
        """How many findings have this severity."""
        return sum(f.severity == severity for f in self.findings)

    def worst_by_line(self) -> dict[str, Severity]:
        """The worst finding that names each line; lines without one are not in it."""
        worst: dict[str, Severity] = defaultdict(lambda: "sound")
        for finding in self.findings:
            for line in finding.lines:
                if SEVERITY_RANK[finding.severity] > SEVERITY_RANK[worst[line]]:
                    worst[line] = finding.severity
        return worst


def judge_kit(
    kit: Kit, only: Callable[[Rule], bool] = lambda _: True, like: Judgement | None = None
) -> Judgement:
    """Ask every rule, or only some of them, for a search that looks at one thing at a time.

    `like` is a whole judgement of a kit that this one was made like: where supply is the same, what
    its rules say is too.
    """
    judged: list[tuple[Margin, Check]] = []
    findings: list[Finding] = []
    known = like if like is not None and kit.has_supply_of(like.kit) else None
    for family, rules in rules_by_family():
        if known is not None and family == "supply":
            judged += [pair for pair in known.judged if pair[0].family == family]
            findings += [finding for finding in known.findings if finding.family == family]
            continue
        for rule in filter(only, rules):
            rule.judge(kit, judged, findings)
    findings.sort(key=lambda f: (-SEVERITY_RANK[f.severity], f.rule, f.id))
    return Judgement(kit, judged, findings)


def _family(family: Family, label: str, own: list[Margin], told: list[Finding]) -> FamilyReport:
    """One ruler, from the margins and findings of its family."""
    worst = min(own, key=lambda m: (-SEVERITY_RANK[m.severity], m.ruler_share), default=None)
    severity: Severity = told[0].severity if told else "sound"
    judged = bool(own or told) or family == "fit"
    shown = worst
    if worst is not None and SEVERITY_RANK[worst.severity] < SEVERITY_RANK[severity]:
        shown = None if severity in ("stops", "tight") else worst
    finding = told[0].id if told else None
    why_not = "" if judged else _MISSING.get(family, "not judged yet")
    if shown is None:
        return FamilyReport(
            family, label, judged, severity, None, finding, None, "", None, None, None, why_not
        )
    return FamilyReport(
        family, label, judged, severity, shown.id, finding, shown.spare, shown.unit,
        shown.ruler_share, shown.ruler_p05, shown.ruler_p95, why_not,
    )  # fmt: skip
