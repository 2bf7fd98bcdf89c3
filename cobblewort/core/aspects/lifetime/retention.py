"""What is kept: how long the room lasts, and what of it is left when something happens."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import ceil

from cobblewort.core.aspects.data.model import Array, array_of, moved
from cobblewort.core.aspects.data.route import Router, router_of
from cobblewort.core.aspects.lifetime.wear import daily_gb
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.plans.plan import Backup as NamedBackup
from cobblewort.core.plans.plan import End, Image, Phase, Retention, StorageUse, Transfer

DAYS_A_MONTH = 365.25 / 12
COPIES, MEDIA, AWAY = 3, 2, 1
"""Three copies on two kinds of media, one of them elsewhere: common practice."""
FORMAT_SHARE = 0.01
"""What a file system takes of its room for itself: common practice."""


@dataclass(slots=True, frozen=True)
class Filling:
    """How the room fills: what there is, what stays of each day, and after how long it is full.

    `days` is None where nothing stays. `of_boot` tells of the boot drive beside data drives.
    [GB], [GB a day]
    """

    capacity_gb: float
    day_gb: float
    days: float | None
    of_boot: bool = False


@dataclass(slots=True, frozen=True)
class Backup:
    """Copies, kinds of media and places away, against three, two and one."""

    copies: int
    media: int
    away: int

    @property
    def complete(self) -> bool:
        """Whether it is three, two, one."""
        return self.copies >= COPIES and self.media >= MEDIA and self.away >= AWAY


def capacity_gb(array: Array, connected: Items, image: Image | None) -> float:
    """Room for data: that of the data drives as they are used, else what the image leaves of the
    boot medium. [GB]
    """
    if array.items:
        return array.usable_gb * (1 - FORMAT_SHARE)
    return boot_gb(connected, image)


def boot_gb(connected: Items, image: Image | None) -> float:
    """What the image leaves of the boot medium. [GB]"""
    boot = next((p for p in connected.of_role("boot_drive") if p.part.storage is not None), None)
    if boot is None or boot.part.storage is None:
        return 0.0
    taken = image.card_gb if image is not None else 0.0
    return max(0.0, boot.part.storage.capacity_gb * (1 - FORMAT_SHARE) - taken)


@derived("connected", "schedule", "transfers", "storage_use", "image", array_of)
def fillings_of(
    connected: Items,
    schedule: Sequence[Phase],
    transfers: Sequence[Transfer],
    storage_use: StorageUse,
    image: Image | None,
    array: Array,
) -> list[Filling]:
    """How the room fills, by flows that stay and by what a store grows: that of the data first, and
    that of the boot drive where data are elsewhere and some land there.
    """
    day = {"storage": 0.0, "boot_drive": 0.0}
    for transfer in transfers:
        if transfer.stays and transfer.target in day:
            day[transfer.target] += daily_gb(transfer, schedule)
    day["storage"] += (storage_use.growth_gb_month or 0.0) / DAYS_A_MONTH
    room = capacity_gb(array, connected, image)
    if not array.items:
        return [_filling(room, sum(day.values()))]
    found = [_filling(room, day["storage"])]
    if day["boot_drive"] > 0:
        boot = _filling(boot_gb(connected, image), day["boot_drive"])
        found.append(replace(boot, of_boot=True))
    return found


def _filling(room: float, day: float) -> Filling:
    return Filling(room, day, room / day if day > 0 and room > 0 else None)


@derived(fillings_of)
def filling_of(fillings: list[Filling]) -> Filling:
    """That of the data."""
    return fillings[0]


@derived("retention", "storage_use", array_of)
def taken_for_backups_of(
    retention: Retention, storage_use: StorageUse, array: Array
) -> list[NamedBackup]:
    """Backups in the kit that are none: an array holds one copy of the data, however many drives it
    has, and a single drive has no other beside it.
    """
    apart = storage_use.layout == "separate" and len(array.items) > 1
    return [copy for copy in retention.backups if copy.place == "in_kit" and not apart]


@derived("connected", "retention", array_of, taken_for_backups_of)
def backup_of(
    connected: Items, retention: Retention, array: Array, taken_for_backups: list[NamedBackup]
) -> Backup:
    """The copy on the kit and those that the plan names."""
    own = array.items or [p for p in connected.of_role("boot_drive") if p.part.storage is not None]
    copies = [copy for copy in retention.backups if copy not in taken_for_backups]
    kinds: set[str] = {p.part.medium.kind for p in own if p.part.medium is not None}
    kinds |= {copy.medium for copy in copies}
    away = sum(copy.place == "elsewhere" for copy in copies)
    return Backup(len(copies) + bool(own), max(len(kinds), 1), away)


@dataclass(slots=True, frozen=True)
class Carried:
    """How long all that fits takes over the network, out and back. [h]"""

    out_h: float | None
    back_h: float | None


@derived("connected", "image", array_of, router_of)
def carried_of(connected: Items, image: Image | None, array: Array, paths: Router) -> Carried:
    """A copy of everything over the network, and the way back."""
    room = capacity_gb(array, connected, image)
    if room <= 0:
        return Carried(None, None)
    router = replace(paths, samples=1)
    times: list[float | None] = []
    both_ways: tuple[tuple[End, End], ...] = (("storage", "network"), ("network", "storage"))
    for source, target in both_ways:
        transfer = Transfer.worked_out("copy", source, target, room)
        route = router.route(transfer)
        minutes = moved([route])[0].minutes if route.links else None
        times.append(None if minutes is None else nominal(minutes) / 60)
    return Carried(times[0], times[1])


def months(days: float) -> int:
    """Whole months until then, at least one."""
    return max(1, ceil(days / DAYS_A_MONTH))
