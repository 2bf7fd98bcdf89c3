"""Rules of image and drivers: is the image for this board, has it the drivers."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import Assignment
from cobblewort.core.aspects.fit.model import header_of
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.pins import HeaderResult
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.kit import Items, Kit
from cobblewort.core.judging.remedies import another
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import BOTHERS, FAILS, INFORMS, UNKNOWN
from cobblewort.core.parts.functions import FUNCTIONS
from cobblewort.core.parts.model import SetUpTask
from cobblewort.core.plans.patch import Patch, SetFields
from cobblewort.core.plans.plan import Image, NetworkOfPlace, Requirement, Settings
from cobblewort.core.text import say

_TASKS: dict[SetUpTask, str] = {
    "reader": "a card reader",
    "keyboard": "a keyboard",
    "mouse": "a mouse",
    "screen": "a screen with its cable",
    "writer": "an adapter to connect the drive to another computer, or a card to start from first",
}
_RADIOS = ("wifi", "access_point")


def certified_rate(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Leave the slot at the rate that its maker certifies."""
    del finding
    settings = {**kit.plan.settings.model_dump(), "push_slot": False}
    yield (SetFields(fields={"settings": settings}),)


@rule(
    "SOFT-01",
    "fit",
    "The image is made for the board",
    why="An image for another board family does not start and shows no error.",
    formula="family of the board is one of those of the image, where it names any",
    source="common practice",
    reads=("image", "connected"),
    remedies=(another("board"),),
    eased_by=("board", "boot_drive"),
)
def image_family(image: Image | None, connected: Items) -> Iterator[Observation]:
    """The image against the family of the board."""
    board = next(iter(connected.of_role("board")), None)
    if image is None or board is None or not image.families:
        return
    runs = board.part.runs
    if runs is None or not runs.family:
        yield Observation(
            "family",
            UNKNOWN,
            say(
                "Not checked: whether {image} starts on {board}. The board has no family value.",
                image=image.name,
                board=board.name,
            ),
            (board.line.id,),
        )
    elif runs.family.lower() not in {family.lower() for family in image.families}:
        yield Observation(
            "family",
            FAILS,
            say(
                "{image} is for the board family {families}; {board} ({family}) does not start "
                "from it.",
                image=image.name,
                families=words.listed(image.families),
                board=board.name,
                family=runs.family,
            ),
            (board.line.id,),
        )


@rule(
    "SOFT-02",
    "fit",
    "The processor has the word size of the image",
    why="A 64-bit image does not start on a 32-bit processor.",
    formula="word size of the image is one of those of the processor",
    source="common practice",
    reads=("image", "connected"),
    remedies=(another("board"),),
    eased_by=("board", "boot_drive"),
)
def word_size(image: Image | None, connected: Items) -> Iterator[Observation]:
    """The image's word size against the processor's."""
    board = next(iter(connected.of_role("board")), None)
    if image is None or board is None or image.bits is None or board.part.runs is None:
        return
    runs = board.part.runs
    if runs.bits and image.bits not in runs.bits:
        yield Observation(
            "bits",
            FAILS,
            say(
                "{image} is a {bits}-bit image; {board} runs {runs}-bit images only.",
                image=image.name,
                bits=image.bits,
                board=board.name,
                runs=words.listed(str(b) for b in runs.bits),
            ),
            (board.line.id,),
        )


@rule(
    "SOFT-03",
    "fit",
    "The standard image has every driver",
    why="A driver that is not in the image must be built at set-up and after each update.",
    formula="each function of a part has its driver in the standard image",
    source="what the parts state; common practice",
    reads=("connected",),
)
def drivers(connected: Items) -> Iterator[Observation]:
    """Parts whose driver is not in the standard image."""
    told = set()
    for item in connected:
        built = [name for name, offer in item.part.offers.items() if offer.driver == "build"]
        if built and item.line.id not in told:
            told.add(item.line.id)
            yield Observation(
                item.line.id,
                INFORMS,
                say(
                    "The standard image has no driver for {part} ({function}). Build it at "
                    "set-up and after each update.",
                    part=item.part.model,
                    function=FUNCTIONS[built[0]].label,
                ),
                (item.line.id,),
            )


@rule(
    "SOFT-04",
    "fit",
    "The Wi-Fi country is set",
    why="Channels and transmit power differ by country; without the setting Wi-Fi stays off or "
    "breaks the law.",
    formula="required Wi-Fi: the country is set at the first start",
    source="common practice; local radio law decides",
    reads=("requirements", "connected"),
)
def country(requirements: Sequence[Requirement], connected: Items) -> Iterator[Observation]:
    """Wi-Fi that the purpose requires."""
    if not any(requirement.function in _RADIOS for requirement in requirements):
        return
    radio = next((i for i in connected if any(r in i.part.offers for r in _RADIOS)), None)
    if radio is not None:
        yield Observation(
            "country",
            INFORMS,
            say(
                "Set the Wi-Fi country of {part} at the first start: channels and power depend "
                "on it.",
                part=radio.name,
            ),
            (radio.line.id,),
        )


