"""The clock that a processor holds when it may not get warmer.

Power follows the clock as P = P0 + (Ppeak - P0) (f / fmax)^2.5: dynamic power goes with frequency
and the square of a voltage that rises with it (common practice).
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from cobblewort.core.figures.arrays import FloatArray, Quantity
from cobblewort.core.figures.one_or_many import at_least, between, nominal, pick, sqrt


@dataclass(frozen=True)
class PowerSplit:
    """How what a board draws divides into its processor and the rest; the processor's share grows
    from idle to peak in a line, `share_w` for each watt, each of shape (samples,) or a number.

    soc = P (share + share_w (P - idle)), from idle on. [W]
    """

    idle_w: Quantity
    share: Quantity
    share_w: Quantity

    @cached_property
    def nominal(self) -> PowerSplit:
        """The same at nominal figures alone, as plain numbers."""
        return PowerSplit(nominal(self.idle_w), nominal(self.share), nominal(self.share_w))

    def rest_at(self, soc_w: Quantity) -> tuple[Quantity, Quantity]:
        """What the rest of the board gives off beside a processor of so many watts, and how much
        more of it a watt more of the processor brings. [W], [W/W]

        From idle on; the root of soc = P (share + share_w (P - idle)).
        """
        base = self.share - self.share_w * self.idle_w
        root = sqrt(base * base + 4 * self.share_w * soc_w)
        return 2 * soc_w / (base + root) - soc_w, 1 / root - 1


NONE_W = 1e-9
"""As good as nothing."""
CLOCK_EXPONENT = 0.4
"""Inverse of the 2.5 above."""


def clock_share(power_w: Quantity, idle_w: Quantity, peak_w: Quantity) -> Quantity:
    """Clock that a power allows, as a share of the full one: ((P - P0)/(Ppeak - P0))^0.4, 0 to 1.

    Parameters
    ----------
    power_w, idle_w, peak_w : float or ndarray
        Power allowed, at idle and at full clock. At or below idle the share is 0: no clock holds.
        [W]
    """
    held = (power_w - idle_w) / at_least(1e-12, peak_w - idle_w)
    share: Quantity = between(0.0, held, 1.0) ** CLOCK_EXPONENT
    return share


def kept_clock(asked_w: Quantity, held_w: Quantity, idle_w: Quantity, peak_w: Quantity) -> Quantity:
    """Clock that is held over the one that is asked for, by the power at each. [W]"""
    asked = at_least(1e-9, clock_share(asked_w, idle_w, peak_w))
    kept = clock_share(held_w, idle_w, peak_w) / asked
    return pick(asked_w > held_w + NONE_W, kept, 1.0)


def kept_speed(asked_w: Quantity, held_w: Quantity, rest_w: Quantity) -> Quantity:
    """What a drive keeps of its speed, by what it gives off above rest. [W]"""
    asked = asked_w - rest_w
    return pick(asked > NONE_W, (held_w - rest_w) / at_least(NONE_W, asked), 1.0)


def power_at(share: float, power_w: FloatArray, idle_w: FloatArray) -> FloatArray:
    """What a processor gives off at a share of the clock at which it gives off `power_w`. [W]"""
    least_w = np.minimum(idle_w, power_w)
    total: FloatArray = least_w + (power_w - least_w) * share ** (1 / CLOCK_EXPONENT)
    return total
