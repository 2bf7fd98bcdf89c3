"""Which drive lies in which bay of the case."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from cobblewort.core.aspects.fit.model import stack_of
from cobblewort.core.aspects.fit.stack import StackResult
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, firm
from cobblewort.core.parts.model import Bay
from cobblewort.core.plans.plan import NOT_OF_IT


@dataclass(slots=True, frozen=True)
class Bays:
    """Drives in their bays, by piece; those that found none, and the bays of their size left."""

    taken: dict[str, Bay] = field(default_factory=dict)
    without: list[tuple[Item, list[Bay]]] = field(default_factory=list)


STANDS_BESIDE = ("power_supply", "drive", "hub", "storage_adapter", "device")
"""Kinds of part that stand beside the case, unless they are made to be inside or lie in a bay."""


def outside_of(built: Items, bays: Bays) -> Iterator[Item]:
    """What lies outside the case. A camera looks out of it, or FIT-38 tells of it."""
    for item in built:
        part = item.part
        stands = part.kind in STANDS_BESIDE and item.line.role not in NOT_OF_IT
        if stands and not part.inside and item.id not in bays.taken and "camera" not in part.offers:
            yield item


@firm("connected", stack_of)
def bays_of(connected: Items, stack: StackResult) -> Bays:
    """2.5- and 3.5-inch drives, thickest first, each into the flattest bay that takes it."""
    found, case = Bays(), stack.case
    if case is None or case.part.case is None or not case.part.case.bays:
        return found
    free = [bay for bay in case.part.case.bays.values() for _ in range(bay.count)]
    free.sort(key=lambda bay: bay.thickness_mm)
    drives = [(i, i.part.drive) for i in connected if i.part.drive is not None]
    for item, drive in sorted(drives, key=lambda entry: entry[1].thickness_mm or 0, reverse=True):
        if "." not in drive.size:
            continue  # a module: it lies on its board
        thick = drive.thickness_mm or 0
        bay = next((b for b in free if b.size == drive.size and b.thickness_mm >= thick), None)
        if bay is None:
            found.without.append((item, [b for b in free if b.size == drive.size]))
        else:
            free.remove(bay)
            found.taken[item.id] = bay
    return found
