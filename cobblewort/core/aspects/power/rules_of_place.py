"""Rules of supply that look at the place: what feeds it there, and for how long."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.aspects.power.daily_energy import (
    DARKEST_MONTH_WH_WP,
    USABLE_BATTERY_SHARE,
    battery_hours,
    darkest_yield_wh_wp,
    day_energy_wh,
    in_use,
)
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another_supply, on_offer, place_with
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.working import Sum, Term, computed_term, standard_term
from cobblewort.core.parts.functions import FunctionId
from cobblewort.core.parts.model import Feed
from cobblewort.core.plans.patch import AddLine, Patch
from cobblewort.core.plans.plan import FEEDS_AT, NOT_OF_IT

_PLACE_HAS = {
    "mains": "mains", "poe": "power over the network lead", "vehicle": "a vehicle's supply",
    "battery": "a battery", "solar": "the sun",
}  # fmt: skip


def _sources(kit: Kit) -> Iterator[Item]:
    for item in kit.connected:
        if item.part.source is not None and item.line.role not in NOT_OF_IT:
            yield item


def has_its_power(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """The place has what the supply feeds on."""
    for item in _sources(kit):
        if item.line.id in finding.lines and item.part.source is not None:
            yield place_with(kit, power=item.part.source.power_source)


@rule(
    "PWR-09", "power", "It is fed by what its place has",
    why="A mains supply is no use in a vehicle, nor a splitter for network power where the switch "
    "gives none.",
    formula="what the supply takes its power from is among what the place has",
    source="common practice",
    reads=("requirements", "connected", "place.power", power_of),
    remedies=(another_supply, has_its_power),
)  # fmt: skip
def fed_by_its_place(kit: Kit) -> Iterator[Observation]:
    """Each source that feeds on something else than its place has, or empties without need."""
    has = kit.plan.place.power
    off_mains = any(
        requirement.condition == "without_mains" for requirement in kit.plan.requirements
    )
    asked = {
        requirement.function
        for requirement in kit.plan.requirements
        if requirement.function is not None
    }
    for item in _sources(kit):
        source = item.part.source
        if source is not None and _ASKED_BY.get(source.power_source) in asked:
            continue  # a plan that asks for a vehicle's power has one
        if source is not None and source.power_source not in FEEDS_AT[has]:
            yield Observation(
                item.id, "problem",
                f"{item.name} runs on {_PLACE_HAS[source.power_source]}; its place has "
                f"{_PLACE_HAS[has]}.",
                (item.line.id,),
            )  # fmt: skip
        elif source is not None and source.power_source == "battery" and not _is_charged(
            kit, item
        ) and not (
            off_mains or has in ("battery", "solar")
        ):  # fmt: skip
            yield Observation(
                item.id, "tight",
                f"{item.name} empties and has to be charged, while its place has "
                f"{_PLACE_HAS[has]}.",
                (item.line.id,),
            )  # fmt: skip


_ASKED_BY: dict[Feed, FunctionId] = {
    "vehicle": "vehicle_power", "solar": "solar", "battery": "battery",
}  # fmt: skip
"""Functions by which a plan says itself what it is to be fed by."""


def _is_charged(kit: Kit, item: Item) -> bool:
    """Whether something feeds a battery while it feeds the kit."""
    source = item.part.source
    place = None if source is None else power_of(kit).forest.index(f"{item.id}.{source.rail}")
    return place is not None and power_of(kit).nodes[place].parent >= 0


def _amount(kit: Kit, function: FunctionId) -> tuple[float, tuple[str, ...]]:
    """How much of a function the pieces of the kit give together, and their lines."""
    total, lines = 0.0, []
    for item in kit.connected:
        offer = item.part.offers.get(function)
        if offer is not None and item.line.role not in NOT_OF_IT:
            total += offer.amount or 0.0
            lines.append(item.line.id)
    return total, tuple(dict.fromkeys(lines))


def _fed(kit: Kit) -> FloatArray | None:
    """Energy of a day, where there is any to tell. [Wh]"""
    power = power_of(kit)
    energy_wh = day_energy_wh(kit.plan, power)
    return energy_wh if power.feeds_every_board() and energy_wh[0] > 0 else None


def more_sun(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A first supply with a panel where there is none."""
    del finding
    if not kit.connected.of_role("power_supply"):
        for part in on_offer(kit, ("power_supply",)):
            if "solar" in part.offers:
                yield (AddLine(role="power_supply", part=part.id),)


