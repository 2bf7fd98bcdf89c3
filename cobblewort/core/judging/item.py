"""The items of a plan: its lines with their parts looked up."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from cobblewort.core.errors import UnknownPartError
from cobblewort.core.parts.compiled import CompiledPart
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Line, Plan

_NOUNS = {
    "cooler": "cooler",
    "power_supply": "power supply",
    "card": "memory card",
    "case": "case",
    "cable": "cable",
    "hub": "hub",
    "storage_adapter": "storage adapter",
}
"""What a part is called behind its model in a sentence, by its kind; boards, drives and what is
added stand by their model alone."""


@dataclass(slots=True, frozen=True, eq=False)
class Item:
    """One item of a line: `line#n`. Not changed once made, and the same as no other one.

    `name` has its number where the line holds several; `order` counts through the kit.
    """

    id: str
    name: str
    line: Line
    part: Part
    compiled: CompiledPart
    index: int
    order: int = 0

    @property
    def the(self) -> str:
        """As it stands in a sentence: `the Steeple cooler`, `Kerb 1T #2`."""
        noun = _NOUNS.get(self.part.kind)
        if noun is None or self.line.quantity > 1:
            return self.name
        if self.part.origin == "typical":
            return f"the {self.name[:1].lower()}{self.name[1:]}"
        return f"the {self.name} {noun}"


def expand(
    plan: Plan,
    catalogue: Catalogue,
    samples: int,
    like: Iterable[Item] = (),
    same_catalogue: bool = False,
) -> list[Item]:
    """The items of a plan, line by line.

    Of `like`, the items of another kit, those are taken over whose line is untouched and whose
    part and place in the kit are the same; with the `same_catalogue` a line has the same part.

    Raises
    ------
    UnknownPartError
        If a line names a part that the catalogue lacks; its place is the line.
    """
    items: list[Item] = []
    known: dict[str, list[Item]] = {}
    for item in like:
        known.setdefault(item.line.id, []).append(item)
    for number, line in enumerate(plan.lines):
        first, old = len(items), known.get(line.id)
        if old and same_catalogue and old[0].line is line and old[0].order == first:
            items += old  # as most
            continue
        try:
            compiled = catalogue.compiled(catalogue.of_line(line), samples)
        except UnknownPartError:
            raise UnknownPartError(f"lines.{number}.part", line.part) from None
        part, name, quantity = compiled.part, line.id, line.quantity
        if (
            old
            and old[0].order == first
            and old[0].compiled is compiled
            # To compare two lines takes long.
            and (old[0].line is line or old[0].line == line)
        ):
            items += old
        elif quantity == 1:
            items.append(Item(f"{name}#1", part.model, line, part, compiled, 1, first))
        else:
            items += [
                Item(
                    f"{name}#{index}",
                    f"{part.model} #{index}",
                    line,
                    part,
                    compiled,
                    index,
                    first + index - 1,
                )
                for index in range(1, quantity + 1)
            ]
    return items
