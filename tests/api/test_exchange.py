"""What goes out and comes in over HTTP: nothing half, nothing silently replaced."""

from __future__ import annotations

import io
import json
from typing import Any

import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from cobblewort.store.archive import MAX_ARCHIVE_BYTES


def names(client: TestClient) -> list[str]:
    """The plans that are there."""
    return [plan["name"] for plan in client.get("/api/plans").json()]


def import_all(client: TestClient, what: str, text: str, **fields: Any) -> Any:
    """Send a file."""
    return client.post(f"/api/import/{what}", json={"text": text, **fields})


def test_a_plan_goes_out_and_comes_in(client: TestClient) -> None:
    """First looked at, then stored beside its namesake, which is left alone; judged alike."""
    text = client.get("/api/plans/choir-recorder/plan.json").text
    (looked,) = import_all(client, "plans", text).json()
    assert (looked["namesake"], looked["id"], looked["severity"]) == (True, None, "problem")
    assert {part["state"] for part in looked["parts"]} == {"same"}
    assert len(names(client)) == 3
    answer = import_all(client, "plans", text, dry_run=False)
    assert answer.status_code == 201
    (stored,) = answer.json()
    assert len(names(client)) == 4
    here, there = (
        client.get(f"/api/plans/{plan}/report").json() for plan in ("choir-recorder", stored["id"])
    )
    assert here == there


def test_several_plans_with_steps(client: TestClient) -> None:
    """Steps come back one by one, with their labels; undo goes on from there."""
    view = client.get("/api/plans/bat-recorder").json()
    patch = [{"op": "set", "fields": {"name": "Another"}}]
    client.patch(
        "/api/plans/bat-recorder", json={"patch": patch}, headers={"If-Match": str(view["version"])}
    )
    text = client.get("/api/export/plans.json?steps=true&plan=bat-recorder").text
    (stored,) = import_all(client, "plans", text, dry_run=False).json()
    assert stored["steps"] == 2
    steps = client.get(f"/api/plans/{stored['id']}/revisions").json()
    assert [step["label"] for step in steps][-1] == "demo plan"
    version = client.get(f"/api/plans/{stored['id']}").json()["version"]
    undone = client.post(
        f"/api/plans/{stored['id']}/undo", headers={"If-Match": str(version)}
    ).json()
    assert undone["plan"]["name"] == "Churchyard bat-call recorder"


def test_a_file_with_one_wrong_plan_leaves_nothing_behind(client: TestClient) -> None:
    """All or none, and every error at once with its place."""
    document = json.loads(client.get("/api/export/plans.json").text)
    document["plans"][0]["plan"]["name"] = ""
    document["plans"][1]["plan"]["lines"][0]["part"] = "nowhere"
    answer = import_all(client, "plans", json.dumps(document), dry_run=False)
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["place"] == "plans.0.plan.name"
    document["plans"][0]["plan"]["name"] = "good"
    answer = import_all(client, "plans", json.dumps(document), dry_run=False)
    assert answer.status_code == 422
    assert "nowhere" in answer.json()["detail"]
    assert len(names(client)) == 3


def test_parts_that_come_with_a_plan(client: TestClient) -> None:
    """Kept with the plan, or put into the catalogue on wish."""
    mine = client.post("/api/parts/X05/copy").json()
    plan = {
        "name": "With mine",
        "lines": [{"id": "a", "role": "add_on", "part": "Q1"}],
        "parts": [
            {
                "id": "Q1",
                "kind": "device",
                "part_class": "usb2_device",
                "maker": "m",
                "model": "Quill",
            }
        ],
    }
    import_all(client, "plans", json.dumps(plan), dry_run=False)
    known = {part["id"] for part in client.get("/api/parts").json()}
    assert "Q1" not in known
    assert mine["id"] in known
    import_all(client, "plans", json.dumps(plan), dry_run=False, with_parts=True)
    assert "Q1" in {part["id"] for part in client.get("/api/parts").json()}


@pytest.mark.parametrize("kind", ["json", "csv"])
def test_a_pack_goes_out_and_comes_in(client: TestClient, kind: str) -> None:
    """Found twice it is the same; changed it updates; what ships is left alone."""
    mine = client.post("/api/parts/X05/copy").json()
    text = client.get(f"/api/export/parts.{kind}").text
    looked = import_all(client, "parts", text, name=f"a.{kind}").json()
    assert [part["state"] for part in looked["parts"]] == ["same"]
    changed = text.replace("Pipit (copy)", "Pipit of mine")
    answer = import_all(client, "parts", changed, name=f"a.{kind}", dry_run=False).json()
    assert (answer["parts"][0]["state"], answer["stored"]) == ("changes", 1)
    sheet = client.get(f"/api/parts/{mine['id']}/sheet").json()
    assert (sheet["model"], sheet["revision"]) == ("Pipit of mine", 2)
    whole = client.get(f"/api/export/parts.{kind}?own=false").text
    answer = import_all(client, "parts", whole, name=f"a.{kind}", dry_run=False).json()
    assert answer["stored"] == 0


