"""Plans as files: judged alike wherever they are opened, and read back as they were."""

from __future__ import annotations

import json
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic_core import to_json

from cobblewort.core.errors import InputError
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from cobblewort.core.plans.steps import PlanFile, Step
from cobblewort.formats.plan_files import (
    carried_parts,
    plan_text,
    plans_from,
    plans_text,
    settled_file,
    settled_in,
)
from cobblewort.formats.shipped import shipped_classes
from tests.kits import checked, demo, kit, shipped, with_part
from tests.plans import PLANS, chain

OWN: dict[str, Any] = {
    "id": "X99",
    "kind": "device",
    "part_class": "usb2_device",
    "maker": "m",
    "model": "Mine",
}


def bare() -> Catalogue:
    """A catalogue with nothing but classes in it: another machine, of another day."""
    return Catalogue.from_documents([], shipped_classes())


@pytest.mark.parametrize("plan_id", sorted(PLANS))
def test_a_plan_file_is_judged_alike_in_an_empty_catalogue(plan_id: str) -> None:
    """Everything that its lines name comes with it."""
    plan = PLANS[plan_id]
    (entry,) = plans_from(json.loads(plan_text(plan, shipped())))
    here, there = checked(plan, 64), checked(entry.plan, 64, bare())
    assert [m.spare for m in here.margins] == [m.spare for m in there.margins]
    assert [f.sentence.text for f in here.findings if f.family != "cost"] == [
        f.sentence.text for f in there.findings if f.family != "cost"
    ]  # of money the catalogue around is told: what is larger and cheaper there


@pytest.mark.parametrize("plan", [plan for name in sorted(PLANS) for plan in chain(name, 12)[::4]])
def test_out_and_in_and_out_is_the_same_file(plan: Plan) -> None:
    """Of plans of every kind, after changes of every kind."""
    text = plan_text(plan, shipped())
    (entry,) = plans_from(json.loads(text))
    assert plan_text(entry.plan, shipped()) == text
    assert plan_text(entry.plan, bare()) == text
    settled = settled_in(entry.plan, shipped())
    assert settled.parts == ()
    assert checked(settled).severity == checked(plan).severity


def test_parts_of_ones_own_stay_with_the_plan() -> None:
    """Told as new where nobody knows them, as different where somebody does, and then kept."""
    home = with_part(**OWN)
    (entry,) = plans_from(json.loads(plan_text(kit("B06", "S01", "M02", "X99"), home)))
    states = {part.id: part.state for part in carried_parts(entry.plan, shipped())}
    assert states == {"B06": "same", "S01": "same", "M02": "same", "X99": "new"}
    other = with_part(**{**OWN, "model": "Another"})
    assert carried_parts(entry.plan, other)[-1].state == "differs"
    kept = settled_in(entry.plan, other)
    assert [part["model"] for part in kept.parts] == ["Mine"]
    assert checked(kept, 1, other).lines[-1].name == "Mine"


def test_two_revisions_of_a_part_travel_apart() -> None:
    """Two lines keep two revisions: in the file they are two parts, with their figures."""
    older = shipped().document(shipped().part("X05"))
    newer = {**older, "loads": {"own": {"idle": 0.3, "normal": 0.4, "peak": 0.4}}}
    rest = [p for p in shipped().parts() if p.origin == "pack" and p.id != "X05"]
    documents = [*map(shipped().document, rest), {**newer, "revision": 2}]
    catalogue = Catalogue.from_documents(
        documents, shipped_classes(), {("X05", 1): {**older, "revision": 1}}
    )
    lines = [
        {"id": f"x{number}", "role": "add_on", "part": "X05", "part_revision": number}
        for number in (1, 2)
    ]
    base = kit("B06", "S01", "M02")
    plan = Plan.model_validate({**base.model_dump(), "lines": [*base.lines, *lines]})
    (entry,) = plans_from(json.loads(plan_text(plan, catalogue)))
    assert [line.part for line in entry.plan.lines[-2:]] == ["X05", "X05-r2"]
    here, there = checked(plan, 1, catalogue), checked(entry.plan, 1, bare())
    assert here.power.source_w == there.power.source_w


def test_several_plans_with_their_steps() -> None:
    """Steps keep their numbers, parents, labels and times; what is stored is settled here."""
    first, second = kit("B06", "S01"), kit("B06", "S01", "M02")
    steps = (
        Step(1, None, "new plan", "2026-01-01T00:00:00+00:00", first),
        Step(2, 1, "add a card", "2026-01-02T00:00:00+00:00", second),
    )
    text = plans_text([PlanFile(second, steps, 2), PlanFile(first)], shipped())
    one, other = plans_from(json.loads(text))
    assert [(s.number, s.parent, s.label, s.created_at) for s in one.steps] == [
        (s.number, s.parent, s.label, s.created_at) for s in steps
    ]
    assert other.steps == ()
    settled = settled_file(one, shipped())
    assert settled.head == 2
    assert settled.steps[0].plan.lines == shipped().pinned(first).lines


@pytest.mark.parametrize(
    ("change", "place"),
    [
        ({"format": "another/1"}, "format"),
        ({"plans": 3}, "format"),
        ({"plans": [{"plan": {"name": ""}}, {"plan": {"lines": []}}]}, "plans.0.plan.name"),
        ({"plans": [{"plan": {"name": "x"}, "steps": [{"number": 2}]}]}, "plans.0.steps.0.plan"),
        ({"plans": [{"plan": {"name": "x"}, "head": "1"}]}, "plans.0.head"),
        ({"plans": ["x"]}, "plans.0"),
    ],
)
def test_a_wrong_file_tells_every_place(change: dict[str, Any], place: str) -> None:
    """All problems at once, each with its place; nothing comes back half."""
    document = {"format": "cobblewort-plans/1", "plans": [], **change}
    with pytest.raises(InputError) as told:
        plans_from(document)
    assert place in [where for where, _ in told.value.problems]


def test_steps_that_do_not_hang_together_are_refused() -> None:
    """A step from a later one, numbers with gaps, and a head that is another plan."""
    step = {"number": 1, "parent": None, "label": "", "created_at": "", "plan": {"name": "x"}}
    wrong = [
        [{**step, "parent": 1}],
        [step, {**step, "number": 3, "parent": 1}],
        [{**step, "plan": {"name": "y"}}],
    ]
    for steps in wrong:
        entry = {"plan": {"name": "x"}, "steps": steps, "head": 1}
        with pytest.raises(InputError):
            plans_from({"format": "cobblewort-plans/1", "plans": [entry]})


@settings(max_examples=150, deadline=None)
@given(
    st.recursive(
        st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False) | st.text(),
        lambda inner: (
            st.lists(inner, max_size=4)
            | st.dictionaries(
                st.sampled_from(
                    ["plans", "plan", "name", "steps", "format", "lines", "head", "number"]
                ),
                inner,
                max_size=5,
            )
        ),
        max_leaves=20,
    )
)
def test_whatever_is_in_a_file_it_is_read_or_refused(value: Any) -> None:
    """Nothing but a sentence with a place ever comes of a wrong file."""
    try:
        found = plans_from(value)
    except InputError:
        return
    assert all(isinstance(entry.plan, Plan) for entry in found)


def test_the_report_of_a_demo_plan_survives_whole() -> None:
    """To the last letter, in the catalogue that it came from."""
    plan = demo("choir-recorder")
    (entry,) = plans_from(json.loads(plan_text(plan, shipped())))
    assert to_json(checked(entry.plan, 64)) == to_json(checked(plan, 64))
