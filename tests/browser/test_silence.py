"""Every form while the server is silent: what was typed stays, and goes out once it answers."""

from __future__ import annotations

import json
import re
import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.browser.test_everyday import ask, open_details, open_purpose, patched


@dataclass(frozen=True)
class Typing:
    """A form: how it is opened, the field that is typed into, what is pressed, and where that is
    stored.
    """

    name: str
    open: Callable[[Page, str], None]
    label: str
    text: str
    press: str
    stored: Callable[[str], Any]
    value: Any
    plan: str = ""

    def field(self, page: Page) -> Locator:
        """What is typed into."""
        return page.get_by_label(self.label, exact=True)


def _plan(server: str, plan_id: str) -> dict[str, Any]:
    found: dict[str, Any] = ask(server, f"/plans/{plan_id}")["plan"]
    return found


def _open_image(page: Page, server: str) -> None:
    open_purpose(page, server)
    page.get_by_role("button", name="Change image").click()


def _open_lifetime(page: Page, server: str, plan_id: str) -> None:
    page.goto(f"{server}/plans/{plan_id}")
    page.locator(".margin-row", has_text="Lifetime").click()
    page.locator(".ropes").wait_for()


def _open_copy(page: Page, server: str) -> None:
    _open_lifetime(page, server, "bat-recorder")
    page.get_by_role("button", name="Add a backup", exact=True).click()


def _open_floor(page: Page, server: str) -> None:
    lines = [
        {"id": role, "role": role, "part": part}
        for role, part in (("board", "B06"), ("power_supply", "S01"), ("case", "E12"))
    ]
    body = {"name": "plate", "plan": {"name": "plate", "lines": lines}}
    page.goto(f"{server}/plans/{ask(server, '/plans', body, method='POST')['id']}")
    page.locator(".margin-row", has_text="Fit").click()
    page.get_by_role("button", name="Top view").click()


def _plate(server: str) -> Any:
    plans = ask(server, "/plans")
    own = next(p["id"] for p in plans if p["name"] == "plate")
    return _plan(server, own)["lines"][0]["position"]["x_mm"]


def _open_part(page: Page, server: str) -> None:
    page.goto(f"{server}/parts/S03")
    page.get_by_role("button", name="Copy and change").click()
    page.wait_for_url("**/parts/*-*")


def _custom_part(server: str) -> Any:
    own = next(p for p in ask(server, "/parts") if p["model"].endswith("(copy)"))
    return ask(server, f"/parts/{own['id']}")["summary"]


def _open_transfer(page: Page, server: str) -> None:
    page.goto(f"{server}/plans/moss-cabinet")
    page.locator(".margin-row", has_text="Data").click()
    page.get_by_role("button", name="Add a transfer").click()
    page.get_by_label("Amount each time").fill("3")


FORMS = [
    Typing(
        "details",
        lambda page, server: open_details(page, server, "bat-recorder"),
        "Name",
        "Owl recorder",
        "Save",
        lambda s: _plan(s, "bat-recorder")["name"],
        "Owl recorder",
        "bat-recorder",
    ),
    Typing(
        "day",
        open_purpose,
        "Hours of film",
        "0.3",
        "Save schedule",
        lambda s: _plan(s, "moss-cabinet")["schedule"][1]["hours"],
        0.3,
        "moss-cabinet",
    ),
    Typing(
        "image",
        _open_image,
        "Memory needed",
        "1.5",
        "Save image",
        lambda s: _plan(s, "moss-cabinet")["image"]["memory_gb"],
        1.5,
        "moss-cabinet",
    ),
    Typing(
        "ready-made",
        open_purpose,
        "Ready-made alternative",
        "A bought one",
        "Save alternative",
        lambda s: (_plan(s, "moss-cabinet")["ready_made"] or {}).get("name"),
        "A bought one",
        "moss-cabinet",
    ),
    Typing(
        "years",
        lambda page, server: _open_lifetime(page, server, "moss-cabinet"),
        "Required lifetime",
        "9",
        "Save",
        lambda s: _plan(s, "moss-cabinet")["retention"]["years"],
        9,
        "moss-cabinet",
    ),
    Typing(
        "copy",
        _open_copy,
        "Name",
        "a stick in the vestry",
        "Save backup",
        lambda s: _plan(s, "bat-recorder")["retention"]["backups"][-1]["text"],
        "a stick in the vestry",
        "bat-recorder",
    ),
    Typing(
        "flow",
        _open_transfer,
        "Name",
        "a film to the school",
        "Save transfer",
        lambda s: _plan(s, "moss-cabinet")["transfers"][-1]["text"],
        "a film to the school",
        "moss-cabinet",
    ),
    Typing("floor", _open_floor, "Millimetres length", "20", "Move", _plate, 20),
    Typing(
        "part", _open_part, "Description", "from the attic", "Save", _custom_part, "from the attic"
    ),
    Typing(
        "money",
        lambda page, server: (page.goto(f"{server}/settings"), None)[1],
        "Currency of new plans",
        "USD",
        "Save",
        lambda s: ask(s, "/preferences")["currency"],
        "USD",
    ),
    Typing(
        "new plan",
        lambda page, server: (page.goto(f"{server}/new"), None)[1],
        "Name of the plan",
        "Owl recorder",
        "Create without a kit",
        lambda s: any(p["name"] == "Owl recorder" for p in ask(s, "/plans")),
        True,
    ),
]


