"""Typed work stays, whatever the server or another tab does; everything goes out and comes in."""

from __future__ import annotations

import json
import re
import urllib.request
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect
from pypdf import PdfReader

from tests.browser.conftest import complaint, served_empty
from tests.browser.test_access import COLOURS, check_with_axe
from tests.kits import OWN


def ask(server: str, path: str, body: Any = None, *, method: str = "GET", version: int = 0) -> Any:
    """Another tab's hand: a request beside the page."""
    request = urllib.request.Request(
        f"{server}/api{path}",
        None if body is None else json.dumps(body).encode(),
        method=method,
        headers={**OWN, "content-type": "application/json", "if-match": f'"{version}"'},
    )
    with urllib.request.urlopen(request) as answer:
        text = answer.read()
    return json.loads(text) if text else None


def elsewhere(server: str, plan: str, **place: Any) -> None:
    """Another tab changes where the plan lives."""
    version = ask(server, f"/plans/{plan}")["version"]
    patch = [{"op": "set", "fields": {"place": place}}]
    ask(server, f"/plans/{plan}", {"patch": patch}, method="PATCH", version=version)


def open_details(page: Page, server: str, plan: str) -> None:
    """The dialog of name, place and budget."""
    page.goto(f"{server}/plans/{plan}")
    page.locator(".kit-main", has_text="Purpose").click()
    page.get_by_role("button", name="Plan details").click()


def test_two_tabs_in_the_details_lose_nothing(page: Page, server: str) -> None:
    """Only what was typed is sent: the coldest day of the other tab is kept, and of the hottest,
    which both changed, one sees both and chooses.
    """
    open_details(page, server, "bat-recorder")
    page.get_by_role("textbox", name="Highest ambient", exact=True).fill("33")
    page.get_by_label("Budget").fill("777")
    elsewhere(server, "bat-recorder", ambient_min_c=-11, ambient_max_c=29)
    page.get_by_role("button", name="Save", exact=True).click()
    meanwhile = page.locator(".meanwhile")
    expect(meanwhile).to_contain_text("Highest ambient: saved value 29 °C, your value 33 °C")
    expect(meanwhile).to_contain_text("Lowest ambient: saved value used, -11 °C")
    expect(page.get_by_label("Budget")).to_have_value("777")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    plan = ask(server, "/plans/bat-recorder")["plan"]
    assert (plan["place"]["ambient_min_c"], plan["place"]["ambient_max_c"]) == (-11, 33)
    assert plan["budget"] == "777.00"


def test_theirs_can_be_taken(page: Page, server: str) -> None:
    """One press; then nothing is left to save."""
    open_details(page, server, "moss-cabinet")
    page.get_by_role("textbox", name="Highest ambient", exact=True).fill("35")
    elsewhere(server, "moss-cabinet", ambient_max_c=26)
    page.get_by_role("button", name="Save", exact=True).click()
    page.get_by_role("button", name="Use the saved value").click()
    expect(page.get_by_role("textbox", name="Highest ambient", exact=True)).to_have_value("26")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    assert ask(server, "/plans/moss-cabinet")["plan"]["place"]["ambient_max_c"] == 26


def test_a_frozen_server_is_told_after_three_seconds(page: Page, server: str) -> None:
    """Nothing comes back; what is shown stays; the form waits and says so."""
    open_details(page, server, "bat-recorder")
    page.get_by_role("textbox", name="Name", exact=True).fill("Owl recorder")
    page.route("**/api/**", lambda route: None)
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("button", name="Saving…")).to_be_visible()
    expect(page.locator(".server-strip")).to_contain_text("Last answer at")
    expect(page.locator(".margin-row").first).to_be_attached()


def test_a_refetch_that_fails_leaves_what_is_shown(page: Page, server: str) -> None:
    """The workbench and the list of plans stay, with the strip over them."""
    page.goto(server)
    expect(page.locator(".strip")).to_have_count(3)
    page.route("**/api/**", lambda route: route.abort())
    page.get_by_role("button", name="Copy Moss-growth").click()
    expect(page.locator(".server-strip")).to_be_visible()
    expect(page.locator(".strip")).to_have_count(3)


