"""Air against check values AIR1 to AIR11."""

import fluids
import numpy as np
import pytest
from CoolProp.CoolProp import PropsSI

from cobblewort.core.standards.air import (
    CP_J_KGK,
    air_at,
    density_kg_m3,
    pressure_pa,
    standard_temp_k,
)


@pytest.mark.parametrize("temp_c", [0, 25, 40, 60, 85])
def test_air1_to_5_against_a_reference_equation_of_state(temp_c: float) -> None:
    """CoolProp 8, dry air: within the tolerances stated for the 1976 formulas."""
    temp_k = temp_c + 273.15
    air = air_at(temp_k)

    def reference(name: str) -> float:
        return float(PropsSI(name, "T", temp_k, "P", 101325, "Air"))

    assert float(air.density_kg_m3) == pytest.approx(reference("D"), rel=1e-3)
    assert float(air.viscosity_pa_s) == pytest.approx(reference("V"), rel=1e-2)
    assert float(air.conductivity_w_mk) == pytest.approx(reference("L"), rel=1e-2)
    assert pytest.approx(reference("C"), rel=4e-3) == CP_J_KGK
    assert float(air.prandtl) == pytest.approx(reference("Prandtl"), rel=1.5e-2)
    assert float(air.expansion_1_k) == pytest.approx(
        reference("isobaric_expansion_coefficient"), rel=4e-3
    )


@pytest.mark.parametrize(
    ("temp_c", "density", "viscosity", "conductivity", "prandtl"),
    [
        (25, 1.183913, 18.37234e-6, 26.10813e-3, 0.707924),
        (60, 1.059534, 19.98825e-6, 28.78632e-3, 0.698532),
    ],
)
def test_air6_and_7_exact_set(
    temp_c: float, density: float, viscosity: float, conductivity: float, prandtl: float
) -> None:
    """US Standard Atmosphere 1976 formulas, in closed form and by fluids 1.3.1."""
    temp_k = temp_c + 273.15
    air = air_at(temp_k)
    assert float(air.density_kg_m3) == pytest.approx(density, rel=1e-5)
    assert float(air.viscosity_pa_s) == pytest.approx(viscosity, rel=1e-5)
    assert float(air.conductivity_w_mk) == pytest.approx(conductivity, rel=1e-5)
    assert float(air.prandtl) == pytest.approx(prandtl, rel=1e-5)
    assert float(air.viscosity_pa_s) == pytest.approx(
        fluids.ATMOSPHERE_1976.viscosity(temp_k), rel=1e-9
    )


def test_air8_handbook_rows() -> None:
    """Incropera and DeWitt, table A.4 (from memory) at 300 and 350 K; its density is at 1 bar."""
    air = air_at(np.array([300.0, 350.0]), pressure=1e5)
    assert air.viscosity_pa_s == pytest.approx([184.6e-7, 208.2e-7], rel=1e-2)
    assert air.conductivity_w_mk == pytest.approx([26.3e-3, 30.0e-3], rel=1e-2)
    assert air.density_kg_m3 == pytest.approx([1.1614, 0.9950], rel=1.5e-3)
    assert air.prandtl == pytest.approx([0.707, 0.700], rel=1.5e-2)


@pytest.mark.parametrize(
    ("altitude_m", "temp_k", "pressure", "density"),
    [
        (0, 288.150, 101325.0, 1.22500),
        (500, 284.900, 95461.3, 1.16727),
        (1000, 281.651, 89876.3, 1.11166),
        (2000, 275.154, 79501.4, 1.00655),
        (3000, 268.659, 70121.2, 0.90925),
    ],
)
def test_air9_standard_atmosphere(
    altitude_m: float, temp_k: float, pressure: float, density: float
) -> None:
    """US Standard Atmosphere 1976, geometric altitude."""
    assert standard_temp_k(altitude_m) == pytest.approx(temp_k, abs=0.01)
    assert pressure_pa(altitude_m) == pytest.approx(pressure, rel=1e-5)
    found = float(density_kg_m3(standard_temp_k(altitude_m), pressure_pa(altitude_m)))
    assert found == pytest.approx(density, rel=1e-5)


@pytest.mark.parametrize(
    ("altitude_m", "ratio"), [(500, 0.94213), (1000, 0.88701), (2000, 0.78462), (3000, 0.69204)]
)
def test_air10_density_in_a_heated_room(altitude_m: float, ratio: float) -> None:
    """At the same room temperature only the pressure ratio counts."""
    assert pressure_pa(altitude_m) / pressure_pa(0) == pytest.approx(ratio, rel=1e-4)


def test_air11_room_at_2000_m() -> None:
    """CoolProp 8 with the pressure of fluids 1.3.1: 0.92917 kg/m³ at 25 °C."""
    assert float(density_kg_m3(298.15, pressure_pa(2000))) == pytest.approx(0.92917, rel=1e-3)
