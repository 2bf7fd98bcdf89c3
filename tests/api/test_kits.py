"""Routes of suggested kits."""

import time
from typing import Any

import pytest
from fastapi.testclient import TestClient

from cobblewort.api.searches import AT_ONCE, Searches
from cobblewort.core.changing.suggest import CRITERIA, Wishes
from cobblewort.core.errors import InputError
from cobblewort.core.plans.purpose import plan_for
from cobblewort.formats.shipped import shipped_places, shipped_purposes
from tests.kits import shipped

FEW = {"board": "B04", "power_supply": "S06", "case": "E01"}


def sign() -> dict[str, Any]:
    """A plan that states its needs."""
    place = shipped_places()["indoor-room"].place
    return plan_for(shipped_purposes()["sign"], "sign", place).model_dump(mode="json")


@pytest.fixture
def plan_id(client: TestClient) -> str:
    """The id of such a plan, stored."""
    answer = client.post("/api/plans", json={"name": "sign", "plan": sign()})
    assert answer.status_code == 201
    return str(answer.json()["id"])


def ended(client: TestClient, plan_id: str) -> dict[str, Any]:
    """What is known once the search has ended."""
    until = time.monotonic() + 60
    while time.monotonic() < until:
        known: dict[str, Any] = client.get(f"/api/plans/{plan_id}/kits").json()
        if not known["running"]:
            return known
        time.sleep(0.05)
    raise AssertionError("the search does not end")


def test_what_is_beaten_and_why_a_part_is_in_no_kit(client: TestClient, plan_id: str) -> None:
    """How sure each kit is and what others beat, once the search rests; makers kept out; a part
    asked about.
    """
    url = f"/api/plans/{plan_id}/kits"
    assert client.get(f"{url}/why-not", params={"part": "B06"}).status_code == 422
    pinned = {"board": "B04", "power_supply": "S06"}
    maker = shipped().part("E03").maker
    client.post(url, json={"pinned": pinned, "without_makers": [maker]})
    known = ended(client, plan_id)
    assert known["without_makers"] == [maker]
    assert maker not in {part["maker"] for kit in known["kits"] for part in kit["parts"]}
    assert known["kits"][0]["stays"] == 1
    assert known["also"]
    assert all(one["beaten_by"] < len(known["kits"]) for one in known["also"])
    told = client.get(f"{url}/why-not", params={"part": "X17"}).json()["text"]["text"]
    assert told == "No requirement asks for what Dew does."
    assert client.get(f"{url}/why-not", params={"part": "Z99"}).status_code == 422


def test_a_search_from_start_to_proof(client: TestClient, plan_id: str) -> None:
    """Nothing before; then its kits with parts and figures, and that none is missing."""
    before = client.get(f"/api/plans/{plan_id}/kits").json()
    assert (before["begun"], before["kits"]) == (False, [])
    assert [one["id"] for one in before["criteria"]] == ["price", "watts", "noise", "margin"]
    offered = {one["id"]: one["help"] for one in before["offered"]}
    assert offered.keys() >= CRITERIA.keys() - {"rate"}
    assert all(help.endswith(".") for help in offered.values())
    started = client.post(f"/api/plans/{plan_id}/kits", json={"pinned": FEW, "tight": True})
    assert started.status_code == 200
    known = ended(client, plan_id)
    assert (known["begun"], known["proven"], known["tight"]) == (True, True, True)
    assert known["sure"]["text"].startswith("Proven: no other kit is better.")
    first = known["kits"][0]
    assert [part["name"] for part in first["parts"]] == ["Stile", "Micro 12", "Plain 16", "Trestle"]
    assert first["figures"][0] == {
        "criterion": "price",
        "value": 59.0,
        "text": {"text": "€59", "parts": [first["figures"][0]["text"]["parts"][0]]},
    }
    assert [one["name"] for one in known["pinned"]] == ["Stile", "Micro 12", "Trestle"]
    copy = client.post("/api/plans", json={"name": "variant", "plan": first["plan"]})
    assert copy.status_code == 201
    assert len(copy.json()["plan"]["lines"]) == len(first["plan"]["lines"])


