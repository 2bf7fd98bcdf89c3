"""What wears out, and when: media by what is written to them, fans by turning, cells by age."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import inf
from typing import Literal

from cobblewort.core import words
from cobblewort.core.aspects.data.arrays import read_from_each, written_to_each
from cobblewort.core.aspects.data.model import Array, array_of
from cobblewort.core.aspects.data.typical_rates import PIECES_MB, drawn
from cobblewort.core.aspects.heat.model import HeatResult
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.one_or_many import between, lesser, nominal
from cobblewort.core.figures.reading import Reading
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.parts.model import Part, Wears
from cobblewort.core.plans.plan import (
    NOT_OF_IT,
    Phase,
    Retention,
    Settings,
    StorageUse,
    Transfer,
    Writes,
)
from cobblewort.core.text import Text, say
from cobblewort.core.words import ANSWERED_Y

DAYS_A_YEAR = 365.25
BY_WRITING = ", by writes"
SMALL_FILE_MB = 8.0
"""Files below this are written like many small ones: a guess."""
_COOLER_HELPS = 4.0
"""A cool place stretches a life of years this many times at most: a guess."""
_MOST_DOUBLED = 20.0
"""Twice as long or half as long so many times: beyond it nobody believes the rule."""


def _usual(low: float, nominal_: float, high: float) -> Reading:
    return Reading(nominal=nominal_, low=low, high=high, basis="typical")


SYSTEM_GB_DAY: dict[Writes, Reading] = {
    "logger": _usual(0.1, 0.3, 1),
    "hub": _usual(1, 3, 8),
    "light": _usual(0.2, 0.5, 2),
    "server": _usual(2, 6, 20),
    "games": _usual(0.05, 0.1, 0.3),
}
"""What a system and its logs write. [GB a day], from memory."""
_AMPLIFICATION: dict[str, Reading] = {
    "long runs": _usual(1.1, 1.3, 1.5),
    "mixed": _usual(2, 3, 4),
    "small and synchronous": _usual(5, 10, 20),
}
"""How many bytes a medium writes for each one: of big files, of files of a few megabytes and what a
system does, and of what is written a few kilobytes at a time and waited for. From memory."""
_IN_MEMORY, _READ_ONLY = _usual(0.2, 0.35, 0.6), _usual(0, 0.02, 0.05)
"""What of the system's writes is left by a setting. From memory."""

WearKind = Literal["writing", "turning", "age"]


@dataclass(slots=True, frozen=True)
class Written:
    """What is written to a medium: by what, how much a day, and what that comes to inside.

    [GB a day]
    """

    by: str
    gb_day: Quantity
    inside_gb_day: Quantity


@dataclass(slots=True, frozen=True)
class Wearing:
    """A thing that wears out: after how many years, shape (samples,) or one number, and of what.

    `how` says under what: `by 1.2 GB a day`, `at 41 °C`. Nobody answers for more than `most_y`:
    grease dries and rubber and electrolyte age, however seldom a thing runs. [a]
    """

    id: str
    label: str
    kind: WearKind
    years: Quantity
    how: Text
    item: Item
    written: tuple[Written, ...] = ()
    endurance_tb: Quantity | None = None
    temp_c: float | None = None
    of: Wears | None = None
    most_y: float = ANSWERED_Y


def daily_gb(transfer: Transfer, schedule: Sequence[Phase]) -> float:
    """What a flow moves in a day. [GB]"""
    if transfer.rate_mb_s is not None:
        return transfer.rate_mb_s * 3.6 * (transfer.hours(schedule) or 0.0)
    return (transfer.files_gb or 0.0) * transfer.runs_a_day


def write_pattern(transfer: Transfer) -> str:
    """How a transfer writes: each run of files is as long as it is, a stream without an end."""
    size_mb = min(transfer.file_mb or inf, (transfer.amount_gb or inf) * 1000)
    if size_mb < PIECES_MB:
        return "small and synchronous"
    return "mixed" if size_mb < SMALL_FILE_MB else "long runs"


def hours_on(schedule: Sequence[Phase]) -> float:
    """Hours of a day in which it is not off. [h]"""
    return sum(phase.hours for phase in schedule if phase.activity != "off")


def system_gb_day(retention: Retention, settings: Settings, on_h: float, samples: int) -> Quantity:
    """What the system writes by itself, with its settings, in its hours of a day. [GB a day]

    What is usual is that of a whole day; what a plan states is what it states.
    """
    own = retention.system_gb_day
    if own is None:
        written: Quantity = drawn(
            f"system/{retention.writes}", SYSTEM_GB_DAY[retention.writes], samples
        )
        written = written * (on_h / 24)
    else:
        written = float(own)
    if settings.read_only_root:
        return written * drawn("read-only", _READ_ONLY, samples)
    if settings.logs_in_memory:
        return written * drawn("in-memory", _IN_MEMORY, samples)
    return written


