"""Rules of fit: what is missing altogether."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.model import stack_of
from cobblewort.core.aspects.fit.remedies import (
    is_video,
    video_lead,
)
from cobblewort.core.judging.findings import Remark
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.piece import Piece
from cobblewort.core.judging.remedies import add_missing, another, another_lead
from cobblewort.core.judging.rules import rule


@rule(
    "FIT-01", "fit", "Everything that it needs to run is in the kit",
    why="A board without a supply or without something to start from is the commonest gap in a "
    "first list, and it is noticed on the evening of the build.",
    formula="board, supply and boot medium: at least one of each",
    source="common practice",
    reads=("pieces", fit_of, stack_of),
    remedies=(add_missing("board", "supply", "boot"),),
)  # fmt: skip
def complete(kit: Kit) -> Iterator[Remark]:
    """One remark for each of board, supply and boot medium that is missing."""
    missing = {
        "board": "The kit has no board yet; choose one to begin.",
        "supply": "The kit has no supply; nothing would run.",
        "boot": "There is nothing to start from; add a memory card or a drive.",
    }
    for role, sentence in missing.items():
        if not kit.pieces.of_role(role) and not (role == "supply" and _is_reached(kit)):
            yield Remark(role, "stops", sentence)


def _is_reached(kit: Kit) -> bool:
    """Whether something is plugged into an inlet of the board: a hub feeds one too, or a header."""
    board = stack_of(kit).board
    return board is not None and any(
        socket.piece is board and socket.socket.role == "power_in"
        for _, socket in fit_of(kit).placed.values()
    )


@rule(
    "FIT-09", "fit", "A lead joins the supply to the board",
    why="A supply with a socket of its own comes without the lead, and no lead is in the box.",
    formula="every required inlet is reached from a source",
    source="common practice",
    reads=(fit_of, stack_of, "pieces"),
    remedies=(another_lead,),
)  # fmt: skip
def lead_there(kit: Kit) -> Iterator[Remark]:
    """A supply with a free socket while the board's inlet is empty: the lead is missing."""
    supplies = kit.pieces.of_role("supply")
    board = stack_of(kit).board
    if board is None or not supplies or _is_reached(kit):
        return
    inlets = {n: s for n, s in board.part.sockets.items() if s.role == "power_in" and s.required}
    for name, inlet in inlets.items():
        if fit_of(kit).into(f"{board.id}.{name}") is not None:
            continue
        outlets = [s.connector for i in supplies for s in i.part.sockets.values()]
        if outlets:
            yield Remark(
                f"{board.id}.{name}", "stops",
                f"No lead joins {supplies[0].name} ({words.connector(outlets[0])} socket) to the "
                f"{words.connector(inlet.connector)} inlet of {board.name}.",
                (supplies[0].line.id, board.line.id), (f"{board.id}.{name}",),
            )  # fmt: skip


@rule(
    "FIT-28", "fit", "A lead joins each screen to the board",
    why="Video sockets come in three sizes, and the lead in the drawer has the other two.",
    formula="one end of a lead in the screen, its other end in a video socket of the board",
    source="types A, C and D of the digital video connector (from memory): none fits another",
    reads=(fit_of, stack_of, "pieces"),
    remedies=(video_lead, another("lead")),
)  # fmt: skip
def screens_joined(kit: Kit) -> Iterator[Remark]:
    """Each screen with a video socket that no lead joins to the board; a note where it is lent."""
    stack = stack_of(kit)
    board, boards = stack.board, stack.boards
    if board is None:
        return
    for screen in kit.pieces:
        if not screen.part.sockets:
            continue
        sockets = [n for n, s in screen.part.sockets.items() if is_video(s.connector)]
        if screen.part.kind == "machine":
            continue
        if screen in boards or not sockets or _video_joined(kit, screen, boards):
            continue
        theirs = words.connector(screen.part.sockets[sockets[0]].connector)
        ours = dict.fromkeys(
            words.connector(s.connector) for one in boards for s in one.part.sockets.values()
            if is_video(s.connector)
        )  # fmt: skip
        if not ours:
            yield Remark(
                screen.id, "stops",
                f"{board.name} has no video socket, and {screen.name} wants one.",
                (screen.line.id, board.line.id),
            )  # fmt: skip
            continue
        borrowed = screen.line.role == "borrow"
        yield Remark(
            screen.id, "note" if borrowed else "stops",
            f"No lead joins {screen.name} ({theirs}) to {board.name} ({words.listed(ours)})"
            f"{': borrow one too' if borrowed else ''}.",
            (screen.line.id, board.line.id),
        )  # fmt: skip


def _video_joined(kit: Kit, screen: Piece, boards: list[Piece]) -> bool:
    """Whether some lead has one end in the screen and another in a board."""
    ends: dict[str, set[str]] = {}
    for plug, socket in fit_of(kit).placed.values():
        if is_video(socket.socket.connector):
            ends.setdefault(plug.piece.id, set()).add(socket.piece.id)
    return any({screen.id, board.id} <= reached for reached in ends.values() for board in boards)
