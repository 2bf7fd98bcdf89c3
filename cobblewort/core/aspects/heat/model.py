"""The thermal network of a plan: its board in its case in its place."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property, lru_cache
from typing import Any

import numpy as np

from cobblewort.core.aspects.fit.model import stack_of
from cobblewort.core.aspects.fit.stack import StackResult
from cobblewort.core.aspects.heat.bodies import BoardBody, BodyTemps, split_path
from cobblewort.core.aspects.heat.enclosure import (
    BOTTOM_SHARE,
    CaseTemps,
    Enclosure,
    exchange_w_k,
    inside_w_k,
    outside_w_k,
    solve_enclosure,
    vent_area_m2,
)
from cobblewort.core.aspects.heat.films import layer_k_w
from cobblewort.core.aspects.heat.governor import balanced, clock_share
from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.figures.arrays import FloatArray, IntArray, Quantity
from cobblewort.core.judging.kit import Kit, derived
from cobblewort.core.judging.piece import Piece
from cobblewort.core.judging.states import LookedAt, State
from cobblewort.core.parts.compiled import CompiledPart, LoadArrays
from cobblewort.core.parts.model import HotBody
from cobblewort.core.plans.plan import Plan
from cobblewort.core.standards.air import ZERO_C_K, pressure_pa

ADD_ON_FACTOR = {(): 1.0, ("above",): 1.25, ("below",): 1.25, ("above", "below"): 1.5}
"""How boards stacked on it raise a board's resistance to air: typical, from memory."""
BLOWN_BOARD_FACTOR = 0.7
"""What is left of it where a cooler's fan also blows over the board: typical, from memory."""
STIRRED_BODY_FACTOR = 0.65
"""What is left of a hot body's resistance to air where a fan stirs it, as of a sink at 0.5 m/s:
typical, from memory."""
_CORRECTIONS = 2
"""How often what slows itself is solved anew where straight lines say that it settles."""
_FARTHEST_K = 150.0
"""How far from the hottest day one looks for the day on which something reaches its limit."""
VENT_RISE_SHARE = 0.8
"""Height between low and high vents over inner height, where a case does not state it."""


@dataclass(slots=True)
class HeatResult:
    """Temperatures in the `means` among the states, each of shape (states, samples). [°C]

    `wanted_die_c` is where the die would come to at full clock; what holds when it gives way costs
    further solutions, which only drawings, workings and sentences about it ask for. `board` is None
    when there is nothing to judge, and `why_not` says why.
    """

    means: LookedAt
    board: Piece | None
    why_not: str
    ambient_c: float
    throttle_c: FloatArray
    wanted_die_c: FloatArray
    hot_bodies: list[HotTemps] = field(default_factory=list)
    network: _Network | None = None

    @property
    def states(self) -> list[State]:
        """The states of which temperatures are told."""
        return self.means.states

    @property
    def inside_w(self) -> FloatArray:
        """All heat that is given off inside once everything is settled. [W]"""
        made = self.network
        return np.zeros_like(self.wanted_die_c) if made is None else made.governed.inside_w

    @property
    def coolable(self) -> bool:
        """Whether the idle processor stays below its throttle point in every hard state."""
        return self.network is None or self.network.coolable

    @property
    def held(self) -> Held:
        """What holds when the clock gives way."""
        if self.network is None:
            return Held({}, self.throttle_c, self.throttle_c, None)
        return self.network.held

    @property
    def nodes(self) -> dict[str, FloatArray]:
        """Temperatures by node at the clock that is held. [°C]"""
        return self.held.nodes_c

    @property
    def speed_share(self) -> FloatArray:
        """The clock held over the clock asked for."""
        made = self.network
        return np.ones_like(self.wanted_die_c) if made is None else made.governed.speed_share

    @property
    def drives(self) -> dict[str, HeldDrive]:
        """Drives that slow themselves, settled with the processor, by the id of their hot body."""
        return {} if self.network is None else self.network.governed.drives

    @property
    def hottest_ambient_c(self) -> FloatArray:
        """The highest outside temperature at which nothing passes its limit in a hard state.

        Shape (samples,).
        """
        return self.held.hottest_ambient_c

    @property
    def die_ambient_c(self) -> FloatArray:
        """The same of the processor alone."""
        return self.held.die_ambient_c

    @property
    def first_hot_body(self) -> HotTemps | None:
        """The hot body that is at its limit on that day; None where the processor is first."""
        return self.held.first_hot_body

    @property
    def detail(self) -> HeatDetail | None:
        """What workings and drawings want to know."""
        return None if self.network is None else self.network.detail


