"""What a kit weighs: the box with all that is in it or plugged into it."""

from __future__ import annotations

from collections.abc import Sequence

from cobblewort.core.judging.item import Item
from cobblewort.core.parts.model import Case
from cobblewort.core.plans.plan import NOT_OF_IT


def counts(item: Item) -> bool:
    """Whether a piece is carried with the box: supplies and leads outside it stay on the table."""
    if item.line.role in NOT_OF_IT or item.part.kind == "cable":
        return False
    return item.part.inside or item.part.kind != "power_supply"


def mass_g(item: Item) -> float | None:
    """Mass of one piece: as stated, or of the walls of a case; None where it is not known. [g]"""
    if item.part.mass_g is not None:
        return item.part.mass_g.nominal
    return None if item.part.case is None else _walls_g(item.part.case)


def _walls_g(case: Case) -> float | None:
    """Six closed walls; openings and vents hardly make them lighter."""
    if case.wall_g_cm3 is None:
        return None
    inner = (case.inner_length_mm, case.inner_width_mm, case.inner_height_mm)
    filled = hollow = 1.0
    for side in inner:
        hollow *= side
        filled *= side + 2 * case.wall_mm
    return (filled - hollow) / 1000 * case.wall_g_cm3.nominal


def kit_mass_g(items: Sequence[Item]) -> tuple[float, list[Item]]:
    """What is known of the mass, and the pieces of which it is not. [g]"""
    known, unknown = 0.0, []
    for item in filter(counts, items):
        own = mass_g(item)
        if own is None:
            unknown.append(item)
        else:
            known += own
    return known, unknown
