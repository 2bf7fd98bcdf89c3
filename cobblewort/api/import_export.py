"""Routes of what goes out and comes in: plans, part packs, and the whole workspace."""

import re
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from typing import Annotated, Literal

from fastapi import APIRouter, Body, Query, Request, Response
from pydantic import BaseModel, ConfigDict, Field

from cobblewort.api import problems
from cobblewort.api.answers import answer, written
from cobblewort.api.deps import CatalogueInUse, Kept, Parts, Plans, read_catalogue
from cobblewort.api.preferences import Preferred
from cobblewort.core.errors import InputError
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.steps import PlanFile
from cobblewort.core.verdict.evaluate import evaluate
from cobblewort.formats.documents import imported, parse_json
from cobblewort.formats.drawings import DRAWINGS
from cobblewort.formats.kit_list import kit_markdown
from cobblewort.formats.packs import Arriving, arriving, pack_csv, pack_json, pack_of_text
from cobblewort.formats.plan_files import (
    CarriedPart,
    carried_parts,
    new_parts,
    plan_text,
    plans_from,
    plans_text,
    settled_file,
)
from cobblewort.formats.sketch import sketch_svg
from cobblewort.store.archive import Archived, Holdings, archive, look_at
from cobblewort.store.parts import NotCustomError
from cobblewort.store.plans import BrokenPlan
from cobblewort.store.workspace import KeptCopy, holdings, kept_copies, kept_copy, restore

DrawingName = Literal["margins", "stack", "above", "power", "heat", "data", "lifetime", "money"]

router = APIRouter(prefix="/api", responses=problems.RESPONSES, tags=["Import and export"])


class ImportRequest(BaseModel):
    """The text of a file, and whether only to look. `name` is the file's, whose ending counts.

    `with_parts` puts parts that plans carry, and that the catalogue does not know, into it.
    """

    model_config = ConfigDict(extra="forbid")

    text: str
    name: Annotated[str, Field(max_length=300)] = ""
    dry_run: bool = True
    with_parts: bool = False


@dataclass(slots=True)
class PlanArrival:
    """A plan of a file: its steps, its parts against the catalogue here, and how it stands.

    `namesake` is true where a plan of this name is here already; it is left alone. `id` is set once
    the plan is in.
    """

    name: str
    steps: int
    parts: list[CarriedPart]
    severity: str
    namesake: bool
    id: str | None


@dataclass(slots=True)
class PartArrivals:
    """The parts of a pack against the catalogue, and how many were stored."""

    parts: list[Arriving]
    stored: int


@dataclass(slots=True)
class WorkspaceLook:
    """An archive that is whole, and what is here; `copy` is where what was here is kept since."""

    archive: Archived
    here: Holdings
    copy: str | None


def filed(content: str | bytes, name: str, ending: str, media_type: str) -> Response:
    """A file to keep, named after what it is of."""
    stem = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:80] or "cobblewort"
    headers = {"Content-Disposition": f'attachment; filename="{stem}.{ending}"'}
    return Response(content, media_type=media_type, headers=headers)


@router.get("/plans/{plan_id}/plan.json", response_class=Response)
def plan_file(plan_id: str, plans: Plans, catalogue: CatalogueInUse) -> Response:
    """A plan with the parts it uses: it is judged alike wherever it is opened."""
    plan = plans.get(plan_id).plan
    return filed(plan_text(plan, catalogue), plan.name, "json", "application/json")


@router.get("/plans/{plan_id}/sheet.pdf", response_class=Response)
def plan_sheet(
    plan_id: str,
    plans: Plans,
    reports: Kept,
    preferred: Preferred,
    paper: Literal["a4", "letter"] = "a4",
) -> Response:
    """A plan on paper: what to buy, what is plugged where, snags, drawings and assumptions."""
    from cobblewort.formats.sheet import sheet_pdf

    stored = plans.get(plan_id)
    content = sheet_pdf(stored.plan, reports.of(stored), paper, units=preferred.units)
    return filed(content, stored.plan.name, "pdf", "application/pdf")


@router.get("/plans/{plan_id}/maintenance.ics", response_class=Response)
def plan_calendar(
    plan_id: str,
    plans: Plans,
    reports: Kept,
    begins: Annotated[date | None, Query(ge=date(1970, 1, 1), le=date(2199, 12, 31))] = None,
) -> Response:
    """What the finished kit wants of its owner, for a calendar; from today on unless it is said."""
    from cobblewort.formats.calendar import maintenance_ics

    stored = plans.get(plan_id)
    maintenance = reports.of(stored).lifetime.maintenance
    content = maintenance_ics(plan_id, stored.plan.name, maintenance, begins or date.today())
    return filed(content, f"{stored.plan.name} maintenance", "ics", "text/calendar; charset=utf-8")


@router.get("/plans/{plan_id}/drawings/{name}.svg", response_class=Response)
def plan_drawing(
    plan_id: str, name: DrawingName, plans: Plans, reports: Kept, preferred: Preferred
) -> Response:
    """One drawing of a plan as SVG."""
    stored = plans.get(plan_id)
    sketch = DRAWINGS[name](reports.of(stored), preferred.units)
    if sketch is None:
        raise InputError([("name", "The plan has nothing to draw yet. Add parts first.")])
    return filed(sketch_svg(sketch), f"{stored.plan.name} {name}", "svg", "image/svg+xml")


