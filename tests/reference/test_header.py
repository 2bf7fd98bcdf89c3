"""E series, LED resistors and header conventions against IEC 60063 and Ohm's law."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from cobblewort.core.standards import header

# IEC 60063, as tabulated; the E12 decade is every second value of the E24 one.
E12_IEC = (10, 12, 15, 18, 22, 27, 33, 39, 47, 56, 68, 82)
E24_IEC = (
    10,
    11,
    12,
    13,
    15,
    16,
    18,
    20,
    22,
    24,
    27,
    30,
    33,
    36,
    39,
    43,
    47,
    51,
    56,
    62,
    68,
    75,
    82,
    91,
)


def test_the_series_are_those_of_the_standard() -> None:
    """IEC 60063."""
    assert header.E12 == E12_IEC
    assert header.E24 == E24_IEC


def test_powers_of_ten_are_not_the_series() -> None:
    """Where rounding 10^(i/24) differs from the table; computed here (closed form)."""
    rounded = [round(10 * 10 ** (i / 24)) for i in range(24)]
    differ = {a: b for a, b in zip(rounded, header.E24, strict=True) if a != b}
    assert differ == {26: 27, 29: 30, 32: 33, 35: 36, 38: 39, 42: 43, 46: 47, 83: 82}


@pytest.mark.parametrize(
    ("forward_v", "current_ma", "series", "resistor_ohm", "real_ma"),
    [
        # Worked by hand from R = (3.3 V - V_f) / I and the next value of IEC 60063.
        (2.0, 2, "E12", 680, 1.9118),
        (2.0, 2, "E24", 680, 1.9118),
        (2.0, 5, "E24", 270, 4.8148),
        (2.0, 8, "E24", 180, 7.2222),
        (2.0, 10, "E12", 150, 8.6667),
        (2.0, 10, "E24", 130, 10.0),
        (3.0, 2, "E24", 150, 2.0),
        (3.0, 5, "E12", 68, 4.4118),
        (3.0, 5, "E24", 62, 4.8387),
        (3.0, 8, "E24", 39, 7.6923),
        (3.0, 10, "E24", 30, 10.0),
    ],
)
def test_the_resistor_of_an_led(
    forward_v: float, current_ma: float, series: header.Series, resistor_ohm: float, real_ma: float
) -> None:
    """An exact hit counts as fitting, in spite of binary rounding."""
    found = header.series_resistor_ohm(3.3, forward_v, current_ma / 1000, series)
    assert found == resistor_ohm
    assert (3.3 - forward_v) / found * 1000 == pytest.approx(real_ma, rel=1e-4)


@given(st.floats(1.0, 3.2), st.floats(1e-5, 0.5), st.sampled_from(["E12", "E24"]))
def test_the_resistor_never_lets_more_through(
    forward_v: float, current_a: float, series: header.Series
) -> None:
    """And is the next of its series: one step lower would let more through."""
    found = header.series_resistor_ohm(3.3, forward_v, current_a, series)
    wanted = (3.3 - forward_v) / current_a
    assert found >= wanted * (1 - 1e-8)
    values = E12_IEC if series == "E12" else E24_IEC
    ladder = sorted(v * 10.0**e for v in values for e in range(-4, 7))
    below = [v for v in ladder if v < found * (1 - 1e-9)]
    assert below[-1] < wanted


@pytest.mark.parametrize(("supply_v", "current_a"), [(2.0, 0.01), (1.0, 0.01), (3.3, 0)])
def test_no_resistor_helps(supply_v: float, current_a: float) -> None:
    """Without voltage to spare, or without current."""
    with pytest.raises(ValueError, match="forward voltage"):
        header.series_resistor_ohm(supply_v, 2.0, current_a)


def test_every_pin_has_one_task() -> None:
    """40 pins: two of 3.3 V, two of 5 V, eight of ground, two kept, 26 signals (the convention)."""
    signals = [n for n in range(1, 41) if header.is_signal(n)]
    assert len(signals) == 26
    assert (len(header.SUPPLY_3V3), len(header.SUPPLY_5V), len(header.GROUND)) == (2, 2, 8)
    assert {header.pin_name(n) for n in header.GROUND} == {"ground"}


@pytest.mark.parametrize(("pin", "ground"), [(3, 6), (11, 9), (16, 14), (40, 39), (37, 39), (7, 9)])
def test_the_nearest_ground(pin: int, ground: int) -> None:
    """Read off the pin table by eye: odd numbers in one row, even ones in the other."""
    assert header.nearest_ground(pin) == ground
