"""What kits are put together from: the catalogue as seen from one plan."""

from __future__ import annotations

from decimal import Decimal

from cobblewort.core.aspects.purpose.model import SPOILED_BY
from cobblewort.core.parts.functions import FunctionId
from cobblewort.core.parts.model import Feed, Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import (
    FEEDS_AT,
    KINDS_FOR_ROLE,
    Condition,
    Plan,
    Requirement,
    Role,
)
from cobblewort.core.standards import enclosures

FOUND_LATER: frozenset[FunctionId] = frozenset(
    {"storage", "recording", "vehicle_power", "battery", "solar", "memory", "users"}
)
"""What board, media and power supply give, which are no add-ons."""


_OF_SUPPLIES: frozenset[FunctionId] = frozenset({"vehicle_power", "battery", "solar"})


class Shop:
    """The catalogue for one plan: what stands its location, what is owned, what it costs."""

    def __init__(self, plan: Plan, catalogue: Catalogue, owned: frozenset[str]) -> None:
        self.plan, self.catalogue, self.owned = plan, catalogue, owned
        self.wanted = [
            requirement for requirement in plan.requirements if requirement.function is not None
        ]
        self.conditions: set[Condition] = {
            requirement.condition for requirement in plan.requirements if requirement.condition
        }
        self._spoiling = [SPOILED_BY[name] for name in SPOILED_BY if name in self.conditions]

    def price(self, part: Part) -> Decimal | None:
        """What a part adds to the bill of one copy: nothing where it is owned; None if unknown."""
        return Decimal(0) if part.id in self.owned else self.plan.price_of(part)

    def on_offer(self, role: Role) -> list[Part]:
        """Parts for a role that stand the location and spoil no required condition.

        What costs nothing is nothing that a shop sells: it counts only where it is owned, or where
        another machine is there to feed the kit.
        """
        place = self.plan.place
        return [
            part
            for part in self.catalogue.parts(KINDS_FOR_ROLE[role])
            if part.origin != "typical"
            and (part.price != 0 or part.id in self.owned or self._is_there(part))
            and (part.ambient_min_c is None or part.ambient_min_c <= place.ambient_min_c)
            and (part.ambient_max_c is None or part.ambient_max_c >= place.ambient_max_c)
            and not any(spoils(part) for spoils in self._spoiling)
        ]

    def _is_there(self, part: Part) -> bool:
        own, has = part.source, self.plan.place.power
        return own is not None and own.power_source == has == "machine"

    def feeds(self) -> tuple[Feed, ...]:
        """What a power supply may take its power from."""
        asked = {requirement.function for requirement in self.wanted}
        if "vehicle_power" in asked:
            return ("vehicle",)
        if "solar" in asked:
            return ("solar",)
        has = self.plan.place.power
        return FEEDS_AT[has] if any(map(_of_battery, self.plan.requirements)) else (has,)

    @property
    def given_by_supply(self) -> set[FunctionId]:
        """Functions of which the power supply has to be the giver, unless an add-on is."""
        wanted = {need.function for need in self.wanted}
        found = {name for name in _OF_SUPPLIES if name in wanted}
        return found | {"battery"} if "without_mains" in self.conditions else found

    def houses(self, case: Part) -> bool:
        """Whether a case stands the location and the hands that reach it."""
        own, place = case.case, self.plan.place
        if own is None or (place.wet and own.ip_water < enclosures.SPLASHING):
            return False
        if place.dust == "much" and own.ip_solid < enclosures.DUST_PROTECTED:
            return False
        reached = "children" in self.conditions or place.within_reach_of == "children"
        return not (own.open and reached)


def amount(part: Part, function: FunctionId) -> float:
    """How much of a function a part gives, in its unit; 0 where nobody says."""
    offer = part.offers.get(function)
    return 0.0 if offer is None or offer.amount is None else offer.amount


def capacity_gb(part: Part) -> float:
    """What a part stores. [GB]"""
    return 0.0 if part.storage is None else part.storage.capacity_gb


def takes(adapter: Part, drive: Part) -> int:
    """How many of a drive a storage adapter takes."""
    connectors = {c for plug in drive.plugs.values() for c in plug.connectors}
    form = drive.drive
    if form is None:
        return 0
    return sum(
        socket.role == "host"
        and socket.connector in connectors
        and (not socket.lengths or form.size in socket.lengths)
        and (not socket.protocols or form.protocol in socket.protocols)
        for socket in adapter.sockets.values()
    )


def _of_battery(requirement: Requirement) -> bool:
    """Whether a requirement is about what a power supply holds or takes in."""
    return requirement.condition == "without_mains" or requirement.function in ("battery", "solar")
