"""Operating points of a forest with converters in it.

What hangs behind a converter is a tree of its own, with the converter's output voltage for a
source: leads and contacts there drop volts like any other. The deepest trees are solved first; each
is then one load of constant power at its converter's input.
"""

from __future__ import annotations

from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from cobblewort.core.aspects.power.forest import Node
from cobblewort.core.aspects.power.network import (
    Bursts,
    Solution,
    joining_matrix,
    path_matrix,
    solve,
)
from cobblewort.core.figures.arrays import BoolArray, FloatArray, IntArray

_FEW_COLUMNS = 64


@dataclass(slots=True)
class Drawn:
    """What hangs on each rail itself, shape (nodes, states, samples): means in watts and in
    amperes, and what is drawn beyond them for a moment.

    `together` names the groups of rails that peak in the same instant, by place.
    """

    mean_w: FloatArray
    mean_a: FloatArray
    burst_w: FloatArray
    burst_a: FloatArray
    together: Mapping[int, Hashable]


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


def solve_forest(nodes: Sequence[Node], set_v: Mapping[int, FloatArray], drawn: Drawn) -> Solved:
    """Solve every tree in every state.

    Parameters
    ----------
    nodes : sequence of Node
        Parents before children.
    set_v : mapping
        The voltage of each source by the place of its node, shape (samples,). [V]
    drawn : Drawn
        What hangs on the rails.
    """
    size = drawn.mean_w.shape
    voltage, mean, burst = np.zeros(size), np.zeros(size), np.zeros(size)
    lost = np.zeros(size[1:], dtype=bool)
    by_state = np.any(drawn.burst_w + drawn.burst_a, axis=2)
    bursting: list[bool] = by_state.any(axis=1).tolist()
    # In few states anything bursts; columns go state by state, and few are solved all alike.
    loud = np.arange(size[1] * size[2])
    if loud.size > _FEW_COLUMNS:
        loud = np.flatnonzero(by_state.any(axis=0).repeat(size[2]))
    depth = _depths(nodes)
    converters = [place for place, node in enumerate(nodes) if node.converter == place]
    at_inputs: list[tuple[list[int], FloatArray, FloatArray, FloatArray]] = []
    fed: dict[int, _Input] = {}
    for level in range(max(depth), -1, -1):
        members = [place for place in range(len(nodes)) if depth[place] == level]
        leaves = [place for place in converters if depth[place] == level + 1]
        trees = _Level(nodes, members, leaves, set_v, drawn, bursting, loud, fed)
        lost |= trees.collapsed
        count = len(members)
        voltage[members], mean[members] = trees.voltage_v[:count], trees.mean_a[:count]
        burst[members] = trees.burst_a[:count]
        if leaves:
            at_inputs.append(
                (leaves, trees.voltage_v[count:], trees.mean_a[count:], trees.burst_a[count:])
            )
        if level:
            fed = trees.inputs()
    if lost.any():
        voltage[:, lost] = 0.0
    if not converters:
        return Solved(voltage, mean, burst, voltage, mean, burst, lost)
    input_v, input_mean, input_burst = voltage.copy(), mean.copy(), burst.copy()
    for leaves, volts, mean_a, burst_a in at_inputs:
        input_v[leaves], input_mean[leaves], input_burst[leaves] = volts, mean_a, burst_a
    return Solved(voltage, mean, burst, input_v, input_mean, input_burst, lost)


def _depths(nodes: Sequence[Node]) -> list[int]:
    """How many converters lie between a node and its source, itself included."""
    depths: list[int] = []
    for place, node in enumerate(nodes):
        above = depths[node.parent] if node.parent >= 0 else 0
        depths.append(above + (node.converter == place))
    return depths


class _Rows:
    """The entries of one level, and the rows they are solved as: what no resistance parts is one.

    `parents` are of each entry the one it hangs on, `rows` its row; the rest is by row.
    """

    def __init__(
        self, nodes: Sequence[Node], members: list[int], leaves: list[int],
        set_v: Mapping[int, FloatArray], samples: int,
    ) -> None:  # fmt: skip
        self.entry_of = {place: entry for entry, place in enumerate(members)}
        self.parents: list[int] = []
        self.rows: list[int] = []
        self.row_parents: list[int] = []
        self.resistance_ohm: list[FloatArray] = []
        self.source_v: list[FloatArray] = []
        nothing = np.zeros(samples)
        for place in (*members, *leaves):
            node, is_head = nodes[place], False
            if len(self.parents) < len(members):
                is_head = node.parent < 0 or node.converter == place
            above = -1 if is_head else self.entry_of[node.parent]
            self.parents.append(above)
            ohm = nothing if is_head else node.resistance_ohm
            if ohm is None:
                self.rows.append(self.rows[above])
                continue
            head_v = _head_v(node, place, set_v) if is_head else self.source_v[self.rows[above]]
            self.rows.append(len(self.row_parents))
            self.row_parents.append(-1 if is_head else self.rows[above])
            self.resistance_ohm.append(ohm)
            self.source_v.append(head_v)


