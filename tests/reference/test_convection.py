"""Natural convection and radiation against check values NC1 to NC15 and RAD1 to RAD6."""

import ht
import numpy as np
import pytest
from scipy.constants import Stefan_Boltzmann
from scipy.integrate import solve_bvp

from cobblewort.core.aspects.heat.films import (
    STEFAN_BOLTZMANN_W_M2K4,
    nusselt_down_mcadams,
    nusselt_up_mcadams,
    nusselt_vertical_churchill_chu,
    radiation_w_m2k,
    rayleigh_per_m3,
)
from cobblewort.core.standards.air import air_at

PLATES = [
    # L mm, dT K, Ra, vertical Nu and h, face up Nu and h, face down Nu and h
    (30, 10, 2.41611e4, 6.5981, 5.8276, 6.7324, 5.9462, 3.3662, 2.9731),
    (30, 20, 4.47825e4, 7.6026, 6.8126, 7.8554, 7.0392, 3.9277, 3.5196),
    (30, 40, 7.72255e4, 8.6458, 7.9685, 9.0019, 8.2967, 4.5009, 4.1483),
    (60, 10, 1.93289e5, 10.8303, 4.7827, 11.3226, 5.0001, 5.6613, 2.5001),
    (60, 20, 3.58260e5, 12.6569, 5.6709, 13.2112, 5.9192, 6.6056, 2.9596),
    (60, 40, 6.17804e5, 14.5663, 6.7126, 15.1393, 6.9766, 7.5697, 3.4883),
    (100, 10, 8.94855e5, 16.0682, 4.2575, 16.6086, 4.4007, 8.3043, 2.2003),
    (100, 20, 1.65861e6, 18.9472, 5.0935, 19.3789, 5.2096, 9.6895, 2.6048),
    (100, 40, 2.86020e6, 21.9691, 6.0744, 22.2072, 6.1402, 11.1036, 3.0701),
    (150, 10, 3.02014e6, 22.3161, 3.9420, 22.5113, 3.9765, 11.2556, 1.9882),
    (150, 20, 5.59781e6, 26.4783, 4.7454, 26.2663, 4.7074, 13.1331, 2.3537),
    (150, 40, 9.65319e6, 30.8593, 5.6883, 30.0996, 5.5483, 15.0498, 2.7742),
]


@pytest.mark.parametrize("row", PLATES, ids=lambda row: f"{row[0]} mm, {row[1]} K")
def test_nc1_to_12_isothermal_plates(row: tuple[float, ...]) -> None:
    """Churchill and Chu 1975, McAdams; ht 1.2.0 and by hand. Air of 1976 at the film."""
    length_mm, delta, ra_expected, *expected = row
    length = length_mm / 1000
    air = air_at(298.15 + delta / 2)
    ra = rayleigh_per_m3(air, np.array(delta)) * length**3
    assert float(ra) == pytest.approx(ra_expected, rel=1e-4)
    conductivity = float(air.conductivity_w_mk)
    vertical = float(nusselt_vertical_churchill_chu(ra, air.prandtl))
    up, down = float(nusselt_up_mcadams(ra)), float(nusselt_down_mcadams(ra))
    found = [
        figure
        for nusselt in (vertical, up, down)
        for figure in (nusselt, nusselt * conductivity / length)
    ]
    assert found == pytest.approx(expected, rel=1e-4)


@pytest.mark.parametrize("rayleigh", [1e4, 1e6, 9e6, 2e7, 1e9])
def test_against_a_general_library(rayleigh: float) -> None:
    """The same correlations in ht 1.2.0, on both sides of the border at Ra 1e7."""
    pr = 0.71
    vertical = nusselt_vertical_churchill_chu(np.array(rayleigh), np.array(pr))
    assert float(vertical) == pytest.approx(
        ht.Nu_vertical_plate_Churchill(Pr=pr, Gr=rayleigh / pr), rel=1e-9
    )
    up = ht.Nu_horizontal_plate_McAdams(Pr=pr, Gr=rayleigh / pr, buoyancy=True)
    assert float(nusselt_up_mcadams(np.array(rayleigh))) == pytest.approx(up, rel=1e-9)
    if rayleigh >= 1e5:
        down = ht.Nu_horizontal_plate_McAdams(Pr=pr, Gr=rayleigh / pr, buoyancy=False)
        assert float(nusselt_down_mcadams(np.array(rayleigh))) == pytest.approx(down, rel=1e-9)