def test_where_the_kit_of_the_plan_stands(client: TestClient) -> None:
    """A dearer kit is beaten, one with a problem says so, and a plan without a board has none."""

    def own(*parts: tuple[str, str]) -> Any:
        lines = [{"id": role, "role": role, "part": part} for role, part in parts]
        plan = {**sign(), "lines": lines}
        made = client.post("/api/plans", json={"name": "own", "plan": plan}).json()
        client.post(f"/api/plans/{made['id']}/kits", json={"pinned": FEW})
        return ended(client, made["id"])["own"]

    dear = (("board", "B04"), ("power_supply", "S06"), ("boot_drive", "M04"), ("case", "E01"))
    assert own() is None
    told = own(*dear)
    assert told["stopped"] == []
    assert "price" in told["better_in"]
    assert own(("board", "B04"))["stopped"] != []
    cheap = (("board", "B04"), ("power_supply", "S06"), ("boot_drive", "M01"), ("case", "E01"))
    alike = own(*cheap)
    assert (alike["beaten_by"], alike["better_in"]) == (0, [])


def test_a_search_is_gone_when_the_plan_changes(client: TestClient, plan_id: str) -> None:
    """Its answers were for another plan."""
    client.post(f"/api/plans/{plan_id}/kits", json={"pinned": FEW})
    plan = client.get(f"/api/plans/{plan_id}").json()
    patch = [{"op": "set", "fields": {"place": {"ambient_max_c": 31}}}]
    headers = {"If-Match": f'"{plan["version"]}"'}
    changed = client.patch(f"/api/plans/{plan_id}", json={"patch": patch}, headers=headers)
    assert changed.status_code == 200
    assert client.get(f"/api/plans/{plan_id}/kits").json()["begun"] is False


def test_a_search_can_be_stopped(client: TestClient, plan_id: str) -> None:
    """What it knows stays; stopping twice is no error."""
    client.post(f"/api/plans/{plan_id}/kits", json={})
    for _ in range(2):
        assert client.delete(f"/api/plans/{plan_id}/kits").status_code == 204
    known = client.get(f"/api/plans/{plan_id}/kits").json()
    assert (known["begun"], known["running"], known["proven"]) == (True, False, False)


@pytest.mark.parametrize(
    ("body", "told"),
    [
        ({"criteria": []}, "too short"),
        ({"criteria": ["beauty"]}, "must be one of"),
        ({"criteria": ["price", "price"]}, "each criterion once"),
        ({"pinned": {"board": "B99"}}, "There is no part 'B99'"),
        ({"pinned": {"board": "B04"}, "left_out": ["B04"]}, "both required and left out"),
        ({"at_most": "0"}, "must be above 0"),
        ({"left_out": ["x"] * 401}, "at most 400 entries"),
        ({"beauty": 1}, "not known"),
    ],
)
def test_wrong_wishes(client: TestClient, plan_id: str, body: dict[str, Any], told: str) -> None:
    """A sentence for each, and no search is begun."""
    answer = client.post(f"/api/plans/{plan_id}/kits", json=body)
    assert answer.status_code == 422
    assert told in answer.json()["detail"]
    assert client.get(f"/api/plans/{plan_id}/kits").json()["begun"] is False


def test_a_plan_that_is_not_there(client: TestClient) -> None:
    """404 for all three."""
    assert client.get("/api/plans/none/kits").status_code == 404
    assert client.post("/api/plans/none/kits", json={}).status_code == 404
    assert client.delete("/api/plans/none/kits").status_code == 404


def test_so_many_searches_at_once() -> None:
    """One more is told; one that is stopped makes room."""
    searches = Searches()
    place = shipped_places()["indoor-room"].place
    plan = plan_for(shipped_purposes()["sign"], "sign", place)
    for number in range(AT_ONCE):
        searches.start(f"plan-{number}", 1, plan, shipped(), Wishes())
    with pytest.raises(InputError, match="Other searches are running"):
        searches.start("one-more", 1, plan, shipped(), Wishes())
    searches.stop("plan-0")
    assert searches.start("one-more", 1, plan, shipped(), Wishes()).running
    searches.stop_all()


def test_others_are_answered_while_it_runs(client: TestClient, plan_id: str) -> None:
    """The list of plans comes while a search works."""
    client.post(f"/api/plans/{plan_id}/kits", json={})
    assert client.get("/api/plans").status_code == 200
    assert client.get(f"/api/plans/{plan_id}/kits").json()["begun"] is True
    client.delete(f"/api/plans/{plan_id}/kits")
