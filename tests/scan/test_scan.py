"""A sample of the scan; the whole is `make scan`."""

import re
from datetime import date
from itertools import islice

import pytest
from icalendar import Calendar
from pydantic_core import to_json

from cobblewort.formats import drawings
from cobblewort.formats.calendar import maintenance_ics
from cobblewort.formats.display_units import SI_UNITS
from tests.kits import checked
from tests.scan.kits import faults, plans
from tests.scan.transfers import any_plan

EVERY = 101
"""A prime, so that the sample runs through all boards, cases, coolers and drives."""
ODD = re.compile(r"\b(nan|inf|None)\b|\de[+-]\d\d|\d\.\d{5,}|[][{}]|  | ,|\.\.|\(\)|\b0\.?0* min\b")


@pytest.mark.parametrize("first", range(0, EVERY, 26))
def test_nothing_is_told_that_nobody_would_believe(first: int) -> None:
    """Nothing that slows itself above its point, nothing above 130 °C, but where it is told so."""
    for plan in islice(plans(), first, None, EVERY * 4):
        assert list(faults(plan)) == [], [line.part for line in plan.lines]


@pytest.mark.parametrize("first", range(4))
def test_any_flows_over_any_kit_are_judged_drawn_and_told(first: int) -> None:
    """Every figure is finite, each drawing and the calendar come about, and no sentence has a
    power of ten, a name of the program's own or a hole in it.
    """
    for seed in range(first, 120, 4):
        report = checked(any_plan(seed), 16 if seed % 3 == 0 else 1)
        assert b"NaN" not in to_json(report, inf_nan_mode="constants"), seed
        assert b"Infinity" not in to_json(report, inf_nan_mode="constants"), seed
        for draw in (
            drawings.data,
            drawings.lifetime,
            drawings.power,
            drawings.heat,
            drawings.money,
        ):
            draw(report, SI_UNITS)
        events = Calendar.from_ical(
            maintenance_ics("p", "any", report.lifetime.maintenance, date(2026, 1, 1))
        )
        assert len(events.walk("VEVENT")) == len(report.lifetime.maintenance), seed
        for finding in report.findings:
            assert not ODD.search(finding.sentence.text), (seed, finding.sentence.text)
