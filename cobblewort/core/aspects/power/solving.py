"""Operating points of a forest with converters in it.

What hangs behind a converter is a tree of its own, with the converter's output voltage for a
source: leads and contacts there drop volts like any other. The deepest trees are solved first; each
is then one load of constant power at its converter's input.
"""

from __future__ import annotations

from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np

from cobblewort.core.aspects.power.network import Bursts, Solution, over_volts, solve
from cobblewort.core.aspects.power.trees import Level, Trees, mixed
from cobblewort.core.figures.arrays import BoolArray, FloatArray, IntArray
from cobblewort.core.standards.conductors import warm_factor

_FEW_COLUMNS = 64


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
class Points:
    """Operating points at one place of each node, shape (nodes, states, samples): picked where
    somebody looks, of the `entries` of all levels, by columns.
    """

    places: IntArray
    entries: tuple[FloatArray, FloatArray, FloatArray]
    shape: tuple[int, ...]

    @cached_property
    def voltage_v(self) -> FloatArray:
        """What is there. [V]"""
        return self._at_places(self.entries[0])

    @cached_property
    def mean_a(self) -> FloatArray:
        """What passes in the mean. [A]"""
        return self._at_places(self.entries[1])

    @cached_property
    def burst_a(self) -> FloatArray:
        """What passes beyond that for a moment. [A]"""
        return self._at_places(self.entries[2])

    @cached_property
    def current_a(self) -> FloatArray:
        """Both together. [A]"""
        return self._at_places(self.entries[1] + self.entries[2])

    def _at_places(self, values: FloatArray) -> FloatArray:
        return values.take(self.places, axis=0).reshape(len(self.places), *self.shape)


@dataclass(slots=True)
class Solved:
    """Operating points: what each rail carries at its own voltage, and what it draws from the rail
    above; they differ at converters. `collapsed` is of shape (states, samples).
    """

    rails: Points
    inputs: Points
    collapsed: BoolArray


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


@dataclass(slots=True, frozen=True)
class Loaded:
    """A level with what hangs on its own rails, whatever the voltages: entries by columns, which go
    state by state.

    Bursts are there in the columns in which something does, one row a load, with the entry and the
    group of each. `ways` are wire and rest of `Level.ways`. [V], [W], [A], [ohm]
    """

    level: Level
    shape: tuple[int, int]
    top_v: FloatArray
    ways: tuple[FloatArray, FloatArray] | None
    mean_w: FloatArray
    mean_a: FloatArray
    burst_w: FloatArray
    burst_a: FloatArray
    entries: list[int]
    group_of: list[Hashable]
    loud: IntArray | None

    @classmethod
    def of(cls, level: Level, drawn: Drawn) -> Loaded:
        """One level."""
        layout, (_, states, samples) = level.layout, drawn.mean_w.shape
        columns = states * samples
        louder = [place for place in layout.entry_of if drawn.bursting[place]]
        burst_w = drawn.burst_w.take(louder, axis=0).reshape(-1, columns)
        burst_a = drawn.burst_a.take(louder, axis=0).reshape(-1, columns)
        if drawn.loud is not None:
            burst_w, burst_a = burst_w[:, drawn.loud], burst_a[:, drawn.loud]
        ways = level.ways
        return cls(
            level,
            (states, samples),
            _in_columns(level.top_v, states),
            None if ways is None else (_in_columns(ways[0], states), _in_columns(ways[1], states)),
            drawn.mean_w.take(layout.members, axis=0).reshape(-1, columns),
            drawn.mean_a.take(layout.members, axis=0).reshape(-1, columns),
            burst_w,
            burst_a,
            [layout.entry_of[place] for place in louder],
            [drawn.together.get(place) for place in louder],
            drawn.loud,
        )


def solve_forest(
    trees: Trees, loaded: Sequence[Loaded], wire_c: float, shape: tuple[int, int]
) -> Solved:
    """Solve every tree in every state: equations (1) and (2) of docs/model.md, level by level.

    A converter's subtree is solved before the tree it hangs on, as it draws what it delivers over
    its efficiency. Good for direct current in steady states; below half of the source's voltage a
    load of constant power has no stable operating point, which is told as a collapse.

    Parameters
    ----------
    trees : Trees
        What `trees_of` made of the nodes.
    loaded : sequence of Loaded
        Its levels with what hangs on them.
    wire_c : float
        How warm the wires are. [°C]
    shape : tuple of int
        States and samples.

    References
    ----------
    .. [1] Shirmohammadi et al., IEEE Transactions on Power Systems 3 (1988), 753 (from memory).
    .. [2] JCGM 100:2008, 5.1.2: independent excursions add in squares.
    """
    warm, fed = warm_factor(wire_c), None
    solved: list[_Solving] = []
    for level in reversed(loaded):
        at = _Solving(level, warm, fed)
        fed = at.inputs() if level.level.layout.converters.size else None
        solved.append(at)
    lost = np.zeros(shape[0] * shape[1], dtype=bool)
    for at in solved:
        if at.collapsed is not None:
            lost |= at.collapsed
    none = np.zeros((0, lost.size))
    volts = np.concatenate([none, *(at.voltage_v for at in solved)])
    if lost.any():
        volts[:, lost] = 0.0
    entries = (
        volts,
        np.concatenate([none, *(at.mean_a for at in solved)]),
        np.concatenate([none, *(at.burst_a for at in solved)]),
    )
    return Solved(
        Points(trees.own, entries, shape),
        Points(trees.inputs, entries, shape),
        lost.reshape(shape),
    )


