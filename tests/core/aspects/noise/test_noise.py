"""What is heard of a kit: levels added up, held against the limit of its place."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from cobblewort.core.aspects.noise.model import sum_of_levels_dba
from cobblewort.core.changing.fixes import propose_fixes
from tests.kits import checked, kit, margin, shipped, told

FANS = ("B10", "S03", "M02", "K06", "E03")
levels = st.lists(st.floats(0, 90), min_size=1, max_size=8)


@pytest.mark.parametrize(
    ("one", "other", "both"),
    [(30, 30, 33.01), (40, 30, 40.41), (26, 34, 34.64), (50, 40, 50.41), (60, 60, 63.01)],
)
def test_two_sources_add_their_powers(one: float, other: float, both: float) -> None:
    """Two equal ones are 3 dB louder, 10 dB less adds 0.4 dB: ISO 3744, handbook table."""
    found = sum_of_levels_dba([np.array([float(one)]), np.array([float(other)])])
    assert found[0] == pytest.approx(both, abs=0.005)


@given(levels)
def test_the_sum_is_between_the_loudest_and_all_as_loud(found: list[float]) -> None:
    """Never quieter than the loudest, never more than 10 lg n above it."""
    total = float(sum_of_levels_dba([np.array([level]) for level in found])[0])
    loudest = max(found)
    assert loudest - 1e-9 <= total <= loudest + 10 * np.log10(len(found)) + 1e-9


def test_a_fan_in_a_quiet_place() -> None:
    """26 dB(A) where 24 are allowed stops it, where 30 are it does not; the band is 10 %."""
    loud = checked(kit(*FANS, place={"noise_max_dba": 24}), 256)
    found = margin(loud, "NOISE-01:place")
    assert (found.value, found.limit, found.severity) == (26, 24, "tight")
    assert found.spare_p05 is not None
    assert found.spare_p05 < -2 < (found.spare_p95 or 0)
    sentence = told(loud, "NOISE-01")[0].sentence.text
    assert sentence == "The Hush Clip cooler is 26 dB(A) at 1 m; the limit here is 24 dB(A)."
    assert margin(checked(kit(*FANS, place={"noise_max_dba": 30})), "NOISE-01:place").spare == 4


def test_disk_and_fan_together() -> None:
    """A disk of class figures, 24 dB(A), beside the fan of 26: 28.1."""
    plan = kit(*FANS, "A12", "D11", place={"noise_max_dba": 30})
    assert margin(checked(plan), "NOISE-01:place").value == pytest.approx(28.12, abs=0.01)


def test_what_does_not_turn_is_not_heard() -> None:
    """And the ruler says so with all of its length."""
    found = margin(
        checked(kit("B06", "S01", "M02", "K03", place={"noise_max_dba": 20})), "NOISE-01:place"
    )
    assert (found.value, found.ruler_share, found.severity) == (0, 1, "ok")


def test_without_a_limit_nothing_is_judged() -> None:
    """The ruler stays empty."""
    report = checked(kit(*FANS))
    noise = next(family for family in report.families if family.id == "noise")
    assert (noise.checked, noise.margin) == (False, None)


def test_a_fan_of_which_nobody_says_how_loud_it_is() -> None:
    """Not known, not silent; what is known counts all the same."""
    fan = {**shipped().document(shipped().part("K06")), "noise_dba": None}
    catalogue = shipped().extended([fan])
    report = checked(kit(*FANS, place={"noise_max_dba": 24}), 1, catalogue)
    assert [f.sentence.text for f in told(report, "NOISE-01")] == [
        "Not checked: noise. Hush Clip has no noise value."
    ]


def test_the_ways_out_are_quieter_parts() -> None:
    """Another cooler that does not turn, evaluated in the plan."""
    plan = kit("B06", "S01", "M02", "K05", "E03", place={"noise_max_dba": 20})
    finding = told(checked(plan), "NOISE-01")[0]
    titles = [fix.title.text for fix in propose_fixes(plan, shipped(), finding.id)]
    assert "Swap Windrow for Griddle" in titles
