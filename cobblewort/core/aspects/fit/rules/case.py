"""Rules of fit: the board and what stands on it, in its case and its place."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

import numpy as np

from cobblewort.core import words
from cobblewort.core.aspects.fit.bays import Bays, bays_of, outside_of
from cobblewort.core.aspects.fit.model import layers_of, stack_of, standing_of
from cobblewort.core.aspects.fit.openings import is_open
from cobblewort.core.aspects.fit.placement import Standing
from cobblewort.core.aspects.fit.remedies import (
    cut_by_hand,
    into_the_middle,
    sheets_off,
    taller_standoffs,
)
from cobblewort.core.aspects.fit.stack import Layers, StackResult, cooler_top_mm, room_above_mm
from cobblewort.core.aspects.noise.model import turns
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.figures.reading import Reading
from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import add_missing, another
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import BOTHERS, FAILS, INFORMS, UNKNOWN
from cobblewort.core.judging.working import (
    Sum,
    Term,
    computed_term,
    plain_term,
    reading_term,
)
from cobblewort.core.plans.plan import Dust
from cobblewort.core.standards import enclosures
from cobblewort.core.text import Text, say


@rule(
    "FIT-03",
    "fit",
    "The mounting holes of the board match the case",
    why="A board that is not screwed down moves when a cable is plugged in, until a port breaks.",
    formula="the board's hole pattern is one of those that the case can hold",
    source="maker's drawings; patterns as the parts state them",
    reads=(stack_of,),
    remedies=(another("case"),),
)
def holes(stack: StackResult) -> Iterator[Observation]:
    """Silent for a case whose plate is drilled to measure; says so where a pattern is not known."""
    board, case = stack.board, stack.case
    if board is None or case is None or board.part.stack is None or case.part.case is None:
        return
    pattern = board.part.stack.holes
    lines = (board.line.id, case.line.id)
    if case.part.case.any_holes:
        return
    if pattern is None:
        yield Observation(
            "holes",
            UNKNOWN,
            say(
                "Not checked: mounting holes. {board} has no hole pattern to compare with {case}.",
                board=board.name,
                case=case.the,
            ),
            lines,
        )
    elif pattern not in case.part.case.holes:
        takes = words.listed(case.part.case.holes) if case.part.case.holes else "no stated pattern"
        yield Observation(
            "holes",
            FAILS,
            say(
                "{case} has no standoffs for {board}: the hole pattern is {pattern}; the case "
                "takes {takes}.",
                case=words.opening(case.the),
                board=board.name,
                pattern=pattern,
                takes=takes,
            ),
            lines,
        )


@rule(
    "FIT-04",
    "fit",
    "The board fits into the case",
    why="A board that is 1 mm too long does not go in.",
    formula="board length and width <= inner length and width of the case less its tabs, in mm",
    source="maker's drawings",
    reads=(stack_of, standing_of, "built"),
    remedies=(into_the_middle, cut_by_hand, another("case", "board")),
)
def outline(
    stack: StackResult, mounting: Standing | None, built: Items
) -> Iterator[Check | Observation]:
    """Length and width of the board against the inner box."""
    board, case = stack.board, stack.case
    if board is None or case is None or board.part.stack is None or case.part.case is None:
        return
    shell = case.part.case
    if mounting is None:
        return
    tabs_mm = 0.0 if case.line.modified else shell.tabs_mm
    between = " between its tabs" if tabs_mm else ""
    inside = f"in its {mounting.label}" if mounting.label else "inside"
    room, at = mounting.room, mounting.main
    for side, own, whole, from_mm in (
        ("length", board.part.stack.length_mm, room.length_mm, at.x_mm - room.x_mm),
        ("width", board.part.stack.width_mm, room.width_mm, at.y_mm - room.y_mm),
    ):
        left = whole - tabs_mm
        where = f"{inside}{between}"
        if from_mm > 0 and from_mm + own > whole:  # it goes in, but not where it was put
            left, where = max(0.0, whole - from_mm), "left from its position"

        def sentence(margin: Margin, side: str = side, where: str = where) -> Text:
            shown, limit = words.apart(words.mm, margin.value, margin.limit)
            return say(
                "{board} has a {side} of {shown}; {case} has {limit} {where}.",
                board=board.name,
                side=side,
                shown=shown,
                case=case.the,
                limit=limit,
                where=where,
            )

        yield Check(
            side,
            f"Board {side} in the case",
            "mm",
            "max",
            own,
            left,
            sentence,
            (board.line.id, case.line.id),
            working=partial(_outline_sum, board, case, side, where, left, own),
        )


def _outline_sum(
    board: Item,
    case: Item,
    side: str,
    where: str,
    room_mm: float,
    own_mm: float,
    state: int,
) -> Sum:
    del state
    return _difference(
        plain_term("L_case", f"{side} of the case {where}", "mm", case, room_mm),
        plain_term("L_board", f"{side} of the board", "mm", board, own_mm),
    )


def _difference(room: Term, *taken: Term) -> Sum:
    """Clearance less what takes it up."""
    inputs = [room, *taken]
    expression = " - ".join(term.symbol for term in inputs)
    words_for = f"{room.label} less {words.listed(term.label for term in taken)}"
    return Sum(words_for, expression, inputs)


def _cooler_terms(board: Item, cooler: Item) -> list[Term]:
    """What a cooler's top above the board is made of."""
    heat, own = board.part.board_heat, cooler.part.cooler
    if heat is None or own is None:
        return []
    return [
        reading_term(
            "h_die",
            "height of the processor",
            "mm",
            board,
            "board_heat.soc_top_mm",
            heat.soc_top_mm,
        ),
        reading_term(
            "h_pad",
            "thickness of the thermal pad",
            "mm",
            cooler,
            "cooler.interface_mm",
            own.interface_mm,
        ),
        reading_term(
            "h_cooler", "height of the cooler", "mm", cooler, "cooler.height_mm", own.height_mm
        ),
    ]


