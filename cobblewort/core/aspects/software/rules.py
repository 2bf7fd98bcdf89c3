"""Rules of image and driver: is it for this board, does it drive what is plugged in."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.aspects.fit.model import header_of
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.remedies import another
from cobblewort.core.judging.rules import rule
from cobblewort.core.parts.functions import FUNCTIONS
from cobblewort.core.parts.model import SetUpTask
from cobblewort.core.plans.patch import Patch, SetFields

_TASKS: dict[SetUpTask, str] = {
    "reader": "a card reader to write the first card",
    "keyboard": "a keyboard",
    "mouse": "a mouse",
    "screen": "a screen with its lead",
    "writer": "something that joins the drive to another computer, to write it",
}
_RADIOS = ("wifi", "access_point")


def certified_rate(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Leave the slot at the rate that its maker certifies."""
    del finding
    settings = {**kit.plan.settings.model_dump(), "push_slot": False}
    yield (SetFields(fields={"settings": settings}),)


@rule(
    "SOFT-01", "fit", "The image is made for the board",
    why="An image for another family of boards does not start, and says nothing; it costs an "
    "evening.",
    formula="the board's family is one of those that the image is made for, where it names any",
    source="common practice",
    reads=("image", "connected"),
    remedies=(another("board"),),
)  # fmt: skip
def image_family(kit: Kit) -> Iterator[Observation]:
    """The image against the family of the board."""
    image, board = kit.plan.image, next(iter(kit.connected.of_role("board")), None)
    if image is None or board is None or not image.families:
        return
    runs = board.part.runs
    if runs is None or not runs.family:
        yield Observation(
            "family", "note",
            f"Not known: whether {image.name} starts on {board.name}; its family is not stated.",
            (board.line.id,),
        )  # fmt: skip
    elif runs.family.lower() not in {family.lower() for family in image.families}:
        yield Observation(
            "family", "problem",
            f"{image.name} is made for {words.listed(image.families)}; {board.name} is of the "
            f"family {runs.family} and will not start from it.",
            (board.line.id,),
        )  # fmt: skip


@rule(
    "SOFT-02", "fit", "The processor runs the image's word size",
    why="A 64-bit image does not start on a 32-bit processor.",
    formula="word size of the image is one of those of the processor",
    source="common practice",
    reads=("image", "connected"),
    remedies=(another("board"),),
)  # fmt: skip
def word_size(kit: Kit) -> Iterator[Observation]:
    """The image's word size against the processor's."""
    image, board = kit.plan.image, next(iter(kit.connected.of_role("board")), None)
    if image is None or board is None or image.bits is None or board.part.runs is None:
        return
    runs = board.part.runs
    if runs.bits and image.bits not in runs.bits:
        yield Observation(
            "bits", "problem",
            f"{image.name} is for {image.bits} bits; {board.name} runs "
            f"{words.listed(str(b) for b in runs.bits)}.",
            (board.line.id,),
        )  # fmt: skip


@rule(
    "SOFT-03", "fit", "The image has the drivers",
    why="A driver that has to be built has to be built again after each update of the system, and "
    "never on the evening when it is wanted.",
    formula="each part's functions are driven by the standard image",
    source="what the parts state; common practice",
    reads=("connected",),
)  # fmt: skip
def drivers(kit: Kit) -> Iterator[Observation]:
    """Parts whose driver is not in the standard image."""
    told = set()
    for item in kit.connected:
        built = [name for name, offer in item.part.offers.items() if offer.driver == "build"]
        if built and item.line.id not in told:
            told.add(item.line.id)
            yield Observation(
                item.line.id, "note",
                f"The driver of {item.part.model} ({FUNCTIONS[built[0]].label}) is not in the "
                "standard image: it has to be built, and again after each update.",
                (item.line.id,),
            )  # fmt: skip


@rule(
    "SOFT-04", "fit", "Radios know their country",
    why="Channels and power differ by country; without the setting the radio stays off or breaks "
    "the law.",
    formula="a radio that is wanted has the country set at the first start",
    source="common practice; local radio law decides",
    reads=("requirements", "connected"),
)  # fmt: skip
def country(kit: Kit) -> Iterator[Observation]:
    """A radio that the purpose asks for."""
    if not any(requirement.function in _RADIOS for requirement in kit.plan.requirements):
        return
    radio = next((i for i in kit.connected if any(r in i.part.offers for r in _RADIOS)), None)
    if radio is not None:
        yield Observation(
            "country", "note",
            f"Set the country at the first start: {radio.name} has a radio, and its channels and "
            "power depend on it.",
            (radio.line.id,),
        )  # fmt: skip


