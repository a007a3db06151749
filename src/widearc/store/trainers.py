"""Trainers. One local trainer exists until accounts come."""

from __future__ import annotations

import json
from dataclasses import dataclass

from widearc.store.connection import Connection


def time_zone(con: Connection, trainer_id: int) -> str:
    """Return the name of the zone that a trainer has set, empty for none."""
    row = con.execute(
        "SELECT coalesce(time_zone, '') FROM trainer WHERE id = ?", (trainer_id,)
    ).fetchone()
    return "" if row is None else str(row[0])


def set_time_zone(con: Connection, trainer_id: int, name: str) -> None:
    """Set a trainer's zone by its name, empty for the browser's."""
    con.execute("UPDATE trainer SET time_zone = ? WHERE id = ?", (name or None, trainer_id))


def units(con: Connection, trainer_id: int) -> str:
    """Return the units that a trainer reads and types, "metric" where nobody is known yet."""
    row = con.execute("SELECT units FROM trainer WHERE id = ?", (trainer_id,)).fetchone()
    return "metric" if row is None else str(row[0])


def set_units(con: Connection, trainer_id: int, name: str) -> None:
    """Set the units that a trainer reads and types."""
    con.execute("UPDATE trainer SET units = ? WHERE id = ?", (name, trainer_id))


def language(con: Connection, trainer_id: int) -> str:
    """Return the language that a trainer reads, "en" where nobody is known yet."""
    row = con.execute("SELECT language FROM trainer WHERE id = ?", (trainer_id,)).fetchone()
    return "en" if row is None else str(row[0])


def set_language(con: Connection, trainer_id: int, name: str) -> None:
    """Set the language that a trainer reads, by its two letters."""
    con.execute("UPDATE trainer SET language = ? WHERE id = ?", (name, trainer_id))


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


@dataclass(frozen=True, slots=True, kw_only=True)
class Reads:
    """How a trainer reads: units, language, whether without a number (by feel), and of which
    screens the short how-to is put away.
    """

    units: str
    language: str
    by_feel: bool
    how_gone: frozenset[str] = frozenset()


def reading(con: Connection, trainer_id: int) -> Reads:
    """Return how a trainer reads; metric English with numbers where nobody is known yet."""
    row = con.execute(
        "SELECT units, language, by_feel, how_gone FROM trainer WHERE id = ?", (trainer_id,)
    ).fetchone()
    if row is None:
        return Reads(units="metric", language="en", by_feel=False)
    return Reads(
        units=row["units"],
        language=row["language"],
        by_feel=bool(row["by_feel"]),
        how_gone=frozenset(json.loads(row["how_gone"])),
    )


def set_how_gone(con: Connection, trainer_id: int, screens: frozenset[str]) -> None:
    """Set of which screens the short how-to is put away."""
    text = json.dumps(sorted(screens))
    con.execute("UPDATE trainer SET how_gone = ? WHERE id = ?", (text, trainer_id))


def set_by_feel(con: Connection, trainer_id: int, *, on: bool) -> None:
    """Set whether a trainer reads them without a number."""
    con.execute("UPDATE trainer SET by_feel = ? WHERE id = ?", (int(on), trainer_id))
