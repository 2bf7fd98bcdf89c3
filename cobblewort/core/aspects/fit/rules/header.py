"""Rules of the header: pins, addresses, levels, and what is wired by hand."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.aspects.fit.model import header_of, layers_of
from cobblewort.core.aspects.fit.pins import WiredPart, items_on_header
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another, remove_named
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.working import Sum, computed_term, plan_term, reading_term
from cobblewort.core.parts.model import PinHeader
from cobblewort.core.plans.patch import EditLine, Patch, SetFields
from cobblewort.core.standards import header

_BRIGHT_SHARE = 0.5
"""An LED at less than this of its current is seen to be dim: common practice."""
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
            bare = {**led.model_dump(), "made_for_v": None, "forward_v": 2.0,
                    "current_ma": min(led.current_ma, own.pin_ma.nominal / 2)}  # fmt: skip
            rest = [bare if w is led else w.model_dump() for w in kit.plan.wired]
            yield (SetFields(fields={"wired": rest}),)


def other_address(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Set a piece that can be moved to an address where nobody answers."""
    taken = set(header_of(kit).addresses)
    for item, use in items_on_header(kit.connected):
        if item.id not in finding.sockets:
            continue
        for address in use.addresses:
            if address not in taken:
                set_to = {**item.line.addresses, str(item.index): address}
                yield (EditLine(line=item.line.id, addresses=set_to),)


@rule(
    "FIT-12", "fit", "No header pin is wanted twice",
    why="Two parts on one pin disturb each other, or neither works; a fan that is steered by the "
    "pin of the audio clock is the usual pair.",
    formula="each pin has one user, or only users that share a bus, power or ground",
    source="pin functions as the parts state them; buses by the I2C and SPI conventions",
    reads=(header_of,),
    remedies=(free_pin, another("add_on"), remove_named),
)  # fmt: skip
def pins_once(kit: Kit) -> Iterator[Observation]:
    """One remark for each set of users that want the same pins."""
    used = header_of(kit)
    by_users: dict[tuple[str, ...], list[int]] = {}
    for pin in used.clashes:
        by_users.setdefault(tuple(u.id for u in used.users[pin]), []).append(pin)
    for ids, pins in by_users.items():
        users = used.users[pins[0]]
        names = words.few(user.name for user in users)
        which = words.listed(f"{pin} ({header.pin_name(pin)})" for pin in pins)
        yield Observation(
            f"pin{pins[0]}", "problem",
            f"{words.opening(names)} need the same header {'pins' if len(pins) > 1 else 'pin'}: "
            f"{which}.",
            tuple(dict.fromkeys(u.line for u in users if u.line)), ids,
        )  # fmt: skip


@rule(
    "FIT-13", "fit", "Every part on the I2C bus has an address of its own",
    why="Two parts that answer at one address answer at once; some can be set to another, some "
    "cannot.",
    formula="no 7-bit address is used twice on the bus of pins 3 and 5",
    source="I2C-bus specification, addressing (from memory)",
    reads=(header_of,),
    remedies=(other_address, another("add_on"), remove_named),
)  # fmt: skip
def addresses_differ(kit: Kit) -> Iterator[Observation]:
    """One remark for each address at which several pieces answer, and for one nobody can have."""
    for address, items in header_of(kit).addresses.items():
        if len(items) > 1:
            yield Observation(
                f"0x{address:02X}", "problem",
                f"{words.few(p.name for p in items)} answer at the same I2C "
                f"address, 0x{address:02X}.",
                tuple(dict.fromkeys(p.line.id for p in items)), tuple(p.id for p in items),
            )  # fmt: skip
        for item in items:
            can = item.part.pins.addresses if item.part.pins else ()
            if address not in can:
                yield Observation(
                    f"{item.id}.set", "problem",
                    f"{item.name} cannot be set to 0x{address:02X}; it can have "
                    f"{words.listed(f'0x{a:02X}' for a in can)}.",
                    (item.line.id,), (item.id,),
                )  # fmt: skip


