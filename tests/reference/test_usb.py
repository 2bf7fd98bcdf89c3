"""USB figures against check values USB1, USB2, USB5, USB8 to USB10 (sources named beside each)."""

import pytest

from cobblewort.core.standards import usb


def test_usb1_port_current_of_usb_2() -> None:
    """USB 2.0 specification 7.2.1 (from memory): 500 mA in five unit loads of 100 mA."""
    assert usb.port_current_a(2) == pytest.approx(0.500)
    assert pytest.approx(0.100) == usb.USB2_UNIT_LOAD_A


def test_usb2_port_current_of_usb_3() -> None:
    """USB 3.2 specification clause 11 (from memory): 900 mA in six unit loads of 150 mA."""
    assert usb.port_current_a(3) == pytest.approx(0.900)
    assert pytest.approx(0.150) == usb.USB3_UNIT_LOAD_A


@pytest.mark.parametrize(
    ("pulled_to", "kohm", "current_a"),
    [
        ("5 V", 22, 1.5),
        ("5 V", 10, 3.0),
        ("3.3 V", 12, 1.5),
        ("3.3 V", 4.7, 3.0),
        ("5 V", 56, 0.9),
        ("3.3 V", 36, 0.5),
    ],
)
def test_usb5_current_advertised_by_pull_up(pulled_to: str, kohm: float, current_a: float) -> None:
    """USB Type-C specification (from memory): three pull-ups for each voltage."""
    default_a = current_a if kohm > 30 else 0.9
    assert usb.type_c_current_a(kohm, pulled_to, default_a) == current_a
    assert current_a * 5 in (2.5, 4.5, 7.5, 15.0)


def test_usb5_other_pull_ups_are_refused() -> None:
    """A resistor that the specification does not know advertises nothing."""
    with pytest.raises(ValueError, match="must be one of"):
        usb.type_c_current_a(33, "5 V", 0.5)


@pytest.mark.parametrize(("marked_a", "limit_a"), [(0.0, 3.0), (3.0, 3.0), (4.9, 3.0), (5.0, 5.0)])
def test_usb8_five_amperes_need_a_marked_lead(marked_a: float, limit_a: float) -> None:
    """USB Type-C and Power Delivery (from memory): any other lead lets 3 A through."""
    assert usb.lead_limit_a(marked_a) == limit_a


def test_usb9_voltage_limits() -> None:
    """USB 2.0 with its change notice and Power Delivery (from memory): fixed steps within 5 %."""
    assert (usb.VBUS_DEFAULT_LOW_V, usb.VBUS_DEFAULT_HIGH_V) == (4.75, 5.50)
    ranges = [usb.fixed_step_range_v(step) for step in usb.FIXED_STEPS_V]
    expected = [(8.55, 9.45), (14.25, 15.75), (19.00, 21.00)]
    assert ranges == [pytest.approx(pair) for pair in expected]


@pytest.mark.parametrize(("rated_a", "loop_ohm"), [(3.0, 0.25), (5.0, 0.15)])
def test_usb10_loop_resistance(rated_a: float, loop_ohm: float) -> None:
    """USB Type-C specification 4.4.1 (from memory): 750 mV out and back at the rated current."""
    assert usb.lead_loop_max_ohm(rated_a) == pytest.approx(loop_ohm, abs=1e-9)
    drop_v = usb.VBUS_WIRE_DROP_MAX_V + usb.GROUND_WIRE_DROP_MAX_V
    assert usb.VBUS_DEFAULT_LOW_V - drop_v == pytest.approx(4.00)
