import asyncio
import json
from typing import Any

import pytest
from fastapi.testclient import TestClient
from starlette.types import Message

from cobblewort.api import new_plan
from tests.kits import OWN

ROOM = {"name": "Indoor room", "ambient_min_c": 15, "ambient_max_c": 28}
ANSWERS: dict[str, Any] = {"name": "Fern box", "purpose": "climate-logger", "place": ROOM}


def test_purposes_places_and_what_can_be_asked(client: TestClient) -> None:
    """Data for the four questions."""
    purposes = client.get("/api/purposes").json()
    assert len(purposes) == 20
    assert all(purpose["title"] for purpose in purposes)
    places = {place["id"]: place["place"] for place in client.get("/api/places").json()}
    assert places["loft"]["ambient_max_c"] == 42
    kinds = client.get("/api/requirement-kinds").json()
    asked = {(requirement["kind"], requirement["id"]): requirement for requirement in kinds}
    assert asked["function", "storage"]["unit"] == "GB"
    assert asked["limit", "longest_mm"]["wants"] == "at_most"


def test_four_answers_make_a_plan_that_can_be_stored(client: TestClient) -> None:
    """Nothing is stored until the page says so; the stored plan is judged as was shown."""
    before = len(client.get("/api/plans").json())
    found = client.post("/api/first-kit", json={**ANSWERS, "budget": "90"}).json()
    assert found["failing"] == []
    assert {reason["line"] for reason in found["reasons"]} == {
        line["id"] for line in found["plan"]["lines"] if line["role"] != "set_up"
    }
    assert len(client.get("/api/plans").json()) == before
    body = {"name": "Fern box", "plan": found["plan"]}
    stored = client.post("/api/plans", json=body).json()
    report = client.get(f"/api/plans/{stored['id']}/report").json()
    assert report["purpose"] == found["report"]["purpose"]
    assert report["severity"] != "problem"


def test_needs_of_ones_own_take_the_place_of_the_usual_ones(client: TestClient) -> None:
    """And an empty list asks nothing."""
    requirements = [{"id": "ok", "text": "it sings", "function": "audio_out"}]
    found = client.post("/api/first-kit", json={**ANSWERS, "requirements": requirements}).json()
    assert [requirement["text"] for requirement in found["report"]["purpose"]] == ["it sings"]
    empty = client.post("/api/first-kit", json={**ANSWERS, "requirements": []}).json()
    assert empty["report"]["purpose"] == []


def test_a_purpose_with_its_form_and_amounts(client: TestClient) -> None:
    """What the page shows then is what a first kit is asked for; wrong ones are told."""
    url = "/api/purposes/sound-recorder/asked"
    asked = client.post(url, json={"form": "stereo", "amounts": {"room": 40}}).json()
    assert [one["at_least"] for one in asked["requirements"]] == [2, 40, None]
    answers = {
        **ANSWERS,
        "purpose": "sound-recorder",
        "summary": asked["summary"],
        "requirements": asked["requirements"],
        "transfers": asked["transfers"],
    }
    plan = client.post("/api/first-kit", json=answers).json()["plan"]
    assert plan["purpose"] == "Records 2 microphones at once."
    assert "X06" not in {line["part"] for line in plan["lines"]}
    for body in ({"form": "mono"}, {"amounts": {"room": 0}}, {"amounts": {"room": 1e9}}):
        assert client.post(url, json=body).status_code == 422
    assert client.post("/api/purposes/moon-base/asked", json={}).status_code == 422


def test_wrong_answers_are_told_with_their_place(client: TestClient) -> None:
    """An unknown purpose, an unknown part in the drawer, half a need."""
    unknown = client.post("/api/first-kit", json={**ANSWERS, "purpose": "moon-base"})
    assert (unknown.status_code, "must be one of" in unknown.json()["detail"]) == (422, True)
    drawer = client.post("/api/first-kit", json={**ANSWERS, "owned": ["Z99"]})
    assert drawer.json()["problems"][0]["place"] == "owned.0"
    half = client.post(
        "/api/first-kit", json={**ANSWERS, "requirements": [{"id": "a", "text": "b"}]}
    )
    assert half.status_code == 422


def test_a_search_ends_when_nobody_waits_for_it(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    """A page that asked for something else meanwhile does not keep the server busy."""
    monkeypatch.setattr(new_plan, "_LOOK_S", 0.0)
    body = json.dumps({**ANSWERS, "purpose": "sound-recorder"}).encode()
    received: list[Message] = [{"type": "http.request", "body": body, "more_body": False}]
    sent: list[Message] = []

    async def receive() -> Message:
        return received.pop() if received else {"type": "http.disconnect"}

    async def send(message: Message) -> None:
        sent.append(message)

    heads = {"host": "127.0.0.1:8000", "content-type": "application/json", **OWN}
    scope = {
        "type": "http",
        "method": "POST",
        "path": "/api/first-kit",
        "query_string": b"",
        "headers": [(name.lower().encode(), value.encode()) for name, value in heads.items()],
    }
    asyncio.run(client.app(scope, receive, send))  # type: ignore[arg-type]
    assert sent[0]["status"] == 204
    kept = client.post("/api/first-kit", json=ANSWERS)
    assert (kept.status_code, kept.json()["failing"]) == (200, [])


def test_a_variant_of_the_other_school_keeps_both_plans(client: TestClient) -> None:
    """One press: a new plan with the other side in its name, the old one untouched."""
    url = "/api/plans/bat-recorder"
    before = client.get(url).json()
    alternatives = client.get(f"{url}/alternatives").json()
    assert alternatives[0]["id"] == "boot_drive"
    answer = client.post(f"{url}/variant", params={"alternative": "boot_drive"})
    assert answer.status_code == 201
    assert answer.json()["plan"]["name"] == "Churchyard bat-call recorder (boot from a drive)"
    assert client.get(url).json() == before
    refused = client.post(f"{url}/variant", params={"alternative": "drive-board"})
    assert (refused.status_code, "has no" in refused.json()["detail"]) == (422, True)
