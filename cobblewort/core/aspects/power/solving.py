"""Operating points of a forest with converters in it.

What hangs behind a converter is a tree of its own, with the converter's output voltage for a
source: leads and contacts there drop volts like any other. The deepest trees are solved first; each
is then one load of constant power at its converter's input.
"""

from __future__ import annotations

from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import lru_cache

import numpy as np

from cobblewort.core.aspects.power.forest import Node, head_v
from cobblewort.core.aspects.power.network import (
    Bursts,
    Carried,
    Solution,
    carried_by,
    joining_matrix,
    path_matrix,
    solve,
)
from cobblewort.core.figures.arrays import BoolArray, FloatArray, IntArray
from cobblewort.core.standards.conductors import warm_factor

_FEW_COLUMNS = 64
_MOST_TREES = 16
"""Forests whose layout is kept; that of a kit of 400 parts takes more than a megabyte."""


@dataclass(slots=True)
class Drawn:
    """What hangs on each rail itself, shape (nodes, states, samples): means in watts and in
    amperes, and what is drawn beyond them for a moment.

    `together` names the groups of rails that peak in the same instant, by place. `bursting` says of
    each rail whether it draws more in some state; `loud` are the columns in which something does,
    state by state, or None where so few are solved that all are taken for such.
    """

    mean_w: FloatArray
    mean_a: FloatArray
    burst_w: FloatArray
    burst_a: FloatArray
    together: Mapping[int, Hashable]
    bursting: list[bool] = field(init=False)
    loud: IntArray | None = field(init=False)

    def __post_init__(self) -> None:
        """Find out what bursts, and when: in few states anything does."""
        by_state = np.any(self.burst_w + self.burst_a, axis=2)
        self.bursting = by_state.any(axis=1).tolist()
        self.loud = None
        _, states, samples = self.mean_w.shape
        if states * samples > _FEW_COLUMNS:
            self.loud = np.flatnonzero(by_state.any(axis=0).repeat(samples))


@dataclass(slots=True)
class Solved:
    """Operating points, shape (nodes, states, samples); `collapsed` is of shape (states, samples).

    `mean_a` and `burst_a` are what a rail carries at its own voltage, `input_mean_a` and
    `input_burst_a` what it draws from the rail above, at `input_v`; they differ at converters.
    """

    voltage_v: FloatArray
    mean_a: FloatArray
    burst_a: FloatArray
    input_v: FloatArray
    input_mean_a: FloatArray
    input_burst_a: FloatArray
    collapsed: BoolArray


@dataclass(slots=True)
class _Input:
    """What a converter draws at its input: its mean, and its bursts by group. [W]

    Those of no group are one burst already, the root of their squares.
    """

    mean_w: FloatArray
    bursts: list[tuple[FloatArray, Hashable]]


def solve_forest(levels: Sequence[Level], wire_c: float, drawn: Drawn) -> Solved:
    """Solve every tree in every state.

    Parameters
    ----------
    levels : sequence of Level
        The trees by `levels_of`, sources first.
    wire_c : float
        How warm the wires are. [°C]
    drawn : Drawn
        What hangs on the rails.
    """
    size = drawn.mean_w.shape
    voltage, mean, burst = np.zeros(size), np.zeros(size), np.zeros(size)
    lost = np.zeros(size[1:], dtype=bool)
    warm = warm_factor(wire_c)
    at_inputs: list[tuple[IntArray, _Solving]] = []
    fed: dict[int, _Input] = {}
    for level in reversed(levels):
        layout, trees = level.layout, _Solving(level, warm, drawn, fed)
        count = len(layout.members)
        lost |= trees.collapsed
        voltage[layout.member_places] = trees.voltage_v[:count]
        mean[layout.member_places] = trees.mean_a[:count]
        burst[layout.member_places] = trees.burst_a[:count]
        if layout.leaves:
            at_inputs.append((layout.leaf_places, trees))
        fed = trees.inputs()
    if lost.any():
        voltage[:, lost] = 0.0
    if not at_inputs:
        return Solved(voltage, mean, burst, voltage, mean, burst, lost)
    input_v, input_mean, input_burst = voltage.copy(), mean.copy(), burst.copy()
    for places, trees in at_inputs:
        count = len(places)
        input_v[places] = trees.voltage_v[-count:]
        input_mean[places] = trees.mean_a[-count:]
        input_burst[places] = trees.burst_a[-count:]
    return Solved(voltage, mean, burst, input_v, input_mean, input_burst, lost)


