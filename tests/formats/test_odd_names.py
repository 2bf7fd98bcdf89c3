"""Names that are meant to do harm, in everything that goes out, read back by general readers."""

from __future__ import annotations

import csv
import io
import json
import re
from datetime import date
from xml.etree import ElementTree

import pytest
from icalendar import Calendar
from pypdf import PdfReader

from cobblewort.core.aspects.lifetime.maintenance import Maintenance
from cobblewort.core.plans.steps import PlanFile
from cobblewort.formats.calendar import maintenance_ics
from cobblewort.formats.display_units import SI_UNITS
from cobblewort.formats.drawings import DRAWINGS
from cobblewort.formats.kit_list import kit_csv, kit_markdown, kit_text
from cobblewort.formats.packs import pack_csv, pack_json, pack_of_csv
from cobblewort.formats.plan_files import plan_text, plans_from, plans_text
from cobblewort.formats.sheet import sheet_pdf
from cobblewort.formats.sketch import sketch_svg
from tests.kits import checked, kit, with_part

NAMES = (
    "=HYPERLINK(1)",
    "＝1+1",
    "-2+3",
    "@sum",
    "a,b;c:d\\n",
    "quote \" and ' too",
    "<script>alert(1)</script>",
    "]]> &amp; <!--",
    "[x](javascript:y) `z` *w*",
    "see https://example.org or www.example.org",
    "a\ufffeb\uffff",
    "\U0001f600",
    "合唱の録音",
    "x" * 80,
)


@pytest.mark.parametrize("name", NAMES)
def test_every_format_says_the_name_and_nothing_more(name: str) -> None:
    """No cell is a formula, no text is markup, every file is one of its kind."""
    part = {"id": "X90", "kind": "device", "part_class": "usb2_device", "maker": name}
    catalogue = with_part(**part, model=name, summary=name, price="5")
    plan = kit("B06", "S01", "M02", "X90").model_copy(update={"name": name})
    report = checked(plan, 1, catalogue)
    rows = list(csv.reader(io.StringIO(kit_csv(report))))
    assert not [c for row in rows for c in row if c.lstrip()[:1] in tuple("=+-@＝＋－＠")]
    assert name in kit_text(report)
    markdown = kit_markdown(report)
    assert not re.search(r"(?<!\\)[<>\[\]*`]", re.sub(r"(?m)^- \[[ x]\]|\*\*", "", markdown))
    assert "https:" not in markdown
    for drawing in DRAWINGS.values():
        sketch = drawing(report, SI_UNITS)
        if sketch is not None:
            svg = ElementTree.fromstring(sketch_svg(sketch))
            assert not [e.tag for e in svg.iter() if e.tag.endswith("script")]
    assert len(PdfReader(io.BytesIO(sheet_pdf(plan, report))).pages) > 0
    (back,) = plans_from(json.loads(plan_text(plan, catalogue)))
    assert back.plan.name == name
    (back,) = plans_from(json.loads(plans_text([PlanFile(plan)], catalogue)))
    assert back.plan.name == name
    document = catalogue.document(catalogue.part("X90"))
    assert json.loads(pack_json([document]))["parts"][0]["model"] == name
    assert pack_of_csv(pack_csv([document]))[0]["model"] == name


@pytest.mark.parametrize("name", NAMES)
def test_a_calendar_holds_the_name_and_ids_of_its_plan(name: str) -> None:
    """RFC 5545, 3.3.11: commas, semicolons and backslashes are escaped; two plans of one name have
    events of their own.
    """
    tasks = [Maintenance("dust", "Clean dust", 360)]
    one, other = (
        Calendar.from_ical(maintenance_ics(plan, name, tasks, date(2026, 3, 1)))
        for plan in ("a", "b")
    )
    shown = name.replace("\ufffe", "\ufffd").replace("\uffff", "\ufffd")
    assert str(one["X-WR-CALNAME"]) == shown
    (event,), (twin,) = one.walk("VEVENT"), other.walk("VEVENT")
    assert str(event["SUMMARY"]) == f"{shown}: Clean dust"
    assert event["UID"] != twin["UID"]
