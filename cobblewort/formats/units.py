"""Figures as people write them, `500 mA`, `2,5 A`, `1/2 in`, in the unit of a field.

The conversions are Pint's, which is loaded when first needed: most figures are plain numbers. It is
handed names of our own alone, as its reader of units works out whatever it is given.
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
_FIELDS = {
    "A": "ampere",
    "mA": "milliampere",
    "V": "volt",
    "W": "watt",
    "Wh": "watt_hour",
    "mm": "millimeter",
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
    "cm²": "centimeter**2",
    "g/cm³": "gram/centimeter**3",
    "1/K": "1/kelvin",
}
"""Units of fields, as Pint calls them."""
_PREFIXES = {
    "": "",
    "n": "nano",
    "µ": "micro",
    "μ": "micro",
    "u": "micro",
    "m": "milli",
    "c": "centi",
    "d": "deci",
    "k": "kilo",
    "K": "kilo",
    "M": "mega",
    "G": "giga",
    "T": "tera",
    "Ki": "kibi",
    "Mi": "mebi",
    "Gi": "gibi",
    "Ti": "tebi",
}
_PREFIXED = {
    "A": "ampere",
    "V": "volt",
    "W": "watt",
    "Wh": "watt_hour",
    "J": "joule",
    "m": "meter",
    "g": "gram",
    "s": "second",
    "l": "liter",
    "L": "liter",
    "Ω": "ohm",
    "Ohm": "ohm",
    "ohm": "ohm",
    "B": "byte",
    "bit": "bit",
    "b": "bit",
    "bps": "bit/second",
}
"""A small b is a bit."""
_SAID = {
    '"': "inch",
    "''": "inch",
    "in": "inch",
    "inch": "inch",
    "inches": "inch",
    "'": "foot",
    "ft": "foot",
    "foot": "foot",
    "feet": "foot",
    "mil": "thou",
    "oz": "ounce",
    "lb": "pound",
    "lbs": "pound",
    "amp": "ampere",
    "amps": "ampere",
    "ampere": "ampere",
    "volts": "volt",
    "watts": "watt",
    "sec": "second",
    "seconds": "second",
    "min": "minute",
    "minutes": "minute",
    "h": "hour",
    "hr": "hour",
    "hour": "hour",
    "hours": "hour",
    "day": "day",
    "days": "day",
    "week": "week",
    "weeks": "week",
    "month": "month",
    "months": "month",
    "year": "year",
    "years": "year",
    "K": "kelvin",
    "°C": "degC",
    "C": "degC",
    "°F": "degF",
    "F": "degF",
    "%": "percent",
}
"""Units without prefixes, as people say them."""
_NAMES = {
    **{
        prefix + said: _PREFIXES[prefix] + name
        for prefix in _PREFIXES
        for said, name in _PREFIXED.items()
    },
    **_SAID,
}
"""Every unit that may be typed, and what Pint calls it."""
_A_UNIT = "|".join(re.escape(said) for said in sorted(_NAMES, key=len, reverse=True))
_POWERS = {"²": "**2", "³": "**3", "^2": "**2", "^3": "**3", "": "", None: ""}
_UNIT = re.compile(
    rf"(?P<above>{_A_UNIT}|1)?(?P<power>[²³]|\^[23])?"
    rf"(?:\s*/\s*(?:(?P<below>{_A_UNIT})(?P<under>[²³]|\^[23])?"
    rf"|\((?P<one>{_A_UNIT})\s*[ ·*]\s*(?P<other>{_A_UNIT})\)))?"
)


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
    name = _name_of(said)
    if name is None:
        raise _wrong(f"The unit “{said}” is not known. The unit of this field is {unit}")
    if field.startswith("delta_"):  # a difference of so many degrees
        name = {"degC": "delta_degC", "degF": "delta_degF"}.get(name, name)
    registry = _registry()
    try:
        given = registry.Quantity(value, registry.parse_units(name))
        found = float(given.to(registry.parse_units(field)).magnitude)
    except Exception as error:  # Pint has a dozen kinds, and lets some of its parser's through
        raise _wrong(f"The unit “{said}” does not fit this field. Its unit is {unit}") from error
    return float(f"{found:.9g}")


def _name_of(said: str) -> str | None:
    """What Pint calls a unit that was typed; None of what is none, or a product of many."""
    found = _UNIT.fullmatch(re.sub(r"°\s+", "°", said))
    if found is None:
        return None
    above, below, one = found["above"], found["below"], found["one"]
    name = "1" if above in (None, "1") else _NAMES[above] + _POWERS[found["power"]]
    if below is not None:
        return f"{name}/{_NAMES[below]}{_POWERS[found['under']]}"
    if one is not None:
        return f"{name}/({_NAMES[one]}*{_NAMES[found['other']]})"
    return None if name == "1" else name


@cache
def _registry() -> UnitRegistry[float]:
    from pint import UnitRegistry

    return UnitRegistry(cache_folder=None)


def _wrong(told: str) -> InputError:
    return InputError([("text", told)])
