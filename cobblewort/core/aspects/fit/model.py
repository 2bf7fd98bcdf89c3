"""What is plugged where, what stands on what, and what the header carries."""

from __future__ import annotations

from cobblewort.core.aspects.fit.assign import Assignment, assign
from cobblewort.core.aspects.fit.collisions import Blocks, Space
from cobblewort.core.aspects.fit.fasteners import Fastener, build_fasteners
from cobblewort.core.aspects.fit.pins import HeaderResult, build_header
from cobblewort.core.aspects.fit.placement import Standing, stand
from cobblewort.core.aspects.fit.stack import Layers, StackResult, build_layers
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Kit, derived, firm


@derived("connected")
def of(kit: Kit) -> Assignment:
    """Which plug is in which socket."""
    return assign(kit.connected)


@derived("connected")
def boards_of(kit: Kit) -> list[Item]:
    """The boards that others can stand on, the main one first."""
    return [i for i in kit.connected if i.part.kind == "board" and i.part.stack is not None]


@firm("built")
def coolers_of(kit: Kit) -> list[Item]:
    """What stands on a die, or may."""
    return [i for i in kit.built if i.part.cooler is not None]


@derived("connected", boards_of, coolers_of)
def layers_of(kit: Kit) -> Layers:
    """What stands on what, without the case."""
    return build_layers(boards_of(kit), coolers_of(kit), kit.connected)


@derived("built", layers_of)
def stack_of(kit: Kit) -> StackResult:
    """What stands on what, in which case."""
    layers = layers_of(kit)
    return StackResult(
        layers.boards,
        layers.cooler,
        layers.layers,
        layers.gaps,
        layers.surplus_coolers,
        next((i for i in kit.built if i.part.case is not None), None),
    )


@derived(stack_of)
def standing_of(kit: Kit) -> Standing | None:
    """Where the boards stand in their case."""
    return stand(stack_of(kit))


@derived(of, layers_of)
def blocks_of(kit: Kit) -> Blocks:
    """Every block on the main board."""
    return Blocks(layers_of(kit), of(kit))


@derived(of, stack_of, standing_of)
def space_of(kit: Kit) -> Space:
    """What is around them."""
    return Space(stack_of(kit), of(kit), standing_of(kit))


@derived("built", stack_of)
def fasteners_of(kit: Kit) -> list[Fastener]:
    """Standoffs and screws that the stack wants."""
    return build_fasteners(stack_of(kit), kit.built)


@derived("connected", "wired")
def header_of(kit: Kit) -> HeaderResult:
    """What the header carries."""
    return build_header(kit.plan, kit.connected)


@derived(of, boards_of)
def board_reached(kit: Kit) -> bool:
    """Whether something is plugged into an inlet of the board: a hub feeds one too, or a header."""
    boards = boards_of(kit)
    return bool(boards) and any(
        socket.item is boards[0] and socket.socket.role == "power_in"
        for _, socket in of(kit).placed.values()
    )
