"""The undo history: every change is recorded row by row as it happens, and can be taken back.

Temporary triggers on the tracked tables write down, for each row that is touched while a change is
recorded, the statement that puts it back as it was (a usual technique with SQLite). They are made
once a connection and stay: a row of `undo_now` says which change is recorded, none that nothing is.
Undoing runs the statements from the last to the first. So every present and future kind of change
has its undo without code of its own.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from widearc.core.words import Name, Said, Value, Words
from widearc.store.connection import Connection, transaction
from widearc.store.errors import ConflictError, MissingError
from widearc.words import again, kept

TRACKED = (
    "client",
    "client_sore",
    "place",
    "equipment",
    "quantity",
    "band",
    "reading",
    "machine_reading",
    "setting",
    "decision",
    "decision_piece",
    "decision_option",
    "card_edit",
    "strength_set",
    "strength_scale",
    "intent",
    "intent_action",
    "intent_handle",
    "felt",
    "favourite",
    "set_aside",
    "decision_strip",
    "strength_strip",
    "planned",
    "session",
    "lift",
    "lift_action",
    "lift_muscle",
    "set_done",
    "set_was",
    "client_note",
    "progression",
    "own_rule",
    "week",
    "week_day",
    "slot",
    "finding_aside",
)
KEPT_CHANGES = 300  # a trainer: older ones cannot be taken back
TOLD_CHANGES = 5000  # a trainer: older ones are forgotten


@dataclass(frozen=True, slots=True, kw_only=True)
class Change:
    """One change that can be taken back; words as they are kept; scope: what it belongs to
    ("place:3").
    """

    id: int
    changed_at: str
    kind: str
    words: str
    scope: str

    @property
    def said(self) -> Value:
        """Return what was changed, as it can be said; as it was kept where it is plain text."""
        return again(self.words) or Name(self.words)


@contextmanager
def recorded(
    con: Connection, trainer_id: int, *, scope: str, kind: str, words: Words | str, now: str
) -> Iterator[None]:
    """Run a block in one transaction whose changes of tracked rows can be undone; a block without
    any leaves none. words: a sentence, or a plain text.
    """
    _listen(con)
    with transaction(con):
        cursor = con.execute(
            (
                "INSERT INTO change (trainer_id, scope, kind, words, changed_at) VALUES (?, ?, "
                "?, ?, "
                "?)"
            ),
            (trainer_id, scope, kind, words if isinstance(words, str) else kept(words), now),
        )
        change_id = int(cursor.lastrowid or 0)
        con.execute("INSERT INTO temp.undo_now VALUES (?, ?)", (change_id, trainer_id))
        yield
        con.execute("DELETE FROM temp.undo_now")
        if not con.execute(
            "SELECT 1 FROM change_step WHERE change_id = ? LIMIT 1", (change_id,)
        ).fetchone():
            con.execute("DELETE FROM change WHERE id = ?", (change_id,))
        for table, most in (("change_step", KEPT_CHANGES), ("change", TOLD_CHANGES)):
            named = "change_id" if table == "change_step" else "id"
            con.execute(
                f"""DELETE FROM {table} WHERE trainer_id = ? AND {named} <= coalesce(
                    (SELECT id FROM change WHERE trainer_id = ? ORDER BY id DESC
                     LIMIT 1 OFFSET ?), -1)""",
                (trainer_id, trainer_id, most),
            )


def _listen(con: Connection) -> None:
    """Make the triggers, where this connection has none yet."""
    if con.recording:
        return
    con.execute("CREATE TEMP TABLE undo_now (change_id INTEGER, trainer_id INTEGER)")
    for table in TRACKED:
        columns = [row["name"] for row in con.execute(f"PRAGMA main.table_info({table})")]
        names = ", ".join(("rowid", *columns))
        olds = " || ', ' || ".join(f"quote(OLD.{c})" for c in ("rowid", *columns))
        sets = " || ', ' || ".join(f"'{c} = ' || quote(OLD.{c})" for c in columns)
        put_back = {
            "INSERT": f"'DELETE FROM {table} WHERE rowid = ' || NEW.rowid",
            "UPDATE": f"'UPDATE {table} SET ' || {sets} || ' WHERE rowid = ' || OLD.rowid",
            "DELETE": f"'INSERT INTO {table} ({names}) VALUES (' || {olds} || ')'",
        }
        for event, statement in put_back.items():
            con.execute(
                f"""CREATE TEMP TRIGGER undo_{table}_{event} AFTER {event} ON main.{table} BEGIN
                    INSERT INTO change_step (change_id, trainer_id, statement)
                    SELECT change_id, trainer_id, {statement} FROM undo_now; END"""
            )
    con.recording = True


_COLUMNS = "id, changed_at, kind, words, scope"


def last_change(con: Connection, trainer_id: int, scope: str) -> Change | None:
    """Return the newest change of a scope that is not taken back yet, or None."""
    row = con.execute(
        f"""SELECT {_COLUMNS} FROM change
            WHERE trainer_id = ? AND scope = ? AND undone_at IS NULL AND EXISTS
            (SELECT 1 FROM change_step WHERE change_id = change.id)
            ORDER BY id DESC LIMIT 1""",
        (trainer_id, scope),
    ).fetchone()
    return None if row is None else Change(**dict(row))


@dataclass(frozen=True, slots=True, kw_only=True)
class Told:
    """A change as the log tells it: when, by whom, what, and when it was taken back."""

    changed_at: str
    trainer: str
    words: str
    undone_at: str | None

    @property
    def said(self) -> Value:
        """Return what was changed, as it can be said; as it was kept where it is plain text."""
        return again(self.words) or Name(self.words)


def told_changes(con: Connection, trainer_id: int, most: int) -> tuple[Told, ...]:
    """Return what was changed, newest first, at most so many."""
    rows = con.execute(
        """SELECT changed_at, trainer.name AS trainer, words, undone_at FROM change
           JOIN trainer ON trainer.id = change.trainer_id
           WHERE trainer_id = ? ORDER BY change.id DESC LIMIT ?""",
        (trainer_id, most),
    )
    return tuple(Told(**dict(row)) for row in rows)


def undo(con: Connection, trainer_id: int, change_id: int, *, now: str) -> Change:
    """Take a change back and return it, in a transaction of its own.

    MissingError if it does not exist, is taken back already, or something else changed since.
    """
    # looked at and taken back in one: of two that undo at once, one finds it done
    try:
        with transaction(con):
            change = _undoable(con, trainer_id, change_id)
            # a parent may come back after its children
            con.execute("PRAGMA defer_foreign_keys = ON")
            for step in con.execute(
                """SELECT statement FROM change_step WHERE trainer_id = ? AND change_id = ?
                   ORDER BY id DESC""",
                (trainer_id, change_id),
            ).fetchall():
                con.execute(step["statement"])
            con.execute("UPDATE change SET undone_at = ? WHERE id = ?", (now, change_id))
            con.execute("DELETE FROM change_step WHERE change_id = ?", (change_id,))
    except ConflictError:
        # what it belonged to is gone, or its name is used again
        raise MissingError(Said("something else changed since: undo that first")) from None
    return change


def _undoable(con: Connection, trainer_id: int, change_id: int) -> Change:
    row = con.execute(
        f"SELECT {_COLUMNS} FROM change WHERE trainer_id = ? AND id = ? AND undone_at IS NULL",
        (trainer_id, change_id),
    ).fetchone()
    if row is None:
        raise MissingError(Said("nothing to undo: that change is taken back already"))
    change = Change(**dict(row))
    newest = last_change(con, trainer_id, change.scope)
    if newest is None or newest.id != change_id:
        raise MissingError(Said("something else changed since: undo that first"))
    return change