def _reach_terms(stack: StackResult, side: str, item: Item) -> list[Term]:
    """What the layer that reaches farthest is made of."""
    board = stack.board
    if board is not None and item is stack.cooler:
        return _cooler_terms(board, item)
    if item.part.add_on is not None:
        height = item.part.add_on.height_mm
        return [
            reading_term(
                "h_board", f"height of {item.name}", "mm", item, "add_on.height_mm", height
            )
        ]
    if item.part.stack is None:
        return []
    own = item.part.stack.above_mm if side == "above" else item.part.stack.below_mm
    return [
        reading_term("h_board", f"tallest component {side}", "mm", item, f"stack.{side}_mm", own)
    ]


@rule(
    "FIT-41",
    "fit",
    "No post of the case is under a board",
    why="A board that rests on a post of the case cannot be screwed down flat.",
    formula="the board's outline and each post that reaches its underside do not overlap",
    source="maker's drawings",
    reads=(stack_of, standing_of),
    remedies=(into_the_middle, cut_by_hand, another("case")),
)
def posts(stack: StackResult, mounting: Standing | None) -> Iterator[Observation]:
    """Each post under a board; boards that stand over each other or over the edge of their plate;
    a chosen place that a case with standoffs of its own does not have.
    """
    case = stack.case
    if case is None or case.part.case is None or mounting is None:
        return
    for post, board in mounting.posts:
        yield Observation(
            f"{board.id}.{post.x_mm:g}.{post.y_mm:g}",
            FAILS,
            say(
                "{board} rests on a {post} of {case}. Move the board or remove the {post}.",
                board=board.name,
                post=post.label,
                case=case.the,
            ),
            (board.line.id, case.line.id),
        )
    shell = case.part.case
    for board, at in mounting.boards[1:]:
        if shell.any_holes and shell.places == 1 and not at.within(mounting.room):
            yield Observation(
                f"{board.id}.edge",
                FAILS,
                say(
                    "{board} does not fit beside the other boards on the floor of {case}.",
                    board=board.name,
                    case=case.the,
                ),
                (board.line.id, case.line.id),
            )
    main, _ = mounting.boards[0]
    if main.line.position is not None and not (shell.any_holes or shell.self_made):
        yield Observation(
            f"{main.id}.fixed",
            INFORMS,
            say(
                "{case} has its own standoffs: {board} sits on them, not at the position entered.",
                case=words.opening(case.the),
                board=main.name,
            ),
            (main.line.id, case.line.id),
        )


