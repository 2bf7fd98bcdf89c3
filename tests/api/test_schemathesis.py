"""Requests made up from the OpenAPI document: the server answers each with what it promises."""

import tempfile
from pathlib import Path

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from schemathesis.checks import not_a_server_error
from schemathesis.schemas import APIOperation
from schemathesis.specs.openapi.checks import response_schema_conformance, status_code_conformance

from cobblewort.api.app import create_app
from cobblewort.demo import fill_with_demo
from tests.kits import OWN


@schemathesis.serializer("application/zip")
def _as_it_is(_: object, value: object) -> bytes:
    """What is made up for an archive, as bytes."""
    return value if isinstance(value, bytes) else str(value).encode()


HOST = {**OWN, "Host": "127.0.0.1"}
FOLDER = tempfile.TemporaryDirectory()
DATA = Path(FOLDER.name) / "data.sqlite3"
fill_with_demo(DATA)
SCHEMA = schemathesis.openapi.from_asgi("/api/openapi.json", create_app(DATA), headers=HOST)
OPERATIONS = [found.ok() for found in SCHEMA.get_all_operations()]


@pytest.mark.parametrize("operation", OPERATIONS, ids=lambda operation: operation.label)
def test_made_up_requests_are_answered_as_promised(operation: APIOperation) -> None:
    """Never a server error, only documented statuses, and bodies as the document says."""

    @given(case=operation.as_strategy())
    @settings(
        max_examples=12, deadline=None, database=None, suppress_health_check=list(HealthCheck)
    )
    def check(case: schemathesis.Case) -> None:
        case.headers = {**(case.headers or {}), **HOST}
        case.call_and_validate(
            checks=[not_a_server_error, status_code_conformance, response_schema_conformance]
        )

    check()
