"""Fit in a browser: the header, plugs that move, the stack from two sides, the template."""

from __future__ import annotations

from ezdxf.filemanagement import readfile
from playwright.sync_api import Page, expect

from tests.browser.conftest import complaint
from tests.browser.test_main_job import reach


def open_fit(page: Page, server: str, plan: str, view: str) -> None:
    """One of the views of the fit of a demo plan."""
    page.goto(f"{server}/plans/{plan}")
    page.locator(".kit-main").first.wait_for()
    page.keyboard.press("1")
    page.get_by_role("button", name=view, exact=True).click()


def test_the_header_is_read_and_changed(quiet_page: Page, server: str) -> None:
    """An address that clashes is told and set right; an LED gets its resistor and its wires."""
    page = quiet_page
    open_fit(page, server, "moss-cabinet", "GPIO header")
    expect(page.get_by_role("img", name="GPIO header from above")).to_be_visible()
    address = page.get_by_label("Address of Dew Pair #2")
    expect(address).to_have_value(str(0x45))
    address.select_option(str(0x44))
    clash = page.locator(".snag", has_text="have the same I2C address, 0x44")
    expect(clash).to_contain_text("Problem")
    clash.click()
    page.locator(".fix", has_text="Set the address of Dew Pair to 0x45").get_by_role(
        "button"
    ).first.click()
    page.get_by_role("button", name="Apply").click()
    expect(clash).to_have_count(0)

    page.get_by_role("button", name="Add a button or LED").click()
    page.get_by_role("button", name="Add", exact=True).click()
    expect(complaint(page)).to_contain_text("Name: enter one")
    page.get_by_label("Name", exact=True).fill("door lamp")
    page.get_by_label("Pin", exact=True).select_option("15")
    page.get_by_label("Supply voltage on its label").fill("12")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.locator(".snag", has_text="it is rated for 12 V")).to_be_visible()
    page.get_by_role("button", name="Remove door lamp").click()
    expect(page.locator(".snag", has_text="Door lamp")).to_have_count(0)
    row = page.locator(".as-table tr", has_text="film lamp, long leg")
    expect(row).to_contain_text("330 Ω")
    page.get_by_role("button", name="Undo").click()
    expect(page.locator(".wired-list")).to_contain_text("door lamp")


def test_a_plug_is_moved_by_mouse_and_let_go_by_keyboard(quiet_page: Page, server: str) -> None:
    """Every socket with what it would bring; the choice is kept until it is let go."""
    page = quiet_page
    open_fit(page, server, "choir-recorder", "Connections")
    row = page.locator(".connections tr", has_text="Choirdesk 16").first
    expect(row).to_contain_text("USB 2 port")
    page.get_by_role("button", name="Move Choirdesk 16").click()
    places = page.get_by_role("list", name="Sockets for Choirdesk 16")
    expect(places.get_by_role("listitem")).to_have_count(4)
    expect(places.get_by_role("listitem").first).to_contain_text("current")
    page.get_by_role("button", name="Plug Choirdesk 16 into Mullion 8, USB 3 port (usb1)").click()
    expect(row).to_contain_text("USB 3 port (your choice)")
    reach(page, "Choose the socket of Choirdesk 16")
    page.keyboard.press("Enter")
    expect(row).to_contain_text("USB 2 port")
    expect(row).not_to_contain_text("your choice")
    expect(page.locator(".free-list")).to_contain_text("Mullion 8: 2 × USB 3 port")


def test_the_stack_from_two_sides(quiet_page: Page, server: str) -> None:
    """Layers are drawn large and lifted off; the standoffs are listed."""
    page = quiet_page
    open_fit(page, server, "choir-recorder", "Side view")
    side = page.get_by_role("group", name="Side view of the kit")
    whole = side.get_attribute("viewBox")
    layer = page.get_by_role("button", name="Enlarge Twin Short")
    layer.focus()
    page.keyboard.press("Enter")
    expect(side).not_to_have_attribute("viewBox", whole or "")
    page.get_by_role("button", name="Show all").first.click()
    expect(side).to_have_attribute("viewBox", whole or "")
    page.get_by_role("button", name="Show access paths").click()
    expect(side.locator(".access-zone").first).to_be_attached()
    expect(page.locator(".as-table", has_text="standoff M2.5 × 10 mm")).to_be_visible()

    page.get_by_role("button", name="Top view", exact=True).click()
    above = page.get_by_role("img", name="Top view of the kit")
    expect(above).to_contain_text("Choirdesk 16")
    expect(above).to_contain_text("Steeple")
    page.get_by_role("button", name="Steeple", exact=True).click()
    expect(above).not_to_contain_text("Steeple")


def test_the_template_comes_as_a_file(quiet_page: Page, server: str) -> None:
    """And is what others can read."""
    page = quiet_page
    open_fit(page, server, "choir-recorder", "Side view")
    with page.expect_download() as waiting:
        page.get_by_role("link", name="DXF").click()
    download = waiting.value
    assert download.suggested_filename == "choir-recorder-with-mirrored-drives-template.dxf"
    document = readfile(download.path())
    assert len(document.modelspace().query("CIRCLE")) == 4


def test_the_image_is_changed_and_judged(quiet_page: Page, server: str) -> None:
    """One that is made for other boards stops it."""
    page = quiet_page
    page.goto(f"{server}/plans/bat-recorder")
    page.locator(".kit-main", has_text="Purpose").click()
    page.get_by_role("button", name="Change image").click()
    page.get_by_label("Board families").fill("Gorsewick")
    page.get_by_role("button", name="Save image").click()
    snag = page.locator(".snag", has_text="is for the board family Gorsewick")
    expect(snag).to_contain_text("Problem")
    page.get_by_role("button", name="Undo").click()
    expect(snag).to_have_count(0)
