"""A plan with its parts looked up and its aspects worked out: what the rules look at."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from cobblewort.core.catalogue import Catalogue
from cobblewort.core.parts.compiled import CompiledPart
from cobblewort.core.parts.model import Part
from cobblewort.core.plan import Line, Plan

if TYPE_CHECKING:
    from cobblewort.core.cost.model import CostResult
    from cobblewort.core.fit.assign import Assignment
    from cobblewort.core.fit.stack import StackResult
    from cobblewort.core.heat.model import HeatResult
    from cobblewort.core.power.model import PowerResult


@dataclass(slots=True, frozen=True)
class Instance:
    """One piece of a line: `line#n`. `name` has its number where the line holds several."""

    id: str
    name: str
    line: Line
    part: Part
    compiled: CompiledPart
    index: int


@dataclass(slots=True)
class Kit:
    """Everything a rule may look at. Aspects are filled in the order fit, power, heat, cost."""

    plan: Plan
    catalogue: Catalogue
    samples: int
    instances: list[Instance]
    fit: Assignment
    stack: StackResult
    power: PowerResult
    heat: HeatResult
    cost: CostResult

    def of_role(self, role: str) -> list[Instance]:
        """The pieces on lines of one role, in kit order."""
        return [i for i in self.instances if i.line.role == role]


def expand(plan: Plan, catalogue: Catalogue, samples: int) -> list[Instance]:
    """The pieces of a plan, line by line.

    Raises
    ------
    UnknownPartError
        If a line names a part that the catalogue lacks; its place is the line.
    """
    instances = []
    for number, line in enumerate(plan.lines):
        part = catalogue.part(line.part, f"lines.{number}.part")
        compiled = catalogue.compiled(line.part, samples)
        instances += [
            Instance(
                f"{line.id}#{index}",
                part.model if line.quantity == 1 else f"{part.model} ({index})",
                line,
                part,
                compiled,
                index,
            )
            for index in range(1, line.quantity + 1)
        ]
    return instances
