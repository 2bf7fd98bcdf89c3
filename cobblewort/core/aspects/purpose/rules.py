"""Rules of purpose: does this kit do the job at all."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.aspects.purpose.model import RequirementResult, RequirementStatus
from cobblewort.core.aspects.purpose.model import of as requirements_of
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.kit import Items, Kit
from cobblewort.core.judging.remedies import (
    another,
    on_offer,
    other_supplies,
    place_with,
    remove_named,
)
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import (
    FAILS,
    INFORMS,
    SHOWS,
    SLOWS,
    UNKNOWN,
    Consequence,
)
from cobblewort.core.plans.patch import AddLine, Patch, SetFields, SwapPart
from cobblewort.core.plans.plan import KINDS_FOR_ROLE, Image
from cobblewort.core.text import say

_CONSEQUENCE: dict[RequirementStatus, Consequence] = {
    "met": SHOWS,
    "met_if": INFORMS,
    "not_met": FAILS,
    "not_checked": INFORMS,
}
_OF_PROCESSOR: dict[RequirementStatus, Consequence] = {**_CONSEQUENCE, "met_if": SLOWS}


def _observations(
    results: list[RequirementResult],
    *reasons: str,
    consequences: dict[RequirementStatus, Consequence] = _CONSEQUENCE,
) -> Iterator[Observation]:
    for result in results:
        if result.reason in reasons:
            yield Observation(
                result.requirement.id,
                UNKNOWN if _lacks_a_value(result) else consequences[result.status],
                result.sentence,
                tuple(dict.fromkeys(line for line in result.lines if line)),
            )


def _lacks_a_value(result: RequirementResult) -> bool:
    """Whether it cannot be judged for a figure of a part."""
    return result.status == "not_checked" and result.reason in ("too_little", "processor")


def _requirement_of(kit: Kit, finding: Finding) -> RequirementResult | None:
    subject = finding.id.split(":", 1)[1]
    return next(
        (result for result in requirements_of(kit) if result.requirement.id == subject), None
    )


def giver(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Add a part that gives what is missing, for each role that it can take."""
    result = _requirement_of(kit, finding)
    if result is None or result.requirement.function is None:
        return
    for role, kinds in KINDS_FOR_ROLE.items():
        if role in ("board", "set_up", "boot_drive", "other_equipment"):
            continue
        for part in on_offer(kit, kinds):
            wanted = result.requirement.function
            stores = wanted == "storage" and role == "storage" and part.storage is not None
            if wanted in part.offers or stores:
                yield (AddLine(role=role, part=part.id),)


