"""The list of aspects, and the report of an evaluated plan: what drawings, exports and tests read.

A new aspect is added here, to `ASPECTS` and, where it has a part of the report, to `Report`. Lists
by state stand in the order of the `states` beside them.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from pydantic import WithJsonSchema

from cobblewort.core.aspects.cost.aspect import ASPECT as COST
from cobblewort.core.aspects.cost.report import CostReport
from cobblewort.core.aspects.data.aspect import ASPECT as DATA
from cobblewort.core.aspects.data.report import DataReport
from cobblewort.core.aspects.fit.aspect import ASPECT as FIT
from cobblewort.core.aspects.fit.report import FitReport
from cobblewort.core.aspects.heat.aspect import ASPECT as HEAT
from cobblewort.core.aspects.heat.report import HeatReport
from cobblewort.core.aspects.lifetime.aspect import ASPECT as LIFETIME
from cobblewort.core.aspects.lifetime.report import LifetimeReport
from cobblewort.core.aspects.noise.aspect import ASPECT as NOISE
from cobblewort.core.aspects.noise.report import NoiseReport
from cobblewort.core.aspects.power.aspect import ASPECT as POWER
from cobblewort.core.aspects.power.report import PowerReport
from cobblewort.core.aspects.purpose.aspect import ASPECT as REQUIREMENTS
from cobblewort.core.aspects.purpose.report import RequirementReport
from cobblewort.core.aspects.safety.aspect import ASPECT as SAFETY
from cobblewort.core.aspects.software.aspect import ASPECT as SOFTWARE
from cobblewort.core.judging.aspect import Aspect
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.margin import Margin
from cobblewort.core.judging.rules import RULES, Rule
from cobblewort.core.judging.severity import Severity
from cobblewort.core.verdict.lines import LineReport, NextStep

ASPECTS: tuple[Aspect, ...] = (
    REQUIREMENTS,
    FIT,
    SOFTWARE,
    POWER,
    HEAT,
    DATA,
    LIFETIME,
    COST,
    NOISE,
    SAFETY,
)
"""In the order in which people read them."""
RULERS = tuple(aspect for aspect in ASPECTS if aspect.ruler == aspect.id)
"""Those with a ruler of their own."""
RulerId = Annotated[
    str, WithJsonSchema({"type": "string", "enum": [aspect.id for aspect in RULERS]})
]
Family = Annotated[
    str,
    WithJsonSchema(
        {"type": "string", "enum": list(dict.fromkeys(aspect.family for aspect in ASPECTS))}
    ),
]
"""A ruler, or what is told without one."""
_PLACES = {aspect.family: place for place, aspect in reversed(list(enumerate(ASPECTS)))}


def rules_in_order() -> list[Rule]:
    """Every rule by aspect and number. Raises KeyError for a rule whose family is no aspect's."""
    return sorted(RULES.values(), key=lambda rule: (_PLACES[rule.family], rule.id))


@dataclass(slots=True, frozen=True)
class FamilyWorstCase:
    """How a family stands with everything at once: its tightest margin there, in its own unit."""

    margin: str
    label: str
    spare: float
    unit: str
    ruler_share: float


@dataclass(slots=True, frozen=True)
class FamilyReport:
    """One ruler: the worst of its family.

    Where `checked` is false no rule has anything to look at, and `why_not` says what is missing.
    `margin` is the tightest one in what is planned, `finding` the worst finding; a finding without
    a number has no margin and is shown by its mark and sentence. `spare`, in `unit`, the `ruler_`
    shares and `planned`, its severity, are those of the margin. `worst_case` is the tightest of all
    margins with everything at once, where any of them knows states.
    """

    id: RulerId
    label: str
    checked: bool
    severity: Severity
    planned: Severity
    margin: str | None
    finding: str | None
    spare: float | None
    unit: str
    ruler_share: float | None
    ruler_p05: float | None
    ruler_p95: float | None
    worst_case: FamilyWorstCase | None
    why_not: str


@dataclass(slots=True, frozen=True)
class Report:
    """A plan, judged. `severity` is the worst there is; `done` are notes that were ticked, `aside`
    what every kit of its kind has to mind.
    """

    plan: str
    samples: int
    severity: Severity
    families: list[FamilyReport]
    margins: list[Margin]
    findings: list[Finding]
    done: list[Finding]
    aside: list[Finding]
    purpose: list[RequirementReport]
    lines: list[LineReport]
    fit: FitReport
    power: PowerReport
    heat: HeatReport
    data: DataReport
    lifetime: LifetimeReport
    cost: CostReport
    noise: NoiseReport
    next_step: NextStep

    def finding(self, finding_id: str) -> Finding | None:
        """The finding with this id, or None."""
        return next((f for f in self.findings if f.id == finding_id), None)

    def margin(self, margin_id: str) -> Margin | None:
        """The margin with this id, or None."""
        return next((m for m in self.margins if m.id == margin_id), None)

    def count(self, severity: Severity) -> int:
        """How many findings have this severity."""
        return sum(f.severity == severity for f in self.findings)
