"""A trainer's own words on the cards of exercises."""

from __future__ import annotations

from collections.abc import Mapping

from widearc.store.connection import Connection

SECTIONS = ("checks", "cues", "mistakes", "breathing", "cautions")


def card_edits(con: Connection, trainer_id: int, exercise: str) -> Mapping[str, str]:
    """Return the trainer's own words per section of an exercise's card, lines as typed."""
    rows = con.execute(
        "SELECT section, words FROM card_edit WHERE trainer_id = ? AND exercise = ?",
        (trainer_id, exercise),
    )
    return {row["section"]: row["words"] for row in rows}


def set_card_edit(
    con: Connection, trainer_id: int, exercise: str, section: str, words: str | None
) -> None:
    """Keep own words for a section, or go back to the usual ones (None). Call inside a
    transaction.
    """
    con.execute(
        "DELETE FROM card_edit WHERE trainer_id = ? AND exercise = ? AND section = ?",
        (trainer_id, exercise, section),
    )
    if words is not None:
        con.execute(
            "INSERT INTO card_edit (trainer_id, exercise, section, words) VALUES (?, ?, ?, ?)",
            (trainer_id, exercise, section, words),
        )
