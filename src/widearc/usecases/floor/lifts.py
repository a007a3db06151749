"""The lifts of a session: put on it, done in the place of another, ended."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from widearc import store
from widearc.core.answers.kinder import Kinder, kinder_setups
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.kit import Piece
from widearc.core.movement import Setup
from widearc.core.search import Candidate, Memo
from widearc.core.words import UNSAID, Name, Said, Term, Value
from widearc.formats import parse_scenario, scenario_document, style_part
from widearc.store.errors import MissingError
from widearc.usecases.floor.asks import MODEL, measured
from widearc.usecases.floor.sessions import begin, scope, session_of
from widearc.usecases.swap.swap import (
    SwapView,
    candidate_of,
    decide,
    items_of,
    set_up_words,
    swap_view,
)
from widearc.usecases.swap.wanted import SwapAsk
from widearc.words import again, kept

USUAL_SETS = 3


@dataclass(frozen=True, slots=True, kw_only=True)
class LiftFacts:
    """A lift to do: its set-up and words, how much of it and how (seconds down, held, up; rest,
    None: as usual), what it picks up and uses; asked: the address of what was wanted; uid: made on
    the device that puts it there; slot_id: of the week that it answers.
    """

    setup: Setup
    said: Value
    sets: int = USUAL_SETS
    reps: int = 10
    pieces: tuple[Piece, ...] = ()
    items: tuple[int, ...] = ()
    asked: str = ""
    uid: str = ""
    lowering_s: float = 2.0
    hold_s: float = 0.0
    lifting_s: float = 1.0
    rest_s: int | None = None
    slot_id: int | None = None


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
    words = Said("{exercise} on the floor", exercise=Term(facts.setup.exercise.name), begins=True)
    with store.recorded(
        con, trainer_id, scope=scope(session_id), kind="lift", words=words, now=now
    ):
        return put_lift(con, trainer_id, session_id, facts, instead_of=instead_of, why=why)


def put_lift(
    con: store.Connection,
    trainer_id: int,
    session_id: int,
    facts: LiftFacts,
    *,
    instead_of: int | None = None,
    why: str = "",
) -> int:
    """Put a lift on a session as part of a change that is recorded; see add_lift."""
    there = store.lift_of_uid(con, trainer_id, facts.uid)
    if there is not None:
        return there.id
    held = store.lifts(con, trainer_id, session_id)
    before = next((x for x in held if x.id == instead_of), None)
    position = before.position if before else max((x.position for x in held), default=-1) + 1
    row = row_of(session_id, position, facts)
    asks = measured(row.scenario)
    row = replace(row, instead_of=before.id if before else None, why=why if before else "")
    if before is not None:
        row = replace(row, slot_id=before.slot_id)
    if before is not None:
        store.end_lift(con, trainer_id, before.id, ended=True)
    return store.add_lift(con, trainer_id, row, asks.actions, asks.muscles)


def row_of(session_id: int, position: int, facts: LiftFacts) -> store.LiftRow:
    """Return a lift as it is kept."""
    exercise = facts.setup.exercise
    scenario = json.dumps(scenario_document(facts.setup), separators=(",", ":"))
    asks = measured(scenario)
    return store.LiftRow(
        session_id=session_id,
        position=position,
        exercise=exercise.id,
        scenario=scenario,
        asked=facts.asked[:4000],
        said=kept(facts.said),
        pieces=facts.pieces,
        items=facts.items,
        sets=facts.sets,
        reps=facts.reps,
        one_sided=asks.one_sided,
        lowering_s=facts.lowering_s,
        hold_s=facts.hold_s,
        lifting_s=facts.lifting_s,
        rest_s=exercise.rest_s[0] if facts.rest_s is None else facts.rest_s,
        tilt=asks.tilt,
        hardest=asks.hardest,
        model=MODEL,
        uid=facts.uid,
        slot_id=facts.slot_id,
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
        lowering_s=row.lowering_s,
        hold_s=row.hold_s,
        lifting_s=row.lifting_s,
        rest_s=row.rest_s,
    )


def facts_of_decision(row: store.DecisionRow) -> LiftFacts:
    """Return a kept stand-in as a lift to do. InputError for one that was kept before its set-up
    was.
    """
    if row.scenario is None:
        raise InputError(
            "decision", row.exercise, Said("one whose set-up was kept: choose it again at Swap")
        )
    document = json.loads(row.scenario)
    setup, _ = parse_scenario(document)
    facts = LiftFacts(
        setup=setup,
        said=again(row.set_up_said or "") or Name(row.set_up),
        sets=row.sets,
        reps=row.reps,
        pieces=row.pieces,
        items=tuple(json.loads(row.uses or "[]")),
        asked=row.asked or "",
    )
    return in_style(facts, document.get("style", {}))


def in_style(facts: LiftFacts, style: Mapping[str, Any]) -> LiftFacts:
    """Return a lift with the seconds that a scenario's rep style gives it."""
    seconds = float(style.get("seconds") or 0.0)
    if style.get("kind") in ("pause", "hold"):
        return replace(facts, hold_s=seconds)
    if style.get("kind") == "slow-lowering":
        return replace(facts, lowering_s=seconds)
    return facts


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


