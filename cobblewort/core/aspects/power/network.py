"""Radial DC networks: backward/forward sweep by path matrices.

Every node hangs on one parent through a resistance, down from a source. With `below[i, j]` 1
where node j lies at or below node i, a sweep is two products: branch currents are `below @ load`,
voltages are the source's less `below.T @ (resistance * branch current)`.

Independent loads do not peak in the same instant: what they draw beyond their means adds up in
squares on each branch (JCGM 100:2008, 5.1.2), so that such currents do not add up at a node.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from cobblewort.core.figures.arrays import BoolArray, FloatArray, IntArray

TOLERANCE_V = 1e-6
MAX_SWEEPS = 400
_UNLOOKED_SWEEPS = 3
"""After so few the voltage still moves, but in a network without load."""
_FLOOR_SHARE = 0.05
_MOST_COLUMNS = 256
"""Columns solved at a time: what is worked on stays in the processor's cache."""


@dataclass(slots=True)
class Solution:
    """Operating points: voltages of shape (nodes, columns), `collapsed` of shape (columns,).

    Where a column is collapsed there is no operating point, and its voltages are zero.
    """

    voltage_v: FloatArray
    collapsed: BoolArray


@dataclass(slots=True, frozen=True)
class Carried:
    """Which branch of a forest carries which burst, shape (nodes, loads): those that come one by
    one, and the members of each group that comes at once.
    """

    alone: FloatArray
    groups: list[tuple[IntArray, FloatArray]]

    def carried_a(self, drawn_a: FloatArray) -> FloatArray:
        """What bursts come to on each branch, in squares, shape (nodes, columns). [A]"""
        total = np.dot(self.alone, drawn_a * drawn_a)
        for members, reach in self.groups:
            at_once = np.dot(reach, drawn_a.take(members, axis=0))
            total += at_once * at_once
        root: FloatArray = np.sqrt(total, out=total)
        return root


def carried_by(
    below: FloatArray, nodes: IntArray, together: Iterable[Sequence[int]] = ()
) -> Carried:
    """Which branch carries which burst of loads at `nodes`, by the path matrix of a forest.

    `together` holds groups of loads that peak in the same instant, by their place among them.
    """
    groups = [np.array(group) for group in together]
    reach = below[:, nodes]
    alone = reach
    if groups:
        alone = reach.copy()
        alone[:, np.concatenate(groups)] = 0.0
    return Carried(alone, [(members, reach[:, members]) for members in groups])


@dataclass(slots=True)
class Bursts:
    """What loads draw beyond their means for a moment, one row a load.

    `power_w` and `current_a` have shape (loads, columns); `nodes` says where each load hangs, and
    `carried` which branch carries it.
    """

    power_w: FloatArray
    current_a: FloatArray
    nodes: IntArray
    carried: Carried

    def columns(self, picked: Any) -> Bursts:
        """Some of the columns."""
        return Bursts(self.power_w[:, picked], self.current_a[:, picked], self.nodes, self.carried)

    def drawn_a(self, voltage_v: FloatArray, some_lost: bool) -> FloatArray:
        """Each burst at its node's voltage, nothing where that is lost, shape (loads, columns)."""
        drawn_a = over_volts(self.power_w, voltage_v.take(self.nodes, axis=0), some_lost)
        drawn_a += self.current_a
        return drawn_a

    def carried_a(self, voltage_v: FloatArray) -> FloatArray:
        """What they come to on each branch at such voltages, none of them lost, shape of
        `voltage_v`. [A]
        """
        drawn_a = self.power_w / voltage_v.take(self.nodes, axis=0)
        drawn_a += self.current_a
        return self.carried.carried_a(drawn_a)


def over_volts(power_w: FloatArray, voltage_v: FloatArray, some_lost: bool) -> FloatArray:
    """The current of a power, I = P / V; none where the voltage is lost, as it may be. [A]"""
    if not some_lost:
        return power_w / voltage_v
    none = np.zeros(voltage_v.shape)
    current_a: FloatArray = np.divide(power_w, voltage_v, out=none, where=voltage_v > 0)
    return current_a


def loads_a(solution: Solution, power_w: FloatArray, current_a: FloatArray) -> FloatArray:
    """What the loads at each node draw, I = P / V and constant currents, shape of `power_w`. [A]

    In a collapsed column only the constant currents are left.
    """
    voltage_v = solution.voltage_v.reshape(power_w.shape)
    return over_volts(power_w, voltage_v, bool(solution.collapsed.any())) + current_a


