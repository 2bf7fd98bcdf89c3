"""Copper conductors by gauge: section and resistance. Solid wire; stranded runs 1 to 5 % higher."""

from __future__ import annotations

import math

COPPER_RESISTIVITY_OHM_M = 1.7241e-8
"""Annealed copper at 20 °C. IEC 60028 (from memory)."""
COPPER_TEMP_COEFFICIENT_1_K = 0.00393
"""Rise of its resistance a kelvin, from 20 °C. IEC 60028 (from memory)."""
_REFERENCE_C = 20.0
_SMALLEST_DIAMETER_M, _SMALLEST_GAUGE = 0.127e-3, 36
_STEP = 92 ** (1 / 39)
"""Ratio of diameters from one gauge to the next. ASTM B258 (from memory)."""


def diameter_m(gauge_awg: float) -> float:
    """Diameter of a solid wire, d = 0.127 mm 92^((36 - n)/39). [m]"""
    return float(_SMALLEST_DIAMETER_M * _STEP ** (_SMALLEST_GAUGE - gauge_awg))


def section_m2(gauge_awg: float) -> float:
    """Copper section of a solid wire. [m²]"""
    return math.pi / 4 * diameter_m(gauge_awg) ** 2


def warm_factor(temp_c: float) -> float:
    """Resistance at a temperature over that at 20 °C."""
    return 1 + COPPER_TEMP_COEFFICIENT_1_K * (temp_c - _REFERENCE_C)


def resistance_ohm_m(gauge_awg: float, temp_c: float = _REFERENCE_C) -> float:
    """Resistance of one metre of one conductor. [ohm/m]"""
    return COPPER_RESISTIVITY_OHM_M / section_m2(gauge_awg) * warm_factor(temp_c)


def loop_ohm(length_m: float, gauge_awg: float, temp_c: float = _REFERENCE_C) -> float:
    """Resistance of a two-wire lead, out and back, without its contacts. [ohm]"""
    return 2 * length_m * resistance_ohm_m(gauge_awg, temp_c)
