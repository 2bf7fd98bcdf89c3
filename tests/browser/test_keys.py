"""The main job by keys alone, from an empty program to a printed sheet."""

from __future__ import annotations

import io
from pathlib import Path

from playwright.sync_api import Page, expect
from pypdf import PdfReader

from tests.browser.conftest import served_empty

_MOST_TABS = 120
_NAME = """() => {
  const held = document.activeElement;
  if (held === document.body) return '';
  const label = held?.labels?.[0]?.textContent ?? '';
  return [held?.getAttribute('aria-label'), label, held?.textContent].find(Boolean) ?? '';
}"""


def _tab_to(page: Page, name: str) -> None:
    """Go on until what has the focus is called so; it can be seen then."""
    for _ in range(_MOST_TABS):
        page.keyboard.press("Tab")
        if name in page.evaluate(_NAME):
            expect(page.locator(":focus")).to_be_in_viewport()
            return
    raise AssertionError(f"no way to “{name}”")


def test_from_nothing_to_a_printed_sheet(quiet_page: Page, tmp_path: Path) -> None:
    """Four answers, the kit that comes of them, a part put in, back, and the sheet."""
    page = quiet_page
    with served_empty(tmp_path / "empty.sqlite3") as server:
        page.goto(server)
        expect(page.get_by_text("Know before you buy")).to_be_visible()
        _tab_to(page, "Answer four questions")
        page.keyboard.press("Enter")
        expect(page.get_by_role("radiogroup", name="Purpose")).to_be_visible()
        page.keyboard.press("Tab")
        while not page.evaluate("document.activeElement.type === 'radio'"):
            page.keyboard.press("Tab")
        page.keyboard.press("Space")
        page.keyboard.press("ArrowDown")
        _tab_to(page, "Name of the plan")
        page.keyboard.type("By keys alone")
        _tab_to(page, "Budget")
        page.keyboard.type("400")
        expect(page.get_by_role("button", name="Create with this kit")).to_be_enabled()
        _tab_to(page, "Create with this kit")
        page.keyboard.press("Enter")
        expect(page.get_by_role("link", name="Plans")).to_be_visible()
        expect(page.locator(".margin-row").first).to_be_visible()
        lines = page.locator(".kit-line").count()
        page.keyboard.press("a")
        expect(page.locator(".candidate").first).to_be_visible()
        while not page.evaluate("document.activeElement.matches('.candidate:not(:disabled)')"):
            page.keyboard.press("Tab")
        page.keyboard.press("Enter")
        expect(page.locator(".kit-line")).to_have_count(lines + 1)
        page.keyboard.press("z")
        expect(page.locator(".kit-line")).to_have_count(lines)
        _tab_to(page, "Export and print")
        page.keyboard.press("Enter")
        _tab_to(page, "Plan sheet, A4")
        with page.expect_download() as saved:
            page.keyboard.press("Enter")
        saved.value.save_as(tmp_path / "sheet.pdf")
    content = io.BytesIO((tmp_path / "sheet.pdf").read_bytes())
    text = " ".join(sheet.extract_text() for sheet in PdfReader(content).pages)
    assert "By keys alone" in text
    assert "To buy" in text
