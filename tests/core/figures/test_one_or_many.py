"""A plain number and an array take the same formulas: what one gives, the other gives too."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from cobblewort.core.aspects.heat.films import (
    nusselt_down_mcadams,
    nusselt_up_mcadams,
    nusselt_vertical_churchill_chu,
    radiation_w_m2k,
    rayleigh_per_m3,
)
from cobblewort.core.figures import one_or_many
from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.standards.air import air_at

NUMBERS = st.floats(1e-3, 1e9)
WARM_K = st.floats(180.0, 600.0)


@given(NUMBERS)
def test_each_function_gives_for_a_number_what_numpy_gives_for_many(number: float) -> None:
    """Roots, exponential, bounds and sign; the answer to a number is a number."""
    for name, reference in (
        ("sqrt", np.sqrt),
        ("cbrt", np.cbrt),
        ("absolute", np.abs),
        ("largest", np.max),
        ("nominal", np.max),
    ):
        single = getattr(one_or_many, name)(number)
        assert type(single) is float
        assert single == pytest.approx(float(reference(number)), rel=1e-14)
        assert getattr(one_or_many, name)(np.array([number])) == pytest.approx(single, rel=1e-14)
    assert one_or_many.exp(-1 / number) == pytest.approx(float(np.exp(-1 / number)), rel=1e-14)
    assert one_or_many.at_least(2.0, number) == max(2.0, number)
    assert one_or_many.absolute(-number) == number


@given(WARM_K, WARM_K, st.floats(1e-6, 1e-2))
def test_films_and_air_are_the_same_for_one_and_for_many(
    surface_k: float, air_k: float, cube_m3: float
) -> None:
    """Every property of the air, every Nusselt number on both sides of its bend, radiation."""

    def found(surface: Quantity, around: Quantity) -> list[Quantity]:
        air = air_at((surface + around) / 2, 9e4)
        rayleigh = rayleigh_per_m3(air, surface - around) * cube_m3
        return [
            air.density_kg_m3,
            air.viscosity_pa_s,
            air.conductivity_w_mk,
            air.prandtl,
            air.expansion_1_k,
            nusselt_vertical_churchill_chu(rayleigh, air.prandtl),
            nusselt_up_mcadams(rayleigh),
            nusselt_down_mcadams(rayleigh),
            radiation_w_m2k(0.8, surface, around),
        ]

    single = found(surface_k, air_k)
    many = found(np.array([[surface_k], [300.0]]), np.array([[air_k], [290.0]]))
    assert all(type(value) is float for value in single)
    assert [value[0, 0] for value in many] == pytest.approx(single, rel=1e-11)  # type: ignore[index]


@pytest.mark.parametrize("rayleigh", [9.9e6, 1.01e7])
def test_the_bend_of_a_level_plate_is_at_the_same_place(rayleigh: float) -> None:
    """Below 1e7 the fourth root, above it the third; in an array each value for itself."""
    beside = np.array([1e4, rayleigh, 1e9])
    assert nusselt_up_mcadams(beside)[1] == pytest.approx(nusselt_up_mcadams(rayleigh))  # type: ignore[index]
