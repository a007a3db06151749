"""The record: sessions, lifts, sets, and what a lift asks a rep."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, fields

from widearc.core.kit import Piece
from widearc.store.connection import Connection


@dataclass(frozen=True, slots=True, kw_only=True)
class SessionRow:
    """One session; times are ISO; ended_at None: it is under way."""

    client_id: int
    place_id: int
    started_at: str
    ended_at: str | None = None
    note: str = ""
    day_id: int | None = None
    id: int = 0
    client: str = ""
    place: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class LiftAction:
    """What a lift asks of a joint action, one leg: greatest demand N·m, the greatest part of the
    usual strength (None: none is known), positive work a rep J; first: the action gives out first.
    """

    action: str
    demand_nm: float
    ratio: float | None
    work_j: float
    first: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class LiftMuscle:
    """Work of a muscle group a rep, J, in thirds of its own length, and what a set counts for
    it.
    """

    grp: str
    long_j: float
    middle_j: float
    short_j: float
    counts: float


@dataclass(frozen=True, slots=True, kw_only=True)
class LiftRow:
    """One lift of a session. scenario: JSON of what is done; asked: the address of what was wanted;
    said: the set-up as a kept sentence; items: what it uses of the place, by id; why it stands
    instead of another. uid: made where it was put on; hold_s: held in every rep, seconds.
    tilt: mean demand of the long half over the short one's, less 1; hardest: the third that asks
    most (both None: nothing is known).
    """

    session_id: int
    position: int
    exercise: str
    scenario: str
    asked: str
    said: str
    pieces: tuple[Piece, ...]
    items: tuple[int, ...]
    sets: int
    reps: int
    one_sided: bool
    lowering_s: float
    lifting_s: float
    rest_s: int
    instead_of: int | None = None
    why: str = ""
    ended: bool = False
    model: str
    uid: str = ""
    hold_s: float = 0.0
    tilt: float | None = None
    hardest: str | None = None
    slot_id: int | None = None
    id: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class SetRow:
    """One set that was done. uid: made where it was done; number: which set of the lift it was
    taken for there; reserve, pain and held_s (seconds) None: not said.
    """

    lift_id: int
    uid: str
    side: str
    reps: int
    reserve: int | None = None
    limiter: str = ""
    felt: str = ""
    form: str = ""
    pain_joint: str = ""
    pain_side: str = ""
    pain: int | None = None
    note: str = ""
    number: int | None = None
    held_s: float | None = None
    done_at: str
    received_at: str
    id: int = 0


_SESSION = ("client_id", "place_id", "started_at", "ended_at", "note", "day_id")
_LIFT = tuple(f.name for f in fields(LiftRow) if f.name != "id")
_SET = tuple(f.name for f in fields(SetRow) if f.name != "id")
_EDITED = (
    "side",
    "reps",
    "reserve",
    "limiter",
    "felt",
    "form",
    "pain_joint",
    "pain_side",
    "pain",
    "held_s",
    "note",
)


def add_session(con: Connection, trainer_id: int, row: SessionRow) -> int:
    """Keep a session; return its id."""
    cursor = con.execute(
        f"INSERT INTO session (trainer_id, {', '.join(_SESSION)}) VALUES (?, ?, ?, ?, ?, ?, ?)",
        (trainer_id, *(getattr(row, name) for name in _SESSION)),
    )
    return int(cursor.lastrowid or 0)


def end_session(con: Connection, trainer_id: int, session_id: int, ended_at: str | None) -> None:
    """Set when a session ended; None: it goes on."""
    con.execute(
        "UPDATE session SET ended_at = ? WHERE trainer_id = ? AND id = ?",
        (ended_at, trainer_id, session_id),
    )


def remove_session(con: Connection, trainer_id: int, session_id: int) -> None:
    """Remove a session with its lifts and sets."""
    con.execute("DELETE FROM session WHERE trainer_id = ? AND id = ?", (trainer_id, session_id))


def sessions(
    con: Connection,
    trainer_id: int,
    *,
    client_id: int | None = None,
    session_id: int | None = None,
    under_way: bool = False,
    most: int = 200,
) -> tuple[SessionRow, ...]:
    """Return sessions, newest first: of a client, one, or those under way."""
    asked = "s.trainer_id = ?"
    values: list[object] = [trainer_id]
    for name, value in (("client_id", client_id), ("id", session_id)):
        if value is not None:
            asked += f" AND s.{name} = ?"
            values.append(value)
    if under_way:
        asked += " AND s.ended_at IS NULL"
    rows = con.execute(
        f"""SELECT s.id, {", ".join("s." + n for n in _SESSION)}, c.name AS client, p.name AS place
            FROM session s JOIN client c ON c.id = s.client_id JOIN place p ON p.id = s.place_id
            WHERE {asked} ORDER BY s.started_at DESC, s.id DESC LIMIT ?""",
        (*values, most),
    )
    return tuple(SessionRow(**dict(row)) for row in rows)


def add_lift(
    con: Connection,
    trainer_id: int,
    row: LiftRow,
    actions: Sequence[LiftAction],
    muscles: Sequence[LiftMuscle],
) -> int:
    """Keep a lift with what it asks a rep; return its id."""
    values = {name: getattr(row, name) for name in _LIFT}
    values["pieces"] = json.dumps([asdict(p) for p in row.pieces])
    values["items"] = json.dumps(row.items)
    values |= {name: int(values[name]) for name in ("one_sided", "ended")}
    marks = ", ".join("?" for _ in range(len(_LIFT) + 1))
    cursor = con.execute(
        f"INSERT INTO lift (trainer_id, {', '.join(_LIFT)}) VALUES ({marks})",
        (trainer_id, *values.values()),
    )
    lift_id = int(cursor.lastrowid or 0)
    _add_measure(con, trainer_id, lift_id, actions, muscles)
    return lift_id


def put_measure(
    con: Connection,
    trainer_id: int,
    lift_id: int,
    actions: Sequence[LiftAction],
    muscles: Sequence[LiftMuscle],
    *,
    tilt: float | None,
    hardest: str | None,
    model: str,
) -> None:
    """Put what a lift asks a rep, by a model, in place of what an older one said."""
    for table in ("lift_action", "lift_muscle"):
        con.execute(
            f"DELETE FROM {table} WHERE trainer_id = ? AND lift_id = ?", (trainer_id, lift_id)
        )
    _add_measure(con, trainer_id, lift_id, actions, muscles)
    con.execute(
        "UPDATE lift SET tilt = ?, hardest = ?, model = ? WHERE trainer_id = ? AND id = ?",
        (tilt, hardest, model, trainer_id, lift_id),
    )


def lifts_of_older(con: Connection, trainer_id: int, model: str) -> tuple[tuple[int, str], ...]:
    """Return id and scenario of every lift that another model measured."""
    rows = con.execute(
        "SELECT id, scenario FROM lift WHERE trainer_id = ? AND model <> ? ORDER BY id",
        (trainer_id, model),
    )
    return tuple((row["id"], row["scenario"]) for row in rows)


def number_of_lifts(con: Connection, trainer_id: int) -> int:
    """Return how many lifts there are."""
    found = con.execute("SELECT count(*) FROM lift WHERE trainer_id = ?", (trainer_id,))
    return int(found.fetchone()[0])


def _add_measure(
    con: Connection,
    trainer_id: int,
    lift_id: int,
    actions: Sequence[LiftAction],
    muscles: Sequence[LiftMuscle],
) -> None:
    con.executemany(
        """INSERT INTO lift_action (lift_id, action, trainer_id, demand_nm, ratio, work_j, first)
           VALUES (?, ?, ?, ?, ?, ?, ?)""",
        [
            (lift_id, a.action, trainer_id, a.demand_nm, a.ratio, a.work_j, int(a.first))
            for a in actions
        ],
    )
    con.executemany(
        """INSERT INTO lift_muscle (lift_id, grp, trainer_id, long_j, middle_j, short_j, counts)
           VALUES (?, ?, ?, ?, ?, ?, ?)""",
        [(lift_id, m.grp, trainer_id, m.long_j, m.middle_j, m.short_j, m.counts) for m in muscles],
    )


def lifts(con: Connection, trainer_id: int, session_id: int) -> tuple[LiftRow, ...]:
    """Return a session's lifts in their order."""
    rows = con.execute(
        f"""SELECT id, {", ".join(_LIFT)} FROM lift
            WHERE trainer_id = ? AND session_id = ? ORDER BY position, id""",
        (trainer_id, session_id),
    )
    return tuple(_lift(dict(row)) for row in rows)


