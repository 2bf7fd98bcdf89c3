"""Answers written straight from the core's own types, and the document that tells of them.

The framework would build a validator for each route that names a response model, and again for each
that names the same one: a tenth of the start, for what nothing reads until somebody asks for the
document. Here routes name what they answer, and the schemas are built with the document.
"""

from collections.abc import Mapping
from typing import Any, get_args, get_origin

from fastapi import APIRouter, FastAPI, Response
from fastapi.openapi.utils import get_openapi
from pydantic_core import to_json

_NAMED: dict[str, Any] = {}
_NOWHERE = "/named/"
"""Routes of a router that nobody serves: the one way to have the framework name a schema."""


def named(kind: Any) -> dict[str, Any]:
    """The schema of a type, or of a list of it, by the name under which the document has it."""
    if get_origin(kind) is list:
        return {"type": "array", "items": named(get_args(kind)[0])}
    _NAMED[kind.__name__] = kind
    return {"$ref": f"#/components/schemas/{kind.__name__}"}


def answer(kind: Any, status: int = 200) -> dict[int | str, dict[str, Any]]:
    """What a route answers, for its `responses`."""
    return {status: {"content": {"application/json": {"schema": named(kind)}}}}


def written(value: object, status: int = 200, headers: Mapping[str, str] | None = None) -> Response:
    """An answer written from dataclasses and models, whatever they hold."""
    text = to_json(value, inf_nan_mode="null")
    return Response(text, status, headers, media_type="application/json")


_ANYWHERE = {"503": "the store or the server is busy.", "507": "the disk is full."}


def _tell_the_rest(path: str, method: str, operation: dict[str, Any]) -> None:
    """Add what follows from a route: the problems it can answer, its ETag, and where what it makes
    is found.
    """
    answers = operation["responses"]
    problem = answers["default"]
    for status, what in _ANYWHERE.items():
        answers[status] = {**problem, "description": f"Problem: {what}"}
    versioned = any(p["name"].lower() == "if-match" for p in operation.get("parameters", ()))
    if "{" in path:
        answers["404"] = {**problem, "description": "Problem: there is nothing of this id."}
    if method != "get":
        operation["security"] = [{"own": []}]
        answers["403"] = {**problem, "description": "Problem: it comes from another site."}
        answers["413"] = {**problem, "description": "Problem: it is larger than is taken."}
        answers["409"] = {**problem, "description": "Problem: something else is in the way."}
    if versioned:
        answers["412"] = {**problem, "description": "Problem: it has another version by now."}
    if method == "get" and "application/json" in answers["200"].get("content", {}):
        answers["200"]["headers"] = {"ETag": _header("The version, if any, and the content.")}
        answers["304"] = {"description": "It is what If-None-Match names."}
    if "201" in answers:
        answers["201"]["headers"] = {"Location": _header("Where it is.")}


def _header(what: str) -> dict[str, Any]:
    return {"description": what, "schema": {"type": "string"}}


def document_of(app: FastAPI) -> dict[str, Any]:
    """The document of the interface, with the schemas of all that is named in it."""
    if not app.openapi_schema:
        names = APIRouter()
        for name, kind in _NAMED.items():
            names.add_api_route(f"{_NOWHERE}{name}", lambda: None, response_model=kind)
        document = get_openapi(
            title=app.title, version=app.version, routes=[*app.routes, *names.routes]
        )
        for name in _NAMED:
            del document["paths"][f"{_NOWHERE}{name}"]
        document["components"]["securitySchemes"] = {
            "own": {
                "type": "apiKey",
                "in": "header",
                "name": "X-Cobblewort",
                "description": "Any value. Pages of other sites cannot send it.",
            }
        }
        for path, operations in document["paths"].items():
            for method, operation in operations.items():
                _tell_the_rest(path, method, operation)
        app.openapi_schema = document
    return app.openapi_schema
