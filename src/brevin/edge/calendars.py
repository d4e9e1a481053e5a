"""Calendars as files: iCalendar."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from icalendar import Calendar, Event

WHOSE = "-//brevin//rota//EN"


@dataclass(frozen=True)
class Entry:
    """One entry of a calendar. uid: the same in every copy of it, so that a new copy replaces the old; lines: what stands in it."""

    uid: str
    title: str
    starts_at: datetime
    minutes: float
    lines: tuple[str, ...] = ()


def calendar_of(entries: Iterable[Entry], *, name: str, made_at: datetime) -> bytes:
    """Entries as a calendar file, times in UTC. Source: RFC 5545."""
    calendar = Calendar()
    calendar.add("prodid", WHOSE)
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    for entry in entries:
        event = Event()
        event.add("uid", entry.uid)
        event.add("dtstamp", made_at.astimezone(UTC))
        event.add("summary", entry.title)
        event.add("dtstart", entry.starts_at.astimezone(UTC))
        event.add("dtend", (entry.starts_at + timedelta(minutes=entry.minutes)).astimezone(UTC))
        if entry.lines:
            event.add("description", "\n".join(entry.lines))
        calendar.add_component(event)
    written: bytes = calendar.to_ical()
    return written