@rule(
    "SOFT-05", "fit", "What is needed only for setting up is at hand",
    why="Nobody buys a screen for a box without one, and everybody needs one for an evening.",
    formula="a card wants a reader, a drive without a card something to write it with; an image "
    "with a desktop wants keyboard, mouse and screen",
    source="common practice",
    reads=("image", "items"),
)  # fmt: skip
def set_up(kit: Kit) -> Iterator[Observation]:
    """Tools that the kit does not have among what is borrowed."""
    wanted: list[SetUpTask] = []
    if any(i.part.kind == "card" for i in kit.items.of_role("boot_drive")):
        wanted.append("reader")
    elif any(i.part.drive is not None for i in kit.items.of_role("boot_drive")):
        wanted.append("writer")
    if kit.plan.image is not None and kit.plan.image.desktop:
        wanted += ["keyboard", "mouse", "screen"]
    there = {task for item in kit.items for task in item.part.sets_up}
    missing = [_TASKS[task] for task in wanted if task not in there]
    if missing:
        yield Observation(
            "tools", "note",
            f"For setting up you also need {words.listed(missing)}: borrow what you do not own.",
        )  # fmt: skip


@rule(
    "SOFT-06", "fit", "A slot runs at the rate it is certified for",
    why="Most slots run one generation faster than certified, until the cable is warm or bent "
    "another way.",
    formula="generation that is set <= generation that is certified",
    source="common practice",
    reads=(fit_of, "settings"),
    remedies=(certified_rate,),
)  # fmt: skip
def slot_rate(kit: Kit) -> Iterator[Observation]:
    """A slot in use that is set faster than its maker certifies."""
    if not kit.plan.settings.push_slot:
        return
    for plug, socket in fit_of(kit).placed.values():
        own = socket.socket
        if own.possible_generation > own.generation:
            yield Observation(
                socket.id, "tight",
                f"The {own.label or socket.name} of {socket.item.name} is certified for "
                f"generation {own.generation:g} and set to {own.possible_generation:g}. Soak it "
                f"before you trust it: fill {plug.item.name}'s drive three times over in the "
                "closed case on a warm day. Then compare every file, and look for link errors in "
                "the system log.",
                (socket.item.line.id, plug.item.line.id), (socket.id,),
            )  # fmt: skip


@rule(
    "SOFT-07", "fit", "Small parts are at hand",
    why="What is missing on the evening of the build is a wire, a resistor, a lead for the screen.",
    formula="buttons and LEDs by hand: wires and resistors; a picture that is asked for: its lead",
    source="common practice",
    reads=("connected", "requirements", "wired", fit_of, header_of),
)  # fmt: skip
def small_parts(kit: Kit) -> Iterator[Observation]:
    """One note for wires and resistors, one for the lead of a picture."""
    wired = header_of(kit).wired
    if wired:
        ohms = sorted(part.resistor_ohm for part in wired if part.resistor_ohm is not None)
        kinds = [f"{words.count(ohms.count(ohm), 'resistor')} of {ohm:g} Ω"
                 for ohm in dict.fromkeys(ohms)]  # fmt: skip
        also = f" and {words.few(kinds)}" if kinds else ""
        yield Observation(
            "wires", "note",
            f"For what is wired by hand you need {words.count(2 * len(wired), 'jumper wire')}"
            f"{also}.",
        )  # fmt: skip
    asked = any(requirement.function == "video_out" for requirement in kit.plan.requirements)
    sockets = [
        (item, socket) for item in kit.connected if item.part.kind == "board"
        for socket in item.part.sockets.values() if socket.connector.startswith("video-")
    ]  # fmt: skip
    led = any(socket.item.part.kind == "board" and socket.socket.connector.startswith("video-")
              for _, socket in fit_of(kit).placed.values())  # fmt: skip
    if asked and sockets and not led:
        board, socket = sockets[0]
        yield Observation(
            "picture", "note",
            f"No lead for its picture is in the kit: {board.name} has a "
            f"{words.connector(socket.connector)} socket.",
            (board.line.id,),
        )  # fmt: skip
