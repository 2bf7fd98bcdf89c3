"""How long a kit lasts, how it fills and what is left of it, for the drawing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from cobblewort.core.aspects.lifetime.maintenance import Maintenance
from cobblewort.core.aspects.lifetime.retention import (
    Backup,
    Carried,
    Filling,
    backup_of,
    carried_of,
    taken_for_backups_of,
)
from cobblewort.core.aspects.lifetime.wear import (
    DAYS_A_YEAR,
    Wearing,
    WearKind,
    rated_tb,
    written_of,
)
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.judging.margin import Margin, percentiles
from cobblewort.core.judging.prices import prices_of
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Backup as NamedBackup
from cobblewort.core.plans.plan import Image, Prices, Retention, StorageUse
from cobblewort.core.text import Text
from cobblewort.core.words import ANSWERED_Y


@dataclass(slots=True, frozen=True)
class WrittenReport:
    """What is written to a medium each day by one thing, and what that comes to inside. [GB]"""

    by: str
    gb_day: float
    inside_gb_day: float


@dataclass(slots=True, frozen=True)
class WearReport:
    """A thing that wears out. [a]

    `margin` names its margin; `years_p05` and `years_p95` are None where no samples were drawn. Of
    `most_years` nobody tells how much longer.
    """

    id: str
    line: str
    label: str
    kind: WearKind
    how: Text
    years: float
    most_years: float
    years_p05: float | None
    years_p95: float | None
    margin: str
    written: list[WrittenReport]


@dataclass(slots=True, frozen=True)
class CardReport:
    """A card of the catalogue that the image goes onto, for as long as the plan writes to it.

    `price_a_gb` is money for a GB, `years` None where nobody states what may be written to it. The
    `smallest` that holds the image, the `sweet` one with most room for its price, and the one in
    `use` are marked. [GB], [a]
    """

    part: str
    name: str
    capacity_gb: float
    price: Decimal
    price_a_gb: Decimal
    years: float | None
    smallest: bool
    sweet: bool
    use: bool


@dataclass(slots=True, frozen=True)
class FillReport:
    """How the room fills. `days` until it is full is None where nothing stays. [GB], [GB a day]"""

    capacity_gb: float
    day_gb: float
    days: float | None
    when_full: Literal["deletes_oldest", "stops"]


@dataclass(slots=True, frozen=True)
class BackupCopy:
    """A copy of the data: the kit's own (no id), or one that the plan names; one on the same array
    does not count.
    """

    id: str
    text: str
    place: Literal["kit", "in_kit", "here", "same_house", "elsewhere"]
    medium: str
    every_days: float | None
    counts: bool


@dataclass(slots=True, frozen=True)
class BackupReport:
    """Copies against three, two and one, and the hours that all that fits takes. [h]"""

    replaceable: bool
    copies: list[BackupCopy]
    count: int
    media: int
    elsewhere: int
    complete: bool
    copy_h: float | None
    restore_h: float | None


@dataclass(slots=True, frozen=True)
class LifetimeReport:
    """Years that are wanted, what wears out within or beyond them, room, copies and upkeep. [a]"""

    wanted_years: float
    wears: list[WearReport]
    filling: FillReport
    backups: BackupReport
    maintenance: list[Maintenance]
    cards: list[CardReport]


def lifetime_report(
    written: list[Wearing],
    worn: list[Wearing],
    filling: Filling,
    kept: BackupReport,
    maintenance: list[Maintenance],
    cards: list[CardReport],
    retention: Retention,
    storage_use: StorageUse,
    margins: Sequence[Margin],
) -> LifetimeReport:
    """All that the drawing of life shows; what goes first stands first."""
    known = {margin.id for margin in margins}
    things = [*written, *worn]
    things = _each_once(things)
    things.sort(key=lambda thing: nominal(thing.years))
    return LifetimeReport(
        retention.years,
        [_wear(thing, known) for thing in things],
        FillReport(filling.capacity_gb, filling.day_gb, filling.days, storage_use.when_full),
        kept,
        maintenance,
        cards,
    )


@derived("items", "image", "catalogue", prices_of, written_of)
def cards_of(
    items: Items, image: Image | None, catalogue: Catalogue, prices: Prices, written: list[Wearing]
) -> list[CardReport]:
    """Cards that hold the image, cheapest first; none where it boots from something else."""
    boot = next((p for p in items.of_role("boot_drive") if p.part.kind == "card"), None)
    if boot is None:
        return []
    image_gb = 0.0 if image is None else image.card_gb
    inside_gb_day = sum(
        nominal(entry.inside_gb_day)
        for thing in written
        if thing.item is boot
        for entry in thing.written
    )
    found = [
        (part, part.storage.capacity_gb, price)
        for part in catalogue.parts(("card",))
        if part.storage is not None
        and part.origin != "typical"
        and (price := prices.of(part))
        and part.storage.capacity_gb >= image_gb
    ]
    if not found:
        return []
    smallest = min(found, key=lambda card: (card[1], card[2]))[0]
    sweet = min(found, key=lambda card: card[2] / Decimal(card[1]))[0]
    return [
        CardReport(
            part.id,
            part.model,
            capacity_gb,
            price,
            (price / Decimal(capacity_gb)).quantize(Decimal("0.001")),
            _years_of(part, inside_gb_day),
            part is smallest,
            part is sweet,
            part.id == boot.part.id,
        )
        for part, capacity_gb, price in sorted(found, key=lambda card: card[2])
    ]


def _years_of(part: Part, inside_gb_day: float) -> float | None:
    """Years of a card at what the plan writes inside it each day."""
    endurance = rated_tb(part)
    if endurance is None or inside_gb_day <= 0:
        return None
    return min(ANSWERED_Y, endurance * 1000 / (inside_gb_day * DAYS_A_YEAR))


def _each_once(things: Sequence[Wearing]) -> list[Wearing]:
    """Pieces of a line that wear alike as one."""
    found: dict[tuple[str, str, float], Wearing] = {}
    for thing in things:
        name = thing.id.removeprefix(thing.item.id)
        found.setdefault((thing.item.line.id, name, nominal(thing.years)), thing)
    return list(found.values())


def _wear(thing: Wearing, known: set[str]) -> WearReport:
    low = high = None
    if not isinstance(thing.years, float):
        low, high = percentiles(thing.years[1:])
    names = (f"LIFE-01:{thing.item.id}", f"LIFE-02:{thing.id}")
    margin = names[0] if thing.kind == "writing" else names[1]
    written = [
        WrittenReport(entry.by, nominal(entry.gb_day), nominal(entry.inside_gb_day))
        for entry in thing.written
    ]
    return WearReport(
        thing.id,
        thing.item.line.id,
        thing.label,
        thing.kind,
        thing.how,
        nominal(thing.years),
        thing.most_y,
        low,
        high,
        margin if margin in known else "",
        written,
    )


@derived(backup_of, taken_for_backups_of, carried_of, "retention")
def _kept_of(
    backup: Backup, taken: list[NamedBackup], carried: Carried, retention: Retention
) -> BackupReport:
    copies = [BackupCopy("", "in the kit", "kit", "", None, True)] if backup.copies else []
    copies += [
        BackupCopy(copy.id, copy.text, copy.place, copy.medium, copy.every_days, copy not in taken)
        for copy in retention.backups
    ]
    return BackupReport(
        retention.replaceable,
        copies,
        backup.copies,
        backup.media,
        backup.away,
        backup.complete,
        carried.out_h,
        carried.back_h,
    )
