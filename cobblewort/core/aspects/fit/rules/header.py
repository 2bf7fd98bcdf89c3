"""Rules of the header: pins, addresses, levels, and what is wired by hand."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from cobblewort.core import words
from cobblewort.core.aspects.fit.model import header_of, layers_of
from cobblewort.core.aspects.fit.pins import HeaderResult, WiredPart, items_on_header
from cobblewort.core.aspects.fit.stack import Layers
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another, remove_named
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import BOTHERS, FAILS, INFORMS
from cobblewort.core.judging.working import Sum, computed_term, plan_term, reading_term
from cobblewort.core.parts.model import PinHeader
from cobblewort.core.plans.patch import EditLine, Patch, SetFields
from cobblewort.core.plans.plan import Wired
from cobblewort.core.standards import header
from cobblewort.core.text import Figure, Text, say

_BRIGHT_SHARE = 0.5
"""An LED at less than this of its current is seen to be dim: common practice."""
_SEEN_SHARE = 0.2
"""And at less than this to be dark, in a room with a window: common practice."""
_HEADROOM_V = 0.5
"""Below this the current follows every scatter of the LED: common practice."""


def free_pin(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Wire a button or LED of the plan to a pin that nobody uses."""
    free = header_of(kit).free_pins()[:3]
    for part in kit.plan.wired:
        if f"wired.{part.id}" in finding.sockets:
            for pin in free:
                moved = [
                    {**other.model_dump(), "pin": pin} if other is part else other.model_dump()
                    for other in kit.plan.wired
                ]
                yield (SetFields(fields={"wired": moved}),)


