"""Supply and place: what feeds it there, what the sun gives, how long a battery lasts."""

from typing import Any, get_args

import pytest

from cobblewort.core.aspects.power.daily_energy import (
    USABLE_BATTERY_SHARE,
    darkest_yield_wh_wp,
)
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.parts.model import Feed
from cobblewort.core.plans.plan import FEEDS_AT, Plan
from tests.kits import checked, kit, margin, shipped, told

SUPPLIES = {
    "mains": "S01",
    "poe": "S32",
    "vehicle": "S14",
    "battery": "S30",
    "solar": "S33",
    "machine": "S08",
}
IDLE = [{"name": "all day", "hours": 24, "activity": "idle"}]


def fed(supply: str, power: str, **fields: Any) -> Plan:
    """A small kit with a supply, at a place that has something to give."""
    cable = {"S30": ("C01",), "S08": ("C04",)}.get(supply, ())
    return kit("B06", supply, *cable, "M02", "K03", "E03", place={"power": power}, **fields)


@pytest.mark.parametrize("power", get_args(Feed))
@pytest.mark.parametrize("feed", get_args(Feed))
def test_a_supply_wants_what_the_place_has(feed: Feed, power: Feed) -> None:
    """A battery does anywhere while it lasts, another machine where mains are; anything else only
    where its own kind is.
    """
    findings = told(checked(fed(SUPPLIES[feed], power)), "PWR-09")
    stopped = [f for f in findings if f.severity == "problem"]
    does = feed in (power, "battery") or (feed, power) == ("machine", "mains")
    assert (stopped == []) == does == (feed in FEEDS_AT[power])
    if stopped:
        assert (
            f"{shipped().part(SUPPLIES[feed]).model} power supply runs on"
            in findings[0].sentence.text
        )


def test_a_battery_where_there_is_something_better() -> None:
    """Tight at the mains, unless hours without them are asked for; nothing at a place without."""
    requirement = {"id": "off", "text": "for an hour", "condition": "without_mains", "at_least": 1}
    found = told(checked(fed("S30", "mains")), "PWR-09")
    assert [f.severity for f in found] == ["tight"]
    assert found[0].sentence.text == (
        "The Satchel 74 power supply runs empty and must be recharged, although the location has "
        "mains."
    )
    assert told(checked(fed("S30", "mains", requirements=[requirement])), "PWR-09") == []
    assert told(checked(fed("S30", "solar")), "PWR-09") == []


def test_the_way_out_is_a_supply_for_that_place() -> None:
    """In a vehicle the converter for one, and no mains supply among the ways out."""
    plan = fed("S01", "vehicle")
    finding = told(checked(plan), "PWR-09")[0]
    fixes = propose_fixes(plan, shipped(), finding.id)
    assert fixes[0].title.text.startswith("Swap Kettle 15 for Wagon 15")
    swapped = {change.part for fix in fixes for change in fix.patch if change.op == "swap"}
    feeds = {part.source.power_source for p in swapped if (part := shipped().part(p)).source}
    assert feeds <= {"vehicle", "battery"}


def test_a_day_of_december() -> None:
    """50 Wp x 0.7 Wh/Wp x 0.85 against 24 h of idling, worked out by hand from the report."""
    report = checked(fed("S33", "solar", schedule=IDLE), 256)
    found = margin(report, "PWR-10:panel")
    idle = next(n for n, state in enumerate(report.power.states) if state.id == "idle")
    assert found.value == pytest.approx(50 * 0.7 * USABLE_BATTERY_SHARE)
    assert found.limit == pytest.approx(24 * report.power.source_w[idle], rel=1e-6)
    assert found.severity == "problem"
    assert (
        "30 Wh per day in December; the kit draws 66 Wh" in told(report, "PWR-10")[0].sentence.text
    )


@pytest.mark.parametrize(
    ("latitude_deg", "wh_wp", "month"),
    [
        (None, 0.7, "December"),
        (50, 0.7, "December"),
        (35, 2.8, "December"),
        (42.5, 1.75, "December"),
        (20, 2.8, "December"),
        (60, 0.7 / 3, "December"),
        (-35, 2.8, "June"),
        (80, 0.0, "December"),
    ],
)
def test_the_darkest_month_goes_by_the_latitude(
    latitude_deg: float | None, wh_wp: float, month: str
) -> None:
    """Between the rows of typical figures at 35, 50 and 60 degrees (3.6, 0.9 and 0.3 kWh/m² a day,
    of which 7/9 are left at 50); no sun beyond the polar circle.
    """
    plan = fed("S33", "solar", schedule=IDLE)
    place = plan.place.model_copy(update={"latitude_deg": latitude_deg})
    found = margin(checked(plan.model_copy(update={"place": place})), "PWR-10:panel")
    assert found.value == pytest.approx(50 * wh_wp * USABLE_BATTERY_SHARE)
    assert month in found.label


