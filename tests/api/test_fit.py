"""Where a plug could go, and the template, over HTTP."""

import pytest
from fastapi.testclient import TestClient

from tests.kits import kit


def stored(client: TestClient, *parts: str) -> str:
    """A plan in the store; its id."""
    plan = kit(*parts).model_dump(mode="json")
    answer = client.post("/api/plans", json={"name": "test kit", "plan": plan})
    assert answer.status_code == 201, answer.text
    plan_id: str = answer.json()["id"]
    return plan_id


def test_moves_of_a_plug(client: TestClient) -> None:
    """The one in use first; a plug that is not there is told in words."""
    plan_id = stored(client, "B06", "S01", "M02", "X06")
    found = client.get(f"/api/plans/{plan_id}/moves", params={"plug": "X06#1.usb"}).json()
    assert [place["current"] for place in found] == [True, False, False, False]
    gone = client.get(f"/api/plans/{plan_id}/moves", params={"plug": "nothing"})
    assert gone.status_code == 422
    assert "plug 'nothing' any" in gone.text


@pytest.mark.parametrize(
    ("kind", "media", "begins"),
    [
        ("svg", "image/svg+xml", b"<svg"),
        ("dxf", "image/vnd.dxf", b"  0"),
        ("pdf", "application/pdf", b"%PDF-"),
    ],
)
def test_the_template_as_a_file(client: TestClient, kind: str, media: str, begins: bytes) -> None:
    """With its type, and a name that a file system takes."""
    plan_id = stored(client, "B06", "S01", "M02", "E15")
    answer = client.get(f"/api/plans/{plan_id}/template.{kind}")
    assert answer.status_code == 200
    assert answer.headers["content-type"].startswith(media)
    assert f'filename="test-kit-template.{kind}"' in answer.headers["content-disposition"]
    assert answer.content.lstrip(b"\r\n").startswith(begins)


def test_a_template_without_a_case_says_what_is_missing(client: TestClient) -> None:
    """A sentence, not an empty sheet."""
    plan_id = stored(client, "B06", "S01", "M02")
    answer = client.get(f"/api/plans/{plan_id}/template.svg")
    assert answer.status_code == 422
    assert "needs a case" in answer.text