@rule(
    "FIT-05",
    "fit",
    "The case has clearance above and below the board",
    why="A cooler or add-on board that is too tall stops the lid from closing.",
    formula="farthest reach of any layer from the board's face <= clearance of the case on that "
    "side",
    source="maker's drawings; heights add up as die + interface + cooler",
    reads=(stack_of,),
    remedies=(sheets_off, another("case"), another("cooling"), another("add_on")),
)
def heights(stack: StackResult) -> Iterator[Check]:
    """Room above and below the board against the layer that reaches farthest."""
    board, case = stack.board, stack.case
    if board is None or case is None or case.part.case is None:
        return
    shell = case.part.case
    for side, rating in (("above", shell.max_above_mm), ("below", shell.max_below_mm)):
        farthest = stack.reach_mm(side)
        if farthest is None or (side == "above" and not shell.open and is_open(case)):
            continue
        item, reach = farthest

        def sentence(margin: Margin, side: str = side, tallest: Item = item) -> Text:
            shown, limit = words.apart(words.mm, margin.value, margin.limit)
            return say(
                "{tallest} reaches {shown} {side} the board; {case} has {limit} of clearance.",
                tallest=words.opening(tallest.the),
                shown=shown,
                side=side,
                case=case.the,
                limit=limit,
            )

        yield Check(
            side,
            f"Clearance {side} the board",
            "mm",
            "max",
            reach,
            _room(board, case, side),
            sentence,
            tuple(dict.fromkeys((item.line.id, case.line.id))),
            working=partial(_heights_sum, stack, board, case, item, side, rating),
        )


def _room(board: Item, case: Item, side: str) -> FloatArray:
    """Clearance of a case on one side of the board. [mm]"""
    return (
        room_above_mm(case, board)
        if side == "above"
        else (case.compiled.figure(f"case.max_{side}_mm"))
    )


def _heights_sum(
    stack: StackResult, board: Item, case: Item, item: Item, side: str, rating: Reading, state: int
) -> Sum:
    del state
    path, room = f"case.max_{side}_mm", float(_room(board, case, side)[0])
    label = f"clearance {side} the board"
    given = (
        reading_term("h_case", label, "mm", case, path, rating)
        if room == rating.nominal
        else plain_term("h_case", f"{label}, of its inner height", "mm", case, room)
    )
    return _difference(given, *_reach_terms(stack, side, item))