@dataclass(slots=True, frozen=True, eq=False)
class _Layout:
    """How the trees of one level are solved, which follows from what hangs on what alone.

    Its entries are its rails, `members` by their places, and then the inputs of the converters that
    hang on them, `leaves`. What no resistance parts is solved as one row: `rows` are those of the
    entries. `heads` are the places of the nodes at the top of its trees, and `head_rows` for each
    row which of them it hangs on; `lossy` are the places of the nodes whose resistance parts the
    row at `lossy_rows` from the one above. `converters` are the entries of converters, with their
    places.
    """

    members: list[int]
    leaves: list[int]
    member_places: IntArray
    leaf_places: IntArray
    entry_of: dict[int, int]
    rows: IntArray
    heads: list[int]
    head_rows: IntArray
    lossy: list[int]
    lossy_rows: list[int]
    converters: list[tuple[int, int]]
    below: FloatArray
    row_below: FloatArray
    joined: FloatArray


@lru_cache(maxsize=_MOST_TREES)
def _layouts(nodes: tuple[tuple[int, bool, bool], ...]) -> list[_Layout]:
    """Those of all levels, sources first; kept, as trees come again.

    Of each node are told the place of its parent, whether it is a converter, and whether it has its
    parent's voltage.
    """
    depths: list[int] = []
    for parent, is_converter, _ in nodes:
        depths.append((depths[parent] if parent >= 0 else 0) + is_converter)
    levels: list[list[int]] = [[] for _ in range(max(depths, default=-1) + 1)]
    for place, depth in enumerate(depths):
        levels[depth].append(place)
    found = []
    for depth, members in enumerate(levels):
        below = levels[depth + 1] if depth + 1 < len(levels) else []
        found.append(_layout(nodes, members, [place for place in below if nodes[place][1]]))
    return found


def _layout(
    nodes: tuple[tuple[int, bool, bool], ...], members: list[int], leaves: list[int]
) -> _Layout:
    """The layout of one level."""
    entry_of = {place: entry for entry, place in enumerate(members)}
    parents: list[int] = []
    rows: list[int] = []
    row_parents: list[int] = []
    heads: list[int] = []
    head_rows: list[int] = []
    lossy: list[int] = []
    lossy_rows: list[int] = []
    for entry, place in enumerate((*members, *leaves)):
        parent, is_converter, is_joined = nodes[place]
        is_head = entry < len(members) and (parent < 0 or is_converter)
        above = -1 if is_head else entry_of[parent]
        parents.append(above)
        if is_joined and not is_head:
            rows.append(rows[above])
            continue
        row = len(row_parents)
        rows.append(row)
        if is_head:
            head_rows.append(len(heads))
            heads.append(place)
        else:
            head_rows.append(head_rows[rows[above]])
            lossy.append(place)
            lossy_rows.append(row)
        row_parents.append(-1 if is_head else rows[above])
    return _Layout(
        members, leaves, np.array(members), np.array(leaves, dtype=int), entry_of, np.array(rows),
        heads, np.array(head_rows), lossy, lossy_rows,
        [(entry, place) for entry, place in enumerate(members) if nodes[place][1]],
        path_matrix(tuple(parents)),
        path_matrix(tuple(row_parents)), joining_matrix(tuple(rows)),
    )  # fmt: skip


@dataclass(slots=True, frozen=True)
class _Mix:
    """Where the bursts of a level hang, by entry and by row, and which branch carries them; those
    of one group come at once.
    """

    entries: IntArray
    rows: IntArray
    groups: list[list[int]]
    carried: Carried
    row_carried: Carried


@lru_cache(maxsize=_MOST_TREES)
def _mix(layout: _Layout, entries: tuple[int, ...], group_of: tuple[Hashable, ...]) -> _Mix:
    """That of bursts at some entries, each in its group or in none."""
    groups: dict[Hashable, list[int]] = {}
    for load, group in enumerate(group_of):
        if group is not None:
            groups.setdefault(group, []).append(load)
    together = [loads for loads in groups.values() if len(loads) > 1]
    at = np.array(entries)
    rows = layout.rows[at]
    return _Mix(
        at, rows, list(groups.values()), carried_by(layout.below, at, together),
        carried_by(layout.row_below, rows, together),
    )  # fmt: skip


