"""Forms that were answered: what was sent twice is kept once."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from widearc.core.words import Said
from widearc.store.errors import RepeatedError

KEPT = 1000  # a trainer: a second tap comes within seconds, a second try within a day


@dataclass(frozen=True, slots=True, kw_only=True)
class Once:
    """A form as it was sent: whose, its key, when."""

    trainer_id: int
    key: str
    at: str


def claim(con: sqlite3.Connection, once: Once) -> None:
    """Write down that a form is answered, in the transaction that answers it. Raises
    RepeatedError where it was before.
    """
    try:
        con.execute(
            "INSERT INTO once (trainer_id, key, answered_at) VALUES (?, ?, ?)",
            (once.trainer_id, once.key, once.at),
        )
    except sqlite3.IntegrityError:
        raise RepeatedError(Said("this was sent already, and kept")) from None
    con.execute(
        """DELETE FROM once WHERE trainer_id = ? AND rowid NOT IN
           (SELECT rowid FROM once WHERE trainer_id = ? ORDER BY rowid DESC LIMIT ?)""",
        (once.trainer_id, once.trainer_id, KEPT),
    )


def answer_of(con: sqlite3.Connection, trainer_id: int, key: str) -> str | None:
    """Return where the answer to a form led: empty where that is not known, None where it was not
    answered.
    """
    row = con.execute(
        "SELECT coalesce(location, '') FROM once WHERE trainer_id = ? AND key = ?",
        (trainer_id, key),
    ).fetchone()
    return None if row is None else str(row[0])


def keep_answer(con: sqlite3.Connection, once: Once, location: str) -> None:
    """Write down where the answer to a form led, where it wrote anything."""
    con.execute(
        "UPDATE once SET location = ? WHERE trainer_id = ? AND key = ?",
        (location[:4000], once.trainer_id, once.key),
    )
