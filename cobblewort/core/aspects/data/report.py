"""Flows, their ways and the array, for the drawing of them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import get_args

from cobblewort.core.aspects.data import arrays, typical_rates
from cobblewort.core.aspects.data.model import (
    Array,
    DataResult,
    Moved,
    Situation,
    betters,
    moved,
)
from cobblewort.core.aspects.data.route import Link, LinkKind, Router
from cobblewort.core.aspects.data.workings import figure_of
from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.margin import Margin, percentiles
from cobblewort.core.plans.plan import End, Layout, Prices, StorageUse, Transfer
from cobblewort.core.standards.units import tib

_FULL_SHARE = 0.999


@dataclass(slots=True, frozen=True)
class LinkReport:
    """A link on the way of a flow.

    `mb_s` is what the flow alone would get there, with the working of `figure`; `taken_mb_s` what
    of that all that pass it take, in bytes of this flow; `full` that nothing is left. `shared_with`
    are the flows that pass it too, `to` is the thing that it leads to, `line` the one that decides
    its rate. [MB/s]
    """

    id: str
    label: str
    kind: LinkKind
    to: str
    note: str
    mb_s: float
    taken_mb_s: float
    own_mb_s: float
    full: bool
    shared_with: list[str]
    line: str | None
    figure: str


@dataclass(slots=True, frozen=True)
class BetterReport:
    """What a flow would get without its neck, and what would hold it back then. [MB/s]"""

    rate_mb_s: float
    bottleneck: str


@dataclass(slots=True, frozen=True)
class LagReport:
    """How much later a picture that is sent is seen, by typical values. [s]"""

    typical_s: float
    least_s: float
    most_s: float


@dataclass(slots=True, frozen=True)
class MovedReport:
    """A flow in one situation: what it gets, wants and takes.

    `wanted_mb_s` and `allowed_min` are None where nothing is asked for, `minutes` of a stream; a
    stream that is kept up with wants a buffer of `buffer_mb`, for what its medium pauses. A picture
    that is sent has a `lag`. `bottleneck` is the id of the link that holds it back. [MB/s], [min],
    [MB]
    """

    transfer: str
    text: str
    stream: bool
    rate_mb_s: float
    could_mb_s: float
    wanted_mb_s: float | None
    amount_gb: float | None
    minutes: float | None
    minutes_p05: float | None
    minutes_p95: float | None
    allowed_min: float | None
    buffer_mb: float | None
    lag: LagReport | None
    small_mb_s: float | None
    bottleneck: str | None
    bottleneck_label: str
    asked_by: list[str]
    begins: str
    links: list[LinkReport]
    betters: list[BetterReport]


@dataclass(slots=True, frozen=True)
class SituationReport:
    """Flows that run at the same time; `worst_case` is all of them at once."""

    id: str
    label: str
    worst_case: bool
    moved: list[MovedReport]


@dataclass(slots=True, frozen=True)
class NoPath:
    """A flow that has no way through the kit, and why."""

    transfer: str
    text: str
    why_not: str


@dataclass(slots=True, frozen=True)
class LayoutReport:
    """What the disks of the kit would be in one layout; rates and times are None where the disks do
    not make it, or have no way.

    `loss_risk_per_year` are the odds that data are lost through disks that fail, `unreadable` those
    that something cannot be read while a disk is filled again, at the worst that data sheets allow.
    [GB], [TiB], [MB/s], [h], shares of 1, money for a usable TB
    """

    layout: Layout
    label: str
    speaks_for: str
    chosen: bool
    possible: bool
    least_disks: int
    usable_gb: float
    usable_tib: float
    may_fail: int
    read_mb_s: float | None
    write_mb_s: float | None
    fill_h: float | None
    settle_h: float | None
    loss_risk_per_year: float | None
    unreadable: float | None
    cost_a_tb: Decimal | None


@dataclass(slots=True, frozen=True)
class DataReport:
    """Every situation with its flows, flows without a way, and what the disks could be together."""

    situations: list[SituationReport]
    no_path: list[NoPath]
    disks: int
    layouts: list[LayoutReport]


def data_report(
    data: DataResult,
    array: Array,
    router: Router,
    prices: Prices,
    storage_use: StorageUse,
    _: Sequence[Margin],
) -> DataReport:
    """All that the drawing of data shows."""
    situations = [
        SituationReport(s.id, s.label, s.worst_case, [_moved(router, data, s, m) for m in s.moved])
        for s in data.situations
    ]
    no_path = [NoPath(r.transfer.id, r.transfer.text, r.why_not) for r in data.routes if r.why_not]
    layouts = list(_layouts(array, router, prices, storage_use)) if array.items else []
    return DataReport(situations, no_path, len(array.items), layouts)


def _moved(router: Router, data: DataResult, situation: Situation, at: Moved) -> MovedReport:
    transfer, minutes = at.route.transfer, at.minutes
    low, high = _band(minutes)
    bottleneck = at.bottleneck
    return MovedReport(
        transfer.id,
        transfer.text,
        transfer.rate_mb_s is not None,
        nominal(at.rate_mb_s),
        nominal(at.could_mb_s),
        transfer.rate_mb_s or transfer.least_mb_s,
        transfer.amount_gb,
        None if minutes is None else nominal(minutes),
        low,
        high,
        transfer.within_min,
        _buffer_mb(at),
        _lag(at),
        _small_mb_s(at, router),
        None if bottleneck is None else bottleneck.id,
        "" if bottleneck is None else bottleneck.label,
        _asked_by(data, at),
        at.route.begins,
        _links(situation, at),
        [
            BetterReport(b.rate_mb_s, "" if b.bottleneck is None else b.bottleneck.label)
            for b in betters(situation, transfer.id)
        ],
    )


def _asked_by(data: DataResult, at: Moved) -> list[str]:
    asked = data.asked
    return [
        entry.requirement.id for entry in asked if entry.moved.route.transfer is at.route.transfer
    ]


def _band(values: Quantity | None) -> tuple[float | None, float | None]:
    if values is None or isinstance(values, float):
        return None, None
    return percentiles(values[1:])


def _buffer_mb(at: Moved) -> float | None:
    """What a stream writes while its medium tidies up, or what is left over at its end. [MB]"""
    transfer = at.route.transfer
    if transfer.rate_mb_s is None:
        return None
    left = transfer.rate_mb_s - nominal(at.could_mb_s)
    if left > 0:
        return left * 3600 * (transfer.hours_a_day or 1.0)
    pauses = [
        medium.pause_s.high
        for item in at.route.items
        if (medium := item.part.medium) is not None and medium.pause_s is not None
    ]
    return transfer.rate_mb_s * max(pauses) if pauses else None


def _lag(at: Moved) -> LagReport | None:
    """Of a picture that is sent: it is taken in, encoded, sent and shown."""
    route = at.route
    if route.transfer.source not in ("camera", "video_in") or route.network is None:
        return None
    by_wire = any(link.kind == "ethernet" for link in route.links)
    way = typical_rates.WIRE_MS if by_wire else typical_rates.RADIO_MS
    steps = (typical_rates.CAPTURE_MS, typical_rates.ENCODE_MS, way, typical_rates.SHOW_MS)
    return LagReport(
        sum(step.nominal for step in steps) / 1000,
        sum(step.low for step in steps) / 1000,
        sum(step.high for step in steps) / 1000,
    )


def _small_mb_s(at: Moved, router: Router) -> float | None:
    """What files of 1 MB would come to, for whole files over a network. [MB/s]"""
    transfer = at.route.transfer
    if transfer.amount_gb is None or transfer.file_mb is not None or at.route.network is None:
        return None
    small = replace(router, samples=1).route(transfer.model_copy(update={"file_mb": 1.0}))
    return nominal(moved([small])[0].rate_mb_s)


def _links(situation: Situation, at: Moved) -> list[LinkReport]:
    """The shown links on a way; of neighbours of one kind at the same thing the narrower one."""
    shown: list[Link] = []
    leads_to: dict[str, str] = {}
    for link in at.route.links:
        if not link.shown:
            continue
        before = shown[-1] if shown else None
        if before is not None and (before.kind, before.item) == (link.kind, link.item):
            # The socket and the bus behind it, or a lane with a socket at each end.
            narrower = nominal(link.mb_s) <= 1.001 * nominal(before.mb_s) or at.bottleneck is link
            shown[-1] = link if narrower and at.bottleneck is not before else before
            leads_to[shown[-1].id] = link.to
            continue
        leads_to[link.id] = link.to
        shown.append(link)
    return [_link(situation, at, link, leads_to[link.id]) for link in shown]


def _link(situation: Situation, at: Moved, link: Link, leads_to: str) -> LinkReport:
    loads = [
        (m, nominal(m.load[link.id]) * nominal(m.rate_mb_s))
        for m in situation.moved
        if link.id in m.route.load
    ]
    used = sum(share for _, share in loads)
    alone = 1 / nominal(at.load[link.id])
    others = [m.route.transfer.text for m, _ in loads if m is not at]
    return LinkReport(
        link.id,
        link.label,
        link.kind,
        leads_to,
        link.note,
        alone,
        min(used, 1.0) * alone,
        nominal(at.rate_mb_s),
        used > _FULL_SHARE or at.bottleneck is link,
        others,
        None if link.item is None else link.item.line.id,
        figure_of(at.route.transfer.id, link.id),
    )


def _layouts(
    array: Array, paths: Router, prices: Prices, used: StorageUse
) -> Iterator[LayoutReport]:
    count = len(array.items)
    sizes = [p.part.storage.capacity_gb for p in array.items if p.part.storage is not None]
    price, base = _price(array, prices), replace(paths, samples=1)
    for layout in get_args(Layout):
        facts, able = arrays.LAYOUTS[layout], arrays.possible(layout, count)
        usable_gb = arrays.usable_gb(layout, sizes)
        read = write = settle = lost = unreadable = None
        fails = arrays.may_fail(layout, count) if able else 0
        if able:
            storage_use = used.model_copy(update={"layout": layout})
            router = replace(base, storage_use=storage_use)
            read = _rate(router, "storage", "program")
            write = _rate(router, "program", "storage")
            rebuilt = router.rebuilt_mb_s() if fails else None
            if rebuilt is not None:
                settle = arrays.hours(min(sizes), nominal(rebuilt))
            lost = _lost(array, layout, settle)
            unreadable = _unreadable(array, layout, sizes) if fails else None
        cost = price / Decimal(usable_gb / 1000) if price is not None and usable_gb else None
        yield LayoutReport(
            layout,
            facts.label,
            _speaks_for(array, layout),
            layout == used.layout,
            able,
            facts.least,
            usable_gb,
            tib(usable_gb),
            fails,
            read,
            write,
            None if not write else arrays.hours(usable_gb, write),
            settle,
            lost,
            unreadable,
            None if cost is None else cost.quantize(Decimal("0.01")),
        )


def _speaks_for(array: Array, layout: Layout) -> str:
    """What a layout is good for; of separate disks also which of them transfers use."""
    told = arrays.LAYOUTS[layout].speaks_for
    if layout == "separate" and len(array.items) > 1:
        return f"{told} Transfers use {array.items[0].name} alone."
    return told


def _price(array: Array, prices: Prices) -> Decimal | None:
    """What the data disks cost new. None where a price is not known."""
    total = Decimal(0)
    for item in array.items:
        price = prices.of(item.part)
        if price is None:
            return None
        total += price
    return total


def _rate(router: Router, source: End, target: End) -> float | None:
    transfer = Transfer.worked_out("layout", source, target, 1.0)
    route = router.route(transfer)
    return nominal(moved([route])[0].rate_mb_s) if route.links else None


def fails_share(array: Array) -> float:
    """How many of the data disks fail in a year, by class, the worst of them. [share of 1]"""
    media = [item.part.medium for item in array.items]
    stated = [m.fails_pct.nominal for m in media if m is not None and m.fails_pct is not None]
    return max(stated, default=3.0) / 100


def _lost(array: Array, layout: Layout, rebuild_h: float | None) -> float:
    """Odds of losing data in a year; where no rate is known by the week of the swap alone."""
    until_whole = (rebuild_h or 0.0) + arrays.SWAP_DAYS * 24
    count = len(array.items)
    return arrays.lost_within_a_year(layout, count, fails_share(array), until_whole)


def _unreadable(array: Array, layout: Layout, sizes: Sequence[float]) -> float:
    """Odds that a bit of what has to be read to fill a new disk cannot be, once no other copy of it
    is left, at the worst that data sheets allow.
    """
    spins = any(item.part.drive is not None and item.part.drive.spins for item in array.items)
    error = arrays.READ_ERROR_A_BIT if spins else arrays.SSD_READ_ERROR_A_BIT
    mirrored = layout in ("mirror", "striped_mirrors")
    others = len(sizes) - arrays.may_fail(layout, len(sizes))
    read_gb = min(sizes) if mirrored else min(sizes) * others
    return arrays.unreadable_odds(read_gb, error)
