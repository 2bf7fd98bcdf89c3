"""The main job in the real page: from no plan to a kit that nothing stops."""

from playwright.sync_api import Page, expect

from tests.browser.conftest import complaint

KIT = [
    ("Board", "Hurdle 2"),
    ("Power supply", "Kettle 15"),
    ("Boot drive", "Plain 32"),
    ("Cooling", "Griddle"),
    ("Case", "Vent 86 Tall"),
    ("Needed for set-up", "Cattlegrid"),
]


def snags(page: Page) -> list[str]:
    """The severity words of all snags."""
    return page.locator(".snag .word").all_inner_texts()


def test_from_no_plan_to_a_sound_kit_by_mouse(quiet_page: Page, server: str) -> None:
    """New plan, six parts from Parts, and nothing is left that stops it."""
    page = quiet_page
    page.goto(server)
    page.get_by_role("button", name="New plan").click()
    page.get_by_label("Name of the plan").fill("Orchard frost camera")
    page.get_by_role("button", name="Create without a kit").click()
    expect(page.locator(".crumbs strong")).to_have_text("Orchard frost camera")
    expect(page.locator(".snag")).to_have_count(3)
    for role, part in KIT:
        page.get_by_role("button", name=f"Add: {role}", exact=True).click()
        page.locator(".candidate").filter(has=page.get_by_text(part, exact=True)).click()
        expect(page.locator(".kit-line", has_text=part).first).to_be_visible()
    expect(page.locator(".all-clear")).to_contain_text("No problems found")
    expect(page.locator(".snag")).to_have_count(0)
    expect(page.get_by_role("region", name="Take care")).to_contain_text("Static electricity")
    page.reload()
    expect(page.locator(".all-clear")).to_be_visible()
    expect(page.locator(".snag")).to_have_count(0)
    for _, part in KIT:
        expect(page.locator(".kit-line", has_text=part).first).to_be_visible()
    page.goto(server)
    strip = page.get_by_role("article", name="Orchard frost camera")
    expect(strip).to_contain_text("No problems found")


def reach(page: Page, name: str, presses: int = 80) -> None:
    """Tab until the focused control has this accessible name."""
    for _ in range(presses):
        page.keyboard.press("Tab")
        label = page.evaluate(
            "(e => e.getAttribute('aria-label') || e.labels?.[0]?.innerText || e.innerText)"
            "(document.activeElement)"
        )
        if label and label.strip().startswith(name):
            return
    raise AssertionError(f"Tab never reached {name!r}")


def test_from_no_plan_to_a_sound_kit_by_keyboard(quiet_page: Page, server: str) -> None:
    """The same with Tab, Enter and typing alone."""
    page = quiet_page
    page.goto(server)
    expect(page.locator(".strip").first).to_be_visible()
    reach(page, "New plan")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="New plan")).to_be_visible()
    reach(page, "Name of the plan")
    page.keyboard.type("Orchard frost camera")
    reach(page, "Create without a kit")
    page.keyboard.press("Enter")
    expect(page.locator(".snag")).to_have_count(3)
    for role, part in KIT:
        reach(page, f"Add: {role}")
        page.keyboard.press("Enter")
        expect(page.get_by_label("Search parts")).to_be_focused()
        expect(page.locator(".candidate").first).to_be_visible()
        page.keyboard.type(part)
        reach(page, part, 6)
        page.keyboard.press("Enter")
        expect(page.locator(".offcanvas")).to_have_count(0)
        expect(page.locator(".kit-line", has_text=part).first).to_be_visible()
    expect(page.locator(".all-clear")).to_be_visible()
    assert snags(page) == []


def test_a_note_is_marked_as_done_and_reopened(quiet_page: Page, server: str) -> None:
    """Out of the snags, kept over a reload, and back again."""
    page = quiet_page
    page.goto(f"{server}/plans/moss-cabinet")
    note = page.locator(".snag", has_text="FIT-35")
    note.locator(".snag-main").click()
    page.get_by_role("button", name="Mark as done").click()
    expect(note).to_have_count(0)
    page.reload()
    page.get_by_text("1 marked as done").click()
    page.get_by_role("button", name="Reopen").click()
    expect(note).to_have_count(1)
    expect(page.get_by_text("marked as done")).to_have_count(0)


