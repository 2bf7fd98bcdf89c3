"""Dry air as a gas: the set of formulas used everywhere in the heat model.

Viscosity and conductivity are those of the US Standard Atmosphere 1976; pressure falls with
altitude by the same document.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import log

from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.one_or_many import exp, sqrt

ZERO_C_K = 273.15
GRAVITY_M_S2 = 9.80665
GAS_CONSTANT_J_KGK = 287.053
CP_J_KGK = 1006.0
SEA_LEVEL_PA = 101325.0

_EARTH_RADIUS_M = 6356766.0
_SEA_LEVEL_K = 288.15
_LAPSE_K_M = 0.0065
_EXPONENT_K = -12 * log(10)
"""Of the conductivity, 10^(-12 K / T). US Standard Atmosphere 1976, equation 53."""
_PRESSURE_EXPONENT = 5.255877
"""g0 M / (R L) of the lowest layer. US Standard Atmosphere 1976, equation 33a."""


@dataclass(slots=True)
class Air:
    """Properties at a film temperature; arrays share its shape."""

    density_kg_m3: Quantity
    viscosity_pa_s: Quantity
    conductivity_w_mk: Quantity
    prandtl: Quantity
    expansion_1_k: Quantity


def pressure_pa(altitude_m: float) -> float:
    """Pressure of the standard atmosphere at a geometric altitude up to 11 km. [Pa]

    References
    ----------
    .. [1] US Standard Atmosphere 1976, equations 18 and 33a.
    """
    return float(SEA_LEVEL_PA * (standard_temp_k(altitude_m) / _SEA_LEVEL_K) ** _PRESSURE_EXPONENT)


def standard_temp_k(altitude_m: float) -> float:
    """Temperature of the standard atmosphere at a geometric altitude up to 11 km. [K]"""
    geopotential_m = _EARTH_RADIUS_M * altitude_m / (_EARTH_RADIUS_M + altitude_m)
    return _SEA_LEVEL_K - _LAPSE_K_M * geopotential_m


def density_kg_m3(temp_k: Quantity, pressure: float = SEA_LEVEL_PA) -> Quantity:
    """Density of dry air as an ideal gas. [kg/m³]"""
    return pressure / (GAS_CONSTANT_J_KGK * temp_k)


def air_at(temp_k: Quantity, pressure: float = SEA_LEVEL_PA) -> Air:
    """Properties of air.

    Parameters
    ----------
    temp_k : float or ndarray
        Film temperature, 180 to 600. [K]
    pressure : float
        [Pa]

    Returns
    -------
    Air
        Density [kg/m³], viscosity [Pa s], conductivity [W/(m K)], Prandtl number, expansion [1/K].

    References
    ----------
    .. [1] US Standard Atmosphere 1976, equations 51 and 53.
    """
    power = temp_k * sqrt(temp_k)
    viscosity = 1.458e-6 * power / (temp_k + 110.4)
    conductivity = 2.64638e-3 * power / (temp_k + 245.4 * exp(_EXPONENT_K / temp_k))
    return Air(
        (pressure / GAS_CONSTANT_J_KGK) / temp_k,
        viscosity,
        conductivity,
        viscosity * CP_J_KGK / conductivity,
        1 / temp_k,
    )
