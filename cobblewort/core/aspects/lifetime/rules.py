"""Rules of lifetime: how long parts last, what is backed up, and who can get in."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence

from cobblewort.core import words
from cobblewort.core.aspects.data.model import Array, array_of
from cobblewort.core.aspects.lifetime.maintenance import on_a_network
from cobblewort.core.aspects.lifetime.retention import (
    Backup,
    Filling,
    backup_of,
    fillings_of,
    taken_for_backups_of,
)
from cobblewort.core.aspects.lifetime.wear import (
    DAYS_A_YEAR,
    Wearing,
    Worked,
    hours_on,
    worked_of,
    worn_of,
    written_of,
)
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.kit import Items, Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import BOTHERS, INFORMS, WEARS, WEARS_A_SPARE
from cobblewort.core.judging.working import (
    Sum,
    SumFunction,
    computed_term,
    plain_term,
    plan_term,
    reading_term,
)
from cobblewort.core.plans.patch import Patch, SetFields
from cobblewort.core.plans.plan import Backup as NamedBackup
from cobblewort.core.plans.plan import Image, Phase, Reminder, Requirement, Retention, StorageUse
from cobblewort.core.text import Text, say

_SOON_DAYS = 31.0
"""Storage that is full sooner needs attention soon: a guess."""
_SOON_SHARE = 0.5
"""A store that is full in less than half of its years is too small: a guess."""


def logs_in_memory(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Logs kept in memory, where the system writes to what wears out."""
    boots = {line.id for line in kit.plan.lines if line.role == "boot_drive"}
    if boots & set(finding.lines) and not kit.plan.settings.logs_in_memory:
        yield (SetFields(fields={"settings": {"logs_in_memory": True}}),)


@rule(
    "LIFE-01",
    "lifetime",
    "Cards and drives are not worn out too soon",
    why="Frequent small writes wear out a memory card in a year or two.",
    formula="write endurance / (writes per day x write amplification x 365.25) >= years required",
    source="common practice; rated endurance by the makers, amplification from memory",
    reads=(written_of, "retention"),
    remedies=(logs_in_memory, another("boot_drive", "storage")),
    eased_by=("board", "boot_drive", "storage"),
)
def written_out(written: list[Wearing], retention: Retention) -> Iterator[Check]:
    """Years of each drive and card against those required."""
    wanted = retention.years
    for thing in written:
        yield Check(
            thing.item.id,
            f"Lifetime of {thing.label}",
            "years",
            "min",
            thing.years,
            wanted,
            _written_sentence(retention, thing),
            (thing.item.line.id,),
            span=wanted,
            consequence=WEARS,
            working=_written_sum(thing, wanted),
        )


def _written_sentence(retention: Retention, thing: Wearing) -> Callable[[Margin], Text]:
    most = max(thing.written, key=lambda entry: nominal(entry.inside_gb_day))

    def sentence(margin: Margin) -> Text:
        has, needs = words.apart(words.years, margin.value, retention.years)
        inside = sum(nominal(entry.inside_gb_day) for entry in thing.written)
        return say(
            "{drive} is worn out after {has}; {needs} are required. It writes {daily}, mostly for "
            "{by}.",
            drive=words.opening(thing.item.the),
            has=has,
            needs=needs,
            daily=words.daily(inside),
            by=most.by,
        )

    return sentence


def _written_sum(thing: Wearing, wanted: float) -> SumFunction:
    def working(state: int) -> Sum:
        del state
        endurance = 0.0 if thing.endurance_tb is None else nominal(thing.endurance_tb)
        inputs = [
            computed_term("E", f"write endurance of {thing.item.name}", "TB", endurance, None)
        ]
        terms = []
        for number, entry in enumerate(thing.written, 1):
            inputs.append(
                computed_term(
                    f"W_{number}", f"writes per day: {entry.by}", "GB", nominal(entry.gb_day), None
                )
            )
            grows = nominal(entry.inside_gb_day) / nominal(entry.gb_day)
            inputs.append(computed_term(f"F_{number}", "write amplification", "", grows, None))
            terms.append(f"W_{number} * F_{number}")
        inputs.append(plan_term("Y", "years required", "years", wanted))
        return Sum(
            "write endurance divided by the writes per year, less the years required",
            f"min({thing.most_y:g}, E * 1000 / (({' + '.join(terms)}) * 365.25)) - Y",
            inputs,
        )

    return working


@rule(
    "LIFE-07",
    "lifetime",
    "Hard disks move no more data per year than they are made for",
    why="A hard disk that reads and writes far more than its yearly workload fails sooner.",
    formula="data read and written per year <= yearly workload of the disk",
    source="typical workload of 2.5-inch disks, from memory",
    reads=(worked_of,),
    remedies=(another("storage"),),
)
def workload(worked: list[Worked]) -> Iterator[Check]:
    """Each disk that spins against the workload that is stated for it or usual of its kind."""
    for disk in worked:
        yield Check(
            disk.item.id,
            f"Workload of {disk.item.name}",
            "TB per year",
            "max",
            disk.tb_y,
            disk.most_tb_y,
            _workload_sentence(disk),
            (disk.item.line.id,),
            span=nominal(disk.most_tb_y),
            consequence=WEARS_A_SPARE,
            working=_workload_sum(disk),
        )


