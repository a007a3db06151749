"""Weeks, days and slots: made, moved, copied, taken off; each change can be undone."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import replace
from datetime import date, timedelta

from widearc import store
from widearc.core.coverage import Mend
from widearc.core.errors import InputError, one_of
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.progression.rules import RULES
from widearc.core.progression.start import start_of
from widearc.core.search import Memo
from widearc.core.words import UNSAID, Count, Figure, Said, Term
from widearc.formats import scenario_document
from widearc.store.errors import MissingError
from widearc.usecases.floor.lifts import LiftFacts, facts_of, facts_of_decision
from widearc.usecases.holdings import Holdings
from widearc.words import kept

MOST_SLOTS = 16
MOBILITY_MINUTES = 6.0
KINDS = ("lift", "warm-up", "finisher", "mobility")
USUAL_DAYS = (0, 2, 4)
"""Weekdays that a new week begins with: Monday, Wednesday, Friday."""


def scope(week_id: int) -> str:
    """Return what changes of a week belong to."""
    return f"week:{week_id}"


def monday_of(day: str) -> str:
    """Return the Monday (ISO date) of an ISO date's week. InputError for what is none."""
    try:
        found = date.fromisoformat(day[:10])
    except ValueError:
        raise InputError("monday", day[:20], Said("a day as 2026-11-24")) from None
    return (found - timedelta(days=found.weekday())).isoformat()


def planned_week(
    con: store.Connection, trainer_id: int, client_id: int, monday: str
) -> store.WeekRow | None:
    """Return a client's week, None where none is planned."""
    return store.week_of(con, trainer_id, client_id, monday)


def every_week(con: store.Connection, trainer_id: int) -> tuple[store.WeekRow, ...]:
    """Return every week and template, the newest week first."""
    return store.weeks(con, trainer_id)


def week_row(con: store.Connection, trainer_id: int, week_id: int) -> store.WeekRow:
    """Return a week; MissingError where there is none."""
    found = next((w for w in store.weeks(con, trainer_id) if w.id == week_id), None)
    if found is None:
        raise MissingError(Said("that week does not exist here"))
    return found


def day_row(con: store.Connection, trainer_id: int, day_id: int) -> store.DayRow:
    """Return a day; MissingError where there is none."""
    found = store.day(con, trainer_id, day_id)
    if found is None:
        raise MissingError(Said("that day does not exist here"))
    return found


def slot_row(con: store.Connection, trainer_id: int, slot_id: int) -> store.SlotRow:
    """Return a slot; MissingError where there is none."""
    found = store.slot(con, trainer_id, slot_id)
    if found is None:
        raise MissingError(Said("that slot does not exist here"))
    return found


@store.at_once
def begin_week(
    con: store.Connection, trainer_id: int, client_id: int, monday: str, *, now: str
) -> int:
    """Begin a client's week, empty, or return the one that is there."""
    client = store.client(con, trainer_id, client_id)
    first = monday_of(monday)
    there = store.week_of(con, trainer_id, client_id, first)
    if there is not None:
        return there.id
    words = Said("a week begun")
    with store.recorded(
        con, trainer_id, scope=f"client:{client.id}", kind="week", words=words, now=now
    ):
        return store.add_week(con, trainer_id, store.WeekRow(client_id=client.id, monday=first))


@store.at_once
def add_day(
    con: store.Connection,
    trainer_id: int,
    week_id: int,
    weekday: int,
    place_id: int,
    *,
    now: str,
    starts_at: str = "09:00",
) -> int:
    """Put a day on a week, or say where and when the one that is there is; return its id."""
    week_row(con, trainer_id, week_id)
    store.place(con, trainer_id, place_id)
    if not 0 <= weekday <= 6:
        raise InputError("weekday", weekday, Said("a day of the week"))
    _check_time(starts_at)
    there = next((d for d in store.days_of(con, trainer_id, week_id) if d.weekday == weekday), None)
    words = Said("a day planned")
    with store.recorded(con, trainer_id, scope=scope(week_id), kind="week", words=words, now=now):
        if there is not None:
            changed = replace(there, place_id=place_id, starts_at=starts_at)
            store.change_day(con, trainer_id, changed)
            return there.id
        row = store.DayRow(week_id=week_id, weekday=weekday, place_id=place_id, starts_at=starts_at)
        return store.add_day(con, trainer_id, row)


def _check_time(text: str) -> None:
    hours, _, minutes = text.partition(":")
    fits = len(text) == 5 and hours.isdigit() and minutes.isdigit()
    if not fits or int(hours) > 23 or int(minutes) > 59:
        raise InputError("starts_at", text[:20], Said("a time of day as 09:30"))


