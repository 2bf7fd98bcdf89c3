"""The forest of a plan: which rail hangs on which, and what each draws in each state."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np

from cobblewort.core.aspects.fit.assign import Assignment, PlugRef, SocketRef
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.power.network import (
    Solution,
    joining_matrix,
    loads_a,
    path_matrix,
    solve,
)
from cobblewort.core.figures.arrays import BoolArray, FloatArray, IntArray
from cobblewort.core.judging.kit import Kit, derived
from cobblewort.core.judging.piece import Piece
from cobblewort.core.judging.states import LookedAt, State, looked_at, states_of
from cobblewort.core.parts.compiled import DRAWS
from cobblewort.core.parts.model import Rail
from cobblewort.core.plans.plan import Activity, Plan
from cobblewort.core.standards import conductors, usb


@dataclass(slots=True)
class Node:
    """A rail of one piece, with what it hangs on.

    `converter` marks a rail behind a regulator: it and all below it have its voltage, and what it
    delivers is drawn from its parent over its efficiency.
    """

    id: str
    piece: Piece
    name: str
    rail: Rail
    parent: int
    via: str
    resistance_ohm: FloatArray | None
    socket: SocketRef | None
    root: int = -1
    converter: int = -1


@dataclass
class PowerResult:
    """Voltages and currents of every fed rail, shape (nodes, states, samples).

    `current_a` is what a rail carries at its own voltage, `input_a` what it draws from the rail
    above it; they differ at converters.
    `announced_a` is the current that the path from source to a board's inlet lets through. `rows`
    are those of its tables that each line draws, by state. `limits` are the states that limits look
    at, and the `limit_` fields hold those alone; `means` are those for heat. `stands` says that
    every state has an operating point at nominal figures.
    """

    states: list[State]
    nodes: list[Node]
    voltage_v: FloatArray
    current_a: FloatArray
    input_a: FloatArray
    collapsed: BoolArray
    announced_a: dict[str, float]
    unfed: list[Piece]
    rows: dict[str, IntArray]
    limits: LookedAt = field(init=False)
    means: LookedAt = field(init=False)
    limit_voltage_v: FloatArray = field(init=False)
    limit_current_a: FloatArray = field(init=False)
    stands: bool = field(init=False)

    def __post_init__(self) -> None:
        """Pick what limits look at once, as many rules ask for it."""
        self.limits, self.means = looked_at(tuple(self.states))
        self.limit_voltage_v = self.voltage_v[:, self.limits.places]
        self.limit_current_a = self.current_a[:, self.limits.places]
        self.stands = bool(self.nodes) and not bool(self.collapsed[:, 0].any())

    def feeds_every_board(self) -> bool:
        """Whether there is a supply to speak of: it stands, and every board hangs on it."""
        lost = any(piece.part.kind == "board" for piece in self.unfed)
        return bool(self.nodes) and not lost and not self.collapsed[self.limits.places, 0].any()

    @cached_property
    def carries(self) -> list[bool]:
        """For each node whether anything is drawn through it in any state."""
        carries: list[bool] = np.any(self.current_a, axis=(1, 2)).tolist()
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

    @cached_property
    def children(self) -> list[list[int]]:
        """For each node the places of those that hang on it."""
        found: list[list[int]] = [[] for _ in self.nodes]
        for place, node in enumerate(self.nodes):
            if node.parent >= 0:
                found[node.parent].append(place)
        return found

    def lines_above(self, place: int) -> tuple[str, ...]:
        """The line of a node and those that it hangs on, up to the source, each once."""
        found: dict[str, None] = {}
        while place >= 0:
            found[self.nodes[place].piece.line.id] = None
            place = self.nodes[place].parent
        return tuple(found)

    def out_of_sources(self) -> tuple[FloatArray, FloatArray]:
        """Currents and watts out of all sources by limit state, at nominal figures. [A], [W]"""
        roots = [place for place, node in enumerate(self.nodes) if node.parent < 0]
        amps = self.limit_current_a[roots, :, 0]
        return amps.sum(axis=0), (amps * self.limit_voltage_v[roots, :, 0]).sum(axis=0)

    def index(self, node_id: str) -> int | None:
        """The place of a node in the arrays, or None when nothing feeds it."""
        return self._places.get(node_id)

    @cached_property
    def _places(self) -> dict[str, int]:
        return {node.id: place for place, node in enumerate(self.nodes)}


_ROW = {name: number for number, name in enumerate(DRAWS)}
_IN_PHASE: dict[Activity, tuple[int, int]] = {
    "off": (_ROW["off"], _ROW["off"]),
    "idle": (_ROW["idle"], _ROW["idle"]),
    "light": (_ROW["light"], _ROW["working"]),
    "working": (_ROW["working"], _ROW["peak"]),
    "full": (_ROW["peak"], _ROW["peak"]),
}
"""Rows of a load's table by activity: its mean, and the peak that limits see."""
_OUTSIDE_PHASES = {"idle": _ROW["idle"], "all": _ROW["peak"], "start": _ROW["start"]}


