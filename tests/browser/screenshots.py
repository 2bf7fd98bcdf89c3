"""`make screenshots`: one current picture of each main view, from the demo data."""

from __future__ import annotations

import sys
import tempfile
import urllib.request
from collections.abc import Callable
from pathlib import Path

from PIL import Image
from playwright.sync_api import Page, sync_playwright
from pypdfium2 import PdfDocument

from tests.browser.conftest import BROWSER_ARGS, CHROMIUM, running_server

View = tuple[str, str, str, Callable[[Page], None]]


def as_it_opens(page: Page) -> None:
    """Nothing to do first."""
    page.wait_for_load_state("networkidle")


def supply_with_snag(page: Page) -> None:
    """The choir recorder's tree with a snag and its fixes open."""
    page.locator(".snag", has_text="because the power supply does not advertise 5 A").click()
    page.locator(".fix").first.wait_for()


def fit(page: Page) -> None:
    """The side elevation."""
    page.keyboard.press("1")
    page.get_by_role("group", name="Side view of the kit").wait_for()


def above(page: Page) -> None:
    """The kit from above, with the ways of plugs and card."""
    fit(page)
    page.get_by_role("button", name="Top view", exact=True).click()
    page.get_by_role("button", name="Show access paths").click()
    page.mouse.move(640, 799)


def header(page: Page) -> None:
    """The header as threads, with the wires to make."""
    fit(page)
    page.get_by_role("button", name="GPIO header", exact=True).click()
    page.locator(".header-drawing").wait_for()


def heat(page: Page) -> None:
    """Rungs on the temperature axis."""
    page.keyboard.press("3")
    page.get_by_role("img", name="Temperatures from ambient").wait_for()


def data(page: Page) -> None:
    """The way of a copy, and what removing its neck would be worth."""
    page.keyboard.press("4")
    page.locator(".way-drawing").wait_for()


def lifetime(page: Page) -> None:
    """Years of what wears, how it fills, and its copies."""
    page.keyboard.press("5")
    page.locator(".ropes").wait_for()


def noise(page: Page) -> None:
    """What is heard at 1 m, against what the place allows."""
    page.get_by_text("Noise", exact=True).first.click()
    page.locator(".noise-drawing").wait_for()


def kits(page: Page) -> None:
    """Kits that none beats, two of them compared, and one beyond a limit."""
    page.locator(".kits-table tbody tr").nth(3).wait_for()
    page.get_by_role("button", name="Stop").click()
    page.get_by_label("Compare kit 1").check()
    page.get_by_label("Compare kit 3").check()
    page.get_by_label("Price at most").focus()
    page.keyboard.press("ArrowLeft")


def drawer(page: Page) -> None:
    """Candidates for the supply, each judged in the plan."""
    page.locator(".kit-main", has_text="Traveller 65").click()
    page.get_by_role("button", name="Swap", exact=True).click()
    page.locator(".candidate").first.wait_for()


def part_sheet(page: Page) -> None:
    """A part of one's own with some figures stated and the rest left to its class."""
    page.get_by_role("button", name="Copy and change").click()
    page.get_by_label("Name", exact=True).fill("Hurdle 2, from the attic")
    page.get_by_label("Price", exact=True).fill("0")
    page.get_by_label("Draw at peak load", exact=True).fill("6.0")
    page.get_by_label("Basis: Draw at peak load").select_option("measured")
    page.get_by_role("button", name="Save", exact=True).click()
    page.get_by_text("revision 2").wait_for()


def four_answers(page: Page) -> None:
    """A purpose and a place chosen, and the first kit beside them."""
    page.get_by_text("Time-lapse or frost camera").click()
    page.get_by_label("Location").select_option("outdoors-shaded")
    page.get_by_label("Budget").fill("160")
    page.get_by_text("No problems found.").wait_for()
    page.wait_for_timeout(800)


def purpose(page: Page) -> None:
    """Needs with what meets them, the day, and where people differ."""
    page.locator(".kit-main", has_text="Purpose").click()
    page.locator(".school-list li").first.wait_for()


def cost(page: Page) -> None:
    """Where the money goes, part by part towards the budget."""
    page.keyboard.press("6")
    page.locator(".money-drawing").wait_for()


VIEWS: list[View] = [
    ("new-plan", "/new", "light", four_answers),
    ("workbench-purpose", "/plans/bat-recorder", "light", purpose),
    ("compare", "/compare/bat-recorder,moss-cabinet,choir-recorder", "light", as_it_opens),
    ("plans", "/", "light", as_it_opens),
    ("workbench-power", "/plans/choir-recorder", "light", supply_with_snag),
    ("workbench-fit", "/plans/choir-recorder", "light", fit),
    ("fit-above", "/plans/choir-recorder", "light", above),
    ("fit-header", "/plans/moss-cabinet", "light", header),
    ("workbench-heat", "/plans/moss-cabinet", "light", heat),
    ("workbench-data", "/plans/choir-recorder", "light", data),
    ("workbench-lifetime", "/plans/moss-cabinet", "light", lifetime),
    ("workbench-noise", "/plans/choir-recorder", "light", noise),
    ("workbench-cost", "/plans/choir-recorder", "light", cost),
    ("parts-drawer", "/plans/choir-recorder", "light", drawer),
    ("part-sheet", "/parts/B06", "light", part_sheet),
    ("kits", "/plans/moss-cabinet/kits", "light", kits),
    ("rules", "/rules", "light", as_it_opens),
    ("dark-theme", "/plans/choir-recorder", "dark", supply_with_snag),
]


SHEET_PAGES = (0, 2)
"""Of the plan sheet the first page, and that of the drawings."""


def picture_of_sheet(content: bytes, file: Path) -> None:
    """Pages of a plan sheet side by side, as they come out of a printer."""
    document = PdfDocument(content)
    pages = [document[number].render(scale=1.075).to_pil() for number in SHEET_PAGES]
    gap = 8
    width, height = pages[0].width + gap + pages[1].width, max(page.height for page in pages)
    both = Image.new("RGB", (width, height), "lightgrey")
    both.paste(pages[0], (0, 0))
    both.paste(pages[1], (pages[0].width + gap, 0))
    both.save(file, optimize=True)


def main(folder: Path) -> None:
    """Take every picture at 1280 x 800."""
    folder.mkdir(parents=True, exist_ok=True)
    with (
        tempfile.TemporaryDirectory() as data,
        running_server(Path(data)) as address,
        sync_playwright() as playwright,
    ):
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=BROWSER_ARGS)
        for name, path, scheme, prepare in VIEWS:
            page = browser.new_page(
                viewport={"width": 1280, "height": 800},
                color_scheme="dark" if scheme == "dark" else "light",
                reduced_motion="reduce",
            )
            page.goto(f"{address}{path}")
            page.wait_for_load_state("networkidle")
            prepare(page)
            page.wait_for_load_state("networkidle")
            page.mouse.move(640, 799)
            page.wait_for_timeout(300)
            page.screenshot(path=folder / f"{name}.png")
            page.close()
        browser.close()
        with urllib.request.urlopen(f"{address}/api/plans/choir-recorder/sheet.pdf") as answer:
            picture_of_sheet(answer.read(), folder / "plan-sheet.png")


if __name__ == "__main__":
    main(Path(sys.argv[1]))
