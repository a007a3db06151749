"""Three stand-ins for a lift that cannot go on."""

from __future__ import annotations

import secrets
from collections.abc import Mapping
from dataclasses import dataclass
from itertools import islice
from urllib.parse import parse_qsl

import numpy as np
from flask import current_app

from widearc import store, usecases
from widearc.core.search import Candidate
from widearc.core.statics import Curve
from widearc.core.words import Said, Value
from widearc.usecases import floor
from widearc.usecases.swap.swap import SwapView
from widearc.web.db import connection, trainer
from widearc.web.drawing.areas import Areas
from widearc.web.drawing.compared import strip_of
from widearc.web.drawing.strip import strip_alone
from widearc.web.screens.swap.query import ask_of
from widearc.web.words.words import load_words

OFFERED = 3
KINDER = 0.9
"""Of what the lift asks a joint that hurts: what asks more is not offered."""
KINDER_PICK = "kinder"
NOTHING_LESS = Said("nothing here asks it less")


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Instead:
    """A stand-in: its load in words, its strip, and what it asks of the joint that hurts, as a part
    of what the lift asks (None: nothing hurts, or the lift hardly loads it). pick: what says it.
    """

    pick: str

    candidate: Candidate
    load: str
    strip: Areas | None
    of_joint: float | None
    present: floor.Present
    whole_strip: Areas | None


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Offered:
    """What is offered; problem: why nothing is, in words."""

    rows: tuple[Instead, ...] = ()
    problem: Value | None = None


def source_of(row: store.LiftRow, session: store.SessionRow) -> Mapping[str, str]:
    """Return the address of what was wanted, for this session's client and place."""
    return source_of_exercise(
        row.exercise,
        row.asked,
        client_id=session.client_id,
        place_id=session.place_id,
        sets=row.sets,
        reps=row.reps,
    )


def source_of_exercise(
    exercise: str, asked: str, *, client_id: int, place_id: int, sets: int, reps: int
) -> Mapping[str, str]:
    """Return the address of what was wanted (asked: as it was kept), for a client and place."""
    source = dict(parse_qsl(asked)) or {"exercise": exercise}
    own = {"client": str(client_id), "place": str(place_id)}
    return {**source, **own, "sets": str(sets), "reps": str(reps)}


def instead_of(row: store.LiftRow, session: store.SessionRow, joint: str) -> Offered:
    """Return the best three of different groups; joint: only what asks it less."""
    ask = ask_of(source_of(row, session), lenient=True)
    view = usecases.swap_view(connection(), trainer(), ask, current_app.extensions["memo"])
    if view.ranking is None or not view.ranking.candidates:
        return Offered(problem=view.problem or Said("nothing here comes close"))
    kinder = floor.kinder_of(view, row.exercise, joint) if joint else None
    found = [] if kinder is None else [_offered(view, kinder.candidate, KINDER_PICK, joint)]
    others = (c for c in view.ranking.candidates if c.exercise.id != row.exercise)
    rows = (_offered(view, c, c.exercise.id, joint) for c in others)
    found += islice((r for r in rows if r.of_joint is None or r.of_joint <= KINDER), OFFERED)
    return Offered(rows=tuple(found), problem=None if found else NOTHING_LESS)


def _offered(view: SwapView, candidate: Candidate, pick: str, joint: str) -> Instead:
    assert view.ranking is not None
    lift = floor.offered(view, candidate, secrets.token_urlsafe(12))
    return Instead(
        pick=pick,
        candidate=candidate,
        load=load_words(candidate),
        strip=strip_of(view.ranking.target, view.wanted, candidate),
        of_joint=_part(candidate.curve, view.wanted, joint),
        present=floor.present_of(lift, view.client.stronger_side or ""),
        whole_strip=strip_alone(floor.strip_of(lift)),
    )


def _part(curve: Curve, wanted: Curve | None, joint: str) -> float | None:
    if not joint or wanted is None or joint not in wanted.demand_nm:
        return None
    most = float(np.abs(wanted.demand_nm[joint]).max())
    own = float(np.abs(curve.demand_nm[joint]).max()) if joint in curve.demand_nm else 0.0
    return own / most if most > 5.0 else None
