"""The way of data from a plug to the processor: links and buses with their raw rates."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import Assignment, PlugRef, SocketRef, passes_on
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.plans.plan import Settings
from cobblewort.core.standards import pcie, sata, usb

_NETWORKS = frozenset({"ethernet", "wifi"})
_SENSES = frozenset({"camera", "audio_in", "video_in", "sdr"})
_MOVES_DATA = _NETWORKS | _SENSES

StepKind = Literal["usb2", "usb3", "pcie", "sata"]


@dataclass(slots=True, frozen=True)
class Step:
    """A link or a bus that data pass; whoever passes the same `id` shares its raw rate. [MB/s]

    `enters` is the piece that data come to by it on their way to the processor. `is_shared` says
    that several devices may take turns on it.
    """

    id: str
    rate_mb_s: float
    kind: StepKind
    label: str
    enters: Item
    is_shared: bool = False

    @property
    def share(self) -> str:
        """The name of what is left of its rate for data: of a bus that is shared another."""
        return "usb2_shared" if self.kind == "usb2" and self.is_shared else self.kind

    @property
    def half_duplex(self) -> bool:
        """Whether it carries one direction at a time."""
        return self.kind == "usb2"


def slot_generation(settings: Settings, ref: SocketRef) -> float:
    """The generation that a slot is set to."""
    own = ref.socket
    if settings.push_slot and own.possible_generation:
        return own.possible_generation
    return own.generation


def link_rate_mb_s(settings: Settings, plug: PlugRef, socket: SocketRef) -> float | None:
    """Raw rate of one plug in its socket; None where it carries no data or no end states a rate."""
    connector, own = socket.socket.connector, plug.plug
    if not _is_spoken(plug, socket):
        return None
    if connector == "sata" or _speaks_sata(plug):
        return sata.RAW_RATE_MB_S
    agreed = min(own.generation, slot_generation(settings, socket))
    if connector.startswith("usb"):
        return usb.raw_rate_mb_s(agreed) if own.role == "device" else None
    if int(agreed) not in pcie.LANE_GT_S:
        return None
    return pcie.raw_rate_mb_s(int(agreed), min(own.lanes, socket.socket.lanes))


def _is_spoken(plug: PlugRef, socket: SocketRef) -> bool:
    """Whether a drive speaks what its socket does."""
    drive, protocols = plug.item.part.drive, socket.socket.protocols
    return drive is None or not protocols or drive.protocol in protocols


def _speaks_sata(plug: PlugRef) -> bool:
    drive = plug.item.part.drive
    return drive is not None and drive.protocol == "sata"


@derived("settings", fit_of)
def ways(settings: Settings, fit: Assignment) -> dict[str, tuple[Step, ...]]:
    """For each drive, and each part that gives a network or senses something, the links and buses
    up to the processor, by its piece.
    """
    above: dict[Item, list[tuple[PlugRef, SocketRef]]] = {}
    for plug, socket in fit.placed.values():
        if plug.plug.role == "device":
            above.setdefault(plug.item, []).append((plug, socket))
    known: dict[Item, tuple[Step, ...]] = {}
    return {
        item.id: _way(settings, item, above, known)
        for item in above
        if item.part.drive is not None or _MOVES_DATA & item.part.offers.keys()
    }


def _way(
    settings: Settings,
    item: Item,
    above: dict[Item, list[tuple[PlugRef, SocketRef]]],
    known: dict[Item, tuple[Step, ...]],
) -> tuple[Step, ...]:
    """The way of one piece: the step to what it hangs on, and from there that one's own."""
    if item in known:
        return known[item]
    known[item] = ()  # should pieces ever hang on each other in a ring, it ends here
    for plug, socket in above.get(item, ()):
        rate_mb_s = link_rate_mb_s(settings, plug, socket)
        if rate_mb_s is not None:
            kind = _kind(plug, socket, rate_mb_s)
            label = socket.socket.label or words.connector(socket.socket.connector)
            step = Step(socket.id, rate_mb_s, kind, label, socket.item, passes_on(item))
            further = _way(settings, socket.item, above, known)
            known[item] = (step, *_buses(socket, kind), *further)
            break
    return known[item]


def _kind(plug: PlugRef, socket: SocketRef, rate_mb_s: float) -> StepKind:
    connector = socket.socket.connector
    if connector == "sata" or _speaks_sata(plug):
        return "sata"
    if connector.startswith("usb"):
        return "usb2" if rate_mb_s <= usb.HIGH_SPEED_MB_S else "usb3"
    return "pcie"


def _buses(socket: SocketRef, link: StepKind) -> list[Step]:
    part, bus = socket.item.part, socket.socket.bus
    return [] if bus is None else buses(socket.item, part.buses_above(bus), link)


def buses(item: Item, names: Iterable[str], link: StepKind) -> list[Step]:
    """Buses of a piece as steps; one that is not half duplex is taken to be like the link."""
    steps = []
    for name in names:
        bus = item.part.buses[name]
        wide: StepKind = "usb3" if link == "usb2" else link
        kind = "usb2" if bus.half_duplex else wide
        steps.append(Step(f"{item.id}/{name}", bus.rate_mb_s, kind, bus.label, item, True))
    return steps


@derived("connected", ways)
def drive_rates_mb_s(connected: Items, paths: dict[str, tuple[Step, ...]]) -> dict[str, float]:
    """Raw rate of each drive's way, shared among the drives on it, where any step states one."""
    drives = {item.id for item in connected if item.part.drive is not None}
    return _shared({item: way for item, way in paths.items() if item in drives})


def _shared(found: dict[str, tuple[Step, ...]]) -> dict[str, float]:
    sharing = Counter(step.id for way in found.values() for step in way)
    return {
        item: min(step.rate_mb_s / sharing[step.id] for step in way)
        for item, way in found.items()
        if way
    }
