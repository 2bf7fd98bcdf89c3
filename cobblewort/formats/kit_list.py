"""The kit as a list to take along: plain text, and CSV for a spreadsheet."""

from __future__ import annotations

import csv
import io
import re
from decimal import Decimal

from cobblewort.core import words
from cobblewort.core.aspects.fit.fasteners import Fastener
from cobblewort.core.labels import ROLES
from cobblewort.core.standards.fasteners import THREAD
from cobblewort.core.text import Figure, say
from cobblewort.core.verdict.lines import LineReport
from cobblewort.core.verdict.report import Report
from cobblewort.formats.display_units import SI_UNITS, DisplayUnits

_COLUMNS = (
    "role",
    "quantity",
    "maker",
    "model",
    "description",
    "owned",
    "unit price",
    "to pay",
    "currency",
)
FORMULA_STARTS = ("=", "+", "-", "@", "\t", "\r", "＝", "＋", "－", "＠")
"""What a spreadsheet takes for a formula, in wide letters too (common practice)."""


def kit_csv(report: Report) -> str:
    """The kit as CSV with a header row, CRLF line ends (RFC 4180).

    A cell that a spreadsheet would take for a formula gets an apostrophe in front.
    """
    sheet = io.StringIO()
    writer = csv.writer(sheet)
    writer.writerow(_COLUMNS)
    for line, cost in zip(report.lines, report.cost.lines, strict=True):
        to_pay = "" if cost.to_pay is None else f"{cost.to_pay:.2f}"
        cells = [
            ROLES[line.role],
            str(items_of(line, report)),
            line.maker,
            line.name,
            line.summary,
            "yes" if line.owned else "no",
            _unit_price(line, cost.to_pay, report),
            to_pay,
            report.cost.currency,
        ]
        writer.writerow([harmless(cell) for cell in cells])
    for item in report.fit.fasteners:
        length = "" if item.length_mm is None else f" {item.length_mm:g} mm"
        cells = [
            "Fasteners required",
            str(item.count),
            "",
            f"{item.kind} {THREAD}{length}",
            item.where,
            "",
            "",
            "",
            "",
        ]
        writer.writerow([harmless(cell) for cell in cells])
    return sheet.getvalue()


def _unit_price(line: LineReport, to_pay: Decimal | None, report: Report) -> str:
    """What one piece costs, where all of them are bought."""
    items = items_of(line, report)
    if to_pay is None or line.owned or line.role == "set_up" or not items:
        return ""
    return f"{to_pay / items:.2f}"


def items_of(line: LineReport, report: Report) -> int:
    """How many are needed for all copies; what is borrowed serves them all."""
    return line.quantity * (1 if line.role == "set_up" else report.cost.copies)


def harmless(cell: str) -> str:
    """A cell that no spreadsheet takes for a formula."""
    return f"'{cell}" if cell.lstrip().startswith(FORMULA_STARTS) else cell


def kit_text(report: Report, units: DisplayUnits = SI_UNITS) -> str:
    """The kit as lines of text with the sum below."""
    rows = [f"{report.plan}", ""]
    rows += [
        _text_row(line, cost.to_pay, report, units)
        for line, cost in zip(report.lines, report.cost.lines, strict=True)
    ]
    rest = "" if not report.cost.unknown else ", parts without a price left out"
    copies = "" if report.cost.copies == 1 else f" for {report.cost.copies} copies"
    if report.fit.fasteners:
        rows += ["", "Standoffs and screws:"]
        rows += [f"  {_fastener_row(item, units)}" for item in report.fit.fasteners]
    total = units.text(words.money(report.cost.total, report.cost.currency))
    rows += ["", f"Total to buy{copies}: {total}{rest}"]
    return "\n".join(rows) + "\n"


def kit_markdown(report: Report, units: DisplayUnits = SI_UNITS) -> str:
    """The kit as Markdown: a list to tick, what is borrowed, and fasteners."""
    rows = [f"# {_escaped(report.plan)}", "", "## Kit", ""]
    for line, cost in zip(report.lines, report.cost.lines, strict=True):
        tick, told = "x" if line.owned else " ", _text_row(line, cost.to_pay, report, units)
        rows.append(f"- [{tick}] {_escaped(told)}")
    if report.fit.fasteners:
        rows += ["", "## Standoffs and screws", ""]
        rows += [f"- [ ] {_escaped(_fastener_row(item, units))}" for item in report.fit.fasteners]
    total = units.text(words.money(report.cost.total, report.cost.currency))
    return "\n".join([*rows, "", f"Total to buy: **{total}**", ""])


def _escaped(text: str) -> str:
    """Text in which Markdown and the HTML in it find nothing to do, and no bare link."""
    plain = re.sub(r"([\\`*_{}\[\]<>#|~&@])", r"\\\1", text)
    return re.sub(r"(?i)(https?|ftp|mailto|www)([:.])", r"\1\\\2", plain)


def _fastener_row(item: Fastener, units: DisplayUnits) -> str:
    length = (
        ", no length in the kit fits" if item.length_mm is None else f" × {item.length_mm:g} mm"
    )
    washers = ""
    if item.washers_mm > 0:
        height = Figure(item.washers_mm, "mm", 1)
        washers = units.text(say(", with {height} of washers", height=height))
    return f"{item.count} × {item.kind} {THREAD}{length}{washers}, {item.where}"


def _text_row(line: LineReport, to_pay: Decimal | None, report: Report, units: DisplayUnits) -> str:
    cost = report.cost
    price = "no price"
    if to_pay is not None:
        price = units.text(words.money(to_pay, cost.currency))
    if line.role == "set_up":
        price = "borrowed"
    elif line.owned:
        price = "owned" if cost.copies == 1 else f"{line.quantity} owned, the rest {price}"
    what = f", {line.summary}" if line.summary else ""
    items = items_of(line, report)
    return f"{ROLES[line.role]}: {items} × {line.maker} {line.name}{what}: {price}"
