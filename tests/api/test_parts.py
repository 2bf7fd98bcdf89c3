from typing import Any

from fastapi.testclient import TestClient

MOSS = "/api/plans/moss-cabinet"


def copied(client: TestClient, part: str) -> dict[str, Any]:
    """A copy of a part, as a sheet."""
    answer = client.post(f"/api/parts/{part}/copy")
    assert answer.status_code == 201
    sheet: dict[str, Any] = answer.json()
    return sheet


def edited(client: TestClient, part: str, revision: int, **changes: Any) -> Any:
    """Send changes to a part."""
    headers = {"If-Match": f'"{revision}"'}
    return client.patch(f"/api/parts/{part}", json=changes, headers=headers)


def figure(sheet: dict[str, Any], path: str) -> dict[str, Any]:
    """One figure of a sheet."""
    return next(entry for entry in sheet["figures"] if entry["path"] == path)


def test_a_copy_is_ones_own_and_the_next_in_the_list(client: TestClient) -> None:
    """It states what the original states, and falls back to the same class."""
    sheet = copied(client, "X07")
    assert (sheet["model"], sheet["origin"], sheet["revision"]) == (
        "Gloaming 384 (copy)",
        "custom",
        1,
    )
    listed = client.get("/api/parts", params={"kind": "device"}).json()
    assert sheet["id"] in {part["id"] for part in listed}
    assert figure(sheet, "loads.own.peak")["own"]


def test_a_part_from_class_figures_alone(client: TestClient) -> None:
    """Every class is in the catalogue; a copy of it states nothing itself."""
    sheet = copied(client, "any-fast-card")
    assert sheet["model"] == "Typical fast board (copy)"
    assert not any(entry["own"] for entry in sheet["figures"])
    assert sheet["price"] is None


def test_an_edit_is_judged_by_the_class_and_kept_as_a_revision(client: TestClient) -> None:
    """Name, price and figures; an emptied figure falls back, and says so."""
    part = copied(client, "X07")["id"]
    answer = edited(
        client,
        part,
        1,
        model=" Attic microphone ",
        price="120.50",
        currency="GBP",
        figures={"loads.own.peak": {"nominal": 0.3, "basis": "measured"}, "loads.own.idle": None},
    )
    sheet = answer.json()
    assert answer.headers["ETag"] == '"2"'
    assert (sheet["model"], sheet["price"]) == ("Attic microphone", "120.50")
    assert sheet["currency"] == "GBP"
    peak, idle = figure(sheet, "loads.own.peak"), figure(sheet, "loads.own.idle")
    assert (peak["nominal"], peak["basis"], peak["low"]) == (0.3, "measured", 0.291)
    assert (idle["own"], idle["basis"], idle["nominal"]) == (False, "typical", 0.05)


def test_wrong_figures_are_told_where_they_stand_and_change_nothing(client: TestClient) -> None:
    """A sentence with the path of the figure; the part stays at its revision."""
    part = copied(client, "X07")["id"]
    answer = edited(client, part, 1, figures={"loads.own.peak": {"nominal": -3}})
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["place"] == "figures.loads.own.peak"
    assert "must not be negative" in answer.json()["detail"]
    upside_down = edited(client, part, 1, figures={"loads.own.normal": {"nominal": 9}})
    assert "must rise in that order" in upside_down.json()["detail"]
    none = edited(client, part, 1, figures={"cooler.height_mm": {"nominal": 3}})
    assert "this part has no such value" in none.json()["detail"]
    assert client.get(f"/api/parts/{part}/sheet").json()["revision"] == 1


def test_what_came_with_the_catalogue_is_copied_not_changed(client: TestClient) -> None:
    """Refused with the way out; a stale write too."""
    refused = edited(client, "X07", 1, model="Mine")
    assert (refused.status_code, "Copy the" in refused.json()["detail"]) == (409, True)
    part = copied(client, "X07")["id"]
    edited(client, part, 1, model="Once")
    assert edited(client, part, 1, model="Twice").status_code == 412
    assert edited(client, "none", 1, model="x").status_code == 404


def test_a_plan_keeps_the_figures_it_chose_until_told_otherwise(client: TestClient) -> None:
    """After an edit the plan's verdict is as before, and the line says what has changed."""
    part = copied(client, "S07")["id"]
    headers = {"If-Match": client.get(MOSS).headers["ETag"]}
    swap = {"op": "swap", "line": "power_supply", "part": part}
    version = client.patch(MOSS, json={"patch": [swap]}, headers=headers).headers["ETag"]
    before = client.get(f"{MOSS}/report").json()
    edited(client, part, 1, figures={"source.rated_a": {"nominal": 1.2}})
    kept = client.get(f"{MOSS}/report").json()
    assert kept["margins"] == before["margins"]
    line = next(entry for entry in kept["lines"] if entry["id"] == "power_supply")
    assert (line["newest_revision"], line["changed"]) == (2, ["rated current: 2.4 A to 1.2 A"])
    old = client.get(f"/api/parts/{part}/sheet", params={"revision": 1}).json()
    assert figure(old, "source.rated_a")["nominal"] == 2.4

    take = {"op": "edit", "line": "power_supply", "part_revision": 2}
    answer = client.patch(MOSS, json={"patch": [take]}, headers={"If-Match": version}).json()
    assert answer["undo_label"] == "Use the newest values of Wallplate 24 (copy)"
    after = client.get(f"{MOSS}/report").json()
    assert next(e for e in after["lines"] if e["id"] == "power_supply")["changed"] == []
    assert any(f["rule"] == "PWR-02" for f in after["findings"])


def test_put_away_it_stays_in_plans_and_is_offered_no_more(client: TestClient) -> None:
    """And comes back; the same after a restart of the application."""
    part = copied(client, "X07")["id"]
    edited(client, part, 1, summary="mine")
    assert client.delete(f"/api/parts/{part}").status_code == 422
    stale = client.delete(f"/api/parts/{part}", headers={"If-Match": '"1"'})
    assert (stale.status_code, stale.json()["type"]) == (412, "urn:cobblewort:problem:stale")
    at = {"If-Match": client.get(f"/api/parts/{part}/sheet").headers["ETag"]}
    assert client.delete(f"/api/parts/{part}", headers=at).status_code == 204
    assert part not in {entry["id"] for entry in client.get("/api/parts").json()}
    assert client.get(f"/api/parts/{part}/sheet").status_code == 200
    client.post(f"/api/parts/{part}/restore")
    assert part in {entry["id"] for entry in client.get("/api/parts").json()}
    assert client.delete("/api/parts/X07", headers=at).status_code == 409
