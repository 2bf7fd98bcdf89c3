"""What lies in the case beside the boards, such as a battery: whether there is a place for it.

The case is a box, the boards with all that stands on them a smaller one in it. What is left are
boxes beside them, over them and in other compartments; a body lies in one of these, turned as it
goes in best.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from itertools import permutations
from math import prod

from cobblewort.core.aspects.fit.bays import Bays, bays_of
from cobblewort.core.aspects.fit.model import stack_of, standing_of
from cobblewort.core.aspects.fit.placement import Standing
from cobblewort.core.aspects.fit.stack import StackResult
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.parts.model import Case

Sides = tuple[float, float, float]
"""Length, width and height of a box. [mm]"""


_MOST_TRIES = 2000
"""Ways of laying bodies that are tried before the answer is left open."""


@dataclass(slots=True, frozen=True)
class Lying:
    """Bodies that find no place in the case: those too large for any, and all others where they
    have none together; and the largest place before anything lies there. [mm]
    """

    too_large: list[tuple[Item, Sides]] = field(default_factory=list)
    crowded: list[tuple[Item, Sides]] = field(default_factory=list)
    largest: Sides | None = None


@derived("built", stack_of, standing_of, bays_of)
def lying_of(built: Items, stack: StackResult, standing: Standing | None, bays: Bays) -> Lying:
    """Lay what is loose into the case."""
    case = stack.case
    shell = None if case is None else case.part.case
    if shell is None or standing is None or shell.open:
        return Lying()
    places = list(_places(shell, standing, stack))
    bodies = [(item, sides) for item, sides in _bodies(built) if item.id not in bays.taken]
    too_large = [(i, s) for i, s in bodies if not any(_turned(s, place) for place in places)]
    rest = [body for body in bodies if body not in too_large]
    together = _lie([s for _, s in rest], places, iter(range(_MOST_TRIES)))
    largest = max(places, key=prod, default=None)
    return Lying(too_large, [] if together else rest, largest)


def _lie(bodies: list[Sides], places: list[Sides], tries: Iterator[int]) -> bool:
    """Whether all bodies find a place at once; True too where that took too many tries."""
    if not bodies or next(tries, None) is None:
        return True
    largest = max(bodies, key=prod)
    rest = list(bodies)
    rest.remove(largest)
    for n, place in enumerate(places):
        others = places[:n] + places[n + 1 :]
        for turned in _turned(largest, place):
            if _lie(rest, [*others, *_left(place, turned)], tries):
                return True
    return False


def _bodies(built: Items) -> Iterator[tuple[Item, Sides]]:
    """Supplies, hubs and devices that are built in, and whose size is known."""
    for item in built:
        part, body = item.part, item.part.boxes.get("body")
        loose = part.inside and part.kind in ("power_supply", "hub", "device", "drive")
        if not loose or body is None or part.add_on is not None or part.pins is not None:
            continue
        if part.drive is not None and "." not in part.drive.size:
            continue  # a module lies on its board
        yield item, (body.dx_mm, body.dy_mm, body.dz_mm)


def _places(shell: Case, standing: Standing, stack: StackResult) -> Iterator[Sides]:
    """Boxes that the boards leave: where they may stand anywhere, all on one side."""
    length, width, height = shell.inner_length_mm, shell.inner_width_mm, shell.inner_height_mm
    room = standing.room
    from_x = min(at.x_mm for _, at in standing.boards)
    to_x = max(at.x_mm + at.length_mm for _, at in standing.boards)
    from_y = min(at.y_mm for _, at in standing.boards)
    to_y = max(at.y_mm + at.width_mm for _, at in standing.boards)
    before_x, behind_x = from_x - room.x_mm, room.x_mm + room.length_mm - to_x
    before_y, behind_y = from_y - room.y_mm, room.y_mm + room.width_mm - to_y
    if shell.any_holes or shell.self_made:
        before_x, behind_x = 0.0, before_x + behind_x
        before_y, behind_y = 0.0, before_y + behind_y
    yield from ((x, room.width_mm, height) for x in (before_x, behind_x) if x > 0)
    yield from ((room.length_mm, y, height) for y in (before_y, behind_y) if y > 0)
    highest = stack.reach_mm("above")
    over_mm = float(shell.max_above_mm.nominal) - (0.0 if highest is None else highest[1][0])
    if over_mm > 0:
        yield length, width, float(over_mm)
    for box in shell.compartments.values():
        if (box.x_mm, box.y_mm) != (room.x_mm, room.y_mm):
            yield box.length_mm, box.width_mm, box.above_mm or height


def _turned(sides: Sides, place: Sides) -> list[Sides]:
    """The sides of a body in each way in which it goes into a place, the flattest first."""
    ways = {
        (length, width, height)
        for length, width, height in permutations(sides)
        if length <= place[0] and width <= place[1] and height <= place[2]
    }
    return sorted(ways, key=lambda turned: (turned[2], turned))


def _left(place: Sides, taken: Sides) -> Iterator[Sides]:
    """What a body in the corner of a place leaves of it: what is before it, beside it and on it."""
    (length, width, height), (own_length, own_width, own_height) = place, taken
    yield length - own_length, width, height
    yield own_length, width - own_width, height
    yield own_length, own_width, height - own_height
