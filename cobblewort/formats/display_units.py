"""Texts in the units, and with the decimal sign, that their reader is used to.

A text carries its figures apart from its words (`core/text.py`). Here each figure is put into the
units of the reader and written out, once, on its way to paper, a file or a terminal; names and
words come out letter for letter. The page does the same for itself (`web/src/ui/text.ts`), and one
table of cases holds both to the same letters.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from itertools import product
from typing import Literal, get_args

from cobblewort.core.errors import InputError
from cobblewort.core.text import NO_BREAK, Figure, Said, as_text, written_figure

Temperature = Literal["C", "F"]
Length = Literal["mm", "in"]
DecimalSign = Literal["point", "comma"]

MM_AN_INCH = 25.4
"""NIST SP 811, exactly."""
_SIGNS: dict[DecimalSign, str] = {"point": ".", "comma": ","}


@dataclass(slots=True, frozen=True)
class DisplayUnits:
    """In which units and with which decimal sign figures are shown."""

    temperature: Temperature = "C"
    length: Length = "mm"
    decimal: DecimalSign = "point"

    def text(self, said: Said) -> str:
        """A text as it is shown, with a space that does not break before each unit."""
        return as_text(said).rendered(self.figure)

    def figure(self, figure: Figure) -> str:
        """One figure as it is shown."""
        return written_figure(self.converted(figure), _SIGNS[self.decimal], NO_BREAK)

    def converted(self, figure: Figure) -> Figure:
        """The same amount in the units that are shown."""
        if figure.is_money:
            return figure
        if figure.unit == "°C" and self.temperature == "F":
            offset = 0 if figure.is_difference else 32
            return replace(figure, value=figure.value * 9 / 5 + offset, unit="°F")
        if figure.unit == "mm" and self.length == "in":
            # A tenth of a millimetre is four thousandths of an inch: what was told apart stays so.
            value, decimals = figure.value / MM_AN_INCH, figure.decimals + 2
            return replace(figure, value=value, unit="in", decimals=decimals)
        return figure


SI_UNITS = DisplayUnits()
ALL_UNITS: tuple[DisplayUnits, ...] = tuple(
    DisplayUnits(*choice)
    for choice in product(get_args(Temperature), get_args(Length), get_args(DecimalSign))
)
"""Every choice that there is."""
_CHOICES = {
    name: (field, name)
    for field, kind in (("temperature", Temperature), ("length", Length), ("decimal", DecimalSign))
    for name in get_args(kind)
}


def units_from(names: Iterable[str], base: DisplayUnits = SI_UNITS) -> DisplayUnits:
    """Units by their names, `F`, `in`, `comma`; what is not named stays as in `base`.

    Raises
    ------
    InputError
        If there is no such choice.
    """
    chosen = base
    for name in names:
        if name not in _CHOICES:
            known = ", ".join(_CHOICES)
            raise InputError([("units", f"must be one or more of {known} (got “{name:.20}”)")])
        field, value = _CHOICES[name]
        chosen = replace(chosen, **{field: value})
    return chosen
