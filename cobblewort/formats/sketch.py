"""Drawings of flat shapes, written as SVG or placed on a page of a PDF.

Lengths are in the sketch's own units, about a screen's pixels, y downward. Greys and hatching carry
the meaning, so that black and white on paper is enough.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Literal
from xml.etree import ElementTree

if TYPE_CHECKING:
    from fpdf import FPDF

INK, SOFT, CABLE, PALE, PAPER = "#22313a", "#5f6a70", "#aab2b4", "#dfe2dc", "#ffffff"

Anchor = Literal["start", "middle", "end"]
LETTERS = "letters"
"""The font of a PDF that drawings are placed on."""
_NONE = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\ud800-\udfff\ufdd0-\ufdef\ufffe\uffff]")


def written(text: str) -> str:
    """A text without what is no character: controls, halves, and what Unicode keeps free."""
    return _NONE.sub("\N{REPLACEMENT CHARACTER}", text)


@dataclass(slots=True, frozen=True)
class Shape:
    """A polygon, or a line where it is open; `hatched` stands for a limit that is passed."""

    points: tuple[tuple[float, float], ...]
    fill: str | None = None
    stroke: str | None = None
    width: float = 1.0
    dashed: bool = False
    closed: bool = True
    hatched: bool = False


@dataclass(slots=True, frozen=True)
class Label:
    """A line of text by its base line."""

    x: float
    y: float
    text: str
    size: float = 11.0
    anchor: Anchor = "start"
    bold: bool = False
    soft: bool = False
    light: bool = False

    @property
    def color(self) -> str:
        """Ink, softer beside it, or that of the paper on a dark ground."""
        return PAPER if self.light else SOFT if self.soft else INK


def width_of(text: str, size: float = 11.0) -> float:
    """About how wide a line of text is, a little more rather than less: letters of three widths."""
    units = sum(0.3 if c in _NARROW else 0.85 if c in _WIDE else 0.57 for c in text)
    return units * size


def cut(text: str, width: float, size: float = 11.0) -> str:
    """As much of a text as has room, with dots for the rest."""
    if width_of(text, size) <= width:
        return text
    while text and width_of(f"{text}...", size) > width:
        text = text[:-1]
    return f"{text.rstrip(' ,(')}..." if text else ""


_NARROW, _WIDE = frozenset("iljtfrI.,:;'()[]|/ "), frozenset("mwMW%@×")


@dataclass(slots=True)
class Sketch:
    """A drawing of a size, and what it is of in words."""

    title: str
    width: float
    height: float
    shapes: list[Shape] = field(default_factory=list)
    labels: list[Label] = field(default_factory=list)

    def box(
        self,
        x: float,
        y: float,
        width: float,
        height: float,
        fill: str | None = None,
        stroke: str | None = None,
        *,
        dashed: bool = False,
        hatched: bool = False,
        line: float = 1.0,
    ) -> None:
        """Add a rectangle by its upper left corner."""
        corners = ((x, y), (x + width, y), (x + width, y + height), (x, y + height))
        self.shapes.append(Shape(corners, fill, stroke, line, dashed, True, hatched))

    def line(
        self,
        x1: float,
        y1: float,
        x2: float,
        y2: float,
        width: float = 1.0,
        *,
        stroke: str = INK,
        dashed: bool = False,
    ) -> None:
        """Add a line."""
        self.shapes.append(Shape(((x1, y1), (x2, y2)), None, stroke, width, dashed, False))

    def thread(self, points: Sequence[tuple[float, float]], width: float = 0.5) -> None:
        """Add an open line through some points, paler than the bodies it leads to."""
        self.shapes.append(Shape(tuple(points), None, CABLE, width, closed=False))

    def text(
        self,
        x: float,
        y: float,
        text: str,
        size: float = 11.0,
        anchor: Anchor = "start",
        *,
        bold: bool = False,
        soft: bool = False,
        light: bool = False,
    ) -> None:
        """Add a line of text."""
        self.labels.append(Label(x, y, text, size, anchor, bold, soft, light))


_HATCH = "hatch"


def sketch_svg(sketch: Sketch) -> str:
    """A drawing as SVG, with its title for screen readers."""
    svg = ElementTree.Element(
        "svg",
        {
            "xmlns": "http://www.w3.org/2000/svg",
            "role": "img",
            "viewBox": f"0 0 {sketch.width:g} {sketch.height:g}",
            "width": f"{sketch.width:g}",
            "height": f"{sketch.height:g}",
            "font-family": "Atkinson Hyperlegible Next, sans-serif",
        },
    )
    ElementTree.SubElement(svg, "title").text = written(sketch.title)
    pattern = ElementTree.SubElement(
        ElementTree.SubElement(svg, "defs"),
        "pattern",
        {
            "id": _HATCH,
            "width": "5",
            "height": "5",
            "patternUnits": "userSpaceOnUse",
            "patternTransform": "rotate(45)",
        },
    )
    ElementTree.SubElement(pattern, "rect", {"width": "2", "height": "5", "fill": INK})
    ElementTree.SubElement(
        svg, "rect", {"width": f"{sketch.width:g}", "height": f"{sketch.height:g}", "fill": PAPER}
    )
    for shape in sketch.shapes:
        style = {
            "fill": f"url(#{_HATCH})" if shape.hatched else shape.fill or "none",
            "stroke": shape.stroke or "none",
            "stroke-width": f"{shape.width:g}",
        }
        if shape.dashed:
            style["stroke-dasharray"] = "4 3"
        points = " ".join(f"{x:.1f},{y:.1f}" for x, y in shape.points)
        name = "polygon" if shape.closed else "polyline"
        ElementTree.SubElement(svg, name, {"points": points, **style})
    for label in sketch.labels:
        style = {
            "x": f"{label.x:.1f}",
            "y": f"{label.y:.1f}",
            "font-size": f"{label.size:g}",
            "fill": label.color,
            "text-anchor": label.anchor,
        }
        if label.bold:
            style["font-weight"] = "650"
        ElementTree.SubElement(svg, "text", style).text = written(label.text)
    return ElementTree.tostring(svg, encoding="unicode") + "\n"


_PT_PER_MM = 72 / 25.4


def draw_on(pdf: FPDF, sketch: Sketch, x_mm: float, y_mm: float, width_mm: float) -> float:
    """Place a drawing on a page, as wide as told. Returns its height. [mm]"""
    scale = width_mm / sketch.width

    def at(point: tuple[float, float]) -> tuple[float, float]:
        return x_mm + point[0] * scale, y_mm + point[1] * scale

    for shape in sketch.shapes:
        pdf.set_line_width(max(0.1, shape.width * scale))
        pdf.set_dash_pattern(*((1.0, 0.8) if shape.dashed else ()))
        points = [at(point) for point in shape.points]
        if shape.stroke:
            pdf.set_draw_color(*_rgb(shape.stroke))
        if not shape.closed:
            pdf.polyline(points)
            continue
        if shape.fill:
            pdf.set_fill_color(*_rgb(shape.fill))
        if shape.fill or shape.stroke:
            pdf.polygon(
                points, style="".join(("D" if shape.stroke else "", "F" if shape.fill else ""))
            )
        if shape.hatched:
            _hatch(pdf, points)
    pdf.set_dash_pattern()
    for label in sketch.labels:
        pdf.set_font(LETTERS, "B" if label.bold else "", label.size * scale * _PT_PER_MM)
        pdf.set_text_color(*_rgb(label.color))
        text = written(label.text)
        wide = pdf.get_string_width(text)
        x, y = at((label.x, label.y))
        pdf.text(x - {"start": 0.0, "middle": wide / 2, "end": wide}[label.anchor], y, text)
    pdf.set_text_color(0)
    pdf.set_draw_color(0)
    pdf.set_fill_color(255)
    pdf.set_line_width(0.2)
    return sketch.height * scale


def _rgb(color: str) -> tuple[int, int, int]:
    return int(color[1:3], 16), int(color[3:5], 16), int(color[5:7], 16)


def _hatch(pdf: FPDF, points: list[tuple[float, float]]) -> None:
    """Strokes over the box around a shape: enough for bars, which is all that is hatched."""
    pdf.set_draw_color(*_rgb(INK))
    pdf.set_line_width(0.2)
    left, right = min(x for x, _ in points), max(x for x, _ in points)
    top, bottom = min(y for _, y in points), max(y for _, y in points)
    x = left
    while x < right:
        pdf.line(x, bottom, min(right, x + 0.6), top)
        x += 0.9
