"""The application: routes of the HTTP interface, and the page that uses them."""

from collections import defaultdict
from collections.abc import AsyncIterator, Callable, Collection, Iterable
from contextlib import asynccontextmanager
from functools import partial
from pathlib import Path
from typing import Annotated, Any

from anyio.to_thread import current_default_thread_limiter
from fastapi import APIRouter, FastAPI, Header, Response
from fastapi.responses import FileResponse, PlainTextResponse
from fastapi.staticfiles import StaticFiles

import cobblewort
from cobblewort.api import problems
from cobblewort.api.answers import answer, document_of, written
from cobblewort.api.conditional import NotModified
from cobblewort.api.deps import (
    PAGE_SAMPLES,
    Assumed,
    AssumedPlan,
    CatalogueInUse,
    Kept,
    Plans,
    Reports,
    Version,
    read_catalogue,
)
from cobblewort.api.figures import router as figure_router
from cobblewort.api.fit import router as fit_router
from cobblewort.api.guard import LOCAL_HOSTS, LocalOnly
from cobblewort.api.history import router as history_router
from cobblewort.api.import_export import router as exchange_router
from cobblewort.api.kits import router as kit_router
from cobblewort.api.models import (
    AskedAnewRequest,
    EvaluateRequest,
    NewPlan,
    PatchRequest,
    PlanStrip,
    PlanView,
    RuleFiring,
    RuleView,
)
from cobblewort.api.new_plan import router as begin_router
from cobblewort.api.parts import router as part_router
from cobblewort.api.preferences import Preferred
from cobblewort.api.preferences import router as preference_router
from cobblewort.api.searches import Searches
from cobblewort.api.strips import summaries
from cobblewort.api.turns import Turns
from cobblewort.api.views import created, plan_view
from cobblewort.core.changing.alternatives import Alternative, alternative_of, alternatives_of
from cobblewort.core.changing.candidates import Candidate, candidates
from cobblewort.core.changing.describe import describe
from cobblewort.core.changing.fixes import Fix, propose_fixes
from cobblewort.core.errors import InputError
from cobblewort.core.judging.working import Working
from cobblewort.core.plans.patch import apply_patch
from cobblewort.core.plans.plan import Plan, Role, plan_from
from cobblewort.core.plans.purpose import asking_anew
from cobblewort.core.plans.what_if import what_if
from cobblewort.core.text import NO_BREAK
from cobblewort.core.verdict.evaluate import evaluate, samples_that_fit
from cobblewort.core.verdict.explain import explain
from cobblewort.core.verdict.report import Report, rules_in_order
from cobblewort.core.words import listed
from cobblewort.formats.kit_list import kit_csv, kit_text
from cobblewort.formats.shipped import (
    demo_plans,
    shipped_parts,
    shipped_purposes,
)
from cobblewort.store.database import Database
from cobblewort.store.parts import PartStore
from cobblewort.store.plans import Revision, StoredPlan

EXAMPLE = "choir-recorder"
_THREADS = 8
PAGE_FOLDER = Path(__file__).parent / "page"

router = APIRouter(prefix="/api", responses=problems.RESPONSES, tags=["Plans"])


@router.get("/plans")
def list_plans(plans: Plans, reports: Kept) -> list[PlanStrip]:
    """Every plan with its rulers, at nominal figures and bands; what is broken says why."""
    return [summary.strip for summary in summaries(plans, reports)]


IdempotencyKey = Annotated[
    str | None,
    Header(
        alias="Idempotency-Key",
        min_length=1,
        max_length=200,
        description="The same key gives the same plan, so that a request can be sent again.",
    ),
]


@router.post("/plans", status_code=201)
def create_plan(
    body: NewPlan,
    plans: Plans,
    reports: Kept,
    preferred: Preferred,
    response: Response,
    key: IdempotencyKey = None,
) -> PlanView:
    """Begin a plan, empty or from a document."""
    empty = preferred.begun(Plan(name=body.name))
    plan = body.plan.model_copy(update={"name": body.name}) if body.plan else empty

    def store(pinned: Plan) -> StoredPlan:
        if key is None:
            return plans.create(pinned, "create the plan")
        return plans.create_once(pinned, "create the plan", key)

    return created(_judged(plan, reports, store), response)


