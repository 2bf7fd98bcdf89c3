"""The one place where an error becomes a problem document (RFC 9457)."""

import errno
import json
import sqlite3
from http import HTTPStatus
from typing import Any

from fastapi import FastAPI, Request, Response
from fastapi.exceptions import RequestValidationError
from pydantic import BaseModel, ConfigDict
from starlette.exceptions import HTTPException

from cobblewort.api.answers import named
from cobblewort.core.errors import InputError
from cobblewort.core.plans.fields import FORMS
from cobblewort.store.database import StoreError, reason_of
from cobblewort.store.parts import NotCustomError, PartNotFoundError, StalePartError
from cobblewort.store.plans import (
    BrokenPlanError,
    KeyUsedError,
    NothingToDoError,
    PlanNotFoundError,
    StaleWriteError,
)


class ProblemPlace(BaseModel):
    """Where in the request something is wrong, and what."""

    place: str
    text: str


class Problem(BaseModel):
    """An error as the page shows it: `detail` is a sentence for people."""

    model_config = ConfigDict(json_schema_serialization_defaults_required=True)

    type: str = "about:blank"
    """`urn:cobblewort:problem:` and a kind, for scripts; see `KINDS`."""
    title: str
    status: int
    detail: str
    problems: list[ProblemPlace] = []
    version: int | None = None
    changes: list[str] = []


_MEDIA_TYPE = "application/problem+json"
KINDS: dict[int, str] = {
    403: "refused",
    404: "not-found",
    405: "not-allowed",
    408: "too-slow",
    409: "conflict",
    412: "stale",
    413: "too-large",
    422: "validation",
    500: "fault",
    503: "busy",
    507: "full",
}
"""What a problem is, by its status: nothing of this id, something in the way, made from an older
version, more than is taken, input to be changed, a fault of the program, a store that is in use or
full."""


RESPONSES: dict[int | str, dict[str, Any]] = {
    status: {
        "description": "A problem document (RFC 9457).",
        "content": {_MEDIA_TYPE: {"schema": named(Problem)}},
    }
    for status in (422, "default")
}
"""What every route may answer besides what it is for, in the document of the interface."""


def problem(status: int, detail: str, **extra: Any) -> Response:
    """A problem document as a response."""
    kind = f"urn:cobblewort:problem:{KINDS[status]}" if status in KINDS else "about:blank"
    title = HTTPStatus(status).phrase
    body = Problem(type=kind, title=title, status=status, detail=detail, **extra)
    text = json.dumps(body.model_dump())  # in ASCII, as what was sent may hold half characters
    return Response(text, status, media_type=_MEDIA_TYPE)


def install(app: FastAPI) -> None:
    """Let every error of ours, and every wrong request, end as a problem document."""

    @app.exception_handler(InputError)
    def wrong_input(_: Request, error: InputError) -> Response:
        places = [ProblemPlace(place=place, text=text) for place, text in error.problems]
        return problem(422, _first_sentence(error.problems), problems=places)

    @app.exception_handler(RequestValidationError)
    def wrong_request(request: Request, error: RequestValidationError) -> Response:
        return wrong_input(request, InputError.from_items(error.errors()))

    @app.exception_handler(PlanNotFoundError)
    def not_found(_: Request, error: PlanNotFoundError) -> Response:
        return problem(404, f"There is no plan '{error}'. It may have been deleted.")

    @app.exception_handler(BrokenPlanError)
    def broken(_: Request, error: BrokenPlanError) -> Response:
        return problem(409, f"{error}. Open Plans to export it or move it to the bin.")

    @app.exception_handler(sqlite3.Error)
    def store_failed(_: Request, error: sqlite3.Error) -> Response:
        status = next((code for word, code in _STATUS_OF.items() if word in str(error)), 500)
        return problem(status, f"{reason_of(error)} Nothing was saved.")

    @app.exception_handler(StoreError)
    def store_unusable(_: Request, error: StoreError) -> Response:
        return problem(507 if "full" in str(error) else 503, str(error))

    @app.exception_handler(OSError)
    def disk_failed(_: Request, error: OSError) -> Response:
        if error.errno in _FULL:
            return problem(507, "The disk is full. Free some space and try again.")
        return problem(500, "The program failed. Your plans are unchanged.")

    @app.exception_handler(StaleWriteError)
    def stale(_: Request, error: StaleWriteError) -> Response:
        return problem(
            412,
            "This plan was changed in another tab. Your change was not saved.",
            version=error.version,
            changes=error.changes,
        )

    @app.exception_handler(PartNotFoundError)
    def no_part(_: Request, error: PartNotFoundError) -> Response:
        return problem(404, f"There is no part '{error}'. It may have been deleted.")

    @app.exception_handler(NotCustomError)
    def not_custom(_: Request, error: NotCustomError) -> Response:
        del error
        return problem(409, "Shipped parts cannot be changed. Copy the part and change the copy.")

    @app.exception_handler(StalePartError)
    def stale_part(_: Request, error: StalePartError) -> Response:
        del error
        return problem(412, "This part was changed in another tab. Your change was not saved.")

    @app.exception_handler(KeyUsedError)
    def key_used(_: Request, error: KeyUsedError) -> Response:
        del error
        return problem(409, "This Idempotency-Key was used for another plan. Send another key.")

    @app.exception_handler(NothingToDoError)
    def nothing(_: Request, error: NothingToDoError) -> Response:
        return problem(409, str(error))

    @app.exception_handler(HTTPException)
    def http_error(_: Request, error: HTTPException) -> Response:
        unread = error.status_code == 400 and "parsing the body" in str(error.detail)
        told = "The request is no JSON that can be read." if unread else str(error.detail)
        response = problem(error.status_code, told)
        response.headers.update(error.headers or {})
        return response

    @app.exception_handler(Exception)
    def unexpected(_: Request, error: Exception) -> Response:
        del error
        return problem(500, "The program failed. Your plans are unchanged.")


_FULL = frozenset({errno.ENOSPC, errno.EFBIG, getattr(errno, "EDQUOT", errno.ENOSPC)})
_STATUS_OF = {
    "locked": 503,
    "full": 507,
    "disk I/O error": 507,
    "readonly": 507,
    "unable to open": 503,
}
"""What SQLite says, by a word of it; anything else is 500."""


def _first_sentence(places: list[tuple[str, str]]) -> str:
    place, text = places[0]
    more = f" ({len(places) - 1} more)" if len(places) > 1 else ""
    named = _label_of(place) if place.startswith("patch.") else place
    return f"{named}: {text}{more}" if named else f"{text}{more}"


_FORM_OF = {"transfers": "transfer", "schedule": "phase", "backups": "backup"}
"""The form of the entries of a list of a plan; other parts of a plan are called like their form."""


def _label_of(place: str) -> str:
    """What people call the field of a plan that a change is about, empty where it has no name: they
    typed it into a form and know nothing of its path.
    """
    form, label = "plan", ""
    for step in place.split(".")[1:]:
        rows = FORMS[form][1] if form in FORMS else {}
        label = rows[step].label if step in rows else label
        if not step.isdigit():
            form = _FORM_OF.get(step, step)
    return label
