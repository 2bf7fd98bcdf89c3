"""The sheet of a plan and its drawings, read back by general readers."""

from __future__ import annotations

import io
from dataclasses import replace
from datetime import date
from xml.etree import ElementTree

import pytest
from pypdf import PdfReader

from cobblewort.core.judging.rules import RULES
from cobblewort.core.plans.patch import AddLine, EditLine, SetFields, apply_patch
from cobblewort.core.plans.plan import Plan
from cobblewort.formats.display_units import SI_UNITS
from cobblewort.formats.drawings import DRAWINGS
from cobblewort.formats.sheet import sheet_pdf
from cobblewort.formats.sketch import Sketch, cut, sketch_svg, width_of, written
from tests.kits import checked, demo, kit, shipped
from tests.plans import PLANS

DAY = date(2026, 3, 14)
SVG = "{http://www.w3.org/2000/svg}"


def text_of(plan: Plan, paper: str = "a4") -> str:
    """What a reader of PDF finds on the sheet, in one line."""
    reader = PdfReader(io.BytesIO(sheet_pdf(plan, checked(plan, 64), paper, DAY)))
    return " ".join(" ".join(page.extract_text() for page in reader.pages).split())


def test_a_sheet_says_everything_that_is_wanted_beside_the_work() -> None:
    """Purpose, verdict, shopping, plugs, fasteners, snags, drawings, assumptions, date."""
    plan = demo("choir-recorder")
    told, report = text_of(plan), checked(plan, 64)
    assert plan.name in told
    for heading in (
        "To buy",
        "Needed for set-up",
        "Connections",
        "Standoffs and screws",
        "Set-up",
        "Snags",
        "Take care",
        "Drawings",
        "Assumptions",
    ):
        assert heading in told
    for line in report.lines:
        assert line.name in told
    stops = [f for f in report.findings if f.severity == "problem"]
    assert report.count("tight") == 0
    assert f"{len(stops)} problems" in told
    for finding in stops:
        assert finding.sentence.text in told
        assert RULES[finding.rule].why.split(". ")[0] in told
    assert "Write “Slim image” to Plain 32." in told
    assert "Lay out 2 disks: mirror (RAID 1), usable 1 TB, file system: the system's own." in told
    assert "Set:" not in told
    assert "Total €591" in told
    assert told.index("Assumptions") < told.index("Drawings")
    assert "2026-03-14" in told
    assert "1 of 4" in told


@pytest.mark.parametrize(("paper", "size_mm"), [("a4", (210, 297)), ("letter", (215.9, 279.4))])
def test_it_is_of_the_paper_that_is_wanted(paper: str, size_mm: tuple[float, float]) -> None:
    """ISO 216 A4, and 8.5 x 11 inches."""
    content = sheet_pdf(demo("bat-recorder"), checked(demo("bat-recorder")), paper, DAY)
    for page in PdfReader(io.BytesIO(content)).pages:
        found = [float(side) * 25.4 / 72 for side in (page.mediabox.width, page.mediabox.height)]
        assert found == pytest.approx(size_mm, abs=0.1)


@pytest.mark.parametrize("plan", [kit(), kit("B06"), *PLANS.values()], ids=lambda plan: plan.name)
def test_any_plan_has_a_sheet(plan: Plan) -> None:
    """An empty one too; what was decided and settled stands there."""
    assert plan.name in text_of(plan)


def test_settings_and_spares_are_on_the_sheet() -> None:
    """What differs from the usual settings; what lies in the drawer is bought too."""
    plan = demo("moss-cabinet")
    card = next(line for line in plan.lines if line.role == "boot_drive")
    changes = (
        SetFields(fields={"settings": {"logs_in_memory": True}}),
        AddLine(role="cable", part="C11"),
        EditLine(line="cable", spare=True),
    )
    told = text_of(apply_patch(plan, changes))
    assert "Set: Keep logs in memory." in told
    assert "(spare)" in told
    assert told.index("Set-up") < told.index("Assumptions")
    assert shipped().of_line(card).model in told


def test_the_band_of_a_margin_is_drawn() -> None:
    """From the 5th to the 95th percentile of its draws; none without draws."""

    def lines(samples: int) -> int:
        sketch = DRAWINGS["margins"](checked(demo("moss-cabinet"), samples), SI_UNITS)
        assert sketch is not None
        return sum(len(shape.points) == 2 for shape in sketch.shapes)

    banded = [f for f in checked(demo("moss-cabinet"), 64).families if f.ruler_p05 is not None]
    assert len(banded) > 2
    assert lines(64) == lines(1) + 3 * len(banded)


