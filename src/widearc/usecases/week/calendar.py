"""A client's week as an iCalendar file."""

from __future__ import annotations

from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

from icalendar import Calendar, Event

from widearc.core.exercises import EXERCISES
from widearc.usecases.week.coverage import Day, WeekView
from widearc.words import tr

MIME = "text/calendar"


def calendar_of(view: WeekView, zone: str, *, now: str, address: Callable[[Day], str]) -> bytes:
    """Return the days of a week as an iCalendar file: when, where, what; the same day keeps its
    name, so that a calendar that takes it in again changes the entry. address: of a day's page.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Wide Arc//week//EN")
    calendar.add("version", "2.0")
    where = ZoneInfo(zone) if zone else UTC
    for day in view.days:
        if not day.date:
            continue
        starts = datetime.fromisoformat(f"{day.date}T{day.row.starts_at}").replace(tzinfo=where)
        event = Event()
        event.add("uid", f"wide-arc-day-{day.row.id}@{view.week.id}")
        event.add("dtstamp", datetime.fromisoformat(now).astimezone(UTC))
        event.add("dtstart", starts)
        event.add("dtend", starts + timedelta(minutes=max(5.0, round(day.minutes))))
        who = view.client.name if view.client is not None else ""
        event.add("summary", f"{who}: {len(day.slots)} × {tr('lift')}" if who else tr("Week"))
        event.add("location", day.place)
        lines = [
            f"{tr(EXERCISES[s.row.exercise].name)}, {_dose(s.row.sets_low, s.row.sets_high)} × "
            f"{_dose(s.row.reps_low, s.row.reps_high)}"
            for s in day.slots
        ]
        event.add("description", "\n".join(lines))
        event.add("url", address(day))
        calendar.add_component(event)
    return bytes(calendar.to_ical())


def _dose(low: int, high: int) -> str:
    return str(low) if low == high else f"{low}–{high}"