def test_swapping_a_part_changes_the_verdict_and_undo_brings_it_back(
    quiet_page: Page, server: str
) -> None:
    """The choir recorder's supply: the fix settles it, undo and redo walk over it."""
    page = quiet_page
    page.goto(f"{server}/plans/choir-recorder")
    shared = page.locator(".snag", has_text="because the power supply does not advertise 5 A")
    shared.click()
    fix = page.locator(".fix", has_text="Swap Traveller 65 for Kettle 27")
    expect(fix).to_contain_text("saves €23")
    fix.click()
    expect(page.locator(".margins.previewing")).to_be_visible()
    fix.get_by_role("button", name="Apply").click()
    expect(page.locator(".kit-line", has_text="Kettle 27")).to_be_visible()
    expect(shared).to_have_count(0)
    page.keyboard.press("Control+z")
    expect(page.locator(".kit-line", has_text="Traveller 65")).to_be_visible()
    expect(shared).to_have_count(1)
    page.keyboard.press("Control+Shift+z")
    expect(page.locator(".kit-line", has_text="Kettle 27")).to_be_visible()


def test_margins_open_their_drawings_by_number(quiet_page: Page, server: str) -> None:
    """1 to 7, each with its drawing."""
    page = quiet_page
    page.goto(f"{server}/plans/choir-recorder")
    head = page.locator(".aspect-head h2")
    expect(head).to_have_text("Power")
    page.keyboard.press("1")
    expect(head).to_have_text("Fit")
    expect(page.get_by_role("group", name="Side view of the kit")).to_be_visible()
    page.keyboard.press("4")
    expect(page.locator(".way-drawing")).to_be_visible()
    page.keyboard.press("5")
    expect(page.locator(".ropes")).to_be_visible()
    page.keyboard.press("2")
    page.get_by_role("button", name="Worst case", exact=True).click()
    expect(page.get_by_role("img", name="Power tree, Worst case")).to_be_visible()


def test_what_if_it_is_hotter(quiet_page: Page, server: str) -> None:
    """The slider is not saved, until it is made the plan's."""
    page = quiet_page
    page.goto(f"{server}/plans/bat-recorder")
    expect(page.locator(".all-clear")).to_be_visible()
    slider = page.get_by_label("What if: highest ambient")
    slider.focus()
    page.keyboard.press("End")
    expect(page.locator(".snag .word").first).to_have_text("Problem")
    page.reload()
    expect(page.locator(".all-clear")).to_be_visible()
    slider.focus()
    page.keyboard.press("ArrowRight")
    page.get_by_role("button", name="Apply to plan").click()
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    page.reload()
    expect(page.get_by_label("Highest ambient to assume")).to_have_value("33")


def test_what_if_it_is_flat_out_all_day(quiet_page: Page, server: str) -> None:
    """Looked at without a change; made the plan's it is one change that can be undone."""
    page = quiet_page
    page.goto(f"{server}/plans/moss-cabinet")
    heat = page.locator(".margin-row", has_text="Heat")
    expect(heat).to_contain_text("1 °C")
    page.get_by_label("Load to assume").select_option("full")
    page.get_by_role("button", name="Apply to plan").click()
    expect(page.get_by_role("button", name="Undo")).to_have_attribute(
        "title", "Undo: load full in every phase"
    )
    expect(page.get_by_label("Load to assume")).to_have_value("")