@rule(
    "FIT-14", "fit", "The header can be reached",
    why="Pins that are not soldered in, or that a board above hides, take no wires.",
    formula="the board has its header fitted, and no stacked board hides it",
    source="maker's drawings",
    reads=(header_of, layers_of, "connected", "wired"),
    remedies=(another("add_on", "board"), remove_named),
)  # fmt: skip
def header_reached(kit: Kit) -> Iterator[Observation]:
    """Everything that uses pins, on a board without a header or under one that hides it."""
    board = header_of(kit).board
    if board is None:
        return
    users = [item for item, _ in items_on_header(kit.connected)]
    names = [*(p.name for p in users), *(w.label for w in kit.plan.wired)]
    lines = tuple(dict.fromkeys((board.line.id, *(p.line.id for p in users))))
    if not names:
        return
    own = board.part.pin_header
    if own is None or not own.fitted:
        missing = "has no header" if own is None else "comes without its header soldered in"
        yield Observation(
            "fitted", "problem",
            f"{board.name} {missing}, and {words.few(names)} "
            f"{'requirements' if len(names) == 1 else 'need'} its pins.",
            lines,
        )  # fmt: skip
    for cover in layers_of(kit).add_ons("above"):
        hidden = [p for p in users if p is not cover]
        own_add_on = cover.part.add_on
        if own_add_on is None or not own_add_on.covers_header:
            continue
        below = [*(p.name for p in hidden), *(w.label for w in kit.plan.wired)]
        if below:
            yield Observation(
                cover.id, "problem",
                f"{cover.name} lies over the header and does not pass it on: "
                f"{words.few(below)} cannot be reached there.",
                tuple(dict.fromkeys((cover.line.id, *(p.line.id for p in hidden)))),
            )  # fmt: skip


@rule(
    "FIT-15", "fit", "Nothing puts more than 3.3 V onto a pin",
    why="The pins stand 3.3 V and no more; a part that answers with 5 V destroys the board.",
    formula="signal voltage of the part <= 3.3 V",
    source="logic levels of 3.3 V inputs; common practice: level shifter or two resistors between",
    reads=("connected",),
    remedies=(another("add_on"), remove_named),
)  # fmt: skip
def levels(kit: Kit) -> Iterator[Observation]:
    """Parts with signals above the level of the header."""
    for item, use in items_on_header(kit.connected):
        if use.signal_v > header.SIGNAL_V:
            yield Observation(
                item.id, "problem",
                f"{item.name} puts {words.volts(use.signal_v)} onto its pins; the header "
                f"tolerates {words.volts(header.SIGNAL_V)}. Put a level shifter between.",
                (item.line.id,), (item.id,),
            )  # fmt: skip


@rule(
    "FIT-16", "fit", "An LED gets the voltage it is made for",
    why="An LED sold for 12 V only glows at 3.3 V, and one with no voltage to spare is never twice "
    "as bright as the next.",
    formula="3.3 V less the LED's forward voltage >= 0.5 V; an LED with its resistor built in "
    "takes I_rated (3.3 V - Vf) / (V_rated - Vf): below half of its current a note, dark below Vf",
    source="common practice",
    reads=(header_of,),
    remedies=(bare_led,),
)  # fmt: skip
def led_voltage(kit: Kit) -> Iterator[Observation]:
    """LEDs that are made for another voltage, or that leave the resistor hardly any."""
    for part in header_of(kit).wired:
        led, name = part.wired, words.opening(part.wired.label)
        if led.kind != "led":
            continue
        subject = f"wired.{led.id}"
        if led.made_for_v is not None:
            if part.current_ma <= 0:
                yield Observation(
                    subject, "problem",
                    f"{name} stays dark: it needs {words.volts(led.forward_v)}, and pin {led.pin} "
                    f"gives {words.volts(header.SIGNAL_V)}.",
                    sockets=(subject,),
                )  # fmt: skip
            elif part.current_ma < _BRIGHT_SHARE * led.current_ma:
                yield Observation(
                    subject, "note",
                    f"{name} is made for {led.made_for_v:g} V and glows dimly from pin {led.pin}: "
                    f"{part.current_ma:.1f} mA instead of {led.current_ma:g} mA.",
                    sockets=(subject,),
                )  # fmt: skip
            continue
        spare_v = header.SIGNAL_V - led.forward_v
        if spare_v <= 0:
            yield Observation(
                subject, "problem",
                f"{name} needs {words.volts(led.forward_v)} to light; pin {led.pin} gives "
                f"{words.volts(header.SIGNAL_V)}.",
                sockets=(subject,),
            )  # fmt: skip
        elif spare_v < _HEADROOM_V:
            yield Observation(
                subject, "note",
                f"Only {words.volts(spare_v)} are left for the resistor of {led.label}: its "
                "current will differ by a third from one LED to the next.",
                sockets=(subject,),
            )  # fmt: skip


