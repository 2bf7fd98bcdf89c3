"""Rules of what leaves the board: room between plugs, openings, glands, the card's way out."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import Assignment, PlugRef
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.model import stack_of
from cobblewort.core.aspects.fit.openings import (
    gland_for,
    has_walls,
    leaving,
    opening_at,
    passes,
    ports_in_use,
    probes,
    wanted_ports,
)
from cobblewort.core.aspects.fit.remedies import cut_by_hand
from cobblewort.core.aspects.fit.rules.connections import plug_name
from cobblewort.core.aspects.fit.stack import StackResult
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.remedies import another, on_offer, remove_named
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import FAILS, INFORMS
from cobblewort.core.parts.model import Case
from cobblewort.core.plans.patch import AddLine, Patch, PinPlug
from cobblewort.core.plans.plan import Requirement
from cobblewort.core.text import EMPTY, as_text, say

_SUNK = frozenset({"usb-c", "micro-usb"})
"""Plugs with so short a tongue that their body has to enter the wall."""


def extension(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A cable or hub that brings the same kind of socket away from the board, for one of the plugs.

    The plug goes into its first socket.
    """
    for plug, socket in fit_of(kit).placed.values():
        if plug.id not in finding.sockets:
            continue
        for part in on_offer(kit, ("cable", "hub")):
            name = next(
                (
                    n
                    for n, s in part.sockets.items()
                    if s.connector == socket.socket.connector and s.role == socket.socket.role
                ),
                None,
            )
            if name is None or not part.plugs:
                continue
            role = "cable" if part.kind == "cable" else "add_on"
            line = kit.plan.free_line_id(role)
            yield (
                AddLine(role=role, part=part.id, line=line),
                PinPlug(
                    line=plug.item.line.id,
                    plug=f"{plug.item.index}.{plug.name}",
                    socket=f"{line}#1.{name}",
                ),
            )


@rule(
    "FIT-18",
    "fit",
    "Plugs have clearance beside each other",
    why="USB adapters and moulded plugs can be wider than the spacing of the ports; the second one "
    "then does not go in.",
    formula="half of both plug widths <= spacing of the ports, along the edge or upward",
    source="maker's drawings; plugs taken as blocks about the middle of the port",
    reads=(fit_of,),
    remedies=(extension, another("add_on"), remove_named),
    eased_by=("board", "add_on", "cable"),
)
def room_beside(fit: Assignment) -> Iterator[Observation]:
    """One observation for each pair of plugs that no arrangement keeps apart."""
    for pair in fit.crowded:
        one, other = (fit.placed[ref.id][1].socket.label for ref in (pair.one, pair.other))
        ports = f"the {one} and the {other}" if one != other else f"two {one}s"
        tried = "" if fit.gave_up else " in any arrangement"
        yield Observation(
            f"{pair.one.id}+{pair.other.id}",
            INFORMS if fit.gave_up else FAILS,
            say(
                "{one} and {other} do not fit side by side{tried}: they need {wanted}; {ports} are "
                "{apart} apart.",
                one=plug_name(pair.one),
                other=plug_name(pair.other),
                tried=tried,
                ports=ports,
                wanted=words.mm(pair.wanted_mm),
                apart=words.mm(pair.apart_mm),
            ),
            tuple(dict.fromkeys((pair.one.item.line.id, pair.other.item.line.id))),
            (pair.one.id, pair.other.id),
        )


