"""Temperatures of a plan's board, and of all that is warm around it, on the hottest day."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field, replace
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
from cobblewort.core.aspects.heat.sources import Sources, fans_of, sources_of
from cobblewort.core.aspects.heat.thermal_bodies import Fans, Warm, board_body, enclosure, thin_air
from cobblewort.core.aspects.heat.thermal_loads import AskedOf, Column, as_asked, asked_of
from cobblewort.core.aspects.heat.throttling import CLOCK_EXPONENT, kept_clock, kept_speed, power_at
from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.figures.arrays import FloatArray, Quantity
from cobblewort.core.figures.one_or_many import at_least, nominal
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.judging.margin import KEPT_SOUND
from cobblewort.core.judging.states import LookedAt, State
from cobblewort.core.plans.plan import NOT_OF_IT, Mounting
from cobblewort.core.standards.air import ZERO_C_K

COLDEST_C, HOTTEST_C = -40.0, 90.0
"""Between these the highest safe day is looked for."""
_FARTHEST_K = 150.0
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
        for name in _FIELDS:
            values, changed = getattr(self, name).copy(), getattr(new, name)
            if name.startswith("body"):
                values[:, rows] = changed
            else:
                values[rows] = changed
            fields.append(values)
        return Temps(*fields)


_FIELDS = tuple(Temps.__dataclass_fields__)


@dataclass(slots=True, frozen=True)
class Hottest:
    """Up to which day everything planned holds, shape (samples,), and what comes first beyond: a
    hot body by its place, a part that leaves its rating, or the processor where both are None.
    [°C]

    `die_c` is that day of the processor alone.
    """

    ambient_c: FloatArray
    die_c: FloatArray
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
    def hottest(self) -> Hottest:
        """The highest day on which nothing planned slows, passes a limit or leaves a rating."""
        if self.work is None:
            return Hottest(self.throttle_c, self.throttle_c)
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
        *,
        samples: int,
    ) -> None:
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
        return Network(self.body, self.sources.bodies, self.box, self.limit_k)

    @cached_property
    def _plain(self) -> Network:
        """The network at nominal figures alone, in plain numbers."""
        box = None if self.box is None else self.box.nominal
        bodies, limit_k = self.sources.plain_bodies, nominal(self.limit_k)
        return Network(self.body.nominal, bodies, box, limit_k)

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
        total: FloatArray = self.governed.soc_w + self.asked.rest_w + self.asked.air_w
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
        """The highest day up to which everything planned holds.

        Each body is looked at in its worst state, giving off what leaves it 98 % of its speed, near
        the day on which it is at its limit; a last step follows how far it was off.
        """
        hard = [n for n, state in enumerate(self.states) if state.hard]
        rated = self._rated()
        limits_k = [self.limit_k, *(warm.limit_c + ZERO_C_K for warm in self.warm)]
        limits_k += [np.full_like(self.limit_k, limit_c + ZERO_C_K) for _, limit_c in rated]
        now = self.wanted
        temps_k = [now.die_k, *now.body_k, *(now.air_k for _ in rated)]
        worst = [max(hard, key=temp_k[:, 0].__getitem__) for temp_k in temps_k]
        eased, less_k = self._eased(worst)
        limits = np.array(limits_k)
        here_k = np.array([temp_k[n] for temp_k, n in zip(temps_k, worst, strict=True)])
        here_k = here_k - less_k
        warmer_k = np.clip(limits - here_k, -_FARTHEST_K, _FARTHEST_K)
        there = self.settle(
            replace(eased, ambient_k=eased.ambient_k + warmer_k),
            False,
            now.near(worst, warmer_k),
        )
        count = len(self.warm)
        rows = range(len(limits))
        there_k = np.array(
            [
                there.die_k[n]
                if n == 0
                else there.body_k[n - 1, n]
                if n <= count
                else there.air_k[n]
                for n in rows
            ]
        )
        slope = np.ones_like(warmer_k)
        np.divide(there_k - here_k, warmer_k, out=slope, where=np.abs(warmer_k) > 1e-6)
        day_c = self.day_c
        hottest_c = day_c + warmer_k + (limits - there_k) / np.clip(slope, 0.3, 1.5)
        first = int(np.argmin(hottest_c[:, 0]))
        lowest_c = hottest_c.min(axis=0)
        item, room_c = self._rated_for_the_room()
        body = first - 1 if 0 < first <= count else None
        by_rating = rated[first - count - 1][0] if first > count else None
        if item is not None and room_c < float(lowest_c[0]):
            body, by_rating = None, item
        lowest_c = np.minimum(lowest_c, room_c)
        return Hottest(np.clip(lowest_c, COLDEST_C, HOTTEST_C), hottest_c[0], body, by_rating)

    def _eased(self, worst: list[int]) -> tuple[AskedOf, FloatArray]:
        """What is asked for each limit in its worst state where all that slows itself keeps 98 % of
        its speed, and by how much less the limited body warms itself for it. [W], [K]
        """
        asked = self.asked.at(worst)
        soc_w = power_at(KEPT_SOUND, asked.soc_w, asked.soc_idle_w)
        less_k = np.zeros_like(soc_w)
        less_k[0] = (asked.soc_w - soc_w)[0] * self.body.response.soc.die_k
        body_w = asked.body_w.copy()
        for n, warm in enumerate(self.warm):
            if warm.body.slows:
                least_w = asked.rest_body_w[n]
                body_w[n] = least_w + (asked.body_w[n] - least_w) * KEPT_SOUND
                less_k[n + 1] = ((asked.body_w[n] - body_w[n]) / warm.path.total_w_k)[n + 1]
        return replace(asked, soc_w=soc_w, body_w=body_w), less_k

    def _rated(self) -> list[tuple[Item, float]]:
        """Of what sits in the air of the case the part with the lowest rating. [°C]"""
        if self.box is None:
            return []
        known = [
            (item, item.part.ambient_max_c)
            for item in self.inside
            if item.part.kind != "board" and item.part.ambient_max_c is not None
        ]
        return [min(known, key=lambda entry: entry[1])] if known else []

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
        plain = Temps(*(getattr(temps, name)[..., :1] for name in _FIELDS))
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
            asked.rest_w[:, :1],
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
                *one.body_w,
                *one.body_k,
            )
            for one in found
        ]
    ).T[..., np.newaxis]
    die_k, sink_k, board_k, air_k, inner_k, outer_k, soc_w = rows[:7]
    body_w, body_k = rows[7:].reshape(2, -1, len(found), 1)
    return Temps(die_k, sink_k, board_k, air_k, inner_k, outer_k, soc_w, body_w, body_k)


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
            samples=samples,
        ).result()
    why = "the board states no thermal figures" if boards else "the kit has no board yet"
    nothing = np.zeros((len(power.means.states), samples))
    return HeatResult(power.means, None, why, place.ambient_max_c, np.zeros(samples), nothing)
