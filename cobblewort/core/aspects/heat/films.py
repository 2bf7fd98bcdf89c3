"""Heat transfer at a surface: natural convection, radiation, conduction. One model a function."""

from __future__ import annotations

import numpy as np

from cobblewort.core.figures.arrays import FloatArray, Quantity
from cobblewort.core.figures.one_or_many import absolute, cbrt, largest, sqrt
from cobblewort.core.standards.air import GRAVITY_M_S2, Air

STEFAN_BOLTZMANN_W_M2K4 = 5.670374419e-8
"""CODATA 2018, exact by the SI of 2019."""


def rayleigh_per_m3(air: Air, delta_k: Quantity) -> Quantity:
    """Rayleigh number over the cube of the length: g beta dT Pr / nu². [1/m³]

    Parameters
    ----------
    air : Air
        At the film temperature.
    delta_k : float or ndarray
        Surface less air; its sign does not matter. [K]
    """
    viscosity = air.viscosity_pa_s / air.density_kg_m3
    drive = GRAVITY_M_S2 * air.expansion_1_k * absolute(delta_k)
    return drive * air.prandtl / (viscosity * viscosity)


def nusselt_vertical_churchill_chu(rayleigh: Quantity, prandtl: Quantity) -> Quantity:
    """Mean Nusselt number of an upright isothermal plate, all Rayleigh numbers to 1e12.

    References
    ----------
    .. [1] Churchill and Chu, Int. J. Heat Mass Transfer 18 (1975) 1323, equation 9.
    """
    root = sqrt(cbrt(rayleigh))
    shape = (1 + (0.492 / prandtl) ** 0.5625) ** (8 / 27)
    nusselt: Quantity = (0.825 + 0.387 * root / shape) ** 2
    return nusselt


def nusselt_up_mcadams(rayleigh: Quantity) -> Quantity:
    """Nusselt number of a level plate, hot side up; length is area over perimeter.

    0.54 Ra^(1/4) to 1e7 (used below its range of 1e4 too), 0.15 Ra^(1/3) to 1e11.

    References
    ----------
    .. [1] McAdams, Heat Transmission, 3rd ed. 1954, as given by Incropera and DeWitt.
    """
    laminar = 0.54 * sqrt(sqrt(rayleigh))
    if largest(rayleigh) < 1e7:  # small cases always: save the other branch
        return laminar
    turbulent = 0.15 * cbrt(rayleigh)
    if isinstance(rayleigh, float):
        return turbulent
    return np.where(rayleigh < 1e7, laminar, turbulent)


def nusselt_down_mcadams(rayleigh: Quantity) -> Quantity:
    """Nusselt number of a level plate, hot side down, 0.27 Ra^(1/4), 1e5 to 1e10.

    References
    ----------
    .. [1] McAdams, Heat Transmission, 3rd ed. 1954, as given by Incropera and DeWitt.
    """
    return 0.27 * sqrt(sqrt(rayleigh))


def radiation_w_m2k(emissivity: Quantity, temp_k: Quantity, surround_k: Quantity) -> Quantity:
    """Radiation coefficient to large surroundings: e sigma (T1 + T2)(T1² + T2²). [W/(m² K)]"""
    squares = temp_k * temp_k + surround_k * surround_k
    return emissivity * STEFAN_BOLTZMANN_W_M2K4 * (temp_k + surround_k) * squares


def layer_k_w(
    thickness_mm: FloatArray | float,
    conductivity_w_mk: FloatArray | float,
    area_mm2: FloatArray | float,
) -> FloatArray:
    """Thermal resistance of a flat layer, R = t / (k A). [K/W]

    Parameters
    ----------
    thickness_mm, conductivity_w_mk, area_mm2 : float or ndarray
        [mm], [W/(m K)], [mm²]; conductivity and area above zero.
    """
    return np.asarray(
        np.asarray(thickness_mm) * 1e3 / (np.asarray(conductivity_w_mk) * np.asarray(area_mm2))
    )
