"""The kit as a list to take along: plain text, and CSV for a spreadsheet."""

from __future__ import annotations

import csv
import io
import re
from decimal import Decimal

from cobblewort.core import words
from cobblewort.core.aspects.fit.fasteners import Fastener
from cobblewort.core.standards.fasteners import THREAD
from cobblewort.core.verdict.lines import LineReport
from cobblewort.core.verdict.report import Report

ROLE_WORDS = {
    "board": "Board", "power_supply": "Supply", "boot_drive": "Boot medium", "storage": "Data",
    "add_on": "Add-on", "cooling": "Cooling", "case": "Case", "cable": "Cable",
    "fastener": "Fastener", "set_up": "To borrow", "other_equipment": "Works with",
}  # fmt: skip
_COLUMNS = (
    "role", "items", "maker", "model", "what", "owned", "unit price", "to pay", "currency",
)  # fmt: skip
_FORMULA_STARTS = ("=", "+", "-", "@", "\t", "\r")


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
            ROLE_WORDS[line.role], str(items_of(line, report)),
            line.maker, line.name, line.summary, "yes" if line.owned else "no",
            _unit_price(line, cost.to_pay, report), to_pay, report.cost.currency,
        ]  # fmt: skip
        writer.writerow([_harmless(cell) for cell in cells])
    for item in report.fit.fasteners:
        length = "" if item.length_mm is None else f" {item.length_mm:g} mm"
        cells = ["Fasteners wanted", str(item.count), "", f"{item.kind} {THREAD}{length}",
                 item.where, "", "", "", ""]  # fmt: skip
        writer.writerow([_harmless(cell) for cell in cells])
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


def _harmless(cell: str) -> str:
    return f"'{cell}" if cell.startswith(_FORMULA_STARTS) else cell


def kit_text(report: Report) -> str:
    """The kit as lines of text with the sum below."""
    rows = [f"{report.plan}", ""]
    rows += [
        _text_row(line, cost.to_pay, report)
        for line, cost in zip(report.lines, report.cost.lines, strict=True)
    ]
    rest = "" if not report.cost.unknown else ", without what has no known price"
    copies = "" if report.cost.copies == 1 else f" for {report.cost.copies} copies"
    if report.fit.fasteners:
        rows += ["", "Standoffs and screws:"]
        rows += [f"  {_fastener_row(item)}" for item in report.fit.fasteners]
    rows += ["", f"To buy{copies}: {words.money(report.cost.total, report.cost.currency)}{rest}"]
    return "\n".join(rows) + "\n"


def kit_markdown(report: Report) -> str:
    """The kit as Markdown: a list to tick, what is borrowed, and fasteners."""
    rows = [f"# {_escaped(report.plan)}", "", "## Kit", ""]
    for line, cost in zip(report.lines, report.cost.lines, strict=True):
        tick, told = "x" if line.owned else " ", _text_row(line, cost.to_pay, report)
        rows.append(f"- [{tick}] {_escaped(told)}")
    if report.fit.fasteners:
        rows += ["", "## Standoffs and screws", ""]
        rows += [f"- [ ] {_escaped(_fastener_row(item))}" for item in report.fit.fasteners]
    total = words.money(report.cost.total, report.cost.currency)
    return "\n".join([*rows, "", f"To buy: **{total}**", ""])


def _escaped(text: str) -> str:
    """Text in which Markdown and the HTML in it find nothing to do."""
    return re.sub(r"([\\`*_{}\[\]<>#|~&])", r"\\\1", text)


def _fastener_row(item: Fastener) -> str:
    length = "no length in the kit fits" if item.length_mm is None else f"{item.length_mm:g} mm"
    washers = f", with {item.washers_mm:.1f} mm of washers" if item.washers_mm > 0 else ""
    return f"{item.count} x {item.kind} {THREAD}, {length}{washers}, {item.where}"


def _text_row(line: LineReport, to_pay: Decimal | None, report: Report) -> str:
    cost = report.cost
    price = "price not known" if to_pay is None else words.money(to_pay, cost.currency)
    if line.role == "set_up":
        price = "borrowed"
    elif line.owned:
        price = "owned" if cost.copies == 1 else f"{line.quantity} owned, the rest {price}"
    what = f", {line.summary}" if line.summary else ""
    items = items_of(line, report)
    return f"{ROLE_WORDS[line.role]}: {items} x {line.maker} {line.name}{what}: {price}"
