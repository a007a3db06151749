"""Places: name, people, space, how crowded."""

from __future__ import annotations

from dataclasses import dataclass, fields
from typing import Any

from widearc.core.words import Name, Said
from widearc.store.connection import Connection
from widearc.store.errors import MissingError


@dataclass(frozen=True, slots=True, kw_only=True)
class PlaceFacts:
    """What is known of a place.

    people: alone, others (they are there, but do not help) or partner; crowding: empty, some or
    packed; floor: free width and length in m, None: not asked.
    """

    name: str
    note: str = ""
    people: str = "alone"
    crowding: str = "some"
    wall: bool = True
    floor_width_m: float | None = None
    floor_length_m: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class PlaceRow(PlaceFacts):
    """One place as kept."""

    id: int


_COLUMNS = tuple(f.name for f in fields(PlaceFacts))


def _values(facts: PlaceFacts) -> tuple[Any, ...]:
    return tuple(int(v) if isinstance(v := getattr(facts, name), bool) else v for name in _COLUMNS)


def add_place(con: Connection, trainer_id: int, facts: PlaceFacts) -> int:
    """Add a place; return its id."""
    marks = ", ".join("?" for _ in range(len(_COLUMNS) + 1))
    cursor = con.execute(
        f"INSERT INTO place (trainer_id, {', '.join(_COLUMNS)}) VALUES ({marks})",
        (trainer_id, *_values(facts)),
    )
    return int(cursor.lastrowid or 0)


def set_place(con: Connection, trainer_id: int, place_id: int, facts: PlaceFacts) -> None:
    """Put new facts in the place of a place's old ones."""
    sets = ", ".join(f"{name} = ?" for name in _COLUMNS)
    changed = con.execute(
        f"UPDATE place SET {sets} WHERE trainer_id = ? AND id = ?",
        (*_values(facts), trainer_id, place_id),
    )
    if changed.rowcount != 1:
        raise MissingError(
            Said("place {place_id} does not exist here", place_id=Name(str(place_id)))
        )


def remove_place(con: Connection, trainer_id: int, place_id: int) -> None:
    """Remove a place with everything in it."""
    con.execute("DELETE FROM place WHERE trainer_id = ? AND id = ?", (trainer_id, place_id))


def places(con: Connection, trainer_id: int) -> tuple[PlaceRow, ...]:
    """Return a trainer's places in the order they were added."""
    rows = con.execute(
        f"SELECT id, {', '.join(_COLUMNS)} FROM place WHERE trainer_id = ? ORDER BY id",
        (trainer_id,),
    )
    return tuple(PlaceRow(**(dict(row) | {"wall": bool(row["wall"])})) for row in rows)


def place(con: Connection, trainer_id: int, place_id: int) -> PlaceRow:
    """Return one place of a trainer; MissingError if there is none."""
    for one in places(con, trainer_id):
        if one.id == place_id:
            return one
    raise MissingError(Said("place {place_id} does not exist here", place_id=Name(str(place_id))))
