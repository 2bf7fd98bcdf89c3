"""Energy of a day, out of a battery or from the sun."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np

from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.figures.reading import Reading, sampled
from cobblewort.core.plans.plan import Phase

USABLE_BATTERY_SHARE = 0.85
"""What is used of a lithium cell and left by its converter: typical, from memory."""
USUAL_LATITUDE_DEG = 50.0
"""Where nobody says how far north it is."""
_LATITUDES_DEG = (35.0, 50.0, 60.0, 66.5)
_SUN_H = (3.6, 0.9, 0.3, 0.0)
"""Sun on a panel tilted to the equator on a day of the darkest month: typical, from memory; none
beyond the polar circle, and no less than the first nearer to the equator. [kWh/m² a day, which are
Wh a day for each Wp]"""
_NET = Reading(nominal=7 / 9, low=1 / 3, high=11 / 9, basis="typical")
"""What a good or a bad winter leaves of it behind dirt, warmth, wire and a tracking controller:
typical, from memory."""


def day_energy_wh(schedule: Sequence[Phase], power: PowerResult) -> FloatArray:
    """Out of all sources on a day of the duty, shape (samples,). [Wh]"""
    total = np.zeros(power.voltage_v.shape[2])
    for phase, watts in _phases(schedule, power):
        total += phase.hours * watts
    return total


def battery_hours(
    schedule: Sequence[Phase], power: PowerResult, capacity_wh: float
) -> float | None:
    """Hours of use that a battery gives; None where nothing is drawn from it.

    Of use, as phases in which nothing is drawn do not empty it. For a kit that is always on they
    are hours of the clock.

    Parameters
    ----------
    capacity_wh : float
        What all batteries hold together; `USABLE_BATTERY_SHARE` of it is used.

    Notes
    -----
    t = C k / (E / t_on), at nominal figures, with the energy of a day E and its hours in use t_on.
    """
    on = [(p.hours, float(watts[0])) for p, watts in _phases(schedule, power) if watts[0] > 0]
    if not on:
        return None
    mean_w = sum(hours * watts for hours, watts in on) / sum(hours for hours, _ in on)
    return USABLE_BATTERY_SHARE * capacity_wh / mean_w


def _phases(schedule: Sequence[Phase], power: PowerResult) -> Iterator[tuple[Phase, FloatArray]]:
    """For each phase of the day the mean power that it takes: out of batteries, where the kit hangs
    on any, so that charging is not counted as use, else out of all sources. [W]
    """
    batteries = [
        place
        for place, node in enumerate(power.nodes)
        if (source := node.item.part.source) is not None
        and source.power_source in ("battery", "solar")
        and source.rail == node.name
    ]
    roots = [place for place, node in enumerate(power.nodes) if node.parent < 0]
    places = batteries or roots
    for number, state in enumerate(power.states):
        if state.phase is not None and state.mean:
            watts = power.voltage_v[places, number] * power.current_a[places, number]
            yield schedule[state.phase], watts.sum(axis=0)


def in_use(schedule: Sequence[Phase], power: PowerResult) -> list[Phase]:
    """The phases in which something is drawn."""
    return [phase for phase, watts in _phases(schedule, power) if watts[0] > 0]


def darkest_month(latitude_deg: float | None) -> str:
    """In which the sun is lowest: June south of the equator."""
    return "June" if latitude_deg is not None and latitude_deg < 0 else "December"


def darkest_yield_wh_wp(latitude_deg: float | None, samples: int) -> FloatArray:
    """What a watt of panel gives on a day of the darkest month, shape (samples,), drawn alike for
    every plan. [Wh a day for each Wp]
    """
    at_deg = USUAL_LATITUDE_DEG if latitude_deg is None else abs(latitude_deg)
    sun_h = float(np.interp(at_deg, _LATITUDES_DEG, _SUN_H))
    return sun_h * sampled(_NET, "place/darkest_month_wh_wp", samples)
