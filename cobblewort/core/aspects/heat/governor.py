"""The clock that a processor holds when it may not get warmer, and what drives hold beside it.

Power follows the clock as P = P0 + (Ppeak - P0) (f / fmax)^2.5: dynamic power goes with frequency
and the square of a voltage that rises with it (common practice).
"""

from __future__ import annotations

import numpy as np

from cobblewort.core.figures.arrays import FloatArray, Quantity
from cobblewort.core.figures.one_or_many import absolute, between, largest

CLOCK_EXPONENT = 0.4
"""Inverse of the 2.5 above."""
_TURNS, _SETTLED_W = 12, 0.001
"""After how many turns, or how little change, what slows itself is settled."""


def clock_share(power_w: FloatArray, idle_w: FloatArray, peak_w: FloatArray) -> FloatArray:
    """Clock that a power allows, as a share of the full one: ((P - P0)/(Ppeak - P0))^0.4, 0 to 1.

    Parameters
    ----------
    power_w, idle_w, peak_w : ndarray
        Power allowed, at idle and at full clock. At or below idle the share is 0: no clock holds.
        [W]
    """
    span = np.maximum(np.asarray(peak_w) - idle_w, 1e-12)
    share: FloatArray = np.clip((np.asarray(power_w) - idle_w) / span, 0.0, 1.0) ** CLOCK_EXPONENT
    return share


def balanced(
    die_over_k: Quantity, air_k: Quantity, most_w: Quantity, die_k_w: tuple[Quantity, Quantity],
    air_k_w: tuple[Quantity, Quantity], *drives: Quantity,
) -> tuple[Quantity, Quantity]:  # fmt: skip
    """What the processor and what the drives give off less when all keep to their limits. [W]

    A watt of a drive warms the air by a tenth of what it warms the drive, so that each turn comes
    ten times closer. Everything is of shape (states, samples) or a plain number.

    Parameters
    ----------
    die_over_k : ndarray or float
        By how much the die passes its throttle point when nothing slows itself. [K]
    air_k : ndarray or float
        Air around the drives then. [K]
    most_w : ndarray or float
        What the processor can give off less. [W]
    die_k_w, air_k_w : tuple of ndarray or float
        What a watt less of the processor, and of the drives, takes off die and air. [K/W]
    drives : ndarray or float
        Of each drive what it gives off, and at rest [W], its limit [K] and its resistance [K/W].
    """
    each = [drives[n : n + 4] for n in range(0, len(drives), 4)]
    less_w = spared_w = 0.0 * most_w
    for _ in range(_TURNS):
        before_w = spared_w
        wanted_w = (die_over_k - die_k_w[1] * spared_w) / die_k_w[0]
        less_w = between(0.0 * most_w, wanted_w, most_w)
        cooled_k = air_k - air_k_w[0] * less_w - air_k_w[1] * spared_w
        spared_w = 0.0 * most_w
        for power_w, rest_w, limit_k, r_k_w in each:
            spared_w = spared_w + power_w - between(rest_w, (limit_k - cooled_k) / r_k_w, power_w)
        if largest(absolute(spared_w - before_w)) < _SETTLED_W:
            break
    return less_w, spared_w
