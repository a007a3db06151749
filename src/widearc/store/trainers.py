"""Trainers. One local trainer exists until accounts come."""

from __future__ import annotations

from widearc.store.connection import Connection


def local_trainer(con: Connection, *, now: str) -> int:
    """Return the local trainer's id, made at the first call; `now` is an ISO time."""
    row = con.execute("SELECT id FROM trainer ORDER BY id LIMIT 1").fetchone()
    if row is None:
        con.execute(
            (
                "INSERT INTO trainer (name, created_at) SELECT 'Trainer', ? WHERE NOT EXISTS "
                "(SELECT "
                "1 FROM trainer)"
            ),
            (now,),
        )
        row = con.execute("SELECT id FROM trainer ORDER BY id LIMIT 1").fetchone()
    return int(row["id"])
