"""A judgement and the report laid out from it tell the same."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cobblewort.core.changing.effects import effect_of
from cobblewort.core.plans.patch import SwapPart, apply_patch
from cobblewort.core.plans.plan import Plan
from cobblewort.core.verdict.evaluate import evaluation_of, report_on
from tests.kits import SMALL, checked, demo, kit, shipped

PLANS = ["bat-recorder", "moss-cabinet", "choir-recorder"]
FREE = ["mesh_radio", "camera", "video_in", "sdr", "audio_in", "rtc", "climate"]
"""Functions that nothing else in a kit can spoil."""


@pytest.mark.parametrize("plan_id", PLANS)
def test_the_report_says_what_the_judgement_says(plan_id: str) -> None:
    """Rulers, findings, margins, severity and counts."""
    evaluation = evaluation_of(demo(plan_id), shipped(), 16)
    report = report_on(evaluation)
    assert report.families == evaluation.families
    assert report.findings == evaluation.findings
    assert report.severity == evaluation.severity
    assert report.count("tight") == evaluation.count("tight")
    by_line = evaluation.worst_by_line()
    assert {line.id: line.severity for line in report.lines} == {
        line.id: by_line.get(line.id, "ok") for line in report.lines
    }
    for finding in evaluation.findings:
        assert evaluation.finding(finding.id) is finding
    assert evaluation.finding("none") is None
    assert evaluation.margin("none") is None


@pytest.mark.parametrize("plan_id", PLANS)
@pytest.mark.parametrize("supply", ["S01", "S03", "S04"])
def test_an_effect_is_the_difference_of_two_reports(plan_id: str, supply: str) -> None:
    """Euros, watts, degrees and counts, worked out anew from the reports."""
    plan = demo(plan_id)
    changed = apply_patch(plan, (SwapPart(line="power_supply", part=supply),))
    before, after = evaluation_of(plan, shipped()), evaluation_of(changed, shipped())
    one, two = report_on(before), report_on(after)
    effect = effect_of(before, after)
    assert effect.cost_delta == two.cost.total - one.cost.total
    assert (effect.problems, effect.tight) == (two.count("problem"), two.count("tight"))
    assert effect.families == {family.id: family.severity for family in two.families}
    if effect.source_delta_w is not None:
        watts = max(two.power.source_w) - max(one.power.source_w)
        assert effect.source_delta_w == pytest.approx(watts)
    if effect.die_delta_k is not None:
        hard = [state.hard for state in one.heat.states]
        warmest = [
            max(t for t, h in zip(r.heat.wanted_die_c, hard, strict=True) if h) for r in (one, two)
        ]
        assert effect.die_delta_k == pytest.approx(warmest[1] - warmest[0])
    gone = {f.id for f in one.findings if f.severity in ("problem", "tight")}
    assert effect.resolves == len(gone - {f.id for f in two.findings})


@settings(max_examples=40, deadline=None)
@given(
    st.lists(
        st.sampled_from(["X03", "X05", "X07", "X08", "X09", "X17", "X28", "X30"]),
        max_size=5,
        unique=True,
    ),
    st.sampled_from(["X03", "X05", "X07", "X08", "X09", "X17", "X28", "X30", "X39", "K05"]),
)
def test_one_more_part_never_takes_a_function_away(parts: list[str], more: str) -> None:
    """Property: what was met stays met when something is added."""
    requirements: list[dict[str, Any]] = [
        {"id": name, "text": name, "function": name} for name in FREE
    ]
    base = ("B06", "S01", "M02")
    before = checked(kit(*base, *parts, requirements=requirements))
    after = checked(kit(*base, *dict.fromkeys([*parts, more]), requirements=requirements))
    met = {requirement.id for requirement in before.purpose if requirement.status == "met"}
    assert met <= {requirement.id for requirement in after.purpose if requirement.status == "met"}


def test_the_order_of_needs_is_kept() -> None:
    """The page shows them as they were asked."""
    requirements = [{"id": name, "text": name, "function": name} for name in reversed(FREE)]
    report = checked(
        Plan.model_validate({**kit(*SMALL).model_dump(), "requirements": requirements})
    )
    assert [requirement.id for requirement in report.purpose] == list(reversed(FREE))
