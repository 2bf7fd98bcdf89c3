"""Operating points of a forest with converters in it.

What hangs behind a converter is a tree of its own, with the converter's output voltage for a
source: leads and contacts there drop volts like any other. The deepest trees are solved first; each
is then one load of constant power at its converter's input.
"""

from __future__ import annotations

from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property, lru_cache

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


@dataclass
class Solved:
    """Operating points, shape (nodes, states, samples); `collapsed` is of shape (states, samples).

    Made of the entries of all levels one after the other, the deepest first, by columns: `own` is
    where each node is among them, and `at_input` likewise, but of a converter where its input is;
    None without converters. `mean_a` and `burst_a` are what a rail carries at its own voltage,
    `input_mean_a` and `input_burst_a` what it draws from the rail above, at `input_v`.
    """

    entry_v: FloatArray
    entry_mean_a: FloatArray
    entry_burst_a: FloatArray
    own: IntArray
    at_input: IntArray | None
    collapsed: BoolArray

    @cached_property
    def voltage_v(self) -> FloatArray:
        """At each rail. [V]"""
        return self._at(self.own, self.entry_v)

    @cached_property
    def current_a(self) -> FloatArray:
        """What each carries at most. [A]"""
        return self._at(self.own, self.entry_mean_a + self.entry_burst_a)

    @cached_property
    def mean_a(self) -> FloatArray:
        """What each carries in the mean. [A]"""
        return self._at(self.own, self.entry_mean_a)

    @cached_property
    def burst_a(self) -> FloatArray:
        """What each carries beyond that for a moment. [A]"""
        return self._at(self.own, self.entry_burst_a)

    @cached_property
    def input_v(self) -> FloatArray:
        """Where each draws. [V]"""
        return self._at(self.at_input, self.entry_v)

    @cached_property
    def input_a(self) -> FloatArray:
        """What each draws there at most. [A]"""
        return self._at(self.at_input, self.entry_mean_a + self.entry_burst_a)

    @cached_property
    def input_mean_a(self) -> FloatArray:
        """What each draws there in the mean. [A]"""
        return self._at(self.at_input, self.entry_mean_a)

    @cached_property
    def input_burst_a(self) -> FloatArray:
        """What each draws there beyond that for a moment. [A]"""
        return self._at(self.at_input, self.entry_burst_a)

    def _at(self, places: IntArray | None, entries: FloatArray) -> FloatArray:
        where = self.own if places is None else places
        return entries.take(where, axis=0).reshape(len(where), *self.collapsed.shape)


@dataclass(slots=True)
class _Fed:
    """What the converters at the top of some trees draw at their inputs, one row a converter: their
    means; and their bursts, with the row and the group of each. [W]

    Those of no group are one burst a converter already, the root of their squares.
    """

    mean_w: FloatArray
    burst_w: FloatArray
    rows: list[int]
    group_of: list[Hashable]


def solve_forest(trees: Trees, wire_c: float, drawn: Drawn) -> Solved:
    """Solve every tree in every state.

    Parameters
    ----------
    trees : Trees
        What `trees_of` made of the nodes.
    wire_c : float
        How warm the wires are. [°C]
    drawn : Drawn
        What hangs on the rails.
    """
    lost = np.zeros(drawn.mean_w.shape[1:], dtype=bool)
    warm, fed = warm_factor(wire_c), None
    solved: list[_Solving] = []
    for level in reversed(trees.levels):
        at = _Solving(level, warm, drawn, fed)
        fed = at.inputs() if level.layout.converters.size else None
        lost |= at.collapsed
        solved.append(at)
    if not solved:
        none = np.zeros((0, lost.size))
        return Solved(none, none, none, trees.own, None, lost)
    volts = np.concatenate([at.voltage_v for at in solved])
    if lost.any():
        volts[:, lost.reshape(-1)] = 0.0
    return Solved(
        volts, np.concatenate([at.mean_a for at in solved]),
        np.concatenate([at.burst_a for at in solved]), trees.own, trees.inputs, lost,
    )  # fmt: skip


@dataclass(slots=True, frozen=True, eq=False)
class _Layout:
    """How the trees of one level are solved, which follows from what hangs on what alone.

    Its entries are its rails, `members` by their places, and then the inputs of the converters that
    hang on them, as many as `leaves`. What no resistance parts is solved as one row: `rows` are
    those of the entries. `heads` are the places of the nodes at the top of its trees, and
    `head_rows` for each row which of them it hangs on; `lossy` are the places of the nodes whose
    resistance parts the row at `lossy_rows` from the one above. `converters` are the entries of its
    own converters.
    """

    members: IntArray
    entry_of: dict[int, int]
    leaves: int
    rows: IntArray
    heads: list[int]
    head_rows: IntArray
    lossy: list[int]
    lossy_rows: list[int]
    converters: IntArray
    below: FloatArray
    row_below: FloatArray
    joined: FloatArray


