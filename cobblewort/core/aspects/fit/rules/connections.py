"""Rules of fit: is it all there, does it plug together, does it go into the case."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

import numpy as np

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import PlugRef, Unplaced, suits
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.model import stack_of
from cobblewort.core.aspects.fit.openings import is_open
from cobblewort.core.aspects.fit.remedies import (
    cut_by_hand,
    is_video,
    more_sockets,
    sheets_off,
    taller_standoffs,
    video_lead,
)
from cobblewort.core.aspects.fit.stack import cooler_top_mm
from cobblewort.core.aspects.noise.model import turns
from cobblewort.core.figures.reading import Reading
from cobblewort.core.judging.findings import Remark
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Check, Margin, Severity
from cobblewort.core.judging.piece import Piece
from cobblewort.core.judging.remedies import add_missing, another, another_lead, remove_named
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.working import (
    Sum,
    Term,
    computed_term,
    plain_term,
    reading_term,
)


@rule(
    "FIT-01", "fit", "Everything that it needs to run is in the kit",
    why="A board without a supply or without something to start from is the commonest gap in a "
    "first list, and it is noticed on the evening of the build.",
    formula="board, supply and boot medium: at least one of each",
    source="common practice",
    reads=("pieces",),
    remedies=(add_missing("board", "supply", "boot"),),
)  # fmt: skip
def complete(kit: Kit) -> Iterator[Remark]:
    """One remark for each of board, supply and boot medium that is missing."""
    missing = {
        "board": "The kit has no board yet; choose one to begin.",
        "supply": "The kit has no supply; nothing would run.",
        "boot": "There is nothing to start from; add a memory card or a drive.",
    }
    for role, sentence in missing.items():
        if not kit.pieces.of_role(role):
            yield Remark(role, "stops", sentence)


@rule(
    "FIT-02", "fit", "Every plug has a socket",
    why="Connector, role, key and generation decide whether a plug goes in; when more want a kind "
    "of socket than there are, something is left over.",
    formula="a matching of plugs to sockets, found by augmenting paths",
    source="USB, PCI Express and M.2 connector definitions (from memory)",
    reads=(fit_of, "pieces"),
    remedies=(more_sockets, remove_named, another("addon", "data", "boot", "cooling", "board")),
)  # fmt: skip
def plugs_placed(kit: Kit) -> Iterator[Remark]:
    """One remark for each plug of a line; a spare lead or supply is only a note."""
    if not kit.pieces.of_role("board"):
        return
    by_plug: dict[tuple[str, str], list[Unplaced]] = {}
    for unplaced in fit_of(kit).unplaced:
        plug = unplaced.plug
        by_plug.setdefault((plug.piece.line.id, plug.name), []).append(unplaced)
    for (line, name), group in by_plug.items():
        plug = group[0].plug
        spare = plug.piece.part.kind in ("lead", "supply")
        severity: Severity = "note" if spare or not plug.plug.required else "stops"
        yield Remark(
            f"{line}.{name}", severity, _unplaced_sentence(group), (line,),
            tuple(socket.id for socket in group[0].sockets),
        )  # fmt: skip


def _unplaced_sentence(group: list[Unplaced]) -> str:
    first = group[0]
    line, part = first.plug.piece.line, first.plug.piece.part
    kinds = words.listed(words.connector(c) for c in first.plug.plug.connectors)
    label = first.plug.plug.label or "plug"
    whose = f"The {label} of {part.model}"
    if line.quantity > 1:
        whose = f"{len(group)} of the {line.quantity} {part.model}"
    if first.reason == "taken":
        taken = len(first.sockets)
        holder = next((r.piece.name for r in first.rivals if r.piece is not
                       first.plug.piece), None)  # fmt: skip
        held = {1: "the only one is taken", 2: "both are taken"}.get(
            taken, f"all {taken} are taken"
        )
        by = f" by {holder}" if taken == 1 and holder else ""
        return (
            f"{whose} {'find' if len(group) > 1 else 'finds'} no free {kinds} socket: {held}{by}."
        )
    if first.reason == "unsuitable":
        turned = first.plug.plug.contacts is not None and any(
            s.socket.contacts not in (None, first.plug.plug.contacts) for s in first.sockets_alike
        )
        why = "the contacts face the other way" if turned else "key or generation differ"
        goes = "go" if len(group) > 1 else "goes"
        return f"{whose} {goes} into no {kinds} socket here: {why}."
    wants = "need" if len(group) > 1 else "needs"
    return f"{whose} {wants} a {kinds} socket, and nothing in the kit has one."


@rule(
    "FIT-03", "fit", "The board's holes match the case",
    why="A board that is not held by its screws moves on its sockets until one breaks.",
    formula="the board's hole pattern is one of those that the case can hold",
    source="maker's drawings; patterns as the parts state them",
    reads=(stack_of,),
    remedies=(another("case"),),
)  # fmt: skip
def holes(kit: Kit) -> Iterator[Remark]:
    """Silent for a case whose plate is drilled to measure; says so where a pattern is not known."""
    stack = stack_of(kit)
    board, case = stack.board, stack.case
    if board is None or case is None or board.part.stack is None or case.part.case is None:
        return
    pattern = board.part.stack.holes
    lines = (board.line.id, case.line.id)
    if case.part.case.any_holes:
        return
    if pattern is None:
        yield Remark(
            "holes", "note",
            f"Not known: whether {case.name} holds {board.name}; its hole pattern is not stated.",
            lines,
        )  # fmt: skip
    elif pattern not in case.part.case.holes:
        takes = (
            words.listed(case.part.case.holes) if case.part.case.holes else "none that is stated"
        )
        yield Remark(
            "holes", "stops",
            f"{case.name} has no standoffs for {board.name}: the board's hole pattern is "
            f"{pattern}, the case takes {takes}.",
            lines,
        )  # fmt: skip


@rule(
    "FIT-04", "fit", "The board goes into the case",
    why="One millimetre too long is too long.",
    formula="board length and width against the inner box less its tabs, in mm",
    source="maker's drawings",
    reads=(stack_of, "pieces"),
    remedies=(cut_by_hand, another("case", "board")),
)  # fmt: skip
def outline(kit: Kit) -> Iterator[Check | Remark]:
    """Length and width of the board against the inner box; a note of a case that is left over."""
    stack = stack_of(kit)
    board, case = stack.board, stack.case
    if board is None or case is None or board.part.stack is None or case.part.case is None:
        return
    for other in kit.pieces:
        if other.part.case is not None and other is not case:
            yield Remark(
                other.id, "note",
                f"{board.name} stands in {case.name}; {other.name} is left over, and nothing is "
                "judged in it.",
                tuple(dict.fromkeys((other.line.id, case.line.id))),
            )  # fmt: skip
    shell = case.part.case
    tabs_mm = 0.0 if case.line.modified else shell.tabs_mm
    between = f" between its tabs of {tabs_mm:g} mm" if tabs_mm else ""
    for side, own, inner in (
        ("length", board.part.stack.length_mm, shell.inner_length_mm),
        ("width", board.part.stack.width_mm, shell.inner_width_mm),
    ):
        room = inner - tabs_mm

        def sentence(margin: Margin, side: str = side) -> str:
            shown, limit = words.apart(words.mm, margin.value, margin.limit)
            return f"{board.name} is {shown} in {side}; {case.name} has {limit} inside{between}."

        yield Check(
            side, f"Board {side} in the case", "mm", "max",
            own, room,
            sentence, (board.line.id, case.line.id),
            working=partial(_outline_sum, board, case, side, between, room, own),
        )  # fmt: skip


def _outline_sum(
    board: Piece, case: Piece, side: str, between: str, room_mm: float, own_mm: float,
    state: int,
) -> Sum:  # fmt: skip
    del state
    return _difference(
        plain_term("L_case", f"inside {side} of the case{between}", "mm", case, room_mm),
        plain_term("L_board", f"{side} of the board", "mm", board, own_mm),
    )


def _difference(room: Term, *taken: Term) -> Sum:
    """Room less what takes it up."""
    inputs = [room, *taken]
    expression = " - ".join(term.symbol for term in inputs)
    words_for = f"{room.label} less {words.listed(term.label for term in taken)}"
    return Sum(words_for, expression, inputs)


def _cooler_terms(board: Piece, cooler: Piece) -> list[Term]:
    """What a cooler's top above the board is made of."""
    heat, own = board.part.board_heat, cooler.part.cooler
    if heat is None or own is None:
        return []
    return [
        reading_term(
            "h_die", "height of the die", "mm", board, "board_heat.soc_top_mm", heat.soc_top_mm
        ),
        reading_term(
            "h_pad", "what lies between", "mm", cooler, "cooler.interface_mm", own.interface_mm
        ),
        reading_term(
            "h_cooler", "height of the cooler", "mm", cooler, "cooler.height_mm", own.height_mm
        ),
    ]


