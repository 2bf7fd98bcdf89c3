"""Cables whose ends have a place in the case."""

import pytest

from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.verdict.report import Report
from tests.core.aspects.fit.test_reach import changed
from tests.kits import checked, kit, margin, shipped, told


def box(inner_length_mm: float) -> Catalogue:
    """The catalogue with a sealed box of this length."""
    case = shipped().document(shipped().part("E04"))["case"]
    return changed("E04", case={**case, "inner_length_mm": inner_length_mm, "inner_width_mm": 200})


@pytest.mark.parametrize(
    ("inner_mm", "needed_mm"), [(120, 175), (300, 265), (370, 300), (372, 301), (400, 315)]
)
def test_a_front_panel_cable(inner_mm: float, needed_mm: float) -> None:
    """By hand: the board of 86 mm in the middle, ports on its right edge, a plug of 22 mm, bends of
    50 mm: L/2 + 43 + 22 + 50. The cable is 300 mm long.
    """
    plan = kit("B10", "S03", "M02", "K05", "C14", "E04")
    report = checked(plan, 1, box(inner_mm))
    found = margin(report, "FIT-42:C14#1")
    assert found.limit == pytest.approx(needed_mm)
    assert found.severity == ("problem" if needed_mm > 300 else "ok")
    assert bool(told(report, "FIT-42")) == (needed_mm > 300)


def test_a_longer_cable_is_offered() -> None:
    """The sentence tells both lengths, and a fix swaps the cable."""
    longer = {
        **shipped().document(shipped().part("C14")),
        "id": "doorstep-long",
        "model": "Doorstep Long",
        "plugs": {"in": {"reach_m": 0.6, "cable_ohm": 0.2}},
    }
    catalogue = box(400).extended([longer])
    plan = kit("B10", "S03", "M02", "K05", "C14", "E04")
    found = told(checked(plan, 1, catalogue), "FIT-42")[0]
    assert "is 300 mm long" in found.sentence.text
    assert "needs 315 mm" in found.sentence.text
    titles = [fix.title.text for fix in propose_fixes(plan, catalogue, found.id)]
    assert "Swap Doorstep A for Doorstep Long" in titles


def test_a_cable_of_unknown_length_or_without_a_case_is_silent() -> None:
    """Nothing is said of a length that nobody states, nor of a front that is not there."""
    plan = kit("B10", "S03", "M02", "K05", "any-usb-a-front", "E04")
    assert margin_ids(checked(plan, 1, box(400))) == []
    assert margin_ids(checked(kit("B10", "S03", "M02", "C14"))) == []


def margin_ids(report: Report) -> list[str]:
    """Margins of the rule."""
    return [m.id for m in report.margins if m.id.startswith("FIT-42")]
