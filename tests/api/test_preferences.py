"""What is preferred, over HTTP, and how it shows."""

from __future__ import annotations

from fastapi.testclient import TestClient


def test_a_change_keeps_the_rest(client: TestClient) -> None:
    """Each is told by name; what cannot be is refused whole."""
    assert client.get("/api/preferences").json()["temperature"] == "C"
    client.patch("/api/preferences", json={"temperature": "F"})
    changed = client.patch("/api/preferences", json={"decimal": "comma", "theme": "dark"}).json()
    assert (changed["temperature"], changed["decimal"], changed["theme"]) == ("F", "comma", "dark")
    refused = client.patch("/api/preferences", json={"length": "in", "currency": "euros"})
    assert refused.status_code == 422
    assert client.get("/api/preferences").json() == changed


def test_sentences_come_as_parts_whatever_is_preferred(client: TestClient) -> None:
    """Words, and figures in units of the core: the page puts them into those of its reader."""
    plain = client.get("/api/plans/moss-cabinet/report").json()
    client.patch("/api/preferences", json={"temperature": "F", "length": "in", "decimal": "comma"})
    shown = client.get("/api/plans/moss-cabinet/report").json()
    assert shown == plain
    told = [finding["sentence"] for finding in plain["findings"]]
    figures = [part for text in told for part in text["parts"] if isinstance(part, dict)]
    assert {"years"} <= {figure["unit"] for figure in figures}
    assert all(text["text"].startswith(text["parts"][0]) for text in told)


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