def media_of(array: Array, connected: Items) -> list[Item]:
    """Media that the kit lives on: those of data, and the first to boot from."""
    boot = [p for p in connected.of_role("boot_drive") if p.part.storage is not None][:1]
    return [*boot, *array.items]


@derived(
    "connected",
    "schedule",
    "transfers",
    "storage_use",
    "retention",
    "settings",
    array_of,
    "samples",
)
def written_of(
    connected: Items,
    schedule: Sequence[Phase],
    transfers: Sequence[Transfer],
    storage_use: StorageUse,
    retention: Retention,
    settings: Settings,
    array: Array,
    samples: int,
) -> list[Wearing]:
    """Media that wear by what is written to them; disks that spin do not."""
    found = []
    boot = next((p for p in connected.of_role("boot_drive") if p.part.storage is not None), None)
    for item in media_of(array, connected):
        endurance = endurance_tb(samples, item)
        if endurance is None:
            continue
        on_data = item in array.items
        share = 1.0
        if on_data:
            layout = storage_use.layout
            share = written_to_each(layout, len(array.items))
            if layout == "separate" and item is not array.items[0]:
                share = 0.0
        entries = []
        if item is boot:
            system = system_gb_day(retention, settings, hours_on(schedule), samples)
            grown = drawn("mixed", _AMPLIFICATION["mixed"], samples)
            entries.append(Written("the system and its logs", system, system * grown))
        for transfer in transfers:
            lands = (
                transfer.target == "boot_drive"
                if array.items
                else transfer.target in ("boot_drive", "storage")
            )
            if (on_data and transfer.target == "storage") or (item is boot and lands):
                day = daily_gb(transfer, schedule) * (share if on_data else 1.0)
                if day > 0:
                    pattern = write_pattern(transfer)
                    grown = drawn(pattern, _AMPLIFICATION[pattern], samples)
                    entries.append(Written(transfer.text, day, day * grown))
        total: Quantity = 0.0
        for entry in entries:
            total = total + entry.inside_gb_day
        if nominal(total) <= 0:
            continue
        most_y = max(ANSWERED_Y, retention.years)
        years = between(0.0, endurance * 1000 / (total * DAYS_A_YEAR), most_y)
        day_gb = sum(nominal(entry.gb_day) for entry in entries)
        found.append(
            Wearing(
                f"{item.id}.writing",
                f"{item.name}{BY_WRITING}",
                "writing",
                years,
                say("at {daily}", daily=words.daily(day_gb)),
                item,
                tuple(entries),
                endurance,
                most_y=most_y,
            )
        )
    return found


@dataclass(slots=True, frozen=True)
class Worked:
    """A disk that spins: what it reads and writes, and what it is made for.

    [GB a day], [TB a year]
    """

    item: Item
    gb_day: float
    tb_y: float
    most_tb_y: Quantity
    stated: Reading


@derived("schedule", "transfers", "storage_use", array_of, "samples")
def worked_of(
    schedule: Sequence[Phase],
    transfers: Sequence[Transfer],
    storage_use: StorageUse,
    array: Array,
    samples: int,
) -> list[Worked]:
    """Disks that spin and move data; separate ones by the first, which data land on."""
    if not array.items or not array.possible:
        return []
    count, layout = len(array.items), storage_use.layout
    written = [written_to_each(layout, count)] * count
    read = list(read_from_each(layout, count))
    if layout == "separate":
        written = read = [1.0, *[0.0] * (count - 1)]
    into = sum(daily_gb(t, schedule) for t in transfers if t.target == "storage")
    out = sum(daily_gb(t, schedule) for t in transfers if t.source == "storage")
    found = []
    for item, writes, reads in zip(array.items, written, read, strict=True):
        drive, most_tb_y = item.part.drive, _figure(samples, item, "drive.workload_tb")
        gb_day = into * writes + out * reads
        if drive is None or drive.workload_tb is None or most_tb_y is None or gb_day <= 0:
            continue
        tb_y = gb_day * DAYS_A_YEAR / 1000
        found.append(Worked(item, gb_day, tb_y, most_tb_y, drive.workload_tb))
    return found


def endurance_tb(samples: int, item: Item) -> Quantity | None:
    """What may be written to a medium in its life: as stated, else by its size. [TB]"""
    part = item.part
    for path in ("drive.endurance_tb", "storage.endurance_tb"):
        figure = _figure(samples, item, path)
        if figure is not None:
            return figure
    if part.storage is None:
        return None
    for path in ("drive.endurance_tb_100gb", "medium.endurance_tb_100gb"):
        figure = _figure(samples, item, path)
        if figure is not None:
            return figure * part.storage.capacity_gb / 100
    return None


