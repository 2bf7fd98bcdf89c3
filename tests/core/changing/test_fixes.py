from decimal import Decimal

import pytest

from cobblewort.core.changing.candidates import candidates
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.plans.patch import PinPlug, apply_patch
from cobblewort.core.plans.plan import Plan
from tests.kits import SMALL, checked, demo, kit, shipped


def fixed(plan: Plan, finding_id: str) -> list[str]:
    """Titles of the fixes of a finding."""
    return [fix.title.text for fix in propose_fixes(plan, shipped(), finding_id)]


def test_a_supply_too_small_is_replaced_with_its_lead() -> None:
    """The supply that announces 5 A, without the lead that is then superfluous."""
    fixes = propose_fixes(demo("choir-recorder"), shipped(), "PWR-04:board#1.usb")
    titles = [fix.title.text for fix in fixes]
    assert "Swap Traveller 65 for Kettle 27, remove Braid C5" in titles
    best = fixes[titles.index("Swap Traveller 65 for Kettle 27, remove Braid C5")]
    assert best.effect.cost_delta == Decimal("-23")
    assert "PWR-02:power_supply#1.out" in best.resolves


def test_crowded_sockets_get_a_hub_of_their_own() -> None:
    """Two disks on the board's ports: onto a hub with its own supply."""
    plan = kit("B06", "S01", "M02", "2xA12", "2xD11", "E03", "K03")
    titles = fixed(plan, "PWR-04:B06#1.usb")
    assert "Add Bollard 4, plug Leash Q into it" in titles


def test_the_setting_is_offered_where_only_the_announcement_is_missing() -> None:
    """The other school: a good supply and the setting that lifts the limit."""
    plan = kit("B10", "S01", "M02", "X06", "K05", "E03", place={"ambient_max_c": 20})
    assert "Lift the port limit in the board settings" in fixed(plan, "PWR-04:B10#1.usb")


def test_a_drive_that_does_not_fit_is_replaced_or_its_board_is() -> None:
    """Shorter drives, and boards that take the long one."""
    plan = kit("B10", "S03", "M02", "A04", "D06", "K05", "E03")
    titles = fixed(plan, "FIT-07:D06#1.m2")
    assert "Swap Kerb 1T for Setts 1T" in titles
    assert "Setts 512 instead of Kerb 1T" not in titles, "it would hold less"
    assert "Swap Underlay Notch for Twin" in titles


def test_a_case_that_is_too_low() -> None:
    """A taller case or a lower cooler."""
    titles = fixed(kit("B06", "S01", "M02", "K04", "E02"), "FIT-05:above")
    assert any(title.startswith("Swap Vent 86 for") for title in titles)
    assert any(title.startswith("Swap Griddle Tall for") for title in titles)


def test_throttling_is_cured_by_a_cooler_or_another_case() -> None:
    """A bare board in a sealed box: add a cooler, or let air through."""
    plan = kit("B06", "S01", "M02", "E04", place={"ambient_max_c": 32})
    finding = next(f.id for f in checked(plan).findings if f.rule == "HEAT-01")
    titles = fixed(plan, finding)
    assert any(title.startswith("Add ") for title in titles)
    assert any(title.startswith("Swap Shut 86 for") for title in titles)


def test_over_budget_is_cured_by_a_cheaper_part() -> None:
    """The cheapest single swap that brings it under, breaking nothing."""
    total = checked(kit(*SMALL)).cost.total
    fixes = propose_fixes(kit(*SMALL, budget=total - 3), shipped(), "COST-01:budget")
    assert fixes
    assert all(fix.effect.cost_delta <= -3 for fix in fixes)


@pytest.mark.parametrize("plan_id", ["moss-cabinet", "choir-recorder"])
def test_a_fix_does_what_it_says(plan_id: str) -> None:
    """Applied and judged anew: what it resolves is gone, nothing new stops, the price agrees."""
    plan = demo(plan_id)
    before = checked(plan, 64)
    stopped = {f.id for f in before.findings if f.severity == "problem"}
    offered = 0
    for finding in before.findings:
        if not finding.has_fixes:
            continue
        for fix in propose_fixes(plan, shipped(), finding.id, 64):
            offered += 1
            after = checked(apply_patch(plan, fix.patch), 64)
            left = {f.id for f in after.findings if f.severity in ("tight", "problem")}
            assert not left & set(fix.resolves)
            assert {f.id for f in after.findings if f.severity == "problem"} <= stopped
            assert after.cost.total - before.cost.total == fix.effect.cost_delta
            assert after.families == fix.after
    assert offered >= 2


def test_a_finding_that_is_gone_has_no_fixes() -> None:
    """Another tab may have cured it."""
    assert propose_fixes(kit(*SMALL), shipped(), "HEAT-01:none") == []


def test_the_best_candidates_are_judged_with_their_draws() -> None:
    """What each is said to leave tight is tight in the report of the plan that it would be."""
    plan = kit("B06", "S01", "M02", "E02", place={"ambient_max_c": 33})
    found = candidates(plan, shipped(), "case", "E02")
    tried = [c for c in found[:6] if not c.reason]
    assert len(tried) > 3
    for candidate in tried:
        after = checked(apply_patch(plan, candidate.patch), 64)
        assert candidate.effect.tight == after.count("tight"), candidate.part
        assert candidate.effect.problems == after.count("problem"), candidate.part


