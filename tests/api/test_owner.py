"""Who may change what, in which turn, and what becomes of a store that goes or comes back."""

from __future__ import annotations

import asyncio
import json
import logging
from typing import Any

import pytest
from fastapi.routing import APIRoute
from fastapi.testclient import TestClient

from cobblewort.api import turns
from cobblewort.api.turns import Turns
from cobblewort.core.plans.plan import Plan
from cobblewort.store.parts import PartStore
from cobblewort.store.plans import PlanStore
from tests.kits import kit

CHANGING = {"POST", "PUT", "PATCH", "DELETE"}


def routes(client: TestClient) -> list[tuple[str, str]]:
    """Every method and path of the interface."""
    app: Any = client.app
    return [
        (method, path)
        for path, operations in app.openapi()["paths"].items()
        for method in (name.upper() for name in operations)
    ]


def test_the_document_tells_every_route(client: TestClient) -> None:
    """So that what is tried below by its list is all there is."""
    app: Any = client.app
    there = {
        (method, route.path)
        for route in _all_routes(app.routes)
        for method in route.methods
        if route.include_in_schema
    }
    assert there == set(routes(client))


def _all_routes(entries: Any) -> list[APIRoute]:
    found = []
    for entry in entries:
        if isinstance(entry, APIRoute):
            found.append(entry)
        else:
            inner = getattr(getattr(entry, "original_router", None), "routes", ())
            found += _all_routes(inner)
    return found


@pytest.mark.parametrize(
    "headers",
    [
        {"X-Cobblewort": ""},
        {"Origin": "http://elsewhere.example"},
        {"Origin": "null"},
        {"Host": "rebound.example"},
        {"Sec-Fetch-Site": "cross-site"},
    ],
)
def test_every_change_stands_behind_one_guard(client: TestClient, headers: dict[str, str]) -> None:
    """Without our header, from another site, at another name: 403, and nothing is changed."""
    before = client.get("/api/plans").json()
    changing = [(method, path) for method, path in routes(client) if method in CHANGING]
    assert len(changing) > 20
    for method, path in changing:
        named = path.format(
            plan_id="moss-cabinet",
            part_id="B06",
            number=1,
            name="x",
            drawing="stack",
            purpose_id="sign",
        )
        answer = client.request(method, named, json={}, headers=headers)
        assert (answer.status_code, method, path) == (403, method, path)
        assert "frame-ancestors 'none'" in answer.headers["content-security-policy"]
    assert client.get("/api/plans").json() == before


def test_a_refusal_is_in_the_log_without_secrets(
    client: TestClient, caplog: pytest.LogCaptureFixture
) -> None:
    """What was asked for and why it was refused; no query, no header."""
    with caplog.at_level(logging.WARNING, "cobblewort"):
        client.post(
            "/api/plans?token=hidden",
            headers={"Origin": "http://x.example", "Authorization": "hidden"},
        )
    (record,) = caplog.records
    assert "POST '/api/plans' refused: This request came from another site" in record.getMessage()
    assert "hidden" not in record.getMessage()


@pytest.mark.parametrize("name", ["Origin", "Host", "If-Match", "X-Cobblewort"])
def test_a_header_that_is_there_twice_is_refused(client: TestClient, name: str) -> None:
    """Of two it is not clear which one counts."""
    twice = [(name, "http://127.0.0.1:8000"), (name, "http://127.0.0.1:8000")]
    if name != "Host":
        twice.append(("Host", "127.0.0.1:8000"))
    answer = client.get("/api/plans", headers=twice)  # type: ignore[arg-type]
    assert answer.status_code == 400
    assert "is there twice" in answer.json()["detail"]


@pytest.mark.parametrize(
    "path", ["/api/plans", "/api/plans/none", "/api/workspace/archive", "/api/nowhere"]
)
def test_answers_are_kept_out_of_stores(client: TestClient, path: str) -> None:
    """Plans are nobody else's business, on a machine that several share."""
    assert client.get(path).headers["cache-control"] == "no-store"


