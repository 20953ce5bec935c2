"""Days of a job as an iCalendar file (RFC 5545): whole days, identities that stay."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta

from icalendar import Calendar, Event


@dataclass(frozen=True, slots=True)
class CalendarDay:
    """An entry of whole days, the last included; ``id`` stays whatever becomes of it."""

    id: str
    words: str
    told: str
    from_day: date
    to_day: date
    yearly: bool = False


def calendar_text(days: Iterable[CalendarDay], written: date, revision: int) -> str:
    """Return entries as the text of a file; a later revision takes the place of an earlier one."""
    calendar = Calendar()
    calendar.add("prodid", "-//Ridge Tally//days of a job//EN")
    calendar.add("version", "2.0")
    for one in days:
        event = Event()
        event.add("uid", f"{one.id}@ridge-tally")
        event.add("dtstamp", datetime.combine(written, time(), UTC))
        event.add("sequence", revision)
        event.add("dtstart", one.from_day)
        # An end of whole days is the day after the last.
        event.add("dtend", one.to_day + timedelta(days=1))
        event.add("summary", one.words)
        if one.told:
            event.add("description", one.told)
        if one.yearly:
            event.add("rrule", {"freq": "yearly"})
        calendar.add_component(event)
    text: str = calendar.to_ical().decode()
    return text