def rated_tb(part: Part) -> float | None:
    """The same of a part by itself, at its typical figure. [TB]"""
    drive, storage, medium = part.drive, part.storage, part.medium
    stated = (None if drive is None else drive.endurance_tb) or (
        None if storage is None else storage.endurance_tb
    )
    if stated is not None or storage is None:
        return None if stated is None else stated.nominal
    by_size = (None if drive is None else drive.endurance_tb_100gb) or (
        None if medium is None else medium.endurance_tb_100gb
    )
    return None if by_size is None else by_size.nominal * storage.capacity_gb / 100


def _figure(samples: int, item: Item, path: str) -> Quantity | None:
    values = item.compiled.stated(path)
    return values.item(0) if values is not None and samples == 1 else values


@derived("built", "schedule", "place.ambient_min_c", "place.ambient_max_c", heat_of, "samples")
def worn_of(
    built: Items,
    schedule: Sequence[Phase],
    ambient_min_c: float,
    ambient_max_c: float,
    heat: HeatResult,
    samples: int,
) -> list[Wearing]:
    """What wears out by itself: fans by turning, capacitors and cells by warmth and age."""
    return list(_worn(heat, schedule, built, samples, ambient_min_c, ambient_max_c))


def _worn(
    heat: HeatResult,
    schedule: Sequence[Phase],
    built: Items,
    samples: int,
    ambient_min_c: float,
    ambient_max_c: float,
) -> Iterator[Wearing]:
    hours, middle = hours_on(schedule), middling_c(ambient_min_c, ambient_max_c)
    rise: float | None = None
    for item in built:
        if item.index > 1 or item.line.role in NOT_OF_IT:
            continue
        for name, own in item.part.wears.items():
            warmer = _figure(samples, item, f"wears.{name}.warmer_k")
            # A cell ages most in summer; what turns or dries out has the whole year for it.
            temp: Quantity = ambient_max_c if "cell" in own.label else middle
            if heat.shelters(item.line.id):
                rise = _mean_rise(schedule, heat) if rise is None else rise
                temp = temp + rise
            if warmer is not None:
                temp = temp + warmer
            factor: Quantity = 1.0
            halves = _figure(samples, item, f"wears.{name}.halves_k")
            if halves is not None:
                cooler_k = own.at_c - temp
                if own.label == "fan":
                    cooler_k = lesser(0.0, cooler_k)  # grease dries in the cool as well
                doubled = between(-_MOST_DOUBLED, cooler_k / halves, _MOST_DOUBLED)
                factor = 2**doubled
            lifetime = _figure(samples, item, f"wears.{name}.life_h")
            if lifetime is not None:
                years = lifetime * factor / (max(hours, 0.01) * DAYS_A_YEAR)
            else:
                aged = _figure(samples, item, f"wears.{name}.life_y")
                years = (1.0 if aged is None else aged) * between(0.0, factor, _COOLER_HELPS)
            years = between(0.0, years, ANSWERED_Y)
            shown = nominal(temp)
            yield Wearing(
                f"{item.id}.{name}",
                f"{item.part.model}, {own.label}",
                "turning" if own.label == "fan" else "age",
                years,
                _how(own, hours, shown),
                item,
                temp_c=shown,
                of=own,
            )


def _how(own: Wears, hours: float, temp_c: float) -> Text:
    """Under what a thing lasts so long: what its life hangs on."""
    if own.halves_k is None and own.life_h is not None:
        return say("at {hours} a day", hours=words.counted(hours, "h"))
    return say("at {temp}", temp=words.degrees(temp_c))


def middling_c(ambient_min_c: float, ambient_max_c: float) -> float:
    """A middling day: half way between the coldest and the hottest. [°C]"""
    return (ambient_min_c + ambient_max_c) / 2


def _mean_rise(schedule: Sequence[Phase], heat: HeatResult) -> float:
    """How much warmer than the day it is inside a closed case, over the hours of a day. [K]"""
    inside = heat.inside_c
    if inside is None:
        return 0.0
    rises: list[float] = (inside[:, 0] - heat.ambient_c).tolist()
    hours = [phase.hours for phase in schedule]
    total, weighed = 0.0, 0.0
    for state, rise in zip(heat.states, rises, strict=True):
        if state.phase is not None:
            weighed += rise * hours[state.phase]
            total += hours[state.phase]
    return weighed / total if total else 0.0
