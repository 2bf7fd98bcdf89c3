"""Ways out of a snag of fit, as patches still to be evaluated."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.model import stack_of
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.remedies import on_offer
from cobblewort.core.plans.patch import AddLine, EditLine, Patch
from cobblewort.core.standards import fasteners as sizes


def cut_by_hand(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Cut openings and tabs of the case oneself."""
    stack = stack_of(kit)
    del finding
    if stack.case is not None:
        yield (EditLine(line=stack.case.line.id, modified=True),)


def into_the_middle(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Let a board stand where the program would put it."""
    board = stack_of(kit).board
    del finding
    if board is not None and board.line.position is not None:
        yield (EditLine(line=board.line.id, position="middle"),)


def taller_standoffs(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Each standard length that gives a board above more room under it, as its cable allows."""
    stack = stack_of(kit)
    for layer in stack.layers:
        item, own = layer.item, layer.item.part.add_on
        if item.line.id not in finding.lines or own is None or own.most_clear_mm is None:
            continue
        now = stack.gaps.get(item.id)
        for length in sizes.STANDOFFS_MM:
            if now is not None and float(now[0]) < length <= own.most_clear_mm.nominal:
                yield (EditLine(line=item.line.id, standoff_mm=length),)


def more_sockets(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A hub, or a lead between, that brings a socket for a plug without a place."""
    wanted = {
        connector
        for left in fit_of(kit).unplaced
        if left.plug.item.line.id in finding.lines
        for connector in left.plug.plug.connectors
    }
    for part in on_offer(kit, ("hub", "cable")):
        brings = {socket.connector for socket in part.sockets.values() if socket.role == "host"}
        if brings & wanted and part.plugs:
            yield (AddLine(role="cable" if part.kind == "cable" else "add_on", part=part.id),)


def is_video(connector: str) -> bool:
    """Whether a connector carries a picture."""
    return connector.startswith("video-")


def video_cable(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A first video lead of each kind."""
    del finding
    for part in on_offer(kit, ("cable",)):
        if any(is_video(c) for plug in part.plugs.values() for c in plug.connectors):
            yield (AddLine(role="cable", part=part.id),)


def sheets_off(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Leave off the top sheets of a layered case that is too low."""
    case = stack_of(kit).case
    own = None if case is None else case.part.case
    if case is None or own is None or not own.top_sheets or case.line.sheets_off:
        return
    if finding.id.endswith(":above"):
        yield (EditLine(line=case.line.id, sheets_off=True),)
