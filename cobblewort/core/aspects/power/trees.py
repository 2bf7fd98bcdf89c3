"""How a forest is solved, which follows from what hangs on what: laid out once for kits alike.

A level are the trees behind as many converters. What no resistance parts is solved as one row, and
a converter is an entry of two levels: a source in its own, a load in the one above.
"""

from __future__ import annotations

from collections.abc import Hashable, Sequence
from dataclasses import dataclass

import numpy as np

from cobblewort.core.aspects.power.forest import Node, head_v
from cobblewort.core.aspects.power.network import (
    Carried,
    carried_by,
    joining_matrix,
    path_matrix,
)
from cobblewort.core.figures.arrays import FloatArray, IntArray


@dataclass(slots=True, frozen=True, eq=False)
class Layout:
    """How the trees of one level are solved, which follows from what hangs on what alone.

    Its entries are its rails, `members` by their places, and then the inputs of the converters that
    hang on them. What no resistance parts is solved as one row: `rows` are those of the entries.
    `heads` are the places of the nodes at the top of its trees, and `head_rows` for each row which
    of them it hangs on; `lossy` are the places of the nodes whose resistance parts the row at
    `lossy_rows` from the one above. `converters` are the entries of its own converters.
    """

    members: IntArray
    entry_of: dict[int, int]
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
    likewise, but of a converter that of its input.
    """

    levels: list[Layout]
    own: IntArray
    inputs: IntArray


def _layouts(nodes: tuple[tuple[int, bool, bool], ...]) -> _Layouts:
    """That of a forest.

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
    return _Layouts(found[::-1], own, inputs)


def _layout(
    nodes: tuple[tuple[int, bool, bool], ...], members: list[int], leaves: list[int]
) -> Layout:
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
    return Layout(
        np.array(members),
        entry_of,
        np.array(rows),
        heads,
        np.array(head_rows),
        lossy,
        lossy_rows,
        np.array(converters, dtype=int),
        path_matrix(tuple(parents)),
        path_matrix(tuple(row_parents)),
        joining_matrix(tuple(rows)),
    )


@dataclass(slots=True, frozen=True)
class Mix:
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


def mixed(layout: Layout, entries: tuple[int, ...], group_of: tuple[Hashable, ...]) -> Mix:
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
    return Mix(
        at,
        rows,
        carried_by(layout.below, at, together),
        carried_by(layout.row_below, rows, together),
        alone[alone_rows],
        alone_rows,
        np.array(at_once).reshape(-1, len(at)),
        at_once_rows,
        named,
    )


@dataclass(slots=True, frozen=True, eq=False)
class Level:
    """All trees of one level with their figures, ready to be solved.

    `top_v` is the voltage at the top of each row's tree and `ways` what parts it from the row
    above, wire and rest, each of shape (rows, samples); None where nothing parts any. `efficiency`
    is that of its converters, shape (converters, 1, samples).
    """

    layout: Layout
    top_v: FloatArray
    ways: tuple[FloatArray, FloatArray] | None
    efficiency: FloatArray


@dataclass(slots=True, frozen=True, eq=False)
class Trees:
    """A forest ready to be solved: its levels, sources first, and where each node and each input of
    a converter is found among their entries.
    """

    levels: list[Level]
    own: IntArray
    inputs: IntArray


def trees_of(nodes: Sequence[Node]) -> Trees:
    """The trees of a forest, parents before children."""
    layouts = _layouts(
        tuple([(n.parent, n.converter == at, n.way is None) for at, n in enumerate(nodes)])
    )
    return Trees([_level(layout, nodes) for layout in layouts.levels], layouts.own, layouts.inputs)


def _level(layout: Layout, nodes: Sequence[Node]) -> Level:
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
    efficiency = np.array(
        [
            node.item.compiled.figure(f"rails.{node.name}.efficiency", missing=1.0)
            for node in converters
        ]
    )
    return Level(layout, top_v, ways, efficiency.reshape(len(converters), 1, top_v.shape[1]))