def _workload_sentence(disk: Worked) -> Callable[[Margin], Text]:
    def sentence(margin: Margin) -> Text:
        has, most = words.apart(words.yearly, margin.value, margin.limit)
        return say(
            "{disk} reads and writes {has}; it is made for {most}.",
            disk=words.opening(disk.item.the),
            has=has,
            most=most,
        )

    return sentence


def _workload_sum(disk: Worked) -> SumFunction:
    def working(state: int) -> Sum:
        del state
        return Sum(
            "yearly workload less what is read and written per year",
            "W - D * 365.25 / 1000",
            [
                reading_term(
                    "W",
                    "yearly workload",
                    "TB",
                    disk.item,
                    "drive.workload_tb",
                    disk.stated,
                ),
                computed_term("D", "read and written per day", "GB", disk.gb_day, None),
            ],
        )

    return working


@rule(
    "LIFE-02",
    "lifetime",
    "Fans, disks, capacitors and cells last",
    why="Fans, hard disks, capacitors and battery cells age. A spare part avoids a long outage.",
    formula="life at its rated temperature x 2^((rated - actual) / step), over the hours per day; "
    "the life of a hard disk does not depend on its temperature",
    source="rules of thumb: bearings half as long per 10 to 15 K, capacitors per 10 K; half of all "
    "hard disks run for more than 60,000 h; from memory",
    reads=(worn_of, "retention", "schedule"),
)
def worn(worn: list[Wearing], retention: Retention, schedule: Sequence[Phase]) -> Iterator[Check]:
    """Years of fans, disks, capacitors and cells; a note where they fall short."""
    wanted = retention.years
    for thing in worn:
        yield Check(
            thing.id,
            f"Lifetime of {thing.label}",
            "years",
            "min",
            thing.years,
            wanted,
            _worn_sentence(thing, wanted),
            (thing.item.line.id,),
            span=wanted,
            consequence=WEARS_A_SPARE,
            working=_worn_sum(schedule, thing, wanted),
        )


def _worn_sentence(thing: Wearing, wanted: float) -> Callable[[Margin], Text]:
    def sentence(margin: Margin) -> Text:
        has, needs = words.apart(words.years, margin.value, wanted)
        label = "part" if thing.of is None else thing.of.label
        return say(
            "The {part} of {item} {last} about {has} {how}; {needs} are required. Keep a spare.",
            part=label,
            last="last" if label.endswith("s") else "lasts",
            item=thing.item.name,
            has=has,
            how=thing.how,
            needs=needs,
        )

    return sentence


def _worn_sum(schedule: Sequence[Phase], thing: Wearing, wanted: float) -> SumFunction:
    def working(state: int) -> Sum:
        del state
        own, item = thing.of, thing.item
        if own is None:
            raise ValueError(f"{thing.id} does not say how it wears")
        name = thing.id.removeprefix(f"{item.id}.")
        inputs, factor = [plan_term("Y", "years required", "years", wanted)], ""
        if own.halves_k is not None and thing.temp_c is not None:
            path = f"wears.{name}.halves_k"
            inputs += [
                reading_term(
                    "h", "temperature rise that halves its life", "K", item, path, own.halves_k
                ),
                plain_term("T_0", "rated at", "°C", item, own.at_c),
                computed_term("T", "its temperature", "°C", thing.temp_c, None),
            ]
            cooler = "min(0, T_0 - T)" if own.label == "fan" else "(T_0 - T)"
            factor = f" * 2 ** max(0 - 20, min(20, {cooler} / h))"
        if own.life_h is not None:
            path = f"wears.{name}.life_h"
            inputs += [
                reading_term("L", "rated life in hours", "h", item, path, own.life_h),
                plan_term("H", "hours per day", "h", hours_on(schedule)),
            ]
            lifetime = f"L{factor} / (max(H, 0.01) * 365.25)"
        elif own.life_y is not None:
            path = f"wears.{name}.life_y"
            inputs.append(reading_term("L", "rated life in years", "years", item, path, own.life_y))
            factor = factor.replace(" * 2", " * min(4, 2", 1) + ")" if factor else ""
            lifetime = f"L{factor}"
        return Sum(
            "life at its temperature, less the years required",
            f"min({thing.most_y:g}, {lifetime}) - Y",
            inputs,
        )

    return working