def test_a_dialog_asks_before_it_drops_typed_text(page: Page, server: str) -> None:
    """Esc once asks, and going on typing is one press; untouched it closes at once."""
    open_details(page, server, "bat-recorder")
    page.get_by_role("textbox", name="Name", exact=True).fill("Owl recorder")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_contain_text("Discard your changes?")
    page.get_by_role("button", name="Keep editing").click()
    expect(page.get_by_role("textbox", name="Name", exact=True)).to_have_value("Owl recorder")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Discard").click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.get_by_role("button", name="Plan details").click()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)


def test_another_tabs_save_of_a_part_replaces_no_typed_text(page: Page, server: str) -> None:
    """Both figures are there afterwards."""
    page.goto(f"{server}/parts/S03")
    page.get_by_role("button", name="Copy and change").click()
    expect(page.get_by_label("Name", exact=True)).to_have_value("Kettle 27 (copy)")
    part = page.url.split("/parts/")[1].split("?")[0]
    page.get_by_label("Rated current", exact=True).fill("4,5")
    ask(
        server,
        f"/parts/{part}",
        {"summary": "from elsewhere", "figures": {}},
        method="PATCH",
        version=1,
    )
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.locator(".meanwhile")).to_contain_text(
        "Description: saved value used, from elsewhere"
    )
    expect(page.get_by_label("Rated current", exact=True)).to_have_value("4,5")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("revision 3")).to_be_visible()
    sheet = ask(server, f"/parts/{part}/sheet")
    rated = next(f for f in sheet["figures"] if f["label"] == "Rated current")
    assert (sheet["summary"], rated["nominal"]) == ("from elsewhere", 4.5)


def test_what_is_put_away_is_found_again(quiet_page: Page, server: str) -> None:
    """After a reload too; emptied only on purpose, and asked first."""
    page = quiet_page
    page.goto(server)
    page.get_by_role("button", name="Move to bin: Moss-growth").click()
    expect(page.locator(".strip")).to_have_count(2)
    page.get_by_role("link", name="Settings").click()
    expect(page.get_by_role("heading", name="Settings")).to_be_visible()
    page.reload()
    away = page.get_by_role("region", name="Bin")
    expect(away).to_contain_text("Moss-growth time-lapse cabinet")
    away.get_by_role("button", name="Empty the bin…").click()
    away.get_by_role("button", name="Cancel").click()
    away.get_by_role("button", name="Restore").click()
    expect(away).to_contain_text("The bin is empty")
    page.get_by_role("link", name="Plans", exact=True).click()
    expect(page.locator(".strip")).to_have_count(3)


def test_history_is_looked_at_and_gone_back_to(quiet_page: Page, server: str) -> None:
    """The step before stands beside its rulers; going back is a step that can be undone."""
    page = quiet_page
    elsewhere(server, "bat-recorder", ambient_max_c=47)
    page.goto(f"{server}/plans/bat-recorder")
    page.get_by_role("button", name="History").click()
    page.locator(".history-step").last.click()
    expect(page.locator(".history-ruler").first).to_be_visible()
    page.get_by_role("button", name="Restore this step").click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(page.get_by_label("Highest ambient to assume")).not_to_have_value("47")
    expect(page.get_by_role("button", name="Undo")).to_have_attribute(
        "title", "Undo: back to: demo plan"
    )


def test_a_plan_is_brought_in_from_a_file(quiet_page: Page, server: str, tmp_path: Path) -> None:
    """Looked at first; then it stands on its bench."""
    page = quiet_page
    file = tmp_path / "choir.json"
    file.write_text(json.dumps(ask(server, "/plans/choir-recorder/plan.json")))
    page.goto(server)
    page.get_by_label("File to import").set_input_files(str(file))
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("A plan with this name exists and stays unchanged")
    dialog.get_by_role("button", name="Import", exact=True).click()
    expect(page.locator(".crumbs strong")).to_have_text("Choir recorder with mirrored drives")
    page.goto(server)
    expect(page.locator(".strip")).to_have_count(4)


def test_a_wrong_file_tells_every_problem_and_changes_nothing(
    page: Page, server: str, tmp_path: Path
) -> None:
    """With its place; other files are told for what they are not."""
    document = ask(server, "/export/plans.json")
    document["plans"][0]["plan"]["name"] = ""
    document["plans"][1]["plan"]["copies"] = 0
    file = tmp_path / "plans.json"
    file.write_text(json.dumps(document))
    page.goto(server)
    page.get_by_label("File to import").set_input_files(str(file))
    problems = page.locator(".bring-in-problems")
    expect(problems).to_contain_text("plans.0.plan.name")
    expect(problems).to_contain_text("plans.1.plan.copies")
    expect(
        page.get_by_role("dialog").get_by_role("button", name="Import", exact=True)
    ).to_be_disabled()
    page.get_by_role("button", name="Cancel").click()
    other = tmp_path / "note.txt"
    other.write_text("hello")
    page.get_by_label("File to import").set_input_files(str(other))
    expect(page.get_by_role("dialog")).to_contain_text("not a plan, a part pack or a backup")


