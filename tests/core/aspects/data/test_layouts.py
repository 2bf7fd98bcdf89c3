"""Layouts beside each other: what each risks and costs, from the disks of a kit."""

import pytest

from cobblewort.core.aspects.data.arrays import (
    READ_ERROR_A_BIT,
    lost_within_a_year,
    unreadable_odds,
)
from tests.kits import checked, kit, with_part


def test_the_risk_of_a_mirror_counts_the_week_until_a_disk_is_swapped() -> None:
    """A disk is gone for a week, and then until it is filled; without one there is no second."""
    plan = kit("B10", "S03", "M02", "H03", "2xA12", "2xD11", storage_use={"layout": "mirror"})
    layouts = {one.layout: one for one in checked(plan).data.layouts}
    mirror, stripe = layouts["mirror"], layouts["stripe"]
    assert mirror.settle_h is not None
    share = 1 - (1 - (stripe.loss_risk_per_year or 0)) ** 0.5  # either disk of a stripe
    expected = lost_within_a_year("mirror", 2, share, 7 * 24 + mirror.settle_h)
    assert mirror.loss_risk_per_year == pytest.approx(expected, rel=1e-6)
    assert (mirror.loss_risk_per_year or 0) < (stripe.loss_risk_per_year or 0) / 100


def test_a_single_disk_has_its_row() -> None:
    """1 TB is 0.91 TiB; how long it takes to fill, and what it risks."""
    (row,) = (
        one for one in checked(kit("B06", "S01", "M02", "D11", "A12")).data.layouts if one.possible
    )
    assert (row.layout, row.may_fail, row.settle_h) == ("separate", 0, None)
    assert row.usable_tib == pytest.approx(0.909, abs=0.001)
    assert row.fill_h == pytest.approx(1e6 / (row.write_mb_s or 0) / 3600)


def test_without_a_rate_the_week_of_the_swap_counts_alone() -> None:
    """Not a year in which nobody swaps anything, which is twenty times as bad and more."""
    share = 0.035
    by_week = lost_within_a_year("mirror", 2, share, 7 * 24)
    never = lost_within_a_year("mirror", 2, share, None)
    assert never > 20 * by_week
    disk = {
        "id": "D92",
        "kind": "drive",
        "part_class": "disk_2_5",
        "maker": "m",
        "model": "Mute",
        "storage": {"capacity_gb": 1000},
        "drive": {"read_mb_s": None, "write_mb_s": None},
    }
    plan = kit("B06", "S01", "M02", "2xD92", storage_use={"layout": "mirror"})
    found = {one.layout: one for one in checked(plan, 1, with_part(**disk)).data.layouts}
    assert found["mirror"].settle_h is None
    assert found["mirror"].loss_risk_per_year == pytest.approx(by_week, rel=0.01)


def test_unreadable_bits_count_where_no_redundancy_is_left() -> None:
    """Of four in double parity two have to be read once two are gone, of single parity three."""
    four = kit("B10", "S03", "M02", "4xD11", "4xA12", "H03", storage_use={"layout": "parity"})
    found = {one.layout: one for one in checked(four).data.layouts}
    single, double = found["parity"].unreadable or 0, found["double_parity"].unreadable or 0
    assert single == pytest.approx(unreadable_odds(3000, READ_ERROR_A_BIT))
    assert double == pytest.approx(unreadable_odds(2000, READ_ERROR_A_BIT))
