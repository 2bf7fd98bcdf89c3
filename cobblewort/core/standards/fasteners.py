"""Standoffs and screws by the millimetre.

The lengths are those that shops keep for M2.5 (common practice); the thread is one of ISO 261.
"""

from __future__ import annotations

from collections.abc import Iterable

THREAD = "M2.5"
STANDOFFS_MM = (3, 4, 5, 6, 8, 10, 11, 12, 14, 15, 16, 18, 20, 22, 25, 30)
SCREWS_MM = (4, 5, 6, 8, 10, 12)
ENGAGEMENT_MM = 2.0
"""Least depth of thread that holds: four to five turns, common practice for brass."""
DEPTH_MM = 6.0
"""Depth of thread in a standoff from either end, where it is long enough: common practice."""


WASHER_MM = 0.5
"""Thickness of a plain washer for this thread. ISO 7089 (from memory)."""


def washers_for(gap_mm: float) -> float:
    """As many washers as come nearest to a gap. [mm]"""
    return round(gap_mm / WASHER_MM) * WASHER_MM


def standoff_at_least(clear_mm: float, lengths_mm: Iterable[float] = STANDOFFS_MM) -> float | None:
    """The shortest standoff that leaves this much free, or None."""
    return min((x for x in lengths_mm if x >= clear_mm - 0.05), default=None)


def standoff_at_most(clear_mm: float, lengths_mm: Iterable[float] = STANDOFFS_MM) -> float | None:
    """The longest standoff that goes between, or None; washers make up the rest."""
    return max((x for x in lengths_mm if x <= clear_mm + 0.05), default=None)


def screw_for(
    through_mm: float, depth_mm: float = DEPTH_MM, lengths_mm: Iterable[float] = SCREWS_MM
) -> float | None:
    """The shortest screw that passes a board or wall, holds, and does not bottom out, or None."""
    return min((x for x in lengths_mm if ENGAGEMENT_MM <= x - through_mm <= depth_mm), default=None)


def thread_depth_mm(standoff_mm: float) -> float:
    """How deep a screw may go into a standoff: half of it, at most the usual depth."""
    return min(DEPTH_MM, standoff_mm / 2)