def test_a_pack_comes_in_by_hand(quiet_page: Page, server: str, tmp_path: Path) -> None:
    """A table of what each part would do, and then it is in parts."""
    page = quiet_page
    file = tmp_path / "pack.csv"
    file.write_text("id,kind,part_class,maker,model\nQ1,device,usb2_device,Sedgewick,Quill\n")
    page.goto(f"{server}/settings")
    page.get_by_label("File to import").set_input_files(str(file))
    expect(page.get_by_role("dialog")).to_contain_text("Quill")
    page.get_by_role("button", name="Import 1 part").click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.goto(f"{server}/parts/Q1")
    expect(page.get_by_role("heading", name="Quill")).to_be_visible()


def test_the_workspace_out_and_back(quiet_page: Page, server: str, tmp_path: Path) -> None:
    """Saved, everything deleted, restored: three plans again, and where the copy is."""
    page = quiet_page
    page.goto(f"{server}/settings")
    with page.expect_download() as saved:
        page.get_by_role("link", name="Export the workspace").click()
    file = tmp_path / "all.zip"
    saved.value.save_as(file)
    for plan in ask(server, "/plans"):
        ask(server, f"/plans/{plan['id']}", method="DELETE", version=plan["version"])
    page.get_by_label("File to import").set_input_files(str(file))
    expect(page.get_by_role("dialog")).to_contain_text("contains 3 plans")
    page.get_by_role("button", name="Replace the workspace").click()
    expect(page.get_by_role("dialog")).to_contain_text("-before-restore.sqlite3")
    page.get_by_role("button", name="Done").click()
    page.get_by_role("link", name="Plans", exact=True).click()
    expect(page.locator(".strip")).to_have_count(3)


def test_a_restore_is_taken_back_by_keys_alone(quiet_page: Page, server: str) -> None:
    """From the list of kept copies; the focus stays where the hand is."""
    page = quiet_page
    with urllib.request.urlopen(f"{server}/api/workspace/archive") as answer:
        content = answer.read()
    ask(server, "/plans", {"name": "made after the backup"}, method="POST")
    request = urllib.request.Request(f"{server}/api/workspace/restore", content, OWN)
    urllib.request.urlopen(request).close()
    page.goto(f"{server}/settings")
    kept = page.get_by_role("button", name=re.compile("Restore .*-before-restore")).first
    kept.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Cancel")).to_be_focused()
    page.keyboard.press("Enter")
    expect(kept).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Cancel")).to_be_focused()
    page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    expect(page.locator(".copy-restored")).to_be_focused()
    assert "made after the backup" in {plan["name"] for plan in ask(server, "/plans")}


def test_a_sheet_and_a_drawing_are_saved(page: Page, server: str, tmp_path: Path) -> None:
    """By keys alone from the plan to the printed sheet; a drawing as PNG."""
    page.goto(f"{server}/plans/choir-recorder")
    expect(page.locator(".margin-row").first).to_be_visible()
    page.get_by_role("button", name="Export and print").focus()
    page.keyboard.press("Enter")
    sheet = page.get_by_role("link", name="Plan sheet, A4")
    expect(sheet).to_be_visible()
    sheet.focus()
    with page.expect_download() as saved:
        page.keyboard.press("Enter")
    saved.value.save_as(tmp_path / "sheet.pdf")
    text = " ".join(page.extract_text() for page in PdfReader(tmp_path / "sheet.pdf").pages)
    assert "To buy" in text
    assert "Problem The Steeple cooler reaches" in " ".join(text.split())
    with page.expect_download() as drawn:
        page.get_by_role("button", name="Power as PNG").click()
    drawn.value.save_as(tmp_path / "supply.png")
    assert (tmp_path / "supply.png").read_bytes()[:8] == b"\x89PNG\r\n\x1a\n"


