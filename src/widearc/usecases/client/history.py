"""What a client's record says besides strength: volume by week, how the lifts lay, where they felt
hardest, what to test again, and notes.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from widearc import store
from widearc.core.errors import InputError
from widearc.core.words import Count, Name, Said, Term
from widearc.usecases.client.over_time import Trend
from widearc.usecases.holdings import Holdings

WEEKS = 14
TILTED = 0.15
"""So much more in one half of the lift than in the other and it counts as weighted (assumed)."""

SAME_SHARE, SAME_WEEKS = 0.8, 8
"""So much of the sets of one profile for so many weeks in a row is worth a word (common practice,
no source).
"""

ONE_LEG_WEEKS, FEWEST_ONE_LEG = 6, 12
OLD_WEEKS, OLD_BAND_DAYS = 6, 180
PROFILES = ("long", "even", "short")
LONGEST_NOTE = 500
LEAST_SETS = 0.3  # a week: less is not shown


@dataclass(frozen=True, slots=True, kw_only=True)
class MuscleWeeks:
    """A muscle group's sets in each of the last weeks, oldest first, and what share of its work was
    done in each third of its length, long first.
    """

    grp: str
    sets: tuple[float, ...]
    thirds: tuple[tuple[float, float, float], ...]


def muscle_weeks(
    con: store.Connection, trainer_id: int, client_id: int, *, now: str
) -> tuple[MuscleWeeks, ...]:
    """Return each muscle group's weeks, those with most sets first."""
    monday = _monday(now)
    since = monday - timedelta(weeks=WEEKS - 1)
    sets: dict[str, list[float]] = {}
    work: dict[str, list[list[float]]] = {}
    for row in store.volume(con, trainer_id, client_id, since.isoformat()):
        week = (date.fromisoformat(row.day) - since).days // 7
        if not 0 <= week < WEEKS:
            continue
        sets.setdefault(row.grp, [0.0] * WEEKS)[week] += row.counts
        thirds = work.setdefault(row.grp, [[0.0] * 3 for _ in range(WEEKS)])[week]
        for i, joules in enumerate((row.long_j, row.middle_j, row.short_j)):
            thirds[i] += max(0.0, joules)
    found = [
        MuscleWeeks(
            grp=grp,
            sets=tuple(rows),
            thirds=tuple(_shares(thirds) for thirds in work[grp]),
        )
        for grp, rows in sets.items()
        if max(rows) >= LEAST_SETS
    ]
    return tuple(sorted(found, key=lambda m: (-sum(m.sets), m.grp)))


def _monday(now: str) -> date:
    today = datetime.fromisoformat(now).date()
    return today - timedelta(days=today.weekday())


def _shares(parts: Sequence[float]) -> tuple[float, float, float]:
    whole = sum(parts) or 1.0
    return parts[0] / whole, parts[1] / whole, parts[2] / whole


@dataclass(frozen=True, slots=True, kw_only=True)
class Profiles:
    """In each of the last weeks, oldest first, which share of the sets asked more where long, alike
    or more where short; sets: how many; same: the profile that has not changed for eight weeks, ""
    where it has.
    """

    weeks: tuple[tuple[float, float, float], ...]
    sets: tuple[int, ...]
    same: str


def profile_of(tilt: float | None) -> str | None:
    """Return how a lift lies over its range by its tilt (see store.LiftRow), None where that is not
    known.
    """
    if tilt is None:
        return None
    if tilt > TILTED:
        return "long"
    return "short" if 1.0 / (1.0 + tilt) - 1.0 > TILTED else "even"


def profiles(rows: Sequence[store.WeekLift], *, now: str) -> Profiles:
    """Return the profile history of lifts that were done."""
    since = _monday(now) - timedelta(weeks=WEEKS - 1)
    counts = [dict.fromkeys(PROFILES, 0) for _ in range(WEEKS)]
    for row in rows:
        week = (date.fromisoformat(row.day) - since).days // 7
        profile = profile_of(row.tilt)
        if 0 <= week < WEEKS and profile is not None:
            counts[week][profile] += row.sets
    weeks = [_shares([float(c[p]) for p in PROFILES]) for c in counts]
    sets = [sum(c.values()) for c in counts]
    last = [w for w, n in zip(weeks, sets, strict=True) if n][-SAME_WEEKS:]
    return Profiles(weeks=tuple(weeks), sets=tuple(sets), same=_same(last))


def _same(weeks: Sequence[tuple[float, float, float]]) -> str:
    """Return the profile that eight weeks have in common, "" for none."""
    if len(weeks) < SAME_WEEKS:
        return ""
    alike = (p for i, p in enumerate(PROFILES) if all(w[i] >= SAME_SHARE for w in weeks))
    return next(alike, "")


@dataclass(frozen=True, slots=True, kw_only=True)
class FeltRow:
    """Where an exercise felt hardest, set by set, and where it is computed to be."""

    exercise: str
    computed: str
    felt: Mapping[str, int]

    @property
    def apart(self) -> bool:
        """Return whether it felt hardest elsewhere more often than not."""
        return self.felt.get(self.computed, 0) * 2 < sum(self.felt.values())


