"""Rules of data: is it quick enough, and can the disks be used like that."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np

from cobblewort.core import words
from cobblewort.core.aspects.data.arrays import LAYOUTS, possible
from cobblewort.core.aspects.data.model import Array, DataResult, Moved, Situation, array_of
from cobblewort.core.aspects.data.model import of as data_of
from cobblewort.core.aspects.data.route import NO_BOARD, Link
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.paths import Step, ways
from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another, place_with
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import FAILS, INFORMS, SLOWS
from cobblewort.core.judging.states import ANY_TIME, LookedAt, State
from cobblewort.core.judging.working import Sum, Term, computed_term, plan_term
from cobblewort.core.plans.patch import EditLine, Patch, PinPlug, SetFields
from cobblewort.core.plans.plan import Requirement, Role, StorageUse
from cobblewort.core.text import EMPTY, Text, say

_WASTED = 1.5
"""A network that is so much faster than its way is money for next to nothing: a guess."""
_UNEQUAL = 1.02


def other_socket(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """What is on the way moved into each free socket on another bus or of another generation."""
    fit = fit_of(kit)
    free = [
        ref
        for name, ref in fit.sockets.items()
        if ref.socket.role == "host" and fit.into(name) is None
    ]
    for plug, now in fit.placed.values():
        if plug.item.line.id not in finding.lines or plug.plug.role != "device":
            continue
        tried = set()
        for ref in free:
            kind = (ref.socket.bus, ref.socket.generation)
            same = kind == (now.socket.bus, now.socket.generation)
            if ref.socket.connector != now.socket.connector or same or kind in tried:
                continue
            tried.add(kind)
            name = f"{plug.item.index}.{plug.name}"
            yield (PinPlug(line=plug.item.line.id, plug=name, socket=ref.id),)


def exchange_format(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A file system that every computer reads, where others read the disk."""
    if finding.id.endswith(":read"):
        yield (SetFields(fields={"storage_use": {"file_system": "exchange"}}),)


