import csv
import io

from cobblewort.formats.kit_list import kit_csv, kit_markdown, kit_text
from tests.kits import checked, demo, kit, shipped


def test_csv_is_read_back_by_a_general_reader() -> None:
    """RFC 4180: CRLF, a header, the same number of cells in every row."""
    text = kit_csv(checked(demo("choir-recorder")))
    assert "\r\n" in text
    rows = list(csv.reader(io.StringIO(text), strict=True))
    assert {len(row) for row in rows} == {9}
    drives = next(row for row in rows if row[3] == "Kerb 1T")
    assert drives[1:3] == ["2", "Chalkden"]
    assert drives[6:8] == ["71.00", "142.00"]
    wanted = [row[1:4] for row in rows if row[0] == "Fasteners required"]
    assert ["4", "", "standoff M2.5 10 mm"] in wanted


def test_quotes_commas_and_formulas_are_harmless() -> None:
    """A name with quotes survives; one that looks like a formula cannot run."""
    odd = [
        {"id": "F90", "kind": "fastener", "maker": 'say "x", y', "model": "=1+1", "price": "1"},
        {"id": "F91", "kind": "fastener", "maker": "@SUM(A1)", "model": "-2"},
    ]
    report = checked(kit("F90", "F91"), catalogue=shipped().extended(odd))
    rows = list(csv.reader(io.StringIO(kit_csv(report))))[1:]
    assert rows[0][2:4] == ['say "x", y', "'=1+1"]
    assert rows[1][2:4] == ["'@SUM(A1)", "'-2"]
    assert rows[1][6] == ""


def test_text_says_what_is_owned_and_borrowed() -> None:
    """One line a part, and the sum."""
    text = kit_text(checked(demo("bat-recorder")))
    assert (
        "Fasteners: 1 × Ashlarby Standoff Set, Standoffs and screws, M2.5, assorted: owned" in text
    )
    assert "Cattlegrid, Card reader: borrowed\n\nTotal" in text
    assert text.endswith("Total to buy: €332\n")


def test_several_copies_are_counted_and_priced_together() -> None:
    """Three of each; what is owned serves the first, what is borrowed all."""
    plan = demo("bat-recorder").model_copy(update={"copies": 3})
    text = kit_text(checked(plan))
    assert "Board: 3 × Marlpit Hurdle 4, Mid-range board, 4 GB, rated for cold: €198" in text
    assert "assorted: 1 owned, the rest €8" in text
    assert "Needed for set-up: 1 ×" in text
    assert text.endswith("Total to buy for 3 copies: €1004\n")


def test_standoffs_and_screws_stand_below_the_kit() -> None:
    """By count and length, where the stack wants any."""
    text = kit_text(checked(kit("B10", "S03", "M02", "A02", "D06", "E03", "F01")))
    assert "Standoffs and screws:\n" in text
    assert "4 × standoff M2.5 × 16 mm, between Mullion 8 and Overlay Long" in text
    assert "Standoffs" not in kit_text(checked(kit("B06", "S01", "M02", "E03")))


def test_washers_are_named_in_the_list() -> None:
    """8 mm of standoff for 9 mm of pins."""
    text = kit_text(checked(kit("B06", "S01", "M02", "X04", "E03")))
    assert "8 mm, with 1.0\u00a0mm of washers, between Hurdle 2 and Lute" in text


def test_markdown_is_a_list_to_tick_that_runs_nothing() -> None:
    """Owned things are ticked; signs of Markdown and HTML are told as they are."""
    text = kit_markdown(checked(demo("bat-recorder")))
    assert "- [x] Fasteners: 1 × Ashlarby Standoff Set" in text
    odd = [{"id": "F90", "kind": "fastener", "maker": "<b>me</b>", "model": "[x](y)", "price": "1"}]
    told = kit_markdown(checked(kit("F90"), catalogue=shipped().extended(odd)))
    assert "\\<b\\>me\\</b\\> \\[x\\](y)" in told
