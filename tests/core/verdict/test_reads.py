"""What a rule and what is derived declare to read is what they are given, and nothing else."""

import pytest

from cobblewort.core.judging.kit import FACETS, Derived, Kit, closed, derived
from cobblewort.core.judging.rules import RULES, rule
from cobblewort.core.plans.plan import Plan
from tests.kits import SMALL, kit, shipped


def test_each_gets_the_values_that_it_declares() -> None:
    """In that order: facets of the plan and its place, pieces, samples, and what is derived."""

    @derived("budget", "place.wet", "samples")
    def one(budget: object, wet: bool, samples: int) -> tuple[object, bool, int]:
        return budget, wet, samples

    @derived("items", one, "catalogue")
    def two(items: object, found: object, catalogue: object) -> list[object]:
        return [items, found, catalogue]

    made = Kit(kit(*SMALL), shipped(), 4)
    assert one(made) == (None, False, 4)
    assert two(made) == [made.items, one(made), made.catalogue]


def test_who_takes_more_values_than_it_declares_is_refused() -> None:
    """When it is defined, and so at the first start: of what is derived, and of a rule."""
    with pytest.raises(ValueError, match="more takes 2 values and declares 1"):

        @derived("budget")
        def more(budget: object, wet: bool) -> None:
            del budget, wet

    told = {"why": "-", "formula": "-", "source": "-"}
    with pytest.raises(ValueError, match="less takes 0 values and declares 1"):

        @rule("PWR-99", "power", "-", reads=("budget",), **told)
        def less() -> list[object]:
            return []

    assert "PWR-99" not in RULES


def test_what_is_asked_for_is_read_too() -> None:
    """Facets of all that is derived, down to the first; a facet that no plan has is refused."""

    @derived("budget", "place.wet")
    def one(budget: object, wet: bool) -> int:
        return int(wet) if budget else 0

    @derived(one, "wired")
    def two(found: int, wired: object) -> int:
        return found if wired else 0

    assert isinstance(two, Derived)
    assert two.inputs.reads.facets == {"budget", "place.wet", "wired"}
    assert not two.inputs.reads.firm
    with pytest.raises(ValueError, match="no facet 'colour'"):
        closed(["colour"])


def test_every_field_of_a_plan_is_a_facet() -> None:
    """So that no change goes unnoticed."""
    plan = kit(*SMALL)
    before = Kit(plan, shipped(), 1)
    read_as_something_else = {"format", "lines", "parts", "place"}
    fields = set(Plan.model_fields) - read_as_something_else
    of_kit = {"items", "spares", "built", "connected", "catalogue", "samples"}
    assert fields | {f"place.{name}" for name in type(plan.place).model_fields} == (
        set(FACETS) - of_kit
    )
    for patch, facets in (
        ({"budget": "3"}, {"budget"}),
        ({"copies": 2}, {"copies"}),
        ({"place": {**plan.place.model_dump(), "wet": True}}, {"place.wet"}),
        ({"lines": plan.lines[:-1]}, {"items"}),  # the last one is borrowed
        ({"lines": plan.lines[1:]}, {"items", "built", "connected"}),
        (
            {"lines": (*plan.lines[:-1], plan.lines[-1].model_copy(update={"spare": True}))},
            {"items", "spares"},
        ),
        ({"parts": ({"id": "P1", "kind": "tool", "maker": "-", "model": "-"},)}, {"catalogue"}),
    ):
        changed = Plan.model_validate({**plan.model_dump(), **patch})
        assert Kit(changed, shipped(), 1, before).differs == facets, patch
    assert Kit(plan, shipped(), 1).differs == set(FACETS)
