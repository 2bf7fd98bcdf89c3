"""Reports that are kept say what would be worked out anew."""

import sqlite3
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from cobblewort.api import deps
from cobblewort.api.app import create_app
from cobblewort.core.verdict.evaluation import Evaluation
from cobblewort.core.verdict.report import Report
from cobblewort.demo import fill_with_demo
from cobblewort.store.plans import StoredPlan
from tests.kits import OWN, SMALL, kit, shipped

PLAN = "/api/plans/moss-cabinet"


def anew(client: TestClient, plan: str = PLAN) -> Any:
    """The report of a plan as it stands, of its document and without its id."""
    document = client.get(plan).json()["plan"]
    return client.post("/api/evaluate", json={"plan": document, "samples": 256}).json()


def changed(client: TestClient, *patch: dict[str, Any]) -> None:
    """Change the plan."""
    version = client.get(PLAN).headers["ETag"]
    answer = client.patch(PLAN, json={"patch": patch}, headers={"If-Match": version})
    assert answer.status_code == 200, answer.text


def test_each_step_of_a_plan_has_its_own(client: TestClient) -> None:
    """A change, undo, redo, and a name that is of the plan and not of the kit."""
    first = client.get(f"{PLAN}/report").json()
    changed(client, {"op": "set", "fields": {"budget": "1"}})
    second = client.get(f"{PLAN}/report").json()
    assert second == anew(client) != first
    for step, expected in (("undo", first), ("redo", second)):
        version = client.get(PLAN).headers["ETag"]
        client.post(f"{PLAN}/{step}", headers={"If-Match": version})
        assert client.get(f"{PLAN}/report").json() == expected
    strip = next(s for s in client.get("/api/plans").json() if s["id"] == "moss-cabinet")
    assert strip["severity"] == second["severity"]
    assert strip["total"] == second["cost"]["total"]


def test_an_assumption_is_not_kept(client: TestClient) -> None:
    """What is assumed for a moment does not come back as the plan's own."""
    own = client.get(f"{PLAN}/report").json()
    hot = client.get(f"{PLAN}/report", params={"ambient_c": 60}).json()
    assert hot["heat"]["ambient_c"] == 60
    assert client.get(f"{PLAN}/report").json() == own


def test_a_part_that_changes_changes_the_reports_of_its_plans(client: TestClient) -> None:
    """The plan keeps its revision of the part, and the report tells that there is a newer one."""
    copy = client.post("/api/parts/X07/copy").json()["id"]
    changed(client, {"op": "add", "role": "add_on", "part": copy})
    before = client.get(f"{PLAN}/report").json()
    answer = client.patch(
        f"/api/parts/{copy}", json={"model": "Quieter"}, headers={"If-Match": '"1"'}
    )
    assert answer.status_code == 200
    after = client.get(f"{PLAN}/report").json()
    assert after == anew(client) != before


def test_another_file_in_the_place_of_ours_is_noticed(tmp_path: Path) -> None:
    """Same id, same version, another plan: a copy of the data brought back under a running page."""
    one, two = tmp_path / "one.sqlite3", tmp_path / "two.sqlite3"
    for path in (one, two):
        fill_with_demo(path)
    with TestClient(create_app(two), base_url="http://127.0.0.1:8000", headers=OWN) as client:
        changed(client, {"op": "set", "fields": {"budget": "2"}})
    with TestClient(create_app(one), base_url="http://127.0.0.1:8000", headers=OWN) as client:
        changed(client, {"op": "set", "fields": {"budget": "1"}})
        assert client.get(f"{PLAN}/report").json()["cost"]["budget"] == "1"
        with closing(sqlite3.connect(two)) as source, closing(sqlite3.connect(one)) as target:
            source.backup(target)
        assert client.get(f"{PLAN}/report").json()["cost"]["budget"] == "2"


def test_a_plan_that_cannot_be_judged_is_not_stored(client: TestClient) -> None:
    """An unknown part is refused with its place, and the plan stays at its version."""
    before = client.get(PLAN).json()
    answer = client.patch(
        PLAN,
        json={"patch": [{"op": "add", "role": "case", "part": "nothing"}]},
        headers={"If-Match": f'"{before["version"]}"'},
    )
    assert answer.status_code == 422
    assert "has no part 'nothing'" in answer.json()["detail"]
    assert client.get(PLAN).json() == before


def stored(number: int) -> StoredPlan:
    """A plan as the store would give it."""
    plan = kit(*SMALL)
    return StoredPlan(f"plan-{number}", 1, plan, "2026-01-01T00:00:00.000+00:00", None, None)


def test_the_oldest_makes_room(monkeypatch: pytest.MonkeyPatch) -> None:
    """At most so many are kept; one that is looked at again counts as new."""
    worked_out: list[str] = []
    original = deps.report_on

    def counted(evaluation: Evaluation) -> Report:
        worked_out.append("one more")
        return original(evaluation)

    monkeypatch.setattr(deps, "report_on", counted)
    monkeypatch.setattr(deps, "_MOST_REPORTS", 2)
    reports = deps.Reports(shipped())
    for number in (1, 2, 1, 3):
        reports.of(stored(number))
    assert len(worked_out) == 3
    reports.of(stored(1))
    assert len(worked_out) == 3, "it was looked at again"
    reports.of(stored(2))
    assert len(worked_out) == 4, "it had made room"


def test_versions_only_rise(client: TestClient) -> None:
    """What a report is kept by: undo goes back to a document, never to a version."""
    changed(client, {"op": "set", "fields": {"budget": "1"}})
    seen = [client.get(PLAN).json()["version"]]
    for step in ("undo", "redo", "undo"):
        answer = client.post(f"{PLAN}/{step}", headers={"If-Match": f'"{seen[-1]}"'})
        seen.append(answer.json()["version"])
    assert seen == sorted(set(seen))
