"""The way of data and the years of a kit, in the page, with mouse and with keys."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from icalendar import Calendar
from playwright.sync_api import Page, expect

from tests.browser.conftest import complaint
from tests.browser.test_access import COLOURS, check_with_axe
from tests.browser.test_everyday import ask


def open_plan(page: Page, server: str, plan: str, key: str) -> None:
    """A plan with one of its rulers chosen by its key."""
    page.goto(f"{server}/plans/{plan}")
    page.locator(".kit-main").first.wait_for()
    page.keyboard.press(key)


def test_the_way_of_a_copy(quiet_page: Page, server: str) -> None:
    """The neck is marked, the time stands against what is allowed, a link can be chosen."""
    page = quiet_page
    open_plan(page, server, "choir-recorder", "4")
    page.get_by_role("button", name="a rehearsal to the office", exact=True).click()
    expect(page.locator(".flow-verdict")).to_contain_text(
        "112 MB/s; bottleneck: Ethernet, 1000 Mbit/s"
    )
    expect(page.locator(".way-link.neck")).to_contain_text("112 MB/s: full")
    expect(page.locator(".time-bar")).to_contain_text("allowed 20 min")
    page.locator(".way-link", has_text="flat-cable slot").click()
    expect(page.locator(".way-link.lit", has_text="flat-cable slot")).to_have_count(1)
    told = page.locator(".way-chosen")
    expect(told).to_contain_text("Flat-cable slot carries up to 432 MB/s")
    expect(told).to_contain_text(
        "A faster link changes nothing. Bottleneck: Ethernet, 1000 Mbit/s."
    )
    told.get_by_role("button", name="Working of").click()
    working = page.get_by_role("dialog", name="Working")
    expect(working).to_contain_text("Rate: flat-cable slot")
    expect(working).to_contain_text("= 432.4 MB/s")
    page.keyboard.press("Escape")
    page.locator(".way-link.neck").focus()
    page.keyboard.press("Enter")
    expect(told).to_contain_text("This link is the bottleneck. A faster link brings 432 MB/s")
    page.get_by_role("button", name="Show the working").click()
    expect(page.locator(".working-sum")).to_be_visible()


def test_flows_are_switched_like_states(quiet_page: Page, server: str) -> None:
    """Alone, and in the worst case."""
    page = quiet_page
    open_plan(page, server, "choir-recorder", "4")
    page.get_by_role("button", name="sixteen microphones", exact=True).click()
    expect(page.locator(".flow-verdict")).to_contain_text("3.1 MB/s without a gap")
    page.get_by_role("button", name="Worst case", exact=True).click()
    expect(page.locator(".flow-verdict")).to_contain_text("in the worst case")


def test_a_flow_is_added_changed_and_taken_out(quiet_page: Page, server: str) -> None:
    """By keys alone; what is wrong is said, and every letter stays."""
    page = quiet_page
    open_plan(page, server, "moss-cabinet", "4")
    page.get_by_role("button", name="Add a transfer").focus()
    page.keyboard.press("Enter")
    page.get_by_label("Name").focus()
    page.keyboard.type("a film to the school")
    page.get_by_label("From", exact=True).select_option("storage")
    page.get_by_label("To", exact=True).select_option("network")
    page.get_by_label("Amount each time").fill("much")
    page.get_by_label("Amount each time").press("Enter")
    expect(complaint(page)).to_contain_text(
        "Amount each time: enter a number above 0, for example 27.6 (got much)."
    )
    expect(page.get_by_label("Name")).to_have_value("a film to the school")
    page.get_by_label("Amount each time").fill("2,5")
    page.get_by_label("Time limit (optional)").fill("0,5")
    page.get_by_label("Time limit (optional)").press("Enter")
    expect(page.locator(".flow-list")).to_contain_text("2.5 GB within 30 s")
    expect(page.locator(".snag", has_text="DATA-01")).to_contain_text("a film to the school")
    page.get_by_role("button", name="Change a film to the school").click()
    page.get_by_label("Time limit (optional)").fill("")
    page.get_by_role("button", name="Save transfer").click()
    expect(page.locator(".snag", has_text="DATA-01")).to_have_count(0)
    page.get_by_role("button", name="Remove a film to the school").click()
    expect(page.locator(".flow-list")).not_to_contain_text("a film to the school")
    page.keyboard.press("z")
    expect(page.locator(".flow-list")).to_contain_text("a film to the school")


def test_a_flow_that_is_refused_keeps_its_text(page: Page, server: str) -> None:
    """The server is gone; what was typed is there when it comes back."""
    open_plan(page, server, "moss-cabinet", "4")
    page.get_by_role("button", name="Add a transfer").click()
    page.get_by_label("Name").fill("a film to the school")
    page.get_by_label("Amount each time").fill("2")
    page.route("**/api/plans/**", lambda route: route.abort())
    page.get_by_role("button", name="Save transfer").click()
    expect(page.get_by_label("Name")).to_have_value("a film to the school")
    page.unroute("**/api/plans/**")
    page.get_by_role("button", name="Save transfer").click()
    expect(page.locator(".flow-list")).to_contain_text("a film to the school")


def test_disks_are_used_in_another_way(quiet_page: Page, server: str) -> None:
    """A stripe has more room and survives nothing; undo brings the mirror back."""
    page = quiet_page
    open_plan(page, server, "choir-recorder", "4")
    layouts = page.locator(".layouts tbody tr")
    expect(layouts.filter(has_text="this plan")).to_contain_text("mirror")
    page.get_by_role("button", name=re.compile(r"Use this.*stripe \(RAID 0")).click()
    expect(layouts.filter(has_text="this plan")).to_contain_text("stripe")
    expect(page.locator(".snag", has_text="NEED-03").first).to_contain_text("Data is lost")
    page.keyboard.press("z")
    expect(layouts.filter(has_text="this plan")).to_contain_text("mirror")


def test_years_against_those_that_are_wanted(quiet_page: Page, server: str) -> None:
    """The card of the moss cabinet lasts six years; eight are too many for it."""
    page = quiet_page
    open_plan(page, server, "moss-cabinet", "5")
    card = page.locator(".rope", has_text="Plain 32")
    expect(card).to_contain_text(re.compile(r"6\.4\syears, at 1\.1\sGB per day"))
    expect(page.locator(".ropes")).to_contain_text("required 7 years")
    page.get_by_label("Required lifetime").fill("8")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.locator(".rope.short")).to_contain_text("Plain 32")
    expect(page.locator(".snag", has_text="LIFE-01")).to_contain_text("8 years are required")
    page.get_by_label("Keep logs in memory").click()
    expect(page.get_by_label("Keep logs in memory")).to_be_checked()
    page.get_by_label("Required lifetime").fill("many")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(complaint(page)).to_contain_text("up to 50 years")


def test_two_tabs_in_the_years_lose_nothing(page: Page, server: str) -> None:
    """What another tab changed stands beside what was typed."""
    open_plan(page, server, "moss-cabinet", "5")
    page.get_by_label("Required lifetime").fill("9")
    version = ask(server, "/plans/moss-cabinet")["version"]
    patch = [
        {"op": "set", "fields": {"retention": {"years": 7}, "storage_use": {"growth_gb_month": 4}}}
    ]
    ask(server, "/plans/moss-cabinet", {"patch": patch}, method="PATCH", version=version)
    page.get_by_role("button", name="Save", exact=True).click()
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_label("Required lifetime")).to_have_value("9")
    plan = ask(server, "/plans/moss-cabinet")["plan"]
    assert plan["storage_use"]["growth_gb_month"] == 4


def test_copies_against_three_two_one(quiet_page: Page, server: str) -> None:
    """A disk at a friend's settles the note, and can be taken out again."""
    page = quiet_page
    open_plan(page, server, "choir-recorder", "5")
    expect(page.locator(".snag", has_text="LIFE-04")).to_contain_text("none elsewhere")
    page.get_by_role("button", name="Add a backup", exact=True).click()
    page.get_by_role("button", name="Save backup").click()
    expect(complaint(page)).to_contain_text("Name: enter one, for example “disk in the office”.")
    page.get_by_label("Name").fill("a disk at a friend's")
    page.get_by_label("How often").fill("30")
    page.get_by_role("button", name="Save backup").click()
    expect(page.locator(".copy-map")).to_contain_text("a disk at a friend's every 30 days")
    expect(page.locator(".snag", has_text="LIFE-04")).to_have_count(0)
    expect(page.locator(".upkeep")).to_contain_text("Restore one file from each backup")
    page.get_by_role("button", name="Remove the backup: a disk at a friend's").click()
    expect(page.locator(".snag", has_text="LIFE-04")).to_have_count(1)


