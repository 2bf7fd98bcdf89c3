"""Plans as files: one plan with the parts it uses, or several with their steps.

A plan file is a plan document whose `parts` hold everything that its lines name, so that it is
judged alike wherever it is opened. Several plans stand in one object with `plans`, and the parts of
all of them and of their steps once, in `parts`: the `parts` of each plan are places in that list.
"""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal

from cobblewort.core.errors import InputError, UnknownPartError
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import MAX_ITEMS, Plan, plan_from
from cobblewort.core.plans.steps import PlanFile, Step
from cobblewort.formats.documents import exported, too_many

PLANS_FORMAT = "cobblewort-plans/3"
_FORMER_PLANS_FORMATS = ("cobblewort-plans/1", "cobblewort-plans/2")
MOST_PLANS, MOST_STEPS = 1000, 5000

Document = dict[str, Any]


Carried = Literal["same", "differs", "new"]


@dataclass(slots=True, frozen=True)
class CarriedPart:
    """A part that comes with a plan, against the catalogue here: `same`; `differs`, so that the
    plan keeps its own figures; or `new`, so that only this plan knows it.
    """

    id: str
    maker: str
    model: str
    state: Carried


def self_contained(plan: Plan, catalogue: Catalogue) -> Plan:
    """The plan with the document of every part that it uses, as its lines keep them.

    Raises
    ------
    UnknownPartError
        If a line names a part that is nowhere.
    """
    known = catalogue.for_plan(plan)
    documents: dict[str, Document] = {}
    for line in plan.lines:
        part = known.of_line(line)
        stated = {k: v for k, v in known.document(part).items() if k != "revision"}
        kept = documents.setdefault(part.id, stated)
        if kept != stated:  # two lines, two revisions: the file tells them apart by their ids
            apart = f"{part.id}-r{part.revision}"
            documents[apart] = {**stated, "id": apart}
    lines = tuple(
        line.model_copy(
            update={
                "part": _id_in_file(line.part, known.of_line(line), documents),
                "part_revision": None,
            }
        )
        for line in plan.lines
    )
    return plan.model_copy(update={"lines": lines, "parts": tuple(documents.values())})


def _id_in_file(part_id: str, part: Any, documents: Mapping[str, Document]) -> str:
    apart = f"{part_id}-r{part.revision}"
    return apart if apart in documents else part_id


def plan_text(plan: Plan, catalogue: Catalogue) -> str:
    """A plan with its parts as JSON."""
    document = self_contained(plan, catalogue).model_dump(mode="json", exclude_defaults=True)
    return _text({"format": plan.format, **document})


def plans_text(plans: Sequence[PlanFile], catalogue: Catalogue) -> str:
    """Several plans with their parts and steps as JSON.

    Raises
    ------
    InputError
        If there are more of them than can be imported again.
    """
    if len(plans) > MOST_PLANS:
        raise too_many(f"{len(plans)} plans; at most {MOST_PLANS}")
    entries, parts = [], _Shared()
    for entry in plans:
        if len(entry.steps) > MOST_STEPS:
            raise too_many(f"{len(entry.steps)} steps of a plan; at most {MOST_STEPS}")
        steps = [
            {
                "number": step.number,
                "parent": step.parent,
                "label": step.label,
                "created_at": step.created_at,
                "plan": parts.taken_out_of(self_contained(step.plan, catalogue)),
            }
            for step in entry.steps
        ]
        document = parts.taken_out_of(self_contained(entry.plan, catalogue))
        entries.append({"plan": document, "head": entry.head, "steps": steps})
    return exported(_text({"format": PLANS_FORMAT, "parts": parts.documents, "plans": entries}))


class _Shared:
    """The parts of all plans of a file, each of them once."""

    def __init__(self) -> None:
        self.documents: list[Document] = []
        self._places: dict[str, int] = {}

    def taken_out_of(self, plan: Plan) -> Document:
        """A plan as a document that names its parts by their places in the list."""
        document = plan.model_dump(mode="json", exclude_defaults=True)
        if plan.parts:
            document["parts"] = [self._place(part) for part in document["parts"]]
        return {"format": plan.format, **document}

    def _place(self, part: Document) -> int:
        text = json.dumps(part, sort_keys=True)
        if text not in self._places:
            self._places[text] = len(self.documents)
            self.documents.append(part)
        return self._places[text]


def _text(document: Document) -> str:
    return json.dumps(document, indent=1, ensure_ascii=False) + "\n"


def plans_from(value: Any) -> list[PlanFile]:
    """The plans of a file, be it one or several.

    Raises
    ------
    InputError
        With every problem of every plan and its place.
    """
    if not isinstance(value, dict) or "plans" not in value:
        return [PlanFile(plan_from(value))]
    entries = value["plans"]
    known = (PLANS_FORMAT, *_FORMER_PLANS_FORMATS)
    if value.get("format") not in known or not isinstance(entries, list):
        raise InputError([("format", f"a file with several plans has the format {PLANS_FORMAT}")])
    parts = value.get("parts", [])
    if not isinstance(parts, list):
        raise InputError([("parts", "the parts of several plans are a list")])
    if len(entries) > MOST_PLANS:
        raise InputError([("plans", f"a file contains at most {MOST_PLANS} plans")])
    found: list[PlanFile] = []
    problems: list[tuple[str, str]] = []
    for index, entry in enumerate(entries):
        try:
            found.append(_entry(entry, parts))
        except InputError as error:
            problems += [
                (f"plans.{index}.{place}".rstrip("."), text) for place, text in error.problems
            ]
    if problems:
        raise InputError(problems)
    return found


