"""Routes for beginning a plan: purposes, places, what can be asked, and a first kit."""

import asyncio
from threading import Event
from time import sleep

from fastapi import APIRouter, Request, Response
from fastapi.concurrency import run_in_threadpool

from cobblewort.api import problems
from cobblewort.api.answers import answer, written
from cobblewort.api.deps import PAGE_SAMPLES, CatalogueInUse
from cobblewort.api.models import (
    AskedRequest,
    CheaperKitView,
    FirstKitRequest,
    FirstKitView,
    RequirementKind,
)
from cobblewort.api.preferences import Preferred
from cobblewort.api.searches import BREATH_S
from cobblewort.core.changing.suggest import first_kit
from cobblewort.core.errors import InputError
from cobblewort.core.parts.functions import CONDITION_UNITS, CONDITIONS, FUNCTIONS, LIMITS
from cobblewort.core.parts.model import Identifier
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.purpose import KnownPlace, Purpose, asking, in_form, plan_for
from cobblewort.core.verdict.evaluate import evaluate
from cobblewort.formats.preferences import Preferences
from cobblewort.formats.shipped import shipped_places, shipped_purposes

router = APIRouter(prefix="/api", responses=problems.RESPONSES, tags=["New plan"])


_LOOK_S = 0.2
"""How often it is looked whether somebody still waits for a first kit."""


class _GoneError(Exception):
    """Nobody waits for the answer any more."""


@router.get("/purposes")
def list_purposes() -> list[Purpose]:
    """What people build such a kit for, with what it usually asks."""
    return list(shipped_purposes().values())


@router.post("/purposes/{purpose_id}/asked")
def ask_of_a_purpose(purpose_id: Identifier, body: AskedRequest) -> Purpose:
    """A purpose as it is with what was chosen and typed of it; nothing is stored."""
    purpose = _purpose(purpose_id)
    formed = purpose if body.form is None else in_form(purpose, body.form)
    return asking(formed, body.amounts, body.removed)


def _purpose(purpose_id: str) -> Purpose:
    purpose = shipped_purposes().get(purpose_id)
    if purpose is None:
        known = ", ".join(shipped_purposes())
        raise InputError([("purpose", f"must be one of {known} (got '{purpose_id}')")])
    return purpose


@router.get("/places")
def list_places() -> list[KnownPlace]:
    """Where it may live, with what that usually means."""
    return list(shipped_places().values())


@router.get("/requirement-kinds")
def list_requirement_kinds() -> list[RequirementKind]:
    """Everything that can be asked of a kit."""
    functions = [
        RequirementKind(
            kind="function",
            id=name,
            label=function.label,
            unit=function.unit,
            wants="at_least" if function.unit else "count",
            rate_unit=function.rate_unit,
        )
        for name, function in FUNCTIONS.items()
    ]
    conditions = [
        RequirementKind(
            kind="condition",
            id=name,
            label=label,
            unit=CONDITION_UNITS.get(name, ""),
            wants="at_least" if name in CONDITION_UNITS else "",
            rate_unit="",
        )
        for name, label in CONDITIONS.items()
    ]
    limits = [
        RequirementKind(
            kind="limit", id=name, label=label, unit=unit, wants="at_most", rate_unit=""
        )
        for name, (label, unit) in LIMITS.items()
    ]
    return [*functions, *conditions, *limits]


@router.post("/first-kit", responses=answer(FirstKitView))
async def suggest_first_kit(
    request: Request, body: FirstKitRequest, catalogue: CatalogueInUse, preferred: Preferred
) -> Response:
    """A complete first kit for the four answers; nothing is stored.

    The search ends when whoever asked for it has gone.
    """
    gone = Event()

    async def watch() -> None:
        while not await request.is_disconnected():
            await asyncio.sleep(_LOOK_S)
        gone.set()

    watching = asyncio.create_task(watch())
    try:
        return await run_in_threadpool(_first_kit, body, catalogue, preferred, gone)
    except _GoneError:
        return Response(status_code=204)  # nobody reads it
    finally:
        watching.cancel()


def _first_kit(
    body: FirstKitRequest, catalogue: Catalogue, preferred: Preferences, gone: Event
) -> Response:
    def between() -> None:
        if gone.is_set():
            raise _GoneError
        sleep(BREATH_S)

    purpose = _purpose(body.purpose)
    for number, part_id in enumerate(body.owned):
        catalogue.part(part_id, f"owned.{number}")
    asked = preferred.begun(plan_for(purpose, body.name, body.place))
    requirements = asked.requirements if body.requirements is None else body.requirements
    transfers = asked.transfers if body.transfers is None else body.transfers
    empty = asked.model_copy(
        update={
            "purpose": asked.purpose if body.summary is None else body.summary,
            "requirements": requirements,
            "transfers": transfers,
            "budget": body.budget,
        }
    )
    found = first_kit(empty, catalogue, body.owned, between)
    report = evaluate(found.plan, catalogue, PAGE_SAMPLES)
    choice, cheaper = found.cheaper, None
    if choice is not None:
        checked = evaluate(choice.plan, catalogue, PAGE_SAMPLES)
        cheaper = CheaperKitView(choice.plan, choice.less, choice.sentences, checked)
    view = FirstKitView(
        found.plan, empty, found.reasons, found.failing, report, cheaper, found.proven
    )
    return written(view)
