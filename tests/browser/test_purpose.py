"""From the four questions to a sound kit, and what the workbench says of a purpose."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from tests.browser.conftest import complaint
from tests.browser.test_main_job import reach, snags


def test_from_four_answers_to_a_kit_by_mouse(quiet_page: Page, server: str) -> None:
    """What, where, what is owned, what it may cost: a kit with reasons, and a plan of it."""
    page = quiet_page
    page.goto(server)
    page.get_by_role("button", name="New plan").click()
    expect(page.get_by_role("button", name="Create with this kit")).to_be_disabled()
    page.get_by_text("Time-lapse or frost camera").click()
    asked = page.locator(".asked-list li")
    expect(asked).to_have_count(5)
    kit = page.locator(".first-kit")
    expect(kit).to_contain_text("5 of 5 requirements met. No problems found.")
    expect(kit).to_contain_text("Provides a camera")

    page.get_by_label("Location").select_option("loft")
    expect(page.get_by_label("Highest ambient")).to_have_value("42")
    page.get_by_label("Search for a part").fill("micro 12")
    page.get_by_role("button", name="Marlpit Micro 12").click()
    expect(page.locator(".owned-list li")).to_contain_text("Marlpit Micro 12")
    expect(kit.locator("tr", has_text="Micro 12")).to_contain_text("Already owned")
    page.get_by_role("button", name="Remove the requirement: runs unattended for months").click()
    expect(kit).to_contain_text("4 of 4 requirements met")
    page.get_by_label("Budget").fill("20")
    expect(kit).to_contain_text("No kit meets every requirement")
    expect(kit.locator(".failing")).to_contain_text("the budget is €20")
    page.get_by_label("Budget").fill("200")
    expect(kit).to_contain_text("No problems found.")
    page.get_by_label("Name of the plan").fill("Orchard frost camera")
    page.get_by_label("Add a requirement").select_option("function:relay")
    page.get_by_label("Your own words").fill("switches the flash")
    page.get_by_role("button", name="Add requirement").click()
    expect(kit).to_contain_text("5 of 5 requirements met")
    page.get_by_role("button", name="Create with this kit").click()

    expect(page.locator(".crumbs strong")).to_have_text("Orchard frost camera")
    expect(page.locator(".kit-main", has_text="Purpose")).to_contain_text("5 of 5 requirements met")
    expect(page.locator(".kit-line", has_text="Gate 2")).to_be_visible()
    assert "Problem" not in snags(page)


def test_from_four_answers_to_a_kit_by_keyboard(quiet_page: Page, server: str) -> None:
    """Tab, arrows, Enter and typing alone."""
    page = quiet_page
    page.goto(f"{server}/new")
    expect(page.get_by_role("heading", name="New plan")).to_be_visible()
    reach(page, "Audio recorder")
    page.keyboard.press("Space")
    page.keyboard.press("ArrowDown")
    expect(page.get_by_role("radio", name="Climate or tide logger")).to_be_checked()
    expect(page.locator(".first-kit")).to_contain_text("No problems found.")
    reach(page, "Budget")
    page.keyboard.type("120")
    expect(page.locator(".first-kit")).to_contain_text("No problems found.")
    expect(page.get_by_role("button", name="Create with this kit")).to_be_enabled()
    reach(page, "Create with this kit")
    page.keyboard.press("Enter")
    expect(page.locator(".crumbs strong")).to_have_text("Climate or tide logger")
    expect(page.locator(".kit-main", has_text="Purpose")).to_contain_text("4 of 4 requirements met")
    assert "Problem" not in snags(page)


def test_a_need_is_raised_and_settled_on_the_workbench(quiet_page: Page, server: str) -> None:
    """Asked for, not met, a way out taken, met by the part that came."""
    page = quiet_page
    page.goto(f"{server}/plans/bat-recorder")
    page.locator(".kit-main", has_text="Purpose").click()
    expect(page.locator(".aspect-head .verdict")).to_have_text("4 of 4 requirements met")
    page.get_by_label("Add a requirement").select_option("function:mesh_radio")
    page.get_by_role("button", name="Add requirement").click()
    expect(page.locator(".aspect-head .verdict")).to_have_text("4 of 5 requirements met")
    page.get_by_role("button", name="Show fixes for mesh radio").click()
    page.locator(".fix", has_text="Add Burr 24").click()
    page.get_by_role("button", name="Apply").click()
    expect(page.locator(".aspect-head .verdict")).to_have_text("5 of 5 requirements met")
    row = page.locator(".need-table tr", has_text="mesh radio")
    expect(row).to_contain_text("Burr 24")
    page.get_by_role("button", name="Remove the requirement: mesh radio").click()
    expect(page.locator(".need-table tr")).to_have_count(4)


def test_an_amount_of_a_plan_is_a_field(quiet_page: Page, server: str) -> None:
    """A wrong one is told; a right one takes words and transfers along, undo brings all back."""
    page = quiet_page
    page.goto(f"{server}/plans/choir-recorder")
    page.locator(".kit-main", has_text="Purpose").click()
    amount = page.get_by_label("Amount: sixteen microphones at once")
    amount.fill("none")
    amount.press("Enter")
    expect(page.get_by_role("alert")).to_have_text(re.compile("above 0"))
    amount.fill("8")
    amount.press("Enter")
    row = page.locator(".need-table tr").first
    expect(row).to_contain_text("8 microphones at once")
    expect(row.get_by_role("button", name="Save amount")).to_have_count(0)
    words = page.get_by_label("Amount: 8 microphones at once")
    words.fill("6")
    page.get_by_label("Your own words: 8 microphones at once").fill("a sextet")
    page.get_by_role("button", name="Save amount").click()
    expect(row).to_contain_text("a sextet")
    for _ in range(2):
        page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Amount: sixteen microphones at once")).to_have_value("16")


def test_the_day_is_edited_on_its_strip(quiet_page: Page, server: str) -> None:
    """Too many hours are refused with a sentence; a right day is kept, and can be undone."""
    page = quiet_page
    page.goto(f"{server}/plans/choir-recorder")
    page.locator(".kit-main", has_text="Purpose").click()
    expect(page.get_by_role("img", name="Daily schedule: recording 2.5 h")).to_be_visible()
    page.get_by_label("Hours of copying").fill("30")
    page.get_by_role("button", name="Save schedule").click()
    expect(complaint(page)).to_contain_text("up to 24")
    page.get_by_label("Hours of copying").fill("1,5")
    page.get_by_label("Load in copying").select_option("full")
    page.get_by_role("button", name="Save schedule").click()
    expect(page.get_by_role("button", name="Undo")).to_have_attribute(
        "title", "Undo: daily schedule"
    )
    page.reload()
    page.locator(".kit-main", has_text="Purpose").click()
    expect(page.get_by_label("Hours of copying")).to_have_value("1.5")
    expect(page.get_by_label("Load in copying")).to_have_value("full")


def test_a_variant_of_the_other_school_in_one_press(quiet_page: Page, server: str) -> None:
    """Both are kept."""
    page = quiet_page
    page.goto(f"{server}/plans/bat-recorder")
    page.locator(".kit-main", has_text="Purpose").click()
    page.get_by_role("button", name="Make a variant: boot from a drive").click()
    expect(page.locator(".crumbs strong")).to_have_text(
        "Churchyard bat-call recorder (boot from a drive)"
    )
    page.get_by_role("link", name="Plans").click()
    expect(page.locator(".strip")).to_have_count(4)


def test_a_ready_made_one_can_be_the_better_buy(quiet_page: Page, server: str) -> None:
    """Its price is held against the kit's, plainly."""
    page = quiet_page
    page.goto(f"{server}/plans/moss-cabinet")
    page.locator(".kit-main", has_text="Purpose").click()
    page.get_by_label("Ready-made alternative").fill("A nursery camera")
    page.get_by_label("Price").fill("99")
    page.get_by_role("button", name="Save alternative").click()
    expect(page.locator("section", has_text="Build or buy").last).to_contain_text(
        re.compile(r"\+€60 compared with the ready-made alternative\. The ready-made")
    )


