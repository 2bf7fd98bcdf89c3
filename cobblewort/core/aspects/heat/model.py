"""Temperatures of a plan's board, and of all that is warm around it, on the hottest day."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import repeat
from typing import NamedTuple

import numpy as np

from cobblewort.core.aspects.fit.bays import Bays, bays_of
from cobblewort.core.aspects.fit.model import boards_of, stack_of
from cobblewort.core.aspects.fit.stack import StackResult
from cobblewort.core.aspects.heat.bodies import BoardBody
from cobblewort.core.aspects.heat.enclosure import Enclosure
from cobblewort.core.aspects.heat.network import Near, Network, Settled
from cobblewort.core.aspects.heat.safe_ambient import (
    COLDEST_C,
    HOTTEST_C,
    THE_AIR,
    THE_PROCESSOR,
    SafeAmbient,
)
from cobblewort.core.aspects.heat.sources import Sources, fans_of, sources_of
from cobblewort.core.aspects.heat.thermal_bodies import (
    Fans,
    Warm,
    board_body,
    enclosure,
    thin_air,
)
from cobblewort.core.aspects.heat.thermal_loads import (
    ALONE,
    FIELDS,
    AskedOf,
    Column,
    Temps,
    as_asked,
    asked_of,
)
from cobblewort.core.aspects.heat.throttling import CLOCK_EXPONENT, kept_clock, kept_speed
from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.figures.arrays import FloatArray, Quantity
from cobblewort.core.figures.one_or_many import at_least, nominal
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.judging.states import LookedAt, State, light_in
from cobblewort.core.plans.plan import NOT_OF_IT, Mounting, Phase, Transfer
from cobblewort.core.standards.air import ZERO_C_K

_ABOVE_K = 0.05
"""What is further above its limit does not keep to it."""
_Some = Callable[[FloatArray], Quantity]
"""Picks some states from values, shape (states, samples)."""


@dataclass(frozen=True)
class HotTemps:
    """One hot body inside: what is asked of it and what it comes to then, and what it gives off and
    comes to once everything is settled; shape (states, samples). `place` is its own among all hot
    bodies. [W], [°C]

    `speed_share` is what it keeps of the speed asked of it, 1 where it does not slow itself.
    """

    warm: Warm
    power_w: FloatArray
    rest_w: FloatArray
    temp_c: FloatArray
    work: _Work
    place: int

    @property
    def id(self) -> str:
        """`line#n.name`, as a figure of the report names it."""
        return self.warm.id

    @property
    def label(self) -> str:
        """The part, and which of its bodies."""
        return self.warm.label

    @property
    def item(self) -> Item:
        """Whose body it is."""
        return self.warm.item

    @property
    def slows(self) -> bool:
        """Whether it slows itself at its limit."""
        return self.warm.body.slows

    @property
    def limit_c(self) -> FloatArray:
        """What it may come to, shape (samples,). [°C]"""
        return self.warm.limit_c

    @property
    def light(self) -> tuple[bool, ...]:
        """In which states nobody waits for it."""
        return self.work.light_of(self.place)

    @property
    def is_waited_for(self) -> bool:
        """Whether a transfer with a wish uses it, of a drive."""
        return self.work.is_waited_for(self.warm)

    @property
    def held_w(self) -> FloatArray:
        """What it gives off once everything is settled. [W]"""
        held: FloatArray = self.work.governed.body_w[self.place]
        return held

    @property
    def held_c(self) -> FloatArray:
        """What it comes to then. [°C]"""
        held: FloatArray = self.work.governed.body_k[self.place] - ZERO_C_K
        return held

    @cached_property
    def speed_share(self) -> FloatArray:
        """What it keeps of its speed; nothing where it is too hot even at rest."""
        if not self.slows:
            return np.ones(self.power_w.shape)
        found, place = self.work.governed, self.place

        def kept(of: _Some) -> Quantity:
            share = kept_speed(of(self.power_w), of(found.body_w[place]), of(self.rest_w))
            return at_least(0.0, share) ** CLOCK_EXPONENT if self.warm.clock else share

        return self.work.shares(kept, found.body_k[place], self.limit_c + ZERO_C_K)


@dataclass(slots=True, frozen=True)
class Hottest:
    """Up to which day everything planned holds, shape (samples,), NaN where there is none, and what
    comes first beyond: a hot body by its place, a part that leaves its rating, or the processor
    where both are None. [°C]
    """

    ambient_c: FloatArray
    body: int | None = None
    rated: Item | None = None


@dataclass(slots=True, frozen=True)
class HeatResult:
    """Temperatures in the `means` among the states, each of shape (states, samples). [°C]

    `wanted_die_c` is where the die would come to if nothing slowed itself; what holds when
    everything is settled costs further solutions, worked out when somebody asks. `board` is None
    when there is nothing to judge, and `why_not` says why.
    """

    means: LookedAt
    board: Item | None
    why_not: str
    ambient_c: float
    throttle_c: FloatArray
    wanted_die_c: FloatArray
    hot_bodies: list[HotTemps] = field(default_factory=list)
    work: _Work | None = None

    @property
    def states(self) -> list[State]:
        """The states of which temperatures are told."""
        return self.means.states

    @property
    def inside_w(self) -> FloatArray:
        """All heat that is given off inside once everything is settled. [W]"""
        return np.zeros_like(self.wanted_die_c) if self.work is None else self.work.inside_w

    @property
    def coolable(self) -> bool:
        """Whether the idle processor stays below its throttle point in every hard state."""
        return self.work is None or self.work.coolable

    @property
    def nodes(self) -> dict[str, FloatArray]:
        """Temperatures of board and case by node once everything is settled. [°C]"""
        return {} if self.work is None else self.work.nodes_c(self.work.governed)

    @property
    def speed_share(self) -> FloatArray:
        """The clock held over the clock asked for."""
        return np.ones_like(self.wanted_die_c) if self.work is None else self.work.speed_share

    @property
    def light(self) -> tuple[bool, ...]:
        """In which states nobody waits for the processor."""
        return (False,) * len(self.states) if self.work is None else self.work.light

    @property
    def hottest(self) -> Hottest:
        """The highest day on which nothing planned slows, passes a limit or leaves a rating."""
        if self.work is None:
            return Hottest(self.throttle_c)
        return self.work.hottest

    @property
    def inside_c(self) -> FloatArray | None:
        """The air inside once everything is settled; None where there is no closed case. [°C]"""
        return None if self.work is None else self.work.inside_c

    def shelters(self, line: str) -> bool:
        """Whether the pieces of a line sit in the air of a closed case."""
        work = self.work
        return (
            work is not None
            and work.box is not None
            and any(item.line.id == line for item in work.inside)
        )

    def detail(self, settled: bool) -> HeatDetail | None:
        """What workings and drawings want to know, `settled` or as if nothing slowed itself."""
        if self.work is None:
            return None
        return self.work.detail if settled else self.work.wanted_detail


@dataclass(slots=True, frozen=True)
class HeatDetail:
    """What the network is made of at nominal figures, for workings and drawings; shape (states, 1).

    Board and box are in plain numbers, `temps` those that are told.
    """

    state_ids: list[str]
    body: BoardBody
    box: Enclosure | None
    temps: Temps
    nodes_c: dict[str, FloatArray]
    rest_w: FloatArray
    air_w: FloatArray
    ambient_k: FloatArray
    warmth_w: FloatArray
    warm: list[Warm]


class _Work:
    """The solutions of one kit, each worked out when somebody asks for it."""

    def __init__(
        self,
        stack: StackResult,
        place: PlaceOfHeat,
        bays: Bays,
        fans: Fans,
        power: PowerResult,
        items: Items,
        sources: Sources,
        asked: AskedOf,
        schedule: Sequence[Phase],
        transfers: Sequence[Transfer],
        *,
        samples: int,
    ) -> None:
        self._schedule, self._transfers = schedule, transfers
        self.day_c, self.power, self.items = place.ambient_max_c, power, items
        self.board = board = sources.board
        self._alone = samples == 1  # nominal figures, without samples
        self._bays = bays
        self.states = self.power.means.states
        shell = stack.case
        if shell is not None and (shell.part.case is None or shell.part.case.joint_k_w is None):
            shell = None
        cooler = None if stack.cooler is None else stack.cooler.compiled
        self.body = board_body(
            board.compiled,
            cooler,
            None if shell is None else shell.compiled,
            tuple(side for side in ("above", "below") if stack.add_ons(side)),
            fans.over_board,
            thin_air(place.altitude_m),
        )
        self.box = enclosure(stack, place.mounting, place.altitude_m, place.sun_w_m2, fans)
        self.throttle_c = board.compiled.figure("board_heat.throttle_c")
        self.limit_k = self.throttle_c + ZERO_C_K
        self.sources, self.asked, self.warm = sources, asked, sources.warm

    @cached_property
    def inside(self) -> list[Item]:
        """What sits in the air of the case."""
        return [i for i in self.items if i.part.inside or i.id in self._bays.taken]

    @cached_property
    def _network(self) -> Network:
        """The network with all samples."""
        bodies, curve = self.sources.bodies, self.sources.curve
        return Network(self.body, bodies, self.box, self.limit_k, curve)

    @cached_property
    def _plain(self) -> Network:
        """The network at nominal figures alone, in plain numbers."""
        box = None if self.box is None else self.box.nominal
        bodies, limit_k = self.sources.plain_bodies, nominal(self.limit_k)
        curve = self.sources.curve.nominal
        return Network(self.body.nominal, bodies, box, limit_k, curve)

    def settle(self, asked: AskedOf, governed: bool, near: Near | None = None) -> Temps:
        """Temperatures of one or more states, each array of shape (states, samples)."""
        shape = asked.soc_w.shape
        if shape[-1] > 1:
            return _as_temps(self._network.settle(asked.together(), governed, near), shape)
        starts = repeat(None) if near is None else near.each()
        return _stacked(self._each(zip(asked.columns, starts, strict=False), governed))

    def _each(
        self, columns: Iterable[tuple[Column, Near | Settled | None]], governed: bool
    ) -> list[Settled]:
        """States at nominal figures, each by itself and those that are alike once: a state is no
        more than a handful of numbers.
        """
        count = len(self.warm)
        known: dict[Column, Settled] = {}
        found = []
        for column, near in columns:
            settled = known.get(column)
            if settled is None:
                settled = self._plain.settle(as_asked(column, count), governed, near)
                known[column] = settled
            found.append(settled)
        return found

    def result(self) -> HeatResult:
        """Every state as if nothing slowed itself; the rest when asked for."""
        wanted, asked = self.wanted, self.asked
        temp_c = wanted.body_k - ZERO_C_K
        # They know this work and it does not know them: what nobody holds is gone at once.
        hot = [
            HotTemps(warm, asked.body_w[n], asked.rest_body_w[n], temp_c[n], self, n)
            for n, warm in enumerate(self.warm)
        ]
        return HeatResult(
            self.power.means,
            self.board,
            "",
            self.day_c,
            self.throttle_c,
            wanted.die_k - ZERO_C_K,
            hot,
            self,
        )

    @cached_property
    def _wanted(self) -> list[Settled]:
        """Every state as if nothing slowed itself, at nominal figures alone."""
        return self._each(zip(self.asked.columns, repeat(None), strict=False), governed=False)

    @cached_property
    def wanted(self) -> Temps:
        """Every state as if nothing slowed itself."""
        return _stacked(self._wanted) if self._alone else self.settle(self.asked, governed=False)

    @cached_property
    def _giving_way(self) -> list[int]:
        """The states in which in some sample something would pass the point where it slows."""
        slowing = [n for n, warm in enumerate(self.warm) if warm.body.slows]
        limits_k = [self.warm[n].limit_c + ZERO_C_K for n in slowing]
        if self._alone:
            limit_k, most_k = nominal(self.limit_k), [nominal(most) for most in limits_k]
            return [
                row
                for row, state in enumerate(self._wanted)
                if state.die_k > limit_k
                or any(state.body_k[n] > k for n, k in zip(slowing, most_k, strict=True))
            ]
        too_hot = self.wanted.die_k > self.limit_k
        for n, most in zip(slowing, limits_k, strict=True):
            too_hot = too_hot | (self.wanted.body_k[n] > most)
        rows: list[int] = np.flatnonzero(too_hot.any(axis=1)).tolist()
        return rows

    @cached_property
    def governed(self) -> Temps:
        """Every state once everything that slows itself is settled."""
        rows = self._giving_way
        if not rows:
            return self.wanted
        if not self._alone:
            settled = self.settle(self.asked.at(rows), True, self.wanted.near(rows))
            return self.wanted.replaced(rows, settled)
        states = list(self._wanted)
        near = [(self.asked.columns[row], states[row]) for row in rows]
        for row, state in zip(rows, self._each(near, governed=True), strict=True):
            states[row] = state
        return _stacked(states)

    @cached_property
    def inside_w(self) -> FloatArray:
        """All heat that is given off inside once everything is settled. [W]"""
        total: FloatArray = self.governed.soc_w + self.governed.rest_w + self.asked.air_w
        total = total + self.governed.body_w.sum(axis=0)
        for n, lost_w_w in enumerate(self.sources.inside.lost):
            spared_w = self.asked.body_w[n] - self.governed.body_w[n]
            for place, lost in lost_w_w:
                if place is None:
                    total = total - lost * spared_w
        return total

    @cached_property
    def coolable(self) -> bool:
        """Whether an idle processor stays below its throttle point in every hard state."""
        most_k, die_k = nominal(self.limit_k) + _ABOVE_K, self.governed.die_k[:, 0].tolist()
        pairs = zip(die_k, self.states, strict=True)
        return not any(temp_k > most_k for temp_k, state in pairs if state.hard)

    @cached_property
    def speed_share(self) -> FloatArray:
        """Clock that is held over the clock that is asked for."""
        found, asked = self.governed, self.asked
        peak_w: Quantity = self.sources.soc_peak_w
        if self._alone:
            peak_w = nominal(peak_w)

        def kept(of: _Some) -> Quantity:
            return kept_clock(of(asked.soc_w), of(found.soc_w), of(asked.soc_idle_w), peak_w)

        return self.shares(kept, found.die_k, self.limit_k)

    def shares(
        self, kept: Callable[[_Some], Quantity], temp_k: FloatArray, limit_k: FloatArray
    ) -> FloatArray:
        """What something keeps of its speed: all in states in which nothing gives way, and nothing
        where it is too hot even at rest. `kept` works it out of what it picks from values.
        """
        shares, rows, most_k = np.ones(temp_k.shape), self._giving_way, limit_k + _ABOVE_K
        if self._alone:
            for row in rows:
                too_hot = temp_k.item(row, 0) > most_k.item(0)
                shares[row, 0] = 0.0 if too_hot else kept(_nominally(row))
        elif rows:
            held = kept(lambda values: values[rows])
            shares[rows] = np.where(temp_k[rows] > most_k, 0.0, held)
        return shares

    @cached_property
    def hottest(self) -> Hottest:
        """The highest day up to which everything planned holds."""
        rated = self._rated()
        limits_k = {THE_PROCESSOR: self.limit_k}
        limits_k |= {n: warm.limit_c + ZERO_C_K for n, warm in enumerate(self.warm)}
        if rated is not None:
            limits_k[THE_AIR] = np.full_like(self.limit_k, rated[1] + ZERO_C_K)
        response = self.body.response
        found = SafeAmbient(
            self.states,
            self.asked,
            self.wanted,
            self.settle,
            self.warm,
            self.sources.inside.lost,
            limits_k,
            {THE_PROCESSOR: self.light, **self._light_bodies},
            response.soc.die_k,
            response.rest.die_k,
            self.sources.curve,
        ).days()
        first = min(found, key=lambda day: float(day.ambient_c[0]))
        lowest_c = np.minimum.reduce([day.ambient_c for day in found])
        body = first.place if first.place >= 0 else None
        by_rating = rated[0] if rated is not None and first.place == THE_AIR else None
        item, room_c = self._rated_for_the_room()
        if item is not None and room_c < float(lowest_c[0]):
            body, by_rating = None, item
        lowest_c = np.minimum(lowest_c, min(room_c, HOTTEST_C))
        return Hottest(np.where(lowest_c < COLDEST_C, np.nan, lowest_c), body, by_rating)

    @property
    def light(self) -> tuple[bool, ...]:
        """In which states nobody waits for the processor."""
        return light_in(self._schedule, self.board.line.id, self.states)

    @cached_property
    def _light_bodies(self) -> dict[int, tuple[bool, ...]]:
        """In which states nobody waits for what slows itself, by its place. Only transfers know
        whether anybody waits for a drive.
        """
        found = {}
        for n, warm in enumerate(self.warm):
            if warm.clock:
                found[n] = light_in(self._schedule, warm.item.line.id, self.states)
            elif warm.body.slows:
                found[n] = (not self.is_waited_for(warm),) * len(self.states)
        return found

    def light_of(self, place: int) -> tuple[bool, ...]:
        """In which states nobody waits for a body, by its place; of a drive in none or in all."""
        return self._light_bodies.get(place, (False,) * len(self.states))

    def is_waited_for(self, warm: Warm) -> bool:
        """Whether a transfer with a wish uses a drive."""
        role = warm.item.line.role
        return any(t.has_wish and role in (t.source, t.target) for t in self._transfers)

    def _rated(self) -> tuple[Item, float] | None:
        """Of what sits in the air of the case the part with the lowest rating. [°C]"""
        if self.box is None:
            return None
        known = [
            (item, item.part.ambient_max_c)
            for item in self.inside
            if item.part.kind != "board" and item.part.ambient_max_c is not None
        ]
        return min(known, key=lambda entry: entry[1], default=None)

    def _rated_for_the_room(self) -> tuple[Item | None, float]:
        """Of boards and of what stands outside the part with the lowest rating. [°C]"""
        sheltered = set() if self.box is None else {item.id for item in self.inside}
        lowest: tuple[Item | None, float] = None, HOTTEST_C
        for item in self.items:
            most_c, line = item.part.ambient_max_c, item.line
            if most_c is None or line.role in NOT_OF_IT or line.role == "fastener":
                continue
            if (item.part.kind == "board" or item.id not in sheltered) and most_c < lowest[1]:
                lowest = item, most_c
        return lowest

    @cached_property
    def inside_c(self) -> FloatArray | None:
        """The air inside once everything is settled; None where there is no closed case. [°C]"""
        if self.box is None:
            return None
        inside: FloatArray = self.governed.air_k - ZERO_C_K
        return inside

    def nodes_c(self, temps: Temps) -> dict[str, FloatArray]:
        """Temperatures of board and case by the name of their node. [°C]"""
        nodes = {"die": temps.die_k, "board": temps.board_k}
        if self.body.sink is not None and not self.body.on_wall:
            nodes["sink"] = temps.sink_k
        if self.box is not None:
            nodes["inside"], nodes["wall"] = temps.air_k, temps.outer_k
        return {name: temp_k - ZERO_C_K for name, temp_k in nodes.items()}

    @cached_property
    def detail(self) -> HeatDetail:
        """Of the state in which everything is settled."""
        return self._detail(self.governed)

    @cached_property
    def wanted_detail(self) -> HeatDetail:
        """As if nothing slowed itself."""
        return self._detail(self.wanted)

    def _detail(self, temps: Temps) -> HeatDetail:
        """At nominal figures."""
        plain = Temps(*(getattr(temps, name)[..., :1] for name in FIELDS))
        asked = self.asked
        spared_w = asked.body_w[..., :1] - plain.body_w
        carrier_w, air_w = asked.carrier_w[..., :1].copy(), asked.air_w[:, :1].copy()
        for n, body in enumerate(self._plain.bodies):
            for order, (place, lost) in enumerate(body.lost_w_w):
                if place is None:
                    air_w -= lost * spared_w[n]
                if order == 0:
                    for mate in body.mates:
                        carrier_w[mate] -= lost * spared_w[n]
        carried = np.array([nominal(warm.carried) for warm in self.warm])
        warmth_w = carrier_w * carried[:, np.newaxis, np.newaxis]
        return HeatDetail(
            [state.id for state in self.states],
            self.body.nominal,
            None if self.box is None else self.box.nominal,
            plain,
            self.nodes_c(plain),
            plain.rest_w,
            air_w,
            asked.ambient_k[:, :1],
            warmth_w,
            self.warm,
        )


def _nominally(row: int) -> _Some:
    """Picks one state at nominal figures, as a plain number."""
    return lambda values: values.item(row, 0)


def _as_temps(found: Settled, shape: tuple[int, ...]) -> Temps:
    """What was settled of arrays, all in one shape."""

    def full(values: Quantity) -> FloatArray:
        return np.broadcast_to(values, shape)

    def full_bodies(values: Sequence[Quantity]) -> FloatArray:
        return np.array([full(v) for v in values]) if values else np.zeros((0, *shape))

    return Temps(
        full(found.die_k),
        full(found.sink_k),
        full(found.board_k),
        full(found.air_k),
        full(found.inner_k),
        full(found.outer_k),
        full(found.soc_w),
        full(found.rest_w),
        full_bodies(found.body_w),
        full_bodies(found.body_k),
    )


def _stacked(found: Sequence[Settled]) -> Temps:
    """What was settled of single states, one sample each."""
    rows = np.array(
        [
            (
                one.die_k,
                one.sink_k,
                one.board_k,
                one.air_k,
                one.inner_k,
                one.outer_k,
                one.soc_w,
                one.rest_w,
                *one.body_w,
                *one.body_k,
            )
            for one in found
        ]
    ).T[..., np.newaxis]
    alone, bodies = rows[:ALONE], rows[ALONE:]
    return Temps(*alone, *bodies.reshape(2, -1, len(found), 1))


class PlaceOfHeat(NamedTuple):
    """What of a place heat looks at: the hottest day [degC], height above the sea [m], how the case
    is mounted, and sun [W/m2].
    """

    ambient_max_c: float
    altitude_m: float
    mounting: Mounting
    sun_w_m2: float


@derived("place.ambient_max_c", "place.altitude_m", "place.mounting", "place.sun_w_m2")
def place_of(
    ambient_max_c: float, altitude_m: float, mounting: Mounting, sun_w_m2: float
) -> PlaceOfHeat:
    """What of its place heat looks at."""
    return PlaceOfHeat(ambient_max_c, altitude_m, mounting, sun_w_m2)


@derived(
    stack_of,
    place_of,
    bays_of,
    fans_of,
    power_of,
    "built",
    sources_of,
    asked_of,
    boards_of,
    "schedule",
    "transfers",
    "samples",
)
def of(
    stack: StackResult,
    place: PlaceOfHeat,
    bays: Bays,
    fans: Fans,
    power: PowerResult,
    built: Items,
    sources: Sources | None,
    asked: AskedOf | None,
    boards: list[Item],
    schedule: Sequence[Phase],
    transfers: Sequence[Transfer],
    samples: int,
) -> HeatResult:
    """Temperatures of the plan's board on the hottest day, in steady state."""
    if sources is not None and asked is not None:
        return _Work(
            stack,
            place,
            bays,
            fans,
            power,
            built,
            sources,
            asked,
            schedule,
            transfers,
            samples=samples,
        ).result()
    why = "the board states no thermal figures" if boards else "the kit has no board yet"
    nothing = np.zeros((len(power.means.states), samples))
    return HeatResult(power.means, None, why, place.ambient_max_c, np.zeros(samples), nothing)