@rule(
    "FIT-06",
    "fit",
    "The cooler fits under the board above it",
    why="An add-on board and a cooler share the height above the processor.",
    formula="processor + pad + cooler height <= clearance under the add-on board, in mm",
    source="maker's drawings",
    reads=(layers_of,),
    remedies=(taller_standoffs, another("cooling"), another("add_on")),
)
def under_add_on(stack: Layers) -> Iterator[Check | Observation]:
    """Free height under the lowest board above against the cooler; a tower lets none be there."""
    board, cooler = stack.board, stack.cooler
    if board is None or cooler is None or cooler.part.cooler is None:
        return
    if board.part.board_heat is None:
        return
    top = cooler_top_mm(board, cooler)
    for add_on in stack.add_ons("above")[:1]:
        lines = (cooler.line.id, add_on.line.id)
        if not cooler.part.cooler.room_above:
            yield Observation(
                add_on.id,
                FAILS,
                say(
                    "{cooler} leaves no clearance for a board above it; {board} is there.",
                    cooler=words.opening(cooler.the),
                    board=add_on.name,
                ),
                lines,
            )
        elif add_on.id in stack.gaps and not _made_for(add_on, cooler):

            def sentence(margin: Margin, name: str = add_on.name) -> Text:
                shown, limit = words.apart(words.mm, margin.value, margin.limit)
                return say(
                    "{cooler} is {shown} high; the clearance under {board} is {limit}.",
                    cooler=words.opening(cooler.the),
                    shown=shown,
                    board=name,
                    limit=limit,
                )

            yield Check(
                add_on.id,
                f"Cooler under {add_on.name}",
                "mm",
                "max",
                top,
                stack.gaps[add_on.id],
                sentence,
                lines,
                working=partial(
                    _under_sum, board, cooler, add_on.name, float(stack.gaps[add_on.id][0])
                ),
            )


def _made_for(add_on: Item, cooler: Item) -> bool:
    """Whether a board and a cooler under it are sold or tested together."""
    own = add_on.part.add_on
    return own is not None and cooler.part.id in own.fits_under


def _under_sum(board: Item, cooler: Item, name: str, clear_mm: float, state: int) -> Sum:
    del state
    return _difference(
        computed_term("h_clear", f"clearance under {name}", "mm", clear_mm, None),
        *_cooler_terms(board, cooler),
    )


@rule(
    "FIT-11",
    "fit",
    "The case keeps out the water at the location",
    why="Water enters a case without a rating through every gap.",
    formula="second digit of the IP rating >= 4 (splashing) where the location is wet",
    source="IEC 60529 (from memory)",
    reads=(stack_of, "place.wet"),
    remedies=(another("case"), add_missing("case")),
)
def water(stack: StackResult, wet: bool) -> Iterator[Observation]:
    """A wet place and a case that is not made for it, or none."""
    if not wet or stack.board is None:
        return
    case = stack.case
    rating = None if case is None or case.part.case is None else case.part.case.ip_water
    if case is not None and rating is not None and rating >= enclosures.SPLASHING:
        if case.line.modified:
            yield Observation(
                "cut",
                BOTHERS,
                say(
                    "The openings of {case} are cut by hand and the location is wet. Not checked: "
                    "their seals.",
                    case=case.the,
                ),
                (case.line.id,),
            )
        return
    told = (
        say("The kit has no case, and the location is wet.")
        if case is None
        else say(
            "{case} is not water-protected, and the location is wet.", case=words.opening(case.the)
        )
    )
    lines = () if case is None else (case.line.id,)
    yield Observation("case", FAILS, told, lines)


@rule(
    "FIT-45",
    "fit",
    "Parts outside the case stand the water at the location",
    why="What lies beside the case gets wet where the case does.",
    formula="second digit of the IP rating >= 4 (splashing) of each part outside the case where "
    "the location is wet",
    source="IEC 60529 (from memory)",
    reads=(bays_of, "built", "place.wet"),
)
def water_outside(bays: Bays, built: Items, wet: bool) -> Iterator[Observation]:
    """What lies outside at a wet place and is not rated for it, in one note."""
    if not wet:
        return
    exposed = {
        item.line.id: item.name
        for item in outside_of(built, bays)
        if (item.part.ip_water or 0) < enclosures.SPLASHING
    }
    if exposed:
        yield Observation(
            "outside",
            INFORMS,
            say(
                "Not rated for water and outside the case at a wet location: {parts}. Put {them} "
                "under cover.",
                parts=words.listed(list(exposed.values())),
                them="it" if len(exposed) == 1 else "them",
            ),
            tuple(exposed),
        )


