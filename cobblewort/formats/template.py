"""A template on paper and for machines: SVG and DXF at full size, PDF with a line to check it by.

All three draw the same panels, one under the other. Lengths are in mm; the origin of a panel is
its lower left corner.
"""

from __future__ import annotations

import io
from dataclasses import dataclass
from xml.etree import ElementTree

from cobblewort.core.aspects.fit.template import Cutout, Panel

_MARGIN_MM = 12.0
_GAP_MM = 14.0
_CHECK_MM = 100.0
_LAYERS = {"CUT": 1, "HOLES": 3, "GUIDES": 8, "NOTES": 7}
"""Layers of the DXF file and their colour numbers."""
_SHEETS_MM = {
    "A4": (210.0, 297.0), "A3": (297.0, 420.0), "A2": (420.0, 594.0), "A1": (594.0, 841.0),
    "A0": (841.0, 1189.0),
}  # fmt: skip
"""ISO 216."""


@dataclass(slots=True, frozen=True)
class _Placed:
    """A panel and where its lower left corner lies on the sheet, y upward."""

    panel: Panel
    x_mm: float
    y_mm: float


def template_svg(panels: list[Panel], title: str) -> str:
    """One SVG drawing in millimetres, with a line of 100 mm."""
    placed, width, height = _laid_out(panels)
    svg = ElementTree.Element(
        "svg",
        {
            "xmlns": "http://www.w3.org/2000/svg", "width": f"{width:g}mm",
            "height": f"{height:g}mm", "viewBox": f"0 0 {width:g} {height:g}",
            "fill": "none", "stroke": "black", "stroke-width": "0.2",
        },
    )  # fmt: skip
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
        text(x, y + panel.height_mm + 2, _heading(panel))
        for guide in panel.guides:
            dashes = {"stroke-dasharray": "2 1", "class": "guide"}
            box(x + guide.x_mm, y + guide.y_mm, guide.width_mm, guide.height_mm, **dashes)
        for cut in panel.cutouts:
            box(x + cut.x_mm, y + cut.y_mm, cut.width_mm, cut.height_mm, **{"class": "cut"})
        for hole in panel.holes:
            circle = {
                "cx": f"{x + hole.x_mm:g}", "cy": f"{height - y - hole.y_mm:g}",
                "r": f"{hole.diameter_mm / 2:g}", "class": "hole",
            }  # fmt: skip
            ElementTree.SubElement(svg, "circle", circle)
        for number, cut in enumerate(panel.cutouts):
            text(x, y - 4 - 3.6 * number, _cut_words(panel, cut))
    line = {"x1": f"{_MARGIN_MM:g}", "x2": f"{_MARGIN_MM + _CHECK_MM:g}", "class": "check"}
    level = f"{height - _MARGIN_MM:g}"
    ElementTree.SubElement(svg, "line", {**line, "y1": level, "y2": level})
    text(_MARGIN_MM, _MARGIN_MM + 1.5, _CHECK_WORDS)
    return ElementTree.tostring(svg, encoding="unicode") + "\n"


def template_dxf(panels: list[Panel], title: str) -> str:
    """A DXF drawing (R2010, millimetres): cuts, holes, guides and notes on layers of their own."""
    from ezdxf import units
    from ezdxf.filemanagement import new

    document = new("R2010", units=units.MM)
    document.header["$LASTSAVEDBY"] = "Cobblewort"
    for name, color in _LAYERS.items():
        document.layers.add(name, color=color)
    space = document.modelspace()

    def box(x: float, y: float, w: float, h: float, layer: str) -> None:
        corners = [(x, y), (x + w, y), (x + w, y + h), (x, y + h)]
        space.add_lwpolyline(corners, close=True, dxfattribs={"layer": layer})

    def text(x: float, y: float, words: str) -> None:
        space.add_text(words, height=3, dxfattribs={"layer": "NOTES", "insert": (x, y)})

    placed, _, _ = _laid_out(panels)
    text(_MARGIN_MM, _MARGIN_MM - 6, title)
    for item in placed:
        panel, x, y = item.panel, item.x_mm, item.y_mm
        box(x, y, panel.width_mm, panel.height_mm, "GUIDES")
        text(x, y + panel.height_mm + 2, _heading(panel))
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