def _reach_terms(kit: Kit, side: str, piece: Piece) -> list[Term]:
    """What the layer that reaches farthest is made of."""
    stack = stack_of(kit)
    board = stack.board
    if board is not None and piece is stack.cooler:
        return _cooler_terms(board, piece)
    if piece.part.add_on is not None:
        height = piece.part.add_on.height_mm
        return [
            reading_term(
                "h_board", f"height of {piece.name}", "mm", piece, "add_on.height_mm", height
            )
        ]
    if piece.part.stack is None:
        return []
    own = piece.part.stack.above_mm if side == "above" else piece.part.stack.below_mm
    return [reading_term("h_board", f"tallest part {side}", "mm", piece, f"stack.{side}_mm", own)]


@rule(
    "FIT-05", "fit", "The lid closes and the floor is clear",
    why="Coolers and boards above decide whether a lid closes, boards below whether the standoffs "
    "are long enough; both are noticed only with the parts in hand.",
    formula="farthest reach of any layer from the board's face <= the case's room on that side",
    source="maker's drawings; heights add up as die + interface + cooler",
    reads=(stack_of,),
    remedies=(sheets_off, another("case"), another("cooling"), another("addon")),
)  # fmt: skip
def heights(kit: Kit) -> Iterator[Check]:
    """Room above and below the board against the layer that reaches farthest."""
    stack = stack_of(kit)
    board, case = stack.board, stack.case
    if board is None or case is None or case.part.case is None:
        return
    shell = case.part.case
    for side, rating in (("above", shell.max_above_mm), ("below", shell.max_below_mm)):
        farthest = stack.reach_mm(side)
        if farthest is None or (side == "above" and not shell.open and is_open(case)):
            continue
        piece, reach = farthest

        def sentence(margin: Margin, side: str = side, name: str = piece.name) -> str:
            shown, limit = words.apart(words.mm, margin.value, margin.limit)
            return f"{name} reaches {shown} {side} the board; {case.name} has {limit} there."

        yield Check(
            side, f"Room {side} the board", "mm", "max", reach,
            case.compiled.figure(f"case.max_{side}_mm"), sentence,
            tuple(dict.fromkeys((piece.line.id, case.line.id))),
            working=partial(_heights_sum, kit, case, piece, side, rating),
        )  # fmt: skip


