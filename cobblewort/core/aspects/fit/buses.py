"""Which plugs share a bus on the way to the processor, through hubs and leads too."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass

from cobblewort.core.aspects.fit.assign import Assignment, PlugRef, SocketRef, passes_on
from cobblewort.core.parts.model import Bus


@dataclass(slots=True, frozen=True)
class OnBus:
    """The bus that a plug's data take, and the other plugs whose data take some of the way too."""

    bus: Bus
    others: tuple[PlugRef, ...]


def buses(fit: Assignment) -> dict[str, OnBus]:
    """For each plug on a bus, by its id: the bus, and who shares it or one that it lies in.

    Hubs and leads that pass a bus on are not named themselves: what hangs on them is.
    """
    up = {plug.item.id: socket for plug, socket in fit.placed.values() if _is_data(plug)}
    ways: dict[str, tuple[PlugRef, Bus, list[tuple[str, str]]]] = {}
    on_step: dict[tuple[str, str], list[PlugRef]] = defaultdict(list)
    for plug, socket in fit.placed.values():
        top = _board_socket(socket, up)
        if not _is_data(plug) or top is None or top.socket.bus is None:
            continue
        board = top.item
        steps = [(board.id, name) for name in board.part.buses_above(top.socket.bus)]
        ways[plug.id] = plug, board.part.buses[top.socket.bus], steps
        if not passes_on(plug.item):
            for step in steps:
                on_step[step].append(plug)
    found = {}
    for plug_id, (plug, bus, steps) in ways.items():
        sharing = dict.fromkeys(other.id for step in steps for other in on_step[step])
        others = [ways[name][0] for name in sharing if name != plug_id]
        found[plug_id] = OnBus(bus, tuple(o for o in others if not _hangs_on(o, plug, up)))
    return found


def _is_data(plug: PlugRef) -> bool:
    return plug.plug.role == "device"


def _board_socket(socket: SocketRef, up: dict[str, SocketRef]) -> SocketRef | None:
    """The socket of a board at the top of a chain of hubs and leads; None where it ends before."""
    while passes_on(socket.item):
        above = up.get(socket.item.id)
        if above is None:
            return None
        socket = above
    return socket


def _hangs_on(plug: PlugRef, hub: PlugRef, up: dict[str, SocketRef]) -> bool:
    """Whether a plug reaches the board through a hub or lead."""
    socket = up.get(plug.item.id)
    while socket is not None and passes_on(socket.item):
        if socket.item is hub.item:
            return True
        socket = up.get(socket.item.id)
    return False