@dataclass(slots=True, frozen=True, eq=False)
class _Layouts:
    """The levels of a forest, sources first.

    `own` is the place of each node among the entries of all levels, the deepest first; `inputs`
    likewise, but of a converter that of its input, None where there is no converter.
    """

    levels: list[_Layout]
    own: IntArray
    inputs: IntArray | None


@lru_cache(maxsize=_MOST_TREES)
def _layouts(nodes: tuple[tuple[int, bool, bool], ...]) -> _Layouts:
    """That of a forest; kept, as trees come again.

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
    own = np.zeros(len(nodes), dtype=int)
    inputs = own.copy()
    first = 0  # of the entries of a level, counted from the deepest one
    leaves: list[int] = []
    for members in reversed(levels):
        found.append(_layout(nodes, members, leaves))
        own[members] = inputs[members] = range(first, first + len(members))
        first += len(members)
        inputs[leaves] = range(first, first + len(leaves))
        first += len(leaves)
        leaves = [place for place in members if nodes[place][1]]
    return _Layouts(found[::-1], own, inputs if len(levels) > 1 else None)


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
    converters = [entry for entry, place in enumerate(members) if nodes[place][1]]
    return _Layout(
        np.array(members), entry_of, len(leaves), np.array(rows), heads, np.array(head_rows),
        lossy, lossy_rows, np.array(converters, dtype=int), path_matrix(tuple(parents)),
        path_matrix(tuple(row_parents)), joining_matrix(tuple(rows)),
    )  # fmt: skip


@dataclass(slots=True, frozen=True)
class _Mix:
    """Where the bursts of a level hang, by entry and by row, and which branch carries them; those
    of one group come at once.

    `alone` says which of those of no group pass the converters at `alone_rows`, shape (converters,
    bursts), and `at_once` the same of each group and each converter at `at_once_rows`, where
    `group_of` names the group.
    """

    entries: IntArray
    rows: IntArray
    carried: Carried
    row_carried: Carried
    alone: FloatArray
    alone_rows: list[int]
    at_once: FloatArray
    at_once_rows: list[int]
    group_of: list[Hashable]


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
    reach = layout.below[layout.converters][:, at]
    alone = reach.copy()
    at_once: list[FloatArray] = []
    at_once_rows: list[int] = []
    named: list[Hashable] = []
    for group, loads in groups.items():
        alone[:, loads] = 0.0
        for row, passed in enumerate(reach):
            if passed[loads].any():
                of_it = np.zeros(len(at))
                of_it[loads] = passed[loads]
                at_once.append(of_it)
                at_once_rows.append(row)
                named.append(group)
    alone_rows = np.flatnonzero(alone.any(axis=1)).tolist()
    return _Mix(
        at, rows, carried_by(layout.below, at, together),
        carried_by(layout.row_below, rows, together), alone[alone_rows], alone_rows,
        np.array(at_once).reshape(-1, len(at)), at_once_rows, named,
    )  # fmt: skip


@dataclass(slots=True, frozen=True, eq=False)
class _Level:
    """All trees of one level with their figures, ready to be solved.

    `top_v` is the voltage at the top of each row's tree and `ways` what parts it from the row
    above, wire and rest, each of shape (rows, samples); None where nothing parts any. `efficiency`
    is that of its converters, shape (converters, 1, samples).
    """

    layout: _Layout
    top_v: FloatArray
    ways: tuple[FloatArray, FloatArray] | None
    efficiency: FloatArray


@dataclass(slots=True, frozen=True, eq=False)
class Trees:
    """A forest ready to be solved: its levels, sources first, and where each node and each input of
    a converter is found among their entries.
    """

    levels: list[_Level]
    own: IntArray
    inputs: IntArray | None


def trees_of(nodes: Sequence[Node]) -> Trees:
    """The trees of a forest, parents before children."""
    layouts = _layouts(
        tuple([(n.parent, n.converter == at, n.way is None) for at, n in enumerate(nodes)])
    )
    return Trees(
        [_level(layout, nodes) for layout in layouts.levels], layouts.own, layouts.inputs
    )  # fmt: skip


def _level(layout: _Layout, nodes: Sequence[Node]) -> _Level:
    top_v = np.array([head_v(nodes, place) for place in layout.heads]).take(
        layout.head_rows, axis=0
    )
    ways = None
    if layout.lossy:
        ways = np.zeros(top_v.shape), np.zeros(top_v.shape)
        between = [way for place in layout.lossy if (way := nodes[place].way) is not None]
        ways[0][layout.lossy_rows] = [way.wire_ohm for way in between]
        ways[1][layout.lossy_rows] = [way.rest_ohm for way in between]
    converters = [nodes[place] for place in layout.members[layout.converters].tolist()]
    efficiency = np.array([
        node.piece.compiled.figure(f"rails.{node.name}.efficiency", missing=1.0)
        for node in converters
    ])  # fmt: skip
    return _Level(layout, top_v, ways, efficiency.reshape(len(converters), 1, top_v.shape[1]))


class _Solving:
    """The trees of one level, solved at once: entries by columns, which go state by state."""

    def __init__(self, level: _Level, warm: float, drawn: Drawn, fed: _Fed | None) -> None:
        self._level, self._layout, self._drawn = level, level.layout, drawn
        self._shape = drawn.mean_w.shape[1:]
        # All columns where few are solved, or those in which something bursts.
        self._loud: IntArray | slice = slice(None) if drawn.loud is None else drawn.loud
        self._mix: _Mix | None = None
        layout, states = level.layout, self._shape[0]
        mean_w, mean_a = self._means(fed)
        burst_w, burst_a = self._bursts(fed)
        volts = _in_columns(level.top_v, states)
        self.collapsed = np.zeros(self._shape, dtype=bool)
        mix = self._mix
        if level.ways is not None:
            wire_ohm, rest_ohm = level.ways
            solution = _solved_apart(
                layout.row_below, _in_columns(wire_ohm * warm + rest_ohm, states), volts,
                np.dot(layout.joined, mean_w), np.dot(layout.joined, mean_a),
                None if mix is None else Bursts(burst_w, burst_a, mix.rows, mix.row_carried),
                drawn.loud,
            )  # fmt: skip
            volts, self.collapsed = solution.voltage_v, solution.collapsed.reshape(self._shape)
        self.voltage_v = volts = volts.take(layout.rows, axis=0)
        mean_a += np.divide(mean_w, volts, out=np.zeros(volts.shape), where=volts > 0)
        self.mean_a = np.dot(layout.below, mean_a)
        self.burst_a = np.zeros(volts.shape)
        self._drawn_a = self.burst_a[:0]
        if mix is not None:
            bursts = Bursts(burst_w, burst_a, mix.entries, mix.carried)
            self._drawn_a = bursts.drawn_a(volts[:, self._loud])
            self.burst_a[:, self._loud] = bursts.carried.carried_a(self._drawn_a)

    def _means(self, fed: _Fed | None) -> tuple[FloatArray, FloatArray]:
        """What each entry draws in the mean, those of converters with all behind them. [W], [A]"""
        drawn, members = self._drawn, self._layout.members
        mean_w = drawn.mean_w.take(members, axis=0).reshape(len(members), -1)
        mean_a = drawn.mean_a.take(members, axis=0).reshape(len(members), -1)
        if fed is None:
            return mean_w, mean_a
        none = np.zeros(fed.mean_w.shape)
        return np.concatenate([mean_w, fed.mean_w]), np.concatenate([mean_a, none])

    def _bursts(self, fed: _Fed | None) -> tuple[FloatArray, FloatArray]:
        """Those of the rails and then those of converters, by load, in the columns in which
        something bursts; and who bursts with whom. [W], [A]
        """
        layout, drawn = self._layout, self._drawn
        louder = [place for place in layout.entry_of if drawn.bursting[place]]
        entries = [layout.entry_of[place] for place in louder]
        group_of = [drawn.together.get(place) for place in louder]
        columns = self._shape[0] * self._shape[1]
        power_w = drawn.burst_w.take(louder, axis=0).reshape(-1, columns)[:, self._loud]
        current_a = drawn.burst_a.take(louder, axis=0).reshape(-1, columns)[:, self._loud]
        if fed is not None and fed.rows:
            entries += [len(layout.entry_of) + row for row in fed.rows]
            group_of += fed.group_of
            power_w = np.concatenate([power_w, fed.burst_w])
            current_a = np.concatenate([current_a, np.zeros(fed.burst_w.shape)])
        if entries:
            self._mix = _mix(layout, tuple(entries), tuple(group_of))
        return power_w, current_a

    def inputs(self) -> _Fed:
        """What the converters at the top of these trees draw, output over efficiency."""
        converters, mix = self._layout.converters, self._mix
        volts = self.voltage_v.take(converters, axis=0)
        over = volts.reshape(-1, *self._shape) / self._level.efficiency
        over = over.reshape(volts.shape)
        mean_w = self.mean_a.take(converters, axis=0) * over
        loud_over = over[:, self._loud]
        if mix is None:
            return _Fed(mean_w, loud_over[:0], [], [])
        squares = np.dot(mix.alone, self._drawn_a * self._drawn_a)
        burst_w = np.sqrt(squares) * loud_over.take(mix.alone_rows, axis=0)
        if mix.at_once_rows:
            at_once = np.dot(mix.at_once, self._drawn_a)
            at_once *= loud_over.take(mix.at_once_rows, axis=0)
            burst_w = np.concatenate([burst_w, at_once])
        none: list[Hashable] = [None] * len(mix.alone_rows)
        return _Fed(mean_w, burst_w, mix.alone_rows + mix.at_once_rows, none + mix.group_of)


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
