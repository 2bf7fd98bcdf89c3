"""Rules of fit: plugs in sockets that suit them and stay within reach."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import (
    NEAR_USB_3_GHZ,
    Assignment,
    PlugRef,
    SocketRef,
    Unplaced,
    suits,
)
from cobblewort.core.aspects.fit.model import board_reached, cable_hangs_free, layers_of, stack_of
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.remedies import is_video, more_sockets
from cobblewort.core.aspects.fit.stack import Layers, StackResult
from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items
from cobblewort.core.judging.remedies import another, mark_spare, remove_named
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import BOTHERS, FAILS, INFORMS
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.plan import NOT_OF_IT
from cobblewort.core.standards.poe import NETWORK_POWER
from cobblewort.core.text import Text, say


@rule(
    "FIT-02",
    "fit",
    "Every plug has a port",
    why="A plug needs a free port of its connector, key and generation; without one the part stays "
    "unconnected.",
    formula="a matching of plugs to ports and slots, found by augmenting paths",
    source="USB, PCI Express and M.2 connector definitions (from memory)",
    reads=(fit_of, "connected"),
    remedies=(
        more_sockets,
        remove_named,
        another("add_on", "storage", "boot_drive", "cooling", "board"),
    ),
    eased_by=("board", "add_on", "cable"),
)
def plugs_placed(fit: Assignment, connected: Items) -> Iterator[Observation]:
    """One observation for each plug of a line; of what joins nothing at all FIT-44 tells."""
    if not connected.of_role("board"):
        return
    joining = _joining(fit)
    by_plug: dict[tuple[str, str], list[Unplaced]] = {}
    for unplaced in fit.unplaced:
        plug = unplaced.plug
        if plug.item.id not in joining and _may_lie_there(plug.item):
            continue
        if plug.plug.role == "picture_out":
            continue  # it goes to a screen that nobody described; FIT-28 asks for the others
        if plug.plug.connectors == (NETWORK_POWER,) and unplaced.reason == "none":
            continue  # the switch is there already, or PWR-13 asks for one
        by_plug.setdefault((plug.item.line.id, plug.name), []).append(unplaced)
    for (line, name), group in by_plug.items():
        plug = group[0].plug
        idle = _may_lie_there(plug.item) or not plug.plug.required
        consequence = INFORMS if idle else FAILS
        yield Observation(
            f"{line}.{name}",
            consequence,
            _unplaced_sentence(group),
            (line,),
            tuple(socket.id for socket in group[0].sockets),
        )


def _joining(fit: Assignment) -> set[str]:
    """Items that are plugged in somewhere, or have something plugged into them."""
    placed = fit.placed.values()
    return {plug.item.id for plug, _ in placed} | {socket.item.id for _, socket in placed}


def _may_lie_there(item: Item) -> bool:
    """Whether nothing fails where an item is plugged in nowhere."""
    return item.part.kind in ("cable", "power_supply")


def _unplaced_sentence(group: list[Unplaced]) -> Text:
    first = group[0]
    line, part = first.plug.item.line, first.plug.item.part
    kinds = words.listed(words.connector(c) for c in first.plug.plug.connectors)
    kinds = f"{kinds} {_port_word(first.plug.plug.connectors[0])}"
    label = first.plug.plug.label or "plug"
    whose = f"The {label} of {part.model}"
    if line.quantity > 1:
        whose = f"{len(group)} of {line.quantity} {part.model}"
    several = len(group) > 1
    if first.reason == "taken":
        taken = len(first.sockets)
        holder = next((r.item.name for r in first.rivals if r.item is not first.plug.item), None)
        held = {1: "the only one is in use", 2: "both are in use"}.get(
            taken, f"all {taken} are in use"
        )
        by = f" by {holder}" if taken == 1 and holder else ""
        return say(
            "{whose} {have} no free {kinds}: {held}{by}.",
            whose=whose,
            have="have" if several else "has",
            kinds=kinds,
            held=held,
            by=by,
        )
    if first.reason == "unsuitable":
        turned = first.plug.plug.contacts is not None and any(
            s.socket.contacts not in (None, first.plug.plug.contacts) for s in first.sockets_alike
        )
        why = "the contacts face the other way" if turned else "the key or generation differs"
        return say(
            "{whose} {fit} no {kinds} in this kit: {why}.",
            whose=whose,
            fit="fit" if several else "fits",
            kinds=kinds,
            why=why,
        )
    return say(
        "{whose} {need} {article} {kinds}; no part in the kit has one.",
        whose=whose,
        need="need" if several else "needs",
        article=words.article(kinds),
        kinds=kinds,
    )


@rule(
    "FIT-44",
    "fit",
    "Every part to buy is used",
    why="A part that is plugged in nowhere, or into which nothing is plugged, costs money and does "
    "nothing.",
    formula="one item of each line is plugged in, or another part is plugged into it",
    source="common practice",
    reads=(fit_of, stack_of, board_reached, cable_hangs_free, "built"),
    remedies=(remove_named, mark_spare),
    eased_by=("board", "storage", "add_on", "boot_drive", "power_supply", "cable", "cooling"),
)
def every_part_used(
    fit: Assignment, stack: StackResult, reached: bool, hangs_free: bool, built: Items
) -> Iterator[Observation]:
    """Each line of which nothing is used. Another cable of a kind that is used is one for the bag;
    of what is owned nobody is scolded; where power or a picture is missing, others tell of it.
    """
    if stack.board is None:
        return
    use = _Use(fit, reached and not hangs_free, built)
    by_line: dict[str, list[Item]] = {}
    for item in built:
        if item.line.role not in NOT_OF_IT:
            by_line.setdefault(item.line.id, []).append(item)
    for line, items in by_line.items():
        part, first = items[0].part, items[0]
        told = None
        if part.case is not None:
            if stack.case is not None and stack.case not in items:
                told = say(
                    "The board is in {case}. Nothing is in {other}, and nothing is checked in it.",
                    case=stack.case.the,
                    other=first.the,
                )
        elif use.is_idle(items):
            told = say("Nothing uses {part}: it is plugged in nowhere.", part=first.the)
        elif _only_passes_on(part) and not any(item.id in use.held for item in items):
            told = say("Nothing uses {part}: nothing is plugged into it.", part=first.the)
        if told is not None:
            yield Observation(line, INFORMS if first.line.owned else BOTHERS, told, (line,))


class _Use:
    """What is plugged in where, and what is missing that something idle may be meant for."""

    def __init__(self, fit: Assignment, is_fed: bool, built: Items) -> None:
        placed = fit.placed.values()
        sockets = {socket.id for _, socket in placed}
        self.held = {socket.item.id for _, socket in placed}
        self.joining = _joining(fit)
        self.failing = {u.plug.item.id for u in fit.unplaced if u.plug.plug.required}
        self.parts = {i.part.id for i in built if i.id in self.joining and i.part.kind == "cable"}
        self.is_fed = is_fed
        self.dark = any(
            socket.role == "picture_in" and f"{item.id}.{name}" not in sockets
            for item in built
            for name, socket in item.part.sockets.items()
        )

    def is_idle(self, items: Sequence[Item]) -> bool:
        """Whether none of a line is plugged in, and no other rule tells of it."""
        part = items[0].part
        if not (part.plugs or part.sockets) or any(item.id in self.joining for item in items):
            return False
        if not _may_lie_there(items[0]):
            shows = any(socket.role == "picture_in" for socket in part.sockets.values())
            return not shows and not any(item.id in self.failing for item in items)
        ends = {connector for plug in part.plugs.values() for connector in plug.connectors}
        if part.kind == "cable" and any(map(is_video, ends)):
            return not self.dark and part.id not in self.parts
        return self.is_fed and part.id not in self.parts


def _only_passes_on(part: Part) -> bool:
    """Whether a part is there for what is plugged into it alone; a port in the front is not."""
    hosts = any(socket.role == "host" for socket in part.sockets.values())
    passes = part.kind in ("hub", "storage_adapter", "cable") and part.panel_hole is None
    return hosts and passes and not part.offers


def _port_word(connector: str) -> str:
    """What a socket of this connector is called: a slot, pins of the header, or a port."""
    if connector in ("m2", "memory-card", "flat-16") or connector.startswith("pcie"):
        return "slot"
    if connector.startswith("header-"):
        return "pin"
    return "connector" if connector.startswith(("camera-", "fan-", "sata")) else "port"


@rule(
    "FIT-07",
    "fit",
    "Each M.2 drive has a length that its slot takes",
    why="A drive of another length cannot be screwed down.",
    formula="size of the drive is one of those that the slot lists",
    source="PCI Express M.2 specification, module sizes (from memory)",
    reads=(fit_of,),
    remedies=(another("storage", "boot_drive"), another("add_on")),
    eased_by=("board", "add_on", "cable"),
)
def drive_length(fit: Assignment) -> Iterator[Observation]:
    """Each drive that sits in a socket of other lengths."""
    for plug, socket in fit.placed.values():
        drive = plug.item.part.drive
        if drive is None or suits(plug, socket) or drive.size in socket.socket.lengths:
            continue
        if not socket.socket.lengths:
            continue
        yield Observation(
            plug.id,
            FAILS,
            say(
                "{drive} is {length} long ({size}); the {slot} of {holder} takes {sizes}.",
                drive=plug.item.name,
                length=words.mm(drive.length_mm),
                size=drive.size,
                slot=socket.socket.label or "slot",
                holder=socket.item.name,
                sizes=words.listed(socket.socket.lengths),
            ),
            (plug.item.line.id, socket.item.line.id),
            (socket.id,),
        )


@rule(
    "FIT-08",
    "fit",
    "Each M.2 drive has the protocol of its slot",
    why="M.2 slots carry SATA or PCIe. A drive of the other protocol fits but is not detected.",
    formula="protocol of the drive is one of those that the slot carries",
    source="PCI Express M.2 specification, keys and what they carry (from memory)",
    reads=(fit_of,),
    remedies=(another("storage", "boot_drive"), another("add_on")),
    eased_by=("board", "add_on", "cable"),
)
def drive_protocol(fit: Assignment) -> Iterator[Observation]:
    """Each drive that sits in a socket of the other protocol."""
    for plug, socket in fit.placed.values():
        drive = plug.item.part.drive
        carried = socket.socket.protocols
        if drive is None or not carried or drive.protocol in carried:
            continue
        yield Observation(
            plug.id,
            FAILS,
            say(
                "{drive} is {article} {protocol} drive; the {slot} of {holder} is {carried} only. "
                "The drive fits, but the board does not detect it.",
                drive=plug.item.name,
                protocol=_PROTOCOLS[drive.protocol],
                article=words.article(_PROTOCOLS[drive.protocol]),
                slot=socket.socket.label or "slot",
                holder=socket.item.name,
                carried=words.listed(_PROTOCOLS.get(p, p) for p in carried),
            ),
            (plug.item.line.id, socket.item.line.id),
            (socket.id,),
        )


_PROTOCOLS = {"pcie": "PCIe", "sata": "SATA", "usb": "USB"}


@rule(
    "FIT-10",
    "fit",
    "Every port and slot in use is reachable",
    why="A stacked board can cover a port or slot of the main board, such as the card slot.",
    formula="no port or slot in use is covered or obstructed by a stacked board",
    source="maker's drawings",
    reads=(fit_of, layers_of),
    remedies=(another("add_on"), another("boot_drive"), remove_named),
    eased_by=("board", "add_on", "cable", "boot_drive"),
)
def reachable(fit: Assignment, stack: Layers) -> Iterator[Observation]:
    """Sockets of the main board in use under a stacked board that closes or hampers them."""
    board = stack.board
    if board is None:
        return
    covering = [i for side in ("above", "below") for i in stack.add_ons(side)]
    for plug, socket in fit.placed.values():
        for cover in covering:
            own = cover.part.add_on
            if own is None or socket.item is not board or plug.item is cover:
                continue
            closed = socket.name in own.closes
            if not closed and _is_card_extender(plug, socket):
                continue  # it goes in before the board does, and stays
            if closed or socket.name in own.hampers:
                told = (
                    "{cover} covers the {where} of {board}: {plug} cannot be plugged in."
                    if closed
                    else "{cover} leaves little clearance at the {where} of {board}. Plug in "
                    "{plug} before you fit {cover}."
                )
                yield Observation(
                    f"{cover.id}.{plug.id}",
                    FAILS if closed else BOTHERS,
                    say(
                        told,
                        cover=cover.name,
                        where=socket.socket.label or socket.name,
                        board=board.name,
                        plug=plug.item.name,
                    ),
                    (cover.line.id, plug.item.line.id),
                    (socket.id,),
                )


def _is_card_extender(plug: PlugRef, socket: SocketRef) -> bool:
    return plug.item.part.kind == "cable" and socket.socket.connector == "memory-card"


def plug_name(plug: PlugRef) -> str:
    """A plug as people say it: the item, and which of its plugs where it has several."""
    if len(plug.item.part.plugs) > 1 and plug.plug.label:
        return f"{plug.item.name}, {plug.plug.label}"
    return plug.item.name


_NOISY_GENERATION = 3.0


@rule(
    "FIT-40",
    "fit",
    "No 2.4 GHz adapter is next to a USB 3 plug",
    why="USB 3 emits noise between 2 and 3 GHz, which about halves the range of an adapter "
    "beside it.",
    formula="a 2.4 GHz adapter next to a USB 3 plug in use: on an extension cable",
    source="noise of 5 Gbit/s signalling reaches past 2.5 GHz (from memory); common practice",
    reads=(fit_of,),
    remedies=(more_sockets,),
    eased_by=("board", "add_on", "cable"),
)
def away_from_usb_3(fit: Assignment) -> Iterator[Observation]:
    """Each adapter with a USB 3 drive, bridge or hub in the same row of sockets."""
    placed = list(fit.placed.values())
    for plug, socket in placed:
        bands = plug.item.part.radio_ghz
        if not any(ghz < NEAR_USB_3_GHZ for ghz in bands) or plug.plug.body is None:
            continue
        if socket.item.part.kind == "cable":
            continue
        beside = next(
            (
                other.item
                for other, at in placed
                if at.item is socket.item
                and min(other.plug.generation, at.socket.generation) >= _NOISY_GENERATION
                and at.socket.connector.startswith("usb")
                and other.plug.role == "device"
            ),
            None,
        )
        if beside is not None:
            yield Observation(
                plug.id,
                BOTHERS,
                say(
                    "{adapter} (2.4 GHz) is next to the USB 3 plug of {other}, which interferes "
                    "with it. Use a short extension cable.",
                    adapter=plug.item.name,
                    other=beside.name,
                ),
                (plug.item.line.id, beside.line.id),
                (socket.id,),
            )