@dataclass(slots=True, frozen=True)
class Held:
    """What is left when the clock gives way: temperatures by node, the hottest day.

    `first_hot_body` is the hot body that sets the hottest day, None where the processor does.
    """

    nodes_c: dict[str, FloatArray]
    hottest_ambient_c: FloatArray
    die_ambient_c: FloatArray
    first_hot_body: HotTemps | None
    temps: _Temps | None = None


@dataclass(slots=True, frozen=True)
class HeldDrive:
    """What a drive that slows itself gives off, comes to and keeps of its speed, shape (states,
    samples).
    """

    power_w: FloatArray
    temp_c: FloatArray
    speed_share: FloatArray


@dataclass(slots=True, frozen=True)
class Governed:
    """All that slows itself settled together; drives by the id of their hot body."""

    temps: _Temps
    speed_share: FloatArray
    inside_w: FloatArray
    drives: dict[str, HeldDrive]


@dataclass(slots=True)
class HotTemps:
    """One hot body inside: its mean power and temperature by state, shape (states, samples), as if
    nothing slowed itself. `idle_w` is what it gives off at rest, `r_k_w` its way to the air around.
    """

    piece: Piece
    name: str
    body: HotBody
    power_w: FloatArray
    idle_w: Quantity
    r_k_w: FloatArray
    stirred: bool
    limit_c: FloatArray
    temp_c: FloatArray

    @property
    def id(self) -> str:
        """`line#n.name`, as a figure of the report names it."""
        return f"{self.piece.id}.{self.name}"

    @property
    def label(self) -> str:
        """The part, and which of its bodies."""
        return f"{self.body.label} of {self.piece.name}"

    @property
    def rest_w(self) -> FloatArray:
        """What it gives off at rest, or less where less is asked of it. [W]"""
        return np.minimum(self.idle_w, self.power_w)

    def held(self, air_c: FloatArray) -> HeldDrive:
        """What is left of it in such air: it gives off what its limit allows, and keeps of its
        speed what it may draw above rest, nothing where it is too hot even at rest.
        """
        rest_w = self.rest_w
        power_w = np.clip((self.limit_c - air_c) / self.r_k_w, rest_w, self.power_w)
        temp_c, asked_w = air_c + power_w * self.r_k_w, self.power_w - rest_w
        speed_share = np.divide(
            power_w - rest_w, asked_w, out=np.ones_like(power_w), where=asked_w > 1e-9
        )
        speed_share[temp_c > self.limit_c + 1e-6] = 0.0
        return HeldDrive(power_w, temp_c, speed_share)


@dataclass(slots=True)
class HeatDetail:
    """What the network was made of, for workings; at full clock, shape (states, samples). Board
    and box are in plain numbers, as workings are.

    `flows_w` are those that the held clock leaves, from node to node, at nominal figures, shape
    (states,); `outside` is a node too.
    """

    state_ids: list[str]
    body: BoardBody
    box: Enclosure | None
    soc_w: FloatArray
    rest_w: FloatArray
    other_w: FloatArray
    ambient_k: FloatArray
    wanted_c: dict[str, FloatArray]
    inner_wall_c: FloatArray
    given_off_w: tuple[FloatArray, FloatArray]
    flows_w: dict[tuple[str, str], FloatArray]


def build_heat(
    plan: Plan, pieces: Sequence[Piece], stack: StackResult, power: PowerResult, samples: int
) -> HeatResult:
    """Temperatures of the plan's board on the hottest day, in steady state."""
    board, ambient_c = stack.board, plan.place.ambient_max_c
    own = None if board is None else board.compiled.loads.get("own")
    if board is None or board.part.board_heat is None or own is None or not own.in_watts:
        why = "the kit has no board yet" if board is None else "the board states no thermal figures"
        nothing = np.zeros((len(power.means.states), samples))
        return HeatResult(power.means, None, why, ambient_c, np.zeros(samples), nothing)
    return _Network(plan, pieces, stack, board, power).result()


