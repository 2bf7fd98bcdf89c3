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
DARKEST_MONTH_WH_WP = Reading(nominal=0.9, low=0.4, high=1.5, basis="typical")
"""What a watt of panel gives on a day of December at 50 degrees north, tilted south, net of dirt:
typical, from memory. [Wh a day for each Wp]"""


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


def darkest_yield_wh_wp(samples: int) -> FloatArray:
    """`DARKEST_MONTH_WH_WP` as samples, the same for every plan."""
    return sampled(DARKEST_MONTH_WH_WP, "place/darkest_month_wh_wp", samples)
