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
from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Severity
from cobblewort.core.judging.remedies import another, remove_named
from cobblewort.core.judging.rules import rule
from cobblewort.core.standards.poe import NETWORK_POWER


@rule(
    "FIT-02",
    "fit",
    "Every plug has a socket",
    why="Connector, role, key and generation decide whether a plug goes in; when more want a kind "
    "of socket than there are, something is left over.",
    formula="a matching of plugs to sockets, found by augmenting paths",
    source="USB, PCI Express and M.2 connector definitions (from memory)",
    reads=(fit_of, "connected"),
    remedies=(
        more_sockets,
        remove_named,
        another("add_on", "storage", "boot_drive", "cooling", "board"),
    ),
)
def plugs_placed(kit: Kit) -> Iterator[Observation]:
    """One remark for each plug of a line; a spare lead or supply is only a note."""
    if not kit.connected.of_role("board"):
        return
    spare_cables = _spare_cables(fit_of(kit))
    for line, cables in spare_cables.items():
        yield Observation(f"{line}.spare", "note", _spare_sentence(cables), (line,))
    spare_ids = {cable.id for cables in spare_cables.values() for cable in cables}
    by_plug: dict[tuple[str, str], list[Unplaced]] = {}
    for unplaced in fit_of(kit).unplaced:
        plug = unplaced.plug
        if plug.item.id in spare_ids:
            continue
        if plug.plug.role == "picture_out":
            continue  # it goes to a screen that nobody described; FIT-28 asks for the others
        if plug.plug.connectors == (NETWORK_POWER,) and unplaced.reason == "none":
            continue  # the switch is there already, or PWR-13 asks for one
        by_plug.setdefault((plug.item.line.id, plug.name), []).append(unplaced)
    for (line, name), group in by_plug.items():
        plug = group[0].plug
        spare = plug.item.part.kind in ("cable", "power_supply")
        severity: Severity = "note" if spare or not plug.plug.required else "problem"
        yield Observation(
            f"{line}.{name}", severity, _unplaced_sentence(group), (line,),
            tuple(socket.id for socket in group[0].sockets),
        )  # fmt: skip


def _spare_cables(fit: Assignment) -> dict[str, list[Item]]:
    """Leads none of whose ends is plugged in anywhere, by their line."""
    placed = {plug.item.id for plug, _ in fit.placed.values()}
    held = {socket.item.id for _, socket in fit.placed.values()}
    spare: dict[str, dict[str, Item]] = {}
    for unplaced in fit.unplaced:
        cable = unplaced.plug.item
        if (
            cable.part.kind == "cable"
            and cable.id not in placed | held
            and len(cable.part.plugs) > 1
        ):
            spare.setdefault(cable.line.id, {})[cable.id] = cable
    return {line: list(cables.values()) for line, cables in spare.items()}


def _spare_sentence(cables: list[Item]) -> str:
    line, model = cables[0].line, cables[0].part.model
    if line.quantity == 1:
        return f"{model} joins nothing here: it is spare."
    return f"{len(cables)} of the {line.quantity} {model} join nothing here: spare."


def _unplaced_sentence(group: list[Unplaced]) -> str:
    first = group[0]
    line, part = first.plug.item.line, first.plug.item.part
    kinds = words.listed(words.connector(c) for c in first.plug.plug.connectors)
    label = first.plug.plug.label or "plug"
    whose = f"The {label} of {part.model}"
    if line.quantity > 1:
        whose = f"{len(group)} of the {line.quantity} {part.model}"
    if first.reason == "taken":
        taken = len(first.sockets)
        holder = next((r.item.name for r in first.rivals if r.item is not
                       first.plug.item), None)  # fmt: skip
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
    wants = "need" if len(group) > 1 else "requirements"
    return f"{whose} {wants} a {kinds} socket, and nothing in the kit has one."


@rule(
    "FIT-07", "fit", "A drive has the length its socket takes",
    why="A drive that is longer than the last standoff of its board cannot be screwed down.",
    formula="the drive's size is one of those that the socket lists",
    source="PCI Express M.2 specification, module sizes (from memory)",
    reads=(fit_of,),
    remedies=(another("storage", "boot_drive"), another("add_on")),
)  # fmt: skip
def drive_length(kit: Kit) -> Iterator[Observation]:
    """Each drive that sits in a socket of other lengths."""
    for plug, socket in fit_of(kit).placed.values():
        drive = plug.item.part.drive
        if drive is None or suits(plug, socket) or drive.size in socket.socket.lengths:
            continue
        if not socket.socket.lengths:
            continue
        yield Observation(
            plug.id, "problem",
            f"{plug.item.name} is {words.mm(drive.length_mm)} long ({drive.size}); the "
            f"{socket.socket.label or 'socket'} of {socket.item.name} takes "
            f"{words.listed(socket.socket.lengths)}.",
            (plug.item.line.id, socket.item.line.id), (socket.id,),
        )  # fmt: skip


