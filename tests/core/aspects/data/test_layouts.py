"""Layouts beside each other: what each risks and costs, from the disks of a kit."""

import pytest

from cobblewort.core.aspects.data.arrays import lost_within_a_year
from tests.kits import checked, kit


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