@rule(
    "SOFT-05",
    "fit",
    "Everything needed for set-up is at hand",
    why="Some tools are needed only once, and without them set-up stops.",
    formula="a card needs a reader, a boot drive an adapter to write it; an image with a desktop "
    "needs keyboard, mouse and screen",
    source="common practice",
    reads=("image", "items", "place.network"),
    aside=True,
)
def set_up(image: Image | None, items: Items, network: NetworkOfPlace) -> Iterator[Observation]:
    """Tools that the kit does not have among what is borrowed."""
    wanted: list[SetUpTask] = []
    fetches = any(
        board.part.runs is not None and board.part.runs.fetches_image
        for board in items.of_role("board")
    )
    boot = [] if fetches and network in ("both", "ethernet") else items.of_role("boot_drive")
    if any(i.part.kind == "card" for i in boot):
        wanted.append("reader")
    elif any(i.part.drive is not None for i in boot):
        # A board that starts from a card writes its drive itself.
        wanted.append("reader" if any(i.part.kind == "card" for i in items) else "writer")
    if image is not None and image.desktop:
        wanted += ["keyboard", "mouse", "screen"]
    there = {task for item in items for task in item.part.sets_up}
    missing = [_TASKS[task] for task in wanted if task not in there]
    if missing:
        yield Observation(
            "tools",
            INFORMS,
            say("Set-up needs {tools}. Borrow what you do not own.", tools=words.listed(missing)),
        )


@rule(
    "SOFT-06",
    "fit",
    "The drive slot runs at its certified rate",
    why="A slot above its certified generation can cause errors when its cable is warm or bent.",
    formula="generation set <= generation certified",
    source="common practice",
    reads=(fit_of, "settings"),
    remedies=(certified_rate,),
)
def slot_rate(fit: Assignment, settings: Settings) -> Iterator[Observation]:
    """A slot in use that is set faster than its maker certifies."""
    if not settings.push_slot:
        return
    for plug, socket in fit.placed.values():
        own = socket.socket
        if own.possible_generation > own.generation:
            yield Observation(
                socket.id,
                BOTHERS,
                say(
                    "The {slot} of {board} is certified for Gen {certified} and set to Gen "
                    "{set}. Test it for a day first: fill the drive on {adapter} three times "
                    "with the case closed. Then compare every file and look for link errors in "
                    "the system log.",
                    slot=own.label or socket.name,
                    board=socket.item.name,
                    certified=f"{own.generation:g}",
                    set=f"{own.possible_generation:g}",
                    adapter=plug.item.name,
                ),
                (socket.item.line.id, plug.item.line.id),
                (socket.id,),
            )


@rule(
    "SOFT-07",
    "fit",
    "Wires, resistors and video cables are at hand",
    why="A missing wire or cable stops the build.",
    formula="buttons and LEDs wired by hand: wires and resistors; required video output: its cable",
    source="common practice",
    reads=("connected", "requirements", fit_of, header_of),
)
def small_parts(
    connected: Items, requirements: Sequence[Requirement], fit: Assignment, header: HeaderResult
) -> Iterator[Observation]:
    """One note for wires and resistors, one for the video cable."""
    wired = header.wired
    if wired:
        ohms = sorted(part.resistor_ohm for part in wired if part.resistor_ohm is not None)
        kinds = [
            f"{words.count(ohms.count(ohm), 'resistor')} of {ohm:g} Ω"
            for ohm in dict.fromkeys(ohms)
        ]
        also = f" and {words.few(kinds)}" if kinds else ""
        yield Observation(
            "wires",
            INFORMS,
            say(
                "The hand wiring needs {wires}{also}.",
                also=also,
                wires=words.count(2 * len(wired), "jumper wire"),
            ),
        )
    asked = any(requirement.function == "video_out" for requirement in requirements)
    sockets = [
        (item, socket)
        for item in connected
        if item.part.kind == "board"
        for socket in item.part.sockets.values()
        if socket.connector.startswith("video-")
    ]
    led = any(
        socket.item.part.kind == "board" and socket.socket.connector.startswith("video-")
        for _, socket in fit.placed.values()
    )
    if asked and sockets and not led:
        board, socket = sockets[0]
        yield Observation(
            "picture",
            INFORMS,
            say(
                "The kit has no video cable. {board} has a {size} port.",
                board=board.name,
                size=words.connector(socket.connector),
            ),
            (board.line.id,),
        )