class _Network:
    """The solutions of one kit, each worked out when somebody asks for it."""

    def __init__(
        self, plan: Plan, pieces: Sequence[Piece], stack: StackResult, board: Piece,
        power: PowerResult,
    ) -> None:  # fmt: skip
        self.plan, self.board, self.power = plan, board, power
        self.states, self._mean = power.means.states, power.means.places
        self._mean_rows: dict[int, IntArray] = {}
        self.pieces = pieces
        cooler = stack.cooler
        cooling = None if cooler is None else cooler.part.cooler
        self.stirred = cooling is not None and cooling.r_fan_k_w is not None
        heat = board.part.board_heat
        if heat is None:
            raise ValueError("the board needs thermal figures")
        figure = board.compiled.figure
        self.throttle_c = figure("board_heat.throttle_c")
        self.limit_k = self.throttle_c + ZERO_C_K
        self.body = _board_body(
            board.compiled, None if cooler is None else cooler.compiled,
            tuple(side for side in ("above", "below") if stack.add_ons(side)),
        )  # fmt: skip
        place = plan.place
        self.box = None if stack.case is None else _enclosure(
            stack.case.compiled, None if cooler is None else cooler.compiled, place.standing,
            place.altitude_m, place.sun_w_m2,
        )  # fmt: skip

        split = _split_heat(board.compiled)
        mean = self._mean_rows_of(board)
        self.soc_w, self.rest_w = split.soc_w[mean], split.rest_w[mean]
        self.soc_idle_w, self.soc_peak_w = split.soc_idle_w[mean], split.soc_peak_w
        self.losses_w = _losses_w(power, self._mean)
        self.other_w = self._other_heat_w()
        self.ambient_k = np.full(self.soc_w.shape, plan.place.ambient_max_c + ZERO_C_K)

    def _mean_rows_of(self, piece: Piece) -> IntArray:
        """Rows of the tables of a piece's loads in the mean states."""
        rows = self.power.rows[piece.line.id].mean  # most lines share theirs
        mean = self._mean_rows.get(id(rows))
        if mean is None:
            mean = self._mean_rows[id(rows)] = rows[self._mean]
        return mean

    def _mean_w(self, piece: Piece, load: LoadArrays) -> FloatArray:
        """What a load of a piece draws in the mean states, in its own unit."""
        return load.table.take(self._mean_rows_of(piece), axis=0)

    def _other_heat_w(self) -> FloatArray:
        """Heat of everything else inside the case, straight to its air. [W]

        A load stated in amperes counts at the voltage of its rail, and not at all while nothing
        feeds it.
        """
        parts_w: list[FloatArray] = list(self.losses_w.values())
        for piece in self.pieces:
            if piece is self.board or not piece.part.inside:
                continue
            for load in self.power.loads_of(piece).values():
                if load.in_watts:
                    parts_w.append(self._mean_w(piece, load))
                elif (place := self.power.index(f"{piece.id}.{load.rail}")) is not None:
                    volts = self.power.voltage_v[place, self._mean]
                    parts_w.append(self._mean_w(piece, load) * volts)
        return np.array(parts_w).sum(axis=0) if parts_w else np.zeros_like(self.soc_w)

    def solve(
        self,
        soc_w: FloatArray,
        rest_w: FloatArray,
        other_w: FloatArray,
        ambient_k: FloatArray,
        start: FloatArray | None = None,
    ) -> _Temps:
        """Temperatures of one or more states, each array of shape (states, samples).

        Nominal figures alone are worked out state by state as plain numbers, those of states that
        are alike once: a state is no more than a handful of them.
        """
        given = [soc_w, rest_w, other_w, ambient_k, *(() if start is None else start)]
        if soc_w.shape[-1] > 1:
            return _Temps(np.array(_solved(self.body, self.box, *given)))
        columns = list(zip(*(values[:, 0].tolist() for values in given), strict=True))
        body, box = self.body.nominal, None if self.box is None else self.box.nominal
        found = {column: _solved(body, box, *column) for column in dict.fromkeys(columns)}
        return _Temps(np.array([found[column] for column in columns]).T[:, :, np.newaxis])

    def result(self) -> HeatResult:
        """Every state as if the clock never gave way; the rest when asked for."""
        wanted_die_c = self.wanted.die_k - ZERO_C_K
        return HeatResult(
            self.power.means, self.board, "", self.plan.place.ambient_max_c, self.throttle_c,
            wanted_die_c, self.hot_bodies, self,
        )  # fmt: skip

    @cached_property
    def wanted(self) -> _Temps:
        """Every state at full clock."""
        return self.solve(self.soc_w, self.rest_w, self.other_w, self.ambient_k)

    @cached_property
    def coolable(self) -> bool:
        """Whether an idle processor stays below its throttle point in every hard state."""
        hard = [row for row, n in enumerate(self._giving_way) if self.states[n].hard]
        return not bool((self._idle.die_k > self.limit_k)[hard, 0].any()) if hard else True

    @cached_property
    def _slowing(self) -> list[HotTemps]:
        return [hot for hot in self.hot_bodies if hot.body.slows]

    @cached_property
    def _giving_way(self) -> IntArray:
        """The states in which in some sample something would pass the point where it slows."""
        too_hot = self.wanted.die_k > self.limit_k
        for drive in self._slowing:
            too_hot = too_hot | (drive.temp_c > drive.limit_c)
        return np.flatnonzero(too_hot.any(axis=1))

    @cached_property
    def _idle(self) -> _Temps:
        """Those with an idle processor, where it is the processor that gives way."""
        rows, full = self._giving_way, self.wanted.rows(self._giving_way)
        hot = np.flatnonzero((full.die_k > self.limit_k).any(axis=1))
        if not hot.size:
            return full
        rows = rows[hot]
        idle = self._near(full.rows(hot), rows, self.soc_idle_w[rows], self.other_w[rows])
        return full.replaced(hot, idle)

    def _near(self, near: _Temps, rows: IntArray, soc_w: FloatArray, other_w: FloatArray) -> _Temps:
        """Some of the states with other heat in them, close to temperatures that are known."""
        return self.solve(soc_w, self.rest_w[rows], other_w, self.ambient_k[rows], near.warmer(0.0))

    @cached_property
    def governed(self) -> Governed:
        """All that slows itself settled together: each gives off what is asked of it, or sits at
        its limit, or rests and is too hot even so.

        Temperatures are close to linear in what processor and drives give off, so what holds is
        found on straight lines, solved once there, and corrected by what the lines were off.
        """
        soc_w, other_w, temps, rows = self.soc_w, self.other_w, self.wanted, self._giving_way
        if rows.size:
            full, most_w = self.wanted.rows(rows), soc_w[rows] - self.soc_idle_w[rows]
            lines = self._lines(rows, full, most_w)
            less_w, spared_w = self._balanced(rows, full, lines, most_w)
            for _ in range(_CORRECTIONS):
                guess = lines.cooled(full, less_w, spared_w)
                near = self._near(guess, rows, soc_w[rows] - less_w, other_w[rows] - spared_w)
                full = _Temps(full.k + near.k - guess.k)
                less_w, spared_w = self._balanced(rows, full, lines, most_w)
            temps = temps.replaced(rows, lines.cooled(full, less_w, spared_w))
            soc_w, other_w = soc_w.copy(), other_w.copy()
            soc_w[rows] -= less_w
            other_w[rows] -= spared_w
        air_c = self._air_k(temps, self.ambient_k) - ZERO_C_K
        drives = {drive.id: drive.held(air_c) for drive in self._slowing}
        return Governed(temps, self._speed(soc_w), soc_w + self.rest_w + other_w, drives)

    def _lines(self, rows: IntArray, full: _Temps, most_w: FloatArray) -> _Lines:
        """How temperatures of some states follow what processor and drives give off."""
        rests_w = np.zeros_like(most_w)
        for drive in self._slowing:
            rests_w += (drive.power_w - drive.rest_w)[rows]
        resting = full
        if full.in_case and self._slowing:
            resting = self._near(full, rows, self.soc_w[rows], self.other_w[rows] - rests_w)
        return _Lines(
            (full.k - self._idle.k) / np.maximum(most_w, 1e-9),
            (full.k - resting.k) / np.maximum(rests_w, 1e-9),
        )

    def _balanced(
        self, rows: IntArray, full: _Temps, lines: _Lines, most_w: FloatArray
    ) -> tuple[FloatArray, FloatArray]:
        """What processor and drives give off less on these lines. [W]"""
        none = np.zeros_like(most_w)
        given = [
            full.die_k - self.limit_k, self._air_k(full, self.ambient_k[rows]), most_w,
            np.maximum(lines.per_soc_k_w[_DIE], 1e-9), lines.per_other_k_w[_DIE],
            lines.per_soc_k_w[_AIR] if full.in_case else none,
            lines.per_other_k_w[_AIR] if full.in_case else none,
        ]  # fmt: skip
        for drive in self._slowing:
            given += [drive.power_w[rows], drive.rest_w[rows], drive.limit_c + ZERO_C_K + none,
                      drive.r_k_w + none]  # fmt: skip
        if most_w.shape[-1] > 1:
            over, air, most, die_soc, die_other, air_soc, air_other, *drives = given
            less, spared = balanced(
                over, air, most, (die_soc, die_other), (air_soc, air_other), *drives
            )
            return np.asarray(less), np.asarray(spared)
        found = [
            balanced(over, air, most, (die_soc, die_other), (air_soc, air_other), *drives)
            for over, air, most, die_soc, die_other, air_soc, air_other, *drives in zip(
                *(values[:, 0].tolist() for values in given), strict=True
            )
        ]
        less_w, spared_w = np.array(found).T[:, :, np.newaxis]
        return less_w, spared_w

    @cached_property
    def held(self) -> Held:
        """What is left when all settle, and up to which day nothing is too hot.

        For that one solution near the day on which each body is at its limit.
        """
        governed, wanted = self.governed, self.wanted
        worst, spare_k = self._nearest_to_limits()
        warmer_k = np.clip(spare_k, -_FARTHEST_K, _FARTHEST_K)
        now = wanted.rows(worst)
        there = self.solve(
            self.soc_w[worst], self.rest_w[worst], self.other_w[worst],
            self.ambient_k[worst] + warmer_k, now.warmer(warmer_k),
        )  # fmt: skip
        hottest_c = self._hottest_ambient_c(now, there, spare_k, warmer_k)
        first = int(np.argmin(hottest_c[:, 0]))
        return Held(
            governed.temps.nodes_c(self.body), hottest_c.min(axis=0),
            hottest_c[0], self.hot_bodies[first - 1] if first else None, governed.temps,
        )  # fmt: skip

    @staticmethod
    def _air_k(temps: _Temps, ambient_k: FloatArray) -> FloatArray:
        """The air inside, or in the open the air of the day. [K]"""
        air_k: FloatArray = temps.k[_AIR] if temps.in_case else ambient_k
        return air_k

    def _speed(self, soc_w: FloatArray) -> FloatArray:
        """Clock that a power allows over the clock that is asked for."""
        slowed = self.soc_w > soc_w + 1e-9
        if not slowed.any():
            return np.ones_like(soc_w)
        full = clock_share(self.soc_w, self.soc_idle_w, self.soc_peak_w)
        share = clock_share(soc_w, self.soc_idle_w, self.soc_peak_w)
        return np.where(slowed, share / np.maximum(full, 1e-9), 1.0)

    @cached_property
    def hot_bodies(self) -> list[HotTemps]:
        """Hot bodies inside, each warmed by itself over the air around it (at full clock)."""
        air_c = self._air_k(self.wanted, self.ambient_k) - ZERO_C_K
        factor = STIRRED_BODY_FACTOR if self.stirred else 1.0
        found = []
        for piece in self.pieces:
            if not piece.part.inside:
                continue
            for name, hot in piece.part.hot.items():
                power_w = self._hot_body_w(piece, hot)
                if power_w is None:
                    continue
                path = f"hot.{name}"
                of = piece.compiled.figure
                share = of(f"{path}.share")
                share_w, r_k_w = power_w * share, of(f"{path}.r_air_k_w") * factor
                found.append(
                    HotTemps(
                        piece, name, hot, share_w, _idle_w(piece, hot) * share, r_k_w, self.stirred,
                        of(f"{path}.limit_c"), air_c + share_w * r_k_w,
                    )
                )  # fmt: skip
        return found

    def _hot_body_w(self, piece: Piece, hot: HotBody) -> FloatArray | None:
        """Heat of the load or converter of a hot body; None while nothing feeds it. [W]"""
        group, _, key = hot.of.partition(".")
        if group == "loads":
            return self._mean_w(piece, self.power.loads_of(piece)[key])
        rail = key if piece.part.source is None else piece.part.source.rail
        return self.losses_w.get(f"{piece.id}.{rail}")

    @cached_property
    def detail(self) -> HeatDetail:
        """What workings and drawings want to know."""
        wanted, held = self.wanted, self.held.temps or self.wanted
        air_k, wall_k = self.ambient_k, self.ambient_k
        if wanted.in_case:
            air_k, wall_k = wanted.k[_AIR], wanted.k[_INNER]
        to_air_w, to_wall_w = self.body.given_off_w(wanted.bodies(), air_k, wall_k)
        return HeatDetail(
            [state.id for state in self.states], self.body.nominal,
            None if self.box is None else self.box.nominal, self.soc_w, self.rest_w,
            self.other_w, self.ambient_k, wanted.nodes_c(self.body), wall_k - ZERO_C_K,
            (np.asarray(to_air_w), np.asarray(to_wall_w)), self._flows_w(held),
        )  # fmt: skip

    def _flows_w(self, held: _Temps) -> dict[tuple[str, str], FloatArray]:
        """Heat that passes from node to node, at nominal figures. [W]"""
        ambient = self.ambient_k[:, :1]
        die, sink, board, *case = held.k[:, :, :1]
        body = self.body.nominal
        air, wall = (case[0], case[1]) if case else (ambient, ambient)
        air_name, wall_name = ("inside", "wall") if case else ("outside", "outside")
        flows: dict[tuple[str, str], FloatArray] = {}

        def add(start: str, end: str, conductance: Quantity, delta_k: FloatArray) -> None:
            flow: FloatArray = (conductance * delta_k)[:, 0]
            flows[start, end] = flows.get((start, end), 0.0) + flow

        add("die", "board", body.die_board_w_k, die - board)
        if body.sink is not None and body.die_sink_w_k is not None:
            add("die", "sink", body.die_sink_w_k, die - sink)
            add("sink", air_name, body.sink.air_w_k, sink - air)
            add("sink", wall_name, body.sink.wall_w_k, sink - wall)
        add("board", air_name, body.board.air_w_k, board - air)
        add("board", wall_name, body.board.wall_w_k, board - wall)
        if self.box is not None and case:
            box = self.box.nominal
            add("inside", "wall", inside_w_k(box, air, wall), air - wall)
            draught, forced = exchange_w_k(box, air, ambient)
            add("inside", "outside", draught + forced, air - ambient)
            add("wall", "outside", outside_w_k(box, case[2], ambient), case[2] - ambient)
        return flows

    def _nearest_to_limits(self) -> tuple[list[int], FloatArray]:
        """For the die and each hot body its worst state that must hold, and how far it is there.

        One kelvin outside is close to one at any of them. [K]
        """
        temps_c = [self.wanted.die_k - ZERO_C_K, *(hot.temp_c for hot in self.hot_bodies)]
        limits_c = [self.throttle_c, *(hot.limit_c for hot in self.hot_bodies)]
        hard = [n for n, state in enumerate(self.states) if state.hard]
        states, spare_k = [], []
        for temp_c, limit_c in zip(temps_c, limits_c, strict=True):
            worst = max(hard, key=temp_c[:, 0].__getitem__)
            states.append(worst)
            spare_k.append(limit_c - temp_c[worst])
        return states, np.array(spare_k)

    def _hottest_ambient_c(
        self, wanted: _Temps, there: _Temps, spare_k: FloatArray, warmer_k: FloatArray
    ) -> FloatArray:
        """Outside temperature at which the die and each hot body just reach their limits.

        From the room they have now and what is left of it on a day warmer by `warmer_k`, corrected
        once; a hot body follows the air around it.
        """
        followed_k = there.k[_DIE] - wanted.k[_DIE]
        followed_k[1:] = (there.k[_AIR] - wanted.k[_AIR])[1:] if wanted.in_case else warmer_k[1:]
        slope = np.ones_like(warmer_k)
        np.divide(followed_k, warmer_k, out=slope, where=np.abs(warmer_k) > 1e-6)
        left_k = spare_k - followed_k
        ambient_c = self.plan.place.ambient_max_c
        hottest_c: FloatArray = ambient_c + warmer_k + left_k / np.clip(slope, 0.3, 1.5)
        return hottest_c


