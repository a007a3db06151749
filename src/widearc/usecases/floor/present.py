"""A session as it stands: what is next, what was done."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

import numpy as np

from widearc import store
from widearc.core.arrays import Array
from widearc.core.exercises import EXERCISES
from widearc.core.statics import curve
from widearc.core.words import UNSAID, Value
from widearc.formats import parse_scenario
from widearc.usecases.floor.sessions import session_of
from widearc.words import again

OTHER = {"left": "right", "right": "left"}
STRIP_POINTS = 33


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """One set to come: side, number, reps; hand: which hand holds a load that one hand holds;
    rests: rest comes before it; turns: the other side follows at once.
    """

    side: str
    number: int
    reps: int
    hand: str
    rests: bool
    turns: bool


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Present:
    """A lift as it stands now: its sets; side and number of the next set, reps to do, when the rest
    is over (ISO; empty: nothing to wait for), what was done last time. done: nothing is left of it.
    ahead: the sets to come, the next one first, if each is met. twice: sides and numbers that two
    devices kept a set for.
    """

    lift: store.LiftRow
    sets: tuple[store.SetRow, ...]
    side: str
    number: int
    reps: int
    rest_until: str
    before: tuple[store.SetRow, ...]
    done: bool
    ahead: tuple[Step, ...]
    twice: tuple[tuple[str, int], ...]

    @property
    def said(self) -> Value:
        """Return the set-up in words."""
        return again(self.lift.said) or UNSAID


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class SessionView:
    """A session with its lifts; now: the one that is being done, None where all are."""

    session: store.SessionRow
    lifts: tuple[Present, ...]
    now: Present | None
    others: tuple[store.SessionRow, ...]


def view_of(
    con: store.Connection,
    trainer_id: int,
    session_id: int,
    *,
    lift_id: int | None = None,
    going_on: int | None = None,
) -> SessionView:
    """Return a session as it stands; lift_id: the lift that is looked at; going_on: the one that is
    gone on with until it is done; else the first that is not done.
    """
    session = session_of(con, trainer_id, session_id)
    lifts = _lifts(con, trainer_id, session)
    chosen = [p for p in lifts if p.lift.id == lift_id]
    chosen += [p for p in lifts if p.lift.id == going_on and not p.done]
    chosen += [p for p in lifts if not p.done]
    others = store.sessions(con, trainer_id, under_way=True)
    now = chosen[0] if chosen else None
    return SessionView(session=session, lifts=lifts, now=now, others=others)


def _lifts(
    con: store.Connection, trainer_id: int, session: store.SessionRow
) -> tuple[Present, ...]:
    """Return a session's lifts; without those that another stands for before a set was done."""
    stronger = store.client(con, trainer_id, session.client_id).stronger_side or ""
    done = store.sets_of(con, trainer_id, session.id)
    rows = store.lifts(con, trainer_id, session.id)
    gone = {row.instead_of for row in rows} - done.keys()
    return tuple(
        _present(con, trainer_id, session, row, done.get(row.id, ()), stronger)
        for row in rows
        if row.id not in gone and row.exercise in EXERCISES
    )


def _present(
    con: store.Connection,
    trainer_id: int,
    session: store.SessionRow,
    lift: store.LiftRow,
    sets: Sequence[store.SetRow],
    stronger: str,
) -> Present:
    side, number, reps = next_set(lift, sets, stronger)
    last = sets[-1] if sets else None
    turning = lift.one_sided and last is not None and side == OTHER.get(last.side) and _open(sets)
    until = ""
    if last is not None and not turning:
        ends = datetime.fromisoformat(last.done_at) + timedelta(seconds=lift.rest_s)
        until = ends.isoformat(timespec="seconds")
    return Present(
        lift=lift,
        sets=tuple(sets),
        side=side,
        number=number,
        reps=reps,
        rest_until=until,
        before=store.last_sets(con, trainer_id, session.client_id, lift.exercise, session.id),
        done=lift.ended or number > lift.sets,
        ahead=ahead_of(lift, sets, stronger),
        twice=_twice(sets),
    )


