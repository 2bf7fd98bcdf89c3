"""The pieces of a plan: its lines with their parts looked up."""

from __future__ import annotations

from dataclasses import dataclass

from cobblewort.core.catalogue import Catalogue
from cobblewort.core.parts.compiled import CompiledPart
from cobblewort.core.parts.model import Part
from cobblewort.core.plan import Line, Plan


@dataclass(slots=True, frozen=True)
class Instance:
    """One piece of a line: `line#n`. `name` has its number where the line holds several.

    `order` counts through the kit.
    """

    id: str
    name: str
    line: Line
    part: Part
    compiled: CompiledPart
    index: int
    order: int = 0


def expand(plan: Plan, catalogue: Catalogue, samples: int) -> list[Instance]:
    """The pieces of a plan, line by line.

    Raises
    ------
    UnknownPartError
        If a line names a part that the catalogue lacks; its place is the line.
    """
    instances: list[Instance] = []
    for number, line in enumerate(plan.lines):
        part = catalogue.of_line(line, f"lines.{number}.part")
        compiled = catalogue.compiled(part, samples)
        instances += [
            Instance(
                f"{line.id}#{index}",
                part.model if line.quantity == 1 else f"{part.model} ({index})",
                line,
                part,
                compiled,
                index,
                len(instances) + index - 1,
            )
            for index in range(1, line.quantity + 1)
        ]
    return instances