def test_letters_can_be_switched_off_as_keys(quiet_page: Page, server: str) -> None:
    """The choice is kept in this browser; Ctrl+Z works all the same."""
    page = quiet_page
    page.goto(f"{server}/plans/bat-recorder")
    expect(page.locator(".margin-row").first).to_be_visible()
    page.keyboard.press("?")
    page.get_by_label("Use single letters, digits and signs as keyboard shortcuts").uncheck()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.keyboard.press("]")
    page.keyboard.press("3")
    expect(page.get_by_label("Highest ambient to assume")).to_have_value("32")
    page.reload()
    expect(page.locator(".margin-row").first).to_be_visible()
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.get_by_role("button", name="Keys").click()
    page.get_by_label("Use single letters, digits and signs as keyboard shortcuts").check()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.keyboard.press("]")
    expect(page.get_by_label("Highest ambient to assume")).to_have_value("33")


def test_a_variant_begins_as_the_plan_stands(quiet_page: Page, server: str) -> None:
    """One key: a copy, and the page goes on there; both are kept."""
    page = quiet_page
    page.goto(f"{server}/plans/bat-recorder")
    expect(page.locator(".margin-row").first).to_be_visible()
    page.keyboard.press("v")
    expect(page.locator(".crumbs strong")).to_have_text("Churchyard bat-call recorder (copy)")
    page.get_by_role("link", name="Plans").click()
    expect(page.locator(".strip")).to_have_count(4)


def test_two_tabs_do_not_overwrite_each_other(page: Page, server: str) -> None:
    """The slower tab is told what came in between, and can make its change on top."""
    other = page.context.new_page()
    for tab in (page, other):
        tab.goto(f"{server}/plans/bat-recorder")
        expect(tab.locator(".all-clear")).to_be_visible()
    other.get_by_role("button", name="Hurdle 4").click()
    other.get_by_role("button", name="I own it").click()
    expect(other.locator(".kit-line", has_text="Hurdle 4").locator(".own-tag")).to_be_visible()

    stale = page.expect_response(lambda r: r.status == 412)
    page.get_by_role("button", name="Kettle 15").click()
    with stale:
        page.get_by_role("button", name="I own it").click()
    notice = complaint(page)
    expect(notice).to_contain_text("Change Hurdle 4")
    expect(page.locator(".kit-line", has_text="Hurdle 4").locator(".own-tag")).to_be_visible()
    page.get_by_role("button", name="Apply my change").click()
    expect(page.locator(".own-tag")).to_have_count(3)
    expect(notice).to_have_count(0)


def test_a_server_that_went_away_is_told_and_nothing_is_lost(page: Page, server: str) -> None:
    """The change is refused with a sentence; the kit stays as it was."""
    page.goto(f"{server}/plans/bat-recorder")
    page.get_by_role("button", name="Hurdle 4").click()
    page.route("**/api/**", lambda route: route.abort())
    page.get_by_role("button", name="I own it").click()
    expect(page.locator(".notice-bad")).to_contain_text("No connection to the server")
    expect(page.locator(".server-strip")).to_contain_text("Retrying")
    page.unroute("**/api/**")
    expect(page.locator(".server-strip")).to_have_count(0)
    page.get_by_role("button", name="Close").click()
    page.get_by_role("button", name="I own it").click()
    expect(page.locator(".kit-line", has_text="Hurdle 4").locator(".own-tag")).to_be_visible()


def test_deleting_a_plan_can_be_taken_back(quiet_page: Page, server: str) -> None:
    """Put away, and brought back by one press."""
    page = quiet_page
    page.goto(server)
    page.get_by_role("button", name="Move to bin: Moss-growth").click()
    expect(page.locator(".strip")).to_have_count(2)
    page.get_by_role("button", name="Undo").click()
    expect(page.locator(".strip")).to_have_count(3)


def test_place_and_budget_are_read_with_care(quiet_page: Page, server: str) -> None:
    """A word is refused with a sentence and stays in the field; a comma is a decimal point."""
    page = quiet_page
    page.goto(f"{server}/plans/bat-recorder")
    page.locator(".kit-main", has_text="Purpose").click()
    page.get_by_role("button", name="Plan details").click()
    page.get_by_role("textbox", name="Budget").fill("plenty")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(complaint(page)).to_contain_text(
        "Budget: enter a number of 0 or more, for example 250, or leave it empty (got plenty)."
    )
    expect(page.get_by_role("textbox", name="Budget")).to_have_value("plenty")
    page.get_by_role("textbox", name="Budget").fill("300,50")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.locator(".snag", has_text="€300.50")).to_be_visible()