def test_a_board_is_moved_on_its_plate(quiet_page: Page, server: str) -> None:
    """By mouse and by figures; what cannot be is refused beside the field; back by one press."""
    page = quiet_page
    lines = [
        {"id": role, "role": role, "part": part}
        for role, part in (("board", "B06"), ("power_supply", "S01"), ("case", "E12"))
    ]
    plan = ask(
        server,
        "/plans",
        {"name": "plate", "plan": {"name": "plate", "lines": lines}},
        method="POST",
    )
    page.goto(f"{server}/plans/{plan['id']}")
    expect(page.locator(".margin-row").first).to_be_visible()
    page.keyboard.press("1")
    page.get_by_role("button", name="Top view").click()
    along = page.get_by_label("Millimetres length")
    expect(along).to_have_value("54.5")
    box = page.locator(".movable").bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 30, box["y"] + 30)
    page.mouse.down()
    for step in range(1, 21):
        page.mouse.move(box["x"] + 30 - 3 * step, box["y"] + 30)
    page.mouse.up()
    expect(along).not_to_have_value("54.5")
    moved = ask(server, f"/plans/{plan['id']}")["plan"]["lines"][0]["position"]
    assert moved["x_mm"] < 40
    along.fill("-3")
    page.get_by_role("button", name="Move", exact=True).click()
    expect(complaint(page)).to_contain_text("lengths from the inner corner, up to 2000 mm")
    along.fill("20")
    page.get_by_role("button", name="Move", exact=True).click()
    expect(page.get_by_role("button", name="Move to the middle")).to_be_visible()
    page.get_by_role("button", name="Move to the middle").click()
    expect(along).to_have_value("54.5")


@pytest.mark.parametrize(("scheme", "rules"), [("light", []), ("dark", COLOURS)])
def test_nothing_serious_in_settings_and_dialogs(
    page: Page, server: str, scheme: Any, rules: list[str]
) -> None:
    """Settings, history, export, the top view from above with its fields."""
    page.emulate_media(color_scheme=scheme, reduced_motion="reduce")
    page.goto(f"{server}/settings")
    expect(page.get_by_role("region", name="Bin")).to_contain_text("The bin is empty")
    assert check_with_axe(page, rules) == []
    page.goto(f"{server}/plans/choir-recorder")
    page.get_by_role("button", name="History").click()
    page.locator(".history-step").first.click()
    expect(page.locator(".history-ruler").first).to_be_visible()
    assert check_with_axe(page, rules) == []
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Export and print").click()
    expect(page.locator(".kit-text")).to_contain_text(re.compile("Mullion 8"))
    assert check_with_axe(page, rules) == []


def test_the_first_minute(page: Page, tmp_path: Path) -> None:
    """An empty program shows three ways in and how a plan is read; the example opens."""
    with served_empty(tmp_path / "empty.sqlite3") as server:
        page.goto(server)
        begin = page.get_by_role("region", name="How to start")
        expect(begin.get_by_role("button", name="Answer four questions")).to_be_visible()
        expect(begin).to_contain_text("Worst case")
        assert check_with_axe(page, []) == []
        begin.get_by_role("button", name="Open the example").click()
        expect(page.locator(".crumbs strong")).to_have_text("Choir recorder with mirrored drives")
        page.goto(server)
        expect(page.get_by_role("region", name="How to read a plan")).to_have_count(0)
        page.get_by_role("button", name="How to read a plan").click()
        expect(page.get_by_role("region", name="How to read a plan")).to_be_visible()
        page.get_by_role("button", name="How to read a plan").click()
        expect(page.get_by_role("region", name="How to read a plan")).to_have_count(0)


def test_words_are_explained_where_they_stand(page: Page, server: str) -> None:
    """By focus and by touch; Esc puts the explanation away."""
    page.goto(f"{server}/plans/choir-recorder")
    expect(page.locator(".margin-row").first).to_be_visible()
    page.get_by_role("button", name="Snags").focus()
    expect(page.get_by_role("tooltip")).to_contain_text("a problem, a tight limit")
    page.keyboard.press("Escape")
    expect(page.get_by_role("tooltip")).to_have_count(0)


