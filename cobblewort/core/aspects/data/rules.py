"""Rules of data: is it quick enough, and can the disks be used like that."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from cobblewort.core import words
from cobblewort.core.aspects.data.arrays import LAYOUTS, possible
from cobblewort.core.aspects.data.model import Moved, Situation, array_of
from cobblewort.core.aspects.data.model import of as data_of
from cobblewort.core.aspects.data.route import Link
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.paths import ways
from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another, place_with
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.states import ANY_TIME, LookedAt, State
from cobblewort.core.judging.working import Sum, Term, computed_term, plan_term
from cobblewort.core.plans.patch import EditLine, Patch, PinPlug, SetFields

_WASTED = 1.5
"""A network that is so much faster than its way is money for next to nothing: a guess."""
_UNEQUAL = 1.02


def other_socket(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """What is on the way moved into each free socket on another bus or of another generation."""
    fit = fit_of(kit)
    free = [
        ref for name, ref in fit.sockets.items()
        if ref.socket.role == "host" and fit.into(name) is None
    ]  # fmt: skip
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
    """A wire to the place, where it has radio alone."""
    del finding
    if kit.plan.place.network == "wifi":
        yield place_with(kit, network="both")


def _bottleneck_words(at: Moved, situation: Situation | None) -> str:
    """What holds a flow back, and who else passes there."""
    if at.bottleneck is None:
        return ""
    bottleneck = bottleneck_words(at.bottleneck)
    beside = []
    if situation is not None:
        beside = [
            m.route.transfer.text
            for m in situation.moved
            if m is not at and at.bottleneck.id in m.route.load
        ]
    shared = f", shared with “{beside[0]}”" if beside else ""
    return f" The neck is {bottleneck}{shared}."


def bottleneck_words(bottleneck: Link) -> str:
    """What a link is called in a sentence: `the USB 2 pair`, `writing to Plain 32`."""
    if bottleneck.kind in ("medium", "processor", "files"):
        return bottleneck.label
    head, _, tail = bottleneck.label.partition(", ")
    return f"the {words.within(head)} ({tail})" if tail else f"the {words.within(head)}"


def _sum_of(at: Moved, limit: Term, transfer_unit: str) -> Sum:
    """The spare of a rate or a time, from what the neck lets by."""
    bottleneck = "what its way lets by" if at.bottleneck is None else at.bottleneck.label
    rate = computed_term("B", f"{bottleneck}, beside what else runs", "MB/s",
                         nominal(at.could_mb_s), None)  # fmt: skip
    if transfer_unit == "min":
        amount = plan_term("A", "amount", "GB", float(at.route.transfer.amount_gb or 0))
        return Sum("time allowed less the amount over the rate",
                   f"{limit.symbol} - A * 1000 / B / 60", [limit, amount, rate])  # fmt: skip
    return Sum("rate less what is asked for", f"B - {limit.symbol}", [rate, limit])


def _states(values: list[Quantity], worst_case: bool, samples: int) -> tuple[Quantity, LookedAt]:
    """One planned state, and everything at once where it is another one."""
    if not worst_case:
        return values[0], ANY_TIME
    rows = np.array([np.broadcast_to(value, (samples,)) for value in values])
    return rows, _WITH_WORST_CASE


_WITH_WORST_CASE = LookedAt.of(
    [State("", "", True, True), State("all", "Everything at once", False, True)], [0, 1]
)


@rule(
    "DATA-01",
    "data",
    "It is moved as fast as it has to be",
    why="Copies take the night, a recorder drops what it cannot write, and a gigabit adapter on a "
    "slow bus is money for next to nothing.",
    formula="for each flow the least of what the links on its way let by, shared with all that run "
    "at the same time: rate >= rate asked for; amount / rate <= time allowed; stream <= rate",
    source="max-min fair shares (Bertsekas and Gallager, Data Networks, 6.5.2); usable rates from "
    "line codes and packet overhead of the standards, the rest class figures from memory",
    reads=(data_of, "transfers", "requirements", "storage_use", "settings", "place.network"),
    remedies=(
        other_socket,
        push_the_slot,
        lighter_array,
        another("board", "add_on", "storage", "boot_drive"),
        wired_instead,
    ),
)
def fast_enough(kit: Kit) -> Iterator[Check]:
    """A margin for each stream, deadline and rate that is asked for."""
    data = data_of(kit)
    worst_case = data.worst_case
    for route in data.routes:
        found = data.planned(route.transfer.id)
        if found is None:
            continue
        situation, at = found
        if route.transfer.rate_mb_s is not None:
            worst = None if worst_case is None else worst_case.of(route.transfer.id)
            yield _stream(kit, situation, at, worst)
        elif route.transfer.within_min is not None:
            yield _deadline(situation, at)
        elif route.transfer.least_mb_s is not None:
            yield _rate(
                route.transfer.id, route.transfer.text, route.transfer.least_mb_s, at, situation
            )  # fmt: skip
    for asked in data.asked:
        yield _rate(
            asked.requirement.id, asked.requirement.text, asked.least_mb_s, asked.moved, None
        )


def _stream(kit: Kit, situation: Situation, at: Moved, worst: Moved | None) -> Check:
    transfer = at.route.transfer
    wanted = float(transfer.rate_mb_s or 0)
    values = [at.could_mb_s] + ([] if worst is None else [worst.could_mb_s])
    value, states = _states(values, worst is not None, kit.samples)

    def sentence(margin: Margin) -> str:
        shown = worst if margin.state == "all" and worst is not None else at
        has, wants = words.apart(words.rate, margin.value, wanted)
        told = f"“{transfer.text}” wants {wants}; its way lets {has} by{margin.when}."
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

    def sentence(margin: Margin) -> str:
        takes, most = words.apart(words.minutes, margin.value, allowed)
        size = words.size(transfer.amount_gb or 0)
        told = f"“{transfer.text}”: {size} take {takes}; {most} are allowed."
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
        working=lambda _: _sum_of(at, plan_term("T", "time allowed", "min", allowed), "min"),
    )


def _rate(subject: str, text: str, least: float, at: Moved, situation: Situation | None) -> Check:
    def sentence(margin: Margin) -> str:
        gets, wants = words.apart(words.rate, margin.value, least)
        told = f"It moves {gets}; {wants} are asked for: {text}."
        return told + _bottleneck_words(at, situation)

    return Check(
        subject, f"Rate: {text}", "MB/s", "min", at.rate_mb_s, least, sentence, at.route.lines,
        working=lambda _: _sum_of(at, plan_term("R", "rate asked for", "MB/s", least), "MB/s"),
    )  # fmt: skip


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
    "DATA-02", "data", "Its disks can be used like that",
    why="A mirror of one disk is none, and single parity wants three.",
    formula="stripe and mirror from 2 disks, single parity from 3, double parity from 4, striped "
    "mirrors from 4 and an even number",
    source="common practice",
    reads=(array_of, "storage_use"),
    remedies=(another_disk,),
)  # fmt: skip
def disks_enough(kit: Kit) -> Iterator[Observation]:
    """A layout that the disks of the kit do not make."""
    array, layout = array_of(kit), kit.plan.storage_use.layout
    if array.possible:
        return
    facts, count = LAYOUTS[layout], len(array.items)
    wants = f"{facts.least} disks or more" + (", in pairs" if facts.even else "")
    has = "one" if count == 1 else str(count)
    yield Observation(
        "layout", "problem", f"For “{facts.label}” the kit needs {wants}; it has {has}.",
        tuple(dict.fromkeys(item.line.id for item in array.items)),
    )  # fmt: skip


def equal_disks(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Mirrors of what is alike."""
    del finding
    if possible("striped_mirrors", len(array_of(kit).items)):
        yield (SetFields(fields={"storage_use": {"layout": "striped_mirrors"}}),)


