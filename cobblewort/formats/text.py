"""A report as plain text, for the command line."""

from __future__ import annotations

import textwrap

from cobblewort.core import words
from cobblewort.core.judging.margin import Margin
from cobblewort.core.labels import SEVERITIES
from cobblewort.core.text import Figure, say
from cobblewort.core.verdict.report import FamilyReport, Report
from cobblewort.formats.display_units import SI_UNITS, DisplayUnits


def report_text(report: Report, width: int = 100, units: DisplayUnits = SI_UNITS) -> str:
    """Verdict, margins and snags of a report, wrapped to `width` columns."""
    lines = [f"{report.plan}: {SEVERITIES[report.severity]}", ""]
    lines += [
        _margin_row(family, report.margin(family.margin or ""), units) for family in report.families
    ]
    lines.append("")
    told = [
        (f"{SEVERITIES[finding.severity]}  {finding.rule}  ", finding)
        for finding in report.findings
    ]
    beside = [
        ("Take care  " if finding.family == "safety" else "Set-up     ", finding)
        for finding in report.aside
    ]
    for group in (told, beside):
        for head, finding in group:
            lines += textwrap.wrap(
                f"{head}{units.text(finding.sentence)}",
                max(width, 40),
                subsequent_indent=" " * len(head),
            )
        if group:
            lines.append("")
    cost = units.text(words.money(report.cost.total, report.cost.currency))
    lines.append(f"Cost {cost}" + ("" if not report.cost.unknown else ", some prices missing"))
    return "\n".join(lines)


def _margin_row(family: FamilyReport, margin: Margin | None, units: DisplayUnits) -> str:
    if not family.checked:
        return f"  {family.label:<10}{family.why_not}"
    word = SEVERITIES[family.severity]
    if margin is None:
        return f"  {family.label:<10}{word}"
    side = "spare" if margin.spare >= 0 else "short"
    band = ""
    if margin.spare_p05 is not None and margin.spare_p95 is not None:
        low, high = (_spare(value, margin) for value in (margin.spare_p05, margin.spare_p95))
        band = units.text(say("  (likely {low} to {high})", low=low.without_unit(), high=high))
    spare = units.text(_spare(abs(margin.spare), margin))
    return f"  {family.label:<10}{word:<10}{spare} {side}{band}"


def _spare(value: float, margin: Margin) -> Figure:
    if margin.family == "cost":
        return words.money(round(value, 2), margin.unit)
    return Figure(value, margin.unit, 2, is_difference=True)
