"""Weeks, their days and slots, and findings that are set aside."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import asdict, dataclass, fields
from typing import Any

from widearc.core.kit import Piece
from widearc.store.connection import Connection


@dataclass(frozen=True, slots=True, kw_only=True)
class WeekRow:
    """A week of a client from a monday (ISO date), or a template (both None)."""

    client_id: int | None
    monday: str | None
    name: str = ""
    id: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class DayRow:
    """A day of a week: 0 (Monday) to 6, where, and when it starts (HH:MM)."""

    week_id: int
    weekday: int
    place_id: int
    starts_at: str = "09:00"
    id: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class SlotRow:
    """A slot: what is planned. scenario: JSON of its set-up (None: as usual there); said: the
    set-up as a kept sentence; asked: the address of what it stands in for; minutes: of what is not
    counted in sets, None for lifts; rule: by which its lift goes on, "" for the client's own.
    """

    day_id: int
    position: int
    exercise: str
    kind: str = "lift"
    scenario: str | None = None
    said: str = ""
    pieces: tuple[Piece, ...] = ()
    items: tuple[int, ...] = ()
    asked: str = ""
    sets_low: int = 3
    sets_high: int = 3
    reps_low: int = 8
    reps_high: int = 12
    lowering_s: float = 2.0
    hold_s: float = 0.0
    lifting_s: float = 1.0
    rest_s: int = 120
    minutes: float | None = None
    note: str = ""
    rule: str = ""
    id: int = 0


_WEEK = tuple(f.name for f in fields(WeekRow) if f.name != "id")
_DAY = tuple(f.name for f in fields(DayRow) if f.name != "id")
_SLOT = tuple(f.name for f in fields(SlotRow) if f.name != "id")


def _added(con: Connection, table: str, trainer_id: int, values: Mapping[str, Any]) -> int:
    names = ", ".join(("trainer_id", *values))
    marks = ", ".join("?" for _ in range(len(values) + 1))
    cursor = con.execute(
        f"INSERT INTO {table} ({names}) VALUES ({marks})", (trainer_id, *values.values())
    )
    return int(cursor.lastrowid or 0)


def week_of(con: Connection, trainer_id: int, client_id: int, monday: str) -> WeekRow | None:
    """Return a client's week from a monday, None where none is planned."""
    row = con.execute(
        f"""SELECT id, {", ".join(_WEEK)} FROM week
            WHERE trainer_id = ? AND client_id = ? AND monday = ?""",
        (trainer_id, client_id, monday),
    ).fetchone()
    return None if row is None else WeekRow(**dict(row))


def weeks(con: Connection, trainer_id: int) -> tuple[WeekRow, ...]:
    """Return every week and template, the newest week first."""
    rows = con.execute(
        f"""SELECT id, {", ".join(_WEEK)} FROM week WHERE trainer_id = ?
            ORDER BY monday DESC, id DESC""",
        (trainer_id,),
    )
    return tuple(WeekRow(**dict(row)) for row in rows)


def add_week(con: Connection, trainer_id: int, row: WeekRow) -> int:
    """Keep a week; return its id."""
    return _added(con, "week", trainer_id, {n: getattr(row, n) for n in _WEEK})


def remove_week(con: Connection, trainer_id: int, week_id: int) -> None:
    """Remove a week with its days and slots."""
    for table, where in (
        ("slot", "day_id IN (SELECT id FROM week_day WHERE week_id = ?)"),
        ("week_day", "week_id = ?"),
        ("finding_aside", "week_id = ?"),
        ("week", "id = ?"),
    ):
        con.execute(f"DELETE FROM {table} WHERE trainer_id = ? AND {where}", (trainer_id, week_id))


def days_of(con: Connection, trainer_id: int, week_id: int) -> tuple[DayRow, ...]:
    """Return a week's days in order."""
    rows = con.execute(
        f"""SELECT id, {", ".join(_DAY)} FROM week_day WHERE trainer_id = ? AND week_id = ?
            ORDER BY weekday""",
        (trainer_id, week_id),
    )
    return tuple(DayRow(**dict(row)) for row in rows)


def day(con: Connection, trainer_id: int, day_id: int) -> DayRow | None:
    """Return a day by its id, None where there is none."""
    row = con.execute(
        f"SELECT id, {', '.join(_DAY)} FROM week_day WHERE trainer_id = ? AND id = ?",
        (trainer_id, day_id),
    ).fetchone()
    return None if row is None else DayRow(**dict(row))


def add_day(con: Connection, trainer_id: int, row: DayRow) -> int:
    """Keep a day; return its id."""
    return _added(con, "week_day", trainer_id, {n: getattr(row, n) for n in _DAY})


def change_day(con: Connection, trainer_id: int, row: DayRow) -> None:
    """Keep where and when a day is."""
    con.execute(
        """UPDATE week_day SET weekday = ?, place_id = ?, starts_at = ?
           WHERE trainer_id = ? AND id = ?""",
        (row.weekday, row.place_id, row.starts_at, trainer_id, row.id),
    )


