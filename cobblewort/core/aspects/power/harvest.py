"""Energy of a day, out of a battery or from the sun."""

from __future__ import annotations

import numpy as np

from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.figures.reading import Reading, sampled
from cobblewort.core.plans.plan import Plan

USABLE_BATTERY_SHARE = 0.85
"""What is used of a lithium cell and left by its converter: typical, from memory."""
DARKEST_MONTH_WH_WP = Reading(nominal=0.9, low=0.4, high=1.5, basis="typical")
"""What a watt of panel gives on a day of December at 50 degrees north, tilted south, net of dirt:
typical, from memory. [Wh a day for each Wp]"""


def day_energy_wh(plan: Plan, power: PowerResult) -> FloatArray:
    """Out of all sources on a day of the duty, shape (samples,). [Wh]"""
    samples = power.voltage_v.shape[2]
    roots = [place for place, node in enumerate(power.nodes) if node.parent < 0]
    total = np.zeros(samples)
    for number, state in enumerate(power.states):
        if state.phase is None or not state.mean:
            continue
        for place in roots:
            watts = power.voltage_v[place, number] * power.current_a[place, number]
            total += plan.duty[state.phase].hours * watts
    return total


def darkest_yield_wh_wp(samples: int) -> FloatArray:
    """`DARKEST_MONTH_WH_WP` as samples, the same for every plan."""
    return sampled(DARKEST_MONTH_WH_WP, "place/darkest_month_wh_wp", samples)
