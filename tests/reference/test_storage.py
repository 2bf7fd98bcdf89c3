"""Rates of links, sizes, odds and times of storage against standards and reference libraries."""

from __future__ import annotations

from typing import get_args

import numpy as np
import pytest
import scipy.linalg
import scipy.stats

from cobblewort.core.aspects.data import arrays, typical_rates
from cobblewort.core.plans.plan import Layout
from cobblewort.core.standards import ethernet, pcie, units, usb


@pytest.mark.parametrize(
    ("rate_mbit_s", "expected"), [(100, 11.7685), (1000, 117.6853), (2500, 294.2133)]
)
def test_goodput_of_a_wire(rate_mbit_s: float, expected: float) -> None:
    """IEEE 802.3 frames of 1500 bytes with IPv4, TCP and timestamps: 1448 of 1538 bytes."""
    assert ethernet.goodput_mb_s(rate_mbit_s) == pytest.approx(expected, rel=1e-5)


def test_bulk_of_high_speed_usb() -> None:
    """13 packets of 512 bytes a microframe (USB 2.0, table 5-10, from memory): a ceiling that no
    class figure passes.
    """
    assert pytest.approx(53.248) == usb.BULK_MB_S
    assert usb.HIGH_SPEED_MB_S * typical_rates.LINK_SHARE["usb2"].high <= usb.BULK_MB_S


@pytest.mark.parametrize(("generation", "expected"), [(1, 216.22), (2, 432.43), (3, 851.56)])
def test_a_lane_after_its_packets(generation: int, expected: float) -> None:
    """128 of 148 bytes (PCI Express Base, packet layout, from memory)."""
    rate = pcie.raw_rate_mb_s(generation, 1) * typical_rates.LINK_SHARE["pcie"].nominal
    assert rate == pytest.approx(expected, rel=1e-4)


@pytest.mark.parametrize(
    ("size_gb", "tib"), [(1000, 0.909495), (2000, 1.818989), (4000, 3.637979), (8000, 7.275958)]
)
def test_the_computers_unit(size_gb: float, tib: float) -> None:
    """IEC 80000-13."""
    assert units.tib(size_gb) == pytest.approx(tib, rel=1e-6)
    assert units.gib(32) == pytest.approx(29.80232, rel=1e-6)


ROOM: dict[tuple[int, Layout], float] = {
    (2, "stripe"): 4000,
    (2, "mirror"): 2000,
    (2, "striped_mirrors"): 0,
    (2, "parity"): 0,
    (3, "stripe"): 6000,
    (3, "mirror"): 2000,
    (3, "striped_mirrors"): 0,
    (3, "parity"): 4000,
    (3, "double_parity"): 0,
    (4, "stripe"): 8000,
    (4, "mirror"): 2000,
    (4, "striped_mirrors"): 4000,
    (4, "parity"): 6000,
    (4, "double_parity"): 4000,
    (6, "stripe"): 12000,
    (6, "striped_mirrors"): 6000,
    (6, "parity"): 10000,
    (6, "double_parity"): 8000,
}


@pytest.mark.parametrize(("disks", "layout"), ROOM)
def test_room_of_equal_disks(disks: int, layout: Layout) -> None:
    """Of 2 TB each; common practice for the layouts."""
    assert arrays.usable_gb(layout, [2000.0] * disks) == ROOM[disks, layout]


def test_room_of_unequal_disks() -> None:
    """2, 2, 4 and 4 TB: the smallest counts, mirrors of equal pairs lose nothing."""
    sizes = [2000.0, 4000.0, 2000.0, 4000.0]
    assert arrays.usable_gb("parity", sizes) == 6000
    assert arrays.usable_gb("double_parity", sizes) == 4000
    assert arrays.usable_gb("stripe", sizes) == 8000
    assert arrays.usable_gb("striped_mirrors", sizes) == 6000


@pytest.mark.parametrize("disks", range(2, 9))
def test_a_mirror_never_holds_more_than_a_stripe(disks: int) -> None:
    """Nor, of equal disks, more than anything that is used together."""
    unequal = [500.0 + 250 * n for n in range(disks)]
    assert arrays.usable_gb("mirror", unequal) <= arrays.usable_gb("stripe", unequal)
    rooms = {layout: arrays.usable_gb(layout, [500.0] * disks) for layout in get_args(Layout)}
    assert all(rooms["mirror"] <= room <= rooms["stripe"] for room in rooms.values() if room)