@dataclass(slots=True, frozen=True, eq=False)
class Level:
    """All trees of one level with their figures, ready to be solved.

    `top_v` is the voltage at the top of each row's tree and `ways` what parts it from the row
    above, wire and rest, each of shape (rows, samples); None where nothing parts any. `efficiency`
    is that of each of its converters.
    """

    layout: _Layout
    top_v: FloatArray
    ways: tuple[FloatArray, FloatArray] | None
    efficiency: list[FloatArray]


def levels_of(nodes: Sequence[Node]) -> list[Level]:
    """The trees of a forest, parents before children, level by level from the sources."""
    layouts = _layouts(
        tuple([(n.parent, n.converter == at, n.way is None) for at, n in enumerate(nodes)])
    )
    return [_level(layout, nodes) for layout in layouts]


def _level(layout: _Layout, nodes: Sequence[Node]) -> Level:
    top_v = np.array([head_v(nodes, place) for place in layout.heads])[layout.head_rows]
    ways = None
    if layout.lossy:
        ways = np.zeros(top_v.shape), np.zeros(top_v.shape)
        between = [way for place in layout.lossy if (way := nodes[place].way) is not None]
        ways[0][layout.lossy_rows] = [way.wire_ohm for way in between]
        ways[1][layout.lossy_rows] = [way.rest_ohm for way in between]
    efficiency = [
        nodes[place].piece.compiled.figure(f"rails.{nodes[place].name}.efficiency", missing=1.0)
        for _, place in layout.converters
    ]
    return Level(layout, top_v, ways, efficiency)