@router.post("/plans/example", status_code=201)
def create_example(plans: Plans, reports: Kept, response: Response) -> PlanView:
    """Begin from the example, which has mistakes in it to find."""
    entry = next(entry for entry in demo_plans() if entry["id"] == EXAMPLE)
    plan = plan_from(entry["plan"])
    return created(
        _judged(plan, reports, lambda pinned: plans.create(pinned, "create the example plan")),
        response,
    )


def _judged(plan: Plan, reports: Reports, store: Callable[[Plan], StoredPlan]) -> StoredPlan:
    """Judge a plan before it is stored: one that cannot be looked at again is not let in."""
    pinned = reports.catalogue.pinned(plan)
    report = reports.work_out(pinned)
    stored = store(pinned)
    reports.keep(stored, report)
    return stored


@router.get("/plans/{plan_id}")
def get_plan(plan_id: str, plans: Plans, response: Response) -> PlanView:
    """One plan as it stands."""
    return plan_view(plans.get(plan_id), response)


@router.patch("/plans/{plan_id}")
def patch_plan(
    plan_id: str,
    body: PatchRequest,
    version: Version,
    plans: Plans,
    reports: Kept,
    response: Response,
) -> PlanView:
    """Change a plan; the change is the next revision."""
    before = plans.get(plan_id).plan
    after = apply_patch(before, body.patch)

    def save(plan: Plan) -> StoredPlan:
        label = body.label or describe(before, reports.catalogue, tuple(body.patch)).text
        return plans.save(plan_id, version, plan, label)

    return plan_view(_judged(after, reports, save), response)


@router.post("/plans/{plan_id}/undo")
def undo_plan(plan_id: str, version: Version, plans: Plans, response: Response) -> PlanView:
    """Go one change back."""
    return plan_view(plans.undo(plan_id, version), response)


@router.post("/plans/{plan_id}/redo")
def redo_plan(plan_id: str, version: Version, plans: Plans, response: Response) -> PlanView:
    """Make the change again that was undone."""
    return plan_view(plans.redo(plan_id, version), response)


@router.post("/plans/{plan_id}/copy", status_code=201)
def copy_plan(plan_id: str, plans: Plans, response: Response) -> PlanView:
    """A new plan that begins as this one stands, still being thought through."""
    plan = plans.get(plan_id).plan
    name = f"{plan.name[:112]} (copy)"
    copied = plan.model_copy(update={"name": name, "status": "planning"})
    return created(plans.create(copied, f"copy of {plan.name}"[:200]), response)


@router.get("/plans/{plan_id}/document", response_class=Response)
def plan_document(plan_id: str, plans: Plans) -> Response:
    """The plan as it is stored, to keep or to mend: also one that this version cannot read."""
    headers = {"Content-Disposition": 'attachment; filename="plan.json"'}
    return Response(plans.document(plan_id), media_type="application/json", headers=headers)


@router.get("/plans/{plan_id}/kit.csv", response_class=PlainTextResponse)
def plan_kit_csv(plan_id: str, plans: Plans, catalogue: CatalogueInUse) -> Response:
    """The kit for a spreadsheet (RFC 4180)."""
    text = kit_csv(evaluate(plans.get(plan_id).plan, catalogue))
    headers = {"Content-Disposition": 'attachment; filename="kit.csv"'}
    return Response(text, media_type="text/csv; charset=utf-8", headers=headers)


@router.get("/plans/{plan_id}/kit.txt", response_class=PlainTextResponse)
def plan_kit_text(
    plan_id: str, plans: Plans, catalogue: CatalogueInUse, preferred: Preferred
) -> Response:
    """The kit as plain text."""
    text = kit_text(evaluate(plans.get(plan_id).plan, catalogue), preferred.units)
    return PlainTextResponse(text)


@router.get("/plans/{plan_id}/revisions")
def list_revisions(plan_id: str, plans: Plans) -> list[Revision]:
    """Every step of a plan, newest first; undone ones too."""
    return plans.revisions(plan_id)


