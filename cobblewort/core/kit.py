"""A plan with its parts looked up and its aspects worked out: what the rules look at."""

from __future__ import annotations

from dataclasses import dataclass

from cobblewort.core.catalogue import Catalogue
from cobblewort.core.cost.model import CostResult
from cobblewort.core.fit.assign import Assignment
from cobblewort.core.fit.boxes import Space
from cobblewort.core.fit.fasteners import Fastener
from cobblewort.core.fit.pins import HeaderResult
from cobblewort.core.fit.stack import StackResult
from cobblewort.core.heat.model import HeatResult
from cobblewort.core.instance import Instance
from cobblewort.core.needs.model import NeedResult
from cobblewort.core.noise.model import NoiseResult
from cobblewort.core.plan import Plan
from cobblewort.core.power.model import PowerResult


@dataclass(slots=True)
class Kit:
    """Everything a rule may look at, filled in the order fit, power, heat, cost, noise, needs."""

    plan: Plan
    catalogue: Catalogue
    samples: int
    instances: list[Instance]
    fit: Assignment
    stack: StackResult
    space: Space
    fasteners: list[Fastener]
    header: HeaderResult
    power: PowerResult
    heat: HeatResult
    cost: CostResult
    noise: NoiseResult
    needs: list[NeedResult]

    def of_role(self, role: str) -> list[Instance]:
        """The pieces on lines of one role, in kit order."""
        return [i for i in self.instances if i.line.role == role]
