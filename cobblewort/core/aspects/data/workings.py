"""Workings of links: what each lets by, from its rate and from what others leave of it."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from cobblewort.core.aspects.data import typical_rates
from cobblewort.core.aspects.data.model import DataResult, Moved
from cobblewort.core.aspects.data.model import of as data_of
from cobblewort.core.aspects.data.route import Link, LinkKind, Route, wire_share_of
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.figures.reading import Reading
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.working import (
    Explained,
    Sum,
    Term,
    computed_term,
    plain_term,
    reading_term,
    standard_term,
)
from cobblewort.core.parts.names import figure_words, unit_of
from cobblewort.core.parts.readings import readings_of
from cobblewort.core.plans.plan import StorageUse
from cobblewort.core.standards import ethernet

_SOURCES: dict[LinkKind, str] = {
    "usb2": "USB 2.0",
    "usb3": "USB 3.2",
    "pcie": "PCI Express Base Specification",
    "sata": "Serial ATA",
}
_STATED = "stated, or typical of its class"


def figure_of(transfer_id: str, link_id: str) -> str:
    """The figure that names what a link lets by of a flow."""
    return f"way:{transfer_id}:{link_id}"


def explained(kit: Kit, figure: str) -> Explained | None:
    """A figure `way:{transfer}:{link}`: what a link lets by of a flow that passes it alone."""
    kind, _, rest = figure.partition(":")
    transfer_id, _, link_id = rest.partition(":")
    if kind != "way":
        return None
    found = data_of(kit).planned(transfer_id)
    if found is not None:
        at = found[1]
        for link in at.route.links:
            if link.id == link_id:
                alone = np.asarray(1 / at.load[link_id])
                formula, source = _formula(data_of(kit), kit.plan.storage_use, at, link)
                return Explained(
                    f"Rate: {link.label}",
                    formula,
                    np.broadcast_to(alone, (kit.samples,)),
                    "MB/s",
                    "",
                    source,
                )
    return None


class _Own(NamedTuple):
    """What passes a link in all, and how that comes about. [MB/s]"""

    mb_s: float
    words: str
    expression: str
    inputs: list[Term]
    source: str


def _formula(data: DataResult, storage_use: StorageUse, at: Moved, link: Link) -> tuple[Sum, str]:
    """What it lets by, over how many bytes pass it there for each of the data."""
    own = _own(data, storage_use, at, link)
    words, expression, inputs = own.words, own.expression, own.inputs
    times = own.mb_s * nominal(at.load[link.id])
    if abs(times - 1) > 1e-9:
        label = "bytes that pass there per byte of data"
        whole = f"({expression})" if " " in expression else expression
        words, expression = f"{words}, over the {label}", f"{whole} / n"
        inputs = [*inputs, computed_term("n", label, "", times, None)]
    return Sum(words, expression, inputs), own.source


def _own(data: DataResult, storage_use: StorageUse, at: Moved, link: Link) -> _Own:
    """By the kind of a link."""
    item = link.item
    if item is None:
        raise ValueError(f"nothing decides the rate of {link.id}")
    if link.kind == "medium":
        return _medium(data, at, item)
    if link.kind == "ethernet":
        return _wire(at.route, item)
    if link.kind == "wifi":
        rate = _term("B", item, "rates.radio_mb_s")
        rate = rate or _usual("B", "typical Wi-Fi rate", "MB/s", typical_rates.RADIO_MB_S)
        return _Own(rate.value, rate.label, "B", [rate], "common practice")
    if link.kind in _SOURCES:
        raw_mb_s = data.router.raw_mb_s(link)
        share, source = typical_rates.LINK_SHARE[link.share], _SOURCES[link.kind]
        inputs = [
            standard_term("S", "raw rate less line code", "MB/s", raw_mb_s, source),
            _usual("s", "share left by packet overhead", "", share),
        ]
        return _Own(
            raw_mb_s * share.nominal,
            "raw rate less line code, times the share left by packet overhead",
            "S * s",
            inputs,
            f"{source}; common practice",
        )
    name = link.id.rpartition("/")[2]
    path = {"card-slot": "rates.slot_mb_s", "parity": "rates.parity_path_mb_s"}.get(
        name, f"rates.{name}_mb_s"
    )
    rate = _term("B", item, path)
    if rate is None:
        raise ValueError(f"{item.id} does not state {path}")
    if name == "parity" and storage_use.layout == "double_parity":
        double = Term(
            "d",
            "share left with double parity",
            typical_rates.PARITY_OF_DOUBLE,
            "",
            "typical",
            "typical values",
            None,
        )
        return _Own(
            rate.value * double.value, rate.label, "B * d", [rate, double], "common practice"
        )
    return _Own(rate.value, rate.label, "B", [rate], _STATED)


def _wire(route: Route, giver: Item) -> _Own:
    transfer, rates = route.transfer, giver.part.rates
    _, share = wire_share_of(transfer, giver)
    what = "a stream" if transfer.rate_mb_s else "this kind of copying"
    used = _usual("s", f"share of that used by {what}", "", share)
    if rates is not None and rates.network_mbit_s is not None:
        raw = plain_term("R", "rate of its Ethernet port", "Mbit/s", giver, rates.network_mbit_s)
        frames = standard_term(
            "g",
            "share left by frame overhead",
            "",
            ethernet.goodput_mb_s(8.0),
            "IEEE 802.3, RFC 9293",
        )
        return _Own(
            raw.value / 8 * frames.value * used.value,
            "bits divided by eight, less frames and headers, times the share that is used",
            "R / 8 * g * s",
            [raw, frames, used],
            "IEEE 802.3, RFC 9293; common practice",
        )
    offer = giver.part.offers["ethernet"]
    raw = plain_term("B", "rate of its network", "MB/s", giver, float(offer.amount or 0.0))
    return _Own(
        raw.value * used.value,
        "rate of its network times the share that is used",
        "B * s",
        [raw, used],
        "stated; common practice",
    )


def _medium(data: DataResult, at: Moved, item: Item) -> _Own:
    """A drive or card: as it states, as heat leaves it, and past its cache more slowly."""
    router, transfer = data.router, at.route.transfer
    reads = transfer.source in ("storage", "boot_drive") and item in router.media(transfer.source)
    name = "read_mb_s" if reads else "write_mb_s"
    paths = (f"drive.{name}", f"storage.{name}", f"medium.{name}")
    rate = next(t for path in paths if (t := _term("r", item, path)) is not None)
    words, expression, inputs = rate.label, "r", [rate]
    held = router.held_share(item)
    if held is not None:
        words, expression = f"{words}, as far as heat allows", "r * h"
        inputs.append(computed_term("h", "share of its speed kept in the heat", "", held, None))
    own = router.medium(transfer, item, "in" if reads else "out")
    if own is None:
        return _Own(rate.value, words, expression, inputs, _STATED)
    mb_s, past_cache = nominal(own.mb_s), at.company.is_mostly_slow(at.place)
    slow = _term("s", item, "medium.sustained_mb_s")
    streams_past = transfer.rate_mb_s is not None and mb_s < 0.999 * rate.value * (held or 1.0)
    if slow is not None and (streams_past or (past_cache and own.slow_mb_s is not None)):
        mb_s = mb_s if own.slow_mb_s is None else nominal(own.slow_mb_s)
        expression = f"min({expression}, s)"
        inputs.append(slow)
        words = f"{words}, once its cache is full"
    return _Own(mb_s, words, expression, inputs, _STATED)


def _term(symbol: str, item: Item, path: str) -> Term | None:
    """A figure of a part; None where nobody states it."""
    reading = dict(readings_of(item.part)).get(path)
    if reading is None:
        return None
    return reading_term(symbol, figure_words(path), unit_of(path), item, path, reading)


def _usual(symbol: str, label: str, unit: str, reading: Reading) -> Term:
    """A class figure of links and protocols."""
    return Term(symbol, label, reading.nominal, unit, reading.basis, "typical values", None)