def test_the_calendar_is_taken_along(page: Page, server: str, tmp_path: Path) -> None:
    """As a file that a calendar reads."""
    open_plan(page, server, "bat-recorder", "5")
    with page.expect_download() as begun:
        page.get_by_role("link", name="Export as calendar").click()
    file = tmp_path / begun.value.suggested_filename
    begun.value.save_as(file)
    assert file.suffix == ".ics"
    events = Calendar.from_ical(file.read_bytes()).walk("VEVENT")
    assert any("vestry" in str(event["summary"]) for event in events)


def test_the_way_on_a_phone(quiet_page: Page, server: str) -> None:
    """Downwards, each link in reach of a thumb, and nothing sticks out."""
    page = quiet_page
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{server}/plans/choir-recorder")
    page.get_by_role("button", name="Data").first.click()
    steps = page.locator(".way-step")
    expect(steps.first).to_be_visible()
    assert all((box := step.bounding_box()) and box["height"] >= 40 for step in steps.all())
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= 390


@pytest.mark.parametrize(("scheme", "rules"), [("light", []), ("dark", COLOURS)])
def test_nothing_serious_on_both(page: Page, server: str, scheme: str, rules: list[str]) -> None:
    """axe, with every form open."""
    page.emulate_media(color_scheme=scheme, reduced_motion="reduce")  # type: ignore[arg-type]
    open_plan(page, server, "choir-recorder", "4")
    page.get_by_role("button", name="Add a transfer").click()
    page.locator("details summary").first.click()
    assert check_with_axe(page, rules) == []
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Cancel").click()
    page.keyboard.press("5")
    page.get_by_role("button", name="Add a backup", exact=True).click()
    page.locator(".details-table summary").first.click()
    assert check_with_axe(page, rules) == []


def test_amounts_are_asked_where_they_matter(quiet_page: Page, server: str) -> None:
    """A store is asked how much at a time, a sign of a logger is not; the kit follows."""
    page = quiet_page
    page.goto(f"{server}/new")
    page.get_by_label("Climate or tide logger").check()
    expect(page.locator(".first-kit-table")).to_be_visible()
    expect(page.get_by_text("Amount of data")).to_have_count(0)
    page.get_by_label("Audio recorder").check()
    asked = page.get_by_label("Amount: sixteen microphones at once")
    asked.fill("few")
    expect(
        page.get_by_text("Enter the amount of “sixteen microphones at once” as a number")
    ).to_be_visible()
    asked.fill("8")
    expect(page.get_by_text("8 microphones at once", exact=True)).to_be_visible()
    expect(page.locator(".first-kit-table")).to_be_visible()
    page.get_by_role("button", name="Create with this kit").click()
    page.locator(".kit-main").first.wait_for()
    page.keyboard.press("4")
    expect(page.locator(".flow-list")).to_contain_text("1.2 MB/s without a gap")