def _solved(
    body: BoardBody, box: Enclosure | None, soc_w: Quantity, rest_w: Quantity, other_w: Quantity,
    ambient_k: Quantity, *start: Quantity,
) -> tuple[Quantity, ...]:  # fmt: skip
    """Temperatures of a board in its case in the order of `_Temps`. [K]

    `start` are air, inner and outer wall nearby, if any are known.
    """
    if box is None:
        found = body.temps(soc_w, rest_w, ambient_k, ambient_k)
        return found.die_k, found.sink_k, found.board_k
    heat = body.response.heat_input(soc_w, rest_w, other_w)
    case = solve_enclosure(box, heat, ambient_k, CaseTemps(*start) if start else None)
    found = body.temps(soc_w, rest_w, case.air_k, case.inner_wall_k)
    around = case.air_k, case.inner_wall_k, case.outer_wall_k
    return found.die_k, found.sink_k, found.board_k, *around


_DIE, _SINK, _BOARD, _AIR, _INNER, _OUTER = range(6)


@dataclass(slots=True)
class _Temps:
    """Temperatures of the same states: die, sink and board, and in a case inside air and the
    inner and outer face of its wall; shape (3 or 6, states, samples). [K]
    """

    k: FloatArray

    @property
    def die_k(self) -> FloatArray:
        """Of the die, shape (states, samples)."""
        die: FloatArray = self.k[_DIE]
        return die

    @property
    def in_case(self) -> bool:
        """Whether there is a case around the board."""
        return len(self.k) > _AIR

    def bodies(self) -> BodyTemps:
        """Of die, sink and board."""
        return BodyTemps(self.k[_DIE], self.k[_SINK], self.k[_BOARD])

    def rows(self, states: Any) -> _Temps:
        """Some of the states."""
        return _Temps(self.k[:, states])

    def replaced(self, states: Any, new: _Temps) -> _Temps:
        """With some of the states put in place."""
        changed = self.k.copy()
        changed[:, states] = new.k
        return _Temps(changed)

    def warmer(self, delta_k: Quantity) -> FloatArray | None:
        """Air and walls of the case, were everything warmer by so much; None without one."""
        return self.k[_AIR:] + delta_k if self.in_case else None

    def nodes_c(self, body: BoardBody) -> dict[str, FloatArray]:
        """Temperatures by the name of their node. [°C]"""
        temp_c = self.k - ZERO_C_K
        nodes = {"die": temp_c[_DIE], "board": temp_c[_BOARD]}
        if body.sink is not None:
            nodes["sink"] = temp_c[_SINK]
        if self.in_case:
            nodes["inside"], nodes["wall"] = temp_c[_AIR], temp_c[_OUTER]
        return nodes