def test_a_plan_that_is_not_there(page: Page, server: str) -> None:
    """A sentence and the way back."""
    page.goto(f"{server}/plans/none")
    expect(complaint(page)).to_contain_text("no plan 'none'")
    page.get_by_role("link", name="Open Plans").click()
    expect(page.locator(".strip")).to_have_count(3)


def test_a_figure_is_followed_down_to_what_it_rests_on(quiet_page: Page, server: str) -> None:
    """From the verdict to the working, from the working to the next one, and back."""
    page = quiet_page
    page.goto(f"{server}/plans/moss-cabinet")
    expect(page.locator(".snag").first).to_be_visible()
    page.keyboard.press("3")
    expect(page.get_by_role("img", name="Temperatures from ambient")).to_be_visible()
    page.keyboard.press("w")
    panel = page.get_by_role("dialog", name="Working")
    expect(panel.locator(".working-label").first).to_have_text(
        "Spare: Processor temperature at full clock"
    )
    expect(panel).to_contain_text("datasheet")
    panel.get_by_role("button", name="processor at full clock").click()
    expect(panel.locator(".working-label").first).to_have_text("Processor at full clock")
    panel.get_by_role("button", name="board").click()
    expect(panel).to_contain_text("heat of the rest of the board")
    panel.get_by_role("button", name="Back").click()
    expect(panel.locator(".working-label").first).to_have_text("Processor at full clock")
    page.keyboard.press("Escape")
    expect(panel).to_have_count(0)


def test_a_fix_is_previewed_and_done_from_the_keyboard(quiet_page: Page, server: str) -> None:
    """Full stop to the next snag, x to preview, Esc to leave it, x and Enter to do it."""
    page = quiet_page
    page.goto(f"{server}/plans/choir-recorder")
    expect(page.locator(".snag").first).to_be_visible()
    fit = page.locator(".margin-row", has_text="Fit")
    expect(fit).to_contain_text("14.5 mm short")
    page.keyboard.press(".")
    expect(page.locator(".snag.open")).to_contain_text("Steeple cooler reaches")
    page.keyboard.press("x")
    expect(page.get_by_role("button", name="Apply")).to_be_focused()
    expect(page.locator(".margins.previewing")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.locator(".margins.previewing")).to_have_count(0)
    expect(fit).to_contain_text("14.5 mm short")
    page.keyboard.press("x")
    expect(page.get_by_role("button", name="Apply")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.locator(".snag", has_text="Steeple cooler reaches")).to_have_count(0)
    page.keyboard.press("z")
    expect(page.locator(".snag", has_text="Steeple cooler reaches")).to_have_count(1)


def test_the_key_sheet_tells_the_keys(quiet_page: Page, server: str) -> None:
    """A question mark opens it, Escape closes it."""
    page = quiet_page
    page.goto(f"{server}/plans/bat-recorder")
    expect(page.locator(".margin-row").first).to_be_visible()
    page.keyboard.press("?")
    sheet = page.get_by_role("dialog", name="Keys")
    expect(sheet).to_contain_text("Preview the first fix")
    page.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    page.keyboard.press("]")
    expect(page.get_by_label("Highest ambient to assume")).to_have_value("33")


def test_the_rule_book_says_where_a_rule_fires(quiet_page: Page, server: str) -> None:
    """From a snag to its rule, and from the rule to the plan."""
    page = quiet_page
    page.goto(f"{server}/plans/choir-recorder")
    page.locator(".snag", has_text="Kerb 1T #2 is 80.0 mm").click()
    page.get_by_role("link", name="Rule FIT-07").click()
    rule = page.get_by_role("article", name="FIT-07 Each M.2 drive has a length")
    expect(rule).to_contain_text("M.2 specification")
    rule.get_by_role("link", name="Choir recorder").click()
    expect(page.locator(".crumbs strong")).to_have_text("Choir recorder with mirrored drives")


