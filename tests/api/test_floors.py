"""What must hold whatever comes in: broken records, odd requests, several writers."""

from __future__ import annotations

import json
import sqlite3
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.kits import demo

CHOIR = "/api/plans/choir-recorder"


def tampered(client: TestClient, plan_id: str, document: Any) -> None:
    """Put another document in the place of a stored plan, as another version would."""
    app: Any = client.app
    with closing(sqlite3.connect(app.state.database.path)) as connection, connection:
        connection.execute(
            "UPDATE plan_revision SET document = ? WHERE plan_id = ?",
            (json.dumps(document), plan_id),
        )


BROKEN: list[Any] = [
    {"name": "From the future", "colour": "green"},
    {"name": "Part gone", "lines": [{"id": "b", "role": "board", "part": "nowhere"}]},
    {"lines": 7},
    [],
    "text",
]


@pytest.mark.parametrize("document", BROKEN)
def test_one_broken_plan_takes_no_other_down(client: TestClient, document: Any) -> None:
    """List and rule book go on; the strip says why; it can be exported, put away and back."""
    tampered(client, "moss-cabinet", document)
    strips = {strip["id"]: strip for strip in client.get("/api/plans").json()}
    assert [strip["id"] for strip in strips.values() if strip["broken"]] == ["moss-cabinet"]
    broken = strips["moss-cabinet"]
    assert broken["worst"]
    if isinstance(document, dict) and "name" in document:
        assert broken["name"] == document["name"]
    assert strips["choir-recorder"]["families"]
    fires = {f["plan"] for rule in client.get("/api/rules").json() for f in rule["fires_in"]}
    assert fires == {"bat-recorder", "choir-recorder"} or "choir-recorder" in fires
    assert "moss-cabinet" not in fires
    assert client.get("/api/plans/moss-cabinet/document").json() == document
    opened = client.get("/api/plans/moss-cabinet")
    assert opened.status_code in (200, 409)  # a plan whose part is gone can still be read
    assert client.get("/api/plans/moss-cabinet/report").status_code in (409, 422)
    headers = {"If-Match": f'"{broken["version"]}"'}
    assert client.delete("/api/plans/moss-cabinet", headers=headers).status_code == 204
    assert len(client.get("/api/plans").json()) == 2
    client.post("/api/plans/moss-cabinet/restore")
    assert len(client.get("/api/plans").json()) == 3


def test_own_parts_written_at_once_are_each_kept_and_listed(client: TestClient) -> None:
    """Forty copies from eight threads: none refused, none missing, in the list and the store."""
    with ThreadPoolExecutor(8) as threads:
        answers = list(threads.map(lambda _: client.post("/api/parts/B06/copy"), range(40)))
    assert [answer.status_code for answer in answers] == [201] * 40
    made = {answer.json()["id"] for answer in answers}
    assert len(made) == 40
    assert made <= {part["id"] for part in client.get("/api/parts").json()}


@pytest.mark.parametrize(
    ("headers", "status"),
    [
        ({"Origin": "http://elsewhere.example"}, 403),
        ({"Origin": "https://testserver"}, 403),
        ({"Origin": "http://["}, 403),
        ({"Origin": "null"}, 403),
        ({"Sec-Fetch-Site": "cross-site"}, 403),
        ({"Sec-Fetch-Site": "same-site"}, 403),
        ({"Sec-Fetch-Site": "same-origin"}, 200),
        ({"Sec-Fetch-Site": "none"}, 200),
        ({"Host": "["}, 403),
        ({"Content-Length": "²"}, 413),
        ({"Content-Length": "99999999999"}, 413),
    ],
)
def test_odd_headers_are_refused_with_the_security_headers(
    client: TestClient, headers: dict[str, str], status: int
) -> None:
    """A sentence, 4xx, and no other site may frame or read it."""
    encoded = {name: value.encode("latin-1") for name, value in headers.items()}
    answer = client.get("/api/plans", headers=encoded)
    assert answer.status_code == status
    assert "frame-ancestors 'none'" in answer.headers["content-security-policy"]
    assert answer.headers["x-content-type-options"] == "nosniff"