def _heights_sum(
    kit: Kit, case: Piece, piece: Piece, side: str, rating: Reading, state: int
) -> Sum:
    del state
    path = f"case.max_{side}_mm"
    return _difference(
        reading_term("h_case", f"room {side} the board", "mm", case, path, rating),
        *_reach_terms(kit, side, piece),
    )


@rule(
    "FIT-06", "fit", "A cooler fits under the board above it",
    why="A drive board above and a cooler want the same room over the processor.",
    formula="die + interface + cooler height <= free height under the add-on board, in mm",
    source="maker's drawings",
    reads=(stack_of,),
    remedies=(taller_standoffs, another("cooling"), another("addon")),
)  # fmt: skip
def under_add_on(kit: Kit) -> Iterator[Check | Remark]:
    """Free height under the lowest board above against the cooler; a tower lets none be there."""
    stack = stack_of(kit)
    board, cooler = stack.board, stack.cooler
    if board is None or cooler is None or cooler.part.cooler is None:
        return
    if board.part.board_heat is None:
        return
    top = cooler_top_mm(board, cooler)
    for add_on in stack.add_ons("above")[:1]:
        lines = (cooler.line.id, add_on.line.id)
        if not cooler.part.cooler.room_above:
            yield Remark(
                add_on.id, "stops",
                f"{cooler.name} leaves no room for a board above it, and {add_on.name} stands "
                "there.",
                lines,
            )  # fmt: skip
        elif add_on.id in stack.gaps:

            def sentence(margin: Margin, name: str = add_on.name) -> str:
                shown, limit = words.apart(words.mm, margin.value, margin.limit)
                return f"{cooler.name} stands {shown} high; under {name} there are {limit}."

            yield Check(
                add_on.id, f"Cooler under {add_on.name}", "mm", "max", top,
                stack.gaps[add_on.id], sentence, lines,
                working=partial(
                    _under_sum, board, cooler, add_on.name, float(stack.gaps[add_on.id][0])
                ),
            )  # fmt: skip


