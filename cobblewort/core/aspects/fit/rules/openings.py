"""Rules of what leaves the board: room between plugs, openings, glands, the card's way out."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import PlugRef
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
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.remedies import another, on_offer, remove_named
from cobblewort.core.judging.rules import rule
from cobblewort.core.parts.model import Case
from cobblewort.core.plans.patch import AddLine, Patch, PinPlug

_SUNK = frozenset({"usb-c", "micro-usb"})
"""Plugs with so short a tongue that their body has to enter the wall."""


def extension(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A lead or hub that brings the same kind of socket away from the board, for one of the plugs.

    The plug goes into its first socket.
    """
    for plug, socket in fit_of(kit).placed.values():
        if plug.id not in finding.sockets:
            continue
        for part in on_offer(kit, ("cable", "hub")):
            name = next(
                (n for n, s in part.sockets.items()
                 if s.connector == socket.socket.connector and s.role == socket.socket.role), None
            )  # fmt: skip
            if name is None or not part.plugs:
                continue
            role = "cable" if part.kind == "cable" else "add_on"
            line = kit.plan.free_line_id(role)
            yield (
                AddLine(role=role, part=part.id, line=line),
                PinPlug(
                    line=plug.item.line.id, plug=f"{plug.item.index}.{plug.name}",
                    socket=f"{line}#1.{name}",
                ),
            )  # fmt: skip


@rule(
    "FIT-18", "fit", "Plugs have room beside each other",
    why="Sticks and moulded plugs are wider than the sockets stand apart: the second one does not "
    "go in, or goes in askew.",
    formula="half of both bodies' widths <= distance of the sockets, along the edge or upward",
    source="maker's drawings; bodies taken as blocks about the middle of the socket",
    reads=(fit_of,),
    remedies=(extension, another("add_on"), remove_named),
)  # fmt: skip
def room_beside(kit: Kit) -> Iterator[Observation]:
    """One remark for each pair of plugs that no arrangement keeps apart."""
    fit = fit_of(kit)
    for pair in fit.crowded:
        one, other = (fit.placed[ref.id][1].socket.label for ref in (pair.one, pair.other))
        sockets = f"a {one} and a {other}" if one != other else f"two {one}s"
        tried = "" if fit.gave_up else " in any arrangement"
        yield Observation(
            f"{pair.one.id}+{pair.other.id}", "note" if fit.gave_up else "problem",
            f"{plug_name(pair.one)} and {plug_name(pair.other)} do not go in side by side{tried}: "
            f"they need {words.mm(pair.wanted_mm)}; {sockets} lie {words.mm(pair.apart_mm)} apart.",
            tuple(dict.fromkeys((pair.one.item.line.id, pair.other.item.line.id))),
            (pair.one.id, pair.other.id),
        )  # fmt: skip


@rule(
    "FIT-19", "fit", "Sockets in use open to the outside",
    why="A socket behind a closed wall is no socket, and a moulded plug that is wider than its "
    "opening does not reach it.",
    formula="the middle of each socket in use lies in an opening that is as wide; the body of a "
    "plug with a short tongue passes through it",
    source="maker's drawings",
    reads=(fit_of, stack_of, "requirements"),
    remedies=(cut_by_hand, another("case"), another("cable"), another("power_supply")),
)  # fmt: skip
def openings(kit: Kit) -> Iterator[Observation]:
    """Everything that leaves the board, against the walls of the case."""
    found = _closed_case(kit)
    if found is None:
        return
    board, case, shell = found
    out = leaving(board, fit_of(kit))
    if out and not shell.openings and not shell.open_edges and not shell.glands:
        yield Observation(
            "openings", "note",
            f"Not known: whether the sockets of {board.name} line up with {case.name}; its "
            "openings are not stated.",
            (board.line.id, case.line.id),
        )  # fmt: skip
        return
    for port in wanted_ports(kit.plan, board):
        if shell.glands or port.face.edge in shell.open_edges:
            continue
        if opening_at(shell, port.face) is None:
            yield Observation(
                port.label, "problem",
                f"{case.name} has no opening at the {port.label} of {board.name}, which the "
                "purpose asks for.",
                (case.line.id,),
            )  # fmt: skip
    for item in out:
        if shell.glands or item.face.edge in shell.open_edges:
            continue
        opening = opening_at(shell, item.face)
        lines = (item.plug.item.line.id, case.line.id)
        where = f"the {item.socket.socket.label or item.socket.name} of {board.name}"
        body = item.plug.plug.body
        if opening is None:
            yield Observation(
                item.plug.id, "problem",
                f"{case.name} has no opening at {where}, where {plug_name(item.plug)} goes in.",
                lines, (item.socket.id,),
            )  # fmt: skip
        elif (
            body is not None and item.socket.socket.connector in _SUNK and not passes(body, opening)
        ):
            yield Observation(
                item.plug.id, "problem",
                f"{plug_name(item.plug)} does not reach {where}: its body is "
                f"{body.width_mm:g} x {body.height_mm:g} mm, the opening of {case.name} "
                f"{opening.width_mm:g} x {opening.height_mm:g} mm.",
                lines, (item.socket.id,),
            )  # fmt: skip


