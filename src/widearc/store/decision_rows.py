"""Decisions: what was done instead, with the numbers it rested on."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from widearc.core.kit import Piece
from widearc.store.connection import Connection


@dataclass(frozen=True, slots=True, kw_only=True)
class DecisionRow:
    """One decision. wanted_kg: the load that was planned; match, shape, reach, level as shares.

    ticks: what was ticked off before the first rep. strip: intended and actual N·m on the main
    joint, even steps over the wanted range, lengthened first. set_up_said, sentence_said: the same
    as set_up and sentence, as it can be said again (None where it was kept as text alone).
    scenario: JSON of what is done; asked: the address of what was wanted; uses: JSON of
    the ids of what it uses (None: kept before
    either was).
    """

    place_id: int
    client_id: int
    decided_at: str
    wanted_exercise: str
    wanted_kg: float
    sets: int
    reps: int
    exercise: str
    set_up: str
    sentence: str
    match: float
    shape: float
    reach: float
    level: float
    pieces: tuple[Piece, ...] = ()
    options: Mapping[str, float]
    ticks: tuple[str, ...] = ()
    strip: tuple[tuple[float, float], ...] = ()
    set_up_said: str | None = None
    sentence_said: str | None = None
    scenario: str | None = None
    asked: str | None = None
    uses: str | None = None
    id: int = 0
    place: str = ""
    client: str = ""


_COLUMNS = (
    "place_id",
    "client_id",
    "decided_at",
    "wanted_exercise",
    "wanted_kg",
    "sets",
    "reps",
    "exercise",
    "set_up",
    "sentence",
    "set_up_said",
    "sentence_said",
    "scenario",
    "asked",
    "uses",
    "match",
    "shape",
    "reach",
    "level",
)


def add_decision(con: Connection, trainer_id: int, row: DecisionRow) -> int:
    """Keep a decision with its pieces and options; return its id. Call inside a transaction."""
    names = ", ".join(f'"{name}"' for name in _COLUMNS)
    marks = ", ".join("?" for _ in _COLUMNS)
    ticks = json.dumps(row.ticks) if row.ticks else None
    cursor = con.execute(
        f"INSERT INTO decision (trainer_id, ticks, {names}) VALUES (?, ?, {marks})",
        (trainer_id, ticks, *(getattr(row, name) for name in _COLUMNS)),
    )
    decision_id = int(cursor.lastrowid or 0)
    con.executemany(
        """INSERT INTO decision_piece (decision_id, position, trainer_id, kind, label, number, kg)
           VALUES (?, ?, ?, ?, ?, ?, ?)""",
        [
            (decision_id, i, trainer_id, p.kind, p.label, p.number, p.kg)
            for i, p in enumerate(row.pieces)
        ],
    )
    con.executemany(
        "INSERT INTO decision_option (decision_id, name, trainer_id, value) VALUES (?, ?, ?, ?)",
        [(decision_id, name, trainer_id, float(value)) for name, value in row.options.items()],
    )
    con.executemany(
        """INSERT INTO decision_strip (decision_id, position, trainer_id, intended_nm, actual_nm)
           VALUES (?, ?, ?, ?, ?)""",
        [(decision_id, i, trainer_id, t, c) for i, (t, c) in enumerate(row.strip)],
    )
    return decision_id


def decisions(con: Connection, trainer_id: int, *, most: int = 100) -> tuple[DecisionRow, ...]:
    """Return a trainer's newest decisions, newest first."""
    names = ", ".join(f'd."{name}"' for name in _COLUMNS)
    rows = con.execute(
        f"""SELECT d.id, d.ticks, {names}, p.name AS place, c.name AS client FROM decision d
            JOIN place p ON p.id = d.place_id JOIN client c ON c.id = d.client_id
            WHERE d.trainer_id = ? ORDER BY d.id DESC LIMIT ?""",
        (trainer_id, most),
    ).fetchall()
    ids = [row["id"] for row in rows]
    pieces, strips = _children(con, trainer_id, ids), _strips(con, trainer_id, ids)
    return tuple(
        DecisionRow(
            **{**dict(row), "ticks": tuple(json.loads(row["ticks"] or "[]"))},
            pieces=pieces.get(row["id"], ()),
            strip=tuple(strips.get(row["id"], ())),
            options={},
        )
        for row in rows
    )


def _strips(
    con: Connection, trainer_id: int, ids: Sequence[int]
) -> dict[int, list[tuple[float, float]]]:
    marks = ", ".join("?" for _ in ids)
    found: dict[int, list[tuple[float, float]]] = {}
    for row in con.execute(
        f"""SELECT decision_id, intended_nm, actual_nm FROM decision_strip
            WHERE trainer_id = ? AND decision_id IN ({marks}) ORDER BY decision_id, position""",
        (trainer_id, *ids),
    ):
        found.setdefault(row["decision_id"], []).append((row["intended_nm"], row["actual_nm"]))
    return found


def _children(con: Connection, trainer_id: int, ids: Sequence[int]) -> dict[int, tuple[Piece, ...]]:
    marks = ", ".join("?" for _ in ids)
    rows = con.execute(
        f"""SELECT decision_id, kind, label, number, kg FROM decision_piece
            WHERE trainer_id = ? AND decision_id IN ({marks}) ORDER BY decision_id, position""",
        (trainer_id, *ids),
    )
    found: dict[int, tuple[Piece, ...]] = {}
    for row in rows:
        piece = Piece(
            item="", kind=row["kind"], label=row["label"], number=row["number"], kg=row["kg"]
        )
        found[row["decision_id"]] = (*found.get(row["decision_id"], ()), piece)
    return found
