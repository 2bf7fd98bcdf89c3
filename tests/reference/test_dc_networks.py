"""DC networks with constant-power loads against check values DCN1 to 5 and DCT1 to 4.

Expected figures: closed form, scipy.optimize and a circuit simulator, which agreed to 4e-10.
"""

from typing import NamedTuple

import numpy as np
import pytest
from scipy.optimize import root

from cobblewort.core.aspects.power.network import loads_a, path_matrix, solve


class Solved(NamedTuple):
    """One column: voltages and the currents through each branch, shape (nodes, 1)."""

    voltage_v: np.ndarray
    current_a: np.ndarray
    collapsed: np.ndarray


def solved(
    parents: list[int], ohm: list[float], source_v: float, watts: list[float], amps: list[float]
) -> Solved:
    """One column of a network with one source; node 0 hangs on it through its own resistance."""

    def column(values: list[float]) -> np.ndarray:
        return np.array(values, dtype=float)[:, np.newaxis]

    below, size = path_matrix(tuple(parents)), len(parents)
    found = solve(below, column(ohm), column([source_v] * size), column(watts), column(amps))
    branch_a = below @ loads_a(found, column(watts), column(amps))
    return Solved(found.voltage_v, branch_a, found.collapsed)


@pytest.mark.parametrize(
    ("source_v", "ohm", "watts", "volts", "amps", "limit_w"),
    [
        (5.1, 0.1, 15, 4.78663, 3.13373, 65.0250),
        (5.1, 0.2, 12, 4.57546, 2.62269, 32.5125),
        (5.1, 0.1684, 10, 4.74511, 2.10743, 38.6134),
        (12, 0.35, 24, 11.25357, 2.13266, 102.8571),
    ],
)
def test_dcn1_to_4_one_load(
    source_v: float, ohm: float, watts: float, volts: float, amps: float, limit_w: float
) -> None:
    """Closed form V = (Vs + sqrt(Vs² - 4 R P))/2; the most power is Vs²/(4 R)."""
    found = solved([-1], [ohm], source_v, [watts], [0])
    assert found.voltage_v[0, 0] == pytest.approx(volts, rel=1e-5)
    assert found.current_a[0, 0] == pytest.approx(amps, rel=1e-5)
    assert source_v**2 / (4 * ohm) == pytest.approx(limit_w, rel=1e-5)


def test_dcn5_collapse_is_told_and_not_a_nan() -> None:
    """5.0 V behind 0.5 ohm gives at most 12.5 W: 12.4 W has a point, 12.6 and 15 W have none."""
    held = solved([-1], [0.5], 5.0, [12.4], [0])
    assert not held.collapsed[0]
    assert held.voltage_v[0, 0] == pytest.approx(2.72361, rel=1e-5)
    for watts in (12.6, 15.0):
        lost = solved([-1], [0.5], 5.0, [watts], [0])
        assert lost.collapsed[0]
        assert np.isfinite(lost.voltage_v).all()
        assert np.isfinite(lost.current_a).all()


TREE_1 = ([-1, 0, 0], [0.060, 0.090, 0.140], 5.10, [8.0, 4.0, 0.0], [0.0, 0.0, 0.90])


def test_dct1_a_board_a_drive_and_a_port() -> None:
    """Tree 1 of the check values."""
    found = solved(*TREE_1)
    assert found.voltage_v[:, 0] == pytest.approx([4.89825, 4.82362, 4.77225], abs=1e-5)
    assert found.current_a[0, 0] == pytest.approx(3.36249, abs=1e-5)
    assert found.current_a[0, 0] * 5.10 == pytest.approx(17.14870, abs=1e-4)


def test_dct2_twelve_volts_with_disks_board_and_fan() -> None:
    """Tree 2 of the check values: A, B, D, E, F."""
    found = solved(
        [-1, 0, 0, 2, 2],
        [0.10, 0.25, 0.08, 0.15, 0.40],
        12.0,
        [0, 20, 0, 15, 0],
        [0, 0, 0, 0, 0.25],
    )
    expected = [11.66445, 11.21877, 11.53864, 11.34023, 11.43864]
    assert found.voltage_v[:, 0] == pytest.approx(expected, abs=1e-5)
    assert found.current_a[0, 0] == pytest.approx(3.35545, abs=1e-5)


