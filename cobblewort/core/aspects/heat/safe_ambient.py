"""The highest ambient on which everything planned holds, whatever day the plan states.

Each limit has a day of its own on which it is just kept: a root, found by secants. What slows
itself is taken at what leaves it the speed that is still sound, everything else as it is settled on
that day. The lowest of these days is the answer.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import NamedTuple

import numpy as np

from cobblewort.core.aspects.heat.dissipation import Lost
from cobblewort.core.aspects.heat.network import Near
from cobblewort.core.aspects.heat.thermal_bodies import Warm
from cobblewort.core.aspects.heat.thermal_loads import AskedOf, Temps
from cobblewort.core.aspects.heat.throttling import PowerSplit, power_at
from cobblewort.core.figures.arrays import FloatArray, Quantity
from cobblewort.core.judging.severity import KEPT_SOUND, KEPT_STOPS
from cobblewort.core.judging.states import State
from cobblewort.core.standards.air import ZERO_C_K

COLDEST_C, HOTTEST_C = -40.0, 90.0
"""Between these it is looked for."""
_BEYOND_K = 20.0
"""So far outside a root is still followed."""
_NEAR_ENOUGH_K, _NEAR_ENOUGH_DRAWS_K = 0.005, 0.05
_MOST_TURNS = 10
_CONTENDS_K, _CONTENDS_AT_FIRST_K = 3.0, 10.0
"""A limit whose day lies so much later is not followed any further."""
_LEAST_SLOPE, _MOST_SLOPE = 0.3, 2.0
"""Between these a body follows the day."""

THE_PROCESSOR, THE_AIR = -1, -2
"""Stand for a body's place: the processor, and the air inside, for what is rated for it."""


class Day(NamedTuple):
    """The ambient on which a limit is just kept, shape (samples,). [°C]"""

    place: int
    ambient_c: FloatArray


class _Limit(NamedTuple):
    """What has a limit, the state that is the worst for it, and how much of its speed it has to
    keep there.
    """

    place: int
    state: int
    kept: float


