"""Sealed and vented boxes against check values BOX1 to BOX9 and VEN1 to VEN11."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.optimize import brentq, root

from cobblewort.core.aspects.heat.enclosure import (
    Enclosure,
    Faces,
    HeatInput,
    exchange_w_k,
    face_conductances_w_k,
    film_conductances_w_k,
    inside_w_k,
    outside_w_k,
    solve_enclosure,
    stack_flow_m3_s,
    vent_area_m2,
    wall_conductance_w_k,
)
from cobblewort.core.standards.air import CP_J_KGK, pressure_pa

T_A = 298.15
STEFAN_BOLTZMANN = 5.670374419e-8
"""CODATA 2018. [W/(m² K⁴)]"""


def box(**changes: float) -> Enclosure:
    """The box of the check values: 120 x 80 x 40 mm outside, bottom adiabatic, painted."""
    fields = {"emissivity": 0.9, "wall_m": 1e-6, "wall_w_mk": 200.0, **changes}
    faces = Faces(0.12, 0.08, 0.04)
    # The check values take the wall as flat, and inside as large as outside.
    wall_w_k = np.array([fields["wall_w_mk"]]) * faces.area_m2 / fields["wall_m"]
    return Enclosure(faces, faces, wall_w_k, np.array([fields["emissivity"]]))


def settled(shell: Enclosure, power_w: float, ambient_k: float = T_A) -> tuple[float, float]:
    """Inside air and outer wall for heat that goes straight to the air. [°C]"""
    found = solve_enclosure(shell, HeatInput(np.array([[power_w]])), np.array([[ambient_k]]))
    return float(found.air_k[0, 0]) - 273.15, float(found.outer_wall_k[0, 0]) - 273.15


ROWS = [
    # W, wall, h_t, h_s, inside metal, inside plastic, board, air with board
    (3, 35.258, 6.3268, 5.3686, 53.299, 54.485, 62.012, 44.589),
    (6, 43.680, 7.3214, 6.1775, 75.475, 77.869, 91.323, 59.102),
    (10, 53.797, 8.1211, 6.8377, 102.273, 106.304, 123.999, 75.429),
    (15, 65.331, 8.7895, 7.3947, 133.339, 139.454, 158.036, 92.951),
]


def test_the_box_has_the_areas_of_the_check_values() -> None:
    """Top 0.0096 m², sides 0.016 m², top's length 24 mm."""
    shell = box().outer
    assert shell.level_m2 == pytest.approx(0.0096)
    assert shell.upright_m2 == pytest.approx(0.016)
    assert shell.level_length_m == pytest.approx(0.024)
    assert shell.area_m2 == pytest.approx(0.0256)


@pytest.mark.parametrize("row", ROWS, ids=lambda row: f"{row[0]} W")
def test_box_a_outside_wall(row: tuple[float, ...]) -> None:
    """(a) ht 1.2.0 with scipy fsolve, and by hand with brentq: wall and films."""
    power, wall_c, h_top, h_side, *_ = row
    _, found = settled(box(), power)
    assert found == pytest.approx(wall_c, abs=0.01)
    wall, air = np.array([[wall_c + 273.15]]), np.array([[T_A]])
    level, upright = film_conductances_w_k(box().outer, 101325.0, wall, air)
    assert float(level[0, 0]) / 0.0096 == pytest.approx(h_top, rel=1e-4)
    assert float(upright[0, 0]) / 0.016 == pytest.approx(h_side, rel=1e-4)
    total = float(outside_w_k(box(), wall, air)[0, 0])
    assert total * (wall_c - 25) == pytest.approx(power, rel=1e-3)


@pytest.mark.parametrize("row", ROWS, ids=lambda row: f"{row[0]} W")
def test_box_b_inside_air(row: tuple[float, ...]) -> None:
    """(b) inside air in thin metal, and in plastic of 2 mm and 0.20 W/(m K)."""
    power, _, _, _, metal_c, plastic_c, *_ = row
    assert settled(box(), power)[0] == pytest.approx(metal_c, abs=0.02)
    plastic = box(wall_m=0.002, wall_w_mk=0.20)
    assert settled(plastic, power)[0] == pytest.approx(plastic_c, abs=0.02)


