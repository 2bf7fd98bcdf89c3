"""Rules of hands and neighbours: buttons, latches, fans at walls, boards in a row, fronts."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import Assignment
from cobblewort.core.aspects.fit.collisions import (
    Blocks,
    PlacedBox,
    boards_over,
    latches_in_use,
    overlap_of,
)
from cobblewort.core.aspects.fit.model import blocks_of, stack_of, standing_of
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.openings import has_walls, is_open, opening_at
from cobblewort.core.aspects.fit.placement import Outline, Standing
from cobblewort.core.aspects.fit.remedies import cut_by_hand
from cobblewort.core.aspects.fit.rules.connections import plug_name
from cobblewort.core.aspects.fit.stack import StackResult
from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another, another_supply
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import BOTHERS, FAILS, INFORMS
from cobblewort.core.judging.working import Sum, computed_term, standard_term
from cobblewort.core.parts.model import Latch, SocketFace
from cobblewort.core.text import Text, say

_OUTFLOW_MM = 10.0
"""A small fan that blows at a wall wants at least this much before it: common practice."""


@rule(
    "FIT-35",
    "fit",
    "Buttons and latches are reachable",
    why="A covered button or latch means taking the kit apart to use it.",
    formula="a button: an opening in front of it; a latch in use: free to its lift, no board "
    "over it",
    source="maker's drawings; order of assembly: common practice",
    reads=(fit_of, blocks_of, stack_of),
)
def hands_reach(fit: Assignment, blocks: Blocks, stack: StackResult) -> Iterator[Observation]:
    """Buttons behind walls, latches under boards and coolers."""
    board, case = stack.board, stack.case
    if board is None:
        return
    shell = None if case is None else case.part.case
    if case is not None and shell is not None and has_walls(case):
        for name, button in board.part.buttons.items():
            face = button.face
            if face.edge not in shell.open_edges and opening_at(shell, face) is None:
                yield Observation(
                    f"button.{name}",
                    INFORMS,
                    say(
                        "{case} covers the {button} of {board}. Open the case to press it.",
                        case=words.opening(case.the),
                        button=button.label,
                        board=board.name,
                    ),
                    (case.line.id, board.line.id),
                )
    for item, latch in latches_in_use(board, fit):
        cooler = _cooler_over(stack, blocks, latch)
        if cooler is not None:
            yield Observation(
                f"latch.{item.id}",
                INFORMS,
                say(
                    "The latch for {item} needs {lift} to open and is under {cooler}. Insert the "
                    "flat cable before you fit the cooler.",
                    item=item.name,
                    lift=words.mm(latch.lift_mm),
                    cooler=cooler.the,
                ),
                (cooler.line.id, item.line.id),
            )
            continue
        over = boards_over(stack, latch)
        others = [layer.item for layer in over if layer.item is not item]
        if others:
            names = words.few(i.name for i in others)
            yield Observation(
                f"latch.{item.id}",
                INFORMS,
                say(
                    "The latch for {item} is under {names}. Insert and test the flat cable "
                    "before you screw down the board above.",
                    item=item.name,
                    names=names,
                ),
                (item.line.id, *dict.fromkeys(i.line.id for i in others)),
            )


def _cooler_over(stack: StackResult, in_space: Blocks, latch: Latch) -> Item | None:
    """The cooler, where its block lies where a latch has to rise."""
    rising = PlacedBox(
        "",
        "",
        "",
        "",
        latch.x_mm,
        latch.y_mm,
        latch.z_mm,
        latch.dx_mm,
        latch.dy_mm,
        latch.dz_mm + latch.lift_mm,
    )
    cooler = stack.cooler
    blocks = [box for box in in_space.boxes if cooler is not None and box.item == cooler.id]
    return cooler if any(overlap_of(block, rising) for block in blocks) else None


@rule(
    "FIT-36",
    "fit",
    "The fan has clearance to the wall",
    why="A wall close to a fan that blows along the board sends the warm air back.",
    formula="distance from the cooler to the walls in front of and behind it >= 10 mm; the board "
    "is in the middle of its case",
    source="common practice",
    reads=(blocks_of, stack_of),
    remedies=(another("cooling"), another("case")),
)
def blows_freely(blocks: Blocks, stack: StackResult) -> Iterator[Check]:
    """The shorter way from a cooler that blows along the board to a wall of its case."""
    board, cooler, case = stack.board, stack.cooler, stack.case
    own = None if cooler is None else cooler.part.cooler
    shell = None if case is None else case.part.case
    if board is None or cooler is None or own is None or not own.blows_along:
        return
    if case is None or shell is None or is_open(case) or board.part.stack is None:
        return
    length_mm = board.part.stack.length_mm
    beyond_mm = (shell.inner_length_mm - length_mm) / 2
    for block in blocks.boxes:
        if block.item != cooler.id:
            continue
        ways = [
            (edge, way)
            for edge, way in (
                ("left", block.x_mm + beyond_mm),
                ("right", length_mm + beyond_mm - block.x_mm - block.dx_mm),
            )
            if edge not in shell.open_edges
        ]
        if ways:
            yield _blowing(cooler, case, min(way for _, way in ways))


def _blowing(cooler: Item, case: Item, way_mm: float) -> Check:
    def sentence(margin: Margin) -> Text:
        shown, limit = words.apart(words.mm, margin.value, margin.limit)
        return say(
            "{cooler} blows at a wall of {case} {shown} away; it needs {limit}.",
            cooler=words.opening(cooler.the),
            case=case.the,
            shown=shown,
            limit=limit,
        )

    return Check(
        cooler.id,
        f"Fan clearance of {cooler.name}",
        "mm",
        "min",
        max(0.0, way_mm),
        _OUTFLOW_MM,
        sentence,
        (cooler.line.id, case.line.id),
        consequence=BOTHERS,
        working=lambda _: Sum(
            "distance to the nearest wall less the clearance required",
            "l_wall - l_air",
            [
                computed_term("l_wall", "cooler to the nearest wall", "mm", max(0.0, way_mm), None),
                standard_term(
                    "l_air",
                    "clearance required in front of a fan",
                    "mm",
                    _OUTFLOW_MM,
                    "common practice",
                ),
            ],
        ),
    )


@rule(
    "FIT-37",
    "fit",
    "Boards side by side have clearance",
    why="In a tray the boards are close together: the plug of one can hit the next board.",
    formula="boards <= positions in the case; plugs on edges that face a neighbour <= gap "
    "between them",
    source="maker's drawings",
    reads=(stack_of, standing_of, fit_of),
    remedies=(another("cable"), another_supply, another("case")),
)
def side_by_side(
    stack: StackResult, mounting: Standing | None, fit: Assignment
) -> Iterator[Observation]:
    """More boards than places, and plugs that reach into the next board."""
    case = stack.case
    boards = stack.boards
    shell = None if case is None else case.part.case
    if case is None or shell is None or len(boards) < 2:
        return
    if len(boards) > shell.places and not shell.any_holes:
        yield Observation(
            "places",
            FAILS,
            say(
                "{case} has {positions} for a board; the kit has {count} boards.",
                case=words.opening(case.the),
                count=len(boards),
                positions=words.count(shell.places, "position"),
            ),
            (case.line.id, *dict.fromkeys(board.line.id for board in boards)),
        )
        return
    if mounting is not None:
        yield from _into_the_next(fit, mounting, case)


def _into_the_next(fit: Assignment, mounting: Standing, case: Item) -> Iterator[Observation]:
    """Plugs whose body wants room that another board takes."""
    places = {board.id: at for board, at in mounting.boards}
    for plug, socket in fit.placed.values():
        face, body, at = socket.socket.face, plug.plug.body, places.get(socket.item.id)
        if face is None or body is None or at is None:
            continue
        for other, taken in places.items():
            away_mm = _apart_mm(face, at, taken)
            if other != socket.item.id and away_mm is not None and away_mm < body.length_mm:
                yield Observation(
                    plug.id,
                    FAILS,
                    say(
                        "The plug of {plug} protrudes {length} from {board}; the next board in "
                        "{case} is {away} away.",
                        plug=plug_name(plug),
                        length=words.mm(body.length_mm),
                        board=socket.item.name,
                        case=case.the,
                        away=words.mm(away_mm),
                    ),
                    tuple(dict.fromkeys((plug.item.line.id, socket.item.line.id, case.line.id))),
                    (socket.id,),
                )
                break


def _apart_mm(face: SocketFace, at: Outline, other: Outline) -> float | None:
    """From the edge of a socket straight out to another board; None where it does not lie there."""
    across = face.edge in ("lower", "upper")
    here = face.along_mm + (at.x_mm if across else at.y_mm)
    from_mm, size_mm = (other.x_mm, other.length_mm) if across else (other.y_mm, other.width_mm)
    if not from_mm <= here <= from_mm + size_mm:
        return None
    away = {
        "right": other.x_mm - at.x_mm - at.length_mm,
        "left": at.x_mm - other.x_mm - other.length_mm,
        "upper": other.y_mm - at.y_mm - at.width_mm,
        "lower": at.y_mm - other.y_mm - other.width_mm,
    }[face.edge]
    return away if away >= 0 else None


@rule(
    "FIT-38",
    "fit",
    "A front-panel port has a hole, a camera a window",
    why="A front-panel port needs a hole in a wall, and a camera cannot see through a lid.",
    formula="a part for a front wall: a wall that is cut by hand or open; a camera in a case with "
    "walls: a window",
    source="maker's drawings",
    reads=(stack_of, "built"),
    remedies=(cut_by_hand, another("case")),
)
def front_sockets(stack: StackResult, built: Items) -> Iterator[Observation]:
    """Each part for a front wall: nowhere to go, or the hole to cut; the window of a camera."""
    case = stack.case
    shell = None if case is None else case.part.case
    if case is None or shell is None or shell.open:
        return
    for item in built:
        if any(c.startswith("camera-") for p in item.part.plugs.values() for c in p.connectors):
            against = "watertight " if shell.glands else ""
            yield Observation(
                item.id,
                INFORMS,
                say(
                    "{camera} needs a {against}window in {case} for its lens, or a {against}slot "
                    "for its cable.",
                    camera=item.name,
                    against=against,
                    case=case.the,
                ),
                (item.line.id, case.line.id),
            )
        hole = item.part.panel_hole
        if hole is None:
            continue
        size = words.sides(words.stated_mm(hole.width_mm), words.stated_mm(hole.height_mm))
        if has_walls(case) and not shell.open_edges:
            yield Observation(
                item.id,
                BOTHERS,
                say(
                    "{item} needs a hole of {size} in a wall; {case} has none.",
                    item=item.name,
                    size=size,
                    case=case.the,
                ),
                (item.line.id, case.line.id),
            )
        else:
            yield Observation(
                item.id,
                INFORMS,
                say(
                    "Cut a hole of {size} for {item} in the front of {case}. Wear eye protection "
                    "and deburr the edges.",
                    size=size,
                    item=item.name,
                    case=case.the,
                ),
                (item.line.id, case.line.id),
            )
