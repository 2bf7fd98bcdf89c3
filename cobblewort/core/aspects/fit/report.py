"""What is plugged where, and the stack to scale, for drawings."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import Assignment, PlugRef, SocketRef
from cobblewort.core.aspects.fit.bays import STANDS_BESIDE, Bays
from cobblewort.core.aspects.fit.buses import OnBus, buses
from cobblewort.core.aspects.fit.collisions import (
    AccessZone,
    Blocks,
    LayerGap,
    Overlap,
    PlacedBox,
    Space,
)
from cobblewort.core.aspects.fit.fasteners import Fastener
from cobblewort.core.aspects.fit.header_report import HeaderReport, header_report
from cobblewort.core.aspects.fit.paths import slot_generation
from cobblewort.core.aspects.fit.pins import HeaderResult
from cobblewort.core.aspects.fit.placement import Standing
from cobblewort.core.aspects.fit.rules.connections import plug_name
from cobblewort.core.aspects.fit.stack import StackResult, room_above_mm
from cobblewort.core.aspects.fit.template import why_no_template
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.margin import Margin
from cobblewort.core.parts.model import Edge, Opening, Plug
from cobblewort.core.plans.plan import Settings
from cobblewort.core.standards import pcie
from cobblewort.core.text import EMPTY, Text, say


@dataclass(slots=True, frozen=True)
class Connection:
    """A plug in its socket. `link` tells the agreed rate where the two ends agree on one.

    `bus` is what its data take to the processor, `shares_with` who takes some of that way too.
    """

    plug: str
    plug_line: str
    plug_label: str
    socket: str
    socket_line: str
    socket_label: str
    connector: str
    link: Text
    bus: Text
    shares_with: str
    pinned: bool


@dataclass(slots=True, frozen=True)
class SpareSocket:
    """A socket that nothing takes, so that one knows what can still be added."""

    socket: str
    line: str
    label: str
    connector: str


@dataclass(slots=True, frozen=True)
class CaseOutline:
    """The case around the stack, in the main board's frame: its inner corner, and its size. [mm]

    `room` is the name of the compartment that the board stands in, and empty where there is none;
    `drilled` tells that its floor is drilled by hand, so that the board can stand elsewhere, and
    `placed` that it does.
    """

    line: str
    label: str
    open: bool
    inner_x_mm: float
    inner_y_mm: float
    inner_length_mm: float
    inner_width_mm: float
    room: str
    drilled: bool
    placed: bool
    wall_mm: float
    max_above_mm: float
    max_below_mm: float
    openings: list[Opening]
    open_edges: tuple[Edge, ...]


@dataclass(slots=True, frozen=True)
class Reach:
    """How far the kit reaches from the board on one side, and the margin that judges it. [mm]"""

    side: str
    line: str
    label: str
    reach_mm: float
    margin: str | None


@dataclass(slots=True, frozen=True)
class Outside:
    """Something that stands beside the case: the socket that it hangs on, how far away it may be
    [m], and its size [mm]; None where nobody states them.
    """

    line: str
    label: str
    at: str
    reach_m: float | None
    size_mm: tuple[float, ...] | None


@dataclass(slots=True, frozen=True)
class FitReport:
    """What is plugged where, and the stack to scale. [mm]

    `beside` are further boards in the same case, its compartments and posts; `plugs` are the bodies
    of what is plugged into the edges of the board; `template_why_not` is empty where a template of
    the case can be drawn.
    """

    connections: list[Connection]
    spare: list[SpareSocket]
    boxes: list[PlacedBox]
    beside: list[PlacedBox]
    plugs: list[PlacedBox]
    overlaps: list[Overlap]
    gaps: list[LayerGap]
    access: list[AccessZone]
    fasteners: list[Fastener]
    board_length_mm: float | None
    board_width_mm: float | None
    board_thickness_mm: float | None
    case: CaseOutline | None
    reaches: list[Reach]
    template_why_not: str
    header: HeaderReport
    outside: list[Outside]


def _outside(bays: Bays, fit: Assignment) -> list[Outside]:
    """What stands beside the case, in kit order: supplies, sticks, hubs, disks that lie in no bay.

    A cable between it and its socket counts to its own: with an extension it may stand farther off.
    """
    ends: dict[str, tuple[PlugRef, SocketRef]] = {}
    cables: dict[str, PlugRef] = {}
    items: dict[Item, None] = {}
    for plug, socket in fit.placed.values():
        items |= {plug.item: None, socket.item: None}
        if plug.plug.role == "power_in":
            cables.setdefault(socket.item.id, plug)
        else:
            ends.setdefault(plug.item.id, (plug, socket))
    found = []
    for item in items:
        if item.part.inside or item.part.kind not in STANDS_BESIDE or item.id in bays.taken:
            continue
        link = _link_of(item, ends, cables)
        if link is not None:
            socket, far_m = link
            label = socket.socket.label or socket.name
            at = f"{words.within(label)} of {socket.item.name}"
            body = item.part.boxes.get("body")
            size_mm = None if body is None else (body.dx_mm, body.dy_mm, body.dz_mm)
            found.append(Outside(item.line.id, item.name, at, far_m, size_mm))
    return found


def _link_of(
    item: Item, ends: dict[str, tuple[PlugRef, SocketRef]], cables: dict[str, PlugRef]
) -> tuple[SocketRef, float | None] | None:
    """The socket that a part hangs on beyond its cables, and how far it may be away [m]."""
    chain = [cables[item.id]] if item.id not in ends and item.id in cables else []
    if chain:  # a supply without a cable of its own
        item = chain[0].item
    at = None
    while item.id in ends and (at is None or item.part.kind == "cable"):
        plug, at = ends[item.id]
        if plug in chain:
            break  # cables that hang on each other
        chain.append(plug)
        item = at.item
    known = [length for plug in chain if (length := reach_m(plug.plug)) is not None]
    return None if at is None else (at, sum(known) if known else None)


def reach_m(plug: Plug) -> float | None:
    """How far the lead of a plug reaches, where that is known. [m]"""
    if plug.wire is not None:
        return plug.wire.length_m.nominal
    if plug.flat_cable is not None:
        return plug.flat_cable.length_mm.nominal / 1000
    return plug.reach_m


def fit_report(
    stack: StackResult,
    fit: Assignment,
    blocks: Blocks,
    space: Space,
    fasteners: list[Fastener],
    standing: Standing | None,
    bays: Bays,
    header: HeaderResult,
    settings: Settings,
    margins: Sequence[Margin],
) -> FitReport:
    """Connections, spare sockets, and the stack around the main board."""
    placed = fit.placed
    on_bus = buses(fit)
    connections = [
        _connection(fit, settings, plug, socket, on_bus.get(plug.id))
        for plug, socket in placed.values()
    ]
    taken = {socket.id for _, socket in placed.values()}
    spare = [
        SpareSocket(ref.id, ref.item.line.id, ref.socket.label or name, ref.socket.connector)
        for name, ref in fit.sockets.items()
        if ref.id not in taken and ref.socket.role != "power_in"
    ]
    board = stack.board
    main = None if board is None else board.part.stack
    by_id = {margin.id for margin in margins}
    reaches = []
    for side in ("above", "below"):
        farthest = stack.reach_mm(side)
        if farthest is not None:
            item, reach = farthest
            margin_id = f"FIT-05:{side}"
            reaches.append(
                Reach(
                    side,
                    item.line.id,
                    item.name,
                    float(reach[0]),
                    margin_id if margin_id in by_id else None,
                )
            )
    return FitReport(
        connections=connections,
        spare=spare,
        boxes=blocks.boxes,
        beside=space.beside,
        plugs=blocks.plugs,
        overlaps=blocks.overlaps,
        gaps=blocks.gaps,
        access=space.access,
        fasteners=fasteners,
        board_length_mm=None if main is None else main.length_mm,
        board_width_mm=None if main is None else main.width_mm,
        board_thickness_mm=None if main is None else main.thickness_mm.nominal,
        case=_case_outline(stack.case, board, standing),
        reaches=reaches,
        template_why_not=why_no_template(stack),
        header=header_report(header),
        outside=_outside(bays, fit),
    )


def _connection(
    fit: Assignment, settings: Settings, plug: PlugRef, socket: SocketRef, on_bus: OnBus | None
) -> Connection:
    bus, shares = EMPTY, ""
    if on_bus is not None:
        bus = say("{bus}, {rate} raw", bus=on_bus.bus.label, rate=words.rate(on_bus.bus.rate_mb_s))
        bus += ", one direction at a time" if on_bus.bus.half_duplex else ""
        shares = words.few(map(plug_name, on_bus.others)) if on_bus.others else ""
    return Connection(
        plug=plug.id,
        plug_line=plug.item.line.id,
        plug_label=plug_name(plug),
        socket=socket.id,
        socket_line=socket.item.line.id,
        socket_label=f"{socket.item.name}, {socket.socket.label or socket.name}",
        connector=socket.socket.connector,
        link=_link(fit, settings, plug, socket),
        bus=bus,
        shares_with=shares,
        pinned=bool({plug.name, f"{plug.item.index}.{plug.name}"} & set(plug.item.line.pins)),
    )


def _link(fit: Assignment, settings: Settings, plug: PlugRef, socket: SocketRef) -> Text:
    """What a PCIe link comes to, through the board that carries the drive."""
    if socket.socket.connector not in ("flat-16", "m2") or not plug.plug.generation:
        return EMPTY
    ends = [(plug.plug.generation, plug.plug.lanes)]
    ends.append((slot_generation(settings, socket), socket.socket.lanes))
    for other, at in fit.placed.values():
        if other.item is socket.item and at.socket.connector == "flat-16":
            ends.append((slot_generation(settings, at), at.socket.lanes))
    if not all(generation in pcie.LANE_GT_S for generation, _ in ends):
        return EMPTY  # an end that does not say what it can do
    agreed = pcie.negotiated(*ends[0], *ends[1])
    for end in ends[2:]:
        agreed = pcie.negotiated(*agreed, *end)
    return say(
        "PCIe Gen {generation} ×{lanes}, {rate} raw",
        generation=agreed[0],
        lanes=agreed[1],
        rate=words.rate(pcie.raw_rate_mb_s(*agreed)),
    )


def _case_outline(
    case: Item | None, board: Item | None, mounting: Standing | None
) -> CaseOutline | None:
    own = None if case is None else case.part.case
    if case is None or own is None:
        return None
    if board is None or mounting is None:
        x_mm = y_mm = 0.0
        above_mm, placed = own.max_above_mm.nominal, False
    else:
        x_mm, y_mm = mounting.main.x_mm, mounting.main.y_mm
        above_mm = float(room_above_mm(case, board)[0])
        placed = board.line.position is not None
    return CaseOutline(
        case.line.id,
        case.name,
        own.open,
        -x_mm,
        -y_mm,
        own.inner_length_mm,
        own.inner_width_mm,
        "" if mounting is None else mounting.label,
        own.any_holes or own.self_made,
        placed,
        own.wall_mm,
        above_mm,
        own.max_below_mm.nominal,
        list(own.openings.values()),
        own.open_edges,
    )
