"""The way a flow takes through a kit: each link with what the flow alone would get there."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property, reduce
from typing import Literal, NamedTuple

import numpy as np

from cobblewort.core.aspects.data import typical_rates
from cobblewort.core.aspects.data.arrays import possible, read_from_each, usable_gb, written_to_each
from cobblewort.core.aspects.data.fair_share import alone_mb_s
from cobblewort.core.aspects.data.typical_rates import drawn
from cobblewort.core.aspects.fit.paths import Step, buses, ways
from cobblewort.core.aspects.heat.model import HeatResult
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.figures.arrays import FloatArray, Quantity
from cobblewort.core.figures.one_or_many import lesser, nominal, pick
from cobblewort.core.figures.reading import Reading
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, derived, firm
from cobblewort.core.parts.functions import FunctionId
from cobblewort.core.plans.plan import (
    NOT_OF_IT,
    End,
    Layout,
    NetworkOfPlace,
    StorageUse,
    Transfer,
)
from cobblewort.core.standards import ethernet

LinkKind = Literal[
    "ethernet",
    "wifi",
    "usb2",
    "usb3",
    "pcie",
    "sata",
    "bridge",
    "slot",
    "processor",
    "medium",
    "files",
]
_SENSES: dict[End, FunctionId] = {
    "camera": "camera",
    "audio_in": "audio_in",
    "video_in": "video_in",
    "sdr": "sdr",
}


class Link(NamedTuple):
    """One link on the way of a flow. `mb_s` is what the flow alone would get there. [MB/s]

    Whoever passes a link of the same `id` shares it. `to` is the thing that data reach by it, empty
    where they stay inside the same one; `note` says what is special about it. Of the disks of an
    array only the slowest is `shown`. `share` names what is usual of the rate of its kind. Of a
    medium that writes more than its cache holds, `cache_gb` of the data are taken at `mb_s` and the
    rest at `slow_mb_s`.
    """

    id: str
    label: str
    kind: LinkKind
    mb_s: Quantity
    item: Item | None = None
    to: str = ""
    note: str = ""
    shown: bool = True
    share: str = ""
    slow_mb_s: Quantity | None = None
    cache_gb: Quantity | None = None


class Medium(NamedTuple):
    """What a medium does, and what it still does once its cache is full, None where it never is.

    [MB/s], [GB]
    """

    mb_s: Quantity
    slow_mb_s: Quantity | None = None
    cache_gb: Quantity | None = None


@dataclass(slots=True, frozen=True)
class Route:
    """The whole way of a flow, in the order in which data pass it.

    `load` is what 1 MB/s of it takes of each link [s/MB], `slow` what it takes of media whose
    caches are full, after `cache_gb` of the data, empty where they never are; `file_s` what each
    file costs besides its bytes [s]. `why_not` says what is missing where there is none; then there
    are no links, and `unstated` tells whether it is a value that no part states, `missing` which
    functions would make one.
    """

    transfer: Transfer
    begins: str = ""
    links: list[Link] = field(default_factory=list)
    load: dict[str, Quantity] = field(default_factory=dict)
    slow: dict[str, Quantity] = field(default_factory=dict)
    cache_gb: Quantity = 0.0
    file_s: Quantity = 0.0
    items: tuple[Item, ...] = ()
    network: Item | None = None
    why_not: str = ""
    unstated: bool = False
    missing: frozenset[str] = frozenset()

    def link(self, link_id: str) -> Link:
        """The link with this id. Raises StopIteration when it has none."""
        return next(link for link in self.links if link.id == link_id)

    @property
    def lines(self) -> tuple[str, ...]:
        """Lines of all that it passes."""
        passed = [link.item for link in self.links if link.item is not None]
        return tuple(dict.fromkeys(p.line.id for p in (*passed, *self.items)))


Held = Mapping[str, FloatArray]
"""What drives keep of their speed in the heat, by piece, shape (samples,)."""


def _as_held(one: Held, other: Held) -> bool:
    """Whether the same drives keep the same."""
    return one.keys() == other.keys() and all(
        np.array_equal(kept, other[item]) for item, kept in one.items()
    )


@firm(heat_of, same=_as_held)
def held_of(heat: HeatResult) -> Held:
    """Drives and the processor that slow themselves in some state that must hold, and what they
    keep in the hottest; those that slow nowhere are not in it.
    """
    found = dict[str, FloatArray]()
    hard = list(heat.means.must_hold)
    if heat.board is not None and (heat.wanted_die_c[hard, 0] > heat.throttle_c[0]).any():
        found[heat.board.id] = heat.speed_share[hard].min(axis=0).clip(min=0.01)
    for hot in heat.hot_bodies:
        drives = hot.slows and hot.item.part.drive is not None
        if drives and (hot.temp_c[hard, 0] > hot.limit_c[0]).any():
            kept: FloatArray = hot.speed_share[hard].min(axis=0)
            found[hot.item.id] = kept.clip(min=0.01)
    return found


NO_BOARD = "the kit has no board"


class NoPathError(Exception):
    """A transfer has no path through a kit; says what is missing, and whether it is a value that no
    part states.
    """

    def __init__(self, why: str, *, unstated: bool = False, missing: Iterable[str] = ()) -> None:
        super().__init__(why)
        self.missing = frozenset(missing)
        self.unstated = unstated


@dataclass(slots=True, frozen=True)
class _Side:
    """Half a way: from an end to the processor. `outermost` is what stands at its end."""

    links: list[Link]
    outermost: str
    items: list[Item]
    file_ms: list[Quantity] = field(default_factory=list)
    network: Item | None = None


@dataclass(frozen=True)
class Router:
    """Finds the ways of flows through one kit, as its plugs are plugged.

    `network` is what the place has, `ways` leads from pieces to the processor, `held` is what heat
    leaves of drives.
    """

    connected: Items
    storage_use: StorageUse
    network: NetworkOfPlace
    ways: Mapping[str, tuple[Step, ...]]
    samples: int
    held: Held

    @property
    def board(self) -> Item | None:
        """The board that everything leads to."""
        return next(iter(self.connected.of_role("board")), None)

    @cached_property
    def items(self) -> list[Item]:
        """Pieces that data can pass."""
        return [item for item in self.connected if item.line.role not in NOT_OF_IT]

    def route(self, transfer: Transfer) -> Route:
        """The way of a flow; one without links where there is none."""
        if self.board is None:
            return Route(transfer, why_not=NO_BOARD)
        try:
            source = self._side(transfer, transfer.source, "in")
            target = self._side(transfer, transfer.target, "out")
        except NoPathError as error:
            return Route(
                transfer, why_not=str(error), unstated=error.unstated, missing=error.missing
            )
        links = [*source.links, *self._processor(transfer), *reversed(target.links)]
        load: dict[str, Quantity] = {}
        for link in links:
            taken = 1 / link.mb_s
            if link.id in load:  # read and written at once
                both = typical_rates.BOTH_WAYS_SHARE if link.kind == "usb2" else 1.0
                taken = (taken + load[link.id]) / both
            load[link.id] = taken
        slow = {
            link.id: load[link.id] * link.mb_s / link.slow_mb_s
            for link in links
            if link.slow_mb_s is not None
        }
        caches = [link.cache_gb for link in links if link.cache_gb is not None]
        cache_gb: Quantity = 0.0 if not caches else reduce(lesser, caches)
        items = tuple(dict.fromkeys([*source.items, *target.items]))
        begins = source.outermost or self.board.name
        if not links:
            return Route(transfer, why_not="no link of its data path has a rate")
        if links[-1].to == "" and target.outermost:
            links[-1] = links[-1]._replace(to=target.outermost)
        links = _with_ends(links, len(source.links), self.board.name)
        file_s = self._file_s(transfer, source, target)
        network = source.network or target.network
        return Route(transfer, begins, links, load, slow, cache_gb, file_s, items, network)

    def _number(self, values: FloatArray) -> Quantity:
        return values.item(0) if self.samples == 1 else values

    def _figure(self, item: Item, path: str) -> Quantity | None:
        """A figure of a part, None where nobody states it."""
        values = item.compiled.stated(path)
        return None if values is None else self._number(values)

    def _file_s(self, transfer: Transfer, *sides: _Side) -> Quantity:
        """What each file costs besides its bytes: by the protocol, the radio and the medium. [s]"""
        if transfer.file_mb is None:
            return 0.0
        networked = any(side.network is not None for side in sides)
        if not networked and comes_in_pieces(transfer):
            return 0.0  # the random rate of its medium has it
        reading = (
            typical_rates.FILE_MS[transfer.protocol] if networked else typical_rates.FILE_MS_LOCAL
        )
        total_ms = drawn(f"file/{networked}/{transfer.protocol}", reading, self.samples)
        for side in sides:
            for more_ms in side.file_ms:
                total_ms = total_ms + more_ms
        return total_ms / 1000

    def _side(self, transfer: Transfer, end: End, way: str) -> _Side:
        if end in ("storage", "boot_drive"):
            return self._media(transfer, end, way)
        if end in ("network", "wifi", "access_point"):
            return self._network(transfer, end, way)
        if end == "program":
            return _Side([], "", [])
        return self._sense(_SENSES[end], way)

    def _steps(self, steps: Iterable[Step], way: str) -> list[Link]:
        """Links and buses of one piece."""
        links = []
        for step in steps:
            name = step.share
            usable = step.rate_mb_s * drawn(name, typical_rates.LINK_SHARE[name], self.samples)
            direction = "" if step.half_duplex else f":{way}"
            told = "one direction at a time" if step.half_duplex else ""
            links.append(
                Link(
                    step.id + direction,
                    step.label,
                    step.kind,
                    usable,
                    step.enters,
                    note=told,
                    share=name,
                )
            )
        return links

    def _sense(self, function: FunctionId, way: str) -> _Side:
        giver = next(iter(self._offering(function)), None)
        if giver is None:
            raise NoPathError("its source is not in the kit", missing=[function])
        links = self._steps(self.ways.get(giver.id, ()), way)
        return _Side(links, giver.name, [giver])

    def _network(self, transfer: Transfer, end: End, way: str) -> _Side:
        """The way to a network; of several the one that lets most by."""
        givers, wired = self._givers(end)
        sides = [self._by(transfer, giver, wired, end, way) for giver in givers]
        return max(sides, key=_lets_by)

    def _by(self, transfer: Transfer, giver: Item, wired: bool, end: End, way: str) -> _Side:
        rates, more = giver.part.rates, []
        steps: tuple[Step, ...] = self.ways.get(giver.id, ())
        if wired:
            link = self._wire(transfer, giver, way)
            bus = None if rates is None else rates.network_bus
            if bus is not None:
                steps = (*buses(giver, giver.part.buses_above(bus), "usb3"), *steps)
        else:
            stated = self._figure(giver, "rates.radio_mb_s")
            usual_mb_s = drawn("radio", typical_rates.RADIO_MB_S, self.samples)
            link = Link(
                f"{giver.id}/radio",
                "radio, through one wall",
                "wifi",
                usual_mb_s if stated is None else stated,
                giver,
                note="one direction at a time",
            )
            more = [drawn("radio/file", typical_rates.FILE_MS_BY_RADIO, self.samples)]
        links = [link, *self._steps(steps, way)]
        return _Side(links, _FAR_END[end], [giver], more, giver)

    def _wire(self, transfer: Transfer, giver: Item, way: str) -> Link:
        """The network's wire, by its rate or, where that is not stated, by its maker's promise."""
        rates, offer = giver.part.rates, giver.part.offers.get("ethernet")
        name, share = wire_share_of(transfer, giver)
        used = drawn(f"wire/{name}", share, self.samples)
        if rates is not None and rates.network_mbit_s is not None:
            raw = ethernet.goodput_mb_s(rates.network_mbit_s)
            label = f"Ethernet, {rates.network_mbit_s:g} Mbit/s"
        elif offer is not None and offer.amount is not None:
            raw, label = offer.amount, "Ethernet"
        else:
            raise NoPathError(f"the network of {giver.name} has no rate value", unstated=True)
        return Link(f"{giver.id}/wire:{way}", label, "ethernet", raw * used, giver)

    def _givers(self, end: End) -> tuple[list[Item], bool]:
        """The pieces by which a network is reached, and whether by wire."""
        has = self.network
        wired, radios = self._offering("ethernet"), self._offering("wifi")
        if end in ("access_point", "wifi"):
            opens = self._own_network(radios)
            if end == "access_point":
                found = [] if opens is None else [opens]
            else:
                found = [radio for radio in radios if radio is not opens] or radios
            if not found:
                raise NoPathError(
                    "the kit has no Wi-Fi access point"
                    if end == "access_point"
                    else "the kit has no Wi-Fi",
                    missing=["access_point", "wifi"],
                )
            return found, False
        if has in ("both", "ethernet") and wired:
            return wired, True
        if has in ("both", "wifi") and radios:
            return radios, False
        why = (
            "the location has no network"
            if has == "none"
            else "no part connects to the network of the location"
        )
        raise NoPathError(why, missing=["ethernet", "wifi", "reachable"])

    def _own_network(self, radios: Sequence[Item]) -> Item | None:
        """The piece that opens a network; one beside which another radio joins that of the place,
        where there is one.
        """
        own = self._offering("access_point")
        beside = [item for item in own if any(radio is not item for radio in radios)]
        return next(iter(beside or own), None)

    def _offering(self, function: FunctionId) -> list[Item]:
        """Pieces that give a function, in kit order."""
        return [item for item in self.items if function in item.part.offers]

    def media(self, end: End) -> list[Item]:
        """Pieces that data are on; the boot medium where there are no others."""
        boot = self._stores("boot_drive")[:1]
        return (self._stores("storage") if end == "storage" else []) or boot

    @property
    def has_data_drives(self) -> bool:
        """Whether there are drives for data, beside the one that it starts from."""
        return bool(self._stores("storage"))

    def _stores(self, role: str) -> list[Item]:
        return [i for i in self.items if i.line.role == role and i.part.storage is not None]

    def _media(self, transfer: Transfer, end: End, way: str) -> _Side:
        media = self.media(end)
        if not media:
            raise NoPathError("the kit has no drive for it", missing=["storage"])
        layout = self.storage_use.layout if media[0].line.role == "storage" else "separate"
        if way == "out" and (transfer.files_gb or 0.0) > self._free_gb(media, layout):
            raise NoPathError("the kit has too little capacity for it")
        settle = self._figure(media[0], "medium.settle_ms")
        more = [] if settle is None else [settle]
        if layout == "separate" or len(media) == 1:
            return _Side(self._medium(transfer, media[0], way), media[0].name, media, more)
        return self._array(transfer, media, layout, way, more)

    def _free_gb(self, media: Sequence[Item], layout: Layout) -> float:
        """Room where data land: on the array, else on the drive that they land on. [GB]"""
        sizes = [p.part.storage.capacity_gb for p in media if p.part.storage is not None]
        if layout == "separate" or not possible(layout, len(sizes)):
            return sizes[0]
        return usable_gb(layout, sizes)

    def _array(
        self, transfer: Transfer, media: list[Item], layout: Layout, way: str, more: list[Quantity]
    ) -> _Side:
        """Disks that are used together: what each takes, and what they share."""
        writes, count = way == "out", len(media)
        spread = [written_to_each(layout, count)] * count
        if not writes:
            spread = read_from_each(layout, count)
        merged: dict[str, Link] = {}
        load: dict[str, Quantity] = {}
        slower: dict[str, Quantity] = {}
        serves: dict[str, set[Item]] = {}
        for item, share in zip(media, spread, strict=True):
            for link in self._medium(transfer, item, way) if share else ():
                merged.setdefault(link.id, link)
                load[link.id] = load.get(link.id, 0.0) + share / link.mb_s
                if link.slow_mb_s is not None and link.cache_gb is not None:
                    slower[link.id] = link.slow_mb_s / share
                    merged[link.id] = link._replace(cache_gb=link.cache_gb / share)
                serves.setdefault(link.id, set()).add(item)
        own = [link for link in merged.values() if link.kind == "medium"]
        slowest = max(own, key=lambda link: nominal(load[link.id])).item
        outer = f"{media[0].part.model} ×\N{NO-BREAK SPACE}{len(media)}"
        often = _as_often(sum(spread)) if writes and sum(spread) > 1 else ""

        def told(link: Link) -> Link:
            """Of the disks the slowest, called after all of them, and what lies on its own way."""
            is_own = link.kind == "medium" and link.item is slowest
            return Link(
                link.id,
                link.label.replace(slowest.name, outer) if is_own and slowest else link.label,
                link.kind,
                1 / load[link.id],
                link.item,
                note=link.note or (often if link.kind in ("usb2", "usb3", "pcie") else ""),
                shown=slowest in serves[link.id],
                share=link.share,
                slow_mb_s=slower.get(link.id),
                cache_gb=link.cache_gb,
            )

        links = [told(link) for link in sorted(merged.values(), key=lambda x: len(serves[x.id]))]
        return _Side(links, outer, media, more)

    def _medium(self, transfer: Transfer, item: Item, way: str) -> list[Link]:
        """A drive or card and the links up to the processor, the medium first."""
        own = self.medium(transfer, item, way)
        if own is None:
            raise NoPathError(f"{item.name} has no rate value", unstated=True)
        doing = "writing to" if way == "out" else "reading from"
        if comes_in_pieces(transfer):
            doing = f"small pieces, {doing}"
        held = self.held_share(item)
        why = "" if held is None or held >= 1 else ", slowed by heat"
        links = [
            Link(
                f"{item.id}/medium",
                f"{doing} {item.name}{why}",
                "medium",
                own.mb_s,
                item,
                slow_mb_s=own.slow_mb_s,
                cache_gb=own.cache_gb,
            )
        ]
        steps = self.ways.get(item.id)
        if item.part.kind == "card" or item.part.drive is None:
            slot = None if self.board is None else self._figure(self.board, "rates.slot_mb_s")
            if slot is not None and self.board is not None:
                links.append(
                    Link(f"{self.board.id}/card-slot", "card slot", "slot", slot, self.board)
                )
            return links
        if not steps:
            raise NoPathError(f"{item.name} is not plugged in or not detected")
        for step, link in zip(steps, self._steps(steps, way), strict=True):
            bridge = self._figure(step.enters, "rates.bridge_mb_s")
            links.append(link)
            if bridge is not None:
                links.append(
                    Link(
                        f"{step.enters.id}/bridge",
                        f"bridge in {step.enters.name}",
                        "bridge",
                        bridge,
                        step.enters,
                    )
                )
        return links

    def medium(self, transfer: Transfer, item: Item, way: str) -> Medium | None:
        """What a medium does by itself, read or written, as fast as heat lets it; a stream longer
        than its cache is taken as it is once that is full, and small pieces by its random rate, in
        which heat tells nothing. None where nobody states a rate.
        """
        name = "write_mb_s" if way == "out" else "read_mb_s"
        paths = (f"drive.{name}", f"storage.{name}", f"medium.{name}")
        stated = (self._figure(item, path) for path in paths)
        rate = next((figure for figure in stated if figure is not None), None)
        if rate is None:
            return None
        kind = None if item.part.medium is None else item.part.medium.kind
        if comes_in_pieces(transfer) and kind is not None:
            often = drawn(f"random/{kind}", typical_rates.RANDOM_PER_S[kind], self.samples)
            return Medium(lesser(rate, often * (transfer.file_mb or 0.0)))
        held = self.held.get(item.id)
        if held is not None:
            rate = rate * self._number(held)
        sustained = self._figure(item, "medium.sustained_mb_s") if way == "out" else None
        cache_gb = self._figure(item, "medium.cache_gb")
        amount_gb = run_gb(transfer)
        if sustained is None or cache_gb is None or amount_gb is None:
            return Medium(rate)
        slow = lesser(rate, sustained)
        if transfer.rate_mb_s is not None:
            return Medium(pick(cache_gb < amount_gb, slow, rate))
        if not np.any(cache_gb < amount_gb):
            return Medium(rate)
        return Medium(rate, slow, cache_gb)

    def held_share(self, item: Item) -> float | None:
        """What heat leaves of the speed of a drive, at nominal figures; None where that is all."""
        held = self.held.get(item.id)
        return None if held is None else float(held[0])

    def raw_mb_s(self, link: Link) -> float:
        """The rate of a link or a bus after its line code. [MB/s]

        Raises
        ------
        StopIteration
            If it is neither.
        """
        steps = [step for way in self.ways.values() for step in way]
        for item in self.items:
            bus = None if item.part.rates is None else item.part.rates.network_bus
            if bus is not None:
                steps += buses(item, item.part.buses_above(bus), "usb3")
        return next(s.rate_mb_s for s in steps if link.id in (s.id, f"{s.id}:in", f"{s.id}:out"))

    def rebuilt_mb_s(self) -> Quantity | None:
        """What of a disk that was replaced is filled in a second, from all that is needed of the
        others, with daily use beside it; None where a disk is not on any way. [MB/s]
        """
        media = self.media("storage")
        mirrored = self.storage_use.layout in ("mirror", "striped_mirrors")
        sources = media[1:2] if mirrored else media[1:]
        transfer = Transfer.worked_out("rebuild", "program", "storage", 1e3)
        load: dict[str, Quantity] = {}
        try:
            links = self._medium(transfer, media[0], "out")
            for item in sources:
                links += self._medium(transfer, item, "in")
        except NoPathError:
            return None
        if not mirrored:  # a stream, which goes by what the processor works through
            parity = None if self.board is None else self._figure(self.board, "parity_mb_s")
            if parity is not None:
                links.append(Link("parity", "parity", "processor", parity))
        for link in links:
            rate = link.mb_s if link.slow_mb_s is None else link.slow_mb_s
            load[link.id] = load.get(link.id, 0.0) + 1 / rate
        share = drawn("rebuild", typical_rates.REBUILD_SHARE, self.samples)
        return share * alone_mb_s(load)

    def _processor(self, transfer: Transfer) -> list[Link]:
        """What the processor has to work through for each byte."""
        storage_use, links = self.storage_use, []
        if not self._stores("storage") or "storage" not in (transfer.source, transfer.target):
            return []
        if storage_use.encrypted:
            links.append(self._work("encrypt", "encryption in the processor", "encrypt_mb_s"))
        if storage_use.file_system == "checksummed":
            links.append(self._work("checksum", "checksums in the processor", "checksum_mb_s"))
        if storage_use.layout in ("parity", "double_parity") and transfer.target == "storage":
            link = self._work("parity", "parity in the processor", "parity_path_mb_s")
            if link is not None and storage_use.layout == "double_parity":
                link = link._replace(mb_s=link.mb_s * typical_rates.PARITY_OF_DOUBLE)
            links.append(link)
        return [link for link in links if link is not None]

    def _work(self, name: str, label: str, path: str) -> Link | None:
        rate = None if self.board is None else self._figure(self.board, f"rates.{path}")
        if rate is None or self.board is None:
            return None
        held = self.held.get(self.board.id)
        if held is not None:
            rate, label = rate * self._number(held), f"{label}, slowed by heat"
        return Link(f"{self.board.id}/{name}", label, "processor", rate, self.board)


_FAR_END: dict[End, str] = {
    "network": "the network",
    "wifi": "Wi-Fi",
    "access_point": "its Wi-Fi access point",
}


def wire_share_of(transfer: Transfer, giver: Item) -> tuple[str, Reading]:
    """What a transfer uses of the wire of a part, and the name under which that is drawn."""
    rates = giver.part.rates
    mbit_s = None if rates is None or rates.network_mbit_s is None else rates.network_mbit_s
    streams = transfer.rate_mb_s is not None
    return typical_rates.wire_share(mbit_s, transfer.protocol, streams=streams)


def comes_in_pieces(transfer: Transfer) -> bool:
    """Whether it is read or written a few kilobytes at a time, as databases do."""
    return transfer.file_mb is not None and transfer.file_mb <= typical_rates.PIECES_MB


def _as_often(times: float) -> str:
    if times == 2:
        return "each byte twice"
    return f"{times:.3g} bytes per byte of data"


def _lets_by(side: _Side) -> float:
    return min(nominal(link.mb_s) for link in side.links)


def run_gb(transfer: Transfer) -> float | None:
    """What a run of a flow writes at a stretch. [GB]"""
    if transfer.rate_mb_s is not None:
        return transfer.rate_mb_s * 3.6 * (transfer.hours_a_day or 1.0)
    return transfer.files_gb


def _with_ends(links: Sequence[Link], inwards: int, board: str) -> list[Link]:
    """The links with what each leads to: towards the processor the piece it enters, and from there
    the piece of the link behind it.
    """
    named = []
    for place, link in enumerate(links):
        to = link.to
        if not to and place < inwards:
            last = place == inwards - 1
            to = board if last or link.item is None else link.item.name
        elif not to and place + 1 < len(links):
            after = links[place + 1].item
            to = board if after is None else after.name
        named.append(link._replace(to=to))
    return named


@derived("connected", "storage_use", "place.network", ways, "samples")
def cool_router_of(
    connected: Items,
    storage_use: StorageUse,
    network: NetworkOfPlace,
    paths: dict[str, tuple[Step, ...]],
    samples: int,
) -> Router:
    """The paths of data while no drive is slowed by its heat."""
    return Router(connected, storage_use, network, paths, samples, {})


@derived(cool_router_of, held_of)
def router_of(cool: Router, held: Held) -> Router:
    """The paths of data, with the speed that heat leaves of drives."""
    return replace(cool, held=held) if held else cool