def path_matrix(parents: tuple[int, ...]) -> FloatArray:
    """`below[i, j]` is 1 where node j is node i or hangs below it.

    Parameters
    ----------
    parents : tuple of int
        Parent of each node, -1 for a root. A parent stands before what hangs on it.
    """
    above = np.eye(len(parents))
    rows = list(above)
    for node, parent in enumerate(parents):
        if parent >= 0:
            rows[node] += rows[parent]
    above.setflags(write=False)
    return above.T


def joining_matrix(rows: tuple[int, ...]) -> FloatArray:
    """`joined[i, j]` is 1 where node j is part of row i; a node at -1 is part of none."""
    joined = np.zeros((max(rows) + 1, len(rows)))
    for node, row in enumerate(rows):
        if row >= 0:
            joined[row, node] = 1.0
    joined.setflags(write=False)
    return joined


def solve(
    below: FloatArray,
    resistance_ohm: FloatArray,
    source_v: FloatArray,
    power_w: FloatArray,
    current_a: FloatArray,
    bursts: Bursts | None = None,
) -> Solution:
    """Voltages of a forest with constant-power and constant-current loads.

    Parameters
    ----------
    below : ndarray, shape (nodes, nodes)
        Path matrix of `path_matrix`.
    resistance_ohm : ndarray, shape (nodes, columns)
        Loop resistance between a node and its parent, not negative. [ohm]
    source_v : ndarray, shape (nodes, columns)
        Voltage of the source at the top of each node's tree. [V]
    power_w, current_a : ndarray, shape (nodes, columns)
        Loads at each node, not negative. [W], [A]
    bursts : Bursts, optional
        What some draw beyond that for a moment.

    Returns
    -------
    Solution
        On the upper branch, the stable one, to 1e-6 V.

    Notes
    -----
    The sweep starts at the source voltage and falls towards the upper root. A column whose voltage
    is still moving after `MAX_SWEEPS`, or falls through 5 % of its source, has none.
    """
    columns = power_w.shape[1]
    if columns > _MOST_COLUMNS:
        slices = [slice(at, at + _MOST_COLUMNS) for at in range(0, columns, _MOST_COLUMNS)]
        parts = [
            solve(
                below,
                resistance_ohm[:, some],
                source_v[:, some],
                power_w[:, some],
                current_a[:, some],
                None if bursts is None else bursts.columns(some),
            )
            for some in slices
        ]
        return Solution(
            np.concatenate([part.voltage_v for part in parts], axis=1),
            np.concatenate([part.collapsed for part in parts]),
        )
    voltage, collapsed = np.zeros(source_v.shape), np.zeros(columns, dtype=bool)
    active, above, floor = np.arange(columns), below.T, _FLOOR_SHARE * source_v
    highest_floor, any_amps = floor.max(), bool(current_a.any())
    resistance, source, power, current = resistance_ohm, source_v, power_w, current_a
    moving = source_v
    for sweep in range(MAX_SWEEPS):
        load = power / moving
        if any_amps:
            load += current
        branch = np.dot(below, load)
        if bursts is not None:
            branch += bursts.carried_a(moving)
        branch *= resistance
        new = source - np.dot(above, branch)
        fell = bool(new.min() < highest_floor and (new < floor).any())
        if sweep < _UNLOOKED_SWEEPS and not fell:
            moving = new
            continue
        step, moving = np.abs(new - moving), new
        if not fell and step.max() < TOLERANCE_V:
            if active.size == columns:  # the usual case needs no picking of columns
                return Solution(moving, collapsed)
            voltage[:, active] = moving
            active = active[:0]
            break
        if fell or sweep % 8 == 7:  # go on with the columns that still move
            dead = (new < floor).any(axis=0)
            settled = (step.max(axis=0) < TOLERANCE_V) & ~dead
            voltage[:, active[settled]] = moving[:, settled]
            collapsed[active[dead]] = True
            keep = ~(settled | dead)
            active, moving = active[keep], moving[:, keep]
            resistance, source, floor = resistance[:, keep], source[:, keep], floor[:, keep]
            power, current = power[:, keep], current[:, keep]
            bursts = None if bursts is None else bursts.columns(keep)
            if not active.size:
                break
    collapsed[active] = True
    return Solution(voltage, collapsed)