class _Solving:
    """The trees of one level, solved at once; columns go state by state."""

    def __init__(self, level: Level, warm: float, drawn: Drawn, fed: Mapping[int, _Input]) -> None:
        self._level, self._layout, self._drawn, self._fed = level, level.layout, drawn, fed
        self._shape = drawn.mean_w.shape[1:]
        # All columns where few are solved, or those in which something bursts.
        self._loud: IntArray | slice = slice(None) if drawn.loud is None else drawn.loud
        self._group_of: list[Hashable] = []
        self._mix: _Mix | None = None
        self._drawn_a = np.zeros((0, 0))
        layout = level.layout
        mean_w, mean_a = self._means()
        burst_w, burst_a = self._bursts()
        volts = _in_columns(level.top_v, self._shape[0])
        self.collapsed = np.zeros(self._shape, dtype=bool)
        mix = self._mix
        if level.ways is not None:
            wire_ohm, rest_ohm = level.ways
            solution = _solved_apart(
                layout.row_below, _in_columns(wire_ohm * warm + rest_ohm, self._shape[0]), volts,
                layout.joined @ mean_w, layout.joined @ mean_a,
                None if mix is None else Bursts(burst_w, burst_a, mix.rows, mix.row_carried),
                drawn.loud,
            )  # fmt: skip
            volts, self.collapsed = solution.voltage_v, solution.collapsed.reshape(self._shape)
        self._volts = volts[layout.rows]
        if self.collapsed.any():
            mean_a += np.divide(
                mean_w, self._volts, out=np.zeros_like(mean_w), where=self._volts > 0
            )
        else:
            mean_a += mean_w / self._volts
        self._mean_a = layout.below @ mean_a
        carried_a = np.zeros_like(mean_a)
        if mix is not None:
            bursts = Bursts(burst_w, burst_a, mix.entries, mix.carried)
            self._drawn_a = bursts.drawn_a(self._volts[:, self._loud])
            carried_a[:, self._loud] = bursts.carried.carried_a(self._drawn_a)
        self.voltage_v = self._volts.reshape(-1, *self._shape)
        self.mean_a = self._mean_a.reshape(-1, *self._shape)
        self.burst_a = carried_a.reshape(-1, *self._shape)

    def _means(self) -> tuple[FloatArray, FloatArray]:
        """What each entry draws in the mean, those of converters with all behind them. [W], [A]"""
        layout, drawn = self._layout, self._drawn
        count, columns = len(layout.members), self._shape[0] * self._shape[1]
        mean_w, mean_a = np.zeros((2, count + len(layout.leaves), columns))
        mean_w[:count] = drawn.mean_w[layout.member_places].reshape(count, columns)
        mean_a[:count] = drawn.mean_a[layout.member_places].reshape(count, columns)
        for entry, place in enumerate(layout.leaves, count):
            mean_w[entry] = self._fed[place].mean_w
        return mean_w, mean_a

    def _bursts(self) -> tuple[FloatArray, FloatArray]:
        """Those of the rails and then those of converters, by load, in the columns in which
        something bursts; and who bursts with whom. [W], [A]
        """
        layout, drawn = self._layout, self._drawn
        louder = [place for place in layout.members if drawn.bursting[place]]
        entries = [layout.entry_of[place] for place in louder]
        self._group_of = [drawn.together.get(place) for place in louder]
        passed_on: list[FloatArray] = []
        for entry, place in enumerate(layout.leaves, len(layout.members)):
            for watts, group in self._fed[place].bursts:
                entries.append(entry)
                self._group_of.append(group)
                passed_on.append(watts)
        if entries:
            self._mix = _mix(layout, tuple(entries), tuple(self._group_of))
        columns = self._shape[0] * self._shape[1]
        power_w = drawn.burst_w[louder].reshape(-1, columns)[:, self._loud]
        current_a = drawn.burst_a[louder].reshape(-1, columns)[:, self._loud]
        if passed_on:
            power_w = np.concatenate([power_w, passed_on])
            none = np.zeros((len(passed_on), power_w.shape[1]))
            current_a = np.concatenate([current_a, none])
        return power_w, current_a

    def inputs(self) -> dict[int, _Input]:
        """What the converters at the top of these trees draw, output over efficiency."""
        found = {}
        converters = zip(self._layout.converters, self._level.efficiency, strict=True)
        for (entry, place), efficiency in converters:
            over = (self._volts[entry].reshape(self._shape) / efficiency).reshape(-1)
            bursts = self._bursts_into(entry, over[self._loud])
            found[place] = _Input(self._mean_a[entry] * over, bursts)
        return found

    def _bursts_into(self, entry: int, over: FloatArray) -> list[tuple[FloatArray, Hashable]]:
        """What bursts below an entry, times volts over efficiency: apart from groups as one."""
        mix = self._mix
        if mix is None:
            return []
        inside = self._layout.below[entry, mix.entries].tolist()
        found: list[tuple[FloatArray, Hashable]] = []
        alone = [
            load for load, group in enumerate(self._group_of) if inside[load] and group is None
        ]
        if alone:
            squares = self._drawn_a[alone] ** 2
            found.append((np.sqrt(squares.sum(axis=0)) * over, None))
        for loads in mix.groups:
            members = [load for load in loads if inside[load]]
            if members:
                group = self._group_of[members[0]]
                found.append((self._drawn_a[members].sum(axis=0) * over, group))
        return found


def _solved_apart(
    below: FloatArray, resistance_ohm: FloatArray, source_v: FloatArray, power_w: FloatArray,
    current_a: FloatArray, bursts: Bursts | None, loud: IntArray | None,
) -> Solution:  # fmt: skip
    """Solve a network, columns in which something bursts apart from those in which nothing does."""
    columns = source_v.shape[1]
    if bursts is None or loud is None or loud.size == columns:
        return solve(below, resistance_ohm, source_v, power_w, current_a, bursts)
    quiet = np.delete(np.arange(columns), loud)
    voltage, collapsed = np.empty_like(source_v), np.empty(columns, dtype=bool)
    for some, at_once in ((quiet, None), (loud, bursts)):
        found = solve(
            below, resistance_ohm[:, some], source_v[:, some], power_w[:, some],
            current_a[:, some], at_once,
        )  # fmt: skip
        voltage[:, some], collapsed[some] = found.voltage_v, found.collapsed
    return Solution(voltage, collapsed)


def _in_columns(values: FloatArray, states: int) -> FloatArray:
    """Values by row and sample, repeated for every state, in columns."""
    if values.shape[1] == 1:
        return values.repeat(states, axis=1)
    return values[:, np.newaxis].repeat(states, axis=1).reshape(len(values), -1)
