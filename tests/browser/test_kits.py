"""Suggested kits on the page: the search, the slope, limits by keys, variants."""

from __future__ import annotations

import shutil
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.conftest import served_empty
from tests.browser.test_access import check_with_axe


def test_kits_from_search_to_variant(quiet_page: Page, server: str) -> None:
    """Found from the plan; searched at once; limited by keys, compared, made a plan and undone."""
    page = quiet_page
    page.goto(f"{server}/plans/moss-cabinet")
    page.get_by_role("link", name="Suggest kits").click()
    expect(page.get_by_role("heading", name="Suggested kits")).to_be_visible()
    rows = page.locator(".kits-table tbody tr")
    expect(rows).to_have_count(4, timeout=30_000)
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_role("button", name="Stop")).to_have_count(0)
    expect(page.locator(".slope-stone")).to_have_count(4)
    expect(rows.first).to_contain_text("Stile")
    assert check_with_axe(page, []) == []
    page.set_viewport_size({"width": 390, "height": 844})
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.set_viewport_size({"width": 1280, "height": 800})

    page.get_by_label("Price at most").focus()
    page.keyboard.press("ArrowLeft")
    expect(page.locator(".kits-table tr.under")).to_have_count(1)
    expect(page.locator(".slope-stone.under")).to_have_count(1)
    page.get_by_role("button", name="No limits").click()
    expect(page.locator(".under")).to_have_count(0)

    line = page.locator(".slope-handle").first.bounding_box()
    assert line is not None
    across, at = line["x"] + line["width"] / 2, line["y"] + 60
    page.mouse.move(across, at)
    page.mouse.down()
    page.mouse.move(across - 120, at, steps=4)
    page.mouse.up()
    expect(page.locator(".slope-stone.under")).to_have_count(1)
    page.get_by_role("button", name="No limits").click()
    expect(page.locator(".slope-grit").first).to_be_attached()
    page.get_by_label("Why is this part in no kit?").select_option(label="Windrow")
    asked = page.get_by_role("region", name="Ask about a part").get_by_role("status")
    expect(asked).to_contain_text("The fan cable of Windrow")

    page.locator(".slope-stone").nth(0).focus()
    page.keyboard.press("Space")
    page.get_by_label("Compare kit 2").check()
    expect(page.get_by_role("region", name="Differences")).to_contain_text("Cooling")

    page.get_by_role("button", name="Tightest margin").click()
    expect(rows.first).to_contain_text("Griddle")
    rows.first.get_by_role("button", name="Create variant").click()
    expect(rows.first.get_by_role("link", name="Open variant")).to_be_visible()
    rows.first.get_by_role("button", name="Undo").click()
    rows.first.get_by_role("button", name="Create variant").click()
    rows.first.get_by_role("link", name="Open variant").click()
    expect(page.locator(".crumbs strong")).to_contain_text("Moss-growth time-lapse cabinet, €")
    expect(page.get_by_text("No snags").first).to_be_visible()


def test_a_choice_of_criteria_a_typed_limit_and_what_less_would_cost(
    page: Page, server: str
) -> None:
    """What somebody looks for sets the criteria; a limit takes a typed number; and with so little
    money it is told what would give a kit.
    """
    page.goto(f"{server}/plans/moss-cabinet/kits")
    page.get_by_label("Looking for").select_option(label="Smallest")
    page.get_by_role("button", name="Search again").click()
    expect(page.get_by_role("button", name="Volume")).to_be_visible(timeout=30_000)
    expect(page.get_by_role("region", name="What less would cost")).to_contain_text(
        "Without “takes pictures of the moss”: from €", timeout=60_000
    )
    limit = page.get_by_label("Limit of price")
    limit.fill("97")
    limit.press("Enter")
    expect(limit).to_have_value("€97")
    under = page.locator(".kits-table tr.under")
    expect(under.first).to_be_visible()
    limit.fill("cheap")
    limit.press("Enter")
    expect(limit).to_have_value("€97")
    page.get_by_label("Looking for").select_option(label="Lowest price")
    page.get_by_label("Exclude a part").select_option(label="Stile")
    page.get_by_role("button", name="Search again").click()
    expect(page.locator(".kits-table tbody tr").first).not_to_contain_text("Stile", timeout=30_000)
    page.get_by_role("button", name="Without Stile: remove").click()
    page.get_by_label("Require a part").select_option(label="Culvert S")
    page.get_by_role("button", name="Search again").click()
    expect(page.locator(".kits-table tbody tr").first).to_contain_text("Culvert S", timeout=30_000)
    page.get_by_role("button", name="With Culvert S: remove").click()
    page.get_by_label("Spend at most").fill("95")
    page.get_by_role("button", name="Search again").click()
    expect(page.get_by_role("region", name="What less would cost")).to_contain_text(
        "Without “takes pictures of the moss”: from €", timeout=60_000
    )


def test_a_server_that_stops_in_the_middle(
    page: Page, demo_file: Path, tmp_path: Path, port: int
) -> None:
    """The kits that are known stay; when it is back, the search begins anew."""
    file = Path(shutil.copy(demo_file, tmp_path / "demo.sqlite3"))
    rows = page.locator(".kits-table tbody tr")
    with served_empty(file, port) as address:
        page.goto(f"{address}/plans/moss-cabinet/kits")
        expect(rows.nth(1)).to_be_visible(timeout=30_000)
    page.wait_for_timeout(1500)
    expect(rows.nth(1)).to_be_visible()
    with served_empty(file, port):
        expect(page.locator(".kits-sure")).to_contain_text("Proven: no other kit", timeout=60_000)
        expect(rows).to_have_count(4)


def test_a_search_that_is_left_is_there_after_a_reload(page: Page, server: str) -> None:
    """By its key; what is known stays, and nothing for so little money is said in plain words."""
    page.goto(f"{server}/plans/moss-cabinet")
    expect(page.locator(".kit-line").first).to_be_visible()
    page.keyboard.press("k")
    expect(page.locator(".kits-table tbody tr").first).to_be_visible(timeout=30_000)
    page.reload()
    expect(page.locator(".kits-table tbody tr").first).to_be_visible(timeout=30_000)
    page.get_by_label("Spend at most").fill("20")
    page.get_by_role("button", name="Search again").click()
    expect(page.locator(".kits-sure")).to_contain_text(
        "Proven: no kit of these parts for at most €20 meets every requirement", timeout=30_000
    )
    page.get_by_label("Spend at most").fill("lots")
    page.get_by_role("button", name="Search again").click()
    expect(page.locator(".tone-problem")).to_contain_text("must be an amount")
