"""A box in the sun against balances written with general-purpose libraries, node by node."""

from __future__ import annotations

from collections.abc import Callable

import ht
import numpy as np
import pytest
from CoolProp.CoolProp import PropsSI
from scipy.optimize import fsolve

from cobblewort.core.aspects.heat.enclosure import (
    Enclosure,
    Faces,
    HeatInput,
    solve_enclosure,
)
from cobblewort.core.figures.arrays import FloatArray


def box(sun_w: float) -> Enclosure:
    """A closed box of 2.5 mm plastic, hung free."""
    faces = Faces(0.2, 0.15, 0.08, bottom_share=1.0)
    wall_w_k = np.array([0.2]) * faces.area_m2 / 0.0025
    return Enclosure(faces, faces, wall_w_k, np.array([0.9]), sun_w=sun_w)


def film_w_k(surface_k: float, air_k: float) -> float:
    """Convection of all faces by the `ht` library's own correlations, air by CoolProp. [W/K]

    Upright faces by Churchill and Chu, top and bottom by McAdams.
    """
    film_k, delta = (surface_k + air_k) / 2, max(abs(surface_k - air_k), 1e-3)
    conductivity, viscosity, density, prandtl = (
        PropsSI(name, "T", film_k, "P", 101325, "Air") for name in ("L", "V", "D", "PRANDTL")
    )
    kinematic = viscosity / density

    def coefficient(nusselt: Callable[..., float], length_m: float, **more: bool) -> float:
        grashof = 9.80665 * delta * length_m**3 / (film_k * kinematic**2)
        return nusselt(prandtl, grashof, **more) * conductivity / length_m

    level_m = 0.2 * 0.15 / (2 * (0.2 + 0.15))
    return (
        coefficient(ht.Nu_vertical_plate_Churchill, 0.08) * 2 * (0.2 + 0.15) * 0.08
        + coefficient(ht.Nu_horizontal_plate_McAdams, level_m, buoyancy=True) * 0.2 * 0.15
        + coefficient(ht.Nu_horizontal_plate_McAdams, level_m, buoyancy=False) * 0.2 * 0.15
    )


def by_scipy(sun_w: float, heat_w: float, ambient_k: float) -> FloatArray:
    """Air, inner and outer wall where three heat balances close."""
    area_m2 = 2 * (0.2 * 0.15 + 0.2 * 0.08 + 0.15 * 0.08)

    def residual(temps: FloatArray) -> list[float]:
        air, inner, outer = (float(value) for value in temps)
        to_wall = film_w_k(inner, air) * (air - inner)
        through = 0.2 * area_m2 / 0.0025 * (inner - outer)
        away = film_w_k(outer, ambient_k) * (outer - ambient_k)
        away += area_m2 * ht.q_rad(0.9, outer, ambient_k)
        return [heat_w - to_wall, to_wall - through, through + sun_w - away]

    solution: FloatArray = fsolve(residual, [ambient_k + 20, ambient_k + 12, ambient_k + 10])
    return solution


@pytest.mark.parametrize("sun_w", [0.0, 3.0, 11.0, 25.0])
@pytest.mark.parametrize("heat_w", [0.5, 4.0, 9.0])
def test_the_three_balances_close(sun_w: float, heat_w: float) -> None:
    """Air and wall within 1 % of their rise of an independent solution: SciPy's hybrid Powell
    method on balances with films by the `ht` library and air by CoolProp.
    """
    ambient_k = 303.15
    found = solve_enclosure(
        box(sun_w), HeatInput(air_w=np.array([[heat_w]])), np.array([[ambient_k]])
    )
    air, inner, outer = by_scipy(sun_w, heat_w, ambient_k)
    assert found.air_k[0, 0] - ambient_k == pytest.approx(air - ambient_k, rel=0.01)
    assert found.inner_wall_k[0, 0] - ambient_k == pytest.approx(inner - ambient_k, rel=0.01)
    assert found.outer_wall_k[0, 0] - ambient_k == pytest.approx(outer - ambient_k, rel=0.01)


def test_more_sun_is_warmer_and_a_box_without_heat_follows_its_wall() -> None:
    """At next to no heat inside, air and both faces of the wall are at one temperature."""
    ambient = np.array([[303.15]])
    temps = []
    for sun_w in (0.0, 5.0, 10.0, 20.0):
        found = solve_enclosure(box(sun_w), HeatInput(air_w=np.array([[0.01]])), ambient)
        temps.append(float(found.air_k[0, 0]))
        assert abs(found.air_k - found.outer_wall_k)[0, 0] < 0.5
    assert temps == sorted(temps)
    alone = by_scipy(20.0, 0.01, 303.15)[0]
    assert temps[-1] - 303.15 == pytest.approx(alone - 303.15, rel=0.01)


def test_the_sunlit_area_is_that_of_a_sun_at_45_degrees() -> None:
    """Projection of the top and of the largest side: each by cos 45° (elementary geometry)."""
    shell = box(0.0)
    top, side = 0.2 * 0.15, 0.2 * 0.08
    assert shell.sunlit_m2 == pytest.approx((top + side) * np.cos(np.pi / 4))