def test_what_was_settled_is_told_apart() -> None:
    """A ticked note is no snag any more, and is not lost."""
    plan = demo("moss-cabinet")
    note = next(f.id for f in checked(plan).findings if f.severity == "note")
    told = text_of(plan.model_copy(update={"done": (note,)}))
    assert "Marked as done" in told


@pytest.mark.parametrize("name", sorted(DRAWINGS))
def test_a_drawing_is_svg_whose_shapes_lie_inside(name: str) -> None:
    """Well-formed, titled, and nothing is cut off; an empty plan has nothing to draw."""
    for plan in PLANS.values():
        sketch = DRAWINGS[name](checked(plan, 64), SI_UNITS)
        if sketch is None:
            continue
        svg = ElementTree.fromstring(sketch_svg(sketch))
        assert svg.findtext(f"{SVG}title") == sketch.title
        assert len(svg) > 5
        for shape in sketch.shapes:
            assert all(-1 <= x <= sketch.width + 1 for x, _ in shape.points)
            assert all(-1 <= y <= sketch.height + 1 for _, y in shape.points)
        for label in sketch.labels:
            assert 0 <= label.y <= sketch.height + 2
    empty = DRAWINGS[name](checked(kit()), SI_UNITS)
    assert (empty is None) == (name != "margins")


@pytest.mark.parametrize("plan", PLANS.values(), ids=lambda plan: plan.name)
def test_names_from_above_hide_nothing_and_are_hidden_by_nothing(plan: Plan) -> None:
    """Each thing is named once, inside the drawing, and no two names lie on each other."""
    sketch = DRAWINGS["above"](checked(plan), SI_UNITS)
    if sketch is None:
        return
    spans = [(n.x, n.y - n.size, n.x + width_of(n.text, n.size), n.y) for n in sketch.labels]
    assert all(left >= 0 and right <= sketch.width for left, _, right, _ in spans)
    for number, one in enumerate(spans):
        for other in spans[:number]:
            apart = one[2] <= other[0] or other[2] <= one[0] or one[3] <= other[1]
            assert apart or other[3] <= one[1]


def test_a_tree_of_supply_names_every_rail_in_full() -> None:
    """A row for each, with its volts and amperes; parents stand above what hangs on them."""
    report = checked(demo("choir-recorder"))
    sketch = DRAWINGS["power"](report, SI_UNITS)
    assert sketch is not None
    row_of = {label.text: label.y for label in sketch.labels}
    for node in report.power.nodes:
        parent = next((n for n in report.power.nodes if n.id == node.parent), None)
        assert parent is None or row_of[parent.label] < row_of[node.label]


def test_what_flows_behind_a_converter_stays_inside_the_drawing() -> None:
    """From 24 V to 3.3 V some seven times as much as flows into it."""
    report = checked(demo("choir-recorder"))
    tree = report.power
    nodes = [replace(node, current_a=[7 * amps for amps in node.current_a]) for node in tree.nodes]
    sketch = DRAWINGS["power"](replace(report, power=replace(tree, nodes=nodes)), SI_UNITS)
    assert sketch is not None
    assert max(x for shape in sketch.shapes for x, _ in shape.points) <= sketch.width


def test_what_has_no_room_is_cut_with_dots() -> None:
    """As much as there is room for, and what fits stays as it is."""
    assert cut("Switch chip", 200) == "Switch chip"
    short = cut("Switch chip of a carrier for two drives", 100)
    assert short.endswith("...")
    assert width_of(short) <= 100
    assert cut("Wide", 5) == ""


def test_names_cannot_be_markup() -> None:
    """A part called like a script is told as it is called."""
    sketch = Sketch("<script>", 10, 10)
    sketch.text(0, 5, "</text><script>")
    assert "<script>" not in sketch_svg(sketch)


def test_what_is_no_character_is_left_out() -> None:
    """In a drawing it would make the file none; a sheet says that something was there."""
    assert written("a\x1b\ud800\ufffe") == "a" + "\N{REPLACEMENT CHARACTER}" * 3
    sketch = Sketch("a\ufffe", 10, 10)
    sketch.text(0, 5, "b\x00")
    assert ElementTree.fromstring(sketch_svg(sketch)).find(".//*[@x]") is not None


@pytest.mark.parametrize(
    "name", ["合唱の録音", "Грабли", "Ωμέγα", "מקהלה", "हिन्दी", "ไทย", "Žluťoučký"]
)
def test_a_name_in_any_script_is_on_the_sheet(name: str) -> None:
    """Letter by letter; what is written from the right may be read back in either order."""
    plan = kit("B06").model_copy(update={"name": name})
    reader = PdfReader(io.BytesIO(sheet_pdf(plan, checked(plan), "a4", DAY)))
    first = reader.pages[0].extract_text().splitlines()[0]
    assert sorted(first.replace(" ", "")) == sorted(name)
    assert "?" not in first
