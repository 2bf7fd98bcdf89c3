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
from cobblewort.core.aspects.power.harvest import battery_hours
from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.kit import Kit, derived
from cobblewort.core.judging.piece import Piece
from cobblewort.core.parts.functions import FUNCTIONS, FunctionId
from cobblewort.core.parts.model import Offer
from cobblewort.core.plans.plan import NOT_OF_IT, Need, Plan

NeedStatus = Literal["met", "conditional", "unmet", "unknown"]
Reason = Literal[
    "", "missing", "too_little", "rate", "inlet", "shell", "place", "condition", "limit"
]  # fmt: skip
"""Why a need is not met, so that each reason can have a rule and remedies of its own; a rate that
is too low is told by the rules of data."""

USER_GB = 0.25
"""Memory that one more person at once takes of a server program: typical, from memory."""
DEAF_DB = 10.0
"""A shell that takes more leaves a radio inside a third of its reach or less: 6 dB halve it
(typical, from memory)."""


@dataclass(slots=True)
class NeedResult:
    """A need and how the kit stands to it.

    `lines` are those that meet it, or that spoil it. `have` and `want` are amounts in `unit`, None
    where nothing is counted.
    """

    need: Need
    status: NeedStatus
    reason: Reason
    sentence: str
    lines: tuple[str, ...] = ()
    unit: str = ""
    have: float | None = None
    want: float | None = None


@dataclass(slots=True, frozen=True)
class _Giver:
    """A piece that offers a function."""

    piece: Piece
    offer: Offer


@dataclass(slots=True)
class _Facts:
    """What needs are held against."""

    plan: Plan
    pieces: Sequence[Piece]
    fit: Assignment
    power: PowerResult
    noise: NoiseResult
    data: DataResult
    array: Array

    def givers(self, function: FunctionId) -> list[_Giver]:
        found = []
        for piece in self.pieces:
            offer = piece.part.offers.get(function)
            if offer is not None and piece.line.role not in NOT_OF_IT:
                found.append(_Giver(piece, offer))
        return found


def build_needs(
    plan: Plan, pieces: Sequence[Piece], fit: Assignment, power: PowerResult, noise: NoiseResult,
    data: DataResult, array: Array,
) -> list[NeedResult]:  # fmt: skip
    """Every need in the order of the plan."""
    facts = _Facts(plan, pieces, fit, power, noise, data, array)
    return [_result(need, facts) for need in plan.needs]


def _result(need: Need, facts: _Facts) -> NeedResult:
    if need.condition is not None:
        return _CONDITIONS[need.condition](need, facts)
    if need.limit is not None:
        return _limit(need, facts)
    return _FUNCTIONS.get(need.function or "", _function)(need, facts)


def _met(need: Need, lines: tuple[str, ...], sentence: str = "") -> NeedResult:
    return NeedResult(need, "met", "", sentence, lines)


def _function(need: Need, facts: _Facts) -> NeedResult:
    """Offered often enough, by pieces that nothing spoils, with the amount that is wanted."""
    if need.function is None:
        raise ValueError(f"need {need.id} is not about a function")
    function = FUNCTIONS[need.function]
    givers = facts.givers(need.function)
    if not givers:
        asked = "" if need.text == function.label else f": {need.text}"
        sentence = f"Nothing in the kit gives {function.label}{asked}."
        return NeedResult(need, "unmet", "missing", sentence, want=float(need.count))
    spoilt = {id(giver): _spoilt(need.function, giver, facts) for giver in givers}
    kept = [giver for giver in givers if spoilt[id(giver)] is None]
    told = spoilt[id(givers[0])]
    if not kept and told is not None:
        reason, sentence, line = told
        return NeedResult(need, "unmet", reason, sentence, (givers[0].piece.line.id, line))
    lines = tuple(dict.fromkeys(giver.piece.line.id for giver in kept))
    count = sum(giver.offer.count for giver in kept)
    if count < need.count:
        sentence = f"The kit gives {function.label} {count} of {need.count} times: {need.text}."
        return NeedResult(
            need, "unmet", "missing", sentence, lines, "", float(count), float(need.count)
        )
    if need.at_least is not None:
        return _amount(need, function.unit, function.added, kept, lines, facts.data)
    to_build = [g.piece.name for g in kept if g.offer.driver == "build"]
    in_image = sum(g.offer.count for g in kept if g.offer.driver == "image")
    if to_build and in_image < need.count:
        sentence = f"{to_build[0]} gives it once its driver is built; the usual image has none."
        return NeedResult(need, "conditional", "condition", sentence, lines)
    return _met(need, lines)


