"""What is preferred, over HTTP, and how it shows."""

from __future__ import annotations

from fastapi.testclient import TestClient

ABROAD = {"Shown": "F in comma"}


def test_a_change_keeps_the_rest(client: TestClient) -> None:
    """Each is told by name; what cannot be is refused whole."""
    assert client.get("/api/preferences").json()["temperature"] == "C"
    client.patch("/api/preferences", json={"temperature": "F"})
    changed = client.patch("/api/preferences", json={"decimal": "comma", "theme": "dark"}).json()
    assert (changed["temperature"], changed["decimal"], changed["theme"]) == ("F", "comma", "dark")
    refused = client.patch("/api/preferences", json={"length": "in", "currency": "euros"})
    assert refused.status_code == 422
    assert client.get("/api/preferences").json() == changed


def test_sentences_come_as_they_are_asked_for(client: TestClient) -> None:
    """In other units only where a request says so; figures beside them stay the core's own."""
    plain, shown = (
        client.get("/api/plans/moss-cabinet/report", headers=headers).json()
        for headers in ({}, ABROAD)
    )
    assert any("°C" in finding["sentence"] for finding in plain["findings"])
    assert not any("°C" in finding["sentence"] for finding in shown["findings"])
    assert any("°F" in finding["sentence"] for finding in shown["findings"])
    assert shown["heat"]["nodes"] == plain["heat"]["nodes"]
    assert shown["cost"]["total"] == plain["cost"]["total"]
    refused = client.get("/api/plans/moss-cabinet/report", headers={"Shown": "kelvin"})
    assert refused.status_code == 422


def test_a_first_kit_is_told_in_other_units_and_stored_in_the_cores(client: TestClient) -> None:
    """The plan that comes with it is sent back as it is: it must be the same."""
    purpose = client.get("/api/purposes").json()[0]["id"]
    place = {"ambient_max_c": 28.5, "name": "at 2.5 m"}
    body = {"name": "x", "purpose": purpose, "place": place}
    plain, shown = (
        client.post("/api/first-kit", json=body, headers=headers).json() for headers in ({}, ABROAD)
    )
    assert shown["plan"] == plain["plan"]
    assert shown["report"]["plan"] == plain["report"]["plan"]


def test_new_plans_are_in_the_money_that_is_preferred(client: TestClient) -> None:
    """Empty ones and first kits; a document keeps its own."""
    client.patch("/api/preferences", json={"currency": "USD", "price_of_a_euro": "1.25"})
    made = client.post("/api/plans", json={"name": "new"}).json()["plan"]
    assert (made["currency"], made["rates"]) == ("USD", {"EUR": "1.25"})
    purpose = client.get("/api/purposes").json()[0]["id"]
    body = {"name": "x", "purpose": purpose, "place": {}, "budget": "500"}
    kit = client.post("/api/first-kit", json=body).json()
    assert kit["report"]["cost"]["currency"] == "USD"
    assert kit["report"]["cost"]["unknown"] == []
    document = {"name": "theirs", "currency": "GBP"}
    given = client.post("/api/plans", json={"name": "theirs", "plan": document}).json()["plan"]
    assert given["currency"] == "GBP"


def test_what_is_taken_out_is_in_the_units_that_are_preferred(client: TestClient) -> None:
    """Drawings and lists; CSV and JSON are for programs and stay."""
    before = client.get("/api/plans/moss-cabinet/kit.csv").text
    client.patch("/api/preferences", json={"temperature": "F", "length": "in", "decimal": "comma"})
    drawn = client.get("/api/plans/moss-cabinet/drawings/heat.svg").text
    assert "°F" in drawn
    assert "°C" not in drawn
    assert client.get("/api/plans/moss-cabinet/kit.csv").text == before
    assert " mm above" not in client.get("/api/plans/moss-cabinet/kit.md").text
    assert client.get("/api/plans/moss-cabinet/sheet.pdf").status_code == 200


def test_the_archive_carries_them(client: TestClient) -> None:
    """What was preferred comes back with everything else."""
    client.patch("/api/preferences", json={"temperature": "F", "letter_keys": False})
    content = client.get("/api/workspace/archive").content
    client.patch("/api/preferences", json={"temperature": "C", "letter_keys": True})
    headers = {"Content-Type": "application/octet-stream"}
    client.post("/api/workspace/restore", content=content, headers=headers)
    back = client.get("/api/preferences").json()
    assert (back["temperature"], back["letter_keys"]) == ("F", False)