def _under_sum(board: Piece, cooler: Piece, name: str, clear_mm: float, state: int) -> Sum:
    del state
    return _difference(
        computed_term("h_clear", f"free height under {name}", "mm", clear_mm, None),
        *_cooler_terms(board, cooler),
    )


@rule(
    "FIT-07", "fit", "A drive has the length its socket takes",
    why="A drive that is longer than the last standoff of its board cannot be screwed down.",
    formula="the drive's size is one of those that the socket lists",
    source="PCI Express M.2 specification, module sizes (from memory)",
    reads=(fit_of,),
    remedies=(another("data", "boot"), another("addon")),
)  # fmt: skip
def drive_length(kit: Kit) -> Iterator[Remark]:
    """Each drive that sits in a socket of other lengths."""
    for plug, socket in fit_of(kit).placed.values():
        drive = plug.piece.part.drive
        if drive is None or suits(plug, socket) or drive.size in socket.socket.lengths:
            continue
        if not socket.socket.lengths:
            continue
        yield Remark(
            plug.id, "stops",
            f"{plug.piece.name} is {words.mm(drive.length_mm)} long ({drive.size}); the "
            f"{socket.socket.label or 'socket'} of {socket.piece.name} takes "
            f"{words.listed(socket.socket.lengths)}.",
            (plug.piece.line.id, socket.piece.line.id), (socket.id,),
        )  # fmt: skip


@rule(
    "FIT-08", "fit", "A drive speaks the protocol of its socket",
    why="The same M.2 shape carries two protocols: the wrong one goes in and never appears.",
    formula="the drive's protocol is one of those that the socket carries",
    source="PCI Express M.2 specification, keys and what they carry (from memory)",
    reads=(fit_of,),
    remedies=(another("data", "boot"), another("addon")),
)  # fmt: skip
def drive_protocol(kit: Kit) -> Iterator[Remark]:
    """Each drive that sits in a socket of the other protocol."""
    for plug, socket in fit_of(kit).placed.values():
        drive = plug.piece.part.drive
        carried = socket.socket.protocols
        if drive is None or not carried or drive.protocol in carried:
            continue
        yield Remark(
            plug.id, "stops",
            f"{plug.piece.name} speaks {drive.protocol.upper()}; the "
            f"{socket.socket.label or 'socket'} of {socket.piece.name} carries "
            f"{words.listed(p.upper() if p == 'sata' else 'PCIe' for p in carried)}. It goes in "
            "and never appears.",
            (plug.piece.line.id, socket.piece.line.id), (socket.id,),
        )  # fmt: skip


@rule(
    "FIT-09", "fit", "A lead joins the supply to the board",
    why="A supply with a socket of its own comes without the lead, and no lead is in the box.",
    formula="every required inlet is reached from a source",
    source="common practice",
    reads=(fit_of, stack_of, "pieces"),
    remedies=(another_lead,),
)  # fmt: skip
def lead_there(kit: Kit) -> Iterator[Remark]:
    """A supply with a free socket while the board's inlet is empty: the lead is missing."""
    supplies = kit.pieces.of_role("supply")
    board = stack_of(kit).board
    if board is None or not supplies:
        return
    inlets = {n: s for n, s in board.part.sockets.items() if s.role == "power_in" and s.required}
    for name, inlet in inlets.items():
        if fit_of(kit).into(f"{board.id}.{name}") is not None:
            continue
        outlets = [s.connector for i in supplies for s in i.part.sockets.values()]
        if outlets:
            yield Remark(
                f"{board.id}.{name}", "stops",
                f"No lead joins {supplies[0].name} ({words.connector(outlets[0])} socket) to the "
                f"{words.connector(inlet.connector)} inlet of {board.name}.",
                (supplies[0].line.id, board.line.id), (f"{board.id}.{name}",),
            )  # fmt: skip