def test_the_phone_bar_switches_between_four(page: Page, server: str) -> None:
    """Choosing a ruler brings its drawing; what is pressed is 40 px high; nothing scrolls aside."""
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{server}/plans/choir-recorder")
    bar = page.get_by_role("navigation", name="Sections of the workbench")
    expect(bar).to_contain_text("4 problems")
    expect(page.locator(".bench-right")).to_be_hidden()
    page.locator(".margin-row", has_text="Heat").click()
    expect(page.locator(".bench-centre h2")).to_have_text("Heat")
    expect(page.locator(".margins")).to_be_hidden()
    bar.get_by_role("button", name="Kit").click()
    expect(page.locator(".kit-list")).to_be_visible()
    page.locator(".kit-main", has_text="Purpose").click()
    expect(page.locator(".bench-centre h2")).to_have_text("Purpose")
    expect(page.locator(".kit-list")).to_be_hidden()
    bar.get_by_role("button", name="Snags").click()
    expect(page.locator(".snag").first).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    for button in page.locator(".bench button:visible, .phone-bar button").all():
        box = button.bounding_box()
        assert box is not None
        if "term" not in (button.get_attribute("class") or ""):
            assert box["height"] >= 24
    for tab in bar.get_by_role("button").all():
        box = tab.bounding_box()
        assert box is not None
        assert box["height"] >= 40


def test_the_catalogue_is_searched_by_what_is_shown(page: Page, server: str) -> None:
    """Figures, kinds, one typo."""
    page.goto(f"{server}/parts")
    search = page.get_by_label("Search parts")
    for text, name in (
        ("5 V, 3 A", "Pocket 15"),
        ("usb-c 3a", "Lead"),
        ("kettel 27", "Kettle 27"),
    ):
        search.fill(text)
        expect(page.locator(".shelf-list a", has_text=name).first).to_be_visible()
    search.fill("kettel 27")
    expect(page.locator(".shelf-list a")).to_have_count(1)
    search.fill("zzzz")
    expect(page.locator(".part-none")).to_be_visible()


def test_owned_parts_are_picked_while_one_types(page: Page, server: str) -> None:
    """Several, by any part of the name; the first by Enter."""
    page.goto(f"{server}/new")
    field = page.get_by_label("Search for a part")
    field.fill("hurd")
    page.get_by_role("button", name="Marlpit Hurdle 4").click()
    field.fill("kettle 15")
    page.keyboard.press("Enter")
    expect(page.locator(".owned-list li")).to_have_count(2)
    field.fill("nothing like it")
    expect(page.get_by_role("link", name="Not listed? Add a custom part")).to_be_visible()


def test_the_hand_is_led_back(page: Page, server: str) -> None:
    """`.` goes to the snag it opens; leaving a way out goes back to it, doing it to the next snag;
    the day can be typed.
    """
    page.goto(f"{server}/plans/choir-recorder")
    expect(page.locator(".margin-row").first).to_be_visible()
    page.keyboard.press(".")
    expect(page.locator(".snag.open .snag-main")).to_be_focused()
    page.keyboard.press("x")
    expect(page.get_by_role("button", name="Apply")).to_be_focused()
    page.keyboard.press("Escape")
    expect(page.locator(".snag.open .fix-main").first).to_be_focused()
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Apply").press("Enter")
    expect(page.locator(".snag-main").first).to_be_focused()
    day = page.get_by_label("Highest ambient to assume")
    day.fill("41")
    day.press("Enter")
    expect(page.locator(".what-if input[type=range]")).to_have_value("41")
    day.fill("hot")
    day.press("Enter")
    expect(page.get_by_label("Highest ambient to assume")).to_have_value("41")


def test_a_plan_prints_without_its_buttons(page: Page, server: str, tmp_path: Path) -> None:
    """The page as PDF, read back: what it is of, margins, kit, drawing and snags, nothing to press,
    and no page with nothing on it.
    """
    page.goto(f"{server}/plans/choir-recorder")
    expect(page.locator(".margin-row").first).to_be_visible()
    file = tmp_path / "page.pdf"
    page.pdf(path=str(file), format="A4")
    pages = [" ".join(sheet.extract_text().split()) for sheet in PdfReader(file).pages]
    assert pages[0].startswith("Choir recorder with mirrored drives Records sixteen microphones")
    assert all(len(told) > 60 for told in pages)
    text = " ".join(pages)
    for wanted in (
        "Power",
        "Vent 86 Tall",
        "electronics",
        "Steeple cooler reaches",
        "Set a unique password",
        "Rehearsal loft of a parish hall",
    ):
        assert wanted in text
    for button in ("Undo", "Export and print", "Apply to plan"):
        assert button not in text.split()
        assert f" {button} " not in text


