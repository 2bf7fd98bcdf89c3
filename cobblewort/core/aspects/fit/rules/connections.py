"""Rules of fit: plugs in sockets that suit them and stay within reach."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import (
    NEAR_USB_3_GHZ,
    Assignment,
    PlugRef,
    SocketRef,
    Unplaced,
    suits,
)
from cobblewort.core.aspects.fit.model import layers_of
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.remedies import (
    more_sockets,
)
from cobblewort.core.judging.findings import Remark
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Severity
from cobblewort.core.judging.piece import Piece
from cobblewort.core.judging.remedies import another, remove_named
from cobblewort.core.judging.rules import rule
from cobblewort.core.standards.poe import NETWORK_POWER


@rule(
    "FIT-02", "fit", "Every plug has a socket",
    why="Connector, role, key and generation decide whether a plug goes in; when more want a kind "
    "of socket than there are, something is left over.",
    formula="a matching of plugs to sockets, found by augmenting paths",
    source="USB, PCI Express and M.2 connector definitions (from memory)",
    reads=(fit_of, "connected"),
    remedies=(more_sockets, remove_named, another("addon", "data", "boot", "cooling", "board")),
)  # fmt: skip
def plugs_placed(kit: Kit) -> Iterator[Remark]:
    """One remark for each plug of a line; a spare lead or supply is only a note."""
    if not kit.connected.of_role("board"):
        return
    spare_leads = _spare_leads(fit_of(kit))
    for line, leads in spare_leads.items():
        yield Remark(f"{line}.spare", "note", _spare_sentence(leads), (line,))
    spare_ids = {lead.id for leads in spare_leads.values() for lead in leads}
    by_plug: dict[tuple[str, str], list[Unplaced]] = {}
    for unplaced in fit_of(kit).unplaced:
        plug = unplaced.plug
        if plug.piece.id in spare_ids:
            continue
        if plug.plug.role == "picture_out":
            continue  # it goes to a screen that nobody described; FIT-28 asks for the others
        if plug.plug.connectors == (NETWORK_POWER,) and unplaced.reason == "none":
            continue  # the switch is there already, or PWR-13 asks for one
        by_plug.setdefault((plug.piece.line.id, plug.name), []).append(unplaced)
    for (line, name), group in by_plug.items():
        plug = group[0].plug
        spare = plug.piece.part.kind in ("lead", "supply")
        severity: Severity = "note" if spare or not plug.plug.required else "stops"
        yield Remark(
            f"{line}.{name}", severity, _unplaced_sentence(group), (line,),
            tuple(socket.id for socket in group[0].sockets),
        )  # fmt: skip


def _spare_leads(fit: Assignment) -> dict[str, list[Piece]]:
    """Leads none of whose ends is plugged in anywhere, by their line."""
    placed = {plug.piece.id for plug, _ in fit.placed.values()}
    held = {socket.piece.id for _, socket in fit.placed.values()}
    spare: dict[str, dict[str, Piece]] = {}
    for unplaced in fit.unplaced:
        lead = unplaced.plug.piece
        if lead.part.kind == "lead" and lead.id not in placed | held and len(lead.part.plugs) > 1:
            spare.setdefault(lead.line.id, {})[lead.id] = lead
    return {line: list(leads.values()) for line, leads in spare.items()}


def _spare_sentence(leads: list[Piece]) -> str:
    line, model = leads[0].line, leads[0].part.model
    if line.quantity == 1:
        return f"{model} joins nothing here: it is spare."
    return f"{len(leads)} of the {line.quantity} {model} join nothing here: spare."


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
    why="The same M.2 shape carries two protocols: the wrong one fits and is never detected.",
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
            f"{words.listed(p.upper() if p == 'sata' else 'PCIe' for p in carried)}. It "
            "fits, but will not be detected.",
            (plug.piece.line.id, socket.piece.line.id), (socket.id,),
        )  # fmt: skip


@rule(
    "FIT-10", "fit", "What is in use stays reachable",
    why="A board above covers the header, one below the card slot; it is noticed when the card has "
    "to come out.",
    formula="no socket in use is among those that a stacked board closes or hampers",
    source="maker's drawings",
    reads=(fit_of, layers_of),
    remedies=(another("addon"), another("boot"), remove_named),
)  # fmt: skip
def reachable(kit: Kit) -> Iterator[Remark]:
    """Sockets of the main board in use under a stacked board that closes or hampers them."""
    stack = layers_of(kit)
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
            if not closed and _is_card_extender(plug, socket):
                continue  # it goes in before the board does, and stays
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


def _is_card_extender(plug: PlugRef, socket: SocketRef) -> bool:
    return plug.piece.part.kind == "lead" and socket.socket.connector == "memory-card"


def plug_name(plug: PlugRef) -> str:
    """A plug as people say it: the piece, and which of its plugs where it has several."""
    if len(plug.piece.part.plugs) > 1 and plug.plug.label:
        return f"{plug.piece.name}, {plug.plug.label}"
    return plug.piece.name


_NOISY_GENERATION = 3.0


@rule(
    "FIT-40", "fit", "A 2.4 GHz stick keeps away from USB 3",
    why="USB 3 sends noise between 2 and 3 GHz: a stick beside a drive in use hears half as far.",
    formula="a stick for 2.4 GHz beside a USB 3 plug in use: on an extension",
    source="noise of 5 Gb/s signalling reaches past 2.5 GHz (from memory); common practice",
    reads=(fit_of,),
    remedies=(more_sockets,),
)  # fmt: skip
def away_from_usb_3(kit: Kit) -> Iterator[Remark]:
    """Each stick with a USB 3 drive, bridge or hub in the same row of sockets."""
    placed = list(fit_of(kit).placed.values())
    for plug, socket in placed:
        bands = plug.piece.part.radio_ghz
        if not any(ghz < NEAR_USB_3_GHZ for ghz in bands) or plug.plug.body is None:
            continue
        if socket.piece.part.kind == "lead":
            continue
        beside = next(
            (other.piece for other, at in placed if at.piece is socket.piece
             and min(other.plug.generation, at.socket.generation) >= _NOISY_GENERATION
             and at.socket.connector.startswith("usb") and other.plug.role == "device"),
            None,
        )  # fmt: skip
        if beside is not None:
            yield Remark(
                plug.id, "tight",
                f"{plug.piece.name} stands beside {beside.name}, whose USB 3 is heard at 2.4 GHz: "
                "it loses much of its reach. Put it on a short extension.",
                (plug.piece.line.id, beside.line.id), (socket.id,),
            )  # fmt: skip