def lift(con: Connection, trainer_id: int, lift_id: int) -> LiftRow | None:
    """Return a lift, None where there is none."""
    row = con.execute(
        f"SELECT id, {', '.join(_LIFT)} FROM lift WHERE trainer_id = ? AND id = ?",
        (trainer_id, lift_id),
    ).fetchone()
    return None if row is None else _lift(dict(row))


def lift_of_uid(con: Connection, trainer_id: int, uid: str) -> LiftRow | None:
    """Return the lift that was put on under an id of its device, None where there is none."""
    row = con.execute(
        f"SELECT id, {', '.join(_LIFT)} FROM lift WHERE trainer_id = ? AND uid = ? AND uid <> ''",
        (trainer_id, uid),
    ).fetchone()
    return None if row is None else _lift(dict(row))


def session_mark(con: Connection, trainer_id: int, session_id: int) -> str:
    """Return a text that is another one as soon as anything of a session is."""
    row = con.execute(
        """SELECT s.ended_at, count(DISTINCT l.id) AS lifts, sum(l.ended) AS ended,
                  count(d.id) AS sets, max(d.id) AS last,
                  (SELECT count(*) FROM set_was w JOIN set_done o ON o.id = w.set_id
                   JOIN lift i ON i.id = o.lift_id WHERE i.session_id = s.id) AS changed
           FROM session s LEFT JOIN lift l ON l.session_id = s.id
           LEFT JOIN set_done d ON d.lift_id = l.id
           WHERE s.trainer_id = ? AND s.id = ?""",
        (trainer_id, session_id),
    ).fetchone()
    return " ".join(str(value) for value in row)


