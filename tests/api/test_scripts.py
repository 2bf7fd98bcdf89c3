"""What a script relies on: kinds of problems, places of new things, ETags, keys, a document."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from cobblewort.api.openapi import openapi_document

PLAN = "/api/plans/bat-recorder"


@pytest.mark.parametrize(
    ("method", "path", "kind"),
    [
        ("get", "/api/plans/none", "not-found"),
        ("get", "/api/parts/none/sheet", "not-found"),
        ("patch", PLAN, "validation"),
        ("post", f"{PLAN}/undo", "validation"),
        ("put", PLAN, "not-allowed"),
    ],
)
def test_a_problem_has_a_type_by_its_kind(
    client: TestClient, method: str, path: str, kind: str
) -> None:
    """RFC 9457, 3.1.1: a script can tell one from the other without reading the sentence."""
    answer = client.request(method, path)
    assert answer.json()["type"] == f"urn:cobblewort:problem:{kind}"


@pytest.mark.parametrize("path", [PLAN, f"{PLAN}/report", "/api/parts", "/api/parts/B06/sheet"])
def test_who_has_the_answer_gets_none(client: TestClient, path: str) -> None:
    """RFC 9110, 15.4.5: no body, and the ETag once more; after a change the answer is whole."""
    first = client.get(path)
    tag = first.headers["ETag"]
    again = client.get(path, headers={"If-None-Match": f'"other", {tag}'})
    assert (again.status_code, again.content, again.headers["ETag"]) == (304, b"", tag)
    assert client.get(path, headers={"If-None-Match": '"other"'}).content == first.content


def test_a_changed_plan_has_another_etag(client: TestClient) -> None:
    """And the old one is no longer enough to write with."""
    at = {"If-Match": client.get(PLAN).headers["ETag"]}
    patch = {"patch": [{"op": "set", "fields": {"budget": "90"}}]}
    assert client.patch(PLAN, json=patch, headers=at).status_code == 200
    assert client.get(PLAN, headers={"If-None-Match": at["If-Match"]}).status_code == 200
    assert client.patch(PLAN, json=patch, headers=at).json()["type"].endswith(":stale")


@pytest.mark.parametrize(
    ("path", "body"),
    [
        ("/api/plans", {"name": "new"}),
        ("/api/plans/example", None),
        (f"{PLAN}/copy", None),
        ("/api/parts/B06/copy", None),
    ],
)
def test_what_is_made_says_where_it_is(
    client: TestClient, path: str, body: dict[str, Any] | None
) -> None:
    """RFC 9110, 15.3.2."""
    made = client.post(path, json=body)
    assert made.status_code == 201
    assert client.get(made.headers["Location"]).json()["id"] == made.json()["id"]


def test_a_plan_is_made_once_by_its_key(client: TestClient) -> None:
    """Sent again it is the same one, as it stands by then; another plan needs another key."""
    key = {"Idempotency-Key": "evening-1"}
    made = client.post("/api/plans", json={"name": "Owl box"}, headers=key).json()
    count = len(client.get("/api/plans").json())
    again = client.post("/api/plans", json={"name": "Owl box"}, headers=key)
    assert (again.status_code, again.json()["id"]) == (201, made["id"])
    other = client.post("/api/plans", json={"name": "Bat box"}, headers=key)
    assert (other.status_code, other.json()["type"]) == (409, "urn:cobblewort:problem:conflict")
    assert len(client.get("/api/plans").json()) == count


def test_fixes_of_a_snag_that_is_gone_are_none(client: TestClient) -> None:
    """Another tab may have cured it."""
    answer = client.get(f"{PLAN}/fixes", params={"finding": "HEAT-01:none"})
    assert (answer.status_code, answer.json()) == (200, [])


def test_the_document_tells_of_tags_ids_problems_and_headers() -> None:
    """Every route has a tag and a readable id of its own."""
    document = openapi_document()
    routes = [route for methods in document["paths"].values() for route in methods.values()]
    ids = [route["operationId"] for route in routes]
    assert len(set(ids)) == len(ids)
    assert all(name.replace("_", "").isalpha() for name in ids)
    assert all(len(route["tags"]) >= 1 for route in routes)
    change = document["paths"]["/api/plans/{plan_id}"]["patch"]
    assert {"200", "404", "409", "412", "422"} <= change["responses"].keys()
    look = document["paths"]["/api/plans/{plan_id}"]["get"]["responses"]
    assert "ETag" in look["200"]["headers"]
    assert "304" in look
    made = document["paths"]["/api/plans"]["post"]["responses"]["201"]
    assert "Location" in made["headers"]


@pytest.mark.parametrize(
    ("fields", "told"),
    [
        ({"place": {"ambient_min_c": 50}}, "The lowest ambient must not be above the highest"),
        ({"currency": "EU"}, "Currency: must be a currency code of three letters"),
        ({"place": {"altitude_m": 1e6}}, "Altitude: "),
        ({"image": {"name": "x", "card_gb": -1, "memory_gb": 1}}, "Size on the drive: "),
        ({"schedule": [{"name": "x", "hours": 0}]}, "Hours: "),
    ],
)
def test_a_refused_change_names_the_field_as_the_form_does(
    client: TestClient, fields: dict[str, Any], told: str
) -> None:
    """The path is for scripts, and stays among the `problems`."""
    at = {"If-Match": client.get(PLAN).headers["ETag"]}
    patch = {"patch": [{"op": "set", "fields": fields}]}
    body = client.patch(PLAN, json=patch, headers=at).json()
    assert body["detail"].startswith(told)
    assert body["problems"][0]["place"].startswith("patch.0.")