@store.at_once
def remove_day(con: store.Connection, trainer_id: int, day_id: int, *, now: str) -> None:
    """Take a day with its slots off its week."""
    row = day_row(con, trainer_id, day_id)
    words = Said("a day taken off")
    with store.recorded(
        con, trainer_id, scope=scope(row.week_id), kind="week", words=words, now=now
    ):
        store.remove_day(con, trainer_id, day_id)


def facts_here(
    con: store.Connection,
    trainer_id: int,
    client_id: int | None,
    place_id: int,
    exercise: str,
    memo: Memo | None = None,
) -> LiftFacts | None:
    """Return an exercise as it would be done: as last time, else as the place sets it up for a
    start; None where it has no curve or the place makes nothing of it. memo: what was found before.
    """
    entry = EXERCISES.get(exercise)
    if entry is None or not entry.has_curve:
        return None
    if client_id is not None:
        done = store.lifts_of_client(con, trainer_id, client_id, exercise, 1)
        if done:
            return facts_of(done[-1].lift)
    held = Holdings(con, trainer_id)
    who = held.client(client_id) if client_id is not None else held.clients[0]
    kit, keep = held.at(place_id).kit, memo or Memo()
    key = "start", keep.scope("start", kit.signature(), who.body, who.limits), exercise
    found = keep.once(key, lambda: start_of(entry, kit, who.body, who.limits))
    if found is None:
        return None
    return LiftFacts(
        setup=found.now.setup, said=UNSAID, pieces=found.now.pieces, reps=entry.reps[1]
    )


def slot_of(day_id: int, position: int, exercise: str, facts: LiftFacts | None) -> store.SlotRow:
    """Return a slot of an exercise as it would be done."""
    entry = EXERCISES[exercise]
    kind = "mobility" if entry.family == "mobility" else "lift"
    low, high = entry.reps
    row = store.SlotRow(
        day_id=day_id,
        position=position,
        exercise=entry.id,
        kind=kind,
        reps_low=low,
        reps_high=high,
        rest_s=entry.rest_s[0],
        minutes=MOBILITY_MINUTES if kind == "mobility" else None,
    )
    if facts is None:
        return row
    return replace(
        row,
        scenario=_scenario(facts.setup),
        said=kept(facts.said) if facts.said else "",
        pieces=facts.pieces,
        items=facts.items,
        asked=facts.asked,
        sets_low=facts.sets,
        sets_high=facts.sets,
        reps_high=max(low, facts.reps),
        reps_low=min(low, facts.reps),
        lowering_s=facts.lowering_s,
        hold_s=facts.hold_s,
        lifting_s=facts.lifting_s,
        rest_s=entry.rest_s[0] if facts.rest_s is None else facts.rest_s,
    )


def _scenario(setup: Setup) -> str:
    return json.dumps(scenario_document(setup), separators=(",", ":"))


@store.at_once
def add_exercise(
    con: store.Connection,
    trainer_id: int,
    day_id: int,
    exercise: str,
    *,
    now: str,
    memo: Memo | None = None,
) -> int:
    """Put an exercise at the end of a day, as it was done last or as the place sets it up; return
    the slot's id. InputError for none of the catalogue, or a day that is full.
    """
    if exercise not in EXERCISES:
        raise InputError("exercise", exercise[:40], Said("an exercise of the catalogue"))
    day = day_row(con, trainer_id, day_id)
    week = week_row(con, trainer_id, day.week_id)
    facts = facts_here(con, trainer_id, week.client_id, day.place_id, exercise, memo)
    row = slot_of(day_id, free_place(con, trainer_id, day), exercise, facts)
    return put_slot(con, trainer_id, week.id, row, now=now)


@store.at_once
def add_decision(
    con: store.Connection, trainer_id: int, day_id: int, decision_id: int, *, now: str
) -> int:
    """Put a kept stand-in at the end of a day; return the slot's id."""
    day = day_row(con, trainer_id, day_id)
    found = next((d for d in store.decisions(con, trainer_id) if d.id == decision_id), None)
    if found is None:
        raise InputError("decision", decision_id, Said("a kept decision"))
    facts = facts_of_decision(found)
    row = slot_of(day_id, free_place(con, trainer_id, day), facts.setup.exercise.id, facts)
    return put_slot(con, trainer_id, day.week_id, row, now=now)


def free_place(con: store.Connection, trainer_id: int, day: store.DayRow) -> int:
    """Return the next free position of a day; InputError where it is full."""
    there = [s for s in store.slots_of(con, trainer_id, day.week_id) if s.day_id == day.id]
    if len(there) >= MOST_SLOTS:
        raise InputError(
            "day", day.id, Said("a day with room: {most} slots", most=Count(MOST_SLOTS))
        )
    return max((s.position for s in there), default=-1) + 1