@dataclass(slots=True)
class _Lines:
    """What a watt less of the processor and of drives takes off each temperature, as `_Temps`."""

    per_soc_k_w: FloatArray
    per_other_k_w: FloatArray

    def cooled(self, full: _Temps, less_w: FloatArray, spared_w: FloatArray) -> _Temps:
        """Temperatures with so much less given off."""
        return _Temps(full.k - self.per_soc_k_w * less_w - self.per_other_k_w * spared_w)


@dataclass(slots=True, frozen=True)
class _SplitHeat:
    """Heat of a board by rows of its table, shape (6, samples): of its processor, of the rest, and
    of an idle processor beside that rest; at its peak, shape (samples,). [W]
    """

    soc_w: FloatArray
    rest_w: FloatArray
    soc_idle_w: FloatArray
    soc_peak_w: FloatArray


@lru_cache(maxsize=64)
def _split_heat(board: CompiledPart) -> _SplitHeat:
    """How a board's draw divides; the processor's share grows from idle to peak."""
    heat, figure, own = board.part.board_heat, board.figure, board.loads["own"]
    if heat is None:
        raise ValueError("the board needs thermal figures")
    idle_w, peak_w = own.row("idle"), own.row("peak")
    share_idle = figure("board_heat.soc_share_idle")
    share_peak = figure("board_heat.soc_share_peak")
    part = np.clip((own.table - idle_w) / np.maximum(peak_w - idle_w, 1e-9), 0.0, 1.0)
    soc_w = own.table * (share_idle + (share_peak - share_idle) * part)
    return _SplitHeat(
        soc_w, own.table - soc_w, np.minimum(idle_w * share_idle, soc_w), peak_w * share_peak
    )