@router.delete("/plans/{plan_id}", status_code=204)
def delete_plan(plan_id: str, version: Version, plans: Plans) -> None:
    """Put a plan away."""
    plans.delete(plan_id, version)


@router.post("/plans/{plan_id}/restore")
def restore_plan(plan_id: str, plans: Plans, response: Response) -> PlanView:
    """Bring a deleted plan back."""
    return plan_view(plans.restore(plan_id), response)


@router.post("/plans/{plan_id}/apply-assumptions")
def adopt_assumptions(
    plan_id: str, assumed: Assumed, version: Version, plans: Plans, response: Response
) -> PlanView:
    """Make the assumptions the plan's own; undo brings back what it had."""
    plan = plans.get(plan_id).plan
    after = what_if(plan, assumed.ambient_c, assumed.activity)
    if after is plan:
        raise InputError([("ambient_c", "Enter an ambient temperature, a load, or both.")])
    label = listed(
        text
        for text, given in (
            (f"highest ambient {assumed.ambient_c}{NO_BREAK}°C", assumed.ambient_c is not None),
            (f"load {assumed.activity} in every phase", assumed.activity is not None),
        )
        if given
    )
    return plan_view(plans.save(plan_id, version, after, label), response)


@router.post("/plans/{plan_id}/asked")
def ask_anew(
    plan_id: str, body: AskedAnewRequest, version: Version, plans: Plans, response: Response
) -> PlanView:
    """Ask more or less of a requirement, or no longer; transfers and words follow."""
    plan = plans.get(plan_id).plan
    purpose = shipped_purposes().get(plan.purpose_id or "")
    after = asking_anew(plan, purpose, body.requirement, body.amount, body.text)
    was = next(one.text for one in plan.requirements if one.id == body.requirement)
    label = f"{'remove' if body.amount is None else 'change'} the requirement {was}"[:200]
    return plan_view(plans.save(plan_id, version, after, label), response)


@router.get("/plans/{plan_id}/report", responses=answer(Report))
def plan_report(plan_id: str, assumed: Assumed, plans: Plans, reports: Kept) -> Response:
    """The plan, judged, with bands."""
    stored = plans.get(plan_id)
    plan = what_if(stored.plan, assumed.ambient_c, assumed.activity)
    if plan is stored.plan:
        return written(reports.of(stored))
    return written(reports.work_out(plan))


@router.get("/plans/{plan_id}/candidates", responses=answer(list[Candidate]))
def plan_candidates(
    role: Role, plan: AssumedPlan, catalogue: CatalogueInUse, line: str | None = None
) -> Response:
    """Parts for a role, each judged in the plan."""
    if line is not None and line not in {entry.id for entry in plan.lines}:
        raise InputError([("line", f"The kit has no line '{line}' any more. Reload.")])
    return written(candidates(plan, catalogue, role, line))


@router.get("/plans/{plan_id}/alternatives", responses=answer(list[Alternative]))
def plan_alternatives(plan: AssumedPlan, catalogue: CatalogueInUse) -> Response:
    """Where practitioners disagree, and what the other side would mean for this plan."""
    return written(alternatives_of(plan, catalogue))


@router.post("/plans/{plan_id}/variant", status_code=201)
def make_variant(
    plan_id: str, alternative: str, plans: Plans, catalogue: CatalogueInUse, response: Response
) -> PlanView:
    """A new plan with the alternative; this one is kept as it is."""
    plan = plans.get(plan_id).plan
    found = alternative_of(plan, catalogue, alternative)
    changed = apply_patch(plan, found.patch)
    name = f"{plan.name[:80]} ({found.other})"
    variant = changed.model_copy(update={"name": name, "status": "planning"})
    label = f"variant of {plan.name}: {found.title.text}"[:200]
    return created(plans.create(catalogue.pinned(variant), label), response)


@router.get("/plans/{plan_id}/fixes", responses=answer(list[Fix]))
def plan_fixes(finding: str, plan: AssumedPlan, catalogue: CatalogueInUse) -> Response:
    """Ways out of a snag, each judged in the plan."""
    samples = samples_that_fit(plan, PAGE_SAMPLES)
    return written(propose_fixes(plan, catalogue, finding, samples))


