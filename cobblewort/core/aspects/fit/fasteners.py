"""The standoffs and screws that hold a stack together."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from cobblewort.core import words
from cobblewort.core.aspects.fit.stack import PCB_MM, Layer, StackResult, clear_mm
from cobblewort.core.judging.item import Item
from cobblewort.core.parts.model import FastenerSet, Stack
from cobblewort.core.standards import fasteners as sizes
from cobblewort.core.text import EMPTY, Figure, Text, as_text, say

_AIR_MM = 1.0
"""Left under the lowest solder joint of a board on a plate: common practice."""
_CORNERS = 4


@dataclass(slots=True, frozen=True)
class Fastener:
    """Some pieces of one length, and where they go. `length_mm` is None where no length does it.

    `washers_mm` is what is left to fill with washers, `wanted` the length that would do in words.
    """

    kind: Literal["standoff", "screw"]
    length_mm: float | None
    count: int
    where: str
    lines: tuple[str, ...]
    washers_mm: float
    wanted: Text = EMPTY


def build_fasteners(stack: StackResult, items: Sequence[Item]) -> list[Fastener]:
    """What the stack wants beyond what comes with its case, from the board outward.

    Lengths are taken from the bags in the kit where there are any, else from those in the shops. A
    bought case brings the screws for the board itself.
    """
    board = stack.board
    if board is None or board.part.stack is None:
        return []
    sets = [s for i in items if (s := i.part.fasteners) is not None]
    makes = _Lengths(sets)
    stacked = [x for x in stack.layers if x.item.part.add_on is not None]
    found: list[Fastener] = []
    below = [x for x in stacked if x.side == "below"]
    above = [x for x in stacked if x.side == "above"]
    shell = None if stack.case is None else stack.case.part.case
    if stack.case is not None and stack.case.line.held_by != "screws":
        pass  # glued, taped, clipped, or left to lie: only what stands on it is screwed
    elif stack.case is not None and shell is not None and shell.any_holes:
        lowest = below[-1].item if below else board
        reach = 0.0 if below else board.part.stack.below_mm.nominal
        screwed = None if above or below else board.part.stack.thickness_mm.nominal
        found += makes.on_plate(lowest, shell.wall_mm, reach, stack.case, screwed)
        for other in stack.boards[1:]:
            if (own := other.part.stack) is not None:
                found += makes.on_plate(
                    other,
                    shell.wall_mm,
                    own.below_mm.nominal,
                    stack.case,
                    own.thickness_mm.nominal,
                )
    elif above and stack.case is None:
        found.append(
            makes.screw(
                board.part.stack.thickness_mm.nominal,
                sizes.DEPTH_MM,
                f"from below through {board.name}",
                (board,),
            )
        )
    under = board
    for layer in above:
        found += makes.above(layer, under)
        under = layer.item
    for layer in below:
        found += makes.below(layer, board.part.stack)
    return found


class _Lengths:
    """Chooses lengths from what there is."""

    def __init__(self, sets: list[FastenerSet]) -> None:
        self.standoffs = sorted({x for s in sets for x in s.standoffs_mm}) or sizes.STANDOFFS_MM
        self.screws = sorted({x for s in sets for x in s.screws_mm}) or sizes.SCREWS_MM

    def screw(
        self, through_mm: float, depth_mm: float, where: str, items: tuple[Item, ...]
    ) -> Fastener:
        length = sizes.screw_for(through_mm, depth_mm, self.screws)
        least = through_mm + sizes.ENGAGEMENT_MM
        wanted = words.span(Figure(least, "mm", 1), Figure(through_mm + depth_mm, "mm", 1))
        return Fastener("screw", length, _CORNERS, where, _lines(items), 0.0, wanted)

    def on_plate(
        self, lowest: Item, floor_mm: float, reach_mm: float, case: Item, through_mm: float | None
    ) -> Iterator[Fastener]:
        """The lowest board on standoffs on a drilled plate, free of it by what hangs below.

        `through_mm` is the thickness of a board that is screwed down from above, None where the
        standoffs of the next one do that.
        """
        wanted = reach_mm + _AIR_MM
        lengths = [x for x in self.standoffs if x >= wanted - 0.05]
        walls = [floor_mm] if through_mm is None else [floor_mm, through_mm]
        length = next((x for x in lengths if all(self.holds(wall, x) for wall in walls)), None)
        items = (lowest, case)
        yield Fastener(
            "standoff",
            length,
            _CORNERS,
            f"between {case.name} and {lowest.name}",
            _lines(items),
            0.0,
            say("{least} or more", least=Figure(wanted, "mm", 1)),
        )
        depth = sizes.thread_depth_mm(length or sizes.DEPTH_MM)
        yield self.screw(floor_mm, depth, f"through the floor of {case.name}", items)
        if through_mm is not None:
            yield self.screw(through_mm, depth, f"into {lowest.name}", items)

    def holds(self, through_mm: float, standoff_mm: float) -> bool:
        """Whether some screw through a wall holds in a standoff of this length."""
        depth = sizes.thread_depth_mm(standoff_mm)
        return sizes.screw_for(through_mm, depth, self.screws) is not None

    def above(self, layer: Layer, under: Item) -> Iterator[Fastener]:
        """A board above on standoffs with a stud, which take the place of the screws under it."""
        item, own = layer.item, layer.item.part.add_on
        if own is None:
            return
        clear = float(clear_mm(item, own)[0])
        length = sizes.standoff_at_least(clear, self.standoffs)
        washers = 0.0
        if own.most_clear_mm is None and (length is None or length > clear + 0.05):
            length = sizes.standoff_at_most(clear, self.standoffs)
            washers = 0.0 if length is None else sizes.washers_for(clear - length)
        items = (under, item)
        yield Fastener(
            "standoff",
            length,
            _CORNERS,
            f"between {under.name} and {item.name}",
            _lines(items),
            washers,
            as_text(Figure(clear, "mm", 1)),
        )
        depth = sizes.thread_depth_mm(length or sizes.DEPTH_MM)
        yield self.screw(PCB_MM, depth, f"into {item.name}", items)

    def below(self, layer: Layer, main: Stack) -> Iterator[Fastener]:
        """A board below, between it and the main board, screwed from both sides."""
        item, own = layer.item, layer.item.part.add_on
        if own is None:
            return
        clear = own.height_mm.nominal - PCB_MM
        length = sizes.standoff_at_most(clear, self.standoffs)
        washers = 0.0 if length is None else sizes.washers_for(clear - length)
        items = (item,)
        yield Fastener(
            "standoff",
            length,
            _CORNERS,
            f"between the board and {item.name}",
            _lines(items),
            washers,
            as_text(Figure(clear, "mm", 1)),
        )
        depth = sizes.thread_depth_mm(length or sizes.DEPTH_MM)
        yield self.screw(PCB_MM, depth, f"from below through {item.name}", items)
        yield self.screw(main.thickness_mm.nominal, depth, "from above through the board", items)


def _lines(items: tuple[Item, ...]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(item.line.id for item in items))
