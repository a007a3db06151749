"""Places."""

from __future__ import annotations

from dataclasses import dataclass

from widearc.store.connection import Connection
from widearc.store.errors import MissingError


@dataclass(frozen=True, slots=True, kw_only=True)
class PlaceRow:
    """One place."""

    id: int
    name: str
    note: str


def add_place(con: Connection, trainer_id: int, *, name: str, note: str = "") -> int:
    """Add a place; return its id."""
    cursor = con.execute("INSERT INTO place (trainer_id, name, note) VALUES (?, ?, ?)", (trainer_id, name, note))
    return int(cursor.lastrowid or 0)


def places(con: Connection, trainer_id: int) -> tuple[PlaceRow, ...]:
    """Return a trainer's places in the order they were added."""
    rows = con.execute("SELECT id, name, note FROM place WHERE trainer_id = ? ORDER BY id", (trainer_id,))
    return tuple(PlaceRow(**dict(row)) for row in rows)


def place(con: Connection, trainer_id: int, place_id: int) -> PlaceRow:
    """Return one place of a trainer; MissingError if there is none."""
    row = con.execute(
        "SELECT id, name, note FROM place WHERE trainer_id = ? AND id = ?", (trainer_id, place_id)
    ).fetchone()
    if row is None:
        raise MissingError(f"place {place_id} does not exist here")
    return PlaceRow(**dict(row))