def _spoilt(function: FunctionId, giver: _Giver, facts: _Facts) -> tuple[Reason, str, str] | None:
    """Why a piece cannot give what it offers, with the line that is in the way."""
    piece, inlet = giver.piece, giver.offer.on_inlet
    if inlet is not None:
        plug = facts.fit.into(f"{piece.id}.{inlet}")
        if plug is not None and not _carries_data(plug, facts.fit):
            sentence = (
                f"The only port of {piece.name} that can act as a device is its power inlet, and "
                f"{plug.piece.name} is plugged in there."
            )
            return "inlet", sentence, plug.piece.line.id
    if function == "vehicle_power":
        feeds = {node.parent for node in facts.power.nodes}
        roots = [n for n, node in enumerate(facts.power.nodes) if node.piece is piece]
        if not feeds & set(roots):
            sentence = f"{piece.name} stands in the kit and feeds nothing."
            return "missing", sentence, piece.line.id
    if function == "wired_network" and facts.plan.place.network in ("radio", "none"):
        return "place", f"Its place has no network socket for {piece.name}.", piece.line.id
    if function in ("radio", "access_point", "mesh_radio") and piece.part.inside:
        case = next((i for i in facts.pieces if i.part.case is not None), None)
        shell = None if case is None else case.part.case
        if case is not None and shell is not None and shell.radio_db.nominal > DEAF_DB:
            sentence = (
                f"{case.name} takes {shell.radio_db.nominal:.0f} dB from the radio of "
                f"{piece.name} inside it: next to nothing is left."
            )
            return "shell", sentence, case.line.id
    return None


def _carries_data(plug: PlugRef, fit: Assignment) -> bool:
    """Whether what is plugged into an inlet that is a device port too joins it to another machine:
    a splitter, or a lead with data wires that such a machine feeds.
    """
    piece = plug.piece
    if piece.part.splits_device_port:
        return True
    if piece.part.lead is None or not piece.part.lead.data:
        return False
    return any(
        other.piece is piece and socket.piece.part.kind == "machine"
        for other, socket in fit.placed.values()
    )


def _moved(
    need: Need, givers: list[_Giver], lines: tuple[str, ...], data: DataResult
) -> NeedResult:
    """A rate over a network, as the whole way lets it by."""
    want = float(need.at_least or 0)
    asked = next((asked for asked in data.asked if asked.need.id == need.id), None)
    if asked is None:
        sentence = f"Not known: how fast {givers[0].piece.name} is: {need.text}."
        return NeedResult(need, "unknown", "too_little", sentence, lines, "MB/s", None, want)
    have = nominal(asked.moved.rate_mb_s)
    if have >= want:
        return NeedResult(need, "met", "", "", lines, "MB/s", have, want)
    sentence = f"Its way lets {words.rate(have)} of the {words.rate(want)} by: {need.text}."
    return NeedResult(need, "unmet", "rate", sentence, lines, "MB/s", have, want)


def _amount(
    need: Need, unit: str, added: bool, givers: list[_Giver], lines: tuple[str, ...],
    data: DataResult,
) -> NeedResult:  # fmt: skip
    """The amounts of all givers together, or the best of them; rates as their way lets them by."""
    if need.function in RATED:
        return _moved(need, givers, lines, data)
    known = [g.offer.amount for g in givers if g.offer.amount is not None]
    want = float(need.at_least or 0)
    if not known:
        sentence = f"Not known: how much of it {givers[0].piece.name} gives: {need.text}."
        return NeedResult(need, "unknown", "too_little", sentence, lines, unit, None, want)
    return _measured(need, sum(known) if added else max(known), want, unit, lines)


def _measured(
    need: Need, have: float, want: float, unit: str, lines: tuple[str, ...]
) -> NeedResult:
    if have >= want:
        return NeedResult(need, "met", "", "", lines, unit, have, want)
    sentence = f"The kit gives {have:g} {unit} of the {want:g} {unit} asked for: {need.text}."
    return NeedResult(need, "unmet", "too_little", sentence, lines, unit, have, want)