@rule(
    "FIT-10", "fit", "What is in use stays reachable",
    why="A board above covers the header, one below the card slot; it is noticed when the card has "
    "to come out.",
    formula="no socket in use is among those that a stacked board closes or hampers",
    source="maker's drawings",
    reads=(fit_of, stack_of),
    remedies=(another("addon"), another("boot"), remove_named),
)  # fmt: skip
def reachable(kit: Kit) -> Iterator[Remark]:
    """Sockets of the main board in use under a stacked board that closes or hampers them."""
    stack = stack_of(kit)
    board = stack.board
    if board is None:
        return
    covering = [i for side in ("above", "below") for i in stack.add_ons(side)]
    for plug, socket in fit_of(kit).placed.values():
        for cover in covering:
            own = cover.part.add_on
            if own is None or socket.piece is not board or plug.piece is cover:
                continue
            closed = socket.name in own.closes
            if closed or socket.name in own.hampers:
                where = socket.socket.label or socket.name
                told = (
                    f"closes it: {plug.piece.name} cannot be plugged in there"
                    if closed
                    else f"leaves hardly any room to reach it: plug {plug.piece.name} in first"
                )
                yield Remark(
                    f"{cover.id}.{plug.id}", "stops" if closed else "tight",
                    f"{cover.name} lies over the {where} of {board.name} and {told}.",
                    (cover.line.id, plug.piece.line.id), (socket.id,),
                )  # fmt: skip


_SPLASH = 4
"""Second digit of IEC 60529: splashing water from any direction (from memory)."""


@rule(
    "FIT-11", "fit", "The case stands the water of its place",
    why="Water finds every gap, and a case for the desk has nothing but gaps.",
    formula="second digit of the IP rating >= 4 (splashing) where the place is wet",
    source="IEC 60529 (from memory)",
    reads=(stack_of, "place.wet"),
    remedies=(another("case"), add_missing("case")),
)  # fmt: skip
def water(kit: Kit) -> Iterator[Remark]:
    """A wet place and a case that is not made for it, or none."""
    stack = stack_of(kit)
    if not kit.plan.place.wet or stack.board is None:
        return
    case = stack.case
    rating = None if case is None or case.part.case is None else case.part.case.ip_water
    if case is not None and rating is not None and rating >= _SPLASH:
        if case.line.modified:
            yield Remark(
                "cut", "tight",
                f"The openings of {case.name} are cut by hand, and its place is wet: what keeps "
                "water out there is not known.",
                (case.line.id,),
            )  # fmt: skip
        return
    what = "There is no case" if case is None else f"{case.name} is not made against water"
    lines = () if case is None else (case.line.id,)
    yield Remark("case", "stops", f"{what}, and its place is wet.", lines)


_DUST_PROTECTED = 5
"""First digit of IEC 60529: dust that gets in does no harm (from memory)."""


@rule(
    "FIT-34", "fit", "The case stands the dust of its place",
    why="Sawdust and flour settle in fins and fans; a cooler that was enough in spring "
    "throttles in autumn.",
    formula="first digit of the IP rating >= 5 (dust-protected) where there is much dust",
    source="IEC 60529 (from memory)",
    reads=(stack_of, "place.dust"),
    remedies=(another("case"), add_missing("case")),
)  # fmt: skip
def dust(kit: Kit) -> Iterator[Remark]:
    """A dusty place: tight without a case against it, a note where a fan draws some of it in."""
    stack = stack_of(kit)
    much = kit.plan.place.dust == "much"
    if kit.plan.place.dust == "clean" or stack.board is None:
        return
    case = stack.case
    rating = 0 if case is None or case.part.case is None else case.part.case.ip_solid
    if rating >= _DUST_PROTECTED:
        return
    lines = () if case is None else (case.line.id,)
    where = "Without a case" if case is None else f"In {case.name}"
    if much:
        yield Remark("case", "tight", f"{where} dust settles on everything: {_CLEAN_IT}", lines)
    elif stack.cooler is not None and turns(stack.cooler.part):
        cooler = stack.cooler
        yield Remark(
            "fan", "note", f"{where} {cooler.name} draws dust through its fins: {_CLEAN_IT}",
            (*lines, cooler.line.id),
        )  # fmt: skip


_CLEAN_IT = "look at fan and fins every few months, and clean them."


