"""A sample of the scan; the whole is `make scan`."""

from itertools import islice

import pytest

from tests.scan.kits import faults, plans

EVERY = 101
"""A prime, so that the sample runs through all boards, cases, coolers and drives."""


@pytest.mark.parametrize("first", range(0, EVERY, 26))
def test_nothing_is_told_that_nobody_would_believe(first: int) -> None:
    """Nothing that slows itself above its point, nothing above 130 °C, but where it is told so."""
    for plan in islice(plans(), first, None, EVERY * 4):
        assert list(faults(plan)) == [], [line.part for line in plan.lines]