@router.get("/plans/{plan_id}/working", responses=answer(Working))
def plan_working(figure: str, plan: AssumedPlan, catalogue: CatalogueInUse) -> Response:
    """The arithmetic behind one figure of the report, in the units in which it is done."""
    return written(explain(plan, catalogue, figure, samples_that_fit(plan, PAGE_SAMPLES)))


@router.post("/evaluate", responses=answer(Report))
def evaluate_plan(body: EvaluateRequest, catalogue: CatalogueInUse) -> Response:
    """Judge a plan document without storing it."""
    return written(evaluate(body.plan, catalogue, body.samples))


@router.get("/rules", tags=["Rules"])
def list_rules(plans: Plans, reports: Kept) -> list[RuleView]:
    """Every rule with what it checks, why, its formula and source, and where it fires."""
    firings: dict[str, list[RuleFiring]] = defaultdict(list)
    for summary in summaries(plans, reports):
        strip = summary.strip
        for rule_id, severity in summary.fires.items():
            firing = RuleFiring(plan=strip.id, name=strip.name, severity=severity)
            firings[rule_id].append(firing)
    return [
        RuleView(
            id=rule.id,
            family=rule.family,
            title=rule.title,
            why=rule.why,
            formula=rule.formula,
            source=rule.source,
            has_remedies=bool(rule.remedies),
            fires_in=firings[rule.id],
        )
        for rule in rules_in_order()
    ]


@asynccontextmanager
async def _few_threads(app: FastAPI) -> AsyncIterator[None]:
    """Each thread that answers keeps memory of its own, and one core is all that they share."""
    current_default_thread_limiter().total_tokens = _THREADS
    yield
    app.state.searches.stop_all()


def create_app(
    data_file: Path,
    parts: Iterable[dict[str, Any]] | None = None,
    hosts: Collection[str] = LOCAL_HOSTS,
) -> FastAPI:
    """The application on one data file, for requests that name one of `hosts`; `parts` stand in for
    the shipped catalogue in tests.
    """
    database = Database(data_file)
    database.prepare()
    app = FastAPI(
        title="Cobblewort",
        version=cobblewort.__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        generate_unique_id_function=lambda route: route.name,
        lifespan=_few_threads,
    )
    app.state.database = database
    app.state.searches = Searches()
    app.state.renew = partial(_renew, app, None if parts is None else list(parts))
    app.state.renew()
    app.add_middleware(NotModified)
    app.add_middleware(Turns)
    app.add_middleware(LocalOnly, hosts=hosts)
    problems.install(app)
    app.include_router(router)
    app.include_router(part_router)
    app.include_router(begin_router)
    app.include_router(fit_router)
    app.include_router(kit_router)
    app.include_router(exchange_router)
    app.include_router(history_router)
    app.include_router(figure_router)
    app.include_router(preference_router)
    app.openapi = partial(document_of, app)  # type: ignore[method-assign]
    if PAGE_FOLDER.is_dir():
        _serve_page(app)
    return app


def _renew(app: FastAPI, parts: list[dict[str, Any]] | None) -> None:
    """Bring the shipped parts of the data file up to date, and take its catalogue into use."""
    database: Database = app.state.database
    PartStore(database).bring_up_to_date(shipped_parts() if parts is None else parts)
    read_catalogue(app)


class Assets(StaticFiles):
    """Scripts, styles and fonts: their names change with their content, so browsers keep them."""

    def file_response(self, *args: Any, **kwargs: Any) -> Response:
        """A file, or that it is as it was."""
        response = super().file_response(*args, **kwargs)
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return response


def _serve_page(app: FastAPI) -> None:
    app.mount("/assets", Assets(directory=PAGE_FOLDER / "assets"), name="assets")

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        """The page for every address of its own; unknown addresses below /api are not pages."""
        if path.startswith("api/"):
            return problems.problem(404, f"There is no page /{path}.")
        return FileResponse(PAGE_FOLDER / "index.html", headers={"Cache-Control": "no-cache"})
