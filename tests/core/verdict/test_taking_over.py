"""Whatever changes in a plan, a report that takes over what has not changed is the one made alone.

Every field, list entry and part of five plans is changed singly. All of it takes minutes and is
done by `make test-long`; `make test` does a share.
"""

from __future__ import annotations

import random
from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from typing import Any

import pytest
from pydantic import ValidationError

from cobblewort.core.plans.plan import KINDS_FOR_ROLE, Plan
from cobblewort.core.verdict.evaluate import evaluation_of, report_on
from cobblewort.formats.shipped import shipped_parts
from tests.kits import demo, shipped
from tests.plans import PLANS

TRIED = {**PLANS, "bat": demo("bat-recorder")}
_SHARE = 0.03
_NUMBERS = (0, 0.5, 2, 7, 40, 300)
_MORE: dict[str, list[Any]] = {
    "currency": ["GBP"],
    "rates": [{"EUR": "0.85"}],
    "ready_made": [{"name": "bought one", "price": "80"}],
    "reminders": [[{"id": "lens", "text": "Clean the lens.", "about": "camera"}]],
    "pins": [{"usb": "board#1.usb2"}],
    "lines": [{"board": "idle"}],
}
"""What no plan here says."""
_PATH = tuple[str | int, ...]


def _choices() -> dict[str, list[Any]]:
    """By the name of a field what can stand in it: choices of the schema, and what other plans say
    where one says nothing.
    """
    found: dict[str, list[Any]] = {}

    def note(name: str, value: Any) -> None:
        values = found.setdefault(name, [])
        if value not in values:
            values.append(value)

    def from_schema(node: Any, name: str = "") -> None:
        if isinstance(node, dict):
            for value in node.get("enum", ()):
                note(name, value)
            for key, child in node.items():
                inside = key in ("anyOf", "items", "additionalProperties")
                from_schema(child, name if inside or isinstance(node, list) else key)
        elif isinstance(node, list):
            for child in node:
                from_schema(child, name)

    def from_document(node: Any, name: str = "") -> None:
        if isinstance(node, dict):
            for key, child in node.items():
                from_document(child, key)
        elif isinstance(node, list):
            for child in node:
                from_document(child, name)
        if name and node not in (None, [], {}):
            note(name, node)

    from_schema(Plan.model_json_schema())
    for plan in TRIED.values():
        from_document(plan.model_dump(mode="json"))
    for name, values in _MORE.items():
        found.setdefault(name, []).extend(values)
    return found


_CHOICES = _choices()


def _others(name: str, value: Any) -> Iterator[Any]:
    """What could stand instead of a value."""
    if isinstance(value, bool):
        yield not value
    elif isinstance(value, int | float):
        yield from (value * 1.3, value + 1, *_NUMBERS)
    elif isinstance(value, str):
        yield from _CHOICES.get(name, ())
        yield value + " x"
    else:
        yield from _CHOICES.get(name, ())
        yield from (1, 5.0, "x", True)
    if value is not None:
        yield None


def _changed(node: Any, name: str, path: _PATH) -> Iterator[tuple[_PATH, Any]]:
    """Each place of a document with another value for it; list entries are left out and swapped."""
    if not node and isinstance(node, dict | list):
        yield from ((path, other) for other in _CHOICES.get(name, ()))
    elif isinstance(node, dict):
        for key, child in node.items():
            yield from _changed(child, key, (*path, key))
    elif isinstance(node, list) and name != "parts":
        for place in range(len(node)):
            yield path, node[:place] + node[place + 1 :]
            yield from _changed(node[place], name, (*path, place))
        if len(node) > 1:
            yield path, node[::-1]
    elif name != "part":  # another part is a swap
        yield from ((path, other) for other in _others(name, node))


def _with(document: Any, path: _PATH, value: Any) -> Any:
    """A document with another value in one place."""
    if not path:
        return value
    head, rest = path[0], path[1:]
    if isinstance(document, list):
        assert isinstance(head, int)
        inner = _with(document[head], rest, value)
        return [*document[:head], inner, *document[head + 1 :]]
    return {**document, head: _with(document[head], rest, value)}


