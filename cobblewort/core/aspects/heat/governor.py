"""The clock that a processor holds when it may not get warmer.

Power follows the clock as P = P0 + (Ppeak - P0) (f / fmax)^2.5: dynamic power goes with frequency
and the square of a voltage that rises with it (common practice).
"""

from __future__ import annotations

import numpy as np

from cobblewort.core.figures.arrays import FloatArray

CLOCK_EXPONENT = 0.4
"""Inverse of the 2.5 above."""


def clock_share(power_w: FloatArray, idle_w: FloatArray, peak_w: FloatArray) -> FloatArray:
    """Clock that a power allows, as a share of the full one: ((P - P0)/(Ppeak - P0))^0.4, 0 to 1.

    Parameters
    ----------
    power_w, idle_w, peak_w : ndarray
        Power allowed, at idle and at full clock. At or below idle the share is 0: no clock holds.
        [W]
    """
    span = np.maximum(np.asarray(peak_w) - idle_w, 1e-12)
    held = (np.asarray(power_w) - idle_w) / span
    share: FloatArray = np.minimum(np.maximum(held, 0.0), 1.0) ** CLOCK_EXPONENT
    return share


def power_at(share: float, power_w: FloatArray, idle_w: FloatArray) -> FloatArray:
    """What a processor gives off at a share of the clock at which it gives off `power_w`. [W]"""
    least_w = np.minimum(idle_w, power_w)
    total: FloatArray = least_w + (power_w - least_w) * share ** (1 / CLOCK_EXPONENT)
    return total
