from typing import Any

import pytest
from fastapi.testclient import TestClient

from cobblewort.core.verdict.report import RULERS
from cobblewort.formats.shipped import demo_plans

CHOIR = "/api/plans/choir-recorder"


def version_of(client: TestClient, path: str = CHOIR) -> dict[str, str]:
    """The header that names the version a plan has now."""
    return {"If-Match": client.get(path).headers["ETag"]}


def patched(client: TestClient, *changes: dict[str, Any], **headers: str) -> Any:
    """Send changes to the choir recorder, from its present version."""
    sent = {**version_of(client), **headers}
    return client.patch(CHOIR, json={"patch": list(changes)}, headers=sent)


def test_plans_come_with_their_rulers(client: TestClient) -> None:
    """All rulers, a price and the worst snag for each demo plan."""
    plans = client.get("/api/plans").json()
    assert {p["id"]: p["severity"] for p in plans} == {
        "bat-recorder": "ok",
        "moss-cabinet": "tight",
        "choir-recorder": "problem",
    }
    rulers = [ruler.id for ruler in RULERS]
    assert all([f["id"] for f in p["families"]] == rulers for p in plans)
    assert [p["total"] for p in plans] == ["332", "159", "591"]


def test_a_new_plan_begins_empty_and_says_what_is_missing(client: TestClient) -> None:
    """Created with an id and a version, judged at once."""
    answer = client.post("/api/plans", json={"name": "  Frost camera "})
    assert answer.status_code == 201
    assert answer.json()["plan"]["name"] == "Frost camera"
    report = client.get(f"/api/plans/{answer.json()['id']}/report").json()
    assert {f["rule"] for f in report["findings"]} == {"FIT-01"}


def test_swapping_a_part_changes_the_verdict(client: TestClient) -> None:
    """The slice in one test: swap the supply, and the snags it caused are gone."""
    before = {f["id"] for f in client.get(f"{CHOIR}/report").json()["findings"]}
    patch = [
        {"op": "swap", "line": "power_supply", "part": "S03"},
        {"op": "remove", "line": "cable"},
    ]
    answer = patched(client, *patch)
    assert answer.status_code == 200
    assert answer.json()["undo_label"] == "Swap Traveller 65 for Kettle 27, remove Braid C5"
    after = {f["id"] for f in client.get(f"{CHOIR}/report").json()["findings"]}
    assert "PWR-04:board#1.usb" in before - after


def test_undo_and_redo(client: TestClient) -> None:
    """Back to what it was, and forth again."""
    patched(client, {"op": "edit", "line": "board", "owned": True})
    undone = client.post(f"{CHOIR}/undo", headers=version_of(client)).json()
    assert undone["plan"]["lines"][0]["owned"] is False
    redone = client.post(f"{CHOIR}/redo", headers=version_of(client)).json()
    assert redone["plan"]["lines"][0]["owned"] is True
    nothing = client.post(f"{CHOIR}/redo", headers=version_of(client))
    assert nothing.status_code == 409
    assert "nothing to redo" in nothing.json()["detail"]


def test_revisions_are_listed(client: TestClient) -> None:
    """With their labels, newest first."""
    patched(client, {"op": "remove", "line": "cable"})
    labels = [r["label"] for r in client.get(f"{CHOIR}/revisions").json()]
    assert labels == ["Remove Braid C5", "demo plan"]


def test_a_stale_write_is_a_problem_document(client: TestClient) -> None:
    """412 with the version it has now and what came in between; nothing is written."""
    stale = version_of(client)
    patched(client, {"op": "edit", "line": "board", "owned": True})
    answer = client.patch(CHOIR, json={"patch": [{"op": "remove", "line": "board"}]}, headers=stale)
    assert answer.status_code == 412
    assert answer.headers["content-type"] == "application/problem+json"
    body = answer.json()
    assert body["changes"] == ["Change Mullion 8"]
    assert version_of(client)["If-Match"].startswith(f'"{body["version"]}-')
    assert client.get(CHOIR).json()["plan"]["lines"][0]["owned"] is True


def test_deleting_and_bringing_back(client: TestClient) -> None:
    """Gone from the list, and back as it was."""
    headers = version_of(client)
    assert client.delete(CHOIR, headers=headers).status_code == 204
    assert client.get(CHOIR).status_code == 404
    assert client.post(f"{CHOIR}/restore").status_code == 200
    assert client.get(CHOIR).status_code == 200


def test_a_copy_begins_as_the_plan_stands(client: TestClient) -> None:
    """Under a name of its own, being thought through again; the first is untouched."""
    patched(client, {"op": "set", "fields": {"status": "ordered"}})
    copy = client.post(f"{CHOIR}/copy").json()
    assert copy["plan"]["name"] == "Choir recorder with mirrored drives (copy)"
    assert copy["plan"]["status"] == "planning"
    assert copy["plan"]["lines"] == client.get(CHOIR).json()["plan"]["lines"]
    assert client.get(CHOIR).json()["plan"]["status"] == "ordered"


