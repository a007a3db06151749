"""The undo history: what changed last, and how to take it back."""

from __future__ import annotations

from dataclasses import dataclass

from widearc.store.cards import set_card_edit
from widearc.store.connection import Connection
from widearc.store.decisions import set_removed
from widearc.store.equipment import ItemRow, Reading, State, readings, replace_readings, set_band, set_state
from widearc.store.errors import MissingError


@dataclass(frozen=True, slots=True, kw_only=True)
class Change:
    """One change that can be taken back; words as shown."""

    id: int
    changed_at: str
    kind: str
    words: str


def record_state(con: Connection, trainer_id: int, before: ItemRow, *, words: str, now: str) -> int:
    """Record an item's state as it was before a change; return the change's id."""
    cursor = con.execute(
        """INSERT INTO change (trainer_id, place_id, changed_at, kind, words, equipment_id, state_before,
               state_at_before) VALUES (?, ?, ?, 'state', ?, ?, ?, ?)""",
        (trainer_id, before.place_id, now, words, before.id, before.state.value, before.state_at),
    )
    return int(cursor.lastrowid or 0)


def record_readings(con: Connection, trainer_id: int, before: ItemRow, *, words: str, now: str) -> int:
    """Record a band's readings and measuring as they were before a change; return the change's id."""
    cursor = con.execute(
        """INSERT INTO change (trainer_id, place_id, changed_at, kind, words, equipment_id, rest_m_before,
               law_before, strands_before, shape_before, back_share_before, looked_over_before)
           VALUES (?, ?, ?, 'readings', ?, ?, ?, ?, ?, ?, ?, ?)""",
        (
            trainer_id,
            before.place_id,
            now,
            words,
            before.id,
            before.rest_m,
            before.law,
            before.strands,
            before.shape,
            before.back_share,
            before.looked_over_on,
        ),
    )
    change_id = int(cursor.lastrowid or 0)
    con.executemany(
        "INSERT INTO change_reading (change_id, position, trainer_id, length_m, force_n) VALUES (?, ?, ?, ?, ?)",
        [(change_id, i, trainer_id, r.length_m, r.force_n) for i, r in enumerate(readings(con, trainer_id, before.id))],
    )
    return change_id


def record_decision(con: Connection, trainer_id: int, place_id: int, decision_id: int, *, words: str, now: str) -> int:
    """Record that a decision was kept; return the change's id."""
    cursor = con.execute(
        """INSERT INTO change (trainer_id, place_id, changed_at, kind, words, decision_id)
           VALUES (?, ?, ?, 'decision', ?, ?)""",
        (trainer_id, place_id, now, words, decision_id),
    )
    return int(cursor.lastrowid or 0)


def record_card(
    con: Connection, trainer_id: int, exercise: str, section: str, before: str | None, *, words: str, now: str
) -> int:
    """Record a card's own words as they were before a change (None: the usual ones); return the change's id."""
    cursor = con.execute(
        """INSERT INTO change (trainer_id, changed_at, kind, words, exercise, section, words_before)
           VALUES (?, ?, 'card', ?, ?, ?, ?)""",
        (trainer_id, now, words, exercise, section, before),
    )
    return int(cursor.lastrowid or 0)


def last_card_change(con: Connection, trainer_id: int, exercise: str) -> Change | None:
    """Return the newest change of an exercise's card that is not taken back yet, or None."""
    row = con.execute(
        """SELECT id, changed_at, kind, words FROM change
           WHERE trainer_id = ? AND kind = 'card' AND exercise = ? AND undone_at IS NULL ORDER BY id DESC LIMIT 1""",
        (trainer_id, exercise),
    ).fetchone()
    return None if row is None else Change(**dict(row))


def last_change(con: Connection, trainer_id: int, place_id: int) -> Change | None:
    """Return the newest change of a place that is not taken back yet, or None."""
    row = con.execute(
        """SELECT id, changed_at, kind, words FROM change
           WHERE trainer_id = ? AND place_id = ? AND undone_at IS NULL ORDER BY id DESC LIMIT 1""",
        (trainer_id, place_id),
    ).fetchone()
    return None if row is None else Change(**dict(row))


def undo(con: Connection, trainer_id: int, change_id: int, *, now: str) -> Change:
    """Take a change back and return it; MissingError if it does not exist or is taken back already.

    Call inside a transaction.
    """
    row = con.execute(
        "SELECT * FROM change WHERE trainer_id = ? AND id = ? AND undone_at IS NULL", (trainer_id, change_id)
    ).fetchone()
    if row is None:
        raise MissingError("nothing to undo: that change is taken back already")
    if row["kind"] == "card":
        newest = last_card_change(con, trainer_id, row["exercise"])
    else:
        newest = last_change(con, trainer_id, row["place_id"])
    if newest is None or newest.id != change_id:
        raise MissingError("something else changed since: undo that first")
    if row["kind"] == "state":
        set_state(con, trainer_id, row["equipment_id"], State(row["state_before"]), at=row["state_at_before"])
    elif row["kind"] == "readings":
        _put_back_readings(con, trainer_id, row["equipment_id"], change_id)
        set_band(
            con,
            trainer_id,
            row["equipment_id"],
            rest_m=row["rest_m_before"],
            strands=row["strands_before"],
            law=row["law_before"],
            shape=row["shape_before"],
            back_share=row["back_share_before"],
            looked_over_on=row["looked_over_before"],
        )
    elif row["kind"] == "card":
        set_card_edit(con, trainer_id, row["exercise"], row["section"], row["words_before"])
    else:
        set_removed(con, trainer_id, row["decision_id"], now)
    con.execute("UPDATE change SET undone_at = ? WHERE trainer_id = ? AND id = ?", (now, trainer_id, change_id))
    return Change(id=row["id"], changed_at=row["changed_at"], kind=row["kind"], words=row["words"])


def _put_back_readings(con: Connection, trainer_id: int, item_id: int, change_id: int) -> None:
    old = con.execute(
        "SELECT length_m, force_n FROM change_reading WHERE trainer_id = ? AND change_id = ? ORDER BY position",
        (trainer_id, change_id),
    )
    replace_readings(con, trainer_id, item_id, [Reading(**dict(r)) for r in old])
