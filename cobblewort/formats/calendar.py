"""What a kit wants of its owner as an iCalendar file (RFC 5545), for any calendar."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import UTC, date, datetime, time, timedelta
from uuid import NAMESPACE_URL, uuid5

from cobblewort.core.aspects.lifetime.maintenance import Maintenance
from cobblewort.formats.sketch import written

_DAYS_A_MONTH, _MONTHS_A_YEAR = 30, 12


def maintenance_ics(
    plan_id: str, name: str, maintenance: Iterable[Maintenance], begins: date
) -> bytes:
    """All-day events from a day on, each with the rule by which it comes round.

    Parameters
    ----------
    plan_id : str
        Of the plan, as two may have one name: events are known again by it, so that a newer file
        replaces them.
    name : str
        What the kit is called.
    maintenance : iterable of Upkeep
        Things to do.
    begins : date
        The day on which the kit is put into use.
    """
    from icalendar import (  # takes a tenth of a second that most commands do not need
        Calendar,
        Event,
    )

    calendar = Calendar()
    calendar.add("prodid", "-//Cobblewort//maintenance//EN")
    calendar.add("version", "2.0")
    name = written(name)
    calendar.add("x-wr-calname", name)
    stamp = datetime.combine(begins, time(), UTC)
    for entry in maintenance:
        event = Event()
        known_by = uuid5(NAMESPACE_URL, f"cobblewort:{plan_id}:{entry.id}")
        event.add("uid", f"{known_by}@cobblewort")
        event.add("dtstamp", stamp)
        event.add("dtstart", begins + timedelta(days=entry.every_days))
        event.add("summary", f"{name}: {entry.text}")
        event.add("transp", "TRANSPARENT")
        if not entry.once:
            event.add("rrule", _rule(entry.every_days))
        calendar.add_component(event)
    content: bytes = calendar.to_ical()
    return content


def _rule(days: int) -> dict[str, str | int]:
    """How it comes round: in days, or in the months and years that people would say."""
    months, rest = divmod(days, _DAYS_A_MONTH)
    if rest:
        return {"freq": "daily", "interval": days}
    if months % _MONTHS_A_YEAR == 0:
        return {"freq": "yearly", "interval": months // _MONTHS_A_YEAR}
    return {"freq": "monthly", "interval": months}
