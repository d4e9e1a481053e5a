"""Calendars as others read them: times in UTC, text that survives, the same entry again under the same name."""

from datetime import UTC, datetime, timedelta, timezone

import pytest
from icalendar import Calendar

from brevin.edge.calendars import Entry, calendar_of

MADE = datetime(2026, 11, 2, 7, 0, tzinfo=UTC)
EAST = timezone(timedelta(hours=2))


def entry(**more) -> Entry:
    known = {"uid": "lesson-1@here", "title": "Tuesday", "starts_at": datetime(2026, 11, 3, 10, 0, tzinfo=EAST), "minutes": 40.0}
    return Entry(**(known | more))


def read(*entries: Entry) -> list:
    return list(Calendar.from_ical(calendar_of(entries, name="Made-up winds", made_at=MADE)).walk("VEVENT"))


def test_an_entry_begins_and_ends_at_the_same_moment_in_every_zone() -> None:
    (event,) = read(entry())
    assert event["dtstart"].dt == datetime(2026, 11, 3, 8, 0, tzinfo=UTC) and event["dtend"].dt - event["dtstart"].dt == timedelta(minutes=40)


@pytest.mark.parametrize("title", ["Scales; then, the tune", "Ünïcode", 'a "quoted" one', "two\nlines", "x" * 300])
def test_titles_survive_whatever_stands_in_them(title: str) -> None:
    (event,) = read(entry(title=title))
    assert str(event["summary"]) == title


def test_who_sits_when_is_told_line_by_line_and_nothing_where_nobody_sits() -> None:
    told, quiet = read(entry(lines=("10:04 Ada, clarinet", "10:06 Bo, horn")), entry(uid="lesson-2@here"))
    assert str(told["description"]).splitlines() == ["10:04 Ada, clarinet", "10:06 Bo, horn"] and "description" not in quiet


def test_a_copy_replaces_the_one_before() -> None:
    assert read(entry())[0]["uid"] == read(entry(title="Moved"))[0]["uid"]
    whole = calendar_of([], name="Made-up winds", made_at=MADE).decode()
    assert whole.startswith("BEGIN:VCALENDAR") and "VERSION:2.0" in whole and "X-WR-CALNAME:Made-up winds" in whole
