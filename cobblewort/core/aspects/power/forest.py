"""Which rail hangs on which: the forest of a plan, one tree a source."""

from __future__ import annotations

from collections.abc import Container, Sequence
from dataclasses import dataclass
from functools import cached_property
from math import sqrt

import numpy as np

from cobblewort.core.aspects.fit.assign import Assignment, PlugRef, SocketRef
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.judging.item import Item
from cobblewort.core.parts.compiled import CompiledPart
from cobblewort.core.parts.model import Rail
from cobblewort.core.standards import conductors, poe, usb

_CONTACTS = 4
"""In the loop of a lead: two pairs, out and back."""


@dataclass(slots=True, frozen=True, eq=False)
class Way:
    """The loop between a rail and the one above, shape (samples,): wire, at 20 °C, and contacts or
    tracks. [ohm]
    """

    wire_ohm: FloatArray
    rest_ohm: FloatArray

    def resistance_ohm(self, temp_c: float) -> FloatArray:
        """All of it where the wire is so warm; the rest hardly follows. [ohm]"""
        return self.wire_ohm * conductors.warm_factor(temp_c) + self.rest_ohm


@dataclass(slots=True, frozen=True)
class Node:
    """A rail of one piece, with what it hangs on; `way` is None where nothing lies between.

    `converter` marks a rail behind a regulator: it and all below it have its voltage, and what it
    delivers is drawn from its parent over its efficiency.
    """

    id: str
    item: Item
    name: str
    rail: Rail
    parent: int
    via: str
    way: Way | None
    socket: SocketRef | None
    root: int = -1
    converter: int = -1


@dataclass(slots=True, frozen=True)
class Second:
    """A rail that hangs on another one already, and what feeds it besides."""

    rail: str
    by: str
    plug: PlugRef
    socket: SocketRef


@dataclass(frozen=True)
class Forest:
    """All rails that are fed, parents before children; pieces that nothing feeds; rails that are
    fed twice.
    """

    nodes: list[Node]
    unfed: list[Item]
    second: list[Second]

    def index(self, node_id: str) -> int | None:
        """The place of a node among them, or None when nothing feeds it."""
        return self._places.get(node_id)

    @cached_property
    def _places(self) -> dict[str, int]:
        return {node.id: place for place, node in enumerate(self.nodes)}

    @cached_property
    def children(self) -> list[list[int]]:
        """For each node the places of those that hang on it."""
        found: list[list[int]] = [[] for _ in self.nodes]
        for place, node in enumerate(self.nodes):
            if node.parent >= 0:
                found[node.parent].append(place)
        return found

    def lines_through(self, place: int) -> tuple[str, ...]:
        """Lines whose loads hang below a node, after the node's own."""
        found = self._lines_through.get(place)
        if found is None:
            below = [place]
            for number in below:  # which grows as it is walked
                below += self.children[number]
            found = tuple(dict.fromkeys([self.nodes[number].item.line.id for number in below]))
            self._lines_through[place] = found
        return found

    @cached_property
    def _lines_through(self) -> dict[int, tuple[str, ...]]:
        return {}

    @cached_property
    def lines_above(self) -> list[tuple[str, ...]]:
        """For each node its line and those that it hangs on, up to the source, each once."""
        found: list[tuple[str, ...]] = []
        for node in self.nodes:  # parents before children
            own, above = node.item.line.id, found[node.parent] if node.parent >= 0 else ()
            found.append((own, *(line for line in above if line != own)) if above else (own,))
        return found

    @cached_property
    def top_v(self) -> list[float]:
        """For each node the voltage that its tree sets out with, that of its converter or source,
        at nominal figures. [V]
        """
        found: list[float] = []
        for place, node in enumerate(self.nodes):
            is_head = node.parent < 0 or node.converter == place
            found.append(head_v(self.nodes, place).item(0) if is_head else found[node.parent])
        return found

    @cached_property
    def advertised_a(self) -> dict[str, float]:
        """For each board, by its piece, the current that its path from the source lets through."""
        return {
            node.item.id: advertised_a(self.nodes, place)
            for place, node in enumerate(self.nodes)
            if node.socket is not None
            and node.socket.socket.role == "power_in"
            and node.item.part.kind == "board"
        }


_Above = dict[str, tuple[str, str, PlugRef | None, SocketRef | None]]
"""For each rail the one above, with what joins them."""


def fed_nodes(items: Sequence[Item], assignment: Assignment) -> Forest:
    """Nodes from the sources downwards, parents first, and the pieces that nothing feeds.

    A source that hangs on another rail of its part is one only while nothing feeds that rail.
    """
    rails = {
        f"{item.id}.{name}": (item, name, rail)
        for item in items
        for name, rail in item.part.rails.items()
    }
    above, second = _joined(items, assignment)
    roots = _roots(items, above)
    for feed in second:
        if not _is_fed(above[feed.rail][0], above, roots) and _is_fed(feed.by, above, roots):
            above[feed.rail] = feed.by, feed.plug.id, feed.plug, feed.socket
    children: dict[str, list[str]] = {}
    for lower, hangs in above.items():
        if lower not in roots:
            children.setdefault(hangs[0], []).append(lower)

    nodes: list[Node] = []
    queue = [(key, -1) for key in roots]
    for key, parent in queue:  # which grows as it is walked
        item, name, rail = rails[key]
        via, plug_ref, socket_ref = ("", None, None) if parent < 0 else above[key][1:]
        place = len(nodes)
        # A source sets the voltage of its rail, whatever else is stated of it.
        converter = place if rail.out_v is not None and parent >= 0 else -1
        if converter < 0 and parent >= 0:
            converter = nodes[parent].converter
        way = _way(item, name, rail, plug_ref, socket_ref)
        root = place if parent < 0 else nodes[parent].root
        nodes.append(Node(key, item, name, rail, parent, via, way, socket_ref, root, converter))
        if key in children:
            queue += [(child, place) for child in children[key]]
    fed = {node.item.id for node in nodes}
    return Forest(nodes, [i for i in items if i.part.rails and i.id not in fed], second)