def _come_back(page: Page, field: Locator, value: str) -> None:
    """Return to the tab until its field shows what another one stored: what is read at that moment
    may have been asked for before.
    """
    for _ in range(30):
        page.evaluate("() => window.dispatchEvent(new Event('visibilitychange'))")
        if field.is_visible() and field.input_value() == value:
            break
        page.wait_for_timeout(500)
    expect(field).to_have_value(value)


def _until(what: Callable[[], Any], value: Any) -> None:
    """Wait for what is stored, at most five seconds."""
    ends = time.monotonic() + 5
    while (found := what()) != value and time.monotonic() < ends:
        time.sleep(0.1)
    assert found == value


@pytest.mark.parametrize("form", FORMS, ids=lambda form: form.name)
def test_a_form_outlives_a_silent_server(page: Page, server: str, form: Typing) -> None:
    """Every letter stays and the strip tells why; the same button sends it once more. Where another
    tab changed the plan in between, it is refused or brought together, and nothing is lost.
    """
    form.open(page, server)
    form.field(page).fill(form.text)
    press = page.get_by_role("button", name=form.press, exact=True)
    page.route("**/api/**", lambda route: route.abort())
    press.click()
    expect(page.locator(".server-strip")).to_contain_text("No connection to the server")
    expect(form.field(page)).to_have_value(form.text)
    page.unroute("**/api/**")
    if form.plan:
        patched(server, form.plan, budget="777")
    press.click()
    came = page.get_by_text(re.compile("in the meantime|in another tab")).first
    for _ in range(50):
        if form.stored(server) == form.value:
            break
        if came.is_visible() and press.is_enabled():
            expect(form.field(page)).to_have_value(form.text)
            press.click()
            break
        page.wait_for_timeout(100)
    _until(lambda: form.stored(server), form.value)
    if form.plan:
        assert float(_plan(server, form.plan)["budget"]) == 777
    expect(page.locator(".server-strip")).to_have_count(0)


def test_where_a_board_stands_is_typed_while_another_tab_moves_it(page: Page, server: str) -> None:
    """What was typed stays, and the other figure follows."""
    _open_floor(page, server)
    along, across = page.get_by_label("Millimetres length"), page.get_by_label("Millimetres width")
    along.fill("20")
    plan = next(p["id"] for p in ask(server, "/plans") if p["name"] == "plate")
    version = ask(server, f"/plans/{plan}")["version"]
    edit = {"op": "edit", "line": "board", "position": {"x_mm": 30, "y_mm": 12}}
    ask(server, f"/plans/{plan}", {"patch": [edit]}, method="PATCH", version=version)
    _come_back(page, across, "12")
    expect(along).to_have_value("20")


def test_money_is_typed_while_another_tab_chooses_other_money(page: Page, server: str) -> None:
    """The currency stays as typed; the rate, which nobody touched, follows."""
    page.goto(f"{server}/settings")
    page.get_by_label("Currency of new plans").fill("CHF")
    ask(server, "/preferences", {"currency": "USD", "price_of_a_euro": "1.25"}, method="PATCH")
    _come_back(page, page.get_by_label("Price of 1 EUR"), "1.25")
    expect(page.get_by_label("Currency of new plans")).to_have_value("CHF")


def test_a_figure_means_what_stood_beside_it_when_it_was_typed(page: Page, server: str) -> None:
    """Another tab chooses °F while a day is typed in °C: it stays that day, and is shown in °F."""
    open_details(page, server, "bat-recorder")
    hottest = page.get_by_label("Highest ambient", exact=True)
    hottest.fill("35")
    other = page.context.new_page()
    other.goto(f"{server}/settings")
    other.get_by_label("Temperatures").select_option("F")
    expect(other.get_by_text("a warm room reads 82 °F")).to_be_visible()
    other.close()
    name = page.get_by_role("textbox", name="Name", exact=True)
    name.fill("Owl recorder")
    expect(hottest).to_have_value("95")
    expect(page.get_by_role("dialog")).to_contain_text("°F")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    assert _plan(server, "bat-recorder")["place"]["ambient_max_c"] == pytest.approx(35, abs=0.01)


def test_a_file_waits_for_a_silent_server(page: Page, server: str, tmp_path: Path) -> None:
    """Before it is looked at, and before it comes in: the dialog says why, and goes on."""
    file = tmp_path / "choir.json"
    file.write_text(json.dumps(ask(server, "/plans/choir-recorder/plan.json")))
    page.goto(server)
    expect(page.locator(".strip")).to_have_count(3)
    page.route("**/api/**", lambda route: route.abort())
    page.get_by_label("File to import").set_input_files(str(file))
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("No connection to the server")
    page.unroute("**/api/**")
    expect(dialog).to_contain_text("stays unchanged")
    page.route("**/api/**", lambda route: route.abort())
    dialog.get_by_role("button", name="Import", exact=True).click()
    expect(dialog).to_contain_text("No connection to the server")
    page.unroute("**/api/**")
    dialog.get_by_role("button", name="Import", exact=True).click()
    expect(page.locator(".crumbs strong")).to_have_text("Choir recorder with mirrored drives")
