"""What leaves the case: sockets behind openings, leads through glands."""

from __future__ import annotations

from dataclasses import dataclass

from cobblewort.core.fit.assign import Assignment, PlugRef, SocketRef
from cobblewort.core.instance import Instance
from cobblewort.core.parts.model import Case, Gland, Opening, PlugBody, Spot


@dataclass(slots=True, frozen=True)
class Leaving:
    """A plug in a socket of the main board whose lead, or whole body, stands outside the case."""

    plug: PlugRef
    socket: SocketRef
    spot: Spot


def leaving(board: Instance, fit: Assignment) -> list[Leaving]:
    """Everything that goes from the board's edges out of its case, in kit order."""
    return [
        Leaving(plug, socket, socket.socket.spot)
        for plug, socket in fit.placed.values()
        if socket.instance is board and socket.socket.spot is not None
        and not plug.instance.part.inside
    ]  # fmt: skip


def opening_at(case: Case, spot: Spot) -> Opening | None:
    """The opening of a case in which the middle of a socket lies, or None."""
    for opening in case.openings.values():
        if opening.edge != spot.edge:
            continue
        along = abs(opening.along_mm - spot.along_mm) <= opening.width_mm / 2
        if along and abs(opening.z_mm - spot.z_mm) <= opening.height_mm / 2:
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