@rule(
    "FIT-19",
    "fit",
    "Every port in use has an opening in the case",
    why="A port behind a closed wall cannot be used, and a moulded plug wider than its opening "
    "does not reach the port.",
    formula="the middle of each port in use lies in an opening that is as wide; the body of a plug "
    "with a short tongue passes through it",
    source="maker's drawings",
    reads=(fit_of, stack_of, "requirements"),
    remedies=(cut_by_hand, another("case"), another("cable"), another("power_supply")),
)
def openings(
    fit: Assignment, stack: StackResult, requirements: Sequence[Requirement]
) -> Iterator[Observation]:
    """Everything that leaves the board, against the walls of the case."""
    found = _closed_case(stack)
    if found is None:
        return
    board, case, shell = found
    out = leaving(board, fit)
    if out and not shell.openings and not shell.open_edges and not shell.glands:
        yield Observation(
            "openings",
            INFORMS,
            say(
                "Not checked: whether the ports of {board} line up with {case}. The case has no "
                "values for its openings.",
                board=board.name,
                case=case.the,
            ),
            (board.line.id, case.line.id),
        )
        return
    for port in wanted_ports(requirements, board):
        if shell.glands or port.face.edge in shell.open_edges:
            continue
        if opening_at(shell, port.face) is None:
            yield Observation(
                port.label,
                FAILS,
                say(
                    "{case} has no opening at the {port} of {board}, which a requirement uses.",
                    case=words.opening(case.the),
                    port=port.label,
                    board=board.name,
                ),
                (case.line.id,),
            )
    for item in out:
        if shell.glands or item.face.edge in shell.open_edges:
            continue
        opening = opening_at(shell, item.face)
        lines = (item.plug.item.line.id, case.line.id)
        where = say(
            "the {port} of {board}",
            port=item.socket.socket.label or item.socket.name,
            board=board.name,
        )
        body = item.plug.plug.body
        if opening is None:
            yield Observation(
                item.plug.id,
                FAILS,
                say(
                    "{case} has no opening at {where} for {plug}.",
                    case=words.opening(case.the),
                    where=where,
                    plug=plug_name(item.plug),
                ),
                lines,
                (item.socket.id,),
            )
        elif (
            body is not None and item.socket.socket.connector in _SUNK and not passes(body, opening)
        ):
            yield Observation(
                item.plug.id,
                FAILS,
                say(
                    "The plug of {plug} ({size}) does not fit the opening in {case} ({opening}) at "
                    "{where}.",
                    plug=plug_name(item.plug),
                    where=where,
                    case=case.the,
                    size=words.sides(
                        words.stated_mm(body.width_mm), words.stated_mm(body.height_mm)
                    ),
                    opening=words.sides(
                        words.stated_mm(opening.width_mm), words.stated_mm(opening.height_mm)
                    ),
                ),
                lines,
                (item.socket.id,),
            )


@rule(
    "FIT-20",
    "fit",
    "Each cable that leaves a sealed case has a gland",
    why="A sealed case has no openings: each cable needs a gland that grips its jacket, and its "
    "plug must pass the bore unless the insert is split.",
    formula="cables that leave <= glands; clamping range holds the jacket; plug's diagonal <= bore",
    source="clamping ranges as the parts state them; common practice: one cable, one gland",
    reads=(fit_of, stack_of, "requirements"),
    remedies=(another("case"), remove_named),
)
def glands(
    fit: Assignment, stack: StackResult, requirements: Sequence[Requirement]
) -> Iterator[Observation]:
    """Cables against glands; the Ethernet cable counts where the purpose asks for one."""
    found = _closed_case(stack)
    if found is None or not found[2].glands:
        return
    board, case, shell = found
    free = list(shell.glands.values())
    out = [item for item in leaving(board, fit) if item.face.edge not in shell.open_edges]
    plugs = [item.plug for item in out] + probes(board, fit)
    wired = any(requirement.function == "ethernet" for requirement in requirements)
    wanted = len(plugs) + wired
    if wanted > len(free):
        names = [plug_name(plug) for plug in plugs] + (["the Ethernet cable"] if wired else [])
        yield Observation(
            "count",
            FAILS,
            say(
                "{case} has {glands} for {count} cables: {names}.",
                case=words.opening(case.the),
                glands=words.count(len(free), "gland"),
                count=wanted,
                names=words.few(names),
            ),
            tuple(dict.fromkeys((case.line.id, *(plug.item.line.id for plug in plugs)))),
        )
        return
    for ref in sorted(plugs, key=_thickness, reverse=True):
        gland = gland_for(free, ref.plug.jacket_mm, ref.plug.body)
        if gland is not None:
            free.remove(gland)
            continue
        jacket = ref.plug.jacket_mm
        told = (
            as_text("its plug does not pass the bore")
            if jacket is None
            else say("its jacket is {jacket} thick", jacket=words.mm(jacket))
        )
        left = (
            words.span(words.stated_mm(g.clamp_min_mm), words.stated_mm(g.clamp_max_mm))
            for g in free
        )
        yield Observation(
            ref.id,
            FAILS,
            say(
                "No gland of {case} takes the cable of {plug}: {told}; the free glands clamp "
                "{left}.",
                case=case.the,
                plug=plug_name(ref),
                told=told,
                left=words.listed_texts(left),
            ),
            (ref.item.line.id, case.line.id),
            (fit.placed[ref.id][1].id,),
        )