def _twice(sets: Sequence[store.SetRow]) -> tuple[tuple[str, int], ...]:
    """Return the sides and numbers under which more than one set was kept."""
    named = [(s.side, s.number) for s in sets if s.number is not None]
    return tuple(sorted({(side, n) for side, n in named if named.count((side, n)) > 1}))


def ahead_of(lift: store.LiftRow, sets: Sequence[store.SetRow], stronger: str) -> tuple[Step, ...]:
    """Return the sets that are still to do, as if each were met; the next one though all are."""
    done = list(sets)
    found: list[Step] = []
    while True:
        side, number, reps = next_set(lift, done, stronger)
        if found and number > lift.sets:
            return tuple(found)
        opened = lift.one_sided and _open(done)
        found.append(
            Step(
                side=side,
                number=number,
                reps=reps,
                hand=_hand(lift, number),
                rests=bool(done) and not opened,
                turns=lift.one_sided and not opened,
            )
        )
        done.append(replace(_DONE, lift_id=lift.id, side=side, reps=reps))


_DONE = store.SetRow(lift_id=0, uid="", side="both", reps=1, done_at="", received_at="")


def _hand(lift: store.LiftRow, number: int) -> str:
    """Return the hand that holds a load of one hand while both legs work: it changes from set to
    set, so that neither side bears more; "" for other loads.
    """
    if lift.one_sided:
        return ""
    ports = {load.get("port", "") for load in json.loads(lift.scenario).get("loads", [])}
    held = ports & {"hand-left", "hand-right"}
    if len(held) != 1:
        return ""
    first = held.pop().removeprefix("hand-")
    return first if number % 2 else OTHER[first]


def _open(sets: Sequence[store.SetRow]) -> bool:
    """Return whether one side has a set more than the other."""
    sides = [s.side for s in sets]
    return sides.count("left") != sides.count("right")


def next_set(
    lift: store.LiftRow, sets: Sequence[store.SetRow], stronger: str
) -> tuple[str, int, int]:
    """Return side, number and reps of the next set: the weaker side goes first and caps the
    other.
    """
    if not lift.one_sided:
        return "both", len(sets) + 1, lift.reps
    first = OTHER.get(stronger, "left")
    done = {side: [s for s in sets if s.side == side] for side in ("left", "right")}
    if len(done[first]) > len(done[OTHER[first]]):
        number = len(done[OTHER[first]]) + 1
        return OTHER[first], number, min(lift.reps, max(1, done[first][number - 1].reps))
    return first, len(done[first]) + 1, lift.reps


def mark_of(con: store.Connection, trainer_id: int, session_id: int) -> str:
    """Return a text that is another one as soon as anything of a session is: another device looks
    at it.
    """
    return store.session_mark(con, trainer_id, session_id)


def present_of(lift: store.LiftRow, stronger: str) -> Present:
    """Return a lift that is not on a session yet as it will stand there: nothing done of it."""
    ahead = ahead_of(lift, (), stronger)
    return Present(
        lift=lift,
        sets=(),
        side=ahead[0].side,
        number=1,
        reps=ahead[0].reps,
        rest_until="",
        before=(),
        done=False,
        ahead=ahead,
        twice=(),
    )


def strip_of(row: store.LiftRow) -> Array:
    """Return the demand of the joint that is asked most, N·m, in even steps of the lift, lengthened
    first; empty where none is.
    """
    setup, _ = parse_scenario(json.loads(row.scenario))
    found = curve(replace(setup, samples=51), lowering=False)
    demands = [np.abs(nm[0]) for nm in found.demand_nm.values()]
    if not demands:
        return np.zeros(0)
    most = max(demands, key=lambda nm: float(nm.max()))
    steps = np.linspace(0.0, 1.0, STRIP_POINTS)
    return np.asarray(np.interp(steps, found.motion.position, most))
