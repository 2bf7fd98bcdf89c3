"""Copper wire against check values AWG1 to AWG11."""

import pytest
from fluids.piping import t_from_gauge

from cobblewort.core.standards.conductors import (
    diameter_m,
    loop_ohm,
    resistance_ohm_m,
    section_m2,
    warm_factor,
)


@pytest.mark.parametrize(
    ("gauge", "mm", "mm2", "cold_mohm", "warm_mohm"),
    [
        (20, 0.811821, 0.5176192, 33.3083, 38.5443),
        (22, 0.643803, 0.3255339, 52.9622, 61.2879),
        (24, 0.510559, 0.2047303, 84.2132, 97.4515),
        (26, 0.404892, 0.1287562, 133.9043, 154.9540),
        (28, 0.321094, 0.0809755, 212.9161, 246.3866),
    ],
)
def test_awg1_to_5_gauges(
    gauge: int, mm: float, mm2: float, cold_mohm: float, warm_mohm: float
) -> None:
    """ASTM B258 formula and IEC 60028 resistivity (from memory), at 20 and 60 °C.

    The table of fluids 1.3.1 is rounded to a few digits, up to 0.33 % off the formula.
    """
    assert diameter_m(gauge) * 1e3 == pytest.approx(mm, rel=1e-5)
    assert section_m2(gauge) * 1e6 == pytest.approx(mm2, rel=1e-5)
    assert resistance_ohm_m(gauge) * 1e3 == pytest.approx(cold_mohm, rel=1e-5)
    assert resistance_ohm_m(gauge, 60) * 1e3 == pytest.approx(warm_mohm, rel=1e-5)
    assert diameter_m(gauge) == pytest.approx(t_from_gauge(gauge, schedule="AWG"), rel=3.4e-3)


@pytest.mark.parametrize(
    ("gauge", "drops_v"),
    [
        (20, (0.19985, 0.33308, 0.39970, 0.66617)),
        (22, (0.31777, 0.52962, 0.63555, 1.05924)),
        (24, (0.50528, 0.84213, 1.01056, 1.68426)),
        (28, (1.27750, 2.12916, 2.55499, 4.25832)),
    ],
)
def test_awg6_to_9_round_trip_drop(gauge: int, drops_v: tuple[float, ...]) -> None:
    """1 m at 3 and 5 A, 2 m at 3 and 5 A; closed form."""
    found = [loop_ohm(length, gauge) * amps for length in (1, 2) for amps in (3, 5)]
    assert found == pytest.approx(drops_v, abs=1e-4)


@pytest.mark.parametrize(
    ("gauge", "at_3_a", "at_5_a"),
    [
        (20, 1.75132, 1.05079),
        (22, 1.10141, 0.66085),
        (24, 0.69269, 0.41561),
        (28, 0.27397, 0.16438),
    ],
)
def test_awg10_longest_lead(gauge: int, at_3_a: float, at_5_a: float) -> None:
    """From 5.1 V the load keeps 4.75 V: 0.35 V over the loop of one metre and the current."""
    found = [0.35 / (loop_ohm(1, gauge) * amps) for amps in (3, 5)]
    assert found == pytest.approx([at_3_a, at_5_a], rel=1e-4)


def test_awg11_a_hot_lead() -> None:
    """AWG 24, 1 m, 3 A at 60 °C: factor 1.1572, 0.58471 V."""
    assert warm_factor(60) == pytest.approx(1.1572, rel=1e-4)
    assert loop_ohm(1, 24, 60) * 3 == pytest.approx(0.58471, rel=1e-4)