def _draw_rows(plan: Plan, states: list[State], line: str) -> list[int]:
    """Which row of its tables a line draws in each state.

    In a phase the limits see the peak of what works then, and heat its mean.
    """
    rows = []
    for state in states:
        if state.phase is None:
            rows.append(_OUTSIDE_PHASES[state.id])
        else:
            phase = plan.duty[state.phase]
            mean, peak = _IN_PHASE[phase.lines.get(line, phase.activity)]
            rows.append(mean if state.mean else peak)
    return rows


def _rows_by_line(plan: Plan, pieces: Sequence[Piece], states: list[State]) -> dict[str, IntArray]:
    """`_draw_rows` of every line; those of which no phase says anything share one array."""
    alike = np.array(_draw_rows(plan, states, ""))
    rows = dict.fromkeys((piece.line.id for piece in pieces), alike)
    for phase in plan.duty:
        for line in phase.lines:
            if rows.get(line) is alike:
                rows[line] = np.array(_draw_rows(plan, states, line))
    return rows


def build_power(
    plan: Plan, pieces: Sequence[Piece], assignment: Assignment, samples: int
) -> PowerResult:
    """Join the rails of the kit into trees and solve them in every state."""
    states = states_of(plan)
    rows = _rows_by_line(plan, pieces, states)
    nodes, unfed = _fed_nodes(pieces, assignment, plan.place.ambient_max_c)
    if not nodes:
        empty = np.zeros((0, len(states), samples))
        none = np.zeros((len(states), samples), dtype=bool)
        return PowerResult(states, [], empty, empty, empty, none, {}, unfed, rows)
    power_w, current_a, in_amps = _loads(nodes, rows, (len(nodes), len(states), samples))
    voltage, current, drawn, collapsed = _solve(nodes, power_w, current_a, in_amps)
    announced = {
        node.piece.id: _announced_a(nodes, place)
        for place, node in enumerate(nodes)
        if node.socket is not None
        and node.socket.socket.role == "power_in"
        and node.piece.part.kind == "board"
    }
    return PowerResult(states, nodes, voltage, current, drawn, collapsed, announced, unfed, rows)


def _loads(
    nodes: list[Node], rows: dict[str, IntArray], shape: tuple[int, int, int]
) -> tuple[FloatArray, FloatArray, set[int]]:
    """What hangs on each rail, as far as stated in watts and in amperes, and where in amperes."""
    power_w, current_a = np.zeros(shape), np.zeros(shape)
    # Loads that draw the same rows of their tables are looked up at once.
    alike: dict[tuple[int, bool], tuple[IntArray, list[int], list[FloatArray]]] = {}
    for place, node in enumerate(nodes):
        for in_watts, table in node.piece.compiled.draws.get(node.name, ()):
            drawn = rows[node.piece.line.id]
            key = id(drawn), in_watts
            if key not in alike:
                alike[key] = drawn, [], []
            alike[key][1].append(place)
            alike[key][2].append(table)
    in_amps: set[int] = set()
    for (_, in_watts), (drawn, places, tables) in alike.items():
        (power_w if in_watts else current_a)[places] = np.array(tables).take(drawn, axis=1)
        if not in_watts:
            in_amps.update(places)
    return power_w, current_a, in_amps


