"""A plan as a calendar (iCalendar, RFC 5545): one all-day event for each session."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from icalendar import Calendar, Event


@dataclass(frozen=True, slots=True)
class Appointment:
    """A planned session: a number that stays, its revision, its day, title and text."""

    number: int
    revision: int
    day: date
    title: str
    text: str
    minutes: float


def calendar(athlete: str, appointments: Iterable[Appointment], stamp: datetime) -> bytes:
    """The appointments as an iCalendar file. ``stamp`` is when it was made."""
    made = Calendar()
    made.add("prodid", "-//Dial Back//plan//EN")
    made.add("version", "2.0")
    made.add("x-wr-calname", f"{athlete}, training")
    for appointment in appointments:
        event = Event()
        event.add("uid", f"session-{appointment.number}@dialback.invalid")
        event.add("sequence", appointment.revision)
        event.add("dtstamp", stamp)
        event.add("dtstart", appointment.day)
        event.add("dtend", appointment.day + timedelta(days=1))
        event.add("summary", appointment.title or "Training")
        event.add(
            "description", f"{appointment.text}\nAbout {appointment.minutes:.0f} min.".strip()
        )
        # A session in the calendar does not make the day busy.
        event.add("transp", "TRANSPARENT")
        made.add_component(event)
    return bytes(made.to_ical())
