"""Figures as their reader is used to them: degrees, lengths and the decimal sign.

The core tells everything in °C and mm with a point. What it told is put into other units here, text
by text; metric screws and standoffs stay as they are sold.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from itertools import product
from typing import Any, Literal, get_args

from cobblewort.core.errors import InputError

Temperature = Literal["C", "F"]
Length = Literal["mm", "in"]
DecimalSign = Literal["point", "comma"]

MM_AN_INCH = 25.4
"""NIST SP 811, exactly."""
_NUMBER = r"[−-]?\d+(?:\.\d+)?"
_FIGURES = re.compile(
    rf"(?P<by>\bby )?(?<![\w.,])(?P<figures>{_NUMBER}(?:(?: to | and | or | x | × ){_NUMBER})*)"
    r" (?P<unit>°C|K|mm)(?![\w/²])"
)
_AS_SOLD = re.compile(
    r"(?:(?:screws?|standoffs?|washers?|spacers?) of |\bM\d(?:\.\d)?(?: ?[x×]|,) )$"
)
_WITH_POINT = re.compile(r"(?<![\w.])(?<!\bUSB )(?<!\bIEEE )(\d+)\.(\d+)(?!\w|\.\d)")
_NAMES = frozenset({"id", "finding", "margin", "margins", "resolves", "line", "lines"})
"""Fields by which the page asks again, or which it sends back: they stay as they came."""


@dataclass(slots=True, frozen=True)
class Shown:
    """In which units and with which decimal sign figures are shown."""

    temperature: Temperature = "C"
    length: Length = "mm"
    decimal: DecimalSign = "point"

    @property
    def plain(self) -> bool:
        """Whether everything stays as the core tells it."""
        return self == PLAIN

    def text(self, text: str) -> str:
        """A text of the core with its figures as they are shown."""
        if self.temperature == "F" or self.length == "in":
            text = _FIGURES.sub(lambda found: self._figures(found, text), text)
        if self.decimal == "comma":
            text = _WITH_POINT.sub(r"\1,\2", text)
        return text

    def of(self, value: Any) -> Any:
        """Lists and dictionaries of JSON with all their texts as they are shown. A single word is a
        name or a figure of its own, and stays; so do keys, and fields of names.
        """
        if isinstance(value, str):
            return self.text(value) if " " in value else value
        if isinstance(value, list):
            return [self.of(entry) for entry in value]
        if isinstance(value, dict):
            return {
                key: entry if _stays(key, entry) else self.of(entry) for key, entry in value.items()
            }
        return value

    def _figures(self, found: re.Match[str], text: str) -> str:
        unit = found["unit"]
        if unit == "mm":
            if self.length == "mm" or _AS_SOLD.search(text[: found.start("figures")]):
                return found[0]
            return f"{found['by'] or ''}{_each(found['figures'], _inches)} in"
        if self.temperature == "C":
            return found[0]
        apart = unit == "K" or found["by"] is not None
        put = _fahrenheit_apart if apart else _fahrenheit
        return f"{found['by'] or ''}{_each(found['figures'], put)} °F"


def _stays(key: str, value: Any) -> bool:
    names = value if isinstance(value, list) else [value]
    return key == "patch" or (key in _NAMES and all(isinstance(name, str) for name in names))


PLAIN = Shown()
_WAYS = {
    " ".join(way): Shown(*way)
    for way in product(get_args(Temperature), get_args(Length), get_args(DecimalSign))
}


def shown_of(text: str) -> Shown:
    """What a request wants, as the page says it: `F in comma`. Raises InputError."""
    if text not in _WAYS:
        raise InputError([("Shown", f"must be one of: {', '.join(_WAYS)} (got “{text}”)")])
    return _WAYS[text]


def _each(figures: str, put: Callable[[float, int], str]) -> str:
    def one(found: re.Match[str]) -> str:
        written = found[0].replace("−", "-")
        told = put(float(written), len(written.partition(".")[2]))
        return told.replace("-", "−") if "−" in found[0] or "−" in figures else told

    return re.sub(_NUMBER, one, figures)


def _fahrenheit(temp_c: float, decimals: int) -> str:
    return _no_minus_nought(f"{temp_c * 9 / 5 + 32:.{decimals}f}")


def _fahrenheit_apart(difference_k: float, decimals: int) -> str:
    return _no_minus_nought(f"{difference_k * 9 / 5:.{decimals}f}")


def _inches(length_mm: float, decimals: int) -> str:
    # A tenth of a millimetre is four thousandths of an inch: nothing that was told apart is lost.
    return _no_minus_nought(f"{length_mm / MM_AN_INCH:.{decimals + 2}f}")


def _no_minus_nought(text: str) -> str:
    return text.removeprefix("-") if float(text) == 0 else text
