"""Conduction, resistor networks and the governor against CON1 to 3, NET1, NET2, THR1 to 5."""

import networkx
import numpy as np
import pytest
from scipy.optimize import brentq

from cobblewort.core.aspects.heat.bodies import RADIATED_SHARE, BoardBody, Path, split_path
from cobblewort.core.aspects.heat.films import layer_k_w
from cobblewort.core.aspects.heat.throttling import clock_share


@pytest.mark.parametrize(
    ("thickness_mm", "w_mk", "side_mm", "k_w"),
    [
        (1.0, 3.0, 14, 1.70068),
        (0.5, 6.0, 14, 0.425170),
        (0.05, 4.0, 14, 0.0637755),
        (1.5, 1.5, 15, 4.44444),
    ],
)
def test_con1_and_2_pads_and_paste(
    thickness_mm: float, w_mk: float, side_mm: float, k_w: float
) -> None:
    """Closed form t/(k A)."""
    assert float(layer_k_w(thickness_mm, w_mk, side_mm**2)) == pytest.approx(k_w, rel=1e-5)


def ideal(total_w_k: float) -> Path:
    """A path to air alone."""
    return Path(np.array([total_w_k]), np.array([0.0]))


def test_con3_series_and_parallel() -> None:
    """Junction-case 0.5, pad 1.70068 and sink 12 beside a board path of 25 K/W; 5 W in 30 °C."""
    body = BoardBody(
        die_board_w_k=np.array([1e9]),
        die_sink_w_k=np.array([1 / 2.20068]),
        sink=ideal(1 / 12),
        board=ideal(1 / 25),
    )
    air = np.array([[30.0]])
    found = body.temps(np.array([[5.0]]), np.array([[0.0]]), air, air)
    assert float(found.die_k[0, 0]) == pytest.approx(75.2820, rel=1e-5)
    through_sink = (found.sink_k - 30) / 12
    assert float(through_sink[0, 0]) == pytest.approx(3.18872, rel=1e-4)


@pytest.mark.parametrize(
    ("vent", "expected"),
    [
        (0.30, [43.99712, 41.18324, 41.03183, 36.43382, 32.39973]),
        (2.00, [35.88071, 33.10737, 32.81406, 28.15509, 27.16330]),
    ],
    ids=["NET1", "NET2"],
)
def test_net1_and_2_chip_sink_and_board(vent: float, expected: list[float]) -> None:
    """The disk of the network is folded in by networkx; our board then sees the same temperatures.

    Network 6 of the check values: chip, sink, board, air, wall. numpy.linalg.solve and a circuit
    simulator gave the expected figures.
    """
    edges = [
        (1, 2, 1.00),
        (1, 3, 0.40),
        (2, 5, 0.50),
        (3, 5, 0.60),
        (4, 5, 0.35),
        (3, 4, 0.08),
        (5, 6, 0.90),
        (2, 6, 0.05),
        (6, 0, 0.55),
        (5, 0, vent),
    ]
    graph = networkx.Graph()
    graph.add_weighted_edges_from(edges)
    nodes = list(range(1, 7))
    laplacian = networkx.laplacian_matrix(graph, nodelist=[0, *nodes]).toarray()[1:, 1:]
    rise = np.linalg.solve(laplacian, np.array([4.0, 0, 1.5, 2.0, 0, 0]))
    temps = dict(zip(nodes, 25 + rise, strict=True))
    body = BoardBody(
        die_board_w_k=np.array([0.40]),
        die_sink_w_k=np.array([1.00]),
        sink=Path(np.array([0.50]), np.array([0.05])),
        board=ideal(0.60),
    )
    from_disk = 0.08 * (temps[4] - temps[3])
    air, wall = np.array([[temps[5]]]), np.array([[temps[6]]])
    found = body.temps(np.array([[4.0]]), np.array([[1.5 + from_disk]]), air, wall)
    ours = [float(t[0, 0]) for t in (found.die_k, found.sink_k, found.board_k)]
    assert [*ours, temps[5], temps[6]] == pytest.approx(expected, abs=1e-5)
    to_air, to_wall = body.given_off_w(found, air, wall)
    assert float((to_air + to_wall)[0, 0]) == pytest.approx(5.5 + from_disk, abs=1e-9)


def test_under_a_fan_only_the_natural_part_radiates() -> None:
    """Common practice: 40 % of the natural conductance is radiation."""
    still = split_path(np.array([10.0]))
    forced = split_path(np.array([10.0]), np.array([4.0]))
    assert float(still.wall_w_k[0]) == pytest.approx(RADIATED_SHARE / 10)
    assert float(still.total_w_k[0]) == pytest.approx(0.1)
    assert float(forced.wall_w_k[0]) == pytest.approx(RADIATED_SHARE / 10)
    assert float(forced.total_w_k[0]) == pytest.approx(0.25)


@pytest.mark.parametrize(
    ("p0", "p1", "k_w", "ambient_c", "limit_c", "f_max", "held_ghz"),
    [
        (1.5, 0.7, 8, 25, 80, 2.4, 2.26002),
        (1.5, 0.7, 14, 25, 80, 2.4, 1.64475),
        (1.5, 0.7, 20, 40, 80, 2.4, 0.87408),
        (2.5, 0.9, 7, 35, 85, 1.8, 1.80000),
    ],
    ids=["THR1", "THR2", "THR3", "THR4"],
)
def test_thr1_to_4_clock_held(
    p0: float,
    p1: float,
    k_w: float,
    ambient_c: float,
    limit_c: float,
    f_max: float,
    held_ghz: float,
) -> None:
    """Closed form and scipy.optimize.brentq: P(f) = P0 + P1 f^2.5 held at the limit."""
    budget_w = (limit_c - ambient_c) / k_w
    peak_w = p0 + p1 * f_max**2.5
    held = float(clock_share(np.array(budget_w), np.array(p0), np.array(peak_w))) * f_max
    assert held == pytest.approx(held_ghz, rel=1e-5)
    if held < f_max:
        other = brentq(lambda f: ambient_c + k_w * (p0 + p1 * f**2.5) - limit_c, 0.01, f_max)
        assert held == pytest.approx(other, rel=1e-6)


def test_thr5_not_coolable_has_no_clock() -> None:
    """A budget of 2.0 W under an idle power of 2.5 W: no clock holds."""
    assert float(clock_share(np.array(2.0), np.array(2.5), np.array(6.0))) == 0.0
