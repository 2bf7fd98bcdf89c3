"""Regular tasks for the owner of a finished kit, and how often."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from cobblewort.core.aspects.lifetime.wear import (
    BY_WRITING,
    DAYS_A_YEAR,
    Wearing,
    worn_of,
    written_of,
)
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.plans.plan import (
    NOT_OF_IT,
    Dust,
    NetworkOfPlace,
    Requirement,
    Retention,
    Transfer,
)


@dataclass(slots=True, frozen=True)
class Maintenance:
    """A thing to do: what, and every how many days, the first time after as many; `once` it is done
    for good.
    """

    id: str
    text: str
    every_days: int
    once: bool = False


_MONTH = 30
_BEFORE = 0.8
"""What wears is changed after so much of its typical life: a guess."""
_EVERY_MONTHS = {"clean": 12, "some": 6, "much": 3}
"""Filters and fins, by the dust of the place: from memory."""


@derived("connected", "transfers", "requirements", "place.network")
def on_a_network(
    connected: Items,
    transfers: Sequence[Transfer],
    requirements: Sequence[Requirement],
    network: NetworkOfPlace,
) -> bool:
    """Whether the kit is to be reached over a network, or reaches one."""
    if network == "none":
        return False
    ends = {end for transfer in transfers for end in (transfer.source, transfer.target)}
    wanted = {requirement.function for requirement in requirements}
    asked = bool(ends & {"network", "wifi", "access_point"}) or bool(
        wanted & {"ethernet", "wifi", "access_point"}
    )
    given = any(
        function in item.part.offers
        for item in connected
        if item.line.role not in NOT_OF_IT
        for function in ("ethernet", "wifi")
    )
    return asked and given


@derived(
    on_a_network,
    "items",
    "retention",
    "place.dust",
    "place.wet",
    written_of,
    worn_of,
)
def maintenance_of(
    on_a_network: bool,
    items: Items,
    retention: Retention,
    dust: Dust,
    wet: bool,
    written: list[Wearing],
    worn: list[Wearing],
) -> list[Maintenance]:
    """Everything that comes round, most often first."""
    wearing = [*written, *worn]
    found = [
        *_housekeeping(on_a_network, items, retention, dust, wet),
        *_replacements(wearing, retention.years),
    ]
    return sorted(found, key=lambda entry: (entry.every_days, entry.id))


def _housekeeping(
    on_a_network: bool, items: Items, retention: Retention, dust: Dust, wet: bool
) -> Iterator[Maintenance]:
    if on_a_network:
        yield Maintenance("updates", "Install updates and reboot", _MONTH)
    for copy in retention.backups:
        yield Maintenance(
            f"copy-{copy.id}", f"Back up to: {copy.text}", max(1, round(copy.every_days))
        )
    if retention.backups:
        yield Maintenance("restore", "Restore one file from each backup", 6 * _MONTH)
    if any(item.part.fan or (item.part.cooler and item.part.cooler.r_fan_k_w) for item in items):
        months = _EVERY_MONTHS[dust]
        yield Maintenance("dust", "Clean dust from fans, heat sinks and filters", months * _MONTH)
    boot = next((p for p in items.of_role("boot_drive") if p.part.storage is not None), None)
    if boot is not None:
        yield Maintenance("image", f"Save an image of {boot.part.model} elsewhere", 12 * _MONTH)
    if any("battery" in item.part.offers for item in items):
        yield Maintenance(
            "battery",
            "Run the kit on its battery until it shuts down, and note the time",
            12 * _MONTH,
        )
    if wet:
        yield Maintenance("water", "Check for water, rust and loose glands", 6 * _MONTH)


def _replacements(wearing: Sequence[Wearing], years_wanted: float) -> Iterator[Maintenance]:
    """What wears out before the kit is to be given up."""
    for thing in wearing:
        years = nominal(thing.years)
        if years < years_wanted:
            text = f"Replace {thing.label.removesuffix(BY_WRITING)}"
            due_days = max(_MONTH, int(years * DAYS_A_YEAR * _BEFORE))
            yield Maintenance(f"change-{thing.id}", text, due_days, once=True)