@rule(
    "DATA-03", "data", "Disks of an array are alike",
    why="The smallest counts for all, the slowest too.",
    formula="room of an array = what its smallest disk has, as often as it holds data",
    source="common practice",
    reads=(array_of, "storage_use"),
    remedies=(equal_disks,),
)  # fmt: skip
def unequal(kit: Kit) -> Iterator[Observation]:
    """A note on room that nobody can use."""
    array, layout = array_of(kit), kit.plan.storage_use.layout
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
            "sizes", "note",
            f"The disks of this array differ: {words.size(wasted)} of the larger ones stay unused.",
            tuple(dict.fromkeys(item.line.id for item in array.items)),
        )  # fmt: skip


@rule(
    "DATA-04", "data", "A fast adapter has a fast way",
    why="A gigabit adapter on a USB 2 socket is money for next to nothing.",
    formula=f"rate of an adapter's network <= {_WASTED:g} x what its way to the processor lets by",
    source="USB 2.0, 5.8.4 (from memory); what people get by class",
    reads=(data_of, ways, "transfers", "place.network"),
    remedies=(other_socket,),
)  # fmt: skip
def wasted_adapter(kit: Kit) -> Iterator[Observation]:
    """A note for a network adapter whose bus is slower than its wire."""
    told = set()
    for route in data_of(kit).routes:
        giver = route.network
        if giver is None or giver.part.kind == "board" or giver.id in told:
            continue
        wire = next((link for link in route.links if link.kind in ("wire", "wifi")), None)
        own = [
            link for link in route.links
            if link.id.removesuffix(":in").removesuffix(":out") in
            {step.id for step in ways(kit).get(giver.id, ())}
        ]  # fmt: skip
        if wire is None or not own:
            continue
        lets = min(own, key=lambda link: nominal(link.mb_s))
        if nominal(wire.mb_s) > _WASTED * nominal(lets.mb_s):
            told.add(giver.id)
            yield Observation(
                giver.line.id, "note",
                f"{giver.name} could move {words.rate(nominal(wire.mb_s))}; the "
                f"{words.within(lets.label.partition(', ')[0])} that it hangs on lets "
                f"{words.rate(nominal(lets.mb_s))} by.",
                (giver.line.id,),
            )  # fmt: skip


