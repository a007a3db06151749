"""Where set-ups felt hardest, beside where they were computed to be."""

from __future__ import annotations

from dataclasses import dataclass

from widearc.store.connection import Connection


@dataclass(frozen=True, slots=True, kw_only=True)
class FeltRow:
    """One felt rating; felt and computed: "lengthened", "middle" or "shortened"."""

    client_id: int
    felt_at: str
    exercise: str
    words: str
    felt: str
    computed: str
    id: int = 0


_COLUMNS = ("client_id", "felt_at", "exercise", "words", "felt", "computed")


def add_felt(con: Connection, trainer_id: int, row: FeltRow) -> int:
    """Keep a rating; return its id."""
    cursor = con.execute(
        f"INSERT INTO felt (trainer_id, {', '.join(_COLUMNS)}) VALUES (?, ?, ?, ?, ?, ?, ?)",
        (trainer_id, *(getattr(row, name) for name in _COLUMNS)),
    )
    return int(cursor.lastrowid or 0)


def felt_rows(con: Connection, trainer_id: int, client_id: int) -> tuple[FeltRow, ...]:
    """Return a client's ratings, oldest first."""
    rows = con.execute(
        (
            f"SELECT id, {', '.join(_COLUMNS)} FROM felt WHERE trainer_id = ? AND client_id = ? "
            "ORDER BY id"
        ),
        (trainer_id, client_id),
    )
    return tuple(FeltRow(**dict(r)) for r in rows)