@rule(
    "FIT-28", "fit", "A lead joins each screen to the board",
    why="Video sockets come in three sizes, and the lead in the drawer has the other two.",
    formula="one end of a lead in the screen, its other end in a video socket of the board",
    source="types A, C and D of the digital video connector (from memory): none fits another",
    reads=(fit_of, stack_of, "pieces"),
    remedies=(video_lead, another("lead")),
)  # fmt: skip
def screens_joined(kit: Kit) -> Iterator[Remark]:
    """Each screen with a video socket that no lead joins to the board; a note where it is lent."""
    stack = stack_of(kit)
    board, boards = stack.board, stack.boards
    if board is None:
        return
    for screen in kit.pieces:
        if not screen.part.sockets:
            continue
        sockets = [n for n, s in screen.part.sockets.items() if is_video(s.connector)]
        if screen in boards or not sockets or _video_joined(kit, screen, boards):
            continue
        theirs = words.connector(screen.part.sockets[sockets[0]].connector)
        ours = dict.fromkeys(
            words.connector(s.connector) for one in boards for s in one.part.sockets.values()
            if is_video(s.connector)
        )  # fmt: skip
        if not ours:
            yield Remark(
                screen.id, "stops",
                f"{board.name} has no video socket, and {screen.name} wants one.",
                (screen.line.id, board.line.id),
            )  # fmt: skip
            continue
        borrowed = screen.line.role == "borrow"
        yield Remark(
            screen.id, "note" if borrowed else "stops",
            f"No lead joins {screen.name} ({theirs}) to {board.name} ({words.listed(ours)})"
            f"{': borrow one too' if borrowed else ''}.",
            (screen.line.id, board.line.id),
        )  # fmt: skip


def _video_joined(kit: Kit, screen: Piece, boards: list[Piece]) -> bool:
    """Whether some lead has one end in the screen and another in a board."""
    ends: dict[str, set[str]] = {}
    for plug, socket in fit_of(kit).placed.values():
        if is_video(socket.socket.connector):
            ends.setdefault(plug.piece.id, set()).add(socket.piece.id)
    return any({screen.id, board.id} <= reached for reached in ends.values() for board in boards)


_BREATH_MM = 5.0
"""A fan that sucks from above wants this much free over it: common practice."""


@rule(
    "FIT-29", "fit", "A fan has air to breathe",
    why="A fan that nearly touches the lid or a board moves noise instead of air.",
    formula="free height over the cooler >= 5 mm",
    source="common practice",
    reads=(stack_of,),
    remedies=(taller_standoffs, another("cooling"), another("case")),
)  # fmt: skip
def fan_breathes(kit: Kit) -> Iterator[Check]:
    """Room over a cooler with a fan: to the board above it, else to the lid."""
    stack = stack_of(kit)
    board, cooler, case = stack.board, stack.cooler, stack.case
    if board is None or cooler is None or cooler.part.cooler is None:
        return
    if cooler.part.cooler.r_fan_k_w is None or board.part.board_heat is None:
        return
    shell = None if case is None else case.part.case
    above = stack.add_ons("above")
    if above:
        room, over, label = stack.gaps[above[0].id], above[0], f"under {above[0].name}"
    elif case is not None and shell is not None and not is_open(case):
        room = case.compiled.figure("case.max_above_mm")
        over, label = case, f"in {case.name}"
    else:
        return
    free = room - cooler_top_mm(board, cooler)
    if float(free[0]) < 0:
        return  # the lid or the board is in the way, and that is told already

    def sentence(margin: Margin) -> str:
        shown, limit = words.apart(words.mm, margin.value, margin.limit)
        return (
            f"Over the fan of {cooler.name} there are {shown} {label}; it wants {limit} to breathe."
        )

    yield Check(
        cooler.id, f"Air over {cooler.name}", "mm", "min", np.maximum(free, 0.0),
        _BREATH_MM, sentence, (cooler.line.id, over.line.id),
        breach="tight",
        working=lambda _: Sum(
            "free height less the cooler, less what a fan wants", "h_room - h_top - h_breath",
            [
                computed_term("h_room", f"height {label}", "mm", float(room[0]), None),
                computed_term("h_top", f"top of {cooler.name}", "mm",
                              float(cooler_top_mm(board, cooler)[0]), None),
                plain_term("h_breath", "what a fan wants over it", "mm", cooler, _BREATH_MM),
            ],
        ),
    )  # fmt: skip


def plug_name(plug: PlugRef) -> str:
    """A plug as people say it: the piece, and which of its plugs where it has several."""
    if len(plug.piece.part.plugs) > 1 and plug.plug.label:
        return f"{plug.piece.name}, {plug.plug.label}"
    return plug.piece.name
