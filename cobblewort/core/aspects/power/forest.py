"""Which rail hangs on which: the forest of a plan, one tree a source."""

from __future__ import annotations

from collections.abc import Container, Sequence
from dataclasses import dataclass

from cobblewort.core.aspects.fit.assign import Assignment, PlugRef, SocketRef
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.judging.piece import Piece
from cobblewort.core.parts.model import Rail
from cobblewort.core.standards import conductors, poe, usb


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


@dataclass(slots=True, frozen=True)
class Second:
    """A rail that hangs on another one already, and what feeds it besides."""

    rail: str
    by: str
    plug: PlugRef
    socket: SocketRef


@dataclass(slots=True, frozen=True)
class Forest:
    """All rails that are fed, parents before children; pieces that nothing feeds; rails that are
    fed twice.
    """

    nodes: list[Node]
    unfed: list[Piece]
    second: list[Second]


_Above = dict[str, tuple[str, str, PlugRef | None, SocketRef | None]]
"""For each rail the one above, with what joins them."""


def fed_nodes(pieces: Sequence[Piece], assignment: Assignment, ambient_c: float) -> Forest:
    """Nodes from the sources downwards, parents first, and the pieces that nothing feeds.

    A source that hangs on another rail of its part is one only while nothing feeds that rail.
    """
    rails = {
        f"{piece.id}.{name}": (piece, name, rail)
        for piece in pieces for name, rail in piece.part.rails.items()
    }  # fmt: skip
    above, second = _joined(pieces, assignment)
    roots = _roots(pieces, above)
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
        piece, name, rail = rails[key]
        via, plug_ref, socket_ref = ("", None, None) if parent < 0 else above[key][1:]
        place = len(nodes)
        # A source sets the voltage of its rail, whatever else is stated of it.
        converter = place if rail.out_v is not None and parent >= 0 else -1
        if converter < 0 and parent >= 0:
            converter = nodes[parent].converter
        resistance = _resistance(piece, name, rail, plug_ref, socket_ref, ambient_c)
        root = place if parent < 0 else nodes[parent].root
        nodes.append(
            Node(key, piece, name, rail, parent, via, resistance, socket_ref, root, converter)
        )
        if key in children:
            queue += [(child, place) for child in children[key]]
    fed = {node.piece.id for node in nodes}
    return Forest(nodes, [i for i in pieces if i.part.rails and i.id not in fed], second)


def _joined(pieces: Sequence[Piece], assignment: Assignment) -> tuple[_Above, list[Second]]:
    """What each rail hangs on, inside a part and by what is plugged together; what it hangs on
    besides.
    """
    above: _Above = {
        f"{piece.id}.{name}": (f"{piece.id}.{rail.feeds_from}", "inside", None, None)
        for piece in pieces for name, rail in piece.part.rails.items()
        if rail.feeds_from is not None
    }  # fmt: skip
    second: list[Second] = []
    for plug, socket in assignment.placed.values():
        own, at = plug.plug.rail, socket.socket.rail
        if own is None or at is None:
            continue
        upper, lower = f"{socket.piece.id}.{at}", f"{plug.piece.id}.{own}"
        if plug.plug.role == "power_out":
            upper, lower = lower, upper
        if above.setdefault(lower, (upper, plug.id, plug, socket))[1] != plug.id:
            second.append(Second(lower, upper, plug, socket))
    return above, second


def _roots(pieces: Sequence[Piece], above: _Above) -> dict[str, None]:
    """The rails of sources, in kit order but for those that would be fed themselves."""
    roots: dict[str, None] = {}
    spare: dict[str, str] = {}
    for piece in pieces:
        source = piece.part.source
        if source is None:
            continue
        key, inner = f"{piece.id}.{source.rail}", piece.part.rails[source.rail].feeds_from
        if inner is None:
            roots[key] = None
        else:
            spare[key] = f"{piece.id}.{inner}"
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


def _resistance(
    piece: Piece, name: str, rail: Rail, plug: PlugRef | None, socket: SocketRef | None,
    ambient_c: float,
) -> FloatArray | None:  # fmt: skip
    """Loop between a rail and the one above: its plug's lead, as warm as the day, or its path.

    A network lead of the kit stands in the place of the one that is taken for granted without it.
    """
    if socket is not None and socket.socket.connector == poe.NETWORK_POWER:
        if socket.piece.part.lead is not None:
            return None
        source = socket.piece.part.source
        network_type = 1 if source is None else source.network_type or 1
    else:
        network_type = None
    if plug is not None and plug.plug.wire is not None:
        wire, of, field_name = (
            plug.plug.wire,
            plug.piece.compiled.figure,
            f"plugs.{plug.name}.wire",
        )
        length = of(f"{field_name}.length_m")
        contacts = of(f"{field_name}.contacts_ohm")
        loop = conductors.loop_ohm(1.0, wire.gauge_awg, ambient_c) * length + contacts
        return loop if network_type is None else loop / poe.conductors_each_way(network_type)
    if plug is not None and plug.plug.lead_ohm is not None:
        return plug.piece.compiled.figure(f"plugs.{plug.name}.lead_ohm")
    if plug is None and rail.path_ohm is not None:
        return piece.compiled.figure(f"rails.{name}.path_ohm")
    return None


def set_v(nodes: list[Node], place: int) -> FloatArray:
    """What the source at the top of a node's tree is set to, shape (samples,). [V]"""
    source = nodes[nodes[place].root].piece
    if source.part.source is None:
        raise ValueError(f"the root of {nodes[place].id} must be a source")
    return source.compiled.figure("source.set_v")


def announced_a(nodes: list[Node], inlet: int) -> float:
    """The least of what source, lead marks and inlet let through; a lead with a plain end 3 A."""
    node = nodes[inlet]
    announced = float("inf")
    place = inlet
    while place >= 0:
        node = nodes[place]
        part = node.piece.part
        if part.lead is not None:
            announced = min(announced, usb.lead_limit_a(part.lead.marked_a.nominal))
        if part.source is not None and part.source.rail == node.name:
            return min(announced, part.source.announces_a)
        place = node.parent
    return announced
