"""Rules of life: how long it lasts, what is kept, and who else gets in."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from cobblewort.core import words
from cobblewort.core.aspects.data.model import array_of
from cobblewort.core.aspects.lifetime.maintenance import on_a_network
from cobblewort.core.aspects.lifetime.retention import backup_of, filling_of
from cobblewort.core.aspects.lifetime.wear import OLDEST_Y, Wearing, hours_on, worn_of, written_of
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.working import (
    Sum,
    SumFunction,
    computed_term,
    plain_term,
    plan_term,
    reading_term,
)
from cobblewort.core.plans.patch import Patch, SetFields

_LIKELY = 0.0
"""What is written and how it grows inside is known within a factor of ten: a medium is
judged by what is typical, and its band is shown."""
_SOON_DAYS = 31.0
"""What is full sooner has to be seen to before anybody thinks of it: a guess."""


def logs_in_memory(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Logs kept in memory, where the system writes to what wears out."""
    boots = {line.id for line in kit.plan.lines if line.role == "boot_drive"}
    if boots & set(finding.lines) and not kit.plan.settings.logs_in_memory:
        yield (SetFields(fields={"settings": {"logs_in_memory": True}}),)


@rule(
    "LIFE-01", "lifetime", "Card and drives are not written out too soon",
    why="Cards die of small writes: a hub writes its 32 GB card out in a year or two.",
    formula="what may be written / (written a day x amplification x 365.25) >= years wanted",
    source="common practice; rated endurance by the makers, amplification from memory",
    reads=(written_of, "retention"),
    remedies=(logs_in_memory, another("boot_drive", "storage")),
)  # fmt: skip
def written_out(kit: Kit) -> Iterator[Check]:
    """Years of each medium against those that are wanted."""
    wanted = kit.plan.retention.years
    for thing in written_of(kit):
        yield Check(
            thing.item.id, f"Life of {thing.label}", "years", "min", thing.years, wanted,
            _written_sentence(kit, thing), (thing.item.line.id,), span=wanted, breach="tight",
            working=_written_sum(thing, wanted), likely_share=_LIKELY,
        )  # fmt: skip


def _written_sentence(kit: Kit, thing: Wearing) -> Callable[[Margin], str]:
    most = max(thing.written, key=lambda entry: nominal(entry.inside_gb_day))

    def sentence(margin: Margin) -> str:
        has, wants = words.apart(words.years, margin.value, kit.plan.retention.years)
        inside = sum(nominal(entry.inside_gb_day) for entry in thing.written)
        return (
            f"{thing.item.name} is written out after {has}; {wants} are wanted. It takes "
            f"{words.daily(inside)} inside, most of it by {most.by}."
        )

    return sentence


def _written_sum(thing: Wearing, wanted: float) -> SumFunction:
    def working(state: int) -> Sum:
        del state
        endurance = 0.0 if thing.endurance_tb is None else nominal(thing.endurance_tb)
        inputs = [
            computed_term("E", f"what may be written to {thing.item.name}", "TB", endurance, None)
        ]
        terms = []
        for number, entry in enumerate(thing.written, 1):
            inputs.append(
                computed_term(f"W_{number}", f"written a day: {entry.by}", "GB",
                              nominal(entry.gb_day), None)
            )  # fmt: skip
            grows = nominal(entry.inside_gb_day) / nominal(entry.gb_day)
            inputs.append(computed_term(f"F_{number}", "written inside for each", "", grows, None))
            terms.append(f"W_{number} * F_{number}")
        inputs.append(plan_term("Y", "years wanted", "years", wanted))
        return Sum(
            "what may be written over what is written in a year, less the years wanted",
            f"min({words.LONGEST_Y:g}, E * 1000 / (({' + '.join(terms)}) * 365.25)) - Y", inputs,
        )  # fmt: skip

    return working


@rule(
    "LIFE-02", "lifetime", "What turns and ages lasts",
    why="A fan, the capacitors of a supply and every cell have a life of their own; a spare bought "
    "with the kit costs less than the day it is missed.",
    formula="life at its rated warmth x 2^((rated - actual) / step), over the hours of a day",
    source="rules of thumb: bearings half as long per 10 to 15 K, capacitors per 10 K; from memory",
    reads=(worn_of, "retention"),
)  # fmt: skip
def worn(kit: Kit) -> Iterator[Check]:
    """Years of fans, capacitors and cells; a note where they fall short."""
    wanted = kit.plan.retention.years
    for thing in worn_of(kit):
        yield Check(
            thing.id, f"Life of {thing.label}", "years", "min", thing.years, wanted,
            _worn_sentence(thing, wanted), (thing.item.line.id,), span=wanted, breach="note",
            working=_worn_sum(kit, thing, wanted),
        )  # fmt: skip


def _worn_sentence(thing: Wearing, wanted: float) -> Callable[[Margin], str]:
    def sentence(margin: Margin) -> str:
        has, wants = words.apart(words.years, margin.value, wanted)
        return (
            f"{thing.label}: {has} {thing.how} by rule of thumb; {wants} are wanted. Have a spare."
        )

    return sentence


