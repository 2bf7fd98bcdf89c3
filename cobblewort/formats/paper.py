"""A PDF whose pages can hold text of any script.

The letters are those of the page (Atkinson Hyperlegible Next); what it lacks is taken from Unifont,
which has the whole basic plane of Unicode and is read only where a text needs it.
"""

from __future__ import annotations

from functools import cache
from importlib.resources import files
from pathlib import Path

from fpdf import FPDF

from cobblewort.formats.sketch import LETTERS

_MORE, _ALL = "more", "all"
_FONTS = Path(str(files("cobblewort.formats"))) / "fonts"


class Paper(FPDF):
    """A PDF with the fonts that its text needs."""

    def __init__(self, paper: str) -> None:
        super().__init__(unit="mm", format=paper)
        for family, script in ((LETTERS, "latin"), (_MORE, "latin-ext")):
            for style, weight in (("", 400), ("B", 700)):
                name = f"atkinson-hyperlegible-next-{script}-{weight}-normal.woff"
                self.add_font(family, style, _FONTS / name)
        self.set_fallback_fonts([_MORE], exact_match=False)

    def get_fallback_font(self, char: str, style: str = "") -> str | None:
        """The font that has a character which the letters lack."""
        found = super().get_fallback_font(char, style)
        if found is None and _ALL not in self.fonts and ord(char) in _covered():
            self.add_font(_ALL, "", _FONTS / "unifont-latin-400-normal.woff")
            self.set_fallback_fonts([_MORE, _ALL], exact_match=False)
            found = super().get_fallback_font(char, style)
        return found


@cache
def _covered() -> frozenset[int]:
    """What the last font has."""
    from fontTools.ttLib import TTFont  # type: ignore[import-untyped]

    with TTFont(_FONTS / "unifont-latin-400-normal.woff", lazy=True) as font:
        return frozenset(font.getBestCmap())
