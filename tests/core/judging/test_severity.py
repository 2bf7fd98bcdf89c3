"""What passing a limit does decides how loud it is told; each threshold from both sides.

The thresholds are those that part best what was built and ran from what was regretted: common
practice, tried on 245 kits.
"""

from __future__ import annotations

from typing import Any

import pytest

from cobblewort.core.judging.severity import (
    BOTHERS,
    FAILS,
    INFORMS,
    RIDES_BURSTS,
    SHOWS,
    SLOWS,
    TRIPS,
    WARNS,
    WEARS,
    WEARS_A_SPARE,
    Consequence,
    Standing,
    of_what_is_seen,
    severity_in,
)
from cobblewort.core.judging.states import State

STATES = {
    "idle": State("idle", "Idle", True, True),
    "peak": State("phase-1", "film", True, False, 0),
    "mean": State("phase-1-mean", "film (mean)", True, True, 0),
    "start": State("start", "Power-up", True, False),
    "all": State("all", "Worst case", False, True),
}


def judged(consequence: Consequence, state: str, share: float, **fields: Any) -> str:
    """The severity of a limit of which so much is taken, or of a wish of which so much is got."""
    upward = consequence.kind not in ("slows", "wears")
    passed = share > 1 if upward else share < 1
    given = {"passed": passed, "holds": None, "light": False, "volts": False, **fields}
    return severity_in(consequence, Standing(STATES[state], share=share, **given))


@pytest.mark.parametrize(
    ("consequence", "state", "share", "severity"),
    [
        (FAILS, "peak", 1.0, "ok"),
        (FAILS, "peak", 1.001, "problem"),
        (RIDES_BURSTS, "peak", 1.25, "tight"),
        (RIDES_BURSTS, "peak", 1.26, "problem"),
        (RIDES_BURSTS, "mean", 1.01, "problem"),
        (RIDES_BURSTS, "idle", 1.01, "problem"),
        (RIDES_BURSTS, "start", 1.01, "problem"),
        (TRIPS, "peak", 1.01, "problem"),
        (FAILS, "all", 1.24, "note"),
        (FAILS, "all", 1.25, "tight"),
        (TRIPS, "all", 1.01, "tight"),
        (TRIPS, "all", 1.0, "ok"),
    ],
)
def test_what_fails(consequence: Consequence, state: str, share: float, severity: str) -> None:
    """A burst may pass what rides it out by a quarter; a mean and a start may not; a port that
    limits electronically lets nothing pass.
    """
    assert judged(consequence, state, share) == severity


@pytest.mark.parametrize(
    ("state", "holds", "volts", "severity"),
    [
        ("peak", 0.70, False, "ok"),
        ("peak", 0.69, False, "tight"),
        ("start", 0.10, False, "ok"),
        ("start", 0.69, True, "tight"),
        ("all", 0.10, False, "ok"),
        ("all", 0.50, True, "ok"),
        ("all", 0.49, True, "tight"),
    ],
)
def test_draws_of_what_fails(state: str, holds: float, volts: bool, severity: str) -> None:
    """The second of the start counts at nominal figures alone, for currents; of everything at once
    only voltages in more than half of the draws.
    """
    assert judged(FAILS, state, 0.99, holds=holds, volts=volts) == severity


@pytest.mark.parametrize(
    ("share", "holds", "severity"),
    [
        (0.90, None, "ok"),
        (0.899, None, "tight"),
        (0.60, None, "tight"),
        (0.599, None, "problem"),
        (0.95, 0.70, "ok"),
        (0.95, 0.69, "tight"),
    ],
)
def test_what_slows(share: float, holds: float | None, severity: str) -> None:
    """By what is got of what is asked."""
    assert judged(SLOWS, "mean", share, holds=holds) == severity
    assert judged(SLOWS, "all", share, holds=holds) == "ok", "told by its marker alone"


@pytest.mark.parametrize(
    ("state", "share", "severity"),
    [
        ("mean", 0.9, "ok"),
        ("mean", 0.89, "note"),
        ("mean", 0.60, "note"),
        ("mean", 0.59, "tight"),
        ("mean", 0.0, "tight"),
        ("idle", 0.59, "tight"),
        ("idle", 0.0, "problem"),
    ],
)
def test_in_light_work_nobody_waits(state: str, share: float, severity: str) -> None:
    """Never a problem, unless idle itself cannot be cooled; and draws do not count."""
    assert judged(SLOWS, state, share, light=True, holds=0.1) == severity


@pytest.mark.parametrize(
    ("consequence", "share", "holds", "severity"),
    [
        (WEARS, 1.1, 0.70, "ok"),
        (WEARS, 1.1, 0.69, "tight"),
        (WEARS, 0.95, 0.71, "ok"),
        (WEARS, 0.95, None, "tight"),
        (WEARS, 0.334, 0.1, "tight"),
        (WEARS, 0.333, 0.1, "problem"),
        (WEARS_A_SPARE, 1.1, 0.50, "ok"),
        (WEARS_A_SPARE, 1.1, 0.49, "note"),
        (WEARS_A_SPARE, 0.50, 0.1, "note"),
        (WEARS_A_SPARE, 0.49, 0.1, "tight"),
    ],
)
def test_what_wears(
    consequence: Consequence, share: float, holds: float | None, severity: str
) -> None:
    """By the share of draws in which it lasts; what has a spare is swapped."""
    assert judged(consequence, "idle", share, holds=holds) == severity


@pytest.mark.parametrize(
    ("consequence", "share", "holds", "severity"),
    [
        (BOTHERS, 1.01, None, "tight"),
        (BOTHERS, 0.99, 0.1, "ok"),
        (WARNS, 0.99, 0.66, "tight"),
        (WARNS, 0.99, 0.67, "ok"),
        (INFORMS, 1.01, None, "note"),
        (INFORMS, 0.99, 0.1, "ok"),
        (SHOWS, 2.0, 0.0, "ok"),
    ],
)
def test_what_bothers_and_informs(
    consequence: Consequence, share: float, holds: float | None, severity: str
) -> None:
    """At nominal figures; a warning lamp in more than a third of the draws too."""
    assert judged(consequence, "peak", share, holds=holds) == severity
    assert judged(consequence, "all", share, holds=holds) == "ok"


@pytest.mark.parametrize(
    ("consequence", "holds", "planned", "severity"),
    [
        (FAILS, None, True, "problem"),
        (FAILS, None, False, "note"),
        (FAILS, 0.70, True, "ok"),
        (FAILS, 0.69, True, "tight"),
        (FAILS, 0.50, False, "ok"),
        (FAILS, 0.49, False, "tight"),
        (BOTHERS, None, True, "tight"),
        (INFORMS, None, True, "note"),
        (SHOWS, None, True, "ok"),
    ],
)
def test_what_is_seen_without_a_limit(
    consequence: Consequence, holds: float | None, planned: bool, severity: str
) -> None:
    """Observations go through the same decision."""
    assert of_what_is_seen(consequence, holds, planned) == severity
