"""What a rule says is taken over by what it declares to read; nothing reads more than that."""

from dataclasses import replace

import pytest

from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.kit import FACETS, Derived, Kit, Reads, closed, derived
from cobblewort.core.judging.margin import margin_of
from cobblewort.core.judging.rules import Rule
from cobblewort.core.plans.patch import apply_patch
from cobblewort.core.plans.plan import Plan
from cobblewort.core.verdict.report import rules_in_order
from tests.kits import SMALL, kit, shipped
from tests.plans import PLANS, changes
from tests.watched import UndeclaredReadError, watched


def ask(rule: Rule, plan: Plan, samples: int) -> None:
    """Ask a rule everything: what it says, its sentences, its workings."""
    seen = watched(Kit(plan, shipped(), samples), rule.reads, rule.id)
    for outcome in rule.function(seen):
        if isinstance(outcome, Observation):
            continue
        margin = margin_of(rule.id, rule.family, outcome, samples)
        if margin.severity != "ok":
            assert outcome.sentence(margin)
        for state in range(len(outcome.states.ids)) if outcome.working else ():
            outcome.working(state)


@pytest.mark.parametrize("name", list(PLANS))
def test_no_rule_reads_more_than_it_declares(name: str) -> None:
    """Of a plan as it is, and after each change a fifth of the rules in turn; what is derived is
    watched by its own reads.
    """
    plan = PLANS[name]
    tried = [plan, *(apply_patch(plan, patch) for patch in changes(plan))]
    for number, changed in enumerate(tried):
        for place, rule in enumerate(rules_in_order()):
            if number == 0 or (place + number) % 5 == 0:
                ask(rule, changed, 1 if number else 4)


def test_a_read_that_is_not_declared_raises() -> None:
    """As of a rule of supply that looks at needs and does not say so."""
    rule = next(rule for rule in rules_in_order() if rule.id == "PWR-09")
    hidden = replace(rule, reads=Reads(rule.reads.facets - {"requirements"}, rule.reads.firm))
    with pytest.raises(UndeclaredReadError, match="PWR-09 reads 'requirements'"):
        ask(hidden, kit(*SMALL), 1)


def test_what_is_asked_for_is_read_too() -> None:
    """Facets of all that is derived, down to the first; a facet that no plan has is refused."""

    @derived("budget", "place.wet")
    def one(made: Kit) -> int:
        return made.samples

    @derived(one, "wired")
    def two(made: Kit) -> int:
        return one(made)

    assert isinstance(two, Derived)
    assert two.reads.facets == {"budget", "place.wet", "wired"}
    assert not two.reads.firm
    with pytest.raises(ValueError, match="no facet 'colour'"):
        closed(["colour"])


def test_every_field_of_a_plan_is_a_facet() -> None:
    """So that no change goes unnoticed."""
    plan = kit(*SMALL)
    before = Kit(plan, shipped(), 1)
    read_as_something_else = {"format", "lines", "parts", "place"}
    fields = set(Plan.model_fields) - read_as_something_else
    assert fields | {f"place.{name}" for name in type(plan.place).model_fields} == set(FACETS) - {
        "items",
        "built",
        "connected",
        "catalogue",
    }
    for patch, facets in (
        ({"budget": "3"}, {"budget"}),
        ({"copies": 2}, {"copies"}),
        ({"place": {**plan.place.model_dump(), "wet": True}}, {"place.wet"}),
        ({"lines": plan.lines[:-1]}, {"items"}),  # the last one is borrowed
        ({"lines": plan.lines[1:]}, {"items", "built", "connected"}),
        ({"parts": ({"id": "P1", "kind": "tool", "maker": "-", "model": "-"},)}, {"catalogue"}),
    ):
        changed = Plan.model_validate({**plan.model_dump(), **patch})
        assert Kit(changed, shipped(), 1, before).differs == facets, patch
    assert Kit(plan, shipped(), 1).differs == set(FACETS)
