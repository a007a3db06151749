"""A session under way: what is next, what was done, and what changes it."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

import numpy as np

from widearc import store
from widearc.core.arrays import Array
from widearc.core.errors import InputError, one_of
from widearc.core.exercises import EXERCISES
from widearc.core.kit import Piece
from widearc.core.movement import Setup
from widearc.core.search import Memo
from widearc.core.statics import Curve, curve
from widearc.core.words import UNSAID, Count, Name, Said, Term, Value
from widearc.formats import parse_scenario, scenario_document
from widearc.store.errors import MissingError
from widearc.usecases.floor.asks import MODEL, actions_of, muscles_of
from widearc.usecases.swap.swap import decide, swap_view
from widearc.usecases.swap.wanted import SwapAsk
from widearc.words import again, kept

FORMS = (
    "hips lift",
    "heels lift",
    "knees cave",
    "back rounds",
    "grip",
    "balance",
    "breath",
    "swing",
    "depth lost",
)
"""What can break, as a trainer taps it."""

JOINTS = ("knee", "hip", "ankle", "low back")
PAIN_ENDS, PAIN_SETS = 4, 2
"""So much pain in so many sets of a lift ends it."""

USUAL_SETS = 3
CHANGED, REMOVED = Said("set changed"), Said("set removed")
OTHER = {"left": "right", "right": "left"}


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Present:
    """A lift as it stands now: its sets; side and number of the next set, reps to do, when the rest
    is over (ISO; empty: nothing to wait for), what was done last time. done: nothing is left of it.
    """

    lift: store.LiftRow
    sets: tuple[store.SetRow, ...]
    side: str
    number: int
    reps: int
    rest_until: str
    before: tuple[store.SetRow, ...]
    done: bool

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


def scope(session_id: int) -> str:
    """Return what the changes of a session belong to."""
    return f"session:{session_id}"


@store.at_once
def begin(
    con: store.Connection, trainer_id: int, client_id: int, place_id: int, *, now: str
) -> int:
    """Begin a client's session at a place, or go on with the one that is under way there; return
    its id. MissingError for a client or place that is not there.
    """
    for row in store.sessions(con, trainer_id, client_id=client_id, under_way=True):
        if row.place_id == place_id:
            return row.id
    client = store.client(con, trainer_id, client_id)
    store.place(con, trainer_id, place_id)
    words = Said("session of {name} begun", name=Name(client.name, lower=True))
    row = store.SessionRow(client_id=client_id, place_id=place_id, started_at=now)
    with store.recorded(con, trainer_id, scope="sessions", kind="session", words=words, now=now):
        return store.add_session(con, trainer_id, row)


@store.at_once
def end(con: store.Connection, trainer_id: int, session_id: int, *, now: str) -> None:
    """End a session; one without a set leaves nothing."""
    session = session_of(con, trainer_id, session_id)
    words = Said("session of {name} ended", name=Name(session.client, lower=True))
    with store.recorded(con, trainer_id, scope="sessions", kind="session", words=words, now=now):
        if store.sets_of(con, trainer_id, session_id):
            store.end_session(con, trainer_id, session_id, now)
        else:
            store.remove_session(con, trainer_id, session_id)


def session_of(con: store.Connection, trainer_id: int, session_id: int) -> store.SessionRow:
    """Return a session; MissingError where there is none."""
    found = store.sessions(con, trainer_id, session_id=session_id)
    if not found:
        raise MissingError(Said("that session does not exist here"))
    return found[0]


@dataclass(frozen=True, slots=True, kw_only=True)
class LiftFacts:
    """A lift to do: its set-up and words, how much of it, what it picks up and uses; asked: the
    address of what was wanted.
    """

    setup: Setup
    said: Value
    sets: int = USUAL_SETS
    reps: int = 10
    pieces: tuple[Piece, ...] = ()
    items: tuple[int, ...] = ()
    asked: str = ""


@store.at_once
def add_lift(
    con: store.Connection,
    trainer_id: int,
    session_id: int,
    facts: LiftFacts,
    *,
    now: str,
    instead_of: int | None = None,
    why: str = "",
) -> int:
    """Put a lift at the end of a session, or in the place of another; return its id."""
    session_of(con, trainer_id, session_id)
    found = curve(replace(facts.setup, samples=101), lowering=False)
    held = store.lifts(con, trainer_id, session_id)
    before = next((x for x in held if x.id == instead_of), None)
    position = before.position if before else max((x.position for x in held), default=-1) + 1
    row = _row(session_id, position, facts, found)
    row = replace(row, instead_of=before.id if before else None, why=why if before else "")
    words = Said("{exercise} on the floor", exercise=Term(facts.setup.exercise.name), begins=True)
    with store.recorded(
        con, trainer_id, scope=scope(session_id), kind="lift", words=words, now=now
    ):
        if before is not None:
            store.end_lift(con, trainer_id, before.id, ended=True)
        return store.add_lift(con, trainer_id, row, actions_of(found), muscles_of(found))


def _row(session_id: int, position: int, facts: LiftFacts, found: Curve) -> store.LiftRow:
    exercise = facts.setup.exercise
    return store.LiftRow(
        session_id=session_id,
        position=position,
        exercise=exercise.id,
        scenario=json.dumps(scenario_document(facts.setup), separators=(",", ":")),
        asked=facts.asked[:4000],
        said=kept(facts.said),
        pieces=facts.pieces,
        items=facts.items,
        sets=facts.sets,
        reps=facts.reps,
        one_sided=round(float(found.motion.legs)) == 1,
        lowering_s=2.0,
        lifting_s=1.0,
        rest_s=exercise.rest_s[0],
        model=MODEL,
    )


def facts_of(row: store.LiftRow) -> LiftFacts:
    """Return a lift that was done as one to do again. InputError where it cannot be set up any
    more.
    """
    setup, _ = parse_scenario(json.loads(row.scenario))
    return LiftFacts(
        setup=setup,
        said=again(row.said) or UNSAID,
        sets=row.sets,
        reps=row.reps,
        pieces=row.pieces,
        items=row.items,
        asked=row.asked,
    )


def facts_of_decision(row: store.DecisionRow) -> LiftFacts:
    """Return a kept stand-in as a lift to do. InputError for one that was kept before its set-up
    was.
    """
    if row.scenario is None:
        raise InputError(
            "decision", row.exercise, Said("one whose set-up was kept: choose it again at Swap")
        )
    setup, _ = parse_scenario(json.loads(row.scenario))
    said = again(row.set_up_said or "") or Name(row.set_up)
    items = tuple(json.loads(row.uses or "[]"))
    return LiftFacts(
        setup=setup,
        said=said,
        sets=row.sets,
        reps=row.reps,
        pieces=row.pieces,
        items=items,
        asked=row.asked or "",
    )


@store.at_once
def last_time(
    con: store.Connection, trainer_id: int, session_id: int, *, now: str
) -> tuple[int, tuple[str, ...]]:
    """Put the lifts of the client's last session on this one; return how many, and the names of
    those that cannot be set up any more.
    """
    session = session_of(con, trainer_id, session_id)
    earlier = [
        s
        for s in store.sessions(con, trainer_id, client_id=session.client_id, most=20)
        if s.id != session_id
    ]
    for one in earlier:
        rows = store.lifts(con, trainer_id, one.id)
        instead = {row.instead_of for row in rows}
        held = [row for row in rows if row.id not in instead]
        if not held:
            continue
        left = []
        for row in held:
            try:
                add_lift(con, trainer_id, session_id, facts_of(row), now=now)
            except InputError:
                left.append(
                    EXERCISES[row.exercise].name if row.exercise in EXERCISES else row.exercise
                )
        return len(held) - len(left), tuple(left)
    return 0, ()


@dataclass(frozen=True, slots=True, kw_only=True)
class SetFacts:
    """A set as it was done: see store.SetRow. done_at: ISO."""

    uid: str
    side: str
    reps: int
    reserve: int | None = None
    form: str = ""
    pain_joint: str = ""
    pain_side: str = ""
    pain: int | None = None
    limiter: str = ""
    felt: str = ""
    note: str = ""
    done_at: str


@store.at_once
def log_set(
    con: store.Connection, trainer_id: int, lift_id: int, facts: SetFacts, *, now: str
) -> int:
    """Keep a set once, however often it is sent; return its id. InputError names what is not
    allowed; nothing is kept then.
    """
    row = lift_of(con, trainer_id, lift_id)
    _check(facts)
    there = store.set_of_uid(con, trainer_id, facts.uid)
    if there is not None:
        return there.id
    told = Said(
        "set of {reps}: {exercise}",
        reps=Count(facts.reps),
        exercise=Term(EXERCISES[row.exercise].name, lower=True),
        begins=True,
    )
    done = store.SetRow(
        lift_id=lift_id,
        received_at=now,
        **{name: getattr(facts, name) for name in SetFacts.__slots__},
    )
    with store.recorded(
        con, trainer_id, scope=scope(row.session_id), kind="set", words=told, now=now
    ):
        set_id = store.add_set(con, trainer_id, done)
        sets = store.sets_of(con, trainer_id, row.session_id).get(lift_id, [])
        if sum((s.pain or 0) >= PAIN_ENDS for s in sets) >= PAIN_SETS:
            store.end_lift(con, trainer_id, lift_id, ended=True)
        return set_id


def lift_of(con: store.Connection, trainer_id: int, lift_id: int) -> store.LiftRow:
    """Return a lift; MissingError where there is none."""
    row = store.lift(con, trainer_id, lift_id)
    if row is None or row.exercise not in EXERCISES:
        raise MissingError(Said("that lift does not exist here"))
    return row


def _check(facts: SetFacts) -> None:
    def refuse(where: str, value: object, allowed: Said) -> None:
        raise InputError(where, str(value)[:30], allowed)

    if not 8 <= len(facts.uid) <= 64 or not facts.uid.isascii():
        refuse("uid", facts.uid, Said("8 to 64 letters and digits, made once for each set"))
    if facts.side not in ("both", "left", "right"):
        refuse("side", facts.side, one_of(("both", "left", "right")))
    for name, low, high in (("reps", 0, 100), ("reserve", 0, 20), ("pain", 0, 10)):
        value = getattr(facts, name)
        if value is not None and not low <= value <= high:
            refuse(name, value, Said("from {low} to {high}", low=Count(low), high=Count(high)))
    if facts.form and facts.form not in FORMS:
        refuse("form", facts.form, one_of(FORMS))
    if facts.pain_joint and facts.pain_joint not in JOINTS:
        refuse("pain_joint", facts.pain_joint, one_of(JOINTS))
    if facts.pain_side not in ("", "left", "right", "both"):
        refuse("pain_side", facts.pain_side, one_of(("left", "right", "both")))
    if facts.felt not in ("", "lengthened", "middle", "shortened"):
        refuse("felt", facts.felt, one_of(("lengthened", "middle", "shortened")))
    if len(facts.note) > 300:
        refuse("note", facts.note, Said("at most {most} characters", most=Count(300)))
    try:
        datetime.fromisoformat(facts.done_at)
    except ValueError:
        refuse("done_at", facts.done_at, Said("a time as ISO text"))


@store.at_once
def edit_set(
    con: store.Connection, trainer_id: int, set_id: int, changes: Mapping[str, object], *, now: str
) -> store.SetRow:
    """Change a set; what it was is kept beside it. Return it as it is now."""
    before = store.set_done(con, trainer_id, set_id)
    if before is None:
        raise MissingError(Said("that set does not exist here"))
    row = replace(before, **changes)  # type: ignore[arg-type]
    _check(SetFacts(**{name: getattr(row, name) for name in SetFacts.__slots__}))
    lift = lift_of(con, trainer_id, row.lift_id)
    with store.recorded(
        con,
        trainer_id,
        scope=scope(lift.session_id),
        kind="set",
        words=Said("set changed"),
        now=now,
    ):
        store.change_set(con, trainer_id, row, now=now)
    return row


@store.at_once
def remove_done(con: store.Connection, trainer_id: int, set_id: int, *, now: str) -> None:
    """Remove a set; it can be undone."""
    before = store.set_done(con, trainer_id, set_id)
    if before is None:
        raise MissingError(Said("that set does not exist here"))
    lift = lift_of(con, trainer_id, before.lift_id)
    with store.recorded(
        con,
        trainer_id,
        scope=scope(lift.session_id),
        kind="set",
        words=Said("set removed"),
        now=now,
    ):
        store.remove_set_done(con, trainer_id, set_id)


@store.at_once
def end_lift(con: store.Connection, trainer_id: int, lift_id: int, *, now: str) -> None:
    """Say that nothing more is done of a lift."""
    row = lift_of(con, trainer_id, lift_id)
    words = Said(
        "{exercise}: no more sets", exercise=Term(EXERCISES[row.exercise].name), begins=True
    )
    with store.recorded(
        con, trainer_id, scope=scope(row.session_id), kind="lift", words=words, now=now
    ):
        store.end_lift(con, trainer_id, lift_id, ended=True)


def view_of(
    con: store.Connection, trainer_id: int, session_id: int, *, lift_id: int | None = None
) -> SessionView:
    """Return a session as it stands; lift_id: the lift that is looked at, else the first that is
    not done.
    """
    session = session_of(con, trainer_id, session_id)
    client = store.client(con, trainer_id, session.client_id)
    done = store.sets_of(con, trainer_id, session_id)
    rows = store.lifts(con, trainer_id, session_id)
    instead = {row.instead_of for row in rows}
    shown = [r for r in rows if (r.id not in instead or done.get(r.id)) and r.exercise in EXERCISES]
    lifts = tuple(
        _present(con, trainer_id, session, row, done.get(row.id, ()), client.stronger_side or "")
        for row in shown
    )
    chosen = next((p for p in lifts if p.lift.id == lift_id), None)
    now = chosen or next((p for p in lifts if not p.done), None)
    others = store.sessions(con, trainer_id, under_way=True)
    return SessionView(session=session, lifts=lifts, now=now, others=others)


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
    )


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


def set_of(con: store.Connection, trainer_id: int, set_id: int) -> store.SetRow:
    """Return a set; MissingError where there is none."""
    found = store.set_done(con, trainer_id, set_id)
    if found is None:
        raise MissingError(Said("that set does not exist here"))
    return found


def under_way(con: store.Connection, trainer_id: int) -> tuple[store.SessionRow, ...]:
    """Return the sessions under way, newest first."""
    return store.sessions(con, trainer_id, under_way=True)


STRIP_POINTS = 33


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


@store.at_once
def begin_with(
    con: store.Connection,
    trainer_id: int,
    client_id: int,
    place_id: int,
    facts: LiftFacts,
    *,
    now: str,
) -> tuple[int, int]:
    """Put a lift on the client's session there, begun where there is none; return both ids."""
    session_id = begin(con, trainer_id, client_id, place_id, now=now)
    return session_id, add_lift(con, trainer_id, session_id, facts, now=now)


def do_instead(
    con: store.Connection,
    trainer_id: int,
    ask: SwapAsk,
    pick: str,
    memo: Memo,
    lift_id: int,
    *,
    why: str,
    asked: str,
    now: str,
) -> int:
    """Do a stand-in in the place of a lift: kept as a decision, too; return the new lift's id.
    InputError where it is not among the stand-ins any more.
    """
    row = lift_of(con, trainer_id, lift_id)
    swap_view(con, trainer_id, ask, memo)  # computed before others have to wait

    @store.at_once
    def both(con: store.Connection) -> int:
        made = decide(con, trainer_id, ask, pick, memo, now=now, asked=asked)
        kept_row = next(d for d in store.decisions(con, trainer_id) if d.id == made)
        return add_lift(
            con,
            trainer_id,
            row.session_id,
            facts_of_decision(kept_row),
            now=now,
            instead_of=lift_id,
            why=why,
        )

    return both(con)
