"""A template on paper and for machines: SVG and DXF at full size, PDF with a line to check it by.

All three draw the same panels, one under the other. Lengths are in mm; the origin of a panel is
its lower left corner.
"""

from __future__ import annotations

import io
from dataclasses import dataclass
from importlib.util import find_spec
from math import ceil
from typing import TYPE_CHECKING
from xml.etree import ElementTree

from cobblewort.core import words
from cobblewort.core.aspects.fit.template import Cutout, Panel
from cobblewort.core.errors import InputError
from cobblewort.core.text import Figure, say
from cobblewort.formats.display_units import SI_UNITS, DisplayUnits
from cobblewort.formats.sketch import LETTERS, written

if TYPE_CHECKING:
    from fpdf import FPDF

_MARGIN_MM = 12.0
_GAP_MM = 14.0
_CHECK_MM = 100.0
_LAYERS = {"CUT": 1, "HOLES": 3, "GUIDES": 8, "NOTES": 7}
"""Layers of the DXF file and their colour numbers."""


@dataclass(slots=True, frozen=True)
class _Placed:
    """A panel and where its lower left corner lies on the sheet, y upward."""

    panel: Panel
    x_mm: float
    y_mm: float


def template_svg(panels: list[Panel], title: str, units: DisplayUnits = SI_UNITS) -> str:
    """One SVG drawing in millimetres, with a line of 100 mm."""
    placed, width, height = _laid_out(panels, units)
    svg = ElementTree.Element(
        "svg",
        {
            "xmlns": "http://www.w3.org/2000/svg",
            "width": f"{width:g}mm",
            "height": f"{height:g}mm",
            "viewBox": f"0 0 {width:g} {height:g}",
            "fill": "none",
            "stroke": "black",
            "stroke-width": "0.2",
        },
    )
    ElementTree.SubElement(svg, "title").text = title

    def box(x: float, y: float, w: float, h: float, **more: str) -> None:
        size = {"x": f"{x:g}", "y": f"{height - y - h:g}", "width": f"{w:g}", "height": f"{h:g}"}
        ElementTree.SubElement(svg, "rect", {**size, **more})

    def text(x: float, y: float, words: str) -> None:
        style = {"font-size": "3.2", "font-family": "sans-serif", "fill": "black", "stroke": "none"}
        place = {"x": f"{x:g}", "y": f"{height - y:g}"}
        ElementTree.SubElement(svg, "text", {**place, **style}).text = words

    for item in placed:
        panel, x, y = item.panel, item.x_mm, item.y_mm
        box(x, y, panel.width_mm, panel.height_mm, **{"class": "outline"})
        text(x, y + panel.height_mm + 2, _heading(panel, units))
        for guide in panel.guides:
            dashes = {"stroke-dasharray": "2 1", "class": "guide"}
            box(x + guide.x_mm, y + guide.y_mm, guide.width_mm, guide.height_mm, **dashes)
        for cut in panel.cutouts:
            box(x + cut.x_mm, y + cut.y_mm, cut.width_mm, cut.height_mm, **{"class": "cut"})
        for hole in panel.holes:
            circle = {
                "cx": f"{x + hole.x_mm:g}",
                "cy": f"{height - y - hole.y_mm:g}",
                "r": f"{hole.diameter_mm / 2:g}",
                "class": "hole",
            }
            ElementTree.SubElement(svg, "circle", circle)
        for number, told in enumerate(_words(panel, units)):
            text(x, y - 4 - 3.6 * number, told)
    line = {"x1": f"{_MARGIN_MM:g}", "x2": f"{_MARGIN_MM + _CHECK_MM:g}", "class": "check"}
    level = f"{height - _MARGIN_MM:g}"
    ElementTree.SubElement(svg, "line", {**line, "y1": level, "y2": level})
    text(_MARGIN_MM, _MARGIN_MM + 1.5, _CHECK_WORDS)
    return ElementTree.tostring(svg, encoding="unicode") + "\n"


DXF_COMMAND = "pip install 'cobblewort[dxf]'"


def can_write_dxf() -> bool:
    """Whether the package that writes DXF is installed."""
    return find_spec("ezdxf") is not None