@pytest.mark.parametrize(
    ("size_gb", "error", "odds"),
    [
        (2000, 1e-14, 0.147856),
        (4000, 1e-14, 0.273851),
        (8000, 1e-14, 0.472708),
        (2000, 1e-15, 0.015873),
        (12000, 1e-15, 0.091536),
    ],
)
def test_odds_of_an_unreadable_bit(size_gb: float, error: float, odds: float) -> None:
    """1 - (1 - p)^(8 X), from mpmath at 40 digits."""
    assert arrays.unreadable_odds(size_gb, error) == pytest.approx(odds, abs=1e-5)


def test_odds_without_replacement_are_binomial() -> None:
    """Four disks, 3 % a year: scipy.stats.binom."""
    for layout, tolerated in (("parity", 1), ("double_parity", 2), ("mirror", 3)):
        expected = scipy.stats.binom.sf(tolerated, 4, 0.03)
        ours = arrays.lost_within_a_year(layout, 4, 0.03, None)  # type: ignore[arg-type]
        assert ours == pytest.approx(expected, rel=1e-9)
    assert arrays.lost_within_a_year("stripe", 4, 0.03, None) == pytest.approx(0.11470719)
    assert arrays.lost_within_a_year("striped_mirrors", 4, 0.03, None) == pytest.approx(0.00179919)


def markov(tolerated: int, disks: int, fails: float, repair_h: float) -> float:
    """The same by the matrix exponential of the whole chain."""
    rate, repair = -np.log1p(-fails), arrays.HOURS_A_YEAR / repair_h
    size = tolerated + 2
    chain = np.zeros((size, size))
    for failed in range(tolerated + 1):
        chain[failed, failed + 1] = (disks - failed) * rate
        if failed:
            chain[failed, failed - 1] = repair
        chain[failed, failed] = -chain[failed].sum()
    return float(scipy.linalg.expm(chain)[0, -1])


@pytest.mark.parametrize("repair_h", [24, 168, 2000])
@pytest.mark.parametrize(
    ("layout", "disks"), [("mirror", 2), ("parity", 4), ("mirror", 3), ("double_parity", 6)]
)
def test_odds_with_replacement(layout: Layout, disks: int, repair_h: float) -> None:
    """scipy.linalg.expm; the odds are tiny, so that only relative agreement tells."""
    expected = markov(arrays.may_fail(layout, disks), disks, 0.03, repair_h)
    assert arrays.lost_within_a_year(layout, disks, 0.03, repair_h) == pytest.approx(
        expected, rel=1e-6
    )


def test_repair_that_is_quicker_than_anything_fails() -> None:
    """Beyond the reach of the exact sum the product of odds takes over, to 1 %."""
    expected = markov(2, 6, 0.03, 8)
    assert arrays.lost_within_a_year("double_parity", 6, 0.03, 8) == pytest.approx(
        expected, rel=0.01
    )


def test_odds_by_simulation() -> None:
    """A hundred thousand years of a pair that is mended within a month, with a fixed seed."""
    rng = np.random.default_rng(4)
    fails, repair_h, years = 0.25, 2000.0, 100_000
    rate = -np.log1p(-fails)
    lost = 0
    for _ in range(years):
        time, failed = 0.0, 0
        while True:
            ahead = (2 - failed) * rate
            mend = arrays.HOURS_A_YEAR / repair_h if failed else 0.0
            time += rng.exponential(1 / (ahead + mend))
            if time > 1:
                break
            failed += 1 if rng.random() < ahead / (ahead + mend) else -1
            if failed == 2:
                lost += 1
                break
    expected = arrays.lost_within_a_year("mirror", 2, fails, repair_h)
    assert lost / years == pytest.approx(expected, rel=0.05)


@pytest.mark.parametrize(
    ("size_gb", "rate", "hours"),
    [(2000, 100, 5.55556), (2000, 30, 18.51852), (8000, 150, 14.81481)],
)
def test_time_to_settle(size_gb: float, rate: float, hours: float) -> None:
    """Size over rate."""
    assert arrays.hours(size_gb, rate) == pytest.approx(hours, rel=1e-5)
