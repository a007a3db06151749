"""A client's week: its days, what it covers planned and done, what is found, how long it takes."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from functools import lru_cache

import numpy as np

from widearc import store
from widearc.core.arrays import Array
from widearc.core.coverage import (
    Finding,
    Mend,
    Person,
    SlotSeen,
    Traits,
    Worked,
    findings,
    mend_of,
    to_drop,
    traits_of,
    units,
    whole_minutes,
)
from widearc.core.errors import InputError, PostureError, RangeError
from widearc.core.exercises import EXERCISES
from widearc.core.search import Memo
from widearc.core.statics import curve
from widearc.core.words import UNSAID, Value
from widearc.formats import parse_scenario
from widearc.usecases.client.history import SAME_WEEKS, WEEKS, profiles
from widearc.usecases.floor.asks import measured
from widearc.usecases.holdings import Holdings
from widearc.usecases.week.plans import facts_here
from widearc.words import again

SHORT_MINUTES = 40.0
"""What to drop is said for so much time (common practice, no source)."""


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Slot:
    """A slot with what it is: its row, words of its set-up, as the findings see it, what was done
    of it (sets a side, and by which exercise where another).
    """

    row: store.SlotRow
    said: Value
    seen: SlotSeen
    done: int = 0
    instead: str = ""


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Day:
    """A day of a week: its row, date (ISO, "" for a template), place, slots, minutes; drop: what to
    leave out where there are only forty.
    """

    row: store.DayRow
    date: str
    place: str
    slots: tuple[Slot, ...]
    minutes: float
    drop: tuple[Slot, ...]

    @property
    def sets(self) -> float:
        """Return how many hard sets it has."""
        return sum(s.seen.sets for s in self.slots if s.row.kind == "lift")


@dataclass(frozen=True, slots=True, kw_only=True)
class Remedy:
    """What would mend a finding: an exercise, on which day (id), and how many minutes it takes."""

    exercise: str
    day_id: int
    minutes: float
    gain: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Found:
    """A finding with what mends it here, None where nothing does: by adding (remedy) or by what is
    planned already (mend); aside: why it is set aside.
    """

    finding: Finding
    remedy: Remedy | None
    mend: Mend | None = None
    aside: str = ""


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class WeekView:
    """A week. planned, done, missed: unit sets by group, (7 days, 3 thirds); findings: to look at;
    aside: those that are set aside.
    """

    week: store.WeekRow
    client: store.ClientRow | None
    days: tuple[Day, ...]
    planned: Mapping[str, Array]
    done: Mapping[str, Array]
    missed: Mapping[str, Array]
    findings: tuple[Found, ...]
    aside: tuple[Found, ...]

    @property
    def minutes(self) -> float:
        """Return how long the week takes."""
        return sum(day.minutes for day in self.days)

    @property
    def slots(self) -> tuple[Slot, ...]:
        """Return every slot in order."""
        return tuple(slot for day in self.days for slot in day.slots)


@lru_cache(maxsize=4096)
def seen_of(scenario: str) -> tuple[Traits, Mapping[str, Worked]]:
    """Return what a kept scenario (JSON) is, and what a set of it counts for; nothing where it
    cannot be set up any more.
    """
    try:
        setup, _ = parse_scenario(json.loads(scenario))
        traits = traits_of(curve(replace(setup, samples=51), lowering=False))
        muscles = measured(scenario).muscles
    except (InputError, PostureError, RangeError):
        return Traits(), {}
    worked = {}
    for muscle in muscles:
        thirds = [max(0.0, j) for j in (muscle.long_j, muscle.middle_j, muscle.short_j)]
        total = sum(thirds)
        if total > 0.0:
            long, middle, short = (j / total for j in thirds)
            worked[muscle.grp] = Worked(counts=muscle.counts, thirds=(long, middle, short))
    return traits, worked


def _seen(row: store.SlotRow, weekday: int) -> SlotSeen:
    traits, worked = (Traits(), {}) if row.scenario is None else seen_of(row.scenario)
    rep_s = row.lowering_s + row.hold_s + row.lifting_s
    return SlotSeen(
        id=row.id,
        day=weekday,
        position=row.position,
        exercise=EXERCISES[row.exercise],
        kind=row.kind,
        sets=(row.sets_low + row.sets_high) / 2.0,
        reps=(row.reps_low + row.reps_high) / 2.0,
        rep_s=rep_s,
        rest_s=float(row.rest_s),
        minutes=row.minutes,
        traits=traits,
        worked=worked if row.kind in ("lift", "finisher") else {},
    )


def week_view(
    con: store.Connection,
    trainer_id: int,
    week: store.WeekRow,
    memo: Memo,
    *,
    today: date,
    held: Holdings | None = None,
) -> WeekView:
    """Return a week as it stands."""
    held = held or Holdings(con, trainer_id)
    client = None if week.client_id is None else held.client(week.client_id)
    done, lifts = _done(con, trainer_id, week)
    days = _days(con, trainer_id, week, held, lifts)
    seen = [slot.seen for day in days for slot in day.slots]
    planned = units(seen)
    asides = store.asides_of(con, trainer_id, week.id)
    person = _person(con, trainer_id, client, today)
    weekdays = [day.row.weekday for day in days]
    found = tuple(
        Found(
            finding=one,
            remedy=_remedy(con, trainer_id, week, one, days, planned, memo),
            mend=mend_of(one, seen, person, weekdays),
            aside=asides.get(one.id, ""),
        )
        for one in findings(seen, person)
    )
    return WeekView(
        week=week,
        client=client,
        days=days,
        planned=planned,
        done=done,
        missed=_missed(days, today),
        findings=tuple(f for f in found if not f.aside),
        aside=tuple(f for f in found if f.aside),
    )


def _days(
    con: store.Connection,
    trainer_id: int,
    week: store.WeekRow,
    held: Holdings,
    lifts: Mapping[int, tuple[int, str]],
) -> tuple[Day, ...]:
    rows = [s for s in store.slots_of(con, trainer_id, week.id) if s.exercise in EXERCISES]
    places = {place.id: place.name for place in held.places}
    found = []
    for row in store.days_of(con, trainer_id, week.id):
        slots = tuple(
            Slot(
                row=slot,
                said=again(slot.said) or UNSAID,
                seen=_seen(slot, row.weekday),
                done=lifts.get(slot.id, (0, ""))[0],
                instead=lifts.get(slot.id, (0, ""))[1],
            )
            for slot in rows
            if slot.day_id == row.id
        )
        seen = [s.seen for s in slots]
        gone = {s.id for s in to_drop(seen, SHORT_MINUTES)}
        found.append(
            Day(
                row=row,
                date=_date(week, row.weekday),
                place=places[row.place_id],
                slots=slots,
                minutes=whole_minutes(seen),
                drop=tuple(s for s in slots if s.row.id in gone),
            )
        )
    return tuple(found)


def _date(week: store.WeekRow, weekday: int) -> str:
    if week.monday is None:
        return ""
    return (date.fromisoformat(week.monday) + timedelta(days=weekday)).isoformat()


def _done(
    con: store.Connection, trainer_id: int, week: store.WeekRow
) -> tuple[Mapping[str, Array], Mapping[int, tuple[int, str]]]:
    """Return unit sets that were done, and of each slot how many sets a side by which exercise."""
    weekdays = {d.id: d.weekday for d in store.days_of(con, trainer_id, week.id)}
    slots = {s.id: s for s in store.slots_of(con, trainer_id, week.id)}
    seen: list[SlotSeen] = []
    of_slot: dict[int, tuple[int, str]] = {}
    for one in store.done_of(con, trainer_id, week.id):
        lift = store.lift(con, trainer_id, one.lift_id)
        if lift is None or not one.sets or lift.exercise not in EXERCISES:
            continue
        sets = one.sets / 2.0 if lift.one_sided else float(one.sets)
        traits, worked = seen_of(lift.scenario)
        seen.append(
            SlotSeen(
                id=one.slot_id,
                day=weekdays[slots[one.slot_id].day_id],
                position=0,
                exercise=EXERCISES[lift.exercise],
                sets=sets,
                traits=traits,
                worked=worked,
            )
        )
        before = of_slot.get(one.slot_id, (0, ""))[0]
        other = lift.exercise if lift.exercise != slots[one.slot_id].exercise else ""
        of_slot[one.slot_id] = (before + round(sets), other)
    return units(seen), of_slot


def _missed(days: Sequence[Day], today: date) -> Mapping[str, Array]:
    """Return unit sets of days that are over, of which nothing was done."""
    over = [day for day in days if day.date and date.fromisoformat(day.date) < today]
    return units(slot.seen for day in over for slot in day.slots if not slot.done)


def _person(
    con: store.Connection, trainer_id: int, client: store.ClientRow | None, today: date
) -> Person:
    if client is None:
        return Person(mass_kg=80.0)
    since = (today - timedelta(weeks=WEEKS)).isoformat()
    rows = store.lifts_done(con, trainer_id, client.id, since)
    alike = SAME_WEEKS if profiles(rows, now=today.isoformat()).same else 0
    return Person(
        mass_kg=client.body.mass_kg,
        wants_sides=bool(client.stronger_side),
        weeks_alike=alike,
    )


def _remedy(
    con: store.Connection,
    trainer_id: int,
    week: store.WeekRow,
    finding: Finding,
    days: Sequence[Day],
    planned: Mapping[str, Array],
    memo: Memo,
) -> Remedy | None:
    """Return the first remedy that a day's place has, on the day that is shortest."""
    there = [d for d in days if finding.day in (None, d.row.weekday)] or list(days)
    planned_ids = {slot.row.exercise for day in days for slot in day.slots}
    for day in sorted(there, key=lambda d: d.minutes):
        for exercise in finding.remedies:
            if exercise in planned_ids and not finding.id.startswith("flexed"):
                continue
            facts = facts_here(con, trainer_id, week.client_id, day.row.place_id, exercise, memo)
            if facts is None:
                continue
            entry = EXERCISES[exercise]
            minutes = (
                float(entry.minutes)
                + facts.sets
                * (
                    entry.reps[1] * (facts.lowering_s + facts.hold_s + facts.lifting_s)
                    + entry.rest_s[0]
                )
                / 60.0
            )
            return Remedy(
                exercise=exercise, day_id=day.row.id, minutes=minutes, gain=float(facts.sets)
            )
    return None


def week_units(view: WeekView, group: str) -> float:
    """Return a group's unit sets over the whole week."""
    return float(np.sum(view.planned[group]))
