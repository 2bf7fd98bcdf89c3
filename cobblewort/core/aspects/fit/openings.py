"""What leaves the case: sockets behind openings, leads through glands."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from cobblewort.core.aspects.fit.assign import Assignment, PlugRef, SocketRef
from cobblewort.core.judging.item import Item
from cobblewort.core.parts.model import Case, Gland, Opening, PlugBody, Port, SocketFace
from cobblewort.core.plans.plan import Requirement


@dataclass(slots=True, frozen=True)
class Leaving:
    """A plug in a socket of the main board whose lead, or whole body, stands outside the case."""

    plug: PlugRef
    socket: SocketRef
    face: SocketFace


def leaving(board: Item, fit: Assignment) -> list[Leaving]:
    """Everything that goes from the board's edges out of its case, in kit order."""
    return [
        Leaving(plug, socket, socket.socket.face)
        for plug, socket in fit.placed.values()
        if socket.item is board and socket.socket.face is not None and not plug.item.part.inside
    ]


def probes(board: Item, fit: Assignment) -> list[PlugRef]:
    """Leads that go out from the board's header: those of what stands outside, such as a probe."""
    return [
        plug
        for plug, socket in fit.placed.values()
        if socket.item is board
        and socket.socket.face is None
        and plug.plug.jacket_mm is not None
        and not plug.item.part.inside
    ]


def ports_in_use(
    requirements: Sequence[Requirement], board: Item, fit: Assignment
) -> list[tuple[str, SocketFace, PlugBody | None]]:
    """Everything that has to open to the outside: name, place, and the plug's body if known.

    What leaves, the card, ports for which the purpose asks, and buttons.
    """
    found: list[tuple[str, SocketFace, PlugBody | None]] = [
        (item.socket.socket.label or item.socket.name, item.face, item.plug.plug.body)
        for item in leaving(board, fit)
    ]
    for plug, socket in fit.placed.values():
        face = socket.socket.face
        if plug.item.part.kind == "cable":
            continue
        if socket.item is board and face and socket.socket.connector == "memory-card":
            found.append((socket.socket.label or socket.name, face, None))
    ports = [*wanted_ports(requirements, board), *board.part.buttons.values()]
    return found + [(port.label, port.face, None) for port in ports]


def wanted_ports(requirements: Sequence[Requirement], board: Item) -> list[Port]:
    """Ports of the board for functions that the purpose asks for."""
    asked = {requirement.function for requirement in requirements}
    return [port for function, port in board.part.ports.items() if function in asked]


def has_walls(case: Item) -> bool:
    """Whether a case has walls whose openings are as its maker made them."""
    own = case.part.case
    return own is not None and not (own.open or own.self_made or case.line.modified)


def is_open(case: Item | None) -> bool:
    """Whether a hand can reach in: no case, open plates, or top sheets left off."""
    own = None if case is None else case.part.case
    return case is None or own is None or own.open or (own.top_sheets > 0 and case.line.sheets_off)


def opening_at(case: Case, face: SocketFace) -> Opening | None:
    """The opening of a case in which the middle of a socket lies, and that is as wide, or None."""
    for opening in case.openings.values():
        if opening.edge != face.edge or opening.width_mm < face.width_mm:
            continue
        along = abs(opening.along_mm - face.along_mm) <= opening.width_mm / 2
        if along and abs(opening.z_mm - face.z_mm) <= opening.height_mm / 2:
            return opening
    return None


def passes(body: PlugBody, opening: Opening) -> bool:
    """Whether a plug's body goes through an opening."""
    return body.width_mm <= opening.width_mm and body.height_mm <= opening.height_mm


def gland_for(glands: list[Gland], jacket_mm: float | None, body: PlugBody | None) -> Gland | None:
    """The tightest of these glands that seals a lead and lets its plug through, or None.

    A jacket that is not known is taken to fit.
    """
    for gland in sorted(glands, key=lambda g: (g.clamp_max_mm, g.bore_mm)):
        if jacket_mm is not None and not gland.clamp_min_mm <= jacket_mm <= gland.clamp_max_mm:
            continue
        across = 0.0 if body is None else (body.width_mm**2 + body.height_mm**2) ** 0.5
        if gland.split or across <= gland.bore_mm:
            return gland
    return None