def test_a_link_from_elsewhere_opens_the_page(client: TestClient) -> None:
    """Following a link changes nothing and reads nothing out; a form from there is refused."""
    link = {"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "navigate"}
    assert client.get("/", headers=link).status_code in (200, 404)  # 404 where no page is built
    assert client.get("/api/plans", headers=link).status_code == 403
    assert client.post("/", headers=link).status_code == 403


def test_a_chunked_body_that_grows_too_large_is_told(client: TestClient) -> None:
    """It never stated its length."""
    chunks = (b" " * 100_000 for _ in range(30))
    answer = client.post("/api/plans", content=chunks, headers={"Content-Type": "application/json"})
    assert answer.status_code == 413
    assert "larger than 2 MB" in answer.json()["detail"]


@pytest.mark.parametrize("version", ["²", "1.5", "-1", "", "9" * 30, "W/x", "*"])
def test_odd_versions_are_refused(client: TestClient, version: str) -> None:
    """Each is told as what it is, and nothing is written."""
    headers = {"If-Match": version.encode("latin-1")}
    answer = client.patch(
        CHOIR, json={"patch": [{"op": "remove", "line": "cable"}]}, headers=headers
    )
    assert answer.status_code in (412, 422)


@pytest.mark.parametrize(
    "part",
    [
        {"part_class": ["x"]},
        {"part_class": {"a": 1}},
        {"part_class": 7},
        {"id": ["x"]},
        {"id": {}},
        {"id": 3},
        {"kind": []},
        {"maker": "a\ud800b"},
        {"sockets": []},
        {"sockets": {"a": 3}},
        {"generation": 0},
        {"model": "a\x00b"},
        {"sockets": {str(n): {"connector": "usb-a", "role": "host"} for n in range(65)}},
    ],
)
def test_carried_parts_of_odd_shapes(client: TestClient, part: dict[str, Any]) -> None:
    """422 with the place, never 500."""
    own = {"id": "P1", "kind": "device", "maker": "m", "model": "x", **part}
    plan = {"name": "x", "parts": [own], "lines": [{"id": "a", "role": "add_on", "part": "P1"}]}
    answer = client.post(
        "/api/evaluate",
        content=json.dumps({"plan": plan}),
        headers={"Content-Type": "application/json"},
    )
    assert answer.status_code == 422
    assert answer.json()["detail"]


def test_a_socket_of_generation_nought_is_judged(client: TestClient) -> None:
    """As a carried part may state it."""
    own = {
        "id": "P1",
        "kind": "storage_adapter",
        "maker": "m",
        "model": "x",
        "sockets": {"m2": {"connector": "m2", "role": "host", "generation": 0}},
        "plugs": {"lane": {"connectors": ["flat-16"], "role": "device", "generation": 0}},
    }
    plan = demo("choir-recorder").model_dump(mode="json")
    plan["parts"] = [own]
    plan["lines"].append({"id": "mine", "role": "add_on", "part": "P1"})
    assert client.post("/api/evaluate", json={"plan": plan}).status_code == 200


@pytest.mark.parametrize(
    ("fields", "told"),
    [
        (
            {"lines": [{"id": f"l{n}", "role": "add_on", "part": "X07"} for n in range(12_000)]},
            "at most 400",
        ),
        ({"schedule": [{"name": "p", "hours": 0.001}] * 2000}, "at most 24"),
        ({"requirements": [{"id": "n", "text": "t", "condition": "silent"}] * 1000}, "at most 200"),
        ({"parts": [{}] * 5000}, "at most 400"),
        (
            {"lines": [{"id": "h", "role": "add_on", "part": "H03", "quantity": 390}]},
            "390 hubs and extension cables; at most 60",
        ),
        ({"name": "x" * 1_000_000}, "at most 120"),
        ({"name": "a\x1b[31m"}, "plain text"),
        ({"currency": "euro"}, "three letters"),
        (
            {
                "schedule": [
                    {"name": "p", "hours": 1, "lines": {f"l{n}": "idle" for n in range(5000)}}
                ]
            },
            "at most 400",
        ),
    ],
)
def test_bounds_are_told_before_work_is_done(
    client: TestClient, fields: dict[str, Any], told: str
) -> None:
    """With what is too much and how much there may be."""
    answer = client.post("/api/evaluate", json={"plan": {"name": "x", **fields}, "samples": 64})
    assert answer.status_code == 422
    assert told in answer.json()["detail"]


def test_json_nested_too_deeply(client: TestClient) -> None:
    """A thousand lists within each other are no plan."""
    text = '{"plan":' + "[" * 100_000 + "]" * 100_000 + "}"
    answer = client.post(
        "/api/evaluate", content=text, headers={"Content-Type": "application/json"}
    )
    assert 400 <= answer.status_code < 500


@pytest.mark.parametrize(
    ("said", "status", "told"),
    [
        ("database is locked", 503, "Another program uses it"),
        ("database or disk is full", 507, "The disk is full"),
        ("attempt to write a readonly database", 507, "cannot be used"),
        ("unable to open database file", 503, "cannot be opened"),
        ("database disk image is malformed", 500, "It is damaged"),
        ("no such table: plan", 500, "A table"),
    ],
)
def test_what_befalls_the_data_file_is_told_with_what_to_do(
    client: TestClient, monkeypatch: pytest.MonkeyPatch, said: str, status: int, told: str
) -> None:
    """In SQLite's words below, in a sentence above; nothing was saved, and the server goes on."""

    def fail(_: object) -> None:
        raise sqlite3.OperationalError(said)

    with monkeypatch.context() as patch:
        patch.setattr("cobblewort.store.database.Database.open", fail)
        answer = client.get("/api/plans")
    assert answer.status_code == status
    assert told in answer.json()["detail"]
    assert client.get("/api/plans").status_code == 200
