"""The drilling and cut-out template of a case: its floor and walls, flat, at full size. [mm]"""

from __future__ import annotations

from dataclasses import dataclass, field

from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.model import stack_of, standing_of
from cobblewort.core.aspects.fit.openings import ports_in_use
from cobblewort.core.aspects.fit.stack import room_above_mm
from cobblewort.core.errors import InputError
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.piece import Piece
from cobblewort.core.parts.model import Case, Edge, PlugBody, Spot, Stack
from cobblewort.core.standards import fasteners, holes

CLEARANCE_MM = 0.5
"""Added on each side of a cut-out: what a saw or a printer misses, common practice."""
_WALLS: tuple[tuple[Edge, str], ...] = (
    ("right", "Right wall"), ("left", "Left wall"), ("lower", "Front wall"), ("upper", "Back wall"),
)  # fmt: skip


@dataclass(slots=True, frozen=True)
class Hole:
    """A round hole by its centre and diameter."""

    x_mm: float
    y_mm: float
    diameter_mm: float


@dataclass(slots=True, frozen=True)
class Cutout:
    """A rectangular hole by its lower left corner, and what comes out there."""

    label: str
    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float


@dataclass(slots=True)
class Panel:
    """One flat side, seen from outside: its size, what is cut, and lines that only guide.

    `guides` are outlines to draw thinly.
    """

    name: str
    width_mm: float
    height_mm: float
    holes: list[Hole] = field(default_factory=list)
    cutouts: list[Cutout] = field(default_factory=list)
    guides: list[Cutout] = field(default_factory=list)

    def holds(self, cut: Cutout) -> bool:
        """Whether a cut-out lies wholly on the panel."""
        return (
            min(cut.x_mm, cut.y_mm) >= 0
            and cut.x_mm + cut.width_mm <= self.width_mm
            and cut.y_mm + cut.height_mm <= self.height_mm
        )


def why_no_template(kit: Kit) -> str:
    """What is missing for a template, as a sentence; empty where nothing is."""
    stack = stack_of(kit)
    board, case = stack.board, stack.case
    if board is None or board.part.stack is None:
        return "a template needs a board; choose one first"
    if case is None or case.part.case is None:
        return "a template needs a case; choose a shell of your own or another one"
    if board.part.stack.holes not in holes.PATTERNS_MM:
        return f"the hole pattern of {board.name} is not known; measure it on the board"
    return ""


def template(kit: Kit) -> list[Panel]:
    """Floor and walls of the kit's case, the boards where they stand.

    The floor is seen from above, walls from outside. Walls without a cut-out are left out.

    Raises
    ------
    InputError
        If there is no board or no case, or the board's hole pattern is not known.
    """
    board, case = stack_of(kit).board, stack_of(kit).case
    stack = None if board is None else board.part.stack
    shell = None if case is None else case.part.case
    missing = why_no_template(kit)
    if missing or board is None or case is None or stack is None or shell is None:
        raise InputError([("plan", missing)])
    return [_floor(kit, case, shell), *_walls(kit, board, case, stack, shell)]


def _floor(kit: Kit, case: Piece, shell: Case) -> Panel:
    """The holes of every board whose pattern is known, outlines of all, and posts to mind."""
    floor = Panel(f"Floor of {case.name}", shell.inner_length_mm, shell.inner_width_mm)
    diameter = holes.CLEARANCE_MM[fasteners.THREAD]
    standing = standing_of(kit)
    for board, at in () if standing is None else standing.boards:
        stack = board.part.stack
        pattern = () if stack is None else holes.PATTERNS_MM.get(stack.holes or "", ())
        floor.holes += [Hole(at.x_mm + x, at.y_mm + y, diameter) for x, y in pattern]
        floor.guides.append(Cutout(board.name, at.x_mm, at.y_mm, at.length_mm, at.width_mm))
    floor.guides += [
        Cutout(post.label, post.x_mm, post.y_mm, post.length_mm, post.width_mm)
        for post in shell.posts.values()
    ]
    return floor


def _walls(kit: Kit, board: Piece, case: Piece, stack: Stack, shell: Case) -> list[Panel]:
    floor_mm = shell.max_below_mm.nominal + stack.thickness_mm.nominal
    height_mm = floor_mm + float(room_above_mm(case, board)[0])
    standing = standing_of(kit)
    stands = () if standing is None else standing.boards
    panels = []
    # What leaves a box with glands leaves it there, whatever socket it comes from.
    by_gland = bool(shell.glands) and not case.line.modified
    ports = [
        (label, spot, body, at)
        for piece, at in (() if by_gland else stands)
        for label, spot, body in ports_in_use(kit.plan, piece, fit_of(kit))
    ]
    for edge, name in _WALLS:
        across = edge in ("left", "right")
        width = shell.inner_width_mm if across else shell.inner_length_mm
        panel = Panel(name, width, height_mm)
        for label, spot, body, at in ports:
            if spot.edge != edge:
                continue
            along = spot.along_mm + (at.y_mm if across else at.x_mm)
            if edge in ("left", "upper"):
                along = width - along  # from outside, these walls are seen the other way round
            panel.cutouts.append(_cutout(label, along, floor_mm + spot.z_mm, spot, body))
        panel.cutouts = _joined(panel.cutouts)
        if panel.cutouts:
            panels.append(panel)
    return panels


def _cutout(label: str, along: float, up: float, spot: Spot, body: PlugBody | None) -> Cutout:
    """As large as the socket's face or the body of its plug, whichever is larger, and some room."""
    width = max(spot.width_mm, 0.0 if body is None else body.width_mm) + 2 * CLEARANCE_MM
    height = max(spot.height_mm, 0.0 if body is None else body.height_mm) + 2 * CLEARANCE_MM
    return Cutout(label, along - width / 2, up - height / 2, width, height)


def _joined(cutouts: list[Cutout]) -> list[Cutout]:
    """Cut-outs that overlap, such as those of stacked sockets, as the one that holds them."""
    left = list(cutouts)
    done: list[Cutout] = []
    while left:
        cut = left.pop(0)
        other = next((c for c in left if _overlap(cut, c)), None)
        if other is None:
            done.append(cut)
            continue
        left.remove(other)
        x_mm, y_mm = min(cut.x_mm, other.x_mm), min(cut.y_mm, other.y_mm)
        right = max(cut.x_mm + cut.width_mm, other.x_mm + other.width_mm)
        top = max(cut.y_mm + cut.height_mm, other.y_mm + other.height_mm)
        label = cut.label if cut.label == other.label else f"{cut.label}, {other.label}"
        left.insert(0, Cutout(label, x_mm, y_mm, right - x_mm, top - y_mm))
    return done


def _overlap(one: Cutout, other: Cutout) -> bool:
    return (
        one.x_mm < other.x_mm + other.width_mm
        and other.x_mm < one.x_mm + one.width_mm
        and one.y_mm < other.y_mm + other.height_mm
        and other.y_mm < one.y_mm + one.height_mm
    )
