"""A plan on paper: everything that is wanted at the shop and beside the work, as a PDF.

A4 or Letter, readable in black and white. It says what was decided, what was assumed and when.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date
from typing import TYPE_CHECKING

import cobblewort
from cobblewort.core import words
from cobblewort.core.aspects.lifetime.maintenance import Maintenance
from cobblewort.core.aspects.lifetime.report import BackupCopy
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.rules import RULES
from cobblewort.core.judging.severity import Severity
from cobblewort.core.labels import DUST, FILE_SYSTEMS, LOADS, POWER_SOURCES, SEVERITIES
from cobblewort.core.plans.fields import SETTINGS
from cobblewort.core.plans.plan import Plan, Settings, Transfer
from cobblewort.core.standards.fasteners import THREAD
from cobblewort.core.text import Said, Text, joined, say
from cobblewort.core.verdict.report import Report
from cobblewort.formats.display_units import SI_UNITS, DisplayUnits
from cobblewort.formats.drawings import DRAWINGS
from cobblewort.formats.kit_list import items_of
from cobblewort.formats.sketch import LETTERS, draw_on, written

if TYPE_CHECKING:
    from fpdf import FPDF

PAPERS = ("a4", "letter")
_MARGIN_MM, _FOOT_MM = 15.0, 16.0
_MOST_ROWS = 400
_SIGNS, _BOX = "zapfdingbats", "o"
"""A box to tick, in the font of signs that every PDF reader has."""
_TO_THE_RIGHT = ("Price",)


def sheet_pdf(
    plan: Plan,
    report: Report,
    paper: str = "a4",
    day: date | None = None,
    units: DisplayUnits = SI_UNITS,
) -> bytes:
    """The sheet of a plan; `day` is the date that it bears, today unless told."""
    sheet = _Sheet(plan, report, paper, day, units)
    sheet.head()
    sheet.verdict()
    sheet.to_buy()
    sheet.rest_of_kit()
    sheet.plugs()
    sheet.wires()
    sheet.fasteners()
    sheet.set_up()
    sheet.snags()
    sheet.kept()
    sheet.assumptions()
    sheet.drawings()
    return bytes(sheet.pdf.output())


class _Sheet:
    def __init__(
        self, plan: Plan, report: Report, paper: str, day: date | None, units: DisplayUnits
    ) -> None:
        from cobblewort.formats.paper import Paper

        told = f"{plan.name} - Cobblewort {cobblewort.__version__}, {day or _today()}"

        class Paged(Paper):
            def footer(self) -> None:
                self.set_y(-11)
                self.set_font(LETTERS, size=8)
                self.cell(0, 5, written(told)[:110])
                self.cell(0, 5, f"{self.page_no()} of {{nb}}", align="R")

        self.plan, self.report, self.units = plan, report, units
        self.pdf: FPDF = Paged(paper)
        self.pdf.set_title(written(plan.name))
        self.pdf.set_creator("Cobblewort")
        self.pdf.set_margins(_MARGIN_MM, _MARGIN_MM)
        self.pdf.set_auto_page_break(True, _FOOT_MM)
        self.pdf.add_page()

    def _told(self, said: Said) -> str:
        """A text as this sheet shows it; a figure and its unit stay on one line."""
        return written(self.units.text(said))

    def _room(self, tall_mm: float) -> None:
        """Begin a page where less than this is left of one."""
        if self.pdf.get_y() + tall_mm > self.pdf.h - _FOOT_MM:
            self.pdf.add_page()

    def _heading(self, text: Said, below_mm: float = 12.0) -> None:
        """A heading that stays with so much of what is below it."""
        self._room(10 + below_mm)
        self.pdf.ln(3)
        self.pdf.set_font(LETTERS, "B", 12)
        self.pdf.cell(0, 7, self._told(text), new_x="LMARGIN", new_y="NEXT")

    def _lines(self, texts: Iterable[Said], size: float = 9.5) -> None:
        self.pdf.set_font(LETTERS, size=size)
        for text in texts:
            self.pdf.multi_cell(
                0, size * 0.46, self._told(text), align="L", new_x="LMARGIN", new_y="NEXT"
            )

    def _entries(self, entries: Iterable[tuple[str, Said]], mark_mm: float = 17.0) -> None:
        """Paragraphs, each with its mark before it: `_BOX`, or a word."""
        for mark, text in entries:
            self._room(8)
            if mark == _BOX:
                self.pdf.set_font(_SIGNS, size=9.5)
            else:
                self.pdf.set_font(LETTERS, "B", 9.5)
            self.pdf.cell(mark_mm, 4.8, mark)
            self.pdf.set_font(LETTERS, size=9.5)
            self.pdf.multi_cell(0, 4.8, self._told(text), align="L", new_x="LMARGIN", new_y="NEXT")

    def _table(
        self,
        head: Sequence[str],
        rows: Sequence[Sequence[Said]],
        widths: Sequence[int],
        total: Sequence[Said] = (),
    ) -> None:
        """Rows under a head, prices to the right, a `total` in bold below them."""
        from fpdf.fonts import FontFace

        self.pdf.set_font(LETTERS, size=9)
        aligned = tuple("RIGHT" if name in _TO_THE_RIGHT else "LEFT" for name in head)
        with self.pdf.table(
            col_widths=tuple(widths),
            borders_layout="HORIZONTAL_LINES",
            line_height=5,
            padding=0.6,
            text_align=aligned,
        ) as table:
            for cells in (head, *rows[:_MOST_ROWS], *([total] if total else [])):
                row, bold = table.row(), FontFace(emphasis="BOLD")
                for cell in cells:
                    if cell == _BOX:
                        row.cell(_BOX, style=FontFace(family=_SIGNS))
                    else:
                        row.cell(self._told(cell), style=bold if cells is total else None)

    def head(self) -> None:
        """Name, purpose and place."""
        plan = self.plan
        self.pdf.set_font(LETTERS, "B", 18)
        self.pdf.multi_cell(0, 8, self._told(plan.name), new_x="LMARGIN", new_y="NEXT")
        self._lines([plan.purpose] if plan.purpose else [])
        place = plan.place
        about: list[Said] = [
            words.span(
                words.counted(place.ambient_min_c, "°C"), words.counted(place.ambient_max_c, "°C")
            )
        ]
        about += ["wet"] if place.wet else []
        about += [DUST[place.dust].lower()] if place.dust != "clean" else []
        if place.altitude_m:
            about.append(say("altitude {height}", height=words.counted(place.altitude_m, "m")))
        if place.noise_max_dba:
            most = words.counted(place.noise_max_dba, "dB(A)")
            about.append(say("at most {most} at 1 m", most=most))
        about.append(f"power source: {words.within(POWER_SOURCES[place.power])}")
        where = f"Location: {place.name}. " if place.name else "Location: "
        copies = "" if plan.copies == 1 else f" {plan.copies} copies."
        told = words.opened(joined(about, ", ")) if place.name else joined(about, ", ")
        self._lines([say("{where}{about}.{copies}", where=where, about=told, copies=copies)])

    def verdict(self) -> None:
        """The word for the whole, and the margins."""
        report = self.report
        problems, tight = report.count("problem"), report.count("tight")
        told = [words.count(problems, "problem")] if problems else []
        told += [f"{tight} tight"] if tight else []
        self._heading(", ".join(told) or "No problems found", 50)
        self._drawing("margins", 120)

    def to_buy(self) -> None:
        """What is bought, with a box to tick and what it costs."""
        report = self.report
        rows: list[list[Said]] = []
        for line, cost in zip(report.lines, report.cost.lines, strict=True):
            if line.role in ("set_up", "other_equipment") or (line.owned and not cost.to_pay):
                continue
            price: Said = "?"
            if cost.to_pay is not None:
                price = words.money(cost.to_pay, report.cost.currency)
            rows.append(
                [
                    _BOX,
                    f"{items_of(line, report)} ×",
                    f"{line.maker} {line.name}",
                    f"{line.summary} (spare)" if line.spare else line.summary,
                    price,
                ]
            )
        if rows:
            self._heading("To buy")
            total = words.money(report.cost.total, report.cost.currency)
            rest = "" if not report.cost.unknown else "parts without a price left out"
            self._table(
                ("", "", "Part", "Description", "Price"),
                rows,
                (5, 8, 35, 42, 14),
                ("", "", "Total", rest, total),
            )

    def rest_of_kit(self) -> None:
        """What is there already, and what is borrowed."""
        for heading, chosen in (
            ("Already owned", [x for x in self.report.lines if x.owned and x.role != "set_up"]),
            ("Needed for set-up", [x for x in self.report.lines if x.role == "set_up"]),
        ):
            if chosen:
                self._heading(heading)
                self._entries(
                    (
                        (_BOX, _with_summary(f"{x.quantity} × {x.maker} {x.name}", x.summary))
                        for x in chosen
                    ),
                    8.7,
                )

    def plugs(self) -> None:
        """Which plug goes where."""
        found = self.report.fit.connections
        if found:
            self._heading("Connections")
            rows: list[Sequence[Said]] = [[c.plug_label, c.socket_label, c.link] for c in found]
            if any(c.link for c in found):
                self._table(("Plug", "Port or slot", "Link"), rows, (34, 40, 30))
            else:
                self._table(("Plug", "Port or slot"), [row[:2] for row in rows], (34, 70))

    def wires(self) -> None:
        """The wires of the header, and what is wired by hand."""
        wires = self.report.fit.header.wires
        if wires:
            self._heading("GPIO wiring")
            rows = [[f"pin {w.pin}", w.pin_name, w.through, ", ".join(w.to)] for w in wires]
            self._table(("Pin", "Signal", "Through", "To"), rows, (12, 26, 26, 40))

    def fasteners(self) -> None:
        """Standoffs and screws by length."""
        found = self.report.fit.fasteners
        if found:
            self._heading("Standoffs and screws")
            rows = [
                [
                    f"{f.count} ×",
                    f.kind,
                    THREAD + (", none fits" if f.length_mm is None else f" × {f.length_mm:g} mm"),
                    f.where,
                ]
                for f in found
            ]
            self._table(("", "Kind", "Size", "Position"), rows, (8, 18, 22, 56))

    def set_up(self) -> None:
        """What is written, laid out and set before it is used, with boxes to tick."""
        plan = self.plan
        steps: list[Said] = []
        boots = next((line for line in self.report.lines if line.role == "boot_drive"), None)
        if plan.image is not None and boots is not None:
            steps.append(f"Write “{plan.image.name}” to {boots.name}.")
        layout = next((one for one in self.report.data.layouts if one.chosen), None)
        if layout is not None:
            use = plan.storage_use
            told: list[Said] = [
                f"Lay out {words.count(self.report.data.disks, 'disk')}: {layout.label}",
                say("usable {size}", size=words.size(layout.usable_gb)),
                f"file system: {words.within(FILE_SYSTEMS[use.file_system])}",
                *(["encrypted"] if use.encrypted else []),
            ]
            steps.append(say("{told}.", told=joined(told, ", ")))
        usual = Settings()
        steps += [
            f"Set: {row.label}."
            for name, row in SETTINGS.items()
            if getattr(plan.settings, name) != getattr(usual, name)
        ]
        if steps:
            self._heading("Set-up")
            self._entries(((_BOX, step) for step in steps), 8.7)

    def snags(self) -> None:
        """Problems and what is tight, each with its reason; notes, what was marked as done, and
        cautions.
        """
        report = self.report
        if report.findings:
            self._heading("Snags")
        order: tuple[Severity, ...] = ("problem", "tight", "note")
        for severity in order:
            chosen = [f for f in report.findings if f.severity == severity and not _cautions(f)]
            self._entries(
                (SEVERITIES[severity], f.sentence if severity == "note" else _with_why(f))
                for f in chosen
            )
        if report.done:
            self._heading("Marked as done")
            self._lines(f.sentence for f in report.done)
        cautions = [f for f in (*report.findings, *report.aside) if _cautions(f)]
        if cautions:
            self._heading("Take care")
            self._lines(f.sentence for f in cautions)
        self._lines(f.sentence for f in report.aside if not _cautions(f))

    def kept(self) -> None:
        """Backups of irreplaceable data, and regular tasks."""
        kept, maintenance = self.report.lifetime.backups, self.report.lifetime.maintenance
        if not kept.replaceable:
            self._heading("Backups")
            self._lines(
                words.opening(copy.text)
                + ("" if copy.every_days is None else f", every {_days(copy)}")
                for copy in kept.copies
            )
            self._lines(
                [
                    f"{kept.count} of 3 copies, {kept.media} of 2 kinds of drive, "
                    f"{kept.elsewhere} of 1 elsewhere."
                ]
            )
        if maintenance:
            self._heading("Maintenance")
            rows = [[_often(entry), entry.text] for entry in maintenance]
            self._table(("How often", "Task"), rows, (26, 78))

    def drawings(self) -> None:
        """Each drawing, small."""
        heading = "Drawings"
        for name in ("stack", "above", "power", "heat", "data", "lifetime"):
            if self._drawing(name, 130, heading):
                heading = ""

    def _drawing(self, name: str, width_mm: float, heading: str = "") -> bool:
        """Place a drawing under its title, and both under a heading where there is one; tells
        whether there is anything to draw.
        """
        sketch = DRAWINGS[name](self.report, self.units)
        if sketch is None:
            return False
        tall_mm = sketch.height * width_mm / sketch.width
        width_mm *= min(1.0, (self.pdf.eph - 24) / tall_mm)
        tall_mm = sketch.height * width_mm / sketch.width
        titled = name != "margins"
        if heading:
            self._heading(heading, tall_mm + 7)
        self._room(tall_mm + 7 * titled)
        if titled:
            self.pdf.set_font(LETTERS, "B", 10)
            self.pdf.cell(0, 6, self._told(sketch.title), new_x="LMARGIN", new_y="NEXT")
        top = self.pdf.get_y()
        draw_on(self.pdf, sketch, _MARGIN_MM, top, width_mm)
        self.pdf.set_y(top + tall_mm + 2)
        return True

    def assumptions(self) -> None:
        """What the results rest on."""
        told: list[Said] = []
        by_class = [line.name for line in self.report.lines if line.origin == "typical"]
        if by_class:
            told.append(f"Typical values only: {words.listed(by_class)}.")
        told += [
            say(
                "{phase}: {hours} per day, load {load}.",
                phase=words.opening(one.name),
                hours=words.counted(one.hours, "h"),
                load=LOADS[one.activity].lower(),
            )
            for one in self.plan.schedule
        ]
        told += [transfer_words(transfer) for transfer in self.plan.transfers]
        told.append(
            say("Required lifetime: {years}.", years=words.years(self.plan.retention.years))
        )
        told.append(
            say(
                "Checked with {draws} draws of the uncertain values. Heat is the steady state at "
                "the highest ambient, {ambient}.",
                draws=max(1, self.report.samples - 1),
                ambient=words.counted(self.plan.place.ambient_max_c, "°C"),
            )
        )
        self._heading("Assumptions")
        self._lines(told)


def transfer_words(transfer: Transfer) -> Text:
    """A transfer as the plan states it."""
    name = words.opening(transfer.text)
    if transfer.rate_mb_s is not None:
        return say("{name}: a stream of {rate}.", name=name, rate=words.rate(transfer.rate_mb_s))
    size = words.size(transfer.amount_gb or 0)
    if transfer.within_min is None:
        return say("{name}: {size}.", name=name, size=size)
    return say(
        "{name}: {size} within {time}.",
        name=name,
        size=size,
        time=words.minutes(transfer.within_min),
    )


def _with_why(finding: Finding) -> Text:
    """What is wrong, and why that matters."""
    return joined([finding.sentence, RULES[finding.rule].why], " ")


def _with_summary(name: str, summary: str) -> str:
    return f"{name}, {summary}" if summary else name


def _days(copy: BackupCopy) -> str:
    days = copy.every_days or 0.0
    return {1.0: "day", 7.0: "week"}.get(days, f"{days:g} days")


def _often(entry: Maintenance) -> Said:
    """How often something is to be done, as people say it."""
    months, rest = divmod(entry.every_days, 30)
    if entry.once:
        return say("after {years}", years=words.years(entry.every_days / 365.25))
    if rest:
        return "every day" if entry.every_days == 1 else f"every {entry.every_days} days"
    if months % 12 == 0:
        return "every year" if months == 12 else f"every {months // 12} years"
    return "every month" if months == 1 else f"every {months} months"


def _cautions(finding: Finding) -> bool:
    return finding.family == "safety"


def _today() -> date:
    return date.today()
