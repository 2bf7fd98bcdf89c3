"""What is plugged where, what stands on what, and what the header carries."""

from __future__ import annotations

from cobblewort.core.aspects.fit.assign import Assignment, assign
from cobblewort.core.aspects.fit.boxes import Space
from cobblewort.core.aspects.fit.fasteners import Fastener, build_fasteners
from cobblewort.core.aspects.fit.pins import HeaderResult, build_header
from cobblewort.core.aspects.fit.stack import StackResult, build_stack
from cobblewort.core.aspects.fit.standing import Standing, stand
from cobblewort.core.judging.kit import Kit, derived


@derived("connected")
def of(kit: Kit) -> Assignment:
    """Which plug is in which socket."""
    return assign(kit.connected)


@derived("pieces")
def stack_of(kit: Kit) -> StackResult:
    """What stands on what."""
    return build_stack(kit.pieces)


@derived(stack_of)
def standing_of(kit: Kit) -> Standing | None:
    """Where the boards stand in their case."""
    return stand(stack_of(kit))


@derived(of, stack_of, standing_of)
def space_of(kit: Kit) -> Space:
    """Every block to scale."""
    return Space(stack_of(kit), of(kit), standing_of(kit))


@derived("pieces", stack_of)
def fasteners_of(kit: Kit) -> list[Fastener]:
    """Standoffs and screws that the stack wants."""
    return build_fasteners(stack_of(kit), kit.pieces)


@derived("pieces", "wired")
def header_of(kit: Kit) -> HeaderResult:
    """What the header carries."""
    return build_header(kit.plan, kit.pieces)


@derived(of, stack_of)
def board_reached(kit: Kit) -> bool:
    """Whether something is plugged into an inlet of the board: a hub feeds one too, or a header."""
    board = stack_of(kit).board
    return board is not None and any(
        socket.piece is board and socket.socket.role == "power_in"
        for _, socket in of(kit).placed.values()
    )
