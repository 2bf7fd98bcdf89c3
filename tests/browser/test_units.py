"""Figures in Fahrenheit, inches and with a comma: shown everywhere, and typed."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from tests.browser.conftest import complaint

_TEXTS = """() => {
  const found = new Set();
  const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (walk.nextNode()) {
    const parent = walk.currentNode.parentElement;
    if (parent.closest('script, style, .candidate, .summary, .shelf-list')) continue;
    found.add((parent.closest('text, p, td, li, span, button, label') ?? parent).textContent);
  }
  for (const field of document.querySelectorAll('input')) found.add(field.value);
  for (const named of document.querySelectorAll('[aria-label]:not(.candidate-sheet)'))
    found.add(named.getAttribute('aria-label'));
  return [...found];
}"""
_AS_SOLD = re.compile(
    r"(?:GPIO )?[35](?:\.3)? V|M2\.5( × \d+ mm)?|USB \d\.\d|standoffs? of \d+ "
    r"mm|screws? of \d+ mm"
)
_LEFT = re.compile(r"\d\.\d|°C|\bmm\b")


def _left(page: Page) -> list[str]:
    """Texts that still have a figure in the core's own units.

    What a part is called and described as are words, as is the name of a pin or a rail.
    """
    texts = [" ".join(text.split()) for text in page.evaluate(_TEXTS)]
    return [t for t in texts if len(t) < 400 and t != "3.3" and _LEFT.search(_AS_SOLD.sub("", t))]


def _choose_units(page: Page, address: str) -> None:
    page.goto(f"{address}/settings")
    page.get_by_label("Temperatures").select_option("°F")
    page.get_by_label("Lengths").select_option("inches")
    page.get_by_label("Decimal sign").select_option("Comma: 2,5")
    expect(page.get_by_text("A warm room reads 82 °F, a case 3,642 in")).to_be_visible()


def test_every_view_shows_the_units_that_were_chosen(quiet_page: Page, server: str) -> None:
    """Rulers, drawings, tables, sentences and fields; at once, and after a reload."""
    _choose_units(quiet_page, server)
    for plan in ("moss-cabinet", "choir-recorder"):
        quiet_page.goto(f"{server}/plans/{plan}")
        quiet_page.locator(".snag").first.wait_for()
        for key in "1234567":
            quiet_page.keyboard.press(key)
            quiet_page.evaluate("document.querySelectorAll('details').forEach(d => d.open = true)")
            assert _left(quiet_page) == [], (plan, key)
        quiet_page.keyboard.press("1")
        for view in ("Top view", "Connections", "GPIO header"):
            tab = quiet_page.get_by_role("button", name=view, exact=True)
            if tab.count():
                tab.click()
                assert _left(quiet_page) == [], (plan, view)
        quiet_page.keyboard.press("a")
        quiet_page.locator(".candidate").first.wait_for()
        assert _left(quiet_page) == [], plan
        quiet_page.keyboard.press("Escape")
    quiet_page.goto(f"{server}/plans/moss-cabinet")
    quiet_page.locator(".snag").first.wait_for()
    quiet_page.keyboard.press("3")
    quiet_page.get_by_role("button", name="Working", exact=True).click()
    expect(quiet_page.get_by_text("Workings are in °C and mm")).to_be_visible()
    quiet_page.goto(f"{server}/compare/moss-cabinet,choir-recorder")
    quiet_page.get_by_role("heading", name="Compare").wait_for()
    assert _left(quiet_page) == []


def test_fields_take_what_is_shown(quiet_page: Page, server: str) -> None:
    """The hottest day in °F goes to the plan in °C; a unit of its own still counts."""
    _choose_units(quiet_page, server)
    quiet_page.goto(f"{server}/plans/moss-cabinet")
    quiet_page.locator(".kit-main", has_text="Purpose").click()
    quiet_page.get_by_role("button", name="Plan details").click()
    field = quiet_page.get_by_label("Highest ambient", exact=True)
    field.fill("86")
    field.press("Tab")
    expect(field).to_have_value("86")
    quiet_page.get_by_label("Lowest ambient").fill("10 °C")
    quiet_page.get_by_label("Lowest ambient").press("Tab")
    expect(quiet_page.get_by_label("Lowest ambient")).to_have_value("50")
    quiet_page.get_by_role("button", name="Save", exact=True).click()
    expect(quiet_page.get_by_role("dialog")).to_have_count(0)
    place = quiet_page.request.get(f"{server}/api/plans/moss-cabinet").json()["plan"]["place"]
    assert (place["ambient_min_c"], place["ambient_max_c"]) == (10, 30)
    assumed = quiet_page.get_by_label("Highest ambient to assume, °F")
    expect(assumed).to_have_value("86")
    assumed.fill("95")
    assumed.press("Enter")
    expect(quiet_page.get_by_text("at 95 °F ambient").first).to_be_visible()


def test_another_currency_with_its_rate(quiet_page: Page, server: str) -> None:
    """New plans are in it, and what ships is priced in it; a plan's own can be changed."""
    quiet_page.goto(f"{server}/settings")
    quiet_page.get_by_label("Currency of new plans").fill("usd")
    quiet_page.get_by_label("Price of 1 EUR").fill("1,25")
    quiet_page.get_by_role("button", name="Save", exact=True).click()
    expect(quiet_page.get_by_label("Currency of new plans")).to_have_value("USD")
    quiet_page.goto(f"{server}/new")
    expect(quiet_page.locator(".unit", has_text="USD").first).to_be_visible()
    quiet_page.goto(f"{server}/plans/moss-cabinet")
    total = quiet_page.request.get(f"{server}/api/plans/moss-cabinet/report").json()["cost"]
    quiet_page.locator(".kit-main", has_text="Purpose").click()
    quiet_page.get_by_role("button", name="Plan details").click()
    quiet_page.get_by_label("Currency", exact=True).fill("usd")
    quiet_page.get_by_label("Exchange rates").fill("EUR one")
    quiet_page.get_by_role("button", name="Save", exact=True).click()
    expect(complaint(quiet_page)).to_contain_text("USD 0.92; GBP 1.17")
    quiet_page.get_by_label("Exchange rates").fill("EUR 1,25")
    quiet_page.get_by_role("button", name="Save", exact=True).click()
    expect(quiet_page.get_by_role("dialog")).to_have_count(0)
    put = quiet_page.request.get(f"{server}/api/plans/moss-cabinet/report").json()["cost"]
    assert put["currency"] == "USD"
    assert abs(float(put["total"]) - 1.25 * float(total["total"])) < 0.1


def test_settings_follow_to_another_browser(quiet_page: Page, server: str) -> None:
    """They are kept with the workspace: one that has never been here opens in the dark, in °F."""
    _choose_units(quiet_page, server)
    quiet_page.get_by_role("checkbox", name="Dark theme").check()
    browser = quiet_page.context.browser
    assert browser is not None
    elsewhere = browser.new_context().new_page()
    elsewhere.goto(f"{server}/plans/moss-cabinet")
    expect(elsewhere.locator("html")).to_have_attribute("data-bs-theme", "dark")
    expect(elsewhere.get_by_label("Highest ambient to assume, °F")).to_be_visible()
    elsewhere.close()
