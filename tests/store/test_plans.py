import pytest

from cobblewort.core.plans.patch import EditLine, apply_patch
from cobblewort.core.plans.plan import Plan
from cobblewort.store import plans as store
from cobblewort.store.database import Database
from cobblewort.store.plans import (
    NothingToDoError,
    PlanNotFoundError,
    PlanStore,
    StaleWriteError,
    StoredPlan,
)
from tests.kits import SMALL, kit


@pytest.fixture
def plans(database: Database) -> PlanStore:
    """A store without plans."""
    return PlanStore(database)


def changed(store: PlanStore, stored: StoredPlan, quantity: int) -> StoredPlan:
    """Save another quantity of the first line, from the version in hand."""
    plan = apply_patch(stored.plan, [EditLine(line=stored.plan.lines[0].id, quantity=quantity)])
    return store.save(stored.id, stored.version, plan, f"quantity {quantity}")


def quantity(stored: StoredPlan) -> int:
    """Quantity of the first line."""
    return stored.plan.lines[0].quantity


def test_a_plan_comes_back_as_it_was_stored(plans: PlanStore) -> None:
    """Every field, money included."""
    plan = kit(*SMALL, budget="99.50", purpose="ü")
    stored = plans.create(plan, "new plan")
    assert plans.get(stored.id).plan == plan
    assert [p.id for p in plans.all()] == [stored.id]


def test_plans_of_one_moment_stay_in_order(
    plans: PlanStore, monkeypatch: pytest.MonkeyPatch
) -> None:
    """A quick machine makes several in a millisecond, and their ids are drawn by chance."""
    monkeypatch.setattr(store, "_now", lambda: "2026-05-01T20:00:00.000+00:00")
    names = [f"plan {number}" for number in range(12)]
    for name in names:
        plans.create(kit(*SMALL, name=name), "new plan")
    assert [p.plan.name for p in plans.all() if isinstance(p, StoredPlan)] == names


def test_undo_and_redo_walk_the_revisions(plans: PlanStore) -> None:
    """Back and forth, with the label of what is undone."""
    one = plans.create(kit(*SMALL), "new plan")
    assert (one.undo_label, one.redo_label) == (None, None)
    two = changed(plans, one, 2)
    three = changed(plans, two, 3)
    assert three.undo_label == "quantity 3"
    back = plans.undo(three.id, three.version)
    assert (quantity(back), back.redo_label) == (2, "quantity 3")
    first = plans.undo(back.id, back.version)
    assert (quantity(first), first.undo_label) == (1, None)
    again = plans.redo(first.id, first.version)
    assert quantity(plans.redo(again.id, again.version)) == 3


def test_a_change_after_undo_begins_a_branch_and_redo_follows_it(plans: PlanStore) -> None:
    """The newest child is redone; the older branch stays stored."""
    stored = changed(plans, plans.create(kit(*SMALL), "new plan"), 2)
    stored = changed(plans, plans.undo(stored.id, stored.version), 7)
    assert stored.redo_label is None
    back = plans.undo(stored.id, stored.version)
    assert quantity(plans.redo(back.id, back.version)) == 7


def test_revisions_tell_the_life_of_a_plan(plans: PlanStore) -> None:
    """Newest first, with where it stands and what each was made from."""
    stored = changed(plans, plans.create(kit(*SMALL), "new plan"), 2)
    stored = changed(plans, plans.undo(stored.id, stored.version), 7)
    found = [(r.number, r.parent, r.label, r.current) for r in plans.revisions(stored.id)]
    assert found == [
        (3, 1, "quantity 7", True),
        (2, 1, "quantity 2", False),
        (1, None, "new plan", False),
    ]


def test_nothing_to_undo_or_redo(plans: PlanStore) -> None:
    """A sentence, and the version stays."""
    stored = plans.create(kit(*SMALL), "new plan")
    with pytest.raises(NothingToDoError, match="nothing to undo"):
        plans.undo(stored.id, stored.version)
    with pytest.raises(NothingToDoError, match="nothing to redo"):
        plans.redo(stored.id, stored.version)
    assert plans.get(stored.id).version == stored.version


def test_a_stale_write_is_refused_with_what_changed(plans: PlanStore) -> None:
    """The second tab writes nothing, and learns what the first one did."""
    stored = plans.create(kit(*SMALL), "new plan")
    changed(plans, stored, 2)
    with pytest.raises(StaleWriteError) as caught:
        changed(plans, stored, 9)
    assert caught.value.changes == ["quantity 2"]
    assert caught.value.version == stored.version + 1
    assert quantity(plans.get(stored.id)) == 2


def test_every_move_makes_older_versions_stale(plans: PlanStore) -> None:
    """Undo is a change like any other to somebody else's tab."""
    two = changed(plans, plans.create(kit(*SMALL), "new plan"), 2)
    plans.undo(two.id, two.version)
    with pytest.raises(StaleWriteError):
        plans.redo(two.id, two.version)


def test_a_deleted_plan_is_gone_and_can_be_brought_back(plans: PlanStore) -> None:
    """With all its revisions."""
    stored = changed(plans, plans.create(kit(*SMALL), "new plan"), 2)
    plans.delete(stored.id, stored.version)
    assert plans.all() == []
    with pytest.raises(PlanNotFoundError):
        plans.get(stored.id)
    back = plans.restore(stored.id)
    assert quantity(plans.undo(back.id, back.version)) == 1


def test_bringing_back_what_never_was(plans: PlanStore) -> None:
    """An unknown id is not found."""
    with pytest.raises(PlanNotFoundError):
        plans.restore("none")


def test_a_store_that_was_ever_used_is_not_empty(plans: PlanStore) -> None:
    """So that deleting the demo plans does not bring them back."""
    assert plans.is_empty()
    stored = plans.create(Plan(name="x"), "new plan", "fixed-id")
    plans.delete(stored.id, stored.version)
    assert not plans.is_empty()
