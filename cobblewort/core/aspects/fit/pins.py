"""The header: who uses which pin, at which address, and how it is wired."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field

from cobblewort.core.judging.item import Item
from cobblewort.core.parts.model import PinUse
from cobblewort.core.plans.plan import Wired
from cobblewort.core.standards import header


@dataclass(slots=True, frozen=True)
class PinUser:
    """A part, or a button or LED wired by hand, on one pin. `alone` wants the pin for itself."""

    id: str
    name: str
    line: str | None
    alone: bool


@dataclass(slots=True, frozen=True)
class Wire:
    """A connection to make: from a pin of the header, through what, to where.

    Several ends are joined before the pin, which takes one wire.
    """

    pin: int
    through: str
    to: tuple[str, ...]


@dataclass(slots=True, frozen=True)
class WiredPart:
    """A button or LED with the resistor it wants. [ohm], [mA]

    `resistor_ohm` is None for a button, and for an LED that no resistor can help: `why` tells.
    """

    wired: Wired
    resistor_ohm: float | None
    current_ma: float
    why: str = ""


@dataclass(slots=True)
class HeaderResult:
    """What the header carries. `addresses` maps an I2C address to the pieces that answer there."""

    board: Item | None
    users: dict[int, list[PinUser]] = field(default_factory=dict)
    addresses: dict[int, list[Item]] = field(default_factory=dict)
    wired: list[WiredPart] = field(default_factory=list)
    wires: list[Wire] = field(default_factory=list)

    @property
    def clashes(self) -> list[int]:
        """Pins that more than one wants, one of them for itself."""
        return [
            pin
            for pin, users in sorted(self.users.items())
            if len(users) > 1 and any(user.alone for user in users)
        ]

    def free_pins(self) -> list[int]:
        """Pins that can be switched and that nobody uses, those without a second task first."""
        free = [n for n in range(1, header.PINS + 1) if header.is_signal(n) and n not in self.users]
        return sorted(free, key=lambda pin: (header.pin_name(pin) != "free use", pin))


def items_on_header(items: Sequence[Item]) -> list[tuple[Item, PinUse]]:
    """Every piece that uses pins."""
    return [(i, i.part.pins) for i in items if i.part.pins is not None]


def address_of(item: Item) -> int | None:
    """Where a piece answers on the I2C bus: as it is set, else as it is delivered."""
    use = item.part.pins
    if use is None or not use.addresses:
        return None
    return item.line.addresses.get(str(item.index), use.addresses[0])


def build_header(wires: Sequence[Wired], items: Sequence[Item]) -> HeaderResult:
    """Join what the parts and the plan put on the header of the first board."""
    board = next((i for i in items if i.part.kind == "board"), None)
    result = HeaderResult(board)
    users: dict[int, list[PinUser]] = defaultdict(list)
    addresses: dict[int, list[Item]] = defaultdict(list)
    ends: dict[tuple[int, str], list[str]] = defaultdict(list)
    for item, use in items_on_header(items):
        for pin, alone in [*((n, False) for n in use.shares), *((n, True) for n in use.takes)]:
            users[pin].append(PinUser(item.id, item.name, item.line.id, alone))
            if not use.plugs_on and item.part.add_on is None:
                ends[pin, ""].append(item.name)
        address = address_of(item)
        if address is not None:
            addresses[address].append(item)
    for wired in wires:
        users[wired.pin].append(PinUser(f"wired.{wired.id}", wired.label, None, True))
        part = _worked_out(wired)
        result.wired.append(part)
        for pin, through, end in _ends_of(part):
            ends[pin, through].append(end)
    result.wires = [Wire(*at, tuple(to)) for at, to in sorted(ends.items())]
    result.users, result.addresses = dict(users), dict(addresses)
    return result


def _worked_out(wired: Wired) -> WiredPart:
    if wired.kind == "button":
        return WiredPart(wired, None, 0.0)
    if wired.made_for_v is not None:
        current_ma = header.glow_ma(wired.current_ma, wired.made_for_v, wired.forward_v)
        why = "" if current_ma > 0 else "needs more current than the pin delivers"
        return WiredPart(wired, None, current_ma, why)
    if wired.forward_v >= header.SIGNAL_V:
        return WiredPart(wired, None, 0.0, "needs more current than the pin delivers")
    resistor = header.series_resistor_ohm(
        header.SIGNAL_V, wired.forward_v, wired.current_ma / 1000, wired.series
    )
    current_ma = (header.SIGNAL_V - wired.forward_v) / resistor * 1000
    return WiredPart(wired, resistor, current_ma)


def _ends_of(part: WiredPart) -> list[tuple[int, str, str]]:
    """Pin, what lies between, and where it ends, for both legs of a button or LED."""
    wired = part.wired
    ground = header.nearest_ground(wired.pin)
    if wired.kind == "button":
        return [
            (wired.pin, "", f"{wired.label}, either leg"),
            (ground, "", f"{wired.label}, the other leg"),
        ]
    through = "" if part.resistor_ohm is None else f"{part.resistor_ohm:g} Ω"
    return [
        (wired.pin, through, f"{wired.label}, long leg (+)"),
        (ground, "", f"{wired.label}, short leg, flat side (−)"),
    ]