@pytest.mark.parametrize("row", ROWS, ids=lambda row: f"{row[0]} W")
def test_box_c_with_a_board_inside(row: tuple[float, ...]) -> None:
    """(c) a board that gives heat to air at 8 W/(m² K) and radiates to the wall, by our films."""
    power, wall_c, _, _, _, _, board_c, air_c = row
    shell, area, wall = box(), 0.00952, wall_c + 273.15

    def radiated(board_k: float) -> float:
        # Two-surface enclosure, Incropera and DeWitt (from memory); BOX (c) was made with it.
        resistance = 1 / 0.9 + area / 0.0256 * (1 / 0.9 - 1)
        return STEFAN_BOLTZMANN * area * (board_k**4 - wall**4) / resistance

    def air_k(board_k: float) -> float:
        return board_k - (power - radiated(board_k)) / (8 * area)

    def balance(board_k: float) -> float:
        air = air_k(board_k)
        film = float(inside_w_k(shell, np.array([air]), np.array([wall]))[0])
        return 8 * area * (board_k - air) - film * (air - wall)

    board = brentq(balance, wall + 1, wall + power / (8 * area))
    assert board - 273.15 == pytest.approx(board_c, abs=0.02)
    assert air_k(board) - 273.15 == pytest.approx(air_c, abs=0.02)


def test_box9_trends() -> None:
    """Bare metal at 6 W, and the painted box in 35 °C."""
    assert settled(box(emissivity=0.05), 6)[1] == pytest.approx(55.232, abs=0.01)
    assert settled(box(), 6, 308.15)[1] == pytest.approx(53.012, abs=0.01)


def rise_k(power_w: float, flow_m3_h: float, pressure: float = 101325.0) -> float:
    """How far air from outside warms that carries off all the heat."""
    vented = replace(box(), fan_flow_m3_s=flow_m3_h / 3600, pressure_pa=pressure)
    _, forced = exchange_w_k(vented, T_A, T_A)
    return power_w / float(forced)


@pytest.mark.parametrize(
    ("power_w", "first_k"), [(5, 7.5560), (10, 15.1120), (15, 22.6680)], ids=str
)
def test_ven1_to_3_air_rise_with_a_fan(power_w: float, first_k: float) -> None:
    """Closed form P/(rho V cp) at 2, 4, 6, 8 and 10 m³/h."""
    for transfer in (2, 4, 6, 8, 10):
        assert rise_k(power_w, transfer) == pytest.approx(first_k * 2 / transfer, rel=1e-3)


def test_ven4_and_5_altitude_and_unit() -> None:
    """At 2000 m 10 W in 4 m³/h rise 9.6283 K; a cubic foot a minute is 1.699011 m³/h."""
    assert rise_k(10, 4, pressure_pa(2000)) == pytest.approx(9.6283, rel=1e-3)
    assert pytest.approx(1.699011, rel=1e-6) == 0.3048**3 * 60


@pytest.mark.parametrize(
    ("power_w", "low_cm2", "high_cm2", "rise_cm", "area_cm2", "delta_k", "flow_m3_h"),
    [
        (5, 5, 5, 4, 3.53553, 52.9929, 0.28517),
        (5, 10, 10, 10, 7.07107, 24.5971, 0.61438),
        (10, 10, 10, 4, 7.07107, 52.9929, 0.57034),
        (10, 10, 10, 10, 7.07107, 39.0455, 0.77407),
        (10, 20, 20, 20, 14.14214, 19.5227, 1.54815),
        (10, 5, 15, 10, 4.74342, 50.9526, 0.59318),
    ],
)
def test_ven6_to_11_stack_flow(
    power_w: float,
    low_cm2: float,
    high_cm2: float,
    rise_cm: float,
    area_cm2: float,
    delta_k: float,
    flow_m3_h: float,
) -> None:
    """BS 5925 and ASHRAE stack formula (from memory); closed form and scipy fsolve."""
    area = vent_area_m2(low_cm2 * 1e-4, high_cm2 * 1e-4)
    assert area * 1e4 == pytest.approx(area_cm2, rel=1e-5)
    transfer = float(stack_flow_m3_s(area, rise_cm / 100, np.array(delta_k), T_A))
    assert transfer * 3600 == pytest.approx(flow_m3_h, rel=1e-4)
    assert transfer * 1.184 * CP_J_KGK * delta_k == pytest.approx(power_w, rel=1e-4)