def test_a_print_from_the_night_bench_is_dark_on_white(
    page: Page, server: str, tmp_path: Path
) -> None:
    """And tells which state it is of, and every figure, though those are buttons on the screen."""
    page.emulate_media(color_scheme="dark")
    page.goto(f"{server}/plans/moss-cabinet")
    page.locator(".margin-row", has_text="Heat").click()
    expect(page.get_by_role("img", name="Temperatures from ambient")).to_be_visible()
    page.emulate_media(media="print", color_scheme="dark")
    colors = (
        "() => [getComputedStyle(document.body).color, getComputedStyle(document.body).background]"
    )
    ink, ground = page.evaluate(colors)
    assert ink == "rgb(34, 49, 58)"
    assert ground.startswith("rgba(0, 0, 0, 0)")
    file = tmp_path / "heat.pdf"
    page.pdf(path=str(file), format="A4")
    told = " ".join(" ".join(sheet.extract_text() for sheet in PdfReader(file).pages).split())
    assert "OK up to" in told
    assert "State film" in told
    assert "idle" not in told.lower().split()


def test_answers_are_not_left_behind_unasked(page: Page, server: str) -> None:
    """By a link, and by a reload; beginning the plan asks nothing."""
    page.goto(f"{server}/new")
    page.get_by_label("Name of the plan").fill("Owl recorder")
    page.get_by_role("link", name="Plans", exact=True).click()
    expect(page.get_by_role("dialog")).to_contain_text("a new plan are not saved")
    page.get_by_role("button", name="Keep editing").click()
    expect(page.get_by_label("Name of the plan")).to_have_value("Owl recorder")
    asked: list[str] = []
    page.on("dialog", lambda dialog: (asked.append(dialog.type), dialog.dismiss()))
    page.evaluate("location.reload()")
    expect(page.get_by_label("Name of the plan")).to_have_value("Owl recorder")
    assert asked == ["beforeunload"]
    page.get_by_role("button", name="Create without a kit").click()
    expect(page.locator(".crumbs strong")).to_have_text("Owl recorder")


def test_the_drawer_stays_until_the_part_is_in(page: Page, server: str) -> None:
    """Unreachable it says why and stays open; then the same press does it."""
    page.goto(f"{server}/plans/choir-recorder")
    page.locator(".kit-main", has_text="Traveller 65").click()
    page.get_by_role("button", name="Swap").click()
    kettle = page.locator(".candidate", has_text="Kettle 27").first
    expect(kettle).to_be_visible()
    page.route("**/api/plans/choir-recorder", lambda route: route.abort())
    kettle.click()
    expect(page.get_by_role("dialog")).to_contain_text("No connection to the server")
    page.unroute("**/api/plans/choir-recorder")
    kettle.click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(page.locator(".kit-main", has_text="Kettle 27")).to_be_visible()


def test_side_by_side_scrolls_in_itself(page: Page, server: str) -> None:
    """On a phone the page stays as wide as it is, and the table moves under the finger."""
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{server}/compare/bat-recorder,moss-cabinet,choir-recorder")
    scroll = page.locator(".side-scroll")
    expect(scroll).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert scroll.evaluate("element => element.scrollWidth > element.clientWidth")


def patched(server: str, plan: str, **fields: Any) -> None:
    """Another tab changes fields of a plan."""
    version = ask(server, f"/plans/{plan}")["version"]
    patch = [{"op": "set", "fields": fields}]
    ask(server, f"/plans/{plan}", {"patch": patch}, method="PATCH", version=version)


def open_purpose(page: Page, server: str) -> None:
    """The room of purpose, with its forms in place."""
    page.goto(f"{server}/plans/moss-cabinet")
    page.locator(".kit-main", has_text="Purpose").click()
    page.get_by_role("heading", name="Purpose").wait_for()