@dataclass(frozen=True)
class SafeAmbient:
    """What is needed to find it. `limits_k` are those of the processor, of each hot body and, where
    something is rated for the air inside, of that; `light` says in which states nobody waits for
    the processor and for each body that slows itself.
    """

    states: Sequence[State]
    asked: AskedOf
    wanted: Temps
    settle: Callable[[AskedOf, bool, Near | None], Temps]
    warm: Sequence[Warm]
    lost: Sequence[Lost]
    limits_k: dict[int, FloatArray]
    light: dict[int, tuple[bool, ...]]
    die_k_w: Quantity
    rest_die_k_w: Quantity
    curve: PowerSplit

    def days(self) -> list[Day]:
        """That of each limit, worst state first.

        Followed at nominal figures first, which costs little: where there are draws, only what
        could be the first of them to give way is followed for all, each from its own guess moved
        by what the nominal one was off.
        """
        rows = self._rows
        asked, less_k = self._eased(rows)
        limit_k = np.array([self.limits_k[row.place] for row in rows])
        search = _Search(asked, limit_k, self._held_k_w(rows, asked), asked.ambient_k)
        warm_k = self._temps_k(self.wanted, rows, by_state=True)
        guess_k = asked.ambient_k + limit_k - warm_k + less_k
        every = list(range(len(rows)))
        ambient_k, slope = self._followed(rows, search.alone, guess_k[:, :1], every)
        if guess_k.shape[1] > 1:
            guess_k = guess_k + (ambient_k - guess_k[:, :1])
            early = _contending(every, guess_k, _CONTENDS_AT_FIRST_K)
            ambient_k, _ = self._followed(rows, search, guess_k, early, slope)
        return [Day(row.place, ambient_k[n] - ZERO_C_K) for n, row in enumerate(rows)]

    def _followed(
        self,
        rows: Sequence[_Limit],
        search: _Search,
        guess_k: FloatArray,
        live: list[int],
        slope: float | FloatArray = 1.0,
    ) -> tuple[FloatArray, FloatArray]:
        """The days of some limits by secants from a guess, and the last slopes; the others stay."""
        ambient_k, slope = guess_k.copy(), np.full_like(guess_k, slope)
        before: tuple[FloatArray, FloatArray] | None = None
        for _ in range(_MOST_TURNS):
            ambient_k[live] = np.clip(
                ambient_k[live],
                COLDEST_C + ZERO_C_K - _BEYOND_K,
                HOTTEST_C + ZERO_C_K + _BEYOND_K,
            )
            at = ambient_k[live]
            over_k = self._over_k([rows[n] for n in live], search.at(live), at)
            if before is not None:
                moved_k = at - before[0][live]
                far = np.abs(moved_k) > _NEAR_ENOUGH_K / 10
                steep = np.divide(over_k - before[1][live], moved_k, out=slope[live], where=far)
                slope[live] = np.clip(steep, _LEAST_SLOPE, _MOST_SLOPE)
            last_k, last_over = ambient_k.copy(), np.zeros_like(ambient_k)
            last_over[live] = over_k
            before = last_k, last_over
            step_k = over_k / slope[live]
            ambient_k[live] = at - step_k
            far_k = np.abs(step_k)
            moves = (far_k[:, 0] > _NEAR_ENOUGH_K) | (far_k.max(axis=1) > _NEAR_ENOUGH_DRAWS_K)
            moving = [n for n, on in zip(live, moves.tolist(), strict=True) if on]
            live = _contending(moving, ambient_k, _CONTENDS_K)
            if not live:
                break
        return ambient_k, slope

    @cached_property
    def _rows(self) -> list[_Limit]:
        """Of each limit the worst state; of what slows itself also the worst of light work."""
        hard = [n for n, state in enumerate(self.states) if state.hard]
        rows = []
        for place in self.limits_k:
            light = self.light.get(place)
            groups: dict[float, list[int]] = {}
            for state in hard:
                kept = 1.0 if light is None else KEPT_STOPS if light[state] else KEPT_SOUND
                groups.setdefault(kept, []).append(state)
            for kept, states in groups.items():
                some = [_Limit(place, state, kept) for state in states]
                _, less_k = self._eased(some)
                eased_k = self._temps_k(self.wanted, some, by_state=True) - less_k
                rows.append(some[int(np.argmax(eased_k[:, 0]))])
        return rows

    def _temps_k(self, found: Temps, rows: Sequence[_Limit], by_state: bool) -> FloatArray:
        """How warm each is, in its state among those found, or each in a row of its own."""
        at = [row.state if by_state else n for n, row in enumerate(rows)]
        return np.array(
            [
                found.die_k[n]
                if row.place == THE_PROCESSOR
                else found.air_k[n]
                if row.place == THE_AIR
                else found.body_k[row.place, n]
                for n, row in zip(at, rows, strict=True)
            ]
        )

    def _eased(self, rows: Sequence[_Limit]) -> tuple[AskedOf, FloatArray]:
        """What is asked for each limit in its state where what it limits keeps no more of its speed
        than it has to, and by how much less it warms itself for it. [W], [K]
        """
        asked = self.asked.at([row.state for row in rows])
        soc_w, rest_w, body_w = asked.soc_w.copy(), asked.rest_w.copy(), asked.body_w.copy()
        air_w, carrier_w = asked.air_w.copy(), asked.carrier_w.copy()
        less_k = np.zeros_like(soc_w)
        for n, row in enumerate(rows):
            if row.place == THE_PROCESSOR:
                soc_w[n] = power_at(row.kept, asked.soc_w[n], asked.soc_idle_w[n])
                if row.kept < 1:
                    rest_w[n], _ = self.curve.rest_at(soc_w[n])
                less_k[n] = (asked.soc_w[n] - soc_w[n]) * self.die_k_w
                less_k[n] += (asked.rest_w[n] - rest_w[n]) * self.rest_die_k_w
            elif row.place >= 0 and row.kept < 1:
                warm, least_w = self.warm[row.place], asked.rest_body_w[row.place, n]
                full_w = asked.body_w[row.place, n]
                eased_w = (
                    power_at(row.kept, full_w, least_w)
                    if warm.clock
                    else least_w + (full_w - least_w) * row.kept
                )
                spared_w = full_w - eased_w
                body_w[row.place, n] = eased_w
                less_k[n] = spared_w / warm.path.total_w_k
                for order, (place, lost) in enumerate(self.lost[row.place]):
                    if place is None:
                        air_w[n] -= lost * spared_w
                    else:
                        body_w[place, n] -= lost * spared_w
                    if order == 0:
                        carrier_w[warm.mates, n] -= lost * spared_w
        eased = replace(
            asked, soc_w=soc_w, rest_w=rest_w, body_w=body_w, air_w=air_w, carrier_w=carrier_w
        )
        return eased, less_k

    def _held_k_w(self, rows: Sequence[_Limit], asked: AskedOf) -> FloatArray:
        """By how much each would be warmer for a watt that it is asked and does not give off."""
        held_k_w = np.zeros_like(asked.soc_w)
        for n, row in enumerate(rows):
            if row.place == THE_PROCESSOR:
                _, slope = self.curve.rest_at(asked.soc_w[n])
                held_k_w[n] = self.die_k_w + self.rest_die_k_w * slope
            elif row.place in self.light:
                held_k_w[n] = 1 / self.warm[row.place].path.total_w_k
        return held_k_w

    def _over_k(self, rows: Sequence[_Limit], search: _Search, ambient_k: FloatArray) -> FloatArray:
        """By how much each passes its limit on some day; one that is held there by what it would
        pass it with all of its watts.
        """
        asked = replace(search.asked, ambient_k=ambient_k)
        near = self.wanted.near([row.state for row in rows], ambient_k - search.here_k)
        found = self.settle(asked, True, near)
        over_k = self._temps_k(found, rows, by_state=False) - search.limit_k
        for n, row in enumerate(rows):
            if row.place == THE_PROCESSOR:
                over_k[n] += (asked.soc_w[n] - found.soc_w[n]) * search.held_k_w[n]
            elif row.place in self.light:
                held_w = asked.body_w[row.place, n] - found.body_w[row.place, n]
                over_k[n] += held_w * search.held_k_w[n]
        return over_k


class _Search(NamedTuple):
    """What stays the same of some limits on every day, each of shape (limits, samples)."""

    asked: AskedOf
    limit_k: FloatArray
    held_k_w: FloatArray
    here_k: FloatArray

    @property
    def alone(self) -> _Search:
        """At nominal figures alone."""
        return _Search(
            self.asked.alone, self.limit_k[:, :1], self.held_k_w[:, :1], self.here_k[:, :1]
        )

    def at(self, rows: list[int]) -> _Search:
        """Of some of them."""
        return _Search(
            self.asked.at(rows), self.limit_k[rows], self.held_k_w[rows], self.here_k[rows]
        )


def _contending(limits: list[int], ambient_k: FloatArray, within_k: float) -> list[int]:
    """Those that could be the first to give way."""
    lowest_k = ambient_k.min(axis=0) + within_k
    early = (ambient_k < lowest_k).any(axis=1)
    return [n for n in limits if early[n]]