def in_use(con: Connection, trainer_id: int, place_id: int, client_id: int) -> Mapping[int, str]:
    """Return the things that the others' sessions at a place use now, by id: who uses them."""
    found: dict[int, str] = {}
    for row in con.execute(
        """SELECT l.items, c.name FROM session s JOIN client c ON c.id = s.client_id
           JOIN lift l ON l.session_id = s.id
           WHERE s.trainer_id = ? AND s.place_id = ? AND s.client_id <> ? AND s.ended_at IS NULL
             AND l.ended = 0
             AND l.sets * (CASE l.one_sided WHEN 1 THEN 2 ELSE 1 END)
                 > (SELECT count(*) FROM set_done d WHERE d.lift_id = l.id)
             AND NOT EXISTS (SELECT 1 FROM lift n WHERE n.session_id = s.id AND n.ended = 0
                 AND n.sets * (CASE n.one_sided WHEN 1 THEN 2 ELSE 1 END)
                     > (SELECT count(*) FROM set_done e WHERE e.lift_id = n.id)
                 AND (n.position, n.id) < (l.position, l.id))""",
        (trainer_id, place_id, client_id),
    ):
        for item in json.loads(row["items"]):
            found[item] = row["name"]
    return found


def _lift(row: dict[str, object]) -> LiftRow:
    pieces = tuple(Piece(**part) for part in json.loads(str(row["pieces"])))
    items = tuple(json.loads(str(row["items"])))
    changed: dict[str, object] = {"pieces": pieces, "items": items}
    changed |= {name: bool(row[name]) for name in ("one_sided", "ended")}
    return LiftRow(**{**row, **changed})  # type: ignore[arg-type]


