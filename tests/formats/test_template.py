"""The template, read back with the libraries that others read it with."""

import io
from collections.abc import Sequence
from math import hypot
from typing import Any
from xml.etree import ElementTree

import ezdxf
import pytest
from ezdxf.document import Drawing
from pypdf import PdfReader

from cobblewort.core.aspects.fit.template import CLEARANCE_MM, Panel, template
from cobblewort.core.errors import InputError
from cobblewort.core.judging.kit import Kit
from cobblewort.core.plans.plan import FloorPosition, Plan
from cobblewort.formats.shipped import shipped_parts
from cobblewort.formats.template import template_dxf, template_pdf, template_svg
from tests.kits import checked, kit, shipped

WIRED = [{"id": "net", "text": "by wire", "function": "ethernet"}]
PLAN = kit("B06", "S01", "M02", "K03", "E15", "X06", requirements=WIRED)
POINTS_PER_MM = 72 / 25.4


def panels_of(plan: Plan) -> list[Panel]:
    """The template of a plan."""
    return template(Kit(plan, shipped(), 1))


def read_dxf(panels: list[Panel]) -> Drawing:
    """The drawing as ezdxf reads it."""
    return ezdxf.read(io.StringIO(template_dxf(panels, "Test")))


def test_holes_lie_as_the_pattern_says() -> None:
    """58 x 49 mm between centres, in the middle of the board's place; 2.7 mm for M2.5 (ISO 273,
    fine series, from memory).
    """
    floor = panels_of(PLAN)[0]
    xs = sorted({hole.x_mm for hole in floor.holes})
    ys = sorted({hole.y_mm for hole in floor.holes})
    assert (xs[1] - xs[0], ys[1] - ys[0]) == (58, 49)
    assert {hole.diameter_mm for hole in floor.holes} == {2.7}
    (board,) = floor.guides
    assert xs[0] - board.x_mm == pytest.approx(3.5)
    assert board.x_mm + board.width_mm + board.x_mm == pytest.approx(floor.width_mm)


def test_walls_have_an_opening_for_each_socket_in_use_and_no_other() -> None:
    """Supply at the front, one USB socket and the network at the right, the card at the left."""
    walls = {panel.name: [c.label for c in panel.cutouts] for panel in panels_of(PLAN)[1:]}
    assert walls == {
        "Right wall": ["USB 2 port", "Ethernet port"],
        "Left wall": ["card slot"],
        "Front wall": ["power input"],
    }
    assert all(panel.holds(cut) for panel in panels_of(PLAN) for cut in panel.cutouts)


def test_an_opening_takes_the_plug_and_the_saw() -> None:
    """The supply's body of 12 x 6.5 mm and half a millimetre on each side; its middle at the
    socket's: 6 mm of floor and 1.4 mm of board below z = 0, then 1.6 mm up.
    """
    front = next(p for p in panels_of(PLAN) if p.name == "Front wall")
    (cut,) = front.cutouts
    assert (cut.width_mm, cut.height_mm) == (12 + 2 * CLEARANCE_MM, 6.5 + 2 * CLEARANCE_MM)
    assert cut.y_mm + cut.height_mm / 2 == pytest.approx(6 + 1.4 + 1.6)
    assert cut.x_mm + cut.width_mm / 2 == pytest.approx((96 - 86) / 2 + 11.5)


def test_a_wall_seen_from_outside_is_the_other_way_round_on_the_left() -> None:
    """Y = 28 mm on the board lies 28 mm from the front edge, so from the right seen from there."""
    left = next(p for p in panels_of(PLAN) if p.name == "Left wall")
    (cut,) = left.cutouts
    assert cut.x_mm + cut.width_mm / 2 == pytest.approx(66 - (5 + 28))


def test_stacked_sockets_are_cut_as_one() -> None:
    """Two plugs above each other, 7.4 mm apart, want one hole."""
    plan = kit("B06", "S01", "M02", "E15", "X06", "X07", "X05", "X10")
    right = next(p for p in panels_of(plan) if p.name == "Right wall")
    assert len(right.cutouts) < 4
    for one in right.cutouts:
        for other in right.cutouts:
            apart = one is other or one.x_mm + one.width_mm <= other.x_mm
            assert apart or other.x_mm + other.width_mm <= one.x_mm


def test_the_dxf_is_sound_and_in_millimetres() -> None:
    """Ezdxf's own audit finds nothing, and every cut is there at its size."""
    panels = panels_of(PLAN)
    document = read_dxf(panels)
    audit = document.audit()
    assert not audit.errors
    assert not audit.fixes
    assert document.units == ezdxf.units.MM
    space = document.modelspace()
    circles = list(space.query('CIRCLE[layer=="HOLES"]'))
    assert [c.dxf.radius for c in circles] == [1.35] * 4
    xs = sorted({round(c.dxf.center.x, 6) for c in circles})
    assert xs[1] - xs[0] == pytest.approx(58)
    sizes = []
    for line in space.query('LWPOLYLINE[layer=="CUT"]'):
        assert line.closed
        points = line.get_points("xy")
        width = max(p[0] for p in points) - min(p[0] for p in points)
        height = max(p[1] for p in points) - min(p[1] for p in points)
        sizes.append((round(width, 6), round(height, 6)))
    wanted = [(c.width_mm, round(c.height_mm, 6)) for p in panels for c in p.cutouts]
    assert sorted(sizes) == sorted(wanted)


