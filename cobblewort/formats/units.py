"""Figures as people write them, `500 mA`, `2,5 A`, `1/2 in`, in the unit of a field.

The units are Pint's. It is loaded when first needed: most figures are plain numbers.
"""

from __future__ import annotations

import re
from functools import cache
from typing import TYPE_CHECKING

from cobblewort.core.errors import InputError

if TYPE_CHECKING:
    from pint import UnitRegistry

MOST_LETTERS = 40
_FIGURE = re.compile(
    r"\s*([+\-−]?[0-9]{1,12}(?:[.,][0-9]{1,12})?)(?:\s*/\s*([0-9]{1,6}))?\s*(.*?)\s*"
)
_UNIT = re.compile(r"[A-Za-zµμΩ°²³\"'%/·*() ]{1,24}")
_FIELDS = {
    "A": "ampere",
    "mA": "milliampere",
    "V": "volt",
    "W": "watt",
    "Wh": "watt_hour",
    "mm": "mm",
    "m": "meter",
    "g": "gram",
    "GB": "gigabyte",
    "MB": "megabyte",
    "TB": "terabyte",
    "MB/s": "megabyte/second",
    "Mbit/s": "megabit/second",
    "s": "second",
    "ms": "millisecond",
    "min": "minute",
    "h": "hour",
    "days": "day",
    "years": "year",
    "K": "delta_degC",
    "°C": "degC",
    "Ω": "ohm",
    "K/W": "kelvin/watt",
    "W/(m K)": "watt/(meter*kelvin)",
    "m³/h": "meter**3/hour",
    "cm²": "cm**2",
    "g/cm³": "gram/cm**3",
    "1/K": "1/kelvin",
}
"""Units of fields, as Pint calls them."""
_SAID = (
    (re.compile(r"\b([kMGT]?)b(?=\s*/|\s*$)"), r"\1bit"),
    (re.compile(r"\b([kMGT]?)bps\b"), r"\1bit/s"),
    (re.compile(r"\"|''|\bin\b"), "inch"),
    (re.compile(r"'"), "foot"),
    (re.compile(r"°\s*C\b"), "degC"),
    (re.compile(r"°\s*F\b"), "degF"),
    (re.compile(r"Ω|\bOhm\b"), "ohm"),
    (re.compile(r"²"), "**2"),
    (re.compile(r"³"), "**3"),
    (re.compile(r"·"), "*"),
    (re.compile(r"μ"), "µ"),
    (re.compile(r"\bamps?\b"), "ampere"),
)
"""How people say a unit, and how Pint does: a small b is a bit, a stroke an inch."""


def read_figure(text: str, unit: str) -> float:
    """A figure in the unit of a field.

    Parameters
    ----------
    text : str
        A number with a comma or a point, or a fraction, and a unit or none.
    unit : str
        That of the field, as the page shows it.

    Raises
    ------
    InputError
        If it is no figure, or of another kind than the field.
    """
    matched = _FIGURE.fullmatch(text) if len(text) <= MOST_LETTERS else None
    if matched is None:
        raise _wrong(f"“{text[:MOST_LETTERS]}” is not a number. Enter a number, for example 2.5")
    number, below, said = matched.groups()
    value = float(number.replace(",", ".").replace("−", "-"))
    if below is not None:
        if int(below) == 0:
            raise _wrong("A number cannot be divided by 0")
        value /= int(below)
    if not said:
        return value
    return _converted(value, said, unit)


def _converted(value: float, said: str, unit: str) -> float:
    field = _FIELDS.get(unit)
    if field is None:
        raise _wrong(f"This field takes a number without “{said}”")
    if not _UNIT.fullmatch(said):
        raise _wrong(f"The unit “{said}” is not known. The unit of this field is {unit}")
    name = said
    for pattern, instead in _SAID:
        name = pattern.sub(instead, name)
    registry = _registry()
    try:
        given = registry.Quantity(value, registry.parse_units(name))
        found = float(given.to(registry.parse_units(field)).magnitude)
    except Exception as error:  # Pint has a dozen kinds, and lets some of its parser's through
        raise _wrong(f"The unit “{said}” does not fit this field. Its unit is {unit}") from error
    return float(f"{found:.9g}")


@cache
def _registry() -> UnitRegistry[float]:
    from pint import UnitRegistry

    return UnitRegistry(cache_folder=None)


def _wrong(told: str) -> InputError:
    return InputError([("text", told)])