@lru_cache(maxsize=64)
def _board_body(
    board: CompiledPart, cooler: CompiledPart | None, sides: tuple[str, ...]
) -> BoardBody:
    """The board under its cooler, with boards stacked on `sides` of it; kept for the next kit."""
    heat, figure = board.part.board_heat, board.figure
    if heat is None:
        raise ValueError("the board needs thermal figures")
    still = figure("board_heat.r_ba_k_w") * ADD_ON_FACTOR[sides]
    own = None if cooler is None else cooler.part.cooler
    blown = own is not None and own.blows_over_board and own.r_fan_k_w is not None
    board_path = split_path(still, still * BLOWN_BOARD_FACTOR if blown else None)
    link = 1 / figure("board_heat.r_db_k_w")
    if cooler is None or own is None:
        return BoardBody(link, None, None, board_path)
    of = cooler.figure
    side = figure("board_heat.soc_side_mm")
    pad = layer_k_w(
        of("cooler.interface_mm"),
        of("cooler.interface_w_mk"),
        side * side,
    )
    die_sink = 1 / (figure("board_heat.r_jc_k_w") + pad)
    still_sink = of("cooler.r_still_k_w")
    forced = None
    if own.r_fan_k_w is not None:
        forced = of("cooler.r_fan_k_w")
    return BoardBody(link, die_sink, split_path(still_sink, forced), board_path)


