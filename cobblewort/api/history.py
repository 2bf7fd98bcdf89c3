"""Routes of what was: the steps of a plan, and what is put away."""

from dataclasses import dataclass
from typing import Annotated

from fastapi import APIRouter, Path, Response
from pydantic import BaseModel, ConfigDict, Field

from cobblewort.api import problems
from cobblewort.api.answers import answer, written
from cobblewort.api.deps import CatalogueInUse, Kept, Parts, Plans, Version
from cobblewort.api.models import PlanView
from cobblewort.api.views import plan_view
from cobblewort.core.verdict.report import Report
from cobblewort.store.plans import BinnedPlan

router = APIRouter(prefix="/api", responses=problems.RESPONSES, tags=["History"])

StepNumber = Annotated[int, Path(ge=1, le=10**9)]


@dataclass(slots=True)
class BinnedPart:
    """A part of one's own that is put away; plans that hold it keep it."""

    id: str
    kind: str
    maker: str
    model: str


@dataclass(slots=True)
class Bin:
    """All that is put away and can be brought back."""

    plans: list[BinnedPlan]
    parts: list[BinnedPart]


class Emptying(BaseModel):
    """Plans to delete for good, of those that are put away."""

    model_config = ConfigDict(extra="forbid")

    plans: Annotated[list[str], Field(min_length=1, max_length=1000)]


@router.get("/plans/{plan_id}/revisions/{number}/report", responses=answer(Report))
def report_of_step(plan_id: str, number: StepNumber, plans: Plans, reports: Kept) -> Response:
    """A plan as it was at one of its steps, judged."""
    return written(reports.work_out(plans.at_revision(plan_id, number)))


@router.post("/plans/{plan_id}/revisions/{number}/go-back")
def go_back(
    plan_id: str, number: StepNumber, version: Version, plans: Plans, response: Response
) -> PlanView:
    """Make a plan what it was; that is its next step, so that it can be undone."""
    return plan_view(plans.go_back(plan_id, version, number), response)


@router.get("/bin", responses=answer(Bin))
def list_bin(plans: Plans, parts: Parts, catalogue: CatalogueInUse) -> Response:
    """What was put away: plans, the last one first, and parts of one's own."""
    away = [stored for stored in parts.all() if stored.away]
    named = [catalogue.part(stored.id) for stored in away]
    return written(Bin(plans.in_bin(), [BinnedPart(p.id, p.kind, p.maker, p.model) for p in named]))


@router.post("/bin/empty", status_code=204)
def empty_bin(body: Emptying, plans: Plans) -> None:
    """Delete plans that are put away for good."""
    plans.empty_bin(body.plans)