def _fed_nodes(
    pieces: Sequence[Piece], assignment: Assignment, ambient_c: float
) -> tuple[list[Node], list[Piece]]:
    """Nodes from the sources downwards, parents first, and the pieces that nothing feeds."""
    above: dict[str, tuple[str, str, PlugRef | None, SocketRef | None]] = {}
    rails: dict[str, tuple[Piece, str, Rail]] = {}
    roots: dict[str, None] = {}
    for piece in pieces:
        part = piece.part
        for name, rail in part.rails.items():
            key = f"{piece.id}.{name}"
            rails[key] = piece, name, rail
            if rail.feeds_from is not None:
                above[key] = f"{piece.id}.{rail.feeds_from}", "inside", None, None
        if part.source is not None:
            roots[f"{piece.id}.{part.source.rail}"] = None
    for plug, socket in assignment.placed.values():
        own, at = plug.plug.rail, socket.socket.rail
        if own is None or at is None:
            continue
        upper, lower = f"{socket.piece.id}.{at}", f"{plug.piece.id}.{own}"
        if plug.plug.role == "power_out":
            upper, lower = lower, upper
        above.setdefault(lower, (upper, plug.id, plug, socket))
    children: dict[str, list[str]] = {}
    for lower, hangs in above.items():
        if lower not in roots:
            children.setdefault(hangs[0], []).append(lower)

    nodes: list[Node] = []
    queue = [(key, -1) for key in roots]
    for key, parent in queue:  # which grows as it is walked
        piece, name, rail = rails[key]
        via, plug_ref, socket_ref = ("", None, None) if parent < 0 else above[key][1:]
        place = len(nodes)
        # A source sets the voltage of its rail, whatever else is stated of it.
        converter = place if rail.out_v is not None and parent >= 0 else -1
        if converter < 0 and parent >= 0:
            converter = nodes[parent].converter
        resistance = _resistance(piece, name, rail, plug_ref, ambient_c)
        root = place if parent < 0 else nodes[parent].root
        nodes.append(
            Node(key, piece, name, rail, parent, via, resistance, socket_ref, root, converter)
        )
        if key in children:
            queue += [(child, place) for child in children[key]]
    fed = {node.piece.id for node in nodes}
    return nodes, [i for i in pieces if i.part.rails and i.id not in fed]


def _resistance(
    piece: Piece, name: str, rail: Rail, plug: PlugRef | None, ambient_c: float
) -> FloatArray | None:
    """Loop between a rail and the one above: its plug's lead, as warm as the day, or its path."""
    if plug is not None and plug.plug.wire is not None:
        wire, of, field_name = (
            plug.plug.wire,
            plug.piece.compiled.figure,
            f"plugs.{plug.name}.wire",
        )
        length = of(f"{field_name}.length_m")
        contacts = of(f"{field_name}.contacts_ohm")
        return conductors.loop_ohm(1.0, wire.gauge_awg, ambient_c) * length + contacts
    if plug is not None and plug.plug.lead_ohm is not None:
        return plug.piece.compiled.figure(f"plugs.{plug.name}.lead_ohm")
    if plug is None and rail.path_ohm is not None:
        return piece.compiled.figure(f"rails.{name}.path_ohm")
    return None


def _solve(
    nodes: list[Node], power_w: FloatArray, current_a: FloatArray, in_amps: set[int]
) -> tuple[FloatArray, FloatArray, FloatArray, BoolArray]:
    """Fold what hangs behind converters into their inputs, solve the rest, unfold again.

    `in_amps` are the nodes with a load that is stated in amperes.
    """
    behind = [place for place, node in enumerate(nodes) if node.converter >= 0]
    out_v: dict[int, FloatArray] = {}
    input_w: dict[int, FloatArray] = {}
    for place in behind:
        node, of = nodes[place], nodes[place].piece.compiled.figure
        if node.converter == place:
            out_v[place] = of(f"rails.{node.name}.out_v")
    for place in reversed(behind):
        node, own = nodes[place], power_w[place]  # which is filled in place
        if place in in_amps:
            own += current_a[place] * out_v[node.converter]
            current_a[place] = 0.0
        if node.converter == place:
            efficiency = node.piece.compiled.figure(f"rails.{node.name}.efficiency", missing=1.0)
            own = input_w[place] = own / efficiency
        power_w[node.parent] += own

    voltage, current, collapsed = _solve_open(nodes, power_w, current_a)
    if not behind:
        return voltage, current, current, collapsed
    lost = bool(collapsed.any())
    volts = np.array([out_v[nodes[place].converter] for place in behind])[:, np.newaxis]
    voltage[behind] = np.where(collapsed, 0.0, volts) if lost else volts
    current[behind] = power_w[behind] / volts
    drawn, converters = current.copy(), list(input_w)
    above = voltage[[nodes[place].parent for place in converters]]
    if lost:
        above[:, collapsed] = np.inf
    drawn[converters] = np.array(list(input_w.values())) / above
    return voltage, current, drawn, collapsed


