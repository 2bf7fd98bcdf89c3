"""A kit made like another says what it would say alone: nothing is taken over that has changed."""

import random
from dataclasses import fields

import numpy as np
import pytest

from cobblewort.core.errors import InputError
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Margin
from cobblewort.core.plans.patch import (
    AddLine,
    EditLine,
    Patch,
    RemoveLine,
    SetFields,
    SwapPart,
    apply_patch,
)
from cobblewort.core.plans.plan import KINDS_FOR_ROLE, Plan
from cobblewort.core.verdict.evaluate import judgement_of
from cobblewort.core.verdict.judgement import Judgement
from cobblewort.core.verdict.report import FindingReport
from cobblewort.core.verdict.reporting import finding_reports
from tests.kits import SMALL, demo, kit, shipped

PLANS = {
    "choir": demo("choir-recorder"),
    "moss": demo("moss-cabinet"),
    "inside": kit("B10", "S12", "M02", "K05", "E03", "A06", "D04", "F01", budget="300"),
    "hub": kit("B10", "S03", "M02", "H03", "X06", "X07", "A12", "D11", "K06", "E03"),
}


def said(judgement: Judgement) -> tuple[list[list[object]], list[FindingReport]]:
    """Everything that a judgement says, to be compared."""

    def row(margin: Margin) -> list[object]:
        return [getattr(margin, field.name) for field in fields(margin)]

    return [row(margin) for margin in judgement.margins], finding_reports(judgement.findings)


def patches(plan: Plan) -> list[Patch]:
    """Every swap of every line, each line left out, some fields set, a line more."""
    found: list[Patch] = []
    for line in plan.lines:
        found.append((RemoveLine(line=line.id),))
        found.append((EditLine(line=line.id, quantity=line.quantity + 1),))
        others = shipped().parts(KINDS_FOR_ROLE[line.role])[::2]
        found += [(SwapPart(line=line.id, part=part.id),) for part in others]
    return [
        *found,
        (SetFields(fields={"settings": {"lift_port_limit": True}}),),
        (SetFields(fields={"place": {"ambient_max_c": 40, "noise_max_dba": 20}}),),
        (SetFields(fields={"duty": [{"name": "all day", "hours": 24}]}),),
        (AddLine(role="case", part="E12"),),
        (AddLine(role="addon", part="X10"),),
    ]


@pytest.mark.parametrize("name", list(PLANS))
def test_what_is_shared_changes_nothing(name: str) -> None:
    """Each change judged like the plan before it, and alone: the same margins and findings."""
    plan = PLANS[name]
    before = judgement_of(plan, shipped())
    for patch in patches(plan):
        changed = apply_patch(plan, patch)
        alone = judgement_of(changed, shipped())
        assert said(judgement_of(changed, shipped(), like=before)) == said(alone), patch


def test_another_case_shares_plugs_and_power() -> None:
    """And another supply shares neither."""
    plan = kit(*SMALL)
    before = Kit(plan, shipped(), 1)
    case = apply_patch(plan, (SwapPart(line="E03", part="E04"),))
    shared = Kit(case, shipped(), 1, before)
    assert shared.fit is before.fit
    assert shared.power is before.power
    assert shared.heat is not before.heat
    supply = Kit(apply_patch(plan, (SwapPart(line="S01", part="S02"),)), shipped(), 1, before)
    assert supply.fit is not before.fit
    assert supply.power is not before.power


def test_a_warmer_day_shares_plugs_only() -> None:
    """The resistance of a lead follows the day."""
    plan = kit(*SMALL)
    before = Kit(plan, shipped(), 1)
    fields_set = SetFields(fields={"place": {"ambient_max_c": 45}})
    warmer = Kit(apply_patch(plan, (fields_set,)), shipped(), 1, before)
    assert warmer.fit is before.fit
    assert not np.array_equal(warmer.power.voltage_v, before.power.voltage_v)


def test_more_samples_share_nothing() -> None:
    """Pieces carry their draws."""
    plan = kit(*SMALL)
    banded = Kit(plan, shipped(), 16, Kit(plan, shipped(), 1))
    assert banded.pieces[0].compiled.samples == 16


def test_a_budget_or_a_name_shares_all_that_pieces_decide() -> None:
    """What stands where, what it draws and how warm it gets is as it was; a duty changes both."""
    plan = kit(*SMALL)
    before = Kit(plan, shipped(), 1)
    dearer = Kit(apply_patch(plan, (SetFields(fields={"budget": "9"}),)), shipped(), 1, before)
    for aspect in ("fit", "stack", "space", "fasteners", "noise", "power", "heat"):
        assert getattr(dearer, aspect) is getattr(before, aspect), aspect
    idle = SetFields(fields={"duty": [{"name": "rest", "hours": 24, "activity": "idle"}]})
    resting = Kit(apply_patch(plan, (idle,)), shipped(), 1, before)
    assert resting.stack is before.stack
    assert resting.power is not before.power
    assert resting.heat is not before.heat


@pytest.mark.parametrize("name", list(PLANS))
def test_one_change_after_the_other_says_what_each_says_alone(name: str) -> None:
    """As the server does: each plan read anew from its document, and judged like the last one."""
    chosen = random.Random(name)
    plan, last = PLANS[name], judgement_of(PLANS[name], shipped(), 8)
    for _ in range(25):
        try:
            plan = apply_patch(plan, chosen.choice(patches(plan)))
        except InputError:
            continue  # what is left has no such line
        plan = Plan.model_validate_json(plan.model_dump_json())
        last = judgement_of(plan, shipped(), 8, like=last)
        assert said(last) == said(judgement_of(plan, shipped(), 8)), plan.lines
