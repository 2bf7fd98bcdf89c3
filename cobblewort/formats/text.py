"""A report as plain text, for the command line."""

from __future__ import annotations

import textwrap

from cobblewort.core import words
from cobblewort.core.judging.margin import Margin, Severity
from cobblewort.core.verdict.report import FamilyReport, Report

SEVERITY_WORDS: dict[Severity, str] = {
    "problem": "Stops it", "tight": "Tight", "note": "Note", "ok": "Sound",
}  # fmt: skip


def report_text(report: Report, width: int = 100) -> str:
    """Verdict, rulers and snags of a report, wrapped to `width` columns."""
    lines = [f"{report.plan}: {SEVERITY_WORDS[report.severity]}", ""]
    lines += [_ruler_row(family, report.margin(family.margin or "")) for family in report.families]
    lines.append("")
    for finding in report.findings:
        head = f"{SEVERITY_WORDS[finding.severity]}  {finding.rule}  "
        lines += textwrap.wrap(
            f"{head}{finding.sentence}", max(width, 40), subsequent_indent=" " * len(head)
        )
    if report.findings:
        lines.append("")
    cost = words.money(report.cost.total, report.cost.currency)
    lines.append(f"Kit {cost}" + ("" if not report.cost.unknown else ", some prices not known"))
    return "\n".join(lines)


def _ruler_row(family: FamilyReport, margin: Margin | None) -> str:
    if not family.checked:
        return f"  {family.label:<10}{family.why_not}"
    word = SEVERITY_WORDS[family.severity]
    if margin is None:
        return f"  {family.label:<10}{word}"
    side = "spare" if margin.spare >= 0 else "short"
    band = ""
    if margin.spare_p05 is not None and margin.spare_p95 is not None:
        band = f"  ({margin.spare_p05:.2f} to {margin.spare_p95:.2f})"
    return f"  {family.label:<10}{word:<10}{abs(margin.spare):.2f} {margin.unit} {side}{band}"
