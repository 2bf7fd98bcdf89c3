"""Rules of fit: what is missing altogether."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import Assignment
from cobblewort.core.aspects.fit.model import board_reached, boards_of, cable_hangs_free
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.remedies import (
    is_video,
    video_cable,
)
from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items
from cobblewort.core.judging.remedies import add_missing, another, another_cable
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import BOTHERS, FAILS, INFORMS, Consequence
from cobblewort.core.plans.plan import Requirement
from cobblewort.core.text import say


@rule(
    "FIT-01",
    "fit",
    "The kit has a board, a power supply and a boot drive",
    why="Without one of these three the kit cannot start.",
    formula="board, power supply and boot drive: at least one of each",
    source="common practice",
    reads=("connected", board_reached, cable_hangs_free),
    remedies=(add_missing("board", "power_supply", "boot_drive"),),
)
def complete(connected: Items, reached: bool, hangs_free: bool) -> Iterator[Observation]:
    """One observation for each of board, supply and boot drive that is missing."""
    missing = {
        "board": "The kit has no board. Choose one to begin.",
        "power_supply": "The kit has no power supply. Add one.",
        "boot_drive": "The kit has no boot drive. Add a memory card or a drive.",
    }
    for role, sentence in missing.items():
        fed = role == "power_supply" and reached and not hangs_free
        if not connected.of_role(role) and not fed:
            yield Observation(role, FAILS, say(sentence))


@rule(
    "FIT-09",
    "fit",
    "A cable connects the power supply to the board",
    why="A power supply with a port of its own usually comes without a cable.",
    formula="every required power input is reached from a source",
    source="common practice",
    reads=(fit_of, boards_of, board_reached, "connected"),
    remedies=(another_cable,),
)
def cable_there(
    fit: Assignment, boards: list[Item], reached: bool, connected: Items
) -> Iterator[Observation]:
    """A supply with a free socket while the board's input is empty: the cable is missing."""
    supplies = connected.of_role("power_supply")
    if not boards or not supplies or reached:
        return
    board = boards[0]
    inlets = {n: s for n, s in board.part.sockets.items() if s.role == "power_in" and s.required}
    for name, inlet in inlets.items():
        if fit.into(f"{board.id}.{name}") is not None:
            continue
        outlets = [s.connector for i in supplies for s in i.part.sockets.values()]
        if outlets:
            yield Observation(
                f"{board.id}.{name}",
                FAILS,
                say(
                    "No cable connects {supply} ({outlet} port) to the {inlet} power input of "
                    "{board}.",
                    supply=supplies[0].the,
                    outlet=words.connector(outlets[0]),
                    inlet=words.connector(inlet.connector),
                    board=board.name,
                ),
                (supplies[0].line.id, board.line.id),
                (f"{board.id}.{name}",),
            )


@rule(
    "FIT-28",
    "fit",
    "A video cable connects each screen and video input",
    why="Video ports come in three sizes; a cable of the wrong size does not fit.",
    formula="one end of a video cable in the screen, the other in a video port of the board; the "
    "same from other equipment to a video input",
    source="types A, C and D of the digital video connector (from memory): none fits another",
    reads=(fit_of, boards_of, "connected", "requirements"),
    remedies=(video_cable, another("cable")),
)
def pictures_joined(
    fit: Assignment, boards: list[Item], connected: Items, requirements: Sequence[Requirement]
) -> Iterator[Observation]:
    """Each screen that no cable joins to a board, and what takes a picture in without a cable from
    the other machine: a problem where the picture is required, else tight; a note where the screen
    is lent or where no such machine is in the plan.
    """
    asked = {requirement.function for requirement in requirements}
    givers = {
        "screen": boards,
        "video_in": [i for i in connected.of_role("other_equipment") if _video_sockets(i, "host")],
    }
    for item in connected:
        inlets = _video_sockets(item, "picture_in")
        wants = _looks_at(item)
        if not inlets or wants is None:
            continue
        joined = _shown_by(fit, item)
        if any(giver in joined for giver in givers[wants]):
            continue
        if wants == "screen":
            missed = FAILS if asked & {"screen", "video_out"} else BOTHERS
            yield from _screen_alone(item, inlets[0], givers[wants], missed)
        else:
            missed = FAILS if "video_in" in asked else BOTHERS
            yield from _taker_alone(item, inlets[0], givers[wants], missed)


def _video_sockets(item: Item, role: str) -> list[str]:
    """The connectors of a piece's video sockets of one role."""
    return [
        s.connector for s in item.part.sockets.values() if s.role == role and is_video(s.connector)
    ]


def _looks_at(item: Item) -> str | None:
    """Whose picture a piece wants: a screen the board's, what records one another machine's."""
    if "video_in" in item.part.offers:
        return "video_in"
    shows = "screen" in item.part.offers or "screen" in item.part.sets_up
    return "screen" if shows else None


def _screen_alone(
    screen: Item, connector: str, boards: list[Item], missed: Consequence
) -> Iterator[Observation]:
    if not boards:
        return
    ours = dict.fromkeys(
        words.connector(found) for board in boards for found in _video_sockets(board, "host")
    )
    lines = (screen.line.id, boards[0].line.id)
    if not ours:
        sentence = say(
            "{board} has no video port; {screen} needs one.",
            board=boards[0].name,
            screen=screen.name,
        )
        yield Observation(screen.id, FAILS, sentence, lines)
        return
    borrowed = screen.line.role == "set_up"
    yield Observation(
        screen.id,
        INFORMS if borrowed else missed,
        say(
            "No cable connects {screen} ({theirs}) to {board} ({ours}).{borrow}",
            screen=screen.name,
            theirs=words.connector(connector),
            board=boards[0].name,
            ours=words.listed(ours),
            borrow=" Borrow one for set-up." if borrowed else "",
        ),
        lines,
    )


def _taker_alone(
    taker: Item, connector: str, machines: list[Item], missed: Consequence
) -> Iterator[Observation]:
    theirs = words.connector(connector)
    if not machines:
        yield Observation(
            taker.id,
            INFORMS,
            say(
                "{taker} has {article} {theirs} input. The cable from the other equipment is "
                "not part of this plan.",
                taker=taker.name,
                theirs=theirs,
                article=words.article(theirs),
            ),
            (taker.line.id,),
        )
        return
    yield Observation(
        taker.id,
        missed,
        say(
            "No video cable connects {machine} to {taker} ({theirs}).",
            machine=machines[0].name,
            taker=taker.name,
            theirs=theirs,
        ),
        (taker.line.id, machines[0].line.id),
    )


def _shown_by(fit: Assignment, item: Item) -> list[Item]:
    """The pieces whose picture reaches a piece, by a lead or through what passes one on."""
    placed = fit.placed.values()
    shown, queue = [], [item]
    for at in queue:  # which grows as it is walked
        cables = [
            plug.item
            for plug, socket in placed
            if socket.item is at and plug.plug.role == "picture_out"
        ] + [at]
        for plug, socket in placed:
            if (
                any(plug.item is cable for cable in cables)
                and plug.plug.role == "device"
                and is_video(socket.socket.connector)
                and socket.item not in shown
            ):
                shown.append(socket.item)
                queue.append(socket.item)
    return shown
