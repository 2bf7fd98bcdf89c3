"""What is asked of the thermal network of a kit in each state, and what comes of it."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from cobblewort.core.aspects.heat.network import Asked, Near
from cobblewort.core.aspects.heat.sources import Sources, sources_of
from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.figures.arrays import FloatArray, Quantity
from cobblewort.core.judging.kit import derived
from cobblewort.core.standards.air import ZERO_C_K

Column = tuple[float, ...]
"""What is asked in one state: figure by figure, those of bodies body by body."""


@dataclass(frozen=True)
class AskedOf:
    """What is asked in some states, shape (states, samples), of bodies with one axis more before;
    as `Asked` names it. [W], [K]
    """

    soc_w: FloatArray
    soc_idle_w: FloatArray
    rest_w: FloatArray
    air_w: FloatArray
    ambient_k: FloatArray
    body_w: FloatArray
    rest_body_w: FloatArray
    carrier_w: FloatArray

    def at(self, rows: list[int]) -> AskedOf:
        """What is asked in some of them."""
        return AskedOf(
            self.soc_w[rows],
            self.soc_idle_w[rows],
            self.rest_w[rows],
            self.air_w[rows],
            self.ambient_k[rows],
            self.body_w[:, rows],
            self.rest_body_w[:, rows],
            self.carrier_w[:, rows],
        )

    @property
    def alone(self) -> AskedOf:
        """At nominal figures alone."""
        return AskedOf(*(getattr(self, name)[..., :1] for name in AskedOf.__dataclass_fields__))

    def together(self) -> Asked:
        """All states at once, as arrays."""
        return Asked(
            self.soc_w,
            self.soc_idle_w,
            self.rest_w,
            self.air_w,
            self.ambient_k,
            list(self.body_w),
            list(self.rest_body_w),
            list(self.carrier_w),
        )

    @cached_property
    def columns(self) -> list[Column]:
        """One for each state at nominal figures."""
        alone = np.array([self.soc_w, self.soc_idle_w, self.rest_w, self.air_w, self.ambient_k])
        rows = np.concatenate([alone, self.body_w, self.rest_body_w, self.carrier_w])[..., 0]
        return list(zip(*rows.tolist(), strict=True))


def as_asked(column: Column, bodies: int) -> Asked:
    """What is asked in one state, in plain numbers."""
    soc_w, soc_idle_w, rest_w, air_w, ambient_k = column[:5]
    first, second, third = (5 + bodies * n for n in (0, 1, 2))
    return Asked(
        soc_w,
        soc_idle_w,
        rest_w,
        air_w,
        ambient_k,
        column[first:second],
        column[second:third],
        column[third : third + bodies],
    )


@dataclass(slots=True, frozen=True)
class Temps:
    """Temperatures and heat of some states, shape (states, samples). [K], [°C], [W]

    Without a case air and walls are those of the day.
    """

    die_k: FloatArray
    sink_k: FloatArray
    board_k: FloatArray
    air_k: FloatArray
    inner_k: FloatArray
    outer_k: FloatArray
    soc_w: FloatArray
    rest_w: FloatArray
    body_w: FloatArray
    body_k: FloatArray

    def near(self, rows: list[int], warmer_k: Quantity = 0.0) -> Near:
        """Some of the states, as a start nearby."""
        return Near(
            self.board_k[rows] + warmer_k,
            self.air_k[rows] + warmer_k,
            self.inner_k[rows] + warmer_k,
            self.outer_k[rows] + warmer_k,
        )

    def replaced(self, rows: list[int], new: Temps) -> Temps:
        """With some of the states put in place."""
        fields = []
        for name in FIELDS:
            values, changed = getattr(self, name).copy(), getattr(new, name)
            if name.startswith("body"):
                values[:, rows] = changed
            else:
                values[rows] = changed
            fields.append(values)
        return Temps(*fields)


FIELDS = tuple(Temps.__dataclass_fields__)
ALONE = len(FIELDS) - 2
"""Fields that are not of each body."""


@derived("place.ambient_max_c", power_of, sources_of)
def asked_of(ambient_max_c: float, power: PowerResult, sources: Sources | None) -> AskedOf | None:
    """All that the plan asks on the hottest day; None where nothing is known of its board."""
    if sources is None:
        return None
    given = sources.inside.given_off(power.mean_current_a, power.mean_voltage_v)
    ambient_k = np.full(sources.soc_w.shape, ambient_max_c + ZERO_C_K)
    return AskedOf(
        sources.soc_w,
        sources.soc_idle_w,
        sources.rest_w,
        given.air_w,
        ambient_k,
        given.body_w,
        sources.inside.rest_body_w,
        given.carrier_w,
    )