def _entry(entry: Any, parts: list[Any]) -> PlanFile:
    if not isinstance(entry, dict):
        raise InputError([("", "each entry is an object with a plan")])
    plan = _placed("plan", entry.get("plan"), parts)
    raw = entry.get("steps") or []
    if not isinstance(raw, list) or len(raw) > MOST_STEPS:
        raise InputError([("steps", f"a plan has a list of at most {MOST_STEPS} steps")])
    steps = tuple(_step(index, step, parts) for index, step in enumerate(raw))
    numbers = [step.number for step in steps]
    if sorted(numbers) != list(range(1, len(steps) + 1)) or numbers != sorted(numbers):
        raise InputError([("steps", "steps are numbered 1, 2, 3 and so on, in order")])
    for index, step in enumerate(steps):
        if step.parent is not None and not 0 < step.parent < step.number:
            raise InputError([(f"steps.{index}.parent", "a step follows an earlier one")])
    head = entry.get("head", len(steps) or 1)
    if type(head) is not int or (steps and not 1 <= head <= len(steps)):
        raise InputError([("head", "it names the current step of the plan")])
    if steps and steps[head - 1].plan != plan:
        raise InputError([("head", "the plan differs from its current step")])
    return PlanFile(plan, steps, head)


def _placed(place: str, document: Any, parts: list[Any]) -> Plan:
    """A plan of a file, with the parts that it names by their places."""
    named = document.get("parts") if isinstance(document, dict) else None
    if isinstance(named, list) and len(named) <= MAX_ITEMS:
        found = []
        for index, part in enumerate(named):
            if type(part) is not int:
                found.append(part)
            elif 0 <= part < len(parts):
                found.append(parts[part])
            else:
                raise InputError([(f"{place}.parts.{index}", "the file has no part at this place")])
        document = {**document, "parts": found}
    try:
        return plan_from(document)
    except InputError as error:
        raise InputError(
            [(f"{place}.{inner}".rstrip("."), text) for inner, text in error.problems]
        ) from error


def _step(index: int, entry: Any, parts: list[Any]) -> Step:
    place = f"steps.{index}"
    if not isinstance(entry, dict):
        raise InputError([(place, "each step is an object")])
    number, parent = entry.get("number"), entry.get("parent")
    label, created_at = entry.get("label", ""), entry.get("created_at", "")
    if type(number) is not int or not (parent is None or type(parent) is int):
        raise InputError([(place, "a step has a number and the number of the step before it")])
    if not isinstance(label, str) or not isinstance(created_at, str) or len(label) > 200:
        raise InputError([(place, "a step has a label of at most 200 characters, and a time")])
    return Step(
        number, parent, label, created_at[:40], _placed(f"{place}.plan", entry.get("plan"), parts)
    )


def carried_parts(plan: Plan, catalogue: Catalogue) -> list[CarriedPart]:
    """The parts that a plan carries, each against the catalogue here.

    Raises
    ------
    InputError
        With every problem of every part that it carries.
    """
    carried = catalogue.for_plan(plan)
    found = []
    for document in plan.parts:
        part = carried.part(str(document.get("id")))
        found.append(CarriedPart(part.id, part.maker, part.model, _state(document, catalogue)))
    return found


def new_parts(entries: Iterable[PlanFile], catalogue: Catalogue) -> list[Document]:
    """The documents that the plans of a file carry and the catalogue does not know, each once."""
    found = {
        str(document.get("id")): document
        for entry in entries
        for document in entry.plan.parts
        if _state(document, catalogue) == "new"
    }
    return list(found.values())


def _state(document: Mapping[str, Any], catalogue: Catalogue) -> Carried:
    try:
        here = catalogue.part(str(document.get("id")))
    except UnknownPartError:
        return "new"
    return "same" if _stated(catalogue.document(here)) == _stated(document) else "differs"


def _stated(document: Mapping[str, Any]) -> Document:
    """What a part states, in the types that JSON knows."""
    kept = {name: value for name, value in document.items() if name not in ("revision", "origin")}
    plain: Document = json.loads(json.dumps(kept))
    return plain


def settled_in(plan: Plan, catalogue: Catalogue) -> Plan:
    """A plan of a file as it is stored here: parts that the catalogue has alike are left to it."""
    apart = tuple(document for document in plan.parts if _state(document, catalogue) != "same")
    return plan.model_copy(update={"parts": apart})


def settled_file(entry: PlanFile, catalogue: Catalogue) -> PlanFile:
    """A plan of a file with its steps, as they are stored here: each line keeps a revision."""

    def settled(plan: Plan) -> Plan:
        return catalogue.pinned(settled_in(plan, catalogue))

    steps = tuple(replace(step, plan=settled(step.plan)) for step in entry.steps)
    return PlanFile(settled(entry.plan), steps, entry.head)
