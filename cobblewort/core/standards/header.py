"""The 40-pin header by the convention of the catalogue, and the E series of resistors.

Pin numbers are physical. The series values are those of IEC 60063.
"""

from __future__ import annotations

from math import floor, log10
from typing import Literal

PINS = 40
SUPPLY_3V3: frozenset[int] = frozenset({1, 17})
SUPPLY_5V: frozenset[int] = frozenset({2, 4})
GROUND: frozenset[int] = frozenset({6, 9, 14, 20, 25, 30, 34, 39})
POWER = SUPPLY_3V3 | SUPPLY_5V | GROUND

_NAMES = {
    3: "I2C data",
    5: "I2C clock",
    7: "single wire",
    8: "serial out",
    10: "serial in",
    12: "PWM, audio clock",
    19: "SPI out",
    21: "SPI in",
    23: "SPI clock",
    24: "SPI select 0",
    26: "SPI select 1",
    27: "identity data",
    28: "identity clock",
    32: "PWM",
    33: "PWM",
    35: "audio frame",
    38: "audio in",
    40: "audio out",
}
BUS: frozenset[int] = frozenset({3, 5, 7, 19, 21, 23})
"""Lines of a bus, which several parts may share: I2C, single wire, and SPI but for its selects."""
I2C: frozenset[int] = frozenset({3, 5})
RESERVED: frozenset[int] = frozenset({27, 28})
"""Kept for reading what an add-on board is."""

SIGNAL_V = 3.3
I2C_LOWEST, I2C_HIGHEST = 0x08, 0x77
"""7-bit addresses that a part may have; the rest is reserved by the I2C-bus specification."""

Series = Literal["E12", "E24"]
E24 = (
    10,
    11,
    12,
    13,
    15,
    16,
    18,
    20,
    22,
    24,
    27,
    30,
    33,
    36,
    39,
    43,
    47,
    51,
    56,
    62,
    68,
    75,
    82,
    91,
)
"""The decade of IEC 60063. It is a table: rounding powers of ten gives eight other values."""
E12 = E24[::2]
_SLACK = 1e-9


def pin_name(pin: int) -> str:
    """What a pin is for: `ground`, `SPI clock`, or `free use` where it has no second task."""
    if pin in GROUND:
        return "ground"
    if pin in SUPPLY_3V3:
        return "3.3 V"
    if pin in SUPPLY_5V:
        return "5 V"
    return _NAMES.get(pin, "free use")


_SHORT = {
    3: "SDA",
    5: "SCL",
    7: "1W",
    8: "TX",
    10: "RX",
    12: "PWM",
    19: "out",
    21: "in",
    23: "clk",
    24: "cs0",
    26: "cs1",
    27: "id",
    28: "id",
    32: "PWM",
    33: "PWM",
    35: "fs",
    38: "di",
    40: "do",
}


def short_name(pin: int) -> str:
    """The task of a pin in a few letters, for a drawing; empty where it has none of its own."""
    if pin in GROUND:
        return "gnd"
    if pin in SUPPLY_3V3:
        return "3.3"
    if pin in SUPPLY_5V:
        return "5 V"
    return _SHORT.get(pin, "")


def is_signal(pin: int) -> bool:
    """Whether a pin can be driven or read at will."""
    return pin not in POWER and pin not in RESERVED


def nearest_ground(pin: int) -> int:
    """The ground pin that lies closest on the header; the lower number where two do."""
    return min(GROUND, key=lambda ground: (_distance(pin, ground), ground))


def _distance(one: int, other: int) -> float:
    """Between two pins, in pitches: odd numbers lie in one row, even ones in the other."""
    along = (one - 1) // 2 - (other - 1) // 2
    across = one % 2 - other % 2
    return float((along**2 + across**2) ** 0.5)


def glow_ma(rated_ma: float, made_for_v: float, forward_v: float) -> float:
    """Current of an LED with its resistor inside at a pin: what drives it shrinks with the voltage
    over that resistor, I = I_rated (3.3 - Vf) / (V_rated - Vf); dark below Vf. [mA]
    """
    if made_for_v <= forward_v:
        return rated_ma
    return rated_ma * max(0.0, SIGNAL_V - forward_v) / (made_for_v - forward_v)


def series_resistor_ohm(
    supply_v: float, forward_v: float, current_a: float, series: Series = "E24"
) -> float:
    """The next value of a series at or above (supply - forward) / current. [V], [A] -> [ohm]

    Raises
    ------
    ValueError
        If the supply is not above the forward voltage, or the current is not positive.
    """
    if supply_v <= forward_v or current_a <= 0:
        raise ValueError("the supply must be above the forward voltage, the current above 0")
    wanted = (supply_v - forward_v) / current_a
    decade = 10.0 ** (floor(log10(wanted)) - 1)
    for value in (*(E24 if series == "E24" else E12), 100):
        if value * decade >= wanted * (1 - _SLACK):
            return float(f"{value * decade:.6g}")
    raise AssertionError("the last value of the decade is ten times the first")