@router.get("/plans/{plan_id}/kit.md", response_class=Response)
def plan_kit_markdown(plan_id: str, plans: Plans, reports: Kept, preferred: Preferred) -> Response:
    """The kit as Markdown."""
    stored = plans.get(plan_id)
    text = kit_markdown(reports.of(stored), preferred.units)
    return filed(text, f"{stored.plan.name} kit", "md", "text/markdown; charset=utf-8")


@router.get("/export/plans.json", response_class=Response)
def plans_file(
    plans: Plans,
    catalogue: CatalogueInUse,
    plan: Annotated[list[str] | None, Query()] = None,
    steps: bool = False,
) -> Response:
    """Several plans, or all that can be read, with their steps on wish."""
    ids = plan or [one.id for one in plans.all()]
    entries = [plans.with_steps(i) if steps else PlanFile(plans.get(i).plan) for i in ids]
    return filed(plans_text(entries, catalogue), "cobblewort-plans", "json", "application/json")


@router.get("/export/parts.{kind}", response_class=Response)
def parts_file(
    kind: Literal["json", "csv"], catalogue: CatalogueInUse, own: bool = True
) -> Response:
    """Parts of one's own as a pack, or the whole catalogue."""
    parts = [part for part in catalogue.parts() if part.origin == "custom" or not own]
    documents = [catalogue.document(part) for part in parts if part.origin != "typical"]
    text = pack_json(documents) if kind == "json" else pack_csv(documents)
    media = "application/json" if kind == "json" else "text/csv; charset=utf-8"
    return filed(text, "cobblewort-parts", kind, media)


@router.post("/import/plans", responses=answer(list[PlanArrival]))
def import_plans(body: ImportRequest, request: Request, plans: Plans, parts: Parts) -> Response:
    """Look at the plans of a file, or store all of them under fresh ids."""
    entries = plans_from(parse_json(imported(body.text)))
    catalogue: Catalogue = request.app.state.catalogue
    names = _names(plans)
    found = [_arrival(entry, names, catalogue) for entry in entries]
    if body.dry_run:
        return written(found)
    if body.with_parts:
        parts.import_all(new_parts(entries, catalogue))
        read_catalogue(request.app)
        catalogue = request.app.state.catalogue
    settled = [settled_file(entry, catalogue) for entry in entries]
    stored = plans.import_all(settled, "import from a file")
    for arrival, one in zip(found, stored, strict=True):
        arrival.id = one.id
    return written(found, 201, {"Location": "/api/plans"})


def _names(plans: Plans) -> set[str]:
    """The names of the plans that are here, of broken ones too."""
    return {one.name if isinstance(one, BrokenPlan) else one.plan.name for one in plans.all()}


def _arrival(entry: PlanFile, names: set[str], catalogue: Catalogue) -> PlanArrival:
    """A plan of a file, judged: one that cannot be looked at is not let in."""
    report = evaluate(entry.plan, catalogue)
    for step in entry.steps:
        catalogue.for_plan(step.plan)
    return PlanArrival(
        entry.plan.name,
        len(entry.steps),
        carried_parts(entry.plan, catalogue),
        report.severity,
        entry.plan.name in names,
        None,
    )


@router.post("/import/parts", responses=answer(PartArrivals))
def import_parts(
    body: ImportRequest, request: Request, catalogue: CatalogueInUse, parts: Parts
) -> Response:
    """Look at a pack, or store what is new in it and what changes parts of one's own."""
    documents = pack_of_text(imported(body.text), body.name)
    found = arriving(documents, catalogue)
    if body.dry_run:
        return written(PartArrivals(found, 0))
    taken = {part.id for part in found if part.state in ("new", "changes")}
    try:
        stored = parts.import_all([d for d in documents if d["id"] in taken])
    except NotCustomError as error:
        raise InputError([("parts", f"The part {error} is a shipped part now.")]) from error
    read_catalogue(request.app)
    return written(PartArrivals(found, stored), 201, {"Location": "/api/parts"})


@router.get("/workspace", responses=answer(Holdings))
def workspace(request: Request) -> Response:
    """What the workspace holds."""
    return written(holdings(request.app.state.database))


@router.get("/workspace/archive", response_class=Response)
def workspace_archive(request: Request) -> Response:
    """Everything as one file, as it is at this moment."""
    content = archive(request.app.state.database)
    return filed(content, "cobblewort-workspace", "zip", "application/zip")


Content = Annotated[bytes, Body(media_type="application/zip")]


@router.post("/workspace/inspect", responses=answer(WorkspaceLook))
def look_at_archive(content: Content, request: Request) -> Response:
    """What an archive holds, and what it would replace."""
    return written(WorkspaceLook(look_at(content), holdings(request.app.state.database), None))


@router.post("/workspace/restore", responses=answer(WorkspaceLook))
def restore_archive(content: Content, request: Request) -> Response:
    """Put an archive in the place of everything that is here; a copy of that is kept."""
    return _restored(request, content)


@router.get("/workspace/copies", responses=answer(list[KeptCopy]))
def list_copies(request: Request) -> Response:
    """Copies that were kept before a restore or a new schema, the newest first."""
    return written(kept_copies(request.app.state.database))


@router.post("/workspace/copies/{name}/restore", responses=answer(WorkspaceLook))
def restore_copy(name: str, request: Request) -> Response:
    """Put a copy that was kept in the place of everything that is here, which is kept in turn."""
    return _restored(request, kept_copy(request.app.state.database, name))


def _restored(request: Request, content: bytes | Path) -> Response:
    database = request.app.state.database
    archived, copy = restore(database, content)
    request.app.state.renew()
    return written(WorkspaceLook(archived, holdings(database), copy.name))