@pytest.mark.parametrize("seed", range(30))
def test_any_box_balances_against_a_general_root_finder(seed: int) -> None:
    """Random boxes, vents, fans, suns and heat: scipy.optimize.root finds the same temperatures.

    The balances are written from the public conductances alone: what the air takes up leaves
    through wall and vents, what reaches the wall passes it, and leaves it outside.
    """
    rng = np.random.default_rng(seed)
    vented, stirred = bool(seed % 2), bool(seed % 3 == 0)
    inner = Faces(
        rng.uniform(0.06, 0.3),
        rng.uniform(0.04, 0.2),
        rng.uniform(0.02, 0.15),
        float(rng.choice([0.0, 0.5, 1.0])),
    )
    wall_m = rng.uniform(1e-3, 4e-3)
    shell = Enclosure(
        inner,
        inner.grown_by(wall_m),
        wall_conductance_w_k(inner, wall_m, float(rng.choice([0.2, 200.0]))),
        emissivity=rng.uniform(0.1, 0.95),
        fins=float(rng.choice([1.0, 1.6])),
        stirred=stirred,
        vent_area_m2=rng.uniform(1e-5, 8e-4) if vented else 0.0,
        vent_rise_m=0.05,
        fan_flow_m3_s=rng.uniform(0, 4e-4) if vented and stirred else 0.0,
        pressure_pa=rng.uniform(80e3, 101e3),
        sun_w=rng.uniform(0, 10.0),
    )
    air_w, wall_w = rng.uniform(0.5, 12.0), rng.uniform(0.0, 3.0)
    ambient_k = rng.uniform(260.0, 320.0)
    k_w = 1 / float(shell.wall_w_k)

    def left_over_w(unknowns: np.ndarray) -> list[float]:
        air_k, inner_k, through_w = unknowns
        outer_k = inner_k - through_w * k_w  # so that a wall of metal is no stiffer than one of air
        air, inner, outer = float(air_k), float(inner_k), float(outer_k)
        to_wall = inside_w_k(shell, air, inner) * (air - inner)
        vents = sum(exchange_w_k(shell, air, ambient_k))
        given = outside_w_k(shell, outer, ambient_k) * (outer - ambient_k)
        return [
            air_w - to_wall - vents * (air - ambient_k),
            wall_w + to_wall - through_w,
            through_w + float(shell.sun_w) - given,
        ]

    start = np.array([ambient_k + 25.0, ambient_k + 12.0, air_w])
    reference = root(left_over_w, start, tol=1e-10)
    assert np.abs(left_over_w(reference.x)).max() < 1e-6, "the reference balances itself"
    air_k, inner_k, through_w = reference.x
    expected_k = [air_k, inner_k, inner_k - through_w * k_w]
    single = solve_enclosure(shell, HeatInput(air_w=air_w, wall_w=wall_w), ambient_k)
    assert [single.air_k, single.inner_wall_k, single.outer_wall_k] == pytest.approx(
        expected_k, abs=0.005
    )
    ambients = np.full((3, 2), ambient_k)
    many = solve_enclosure(shell, HeatInput(air_w=np.full((3, 2), air_w), wall_w=wall_w), ambients)
    for found, expected in zip(
        (many.air_k, many.inner_wall_k, many.outer_wall_k), expected_k, strict=True
    ):
        assert found == pytest.approx(np.full((3, 2), expected), abs=0.005)


def test_fins_lie_on_top_and_sides_alone() -> None:
    """Twice the convection of these; the bottom and the radiation stay as they are."""
    plain = replace(box(), outer=replace(box().outer, bottom_share=1.0))
    wall, air = np.array([[330.0]]), np.array([[T_A]])
    top, bottom, upright = face_conductances_w_k(plain.outer, 101325.0, wall, air)
    more = outside_w_k(replace(plain, fins=2.0), wall, air) - outside_w_k(plain, wall, air)
    assert float(bottom[0, 0]) > 0
    assert float(more[0, 0]) == pytest.approx(float((top + upright)[0, 0]))