def test_candidates_are_judged_in_the_plan() -> None:
    """Each board: those that stop the plan stay, last, with the reason."""
    found = candidates(kit(*SMALL), shipped(), "board", "B06")
    assert {c.part for c in found if not c.part.startswith("any-")} == {
        "B04",
        "B06",
        "B07",
        "B09",
        "B10",
        "B11",
    }
    assert [bool(c.reason) for c in found] == sorted(bool(c.reason) for c in found)
    micro = next(c for c in found if c.part == "B04")
    assert micro.effect.source_delta_a is None, "what nothing feeds draws nothing to compare"
    assert "no plug in the kit fits its" in micro.reason.text
    current = next(c for c in found if c.current)
    assert (current.part, current.effect.cost_delta) == ("B06", 0)


def test_a_lead_that_is_left_over_does_not_hide_the_current() -> None:
    """A supply with a lead of its own leaves the old lead unfed, and the board is fed."""
    found = candidates(demo("choir-recorder"), shipped(), "power_supply", "power_supply")
    kettle = next(c for c in found if c.part == "S03")
    assert kettle.effect.source_delta_a is not None
    assert kettle.effect.source_delta_a < 0


def test_candidates_for_an_empty_role_are_added() -> None:
    """Without a line the patch adds one."""
    found = candidates(kit("B06"), shipped(), "power_supply")
    assert all(c.patch[0].op == "add" for c in found)
    best = apply_patch(kit("B06"), found[0].patch)
    assert best.lines[1].role == "power_supply"


def test_a_candidate_brings_the_lead_that_it_needs() -> None:
    """A supply with a socket comes with the lead that leaves the fewest snags, not bare."""
    found = {
        c.part: c for c in candidates(kit("B06", "S01", "M02"), shipped(), "power_supply", "S01")
    }
    assert (found["S04"].brings, found["S04"].reason.text) == ("Braid C", "")
    assert found["S04"].effect.cost_delta == Decimal("31") + Decimal("7") - Decimal("10")
    assert found["S03"].brings == "", "it has one of its own"
    assert found["S06"].reason != "", "no lead makes a micro plug fit"
    assert found["S08"].brings == "Lead AC", "joined, so that its real trouble is told"
    assert "supply must deliver" in found["S08"].reason.text
    real = [c.part for c in found.values() if not c.reason]
    assert all(part.startswith("any-") for part in real[real.index("any-usb-c-fixed") :])


def test_two_steps_where_one_does_not_suffice() -> None:
    """The only drive that the slot can feed too little: a USB lead, and a drive for that."""
    day = [{"name": "all day", "hours": 24, "activity": "full"}]
    plan = kit("B10", "S03", "M02", "A01", "D07", schedule=day)
    finding = next(f.id for f in checked(plan).findings if f.id == "PWR-04:B10#1.slot")
    chains = [f for f in propose_fixes(plan, shipped(), finding) if len(f.patch) > 1]
    assert 1 <= len(chains) <= 2
    for fix in chains:
        assert finding in fix.resolves
        first = checked(apply_patch(plan, fix.patch[:1]))
        assert first.severity == "problem", "the first step alone does not do"


def test_a_crowded_inlet_is_freed_by_moving_what_hangs_on_usb() -> None:
    """The lead in the inlet itself is never plugged into a hub."""
    plan = kit("B06", "S07", "M02", "X06", "X08", "X11", "C04")
    finding = next(f.id for f in checked(plan).findings if f.id == "PWR-05:B06#1.inlet")
    titles = [fix.title.text for fix in propose_fixes(plan, shipped(), finding)]
    assert not any("plug Lead AC" in title for title in titles)
    pinned = {
        change.line
        for fix in propose_fixes(plan, shipped(), finding)
        for change in fix.patch
        if isinstance(change, PinPlug)
    }
    assert pinned <= {"X06", "X08", "X11"}


def test_a_lead_brings_no_other_lead() -> None:
    """Where a lead is looked for, one that joins nothing says so, and is not helped by another."""
    plan = kit("B06", "S04", "M02", "C01")
    line = next(entry.id for entry in plan.lines if entry.role == "cable")
    found = {c.part: c for c in candidates(plan, shipped(), "cable", line)}
    assert all(c.brings == "" and len(c.patch) == 1 for c in found.values())
    assert found["C02"].reason.text == "", "it joins them as C01 does"
    assert found["C06"].reason.text.startswith("No cable connects"), "it ends in a micro plug"


@pytest.mark.parametrize(
    ("plan", "finding"),
    [
        (kit("B06", "S01", "M02", "K04", "E02"), "FIT-05:above"),
        (kit("B06", "S01", "M02", "E04", place={"ambient_max_c": 32}), "HEAT-01:B06#1.die"),
        (demo("choir-recorder"), "FIT-07:drives#2.m2"),
    ],
)
def test_ways_out_that_settle_as_much_stand_by_their_cost(plan: Plan, finding: str) -> None:
    """Among those that break nothing and ask for nothing by hand the cheapest comes first."""
    fixes = [
        fix
        for fix in propose_fixes(plan, shipped(), finding)
        if not fix.breaks
        and finding in fix.resolves
        and all(change.op in ("swap", "add", "pin") for change in fix.patch)
    ]
    groups: dict[int, list[Decimal]] = {}
    for fix in fixes:
        groups.setdefault(len(fix.resolves), []).append(fix.effect.cost_delta)
    assert any(len(set(costs)) > 1 for costs in groups.values()), "nothing to be ranked"
    for costs in groups.values():
        assert costs == sorted(costs)