def test_the_workspace_goes_out_and_comes_back(client: TestClient) -> None:
    """Looked at first; afterwards everything is as it was, the catalogue too; a copy is kept."""
    mine = client.post("/api/parts/X05/copy").json()
    content = client.get("/api/workspace/archive").content
    for plan in client.get("/api/plans").json():
        client.delete(f"/api/plans/{plan['id']}", headers={"If-Match": str(plan["version"])})
    client.delete(f"/api/parts/{mine['id']}", headers={"If-Match": '"1"'})
    head = {"content-type": "application/zip"}
    looked = client.post("/api/workspace/inspect", content=content, headers=head).json()
    assert len(looked["archive"]["holds"]["plans"]) == 3
    assert (looked["here"]["plans"], looked["here"]["in_bin"]) == ([], 3)
    assert names(client) == []
    restored = client.post("/api/workspace/restore", content=content, headers=head).json()
    assert restored["copy"].endswith("-before-restore.sqlite3")
    assert len(names(client)) == 3
    assert mine["id"] in {part["id"] for part in client.get("/api/parts").json()}
    refused = client.post("/api/workspace/restore", content=content[:-3], headers=head)
    assert refused.status_code == 422
    assert "Nothing was changed" in refused.json()["detail"]


def test_only_what_is_imported_may_be_large(client: TestClient) -> None:
    """What is sent elsewhere is bounded as before."""
    large = "x" * 3_000_000
    assert client.post("/api/plans", json={"name": large}).status_code == 413
    assert import_all(client, "plans", large).status_code == 422
    refused = import_all(client, "plans", "x" * 21_000_000)
    assert refused.status_code == 422
    assert "The file has 21 MB; at most 20 MB" in refused.json()["detail"]
    assert import_all(client, "plans", "x" * 41_000_000).status_code == 413
    answer = client.post("/api/workspace/inspect", content=large.encode())
    assert answer.status_code == 422
    assert MAX_ARCHIVE_BYTES > 3_000_000


def test_what_is_put_away_is_found_and_comes_back(client: TestClient) -> None:
    """Plans and parts; emptied only what is named, for good."""
    version = client.get("/api/plans/moss-cabinet").json()["version"]
    client.delete("/api/plans/moss-cabinet", headers={"If-Match": str(version)})
    mine = client.post("/api/parts/X05/copy").json()
    client.delete(f"/api/parts/{mine['id']}", headers={"If-Match": '"1"'})
    away = client.get("/api/bin").json()
    assert [plan["id"] for plan in away["plans"]] == ["moss-cabinet"]
    assert [part["id"] for part in away["parts"]] == [mine["id"]]
    client.post("/api/plans/moss-cabinet/restore")
    assert client.get("/api/bin").json()["plans"] == []
    client.post("/api/bin/empty", json={"plans": ["choir-recorder"]})
    assert len(names(client)) == 3  # it was not put away
    version = client.get("/api/plans/moss-cabinet").json()["version"]
    client.delete("/api/plans/moss-cabinet", headers={"If-Match": str(version)})
    client.post("/api/bin/empty", json={"plans": ["moss-cabinet"]})
    assert client.post("/api/plans/moss-cabinet/restore").status_code == 404


def test_a_plan_goes_back_to_one_of_its_steps(client: TestClient) -> None:
    """Looked at first; going back is a step of its own, that can be undone."""
    version = client.get("/api/plans/bat-recorder").json()["version"]
    patch = [{"op": "set", "fields": {"place": {"ambient_max_c": 45}}}]
    changed = client.patch(
        "/api/plans/bat-recorder", json={"patch": patch}, headers={"If-Match": str(version)}
    ).json()
    before = client.get("/api/plans/bat-recorder/revisions/1/report").json()
    assert before["heat"]["ambient_c"] < 45
    head = {"If-Match": str(changed["version"])}
    back = client.post("/api/plans/bat-recorder/revisions/1/go-back", headers=head).json()
    assert back["plan"]["place"]["ambient_max_c"] < 45
    assert back["undo_label"] == "back to: demo plan"
    stale = client.post("/api/plans/bat-recorder/revisions/1/go-back", headers=head)
    assert stale.status_code == 412
    assert client.get("/api/plans/bat-recorder/revisions/99/report").status_code == 404


def test_sheets_and_drawings(client: TestClient) -> None:
    """A PDF that can be read, and each drawing as SVG under a name of its own."""
    answer = client.get("/api/plans/choir-recorder/sheet.pdf?paper=letter")
    assert answer.headers["content-type"] == "application/pdf"
    assert len(PdfReader(io.BytesIO(answer.content)).pages) in (3, 4)
    for name in ("margins", "stack", "above", "power", "heat", "money"):
        drawn = client.get(f"/api/plans/choir-recorder/drawings/{name}.svg")
        assert drawn.text.startswith("<svg")
        assert f'-{name}.svg"' in drawn.headers["content-disposition"]
    empty = client.post("/api/plans", json={"name": "empty"}).json()
    assert client.get(f"/api/plans/{empty['id']}/drawings/heat.svg").status_code == 422
    assert "- [ ] Board" in client.get("/api/plans/choir-recorder/kit.md").text