def _usb_sockets(need: Need, facts: _Facts) -> NeedResult:
    """USB-A sockets that nothing takes."""
    taken = {socket.id for _, socket in facts.fit.placed.values()}
    free = [
        ref
        for name, ref in facts.fit.sockets.items()
        if ref.socket.connector == "usb-a" and ref.socket.role == "host" and name not in taken
    ]
    lines = tuple(dict.fromkeys(ref.piece.line.id for ref in free))
    if len(free) >= need.count:
        return _met(need, lines)
    sentence = f"{len(free)} of {need.count} USB sockets are left free: {need.text}."
    return NeedResult(
        need, "unmet", "missing", sentence, lines, "", float(len(free)), float(need.count)
    )


def _storage(need: Need, facts: _Facts) -> NeedResult:
    """Room for data, in GB."""
    room, lines = _room_gb(facts)
    return _measured(need, room, float(need.at_least or 1), "GB", lines)


def recorded_hours(plan: Plan) -> float:
    """Hours of a day in which it records: those with work in them, all of them where none has."""
    working = [p.hours for p in plan.duty if p.activity not in ("off", "idle")]
    return sum(working or [phase.hours for phase in plan.duty])


def wanted_room_gb(need: Need, plan: Plan) -> float:
    """The room that a need asks for, stated or as days of recording. [GB]"""
    if need.function == "recording":
        return (need.at_least or 0) * recorded_hours(plan) * (need.rate_mb_h or 0) / 1000
    return float(need.at_least or 0) if need.function == "storage" else 0.0


def _recording(need: Need, facts: _Facts) -> NeedResult:
    """Days until the room is full, at the rate and the hours of a day."""
    room, lines = _room_gb(facts)
    rate_mb_h, want = float(need.rate_mb_h or 0), float(need.at_least or 0)
    hours = recorded_hours(facts.plan)
    days = round(room * 1000 / (rate_mb_h * hours), 1) if hours else 0.0
    result = _measured(need, days, want, "days", lines)
    if result.sentence:
        result.sentence = (
            f"{room:g} GB hold {days:g} of {want:g} days, at {rate_mb_h:g} MB an hour and "
            f"{hours:g} hours a day: {need.text}."
        )
    return result


def _room_gb(facts: _Facts) -> tuple[float, tuple[str, ...]]:
    """Room on the data drives as they are used together, and their lines; the boot medium counts
    where there are none. [GB]
    """
    disks = facts.array.pieces
    if disks:
        return facts.array.usable_gb, tuple(dict.fromkeys(piece.line.id for piece in disks))
    media = [i for i in facts.pieces if i.line.role == "boot" and i.part.storage is not None]
    lines = tuple(dict.fromkeys(i.line.id for i in media))
    room = sum(i.part.storage.capacity_gb for i in media if i.part.storage is not None)
    if media and facts.plan.image is not None:
        room = max(0.0, room - facts.plan.image.card_gb)
    return room, lines


def wanted_memory_gb(need: Need, plan: Plan) -> float:
    """The memory that a need asks for, stated or as people at once beside the image. [GB]"""
    if need.function == "users":
        image_gb = 0.0 if plan.image is None else plan.image.memory_gb
        return image_gb + USER_GB * (need.at_least or 0)
    return float(need.at_least or 0) if need.function == "memory" else 0.0


