"""Holds each need of a plan against what the kit gives."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Literal

from cobblewort.core import words
from cobblewort.core.aspects.data.model import RATED, Array, DataResult, array_of
from cobblewort.core.aspects.data.model import of as data_of
from cobblewort.core.aspects.fit.assign import Assignment, PlugRef
from cobblewort.core.aspects.fit.mass import counts, kit_mass_g
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.noise.model import NoiseResult, turns
from cobblewort.core.aspects.noise.model import of as noise_of
from cobblewort.core.aspects.power.daily_energy import battery_hours
from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.judging.severity import KEPT_SOUND, KEPT_STOPS
from cobblewort.core.parts.functions import FUNCTIONS, FunctionId
from cobblewort.core.parts.model import Offer, Part
from cobblewort.core.plans.plan import (
    NOT_OF_IT,
    Image,
    NetworkOfPlace,
    Phase,
    Requirement,
    Settings,
)
from cobblewort.core.text import EMPTY, Figure, Text, say

RequirementStatus = Literal["met", "met_if", "not_met", "not_checked"]
Reason = Literal[
    "",
    "missing",
    "unplugged",
    "too_little",
    "rate",
    "inlet",
    "shell",
    "place",
    "condition",
    "limit",
    "processor",
]
"""Why a requirement is not met, so that each reason can have a rule and fixes of its own; a rate
that is too low is told by the rules of data."""

USER_GB = 0.25
"""Memory that one more person at once takes of a server program: typical, from memory."""
MIDDLE_CORES, MIDDLE_PARITY_MB_S = 4, 2600.0
"""Of a mid-range board, beside which processors are told: typical, from memory. How fast one core
works through parity stands for how fast it is."""
DEAF_DB = 10.0
"""A shell that takes more leaves a radio inside a third of its reach or less: 6 dB halve it
(typical, from memory)."""


@dataclass(slots=True)
class RequirementResult:
    """A requirement and how the kit stands to it.

    `lines` are those that meet it, or that spoil it. `have` and `want` are amounts in `unit`, None
    where nothing is counted.
    """

    requirement: Requirement
    status: RequirementStatus
    reason: Reason
    sentence: Text
    lines: tuple[str, ...] = ()
    unit: str = ""
    have: float | None = None
    want: float | None = None


@dataclass(slots=True, frozen=True)
class _Giver:
    """A piece that offers a function."""

    item: Item
    offer: Offer


@dataclass(slots=True, frozen=True)
class _Facts:
    """What needs are held against."""

    schedule: Sequence[Phase]
    image: Image | None
    settings: Settings
    network: NetworkOfPlace
    items: Sequence[Item]
    fit: Assignment
    power: PowerResult
    noise: NoiseResult
    data: DataResult
    array: Array

    def givers(self, function: FunctionId) -> list[_Giver]:
        found = []
        for item in self.items:
            offer = item.part.offers.get(function)
            if offer is not None and item.line.role not in NOT_OF_IT:
                found.append(_Giver(item, offer))
        return found


def _result(requirement: Requirement, facts: _Facts) -> RequirementResult:
    if requirement.condition is not None:
        return _CONDITIONS[requirement.condition](requirement, facts)
    if requirement.limit is not None:
        return _limit(requirement, facts)
    return _FUNCTIONS.get(requirement.function or "", _function)(requirement, facts)


def _met(requirement: Requirement, lines: tuple[str, ...]) -> RequirementResult:
    return RequirementResult(requirement, "met", "", EMPTY, lines)


def _function(requirement: Requirement, facts: _Facts) -> RequirementResult:
    """Offered often enough, by pieces that nothing spoils, with the amount that is wanted."""
    if requirement.function is None:
        raise ValueError(f"requirement {requirement.id} is not about a function")
    function = FUNCTIONS[requirement.function]
    givers = facts.givers(requirement.function)
    if not givers:
        sentence = say(
            "No part provides {function}{asked}.",
            function=function.label,
            asked=_asked(requirement) if requirement.text != function.label else "",
        )
        return RequirementResult(
            requirement, "not_met", "missing", sentence, want=float(requirement.count)
        )
    spoilt = [_spoilt(requirement.function, giver, facts) for giver in givers]
    kept = [giver for giver, why in zip(givers, spoilt, strict=True) if why is None]
    told = spoilt[0]
    if not kept and told is not None:
        reason, sentence, line = told
        return RequirementResult(
            requirement, "not_met", reason, sentence, (givers[0].item.line.id, line)
        )
    lines = tuple(dict.fromkeys(giver.item.line.id for giver in kept))
    count = sum(giver.offer.count for giver in kept)
    if count < requirement.count:
        sentence = say(
            "The kit provides {function} {count} times; {wanted} are required{asked}.",
            function=function.label,
            count=count,
            wanted=requirement.count,
            asked=_asked(requirement),
        )
        return RequirementResult(
            requirement,
            "not_met",
            "missing",
            sentence,
            lines,
            "",
            float(count),
            float(requirement.count),
        )
    if requirement.at_least is not None:
        return _amount(requirement, function.unit, function.added, kept, lines, facts.data)
    to_build = [g.item.name for g in kept if g.offer.driver == "build"]
    in_image = sum(g.offer.count for g in kept if g.offer.driver == "image")
    if to_build and in_image < requirement.count:
        sentence = say(
            "{part} provides {function} once its driver is built; the standard image has none.",
            part=to_build[0],
            function=function.label,
        )
        return RequirementResult(requirement, "met_if", "condition", sentence, lines)
    return _met(requirement, lines)


def _spoilt(function: FunctionId, giver: _Giver, facts: _Facts) -> tuple[Reason, Text, str] | None:
    """Why an item cannot give what it offers, with the line that is in the way."""
    item, inlet = giver.item, giver.offer.on_power_input
    if any(one.plug.item is item and one.plug.plug.required for one in facts.fit.unplaced):
        # FIT-02 tells of it; here it only counts as not there.
        return "unplugged", say("{part} is plugged in nowhere.", part=item.name), item.line.id
    if inlet is not None:
        plug = facts.fit.into(f"{item.id}.{inlet}")
        if plug is not None and not _carries_data(plug, facts.fit):
            sentence = say(
                "The only USB device port of {board} is its power input; {supply} uses it.",
                board=item.name,
                supply=plug.item.the,
            )
            return "inlet", sentence, plug.item.line.id
    if function == "vehicle_power":
        feeds = {node.parent for node in facts.power.nodes}
        roots = [n for n, node in enumerate(facts.power.nodes) if node.item is item]
        if not feeds & set(roots):
            sentence = say("{supply} powers nothing.", supply=words.opening(item.the))
            return "missing", sentence, item.line.id
    if function == "ethernet" and facts.network in ("wifi", "none"):
        sentence = say("The location has no Ethernet for {board}.", board=item.name)
        return "place", sentence, item.line.id
    if function in ("wifi", "access_point", "mesh_radio") and item.part.inside:
        case = next((i for i in facts.items if i.part.case is not None), None)
        shell = None if case is None else case.part.case
        if case is not None and shell is not None and shell.radio_db.nominal > DEAF_DB:
            loss_db = shell.radio_db.nominal
            sentence = say(
                "{case} weakens {radio} by {loss}: the range falls to about {share}.",
                case=words.opening(case.the),
                radio=FUNCTIONS[function].label,
                loss=Figure(loss_db, "dB"),
                share=words.percent(10 ** (-loss_db / 20)),
            )
            return "shell", sentence, case.line.id
    return None


def _carries_data(plug: PlugRef, fit: Assignment) -> bool:
    """Whether what is plugged into an inlet that is a device port too joins it to another machine:
    a splitter, or a lead with data wires that such a machine feeds.
    """
    item = plug.item
    if item.part.splits_device_port:
        return True
    if item.part.cable is None or not item.part.cable.data:
        return False
    return any(
        other.item is item and socket.item.part.kind == "machine"
        for other, socket in fit.placed.values()
    )


def _moved(
    requirement: Requirement, givers: list[_Giver], lines: tuple[str, ...], data: DataResult
) -> RequirementResult:
    """A rate over a network, as the whole way lets it by; nobody misses the last tenth."""
    want = float(requirement.at_least or 0)
    asked = next((asked for asked in data.asked if asked.requirement.id == requirement.id), None)
    if asked is None:
        sentence = say(
            "Not checked: the rate{asked}. {part} has no value.",
            asked=_asked(requirement),
            part=givers[0].item.name,
        )
        return RequirementResult(
            requirement, "not_checked", "too_little", sentence, lines, "MB/s", None, want
        )
    have = nominal(asked.moved.each_mb_s)
    if have >= KEPT_SOUND * want:
        return RequirementResult(requirement, "met", "", EMPTY, lines, "MB/s", have, want)
    shown, needs = words.apart(words.rate, have, want)
    sentence = say(
        "The data path reaches {shown}; {needs} are required{asked}.",
        shown=shown,
        needs=needs,
        asked=_asked(requirement),
    )
    return RequirementResult(requirement, "not_met", "rate", sentence, lines, "MB/s", have, want)


def _amount(
    requirement: Requirement,
    unit: str,
    added: bool,
    givers: list[_Giver],
    lines: tuple[str, ...],
    data: DataResult,
) -> RequirementResult:
    """The amounts of all givers together, or the best of them; rates as their data path allows."""
    if requirement.function in RATED:
        return _moved(requirement, givers, lines, data)
    known = [g.offer.amount for g in givers if g.offer.amount is not None]
    want = float(requirement.at_least or 0)
    if not known:
        sentence = say(
            "Not checked: the amount{asked}. {part} has no value.",
            asked=_asked(requirement),
            part=givers[0].item.name,
        )
        return RequirementResult(
            requirement, "not_checked", "too_little", sentence, lines, unit, None, want
        )
    return _measured(requirement, sum(known) if added else max(known), want, unit, lines)


def _measured(
    requirement: Requirement, have: float, want: float, unit: str, lines: tuple[str, ...]
) -> RequirementResult:
    if have >= want:
        return RequirementResult(requirement, "met", "", EMPTY, lines, unit, have, want)
    sentence = say(
        "The kit provides {have}; {want} are required{asked}.",
        have=words.counted(have, unit),
        want=words.counted(want, unit),
        asked=_asked(requirement),
    )
    return RequirementResult(
        requirement, "not_met", "too_little", sentence, lines, unit, have, want
    )


def _usb_sockets(requirement: Requirement, facts: _Facts) -> RequirementResult:
    """USB-A sockets that nothing takes."""
    taken = {socket.id for _, socket in facts.fit.placed.values()}
    free = [
        ref
        for name, ref in facts.fit.sockets.items()
        if ref.socket.connector == "usb-a" and ref.socket.role == "host" and name not in taken
    ]
    lines = tuple(dict.fromkeys(ref.item.line.id for ref in free))
    if len(free) >= requirement.count:
        return _met(requirement, lines)
    sentence = say(
        "{free} of {wanted} USB ports are free{asked}.",
        free=len(free),
        wanted=requirement.count,
        asked=_asked(requirement),
    )
    return RequirementResult(
        requirement,
        "not_met",
        "missing",
        sentence,
        lines,
        "",
        float(len(free)),
        float(requirement.count),
    )


def _storage(requirement: Requirement, facts: _Facts) -> RequirementResult:
    """Room for data, in GB."""
    room, lines = _capacity_gb(facts)
    return _measured(requirement, room, float(requirement.at_least or 1), "GB", lines)


def recorded_hours(schedule: Sequence[Phase]) -> float:
    """Hours of a day in which it records: those with work in them, all of them where none has."""
    working = [p.hours for p in schedule if p.activity not in ("off", "idle")]
    return sum(working or [phase.hours for phase in schedule])


def required_capacity_gb(requirement: Requirement, schedule: Sequence[Phase]) -> float:
    """The room that a need asks for, stated or as days of recording. [GB]"""
    if requirement.function == "recording":
        return (
            (requirement.at_least or 0)
            * recorded_hours(schedule)
            * (requirement.rate_mb_h or 0)
            / 1000
        )
    return float(requirement.at_least or 0) if requirement.function == "storage" else 0.0


def _recording(requirement: Requirement, facts: _Facts) -> RequirementResult:
    """Days until the room is full, at the rate and the hours of a day."""
    room, lines = _capacity_gb(facts)
    rate_mb_h, want = float(requirement.rate_mb_h or 0), float(requirement.at_least or 0)
    hours = recorded_hours(facts.schedule)
    days = round(room * 1000 / (rate_mb_h * hours), 1) if hours else 0.0
    result = _measured(requirement, days, want, "days", lines)
    if result.sentence:
        result.sentence = say(
            "The free space of {room} holds {days} days of {want} at {rate} and {hours}{asked}.",
            room=words.counted(room, "GB"),
            days=words.counted(days, ""),
            want=words.counted(want, ""),
            rate=words.counted(rate_mb_h, "MB per hour"),
            hours=words.counted(hours, "hours per day"),
            asked=_asked(requirement),
        )
    return result


def _capacity_gb(facts: _Facts) -> tuple[float, tuple[str, ...]]:
    """Room on the data drives as they are used together, and their lines; the boot medium counts
    where there are none. [GB]
    """
    disks = facts.array.items
    if disks:
        return facts.array.usable_gb, tuple(dict.fromkeys(item.line.id for item in disks))
    media = [i for i in facts.items if i.line.role == "boot_drive" and i.part.storage is not None]
    lines = tuple(dict.fromkeys(i.line.id for i in media))
    room = sum(i.part.storage.capacity_gb for i in media if i.part.storage is not None)
    if media and facts.image is not None:
        room = max(0.0, room - facts.image.card_gb)
    return room, lines


def wanted_memory_gb(requirement: Requirement, image: Image | None) -> float:
    """The memory that a need asks for, stated or as people at once beside the image. [GB]"""
    if requirement.function == "users":
        image_gb = 0.0 if image is None else image.memory_gb
        return image_gb + USER_GB * (requirement.at_least or 0)
    return float(requirement.at_least or 0) if requirement.function == "memory" else 0.0


def _users(requirement: Requirement, facts: _Facts) -> RequirementResult:
    """People whom the memory beside the image serves at once; what is swapped out serves nobody."""
    givers = facts.givers("memory")
    amounts = [giver.offer.amount for giver in givers if giver.offer.amount is not None]
    lines = tuple(dict.fromkeys(giver.item.line.id for giver in givers))
    want = float(requirement.at_least or 1)
    if not amounts:
        sentence = say(
            "Not checked: memory{asked}. The board has no value.", asked=_asked(requirement)
        )
        return RequirementResult(
            requirement, "not_checked", "too_little", sentence, lines, "users", None, want
        )
    image_gb = 0.0 if facts.image is None else facts.image.memory_gb
    have = max(0.0, float((max(amounts) - image_gb) // USER_GB))
    return _measured(requirement, have, want, "users", lines)


def _desktop(requirement: Requirement, facts: _Facts) -> RequirementResult:
    image = facts.image
    if image is None:
        sentence = say(
            "Not checked: desktop{asked}. The plan has no image.", asked=_asked(requirement)
        )
        return RequirementResult(requirement, "not_checked", "condition", sentence)
    if image.desktop:
        return _met(requirement, ())
    sentence = say("{image} has no desktop{asked}.", image=image.name, asked=_asked(requirement))
    return RequirementResult(requirement, "not_met", "condition", sentence)


def _survives_disk(requirement: Requirement, facts: _Facts) -> RequirementResult:
    """Whether any disk may fail and all is still there."""
    array = facts.array
    lines = tuple(dict.fromkeys(item.line.id for item in array.items))
    if array.may_fail > 0:
        return _met(requirement, lines)
    if not array.items:
        sentence = say("The kit has no storage drives{asked}.", asked=_asked(requirement))
    else:
        what = "its only drive" if len(array.items) == 1 else "one of its drives"
        sentence = say(
            "Data is lost when {what} fails{asked}.", what=what, asked=_asked(requirement)
        )
    return RequirementResult(requirement, "not_met", "condition", sentence, lines)


def _unattended(requirement: Requirement, facts: _Facts) -> RequirementResult:
    del facts
    sentence = say("Let the program start automatically after a power cut. Turn on the watchdog.")
    return RequirementResult(requirement, "met_if", "condition", sentence)


def _pulled_plug(requirement: Requirement, facts: _Facts) -> RequirementResult:
    battery = facts.givers("battery")
    if facts.settings.read_only_root or battery:
        return _met(requirement, tuple(g.item.line.id for g in battery))
    sentence = say(
        "A power cut can damage the boot drive. Make the root file system read-only or add a "
        "battery."
    )
    return RequirementResult(requirement, "met_if", "condition", sentence)


def _spins(part: Part) -> bool:
    """Whether a part is a hard disk."""
    return part.drive is not None and part.drive.spins


SPOILED_BY: dict[str, Callable[[Part], bool]] = {"silent": turns, "in_vehicle": _spins}
"""Conditions that a single part spoils, whatever else is in the kit, and which parts do."""


def _silent(requirement: Requirement, facts: _Facts) -> RequirementResult:
    loud = [i for i in facts.items if SPOILED_BY["silent"](i.part)]
    if not loud:
        return _met(requirement, ())
    what = words.listed(dict.fromkeys(i.name for i in loud))
    verb = "makes" if len(loud) == 1 else "make"
    lines = tuple(dict.fromkeys(i.line.id for i in loud))
    sentence = say("{what} {verb} noise{asked}.", what=what, verb=verb, asked=_asked(requirement))
    return RequirementResult(requirement, "not_met", "condition", sentence, lines)


def _children(requirement: Requirement, facts: _Facts) -> RequirementResult:
    case = next((i for i in facts.items if i.part.case is not None), None)
    if case is None or case.part.case is None or case.part.case.open:
        lines = () if case is None else (case.line.id,)
        sentence = (
            say("The kit has no case{asked}.", asked=_asked(requirement))
            if case is None
            else say(
                "{case} is open{asked}.", case=words.opening(case.the), asked=_asked(requirement)
            )
        )
        return RequirementResult(requirement, "not_met", "condition", sentence, lines)
    return _met(requirement, (case.line.id,))


def _moves(requirement: Requirement, facts: _Facts) -> RequirementResult:
    spinning = [i for i in facts.items if SPOILED_BY["in_vehicle"](i.part)]
    if spinning:
        name, lines = spinning[0].name, tuple(dict.fromkeys(i.line.id for i in spinning))
        sentence = say(
            "{disk} is a hard disk; vibration damages it while it spins{asked}.",
            disk=name,
            asked=_asked(requirement),
        )
        return RequirementResult(requirement, "not_met", "condition", sentence, lines)
    sentence = say("Vibration loosens plugs. Screw the kit down and secure every plug and cable.")
    return RequirementResult(requirement, "met_if", "condition", sentence)


def _from_outside(requirement: Requirement, facts: _Facts) -> RequirementResult:
    """By whichever network its place has, where the kit has it too."""
    network = facts.network
    if network == "none":
        sentence = say("The location has no network{asked}.", asked=_asked(requirement))
        return RequirementResult(requirement, "not_met", "place", sentence)
    ways: dict[str, tuple[FunctionId, ...]] = {
        "ethernet": ("ethernet",),
        "wifi": ("wifi",),
        "both": ("ethernet", "wifi"),
    }
    if not any(facts.givers(way) for way in ways[network]):
        has = words.listed(FUNCTIONS[way].label for way in ways[network])
        sentence = say(
            "The location has {has}; no part connects to it{asked}.",
            has=has,
            asked=_asked(requirement),
        )
        return RequirementResult(requirement, "not_met", "place", sentence)
    sentence = say(
        "Change every default password and turn on updates. Open only the ports that you need to "
        "the internet."
    )
    return RequirementResult(requirement, "met_if", "condition", sentence)


def _off_mains(requirement: Requirement, facts: _Facts) -> RequirementResult:
    """Usable energy over the mean draw of the day."""
    batteries = facts.givers("battery")
    if not batteries:
        sentence = say("The kit has no battery{asked}.", asked=_asked(requirement))
        return RequirementResult(requirement, "not_met", "missing", sentence)
    capacity_wh = sum(giver.offer.amount or 0 for giver in batteries)
    hours = battery_hours(facts.schedule, facts.power, capacity_wh)
    if hours is None:
        fed = facts.power.feeds_every_board()
        why = "The schedule draws no power" if fed else "The board has no power"
        sentence = say("Not checked: battery runtime. {why}.", why=why)
        return RequirementResult(requirement, "not_checked", "condition", sentence)
    lines = tuple(g.item.line.id for g in batteries)
    return _measured(requirement, round(hours, 1), float(requirement.at_least or 0), "h", lines)


def _enough_processor(requirement: Requirement, facts: _Facts) -> RequirementResult:
    """Whether the processor manages the tasks of its purpose, by typical figures of its kind."""
    board = next((item for item in facts.items if item.part.kind == "board"), None)
    if board is None:
        return RequirementResult(requirement, "not_checked", "", EMPTY)
    lines, want = (board.line.id,), float(requirement.at_least or 0)
    cores, each = board.part.cores, board.part.parity_mb_s
    if cores is None or each is None:
        sentence = say(
            "Not checked: the processor{asked}. {part} has no value.",
            asked=_asked(requirement),
            part=board.name,
        )
        return RequirementResult(
            requirement, "not_checked", "processor", sentence, lines, "%", None, want
        )
    have = 100 * cores * each.nominal / (MIDDLE_CORES * MIDDLE_PARITY_MB_S)
    kept = have / want
    if kept >= KEPT_SOUND:
        return RequirementResult(requirement, "met", "", EMPTY, lines, "%", have, want)
    sentence = say(
        "The processor of {board} has {have} of the speed of a mid-range board; {want} are "
        "required{asked}, by typical values.",
        board=board.name,
        have=words.percent(have / 100),
        want=words.percent(want / 100),
        asked=_asked(requirement),
    )
    status: RequirementStatus = "met_if" if kept >= KEPT_STOPS else "not_met"
    return RequirementResult(requirement, status, "processor", sentence, lines, "%", have, want)


_FUNCTIONS: dict[str, Callable[[Requirement, _Facts], RequirementResult]] = {
    "usb_port": _usb_sockets,
    "storage": _storage,
    "recording": _recording,
    "desktop": _desktop,
    "users": _users,
}
_CONDITIONS: dict[str, Callable[[Requirement, _Facts], RequirementResult]] = {
    "unattended": _unattended,
    "power_cut": _pulled_plug,
    "silent": _silent,
    "children": _children,
    "remote_access": _from_outside,
    "without_mains": _off_mains,
    "in_vehicle": _moves,
    "disk_failure": _survives_disk,
    "enough_processor": _enough_processor,
}


def _limit(requirement: Requirement, facts: _Facts) -> RequirementResult:
    """A figure of the whole kit against the most that it may be."""
    if requirement.limit == "noise_dba":
        return _noise_limit(requirement, facts)
    if requirement.limit == "mass_g":
        return _mass_limit(requirement, facts)
    return _length_limit(requirement, facts)


def _at_most(
    requirement: Requirement, have: float, unit: str, lines: tuple[str, ...], sentence: Text
) -> RequirementResult:
    most = float(requirement.at_most or 0)
    if have <= most:
        return RequirementResult(requirement, "met", "", EMPTY, lines, unit, have, most)
    told = say(
        "{sentence}; the limit is {most}{asked}.",
        sentence=sentence,
        most=words.counted(most, unit),
        asked=_asked(requirement),
    )
    return RequirementResult(requirement, "not_met", "limit", told, lines, unit, have, most)


def _not_known(requirement: Requirement, what: str) -> RequirementResult:
    told = say("Not checked: {what}{asked}.", what=what, asked=_asked(requirement))
    return RequirementResult(requirement, "not_checked", "limit", told)


def _asked(requirement: Requirement) -> str:
    """The requirement behind a sentence, in the words of its owner."""
    return f" (requirement “{requirement.text}”)"


def _length_limit(requirement: Requirement, facts: _Facts) -> RequirementResult:
    """The longest outside edge of the case."""
    case = next((i for i in facts.items if i.part.case is not None), None)
    if case is None or case.part.case is None:
        return _not_known(requirement, "length. The kit has no case")
    own = case.part.case
    longest = max(own.inner_length_mm, own.inner_width_mm, own.inner_height_mm) + 2 * own.wall_mm
    sentence = say(
        "{case} is {length} long", case=words.opening(case.the), length=Figure(longest, "mm")
    )
    return _at_most(requirement, longest, "mm", (case.line.id,), sentence)


def _noise_limit(requirement: Requirement, facts: _Facts) -> RequirementResult:
    """All that turns, at 1 m and at its loudest."""
    noise = facts.noise
    if noise.unknown:
        names = words.few(i.name for i in noise.unknown)
        return _not_known(requirement, f"noise. {names} {_has_have(noise.unknown)} no noise value")
    level = round(float(noise.level_dba[0]), 1)
    lines = tuple(dict.fromkeys(item.line.id for item, _ in noise.heard))
    what = words.few(item.the for item, _ in noise.heard) if noise.heard else "the kit"
    sentence = say(
        "{what} {be} {level} at 1 m",
        what=words.opening(what),
        be="are" if len(noise.heard) > 1 else "is",
        level=words.counted(level, "dB(A)"),
    )
    return _at_most(requirement, level, "dB(A)", lines, sentence)


def _mass_limit(requirement: Requirement, facts: _Facts) -> RequirementResult:
    """The box with all that is in it or plugged into it."""
    known, unknown = kit_mass_g(facts.items)
    heavy = [i for i in facts.items if counts(i)]
    lines = tuple(dict.fromkeys(i.line.id for i in heavy))
    weighs = say("The kit weighs {mass}", mass=Figure(known, "g"))
    result = _at_most(requirement, round(known), "g", lines, weighs)
    if result.status == "met" and unknown:
        names = words.few(i.name for i in unknown)
        return _not_known(requirement, f"mass. {names} {_has_have(unknown)} no mass value")
    return result


def _has_have(items: Sequence[Item]) -> str:
    return "has" if len(items) == 1 else "have"


@derived(
    "built",
    "requirements",
    "image",
    "settings",
    "schedule",
    "place.network",
    fit_of,
    power_of,
    noise_of,
    data_of,
    array_of,
)
def of(
    built: Items,
    requirements: Sequence[Requirement],
    image: Image | None,
    settings: Settings,
    schedule: Sequence[Phase],
    network: NetworkOfPlace,
    fit: Assignment,
    power: PowerResult,
    noise: NoiseResult,
    data: DataResult,
    array: Array,
) -> list[RequirementResult]:
    """How it stands to each thing that is asked of it."""
    if not requirements:
        return []
    facts = _Facts(
        schedule,
        image,
        settings,
        network,
        built,
        fit,
        power,
        noise,
        data,
        array,
    )
    return [_result(requirement, facts) for requirement in requirements]
