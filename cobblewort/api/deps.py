"""What the routes share: stores, the cupboard in use, and the version a write names."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from fastapi import Depends, FastAPI, Header, Query, Request

from cobblewort.core.catalogue import Catalogue
from cobblewort.core.errors import InputError
from cobblewort.core.plan import Activity, Plan, Temperature
from cobblewort.core.what_if import what_if
from cobblewort.formats.shipped import class_parts, shipped_classes
from cobblewort.store.parts import PartStore
from cobblewort.store.plans import PlanStore


def read_cupboard(app: FastAPI) -> None:
    """Read the cupboard from the store, at the start and whenever a part has changed."""
    stored = PartStore(app.state.database)
    parts = stored.all()
    app.state.catalogue = Catalogue.from_documents(
        [*(part.document for part in parts), *class_parts()], shipped_classes(), stored.older(),
        [part.id for part in parts if part.away],
    )  # fmt: skip


def get_plans(request: Request) -> PlanStore:
    """The store of plans."""
    return PlanStore(request.app.state.database)


def get_parts(request: Request) -> PartStore:
    """The store of parts."""
    return PartStore(request.app.state.database)


def get_catalogue(request: Request) -> Catalogue:
    """The cupboard in use."""
    catalogue: Catalogue = request.app.state.catalogue
    return catalogue


def named_version(
    if_match: Annotated[str, Header(description='The version a write was made from, as `"3"`.')],
) -> int:
    """The version in an If-Match header. Raises InputError when it is no version."""
    text = if_match.strip().strip('"')
    if not text.isdigit() or len(text) > 18:
        raise InputError([("If-Match", f'must name a version such as "3" (got {if_match!r})')])
    return int(text)


Plans = Annotated[PlanStore, Depends(get_plans)]
Parts = Annotated[PartStore, Depends(get_parts)]
Cupboard = Annotated[Catalogue, Depends(get_catalogue)]
Version = Annotated[int, Depends(named_version)]


@dataclass(slots=True)
class WhatIf:
    """Assumptions to judge a plan under; they are not stored."""

    ambient_c: Annotated[
        Temperature | None, Query(description="Hottest day to assume instead of the plan's. [°C]")
    ] = None
    activity: Annotated[
        Activity | None, Query(description="How hard everything works in every phase of the day.")
    ] = None


Assumed = Annotated[WhatIf, Depends(WhatIf)]


def assumed_plan(plan_id: str, plans: Plans, assumed: Assumed) -> Plan:
    """The stored plan under the assumptions of the request."""
    return what_if(plans.get(plan_id).plan, assumed.ambient_c, assumed.activity)


AssumedPlan = Annotated[Plan, Depends(assumed_plan)]
