"""A kit made like another says what it would say alone: nothing is taken over that has changed."""

from dataclasses import fields
from typing import Any

import numpy as np
import pytest

from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.cost.upgrades import better_buys_of
from cobblewort.core.aspects.fit.model import fasteners_of, header_of, space_of, stack_of
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.aspects.heat.sources import sources_of
from cobblewort.core.aspects.noise.model import of as noise_of
from cobblewort.core.aspects.power.limits import rail_limits_of, socket_limits_of
from cobblewort.core.aspects.power.model import hung_of, loaded_of
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.aspects.purpose.model import of as requirements_of
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Derived, Kit, derived, firm
from cobblewort.core.judging.margin import Margin
from cobblewort.core.plans.patch import (
    RemoveLine,
    SetFields,
    SwapPart,
    apply_patch,
)
from cobblewort.core.plans.plan import Plan
from cobblewort.core.verdict.evaluate import evaluation_of
from cobblewort.core.verdict.evaluation import Evaluation
from tests.kits import SMALL, kit, shipped
from tests.plans import PLANS, chain

ALL = {
    fit_of,
    stack_of,
    space_of,
    fasteners_of,
    header_of,
    power_of,
    heat_of,
    cost_of,
    noise_of,
    requirements_of,
}


def worked_out(plan: Plan) -> Kit:
    """A kit of which everything has been asked."""
    made = Kit(plan, shipped(), 1)
    for wanted in ALL:
        wanted(made)
    return made


def shared(made: Kit, like: Kit) -> set[Derived[Any]]:
    """What one kit has taken over from another."""
    return {wanted for wanted in ALL if wanted(made) is wanted(like)}


def said(evaluation: Evaluation) -> tuple[list[list[object]], list[Finding]]:
    """Everything that a judgement says, to be compared."""

    def row(margin: Margin) -> list[object]:
        return [getattr(margin, field.name) for field in fields(margin)]

    return [row(margin) for margin in evaluation.margins], evaluation.findings


def test_another_case_shares_plugs_and_power() -> None:
    """And the header; another supply shares neither, but what is on the header."""
    plan = kit(*SMALL)
    before = worked_out(plan)
    case = Kit(apply_patch(plan, (SwapPart(line="E03", part="E04"),)), shipped(), 1, before)
    assert shared(case, before) == {fit_of, header_of, power_of}
    supply = Kit(apply_patch(plan, (SwapPart(line="S01", part="S02"),)), shipped(), 1, before)
    assert shared(supply, before) == set()


def test_a_warmer_day_leaves_what_hangs_there_as_it_is() -> None:
    """Loads, limits and what else is on offer; not voltages, as copper is warmer then."""
    plan = kit(*SMALL)
    before = worked_out(plan)
    mounting = (
        fit_of,
        hung_of,
        loaded_of,
        rail_limits_of,
        socket_limits_of,
        sources_of,
        better_buys_of,
    )
    for wanted in mounting:
        wanted(before)
    warmer = SetFields(fields={"place": {"ambient_max_c": 41}})
    day = Kit(apply_patch(plan, (warmer,)), shipped(), 1, before)
    assert day.items is before.items
    assert all(wanted(day) is wanted(before) for wanted in mounting)
    assert {power_of, heat_of}.isdisjoint(shared(day, before))


def test_what_comes_out_the_same_keeps_what_reads_it() -> None:
    """A budget of 5 or of 9 is a budget, none is none; what was never asked for is not compared."""
    asked: list[bool] = []

    @firm("budget")
    def has_budget(budget: object) -> bool:
        return budget is not None

    @derived(has_budget)
    def told(found: bool) -> list[bool]:
        asked.append(found)
        return [found]

    def changed(budget: str | None, name: str, like: Kit | None) -> Kit:
        fields_set = {"budget": budget, "name": name}
        return Kit(plan.model_copy(update=fields_set), shipped(), 1, like)

    plan = kit(*SMALL)
    five = changed("5", "five", None)
    assert told(five) == [True]
    nine = changed("9", "nine", five)
    assert told(nine) is told(five)
    nine.settle()
    none = changed(None, "none", nine)
    assert told(none) == [False]
    unasked = changed("9", "unasked", None)
    assert told(changed("5", "asked", unasked)) == [True]
    assert asked == [True, False, True]


