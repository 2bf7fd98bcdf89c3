"""USB figures against check value USB8 and the least voltage of a device."""

import pytest

from cobblewort.core.standards import usb


@pytest.mark.parametrize(("marked_a", "limit_a"), [(0.0, 3.0), (3.0, 3.0), (4.9, 3.0), (5.0, 5.0)])
def test_usb8_five_amperes_need_a_marked_lead(marked_a: float, limit_a: float) -> None:
    """USB Type-C and Power Delivery (from memory): any other lead lets 3 A through."""
    assert usb.cable_limit_a(marked_a) == limit_a


def test_usb10_what_leads_and_hubs_may_lose_leaves_a_device_its_voltage() -> None:
    """USB 2.0, 7.2.2 (from memory): from 4.75 V the upstream lead and hub take 350 mV at most."""
    assert pytest.approx(4.75 - 0.35) == usb.DEVICE_MIN_V