def test_dct3_a_long_thin_lead() -> None:
    """Tree 3 of the check values: tree 1 with 0.250 and 0.300 ohm."""
    parents, _, source_v, watts, amps = TREE_1
    found = solved(parents, [0.250, 0.300, 0.140], source_v, watts, amps)
    assert found.voltage_v[:, 0] == pytest.approx([4.12833, 3.81367, 4.00233], abs=1e-5)
    assert found.current_a[0, 0] == pytest.approx(3.88669, abs=1e-5)


@pytest.mark.parametrize(("board_w", "collapsed"), [(18.44, False), (18.49, True), (20.0, True)])
def test_dct4_the_limit_of_a_tree_is_not_half_the_voltage(board_w: float, collapsed: bool) -> None:
    """Tree 4 of the check values: the board in tree 3 can take 18.4669 W at 2.6334 V."""
    found = solved([-1, 0, 0], [0.250, 0.300, 0.140], 5.10, [board_w, 4, 0], [0, 0, 0.9])
    assert bool(found.collapsed[0]) is collapsed


def test_any_tree_balances_against_a_general_root_finder() -> None:
    """Random trees: our sweep and scipy.optimize.root find the same voltages."""
    rng = np.random.default_rng(7)
    for _ in range(25):
        size = int(rng.integers(2, 9))
        parents = [-1, *(int(rng.integers(0, n)) for n in range(1, size))]
        ohm, watts = rng.uniform(0.01, 0.08, size), rng.uniform(0, 2.0, size)
        amps = rng.uniform(0, 0.3, size)
        below = path_matrix(tuple(parents))

        def residual(
            volts: np.ndarray,
            below: np.ndarray = below,
            ohm: np.ndarray = ohm,
            watts: np.ndarray = watts,
            amps: np.ndarray = amps,
        ) -> np.ndarray:
            return 5.1 - below.T @ (ohm * (below @ (watts / volts + amps))) - volts

        reference = root(residual, np.full(size, 5.0), tol=1e-12)
        assert reference.success
        found = solved(parents, list(ohm), 5.1, list(watts), list(amps))
        assert found.voltage_v[:, 0] == pytest.approx(reference.x, abs=2e-6)


@pytest.mark.parametrize("columns", [1, 255, 256, 257, 1000])
def test_many_columns_against_the_closed_form(columns: int) -> None:
    """One load behind one resistance: V = (Vs + sqrt(Vs² - 4 R P))/2, or none where P > Vs²/(4 R).

    Loads close to the limit converge slowly, and columns are solved in parts: each on its own.
    """
    rng = np.random.default_rng(columns)
    source_v, ohm = rng.uniform(4.8, 12.0, columns), rng.uniform(0.02, 0.6, columns)
    limit_w = source_v**2 / (4 * ohm)
    share = rng.choice([0.0, 0.1, 0.5, 0.9, 0.99, 1.01, 1.5], columns)
    found = solve(
        path_matrix((-1,)),
        ohm[np.newaxis],
        source_v[np.newaxis],
        (limit_w * share)[np.newaxis],
        np.zeros((1, columns)),
    )
    assert (found.collapsed == (share > 1)).all()
    kept = share < 1
    volts = (source_v + np.sqrt(np.maximum(source_v**2 * (1 - share), 0))) / 2
    assert found.voltage_v[0, kept] == pytest.approx(volts[kept], abs=2e-5)
    assert (found.voltage_v[0, ~kept] == 0).all()
    own_a = np.full((1, columns), 0.25)
    drawn_a = loads_a(found, (limit_w * share)[np.newaxis], own_a)[0]
    assert drawn_a[kept] == pytest.approx((limit_w * share / volts)[kept] + 0.25, rel=1e-4)
    assert (drawn_a[~kept] == 0.25).all()