def last_lift(con: Connection, trainer_id: int, client_id: int, exercise: str) -> LiftRow | None:
    """Return the newest lift of an exercise that a client did, None where there is none."""
    row = con.execute(
        f"""SELECT l.id, {", ".join("l." + n for n in _LIFT)} FROM lift l
            WHERE l.exercise = ? AND l.session_id = (
                SELECT s.id FROM session s
                WHERE s.trainer_id = ? AND s.client_id = ? AND EXISTS (
                    SELECT 1 FROM lift k WHERE k.session_id = s.id AND k.exercise = ?)
                ORDER BY s.started_at DESC LIMIT 1)
            ORDER BY l.id DESC LIMIT 1""",
        (exercise, trainer_id, client_id, exercise),
    ).fetchone()
    return None if row is None else _lift(dict(row))


@dataclass(frozen=True, slots=True, kw_only=True)
class LiftDone:
    """A lift of a client on a day, with its sets; place: where."""

    day: str
    place_id: int
    lift: LiftRow
    sets: tuple[SetRow, ...]


def lifts_of_client(
    con: Connection, trainer_id: int, client_id: int, exercise: str, most: int
) -> tuple[LiftDone, ...]:
    """Return the last lifts of an exercise of which a client did a set, oldest first."""
    days = con.execute(
        """SELECT s.id, substr(s.started_at, 1, 10) AS day, s.place_id FROM session s
           WHERE s.trainer_id = ? AND s.client_id = ? AND EXISTS (
               SELECT 1 FROM lift l JOIN set_done d ON d.lift_id = l.id
               WHERE l.session_id = s.id AND l.exercise = ?)
           ORDER BY s.started_at DESC LIMIT ?""",
        (trainer_id, client_id, exercise, most),
    ).fetchall()
    found = []
    for row in reversed(days):
        done = sets_of(con, trainer_id, row["id"])
        found += [
            LiftDone(day=row["day"], place_id=row["place_id"], lift=one, sets=tuple(done[one.id]))
            for one in lifts(con, trainer_id, row["id"])
            if one.exercise == exercise and one.id in done
        ]
    return tuple(found)


def exercises_done(con: Connection, trainer_id: int, client_id: int, most: int) -> tuple[str, ...]:
    """Return the exercises of which a client did a set lately, newest first."""
    rows = con.execute(
        """SELECT l.exercise, max(s.started_at) AS last FROM (
               SELECT id, started_at FROM session WHERE trainer_id = ? AND client_id = ?
               ORDER BY started_at DESC LIMIT 40) s
           CROSS JOIN lift l ON l.session_id = s.id
           WHERE EXISTS (SELECT 1 FROM set_done d WHERE d.lift_id = l.id)
           GROUP BY l.exercise ORDER BY last DESC, l.exercise LIMIT ?""",
        (trainer_id, client_id, most),
    )
    return tuple(row["exercise"] for row in rows)


def end_lift(con: Connection, trainer_id: int, lift_id: int, *, ended: bool) -> None:
    """Say that nothing more is done of a lift, or that it goes on."""
    con.execute(
        "UPDATE lift SET ended = ? WHERE trainer_id = ? AND id = ?",
        (int(ended), trainer_id, lift_id),
    )


def set_of_uid(con: Connection, trainer_id: int, uid: str) -> SetRow | None:
    """Return the set that was kept under an id of its device, None where there is none."""
    return _one_set(con, trainer_id, "uid", uid)


def set_done(con: Connection, trainer_id: int, set_id: int) -> SetRow | None:
    """Return a set, None where there is none."""
    return _one_set(con, trainer_id, "id", set_id)


def _one_set(con: Connection, trainer_id: int, name: str, value: object) -> SetRow | None:
    row = con.execute(
        f"SELECT id, {', '.join(_SET)} FROM set_done WHERE trainer_id = ? AND {name} = ?",
        (trainer_id, value),
    ).fetchone()
    return None if row is None else SetRow(**dict(row))


def add_set(con: Connection, trainer_id: int, row: SetRow) -> int:
    """Keep a set; return its id."""
    marks = ", ".join("?" for _ in range(len(_SET) + 1))
    cursor = con.execute(
        f"INSERT INTO set_done (trainer_id, {', '.join(_SET)}) VALUES ({marks})",
        (trainer_id, *(getattr(row, name) for name in _SET)),
    )
    return int(cursor.lastrowid or 0)


