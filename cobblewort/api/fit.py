"""Routes of fit: where a plug could go, and the template of a shell."""

import re
from dataclasses import dataclass
from typing import Literal

from fastapi import APIRouter, Response

from cobblewort.api import problems
from cobblewort.api.answers import answer, written
from cobblewort.api.deps import AssumedPlan, CatalogueInUse, Plans
from cobblewort.api.preferences import Preferred
from cobblewort.core.aspects.fit.template import template
from cobblewort.core.changing.moves import Move, moves
from cobblewort.core.judging.kit import Kit
from cobblewort.formats.template import (
    DXF_COMMAND,
    can_write_dxf,
    template_dxf,
    template_pdf,
    template_svg,
)

router = APIRouter(prefix="/api", responses=problems.RESPONSES, tags=["Fit"])

_MEDIA = {"svg": "image/svg+xml", "dxf": "image/vnd.dxf", "pdf": "application/pdf"}


@router.get("/plans/{plan_id}/moves", responses=answer(list[Move]))
def plan_moves(plug: str, plan: AssumedPlan, catalogue: CatalogueInUse) -> Response:
    """Sockets that a plug could go into, each tried in the plan."""
    return written(moves(plan, catalogue, plug))


@dataclass(slots=True, frozen=True)
class TemplateKind:
    """A kind of file in which a template comes; `needs` is the command that makes it possible,
    empty where it is.
    """

    kind: str
    needs: str


@router.get("/template-kinds")
def list_template_kinds() -> list[TemplateKind]:
    """The kinds of file, those to print first."""
    dxf = TemplateKind("dxf", "" if can_write_dxf() else DXF_COMMAND)
    return [TemplateKind("pdf", ""), TemplateKind("svg", ""), dxf]


@router.get("/plans/{plan_id}/template.{kind}", response_class=Response)
def plan_template(
    plan_id: str,
    kind: Literal["svg", "dxf", "pdf"],
    plans: Plans,
    catalogue: CatalogueInUse,
    preferred: Preferred,
    paper: Literal["a4", "letter"] = "a4",
) -> Response:
    """The drilling and cut-out template of the kit's case, at full size."""
    plan = plans.get(plan_id).plan
    panels = template(Kit(plan, catalogue, 1))
    title = f"{plan.name}: template of the case"
    drawn: str | bytes
    if kind == "svg":
        drawn = template_svg(panels, title, preferred.units)
    elif kind == "dxf":
        drawn = template_dxf(panels, title, preferred.units)
    else:
        drawn = template_pdf(panels, title, paper, preferred.units)
    name = re.sub(r"[^a-z0-9]+", "-", plan.name.lower()).strip("-") or "plan"
    headers = {"Content-Disposition": f'attachment; filename="{name}-template.{kind}"'}
    return Response(drawn, media_type=_MEDIA[kind], headers=headers)