@rule(
    "FIT-17", "fit", "The pins give the current that is asked of them",
    why="A pin is a signal, not a supply: above its current the level sags and the chip ages.",
    formula="(3.3 V - forward voltage) / resistor <= limit of a pin; the sum <= limit of all",
    source="class figures for the limits, from memory; Ohm's law",
    reads=(header_of,),
    remedies=(bare_led,),
)  # fmt: skip
def pin_current(kit: Kit) -> Iterator[Check]:
    """Each LED against the limit of a pin, and all of them against that of the header."""
    used = header_of(kit)
    board = used.board
    if board is None or board.part.pin_header is None:
        return
    own = board.part.pin_header
    lit = [part for part in used.wired if part.current_ma > 0]
    for part in lit:
        yield _one_pin(kit, part, board, own)
    if lit:
        yield _all_pins(kit, lit, board, own)


def _one_pin(kit: Kit, part: WiredPart, board: Item, own: PinHeader) -> Check:
    led = part.wired

    def sentence(margin: Margin) -> str:
        return (
            f"{words.opening(led.label)} takes {margin.value:.1f} mA from pin {led.pin}, which may "
            f"give {margin.limit:.1f} mA."
        )

    def working(_: int) -> Sum:
        limit = reading_term("I_pin", "limit of a pin", "mA", board, "pin_header.pin_ma",
                             own.pin_ma)  # fmt: skip
        if part.resistor_ohm is None:
            taken = plan_term("I_led", f"current of {led.label}", "mA", part.current_ma)
            return Sum("limit of a pin less what the LED takes", "I_pin - I_led", [limit, taken])
        return Sum(
            "limit of a pin less what the voltage over the resistor drives",
            "I_pin - (U_pin - U_led) / R * 1000",
            [
                limit,
                computed_term("U_pin", "level of the pin", "V", header.SIGNAL_V, None),
                plan_term("U_led", "forward voltage", "V", led.forward_v),
                computed_term("R", f"next value of {led.series}", "Ω", part.resistor_ohm, None),
            ],
        )

    return Check(
        f"wired.{led.id}", f"Current of {led.label}", "mA", "max",
        float(part.current_ma),
        board.compiled.figure("pin_header.pin_ma"), sentence, (),
        sockets=(f"wired.{led.id}",), lasting=(float(part.current_ma),), working=working,
    )  # fmt: skip


def _all_pins(kit: Kit, lit: list[WiredPart], board: Item, own: PinHeader) -> Check:
    together_ma = float(sum(part.current_ma for part in lit))

    def sentence(margin: Margin) -> str:
        return (
            f"All LEDs together take {margin.value:.1f} mA; the pins may give "
            f"{margin.limit:.1f} mA between them."
        )

    terms = [
        computed_term(f"I_{n}", part.wired.label, "mA", part.current_ma, None)
        for n, part in enumerate(lit, start=1)
    ]
    limit = reading_term("I_all", "limit of all pins", "mA", board, "pin_header.total_ma",
                         own.total_ma)  # fmt: skip

    def working(_: int) -> Sum:
        return Sum(
            "limit of all pins less what each LED takes",
            " - ".join(["I_all", *(t.symbol for t in terms)]), [limit, *terms],
        )  # fmt: skip

    return Check(
        "all", "Current of all pins", "mA", "max", together_ma,
        board.compiled.figure("pin_header.total_ma"), sentence, (),
        lasting=(together_ma,), working=working,
    )  # fmt: skip
