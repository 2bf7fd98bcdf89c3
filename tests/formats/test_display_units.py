"""Texts in other units: figures are converted, words and names stay letter for letter."""

from __future__ import annotations

import csv
import io
import json
import re
from collections.abc import Iterator
from datetime import date
from pathlib import Path
from xml.etree import ElementTree

import pint
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from icalendar import Calendar

from cobblewort.core.errors import InputError
from cobblewort.core.text import NO_BREAK, Figure, Text, as_text, joined, say
from cobblewort.core.verdict.report import Report
from cobblewort.formats.calendar import maintenance_ics
from cobblewort.formats.display_units import ALL_UNITS, SI_UNITS, DisplayUnits, units_from
from cobblewort.formats.drawings import DRAWINGS
from cobblewort.formats.kit_list import kit_csv, kit_markdown
from cobblewort.formats.sketch import sketch_svg
from cobblewort.formats.text import report_text
from tests.kits import checked, demo
from tests.sentences.gather import of_demo, texts_of_rules

CASES = json.loads((Path(__file__).parent / "text_cases.json").read_text(encoding="utf-8"))
ODD_NAMES = (
    "Owl 30 mm box, version 1.2",
    "Hush 40 mm v2.5",
    "PCIe 3.0 at 5 °C",
    "50 % {slot} \"x\" 'y'",
    "\u202eright to left\u202c",
    "🐦 3.3 V",
    "3,5 in / 12.5 mm",
)
NAMES = st.one_of(st.sampled_from(ODD_NAMES), st.text(min_size=1, max_size=60))


def _figures(text: Text) -> Iterator[Figure]:
    yield from (part for part in text.parts if isinstance(part, Figure))


def _read(text: str) -> str:
    return text.replace(NO_BREAK, " ")


@pytest.mark.parametrize("case", CASES, ids=lambda case: str(case["parts"])[:40])
def test_each_case_reads_as_on_the_page(case: dict[str, object]) -> None:
    """The page is held to the same table (`web/src/ui/text.test.ts`)."""
    parts = [part if isinstance(part, str) else Figure(**part) for part in case["parts"]]  # type: ignore[attr-defined, arg-type]
    for choice, expected in case["shown"].items():  # type: ignore[attr-defined]
        assert _read(units_from(choice.split()).text(joined(parts, ""))) == expected


@given(name=NAMES, value=st.floats(-300, 5000), decimals=st.integers(0, 3))
@settings(max_examples=150, deadline=None)
def test_a_name_stays_letter_for_letter(name: str, value: float, decimals: int) -> None:
    """Whatever stands in it, in all eight choices of units; and the figure beside it is told."""
    for units in ALL_UNITS:
        for unit in ("°C", "mm", "A", "%"):
            figure = Figure(value, unit, decimals)
            told = units.text(say("{name} reaches {figure}.", name=name, figure=figure))
            assert told == f"{name} reaches {units.figure(figure)}."


def _all_texts() -> list[Text]:
    demo_texts = [
        finding.sentence
        for plan in ("choir-recorder", "moss-cabinet", "bat-recorder")
        for finding in checked(demo(plan), 16).findings
    ]
    return [*demo_texts, *texts_of_rules()]


def test_every_figure_is_the_one_that_a_general_library_works_out() -> None:
    """Of all sentences, by pint; to a difference no 32 is added (NIST SP 811)."""
    registry = pint.UnitRegistry(autoconvert_offset_to_baseunit=True)
    units = DisplayUnits("F", "in", "comma")
    seen = {"°C": 0, "mm": 0, "difference": 0}
    for text in _all_texts():
        for figure in _figures(text):
            if figure.unit == "°C":
                offset = "delta_" if figure.is_difference else ""
                told = registry.Quantity(figure.value, f"{offset}degC").to(f"{offset}degF")
                expected, decimals, unit = told.magnitude, figure.decimals, "°F"
                seen["difference" if figure.is_difference else "°C"] += 1
            elif figure.unit == "mm":
                told = registry.Quantity(figure.value, "mm").to("inch")
                expected, decimals, unit = told.magnitude, figure.decimals + 2, "in"
                seen["mm"] += 1
            else:
                continue
            shown = units.figure(figure)
            number, _, its_unit = shown.partition(NO_BREAK)
            assert its_unit == (unit if figure.has_unit else "")
            found = float(number.replace(",", ".").replace("−", "-"))
            assert found == pytest.approx(expected, abs=0.5001 * 10**-decimals)
    assert all(count > 5 for count in seen.values()), seen


def test_a_unit_never_parts_from_its_number() -> None:
    """A space that does not break stands before each."""
    for text in _all_texts():
        for figure in _figures(text):
            assert not re.search(r"\d ", SI_UNITS.figure(figure))


NAME = "Owl 30 mm box 1.2, 5 °C"


def _named() -> Report:
    return checked(demo("choir-recorder").model_copy(update={"name": NAME}), 1)


@pytest.mark.parametrize("units", ALL_UNITS, ids=str)
def test_a_plan_keeps_its_name_on_all_that_leaves(units: DisplayUnits) -> None:
    """Markdown, text, drawings; CSV and calendar, which have no units of a reader."""
    report = _named()
    assert NAME in kit_markdown(report, units).replace("\\", "")
    assert NAME in report_text(report, units=units)
    for draw in DRAWINGS.values():
        sketch = draw(report, units)
        assert sketch is not None
        assert ElementTree.fromstring(sketch_svg(sketch)) is not None
    rows = list(csv.reader(io.StringIO(kit_csv(report))))
    assert len({len(row) for row in rows}) == 1
    events = Calendar.from_ical(
        maintenance_ics("p", NAME, report.lifetime.maintenance, date(2026, 1, 1))
    )
    assert all(NAME in event["SUMMARY"] for event in events.walk("VEVENT"))


def test_units_are_named_and_others_refused() -> None:
    """One by one; what is not named stays."""
    assert units_from(["F"]) == DisplayUnits("F", "mm", "point")
    assert units_from(["in", "comma"], DisplayUnits("F")) == DisplayUnits("F", "in", "comma")
    with pytest.raises(InputError, match="kelvin"):
        units_from(["kelvin"])


def test_a_figure_cannot_be_lost_in_an_f_string() -> None:
    """It says so when the sentence is made, not when somebody reads °C where °F were wanted."""
    with pytest.raises(TypeError, match="slot of `say`"):
        f"{Figure(3, 'A')}"
    with pytest.raises(TypeError, match="slot of `say`"):
        f"{as_text('words')}"
    with pytest.raises(ValueError, match="no slot"):
        say("nothing", name="x")
    assert [name for name, _ in of_demo()]