def test_a_plan_is_duplicated_renamed_and_taken_along(quiet_page: Page, server: str) -> None:
    """A copy beside the first, under another name, ordered; its kit as CSV."""
    page = quiet_page
    page.goto(server)
    page.get_by_role("button", name="Copy Moss-growth").click()
    expect(page.locator(".strip")).to_have_count(4)
    page.get_by_role("link", name="Moss-growth time-lapse cabinet (copy)").click()
    page.locator(".kit-main", has_text="Purpose").click()
    page.get_by_role("button", name="Plan details").click()
    page.get_by_role("textbox", name="Name", exact=True).fill("Fern cabinet")
    page.get_by_label("Status").select_option("ordered")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.locator(".crumbs strong")).to_have_text("Fern cabinet")
    page.get_by_role("button", name="Export and print").click()
    page.get_by_role("button", name="CSV, for a spreadsheet").click()
    expect(page.locator(".kit-text")).to_contain_text("role,quantity,maker,model")
    page.keyboard.press("Escape")
    page.goto(server)
    expect(page.get_by_role("article", name="Fern cabinet")).to_contain_text("ordered")


def test_plans_side_by_side(quiet_page: Page, server: str) -> None:
    """By one key from the workbench; the other plan chosen there; only where they differ."""
    page = quiet_page
    page.goto(f"{server}/plans/bat-recorder")
    expect(page.locator(".margin-row").first).to_be_visible()
    page.keyboard.press("b")
    expect(page.get_by_role("heading", name="Compare")).to_be_visible()
    page.get_by_label("Add a plan").select_option("moss-cabinet")
    columns = page.locator(".side-table thead th a")
    expect(columns).to_have_text(["Churchyard bat-call recorder", "Moss-growth time-lapse cabinet"])
    cooling = page.locator(".side-table tr", has_text="Cooling")
    expect(cooling.locator("td")).to_have_text(["Griddle Tall", "Griddle Tall"])
    page.get_by_label("Only differences").check()
    expect(cooling).to_have_count(0)
    expect(page.locator(".side-table tr", has_text="Board")).to_contain_text("Hurdle 2")
    page.reload()
    expect(columns).to_have_count(2)
    page.get_by_role("button", name="Remove Moss-growth time-lapse cabinet").click()
    expect(columns).to_have_count(1)
    page.goto(f"{server}/compare/gone")
    expect(page.get_by_text("These plans no longer exist")).to_be_visible()


def test_the_slider_stays_under_the_hand(quiet_page: Page, server: str) -> None:
    """Dragged with a mouse step by step it follows the pointer, as nothing appears beside it."""
    page = quiet_page
    page.goto(f"{server}/plans/bat-recorder")
    slider = page.get_by_label("What if: highest ambient")
    box = slider.bounding_box()
    assert box is not None
    y = box["y"] + box["height"] / 2
    page.mouse.move(box["x"] + box["width"] / 2, y)
    page.mouse.down()
    before = int(slider.input_value())
    for step in range(1, 13):
        page.mouse.move(box["x"] + box["width"] / 2 + step, y)
        page.wait_for_timeout(40)
    page.mouse.up()
    assert slider.bounding_box() == box
    assert 0 < abs(int(slider.input_value()) - before) < 30
    expect(page.get_by_role("button", name="Reset")).to_be_visible()


def test_another_power_source_is_one_press_from_power(quiet_page: Page, server: str) -> None:
    """What no longer suits is told with its fixes; undone, all is as it was."""
    page = quiet_page
    page.goto(f"{server}/plans/moss-cabinet")
    page.keyboard.press("2")
    source = page.get_by_label("Power source at the location")
    expect(source).to_have_value("mains")
    source.select_option(label="Solar")
    expect(page.locator(".snag", has_text="PWR-09")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(source).to_have_value("mains")
    expect(page.locator(".snag", has_text="PWR-09")).to_have_count(0)