def test_the_pdf_is_a_sheet_at_full_size_with_its_check_line() -> None:
    """A4 by ISO 216 is 210 x 297 mm; the line of 100 mm is 283.46 points (72 to the inch)."""
    page = PdfReader(io.BytesIO(template_pdf(panels_of(PLAN), "Test"))).pages[0]
    assert page.mediabox.width / POINTS_PER_MM == pytest.approx(210, abs=0.1)
    assert page.mediabox.height / POINTS_PER_MM == pytest.approx(297, abs=0.1)
    text = page.extract_text()
    assert "These lines are 100 mm long" in text
    assert "power input: 13.0\u00a0× 7.5\u00a0mm" in text
    strokes = page.get_contents()
    assert strokes is not None
    lines = strokes.get_data().decode("latin-1").splitlines()
    along, across = [], []
    for line in lines:
        words = line.split()
        if len(words) == 7 and words[2] == "m" and words[5:] == ["l", "S"]:
            along.append(abs(float(words[3]) - float(words[0])))
            across.append(abs(float(words[4]) - float(words[1])))
    for lengths in (along, across):
        assert any(length == pytest.approx(100 * POINTS_PER_MM, abs=0.02) for length in lengths)


def pages_of(plan: Plan, paper: str = "a4") -> list[str]:
    """What stands on each sheet of a template."""
    reader = PdfReader(io.BytesIO(template_pdf(panels_of(plan), "T", paper)))
    for page in reader.pages:
        assert page.mediabox.height / POINTS_PER_MM < 300
    return [page.extract_text() for page in reader.pages]


def test_what_is_larger_than_a_sheet_goes_over_several() -> None:
    """All on one where it fits; each panel on its own; a floor of 430 x 200 mm over three in a row,
    every sheet with its lines to check and its place.
    """
    assert len(pages_of(PLAN)) == 1
    tower = kit("B06", "S01", "M02", "E11", requirements=WIRED)
    assert len(pages_of(tower)) > 1
    tray = pages_of(kit("B10", "S03", "M02", "E14"))
    floors = [text for text in tray if "column" in text]
    assert any("column 3 of 3, row 1 of 1 from below" in text for text in floors)
    assert all("These lines are 100 mm long" in text for text in tray)
    assert len(pages_of(tower, "letter")) > 1


def test_the_svg_is_in_millimetres() -> None:
    """Width and height carry the unit, and the view box has one unit a millimetre."""
    root = ElementTree.fromstring(template_svg(panels_of(PLAN), "Owls & <moths>"))
    box = [float(x) for x in root.attrib["viewBox"].split()]
    assert root.attrib["width"] == f"{box[2]:g}mm"
    assert root.attrib["height"] == f"{box[3]:g}mm"
    space = "{http://www.w3.org/2000/svg}"
    (check,) = (e for e in root.iter(f"{space}line") if e.attrib["class"] == "check")
    assert float(check.attrib["x2"]) - float(check.attrib["x1"]) == 100
    assert len(list(root.iter(f"{space}circle"))) == 4
    assert root.find(f"{space}title") is not None
    for rect in root.iter(f"{space}rect"):
        assert float(rect.attrib["x"]) + float(rect.attrib["width"]) <= box[2]
        assert float(rect.attrib["y"]) >= 0


@pytest.mark.parametrize(
    ("parts", "words"),
    [((), "needs a board"), (("B06",), "needs a case"), (("any-middle-card",), "needs a case")],
)
def test_what_is_missing_is_told(parts: tuple[str, ...], words: str) -> None:
    """In a sentence that says what to do."""
    with pytest.raises(InputError, match=words):
        panels_of(kit(*parts))


def test_a_cut_that_leaves_the_wall_is_said_to() -> None:
    """17.5 mm from the lower socket to the top of the upper plug do not go into a wall of 12 mm."""
    low = shipped().extended(
        [
            {
                **shipped().document(shipped().part("E15")),
                "case": {"inner_height_mm": 12, "max_above_mm": 8, "max_below_mm": 3},
            }
        ]
    )
    kit_of_low = Kit(kit("B06", "S01", "M02", "E15", "2xX07", "2xX06"), low, 1)
    panels = template(kit_of_low)
    right = next(panel for panel in panels if panel.name == "Right wall")
    assert not all(right.holds(cut) for cut in right.cutouts)
    assert "reaches beyond the wall" in template_svg(panels, "low")


