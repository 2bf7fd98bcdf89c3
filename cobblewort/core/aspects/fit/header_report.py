"""The header pin by pin, its bus, and the wires to make, for the drawing of it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from cobblewort.core.aspects.fit.pins import HeaderResult
from cobblewort.core.judging.item import Item
from cobblewort.core.standards import header

PinState = Literal["power_supply", "reserved", "free", "used", "shared", "clash"]


@dataclass(slots=True, frozen=True)
class HeaderPin:
    """One pin of the header: what it is for, in words and in a few letters.

    `state` is `supply` for power and ground, `reserved`, `free`, `used`, `shared` by several on a
    bus, or `clash`.
    """

    number: int
    name: str
    short: str
    state: PinState


@dataclass(slots=True, frozen=True)
class HeaderUser:
    """A part, or something wired by hand, and its pins: those it shares, those it wants alone."""

    id: str
    name: str
    line: str | None
    shares: tuple[int, ...]
    takes: tuple[int, ...]


@dataclass(slots=True, frozen=True)
class HeaderAddress:
    """An address on the I2C bus and who answers there: piece `index` of a line.

    `others` are addresses that it could be set to.
    """

    address: int
    item: str
    line: str
    index: int
    others: tuple[int, ...]


@dataclass(slots=True, frozen=True)
class WireReport:
    """One row of the wiring table: from a pin, through a resistor perhaps, to one or more ends."""

    pin: int
    pin_name: str
    through: str
    to: tuple[str, ...]


@dataclass(slots=True, frozen=True)
class WiredReport:
    """A button or LED wired by hand, worked out. [ohm], [mA]"""

    id: str
    resistor_ohm: float | None
    current_ma: float
    why: str


@dataclass(slots=True, frozen=True)
class HeaderReport:
    """The header as it is used. `why_not` is empty where the board has one with its pins fitted."""

    why_not: str
    pins: list[HeaderPin]
    users: list[HeaderUser]
    addresses: list[HeaderAddress]
    wires: list[WireReport]
    wired: list[WiredReport]


def header_report(used: HeaderResult) -> HeaderReport:
    """The header pin by pin, the I2C bus, and the wires to make."""
    board = used.board
    own = None if board is None else board.part.pin_header
    why_not = ""
    if own is None:
        why_not = "This board has no GPIO header." if board else "No board yet. Add one."
    elif not own.fitted:
        why_not = "The GPIO header of this board comes without soldered pins."
    clashes = set(used.clashes)
    pins = [
        HeaderPin(
            number,
            header.pin_name(number),
            header.short_name(number),
            _pin_state(number, len(used.users.get(number, ())), number in clashes),
        )
        for number in range(1, header.PINS + 1)
    ]
    users: dict[str, HeaderUser] = {}
    for number, of_pin in sorted(used.users.items()):
        for user in of_pin:
            seen = users.get(user.id, HeaderUser(user.id, user.name, user.line, (), ()))
            shares = seen.shares if user.alone else (*seen.shares, number)
            takes = (*seen.takes, number) if user.alone else seen.takes
            users[user.id] = replace(seen, shares=shares, takes=takes)
    addresses = [
        HeaderAddress(
            address,
            item.name,
            item.line.id,
            item.index,
            tuple(a for a in _addresses(item) if a != address),
        )
        for address, items in sorted(used.addresses.items())
        for item in items
    ]
    return HeaderReport(
        why_not=why_not,
        pins=pins,
        users=list(users.values()),
        addresses=addresses,
        wires=[WireReport(w.pin, header.pin_name(w.pin), w.through, w.to) for w in used.wires],
        wired=[WiredReport(w.wired.id, w.resistor_ohm, w.current_ma, w.why) for w in used.wired],
    )


def _addresses(item: Item) -> tuple[int, ...]:
    return item.part.pins.addresses if item.part.pins else ()


def _pin_state(number: int, users: int, clashes: bool) -> PinState:
    if clashes:
        return "clash"
    if number in header.POWER:
        return "power_supply"
    if users:
        return "shared" if users > 1 else "used"
    return "reserved" if number in header.RESERVED else "free"