@rule(
    "PWR-10", "power", "The sun gives enough in the darkest month",
    why="A panel that does well in June gives a sixth of that in December, and the kit draws the "
    "same on every day of the year.",
    formula="panel x yield of a day in the darkest month x what a battery gives back >= energy of "
    "a day",
    source="yield at 50 degrees north, tilted south, net of dirt: typical, from memory",
    reads=(power_of, "schedule", "connected", "place.power"),
    remedies=(another_supply, more_sun),
)  # fmt: skip
def sun_is_enough(kit: Kit) -> Iterator[Check | Observation]:
    """What the panel gives on a day of December against what the kit takes of it."""
    if kit.plan.place.power != "solar":
        return
    panel_wp, lines = _amount(kit, "solar")
    energy_wh = _fed(kit)
    if energy_wh is None:
        return
    if not lines:
        yield Observation(
            "panel", "note",
            f"Nothing in the kit takes in the sun: {energy_wh[0]:.0f} Wh a day must come from "
            "somewhere.",
        )  # fmt: skip
        return

    def sentence(margin: Margin) -> str:
        return (
            f"On a day of December a panel of {panel_wp:g} W gives {margin.value:.0f} Wh that can "
            f"be used; the kit takes {margin.limit:.0f} Wh."
        )

    def working(state: int) -> Sum:
        del state
        darkest = DARKEST_MONTH_WH_WP
        origin = "typical, from memory"
        return Sum(
            "what the panel gives in December through the battery, less what a day takes",
            "P * y * k - E",
            [
                Term("P", "panel", panel_wp, "Wp", "datasheet", words.listed(lines), None),
                Term("y", "a day of December at 50° north, for each watt of panel",
                     darkest.nominal, "Wh/Wp", darkest.basis, origin, None),
                standard_term("k", "given back by battery and converter", "",
                              USABLE_BATTERY_SHARE, origin),
                computed_term("E", "taken on a day", "Wh", float(energy_wh[0]), None),
            ],
        )  # fmt: skip

    given_wh = panel_wp * darkest_yield_wh_wp(kit.samples) * USABLE_BATTERY_SHARE
    yield Check(
        "panel", "Energy on a day of December", "Wh", "min", given_wh, energy_wh, sentence, lines,
        span=max(1.0, nominal(energy_wh)), working=working,
    )  # fmt: skip


def _always_on(kit: Kit) -> bool:
    """Whether the day has no hour in which it is off."""
    return sum(p.hours for p in kit.plan.schedule if p.activity != "off" or p.lines) > 23.9


@rule(
    "PWR-11", "power", "How long the battery lasts",
    why="What runs on a battery is only as good as the evening on which somebody charges it.",
    formula="hours of use = capacity x usable share / mean power while it is on",
    source="usable share of a lithium cell and its converter: typical, from memory",
    reads=(power_of, "schedule", "connected", "place.power"),
)  # fmt: skip
def battery_lasts(kit: Kit) -> Iterator[Observation]:
    """A note with the hours, where a battery feeds it; that there is none, where one should."""
    if kit.plan.place.power not in ("battery", "solar"):
        return
    battery_wh, lines = _amount(kit, "battery")
    energy_wh = _fed(kit)
    if energy_wh is None or not lines:
        return
    hours = battery_hours(kit.plan, power_of(kit), battery_wh)
    if hours is None:
        return
    told = f"{hours:.1f} hours" if hours < 10 else f"{hours:.0f} hours"
    told = told if hours < 72 else f"{hours / 24:.0f} days"
    used = {phase.name for phase in in_use(kit.plan, power_of(kit))}
    if not _always_on(kit):
        told += f" of {used.pop()}" if len(used) == 1 else " of use"
    alone = "Without any sun its" if kit.plan.place.power == "solar" else "Its"
    yield Observation(
        "battery", "note",
        f"{alone} battery of {battery_wh:g} Wh lasts about {told} at {energy_wh[0]:.0f} Wh a day; "
        "in the cold less.",
        lines,
    )  # fmt: skip
