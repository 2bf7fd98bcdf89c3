"""The forest of a plan: which rail hangs on which, and what each draws in each state."""

from __future__ import annotations

from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np

from cobblewort.core.aspects.fit.assign import Assignment
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.power.forest import Forest, Node, fed_nodes
from cobblewort.core.aspects.power.lanes import Narrowed, narrowed
from cobblewort.core.aspects.power.solving import Drawn, Loaded, Solved, solve_forest
from cobblewort.core.aspects.power.trees import Trees
from cobblewort.core.aspects.power.trees import trees_of as laid_out
from cobblewort.core.figures.arrays import BoolArray, ByState, FloatArray, IntArray, by_state
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.judging.severity import LOADED_H
from cobblewort.core.judging.states import LookedAt, State, hours_of, looked_at, states_of
from cobblewort.core.parts.compiled import DRAWS, LoadArrays
from cobblewort.core.plans.plan import Activity, Phase


@dataclass(slots=True, frozen=True)
class Hung:
    """What each rail of a forest draws by itself.

    `rows` are those of its tables that each line draws, by state, and `lanes` the drives that draw
    less, as their lane holds them back. `hours` a day are those of idling and of each phase.
    """

    states: list[State]
    hours: list[float]
    rows: dict[str, Rows]
    lanes: Mapping[str, Narrowed]
    drawn: Drawn

    def loads_of(self, item: Item) -> Mapping[str, LoadArrays]:
        """What a piece draws, where it hangs."""
        lane = self.lanes.get(item.id)
        return item.compiled.loads if lane is None else lane.loads