def remove_day(con: Connection, trainer_id: int, day_id: int) -> None:
    """Remove a day with its slots."""
    con.execute("DELETE FROM slot WHERE trainer_id = ? AND day_id = ?", (trainer_id, day_id))
    con.execute("DELETE FROM week_day WHERE trainer_id = ? AND id = ?", (trainer_id, day_id))


NOT_SET_UP = "null"
"""A slot that is not set up, as JSON: to SQLite before 3.45 no value at all is not valid JSON."""


def _slot(row: dict[str, Any]) -> SlotRow:
    pieces = tuple(Piece(**part) for part in json.loads(row["pieces"]))
    scenario = None if row["scenario"] == NOT_SET_UP else row["scenario"]
    items = tuple(json.loads(row["items"]))
    return SlotRow(**{**row, "scenario": scenario, "pieces": pieces, "items": items})


def slots_of(con: Connection, trainer_id: int, week_id: int) -> tuple[SlotRow, ...]:
    """Return the slots of a week, day by day in their order."""
    rows = con.execute(
        f"""SELECT s.id, {", ".join("s." + n for n in _SLOT)} FROM week_day d
            JOIN slot s ON s.day_id = d.id WHERE d.trainer_id = ? AND d.week_id = ?
            ORDER BY d.weekday, s.position, s.id""",
        (trainer_id, week_id),
    )
    return tuple(_slot(dict(row)) for row in rows)


def slot(con: Connection, trainer_id: int, slot_id: int) -> SlotRow | None:
    """Return a slot by its id, None where there is none."""
    row = con.execute(
        f"SELECT id, {', '.join(_SLOT)} FROM slot WHERE trainer_id = ? AND id = ?",
        (trainer_id, slot_id),
    ).fetchone()
    return None if row is None else _slot(dict(row))


def _columns(row: SlotRow) -> dict[str, Any]:
    values = {name: getattr(row, name) for name in _SLOT}
    pieces = json.dumps([asdict(piece) for piece in row.pieces])
    scenario = NOT_SET_UP if row.scenario is None else row.scenario
    items = json.dumps(list(row.items))
    return values | {"scenario": scenario, "pieces": pieces, "items": items}


def add_slot(con: Connection, trainer_id: int, row: SlotRow) -> int:
    """Keep a slot; return its id."""
    return _added(con, "slot", trainer_id, _columns(row))


def change_slot(con: Connection, trainer_id: int, row: SlotRow) -> None:
    """Keep a slot as it is now."""
    values = _columns(row)
    sets = ", ".join(f"{name} = ?" for name in values)
    con.execute(
        f"UPDATE slot SET {sets} WHERE trainer_id = ? AND id = ?",
        (*values.values(), trainer_id, row.id),
    )


def remove_slot(con: Connection, trainer_id: int, slot_id: int) -> None:
    """Remove a slot."""
    con.execute("DELETE FROM slot WHERE trainer_id = ? AND id = ?", (trainer_id, slot_id))


def asides_of(con: Connection, trainer_id: int, week_id: int) -> Mapping[str, str]:
    """Return the findings of a week that are set aside, with why."""
    rows = con.execute(
        "SELECT finding, reason FROM finding_aside WHERE trainer_id = ? AND week_id = ?",
        (trainer_id, week_id),
    )
    return {row["finding"]: row["reason"] for row in rows}


def set_finding_aside(
    con: Connection, trainer_id: int, week_id: int, finding: str, reason: str | None
) -> None:
    """Set a finding aside with a reason, or take it up again (None)."""
    con.execute(
        "DELETE FROM finding_aside WHERE trainer_id = ? AND week_id = ? AND finding = ?",
        (trainer_id, week_id, finding),
    )
    if reason is not None:
        con.execute(
            "INSERT INTO finding_aside (trainer_id, week_id, finding, reason) VALUES (?, ?, ?, ?)",
            (trainer_id, week_id, finding, reason),
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class SlotDone:
    """What was done for a slot: sets, which exercise, why another."""

    slot_id: int
    exercise: str
    why: str
    sets: int
    lift_id: int


def done_of(con: Connection, trainer_id: int, week_id: int) -> tuple[SlotDone, ...]:
    """Return what was done for the slots of a week."""
    rows = con.execute(
        """SELECT l.slot_id, l.exercise, l.why, l.id AS lift_id, count(d.id) AS sets
           FROM week_day w JOIN slot s ON s.day_id = w.id
           JOIN lift l ON l.slot_id = s.id AND l.trainer_id = w.trainer_id
           LEFT JOIN set_done d ON d.lift_id = l.id AND d.reps > 0
           WHERE w.trainer_id = ? AND w.week_id = ? GROUP BY l.id ORDER BY l.id""",
        (trainer_id, week_id),
    )
    return tuple(SlotDone(**dict(row)) for row in rows)


def answer_slot(con: Connection, trainer_id: int, lift_id: int, slot_id: int) -> None:
    """Say which slot of a week a lift answers."""
    con.execute(
        "UPDATE lift SET slot_id = ? WHERE trainer_id = ? AND id = ?",
        (slot_id, trainer_id, lift_id),
    )