def test_forms_in_place_keep_what_another_tab_does_not_know(page: Page, server: str) -> None:
    """The day, the image and the ready-made one: typed text stays, what changed elsewhere stands
    beside it, and what was not typed is taken over.
    """
    open_purpose(page, server)
    page.get_by_label("Hours of film").fill("0,4")
    page.get_by_label("Ready-made alternative").fill("A bought one")
    page.get_by_role("button", name="Change image").click()
    page.get_by_label("Memory needed").fill("1,5")
    schedule = ask(server, "/plans/moss-cabinet")["plan"]["schedule"]
    schedule[1]["hours"] = 0.25
    patched(server, "moss-cabinet", schedule=schedule, ready_made={"name": "", "price": "99"})
    patched(server, "moss-cabinet", budget="333")
    page.get_by_label("Ready-made alternative").press("Tab")
    page.get_by_role("button", name="Save alternative").click()  # refused, as it is stale
    expect(page.get_by_label("Hours of film")).to_have_value("0,4")
    expect(page.get_by_label("Memory needed")).to_have_value("1,5")
    expect(page.get_by_label("Ready-made alternative")).to_have_value("A bought one")
    expect(page.get_by_label("Price")).to_have_value("99")
    expect(page.locator(".meanwhile").first).to_be_visible()
    page.get_by_role("button", name="Save schedule").click()
    expect(page.get_by_role("button", name="Save schedule")).to_have_count(0)
    plan = ask(server, "/plans/moss-cabinet")["plan"]
    assert plan["schedule"][1]["hours"] == 0.4


def test_fields_take_units_as_people_write_them(page: Page, server: str) -> None:
    """In the sheet of a part and in a flow; what is of another kind is told, and stays."""
    page.goto(f"{server}/parts/B06")
    page.get_by_role("button", name="Copy and change").click()
    peak = page.get_by_label("Draw at peak load", exact=True)
    peak.fill("6500 mW")
    peak.press("Tab")
    expect(peak).to_have_value("6.5")
    peak.fill("3 apples")
    peak.press("Tab")
    expect(complaint(page)).to_contain_text("“apples” is not known")
    expect(peak).to_have_value("3 apples")
    page.goto(f"{server}/plans/moss-cabinet")
    page.locator(".kit-main").first.wait_for()
    page.keyboard.press("4")
    page.get_by_role("button", name="Add a transfer").click()
    page.get_by_label("Name").fill("a film to the school")
    page.get_by_label("Amount each time").fill("2500 MB")
    page.get_by_label("Amount each time").press("Enter")
    expect(page.get_by_label("Amount each time")).to_have_value("2.5")
    page.get_by_label("Amount each time").press("Enter")
    expect(page.locator(".flow-list")).to_contain_text("2.5 GB")


def test_a_need_and_a_wire_are_asked_for_while_another_tab_works(page: Page, server: str) -> None:
    """What is typed stays until it is in: refused as stale, or unanswered, it is sent again, and
    what the other tab added is kept.
    """
    open_purpose(page, server)
    page.get_by_label("Add a requirement").select_option(label="is silent")
    page.get_by_label("Your own words").fill("not a whisper in the reading room")
    requirements = ask(server, "/plans/moss-cabinet")["plan"]["requirements"]
    more = {"id": "theirs", "text": "theirs", "function": "rtc"}
    patched(server, "moss-cabinet", requirements=[*requirements, more])
    page.get_by_role("button", name="Add requirement").click()
    expect(page.get_by_label("Your own words")).to_have_value("not a whisper in the reading room")
    expect(page.locator(".need-table")).to_contain_text("theirs")
    page.route("**/api/plans/**", lambda route: route.abort())
    page.get_by_role("button", name="Add requirement").click()
    expect(page.get_by_label("Your own words")).to_have_value("not a whisper in the reading room")
    page.unroute("**/api/plans/**")
    page.get_by_role("button", name="Add requirement").click()
    expect(page.locator(".need-table")).to_contain_text("not a whisper in the reading room")
    expect(page.get_by_label("Your own words")).to_have_count(0)
    texts = [
        requirement["text"]
        for requirement in ask(server, "/plans/moss-cabinet")["plan"]["requirements"]
    ]
    assert texts[-2:] == ["theirs", "not a whisper in the reading room"]
    page.locator(".margin-row", has_text="Fit").click()
    page.get_by_role("button", name="GPIO header", exact=True).click()
    page.get_by_role("button", name="Add a button or LED").click()
    page.get_by_label("Name", exact=True).fill("reading lamp")
    page.get_by_label("Pin", exact=True).select_option(index=1)
    page.get_by_label("Current", exact=True).fill("0.004 A")
    page.get_by_label("Current", exact=True).press("Tab")
    expect(page.get_by_label("Current", exact=True)).to_have_value("4")
    patched(server, "moss-cabinet", budget="444")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_label("Name", exact=True)).to_have_value("reading lamp")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.locator(".wired-list")).to_contain_text("reading lamp")
    plan = ask(server, "/plans/moss-cabinet")["plan"]
    assert plan["budget"] == "444"
    assert plan["wired"][-1]["current_ma"] == 4
