"""What is plugged where, what stands on what, and what the header carries."""

from __future__ import annotations

from collections.abc import Sequence

from cobblewort.core.aspects.fit.assign import Assignment, assign
from cobblewort.core.aspects.fit.collisions import Blocks, Space
from cobblewort.core.aspects.fit.fasteners import Fastener, build_fasteners
from cobblewort.core.aspects.fit.pins import HeaderResult, build_header
from cobblewort.core.aspects.fit.placement import Standing, stand
from cobblewort.core.aspects.fit.stack import Layers, StackResult, build_layers
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, derived, firm
from cobblewort.core.plans.plan import Wired


@derived("connected")
def of(connected: Items) -> Assignment:
    """Which plug is in which socket."""
    return assign(connected)


@derived("connected")
def boards_of(connected: Items) -> list[Item]:
    """The boards that others can stand on, the main one first."""
    return [i for i in connected if i.part.kind == "board" and i.part.stack is not None]


@firm("built")
def coolers_of(built: Items) -> list[Item]:
    """What stands on a die, or may."""
    return [i for i in built if i.part.cooler is not None]


@derived("connected", boards_of, coolers_of)
def layers_of(connected: Items, boards: list[Item], coolers: list[Item]) -> Layers:
    """What stands on what, without the case."""
    return build_layers(boards, coolers, connected)


@derived("built", layers_of)
def stack_of(built: Items, layers: Layers) -> StackResult:
    """What stands on what, in which case."""
    return StackResult(
        layers.boards,
        layers.cooler,
        layers.layers,
        layers.gaps,
        layers.surplus_coolers,
        next((i for i in built if i.part.case is not None), None),
    )


@derived(stack_of)
def standing_of(stack: StackResult) -> Standing | None:
    """Where the boards stand in their case."""
    return stand(stack)


@derived(of, layers_of)
def blocks_of(fit: Assignment, layers: Layers) -> Blocks:
    """Every block on the main board."""
    return Blocks(layers, fit)


@derived(of, stack_of, standing_of)
def space_of(fit: Assignment, stack: StackResult, standing: Standing | None) -> Space:
    """What is around them."""
    return Space(stack, fit, standing)


@derived("built", stack_of)
def fasteners_of(built: Items, stack: StackResult) -> list[Fastener]:
    """Standoffs and screws that the stack wants."""
    return build_fasteners(stack, built)


@derived("connected", "wired")
def header_of(connected: Items, wired: Sequence[Wired]) -> HeaderResult:
    """What the header carries."""
    return build_header(wired, connected)


@derived(of, boards_of)
def board_reached(fit: Assignment, boards: list[Item]) -> bool:
    """Whether something is plugged into an inlet of the board: a hub feeds one too, or a header."""
    return bool(_at_inlets(fit, boards))


@derived(of, boards_of)
def cable_hangs_free(fit: Assignment, boards: list[Item]) -> bool:
    """Whether all that is plugged into the inlets of the board are cables of which the other end is
    plugged in nowhere.
    """
    at_inlets = _at_inlets(fit, boards)
    loose = {one.plug.item for one in fit.unplaced if one.plug.plug.role == "power_in"}
    free = [item for item in at_inlets if item.part.kind == "cable" and item in loose]
    return bool(at_inlets) and len(free) == len(at_inlets)


def _at_inlets(fit: Assignment, boards: list[Item]) -> list[Item]:
    """What is plugged into the inlets of the first board."""
    return [
        plug.item
        for plug, socket in fit.placed.values()
        if boards and socket.item is boards[0] and socket.socket.role == "power_in"
    ]