def put_slot(
    con: store.Connection, trainer_id: int, week_id: int, row: store.SlotRow, *, now: str
) -> int:
    """Keep a new slot of a week, as one change; return its id."""
    words = Said("{exercise} planned", exercise=Term(EXERCISES[row.exercise].name), begins=True)
    with store.recorded(con, trainer_id, scope=scope(week_id), kind="slot", words=words, now=now):
        return store.add_slot(con, trainer_id, row)


TEMPO = (("lowering_s", 0.1, 120.0), ("hold_s", 0.0, 600.0), ("lifting_s", 0.1, 120.0))
LIMITS = (
    ("sets_low", 1, 20),
    ("sets_high", 1, 20),
    ("reps_low", 1, 100),
    ("reps_high", 1, 100),
    ("rest_s", 0, 3600),
)


@store.at_once
def change_slot(con: store.Connection, trainer_id: int, row: store.SlotRow, *, now: str) -> None:
    """Keep a slot as it is now. InputError at the field that is out of range."""
    there = slot_row(con, trainer_id, row.id)
    day = day_row(con, trainer_id, there.day_id)
    for name, low, high in LIMITS:
        value = getattr(row, name)
        if not low <= value <= high:
            allowed = Said("from {low} to {high}", low=Count(low), high=Count(high))
            raise InputError(name, value, allowed)
    for name, least, most in TEMPO:
        value = getattr(row, name)
        if not least <= value <= most:
            allowed = Said("from {low} to {high}", low=Figure(least), high=Figure(most, " s"))
            raise InputError(name, value, allowed)
    for low_name, high_name in (("sets_low", "sets_high"), ("reps_low", "reps_high")):
        if getattr(row, low_name) > getattr(row, high_name):
            raise InputError(low_name, getattr(row, low_name), Said("no more than the highest"))
    if row.kind not in KINDS:
        raise InputError("kind", row.kind[:20], Said("a lift, warm-up, finisher or mobility"))
    if row.minutes is not None and not 0.5 <= row.minutes <= 180:
        raise InputError("minutes", row.minutes, Said("from half a minute to three hours"))
    if row.rule and row.rule not in RULES:
        raise InputError("rule", row.rule[:20], one_of(tuple(RULES)))
    if len(row.note) > 300:
        raise InputError("note", row.note[:40], Said("at most 300 characters"))
    words = Said("{exercise} changed", exercise=Term(EXERCISES[row.exercise].name), begins=True)
    with store.recorded(
        con, trainer_id, scope=scope(day.week_id), kind="slot", words=words, now=now
    ):
        store.change_slot(con, trainer_id, row)


@store.at_once
def remove_slots(
    con: store.Connection, trainer_id: int, week_id: int, slot_ids: Sequence[int], *, now: str
) -> None:
    """Take slots off a week."""
    rows = [slot_row(con, trainer_id, id_) for id_ in slot_ids]
    words = Said("{n} slot taken off", "{n} slots taken off", n=Count(len(rows)))
    with store.recorded(con, trainer_id, scope=scope(week_id), kind="slot", words=words, now=now):
        for row in rows:
            store.remove_slot(con, trainer_id, row.id)


@store.at_once
def move_slot(
    con: store.Connection, trainer_id: int, slot_id: int, day_id: int, position: int, *, now: str
) -> None:
    """Put a slot at a position (0: first) of a day of the same week."""
    row = slot_row(con, trainer_id, slot_id)
    day, there = day_row(con, trainer_id, row.day_id), day_row(con, trainer_id, day_id)
    if day.week_id != there.week_id:
        raise InputError("day", day_id, Said("a day of the same week"))
    slots = store.slots_of(con, trainer_id, there.week_id)
    others = [s for s in slots if s.day_id == day_id and s.id != slot_id]
    if len(others) >= MOST_SLOTS:
        raise InputError(
            "day", day.id, Said("a day with room: {most} slots", most=Count(MOST_SLOTS))
        )
    at = min(max(position, 0), len(others))
    ordered = [*others[:at], replace(row, day_id=day_id), *others[at:]]
    words = Said("{exercise} moved", exercise=Term(EXERCISES[row.exercise].name), begins=True)
    with store.recorded(
        con, trainer_id, scope=scope(there.week_id), kind="slot", words=words, now=now
    ):
        for n, one in enumerate(ordered):
            if (one.position, one.day_id) != (n, one.day_id) or one.id == slot_id:
                store.change_slot(con, trainer_id, replace(one, position=n))


