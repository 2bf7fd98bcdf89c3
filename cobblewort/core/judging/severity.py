"""How much it matters: the one place in which a severity is decided, by what passing a limit does.

The thresholds part best what people built and ran from what they regretted: tried on 245 kits.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from cobblewort.core.judging.states import START, State

Severity = Literal["ok", "note", "tight", "problem"]

SEVERITY_RANK: dict[Severity, int] = {"ok": 0, "note": 1, "tight": 2, "problem": 3}

LIKELY_SHARE = 0.70
"""A limit holds where at least this share of the draws does: with 80 or 90 % sound kits are
scolded, with 60 % thin cables pass."""
LOADED_TIGHT_SHARE = 0.80
"""An electrical limit loaded above this for hours is tight: common practice for continuous loads.
"""
LOADED_H = 3.0
"""For so many hours a day a load is continuous (common practice)."""
BURST_SHARE = 1.25
"""Supplies, cables, converters and fuses ride out a burst of so many times their rating; and what
only everything at once passes by more is worth more than a note."""
KEPT_SOUND = 0.90
"""Nobody notices the rest of a speed, a rate or a time."""
KEPT_STOPS = 0.60
"""Below this it no longer does what is asked of it."""
_COLLAPSES_SHARE = 0.5
_WORN_STOPS = 1 / 3
_SPARE_TIGHT = 1 / 2


@dataclass(slots=True, frozen=True)
class Consequence:
    """What passing a limit does.

    `fails`: it cannot be assembled, does not start, trips, resets, loses data, or lacks a function.
    `slows`: it takes longer than is asked. `wears`: it does not last. `bothers`: somebody minds.
    `informs`: somebody has to know, or to do something. `shows`: another limit tells of it.

    What `rides_bursts` stands the peak of a phase up to 1.25 times its limit. What `trips` is
    limited electronically, and does not wait for somebody to notice. A `spare` is swapped when it
    is worn. A limit holds where at least `least_share` of the draws does. What is `unknown` can be
    judged once somebody looks a figure up, or measures it.
    """

    kind: Literal["fails", "slows", "wears", "bothers", "informs", "shows"]
    rides_bursts: bool = False
    trips: bool = False
    spare: bool = False
    least_share: float = LIKELY_SHARE
    unknown: bool = False


FAILS = Consequence("fails")
RIDES_BURSTS = Consequence("fails", rides_bursts=True)
TRIPS = Consequence("fails", trips=True)
SLOWS = Consequence("slows")
WEARS = Consequence("wears")
WEARS_A_SPARE = Consequence("wears", spare=True, least_share=0.5)
"""A fan that lasts as long as is wanted more likely than not is what every fan does."""
BOTHERS = Consequence("bothers", least_share=0.0)
WARNS = Consequence("bothers", least_share=2 / 3)
"""A warning lamp, such as a board's mark for low voltage."""
INFORMS = Consequence("informs", least_share=0.0)
UNKNOWN = Consequence("informs", least_share=0.0, unknown=True)
SHOWS = Consequence("shows", least_share=0.0)


@dataclass(slots=True, frozen=True)
class Standing:
    """How a limit stands in one state.

    `share` is what is got of what is asked where passing it slows or wears, else what is taken of
    the limit, 1 at the limit. `holds` is the share of draws in which it holds, None without draws.
    In a `light` state nobody waits for the part. Of `volts` a share tells nothing.
    """

    state: State
    passed: bool
    share: float
    holds: float | None
    light: bool
    volts: bool


def worst_of(severities: Iterable[Severity]) -> Severity:
    """The one that matters most."""
    return max(severities, key=SEVERITY_RANK.__getitem__, default="ok")


def severity_in(consequence: Consequence, at: Standing) -> Severity:
    """How much it matters how a limit stands in one state."""
    kind = consequence.kind
    if kind == "fails":
        judge = _failing if at.state.hard else _failing_in_worst_case
        return judge(consequence, at)
    if not at.state.hard:
        return "ok"  # told by the marker of the worst case alone
    if kind == "slows":
        return _slowing(consequence, at)
    unlikely = at.holds is not None and at.holds < consequence.least_share
    if kind == "wears":
        return _wearing(consequence, at, unlikely)
    if kind == "bothers":
        return "tight" if at.passed or unlikely else "ok"
    return "note" if at.passed and kind == "informs" else "ok"


def of_what_is_seen(consequence: Consequence, holds: float | None, planned: bool) -> Severity:
    """How much something matters that is seen and has no limit; `holds` is the share of draws in
    which it is not there, None where it is there at nominal figures.
    """
    if consequence.kind == "fails":
        if holds is not None:
            likely = LIKELY_SHARE if planned else _COLLAPSES_SHARE
            return "ok" if holds >= likely else "tight"
        return "problem" if planned else "note"
    told: dict[str, Severity] = {"informs": "note", "shows": "ok"}
    return told.get(consequence.kind, "tight")


def _failing(consequence: Consequence, at: Standing) -> Severity:
    if at.passed:
        is_burst = at.state.phase is not None and not at.state.mean
        rides = consequence.rides_bursts and is_burst and at.share <= BURST_SHARE
        return "tight" if rides else "problem"
    # A second over a limit for currents is ridden out, if it is not meant to be over.
    sure = at.state.id == START and not at.volts
    unlikely = at.holds is not None and at.holds < consequence.least_share
    return "tight" if unlikely and not sure else "ok"


def _failing_in_worst_case(consequence: Consequence, at: Standing) -> Severity:
    if at.volts and at.holds is not None and at.holds < _COLLAPSES_SHARE:
        return "tight"
    if not at.passed:
        return "ok"
    far = not at.volts and at.share >= BURST_SHARE
    return "tight" if far or consequence.trips else "note"


def _slowing(consequence: Consequence, at: Standing) -> Severity:
    if at.light:
        if at.share >= KEPT_SOUND:
            return "ok"
        if at.share <= 0 and at.state.id == "idle":
            return "problem"  # too hot at rest
        return "note" if at.share >= KEPT_STOPS else "tight"
    if at.share < KEPT_STOPS:
        return "problem"
    unlikely = at.holds is not None and at.holds < consequence.least_share
    return "tight" if at.share < KEPT_SOUND or unlikely else "ok"


def _wearing(consequence: Consequence, at: Standing, unlikely: bool) -> Severity:
    short = unlikely or (at.holds is None and at.passed)
    if consequence.spare:
        if at.share < _SPARE_TIGHT:
            return "tight"
        return "note" if short else "ok"
    if at.share < _WORN_STOPS:
        return "problem"
    return "tight" if short else "ok"