@dataclass
class PowerResult:
    """Voltages and currents of every fed rail, shape (nodes, states, samples).

    `current_a` is what a rail carries at its own voltage, the means of all loads behind and their
    bursts in squares; `solved` tells what it draws from the rail above, which differs at
    converters.
    `wire_c` is how warm the leads are. `limits` are the states that limits look at, and the
    `limit_` fields hold those alone; `means` are those for heat. `stands` says that every state
    that must hold has an operating point at nominal figures.
    """

    forest: Forest
    hung: Hung
    wire_c: float
    solved: Solved
    nodes: list[Node] = field(init=False)
    states: list[State] = field(init=False)
    voltage_v: FloatArray = field(init=False)
    current_a: FloatArray = field(init=False)
    collapsed: BoolArray = field(init=False)
    limits: LookedAt = field(init=False)
    means: LookedAt = field(init=False)
    limit_voltage_v: FloatArray = field(init=False)
    limit_current_a: FloatArray = field(init=False)
    stands: bool = field(init=False)

    def __post_init__(self) -> None:
        """Pick what limits look at once, as many rules ask for it."""
        solved, self.nodes, self.states = self.solved, self.forest.nodes, self.hung.states
        self.voltage_v, self.collapsed = solved.rails.voltage_v, solved.collapsed
        self.current_a = solved.rails.current_a
        dead = self.collapsed[:, 0].tolist()
        limits, self.means = looked_at(tuple(self.states))
        # Where only everything at once has no operating point, the others are judged without it.
        standing = [n for n in limits.places if self.states[n].hard or not dead[n]]
        is_all = len(standing) == len(limits.places)
        self.limits = limits if is_all else LookedAt.of(self.states, standing)
        self.limit_voltage_v = self.voltage_v.take(self.limits.at, axis=1)
        self.limit_current_a = self.current_a.take(self.limits.at, axis=1)
        lost = any(dead[n] for n, state in enumerate(self.states) if state.hard)
        self.stands = bool(self.nodes) and not lost

    @cached_property
    def mean_voltage_v(self) -> FloatArray:
        """`voltage_v` in the states for heat."""
        return self.voltage_v.take(self.means.at, axis=1)

    @cached_property
    def mean_current_a(self) -> FloatArray:
        """`current_a` in the states for heat."""
        return self.current_a.take(self.means.at, axis=1)

    @cached_property
    def limit_amps(self) -> Sequence[ByState]:
        """`limit_current_a` by node."""
        return by_state(self.limit_current_a)

    @cached_property
    def limit_volts(self) -> Sequence[ByState]:
        """`limit_voltage_v` by node."""
        return by_state(self.limit_voltage_v)

    @cached_property
    def limit_watts(self) -> Sequence[ByState]:
        """What passes each node."""
        return by_state(self.limit_current_a * self.limit_voltage_v)

    def lasting(self, node: int, in_watts: bool) -> float:
        """The mean into a rail that is reached for three hours a day, at nominal figures.

        [A] or [W]
        """
        amps, watts = self._lasting
        means = zip((watts if in_watts else amps)[node], self.hung.hours, strict=True)
        left_h = LOADED_H
        for mean, hours in sorted(means, reverse=True):
            left_h -= hours
            if left_h <= 0:
                return mean
        return 0.0

    def mean_in(self, node: int, state: str, in_watts: bool) -> float | None:
        """The mean into a rail in the phase whose peak a state is; None in any other state.

        [A] or [W]
        """
        ids = [self.means.ids[k] for k in self.means.must_hold]
        amps, watts = self._lasting
        of = (watts if in_watts else amps)[node]
        return of[ids.index(f"{state}-mean")] if f"{state}-mean" in ids else None

    @cached_property
    def _lasting(self) -> tuple[list[list[float]], list[list[float]]]:
        hard = list(self.means.must_hold)
        amps = self.mean_current_a.take(hard, axis=1)[..., 0]
        volts = self.mean_voltage_v.take(hard, axis=1)[..., 0]
        return amps.tolist(), (amps * volts).tolist()

    def feeds_every_board(self) -> bool:
        """Whether there is a supply to speak of: it stands, and every board hangs on it."""
        lost = any(item.part.kind == "board" for item in self.forest.unfed)
        return bool(self.nodes) and not lost and not self.collapsed[self.limits.places, 0].any()

    @cached_property
    def carries(self) -> list[bool]:
        """For each node whether anything is drawn through it in any state."""
        by_node = self.current_a.reshape(len(self.nodes), -1)  # two axes at once take long
        carries: list[bool] = np.any(by_node, axis=1).tolist()
        return carries

    @cached_property
    def heaviest(self) -> tuple[float | None, float | None]:
        """Most current and power out of all sources, at nominal figures; None where nothing is fed.

        [A], [W]
        """
        if not self.feeds_every_board():
            return None, None
        amps, watts = self.out_of_sources()
        return float(amps.max()), float(watts.max())

    def resistance_ohm(self, place: int) -> FloatArray | None:
        """The loop between a rail and the one above; None where nothing lies between. [ohm]"""
        way = self.nodes[place].way
        return None if way is None else way.resistance_ohm(self.wire_c)

    def out_of_sources(self) -> tuple[FloatArray, FloatArray]:
        """Currents and watts out of all sources by limit state, at nominal figures. [A], [W]"""
        roots = [place for place, node in enumerate(self.nodes) if node.parent < 0]
        amps = self.limit_current_a[roots, :, 0]
        return amps.sum(axis=0), (amps * self.limit_voltage_v[roots, :, 0]).sum(axis=0)

    def burst_a_of(self, place: int) -> FloatArray:
        """What a rail's own loads burst by, at nominal figures, shape (states,). [A]"""
        drawn, volts = self.hung.drawn, self.voltage_v[place, :, 0]
        by_power = np.divide(
            drawn.burst_w[place, :, 0], volts, out=np.zeros_like(volts), where=volts > 0
        )
        total: FloatArray = by_power + drawn.burst_a[place, :, 0]
        return total


_ROW = {name: number for number, name in enumerate(DRAWS)}
_IN_PHASE: dict[Activity, tuple[int, int]] = {
    "off": (_ROW["off"], _ROW["off"]),
    "idle": (_ROW["idle"], _ROW["light"]),
    "light": (_ROW["light"], _ROW["normal"]),
    "normal": (_ROW["normal"], _ROW["peak"]),
    "full": (_ROW["peak"], _ROW["peak"]),
}
"""Rows of a load's table by activity: its mean, and its burst, the mean of the next level up."""
_OUTSIDE_PHASES = {"idle": _ROW["idle"], "all": _ROW["peak"], "start": _ROW["start"]}


@dataclass(slots=True, frozen=True)
class Rows:
    """Which rows of its tables a line draws in each state, in the mean and for a moment; `line` is
    empty where no phase says anything of it.
    """

    line: str
    mean: IntArray
    burst: IntArray


