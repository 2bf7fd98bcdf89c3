"""The one entry: judge a plan."""

from __future__ import annotations

from collections import defaultdict

import cobblewort.core.cost.rules
import cobblewort.core.fit.rules
import cobblewort.core.heat.rules
import cobblewort.core.power.rules
import cobblewort.core.safety.rules  # noqa: F401  the five imports fill the registry
from cobblewort.core.catalogue import Catalogue
from cobblewort.core.cost.model import build_cost
from cobblewort.core.findings import Finding
from cobblewort.core.fit.assign import assign
from cobblewort.core.fit.stack import build_stack
from cobblewort.core.heat.model import build_heat
from cobblewort.core.instance import expand
from cobblewort.core.kit import Kit
from cobblewort.core.margin import SEVERITY_RANK, Family, Margin, Severity
from cobblewort.core.plan import Plan
from cobblewort.core.power.model import build_power
from cobblewort.core.report import FamilyReport, Report
from cobblewort.core.reporting import (
    cost_report,
    fit_report,
    heat_report,
    line_reports,
    next_step,
    supply_report,
)
from cobblewort.core.rules import rules_in_order

RULERS: tuple[tuple[Family, str], ...] = (
    ("fit", "Fit"), ("supply", "Supply"), ("heat", "Heat"), ("data", "Data"),
    ("life", "Life"), ("cost", "Cost"), ("noise", "Noise"),
)  # fmt: skip
"""The seven rulers in their order."""


def evaluate(plan: Plan, catalogue: Catalogue, samples: int = 1) -> Report:
    """Margins and findings of a plan.

    Parameters
    ----------
    plan : Plan
        A valid plan; one that does not work is a report, not an error.
    catalogue : Catalogue
        Where its parts are looked up; parts that the plan carries come first.
    samples : int
        Values a figure: 1 for nominal figures alone, more for bands (256 on the page). Sample 0 is
        nominal and stays out of the percentiles.

    Returns
    -------
    Report
        The same bits for the same input.

    Raises
    ------
    UnknownPartError
        If a line names a part that is nowhere.
    """
    return report_on(build_kit(plan, catalogue, samples))


def build_kit(plan: Plan, catalogue: Catalogue, samples: int) -> Kit:
    """Work out every aspect of a plan, in the order fit, power, heat, cost."""
    catalogue = catalogue.for_plan(plan)
    instances = expand(plan, catalogue, samples)
    fit = assign(instances)
    stack = build_stack(instances, fit)
    power = build_power(plan, instances, fit, samples)
    heat = build_heat(plan, instances, stack, power, samples)
    cost = build_cost(plan, instances)
    return Kit(plan, catalogue, samples, instances, fit, stack, power, heat, cost)


def report_on(kit: Kit) -> Report:
    """Ask every rule, and lay the answers out."""
    margins: list[Margin] = []
    findings: list[Finding] = []
    for rule in rules_in_order():
        rule_margins, rule_findings = rule.judged(kit)
        margins += rule_margins
        findings += rule_findings
    findings.sort(key=lambda f: (-SEVERITY_RANK[f.severity], f.rule, f.id))
    worst_of_line: dict[str, Severity] = defaultdict(lambda: "sound")
    for finding in findings:
        for line in finding.lines:
            if SEVERITY_RANK[finding.severity] > SEVERITY_RANK[worst_of_line[line]]:
                worst_of_line[line] = finding.severity
    return Report(
        plan=kit.plan.name,
        samples=kit.samples,
        severity=findings[0].severity if findings else "sound",
        families=[_family(family, label, margins, findings) for family, label in RULERS],
        margins=margins,
        findings=findings,
        lines=line_reports(kit, worst_of_line),
        fit=fit_report(kit, margins),
        supply=supply_report(kit, margins),
        heat=heat_report(kit),
        cost=cost_report(kit),
        next_step=next_step(kit, findings),
    )


def _family(
    family: Family, label: str, margins: list[Margin], findings: list[Finding]
) -> FamilyReport:
    own = [margin for margin in margins if margin.family == family]
    told = [finding for finding in findings if finding.family == family]
    worst = min(own, key=lambda m: (-SEVERITY_RANK[m.severity], m.ruler_share), default=None)
    severity: Severity = told[0].severity if told else "sound"
    judged = bool(own or told) or family == "fit"
    shown = worst
    if worst is not None and SEVERITY_RANK[worst.severity] < SEVERITY_RANK[severity]:
        shown = None if severity in ("stops", "tight") else worst
    finding = told[0].id if told else None
    if shown is None:
        return FamilyReport(
            family, label, judged, severity, None, finding, None, "", None, None, None
        )
    return FamilyReport(
        family, label, judged, severity, shown.id, finding, shown.spare, shown.unit,
        shown.ruler_share, shown.ruler_p05, shown.ruler_p95,
    )  # fmt: skip
