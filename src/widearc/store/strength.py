"""Sets that tell how strong a client is."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from widearc.core.strength import Scale
from widearc.store.connection import Connection


@dataclass(frozen=True, slots=True, kw_only=True)
class StrengthSet:
    """One logged set with what it says of each action; strip: its demand in even steps, lengthened
    first, N·m.
    """

    client_id: int
    logged_at: str
    exercise: str
    words: str
    side: str
    reps: int
    reserve: int
    formula: str
    scales: tuple[Scale, ...] = ()
    strip: tuple[float, ...] = ()
    id: int = 0


_COLUMNS = ("client_id", "logged_at", "exercise", "words", "side", "reps", "reserve", "formula")


def add_strength_set(con: Connection, trainer_id: int, row: StrengthSet) -> int:
    """Keep a set with its scales; return its id."""
    marks = ", ".join("?" for _ in range(len(_COLUMNS) + 1))
    cursor = con.execute(
        f"INSERT INTO strength_set (trainer_id, {', '.join(_COLUMNS)}) VALUES ({marks})",
        (trainer_id, *(getattr(row, name) for name in _COLUMNS)),
    )
    set_id = int(cursor.lastrowid or 0)
    con.executemany(
        """INSERT INTO strength_scale
           (set_id, action, trainer_id, kappa, error_share, demand_nm, at_least)
           VALUES (?, ?, ?, ?, ?, ?, ?)""",
        [
            (set_id, s.action, trainer_id, s.kappa, s.error_share, s.demand_nm, int(s.at_least))
            for s in row.scales
        ],
    )
    con.executemany(
        "INSERT INTO strength_strip (set_id, position, trainer_id, demand_nm) VALUES (?, ?, ?, ?)",
        [(set_id, i, trainer_id, nm) for i, nm in enumerate(row.strip)],
    )
    return set_id


def strength_sets(con: Connection, trainer_id: int, client_id: int) -> tuple[StrengthSet, ...]:
    """Return a client's sets, oldest first."""
    scales: dict[int, list[Scale]] = {}
    for r in con.execute(
        """SELECT x.set_id, x.action, x.kappa, x.error_share, x.demand_nm, x.at_least
           FROM strength_scale x JOIN strength_set s ON s.id = x.set_id
           WHERE s.trainer_id = ? AND s.client_id = ? ORDER BY x.kappa DESC""",
        (trainer_id, client_id),
    ):
        values = dict(r) | {"at_least": bool(r["at_least"])}
        scales.setdefault(values.pop("set_id"), []).append(Scale(**values))
    rows = con.execute(
        f"""SELECT id, {", ".join(_COLUMNS)} FROM strength_set
            WHERE trainer_id = ? AND client_id = ? ORDER BY id""",
        (trainer_id, client_id),
    )
    strips: dict[int, list[float]] = {}
    for r in con.execute(
        """SELECT x.set_id, x.demand_nm FROM strength_strip x JOIN strength_set s ON s.id = x.set_id
           WHERE s.trainer_id = ? AND s.client_id = ? ORDER BY x.set_id, x.position""",
        (trainer_id, client_id),
    ):
        strips.setdefault(r["set_id"], []).append(r["demand_nm"])
    return tuple(
        StrengthSet(
            **dict(r), scales=tuple(scales.get(r["id"], ())), strip=tuple(strips.get(r["id"], ()))
        )
        for r in rows
    )


def remove_strength_set(con: Connection, trainer_id: int, set_id: int) -> None:
    """Remove a set."""
    con.execute("DELETE FROM strength_set WHERE trainer_id = ? AND id = ?", (trainer_id, set_id))


def strength_set_client(con: Connection, trainer_id: int, set_id: int) -> int | None:
    """Return the client of a set, None if there is no such set."""
    row: Sequence[int] | None = con.execute(
        "SELECT client_id FROM strength_set WHERE trainer_id = ? AND id = ?", (trainer_id, set_id)
    ).fetchone()
    return None if row is None else int(row[0])
