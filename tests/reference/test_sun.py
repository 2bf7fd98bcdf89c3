"""A box in the sun against the same balances solved by scipy's root finder, node by node."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.optimize import fsolve

from cobblewort.core.aspects.heat.enclosure import (
    Enclosure,
    HeatInput,
    inside_w_k,
    outside_w_k,
    solve_enclosure,
)
from cobblewort.core.figures.arrays import FloatArray


def box(sun_w: float) -> Enclosure:
    """A closed box of 2.5 mm plastic, hung free."""
    return Enclosure(
        length_m=0.2, width_m=0.15, height_m=0.08, wall_m=0.0025, wall_w_mk=np.array([0.2]),
        emissivity=np.array([0.9]), bottom_share=1.0, sun_w=sun_w,
    )  # fmt: skip


def by_scipy(sun_w: float, heat_w: float, ambient_k: float) -> FloatArray:
    """Air, inner and outer wall where three heat balances close."""
    shell = box(sun_w)
    wall_w_k = 0.2 * shell.area_m2 / shell.wall_m

    def residual(temps: FloatArray) -> list[float]:
        air, inner, outer = (np.array([[value]]) for value in temps)
        to_wall = float((inside_w_k(shell, air, inner) * (air - inner))[0, 0])
        through = float((wall_w_k * (inner - outer))[0, 0])
        ambient = np.array([[ambient_k]])
        away = float((outside_w_k(shell, outer, ambient) * (outer - ambient))[0, 0])
        return [heat_w - to_wall, to_wall - through, through + sun_w - away]

    solution: FloatArray = fsolve(residual, [ambient_k + 20, ambient_k + 12, ambient_k + 10])
    return solution


@pytest.mark.parametrize("sun_w", [0.0, 3.0, 11.0, 25.0])
@pytest.mark.parametrize("heat_w", [0.5, 4.0, 9.0])
def test_the_three_balances_close(sun_w: float, heat_w: float) -> None:
    """Air and wall within a tenth of a kelvin of an independent solution.

    Scipy's hybrid Powell method on the balances as written down, without our elimination.
    """
    ambient_k = 303.15
    found = solve_enclosure(
        box(sun_w), HeatInput(air_w=np.array([[heat_w]])), np.array([[ambient_k]])
    )
    air, inner, outer = by_scipy(sun_w, heat_w, ambient_k)
    assert found.air_k[0, 0] == pytest.approx(air, abs=0.1)
    assert found.inner_wall_k[0, 0] == pytest.approx(inner, abs=0.1)
    assert found.outer_wall_k[0, 0] == pytest.approx(outer, abs=0.1)


def test_more_sun_is_warmer_and_a_box_without_heat_follows_its_wall() -> None:
    """At next to no heat inside, air and both faces of the wall are at one temperature."""
    ambient = np.array([[303.15]])
    temps = []
    for sun_w in (0.0, 5.0, 10.0, 20.0):
        found = solve_enclosure(box(sun_w), HeatInput(air_w=np.array([[0.01]])), ambient)
        temps.append(float(found.air_k[0, 0]))
        assert abs(found.air_k - found.outer_wall_k)[0, 0] < 0.5
    assert temps == sorted(temps)
    assert temps[-1] - temps[0] > 10


def test_the_sunlit_area_is_that_of_a_sun_at_45_degrees() -> None:
    """Projection of the top and of the largest side: each by cos 45° (elementary geometry)."""
    shell = box(0.0)
    top, side = 0.2 * 0.15, 0.2 * 0.08
    assert shell.sunlit_m2 == pytest.approx((top + side) * np.cos(np.pi / 4))
