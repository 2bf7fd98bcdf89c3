"""Which plug goes into which socket.

A matching by augmenting paths: connector, role, key and generation decide, never current (limits
are judged afterwards, so that a supply problem is told as one). Slowest sufficient socket first.
"""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass, field

from cobblewort.core.instance import Instance
from cobblewort.core.parts.model import Plug, Socket
from cobblewort.core.standards import m2

_ANSWERS = {"device": "host", "power_in": "power_out", "power_out": "power_in"}
_KIND_ORDER = ("supply", "lead", "hub", "storage_adapter")


@dataclass(slots=True, frozen=True)
class SocketRef:
    """A socket of one piece of the kit; `id` reads `line#n.socket`, as a plan pins it."""

    id: str
    instance: Instance
    name: str
    socket: Socket


@dataclass(slots=True, frozen=True)
class PlugRef:
    """A plug of one piece of the kit; `id` reads `line#n.plug`."""

    id: str
    instance: Instance
    name: str
    plug: Plug


@dataclass(slots=True, frozen=True)
class Unplaced:
    """A plug without a socket, and the plugs and sockets among which it cannot be solved.

    `rivals` holds every plug that competes, this one included; all `sockets` are taken by them.
    """

    plug: PlugRef
    rivals: tuple[PlugRef, ...]
    sockets: tuple[SocketRef, ...]
    reason: str


@dataclass(slots=True)
class Assignment:
    """What goes where: `placed` in kit order, and what found no place."""

    placed: dict[str, tuple[PlugRef, SocketRef]] = field(default_factory=dict)
    unplaced: list[Unplaced] = field(default_factory=list)
    sockets: dict[str, SocketRef] = field(default_factory=dict)

    def into(self, socket_id: str) -> PlugRef | None:
        """The plug in a socket, or None."""
        for plug, socket in self.placed.values():
            if socket.id == socket_id:
                return plug
        return None


def fits(plug: PlugRef, socket: SocketRef) -> bool:
    """Whether a plug can physically and by its role go into a socket."""
    if plug.instance is socket.instance or socket.socket.connector not in plug.plug.connectors:
        return False
    if _ANSWERS[plug.plug.role] != socket.socket.role:
        return False
    if plug.plug.min_generation > socket.socket.generation:
        return False
    if plug.plug.key and socket.socket.key and not m2.key_fits(plug.plug.key, socket.socket.key):
        return False
    return not (plug.instance.part.kind == "hub" and socket.instance.part.kind == "hub")


def suits(plug: PlugRef, socket: SocketRef) -> bool:
    """Whether a plug that fits also works there: length and protocol of a drive."""
    drive, at = plug.instance.part.drive, socket.socket
    if drive is None or plug.plug.role != "device":
        return True
    return (not at.lengths or drive.size in at.lengths) and (
        not at.protocols or drive.protocol in at.protocols
    )


def assign(instances: list[Instance]) -> Assignment:
    """Find a socket for every plug that can have one; the same kit always gives the same answer.

    Pinned plugs go where the plan says if they can. Drives are first placed only where they work;
    one that then has no place goes into a socket that it merely fits, for the rules to judge.
    """
    result = Assignment()
    by_connector: dict[str, list[SocketRef]] = defaultdict(list)
    for instance in instances:
        for name, socket in instance.part.sockets.items():
            ref = SocketRef(f"{instance.id}.{name}", instance, name, socket)
            result.sockets[ref.id] = ref
            by_connector[socket.connector].append(ref)
    matcher = _Matcher(by_connector)
    plugs = _in_order(instances)
    for plug in plugs:
        matcher.pin(plug, result.sockets)
    failed = [plug for plug in plugs if not matcher.place(plug, strict=True)]
    failed = [plug for plug in failed if not matcher.place(plug, strict=False)]
    for plug in plugs:
        taken = matcher.socket_of.get(plug.id)
        if taken is not None:
            result.placed[plug.id] = (plug, taken)
    result.unplaced = [matcher.why_not(plug) for plug in failed]
    return result