def _swaps(plan: Plan) -> Iterator[tuple[_PATH, Any]]:
    """Each line with each other part that can stand there."""
    for number, line in enumerate(plan.lines):
        for part in shipped().parts(KINDS_FOR_ROLE[line.role]):
            if part.id != line.part:
                yield ("lines", number, "part"), part.id


def _moved_figures(plan: Plan) -> Iterator[tuple[_PATH, Any]]:
    """Each part of the plan carried by it, with one figure changed."""
    chosen = {line.part for line in plan.lines}
    for document in (part for part in shipped_parts() if part["id"] in chosen):
        for path, value in _numbers(document, ()):
            yield ("parts",), [_with(document, path, value * 1.3)]


def _numbers(node: Any, path: _PATH) -> Iterator[tuple[_PATH, float]]:
    if isinstance(node, dict | list):
        entries = node.items() if isinstance(node, dict) else enumerate(node)
        for key, child in entries:
            yield from _numbers(child, (*path, key))
    elif isinstance(node, int | float) and not isinstance(node, bool):
        yield path, node


def singly(name: str) -> list[tuple[_PATH, Plan]]:
    """Every valid plan that differs from this one in one thing, by the place of the change."""
    plan = TRIED[name]
    document = plan.model_dump(mode="json")
    found: dict[tuple[_PATH, str], Plan] = {}
    ways = [*_changed(document, "", ()), *_swaps(plan), *_moved_figures(plan)]
    for path, value in ways:
        try:
            changed = Plan.model_validate(_with(document, path, value))
        except (ValidationError, ValueError):
            continue
        if changed != plan:
            found.setdefault((path, repr(value)), changed)
    return [(path, changed) for (path, _), changed in found.items()]


def differing(one: Any, other: Any, at: str = "report") -> str:
    """Where two reports differ first, empty where they do not."""
    if is_dataclass(one) and type(one) is type(other):
        pairs = [(f.name, getattr(one, f.name), getattr(other, f.name)) for f in fields(one)]
    elif isinstance(one, list | tuple) and isinstance(other, list | tuple):
        if len(one) != len(other):
            return f"{at}: {len(one)} and {len(other)} entries"
        pairs = [(str(n), a, b) for n, (a, b) in enumerate(zip(one, other, strict=True))]
    else:
        return "" if one == other else f"{at}: {one!r} and {other!r}"
    return next((told for name, a, b in pairs if (told := differing(a, b, f"{at}.{name}"))), "")


@pytest.mark.parametrize("samples", [1, 8])
@pytest.mark.parametrize("name", list(TRIED))
def test_what_is_taken_over_is_what_it_would_be_alone(
    name: str, samples: int, is_long: bool
) -> None:
    """Judged like the plan before the change, and alone: the whole reports are equal."""
    before = evaluation_of(TRIED[name], shipped(), samples)
    tried = singly(name)
    if not is_long:
        chosen = random.Random(f"{name} {samples}")
        tried = chosen.sample(tried, int(len(tried) * _SHARE / samples**0.5))
    for path, changed in tried:
        try:
            alone = report_on(evaluation_of(changed, shipped(), samples))
        except ValueError:
            continue  # a part that cannot be, or one that is not there
        like = report_on(evaluation_of(changed, shipped(), samples, like=before))
        assert not differing(like, alone), path


def test_the_places_of_all_changes_are_all_fields_of_a_plan() -> None:
    """None of its fields is left out, nor one of its place, and there are parts among them."""
    places = {path for name in TRIED for path, _ in singly(name)}
    tops = {path[0] for path in places}
    assert tops == set(Plan.model_fields) - {"format"}
    assert {path[1] for path in places if path[0] == "place"} == set(
        type(TRIED["bat"].place).model_fields
    )