def template_dxf(panels: list[Panel], title: str, units: DisplayUnits = SI_UNITS) -> str:
    """A DXF drawing (R2010, millimetres): cuts, holes, guides and notes on layers of their own.

    Raises
    ------
    InputError
        If the package that writes DXF is not installed: it is an extra, as it is large.
    """
    if not can_write_dxf():
        raise InputError([("", f"DXF needs a further package. Run: {DXF_COMMAND}")])
    from ezdxf import units as dxf_units
    from ezdxf.filemanagement import new

    document = new("R2010", units=dxf_units.MM)
    document.header["$LASTSAVEDBY"] = "Cobblewort"
    for name, color in _LAYERS.items():
        document.layers.add(name, color=color)
    space = document.modelspace()

    def box(x: float, y: float, w: float, h: float, layer: str) -> None:
        corners = [(x, y), (x + w, y), (x + w, y + h), (x, y + h)]
        space.add_lwpolyline(corners, close=True, dxfattribs={"layer": layer})

    def text(x: float, y: float, words: str) -> None:
        space.add_text(words, height=3, dxfattribs={"layer": "NOTES", "insert": (x, y)})

    placed, _, _ = _laid_out(panels, units)
    text(_MARGIN_MM, _MARGIN_MM - 6, title)
    for item in placed:
        panel, x, y = item.panel, item.x_mm, item.y_mm
        box(x, y, panel.width_mm, panel.height_mm, "GUIDES")
        text(x, y + panel.height_mm + 2, _heading(panel, units))
        for guide in panel.guides:
            box(x + guide.x_mm, y + guide.y_mm, guide.width_mm, guide.height_mm, "GUIDES")
        for cut in panel.cutouts:
            box(x + cut.x_mm, y + cut.y_mm, cut.width_mm, cut.height_mm, "CUT")
        for hole in panel.holes:
            centre = (x + hole.x_mm, y + hole.y_mm)
            space.add_circle(centre, hole.diameter_mm / 2, dxfattribs={"layer": "HOLES"})
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue()


def template_pdf(
    panels: list[Panel], title: str, paper: str = "a4", units: DisplayUnits = SI_UNITS
) -> bytes:
    """At full size on the paper that people print on: all on one sheet where that holds them, else
    each panel on a sheet of its own, and larger ones over several with marks to join them by.

    Every sheet says to check its lines of 100 mm, along and across, since printers like to scale.
    """
    from cobblewort.formats.paper import Paper

    pdf = Paper(paper)
    pdf.set_title(title)
    pdf.set_auto_page_break(False)
    sheet = _Sheets(pdf, title, units)
    placed, width, height = _laid_out(panels, units)
    if width <= pdf.w and height <= pdf.h:
        sheet.draw(placed, width, height)
    else:
        for panel in panels:
            sheet.draw(*_laid_out([panel], units))
    return bytes(pdf.output())


_EDGE_MM = 8.0
"""What a printer leaves white at the edge of a sheet, and some more."""
_OVERLAP_MM = 10.0


