"""What a complete kit is chosen from, role by role.

Each level offers options, the cheapest first: what one option adds to the kit. The order of levels
is that in which most is ruled out soonest: a board, media for data, what gives each function, a hub
or an extension, the power supply with its cable, a boot medium; case and cooler come last, as they
ease what the others cause.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property

from cobblewort.core.aspects.data.arrays import usable_gb
from cobblewort.core.aspects.purpose.model import required_capacity_gb
from cobblewort.core.changing.suggest.shop import FOUND_LATER, Shop, amount, capacity_gb, takes
from cobblewort.core.judging.remedies import inlets_of, joins
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.patch import AddLine, Change, SetFields
from cobblewort.core.plans.plan import Layout, Requirement, Role

_MOST_DISKS = 4
_ROLES: tuple[Role, ...] = (
    "board",
    "storage",
    "add_on",
    "boot_drive",
    "power_supply",
    "cable",
    "cooling",
    "case",
    "fastener",
)
_RADIOS = frozenset({"wifi", "access_point", "mesh_radio"})
"""Functions of a board that a case can spoil, so that a part outside may give them too."""


@dataclass(slots=True, frozen=True)
class Option:
    """Parts that are added together, each with its role and number; none where nothing is added.

    `price` is what they add to the bill of all copies.
    """

    parts: tuple[tuple[Role, Part, int], ...]
    price: Decimal
    layout: Layout | None = None

    @property
    def ids(self) -> tuple[str, ...]:
        """By what options of one price are ordered."""
        return tuple(f"{part.id}x{number}" for _, part, number in self.parts)


NOTHING = Option((), Decimal(0))
Chosen = tuple[Option, ...]
"""Options of the first levels, one each."""


class Choices:
    """The options of every level for one plan.

    `left_out` are parts that are not used, `pinned` the only ones for their role.
    """

    def __init__(
        self,
        shop: Shop,
        left_out: frozenset[str],
        pinned: dict[Role, str],
        without_case: bool,
        owned_only: bool,
    ) -> None:
        self.shop, self.left_out, self.pinned = shop, left_out, pinned
        self.without_case, self.owned_only = without_case, owned_only
        self.needs: list[Requirement] = [
            requirement
            for requirement in shop.wanted
            if requirement.function not in FOUND_LATER and requirement.function is not None
        ]
        self.hub_level = 2 + len(self.needs)
        self.supply_level, self.boot_level = self.hub_level + 1, self.hub_level + 2

    def _parts(self, role: Role) -> list[Part]:
        pinned = self.pinned.get(role)
        return [
            part
            for part in self.shop.on_offer(role)
            if part.id not in self.left_out
            and (pinned is None or part.id == pinned)
            and (not self.owned_only or part.id in self.shop.owned)
            and not self._is_unpriced(part)
        ]

    def _is_unpriced(self, part: Part) -> bool:
        return self.shop.price(part) is None

    @cached_property
    def unpriced(self) -> int:
        """How many parts are left out as their price in the plan's currency is not known."""
        return len(
            {
                part.id
                for role in _ROLES
                for part in self.shop.on_offer(role)
                if part.id not in self.left_out and self._is_unpriced(part)
            }
        )

    @cached_property
    def _offer(self) -> dict[Role, list[Part]]:
        return {role: self._parts(role) for role in _ROLES}

    def of(self, role: Role) -> list[Part]:
        """Parts on offer for a role."""
        return self._offer[role]

    @property
    def lacking(self) -> tuple[Role, ...]:
        """Roles that every kit needs and for which nothing is on offer."""
        needed: list[Role] = ["board", "power_supply", "boot_drive"]
        if not self.without_case:
            needed.append("case")
        return tuple(role for role in needed if not self.of(role))

    def option(self, *parts: tuple[Role, Part, int], layout: Layout | None = None) -> Option:
        """An option with its price."""
        plan, owned = self.shop.plan, self.shop.owned
        total = Decimal(0)
        for _, part, number in parts:
            price = plan.price_of(part) or Decimal(0)
            total += price * number * (plan.copies - (part.id in owned))
        return Option(parts, total, layout)

    def at_level(self, level: int, chosen: Chosen) -> list[Option]:
        """The options of a level after those of the levels before it, cheapest first."""
        if level == 0:
            found = [self.option(("board", part, 1)) for part in self.of("board")]
        elif level == 1:
            found = list(self._data(chosen))
        elif level < self.hub_level:
            found = list(self._giving(self.needs[level - 2], chosen))
        elif level == self.hub_level:
            found = list(self._hubs(chosen))
        elif level == self.supply_level:
            found = list(self._supplies(chosen))
        else:
            found = list(self._boot(chosen))
        return sorted(found, key=lambda option: (option.price, option.ids))

    def _data(self, chosen: Chosen) -> Iterator[Option]:
        """Data beside the system on the boot medium, or on drives with what joins them."""
        shop = self.shop
        data_gb = self._data_gb
        mirrored = "disk_failure" in shop.conditions
        wanted = mirrored or "storage" in self.pinned
        if not wanted and any(self._cards(data_gb)):
            yield NOTHING
        if not data_gb and not wanted:
            return
        layouts: list[Layout] = [shop.plan.storage_use.layout]
        if mirrored and "mirror" not in layouts:
            layouts.append("mirror")
        hosts = _hosts(parts_of(chosen))
        for layout in layouts:
            changed = None if layout == shop.plan.storage_use.layout else layout
            for drive in self.of("storage"):
                number = self._disks(layout, capacity_gb(drive), data_gb, mirrored)
                for adapters in self._adapters(drive, number, hosts):
                    lines = (*adapters, ("storage", drive, number))
                    yield self.option(*lines, layout=changed)

    def _disks(self, layout: Layout, size_gb: float, data_gb: float, mirrored: bool) -> int:
        """How many disks of one size hold so much, or 0 where too many would be needed."""
        least = 2 if mirrored else 1
        enough = (
            number
            for number in range(least, _MOST_DISKS + 1)
            if usable_gb(layout, [size_gb] * number) >= data_gb
        )
        return next(enough, 0)

    def _adapters(
        self, drive: Part, number: int, hosts: frozenset[str]
    ) -> Iterator[tuple[tuple[Role, Part, int], ...]]:
        """Nothing where drives plug into the board, or adapters of one kind for all of them."""
        if not number:
            return
        own = {c for plug in drive.plugs.values() for c in plug.connectors}
        if own & hosts:
            yield ()
        for adapter in self.of("add_on"):
            fit_in = takes(adapter, drive)
            reaches = any(set(plug.connectors) & hosts for plug in adapter.plugs.values())
            if adapter.kind == "storage_adapter" and fit_in and reaches:
                adapters: tuple[Role, Part, int] = ("add_on", adapter, -(-number // fit_in))
                yield (adapters,)
                yield from ((adapters, cable) for cable in self._between(adapter, hosts))

    def _between(self, part: Part, hosts: frozenset[str]) -> Iterator[tuple[Role, Part, int]]:
        """Each flat cable that may lie between a part and its connector, turned or longer."""
        for cable in self.of("cable"):
            ends = {s.connector for s in cable.sockets.values() if s.role == "host"} & _flat(part)
            if ends and _flat(cable) & hosts:
                yield ("cable", cable, 1)

    def _giving(self, need: Requirement, chosen: Chosen) -> Iterator[Option]:
        """Nothing where something there gives a function, else each part that does."""
        wanted = need.function
        if wanted is None:
            return
        there = sum(
            part.offers[wanted].count * number
            for _, part, number in parts_of(chosen)
            if wanted in part.offers and amount(part, wanted) >= (need.at_least or 0)
        )
        if wanted == "device_port":
            yield NOTHING
            splitters = [part for part in self.of("add_on") if part.splits_device_port]
            yield from (self.option(("add_on", part, 1)) for part in splitters)
            return
        givers = [part for part in self.of("add_on") if wanted in part.offers]
        if not givers:  # what only boards give, or an image: the rules say whether it is there
            yield NOTHING
            return
        missing = need.count - there
        if missing <= 0:
            yield NOTHING
            if wanted not in _RADIOS:
                return
        for part in givers:
            if amount(part, wanted) >= (need.at_least or 0):
                number = -(-max(missing, 1) // part.offers[wanted].count)
                yield self.option(("add_on", part, number))
                for cable in self._between(part, _hosts(parts_of(chosen))):
                    yield self.option(("add_on", part, number), cable)

    def _hubs(self, chosen: Chosen) -> Iterator[Option]:
        """Nothing between; or each hub or extension, where there is something to plug into it."""
        yield NOTHING
        if any(
            connector.startswith("usb")
            for _, part, _ in parts_of(chosen)
            if part.kind != "board"
            for plug in part.plugs.values()
            for connector in plug.connectors
        ):
            hubs = (part for part in self.of("add_on") if part.kind == "hub")
            yield from (self.option(("add_on", hub, 1)) for hub in hubs)
            yield from (self.option(("cable", one, 1)) for one in self.of("cable") if _extends(one))

    def _boot(self, chosen: Chosen) -> Iterator[Option]:
        """Each card that holds the image, and the data where there are no drives for them."""
        on_drives = any(role == "storage" for role, _, _ in parts_of(chosen))
        for card in self._cards(0.0 if on_drives else self._data_gb):
            yield self.option(("boot_drive", card, 1))

    def _cards(self, data_gb: float) -> Iterator[Part]:
        """Each card that holds the image and so much data."""
        image = self.shop.plan.image
        least_gb = data_gb + (image.card_gb if image is not None else 0.0)
        for part in self.of("boot_drive"):
            if part.kind == "card" and capacity_gb(part) >= least_gb:
                yield part

    @cached_property
    def _data_gb(self) -> float:
        """Room that the needs ask for. [GB]"""
        shop = self.shop
        asked = (required_capacity_gb(need, shop.plan.schedule) for need in shop.wanted)
        return max(asked, default=0.0)

    def _supplies(self, chosen: Chosen) -> Iterator[Option]:
        """Each power supply that the place can feed, alone or with each cable that joins it."""
        inlets = inlets_of(part for _, part, _ in parts_of(chosen))
        there = {name for _, part, _ in parts_of(chosen) for name in part.offers}
        for supply in self._feeding:
            if not self.shop.given_by_supply <= supply.offers.keys() | there:
                continue
            if supply.plugs:
                yield self.option(("power_supply", supply, 1))
                continue
            for cable in self.of("cable"):
                if joins(cable, supply, inlets):
                    yield self.option(("power_supply", supply, 1), ("cable", cable, 1))

    @cached_property
    def _feeding(self) -> list[Part]:
        """Power supplies for what the location has, and for what only a power supply can give."""
        feeds, wanted = self.shop.feeds(), self.shop.given_by_supply
        others = [part for role in ("board", "add_on") for part in self.of(role)]
        wanted = {name for name in wanted if not any(name in part.offers for part in others)}
        return [
            supply
            for supply in self.of("power_supply")
            if (source := supply.source) is not None
            and source.power_source in feeds
            and not supply.inside
            and wanted <= supply.offers.keys()
        ]

    @cached_property
    def shells(self) -> list[Option]:
        """Case and cooler together, cheapest first."""
        coolers: list[tuple[tuple[Role, Part, int], ...]] = []
        if "cooling" not in self.pinned:
            coolers.append(())
        coolers += [(("cooling", part, 1),) for part in self.of("cooling")]
        cases: list[tuple[tuple[Role, Part, int], ...]] = [
            (("case", part, 1),) for part in self.of("case") if self.shop.houses(part)
        ]
        if self.without_case:
            cases = [()]
        found = [self.option(*case, *cooler) for case in cases for cooler in coolers]
        return sorted(found, key=lambda option: (option.price, option.ids))

    @cached_property
    def least_after(self) -> tuple[Decimal, ...]:
        """What the levels from each one on cost at least, the case with its cooler included.

        Levels at which nothing need be added count nothing.
        """
        needs = [self._least_giving(need) for need in self.needs]
        shell = min((option.price for option in self.shells), default=Decimal(0))
        supply = self._least("power_supply", self._feeding)
        boot = self._least("boot_drive", self._cards(0.0))
        after_hub = supply + boot + shell
        after_data = (after_hub + sum(needs[place:]) for place in range(len(needs) + 1))
        with_data = after_hub + sum(needs)
        board = self._least("board", self.of("board"))
        return board + with_data, with_data, *after_data, after_hub, boot + shell, shell

    def _least_giving(self, need: Requirement) -> Decimal:
        """What the parts for a function cost at least, where what is there for other reasons gives
        none of it.
        """
        wanted = need.function
        others = {other.function for other in self.needs} - {wanted}
        add_ons = (
            part
            for part in self.of("add_on")
            if part.kind in ("storage_adapter", "hub") or others & part.offers.keys()
        )
        beside = (*self.of("board"), *self.of("storage"), *add_ons)
        if wanted is None or any(wanted in part.offers for part in beside):
            return Decimal(0)
        return min((option.price for option in self._giving(need, ())), default=Decimal(0))

    def _least(self, role: Role, parts: Iterable[Part]) -> Decimal:
        prices = [self.option((role, part, 1)).price for part in parts]
        return min(prices, default=Decimal(0))

    def changes(self, chosen: Iterable[Option]) -> Iterator[Change]:
        """The options as changes to an empty plan."""
        for option in chosen:
            if option.layout is not None:
                yield SetFields(fields={"storage_use": {"layout": option.layout}})
            for role, part, number in option.parts:
                owned = part.id in self.shop.owned
                yield AddLine(role=role, part=part.id, quantity=number, owned=owned)


def parts_of(chosen: Sequence[Option]) -> Iterator[tuple[Role, Part, int]]:
    """All parts of some options."""
    for option in chosen:
        yield from option.parts


def _flat(part: Part) -> set[str]:
    """Connectors of a part that flat cables have."""
    plugs = (plug for plug in part.plugs.values() if plug.contacts is not None)
    return {connector for plug in plugs for connector in plug.connectors}


def _extends(cable: Part) -> bool:
    """Whether a cable brings a USB port away from the board."""
    brings = (s.connector for s in cable.sockets.values() if s.role == "host")
    return cable.panel_hole is None and any(connector.startswith("usb") for connector in brings)


def _hosts(parts: Iterable[tuple[Role, Part, int]]) -> frozenset[str]:
    """Connectors of ports into which something can be plugged."""
    return frozenset(
        socket.connector
        for _, part, _ in parts
        for socket in part.sockets.values()
        if socket.role == "host"
    )