@rule(
    "FIT-08", "fit", "A drive speaks the protocol of its socket",
    why="The same M.2 shape carries two protocols: the wrong one fits and is never detected.",
    formula="the drive's protocol is one of those that the socket carries",
    source="PCI Express M.2 specification, keys and what they carry (from memory)",
    reads=(fit_of,),
    remedies=(another("storage", "boot_drive"), another("add_on")),
)  # fmt: skip
def drive_protocol(kit: Kit) -> Iterator[Observation]:
    """Each drive that sits in a socket of the other protocol."""
    for plug, socket in fit_of(kit).placed.values():
        drive = plug.item.part.drive
        carried = socket.socket.protocols
        if drive is None or not carried or drive.protocol in carried:
            continue
        yield Observation(
            plug.id, "problem",
            f"{plug.item.name} speaks {drive.protocol.upper()}; the "
            f"{socket.socket.label or 'socket'} of {socket.item.name} carries "
            f"{words.listed(p.upper() if p == 'sata' else 'PCIe' for p in carried)}. It "
            "fits, but will not be detected.",
            (plug.item.line.id, socket.item.line.id), (socket.id,),
        )  # fmt: skip


@rule(
    "FIT-10", "fit", "What is in use stays reachable",
    why="A board above covers the header, one below the card slot; it is noticed when the card has "
    "to come out.",
    formula="no socket in use is among those that a stacked board closes or hampers",
    source="maker's drawings",
    reads=(fit_of, layers_of),
    remedies=(another("add_on"), another("boot_drive"), remove_named),
)  # fmt: skip
def reachable(kit: Kit) -> Iterator[Observation]:
    """Sockets of the main board in use under a stacked board that closes or hampers them."""
    stack = layers_of(kit)
    board = stack.board
    if board is None:
        return
    covering = [i for side in ("above", "below") for i in stack.add_ons(side)]
    for plug, socket in fit_of(kit).placed.values():
        for cover in covering:
            own = cover.part.add_on
            if own is None or socket.item is not board or plug.item is cover:
                continue
            closed = socket.name in own.closes
            if not closed and _is_card_extender(plug, socket):
                continue  # it goes in before the board does, and stays
            if closed or socket.name in own.hampers:
                where = socket.socket.label or socket.name
                told = (
                    f"closes it: {plug.item.name} cannot be plugged in there"
                    if closed
                    else f"leaves hardly any room to reach it: plug {plug.item.name} in first"
                )
                yield Observation(
                    f"{cover.id}.{plug.id}", "problem" if closed else "tight",
                    f"{cover.name} lies over the {where} of {board.name} and {told}.",
                    (cover.line.id, plug.item.line.id), (socket.id,),
                )  # fmt: skip


def _is_card_extender(plug: PlugRef, socket: SocketRef) -> bool:
    return plug.item.part.kind == "cable" and socket.socket.connector == "memory-card"


def plug_name(plug: PlugRef) -> str:
    """A plug as people say it: the piece, and which of its plugs where it has several."""
    if len(plug.item.part.plugs) > 1 and plug.plug.label:
        return f"{plug.item.name}, {plug.plug.label}"
    return plug.item.name


_NOISY_GENERATION = 3.0


@rule(
    "FIT-40", "fit", "A 2.4 GHz stick keeps away from USB 3",
    why="USB 3 sends noise between 2 and 3 GHz: a stick beside a drive in use hears half as far.",
    formula="a stick for 2.4 GHz beside a USB 3 plug in use: on an extension",
    source="noise of 5 Gb/s signalling reaches past 2.5 GHz (from memory); common practice",
    reads=(fit_of,),
    remedies=(more_sockets,),
)  # fmt: skip
def away_from_usb_3(kit: Kit) -> Iterator[Observation]:
    """Each stick with a USB 3 drive, bridge or hub in the same row of sockets."""
    placed = list(fit_of(kit).placed.values())
    for plug, socket in placed:
        bands = plug.item.part.radio_ghz
        if not any(ghz < NEAR_USB_3_GHZ for ghz in bands) or plug.plug.body is None:
            continue
        if socket.item.part.kind == "cable":
            continue
        beside = next(
            (other.item for other, at in placed if at.item is socket.item
             and min(other.plug.generation, at.socket.generation) >= _NOISY_GENERATION
             and at.socket.connector.startswith("usb") and other.plug.role == "device"),
            None,
        )  # fmt: skip
        if beside is not None:
            yield Observation(
                plug.id, "tight",
                f"{plug.item.name} stands beside {beside.name}, whose USB 3 is heard at 2.4 GHz: "
                "it loses much of its reach. Put it on a short extension.",
                (plug.item.line.id, beside.line.id), (socket.id,),
            )  # fmt: skip