def change_set(con: Connection, trainer_id: int, row: SetRow, *, now: str) -> None:
    """Put a set's values in place of what they were, which is kept beside it."""
    before = set_done(con, trainer_id, row.id)
    assert before is not None
    was = {name: getattr(before, name) for name in _EDITED}
    con.execute(
        "INSERT INTO set_was (trainer_id, set_id, changed_at, was) VALUES (?, ?, ?, ?)",
        (trainer_id, row.id, now, json.dumps(was)),
    )
    names = _EDITED
    con.execute(
        f"""UPDATE set_done SET {", ".join(f"{n} = ?" for n in names)}
            WHERE trainer_id = ? AND id = ?""",
        (*(getattr(row, name) for name in names), trainer_id, row.id),
    )


def remove_set_done(con: Connection, trainer_id: int, set_id: int) -> None:
    """Remove a set."""
    con.execute("DELETE FROM set_done WHERE trainer_id = ? AND id = ?", (trainer_id, set_id))


def sets_of(con: Connection, trainer_id: int, session_id: int) -> Mapping[int, list[SetRow]]:
    """Return a session's sets by lift, in the order in which they were done."""
    found: dict[int, list[SetRow]] = {}
    for row in con.execute(
        f"""SELECT d.id, {", ".join("d." + n for n in _SET)} FROM lift l
            CROSS JOIN set_done d ON d.lift_id = l.id
            WHERE l.trainer_id = ? AND l.session_id = ? ORDER BY d.done_at, d.id""",
        (trainer_id, session_id),
    ):
        found.setdefault(row["lift_id"], []).append(SetRow(**dict(row)))
    return found


@dataclass(frozen=True, slots=True, kw_only=True)
class SetSays:
    """What one set says of one action: reps and those in reserve, what a rep asked."""

    done_at: str
    exercise: str
    place: str
    side: str
    reps: int
    reserve: int
    action: str
    demand_nm: float
    ratio: float
    first: bool


def set_says(
    con: Connection, trainer_id: int, client_id: int, since: str, *, sessions: int = 1000
) -> tuple[SetSays, ...]:
    """Return what a client's sets since a time, of so many newest sessions, say of every action
    with a usual strength, oldest first; those without reps in reserve say nothing.
    """
    rows = con.execute(
        """SELECT d.done_at, l.exercise, p.name AS place, d.side, d.reps, d.reserve, a.action,
                  a.demand_nm, a.ratio, a.first
           FROM session s CROSS JOIN lift l ON l.session_id = s.id
           JOIN place p ON p.id = s.place_id
           CROSS JOIN set_done d ON d.lift_id = l.id CROSS JOIN lift_action a ON a.lift_id = l.id
           WHERE s.id IN (SELECT id FROM session WHERE trainer_id = ? AND client_id = ?
                          AND started_at >= ? ORDER BY started_at DESC LIMIT ?)
             AND d.reserve IS NOT NULL AND d.reps > 0 AND a.ratio IS NOT NULL
           ORDER BY d.done_at""",
        (trainer_id, client_id, since, sessions),
    )
    return tuple(SetSays(**{**dict(row), "first": bool(row["first"])}) for row in rows)


@dataclass(frozen=True, slots=True, kw_only=True)
class WeekVolume:
    """Sets counted for a muscle group in the week of a day (ISO), and its work, J, in thirds."""

    day: str
    grp: str
    counts: float
    long_j: float
    middle_j: float
    short_j: float


def volume(con: Connection, trainer_id: int, client_id: int, since: str) -> tuple[WeekVolume, ...]:
    """Return what a client's sets counted for each muscle group, a day at a time."""
    rows = con.execute(
        """SELECT substr(d.started_at, 1, 10) AS day, m.grp, sum(m.counts * d.part) AS counts,
                  sum(m.long_j * d.reps) AS long_j, sum(m.middle_j * d.reps) AS middle_j,
                  sum(m.short_j * d.reps) AS short_j
           FROM (SELECT s.started_at, l.id AS lift_id, sum(d.reps) AS reps,
                        sum(CASE d.side WHEN 'both' THEN 1.0 ELSE 0.5 END) AS part
                 FROM session s CROSS JOIN lift l ON l.session_id = s.id
                 CROSS JOIN set_done d ON d.lift_id = l.id
                 WHERE s.trainer_id = ? AND s.client_id = ? AND s.started_at >= ? AND d.reps > 0
                 GROUP BY l.id) d
           CROSS JOIN lift_muscle m ON m.lift_id = d.lift_id
           GROUP BY day, m.grp ORDER BY day""",
        (trainer_id, client_id, since),
    )
    return tuple(WeekVolume(**dict(row)) for row in rows)