def felt_rows(rows: Sequence[store.WeekLift]) -> tuple[FeltRow, ...]:
    """Return felt against computed for each exercise of which both are known, most said first."""
    said: dict[tuple[str, str], dict[str, int]] = {}
    for row in rows:
        if row.felt and row.hardest:
            felt = said.setdefault((row.exercise, row.hardest), {})
            felt[row.felt] = felt.get(row.felt, 0) + row.sets
    found = [FeltRow(exercise=e, computed=c, felt=f) for (e, c), f in said.items()]
    return tuple(sorted(found, key=lambda r: (-sum(r.felt.values()), r.exercise)))


def retests(
    con: store.Connection,
    trainer_id: int,
    client_id: int,
    rows: Sequence[store.WeekLift],
    trends: Sequence[Trend],
    *,
    now: str,
) -> tuple[Said, ...]:
    """Return what is to be tested again (common practice, no source)."""
    today = datetime.fromisoformat(now)
    since = (today - timedelta(weeks=ONE_LEG_WEEKS)).date().isoformat()
    one_leg = _one_leg([r for r in rows if r.day >= since])
    old = [said for trend in trends if (said := _old_news(trend)) is not None]
    return (*one_leg, *old, *_old_bands(con, trainer_id, client_id, today))


def _one_leg(block: Sequence[store.WeekLift]) -> list[Said]:
    if not all(r.one_sided for r in block) or sum(r.sets for r in block) < FEWEST_ONE_LEG:
        return []
    return [Said("Six weeks of one leg alone: test a lift with both legs again.")]


def _old_news(trend: Trend) -> Said | None:
    points = [s.point for said in trend.said.values() for s in said]
    newest = min((p.weeks for p in points if not p.at_least), default=0.0)
    if newest < OLD_WEEKS:
        return None
    return Said(
        "{action}: the newest set that tells of it is {weeks} week old.",
        "{action}: the newest set that tells of it is {weeks} weeks old.",
        weeks=Count(int(newest)),
        action=Term(trend.action.replace("_", " ")),
        begins=True,
    )


def _old_bands(
    con: store.Connection, trainer_id: int, client_id: int, today: datetime
) -> list[Said]:
    """Return the bands that were used lately and not looked over for half a year."""
    used: dict[int, set[int]] = {}
    for session in store.sessions(con, trainer_id, client_id=client_id, most=10):
        for lift in store.lifts(con, trainer_id, session.id):
            used.setdefault(session.place_id, set()).update(lift.items)
    held = Holdings(con, trainer_id)
    found = []
    for place, items in used.items():
        for item in held.items(place):
            over = item.looked_over_on
            if item.id not in items or item.kind != "band" or not over:
                continue
            days = (today.date() - date.fromisoformat(over)).days
            if days > OLD_BAND_DAYS:
                found.append(
                    Said(
                        "{name}: looked over {days} day ago; check a reading at Bench.",
                        "{name}: looked over {days} days ago; check a reading at Bench.",
                        days=Count(days),
                        name=Name(item.name),
                    )
                )
    return found


@dataclass(frozen=True, slots=True, kw_only=True)
class History:
    """Everything that a client's page over time shows besides strength."""

    muscles: tuple[MuscleWeeks, ...]
    profiles: Profiles
    felt: tuple[FeltRow, ...]
    due: tuple[Said, ...]
    notes: tuple[store.NoteRow, ...]

    @property
    def most_sets(self) -> float:
        """Return the sets of the fullest week of any muscle group."""
        return max((n for m in self.muscles for n in m.sets), default=0.0)


def history_of(
    con: store.Connection, trainer_id: int, client_id: int, trends: Sequence[Trend], *, now: str
) -> History:
    """Return a client's history; trends: of strength, to be read for what is old."""
    since = (datetime.fromisoformat(now) - timedelta(weeks=WEEKS)).isoformat()
    rows = store.lifts_done(con, trainer_id, client_id, since)
    return History(
        muscles=muscle_weeks(con, trainer_id, client_id, now=now),
        profiles=profiles(rows, now=now),
        felt=felt_rows(rows),
        due=retests(con, trainer_id, client_id, rows, trends, now=now),
        notes=store.notes(con, trainer_id, client_id),
    )


@store.at_once
def note(con: store.Connection, trainer_id: int, client_id: int, words: str, *, now: str) -> int:
    """Keep a note on a client; return its id. InputError for none, or one that is too long."""
    client = store.client(con, trainer_id, client_id)
    if not 1 <= len(words.strip()) <= LONGEST_NOTE:
        raise InputError(
            "words",
            words[:30],
            Said("a note of {most} characters at most", most=Count(LONGEST_NOTE)),
        )
    told = Said("note on {name}", name=Name(client.name, lower=True))
    with store.recorded(con, trainer_id, scope="sessions", kind="note", words=told, now=now):
        return store.add_note(con, trainer_id, client_id, words.strip(), at=now)


@store.at_once
def remove_note(con: store.Connection, trainer_id: int, note_id: int, *, now: str) -> None:
    """Remove a note; it can be undone."""
    with store.recorded(
        con, trainer_id, scope="sessions", kind="note", words=Said("note removed"), now=now
    ):
        store.remove_note(con, trainer_id, note_id)