@rule(
    "FIT-34",
    "fit",
    "The case keeps out the dust at the location",
    why="Dust settles in fins and fans until the cooler no longer cools enough.",
    formula="first digit of the IP rating >= 5 (dust-protected) where there is much dust",
    source="IEC 60529 (from memory)",
    reads=(stack_of, "place.dust"),
    remedies=(another("case"), add_missing("case")),
)
def dust(stack: StackResult, dust: Dust) -> Iterator[Observation]:
    """A dusty place: tight without a case against it, a note where a fan draws some of it in."""
    much = dust == "much"
    if dust == "clean" or stack.board is None:
        return
    case = stack.case
    rating = 0 if case is None or case.part.case is None else case.part.case.ip_solid
    if rating >= enclosures.DUST_PROTECTED:
        return
    lines = () if case is None else (case.line.id,)
    case_told = "A kit without a case" if case is None else words.opening(case.the)
    if much:
        yield Observation(
            "case",
            BOTHERS,
            say(
                "{case} does not keep out the dust at this location. {clean}",
                case=case_told,
                clean=_CLEAN_IT,
            ),
            lines,
        )
    elif stack.cooler is not None and turns(stack.cooler.part):
        cooler = stack.cooler
        yield Observation(
            "fan",
            INFORMS,
            say(
                "{cooler} draws dust through its fins. {clean}",
                cooler=words.opening(cooler.the),
                clean=_CLEAN_IT,
            ),
            (*lines, cooler.line.id),
        )


_CLEAN_IT = "Clean fan and fins every few months."


_BREATH_MM = 2.0
"""A fan that sucks from above wants this much free over it: a clip-on under a board on standoffs of
16 mm has 2 to 3 mm and does its work (common practice)."""


@rule(
    "FIT-29",
    "fit",
    "The fan has clearance above it",
    why="A fan close to a lid or board moves little air and is loud.",
    formula="clearance over the cooler >= 2 mm; less is a note",
    source="common practice",
    reads=(stack_of,),
    remedies=(taller_standoffs, another("cooling"), another("case")),
)
def fan_breathes(stack: StackResult) -> Iterator[Check]:
    """Room over a cooler with a fan: to the board above it, else to the lid."""
    board, cooler, case = stack.board, stack.cooler, stack.case
    if board is None or cooler is None or cooler.part.cooler is None:
        return
    if cooler.part.cooler.r_fan_k_w is None or board.part.board_heat is None:
        return
    shell = None if case is None else case.part.case
    above = stack.add_ons("above")
    if above and _made_for(above[0], cooler):
        return
    if above:
        room, over, label = stack.gaps[above[0].id], above[0], f"under {above[0].name}"
    elif case is not None and shell is not None and not is_open(case):
        room = room_above_mm(case, board)
        over, label = case, f"in {case.name}"
    else:
        return
    free = room - cooler_top_mm(board, cooler)
    if float(free[0]) < 0:
        return  # the lid or the board is in the way, and that is told already

    def sentence(margin: Margin) -> Text:
        shown, limit = words.apart(words.mm, margin.value, margin.limit)
        return say(
            "The fan of {cooler} has {shown} of clearance {where}; it needs {limit}.",
            cooler=cooler.the,
            shown=shown,
            where=label,
            limit=limit,
        )

    yield Check(
        cooler.id,
        f"Fan clearance of {cooler.name}",
        "mm",
        "min",
        np.maximum(free, 0.0),
        _BREATH_MM,
        sentence,
        (cooler.line.id, over.line.id),
        consequence=INFORMS,
        working=lambda _: Sum(
            "clearance less the cooler, less the clearance that a fan needs",
            "h_room - h_top - h_breath",
            [
                computed_term("h_room", f"height {label}", "mm", float(room[0]), None),
                computed_term(
                    "h_top",
                    f"top of {cooler.name}",
                    "mm",
                    float(cooler_top_mm(board, cooler)[0]),
                    None,
                ),
                plain_term("h_breath", "clearance that a fan needs", "mm", cooler, _BREATH_MM),
            ],
        ),
    )
