"""The calendar of upkeep, read back by the library that every calendar's rules are tested with."""

from __future__ import annotations

from datetime import date

import pytest
from icalendar import Calendar

from cobblewort.core.aspects.lifetime.maintenance import Maintenance
from cobblewort.formats.calendar import maintenance_ics
from tests.kits import checked, demo

BEGINS = date(2026, 3, 14)
ENTRIES = [
    Maintenance("updates", "Install updates; start it anew", 30),
    Maintenance("copy", "Copy: the vestry, upstairs", 7),
    Maintenance("image", "Make an image", 360),
    Maintenance("change", "Change Plain 32", 500, once=True),
]


def test_it_is_read_back_whole() -> None:
    """RFC 5545: PRODID, VERSION, UID and DTSTAMP, CRLF, lines of at most 75 octets."""
    content = maintenance_ics("p", "Bats; the tower", ENTRIES, BEGINS)
    calendar = Calendar.from_ical(content)
    events = {str(event["summary"]): event for event in calendar.walk("VEVENT")}
    assert (calendar["version"], bool(calendar["prodid"])) == ("2.0", True)
    assert set(events) == {f"Bats; the tower: {entry.text}" for entry in ENTRIES}
    assert all(event["uid"] and event["dtstamp"] for event in events.values())
    assert content.count(b"\n") == content.count(b"\r\n")
    assert max(len(line) for line in content.split(b"\r\n")) <= 75


@pytest.mark.parametrize(
    ("entry", "first", "rule"),
    [
        (ENTRIES[0], date(2026, 4, 13), {"FREQ": ["MONTHLY"], "INTERVAL": [1]}),
        (ENTRIES[1], date(2026, 3, 21), {"FREQ": ["DAILY"], "INTERVAL": [7]}),
        (ENTRIES[2], date(2027, 3, 9), {"FREQ": ["YEARLY"], "INTERVAL": [1]}),
        (ENTRIES[3], date(2027, 7, 27), None),
    ],
)
def test_it_comes_round(
    entry: Maintenance, first: date, rule: dict[str, list[object]] | None
) -> None:
    """Days, months or years as people would say it; what is done once comes once."""
    (event,) = Calendar.from_ical(maintenance_ics("p", "Kit", [entry], BEGINS)).walk("VEVENT")
    assert event["dtstart"].dt == first
    assert (dict(event["rrule"]) if "rrule" in event else None) == rule


def test_a_newer_file_replaces_the_events_of_an_older_one() -> None:
    """The same kit and thing have the same UID on whichever day it is written."""

    def uids(day: date) -> list[str]:
        calendar = Calendar.from_ical(maintenance_ics("p", "Kit", ENTRIES, day))
        return [str(event["uid"]) for event in calendar.walk("VEVENT")]

    assert uids(BEGINS) == uids(date(2027, 1, 1))
    assert len(set(uids(BEGINS))) == len(ENTRIES)


def test_a_demo_plan_has_one() -> None:
    """With the copies that its plan names."""
    content = maintenance_ics(
        "p", "Bats", checked(demo("bat-recorder")).lifetime.maintenance, BEGINS
    )
    assert b"vestry" in content
