"""Parts of one's own on the real page: copied, filled in, used, changed, put away."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from tests.browser.conftest import complaint


def test_a_part_is_copied_filled_in_and_used(quiet_page: Page, server: str) -> None:
    """From the drawer of a plan to the sheet, and back with a part of one's own in the kit."""
    page = quiet_page
    page.goto(f"{server}/plans/choir-recorder")
    page.locator(".kit-main", has_text="Traveller 65").click()
    page.get_by_role("button", name="Swap").click()
    page.get_by_role("link", name="Sheet of Kettle 27").click()
    page.get_by_role("button", name="Copy and change").click()
    name = page.get_by_label("Name", exact=True)
    expect(name).to_have_value("Kettle 27 (copy)")
    name.fill("Attic supply")
    page.get_by_label("Price", exact=True).fill("0")
    page.get_by_label("Rated current", exact=True).fill("4,5")
    page.get_by_label("Basis: Rated current").select_option("measured")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("heading", name="Attic supply")).to_be_visible()
    page.get_by_role("button", name="Use in “Choir recorder with mirrored drives”").click()
    expect(page.locator(".kit-main", has_text="Attic supply")).to_contain_text("5.1 V, 4.5 A")
    expect(page.locator(".snag .sentence", has_text="Traveller 65")).to_have_count(0)


def test_an_emptied_figure_falls_back_to_its_class_and_says_so(page: Page, server: str) -> None:
    """The empty field names the typical value; wrong figures are told beside their field."""
    page.goto(f"{server}/parts/B06")
    page.get_by_role("button", name="Copy and change").click()
    peak = page.get_by_label("Draw at peak load", exact=True)
    peak.fill("lots")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("Enter a number")).to_be_visible()
    expect(complaint(page)).to_contain_text("One field is to correct")
    peak.fill("1")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(complaint(page)).to_contain_text("Idle, normal and peak must rise")
    peak.fill("")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("revision 2")).to_be_visible()
    expect(peak).to_have_attribute("placeholder", "typical: 6.4")
    expect(page.locator("tr", has=peak)).to_contain_text("typical value")


def test_a_plan_says_when_a_part_of_it_has_changed(quiet_page: Page, server: str) -> None:
    """It keeps the earlier figures until it is told to take the new ones."""
    page = quiet_page
    page.goto(f"{server}/parts/E04?plan=moss-cabinet&line=case")
    page.get_by_role("button", name="Copy and change").click()
    page.get_by_role("button", name="Use in").click()
    line = page.locator(".kit-main", has_text="Shut 86 (copy)")
    expect(line).to_be_visible()
    line.click()
    page.get_by_role("link", name="Part sheet", exact=True).click()
    page.get_by_label("Clearance above the board", exact=True).fill("20")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("revision 2")).to_be_visible()
    page.get_by_role("link", name="Plans").click()
    page.get_by_role("link", name="Moss-growth time-lapse cabinet").click()
    expect(line).to_contain_text("newer values")
    expect(page.locator(".margin-row").first).to_contain_text("5.8 mm")
    line.click()
    expect(page.locator(".line-changed")).to_contain_text(
        "clearance above the board: 30 mm to 20 mm"
    )
    page.get_by_role("button", name="Use the newer values").click()
    expect(page.locator(".margin-row").first).to_contain_text("2.2 mm short")
    expect(page.get_by_role("button", name="Undo")).to_have_attribute(
        "title", "Undo: Use the newest values of Shut 86 (copy)"
    )


def test_typed_text_is_not_left_behind_unasked(quiet_page: Page, server: str) -> None:
    """A link asks first; a part that is in the bin comes back."""
    page = quiet_page
    page.goto(f"{server}/parts/M02")
    page.get_by_role("button", name="Copy and change").click()
    page.get_by_label("Description", exact=True).fill("From the drawer")
    page.get_by_role("link", name="Plans").click()
    asked = page.get_by_role("dialog", name="Discard your changes?")
    expect(asked).to_be_visible()
    page.get_by_role("button", name="Keep editing").click()
    expect(asked).to_have_count(0)
    expect(page.get_by_label("Description", exact=True)).to_have_value("From the drawer")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("revision 2")).to_be_visible()
    page.get_by_role("button", name="Move to bin").click()
    expect(page.get_by_role("status")).to_contain_text("Plain 32 (copy) is in the bin")
    expect(page.get_by_role("link", name="Plain 32 (copy)")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("link", name="Plain 32 (copy)")).to_have_count(1)


def test_parts_are_found_by_kind_and_by_name(quiet_page: Page, server: str) -> None:
    """Own parts first asked for, none yet; a search that finds nothing says so."""
    page = quiet_page
    page.goto(f"{server}/parts")
    expect(page.get_by_text("Choose a part to see its values")).to_be_visible()
    page.get_by_label("Kind of part").select_option("custom")
    expect(page.get_by_text("No custom parts yet")).to_be_visible()
    page.get_by_label("Kind of part").select_option("case")
    assert set(page.locator(".shelf").all_inner_texts()) == {"Cases"}
    page.get_by_label("Search parts").fill("sealed")
    expect(page.locator(".shelf-list a")).to_have_count(4)
    page.get_by_label("Search parts").fill("zzz")
    expect(page.get_by_text("No parts match")).to_be_visible()
