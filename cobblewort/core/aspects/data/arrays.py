"""Disks used together: room, what may fail, odds, and how writes and reads are spread."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, expm1, log1p, sqrt

from cobblewort.core.labels import ARRAY_LAYOUTS
from cobblewort.core.plans.plan import Layout

HOURS_A_YEAR = 365.25 * 24
SWAP_DAYS = 7.0
"""Until somebody has bought and put in the new disk: a guess."""
READ_ERROR_A_BIT = 1e-14
"""The most unreadable bits that data sheets of small disks own up to: from memory, an upper
bound."""
SSD_READ_ERROR_A_BIT = 1e-15
"""The same of solid-state drives: from memory."""


@dataclass(slots=True, frozen=True)
class LayoutFacts:
    """What is always true of a layout: how many disks it needs, in what steps, its name, and
    what it is good for.
    """

    label: str
    least: int
    even: bool
    speaks_for: str


LAYOUTS: dict[Layout, LayoutFacts] = {
    "separate": LayoutFacts(
        ARRAY_LAYOUTS["separate"], 1, False, "Simple. A failed disk loses its own data."
    ),
    "stripe": LayoutFacts(
        ARRAY_LAYOUTS["stripe"], 2, False, "Fast, full capacity. One failed disk loses all data."
    ),
    "mirror": LayoutFacts(
        ARRAY_LAYOUTS["mirror"], 2, False, "Each disk has all data. Half the capacity."
    ),
    "striped_mirrors": LayoutFacts(
        ARRAY_LAYOUTS["striped_mirrors"],
        4,
        True,
        "Fast rebuild, low processor load. Half the capacity.",
    ),
    "parity": LayoutFacts(
        ARRAY_LAYOUTS["parity"],
        3,
        False,
        "Most capacity while one disk may fail. Slow writes and rebuild.",
    ),
    "double_parity": LayoutFacts(
        ARRAY_LAYOUTS["double_parity"], 4, False, "Two disks may fail. Slowest writes and rebuild."
    ),
}


def possible(layout: Layout, disks: int) -> bool:
    """Whether so many disks can be used like this."""
    facts = LAYOUTS[layout]
    return disks >= facts.least and not (facts.even and disks % 2)


def usable_gb(layout: Layout, sizes_gb: Sequence[float]) -> float:
    """Room for data; the smallest counts where all hold a part of everything. [GB]

    Disks that cannot be used like this hold nothing together.
    """
    count = len(sizes_gb)
    if not possible(layout, count):
        return 0.0
    least = min(sizes_gb)
    if layout == "separate":
        return sum(sizes_gb)
    if layout == "striped_mirrors":
        return sum(sorted(sizes_gb)[::2])
    data_disks = {"stripe": count, "mirror": 1, "parity": count - 1, "double_parity": count - 2}
    return least * data_disks[layout]


def may_fail(layout: Layout, disks: int) -> int:
    """How many disks may fail, whichever they are, and all is still there."""
    if layout == "mirror":
        return disks - 1
    return {"striped_mirrors": 1, "parity": 1, "double_parity": 2}.get(layout, 0)


def written_to_each(layout: Layout, disks: int) -> float:
    """Bytes written to each disk for a byte of data, spread over all; of separate ones to one."""
    return {
        "separate": 1.0,
        "stripe": 1 / disks,
        "mirror": 1.0,
        "striped_mirrors": 2 / disks,
        "parity": 1 / max(1, disks - 1),
        "double_parity": 1 / max(1, disks - 2),
    }[layout]


def read_from_each(layout: Layout, disks: int) -> list[float]:
    """Bytes read from each disk for a byte of data: one reader, one file."""
    if layout in ("separate", "mirror"):
        return [1.0] + [0.0] * (disks - 1)
    if layout == "striped_mirrors":
        return [2 / disks if n % 2 == 0 else 0.0 for n in range(disks)]
    return [1 / disks] * disks


def failure_rate_a_year(fails_share: float) -> float:
    """Rate of failures of which a share fails within a year. [1/a]"""
    return -log1p(-fails_share)


def lost_within_a_year(
    layout: Layout, disks: int, fails_share: float, rebuild_h: float | None
) -> float:
    """Odds that data are lost in a year through disks that fail.

    Parameters
    ----------
    layout, disks : Layout, int
        What is used together.
    fails_share : float
        Share of such disks that fail within a year, 0 to 1.
    rebuild_h : float or None
        Hours until a disk that failed is replaced and filled again; None where nobody replaces it.
        [h]

    Notes
    -----
    Failures are independent and at a steady rate: read errors and what hits all disks at once
    (theft, fire, a supply gone wrong) are left out. With replacement a chain of states by the
    number of failed disks, the last one being loss.
    """
    rate = failure_rate_a_year(fails_share)
    if layout in ("separate", "stripe"):
        return -expm1(-rate * disks)
    if layout == "striped_mirrors":
        of_pair = lost_within_a_year("mirror", 2, fails_share, rebuild_h)
        return -expm1(disks // 2 * log1p(-of_pair))
    tolerated = may_fail(layout, disks)
    if rebuild_h is None:
        return _more_than(tolerated, disks, fails_share)
    repair = HOURS_A_YEAR / rebuild_h
    if tolerated == 1:
        return _two_steps(disks * rate, (disks - 1) * rate, repair)
    return _chain(tolerated, disks, rate, repair)


def _more_than(tolerated: int, disks: int, fails_share: float) -> float:
    """Binomial odds that more disks than are tolerated fail."""
    kept, odds = 1 - fails_share, 0.0
    choices = 1.0
    for failed in range(disks + 1):
        if failed > tolerated:
            odds += choices * fails_share**failed * kept ** (disks - failed)
        choices = choices * (disks - failed) / (failed + 1)
    return odds


def _two_steps(first: float, second: float, repair: float) -> float:
    """Odds of being lost after a year: all well, one failed (repaired at a rate), lost."""
    sum_of_rates = first + second + repair
    root = sqrt(sum_of_rates**2 - 4 * first * second)
    slow = 2 * first * second / (sum_of_rates + root)
    fast = (sum_of_rates + root) / 2
    # 1 - (fast e^-slow - slow e^-fast) / (fast - slow), without taking near ones apart:
    return (-fast * expm1(-slow) + slow * expm1(-fast)) / (fast - slow)


def _chain(tolerated: int, disks: int, rate: float, repair: float) -> float:
    """The same with more steps: rates of going on and back, by uniformisation.

    References
    ----------
    .. [1] A. Jensen, Markoff chains as an aid in the study of Markoff processes, 1953.
    """
    ahead = [(disks - failed) * rate for failed in range(tolerated + 1)]
    pace = max(ahead) + repair
    state = [1.0] + [0.0] * (tolerated + 1)
    weight, odds = exp(-pace), 0.0
    if weight == 0.0:  # repair is so quick that the chain rests in its first states
        return _rare(ahead, repair)
    for step in range(int(pace + 12 * sqrt(pace) + 40)):
        odds += weight * state[-1]
        nxt = [0.0] * len(state)
        for failed, share in enumerate(state[:-1]):
            back = repair if failed else 0.0
            nxt[failed + 1] += share * ahead[failed] / pace
            if failed:
                nxt[failed - 1] += share * back / pace
            nxt[failed] += share * (1 - (ahead[failed] + back) / pace)
        nxt[-1] += state[-1]
        state = nxt
        weight *= pace / (step + 1)
    return odds


def _rare(ahead: Sequence[float], repair: float) -> float:
    """Where repair is far quicker than failing: the product of the odds of each further step."""
    odds = ahead[0]
    for rate in ahead[1:]:
        odds *= rate / (rate + repair)
    return -expm1(-odds)


def unreadable_odds(read_gb: float, error_a_bit: float) -> float:
    """Odds that something of what is read cannot be: 1 - (1 - p)^bits, at the worst that data
    sheets allow.
    """
    return -expm1(8e9 * read_gb * log1p(-error_a_bit))


def hours(size_gb: float, rate_mb_s: float) -> float:
    """Time to read or write so much. [h]"""
    return size_gb * 1000 / rate_mb_s / 3600