def test_a_larger_panel_is_the_way_out() -> None:
    """200 Wp give 119 Wh: enough for a board that idles, in most Decembers."""
    plan = fed("S33", "solar", schedule=IDLE)
    finding = told(checked(plan), "PWR-10")[0]
    fixes = propose_fixes(plan, shipped(), finding.id, 256)
    assert fixes[0].title.text.startswith("Swap Sunleaf Set 50 for Sunleaf Set 200")
    banded = checked(fed("S35", "solar", schedule=IDLE), 256)
    assert margin(banded, "PWR-10:panel").severity == "ok"
    assert 0.7 < (margin(banded, "PWR-10:panel").holds_share or 0) < 0.95


def test_the_sun_without_a_panel_is_not_passed_in_silence() -> None:
    """A battery alone: a note with what a day takes, and how long it lasts."""
    report = checked(fed("S30", "solar", schedule=IDLE))
    assert told(report, "PWR-10")[0].sentence.text.startswith(
        "The kit has no solar panel; it draws"
    )
    assert "lasts about" in told(report, "PWR-11")[0].sentence.text


def test_hours_of_a_battery() -> None:
    """74 Wh x 0.85 over the mean draw, in words; none are told where nothing is fed."""
    report = checked(fed("S30", "battery", schedule=IDLE))
    idle = next(n for n, state in enumerate(report.power.states) if state.id == "idle")
    hours = 74 * USABLE_BATTERY_SHARE / report.power.source_w[idle]
    assert f"lasts about {hours:.0f} hours" in told(report, "PWR-11")[0].sentence.text
    alone = checked(kit("S30", "M02", place={"power": "battery"}))
    assert told(alone, "PWR-11") == []


def test_the_yield_is_drawn_from_its_band() -> None:
    """Sample 0 is nominal; the rest lie between a bad and a good December."""
    found = darkest_yield_wh_wp(None, 256)
    assert found[0] == pytest.approx(0.7)
    assert 0.3 <= found[1:].min() < found[1:].max() <= 1.1


def test_a_battery_is_a_way_out_only_where_hours_without_mains_are_asked_for() -> None:
    """Ten hours: the power bank with a lead; a supply that is too small is not mended by one."""
    requirement = {
        "id": "off",
        "text": "through the night",
        "condition": "without_mains",
        "at_least": 10,
    }
    plan = kit("B06", "S01", "M02", "K03", "E03", requirements=[requirement], schedule=IDLE)
    finding = told(checked(plan), "NEED-01")[0]
    assert finding.sentence.text == "The kit has no battery (requirement “through the night”)."
    titles = [fix.title.text for fix in propose_fixes(plan, shipped(), finding.id)]
    assert titles[0].startswith("Swap Kettle 15 for Satchel 74,")
    weak = kit("B10", "S01", "M02", "X06", "K05", "E03")
    finding = told(checked(weak), "PWR-02")[0]
    fixes = propose_fixes(weak, shipped(), finding.id)
    assert fixes
    assert not any("Satchel" in fix.title.text or "Sunleaf" in fix.title.text for fix in fixes)


@pytest.mark.parametrize(
    "schedule",
    [
        IDLE,
        [{"name": "play", "hours": 6, "activity": "normal"}],
        [
            {"name": "play", "hours": 4, "activity": "normal"},
            {"name": "away", "hours": 20, "activity": "off"},
        ],
    ],
)
def test_a_battery_lasts_as_long_wherever_it_is_told(schedule: list[dict[str, Any]]) -> None:
    """The note and the need count the same hours of use: hours without use do not empty it."""
    requirement = {"id": "hours", "text": "runs on", "condition": "without_mains", "at_least": 1}
    report = checked(fed("S30", "battery", schedule=schedule, requirements=[requirement]))
    (told_of,) = told(report, "PWR-11")
    hours = report.purpose[0].have
    assert hours is not None
    assert f"lasts about {hours:.0f} hours" in told_of.sentence.text
    assert ("hours of “play”" in told_of.sentence.text) == (schedule is not IDLE)
    full = checked(
        fed("S30", "battery", schedule=[{**schedule[0], "hours": 24}], requirements=[requirement])
    )
    assert full.purpose[0].have == pytest.approx(hours, rel=0.01)


def test_pwr_09_the_place_may_have_it_after_all() -> None:
    """A way out that costs nothing, and is nobody's first; a plan that asks for it is silent."""
    plan = fed("S14", "mains")
    (finding,) = told(checked(plan), "PWR-09")
    titles = [fix.title.text for fix in propose_fixes(plan, shipped(), finding.id)]
    assert "Set the location to vehicle power" in titles[1:]
    asks = {"id": "car", "text": "runs in the car", "function": "vehicle_power"}
    assert told(checked(fed("S14", "mains", requirements=[asks])), "PWR-09") == []
    assert told(checked(fed("S01", "vehicle", requirements=[asks])), "PWR-09") != []
