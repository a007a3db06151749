"""Every set of a client as rows, to take elsewhere."""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Mapping, Sequence
from typing import Any

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
    scenario = json.loads(lift.scenario)
    options = scenario.get("options", {})
    weight = _weight(lift, scenario.get("loads", []))
    told = {
        "date": one.done_at,
        "client": session.client,
        "place": session.place,
        "exercise": lift.exercise,
        "set": number,
        "side": one.side,
        "load_kg": format(weight, "g") if weight else "",
        "bands": _labels(lift, "band"),
        "springs": _labels(lift, "spring"),
        "dial": options.get("dial", ""),
        "settings": " ".join(f"{n}={v}" for n, v in sorted(options.items()) if n not in _OWN),
        "depth_deg": options.get("knee_from_deg", ""),
        "tempo": "-".join(format(s, "g") for s in (lift.lowering_s, lift.hold_s, lift.lifting_s)),
        "hold_s": one.held_s,
        "reps": one.reps,
        "rir": one.reserve,
        "limiter": one.limiter,
        "felt": one.felt,
        "pain": "" if one.pain is None else f"{one.pain_joint} {one.pain_side} {one.pain}",
        "form": one.form,
        "planned_exercise": before.exercise if before else "",
        "note": one.note,
    }
    return ["" if told[name] is None else told[name] for name in COLUMNS]


_OWN = ("dial", "knee_from_deg")  # have columns of their own


def _weight(lift: store.LiftRow, loads: Sequence[Mapping[str, Any]]) -> float:
    """Return the weight of a lift, kg: what was picked up, else what its loads say."""
    picked = sum(p.kg * p.number for p in lift.pieces)
    iron = (load for load in loads if load["kind"] not in ("band", "spring"))
    return picked or sum(float(load.get("kg", load.get("plate_kg", 0.0))) for load in iron)


def _labels(lift: store.LiftRow, kind: str) -> str:
    return " + ".join(p.label for p in lift.pieces if p.kind == kind for _ in range(p.number))