@rule(
    "FIT-20", "fit", "Each lead that leaves a sealed box has its gland",
    why="A box against water has no openings: each lead wants a gland of its own that grips its "
    "jacket, and a moulded plug has to pass the bore unless the insert is split.",
    formula="leads that leave <= glands; clamping range holds the jacket; plug's diagonal <= bore",
    source="clamping ranges as the parts state them; common practice: one lead, one gland",
    reads=(fit_of, stack_of, "requirements"),
    remedies=(another("case"), remove_named),
)  # fmt: skip
def glands(kit: Kit) -> Iterator[Observation]:
    """Leads against glands; the network lead counts where the purpose asks for one."""
    found = _closed_case(kit)
    if found is None or not found[2].glands:
        return
    board, case, shell = found
    free = list(shell.glands.values())
    out = [item for item in leaving(board, fit_of(kit)) if item.face.edge not in shell.open_edges]
    plugs = [item.plug for item in out] + probes(board, fit_of(kit))
    wired = any(requirement.function == "ethernet" for requirement in kit.plan.requirements)
    wanted = len(plugs) + wired
    if wanted > len(free):
        names = [plug_name(plug) for plug in plugs] + (["the network lead"] if wired else [])
        yield Observation(
            "count", "problem",
            f"{case.name} has {len(free)} {'gland' if len(free) == 1 else 'glands'} for {wanted} "
            f"leads: {words.few(names)}.",
            tuple(dict.fromkeys((case.line.id, *(plug.item.line.id for plug in plugs)))),
        )  # fmt: skip
        return
    for ref in sorted(plugs, key=_thickness, reverse=True):
        gland = gland_for(free, ref.plug.jacket_mm, ref.plug.body)
        if gland is not None:
            free.remove(gland)
            continue
        jacket = ref.plug.jacket_mm
        told = "its plug does not pass" if jacket is None else f"its jacket is {words.mm(jacket)}"
        yield Observation(
            ref.id, "problem",
            f"No gland of {case.name} takes the lead of {plug_name(ref)}: {told}; left are "
            f"{words.listed(f'{g.clamp_min_mm:g} to {g.clamp_max_mm:g} mm' for g in free)}.",
            (ref.item.line.id, case.line.id), (fit_of(kit).placed[ref.id][1].id,),
        )  # fmt: skip


@rule(
    "FIT-21", "fit", "The card comes out with the case closed",
    why="Cards are taken out for a new image and when they wear out; behind a wall that means "
    "taking everything apart.",
    formula="the middle of the card slot lies in an opening",
    source="maker's drawings",
    reads=(fit_of, stack_of),
)  # fmt: skip
def card_reached(kit: Kit) -> Iterator[Observation]:
    """A card in a case that has no opening for its slot: worth knowing, nothing more."""
    found = _closed_case(kit)
    if found is None:
        return
    board, case, shell = found
    if shell.glands:
        return  # nobody expects to reach into a box against water
    for plug, socket in fit_of(kit).placed.values():
        face = socket.socket.face
        if socket.item is not board or socket.socket.connector != "memory-card" or face is None:
            continue
        if plug.item.part.kind == "cable":
            continue  # the card is in the extender, and reached there
        if face.edge not in shell.open_edges and opening_at(shell, face) is None:
            yield Observation(
                plug.id, "note",
                f"{case.name} has to be opened to take out {plug.item.name}.",
                (plug.item.line.id, case.line.id), (socket.id,),
            )  # fmt: skip


@rule(
    "FIT-22", "fit", "Sockets that look alike are told apart",
    why="A socket with the shape of another and a different task is taken for the other one day, "
    "and something burns.",
    formula="no socket has the shape of another kind",
    source="common practice: a label on the socket and on both ends of its lead",
    reads=(fit_of,),
)  # fmt: skip
def look_alikes(kit: Kit) -> Iterator[Observation]:
    """Sockets that look like another kind: a label to write."""
    for ref in fit_of(kit).sockets.values():
        if ref.socket.looks_like:
            name = ref.socket.label or ref.name
            yield Observation(
                ref.id, "note",
                f"The {name} of {ref.item.name} looks like a {ref.socket.looks_like} and is "
                f"none: write “{name}” beside it and on both ends of its lead.",
                (ref.item.line.id,), (ref.id,),
            )  # fmt: skip


@rule(
    "FIT-30", "fit", "What is cut by hand is known beforehand",
    why="A case that is changed by hand is right only when each opening has its place and size "
    "before the saw comes out.",
    formula="openings to cut = sockets in use for which the case has none that takes the plug",
    source="common practice; the template shows them at full size",
    reads=(stack_of, "requirements"),
)  # fmt: skip
def cuts(kit: Kit) -> Iterator[Observation]:
    """The openings to cut in a case that is changed by hand, with the usual caution."""
    stack = stack_of(kit)
    board, case = stack.board, stack.case
    if board is None or case is None or case.part.case is None or not case.line.modified:
        return
    shell, wanted = case.part.case, []
    for label, face, body in ports_in_use(kit.plan, board, fit_of(kit)):
        opening = opening_at(shell, face)
        if opening is None or (body is not None and not passes(body, opening)):
            wanted.append(label)
    told = (
        f"cut openings at {words.few(wanted)}; the template shows them at full size"
        if wanted else "no openings to cut are known"
    )  # fmt: skip
    tabs = f" Off come the tabs of {shell.tabs_mm:g} mm." if shell.tabs_mm else ""
    yield Observation(
        "cuts", "note",
        f"{case.name} is changed by hand: {told}.{tabs} Mind eyes, fumes and sharp edges.",
        (case.line.id,),
    )  # fmt: skip


def _closed_case(kit: Kit) -> tuple[Item, Item, Case] | None:
    stack = stack_of(kit)
    board, case = stack.board, stack.case
    if board is None or case is None or case.part.case is None:
        return None
    return (board, case, case.part.case) if has_walls(case) else None


def _thickness(ref: PlugRef) -> float:
    return ref.plug.jacket_mm or 0.0
