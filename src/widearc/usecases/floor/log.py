"""Every set of a client as rows, to take elsewhere."""

from __future__ import annotations

import csv
import io
import json

from widearc import store

COLUMNS = (
    "date",
    "client",
    "place",
    "exercise",
    "set",
    "side",
    "load_kg",
    "bands",
    "springs",
    "dial",
    "settings",
    "depth_deg",
    "tempo",
    "hold_s",
    "reps",
    "rir",
    "limiter",
    "felt",
    "pain",
    "form",
    "planned_exercise",
    "note",
)


def sessions_of(
    con: store.Connection, trainer_id: int, client_id: int
) -> tuple[store.SessionRow, ...]:
    """Return a client's newest sessions."""
    return store.sessions(con, trainer_id, client_id=client_id, most=20)


def log_csv(con: store.Connection, trainer_id: int, client_id: int) -> str:
    """Return every set of a client as CSV, oldest first; an empty cell: not said."""
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\n")
    rows.writerow(COLUMNS)
    for session in reversed(store.sessions(con, trainer_id, client_id=client_id, most=100_000)):
        lifts = {row.id: row for row in store.lifts(con, trainer_id, session.id)}
        done = store.sets_of(con, trainer_id, session.id)
        for lift in lifts.values():
            before = lifts.get(lift.instead_of or 0)
            for number, one in enumerate(done.get(lift.id, ()), 1):
                rows.writerow(_row(session, lift, before, number, one))
    return out.getvalue()


def _row(
    session: store.SessionRow,
    lift: store.LiftRow,
    before: store.LiftRow | None,
    number: int,
    one: store.SetRow,
) -> list[object]:
    kg = sum(p.kg * p.number for p in lift.pieces)
    scenario = json.loads(lift.scenario)
    loads = [load for load in scenario.get("loads", []) if load["kind"] not in ("band", "spring")]
    weight = kg or sum(float(load.get("kg", 0.0)) for load in loads)
    options = scenario.get("options", {})
    pain = f"{one.pain_joint} {one.pain_side} {one.pain}" if one.pain is not None else ""
    named = {kind: [p for p in lift.pieces if p.kind == kind] for kind in ("band", "spring")}
    return [
        one.done_at,
        session.client,
        session.place,
        lift.exercise,
        number,
        one.side,
        format(weight, "g") if weight else "",
        " + ".join(p.label for p in named["band"] for _ in range(p.number)),
        " + ".join(p.label for p in named["spring"] for _ in range(p.number)),
        options.get("dial", ""),
        "",
        options.get("knee_from_deg", ""),
        "-0-".join(format(s, "g") for s in (lift.lowering_s, lift.lifting_s)),
        "",
        one.reps,
        "" if one.reserve is None else one.reserve,
        one.limiter,
        one.felt,
        pain,
        one.form,
        before.exercise if before else "",
        one.note,
    ]