@store.at_once
def take_mend(
    con: store.Connection, trainer_id: int, week_id: int, mend: Mend, *, now: str
) -> None:
    """Arrange a week as a mend leaves it, in one change."""
    days = {d.weekday: d for d in store.days_of(con, trainer_id, week_id)}
    placed = {s.id: s for s in mend.slots}
    with store.recorded(
        con, trainer_id, scope=scope(week_id), kind="week", words=mend.says, now=now
    ):
        rows = store.slots_of(con, trainer_id, week_id)
        if mend.day is not None:
            old, new = mend.day
            days[new] = replace(days[old], weekday=new)
            store.change_day(con, trainer_id, days[new])
        for row in rows:
            there = placed.get(row.id)
            if there is None:
                store.remove_slot(con, trainer_id, row.id)
                continue
            then = replace(row, day_id=days[there.day].id, position=there.position)
            if then != row:
                store.change_slot(con, trainer_id, then)


@store.at_once
def copy_slot(con: store.Connection, trainer_id: int, slot_id: int, *, now: str) -> int:
    """Put a slot once more at the end of its day; return the new one's id."""
    row = slot_row(con, trainer_id, slot_id)
    day = day_row(con, trainer_id, row.day_id)
    again = replace(row, position=free_place(con, trainer_id, day), id=0)
    return put_slot(con, trainer_id, day.week_id, again, now=now)


@store.at_once
def copy_day(con: store.Connection, trainer_id: int, day_id: int, weekday: int, *, now: str) -> int:
    """Copy a day to a free weekday of its week; return the new one's id."""
    row = day_row(con, trainer_id, day_id)
    days = store.days_of(con, trainer_id, row.week_id)
    if not 0 <= weekday <= 6 or any(d.weekday == weekday for d in days):
        raise InputError("weekday", weekday, Said("a free day of the week"))
    words = Said("a day copied")
    with store.recorded(
        con, trainer_id, scope=scope(row.week_id), kind="week", words=words, now=now
    ):
        return _copied(con, trainer_id, replace(row, weekday=weekday), row.week_id)


def _copied(con: store.Connection, trainer_id: int, day: store.DayRow, week_id: int) -> int:
    """Copy a day with its slots into a week; return the new one's id."""
    made = store.add_day(con, trainer_id, replace(day, week_id=week_id, id=0))
    for slot in store.slots_of(con, trainer_id, day.week_id):
        if slot.day_id == day.id:
            store.add_slot(con, trainer_id, replace(slot, day_id=made, id=0))
    return made


@store.at_once
def copy_week(
    con: store.Connection,
    trainer_id: int,
    week_id: int,
    *,
    client_id: int | None,
    monday: str | None,
    now: str,
    name: str = "",
) -> int:
    """Copy a week to another monday of a client's, or as a template under a name (both None);
    return the new one's id. InputError where a week is planned already.
    """
    week_row(con, trainer_id, week_id)
    if client_id is not None and monday is not None:
        store.client(con, trainer_id, client_id)
        monday = monday_of(monday)
        if store.week_of(con, trainer_id, client_id, monday) is not None:
            raise InputError("monday", monday, Said("a week in which nothing is planned yet"))
    elif not name.strip():
        raise InputError("name", name, Said("a name for the template"))
    row = store.WeekRow(client_id=client_id, monday=monday, name=" ".join(name.split())[:80])
    words = Said("a week copied")
    with store.recorded(con, trainer_id, scope=scope(week_id), kind="week", words=words, now=now):
        made = store.add_week(con, trainer_id, row)
        for day in store.days_of(con, trainer_id, week_id):
            _copied(con, trainer_id, day, made)
    return made


@store.at_once
def remove_week(con: store.Connection, trainer_id: int, week_id: int, *, now: str) -> None:
    """Remove a week with all of it."""
    row = week_row(con, trainer_id, week_id)
    words = Said("a week removed")
    where = f"client:{row.client_id}" if row.client_id else "weeks"
    with store.recorded(con, trainer_id, scope=where, kind="week", words=words, now=now):
        store.remove_week(con, trainer_id, week_id)


@store.at_once
def set_finding_aside(
    con: store.Connection,
    trainer_id: int,
    week_id: int,
    finding: str,
    reason: str | None,
    *,
    now: str,
) -> None:
    """Set a finding aside with a reason, or take it up again (None)."""
    week_row(con, trainer_id, week_id)
    clean = None if reason is None else " ".join(reason.split())
    if clean is not None and not 1 <= len(clean) <= 300:
        raise InputError("reason", clean[:40], Said("a reason of at most 300 characters"))
    words = Said("a finding set aside") if clean else Said("a finding taken up again")
    with store.recorded(con, trainer_id, scope=scope(week_id), kind="week", words=words, now=now):
        store.set_finding_aside(con, trainer_id, week_id, finding[:40], clean)