def last_sets(
    con: Connection, trainer_id: int, client_id: int, exercise: str, before: int
) -> tuple[SetRow, ...]:
    """Return the sets of the last session before one in which a client did an exercise."""
    row = con.execute(
        """SELECT s.id AS session_id FROM session s
           WHERE s.trainer_id = ? AND s.client_id = ? AND s.id <> ? AND EXISTS (
               SELECT 1 FROM lift l JOIN set_done d ON d.lift_id = l.id
               WHERE l.session_id = s.id AND l.exercise = ?)
           ORDER BY s.started_at DESC LIMIT 1""",
        (trainer_id, client_id, before, exercise),
    ).fetchone()
    if row is None:
        return ()
    return tuple(
        SetRow(**dict(found))
        for found in con.execute(
            f"""SELECT d.id, {", ".join("d." + n for n in _SET)} FROM lift l
                CROSS JOIN set_done d ON d.lift_id = l.id
                WHERE l.trainer_id = ? AND l.session_id = ? AND l.exercise = ?
                ORDER BY d.done_at, d.id""",
            (trainer_id, row["session_id"], exercise),
        )
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class NoteRow:
    """A note on a client; noted_at is ISO."""

    id: int
    noted_at: str
    words: str


def add_note(con: Connection, trainer_id: int, client_id: int, words: str, *, at: str) -> int:
    """Keep a note on a client; return its id."""
    cursor = con.execute(
        "INSERT INTO client_note (trainer_id, client_id, noted_at, words) VALUES (?, ?, ?, ?)",
        (trainer_id, client_id, at, words),
    )
    return int(cursor.lastrowid or 0)


def remove_note(con: Connection, trainer_id: int, note_id: int) -> None:
    """Remove a note."""
    con.execute("DELETE FROM client_note WHERE trainer_id = ? AND id = ?", (trainer_id, note_id))


def notes(con: Connection, trainer_id: int, client_id: int) -> tuple[NoteRow, ...]:
    """Return the notes on a client, newest first."""
    rows = con.execute(
        """SELECT id, noted_at, words FROM client_note WHERE trainer_id = ? AND client_id = ?
           ORDER BY noted_at DESC, id DESC LIMIT 200""",
        (trainer_id, client_id),
    )
    return tuple(NoteRow(**dict(row)) for row in rows)


@dataclass(frozen=True, slots=True, kw_only=True)
class WeekLift:
    """A lift that was done: its day (ISO), how it lies over its range, where it asks most, where it
    felt hardest ("" where not said), and how many sets; see LiftRow.
    """

    day: str
    exercise: str
    one_sided: bool
    tilt: float | None
    hardest: str | None
    felt: str
    sets: int


def lifts_done(
    con: Connection, trainer_id: int, client_id: int, since: str
) -> tuple[WeekLift, ...]:
    """Return a client's lifts since a time by day and by where they felt hardest, oldest first."""
    rows = con.execute(
        """SELECT substr(s.started_at, 1, 10) AS day, l.exercise, l.one_sided, l.tilt, l.hardest,
                  d.felt, count(*) AS sets
           FROM session s CROSS JOIN lift l ON l.session_id = s.id
           CROSS JOIN set_done d ON d.lift_id = l.id
           WHERE s.trainer_id = ? AND s.client_id = ? AND s.started_at >= ? AND d.reps > 0
           GROUP BY l.id, d.felt ORDER BY s.started_at, l.id""",
        (trainer_id, client_id, since),
    )
    return tuple(WeekLift(**{**dict(r), "one_sided": bool(r["one_sided"])}) for r in rows)