def _solve_open(
    nodes: list[Node], power_w: FloatArray, current_a: FloatArray
) -> tuple[FloatArray, FloatArray, BoolArray]:
    """Solve the rails before any converter; rails that no resistance parts are solved as one.

    Returns
    -------
    voltage, current, collapsed
        Shape (nodes, states, samples), to be filled in behind converters; collapsed (states,
        samples).
    """
    shape = _, states, samples = power_w.shape
    rows: list[int] = []  # for each node its row in the smaller network, -1 behind a converter
    parents: list[int] = []  # for each row the one that it hangs on
    nothing = np.zeros(samples)
    resistance, source_v = [], []
    set_at = {root: set_v(nodes, root) for root in {node.root for node in nodes}}
    for node in nodes:
        if node.converter >= 0:
            rows.append(-1)
        elif node.parent >= 0 and node.resistance_ohm is None:
            rows.append(rows[node.parent])
        else:
            rows.append(len(parents))
            parents.append(rows[node.parent] if node.parent >= 0 else -1)
            source_v.append(set_at[node.root])
            resistance.append(nothing if node.resistance_ohm is None else node.resistance_ohm)

    def in_columns(values: list[FloatArray]) -> FloatArray:
        """Values by row and sample, repeated for every state, in columns."""
        apart = np.array(values)[:, np.newaxis]
        return apart.repeat(states, axis=1).reshape(len(values), -1)

    joined = joining_matrix(tuple(rows))
    joined_w = joined @ power_w.reshape(len(nodes), -1)
    joined_a = np.zeros_like(joined_w)
    if current_a.any():
        joined_a = joined @ current_a.reshape(len(nodes), -1)
    solution = solve(
        path_matrix(tuple(parents)), in_columns(resistance), in_columns(source_v), joined_w,
        joined_a,
    )  # fmt: skip
    voltage = solution.voltage_v.reshape(-1, states, samples)[rows]
    current = loads_a(Solution(voltage, solution.collapsed), power_w, current_a)
    above = (node.parent if node.converter < 0 else -1 for node in nodes)
    carried = path_matrix(tuple(above)) @ current.reshape(len(nodes), -1)
    return voltage, carried.reshape(shape), solution.collapsed.reshape(states, samples)


def set_v(nodes: list[Node], place: int) -> FloatArray:
    """What the source at the top of a node's tree is set to, shape (samples,). [V]"""
    source = nodes[nodes[place].root].piece
    if source.part.source is None:
        raise ValueError(f"the root of {nodes[place].id} must be a source")
    return source.compiled.figure("source.set_v")


def _announced_a(nodes: list[Node], inlet: int) -> float:
    """The least of what source, lead marks and inlet let through; a lead with a plain end 3 A."""
    node = nodes[inlet]
    announced = float("inf")
    place = inlet
    while place >= 0:
        node = nodes[place]
        part = node.piece.part
        if part.lead is not None:
            announced = min(announced, usb.lead_limit_a(part.lead.marked_a.nominal))
        if part.source is not None and node.parent < 0:
            announced = min(announced, part.source.announces_a)
        place = node.parent
    return announced


@derived("connected", "duty", "place.ambient_max_c", fit_of)
def of(kit: Kit) -> PowerResult:
    """Voltages and currents in every state."""
    return build_power(kit.plan, kit.connected, fit_of(kit), kit.samples)
