"""What is planned for a week at a place."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta

from widearc.store.connection import Connection


@dataclass(frozen=True, slots=True, kw_only=True)
class PlannedRow:
    """One wanted loading of a client in the week from `monday` (ISO date), so many times.

    Either an exercise with its load, depth and shape, or a kept intent. set_up: JSON of what of the
    exercise is otherwise than usual.
    """

    place_id: int
    client_id: int
    monday: str
    times: int
    sets: int
    reps: int
    exercise: str | None = None
    kg: float | None = None
    depth_deg: float | None = None
    shape: str | None = None
    intent_id: int | None = None
    set_up: str | None = None
    id: int = 0


_COLUMNS = (
    "place_id",
    "client_id",
    "monday",
    "times",
    "sets",
    "reps",
    "exercise",
    "kg",
    "depth_deg",
    "shape",
    "intent_id",
    "set_up",
)
_WANTED = (
    *("place_id", "client_id", "monday", "exercise", "kg", "depth_deg", "shape", "intent_id"),
    "set_up",
)
"""What makes two rows the same thing planned."""


def monday_of(now: str) -> str:
    """Return the Monday (ISO date) of the week of an ISO time, by its own clock."""
    day = datetime.fromisoformat(now).date()
    return (day - timedelta(days=day.weekday())).isoformat()


def planned(con: Connection, trainer_id: int, place_id: int, monday: str) -> tuple[PlannedRow, ...]:
    """Return a week's plan at a place, by client and then as it was put in."""
    rows = con.execute(
        f"""SELECT id, {", ".join(_COLUMNS)} FROM planned
            WHERE trainer_id = ? AND place_id = ? AND monday = ? ORDER BY client_id, id""",
        (trainer_id, place_id, monday),
    )
    return tuple(PlannedRow(**dict(row)) for row in rows)


def last_planned_monday(con: Connection, trainer_id: int, place_id: int, before: str) -> str | None:
    """Return the Monday (ISO date) of the newest week before one that has a plan at a place, or
    None.
    """
    row = con.execute(
        (
            "SELECT max(monday) AS monday FROM planned WHERE trainer_id = ? AND place_id = ? AND "
            "monday < ?"
        ),
        (trainer_id, place_id, before),
    ).fetchone()
    found: str | None = row["monday"]
    return found


def put_planned(con: Connection, trainer_id: int, row: PlannedRow) -> None:
    """Plan something, in the place of the same thing planned before."""
    same = " AND ".join(f"{name} IS ?" for name in _WANTED)
    con.execute(
        f"DELETE FROM planned WHERE trainer_id = ? AND {same}",
        (trainer_id, *(getattr(row, n) for n in _WANTED)),
    )
    marks = ", ".join("?" for _ in _COLUMNS)
    con.execute(
        f"INSERT INTO planned (trainer_id, {', '.join(_COLUMNS)}) VALUES (?, {marks})",
        (trainer_id, *(getattr(row, name) for name in _COLUMNS)),
    )


def remove_planned(con: Connection, trainer_id: int, planned_id: int) -> None:
    """Take something off a plan; nothing happens if it is not there."""
    con.execute("DELETE FROM planned WHERE trainer_id = ? AND id = ?", (trainer_id, planned_id))
