"""Add-ons for every function that is missing, and media for image and data."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from decimal import Decimal

from cobblewort.core import words
from cobblewort.core.aspects.data.arrays import usable_gb
from cobblewort.core.aspects.purpose.model import of as requirements_of
from cobblewort.core.aspects.purpose.model import required_capacity_gb
from cobblewort.core.changing.first.draft import Draft, Shop, amount, capacity_gb
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.rules import Rule
from cobblewort.core.parts.functions import FUNCTIONS, FunctionId
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.patch import Patch, apply_patch
from cobblewort.core.plans.plan import Requirement
from cobblewort.core.text import say
from cobblewort.core.verdict.evaluation import judge_kit

FOUND_LATER: tuple[FunctionId | None, ...] = (
    "storage",
    "recording",
    "vehicle_power",
    "battery",
    "solar",
    "memory",
    "users",
)
"""What board, media and supply give, which are no add-ons."""
_MOST_DISKS = 4


def add_functions(shop: Shop, draft: Draft) -> None:
    """For every function that is still missing the cheapest part that gives it."""
    for requirement in shop.wanted:
        for _ in range(requirement.count):
            result = next(
                r
                for r in requirements_of(shop.judge(draft).kit)
                if r.requirement.id == requirement.id
            )
            if result.reason == "inlet" or requirement.function == "device_port":
                _add_splitter(shop, draft)
                break
            if result.status == "met" or requirement.function in FOUND_LATER:
                break
            giver = next(_givers(shop, requirement), None)
            if giver is None:
                break
            label = FUNCTIONS[requirement.function or "wifi"].label
            shop.add(
                draft,
                "add_on",
                giver,
                say(
                    "Provides {function} (requirement “{text}”)",
                    function=label,
                    text=requirement.text,
                ),
            )


def _add_splitter(shop: Shop, draft: Draft) -> None:
    """What parts data and power, as the supply will take the inlet."""
    for part in shop.on_offer("add_on"):
        if part.splits_device_port:
            shop.add(draft, "add_on", part, "Separates data and power at the USB device port")
            return


def _givers(shop: Shop, requirement: Requirement) -> Iterator[Part]:
    """Add-ons that give a function with the amount wanted, drivers in the image first."""
    wanted = requirement.function
    if wanted is None:
        return
    found = [part for part in shop.on_offer("add_on") if wanted in part.offers]
    found = [part for part in found if amount(part, wanted) >= (requirement.at_least or 0)]
    yield from sorted(found, key=lambda part: part.offers[wanted].driver == "build")


def add_room(shop: Shop, draft: Draft) -> None:
    """A boot medium for the image, and room for the data beside it or on drives."""
    image_gb = shop.plan.image.card_gb if shop.plan.image else 4
    data_gb = max(
        [required_capacity_gb(requirement, shop.plan.schedule) for requirement in shop.wanted],
        default=0,
    )
    cards = [p for p in shop.on_offer("boot_drive") if p.kind == "card" and p.storage is not None]
    both = _lasting(shop, draft, [c for c in cards if capacity_gb(c) >= image_gb + data_gb])
    found = (
        min(_drives(shop, draft, data_gb), key=lambda d: d[0], default=None) if data_gb else None
    )
    disks = () if found is None else (shop.line_of("storage", found[1]),)
    plain = _lasting(shop, draft, [c for c in cards if capacity_gb(c) >= image_gb], disks)
    if both is not None and (
        found is None or plain is None or shop.price(both) <= shop.price(plain) + found[0]
    ):
        why = (
            say("Holds the image and {data} of data", data=words.size(data_gb))
            if data_gb
            else say("Holds the image")
        )
        shop.add(draft, "boot_drive", both, why)
        return
    if plain is not None:
        shop.add(draft, "boot_drive", plain, "Holds the image")
    if found is not None:
        _, drive, adapter, quantity = found
        shop.add(draft, "add_on", adapter, f"Connects {drive.model} to the board", quantity)
        shop.add(
            draft, "storage", drive, say("Holds {data} of data", data=words.size(data_gb)), quantity
        )


def _lasting(shop: Shop, draft: Draft, cards: Sequence[Part], beside: Patch = ()) -> Part | None:
    """The first card that is not written out too soon, with what stands beside it; the first of
    all where none lasts.
    """
    for card in cards:
        plan = apply_patch(draft.plan, (shop.line_of("boot_drive", card), *beside))
        if not judge_kit(Kit(plan, shop.catalogue, 1), _of_wear).findings:
            return card
    return next(iter(cards), None)


def _drives(shop: Shop, draft: Draft, data_gb: float) -> Iterator[tuple[Decimal, Part, Part, int]]:
    """Drives with what joins them, for the room wanted: cost, drive, adapter, how many."""
    board = shop.catalogue.of_line(draft.plan.line("board"))
    hosts = {s.connector for s in board.sockets.values() if s.role == "host"}
    for drive in shop.on_offer("storage"):
        form = drive.drive
        if form is None or (form.spins and shop.conditions & {"silent", "in_vehicle"}):
            continue
        quantity = _disks_for(shop, capacity_gb(drive), data_gb)
        for adapter in shop.on_offer("add_on"):
            fit_in = takes(adapter, drive)
            joins = any(set(p.connectors) & hosts for p in adapter.plugs.values())
            if adapter.kind != "storage_adapter" or not fit_in or not joins:
                continue
            adapters = int(-(-quantity // fit_in))
            if adapters > 1 and any("flat-16" in p.connectors for p in adapter.plugs.values()):
                continue  # a board has one such slot
            if quantity > _MOST_DISKS or (fit_in > 1 and adapters * fit_in != quantity):
                continue
            cost = shop.price(drive) * quantity + shop.price(adapter) * adapters
            yield cost, drive, adapter, quantity


def _disks_for(shop: Shop, size_gb: float, capacity_gb: float) -> int:
    """How many disks of one size hold so much, as the plan uses them together."""
    layout = shop.plan.storage_use.layout
    return next(
        (n for n in range(1, _MOST_DISKS + 1) if usable_gb(layout, [size_gb] * n) >= capacity_gb),
        _MOST_DISKS + 1,
    )


def _of_wear(rule: Rule) -> bool:
    """Whether a rule is about what is written to a medium."""
    return rule.id == "LIFE-01"


def takes(adapter: Part, drive: Part) -> int:
    """How many of a drive a storage adapter takes."""
    connectors = {c for plug in drive.plugs.values() for c in plug.connectors}
    form = drive.drive
    if form is None:
        return 0
    return sum(
        socket.role == "host"
        and socket.connector in connectors
        and (not socket.lengths or form.size in socket.lengths)
        and (not socket.protocols or form.protocol in socket.protocols)
        for socket in adapter.sockets.values()
    )