class _Level:
    """All trees of one level, solved at once.

    Its entries are its rails, `members` by their places, and then the inputs of the converters that
    hang on them.
    """

    def __init__(
        self, nodes: Sequence[Node], members: list[int], leaves: list[int],
        set_v: Mapping[int, FloatArray], drawn: Drawn, bursting: Sequence[bool], loud: IntArray,
        fed: Mapping[int, _Input],
    ) -> None:  # fmt: skip
        shape = drawn.mean_w.shape[1:]
        self._nodes, self._members, self._shape = nodes, members, shape
        columns = shape[0] * shape[1]
        joined = _Rows(nodes, members, leaves, set_v, shape[1])
        parents, rows = joined.parents, joined.rows
        mean_w, mean_a = np.zeros((len(parents), columns)), np.zeros((len(parents), columns))
        mean_w[: len(members)] = drawn.mean_w[members].reshape(-1, columns)
        mean_a[: len(members)] = drawn.mean_a[members].reshape(-1, columns)
        self._loud = loud
        louder = [place for place in members if bursting[place]]
        self._entries = [joined.entry_of[place] for place in louder]
        self._group_of = [drawn.together.get(place) for place in louder]
        passed_on: list[FloatArray] = []
        for entry, place in enumerate(leaves, len(members)):
            mean_w[entry] = fed[place].mean_w
            for watts, group in fed[place].bursts:
                self._entries.append(entry)
                self._group_of.append(group)
                passed_on.append(watts)
        bursts = self._bursts(drawn, louder, passed_on)
        volts = _in_columns(joined.source_v, shape[0])
        self.collapsed = np.zeros(shape, dtype=bool)
        if len(joined.row_parents) > sum(parent < 0 for parent in joined.row_parents):
            summed = joining_matrix(tuple(rows))
            solution = _solved_apart(
                path_matrix(tuple(joined.row_parents)),
                _in_columns(joined.resistance_ohm, shape[0]), volts,
                summed @ mean_w, summed @ mean_a,
                None if bursts is None else bursts.at(np.array(rows)), loud,
            )  # fmt: skip
            volts, self.collapsed = solution.voltage_v, solution.collapsed.reshape(shape)
        self._volts = volts[rows]
        self._below = path_matrix(tuple(parents))
        if self.collapsed.any():
            mean_a += np.divide(
                mean_w, self._volts, out=np.zeros_like(mean_w), where=self._volts > 0
            )
        else:
            mean_a += mean_w / self._volts
        self._mean_a = self._below @ mean_a
        carried_a = np.zeros_like(self._mean_a)
        if bursts is not None:
            self._drawn_a = bursts.drawn_a(self._volts[:, loud])
            carried_a[:, loud] = bursts.over(self._below).carried_a(self._drawn_a)
        self.voltage_v, self.mean_a, self.burst_a = (
            values.reshape(-1, *shape) for values in (self._volts, self._mean_a, carried_a)
        )

    def _groups(self) -> dict[Hashable, list[int]]:
        """Bursts that come together, by their group."""
        found: dict[Hashable, list[int]] = {}
        for row, group in enumerate(self._group_of):
            if group is not None:
                found.setdefault(group, []).append(row)
        return found

    def _bursts(
        self, drawn: Drawn, louder: list[int], passed_on: list[FloatArray]
    ) -> Bursts | None:
        """Those of the rails at `louder` and those of converters, in the order of the entries."""
        if not self._entries:
            return None
        columns = self._shape[0] * self._shape[1]
        power_w = drawn.burst_w[louder].reshape(-1, columns)[:, self._loud]
        current_a = drawn.burst_a[louder].reshape(-1, columns)[:, self._loud]
        if passed_on:
            power_w = np.concatenate([power_w, passed_on])
            current_a = np.concatenate([current_a, np.zeros((len(passed_on), self._loud.size))])
        together = tuple(tuple(rows) for rows in self._groups().values() if len(rows) > 1)
        return Bursts(power_w, current_a, np.array(self._entries), together)

    def inputs(self) -> dict[int, _Input]:
        """What the converters at the top of these trees draw, output over efficiency."""
        found = {}
        for entry, place in enumerate(self._members):
            node = self._nodes[place]
            if node.converter != place:
                continue
            efficiency = node.piece.compiled.figure(f"rails.{node.name}.efficiency", missing=1.0)
            over = self._volts[entry] / np.tile(efficiency, self._shape[0])
            bursts = self._bursts_into(entry, over[self._loud])
            found[place] = _Input(self._mean_a[entry] * over, bursts)
        return found

    def _bursts_into(self, entry: int, over: FloatArray) -> list[tuple[FloatArray, Hashable]]:
        """What bursts below an entry, times volts over efficiency: apart from groups as one."""
        below = self._below[entry]
        inside = [row for row, at in enumerate(self._entries) if below[at]]
        if not inside:
            return []
        found: list[tuple[FloatArray, Hashable]] = []
        alone = [row for row in inside if self._group_of[row] is None]
        if alone:
            squares = self._drawn_a[alone] ** 2
            found.append((np.sqrt(squares.sum(axis=0)) * over, None))
        for group, rows in self._groups().items():
            members = [row for row in rows if row in inside]
            if members:
                found.append((self._drawn_a[members].sum(axis=0) * over, group))
        return found


def _solved_apart(
    below: FloatArray, resistance_ohm: FloatArray, source_v: FloatArray, power_w: FloatArray,
    current_a: FloatArray, bursts: Bursts | None, loud: IntArray,
) -> Solution:  # fmt: skip
    """Solve a network, columns in which something bursts apart from those in which nothing does."""
    columns = source_v.shape[1]
    if bursts is None or loud.size == columns:
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


def _head_v(node: Node, place: int, set_v: Mapping[int, FloatArray]) -> FloatArray:
    """The voltage at the top of a tree: that of a source, or of a converter's output. [V]"""
    if node.parent < 0:
        return set_v[place]
    return node.piece.compiled.figure(f"rails.{node.name}.out_v")


def _in_columns(values: Sequence[FloatArray], states: int) -> FloatArray:
    """Values by row and sample, repeated for every state, in columns."""
    apart = np.array(values)[:, np.newaxis]
    return apart.repeat(states, axis=1).reshape(len(values), -1)