class _Solving:
    """The trees of one level, solved at once. `collapsed` has shape (columns,); None where nothing
    lies between its rails.
    """

    def __init__(self, at: Loaded, warm: float, fed: _Fed | None) -> None:
        self._loaded, self._layout = at, at.level.layout
        layout, volts, mean_w, mean_a = self._layout, at.top_v, at.mean_w, at.mean_a
        burst_w, burst_a, entries, group_of = at.burst_w, at.burst_a, at.entries, at.group_of
        if fed is not None:  # its converters come after its rails
            mean_w = np.concatenate([mean_w, fed.mean_w])
            mean_a = np.concatenate([mean_a, np.zeros(fed.mean_w.shape)])
            if fed.rows:
                entries = entries + [len(layout.entry_of) + row for row in fed.rows]
                group_of = group_of + fed.group_of
                burst_w = np.concatenate([burst_w, fed.burst_w])
                burst_a = np.concatenate([burst_a, np.zeros(fed.burst_w.shape)])
        self._mix = mix = mixed(layout, tuple(entries), tuple(group_of)) if entries else None
        # All columns where few are solved, or those in which something bursts.
        self._loud: IntArray | slice = slice(None) if at.loud is None else at.loud
        self.collapsed: BoolArray | None = None
        if at.ways is not None:
            wire_ohm, rest_ohm = at.ways
            solution = _solved_apart(
                layout.row_below,
                wire_ohm * warm + rest_ohm,
                volts,
                np.dot(layout.joined, mean_w),
                np.dot(layout.joined, mean_a),
                None if mix is None else Bursts(burst_w, burst_a, mix.rows, mix.row_carried),
                at.loud,
            )
            volts, self.collapsed = solution.voltage_v, solution.collapsed
        self.voltage_v = volts = volts.take(layout.rows, axis=0)
        some_lost = self.collapsed is not None and bool(self.collapsed.any())
        drawn_a = over_volts(mean_w, volts, some_lost)
        drawn_a += mean_a
        self.mean_a = np.dot(layout.below, drawn_a)
        self.burst_a = np.zeros(volts.shape)
        self._drawn_a = self.burst_a[:0]
        if mix is not None:
            bursts = Bursts(burst_w, burst_a, mix.entries, mix.carried)
            self._drawn_a = bursts.drawn_a(volts[:, self._loud], some_lost)
            self.burst_a[:, self._loud] = bursts.carried.carried_a(self._drawn_a)

    def inputs(self) -> _Fed:
        """What the converters at the top of these trees draw, output over efficiency."""
        converters, mix = self._layout.converters, self._mix
        volts = self.voltage_v.take(converters, axis=0)
        over = volts.reshape(-1, *self._loaded.shape) / self._loaded.level.efficiency
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
    below: FloatArray,
    resistance_ohm: FloatArray,
    source_v: FloatArray,
    power_w: FloatArray,
    current_a: FloatArray,
    bursts: Bursts | None,
    loud: IntArray | None,
) -> Solution:
    """Solve a network, columns in which something bursts apart from those in which nothing does."""
    columns = source_v.shape[1]
    if bursts is None or loud is None or loud.size == columns:
        return solve(below, resistance_ohm, source_v, power_w, current_a, bursts)
    quiet = np.delete(np.arange(columns), loud)
    voltage, collapsed = np.empty_like(source_v), np.empty(columns, dtype=bool)
    for some, at_once in ((quiet, None), (loud, bursts)):
        found = solve(
            below,
            resistance_ohm[:, some],
            source_v[:, some],
            power_w[:, some],
            current_a[:, some],
            at_once,
        )
        voltage[:, some], collapsed[some] = found.voltage_v, found.collapsed
    return Solution(voltage, collapsed)


def _in_columns(values: FloatArray, states: int) -> FloatArray:
    """Values by row and sample, repeated for every state, in columns."""
    if values.shape[1] == 1:
        return values.repeat(states, axis=1)
    return values[:, np.newaxis].repeat(states, axis=1).reshape(len(values), -1)
