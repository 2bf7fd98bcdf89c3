"""Something odd in the place of every field of a plan and of a part, one at a time."""

from __future__ import annotations

import copy
import json
import random
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient
from pydantic_core import to_json

from cobblewort.api.app import create_app
from cobblewort.core.plans.plan import KINDS_FOR_ROLE, Plan
from cobblewort.formats.shipped import demo_plans, shipped_catalogue
from tests.kits import OWN


def _deep(levels: int) -> Any:
    value: Any = 1
    for _ in range(levels):
        value = {"a": value} if levels % 2 else [value]
    return value


ODD: list[Any] = [
    None,
    True,
    0,
    -1,
    1e308,
    10**400,
    "",
    " ",
    "x" * 20_000,
    "a\ud800",
    "\x00",
    "=1+1",
    [],
    {},
    [[]],
    [None] * 3000,
    {str(number): number for number in range(3000)},
    _deep(300),
    _deep(301),
    {"nominal": 1, "basis": {}},
    {"nominal": "many", "low": [], "high": None},
    "2024-13-45",
]
"""Of a wrong type, empty, huge, deep, and half a character."""


def fields(folder: Path, share: float, seed: int = 1) -> str:
    """A drawn share of all fields and odd values: each is judged or refused, and never fails."""
    chosen = random.Random(seed)
    client = TestClient(
        create_app(folder / "fields.sqlite3"),
        base_url="http://localhost",
        headers=OWN,
        raise_server_exceptions=False,
    )
    tried = checked = 0
    for document, place, of_part in _places():
        for odd in ODD:
            if chosen.random() >= share:
                continue
            changed = copy.deepcopy(document)
            _put(changed, place, odd)
            plan = _plan_with(changed) if of_part else changed
            answer = client.post(
                "/api/evaluate",
                content=json.dumps({"plan": plan, "samples": 1}),
                headers={"Content-Type": "application/json"},
            )
            told = f"{'.'.join(map(str, place))} = {json.dumps(odd)[:60]}: {answer.text[:200]}"
            assert answer.status_code in (200, 400, 413, 422), told
            assert answer.status_code == 200 or answer.json()["detail"], told
            assert "Input should" not in answer.text, told
            assert "Value should" not in answer.text, told
            tried += 1
            checked += answer.status_code == 200
    return (
        f"{tried} odd values in the place of fields, {checked} judged, {tried - checked} refused "
        "with a sentence, none failed"
    )


Place = tuple[str | int, ...]


def _places() -> Iterator[tuple[dict[str, Any], Place, bool]]:
    """Every place of the documents that have most, with the document; whether it is of a part."""
    for entry in demo_plans():
        plan = Plan.model_validate(entry["plan"]).model_dump(mode="json")
        for place in _inside(plan):
            yield plan, place, False
    kinds: set[tuple[str, str | None]] = set()
    for part in shipped_catalogue().parts():
        if (part.kind, part.part_class) not in kinds and part.origin != "typical":
            kinds.add((part.kind, part.part_class))
            whole = json.loads(to_json(part))
            for place in _inside(whole):
                yield whole, place, True


def _inside(value: Any, above: Place = ()) -> Iterator[Place]:
    entries = value.items() if isinstance(value, dict) else enumerate(value)
    for key, entry in entries:
        yield (*above, key)
        if isinstance(entry, dict | list):
            yield from _inside(entry, (*above, key))


def _put(document: Any, place: Place, odd: Any) -> None:
    *above, last = place
    for key in above:
        document = document[key]
    document[last] = copy.deepcopy(odd)


def _plan_with(part: dict[str, Any]) -> dict[str, Any]:
    """A small kit with a part that the plan carries, in the role of its kind."""
    kind = part.get("kind")
    role = next((role for role, kinds in KINDS_FOR_ROLE.items() if kind in kinds), "add_on")
    others = {"board": "B10", "power_supply": "S03", "boot_drive": "M02", "case": "E12"}
    lines = [
        {"id": name, "role": name, "part": other} for name, other in others.items() if name != role
    ]
    part_id = part.get("id")
    if isinstance(part_id, str):
        lines.append({"id": "odd", "role": role, "part": part_id})
    return {"name": "odd", "parts": [part], "lines": lines}
