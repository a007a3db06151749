"""Stand-ins a trainer prefers, and items that a client uses now."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from widearc.store.connection import Connection


@dataclass(frozen=True, slots=True, kw_only=True)
class Favourite:
    """A stand-in preferred for a wanted exercise, and why."""

    wanted: str
    exercise: str
    reason: str
    kept_at: str


def favourites(con: Connection, trainer_id: int, wanted: str) -> Mapping[str, Favourite]:
    """Return the favourites for a wanted exercise by their own id."""
    rows = con.execute(
        (
            "SELECT wanted, exercise, reason, kept_at FROM favourite WHERE trainer_id = ? AND "
            "wanted "
            "= ? ORDER BY id"
        ),
        (trainer_id, wanted),
    )
    return {r["exercise"]: Favourite(**dict(r)) for r in rows}


def put_favourite(con: Connection, trainer_id: int, row: Favourite) -> None:
    """Keep a favourite, in the place of the one before."""
    drop_favourite(con, trainer_id, row.wanted, row.exercise)
    con.execute(
        (
            "INSERT INTO favourite (trainer_id, wanted, exercise, reason, kept_at) VALUES (?, ?, "
            "?, "
            "?, ?)"
        ),
        (trainer_id, row.wanted, row.exercise, row.reason, row.kept_at),
    )


def drop_favourite(con: Connection, trainer_id: int, wanted: str, exercise: str) -> None:
    """Forget a favourite; nothing happens if it is not there."""
    con.execute(
        "DELETE FROM favourite WHERE trainer_id = ? AND wanted = ? AND exercise = ?",
        (trainer_id, wanted, exercise),
    )


def set_asides(con: Connection, trainer_id: int, place_id: int) -> Mapping[int, int]:
    """Return the client by the id of each item that is set aside at a place."""
    rows = con.execute(
        """SELECT s.equipment_id, s.client_id FROM set_aside s
           JOIN equipment e ON e.id = s.equipment_id
           WHERE s.trainer_id = ? AND e.place_id = ?""",
        (trainer_id, place_id),
    )
    return {r["equipment_id"]: r["client_id"] for r in rows}


def set_aside(
    con: Connection, trainer_id: int, equipment_ids: list[int], client_id: int, *, now: str
) -> None:
    """Set items aside for a client, from whoever had them."""
    for equipment_id in equipment_ids:
        con.execute(
            "DELETE FROM set_aside WHERE trainer_id = ? AND equipment_id = ?",
            (trainer_id, equipment_id),
        )
        con.execute(
            (
                "INSERT INTO set_aside (equipment_id, trainer_id, client_id, since) VALUES (?, "
                "?, ?, "
                "?)"
            ),
            (equipment_id, trainer_id, client_id, now),
        )


def give_back(con: Connection, trainer_id: int, client_id: int) -> None:
    """Free everything a client has set aside."""
    con.execute(
        "DELETE FROM set_aside WHERE trainer_id = ? AND client_id = ?", (trainer_id, client_id)
    )
