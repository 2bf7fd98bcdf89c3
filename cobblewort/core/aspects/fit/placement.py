"""Where boards stand in their case, seen from above.

Lengths in mm from the inner corner of the case, x along its length, y across. A board stands in the
middle of its room; where a post is in the way and the floor is drilled by hand, in the free place
nearest to the middle; where its owner puts it, there. Several boards on one plate stand in rows.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import product

from cobblewort.core.aspects.fit.stack import StackResult, compartment_of, room_below_mm
from cobblewort.core.judging.item import Item
from cobblewort.core.parts.model import Case, Compartment, Post

_LEAST_BESIDE_MM, _MOST_BESIDE_MM = 10.0, 40.0
"""Between boards on one plate: at least a finger's room, at most what plugs want (a guess)."""


@dataclass(slots=True, frozen=True)
class Outline:
    """A rectangle of the floor by its corner and its sides. [mm]"""

    x_mm: float
    y_mm: float
    length_mm: float
    width_mm: float

    def meets(self, other: Outline) -> bool:
        """Whether two rectangles share more than an edge."""
        return (
            self.x_mm < other.x_mm + other.length_mm
            and other.x_mm < self.x_mm + self.length_mm
            and self.y_mm < other.y_mm + other.width_mm
            and other.y_mm < self.y_mm + self.width_mm
        )

    def within(self, other: Outline) -> bool:
        """Whether this one lies wholly inside another."""
        return (
            self.x_mm >= other.x_mm
            and self.y_mm >= other.y_mm
            and self.x_mm + self.length_mm <= other.x_mm + other.length_mm
            and self.y_mm + self.width_mm <= other.y_mm + other.width_mm
        )


@dataclass(slots=True, frozen=True)
class Standing:
    """The boards of a kit on the floor of their case, the main one first.

    `label` names the compartment that is their room; it is empty where that is the whole inside.
    `posts` are those that are in the way of some board.
    """

    room: Outline
    label: str
    boards: tuple[tuple[Item, Outline], ...]
    posts: tuple[tuple[Post, Item], ...]

    @property
    def main(self) -> Outline:
        """Where the main board stands."""
        return self.boards[0][1]


def stand(stack: StackResult) -> Standing | None:
    """Put the boards of a kit into its case; None without a board or a case."""
    case, shell = stack.case, None if stack.case is None else stack.case.part.case
    board, own = stack.board, None if stack.board is None else stack.board.part.stack
    if case is None or shell is None or board is None or own is None:
        return None
    inside = compartment_of(case, board)
    room = Outline(0, 0, shell.inner_length_mm, shell.inner_width_mm)
    if inside is not None:
        room = _outline(inside)
    high = () if case.line.modified else tuple(_in_the_way(stack, case, shell, room))
    drilled = shell.any_holes or shell.self_made
    if drilled and board.line.position is not None:
        x_mm, y_mm = board.line.position.x_mm, board.line.position.y_mm
        first = Outline(x_mm, y_mm, own.length_mm, own.width_mm)
    else:
        first = _middle(room, own.length_mm, own.width_mm)
        if drilled:
            first = _free_place(room, first, [outline for _, outline in high])
    boards = tuple(zip(stack.boards, _in_rows(stack, shell, room, first), strict=False))
    posts = tuple(
        (post, item) for item, outline in boards for post, taken in high if taken.meets(outline)
    )
    return Standing(room, "" if inside is None else inside.label, boards, posts)


def _outline(box: Compartment | Post) -> Outline:
    return Outline(box.x_mm, box.y_mm, box.length_mm, box.width_mm)


def _in_the_way(
    stack: StackResult, case: Item, shell: Case, room: Outline
) -> Iterator[tuple[Post, Outline]]:
    """Posts in the room of the board that reach what hangs farthest down from it."""
    lowest = stack.reach_mm("below")
    below_mm = float(room_below_mm(case)[0]) - (0.0 if lowest is None else float(lowest[1][0]))
    for post in shell.posts.values():
        outline = _outline(post)
        if outline.meets(room) and (post.height_mm is None or post.height_mm > below_mm):
            yield post, outline


def _middle(room: Outline, length_mm: float, width_mm: float) -> Outline:
    return Outline(
        room.x_mm + (room.length_mm - length_mm) / 2,
        room.y_mm + (room.width_mm - width_mm) / 2,
        length_mm,
        width_mm,
    )


def _free_place(room: Outline, middle: Outline, taken: list[Outline]) -> Outline:
    """The middle, or the free place nearest to it, up against posts or walls."""
    if not any(middle.meets(post) for post in taken):
        return middle
    length, width = middle.length_mm, middle.width_mm
    along = {middle.x_mm, room.x_mm, room.x_mm + room.length_mm - length}
    across = {middle.y_mm, room.y_mm, room.y_mm + room.width_mm - width}
    for post in taken:
        along |= {post.x_mm - length, post.x_mm + post.length_mm}
        across |= {post.y_mm - width, post.y_mm + post.width_mm}
    free = [
        place
        for x_mm, y_mm in product(sorted(along), sorted(across))
        if (place := Outline(x_mm, y_mm, length, width)).within(room)
        and not any(place.meets(post) for post in taken)
    ]
    return min(
        free,
        key=lambda at: (at.x_mm - middle.x_mm) ** 2 + (at.y_mm - middle.y_mm) ** 2,
        default=middle,
    )


def _in_rows(stack: StackResult, shell: Case, room: Outline, first: Outline) -> Iterable[Outline]:
    """Where each board stands: in a tray side by side across, on a plate in rows, all of them
    together in the middle unless the first was put somewhere.
    """
    sizes = [(b.part.stack.length_mm, b.part.stack.width_mm) for b in stack.boards if b.part.stack]
    if len(sizes) < 2:
        return [first]
    gap = shell.place_gap_mm if shell.places > 1 else _gap_mm(sizes, room)
    found: list[Outline] = []
    x_mm = y_mm = row_mm = 0.0
    for length, width in sizes:
        if found and (shell.places > 1 or x_mm + length > room.length_mm):
            x_mm, y_mm, row_mm = 0.0, y_mm + row_mm + gap, 0.0
        found.append(Outline(x_mm, y_mm, length, width))
        x_mm, row_mm = x_mm + length + gap, max(row_mm, width)
    along_mm = max(place.x_mm + place.length_mm for place in found)
    across_mm = max(place.y_mm + place.width_mm for place in found)
    corner = _middle(room, min(along_mm, room.length_mm), min(across_mm, room.width_mm))
    if stack.boards[0].line.position is not None:
        corner = first
    return [
        Outline(p.x_mm + corner.x_mm, p.y_mm + corner.y_mm, p.length_mm, p.width_mm) for p in found
    ]


def _gap_mm(sizes: list[tuple[float, float]], room: Outline) -> float:
    """What a plate leaves between boards in a row, the walls counted like one of them. [mm]"""
    left_mm = room.length_mm - sum(length for length, _ in sizes)
    return min(_MOST_BESIDE_MM, max(_LEAST_BESIDE_MM, left_mm / (len(sizes) + 1)))