@rule(
    "FIT-21",
    "fit",
    "The memory card can be removed with the case closed",
    why="A card is removed for a new image or when it is worn out; behind a wall the case must be "
    "opened first.",
    formula="the middle of the card slot lies in an opening",
    source="maker's drawings",
    reads=(fit_of, stack_of),
)
def card_reached(fit: Assignment, stack: StackResult) -> Iterator[Observation]:
    """A card in a case that has no opening for its slot: worth knowing, nothing more."""
    found = _closed_case(stack)
    if found is None:
        return
    board, case, shell = found
    if shell.glands:
        return  # nobody expects to reach into a box against water
    for plug, socket in fit.placed.values():
        face = socket.socket.face
        if socket.item is not board or socket.socket.connector != "memory-card" or face is None:
            continue
        if plug.item.part.kind == "cable":
            continue  # the card is in the extender, and reached there
        if face.edge not in shell.open_edges and opening_at(shell, face) is None:
            yield Observation(
                plug.id,
                INFORMS,
                say(
                    "Open {case} to remove {card}: the card slot has no opening.",
                    case=case.the,
                    card=plug.item.the,
                ),
                (plug.item.line.id, case.line.id),
                (socket.id,),
            )


@rule(
    "FIT-22",
    "fit",
    "Ports that look alike are labelled",
    why="Plugging a cable into the wrong port of the same shape can destroy the part.",
    formula="no port has the shape of another kind",
    source="common practice: a label on the port and on both ends of its cable",
    reads=(fit_of,),
)
def look_alikes(fit: Assignment) -> Iterator[Observation]:
    """Sockets that look like another kind: a label to write."""
    for ref in fit.sockets.values():
        if ref.socket.looks_like:
            name = ref.socket.label or ref.name
            yield Observation(
                ref.id,
                INFORMS,
                say(
                    "The {port} of {item} looks like {article} {other} but is not. Label the "
                    "port and both ends of its cable “{port}”.",
                    port=name,
                    item=ref.item.name,
                    other=ref.socket.looks_like,
                    article=words.article(ref.socket.looks_like),
                ),
                (ref.item.line.id,),
                (ref.id,),
            )


@rule(
    "FIT-30",
    "fit",
    "The openings to cut by hand are known",
    why="Each opening needs its position and size before you cut it.",
    formula="openings to cut = ports in use for which the case has no opening that takes the plug",
    source="common practice; the template shows them at full size",
    reads=(stack_of, "requirements", fit_of),
)
def cuts(
    stack: StackResult, requirements: Sequence[Requirement], fit: Assignment
) -> Iterator[Observation]:
    """The openings to cut in a case that is changed by hand, with the usual caution."""
    board, case = stack.board, stack.case
    if board is None or case is None or case.part.case is None or not case.line.modified:
        return
    shell, wanted = case.part.case, []
    for label, face, body in ports_in_use(requirements, board, fit):
        opening = opening_at(shell, face)
        if opening is None or (body is not None and not passes(body, opening)):
            wanted.append(label)
    tabs = (
        say(" Cut off the tabs ({size}).", size=words.stated_mm(shell.tabs_mm))
        if shell.tabs_mm
        else EMPTY
    )
    told = (
        say(
            "Cut openings in {case} at {places}; the template shows them at full size.",
            case=case.the,
            places=words.few(wanted),
        )
        if wanted
        else say("{case} is cut by hand.", case=words.opening(case.the))
    )
    yield Observation(
        "cuts",
        INFORMS,
        say("{told}{tabs} Wear eye protection; avoid fumes and sharp edges.", told=told, tabs=tabs),
        (case.line.id,),
    )


def _closed_case(stack: StackResult) -> tuple[Item, Item, Case] | None:
    board, case = stack.board, stack.case
    if board is None or case is None or case.part.case is None:
        return None
    return (board, case, case.part.case) if has_walls(case) else None


def _thickness(ref: PlugRef) -> float:
    return ref.plug.jacket_mm or 0.0