def push_the_slot(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A drive slot beyond its certified rate, which a soak has to earn."""
    del finding
    slots = (ref.socket for ref in fit_of(kit).sockets.values())
    faster = any(s.possible_generation > s.generation for s in slots)
    if faster and not kit.plan.settings.push_slot:
        yield (SetFields(fields={"settings": {"push_slot": True}}),)


def lighter_array(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """The same disks without parity, checksums or encryption, as far as they can be."""
    del finding
    storage_use, disks = kit.plan.storage_use, len(array_of(kit).items)
    if storage_use.layout in ("parity", "double_parity"):
        for layout in ("striped_mirrors", "mirror"):
            if possible(layout, disks):
                yield (SetFields(fields={"storage_use": {"layout": layout}}),)
    if storage_use.encrypted:
        yield (SetFields(fields={"storage_use": {"encrypted": False}}),)
    if storage_use.file_system == "checksummed":
        yield (SetFields(fields={"storage_use": {"file_system": "native"}}),)


def wired_instead(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Ethernet at the location, where it has Wi-Fi alone."""
    del finding
    if kit.plan.place.network == "wifi":
        yield place_with(kit, network="both")


def _bottleneck_words(at: Moved, situation: Situation | None) -> Text:
    """What holds a transfer back, and which other one shares it."""
    if at.bottleneck is None:
        return EMPTY
    bottleneck = bottleneck_words(at.bottleneck)
    beside = []
    if situation is not None:
        beside = [
            m.route.transfer.text
            for m in situation.moved
            if m is not at and at.bottleneck.id in m.route.load
        ]
    return say(
        " Bottleneck: {link}{shared}.",
        link=bottleneck,
        shared=f", shared with “{beside[0]}”" if beside else "",
    )


def bottleneck_words(bottleneck: Link) -> str:
    """What a link is called in a sentence: `the USB 2 pair`, `writing to Plain 32`."""
    if bottleneck.kind in ("medium", "processor", "files"):
        return bottleneck.label
    head, _, tail = bottleneck.label.partition(", ")
    name = head if bottleneck.kind == "ethernet" else f"the {words.within(head)}"
    return f"{name} ({tail})" if tail else name


def _sum_of(at: Moved, limit: Term, transfer_unit: str) -> Sum:
    """The spare of a rate or a time, from the rate of the bottleneck."""
    bottleneck = "rate of its data path" if at.bottleneck is None else at.bottleneck.label
    rate = computed_term(
        "B", f"{bottleneck}, beside other transfers", "MB/s", nominal(at.could_mb_s), None
    )
    if transfer_unit == "min":
        amount = plan_term("A", "amount", "GB", float(at.route.transfer.files_gb or 0))
        return Sum(
            "time allowed less amount divided by rate",
            f"{limit.symbol} - A * 1000 / B / 60",
            [limit, amount, rate],
        )
    return Sum("rate less the required rate", f"B - {limit.symbol}", [rate, limit])


def _states(values: list[Quantity], worst_case: bool, samples: int) -> tuple[Quantity, LookedAt]:
    """One planned state, and the worst case where it is another one."""
    if not worst_case:
        return values[0], ANY_TIME
    rows = np.array([np.broadcast_to(value, (samples,)) for value in values])
    return rows, _WITH_WORST_CASE


_WITH_WORST_CASE = LookedAt.of(
    [State("", "", True, True), State("all", "Worst case", False, True)], [0, 1]
)


_EASED_BY: tuple[Role, ...] = (
    "board",
    "add_on",
    "storage",
    "boot_drive",
    "power_supply",
    "cable",
    "cooling",
    "case",
)
"""Cooler and case ease what is said of data by the speed alone that heat leaves."""


@rule(
    "DATA-01",
    "data",
    "Every transfer is fast enough",
    why="A recorder drops what it cannot write in time, and a slow copy can take all night.",
    formula="for each transfer the lowest rate of the links on its data path, shared with all that "
    "run at the same time: rate >= required rate; amount / rate <= time allowed; stream <= rate",
    source="max-min fair shares (Bertsekas and Gallager, Data Networks, 6.5.2); usable rates from "
    "line codes and packet overhead of the standards, the rest typical values from memory",
    reads=(data_of, "samples"),
    remedies=(
        other_socket,
        push_the_slot,
        lighter_array,
        another("board", "add_on", "storage", "boot_drive"),
        wired_instead,
    ),
    eased_by=_EASED_BY,
)
def fast_enough(data: DataResult, samples: int) -> Iterator[Check]:
    """A margin for each stream, deadline and rate that is required."""
    worst_case = data.worst_case
    for route in data.routes:
        found = data.planned(route.transfer.id)
        if found is None:
            continue
        situation, at = found
        if route.transfer.rate_mb_s is not None:
            worst = None if worst_case is None else worst_case.of(route.transfer.id)
            yield _stream(samples, situation, at, worst)
        elif route.transfer.within_min is not None:
            yield _deadline(situation, at)
        elif route.transfer.least_mb_s is not None:
            yield _rate(
                route.transfer.id, route.transfer.text, route.transfer.least_mb_s, at, situation
            )
    for asked in data.asked:
        yield _rate(
            asked.requirement.id, asked.requirement.text, asked.least_mb_s, asked.moved, None
        )


def _stream(samples: int, situation: Situation, at: Moved, worst: Moved | None) -> Check:
    transfer = at.route.transfer
    wanted = float(transfer.rate_mb_s or 0)
    values = [at.could_mb_s] + ([] if worst is None else [worst.could_mb_s])
    value, states = _states(values, worst is not None, samples)

    def sentence(margin: Margin) -> Text:
        shown = worst if margin.state == "all" and worst is not None else at
        has, needs = words.apart(words.rate, margin.value, wanted)
        told = say(
            "The transfer “{transfer}” reaches {has}{when}; it needs {needs}.",
            transfer=transfer.text,
            has=has,
            when=margin.when,
            needs=needs,
        )
        return told + _bottleneck_words(shown, situation if shown is at else None)

    def working(state: int) -> Sum:
        told = at if state == 0 or worst is None else worst
        return _sum_of(told, plan_term("S", "stream", "MB/s", wanted), "MB/s")

    return Check(
        transfer.id,
        f"Stream: {transfer.text}",
        "MB/s",
        "min",
        value,
        wanted,
        sentence,
        at.route.lines,
        states,
        working=working,
    )


def _deadline(situation: Situation, at: Moved) -> Check:
    transfer, time = at.route.transfer, at.minutes
    allowed = float(transfer.within_min or 0)

    def sentence(margin: Margin) -> Text:
        takes, most = words.apart(words.minutes, margin.value, allowed)
        told = say(
            "The transfer “{transfer}” ({size}) takes {takes}; the time allowed is {most}.",
            transfer=transfer.text,
            size=words.size(transfer.files_gb or 0),
            takes=takes,
            most=most,
        )
        return told + _bottleneck_words(at, situation)

    return Check(
        transfer.id,
        f"Time: {transfer.text}",
        "min",
        "max",
        0.0 if time is None else time,
        allowed,
        sentence,
        at.route.lines,
        consequence=SLOWS,
        working=lambda _: _sum_of(at, plan_term("T", "time allowed", "min", allowed), "min"),
    )


def _rate(subject: str, text: str, least: float, at: Moved, situation: Situation | None) -> Check:
    def sentence(margin: Margin) -> Text:
        gets, needs = words.apart(words.rate, margin.value, least)
        told = say(
            "The transfer reaches {gets}; the requirement “{text}” is {needs}.",
            gets=gets,
            needs=needs,
            text=text,
        )
        return told + _bottleneck_words(at, situation)

    return Check(
        subject,
        f"Rate: {text}",
        "MB/s",
        "min",
        at.each_mb_s,
        least,
        sentence,
        at.route.lines,
        consequence=SLOWS,
        working=lambda _: _sum_of(at, plan_term("R", "required rate", "MB/s", least), "MB/s"),
    )


def another_disk(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """As many disks as the layout wants, or another layout."""
    del finding
    array = array_of(kit)
    facts = LAYOUTS[kit.plan.storage_use.layout]
    missing = max(facts.least - len(array.items), 1)
    for item in array.items[:1]:
        yield (EditLine(line=item.line.id, quantity=item.line.quantity + missing),)
    for layout in LAYOUTS:
        if layout != kit.plan.storage_use.layout and possible(layout, len(array.items)):
            yield (SetFields(fields={"storage_use": {"layout": layout}}),)


@rule(
    "DATA-02",
    "data",
    "The array has enough disks",
    why="Each array layout needs a minimum number of disks.",
    formula="stripe and mirror from 2 disks, single parity from 3, double parity from 4, striped "
    "mirrors from 4 and an even number",
    source="common practice",
    reads=(array_of, "storage_use"),
    remedies=(another_disk,),
    eased_by=_EASED_BY,
)
def disks_enough(array: Array, storage_use: StorageUse) -> Iterator[Observation]:
    """A layout for which the disks of the kit do not suffice."""
    layout = storage_use.layout
    if array.possible:
        return
    facts, count = LAYOUTS[layout], len(array.items)
    wants = f"at least {facts.least} disks" + (", in pairs" if facts.even else "")
    has = "one" if count == 1 else str(count)
    yield Observation(
        "layout",
        FAILS,
        say(
            "The array layout “{layout}” needs {needs}; the kit has {has}.",
            layout=facts.label,
            needs=wants,
            has=has,
        ),
        tuple(dict.fromkeys(item.line.id for item in array.items)),
    )


def equal_disks(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Mirrors of what is alike."""
    del finding
    if possible("striped_mirrors", len(array_of(kit).items)):
        yield (SetFields(fields={"storage_use": {"layout": "striped_mirrors"}}),)


@rule(
    "DATA-03",
    "data",
    "The disks of an array are alike",
    why="An array uses only as much of each disk as its smallest disk has.",
    formula="capacity of an array = capacity of its smallest disk x number of data disks",
    source="common practice",
    reads=(array_of, "storage_use"),
    remedies=(equal_disks,),
    eased_by=_EASED_BY,
)
def unequal(array: Array, storage_use: StorageUse) -> Iterator[Observation]:
    """A note on capacity that cannot be used."""
    layout = storage_use.layout
    if layout == "separate" or not array.possible or len(array.items) < 2:
        return
    sizes = [p.part.storage.capacity_gb for p in array.items if p.part.storage is not None]
    if max(sizes) <= _UNEQUAL * min(sizes):
        return
    wasted = sum(sizes) - min(sizes) * len(sizes)
    if layout == "striped_mirrors":
        ordered = sorted(sizes)
        wasted = sum(b - a for a, b in zip(ordered[::2], ordered[1::2], strict=True))
    if wasted > 0:
        yield Observation(
            "sizes",
            INFORMS,
            say(
                "The disks of this array differ in size: {unused} stay unused.",
                unused=words.size(wasted),
            ),
            tuple(dict.fromkeys(item.line.id for item in array.items)),
        )


@rule(
    "DATA-04",
    "data",
    "A network adapter is on a port that is fast enough",
    why="A gigabit adapter on a USB 2 port is limited to a fraction of its rate.",
    formula=f"rate of the adapter's network <= {_WASTED:g} x rate of its port",
    source="USB 2.0, 5.8.4 (from memory); what people get by class",
    reads=(data_of, ways),
    remedies=(other_socket,),
    eased_by=_EASED_BY,
)
def wasted_adapter(data: DataResult, paths: dict[str, tuple[Step, ...]]) -> Iterator[Observation]:
    """A note for a network adapter whose bus is slower than its network."""
    told = set()
    for route in data.routes:
        giver = route.network
        if giver is None or giver.part.kind == "board" or giver.id in told:
            continue
        wire = next((link for link in route.links if link.kind in ("ethernet", "wifi")), None)
        own = [
            link
            for link in route.links
            if link.id.removesuffix(":in").removesuffix(":out")
            in {step.id for step in paths.get(giver.id, ())}
        ]
        if wire is None or not own:
            continue
        lets = min(own, key=lambda link: nominal(link.mb_s))
        if nominal(wire.mb_s) > _WASTED * nominal(lets.mb_s):
            told.add(giver.id)
            yield Observation(
                giver.line.id,
                INFORMS,
                say(
                    "{adapter} can reach {could}; the {bus} limits it to {lets}.",
                    adapter=giver.name,
                    could=words.rate(nominal(wire.mb_s)),
                    bus=words.within(lets.label.partition(", ")[0]),
                    lets=words.rate(nominal(lets.mb_s)),
                ),
                (giver.line.id,),
            )


@rule(
    "DATA-05",
    "data",
    "Every transfer has a data path",
    why="A transfer without a path moves nothing; one without a known rate cannot be checked.",
    formula="every transfer has a source, a target with enough capacity, and links with stated "
    "rates between them",
    source="common practice",
    reads=(data_of, "requirements"),
    remedies=(wired_instead, another("board", "storage", "boot_drive", "add_on")),
    eased_by=_EASED_BY,
)
def known(data: DataResult, requirements: Sequence[Requirement]) -> Iterator[Observation]:
    """A transfer that cannot be, and a note for one that cannot be checked for want of a value.

    What a requirement asks for and no part gives is said by the rules of purpose.
    """
    asked = {requirement.function for requirement in requirements}
    for route in data.routes:
        if route.unstated:
            yield Observation(
                route.transfer.id,
                INFORMS,
                say(
                    "Not checked: the rate of the transfer “{transfer}”. {why}.",
                    transfer=route.transfer.text,
                    why=words.opening(route.why_not),
                ),
            )
        elif route.why_not and route.why_not != NO_BOARD and not (asked & route.missing):
            yield Observation(
                route.transfer.id,
                FAILS,
                say(
                    "The transfer “{transfer}” has no path: {why}.",
                    transfer=route.transfer.text,
                    why=route.why_not,
                ),
            )


@rule(
    "DATA-06",
    "data",
    "The file system suits the use",
    why="An exchange format has no journal and no file ownership: a power cut can lose files. The "
    "system's own file systems are not read by every computer.",
    formula="exchange format where power cuts are expected or several people have their own files; "
    "another one where other computers read the disk",
    source="common practice",
    reads=("storage_use", "requirements", array_of),
    remedies=(exchange_format,),
    eased_by=_EASED_BY,
)
def file_system(
    storage_use: StorageUse, requirements: Sequence[Requirement], array: Array
) -> Iterator[Observation]:
    """A note where an exchange format meets power cuts or several people, and where another format
    meets other computers.
    """
    disks = array.items
    if not disks:
        return
    lines = tuple(dict.fromkeys(item.line.id for item in disks))
    if storage_use.file_system != "exchange":
        if storage_use.read_elsewhere:
            yield Observation(
                "read",
                INFORMS,
                say(
                    "Other computers need a driver to read {disk}. Use an exchange format or "
                    "install the driver.",
                    disk=disks[0].the,
                ),
                lines,
            )
        return
    if any(requirement.condition == "power_cut" for requirement in requirements):
        yield Observation(
            "journal",
            INFORMS,
            say("An exchange format has no journal: a power cut can lose files."),
            lines,
        )
    if any(
        requirement.function == "users" and (requirement.at_least or 1) > 1
        for requirement in requirements
    ):
        yield Observation(
            "owners",
            INFORMS,
            say("An exchange format has no file ownership: every user can change every file."),
            lines,
        )