def test_the_kit_can_be_taken_along(client: TestClient) -> None:
    """As a CSV file, and as text."""
    sheet = client.get(f"{CHOIR}/kit.csv")
    assert sheet.headers["content-type"].startswith("text/csv")
    assert sheet.text.startswith("role,quantity,maker,model,description,owned,unit price,to")
    assert "to buy: €591" in client.get(f"{CHOIR}/kit.txt").text


def test_what_if_is_never_stored(client: TestClient) -> None:
    """A hotter day changes the report and not the plan."""
    hot = client.get("/api/plans/bat-recorder/report", params={"ambient_c": 70}).json()
    assert hot["heat"]["ambient_c"] == 70
    assert client.get("/api/plans/bat-recorder/report").json()["heat"]["ambient_c"] == 32


def test_assumptions_become_the_plans_own_only_when_told(client: TestClient) -> None:
    """Both at once, as one change that can be undone; nothing assumed is nothing to take over."""
    url = "/api/plans/bat-recorder"
    assumed = {"ambient_c": 41.5, "activity": "full"}
    first = client.get(f"{url}/report", params=assumed).json()
    answer = client.post(
        f"{url}/apply-assumptions", params=assumed, headers=version_of(client, url)
    )
    assert (
        answer.json()["undo_label"] == "highest ambient 41.5\u00a0°C and load full in every phase"
    )
    assert client.get(f"{url}/report").json() == first
    client.post(f"{url}/undo", headers=version_of(client, url))
    assert client.get(url).json()["plan"]["place"]["ambient_max_c"] == 32
    nothing = client.post(f"{url}/apply-assumptions", headers=version_of(client, url))
    assert (nothing.status_code, "an ambient temperature" in nothing.json()["detail"]) == (
        422,
        True,
    )


def test_a_plan_is_asked_for_less_and_no_longer(client: TestClient) -> None:
    """Transfers and words follow; a second tab is told, and undo brings all back."""
    url, before = f"{CHOIR}/asked", client.get(CHOIR).json()["plan"]
    ask = {"requirement": "inputs", "amount": 8}
    old = version_of(client, CHOIR)
    view = client.post(url, json=ask, headers=old).json()
    assert view["undo_label"] == "change the requirement sixteen microphones at once"
    assert view["plan"]["requirements"][0]["text"] == "8 microphones at once"
    assert view["plan"]["transfers"][0]["at_once"] == 8
    assert client.post(url, json=ask, headers=old).status_code == 412
    gone = {"requirement": "inputs", "amount": None}
    view = client.post(url, json=gone, headers=version_of(client, CHOIR)).json()
    assert [one["id"] for one in view["plan"]["transfers"]] == ["office"]
    assert client.post(url, json=ask, headers=version_of(client, CHOIR)).status_code == 422
    for _ in range(2):
        client.post(f"{CHOIR}/undo", headers=version_of(client, CHOIR))
    assert client.get(CHOIR).json()["plan"] == before


def test_candidates_and_fixes_come_with_patches_that_can_be_sent(client: TestClient) -> None:
    """What the page shows is what it sends back."""
    boards = client.get(f"{CHOIR}/candidates", params={"role": "board", "line": "board"}).json()
    other = next(c for c in boards if not c["current"])
    assert patched(client, *other["patch"]).status_code == 200
    client.post(f"{CHOIR}/undo", headers=version_of(client))
    fixes = client.get(f"{CHOIR}/fixes", params={"finding": "FIT-07:drives#2.m2"}).json()
    assert fixes
    assert patched(client, *fixes[0]["patch"]).status_code == 200
    ids = {f["id"] for f in client.get(f"{CHOIR}/report").json()["findings"]}
    assert "FIT-07:drives#2.m2" not in ids


def test_a_plan_document_can_be_judged_without_storing_it(client: TestClient) -> None:
    """As the command line does."""
    count = len(client.get("/api/plans").json())
    answer = client.post("/api/evaluate", json={"plan": demo_plans()[0]["plan"], "samples": 64})
    assert answer.json()["severity"] == "ok"
    assert len(client.get("/api/plans").json()) == count


def test_parts_say_which_figures_are_class_figures(client: TestClient) -> None:
    """And a part sheet carries the basis of each."""
    cases = client.get("/api/parts", params={"kind": "case"}).json()
    assert {c["kind"] for c in cases} == {"case"}
    assert all("case.emissivity" in c["class_figures"] for c in cases)
    sheet = client.get("/api/parts/E03").json()
    assert sheet["case"]["wall_w_mk"]["basis"] == "typical"