def _worn_sum(kit: Kit, thing: Wearing, wanted: float) -> SumFunction:
    def working(state: int) -> Sum:
        del state
        own, item = thing.of, thing.item
        if own is None:
            raise ValueError(f"{thing.id} does not say how it wears")
        name = thing.id.removeprefix(f"{item.id}.")
        inputs, factor = [plan_term("Y", "years wanted", "years", wanted)], ""
        if own.halves_k is not None and thing.temp_c is not None:
            path = f"wears.{name}.halves_k"
            inputs += [
                reading_term("h", "half as long for each", "K", item, path, own.halves_k),
                plain_term("T_0", "rated at", "°C", item, own.at_c),
                computed_term("T", "its warmth on a middling day", "°C", thing.temp_c, None),
            ]
            factor = " * 2 ** max(0 - 20, min(20, (T_0 - T) / h))"
        if own.life_h is not None:
            path = f"wears.{name}.life_h"
            inputs += [
                reading_term("L", "hours that it lasts", "h", item, path, own.life_h),
                plan_term("H", "hours a day", "h", hours_on(kit.plan)),
            ]
            lifetime = f"L{factor} / (max(H, 0.01) * 365.25)"
        elif own.life_y is not None:
            path = f"wears.{name}.life_y"
            inputs.append(reading_term("L", "years that it lasts", "years", item, path, own.life_y))
            factor = factor.replace(" * 2", " * min(4, 2", 1) + ")" if factor else ""
            lifetime = f"L{factor}"
        return Sum(
            "its life by its warmth, less the years wanted",
            f"min({OLDEST_Y:g}, {lifetime}) - Y",
            inputs,
        )

    return working


@rule(
    "LIFE-03", "lifetime", "What it keeps has room",
    why="A recorder that is full stops, or throws the oldest away: better to know when.",
    formula="room / what stays a day = days until it is full",
    source="common practice",
    reads=(filling_of, "storage_use", "retention"),
)  # fmt: skip
def fills(kit: Kit) -> Iterator[Observation]:
    """A note on what is full within a month and then stops."""
    filling = filling_of(kit)
    if (
        filling.days is None
        or filling.days >= _SOON_DAYS
        or kit.plan.storage_use.when_full != "stops"
    ):
        return
    yield Observation(
        "full", "note",
        f"It is full {_after(filling.days)} and then stops: fetch its files before, or let the "
        "oldest go.",
    )  # fmt: skip


def _after(days: float) -> str:
    return "within a day" if days < 1 else f"after {words.count(round(days), 'day')}"


@rule(
    "LIFE-04", "lifetime", "What cannot be had again is somewhere else too",
    why="A disk fails, a house burns, somebody deletes the wrong folder; an array stands in the "
    "same fire and deletes along.",
    formula="three copies, on two kinds of media, one of them elsewhere",
    source="common practice",
    reads=(backup_of, array_of, "retention", "storage_use"),
)  # fmt: skip
def copies(kit: Kit) -> Iterator[Observation]:
    """A note on what three, two and one are missing, for data that cannot be fetched again."""
    backup = backup_of(kit)
    if kit.plan.retention.replaceable or backup.copies == 0 or backup.complete:
        return
    array = array_of(kit)
    lines = tuple(dict.fromkeys(item.line.id for item in array.items))
    layout = kit.plan.storage_use.layout
    as_one = layout not in ("separate", "stripe") and array.may_fail > 0
    opening = "An array is no back-up. " if as_one and backup.copies == 1 else ""
    if backup.copies == 1:
        text = f"{opening}Its data are in one place: theft, fire or a wrong command takes them all."
    elif backup.away == 0:
        text = f"{_copies(backup.copies)}, none elsewhere: a fire or a thief takes all of them."
    elif backup.copies < 3:
        text = f"{_copies(backup.copies)}: while one is being mended, the other is the only one."
    else:
        text = f"{_copies(backup.copies)} on one kind of medium: a fault of that kind hits all."
    yield Observation("copies", "note", text, lines)


def _copies(count: int) -> str:
    return "Two copies" if count == 2 else f"{count} copies"


@rule(
    "LIFE-05", "lifetime", "Nobody else walks in",
    why="A default password is tried within minutes of going onto a network.",
    formula="on a network: a password of its own before, updates after",
    source="common practice",
    reads=("connected", "requirements", "transfers", "place.network", "reminders"),
)  # fmt: skip
def default_password(kit: Kit) -> Iterator[Observation]:
    """A note for what is reached over a network; silent where the purpose reminds of it in its own
    words.
    """
    reminded = any(reminder.id == "password" for reminder in kit.plan.reminders)
    if on_a_network(kit) and kit.connected.of_role("board") and not reminded:
        yield Observation(
            "password", "note",
            "Set a password of its own before it goes onto a network, and let it update itself.",
        )  # fmt: skip


@rule(
    "LIFE-06", "lifetime", "An image that is copied carries no secrets",
    why="An image shared with the Wi-Fi password and the keys inside opens every copy to whoever "
    "has one.",
    formula="several copies of a kit: passwords, keys and host names are set afresh on each",
    source="common practice",
    reads=("copies", "image", "connected"),
)  # fmt: skip
def secrets(kit: Kit) -> Iterator[Observation]:
    """A note where one image starts several."""
    if kit.plan.copies > 1 and kit.plan.image is not None and kit.connected.of_role("board"):
        yield Observation(
            "image", "note",
            f"One image starts {kit.plan.copies} of them: take Wi-Fi password and keys out first, "
            "and set them afresh on each.",
        )  # fmt: skip