class _Sheets:
    """Draws panels on sheets of one size, over as many of them as it takes."""

    def __init__(self, pdf: FPDF, title: str, units: DisplayUnits) -> None:
        self._units = units
        self._pdf, self._title = pdf, title
        self._page_mm = (pdf.w, pdf.h)
        self.width_mm, self.height_mm = pdf.w - 2 * _EDGE_MM, pdf.h - 2 * _EDGE_MM

    def draw(self, placed: list[_Placed], width_mm: float, height_mm: float) -> None:
        """Draw a layout, cut into as many sheets as it is larger than one."""
        columns = self._count(width_mm - 2 * _EDGE_MM, self.width_mm)
        rows = self._count(height_mm - 2 * _EDGE_MM, self.height_mm)
        for row in range(rows):
            for column in range(columns):
                self._pdf.add_page()
                self._pdf.set_font(LETTERS, size=8)
                self._pdf.set_line_width(0.15)
                left = _EDGE_MM + column * (self.width_mm - _OVERLAP_MM)
                low = _EDGE_MM + row * (self.height_mm - _OVERLAP_MM)
                # Before what is clipped: fonts that are set in there are forgotten after it.
                self._check_lines()
                if rows * columns > 1:
                    self._marks(row, column, rows, columns)
                with self._pdf.rect_clip(_EDGE_MM, _EDGE_MM, self.width_mm, self.height_mm):
                    self._panels(placed, left, low)

    @staticmethod
    def _count(size_mm: float, sheet_mm: float) -> int:
        """How many sheets with an overlap cover a length."""
        beyond = max(0.0, size_mm - sheet_mm)
        return 1 + ceil(beyond / (sheet_mm - _OVERLAP_MM) - 1e-9)

    def _at(self, x_mm: float, y_mm: float) -> tuple[float, float]:
        """A place counted from the lower left corner of what is printed on."""
        return _EDGE_MM + x_mm, self._page_mm[1] - _EDGE_MM - y_mm

    def _text(self, x_mm: float, y_mm: float, words: str) -> None:
        self._pdf.text(*self._at(x_mm, y_mm), written(words))

    def _box(self, x_mm: float, y_mm: float, w_mm: float, h_mm: float) -> None:
        x, y = self._at(x_mm, y_mm + h_mm)
        self._pdf.rect(x, y, w_mm, h_mm)

    def _panels(self, placed: list[_Placed], left_mm: float, low_mm: float) -> None:
        for item in placed:
            panel, x, y = item.panel, item.x_mm - left_mm, item.y_mm - low_mm
            self._box(x, y, panel.width_mm, panel.height_mm)
            self._text(x, y + panel.height_mm + 2, _heading(panel, self._units))
            self._pdf.set_dash_pattern(dash=2, gap=1)
            for guide in panel.guides:
                self._box(x + guide.x_mm, y + guide.y_mm, guide.width_mm, guide.height_mm)
            self._pdf.set_dash_pattern()
            for cut in panel.cutouts:
                self._box(x + cut.x_mm, y + cut.y_mm, cut.width_mm, cut.height_mm)
            for number, line in enumerate(_words(panel, self._units)):
                self._text(x, y - 4 - 3.6 * number, line)
            for hole in panel.holes:
                cx, cy = self._at(x + hole.x_mm, y + hole.y_mm)
                half = 2.5
                self._pdf.circle(cx, cy, hole.diameter_mm / 2)
                self._pdf.line(cx - half, cy, cx + half, cy)
                self._pdf.line(cx, cy - half, cx, cy + half)

    def _check_lines(self) -> None:
        """Lines of 100 mm along and across, at the lower left, and what they are for."""
        x, y = self._at(0, 3)
        self._pdf.line(x, y, x + _CHECK_MM, y)
        self._pdf.line(x, y, x, y - _CHECK_MM)
        self._text(2, 4.5, _CHECK_WORDS)
        self._text(2, 0, self._title)

    def _marks(self, row: int, column: int, rows: int, columns: int) -> None:
        """Which sheet of how many this is, and crosses where the next ones lie over it."""
        place = f"column {column + 1} of {columns}, row {row + 1} of {rows} from below"
        self._text(self.width_mm - 62, 0, place)
        across = self._joints(column, columns, self.width_mm)
        along = self._joints(row, rows, self.height_mm)
        for x_mm in across or [self.width_mm / 2]:
            for y_mm in along or [self.height_mm / 2]:
                x, y = self._at(x_mm, y_mm)
                self._pdf.line(x - 4, y, x + 4, y)
                self._pdf.line(x, y - 4, x, y + 4)

    @staticmethod
    def _joints(number: int, count: int, size_mm: float) -> list[float]:
        """The middle of where a sheet lies over the ones before and after it. [mm]"""
        before = [_OVERLAP_MM / 2] if number > 0 else []
        return [*before, size_mm - _OVERLAP_MM / 2] if number + 1 < count else before


_CHECK_WORDS = (
    "These lines are 100 mm long. Measure them before you drill; print at 100 %, not to fit."
)


def _laid_out(panels: list[Panel], units: DisplayUnits) -> tuple[list[_Placed], float, float]:
    """Panels one above the other from the bottom, with room for the check line, and the sheet."""
    placed = []
    y_mm = _MARGIN_MM + 8
    for panel in reversed(panels):
        y_mm += 3.6 * len(_words(panel, units)) + 2
        placed.append(_Placed(panel, _MARGIN_MM, y_mm))
        y_mm += panel.height_mm + _GAP_MM
    width = max([_CHECK_MM, *(panel.width_mm for panel in panels)]) + 2 * _MARGIN_MM
    return placed, width, y_mm


def _heading(panel: Panel, units: DisplayUnits) -> str:
    if not panel.seen:
        return f"{panel.name}, each at its size, from the left"
    size = words.sides(words.stated_mm(panel.width_mm), Figure(panel.height_mm, "mm", 1))
    told = say("{name}, {size} inside, seen {seen}", name=panel.name, size=size, seen=panel.seen)
    return units.text(told)


def _words(panel: Panel, units: DisplayUnits) -> list[str]:
    """What is cut, a line each: cut-outs, and holes that say what they are for."""
    across = [
        units.text(
            say("{hole}: diameter {size}", hole=h.label, size=Figure(h.diameter_mm, "mm", 1))
        )
        for h in panel.holes
        if h.label
    ]
    return [_cut_words(panel, cut, units) for cut in panel.cutouts] + across


def _cut_words(panel: Panel, cut: Cutout, units: DisplayUnits) -> str:
    size = words.sides(Figure(cut.width_mm, "mm", 1), Figure(cut.height_mm, "mm", 1))
    if not panel.seen:
        return units.text(say("{cut}: {size}", cut=cut.label, size=size))
    beyond = "" if panel.holds(cut) else ", reaches beyond the wall"
    return units.text(
        say(
            "{cut}: {size}, {x} from the left, {y} up{beyond}",
            cut=cut.label,
            size=size,
            x=Figure(cut.x_mm, "mm", 1),
            y=Figure(cut.y_mm, "mm", 1),
            beyond=beyond,
        )
    )
