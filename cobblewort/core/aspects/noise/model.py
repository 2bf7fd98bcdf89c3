"""What is heard of a kit at 1 m: the levels of all that turns, added up."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np

from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.plan import NOT_OF_IT


@dataclass(slots=True)
class NoiseResult:
    """`level_dba` of the whole kit, shape (samples,), 0 where nothing turns. [dB(A) at 1 m]

    `heard` are the pieces that turn, with their levels; `unknown` those whose level nobody states.
    """

    level_dba: FloatArray
    heard: list[tuple[Item, FloatArray]] = field(default_factory=list)
    unknown: list[Item] = field(default_factory=list)


def turns(part: Part) -> bool:
    """Whether something turns in a part: the fan of a cooler, the platters of a disk."""
    fan = part.cooler is not None and part.cooler.r_fan_k_w is not None
    return fan or part.fan is not None or (part.drive is not None and part.drive.spins)


def sum_of_levels_dba(levels_dba: list[FloatArray]) -> FloatArray:
    """Level of several sources that know nothing of each other: their powers add up.

    L = 10 lg(sum 10^(L_i / 10)); two equal sources are 3 dB louder than one.

    References
    ----------
    .. [1] ISO 3744, energy sum of sound pressure levels (from memory).
    """
    powers = np.power(10.0, np.asarray(levels_dba) / 10)
    total: FloatArray = 10 * np.log10(powers.sum(axis=0))
    return total


def build_noise(items: Sequence[Item], samples: int) -> NoiseResult:
    """All that turns at its loudest: fans at full speed, disks while they seek.

    What a case keeps in is left aside, so that the kit is at most as loud as this.
    """
    result = NoiseResult(np.zeros(samples))
    for item in items:
        own = item.part.noise_dba
        if item.line.role in NOT_OF_IT:
            continue
        if own is not None:
            result.heard.append((item, item.compiled.figure("noise_dba")))
        elif turns(item.part):
            result.unknown.append(item)
    if result.heard:
        result.level_dba = sum_of_levels_dba([level for _, level in result.heard])
    return result


@derived("built", "samples")
def of(built: Items, samples: int) -> NoiseResult:
    """What is heard of the kit."""
    return build_noise(built, samples)