@lru_cache(maxsize=64)
def _enclosure(
    shell: CompiledPart, cooler: CompiledPart | None, standing: str, altitude_m: float,
    sun_w_m2: float,
) -> Enclosure | None:  # fmt: skip
    """A case in its place, stirred by the fan of a cooler; None for one that is open."""
    case, of = shell.part.case, shell.figure
    if case is None or case.open:
        return None
    own = None if cooler is None else cooler.part.cooler
    low, high = case.vent_low_cm2 * 1e-4, case.vent_high_cm2 * 1e-4
    area = vent_area_m2(low, high)
    has_fan = own is not None and own.r_fan_k_w is not None
    fan_flow: FloatArray | float = 0.0
    if has_fan and area > 0 and cooler is not None and own is not None:
        free = cooler.figure("cooler.free_flow_m3_h", missing=0.0)
        fan_flow = of("case.fan_exchange_share") * free / 3600
    wall = case.wall_mm * 1e-3
    rise = case.vent_rise_mm
    box = Enclosure(
        length_m=case.inner_length_mm * 1e-3 + 2 * wall,
        width_m=case.inner_width_mm * 1e-3 + 2 * wall,
        height_m=case.inner_height_mm * 1e-3 + 2 * wall,
        wall_m=wall,
        wall_w_mk=of("case.wall_w_mk"),
        emissivity=of("case.emissivity"),
        bottom_share=BOTTOM_SHARE[standing],
        stirred=has_fan,
        vent_area_m2=area,
        vent_rise_m=(VENT_RISE_SHARE * case.inner_height_mm if rise is None else rise) * 1e-3,
        fan_flow_m3_s=fan_flow,
        pressure_pa=pressure_pa(altitude_m),
    )
    if not sun_w_m2:
        return box
    taken_in = of("case.absorptance")
    return replace(box, sun_w=taken_in * sun_w_m2 * box.sunlit_m2)