def test_nc13_the_all_ra_form_is_the_one_in_use() -> None:
    """At Ra 1.06e5 it lies 6.2 % below the laminar form of the same paper (9.9551)."""
    air = air_at(298.15 + 10)
    ra = rayleigh_per_m3(air, np.array(20.0)) * 0.04**3
    assert float(ra) == pytest.approx(1.06151e5, rel=1e-4)
    found = float(nusselt_vertical_churchill_chu(ra, air.prandtl))
    assert found == pytest.approx(9.3404, rel=1e-4)
    assert found / 9.9551 - 1 == pytest.approx(-0.062, abs=1e-3)


def test_nc14_boundary_layer_truth() -> None:
    """The similarity equations (Ostrach) solved for Pr 0.71: Nu = 0.5157 Ra^(1/4).

    F''' + 3 F F'' - 2 F'^2 + theta = 0 and theta'' + 3 Pr F theta' = 0. The all-Ra form is a fit
    over many decades: near Ra 1e6, where boundary layers are thin, it lies within 3 % of them.
    """
    pr = 0.71

    def slopes(_: np.ndarray, y: np.ndarray) -> np.ndarray:
        f, df, ddf, theta, dtheta = y
        return np.array([df, ddf, -3 * f * ddf + 2 * df**2 - theta, dtheta, -3 * pr * f * dtheta])

    def ends(wall: np.ndarray, far: np.ndarray) -> np.ndarray:
        return np.array([wall[0], wall[1], wall[3] - 1, far[1], far[3]])

    eta = np.linspace(0, 12, 400)
    guess = np.array(
        [1 - np.exp(-eta), np.exp(-eta) * eta, np.exp(-eta), np.exp(-eta), -np.exp(-eta)]
    )
    solved = solve_bvp(slopes, ends, eta, guess, tol=1e-6, max_nodes=20000)
    assert solved.success
    factor = 4 / 3 * -solved.y[4, 0] / (4 * pr) ** 0.25
    assert factor == pytest.approx(0.5157, rel=1e-2)
    ours = float(nusselt_vertical_churchill_chu(np.array(1e6), np.array(pr)))
    assert ours == pytest.approx(factor * 1e6**0.25, rel=0.03)


def test_nc15_textbook_example() -> None:
    """Incropera and DeWitt, example 9.2 (from memory): a glass screen, Nu 147, h 7.0, 1060 W."""
    nusselt = float(nusselt_vertical_churchill_chu(np.array(1.813e9), np.array(0.690)))
    assert nusselt == pytest.approx(147, rel=3e-3)
    h = nusselt * 33.8e-3 / 0.71
    assert h == pytest.approx(7.0, rel=3e-3)
    assert h * 1.02 * 0.71 * (232 - 23) == pytest.approx(1060, rel=3e-3)


def test_rad1_constant() -> None:
    """CODATA 2018, exact by the SI; scipy.constants holds the same."""
    assert pytest.approx(Stefan_Boltzmann, rel=1e-9) == STEFAN_BOLTZMANN_W_M2K4


@pytest.mark.parametrize(
    ("emissivity", "wall_c", "flux", "coefficient"),
    [
        (0.05, 40, 4.86035, 0.324023),
        (0.05, 60, 12.52161, 0.357760),
        (0.90, 40, 87.48631, 5.832421),
        (0.90, 60, 225.38890, 6.439683),
    ],
)
def test_rad2_to_5_wall_to_surroundings(
    emissivity: float, wall_c: float, flux: float, coefficient: float
) -> None:
    """Closed form; ht 1.2.0 q_rad, which carries the constant of 2014 (1.3e-6 lower)."""
    wall_k = wall_c + 273.15
    h_r = float(radiation_w_m2k(emissivity, np.array(wall_k), 298.15))
    assert h_r == pytest.approx(coefficient, rel=1e-5)
    found = h_r * (wall_k - 298.15)
    assert found == pytest.approx(flux, rel=1e-5)
    assert found == pytest.approx(ht.q_rad(emissivity, wall_k, 298.15), rel=1e-5)