@rule(
    "DATA-05", "data", "What it moves is known",
    why="A rate that nobody states is found out after the purchase.",
    formula="every flow has a way whose rates are stated",
    source="common practice",
    reads=(data_of,),
)  # fmt: skip
def known(kit: Kit) -> Iterator[Observation]:
    """A note for each flow that cannot be judged for want of a figure; that a part is missing is
    said by the rules of purpose and of fit.
    """
    for route in data_of(kit).routes:
        if route.why_not.startswith("nobody states"):
            yield Observation(
                route.transfer.id, "note",
                f"Not known: how fast “{route.transfer.text}” goes, as {route.why_not}.",
            )  # fmt: skip


@rule(
    "DATA-06", "data", "The file system suits what it is for",
    why="A format that every computer reads knows no owners and keeps no journal: a pulled plug "
    "costs files.",
    formula="exchange format where the plug may be pulled or several people have their own files",
    source="common practice",
    reads=("storage_use", "requirements", array_of),
)  # fmt: skip
def file_system(kit: Kit) -> Iterator[Observation]:
    """A note where an exchange format meets pulled plugs or several people."""
    plan, disks = kit.plan, array_of(kit).items
    if plan.storage_use.file_system != "exchange" or not disks:
        return
    lines = tuple(dict.fromkeys(item.line.id for item in disks))
    if any(requirement.condition == "power_cut" for requirement in plan.requirements):
        yield Observation(
            "journal", "note",
            "An exchange format keeps no journal: where the plug may be pulled, files are lost.",
            lines,
        )  # fmt: skip
    if any(
        requirement.function == "users" and (requirement.at_least or 1) > 1
        for requirement in plan.requirements
    ):
        yield Observation(
            "owners", "note",
            "An exchange format knows no owners: everybody can read and change everything on it.",
            lines,
        )  # fmt: skip