def test_a_fault_of_the_program_carries_the_headers_too(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    """As every other answer."""

    def fail(_: object) -> None:
        raise RuntimeError("a fault")

    monkeypatch.setattr("cobblewort.store.plans.PlanStore.heads", fail)
    answer = client.get("/api/plans")
    assert (answer.status_code, answer.json()["type"]) == (500, "urn:cobblewort:problem:fault")
    assert answer.headers["x-content-type-options"] == "nosniff"


def test_costly_requests_take_turns(monkeypatch: pytest.MonkeyPatch) -> None:
    """Two at once, one that waits too long, and one for which there is no room to wait."""
    monkeypatch.setattr(turns, "WITHIN_S", 0.05)
    monkeypatch.setattr(turns, "WAITING", 1)
    at_work, most, done = 0, 0, asyncio.Event()

    async def work(_: Any, __: Any, send: Any) -> None:
        nonlocal at_work, most
        at_work += 1
        most = max(most, at_work)
        await done.wait()
        at_work -= 1
        await send({"type": "http.response.start", "status": 200, "headers": []})

    async def ask(app: Turns, path: str) -> int:
        seen: list[int] = []

        async def send(message: Any) -> None:
            if message["type"] == "http.response.start":
                seen.append(message["status"])

        await app({"type": "http", "path": path, "method": "GET"}, None, send)  # type: ignore[arg-type]
        return seen[0]

    async def all_of_them() -> list[int]:
        app = Turns(work)
        asked = [
            asyncio.create_task(ask(app, path))
            for path in [*["/api/plans/a/sheet.pdf"] * 4, "/api/plans"]
        ]
        await asyncio.sleep(0.15)
        done.set()
        return [await one for one in asked]

    assert asyncio.run(all_of_them()) == [200, 200, 503, 503, 200]
    assert most == 3, "two costly ones, and the list beside them"


def test_a_copy_is_restored_by_its_name(client: TestClient) -> None:
    """And only by that of a copy that is kept."""
    content = client.get("/api/workspace/archive").content
    client.post("/api/plans", json={"name": "later"})
    client.post("/api/workspace/restore", content=content)
    (copy,) = client.get("/api/workspace/copies").json()
    assert copy["name"].endswith("-000001-before-restore.sqlite3")
    assert "later" not in {plan["name"] for plan in client.get("/api/plans").json()}
    done = client.post(f"/api/workspace/copies/{copy['name']}/restore")
    assert done.status_code == 200
    assert "later" in {plan["name"] for plan in client.get("/api/plans").json()}
    assert len(client.get("/api/workspace/copies").json()) == 2
    assert client.post("/api/workspace/copies/data.sqlite3/restore").status_code == 422


def test_a_tab_from_before_a_restore_gets_412(client: TestClient) -> None:
    """The version that it names was never that of the plan that is here now."""
    version = client.get("/api/plans/moss-cabinet").json()["version"]
    client.post("/api/workspace/restore", content=client.get("/api/workspace/archive").content)
    body = {"patch": [{"op": "set", "fields": {"budget": "7"}}]}
    answer = client.patch(
        "/api/plans/moss-cabinet", json=body, headers={"If-Match": f'"{version}"'}
    )
    assert answer.status_code == 412


def test_a_data_file_that_is_gone_is_told(client: TestClient) -> None:
    """And not made anew, empty."""
    app: Any = client.app
    database = app.state.database
    database.settle()
    kept = database.path.rename(database.path.with_name("kept"))
    answer = client.post("/api/plans", json={"name": "x"})
    assert answer.status_code == 503
    assert "still there" in answer.json()["detail"]
    assert not database.path.exists()
    kept.rename(database.path)
    assert client.post("/api/plans", json={"name": "x"}).status_code == 201


def test_a_broken_part_stops_neither_start_nor_list(client: TestClient) -> None:
    """It is told, kept, and can be exported."""
    app: Any = client.app
    parts = PartStore(app.state.database)
    good = parts.create({"kind": "device", "maker": "m", "model": "Good"})
    bad = parts.create({"kind": "ship", "maker": "m", "model": "Bad"})
    app.state.renew()
    there = {part["id"] for part in client.get("/api/parts").json()}
    assert good.id in there
    assert bad.id not in there
    broken = {part["id"]: part["why"] for part in client.get("/api/parts/broken").json()}
    assert set(broken) == {bad.id}
    assert "kind" in broken[bad.id]
    assert client.get(f"/api/parts/{bad.id}/document").json()["model"] == "Bad"
    assert client.get("/api/plans").status_code == 200


def test_what_goes_out_comes_in(client: TestClient) -> None:
    """A plan of 800 steps, and 250 plans at once."""
    app: Any = client.app
    store = PlanStore(app.state.database)
    stored = store.create(kit("B06", "S01", "M02", "K03", "E03"), "first", "long")
    for number in range(800):
        plan = stored.plan.model_copy(update={"name": f"n{number}"})
        stored = store.save("long", stored.version, plan, f"step {number}")
    long = client.get("/api/export/plans.json?plan=long&steps=true")
    looked = client.post("/api/import/plans", json={"text": long.text, "dry_run": True})
    assert (looked.status_code, looked.json()[0]["steps"]) == (200, 801)
    for number in range(250):
        store.create(Plan(name=f"plan {number}"), "new")
    many = client.get("/api/export/plans.json")
    came = client.post("/api/import/plans", json={"text": many.text, "dry_run": False})
    assert came.status_code == 201
    assert len(came.json()) == len(json.loads(many.text)["plans"]) == 254


def test_what_could_not_come_in_does_not_go_out(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    """The limit is told where something can be done about it."""
    monkeypatch.setattr("cobblewort.formats.documents.MAX_IMPORT_BYTES", 5000)
    for path in ("plans.json", "parts.json?own=false", "parts.csv?own=false"):
        answer = client.get(f"/api/export/{path}")
        assert answer.status_code == 422
        assert "too large to import again" in answer.json()["detail"]


def test_a_list_of_many_plans_is_worked_out_once(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Of a hundred plans none is judged again for a second look, of list or rule book."""
    app: Any = client.app
    store = PlanStore(app.state.database)
    for number in range(100):
        store.create(Plan(name=f"plan {number}"), "new")
    first = client.get("/api/plans").json()

    def fail(*_: object, **__: object) -> None:
        raise AssertionError("worked out again")

    monkeypatch.setattr("cobblewort.api.deps.evaluation_of", fail)
    assert client.get("/api/plans").json() == first
    assert client.get("/api/rules").status_code == 200
