"""What requests carry and responses hold, beyond the core's own types."""

from dataclasses import dataclass
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from cobblewort.core.changing.suggest import Reason
from cobblewort.core.figures.document_model import Currency, OneLine
from cobblewort.core.judging.severity import Severity
from cobblewort.core.parts.model import Identifier, Origin
from cobblewort.core.plans.patch import Change
from cobblewort.core.plans.plan import (
    MAX_REQUIREMENTS,
    MAX_TRANSFERS,
    Place,
    Plan,
    PlanName,
    PlanStatus,
    Requirement,
    Transfer,
)
from cobblewort.core.text import Text
from cobblewort.core.verdict.report import Family, FamilyReport, Report


class NewPlan(BaseModel):
    """A plan to begin with: a name, or a whole document."""

    model_config = ConfigDict(extra="forbid")

    name: PlanName
    plan: Plan | None = None


class PatchRequest(BaseModel):
    """Changes to make in order; the label is made from them when none is given."""

    model_config = ConfigDict(extra="forbid")

    patch: Annotated[list[Change], Field(min_length=1, max_length=100)]
    label: Annotated[str, StringConstraints(min_length=1, max_length=200), OneLine] | None = None


SampleCount = Literal[1, 64, 256, 1024]
"""Compiled parts are kept for each count: a caller chooses among few."""


class EvaluateRequest(BaseModel):
    """A plan to judge without storing it."""

    model_config = ConfigDict(extra="forbid")

    plan: Plan
    samples: SampleCount = 1


class PlanView(BaseModel):
    """A stored plan with the version that the next write has to name."""

    id: str
    version: int
    plan: Plan
    changed_at: str
    undo_label: str | None
    redo_label: str | None


class PlanStrip(BaseModel):
    """A plan on the page of plans: its rulers, price and worst snag.

    A `broken` one cannot be read or judged; `worst` says why, and it has no rulers. Of others
    `worst` is None where there are but notes.
    """

    id: str
    version: int
    name: str
    purpose: str
    place: str
    status: PlanStatus
    changed_at: str
    items: int
    severity: Severity
    families: list[FamilyReport]
    total: Decimal
    currency: str
    worst: Text | None
    problems: int
    tight: int
    broken: bool


class PartView(BaseModel):
    """A part of the catalogue in a list; `class_figures` are the fields it takes from its class."""

    id: str
    revision: int
    origin: Origin
    kind: str
    maker: str
    model: str
    summary: str
    figure: Text
    price: Decimal | None
    currency: str
    class_figures: list[str]


Name = Annotated[
    str, StringConstraints(min_length=1, max_length=100, strip_whitespace=True), OneLine
]

ShortText = Annotated[str, StringConstraints(max_length=200, strip_whitespace=True), OneLine]


class FigureInput(BaseModel):
    """A figure as a person fills it in: the number and what it rests on, or the band itself."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    nominal: float
    basis: Literal["measured", "datasheet", "estimate"] = "datasheet"
    low: float | None = None
    high: float | None = None


class PartEdit(BaseModel):
    """Changes to a part of one's own; what is left out stays as it is.

    A figure that is null is no longer stated, so that its class is asked again.
    """

    model_config = ConfigDict(extra="forbid")

    maker: (
        Annotated[str, StringConstraints(max_length=100, strip_whitespace=True), OneLine] | None
    ) = None
    model: Name | None = None
    summary: (
        Annotated[str, StringConstraints(max_length=200, strip_whitespace=True), OneLine] | None
    ) = None
    price: Annotated[Decimal, Field(ge=0, max_digits=12, decimal_places=2)] | None = None
    currency: Currency | None = None
    figures: Annotated[dict[str, FigureInput | None], Field(max_length=200)] = {}


class AskedRequest(BaseModel):
    """One of a purpose's forms, amounts by the requirement that asks for them, and requirements
    that are not there.
    """

    model_config = ConfigDict(extra="forbid")

    form: Identifier | None = None
    amounts: Annotated[
        dict[Identifier, Annotated[float, Field(gt=0, le=1e6)]], Field(max_length=MAX_REQUIREMENTS)
    ] = {}
    removed: Annotated[list[Identifier], Field(max_length=MAX_REQUIREMENTS)] = []


class AskedAnewRequest(BaseModel):
    """Another amount for a requirement of a plan, none to remove it; and what it is called then,
    where somebody says so.
    """

    model_config = ConfigDict(extra="forbid")

    requirement: Identifier
    amount: Annotated[float, Field(gt=0, le=1e6)] | None
    text: ShortText = ""


class FirstKitRequest(BaseModel):
    """The four answers: what it will do, where it will live, what is owned, what it may cost.

    `summary`, `requirements` and `transfers` replace those of the purpose where they are given.
    """

    model_config = ConfigDict(extra="forbid")

    name: PlanName
    purpose: Identifier
    place: Place
    summary: Annotated[str, StringConstraints(max_length=1000)] | None = None
    requirements: Annotated[tuple[Requirement, ...], Field(max_length=MAX_REQUIREMENTS)] | None = (
        None
    )
    transfers: Annotated[tuple[Transfer, ...], Field(max_length=MAX_TRANSFERS)] | None = None
    owned: Annotated[list[Identifier], Field(max_length=200)] = []
    budget: Annotated[Decimal, Field(ge=0, max_digits=12, decimal_places=2)] | None = None


@dataclass(slots=True)
class CheaperKitView:
    """A kit that is tight and costs less, and by how much."""

    plan: Plan
    less: Decimal
    sentences: list[Text]
    report: Report


@dataclass(slots=True)
class FirstKitView:
    """A plan with its first kit, ready to be stored, and the plan without it.

    `failing` is empty where nothing stops the kit; `cheaper` is a tight one that costs much less.
    `proven` says that no cheaper kit does as well, or that none does.
    """

    plan: Plan
    empty: Plan
    reasons: list[Reason]
    failing: list[Text]
    report: Report
    cheaper: CheaperKitView | None
    proven: bool


class RequirementKind(BaseModel):
    """Something that can be asked of a kit. `wants` says which figure goes with it, if any.

    `rate_unit` is set where a rate is wanted besides, as of a recording.
    """

    kind: Literal["function", "condition", "limit"]
    id: str
    label: str
    unit: str
    wants: Literal["", "count", "at_least", "at_most"]
    rate_unit: str


class RuleFiring(BaseModel):
    """A plan in which a rule has something to say, at its worst there."""

    plan: str
    name: str
    severity: Severity


class RuleView(BaseModel):
    """A rule with its explanation, and the plans in which it has something to say."""

    id: str
    family: Family
    title: str
    why: str
    formula: str
    source: str
    has_remedies: bool
    fires_in: list[RuleFiring]
