"""Sets that are done: kept once, changed, removed."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime

from widearc import store
from widearc.core.errors import InputError, one_of
from widearc.core.exercises import EXERCISES
from widearc.core.words import Count, Said, Term
from widearc.store.errors import MissingError
from widearc.usecases.floor.lifts import lift_of
from widearc.usecases.floor.sessions import scope

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
    number: int | None = None
    held_s: float | None = None
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
    with store.recorded(
        con, trainer_id, scope=scope(row.session_id), kind="set", words=told, now=now
    ):
        set_id = put_set(con, trainer_id, lift_id, facts, now=now)
        sets = store.sets_of(con, trainer_id, row.session_id).get(lift_id, [])
        if sum((s.pain or 0) >= PAIN_ENDS for s in sets) >= PAIN_SETS:
            store.end_lift(con, trainer_id, lift_id, ended=True)
        return set_id


def put_set(
    con: store.Connection, trainer_id: int, lift_id: int, facts: SetFacts, *, now: str
) -> int:
    """Keep a set as part of a change that is recorded; see log_set."""
    _check(facts)
    values = {name: getattr(facts, name) for name in SetFacts.__slots__}
    return store.add_set(con, trainer_id, store.SetRow(lift_id=lift_id, received_at=now, **values))


_BETWEEN = {
    "reps": (0, 100),
    "reserve": (0, 20),
    "pain": (0, 10),
    "number": (1, 200),
    "held_s": (0, 3600),
}
_ONE_OF = {
    "side": ("both", "left", "right"),
    "form": ("", *FORMS),
    "pain_joint": ("", *JOINTS),
    "pain_side": ("", "left", "right", "both"),
    "felt": ("", "lengthened", "middle", "shortened"),
}
LONGEST_NOTE = 300


def _check(facts: SetFacts) -> None:
    def refuse(where: str, value: object, allowed: Said) -> None:
        raise InputError(where, str(value)[:30], allowed)

    if not 8 <= len(facts.uid) <= 64 or not facts.uid.isascii():
        refuse("uid", facts.uid, Said("8 to 64 letters and digits, made once for each set"))
    for name, (low, high) in _BETWEEN.items():
        value = getattr(facts, name)
        if value is not None and not low <= value <= high:
            refuse(name, value, Said("from {low} to {high}", low=Count(low), high=Count(high)))
    for name, known in _ONE_OF.items():
        if getattr(facts, name) not in known:
            refuse(name, getattr(facts, name), one_of(tuple(k for k in known if k)))
    if len(facts.note) > LONGEST_NOTE:
        refuse("note", facts.note, Said("at most {most} characters", most=Count(LONGEST_NOTE)))
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


def set_of(con: store.Connection, trainer_id: int, set_id: int) -> store.SetRow:
    """Return a set; MissingError where there is none."""
    found = store.set_done(con, trainer_id, set_id)
    if found is None:
        raise MissingError(Said("that set does not exist here"))
    return found
