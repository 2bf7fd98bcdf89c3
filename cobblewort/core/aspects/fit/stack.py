"""The stack: what stands on what, in mm, along the vertical axis.

Heights are measured from the main board: up from its upper face, down from its lower face.

         lid  ------------------------------   case max_above_mm
              add-on above (height_mm)
              cooler: top of die + interface + sink
    ==========  main board, upper face = 0  ==========
              add-on below (height_mm)
       floor  ------------------------------   case max_below_mm
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.judging.item import Item
from cobblewort.core.parts.model import AddOn, Compartment

PCB_MM = 1.6
"""Thickness of a stacked circuit board: common practice."""


@dataclass(slots=True, frozen=True)
class Layer:
    """How far one piece reaches from the main board on its side. [mm]

    `foot_mm` is where its own circuit board begins, counted the same way; a stacked board stands on
    the one before it.
    """

    item: Item
    side: str
    foot_mm: FloatArray
    reach_mm: FloatArray


@dataclass(slots=True)
class Layers:
    """Layers above and below the main board.

    The first of the `boards` is the main one, with the first cooler on it; each further one has the
    next cooler. `gaps` is the free height under a board above, by its id: from the face of the
    board under it. `surplus_coolers` found the place on every die taken.
    """

    boards: list[Item]
    cooler: Item | None
    layers: list[Layer]
    gaps: dict[str, FloatArray]
    surplus_coolers: list[Item]

    @property
    def board(self) -> Item | None:
        """The main board."""
        return self.boards[0] if self.boards else None

    def add_ons(self, side: str) -> list[Item]:
        """The boards stacked on one side of the main board."""
        return [
            layer.item
            for layer in self.layers
            if layer.side == side and layer.item.part.add_on is not None
        ]

    def reach_mm(self, side: str) -> tuple[Item, FloatArray] | None:
        """The piece that reaches farthest on a side at nominal figures, and how far. [mm]"""
        layers = [layer for layer in self.layers if layer.side == side]
        if not layers:
            return None
        farthest = max(layers, key=lambda layer: float(layer.reach_mm[0]))
        return farthest.item, farthest.reach_mm


@dataclass(slots=True)
class StackResult(Layers):
    """Layers on the main board, and the case around them."""

    case: Item | None


def build_layers(boards: list[Item], coolers: Sequence[Item], items: Sequence[Item]) -> Layers:
    """Stack a kit on the first of its boards; without one there is nothing to stack."""
    board = boards[0] if boards else None
    cooler = coolers[0] if coolers else None
    result = Layers(boards, cooler, [], {}, list(coolers[max(1, len(boards)) :]))
    if board is None or board.part.stack is None:
        return result
    of = board.compiled.figure
    none = np.zeros_like(of("stack.above_mm"))
    result.layers += [
        Layer(board, "above", none, of("stack.above_mm")),
        Layer(board, "below", none, of("stack.below_mm")),
    ]
    if cooler is not None and board.part.board_heat is not None:
        result.layers.append(Layer(cooler, "above", none, cooler_top_mm(board, cooler)))
    level = {"above": none, "below": none}
    for item in items:
        add_on = item.part.add_on
        if add_on is None:
            continue
        under = level[add_on.side]
        clear, height = clear_mm(item, add_on), height_mm(item, add_on)
        reach = under + height
        foot = reach - PCB_MM if add_on.side == "below" else under + clear
        level[add_on.side] = reach if add_on.side == "below" else foot + PCB_MM
        result.layers.append(Layer(item, add_on.side, foot, reach))
        if add_on.side == "above":
            result.gaps[item.id] = clear
    return result


def raised_mm(item: Item, add_on: AddOn) -> float:
    """How much taller than delivered the standoffs of a line lift its board. [mm]"""
    if item.line.standoff_mm is None or add_on.clear_mm is None:
        return 0.0
    return max(0.0, item.line.standoff_mm - add_on.clear_mm.nominal)


def clear_mm(item: Item, add_on: AddOn) -> FloatArray:
    """Free height between a board above and the one under it; what is left of its height where
    the maker does not state it. [mm]
    """
    of = item.compiled.figure
    if add_on.clear_mm is None:
        return np.maximum(0.0, of("add_on.height_mm") - 2 * PCB_MM)
    raised: FloatArray = of("add_on.clear_mm") + raised_mm(item, add_on)
    return raised


def height_mm(item: Item, add_on: AddOn) -> FloatArray:
    """From the face under a stacked board to its far side. [mm]"""
    raised: FloatArray = item.compiled.figure("add_on.height_mm") + raised_mm(item, add_on)
    return raised


def room_above_mm(case: Item, board: Item) -> FloatArray:
    """From the face of the main board to the lid: what the maker states, and in a shell made to
    measure all that its inner height leaves. [mm]
    """
    shell, stack = case.part.case, board.part.stack
    stated = case.compiled.figure("case.max_above_mm")
    inside = compartment_of(case, board)
    if inside is not None and inside.above_mm is not None:
        stated = np.minimum(stated, inside.above_mm)
    if shell is None or stack is None or not shell.self_made:
        return stated
    below = room_below_mm(case) + stack.thickness_mm.nominal
    left: FloatArray = np.maximum(stated, shell.inner_height_mm - below)
    return left


def compartment_of(case: Item, board: Item) -> Compartment | None:
    """The compartment that a board goes into: where it was put, else the smallest that takes it,
    else the largest; None where the shell has none.
    """
    shell, stack = case.part.case, board.part.stack
    if shell is None or stack is None or not shell.compartments:
        return None
    if board.line.position is not None:
        x_mm, y_mm = board.line.position.x_mm, board.line.position.y_mm
        for room in shell.compartments.values():
            along, across = x_mm - room.x_mm, y_mm - room.y_mm
            if 0 <= along < room.length_mm and 0 <= across < room.width_mm:
                return room
    by_size = sorted(shell.compartments.values(), key=lambda c: c.length_mm * c.width_mm)
    takes = (c for c in by_size if stack.length_mm <= c.length_mm and stack.width_mm <= c.width_mm)
    return next(takes, by_size[-1])


def room_below_mm(case: Item) -> FloatArray:
    """From the floor of a case to the underside of its board. [mm]"""
    return case.compiled.figure("case.max_below_mm")


def cooler_top_mm(board: Item, cooler: Item) -> FloatArray:
    """Top of a cooler above the board: die, what lies between, and the cooler itself. [mm]"""
    heat, own = board.part.board_heat, cooler.part.cooler
    if heat is None or own is None:
        raise ValueError("The board has no thermal values, or the kit has no cooler.")
    top: FloatArray = (
        board.compiled.figure("board_heat.soc_top_mm")
        + cooler.compiled.figure("cooler.interface_mm")
        + cooler.compiled.figure("cooler.height_mm")
    )
    return top
