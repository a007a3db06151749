"""By which rule a lift goes on, and a trainer's own rules."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields

from widearc.store.connection import Connection


@dataclass(frozen=True, slots=True, kw_only=True)
class RuleRow:
    """A client's rule for an exercise: its name, sets, the range of reps; percent: share a week;
    weeks until a light one, at deload (share of the load).
    """

    client_id: int
    exercise: str
    rule: str
    sets: int
    low: int
    high: int
    percent: float
    weeks: int
    deload: float


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnRuleRow:
    """What a trainer does after an event, with the reason."""

    event: str
    act: str
    share: float
    reason: str


_RULE = tuple(f.name for f in fields(RuleRow))


def rule_of(con: Connection, trainer_id: int, client_id: int, exercise: str) -> RuleRow | None:
    """Return a client's rule for an exercise, None where none was chosen."""
    row = con.execute(
        f"""SELECT {", ".join(_RULE)} FROM progression
            WHERE trainer_id = ? AND client_id = ? AND exercise = ?""",
        (trainer_id, client_id, exercise),
    ).fetchone()
    return None if row is None else RuleRow(**dict(row))


def set_rule(con: Connection, trainer_id: int, row: RuleRow) -> None:
    """Keep a client's rule for an exercise, in the place of another."""
    changed = ", ".join(f"{n} = excluded.{n}" for n in _RULE[2:])
    con.execute(
        f"""INSERT INTO progression (trainer_id, {", ".join(_RULE)})
            VALUES (?, {", ".join("?" for _ in _RULE)})
            ON CONFLICT (trainer_id, client_id, exercise) DO UPDATE SET {changed}""",
        (trainer_id, *(getattr(row, name) for name in _RULE)),
    )


def own_rules(con: Connection, trainer_id: int) -> Mapping[str, OwnRuleRow]:
    """Return a trainer's own rules by event."""
    rows = con.execute(
        "SELECT event, act, share, reason FROM own_rule WHERE trainer_id = ?", (trainer_id,)
    )
    return {row["event"]: OwnRuleRow(**dict(row)) for row in rows}


def set_own_rule(con: Connection, trainer_id: int, row: OwnRuleRow) -> None:
    """Keep what a trainer does after an event."""
    con.execute(
        """INSERT INTO own_rule (trainer_id, event, act, share, reason) VALUES (?, ?, ?, ?, ?)
           ON CONFLICT (trainer_id, event) DO UPDATE SET act = excluded.act,
           share = excluded.share, reason = excluded.reason""",
        (trainer_id, row.event, row.act, row.share, row.reason),
    )
