"""Rules of power that look at the location: its power source, and for how long it lasts."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from cobblewort.core import words
from cobblewort.core.aspects.power.daily_energy import (
    USABLE_BATTERY_SHARE,
    USUAL_LATITUDE_DEG,
    battery_hours,
    darkest_month,
    darkest_yield_wh_wp,
    day_energy_wh,
    in_use,
)
from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another_supply, on_offer, place_with
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import BOTHERS, FAILS, INFORMS
from cobblewort.core.judging.working import Sum, Term, computed_term, standard_term
from cobblewort.core.labels import POWER_AT
from cobblewort.core.parts.functions import FunctionId
from cobblewort.core.parts.model import Feed
from cobblewort.core.plans.patch import AddLine, Patch
from cobblewort.core.plans.plan import FEEDS_AT, NOT_OF_IT, Phase, Requirement
from cobblewort.core.text import Figure, Text, say


def _sources(connected: Items) -> Iterator[Item]:
    for item in connected:
        if item.part.source is not None and item.line.role not in NOT_OF_IT:
            yield item


def has_its_power(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """The place has what the supply feeds on."""
    for item in _sources(kit.connected):
        if item.line.id in finding.lines and item.part.source is not None:
            yield place_with(kit, power=item.part.source.power_source)


@rule(
    "PWR-09",
    "power",
    "The power supply suits the power source at the location",
    why="A mains power supply cannot be used in a vehicle, nor a PoE splitter where there is no "
    "PoE.",
    formula="power source of the power supply is one that the location has",
    source="common practice",
    reads=("requirements", "connected", "place.power", power_of),
    remedies=(another_supply, has_its_power),
    eased_by=("board", "power_supply", "cable", "add_on", "other_equipment"),
)
def fed_by_its_place(
    requirements: Sequence[Requirement], connected: Items, has: Feed, power: PowerResult
) -> Iterator[Observation]:
    """Each source that feeds on something else than its place has, or empties without need."""
    off_mains = any(requirement.condition == "without_mains" for requirement in requirements)
    asked = {
        requirement.function for requirement in requirements if requirement.function is not None
    }
    for item in _sources(connected):
        source = item.part.source
        if source is not None and _ASKED_BY.get(source.power_source) in asked:
            continue  # a plan that asks for a vehicle's power has one
        if source is not None and source.power_source not in FEEDS_AT[has]:
            yield Observation(
                item.id,
                FAILS,
                say(
                    "{supply} runs on {needs}; the location has {has}.",
                    supply=words.opening(item.the),
                    needs=POWER_AT[source.power_source],
                    has=POWER_AT[has],
                ),
                (item.line.id,),
            )
        elif (
            source is not None
            and source.power_source == "battery"
            and not _is_charged(power, item)
            and not (off_mains or has in ("battery", "solar"))
        ):
            yield Observation(
                item.id,
                BOTHERS,
                say(
                    "{supply} runs empty and must be recharged, although the location has {has}.",
                    supply=words.opening(item.the),
                    has=POWER_AT[has],
                ),
                (item.line.id,),
            )


_ASKED_BY: dict[Feed, FunctionId] = {
    "vehicle": "vehicle_power",
    "solar": "solar",
    "battery": "battery",
}
"""Functions by which a plan says itself which power source it has."""


def _is_charged(power: PowerResult, item: Item) -> bool:
    """Whether something feeds a battery while it feeds the kit."""
    source = item.part.source
    place = None if source is None else power.forest.index(f"{item.id}.{source.rail}")
    return place is not None and power.nodes[place].parent >= 0


def _amount(connected: Items, function: FunctionId) -> tuple[float, tuple[str, ...]]:
    """How much of a function the items of the kit give together, and their lines."""
    total, lines = 0.0, []
    for item in connected:
        offer = item.part.offers.get(function)
        if offer is not None and item.line.role not in NOT_OF_IT:
            total += offer.amount or 0.0
            lines.append(item.line.id)
    return total, tuple(dict.fromkeys(lines))


def _fed(power: PowerResult, schedule: Sequence[Phase]) -> FloatArray | None:
    """Energy of a day, where there is any to tell. [Wh]"""
    energy_wh = day_energy_wh(schedule, power)
    return energy_wh if power.feeds_every_board() and energy_wh[0] > 0 else None


def more_sun(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A first supply with a panel where there is none."""
    del finding
    if not kit.connected.of_role("power_supply"):
        for part in on_offer(kit, ("power_supply",)):
            if "solar" in part.offers:
                yield (AddLine(role="power_supply", part=part.id),)