def _idle_w(piece: Piece, hot: HotBody) -> Quantity:
    """What the load of a hot body draws at rest; a converter has no rest of its own. [W]"""
    group, _, key = hot.of.partition(".")
    return piece.compiled.loads[key].row("idle") if group == "loads" else 0.0


def _losses_w(power: PowerResult, mean: list[int]) -> dict[str, FloatArray]:
    """What converters and supplies inside lose as heat, by rail, shape (states, samples). [W]"""
    nodes = power.nodes
    losses: dict[str, FloatArray] = {}
    inside: list[int] = []
    for place, node in enumerate(nodes):
        if (node.parent >= 0 and node.converter != place) or not node.piece.part.inside:
            continue
        source = node.piece.part.source
        if node.parent >= 0:
            inside.append(place)
        elif source is not None and source.efficiency is not None:
            efficiency = node.piece.compiled.figure("source.efficiency")
            given_w = power.current_a[place] * power.voltage_v[place]
            losses[node.id] = given_w[mean] * (1 / efficiency - 1)
    if inside:
        taken_w = power.input_a[inside] * power.solved.input_v[inside]
        given_w = power.current_a[inside] * power.voltage_v[inside]
        lost_w = np.maximum((taken_w - given_w)[:, mean], 0.0)
        losses.update((nodes[n].id, row) for n, row in zip(inside, lost_w, strict=True))
    return losses


@derived(
    "pieces", "place.ambient_max_c", "place.altitude_m", "place.standing", "place.sun_w_m2",
    stack_of, power_of,
)  # fmt: skip
def of(kit: Kit) -> HeatResult:
    """Temperatures on the hottest day."""
    return build_heat(kit.plan, kit.pieces, stack_of(kit), power_of(kit), kit.samples)