def bare_led(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A bare LED in place of one made for another voltage, with half the current a pin gives."""
    board = header_of(kit).board
    own = None if board is None else board.part.pin_header
    if own is None:
        return
    for led in kit.plan.wired:
        if f"wired.{led.id}" in finding.sockets:
            bare = {
                **led.model_dump(),
                "made_for_v": None,
                "forward_v": 2.0,
                "current_ma": min(led.current_ma, own.pin_ma.nominal / 2),
            }
            rest = [bare if w is led else w.model_dump() for w in kit.plan.wired]
            yield (SetFields(fields={"wired": rest}),)


def other_address(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Set an item that can be moved to an address where nobody answers."""
    taken = set(header_of(kit).addresses)
    for item, use in items_on_header(kit.connected):
        if item.id not in finding.sockets:
            continue
        for address in use.addresses:
            if address not in taken:
                set_to = {**item.line.addresses, str(item.index): address}
                yield (EditLine(line=item.line.id, addresses=set_to),)


@rule(
    "FIT-12",
    "fit",
    "No GPIO pin is used twice",
    why="Two parts on one pin disturb each other or do not work; a fan control and the audio clock "
    "are the usual pair.",
    formula="each pin has one user, or only users that share a bus, power or ground",
    source="pin functions as the parts state them; buses by the I2C and SPI conventions",
    reads=(header_of,),
    remedies=(free_pin, another("add_on"), remove_named),
    eased_by=("board", "add_on"),
)
def pins_once(used: HeaderResult) -> Iterator[Observation]:
    """One observation for each set of users that want the same pins."""
    by_users: dict[tuple[str, ...], list[int]] = {}
    for pin in used.clashes:
        by_users.setdefault(tuple(u.id for u in used.users[pin]), []).append(pin)
    for ids, pins in by_users.items():
        users = used.users[pins[0]]
        names = words.few(user.name for user in users)
        which = words.listed(f"{pin} ({header.pin_name(pin)})" for pin in pins)
        yield Observation(
            f"pin{pins[0]}",
            FAILS,
            say(
                "{names} use the same GPIO {pins}: {which}.",
                names=words.opening(names),
                pins="pins" if len(pins) > 1 else "pin",
                which=which,
            ),
            tuple(dict.fromkeys(u.line for u in users if u.line)),
            ids,
        )


@rule(
    "FIT-13",
    "fit",
    "Every part on the I2C bus has its own address",
    why="Two parts with the same address answer at once. Some can be set to another address.",
    formula="no 7-bit address is used twice on the bus of pins 3 and 5",
    source="I2C-bus specification, addressing (from memory)",
    reads=(header_of,),
    remedies=(other_address, another("add_on"), remove_named),
    eased_by=("board", "add_on"),
)
def addresses_differ(result: HeaderResult) -> Iterator[Observation]:
    """One observation for each address at which several items answer, and for one out of range."""
    for address, items in result.addresses.items():
        if len(items) > 1:
            yield Observation(
                f"0x{address:02X}",
                FAILS,
                say(
                    "{names} have the same I2C address, {address}.",
                    names=words.few(p.name for p in items),
                    address=f"0x{address:02X}",
                ),
                tuple(dict.fromkeys(p.line.id for p in items)),
                tuple(p.id for p in items),
            )
        for item in items:
            can = item.part.pins.addresses if item.part.pins else ()
            if address not in can:
                yield Observation(
                    f"{item.id}.set",
                    FAILS,
                    say(
                        "{item} cannot be set to {address}; its addresses are {can}.",
                        item=item.name,
                        address=f"0x{address:02X}",
                        can=words.listed(f"0x{a:02X}" for a in can),
                    ),
                    (item.line.id,),
                    (item.id,),
                )


@rule(
    "FIT-14",
    "fit",
    "The GPIO header is reachable",
    why="A header that is not soldered in, or is covered by a board, cannot be used.",
    formula="the board has its GPIO header fitted, and no stacked board covers it",
    source="maker's drawings",
    reads=(header_of, layers_of, "connected", "wired"),
    remedies=(another("add_on", "board"), remove_named),
)
def header_reached(
    result: HeaderResult, layers: Layers, connected: Items, wired: Sequence[Wired]
) -> Iterator[Observation]:
    """Everything that uses pins, on a board without a header or under one that hides it."""
    board = result.board
    if board is None:
        return
    users = [item for item, _ in items_on_header(connected)]
    names = [*(p.name for p in users), *(w.label for w in wired)]
    lines = tuple(dict.fromkeys((board.line.id, *(p.line.id for p in users))))
    if not names:
        return
    own = board.part.pin_header
    if own is None or not own.fitted:
        missing = "has no GPIO header" if own is None else "comes without a soldered GPIO header"
        yield Observation(
            "fitted",
            FAILS,
            say(
                "{board} {missing}; {names} {need} its pins.",
                board=board.name,
                missing=missing,
                names=words.few(names),
                need="needs" if len(names) == 1 else "need",
            ),
            lines,
        )
    for cover in layers.add_ons("above"):
        hidden = [p for p in users if p is not cover]
        own_add_on = cover.part.add_on
        if own_add_on is None or not own_add_on.covers_header:
            continue
        below = [*(p.name for p in hidden), *(w.label for w in wired)]
        if below:
            yield Observation(
                cover.id,
                FAILS,
                say(
                    "{cover} covers the GPIO header and does not pass it through: {names} cannot "
                    "be connected.",
                    cover=cover.name,
                    names=words.few(below),
                ),
                tuple(dict.fromkeys((cover.line.id, *(p.line.id for p in hidden)))),
            )


@rule(
    "FIT-15",
    "fit",
    "No part puts more than 3.3 V on a GPIO pin",
    why="GPIO pins accept at most 3.3 V; 5 V destroys the board.",
    formula="signal voltage of the part <= 3.3 V",
    source="logic levels of 3.3 V inputs; common practice: level shifter or two resistors between",
    reads=("connected",),
    remedies=(another("add_on"), remove_named),
    eased_by=("board", "add_on"),
)
def levels(connected: Items) -> Iterator[Observation]:
    """Parts with signals above the level of the header."""
    for item, use in items_on_header(connected):
        if use.signal_v > header.SIGNAL_V:
            yield Observation(
                item.id,
                FAILS,
                say(
                    "{item} outputs {output}; GPIO pins accept at most {limit}. Add a level "
                    "shifter.",
                    item=item.name,
                    output=Figure(use.signal_v, "V", 1),
                    limit=Figure(header.SIGNAL_V, "V", 1),
                ),
                (item.line.id,),
                (item.id,),
            )


def _stays_dark(led: Wired) -> Observation:
    subject = f"wired.{led.id}"
    return Observation(
        subject,
        BOTHERS,
        say(
            "{led} stays dark: it needs {needs}; GPIO pin {pin} supplies {gives}.",
            led=words.opening(led.label),
            needs=Figure(led.forward_v, "V", 1),
            pin=led.pin,
            gives=Figure(header.SIGNAL_V, "V", 1),
        ),
        sockets=(subject,),
    )


@rule(
    "FIT-16",
    "fit",
    "Each LED gets its rated voltage",
    why="A 12 V LED stays dim at 3.3 V, and an LED with little spare voltage varies in brightness.",
    formula="3.3 V less the LED's forward voltage >= 0.5 V; an LED with its resistor built in "
    "takes I_rated (3.3 V - Vf) / (V_rated - Vf): below half of its current a note, below a fifth "
    "tight",
    source="common practice",
    reads=(header_of,),
    remedies=(bare_led,),
    eased_by=("board", "add_on"),
)
def led_voltage(result: HeaderResult) -> Iterator[Observation]:
    """LEDs that are made for another voltage, or that leave the resistor hardly any."""
    for part in result.wired:
        led, name = part.wired, words.opening(part.wired.label)
        if led.kind != "led":
            continue
        subject = f"wired.{led.id}"
        if led.made_for_v is not None:
            if part.current_ma <= 0:
                yield _stays_dark(led)
            elif part.current_ma < _SEEN_SHARE * led.current_ma:
                yield Observation(
                    subject,
                    BOTHERS,
                    say(
                        "{led} stays nearly dark on GPIO pin {pin}: it is rated for {rated} and "
                        "draws {draws} instead of {full}.",
                        led=name,
                        pin=led.pin,
                        rated=words.counted(led.made_for_v, "V"),
                        draws=words.milliamps(part.current_ma),
                        full=words.milliamps(led.current_ma),
                    ),
                    sockets=(subject,),
                )
            elif part.current_ma < _BRIGHT_SHARE * led.current_ma:
                yield Observation(
                    subject,
                    INFORMS,
                    say(
                        "{led} is dim on GPIO pin {pin}: it is rated for {rated} and draws {draws} "
                        "instead of {full}.",
                        led=name,
                        pin=led.pin,
                        rated=words.counted(led.made_for_v, "V"),
                        draws=words.milliamps(part.current_ma),
                        full=words.milliamps(led.current_ma),
                    ),
                    sockets=(subject,),
                )
            continue
        spare_v = header.SIGNAL_V - led.forward_v
        if spare_v <= 0:
            yield _stays_dark(led)
        elif spare_v < _HEADROOM_V:
            yield Observation(
                subject,
                INFORMS,
                say(
                    "The resistor of {led} has only {spare}: the current varies by about a third "
                    "between LEDs.",
                    led=led.label,
                    spare=words.volts(spare_v),
                ),
                sockets=(subject,),
            )


@rule(
    "FIT-17",
    "fit",
    "Each GPIO pin supplies the current of its LED",
    why="Above its current limit the voltage of a pin falls and the processor can be damaged.",
    formula="(3.3 V - forward voltage) / resistor <= limit of a pin; the sum <= limit of all pins",
    source="typical values for the limits, from memory; Ohm's law",
    reads=(header_of,),
    remedies=(bare_led,),
    eased_by=("board", "add_on"),
)
def pin_current(used: HeaderResult) -> Iterator[Check]:
    """Each LED against the limit of a pin, and all of them against that of the header."""
    board = used.board
    if board is None or board.part.pin_header is None:
        return
    own = board.part.pin_header
    lit = [part for part in used.wired if part.current_ma > 0]
    for part in lit:
        yield _one_pin(part, board, own)
    if lit:
        yield _all_pins(lit, board, own)


def _one_pin(part: WiredPart, board: Item, own: PinHeader) -> Check:
    led = part.wired

    def sentence(margin: Margin) -> Text:
        shown, limit = words.apart(words.milliamps, margin.value, margin.limit)
        return say(
            "{led} draws {shown} from GPIO pin {pin}; its limit is {limit}.",
            led=words.opening(led.label),
            shown=shown,
            pin=led.pin,
            limit=limit,
        )

    def working(_: int) -> Sum:
        limit = reading_term(
            "I_pin", "limit of a pin", "mA", board, "pin_header.pin_ma", own.pin_ma
        )
        if part.resistor_ohm is None:
            taken = plan_term("I_led", f"current of {led.label}", "mA", part.current_ma)
            return Sum(
                "limit of a pin less the current of the LED", "I_pin - I_led", [limit, taken]
            )
        return Sum(
            "limit of a pin less the current through the resistor",
            "I_pin - (U_pin - U_led) / R * 1000",
            [
                limit,
                computed_term("U_pin", "level of the pin", "V", header.SIGNAL_V, None),
                plan_term("U_led", "forward voltage", "V", led.forward_v),
                computed_term(
                    "R", f"next value of the {led.series} series", "Ω", part.resistor_ohm, None
                ),
            ],
        )

    return Check(
        f"wired.{led.id}",
        f"Current of {led.label}",
        "mA",
        "max",
        float(part.current_ma),
        board.compiled.figure("pin_header.pin_ma"),
        sentence,
        (),
        sockets=(f"wired.{led.id}",),
        lasting=float(part.current_ma),
        working=working,
    )


def _all_pins(lit: list[WiredPart], board: Item, own: PinHeader) -> Check:
    together_ma = float(sum(part.current_ma for part in lit))

    def sentence(margin: Margin) -> Text:
        shown, limit = words.apart(words.milliamps, margin.value, margin.limit)
        return say(
            "All LEDs together draw {shown} from the GPIO pins; the limit is {limit}.",
            shown=shown,
            limit=limit,
        )

    terms = [
        computed_term(f"I_{n}", part.wired.label, "mA", part.current_ma, None)
        for n, part in enumerate(lit, start=1)
    ]
    limit = reading_term(
        "I_all", "limit of all pins", "mA", board, "pin_header.total_ma", own.total_ma
    )

    def working(_: int) -> Sum:
        return Sum(
            "limit of all pins less the current of each LED",
            " - ".join(["I_all", *(t.symbol for t in terms)]),
            [limit, *terms],
        )

    return Check(
        "all",
        "Current of all pins",
        "mA",
        "max",
        together_ma,
        board.compiled.figure("pin_header.total_ma"),
        sentence,
        (),
        lasting=together_ma,
        working=working,
    )
