"""A judgement and the report laid out from it tell the same."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cobblewort.core.changing.effects import effect_of
from cobblewort.core.plans.patch import SwapPart, apply_patch
from cobblewort.core.plans.plan import Plan
from cobblewort.core.verdict.evaluate import judgement_of, report_on
from tests.kits import SMALL, demo, judged, kit, shipped

PLANS = ["bat-recorder", "moss-cabinet", "choir-recorder"]
FREE = ["mesh_radio", "camera", "video_in", "software_radio", "sound_in", "clock", "climate"]
"""Functions that nothing else in a kit can spoil."""


@pytest.mark.parametrize("plan_id", PLANS)
def test_the_report_says_what_the_judgement_says(plan_id: str) -> None:
    """Rulers, findings, margins, severity and counts."""
    judgement = judgement_of(demo(plan_id), shipped(), 16)
    report = report_on(judgement)
    assert report.families == judgement.families
    assert report.findings == judgement.findings
    assert report.severity == judgement.severity
    assert report.count("tight") == judgement.count("tight")
    by_line = judgement.worst_by_line()
    assert {line.id: line.severity for line in report.lines} == {
        line.id: by_line.get(line.id, "sound") for line in report.lines
    }
    for finding in judgement.findings:
        assert judgement.finding(finding.id) is finding
    assert judgement.finding("none") is None
    assert judgement.margin("none") is None


@pytest.mark.parametrize("plan_id", PLANS)
@pytest.mark.parametrize("supply", ["S01", "S03", "S04"])
def test_an_effect_is_the_difference_of_two_reports(plan_id: str, supply: str) -> None:
    """Euros, watts, degrees and counts, worked out anew from the reports."""
    plan = demo(plan_id)
    changed = apply_patch(plan, (SwapPart(line="supply", part=supply),))
    before, after = judgement_of(plan, shipped()), judgement_of(changed, shipped())
    one, two = report_on(before), report_on(after)
    effect = effect_of(before, after)
    assert effect.cost_delta == two.cost.total - one.cost.total
    assert (effect.stops, effect.tight) == (two.count("stops"), two.count("tight"))
    assert effect.families == {family.id: family.severity for family in two.families}
    if effect.source_delta_w is not None:
        watts = max(two.supply.source_w) - max(one.supply.source_w)
        assert effect.source_delta_w == pytest.approx(watts)
    if effect.die_delta_k is not None:
        hard = [state.hard for state in one.heat.states]
        warmest = [
            max(t for t, h in zip(r.heat.wanted_die_c, hard, strict=True) if h) for r in (one, two)
        ]
        assert effect.die_delta_k == pytest.approx(warmest[1] - warmest[0])
    gone = {f.id for f in one.findings if f.severity in ("stops", "tight")}
    assert effect.settles == len(gone - {f.id for f in two.findings})


@settings(max_examples=40, deadline=None)
@given(
    st.lists(st.sampled_from(["X03", "X05", "X07", "X08", "X09", "X17", "X28", "X30"]), max_size=5,
             unique=True),
    st.sampled_from(["X03", "X05", "X07", "X08", "X09", "X17", "X28", "X30", "X39", "K05"]),
)  # fmt: skip
def test_one_more_part_never_takes_a_function_away(parts: list[str], more: str) -> None:
    """Property: what was met stays met when something is added."""
    needs: list[dict[str, Any]] = [{"id": name, "text": name, "function": name} for name in FREE]
    base = ("B06", "S01", "M02")
    before = judged(kit(*base, *parts, needs=needs))
    after = judged(kit(*base, *dict.fromkeys([*parts, more]), needs=needs))
    met = {need.id for need in before.needs if need.status == "met"}
    assert met <= {need.id for need in after.needs if need.status == "met"}


def test_the_order_of_needs_is_kept() -> None:
    """The page shows them as they were asked."""
    needs = [{"id": name, "text": name, "function": name} for name in reversed(FREE)]
    report = judged(Plan.model_validate({**kit(*SMALL).model_dump(), "needs": needs}))
    assert [need.id for need in report.needs] == list(reversed(FREE))