def test_the_report_says_why_there_is_no_template() -> None:
    """The same sentence that the file would be refused with; empty where there is one."""
    assert checked(PLAN).fit.template_why_not == ""
    assert "needs a case" in checked(kit("B06", "S01", "M02")).fit.template_why_not


WIDE = {
    "id": "E90",
    "kind": "case",
    "part_class": "self_made_shell",
    "maker": "m",
    "model": "Wide",
    "case": {
        "inner_length_mm": 200,
        "inner_width_mm": 160,
        "inner_height_mm": 60,
        "max_above_mm": 40,
        "max_below_mm": 6,
        "any_holes": True,
        "self_made": True,
    },
}


def panels_in_wide(
    *parts: str, more: Sequence[dict[str, Any]] = (), **fields: object
) -> list[Panel]:
    """The template of a kit in a shell far wider than its board."""
    catalogue = shipped().extended([WIDE, *more])
    return template(Kit(kit("E90", "B06", "S01", "M02", *parts, **fields), catalogue, 1))


def test_what_lies_far_from_its_wall_leaves_by_a_hole_for_its_lead() -> None:
    """A board in the middle, 50 mm from every wall: no plug reaches through, and the supply's of
    12 x 6.5 mm passes a hole of its diagonal; the card is reached with the lid off. Moved to the
    front wall the inlet has its opening again.
    """
    floor, free = panels_in_wide()
    assert floor.seen == "from above"
    ((label, across),) = ((hole.label, hole.diameter_mm) for hole in free.holes)
    assert label == "cable of the power input, with its plug"
    assert across == pytest.approx((12**2 + 6.5**2) ** 0.5 + 2 * CLEARANCE_MM)
    wired = [hole.label for hole in panels_in_wide(requirements=WIRED)[-1].holes]
    assert "cable of the Ethernet port, with its plug" in wired
    catalogue = shipped().extended([WIDE])
    plan = kit("E90", "B06", "S01", "M02")
    lines = [
        line.model_copy(update={"position": FloorPosition(x_mm=60, y_mm=3)})
        if line.part == "B06"
        else line
        for line in plan.lines
    ]
    moved = template(Kit(plan.model_copy(update={"lines": tuple(lines)}), catalogue, 1))
    assert [panel.name for panel in moved[1:]] == ["Front wall"]


def test_lenses_sensors_lamps_and_buttons_have_holes_to_place() -> None:
    """A camera inside its window, one outside a slot for its cable, a sensor outside a hole for
    its wires, a lamp of 5 mm and a button of 12 mm theirs; none over another, all on the sheet.
    """
    wired = [
        {"id": f"lamp-{pin}", "kind": "led", "label": f"lamp {pin}", "pin": pin}
        for pin in (7, 11, 13, 15, 16, 18)
    ]
    wired.append({"id": "stop", "kind": "button", "label": "stop", "pin": 22})
    eyebright = next(part for part in shipped_parts() if part["model"] == "Eyebright 8")
    eye = {**eyebright, "id": "X90", "model": "Eye", "inside": True}
    free = panels_in_wide(eyebright["id"], "X90", "X19", more=[eye], wired=wired)[-1]
    assert free.seen == ""
    across = {hole.label.partition(",")[0]: hole.diameter_mm for hole in free.holes}
    assert across["lamp 7"] == 5.2
    assert across["stop"] == 12.2
    assert across["wires of Dapple"] == 6
    assert across["lens of Eye"] == 10
    assert [cut.label for cut in free.cutouts] == ["cable of Eyebright 8"]
    for one in free.holes:
        half = one.diameter_mm / 2
        assert half < one.x_mm < free.width_mm - half
        assert half < one.y_mm < free.height_mm - half
        for other in free.holes:
            apart = hypot(one.x_mm - other.x_mm, one.y_mm - other.y_mm)
            assert one is other or apart > half + other.diameter_mm / 2
    text = PdfReader(io.BytesIO(template_pdf([free], "T"))).pages[0].extract_text()
    assert "lamp 7: diameter 5.2\u00a0mm" in text
    assert "each at its size" in text
    assert "lens of" in template_svg([free], "T")


def test_without_its_package_dxf_says_what_to_install(monkeypatch: pytest.MonkeyPatch) -> None:
    """It is an extra: 26 MB that a small board does without."""
    monkeypatch.setattr("cobblewort.formats.template.find_spec", lambda _: None)
    with pytest.raises(InputError, match=r"pip install 'cobblewort\[dxf\]'"):
        template_dxf([], "Test")


def test_open_plates_have_no_walls_to_cut() -> None:
    """Their floor alone; a closed case beside it has its openings."""
    closed = [panel.name for panel in panels_of(PLAN)]
    plates = [
        panel.name for panel in panels_of(kit("B06", "S01", "M02", "E01", requirements=WIRED))
    ]
    assert len(closed) == 4
    assert plates == ["Floor of Trestle"]