def test_a_quieter_place_lights_the_noise_ruler(quiet_page: Page, server: str) -> None:
    """What may be heard is set by hand; the ruler, the drawing and a way out answer to it."""
    page = quiet_page
    page.goto(f"{server}/plans/choir-recorder")
    page.get_by_text("Noise", exact=True).first.click()
    expect(page.locator(".noise-drawing")).to_contain_text("31 dB(A)")
    page.get_by_role("button", name="Change").click()
    page.get_by_label("Noise limit at 1 m").fill("loud")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(complaint(page)).to_contain_text("up to 140 dB(A)")
    page.get_by_label("Noise limit at 1 m").fill("28")
    page.get_by_label("Network").select_option("wifi")
    page.get_by_role("button", name="Save", exact=True).click()
    snag = page.locator(".snag", has_text="the limit here is 28")
    expect(snag).to_be_visible()
    expect(page.locator(".snag", has_text="The location has no Ethernet")).to_be_visible()
    snag.click()
    expect(page.locator(".fix", has_text="Swap Steeple for Hush Clip")).to_be_visible()
    page.get_by_text("Purpose", exact=True).first.click()
    expect(page.locator("main")).to_contain_text("Wi-Fi only, at most 28 dB(A) at 1 m")


def test_nights_of_a_recording_are_asked_for(quiet_page: Page, server: str) -> None:
    """Days and the rate of an hour; without the rate the sentence says what is missing."""
    page = quiet_page
    page.goto(f"{server}/plans/moss-cabinet")
    page.get_by_text("Purpose", exact=True).first.click()
    page.get_by_label("Add a requirement").select_option("function:recording")
    page.get_by_label("Value").fill("400")
    page.get_by_label("Your own words").fill("a year of pictures")
    page.get_by_role("button", name="Add requirement").click()
    expect(page.locator(".field-wrong")).to_contain_text("MB per hour")
    page.get_by_label("Rate").fill("9000")
    page.get_by_role("button", name="Add requirement").click()
    row = page.locator(".need-table tr", has_text="a year of pictures")
    expect(row.get_by_label("Amount: a year of pictures")).to_have_value("400")
    expect(row).to_contain_text("days at 9000 MB per hour")
    expect(row).to_contain_text("Not met")
    expect(row).to_contain_text("GB hold")


def test_what_is_owned_is_pasted_as_a_list(page: Page, server: str) -> None:
    """One part a line, with bullets and numbers; what is not found is told by its line."""
    page.goto(f"{server}/new")
    page.get_by_text("Climate or tide logger").click()
    field = page.get_by_label("Search for a part")
    field.focus()
    pasted = "- 1 x Marlpit Micro 12\n* Plain 16\n3) zzqqxx\n"
    page.evaluate(
        """text => {
          const data = new DataTransfer();
          data.setData("text", text);
          const event = new ClipboardEvent("paste", { clipboardData: data, bubbles: true,
            cancelable: true });
          document.activeElement.dispatchEvent(event);
        }""",
        pasted,
    )
    listed = page.locator(".owned-list li")
    expect(listed).to_have_count(2)
    expect(listed.first).to_contain_text("Micro 12")
    expect(page.get_by_text("Not found: zzqqxx.")).to_be_visible()
    kit = page.locator(".first-kit")
    expect(kit.locator("tr", has_text="Micro 12")).to_contain_text("Already owned")
