"""Radial DC networks: backward/forward sweep by path matrices.

Every node hangs on one parent through a resistance, down from a source. With `below[i, j]` 1
where node j lies at or below node i, a sweep is two products: branch currents are `below @ load`,
voltages are the source's less `below.T @ (resistance * branch current)`.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cobblewort.core.arrays import BoolArray, FloatArray

TOLERANCE_V = 1e-6
MAX_SWEEPS = 400
_FLOOR_SHARE = 0.05


@dataclass(slots=True, frozen=True)
class Solution:
    """Operating points. Arrays are (nodes, columns); `collapsed` is (columns,).

    Where a column is collapsed there is no operating point: its voltages are zero and its currents
    those that the constant-current loads alone would draw.
    """

    voltage_v: FloatArray
    current_a: FloatArray
    collapsed: BoolArray


def path_matrix(parents: list[int]) -> FloatArray:
    """`below[i, j]` is 1 where node j is node i or hangs below it.

    Parameters
    ----------
    parents : list of int
        Parent of each node, -1 for a root. Parents may stand anywhere in the list.
    """
    size = len(parents)
    below = np.zeros((size, size))
    for node in range(size):
        above = node
        while above >= 0:
            below[above, node] = 1.0
            above = parents[above]
    return below


def solve(
    below: FloatArray,
    resistance_ohm: FloatArray,
    source_v: FloatArray,
    power_w: FloatArray,
    current_a: FloatArray,
) -> Solution:
    """Voltages and branch currents of a forest with constant-power and constant-current loads.

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
    voltage = source_v.copy()
    collapsed = np.zeros(columns, dtype=bool)
    active = np.arange(columns)
    above = below.T
    floor = _FLOOR_SHARE * source_v
    resistance, source, power, current = resistance_ohm, source_v, power_w, current_a
    moving = voltage
    for sweep in range(MAX_SWEEPS):
        new = source - above @ (resistance * (below @ (power / moving + current)))
        step = np.abs(new - moving)
        moving = new
        fell = bool((new < floor).any())
        if not fell and step.max() < TOLERANCE_V:
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
            if not active.size:
                break
    collapsed[active] = True
    if not collapsed.any():
        return Solution(voltage, below @ (power_w / voltage + current_a), collapsed)
    voltage[:, collapsed] = 0.0
    by_power = np.divide(power_w, voltage, out=np.zeros_like(voltage), where=voltage > 0)
    return Solution(voltage, below @ (by_power + current_a), collapsed)