def test_rules_are_listed_with_their_sources(client: TestClient) -> None:
    """From the same registry that judges."""
    rules = client.get("/api/rules").json()
    assert len(rules) >= 15
    assert all(rule["source"] for rule in rules)
    length = next(rule for rule in rules if rule["id"] == "FIT-07")
    assert [(f["plan"], f["severity"]) for f in length["fires_in"]] == [
        ("choir-recorder", "problem")
    ]


@pytest.mark.parametrize(
    ("method", "path", "body", "status", "sentence"),
    [
        ("get", "/api/plans/none", None, 404, "no plan 'none'"),
        ("get", "/api/parts/none", None, 404, "no part 'none'"),
        ("get", "/api/nothing", None, 404, "no page /api/nothing"),
        ("post", "/api/plans", {"name": ""}, 422, "must not be empty"),
        ("post", "/api/plans", {"name": "x", "size": 3}, 422, "not known"),
        ("patch", CHOIR, {"patch": []}, 422, "at least 1 needed"),
        ("patch", CHOIR, {"patch": [{"op": "swap", "line": "x", "part": "B06"}]}, 422, "no line"),
        ("patch", CHOIR, {"patch": [{"op": "add", "role": "board", "part": "Z"}]}, 422, "no part"),
        ("patch", CHOIR, {"patch": [{"op": "burn"}]}, 422, "kind that is not known"),
        ("get", f"{CHOIR}/candidates?role=board&line=zz", None, 422, "no line 'zz'"),
        ("get", f"{CHOIR}/report?ambient_c=1e9", None, 422, "must be at most 90"),
        (
            "post",
            "/api/evaluate",
            {"plan": {"name": "x"}, "samples": 0},
            422,
            "must be one of 1, 64, 256 or 1024",
        ),
    ],
)
def test_wrong_requests_get_a_sentence(
    client: TestClient, method: str, path: str, body: Any, status: int, sentence: str
) -> None:
    """A problem document each, never a traceback."""
    headers = version_of(client) if method == "patch" else {}
    answer = client.request(method.upper(), path, json=body, headers=headers)
    assert answer.status_code == status
    assert sentence in answer.json()["detail"]
    assert answer.json()["title"]


@pytest.mark.parametrize("header", ["*", "abc", '"-1"', ""])
def test_a_version_that_is_none(client: TestClient, header: str) -> None:
    """The sentence shows what a version looks like."""
    answer = patched(client, {"op": "remove", "line": "board"}, **{"If-Match": header})
    assert answer.status_code == 422
    assert 'such as "3"' in answer.json()["detail"]


@pytest.mark.parametrize("host", ["evil.example", "127.0.0.1.evil.example", "[", "10.0.0.1:8000"])
def test_foreign_hosts_are_refused(client: TestClient, host: str) -> None:
    """DNS rebinding: the name in the request must be this machine's."""
    answer = client.get("/api/plans", headers={"Host": host})
    assert answer.status_code == 403
    assert "server only answers" in answer.json()["detail"]


@pytest.mark.parametrize("host", ["127.0.0.1", "localhost:8000", "[::1]:8000"])
def test_own_hosts_are_served(client: TestClient, host: str) -> None:
    """With or without a port."""
    assert client.get("/api/rules", headers={"Host": host}).status_code == 200


@pytest.mark.parametrize("origin", ["https://evil.example", "http://127.0.0.1:9999", "null"])
def test_foreign_origins_are_refused(client: TestClient, origin: str) -> None:
    """Another site's page, or another port's, may not write here."""
    answer = client.post("/api/plans", json={"name": "x"}, headers={"Origin": origin})
    assert answer.status_code == 403


def test_the_own_origin_is_served_with_safe_headers(client: TestClient) -> None:
    """Its own page may; what it gets says that nothing foreign is to be loaded."""
    answer = client.post(
        "/api/plans", json={"name": "x"}, headers={"Origin": "http://127.0.0.1:8000"}
    )
    assert answer.status_code == 201
    assert "default-src 'self'" in answer.headers["content-security-policy"]


def test_large_bodies_are_refused(client: TestClient) -> None:
    """Stated or not, two megabytes are the end."""
    answer = client.post("/api/plans", content=b"x" * 2_100_000)
    assert answer.status_code == 413
    assert "larger than 2 MB" in answer.json()["detail"]


def test_the_demo_keeps_what_the_user_changed(client: TestClient) -> None:
    """Filling again is a no-op once there were plans."""
    from cobblewort.demo import fill_with_demo

    database = client.app.state.database  # type: ignore[attr-defined]
    patched(client, {"op": "edit", "line": "board", "owned": True})
    fill_with_demo(database.path)
    assert client.get(CHOIR).json()["plan"]["lines"][0]["owned"] is True
