"""axe on every screen, light and dark: nothing serious."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"


COLOURS = ["color-contrast", "link-in-text-block"]
"""What the dark theme can spoil; all else is the same page."""


def check_with_axe(page: Page, rules: list[str]) -> list[str]:
    """What axe calls serious or critical on the page as it stands; all its rules if none named."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text(encoding="utf-8"))
    run = "rules => axe.run(rules.length ? { runOnly: rules } : {}).then((r) => r.violations)"
    found: list[dict[str, Any]] = page.evaluate(run, rules)
    return [
        f"{v['id']}: {[node['html'][:160] for node in v['nodes'][:3]]}"
        for v in found
        if v["impact"] in ("serious", "critical")
    ]


@pytest.mark.parametrize(("scheme", "rules"), [("light", []), ("dark", COLOURS)])
def test_nothing_serious_on_any_screen(
    page: Page, server: str, scheme: Any, rules: list[str]
) -> None:
    """Plans, new plan, workbench with each drawing, an open snag, the drawer, the details."""

    def serious(page: Page) -> list[str]:
        return check_with_axe(page, rules)

    page.emulate_media(color_scheme=scheme, reduced_motion="reduce")
    page.goto(server)
    expect(page.locator(".strip")).to_have_count(3)
    assert serious(page) == []
    page.get_by_role("button", name="New plan").click()
    page.get_by_text("Home-automation hub").click()
    expect(page.locator(".first-kit-table")).to_be_visible()
    assert serious(page) == []

    page.goto(f"{server}/rules")
    expect(page.locator(".rule-entry").first).to_be_visible()
    assert serious(page) == []

    page.goto(f"{server}/compare/bat-recorder,moss-cabinet")
    expect(page.locator(".side-table")).to_be_visible()
    assert serious(page) == []

    page.goto(f"{server}/parts/B06")
    expect(page.get_by_role("heading", name="Hurdle 2")).to_be_visible()
    assert serious(page) == []
    page.get_by_role("button", name="Copy and change").click()
    expect(page.get_by_role("button", name="Save", exact=True)).to_be_visible()
    assert serious(page) == []

    page.goto(f"{server}/plans/choir-recorder")
    page.locator(".snag").nth(3).click()
    expect(page.locator(".fix").first).to_be_visible()
    page.locator(".kit-main", has_text="Mullion 8").click()
    for key in "1234567":
        page.keyboard.press(key)
        expect(page.locator(".margin-row[aria-pressed=true]")).to_have_count(1)
        assert serious(page) == [], f"drawing {key}"
    page.keyboard.press("2")
    page.keyboard.press("w")
    expect(page.locator(".working-sum")).to_be_visible()
    assert serious(page) == []
    page.keyboard.press("Escape")
    expect(page.locator(".working-panel")).to_have_count(0)
    page.get_by_role("button", name="Swap", exact=True).click()
    expect(page.locator(".candidate").first).to_be_visible()
    assert serious(page) == []
    page.keyboard.press("Escape")
    page.locator(".kit-main", has_text="Purpose").click()
    expect(page.locator(".school-list li").first).to_be_visible()
    assert serious(page) == []
    page.get_by_role("button", name="Plan details").click()
    expect(page.get_by_label("Highest ambient", exact=True)).to_be_visible()
    assert serious(page) == []


def test_who_listens_is_told_where_and_what(page: Page, server: str) -> None:
    """Titles, a way past the bar, the focus on a new page, verdicts that change."""
    page.goto(server)
    expect(page).to_have_title("Plans · Cobblewort")
    page.keyboard.press("Tab")
    skip = page.get_by_role("link", name="Skip to content")
    expect(skip).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.locator("main")).to_be_focused()
    page.get_by_role("link", name="Rules").click()
    expect(page).to_have_title("Rules · Cobblewort")
    expect(page.locator("main")).to_be_focused()

    page.goto(f"{server}/plans/moss-cabinet")
    expect(page).to_have_title("Moss-growth time-lapse cabinet · Power · Cobblewort")
    page.keyboard.press("3")
    expect(page).to_have_title("Moss-growth time-lapse cabinet · Heat · Cobblewort")
    said = page.locator("[aria-live=polite].visually-hidden")
    expect(said).to_be_empty()
    page.locator(".kit-line", has_text="Power supply").locator(".kit-main").click()
    page.get_by_role("button", name="Mark as spare").click()
    expect(said).to_contain_text("Fit: Problem.")


def test_a_refused_field_has_the_focus_and_says_so(page: Page, server: str) -> None:
    """What cannot be saved is found without eyes; what was saved is read out."""
    page.goto(f"{server}/parts/B06")
    page.get_by_role("button", name="Copy and change").click()
    price = page.get_by_label("Price", exact=True)
    price.fill("dear")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(price).to_be_focused()
    expect(price).to_have_attribute("aria-invalid", "true")
    price.fill("40")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.locator("[aria-live=polite].visually-hidden")).to_have_text("Saved.")


def test_what_a_dialog_refuses_is_marked(page: Page, server: str) -> None:
    """The field that is wrong has the focus and is marked until it is right."""
    page.goto(f"{server}/plans/moss-cabinet")
    page.locator(".kit-main", has_text="Purpose").click()
    page.get_by_role("button", name="Plan details").click()
    copies = page.get_by_label("Number of copies")
    copies.fill("some")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(copies).to_be_focused()
    expect(copies).to_have_attribute("aria-invalid", "true")
    copies.fill("2")
    expect(copies).not_to_have_attribute("aria-invalid", "true")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("dialog")).to_have_count(0)
