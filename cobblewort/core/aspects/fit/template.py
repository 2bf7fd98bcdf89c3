"""The drilling and cut-out template of a case: its floor and walls, flat, at full size. [mm]"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from math import hypot
from typing import Literal

from cobblewort.core.aspects.fit.assign import Assignment
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.model import stack_of, standing_of
from cobblewort.core.aspects.fit.openings import ports_in_use, wanted_ports
from cobblewort.core.aspects.fit.placement import Outline, Standing
from cobblewort.core.aspects.fit.stack import StackResult, room_above_mm
from cobblewort.core.errors import InputError
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.parts.model import Case, Edge, PlugBody, SocketFace, Stack
from cobblewort.core.plans.plan import Requirement, Wired
from cobblewort.core.standards import fasteners, holes

CLEARANCE_MM = 0.5
"""Added on each side of a cut-out: what a saw or a printer misses, common practice."""
REACHED_MM = 15.0
"""A plug goes through a wall this far in front of its socket, not farther: its body is 20 to 30 mm
long, and fingers want the rest; a guess.
"""
LENS_MM = 10.0
"""The window of a small camera: its lens is 7 to 9 mm across; from memory."""
CABLE_SLOT_MM = (18.0, 2.0)
"""A slot for the flat cable of a camera, which is 16 mm wide; from memory."""
SENSED_MM = 8.0
"""An opening for a sensor to look or breathe through: a guess."""
WIRES_MM = 6.0
"""A hole for the four wires of a sensor that stands outside, each 1.3 mm thick; from memory."""
_SENSED = {"light": "light sensor", "distance": "lens", "climate": "air"}
WIRED_MM = {"led": 5.2, "button": 12.2}
"""A common LED is 5 mm thick and a common button 12 mm, both held in the wall; common practice."""
_ROW_MM, _BETWEEN_MM, _AROUND_MM = 150.0, 8.0, 6.0
_WALLS: tuple[tuple[Edge, str], ...] = (
    ("right", "Right wall"),
    ("left", "Left wall"),
    ("lower", "Front wall"),
    ("upper", "Back wall"),
)


@dataclass(slots=True, frozen=True)
class Hole:
    """A round hole by its centre and diameter, and what it is for where that is not plain."""

    x_mm: float
    y_mm: float
    diameter_mm: float
    label: str = ""


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
    """One flat side: its size, what is cut, and lines that only guide, to be drawn thinly.

    `seen` says from where; a sheet of holes whose place is free is seen from nowhere.
    """

    name: str
    width_mm: float
    height_mm: float
    holes: list[Hole] = field(default_factory=list)
    cutouts: list[Cutout] = field(default_factory=list)
    guides: list[Cutout] = field(default_factory=list)
    seen: Literal["from above", "from outside", ""] = "from outside"

    def holds(self, cut: Cutout) -> bool:
        """Whether a cut-out lies wholly on the panel."""
        return (
            min(cut.x_mm, cut.y_mm) >= 0
            and cut.x_mm + cut.width_mm <= self.width_mm
            and cut.y_mm + cut.height_mm <= self.height_mm
        )


def why_no_template(stack: StackResult) -> str:
    """What is missing for a template, as a sentence; empty where nothing is."""
    board, case = stack.board, stack.case
    if board is None or board.part.stack is None:
        return "A drilling template needs a board. Choose a board first."
    if case is None or case.part.case is None:
        return "A drilling template needs a case. Choose a case first."
    if board.part.stack.holes not in holes.PATTERNS_MM:
        return f"The hole pattern of {board.name} is not known. Measure it on the board."
    return ""


@derived(stack_of, standing_of, fit_of, "requirements", "wired", "items")
def template(
    stack: StackResult,
    standing: Standing | None,
    fit: Assignment,
    requirements: Sequence[Requirement],
    wired: Sequence[Wired],
    items: Items,
) -> list[Panel]:
    """Floor and walls of the kit's case, the boards where they stand.

    Walls without a cut-out are left out; open plates have none. What goes through a wall wherever
    its owner wants it, such as the lens of a camera, follows on a sheet of its own.

    Raises
    ------
    InputError
        If there is no board or no case, or the board's hole pattern is not known.
    """
    board, case = stack.board, stack.case
    own = None if board is None else board.part.stack
    shell = None if case is None else case.part.case
    missing = why_no_template(stack)
    if missing or board is None or case is None or own is None or shell is None:
        raise InputError([("plan", missing)])
    if shell.open:
        return [_floor(standing, case, shell)]
    walls, away = _walls(standing, fit, requirements, board, case, own, shell)
    return [_floor(standing, case, shell), *walls, *_free(wired, items, shell, away)]


def _floor(mounting: Standing | None, case: Item, shell: Case) -> Panel:
    """The holes of every board whose pattern is known, outlines of all, and posts to mind."""
    floor = Panel(
        f"Floor of {case.name}", shell.inner_length_mm, shell.inner_width_mm, seen="from above"
    )
    diameter = holes.CLEARANCE_MM[fasteners.THREAD]
    for board, at in () if mounting is None else mounting.boards:
        stack = board.part.stack
        pattern = () if stack is None else holes.PATTERNS_MM.get(stack.holes or "", ())
        floor.holes += [Hole(at.x_mm + x, at.y_mm + y, diameter) for x, y in pattern]
        floor.guides.append(Cutout(board.name, at.x_mm, at.y_mm, at.length_mm, at.width_mm))
    floor.guides += [
        Cutout(post.label, post.x_mm, post.y_mm, post.length_mm, post.width_mm)
        for post in shell.posts.values()
    ]
    return floor


def _walls(
    mounting: Standing | None,
    fit: Assignment,
    requirements: Sequence[Requirement],
    board: Item,
    case: Item,
    stack: Stack,
    shell: Case,
) -> tuple[list[Panel], list[Hole | Cutout]]:
    """Walls with what is reached through them; and holes for leads that come from farther inside,
    wide enough for their plug. A card or a button that far in is reached with the lid off.
    """
    floor_mm = shell.max_below_mm.nominal + stack.thickness_mm.nominal
    height_mm = floor_mm + float(room_above_mm(case, board)[0])
    stands = () if mounting is None else mounting.boards
    panels: list[Panel] = []
    away: list[Hole | Cutout] = []
    # What leaves a box with glands leaves it there, whatever socket it comes from.
    by_gland = bool(shell.glands) and not case.line.modified
    ports = [
        (label, face, body, at)
        for item, at in (() if by_gland else stands)
        for label, face, body in ports_in_use(requirements, item, fit)
    ]
    asked = {port.label for item, _ in stands for port in wanted_ports(requirements, item)}
    for edge, name in _WALLS:
        across = edge in ("left", "right")
        width = shell.inner_width_mm if across else shell.inner_length_mm
        panel = Panel(name, width, height_mm)
        for label, face, body, at in ports:
            if face.edge != edge:
                continue
            if _to_wall(edge, at, shell) > REACHED_MM:
                passes = body or (face if label in asked else None)
                if passes is not None:
                    through = hypot(passes.width_mm, passes.height_mm) + 2 * CLEARANCE_MM
                    away.append(Hole(0, 0, through, f"cable of the {label}, with its plug"))
                continue
            along = face.along_mm + (at.y_mm if across else at.x_mm)
            if edge in ("left", "upper"):
                along = width - along  # from outside, these walls are seen the other way round
            panel.cutouts.append(_cutout(label, along, floor_mm + face.z_mm, face, body))
        panel.cutouts = _joined(panel.cutouts)
        if panel.cutouts:
            panels.append(panel)
    return panels, away


def _to_wall(edge: Edge, at: Outline, shell: Case) -> float:
    """How far the edge of a board is from the wall that it faces. [mm]"""
    return {
        "left": at.x_mm,
        "right": shell.inner_length_mm - at.x_mm - at.length_mm,
        "lower": at.y_mm,
        "upper": shell.inner_width_mm - at.y_mm - at.width_mm,
    }[edge]


def _free(
    wires: Sequence[Wired], items: Items, shell: Case, away: list[Hole | Cutout]
) -> list[Panel]:
    """Holes whose place is free, in rows on a sheet of their own; open plates want none."""
    if shell.open:
        return []
    wanted = [*away, *_looked_through(items, shell)]
    wanted += [Hole(0, 0, WIRED_MM[wired.kind], wired.label) for wired in wires]
    if not wanted:
        return []
    panel = Panel("Openings without a fixed position", 0, 0, seen="")
    x_mm = y_mm = tallest_mm = _AROUND_MM
    for one in wanted:
        wide, tall = _size(one)
        if x_mm > _AROUND_MM and x_mm + wide > _ROW_MM:
            x_mm, y_mm = _AROUND_MM, tallest_mm + _BETWEEN_MM
        if isinstance(one, Hole):
            half = wide / 2
            panel.holes.append(replace(one, x_mm=x_mm + half, y_mm=y_mm + half))
        else:
            panel.cutouts.append(replace(one, x_mm=x_mm, y_mm=y_mm))
        x_mm += wide + _BETWEEN_MM
        tallest_mm = max(tallest_mm, y_mm + tall)
        panel.width_mm = max(panel.width_mm, x_mm - _BETWEEN_MM + _AROUND_MM)
        panel.height_mm = tallest_mm + _AROUND_MM
    return [panel]


def _looked_through(items: Items, shell: Case) -> Iterator[Hole | Cutout]:
    """Windows of cameras, sockets for a front wall, openings for what measures from inside."""
    # Air has its way in where there are vents, and none into a box against water.
    aired = bool(shell.glands) or shell.vent_low_cm2 + shell.vent_high_cm2 > 0
    for item in items:
        part = item.part
        if any(c.startswith("camera-") for plug in part.plugs.values() for c in plug.connectors):
            if part.inside:
                yield Hole(0, 0, LENS_MM, f"lens of {item.name}")
            else:
                yield Cutout(f"cable of {item.name}", 0, 0, *CABLE_SLOT_MM)
        if part.panel_hole is not None:
            yield Cutout(item.name, 0, 0, part.panel_hole.width_mm, part.panel_hole.height_mm)
        if part.kind == "device" and part.pins is not None and not part.inside and not shell.glands:
            jackets = [plug.jacket_mm for plug in part.plugs.values() if plug.jacket_mm]
            across = max(jackets) + 2 * CLEARANCE_MM if jackets else WIRES_MM
            yield Hole(0, 0, across, f"wires of {item.name}")
        for function, what in _SENSED.items():
            if function == "climate" and aired:
                continue
            if function in part.offers and part.inside and part.kind == "device":
                yield Hole(0, 0, SENSED_MM, f"{item.name}, {what}")


def _size(one: Hole | Cutout) -> tuple[float, float]:
    if isinstance(one, Hole):
        return one.diameter_mm, one.diameter_mm
    return one.width_mm, one.height_mm


def _cutout(label: str, along: float, up: float, face: SocketFace, body: PlugBody | None) -> Cutout:
    """As large as the socket's face or the body of its plug, whichever is larger, and some room."""
    width = max(face.width_mm, 0.0 if body is None else body.width_mm) + 2 * CLEARANCE_MM
    height = max(face.height_mm, 0.0 if body is None else body.height_mm) + 2 * CLEARANCE_MM
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