def _draw_rows(schedule: Sequence[Phase], states: list[State], line: str) -> Rows:
    """Those of one line: bursts count where limits look at a phase, and nowhere else."""
    means, bursts = [], []
    for state in states:
        if state.phase is None:
            mean = burst = _OUTSIDE_PHASES[state.id]
        else:
            phase = schedule[state.phase]
            mean, burst = _IN_PHASE[phase.activity_of(line)]
        means.append(mean)
        bursts.append(mean if state.mean else burst)
    return Rows(line, np.array(means), np.array(bursts))


def _rows_by_line(
    schedule: Sequence[Phase], items: Sequence[Item], states: list[State]
) -> dict[str, Rows]:
    """`_draw_rows` of every line; those of which no phase says anything share one."""
    alike = _draw_rows(schedule, states, "")
    rows = dict.fromkeys((item.line.id for item in items), alike)
    for phase in schedule:
        for line in phase.lines:
            if rows.get(line) is alike:
                rows[line] = _draw_rows(schedule, states, line)
    return rows


def _drawn(
    nodes: Sequence[Node],
    rows: dict[str, Rows],
    lanes: Mapping[str, Narrowed],
    shape: tuple[int, int, int],
) -> Drawn:
    """What hangs on each rail itself."""
    mean_w, mean_a = np.zeros(shape), np.zeros(shape)
    burst_w, burst_a = np.zeros(shape), np.zeros(shape)
    # Loads that draw the same rows of their tables are looked up at once.
    alike: dict[tuple[str, bool], tuple[Rows, list[int], list[FloatArray]]] = {}
    together: dict[int, Hashable] = {}
    for place, node in enumerate(nodes):
        item = node.item
        lane = lanes.get(item.id)
        draws = item.compiled.draws if lane is None else lane.draws
        for in_watts, table in draws.get(node.name, ()):
            drawn = rows[item.line.id]
            key = drawn.line, in_watts
            if key not in alike:
                alike[key] = drawn, [], []
            alike[key][1].append(place)
            alike[key][2].append(table)
        if item.part.drive is not None and item.line.quantity > 1:
            together[place] = item.line.id  # drives of one line are taken to be one array
    for (_, in_watts), (drawn, places, tables) in alike.items():
        stacked = np.array(tables)
        mean = stacked.take(drawn.mean, axis=1)
        burst = np.maximum(stacked.take(drawn.burst, axis=1) - mean, 0.0)
        (mean_w if in_watts else mean_a)[places] = mean
        (burst_w if in_watts else burst_a)[places] = burst
    return Drawn(mean_w, mean_a, burst_w, burst_a, together)


@derived("connected", fit_of)
def forest_of(connected: Items, fit: Assignment) -> Forest:
    """Which rail hangs on which."""
    return fed_nodes(connected, fit)


@derived(forest_of)
def trees_of(forest: Forest) -> Trees:
    """Its trees, ready to be solved."""
    return laid_out(forest.nodes)


@derived("connected", "schedule", forest_of, narrowed, "samples")
def hung_of(
    connected: Items,
    schedule: Sequence[Phase],
    forest: Forest,
    lanes: dict[str, Narrowed],
    samples: int,
) -> Hung:
    """What each rail draws in every state."""
    nodes, states = forest.nodes, states_of(schedule)
    rows = _rows_by_line(schedule, connected, states)
    drawn = _drawn(nodes, rows, lanes, (len(nodes), len(states), samples))
    hours = hours_of(schedule, [state for state in states if state.mean])
    return Hung(states, hours, rows, lanes, drawn)


@derived(trees_of, hung_of)
def loaded_of(trees: Trees, hung: Hung) -> list[Loaded]:
    """Its levels with what hangs on them."""
    drawn = hung.drawn
    return [Loaded.of(level, drawn) for level in trees.levels]


@derived("place.ambient_max_c", forest_of, trees_of, hung_of, loaded_of, "samples")
def of(
    wire_c: float, forest: Forest, trees: Trees, hung: Hung, loaded: list[Loaded], samples: int
) -> PowerResult:
    """Voltages and currents in every state, the leads as warm as the hottest day."""
    shape = len(hung.states), samples
    solved = solve_forest(trees, loaded, wire_c, shape)
    return PowerResult(forest, hung, wire_c, solved)
