"""A plan on paper: everything that is wanted at the shop and beside the work, as a PDF.

A4 or Letter, readable in black and white. It says what was decided, what was assumed and when.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date
from typing import TYPE_CHECKING

import cobblewort
from cobblewort.core import words
from cobblewort.core.aspects.life.report import KeptCopy
from cobblewort.core.aspects.life.upkeep import Upkeep
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.margin import Severity
from cobblewort.core.plans.plan import Flow, Plan
from cobblewort.core.standards.fasteners import THREAD
from cobblewort.core.verdict.report import Report
from cobblewort.formats.drawings import DRAWINGS
from cobblewort.formats.kit_list import pieces_of
from cobblewort.formats.shown import PLAIN, Shown
from cobblewort.formats.sketch import draw_on, plain, relabelled
from cobblewort.formats.text import SEVERITY_WORDS

if TYPE_CHECKING:
    from fpdf import FPDF

PAPERS = ("a4", "letter")
_MARGIN_MM = 15.0
_MOST_ROWS = 400


def sheet_pdf(
    plan: Plan, report: Report, paper: str = "a4", day: date | None = None, shown: Shown = PLAIN
) -> bytes:
    """The sheet of a plan; `day` is the date that it bears, today unless told."""
    sheet = _Sheet(plan, report, paper, day, shown)
    sheet.head()
    sheet.verdict()
    sheet.to_buy()
    sheet.rest_of_kit()
    sheet.plugs()
    sheet.wires()
    sheet.fasteners()
    sheet.snags()
    sheet.kept()
    sheet.drawings()
    sheet.assumptions()
    return bytes(sheet.pdf.output())


class _Sheet:
    def __init__(
        self, plan: Plan, report: Report, paper: str, day: date | None, shown: Shown
    ) -> None:
        from fpdf import FPDF

        told = f"{plan.name} - Cobblewort {cobblewort.__version__}, {day or _today()}"

        class Paged(FPDF):
            def footer(self) -> None:
                self.set_y(-11)
                self.set_font("helvetica", size=8)
                self.cell(0, 5, plain(told)[:110])
                self.cell(0, 5, f"{self.page_no()} of {{nb}}", align="R")

        self.plan, self.report, self.shown = plan, report, shown
        self.pdf: FPDF = Paged(unit="mm", format=paper)
        self.pdf.set_title(plain(plan.name))
        self.pdf.set_creator("Cobblewort")
        self.pdf.set_margins(_MARGIN_MM, _MARGIN_MM)
        self.pdf.set_auto_page_break(True, 16)
        self.pdf.add_page()

    def _told(self, text: str) -> str:
        return plain(self.shown.text(text))

    def _heading(self, text: str) -> None:
        if self.pdf.get_y() > self.pdf.eph - 18:
            self.pdf.add_page()
        self.pdf.ln(3)
        self.pdf.set_font("helvetica", "B", 12)
        self.pdf.cell(0, 7, self._told(text), new_x="LMARGIN", new_y="NEXT")

    def _lines(self, texts: Iterable[str], size: float = 9.5) -> None:
        self.pdf.set_font("helvetica", size=size)
        for text in texts:
            self.pdf.multi_cell(0, size * 0.46, self._told(text), new_x="LMARGIN", new_y="NEXT")

    def _table(self, head: Sequence[str], rows: Sequence[Sequence[str]],
               widths: Sequence[int]) -> None:  # fmt: skip
        self.pdf.set_font("helvetica", size=9)
        with self.pdf.table(
            col_widths=tuple(widths), borders_layout="HORIZONTAL_LINES", line_height=5,
            padding=0.6, text_align="LEFT",
        ) as table:  # fmt: skip
            for cells in (head, *rows[:_MOST_ROWS]):
                row = table.row()
                for cell in cells:
                    row.cell(self._told(cell))

    def head(self) -> None:
        """Name, purpose and place."""
        plan = self.plan
        self.pdf.set_font("helvetica", "B", 18)
        self.pdf.multi_cell(0, 8, self._told(plan.name), new_x="LMARGIN", new_y="NEXT")
        self._lines([plan.purpose] if plan.purpose else [])
        place = plan.place
        about = [f"{place.ambient_min_c:g} to {place.ambient_max_c:g} °C"]
        about += ["wet"] if place.wet else []
        about += [f"{place.dust} dust"] if place.dust != "clean" else []
        about += [f"{place.altitude_m:g} m above the sea"] if place.altitude_m else []
        about += [f"at most {place.noise_max_dba:g} dB(A)"] if place.noise_max_dba else []
        where = f"{place.name}: " if place.name else ""
        copies = "" if plan.copies == 1 else f" {plan.copies} copies."
        self._lines([f"{where}{', '.join(about)}; power: {place.power}.{copies}"])

    def verdict(self) -> None:
        """The word for the whole, and the rulers."""
        report = self.report
        stops, tight = report.count("stops"), report.count("tight")
        told = SEVERITY_WORDS[report.severity if report.severity != "note" else "sound"]
        counted = [f"{stops} {'thing stops' if stops == 1 else 'things stop'} it"] if stops else []
        counted += [f"{tight} {'is' if tight == 1 else 'are'} tight"] if tight else []
        self._heading(f"{told}: {', '.join(counted)}" if counted else told)
        self._drawing("margins", 120)

    def to_buy(self) -> None:
        """What is bought, with a box to tick and what it costs."""
        report = self.report
        rows = []
        for line, cost in zip(report.lines, report.cost.lines, strict=True):
            if line.role in ("borrow", "beside") or (line.owned and not cost.to_pay):
                continue
            price = "?" if cost.to_pay is None else words.money(cost.to_pay, report.cost.currency)
            rows.append(["[  ]", f"{pieces_of(line, report)} x", f"{line.maker} {line.name}",
                         line.summary, price])  # fmt: skip
        if rows:
            self._heading("To buy")
            self._table(("", "", "Part", "What", "Price"), rows, (6, 8, 34, 40, 16))
            total = words.money(report.cost.total, report.cost.currency)
            rest = "" if not report.cost.unknown else ", without what has no known price"
            self._lines([f"In all {total}{rest}."])

    def rest_of_kit(self) -> None:
        """What is there already, and what is borrowed."""
        for heading, chosen in (
            ("Yours already", [x for x in self.report.lines if x.owned and x.role != "borrow"]),
            ("To borrow", [x for x in self.report.lines if x.role == "borrow"]),
        ):
            if chosen:
                self._heading(heading)
                self._lines(f"[  ] {x.quantity} x {x.maker} {x.name}, {x.summary}" for x in chosen)

    def plugs(self) -> None:
        """Which plug goes where."""
        found = self.report.fit.connections
        if found:
            self._heading("What is plugged where")
            rows = [[c.plug_label, c.socket_label, c.link] for c in found]
            self._table(("Plug", "Socket", "Link"), rows, (36, 44, 24))

    def wires(self) -> None:
        """The wires of the header, and what is wired by hand."""
        wires = self.report.fit.header.wires
        if wires:
            self._heading("Wires on the header")
            rows = [[f"pin {w.pin}", w.pin_name, w.through, ", ".join(w.to)] for w in wires]
            self._table(("Pin", "Signal", "Through", "To"), rows, (12, 26, 26, 40))

    def fasteners(self) -> None:
        """Standoffs and screws by length."""
        found = self.report.fit.fasteners
        if found:
            self._heading("Standoffs and screws")
            rows = [
                [f"{f.count} x", f.kind,
                 THREAD + (", none fits" if f.length_mm is None else f" x {f.length_mm:g} mm"),
                 f.where]
                for f in found
            ]  # fmt: skip
            self._table(("", "Kind", "Size", "Where"), rows, (8, 18, 22, 56))

    def snags(self) -> None:
        """What stands in the way, what is tight, what is worth knowing, and what was decided."""
        report = self.report
        if report.findings:
            self._heading("Snags")
        order: tuple[Severity, ...] = ("stops", "tight", "note")
        for severity in order:
            chosen = [f for f in report.findings if f.severity == severity and not _cautions(f)]
            self._lines(f"{SEVERITY_WORDS[severity]}: {f.sentence}" for f in chosen)
        if report.settled:
            self._heading("Settled by you")
            self._lines(f.sentence for f in report.settled)
        cautions = [f for f in report.findings if _cautions(f)]
        if cautions:
            self._heading("Mind")
            self._lines(f.sentence for f in cautions)

    def kept(self) -> None:
        """Copies of what must not be lost, and what comes round once it runs."""
        kept, upkeep = self.report.life.kept, self.report.life.upkeep
        if not kept.replaceable:
            self._heading("Copies")
            self._lines(
                f"{copy.text}" + ("" if copy.every_days is None else f", every {_days(copy)}")
                for copy in kept.copies
            )
            self._lines([
                f"{kept.count} of 3 copies, {kept.media} of 2 kinds of media, {kept.away} of 1 "
                "elsewhere."
            ])  # fmt: skip
        if upkeep:
            self._heading("Once it runs")
            rows = [[_often(entry), entry.text] for entry in upkeep]
            self._table(("How often", "What"), rows, (26, 78))

    def drawings(self) -> None:
        """Each drawing, small."""
        self._heading("Drawings")
        for name in ("stack", "above", "supply", "heat", "data", "life"):
            self._drawing(name, 130)

    def _drawing(self, name: str, width_mm: float) -> None:
        sketch = DRAWINGS[name](self.report)
        if sketch is None:
            return
        tall_mm = sketch.height * width_mm / sketch.width
        width_mm *= min(1.0, (self.pdf.eph - 12) / tall_mm)
        tall_mm = sketch.height * width_mm / sketch.width
        if name != "margins":
            if self.pdf.get_y() + tall_mm + 8 > self.pdf.h - 16:
                self.pdf.add_page()
            self.pdf.set_font("helvetica", "B", 10)
            self.pdf.cell(0, 6, self._told(sketch.title), new_x="LMARGIN", new_y="NEXT")
        elif self.pdf.get_y() + tall_mm > self.pdf.h - 16:
            self.pdf.add_page()
        top = self.pdf.get_y()
        draw_on(self.pdf, relabelled(sketch, self.shown), _MARGIN_MM, top, width_mm)
        self.pdf.set_y(top + tall_mm + 2)

    def assumptions(self) -> None:
        """What the sums rest on."""
        told = []
        by_class = [line.name for line in self.report.lines if line.origin == "class"]
        if by_class:
            told.append(f"By the figures of their class alone: {words.listed(by_class)}.")
        told += [f"{one.name}: {one.hours:g} h a day, {one.activity}." for one in self.plan.duty]
        told += [flow_words(flow) for flow in self.plan.flows]
        told.append(f"It is to last {words.years(self.plan.keeping.years)}.")
        told.append(
            f"Judged with {max(1, self.report.samples - 1)} draws of the uncertain figures. Heat "
            f"is that of the hottest day, {self.plan.place.ambient_max_c:g} °C, once it is settled."
        )
        self._heading("What this rests on")
        self._lines(told)


def flow_words(flow: Flow) -> str:
    """A flow as the plan states it."""
    if flow.rate_mb_s is not None:
        return f"{words.opening(flow.text)}: {words.rate(flow.rate_mb_s)} without a gap."
    within = "" if flow.within_min is None else f" within {words.minutes(flow.within_min)}"
    return f"{words.opening(flow.text)}: {words.size(flow.amount_gb or 0)}{within}."


def _days(copy: KeptCopy) -> str:
    days = copy.every_days or 0.0
    return {1.0: "day", 7.0: "week"}.get(days, f"{days:g} days")


def _often(entry: Upkeep) -> str:
    """How often something is to be done, as people say it."""
    months, rest = divmod(entry.every_days, 30)
    if entry.once:
        return f"after {words.years(entry.every_days / 365.25)}"
    if rest:
        return "every day" if entry.every_days == 1 else f"every {entry.every_days} days"
    if months % 12 == 0:
        return "every year" if months == 12 else f"every {months // 12} years"
    return "every month" if months == 1 else f"every {months} months"


def _cautions(finding: Finding) -> bool:
    return finding.family == "safety"


def _today() -> date:
    return date.today()