def lift_of(
    con: store.Connection, trainer_id: int, lift_id: int, *, uid: str = ""
) -> store.LiftRow:
    """Return a lift, by the id of its device (uid) where it had no other when it was put on;
    MissingError where there is none.
    """
    row = store.lift_of_uid(con, trainer_id, uid) if uid else store.lift(con, trainer_id, lift_id)
    if row is None or row.exercise not in EXERCISES:
        raise MissingError(Said("that lift does not exist here"))
    return row


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


def left_of(con: store.Connection, trainer_id: int, row: store.LiftRow) -> int:
    """Return how many sets of a lift are still to do: one at least."""
    done = store.sets_of(con, trainer_id, row.session_id).get(row.id, [])
    sides = [sum(s.side == side for s in done) for side in ("left", "right", "both")]
    return max(1, row.sets - max(sides))


@store.at_once
def do_otherwise(
    con: store.Connection, trainer_id: int, lift_id: int, facts: LiftFacts, *, why: str, now: str
) -> int:
    """Do what is left of a lift otherwise, in its place; return the new lift's id."""
    row = lift_of(con, trainer_id, lift_id)
    facts = replace(facts, sets=left_of(con, trainer_id, row))
    return add_lift(con, trainer_id, row.session_id, facts, now=now, instead_of=lift_id, why=why)


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
    uid: str = "",
    scenario: str = "",
) -> int:
    """Do a stand-in in the place of a lift: kept as a decision, too; return the new lift's id.
    InputError where it is not among the stand-ins any more, unless a scenario (JSON) says how it
    was done meanwhile, away from the line. uid: the same one puts it on once.
    """
    lift_of(con, trainer_id, lift_id)
    there = store.lift_of_uid(con, trainer_id, uid)
    if there is not None:
        return there.id
    view = swap_view(con, trainer_id, ask, memo)  # computed before others have to wait
    found = candidate_of(view, pick)
    if scenario and (found is None or found.exercise.id != pick):
        row = lift_of(con, trainer_id, lift_id)
        facts = LiftFacts(setup=_setup_of(scenario), said=UNSAID, reps=row.reps, uid=uid)
        return do_otherwise(con, trainer_id, lift_id, facts, why=why, now=now)

    @store.at_once
    def both(con: store.Connection) -> int:
        made = decide(con, trainer_id, ask, pick, memo, now=now, asked=asked)
        kept_row = next(d for d in store.decisions(con, trainer_id) if d.id == made)
        facts = replace(facts_of_decision(kept_row), uid=uid)
        return do_otherwise(con, trainer_id, lift_id, facts, why=why, now=now)

    return both(con)


def _setup_of(scenario: str) -> Setup:
    try:
        document = json.loads(scenario)
    except ValueError:
        raise InputError("scenario", scenario[:40], Said("a scenario as JSON")) from None
    return parse_scenario(document)[0]


def kinder_of(view: SwapView, exercise: str, joint: str) -> Kinder | None:
    """Return the set-up of the same exercise, at the same work, that asks least of a joint that
    hurts; None where nothing asks it a twentieth less.
    """
    if view.ranking is None or view.question is None:
        return None
    own = next((c for c in view.ranking.candidates if c.exercise.id == exercise), None)
    found = () if own is None else kinder_setups(own, view.question, joint)
    return found[0] if found else None


def do_kinder(
    con: store.Connection,
    trainer_id: int,
    ask: SwapAsk,
    memo: Memo,
    lift_id: int,
    joint: str,
    *,
    now: str,
) -> int:
    """Do what is left of a lift set up kinder for a joint that hurts; return the new lift's id.
    InputError where nothing is kinder here.
    """
    row = lift_of(con, trainer_id, lift_id)
    view = swap_view(con, trainer_id, ask, memo)
    found = kinder_of(view, row.exercise, joint)
    if found is None:
        raise InputError("joint", joint, Said("a joint for which a set-up here is kinder"))
    facts = facts_offered(view, found.candidate)
    return do_otherwise(con, trainer_id, lift_id, facts, why="hurts", now=now)


def offered(view: SwapView, found: Candidate, uid: str) -> store.LiftRow:
    """Return a stand-in as the lift that it will be once it is used."""
    return row_of(0, 0, facts_offered(view, found, uid))


def facts_offered(view: SwapView, found: Candidate, uid: str = "") -> LiftFacts:
    """Return a stand-in as a lift to do; uid: made on the device that puts it there."""
    facts = LiftFacts(
        setup=found.curve.setup,
        said=set_up_words(found),
        sets=view.ask.sets,
        reps=view.ask.reps,
        pieces=found.pieces,
        items=items_of(view, found),
        uid=uid,
    )
    return in_style(facts, style_part(found.style))