def template_pdf(panels: list[Panel], title: str) -> bytes:
    """One page at full size, the smallest ISO A sheet that holds everything.

    The page says to check the line of 100 mm, since printers like to scale.
    """
    from fpdf import FPDF

    placed, width, height = _laid_out(panels)
    page = next(
        (size for size in _SHEETS_MM.values() if width <= size[0] and height <= size[1]),
        (width, height),
    )
    pdf = FPDF(unit="mm", format=page)
    pdf.set_title(title)
    pdf.set_auto_page_break(False)
    pdf.add_page()
    pdf.set_font("helvetica", size=8)
    pdf.set_line_width(0.15)
    bottom = page[1]

    def text(x: float, y: float, words: str) -> None:
        pdf.text(x, bottom - y, words.encode("latin-1", "replace").decode("latin-1"))

    def box(x: float, y: float, w: float, h: float) -> None:
        pdf.rect(x, bottom - y - h, w, h)

    for item in placed:
        panel, x, y = item.panel, item.x_mm, item.y_mm
        box(x, y, panel.width_mm, panel.height_mm)
        text(x, y + panel.height_mm + 2, _heading(panel))
        pdf.set_dash_pattern(dash=2, gap=1)
        for guide in panel.guides:
            box(x + guide.x_mm, y + guide.y_mm, guide.width_mm, guide.height_mm)
        pdf.set_dash_pattern()
        for number, cut in enumerate(panel.cutouts):
            box(x + cut.x_mm, y + cut.y_mm, cut.width_mm, cut.height_mm)
            text(x, y - 4 - 3.6 * number, _cut_words(panel, cut))
        for hole in panel.holes:
            cx, cy, half = x + hole.x_mm, bottom - y - hole.y_mm, 2.5
            pdf.circle(cx, cy, hole.diameter_mm / 2)
            pdf.line(cx - half, cy, cx + half, cy)
            pdf.line(cx, cy - half, cx, cy + half)
    pdf.line(_MARGIN_MM, bottom - _MARGIN_MM, _MARGIN_MM + _CHECK_MM, bottom - _MARGIN_MM)
    text(_MARGIN_MM, _MARGIN_MM + 1.5, _CHECK_WORDS)
    text(_MARGIN_MM, _MARGIN_MM - 5, title)
    return bytes(pdf.output())


_CHECK_WORDS = "This line is 100 mm long. Measure it before you drill; print at 100 %, not to fit."


def _laid_out(panels: list[Panel]) -> tuple[list[_Placed], float, float]:
    """Panels one above the other from the bottom, with room for the check line, and the sheet."""
    placed = []
    y_mm = _MARGIN_MM + 8
    for panel in reversed(panels):
        y_mm += 3.6 * len(panel.cutouts) + 2
        placed.append(_Placed(panel, _MARGIN_MM, y_mm))
        y_mm += panel.height_mm + _GAP_MM
    width = max([_CHECK_MM, *(panel.width_mm for panel in panels)]) + 2 * _MARGIN_MM
    return placed, width, y_mm


def _heading(panel: Panel) -> str:
    seen = "from above" if panel.holes else "from outside"
    return f"{panel.name}, {panel.width_mm:g} x {panel.height_mm:.1f} mm inside, seen {seen}"


def _cut_words(panel: Panel, cut: Cutout) -> str:
    beyond = "" if panel.holds(cut) else ", reaches beyond the wall"
    return (
        f"{cut.label}: {cut.width_mm:.1f} x {cut.height_mm:.1f} mm, "
        f"{cut.x_mm:.1f} from the left, {cut.y_mm:.1f} up{beyond}"
    )