def _in_order(instances: list[Instance]) -> list[PlugRef]:
    def rank(instance: Instance) -> int:
        kind = instance.part.kind
        return _KIND_ORDER.index(kind) if kind in _KIND_ORDER else len(_KIND_ORDER)

    ordered = sorted(instances, key=rank)
    return [
        PlugRef(f"{i.id}.{name}", i, name, plug)
        for i in ordered
        for name, plug in i.part.plugs.items()
    ]


class _Matcher:
    def __init__(self, by_connector: dict[str, list[SocketRef]]) -> None:
        self.by_connector = by_connector
        self.socket_of: dict[str, SocketRef] = {}
        self.plug_in: dict[str, PlugRef] = {}
        self.pinned: set[str] = set()
        self._candidates: dict[tuple[str, bool], list[SocketRef]] = {}

    def pin(self, ref: PlugRef, sockets: dict[str, SocketRef]) -> None:
        pins = ref.instance.line.pins
        target = pins.get(f"{ref.instance.index}.{ref.name}", pins.get(ref.name))
        socket = sockets.get(target) if target else None
        if socket is not None and socket.id not in self.plug_in and fits(ref, socket):
            self._join(ref, socket)
            self.pinned.add(ref.id)

    def candidates(self, ref: PlugRef, strict: bool) -> list[SocketRef]:
        key = (ref.id, strict)
        if key not in self._candidates:
            found = [
                socket
                for connector in ref.plug.connectors
                for socket in self.by_connector.get(connector, ())
                if fits(ref, socket) and (not strict or suits(ref, socket))
            ]
            self._candidates[key] = sorted(found, key=lambda s: _preference(ref.plug, s))
        return self._candidates[key]

    def place(self, ref: PlugRef, strict: bool) -> bool:
        return ref.id in self.socket_of or self._augment(ref, set(), strict)

    def _augment(self, ref: PlugRef, seen: set[str], strict: bool) -> bool:
        """Take a free socket; failing that, one whose holder can move elsewhere."""
        open_to_it = [s for s in self.candidates(ref, strict) if s.id not in seen]
        for socket in open_to_it:
            if socket.id not in self.plug_in:
                self._join(ref, socket)
                return True
        for socket in open_to_it:
            seen.add(socket.id)
            holder = self.plug_in[socket.id]
            if holder.id not in self.pinned and self._augment(holder, seen, True):
                self._join(ref, socket)
                return True
        return False

    def _join(self, ref: PlugRef, socket: SocketRef) -> None:
        self.socket_of[ref.id] = socket
        if not socket.socket.many:
            self.plug_in[socket.id] = ref

    def why_not(self, ref: PlugRef) -> Unplaced:
        """The plugs that a failed search reached; they want more sockets than there are."""
        rivals, sockets, queue = {ref.id: ref}, {}, [ref]
        while queue:
            for socket in self.candidates(queue.pop(0), strict=False):
                if socket.id not in sockets:
                    sockets[socket.id] = socket
                    holder = self.plug_in[socket.id]
                    if holder.id not in rivals:
                        rivals[holder.id] = holder
                        queue.append(holder)
        return Unplaced(ref, tuple(rivals.values()), tuple(sockets.values()), self._reason(ref))

    def _reason(self, ref: PlugRef) -> str:
        same_connector = [s for c in ref.plug.connectors for s in self.by_connector.get(c, ())]
        if any(fits(ref, socket) for socket in same_connector):
            return "taken"
        if any(_ANSWERS[ref.plug.role] == s.socket.role for s in same_connector):
            return "unsuitable"
        return "none"


def _preference(plug: Plug, ref: SocketRef) -> tuple[bool, float, bool]:
    """Fast enough before too slow, then the slowest that suffices, board before hub."""
    generation = ref.socket.generation
    enough = generation >= plug.generation
    return (not enough, generation if enough else -generation, ref.instance.part.kind == "hub")