def test_what_was_not_asked_for_is_there_for_the_next() -> None:
    """Three kits in a row, and the one in the middle has been asked for nothing."""
    plan = kit(*SMALL)
    before = worked_out(plan)
    dearer = Kit(apply_patch(plan, (SetFields(fields={"budget": "9"}),)), shipped(), 1, before)
    dearer.settle()
    cheaper = Kit(apply_patch(plan, (SetFields(fields={"budget": "3"}),)), shipped(), 1, dearer)
    assert shared(cheaper, before) == ALL


def test_what_is_only_lent_changes_what_it_costs_at_most() -> None:
    """It is no part of the thing that is built."""
    plan = kit(*SMALL)
    before = worked_out(plan)
    without = Kit(apply_patch(plan, (RemoveLine(line="T04"),)), shipped(), 1, before)
    assert shared(without, before) == ALL - {cost_of}


def test_a_warmer_day_shares_what_pieces_decide() -> None:
    """The resistance of a lead follows the day, and all that is judged by heat."""
    plan = kit(*SMALL)
    before = worked_out(plan)
    fields_set = SetFields(fields={"place": {"ambient_max_c": 45}})
    warmer = Kit(apply_patch(plan, (fields_set,)), shipped(), 1, before)
    assert shared(warmer, before) == ALL - {power_of, heat_of, requirements_of}
    assert not np.array_equal(power_of(warmer).voltage_v, power_of(before).voltage_v)


def test_more_samples_share_nothing() -> None:
    """Pieces carry their draws."""
    plan = kit(*SMALL)
    banded = Kit(plan, shipped(), 16, worked_out(plan))
    assert banded.items[0].compiled.samples == 16
    assert shared(banded, worked_out(plan)) == set()


def test_a_budget_or_a_name_shares_everything() -> None:
    """What stands where, what it draws and how warm it gets is as it was; a duty changes both."""
    plan = kit(*SMALL)
    before = worked_out(plan)
    dearer = Kit(apply_patch(plan, (SetFields(fields={"budget": "9"}),)), shipped(), 1, before)
    assert shared(dearer, before) == ALL
    idle = SetFields(fields={"schedule": [{"name": "rest", "hours": 24, "activity": "idle"}]})
    resting = Kit(apply_patch(plan, (idle,)), shipped(), 1, before)
    assert shared(resting, before) == ALL - {power_of, heat_of, requirements_of}


def test_a_need_that_a_rule_of_supply_reads_is_asked_anew() -> None:
    """A plan that gains "runs without mains" may be fed by a battery where it has mains."""
    plan = kit("B06", "S30", "C01", "M02")
    before = evaluation_of(plan, shipped())
    battery = next(f for f in before.findings if f.rule == "PWR-09")
    assert battery.severity == "tight"
    requirement = {"id": "hours", "text": "runs on", "condition": "without_mains", "at_least": 4}
    wanted = apply_patch(plan, (SetFields(fields={"requirements": [requirement]}),))
    after = evaluation_of(wanted, shipped(), like=before)
    assert not [f for f in after.findings if f.rule == "PWR-09"]
    assert said(after) == said(evaluation_of(wanted, shipped()))


@pytest.mark.parametrize("name", list(PLANS))
def test_one_change_after_the_other_says_what_each_says_alone(name: str, is_long: bool) -> None:
    """As the server does: each plan read anew from its document, and judged like the last one."""
    plans = chain(name, 60 if is_long else 12)
    last = evaluation_of(plans[0], shipped(), 8)
    for plan in plans[1:]:
        read = Plan.model_validate_json(plan.model_dump_json())
        last = evaluation_of(read, shipped(), 8, like=last)
        assert said(last) == said(evaluation_of(read, shipped(), 8)), read