@rule(
    "LIFE-03",
    "lifetime",
    "Storage is not full too soon",
    why="When storage is full, new files are not saved or the oldest are deleted.",
    formula="free space / data kept per day = days until it is full",
    source="common practice",
    reads=(fillings_of, "storage_use", "retention"),
    eased_by=("board", "boot_drive", "storage"),
)
def fills(
    fillings: list[Filling], storage_use: StorageUse, retention: Retention
) -> Iterator[Observation]:
    """What is full within a month and then stops, and a store that is full before its years: a
    note, tight in less than half of them.
    """
    if storage_use.when_full != "stops":
        return
    for filling in fillings:
        if filling.days is None:
            continue
        what = "The boot drive" if filling.of_boot else "Storage"
        subject = "boot" if filling.of_boot else "full"
        wanted_days = retention.years * DAYS_A_YEAR
        if filling.days < _SOON_DAYS:
            yield Observation(
                subject,
                INFORMS,
                say(
                    "{what} is full {after}; new files are then not saved. Copy the files off "
                    "{often}.",
                    what=what,
                    after=_after(filling.days),
                    often=_often(filling.days),
                ),
            )
        elif storage_use.growth_gb_month and not filling.of_boot and filling.days < wanted_days:
            share = filling.days / wanted_days
            yield Observation(
                "grown",
                INFORMS if share >= _SOON_SHARE else WEARS,
                say(
                    "Storage is full after {has}; {needs} are required. Plan a larger drive.",
                    has=words.years(filling.days / DAYS_A_YEAR),
                    needs=words.years(retention.years),
                ),
            )


def _after(days: float) -> str:
    return "within a day" if days < 1 else f"after {words.count(round(days), 'day')}"


def _often(days: float) -> str:
    return "daily" if days < 8 else "weekly" if days < 15 else "every two weeks"


@rule(
    "LIFE-04",
    "lifetime",
    "Irreplaceable data has backups",
    why="A failed disk, a fire or a wrong command can destroy data; an array does not protect from "
    "fire or deletion.",
    formula="three copies, on two kinds of drive, one of them elsewhere",
    source="common practice",
    reads=(backup_of, taken_for_backups_of, array_of, "retention", "storage_use"),
)
def copies(
    backup: Backup,
    taken_for_backups: list[NamedBackup],
    array: Array,
    retention: Retention,
    storage_use: StorageUse,
) -> Iterator[Observation]:
    """Tight where a mirror is taken for a backup; a note on what three, two and one are missing,
    for data that cannot be fetched again.
    """
    lines = tuple(dict.fromkeys(item.line.id for item in array.items))
    layout = storage_use.layout
    for copy in taken_for_backups:
        yield Observation(
            f"taken.{copy.id}",
            BOTHERS,
            say(
                "The backup “{name}” is on {where}. A wrong command deletes both. Add a backup on "
                "another device.",
                name=copy.text,
                where="the drive that holds the data"
                if len(array.items) < 2
                else "the array that holds the data",
            ),
            lines,
        )
    if retention.replaceable or backup.copies == 0 or backup.complete or taken_for_backups:
        return
    as_one = layout not in ("separate", "stripe") and array.may_fail > 0
    opening = "An array is not a backup. " if as_one and backup.copies == 1 else ""
    if backup.copies == 1:
        text = (
            f"{opening}All data is in one place. Theft, fire or a wrong command can destroy it. "
            "Add a backup elsewhere."
        )
    elif backup.away == 0:
        text = (
            f"The data has {_copies(backup.copies)}, none elsewhere: fire or theft can destroy "
            "all. Add a backup elsewhere."
        )
    elif backup.copies < 3:
        text = (
            f"The data has {_copies(backup.copies)}: if one fails, only one is left. Add another "
            "backup."
        )
    else:
        text = (
            f"The data has {_copies(backup.copies)}, all on one kind of drive: one fault can "
            "affect all. Add a backup on another kind."
        )
    yield Observation("copies", INFORMS, say(text), lines)


def _copies(count: int) -> str:
    return "two copies" if count == 2 else f"{count} copies"


@rule(
    "LIFE-05",
    "lifetime",
    "The password is unique and updates are on",
    why="Default passwords are tried within minutes after a board joins a network.",
    formula="on a network: a unique password before, automatic updates after",
    source="common practice",
    reads=("connected", "reminders", "requirements", on_a_network),
)
def default_password(
    connected: Items,
    reminders: Sequence[Reminder],
    requirements: Sequence[Requirement],
    on_a_network: bool,
) -> Iterator[Observation]:
    """A note for what is reached over a network; silent where the purpose reminds of it in its own
    words, or a requirement of remote access does.
    """
    reminded = any(reminder.id == "password" for reminder in reminders)
    reminded |= any(requirement.condition == "remote_access" for requirement in requirements)
    if on_a_network and connected.of_role("board") and not reminded:
        yield Observation(
            "password",
            INFORMS,
            say(
                "Set a unique password before you connect the board to a network. Turn on "
                "automatic updates."
            ),
        )


@rule(
    "LIFE-06",
    "lifetime",
    "A copied image contains no secrets",
    why="Passwords and keys inside a shared image give access to every copy.",
    formula="several copies of a kit: passwords, keys and host names are set anew on each",
    source="common practice",
    reads=("copies", "image", "connected"),
)
def secrets(copies: int, image: Image | None, connected: Items) -> Iterator[Observation]:
    """A note where one image starts several."""
    if copies > 1 and image is not None and connected.of_role("board"):
        yield Observation(
            "image",
            INFORMS,
            say(
                "One image is used for {count} copies. Remove the Wi-Fi password and keys from "
                "it, and set them on each copy.",
                count=copies,
            ),
        )