def _joined(items: Sequence[Item], assignment: Assignment) -> tuple[_Above, list[Second]]:
    """What each rail hangs on, inside a part and by what is plugged together; what it hangs on
    besides.
    """
    above: _Above = {
        f"{item.id}.{name}": (f"{item.id}.{rail.feeds_from}", "inside", None, None)
        for item in items
        for name, rail in item.part.rails.items()
        if rail.feeds_from is not None
    }
    second: list[Second] = []
    for plug, socket in assignment.placed.values():
        own, at = plug.plug.rail, socket.socket.rail
        if own is None or at is None:
            continue
        upper, lower = f"{socket.item.id}.{at}", f"{plug.item.id}.{own}"
        if plug.plug.role == "power_out":
            upper, lower = lower, upper
        if above.setdefault(lower, (upper, plug.id, plug, socket))[1] != plug.id:
            second.append(Second(lower, upper, plug, socket))
    return above, second


def _roots(items: Sequence[Item], above: _Above) -> dict[str, None]:
    """The rails of sources, in kit order but for those that would be fed themselves."""
    roots: dict[str, None] = {}
    spare: dict[str, str] = {}
    for item in items:
        source = item.part.source
        if source is None:
            continue
        key, inner = f"{item.id}.{source.rail}", item.part.rails[source.rail].feeds_from
        if inner is None:
            roots[key] = None
        else:
            spare[key] = f"{item.id}.{inner}"
    for key, inner in spare.items():
        if not _is_fed(inner, above, roots):
            roots[key] = None
    return roots


def _is_fed(rail: str, above: _Above, roots: Container[str]) -> bool:
    """Whether a rail hangs on a source."""
    seen: set[str] = set()
    while rail not in roots:
        if rail not in above or rail in seen:
            return False
        seen.add(rail)
        rail = above[rail][0]
    return True


def _way(
    item: Item, name: str, rail: Rail, plug: PlugRef | None, socket: SocketRef | None
) -> Way | None:
    """What lies between a rail and the one above: the lead of its plug, or a path inside.

    A network lead of the kit stands in the place of the one that is taken for granted without it.
    """
    conductors_each_way = 1
    if socket is not None and socket.socket.connector == poe.NETWORK_POWER:
        if socket.item.part.cable is not None:
            return None
        source = socket.item.part.source
        poe_type = 1 if source is None else source.poe_type or 1
        conductors_each_way = poe.conductors_each_way(poe_type)
    if plug is None:
        return None if rail.path_ohm is None else _path(item.compiled, f"rails.{name}.path_ohm")
    if plug.plug.wire is not None:
        return _cable(plug.item.compiled, plug.name, conductors_each_way)
    if plug.plug.cable_ohm is not None:
        return _path(plug.item.compiled, f"plugs.{plug.name}.cable_ohm")
    return None


def _path(part: CompiledPart, figure: str) -> Way:
    """A resistance that a part states as it is."""
    ohm = part.figure(figure)
    return Way(np.zeros_like(ohm), ohm)


def _cable(part: CompiledPart, plug: str, conductors_each_way: int) -> Way:
    """A lead with its contacts, of two wires or of several in parallel."""
    wire = part.part.plugs[plug].wire
    if wire is None:
        raise ValueError(f"plug {plug} of {part.part.id} has no wire")
    path = f"plugs.{plug}.wire"
    ohm_m = conductors.loop_ohm(1.0, wire.gauge_awg) / conductors_each_way
    contacts_ohm = part.figure(f"{path}.contacts_ohm") / conductors_each_way
    # Its contacts do not all lie at the same end of their band: independent ones spread by a root.
    contacts_ohm = contacts_ohm[0] + (contacts_ohm - contacts_ohm[0]) / sqrt(_CONTACTS)
    return Way(ohm_m * part.figure(f"{path}.length_m"), contacts_ohm)


def set_v(nodes: Sequence[Node], place: int) -> FloatArray:
    """What the source at the top of a node's tree is set to, shape (samples,). [V]"""
    source = nodes[nodes[place].root].item
    if source.part.source is None:
        raise ValueError(f"the root of {nodes[place].id} must be a source")
    return source.compiled.figure("source.set_v")


def head_v(nodes: Sequence[Node], place: int) -> FloatArray:
    """The voltage at the top of a tree, of a source or of a converter's output, shape (samples,).

    [V]
    """
    node = nodes[place]
    if node.parent < 0:
        return set_v(nodes, place)
    return node.item.compiled.figure(f"rails.{node.name}.out_v")


def advertised_a(nodes: Sequence[Node], inlet: int) -> float:
    """The least of what source, lead marks and inlet let through; a lead with a plain end 3 A."""
    node = nodes[inlet]
    advertised = float("inf")
    place = inlet
    while place >= 0:
        node = nodes[place]
        part = node.item.part
        if part.cable is not None:
            advertised = min(advertised, usb.cable_limit_a(part.cable.marked_a.nominal))
        if part.source is not None and part.source.rail == node.name:
            return min(advertised, part.source.advertises_a)
        place = node.parent
    return advertised