def _users(need: Need, facts: _Facts) -> NeedResult:
    """People whom the memory beside the image serves at once; what is swapped out serves nobody."""
    givers = facts.givers("memory")
    amounts = [giver.offer.amount for giver in givers if giver.offer.amount is not None]
    lines = tuple(dict.fromkeys(giver.piece.line.id for giver in givers))
    want = float(need.at_least or 1)
    if not amounts:
        sentence = f"Not known: how much memory there is: {need.text}."
        return NeedResult(need, "unknown", "too_little", sentence, lines, "people", None, want)
    image_gb = 0.0 if facts.plan.image is None else facts.plan.image.memory_gb
    have = max(0.0, float((max(amounts) - image_gb) // USER_GB))
    return _measured(need, have, want, "people", lines)


def _desktop(need: Need, facts: _Facts) -> NeedResult:
    image = facts.plan.image
    if image is None:
        sentence = f"Not known: which image it starts from: {need.text}."
        return NeedResult(need, "unknown", "condition", sentence)
    if image.desktop:
        return _met(need, ())
    sentence = f"{image.name} has no desktop: {need.text}."
    return NeedResult(need, "unmet", "condition", sentence)


def _survives_disk(need: Need, facts: _Facts) -> NeedResult:
    """Whether any disk may fail and all is still there."""
    array = facts.array
    lines = tuple(dict.fromkeys(piece.line.id for piece in array.pieces))
    if array.may_fail > 0:
        return _met(need, lines)
    if not array.pieces:
        sentence = f"The kit has no data disks yet: {need.text}."
    else:
        what = "its one disk" if len(array.pieces) == 1 else "one of its disks"
        sentence = f"When {what} fails, data go with it: {need.text}."
    return NeedResult(need, "unmet", "condition", sentence, lines)


def _unattended(need: Need, facts: _Facts) -> NeedResult:
    del facts
    sentence = "Let its program start by itself after a power cut, and let the watchdog restart it."
    return NeedResult(need, "conditional", "condition", sentence)


def _pulled_plug(need: Need, facts: _Facts) -> NeedResult:
    battery = facts.givers("battery")
    if facts.plan.settings.read_only_root or battery:
        return _met(need, tuple(g.piece.line.id for g in battery))
    sentence = "Make the root file system read-only, or a pulled plug may spoil the boot medium."
    return NeedResult(need, "conditional", "condition", sentence)


def _silent(need: Need, facts: _Facts) -> NeedResult:
    loud = [i for i in facts.pieces if turns(i.part)]
    if not loud:
        return _met(need, ())
    what = words.listed(dict.fromkeys(i.name for i in loud))
    verb = "turns" if len(loud) == 1 else "turn"
    lines = tuple(dict.fromkeys(i.line.id for i in loud))
    return NeedResult(need, "unmet", "condition", f"{what} {verb} and can be heard.", lines)


def _children(need: Need, facts: _Facts) -> NeedResult:
    case = next((i for i in facts.pieces if i.part.case is not None), None)
    if case is None or case.part.case is None or case.part.case.open:
        name = "Without a case" if case is None else f"In {case.name}"
        lines = () if case is None else (case.line.id,)
        sentence = f"{name} everything lies open to children's hands."
        return NeedResult(need, "unmet", "condition", sentence, lines)
    return _met(need, (case.line.id,))


def _moves(need: Need, facts: _Facts) -> NeedResult:
    spinning = [i for i in facts.pieces if i.part.drive is not None and i.part.drive.spins]
    if spinning:
        name, lines = spinning[0].name, tuple(dict.fromkeys(i.line.id for i in spinning))
        sentence = f"{name} spins, and a disk that is shaken while it spins breaks: {need.text}."
        return NeedResult(need, "unmet", "condition", sentence, lines)
    sentence = "Screw it down and tie every plug and lead; what can shake loose will."
    return NeedResult(need, "conditional", "condition", sentence)


def _from_outside(need: Need, facts: _Facts) -> NeedResult:
    """By whichever network its place has, where the kit has it too."""
    network = facts.plan.place.network
    if network == "none":
        sentence = f"Its place has no network: {need.text}."
        return NeedResult(need, "unmet", "place", sentence)
    ways: dict[str, tuple[FunctionId, ...]] = {
        "wired": ("wired_network",), "radio": ("radio",), "both": ("wired_network", "radio"),
    }  # fmt: skip
    if not any(facts.givers(way) for way in ways[network]):
        has = words.listed(FUNCTIONS[way].label for way in ways[network])
        sentence = f"Its place has {has}, and nothing in the kit joins it: {need.text}."
        return NeedResult(need, "unmet", "place", sentence)
    sentence = (
        "Change every default password, keep it up to date, and let nothing in from the internet "
        "but what you mean to."
    )
    return NeedResult(need, "conditional", "condition", sentence)


def _off_mains(need: Need, facts: _Facts) -> NeedResult:
    """Usable energy over the mean draw of the day."""
    batteries = facts.givers("battery")
    if not batteries:
        sentence = f"There is no battery in the kit: {need.text}."
        return NeedResult(need, "unmet", "missing", sentence)
    capacity_wh = sum(giver.offer.amount or 0 for giver in batteries)
    hours = battery_hours(facts.plan, facts.power, capacity_wh)
    if hours is None:
        fed = facts.power.feeds_every_board()
        why = "it draws nothing on a day" if fed else "nothing feeds it yet"
        sentence = f"Not known: how long its battery lasts, as {why}."
        return NeedResult(need, "unknown", "condition", sentence)
    lines = tuple(g.piece.line.id for g in batteries)
    return _measured(need, round(hours, 1), float(need.at_least or 0), "h", lines)


_FUNCTIONS: dict[str, Callable[[Need, _Facts], NeedResult]] = {
    "usb_socket": _usb_sockets,
    "storage": _storage,
    "recording": _recording,
    "desktop": _desktop,
    "users": _users,
}
_CONDITIONS: dict[str, Callable[[Need, _Facts], NeedResult]] = {
    "unattended": _unattended,
    "pulled_plug": _pulled_plug,
    "silent": _silent,
    "children": _children,
    "from_outside": _from_outside,
    "off_mains": _off_mains,
    "moves": _moves,
    "survives_disk": _survives_disk,
}


def _limit(need: Need, facts: _Facts) -> NeedResult:
    """A figure of the whole kit against the most that it may be."""
    if need.limit == "noise_dba":
        return _noise_limit(need, facts)
    if need.limit == "mass_g":
        return _mass_limit(need, facts)
    return _length_limit(need, facts)


def _at_most(
    need: Need, have: float, unit: str, lines: tuple[str, ...], sentence: str
) -> NeedResult:
    most = float(need.at_most or 0)
    if have <= most:
        return NeedResult(need, "met", "", "", lines, unit, have, most)
    told = f"{sentence}; it may be {most:g} {unit}: {need.text}."
    return NeedResult(need, "unmet", "limit", told, lines, unit, have, most)


def _not_known(need: Need, what: str) -> NeedResult:
    return NeedResult(need, "unknown", "limit", f"Not known: {what}: {need.text}.")


def _length_limit(need: Need, facts: _Facts) -> NeedResult:
    """The longest outside edge of the case."""
    case = next((i for i in facts.pieces if i.part.case is not None), None)
    if case is None or case.part.case is None:
        return _not_known(need, "how long it is without a case")
    own = case.part.case
    longest = max(own.inner_length_mm, own.inner_width_mm, own.inner_height_mm) + 2 * own.wall_mm
    sentence = f"{case.name} is {longest:.0f} mm long"
    return _at_most(need, longest, "mm", (case.line.id,), sentence)


def _noise_limit(need: Need, facts: _Facts) -> NeedResult:
    """All that turns, at 1 m and at its loudest."""
    noise = facts.noise
    if noise.unknown:
        names = words.few(i.name for i in noise.unknown)
        return _not_known(need, f"how loud {names} {_is_are(noise.unknown)}")
    level = round(float(noise.level_dba[0]), 1)
    lines = tuple(dict.fromkeys(piece.line.id for piece, _ in noise.heard))
    what = words.few(piece.name for piece, _ in noise.heard) if noise.heard else "it"
    verb = "are" if len(noise.heard) > 1 else "is"
    sentence = f"{words.opening(what)} {verb} heard at {level:g} dB(A) at 1 m"
    return _at_most(need, level, "dB(A)", lines, sentence)


def _mass_limit(need: Need, facts: _Facts) -> NeedResult:
    """The box with all that is in it or plugged into it."""
    known, unknown = kit_mass_g(facts.pieces)
    heavy = [i for i in facts.pieces if counts(i)]
    lines = tuple(dict.fromkeys(i.line.id for i in heavy))
    result = _at_most(need, round(known), "g", lines, f"It weighs {known:.0f} g")
    if result.status == "met" and unknown:
        names = words.few(i.name for i in unknown)
        return _not_known(need, f"what {names} {'weighs' if len(unknown) == 1 else 'weigh'}")
    return result


def _is_are(pieces: Sequence[Piece]) -> str:
    return "is" if len(pieces) == 1 else "are"


@derived(
    "built", "needs", "image", "settings", "duty", "place.network",
    fit_of, power_of, noise_of, data_of, array_of,
)  # fmt: skip
def of(kit: Kit) -> list[NeedResult]:
    """How it stands to each thing that is asked of it."""
    if not kit.plan.needs:
        return []
    return build_needs(
        kit.plan,
        kit.built,
        fit_of(kit),
        power_of(kit),
        noise_of(kit),
        data_of(kit),
        array_of(kit),
    )