def holds_energy(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Supplies that hold a battery, where hours without mains are what is missing."""
    result = _requirement_of(kit, finding)
    if result is None or result.requirement.condition != "without_mains":
        return
    for patch in other_supplies(kit):
        parts = [c.part for c in patch if isinstance(c, AddLine | SwapPart)]
        if any("battery" in kit.catalogue.part(part).offers for part in parts):
            yield patch


def more_sockets(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A hub, where USB sockets are what is missing."""
    result = _requirement_of(kit, finding)
    if result is not None and result.requirement.function == "usb_port":
        for part in on_offer(kit, ("hub",)):
            yield (AddLine(role="add_on", part=part.id),)


def splitter(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """What parts data and power at a port that is inlet and device port at once."""
    del finding
    for part in on_offer(kit, ("device",)):
        if part.splits_device_port:
            yield (AddLine(role="add_on", part=part.id),)


def full_image(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """The same image with a desktop; it needs more room."""
    del finding
    image = kit.plan.image
    if image is not None and not image.desktop:
        fuller = {
            "name": "Full image with a desktop",
            "desktop": True,
            "card_gb": max(image.card_gb, 16),
            "memory_gb": max(image.memory_gb, 2),
        }
        yield (SetFields(fields={"image": fuller}),)


@rule(
    "NEED-01",
    "purpose",
    "A part provides every required function",
    why="A kit can fit, run and stay cool and still not do what it is for.",
    formula="each required function is provided by a part of the kit, as often as required",
    source="common practice",
    reads=(requirements_of,),
    remedies=(giver, holds_energy, more_sockets, another("board", "add_on")),
    eased_by=("board", "add_on", "storage", "boot_drive", "power_supply", "cable"),
)
def functions(results: list[RequirementResult]) -> Iterator[Observation]:
    """Functions that nothing gives, or not often enough."""
    yield from _observations(results, "missing")


@rule(
    "NEED-02",
    "purpose",
    "Every required amount is reached",
    why="Too little capacity, memory or runtime makes the kit useless for its purpose.",
    formula="amount provided >= amount required, in the unit of the function",
    source="maker's figures",
    reads=(requirements_of,),
    remedies=(giver, holds_energy, another("board", "storage", "boot_drive", "add_on")),
    eased_by=("board", "add_on", "storage", "boot_drive", "power_supply", "cable"),
)
def amounts(results: list[RequirementResult]) -> Iterator[Observation]:
    """Amounts that fall short, or are not known."""
    yield from _observations(results, "too_little")


@rule(
    "NEED-03",
    "purpose",
    "Every required condition holds",
    why="A kit that runs unattended, loses power, must be silent or is within reach of children "
    "needs more than its functions.",
    formula="each condition holds for the kit, or the remaining work is named",
    source="common practice",
    reads=(requirements_of,),
    remedies=(full_image, another("cooling", "case", "storage"), remove_named),
)
def conditions(results: list[RequirementResult]) -> Iterator[Observation]:
    """Conditions that do not hold, and those that hold only when something is done."""
    yield from _observations(results, "condition")


@rule(
    "NEED-04",
    "purpose",
    "Size, mass and noise stay within the required limits",
    why="A kit that is too large, heavy or loud cannot be used where it is needed.",
    formula="value of the kit <= required limit",
    source="maker's drawings",
    reads=(requirements_of,),
    remedies=(another("case"),),
)
def limits(results: list[RequirementResult]) -> Iterator[Observation]:
    """Limits that are passed, or cannot be judged."""
    yield from _observations(results, "limit")


@rule(
    "NEED-05",
    "purpose",
    "The USB device port is not the power input",
    why="On many boards the only USB device port is the power input; using both needs a splitter "
    "that also isolates two power supplies.",
    formula="no power supply is plugged into the USB device port, unless a splitter is used",
    source="common practice",
    reads=(requirements_of,),
    remedies=(splitter, another("board")),
    eased_by=("board", "add_on", "power_supply", "cable"),
)
def device_port(results: list[RequirementResult]) -> Iterator[Observation]:
    """A device port that the supply takes."""
    yield from _observations(results, "inlet")


@rule(
    "NEED-06",
    "purpose",
    "No required radio is inside a metal case",
    why="A metal case weakens radio signals by 15 to 30 dB.",
    formula="radio loss through the case <= 10 dB for a radio inside it",
    source="free-space propagation: each 6 dB halve the range; losses typical, from memory",
    reads=(requirements_of,),
    remedies=(another("case"),),
)
def radio_in_shell(results: list[RequirementResult]) -> Iterator[Observation]:
    """Radios that are wanted and stand in a metal shell."""
    yield from _observations(results, "shell")


def joins_network(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A part that joins the network which the place has."""
    del finding
    wanted = {"wifi": ("wifi",), "ethernet": ("ethernet",)}.get(kit.plan.place.network, ())
    for part in on_offer(kit, ("device",)):
        if any(name in part.offers for name in wanted):
            yield (AddLine(role="add_on", part=part.id),)


def has_a_network(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """The place has a network after all."""
    del finding
    yield place_with(kit, network="both")


@rule(
    "NEED-08",
    "purpose",
    "The location has the required network",
    why="Ethernet or Wi-Fi in the kit needs the same network at the location.",
    formula="the required network is at the location: Ethernet, Wi-Fi or either",
    source="common practice",
    reads=(requirements_of,),
    remedies=(joins_network, another("board", "add_on"), has_a_network),
    eased_by=("board", "add_on"),
)
def network_of_the_place(results: list[RequirementResult]) -> Iterator[Observation]:
    """Needs of a network that the place has not, or that the kit cannot join."""
    yield from _observations(results, "place")


@rule(
    "NEED-09",
    "purpose",
    "The processor is fast enough for its tasks",
    why="A processor that is too slow makes games stutter, pages slow and pictures jerky.",
    formula="cores x parity rate of one core, beside those of a mid-range board >= share required; "
    "0.9 of it is enough, below 0.6 it does not do the job",
    source="typical, from memory",
    reads=(requirements_of,),
    remedies=(another("board"),),
    eased_by=("board", "boot_drive"),
)
def processor(results: list[RequirementResult]) -> Iterator[Observation]:
    """A processor that is too slow for what the purpose does."""
    yield from _observations(results, "processor", consequences=_OF_PROCESSOR)


@rule(
    "NEED-07",
    "purpose",
    "The image fits the boot drive and the memory",
    why="An image larger than the boot drive cannot be written to it.",
    formula="size of the image <= capacity of the boot drive; memory required <= memory of the "
    "board",
    source="common practice",
    reads=("image", "connected"),
    remedies=(another("boot_drive"), another("board")),
    eased_by=("board", "boot_drive"),
)
def image_fits(image: Image | None, connected: Items) -> Iterator[Observation]:
    """The image against the first boot medium and the first board."""
    if image is None:
        return
    boot = next((i for i in connected.of_role("boot_drive") if i.part.storage is not None), None)
    room = None if boot is None or boot.part.storage is None else boot.part.storage.capacity_gb
    if boot is not None and room is not None and room < image.card_gb:
        yield Observation(
            "card",
            FAILS,
            say(
                "{image} needs {needs}; {drive} holds {holds}.",
                image=image.name,
                needs=words.counted(image.card_gb, "GB"),
                drive=boot.the,
                holds=words.counted(room, "GB"),
            ),
            (boot.line.id,),
        )
    board = next(iter(connected.of_role("board")), None)
    memory = None if board is None else board.part.offers.get("memory")
    if board is None:
        return
    if memory is None or memory.amount is None:
        yield Observation(
            "memory",
            UNKNOWN,
            say(
                "Not checked: memory for {image} ({needs}). {board} has no value.",
                image=image.name,
                needs=words.counted(image.memory_gb, "GB"),
                board=board.name,
            ),
            (board.line.id,),
        )
    elif memory.amount < image.memory_gb:
        yield Observation(
            "memory",
            FAILS,
            say(
                "{image} needs {needs} of memory; {board} has {has}.",
                image=image.name,
                needs=words.counted(image.memory_gb, "GB"),
                board=board.name,
                has=words.counted(memory.amount, "GB"),
            ),
            (board.line.id,),
        )
