"""Which plug goes into which socket.

A matching by augmenting paths: connector, role, key and generation decide, never current (limits
are judged afterwards, so that a supply problem is told as one). Slowest sufficient socket first.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Hashable, Iterable, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property, partial

from cobblewort.core.judging.item import Item
from cobblewort.core.parts.model import Plug, Socket
from cobblewort.core.standards import m2

_ANSWERS = {
    "device": "host",
    "power_in": "power_out",
    "power_out": "power_in",
    "picture_out": "picture_in",
}
_MOST_STEPS = 5000
NEAR_USB_3_GHZ = 3.0
"""USB 3 is heard below this."""
_TOUCH_MM = 0.05
_KIND_ORDER = {"power_supply": 0, "cable": 1, "hub": 2, "storage_adapter": 3}


@dataclass(slots=True, frozen=True, eq=False)
class SocketRef:
    """A socket of one piece of the kit; `id` reads `line#n.socket`, as a plan pins it."""

    id: str
    item: Item
    name: str
    socket: Socket


@dataclass(slots=True, frozen=True, eq=False)
class PlugRef:
    """A plug of one piece of the kit; `id` reads `line#n.plug`."""

    id: str
    item: Item
    name: str
    plug: Plug


@dataclass(slots=True, frozen=True)
class Unplaced:
    """A plug without a socket, and the plugs and sockets among which it cannot be solved.

    `rivals` holds every plug that competes, this one included; all `sockets` are taken by them.
    `sockets_alike` are those of its connectors that do not take it.
    """

    plug: PlugRef
    rivals: tuple[PlugRef, ...]
    sockets: tuple[SocketRef, ...]
    reason: str
    sockets_alike: tuple[SocketRef, ...] = ()


@dataclass(slots=True, frozen=True)
class Crowded:
    """Two plugs whose bodies want the same room: how far apart they would have to be. [mm]"""

    one: PlugRef
    other: PlugRef
    wanted_mm: float
    apart_mm: float


@dataclass
class Assignment:
    """What goes where: `placed` in kit order, and what found no place.

    `crowded` are plugs that keep each other out, where no other arrangement was found; `gave_up`
    says that the search for one was cut short.
    """

    placed: dict[str, tuple[PlugRef, SocketRef]] = field(default_factory=dict)
    unplaced: list[Unplaced] = field(default_factory=list)
    sockets: dict[str, SocketRef] = field(default_factory=dict)
    crowded: list[Crowded] = field(default_factory=list)
    gave_up: bool = False

    @cached_property
    def in_use(self) -> dict[tuple[str, str | None], tuple[str, ...]]:
        """The sockets in which something is plugged, by their piece and its rail."""
        found: dict[tuple[str, str | None], tuple[str, ...]] = {}
        for _, socket in self.placed.values():
            key = socket.item.id, socket.socket.rail
            found[key] = (*found.get(key, ()), socket.id)
        return found

    def into(self, socket_id: str) -> PlugRef | None:
        """The plug in a socket, or None."""
        for plug, socket in self.placed.values():
            if socket.id == socket_id:
                return plug
        return None


def fits(plug: PlugRef, socket: SocketRef) -> bool:
    """Whether a plug can physically and by its role go into a socket."""
    return socket.socket.connector in plug.plug.connectors and bool(_fitting(plug, (socket,)))


def _fitting(plug: PlugRef, sockets: Iterable[SocketRef], feeds: bool = False) -> list[SocketRef]:
    """Of some sockets with the right connector those that the plug can go into.

    Generation, key, and the side on which a flat cable has its contacts have to agree. Where it
    `feeds` something, the host sockets of what has a supply of its own are as good as a supply's.
    """
    item, answer, relays = plug.item, _ANSWERS[plug.plug.role], passes_on(plug.item)
    least, key, contacts = plug.plug.min_generation, plug.plug.key, plug.plug.contacts
    return [
        ref
        for ref in sockets
        if ((at := ref.socket).role == answer or (feeds and _gives_power(ref)))
        and at.generation >= least
        and ref.item is not item
        and not (key and at.key and not m2.key_fits(key, at.key))
        and (contacts is None or at.contacts in (None, contacts))
        # Hubs and extension leads hang on each other in a chain, never in a ring.
        and not (relays and passes_on(ref.item) and ref.item.order >= item.order)
    ]


def _gives_power(ref: SocketRef) -> bool:
    """Whether a host socket is fed by a supply that comes with its part."""
    own = ref.item.part.source
    return ref.socket.role == "host" and own is not None and ref.socket.rail == own.rail


def passes_on(item: Item) -> bool:
    """Whether a piece hangs on a socket and brings sockets of its own: a hub, an extension lead."""
    return item.compiled.passes_on


def suits(plug: PlugRef, socket: SocketRef) -> bool:
    """Whether a plug that fits also works there: length and protocol of a drive."""
    drive, at = plug.item.part.drive, socket.socket
    if drive is None or plug.plug.role != "device":
        return True
    return (not at.lengths or drive.size in at.lengths) and (
        not at.protocols or drive.protocol in at.protocols
    )


def assign(items: Sequence[Item]) -> Assignment:
    """Find a socket for every plug that can have one; the same kit always gives the same answer.

    Pinned plugs go where the plan says if they can. Drives are first placed only where they work;
    one that then has no place goes into a socket that it merely fits, for the rules to judge.
    """
    result = Assignment()
    by_connector: dict[str, list[SocketRef]] = defaultdict(list)
    for item in items:
        for name, socket in item.part.sockets.items():
            ref = SocketRef(f"{item.id}.{name}", item, name, socket)
            result.sockets[ref.id] = ref
            by_connector[socket.connector].append(ref)
    matcher = _Matcher(by_connector)
    plugs = _in_order(items)
    for plug in plugs:
        matcher.pin(plug, result.sockets)
    failed = [plug for plug in plugs if not matcher.place(plug, strict=True)]
    failed = [plug for plug in failed if not matcher.place(plug, strict=False)]
    result.crowded, result.gave_up = matcher.make_room()
    matcher.turn_ends(items, result.sockets)
    for plug in plugs:
        taken = matcher.socket_of.get(plug.id)
        if taken is not None:
            result.placed[plug.id] = (plug, taken)
    result.unplaced = [matcher.why_not(plug) for plug in failed]
    return result


def _in_order(items: Sequence[Item]) -> list[PlugRef]:
    """Plugs in the order in which they look for a place: what splits an inlet before what feeds it,
    leads that a supply of the kit wants before others.
    """
    outlets = {
        s.connector for i in items if i.part.kind == "power_supply" for s in i.part.sockets.values()
    }

    def rank(item: Item) -> tuple[int, bool]:
        if item.part.splits_device_port:
            return -1, False
        place = _KIND_ORDER.get(item.part.kind, len(_KIND_ORDER))
        if item.part.kind != "cable":
            return place, False
        draws = {c for p in item.part.plugs.values() if p.role == "power_in" for c in p.connectors}
        return place, not draws & outlets

    ordered = sorted(items, key=rank)
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
        self._dead: dict[bool, set[str]] = {True: set(), False: set()}
        self._candidates: dict[tuple[Hashable, bool], list[SocketRef]] = {}
        self._reasons: dict[Hashable, Unplaced] = {}

    def pin(self, ref: PlugRef, sockets: dict[str, SocketRef]) -> None:
        pins = ref.item.line.pins
        target = pins.get(f"{ref.item.index}.{ref.name}", pins.get(ref.name))
        socket = sockets.get(target) if target else None
        if socket is not None and socket.id not in self.plug_in and fits(ref, socket):
            self._join(ref, socket)
            self.pinned.add(ref.id)

    def candidates(self, ref: PlugRef, strict: bool) -> list[SocketRef]:
        """The sockets that a plug could take, best first.

        Pieces without sockets of their own are alike: what one can take, all of the part can.
        """
        key = (_key(ref), strict)
        if key not in self._candidates:
            found = [
                socket
                for connector in ref.plug.connectors
                for socket in _fitting(
                    ref, self.by_connector.get(connector, ()), feeds=not strict and self._feeds(ref)
                )
            ]
            if strict and ref.item.part.drive is not None:
                found = [socket for socket in found if suits(ref, socket)]
            if len(found) > 1:
                found.sort(key=partial(_preference, ref))
            self._candidates[key] = found
        return self._candidates[key]

    def _feeds(self, ref: PlugRef) -> bool:
        """Whether a lead that draws at this end has its other end in something that it feeds."""
        return ref.plug.role == "power_in" and any(
            f"{ref.item.id}.{name}" in self.socket_of
            for name, plug in ref.item.part.plugs.items()
            if plug.role == "power_out"
        )

    def place(self, ref: PlugRef, strict: bool) -> bool:
        """Find a socket for a plug, moving others; what a failed search has seen leads nowhere."""
        if ref.id in self.socket_of:
            return True
        seen = set(self._dead[strict])
        found = self._augment(ref, seen, strict)
        if not found:
            self._dead[strict] = seen
        return found

    def _augment(self, ref: PlugRef, seen: set[str], strict: bool) -> bool:
        """Take a free socket; failing that, one whose holder can move elsewhere."""
        candidates = self.candidates(ref, strict)
        for socket in candidates:
            if socket.id not in self.plug_in and socket.id not in seen:
                self._join(ref, socket)
                return True
        for socket in candidates:
            if socket.id in seen:
                continue
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

    def turn_ends(self, items: Sequence[Item], sockets: dict[str, SocketRef]) -> None:
        """Exchange plugs among sockets that look alike until each leads where it is meant to."""
        for item in items:
            if item.part.splits_device_port:
                self._feed_splitter(item, sockets)
        for item in items:
            if item.part.kind == "cable" and len(item.part.plugs) > 1:
                self._carry_picture(item, sockets)

    def _feed_splitter(self, item: Item, sockets: dict[str, SocketRef]) -> None:
        """Put what comes from another machine into the socket of a splitter that passes no power
        on, and what feeds it into the one that does.
        """
        inlets = [
            sockets[f"{item.id}.{name}"]
            for name, socket in item.part.sockets.items()
            if socket.role == "power_in"
        ]
        fed = next((ref for ref in inlets if ref.socket.rail is not None), None)
        plain = next((ref for ref in inlets if ref.socket.rail is None), None)
        if fed is None or plain is None:
            return
        feeder, data = self.plug_in.get(fed.id), self.plug_in.get(plain.id)
        wrong = (feeder is not None and self._from_machine(feeder)) or (
            feeder is None and data is not None and not self._from_machine(data)
        )
        if wrong:
            self._exchange(fed, plain)

    def _from_machine(self, ref: PlugRef) -> bool:
        """Whether a lead has its other end in another machine."""
        ends = (self.socket_of.get(f"{ref.item.id}.{name}") for name in ref.item.part.plugs)
        return any(end is not None and end.item.part.kind == "machine" for end in ends)

    def _carry_picture(self, cable: Item, sockets: dict[str, SocketRef]) -> None:
        """Lead a picture from the board to a screen, and from another machine to what takes it in.

        Its near end moves to a socket of the right one, failing that its far end.
        """
        ends = {p.role: f"{cable.id}.{name}" for name, p in cable.part.plugs.items()}
        near = self.socket_of.get(ends.get("device", ""))
        far = self.socket_of.get(ends.get("picture_out", ""))
        if near is None or far is None or _belong(near, far):
            return
        for at, other in ((near, far), (far, near)):
            ref = self.plug_in.get(at.id)
            if ref is None:
                continue  # a socket that many plugs share
            for socket in sockets.values():
                if _belong(socket, other) and fits(ref, socket) and self._exchange(at, socket):
                    return

    def _exchange(self, one: SocketRef, other: SocketRef) -> bool:
        """Let two sockets, of which one may be free, exchange their plugs, if both may move."""
        held = [(self.plug_in.get(a.id), b) for a, b in ((one, other), (other, one))]
        if any(ref and (ref.id in self.pinned or not fits(ref, to)) for ref, to in held):
            return False
        for socket in (one, other):
            self.plug_in.pop(socket.id, None)
        for ref, socket in held:
            if ref is not None:
                self._join(ref, socket)
        return True

    def make_room(self) -> tuple[list[Crowded], bool]:
        """Rearrange plugs that keep each other out; what is left of that, and whether it gave up.

        Everything that shares a kind of socket with them is placed anew, widest first, by
        backtracking over at most `_MOST_STEPS` steps.
        """
        crowded = self._crowded()
        if not crowded:
            return [], False
        connectors = {c for pair in crowded for c in pair.one.plug.connectors}
        movable = [
            ref
            for ref in self._refs()
            if ref.id not in self.pinned
            and connectors & set(ref.plug.connectors)
            and self.socket_of[ref.id].socket.connector in connectors
        ]
        movable.sort(key=lambda ref: (not passes_on(ref.item), -_width_mm(ref)))
        before = dict(self.socket_of), dict(self.plug_in)
        for ref in movable:
            del self.plug_in[self.socket_of.pop(ref.id).id]
        found, steps = self._search(movable, 0, 0)
        if not found:
            self.socket_of, self.plug_in = before
        return self._crowded(), not found and steps > _MOST_STEPS

    def _search(self, refs: list[PlugRef], at: int, steps: int) -> tuple[bool, int]:
        if at == len(refs):
            return True, steps
        ref = refs[at]
        for socket in self.candidates(ref, strict=False):
            steps += 1
            if steps > _MOST_STEPS:
                return False, steps
            if socket.id in self.plug_in or self._keeps_out(ref, socket):
                continue
            self._join(ref, socket)
            found, steps = self._search(refs, at + 1, steps)
            if found or steps > _MOST_STEPS:
                return found, steps
            del self.socket_of[ref.id], self.plug_in[socket.id]
        return False, steps

    def _keeps_out(self, ref: PlugRef, socket: SocketRef) -> bool:
        face = socket.socket.face
        return face is not None and any(
            keep_out(ref, socket, other, self.socket_of[other.id]) is not None
            for other in self._beside(socket)
        )

    def _beside(self, socket: SocketRef) -> list[PlugRef]:
        return [
            plug
            for name in socket.item.part.sockets
            if (plug := self.plug_in.get(f"{socket.item.id}.{name}")) is not None
        ]

    def _refs(self) -> list[PlugRef]:
        return [self.plug_in[s.id] for s in self.socket_of.values() if s.id in self.plug_in]

    def _crowded(self) -> list[Crowded]:
        at_spots = [ref for ref in self._refs() if self.socket_of[ref.id].socket.face is not None]
        found = []
        for number, ref in enumerate(at_spots):
            if ref.plug.body is None:
                continue
            for other in at_spots[:number]:
                pair = keep_out(ref, self.socket_of[ref.id], other, self.socket_of[other.id])
                if pair is not None:
                    found.append(pair)
        return found

    def why_not(self, ref: PlugRef) -> Unplaced:
        """The plugs that a failed search reached; they want more sockets than there are.

        Pieces that are alike find no place for the same reason, which is looked for once.
        """
        key = _key(ref)
        if key not in self._reasons:
            self._reasons[key] = self._reason_of(ref)
        known = self._reasons[key]
        if known.plug is ref:
            return known
        return replace(known, plug=ref, rivals=(ref, *known.rivals[1:]))

    def _reason_of(self, ref: PlugRef) -> Unplaced:
        rivals, sockets, queue = {ref.id: ref}, {}, [ref]
        while queue:
            for socket in self.candidates(queue.pop(0), strict=False):
                holder = self.plug_in.get(socket.id)
                if holder is None or socket.id in sockets:
                    continue  # what is free stands open to a plug that was told where to go
                sockets[socket.id] = socket
                if holder.id not in rivals:
                    rivals[holder.id] = holder
                    if holder.id not in self.pinned:
                        queue.append(holder)
        alike = [
            s
            for c in ref.plug.connectors
            for s in self.by_connector.get(c, ())
            if s.item is not ref.item
        ]
        return Unplaced(
            ref,
            tuple(rivals.values()),
            tuple(sockets.values()),
            _reason(ref, alike),
            tuple(socket for socket in alike if not fits(ref, socket)),
        )


def _key(ref: PlugRef) -> Hashable:
    """The same for plugs that can go where each other can: of pieces that bring no sockets, and of
    leads whose other end may lie elsewhere.
    """
    alone = ref.item.part.sockets or ref.plug.role == "power_in"
    return ref.id if alone else (ref.item.part.id, ref.item.line.part_revision, ref.name)


def _reason(ref: PlugRef, same_connector: list[SocketRef]) -> str:
    if any(fits(ref, socket) for socket in same_connector):
        return "taken"
    if any(_ANSWERS[ref.plug.role] == s.socket.role for s in same_connector):
        return "unsuitable"
    return "none"


def keep_out(
    one: PlugRef, one_at: SocketRef, other: PlugRef, other_at: SocketRef
) -> Crowded | None:
    """Whether the bodies of two plugs overlap on the edge on which both their sockets open.

    Bodies are blocks about the middles of their sockets; what merely touches has room.
    """
    here, there = one_at.socket.face, other_at.socket.face
    body, rival = one.plug.body, other.plug.body
    if here is None or there is None or body is None or rival is None or one is other:
        return None
    if one_at.item is not other_at.item or here.edge != there.edge:
        return None
    beside = here.along_mm + body.offset_mm - there.along_mm - rival.offset_mm
    over = here.z_mm + body.rise_mm - there.z_mm - rival.rise_mm
    across = (body.width_mm + rival.width_mm) / 2, abs(beside)
    upward = (body.height_mm + rival.height_mm) / 2, abs(over)
    if across[0] - across[1] <= _TOUCH_MM or upward[0] - upward[1] <= _TOUCH_MM:
        return None
    wanted, apart = across if across[1] > 0 else upward
    return Crowded(one, other, wanted, apart)


def _belong(near: SocketRef, far: SocketRef) -> bool:
    """Whether a picture is meant to go from one socket to another: what takes pictures in wants
    that of another machine, and a screen that of the board.
    """
    if near.socket.role == "picture_in" and far.socket.role != "picture_in":
        near, far = far, near
    return far.socket.role == "picture_in" and (near.item.part.kind == "machine") == (
        "video_in" in far.item.part.offers
    )


def _width_mm(ref: PlugRef) -> float:
    body = ref.plug.body
    return 0.0 if body is None else max(body.width_mm, body.height_mm)


def _wants_supply(ref: PlugRef) -> bool:
    """Whether a plug goes to something with a supply of its own first: a drive's, or a bridge's
    that feeds one, is what a board can least feed; a supply's charges a battery before all else.
    """
    feeds_drive = ref.item.part.kind in ("drive", "storage_adapter")
    return (feeds_drive and ref.plug.role == "device") or ref.plug.role == "power_out"


_WIDE_MM = 18.0
"""USB sockets stand about 18 mm apart: a wider stick is what extensions are bought for."""


def _wants_away(ref: PlugRef) -> bool:
    """Whether a stick goes onto an extension where there is one: a wide one, or one that hears at
    2.4 GHz what USB 3 sends.
    """
    part, body = ref.item.part, ref.plug.body
    if part.kind != "device" or ref.plug.role != "device" or body is None:
        return False
    return body.width_mm > _WIDE_MM or any(ghz < NEAR_USB_3_GHZ for ghz in part.radio_ghz)


def _preference(plug: PlugRef, ref: SocketRef) -> tuple[bool, bool, bool, bool, float, bool, bool]:
    """An extension on what is none, fast enough before too slow, one with a supply of its own where
    that is wanted, one on an extension for what goes away from the board, then the slowest that
    suffices, another machine last, and what passes sockets on before that.
    """
    generation, own_supply = ref.socket.generation, ref.item.part.source is not None
    enough, extends = generation >= plug.plug.generation, ref.item.part.kind == "cable"
    return (
        extends and plug.item.part.kind == "cable",
        not enough,
        _wants_supply(plug) and not own_supply,
        _wants_away(plug) and not extends,
        generation if enough else -generation,
        ref.item.part.kind == "machine",
        passes_on(ref.item),
    )