@rule(
    "PWR-10",
    "power",
    "The solar panel delivers enough in the darkest month",
    why="At 50° of latitude a panel delivers in December about a sixth of its yield in June, and "
    "the kit draws the same all year.",
    formula="panel x daily yield in the darkest month x battery efficiency >= energy per day",
    source="yield by latitude, tilted to the equator, net of dirt, warmth, wire and controller: "
    "typical, from memory",
    reads=(
        power_of,
        "schedule",
        "connected",
        "place.power",
        "place.latitude_deg",
        "samples",
    ),
    remedies=(another_supply, more_sun),
    eased_by=("board", "power_supply", "cable", "add_on", "other_equipment"),
)
def sun_is_enough(
    power: PowerResult,
    schedule: Sequence[Phase],
    connected: Items,
    power_source: Feed,
    latitude_deg: float | None,
    samples: int,
) -> Iterator[Check | Observation]:
    """What the panel gives on a day of the darkest month against what the kit takes of it."""
    if power_source != "solar":
        return
    panel_wp, lines = _amount(connected, "solar")
    energy_wh = _fed(power, schedule)
    if energy_wh is None:
        return
    if not lines:
        yield Observation(
            "panel",
            INFORMS,
            say(
                "The kit has no solar panel; it draws {energy} per day. Add one.",
                energy=words.watt_hours(float(energy_wh[0])),
            ),
        )
        return

    month = darkest_month(latitude_deg)
    at_deg = abs(USUAL_LATITUDE_DEG if latitude_deg is None else latitude_deg)
    of_panel = darkest_yield_wh_wp(latitude_deg, samples)

    def sentence(margin: Margin) -> Text:
        given, taken = words.apart(words.watt_hours, margin.value, margin.limit)
        return say(
            "The {panel} solar panel delivers {given} per day in {month}; the kit draws {taken}.",
            panel=words.counted(panel_wp, "W"),
            month=month,
            given=given,
            taken=taken,
        )

    def working(state: int) -> Sum:
        del state
        origin = "typical, from memory"
        return Sum(
            f"energy of the panel in {month} after battery losses, less the energy per day",
            "P * y * k - E",
            [
                Term("P", "panel", panel_wp, "Wp", "datasheet", words.listed(lines), None),
                Term(
                    "y",
                    f"yield of a day in {month} at {at_deg:g}° of latitude, per watt of panel",
                    float(of_panel[0]),
                    "Wh/Wp",
                    "typical",
                    origin,
                    None,
                ),
                standard_term(
                    "k", "efficiency of battery and converter", "", USABLE_BATTERY_SHARE, origin
                ),
                computed_term("E", "energy per day", "Wh", float(energy_wh[0]), None),
            ],
        )

    given_wh = panel_wp * of_panel * USABLE_BATTERY_SHARE
    yield Check(
        "panel",
        f"Solar energy per day in {month}",
        "Wh",
        "min",
        given_wh,
        energy_wh,
        sentence,
        lines,
        span=max(1.0, nominal(energy_wh)),
        working=working,
    )


def _always_on(schedule: Sequence[Phase]) -> bool:
    """Whether the day has no hour in which it is off."""
    return sum(p.hours for p in schedule if p.activity != "off" or p.lines) > 23.9


@rule(
    "PWR-11",
    "power",
    "The battery runtime is known",
    why="A kit on a battery stops when the battery is empty.",
    formula="hours of use = capacity x usable share / mean power while it is on",
    source="usable share of a lithium cell and its converter: typical, from memory",
    reads=(power_of, "schedule", "connected", "place.power"),
    eased_by=("board", "power_supply", "cable", "add_on", "other_equipment"),
)
def battery_lasts(
    power: PowerResult, schedule: Sequence[Phase], connected: Items, power_source: Feed
) -> Iterator[Observation]:
    """A note with the hours, where a battery powers it; that there is none, where one should."""
    if power_source not in ("battery", "solar"):
        return
    battery_wh, lines = _amount(connected, "battery")
    energy_wh = _fed(power, schedule)
    if energy_wh is None or not lines:
        return
    hours = battery_hours(schedule, power, battery_wh)
    if hours is None:
        return
    told = Figure(hours, "hours", 1 if hours < 10 else 0)
    told = told if hours < 72 else Figure(hours / 24, "days")
    used = {phase.name for phase in in_use(schedule, power)}
    use = ""
    if not _always_on(schedule):
        use = f" of “{used.pop()}”" if len(used) == 1 else " of use"
    alone = " without sun" if power_source == "solar" else ""
    yield Observation(
        "battery",
        INFORMS,
        say(
            "The {capacity} battery lasts about {time}{use}{alone} at {energy} per day; less in "
            "the cold.",
            capacity=words.counted(battery_wh, "Wh"),
            time=told,
            use=use,
            alone=alone,
            energy=words.watt_hours(float(energy_wh[0])),
        ),
        lines,
    )
