"""The ladder of a client's lift in a place: its rungs, where it stands, what is next and why."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date
from functools import lru_cache

from widearc import store
from widearc.core.dose import Tempo
from widearc.core.errors import InputError, PostureError, RangeError
from widearc.core.exercises import EXERCISES, Exercise
from widearc.core.kit import Kit, Machine, Piece
from widearc.core.movement import Setup
from widearc.core.progression.aims import Occasion, SetSeen
from widearc.core.progression.answer import LadderAnswer, LadderQuestion, answer
from widearc.core.progression.ladder import ladder_of
from widearc.core.progression.one_leg import is_two_legged_for
from widearc.core.progression.rung import Ladder, efforts_of
from widearc.core.progression.start import start_of
from widearc.core.search import Memo
from widearc.core.statics import curve
from widearc.core.words import UNSAID, Said
from widearc.formats import parse_scenario, scenario_document
from widearc.usecases.floor.lifts import LiftFacts, begin_with, facts_of, facts_of_decision
from widearc.usecases.holdings import Holdings
from widearc.usecases.ladder.rules import aim_of
from widearc.usecases.room.kit import Stock

MOST_SEEN = 8
MOST_LIFTS = 14


@dataclass(frozen=True, slots=True, kw_only=True)
class LadderAsk:
    """What a page asks: a client, a place, and a lift of the record, a kept decision or an exercise
    (0 and "": the newest of the client's lifts); rule: in place of the lift's own, "" for that.
    """

    client_id: int
    place_id: int
    exercise: str = ""
    lift_id: int = 0
    decision_id: int = 0
    rule: str = ""


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class LadderView:
    """A client's ladder. facts: the lift as it is done now (None: nothing is known of it here);
    seen: what was done of it, oldest first; lifts: what may be looked at instead, by id; problem:
    why there is no ladder; started: by practice, nothing was done yet; keys: of the place's items,
    by their id.
    """

    ask: LadderAsk
    client: store.ClientRow
    place: store.PlaceRow
    exercise: Exercise | None
    lifts: tuple[str, ...]
    facts: LiftFacts | None
    seen: tuple[store.LiftDone, ...]
    question: LadderQuestion | None
    answer: LadderAnswer | None
    problem: Said
    started: bool
    keys: Mapping[int, str]

    @property
    def last(self) -> store.LiftDone | None:
        """Return what was done last."""
        return self.seen[-1] if self.seen else None


def ladder_view(
    con: store.Connection,
    trainer_id: int,
    ask: LadderAsk,
    memo: Memo,
    *,
    today: date,
    setup: LiftFacts | None = None,
) -> LadderView:
    """Return the ladder that is asked for; setup: one that was put together elsewhere."""
    held = Holdings(con, trainer_id)
    client, place = held.client(ask.client_id), held.place(ask.place_id)
    lifts = store.exercises_done(con, trainer_id, client.id, MOST_LIFTS)
    lifts = tuple(id_ for id_ in lifts if id_ in EXERCISES)
    facts = setup or _facts(con, trainer_id, ask, lifts)
    chosen = facts.setup.exercise if facts is not None else EXERCISES.get(ask.exercise)
    empty = LadderView(
        ask=ask,
        client=client,
        place=place,
        exercise=chosen,
        lifts=lifts,
        facts=facts,
        seen=(),
        question=None,
        answer=None,
        problem=UNSAID if chosen else Said("no set is kept of this client yet"),
        started=facts is None,
        keys={},
    )
    if chosen is None:
        return empty
    try:
        return _answered(con, trainer_id, empty, held.at(place.id), memo, today)
    except (PostureError, RangeError, InputError) as error:
        return replace(empty, problem=error.said)


def place_of(con: store.Connection, trainer_id: int, client_id: int, exercise: str) -> int | None:
    """Return where a client did an exercise last ("": the last of any), None where nowhere."""
    lifts = [exercise] if exercise else store.exercises_done(con, trainer_id, client_id, 1)
    if not lifts:
        return None
    done = store.lifts_of_client(con, trainer_id, client_id, lifts[0], 1)
    return done[-1].place_id if done else None


def _facts(
    con: store.Connection, trainer_id: int, ask: LadderAsk, lifts: Sequence[str]
) -> LiftFacts | None:
    if ask.lift_id:
        row = store.lift(con, trainer_id, ask.lift_id)
        return None if row is None or row.exercise not in EXERCISES else facts_of(row)
    if ask.decision_id:
        rows = [d for d in store.decisions(con, trainer_id) if d.id == ask.decision_id]
        return facts_of_decision(rows[0]) if rows else None
    exercise = ask.exercise or (lifts[0] if lifts else "")
    done = store.lifts_of_client(con, trainer_id, ask.client_id, exercise, 1) if exercise else ()
    return facts_of(done[-1].lift) if done else None


def _answered(
    con: store.Connection,
    trainer_id: int,
    view: LadderView,
    stock: Stock,
    memo: Memo,
    today: date,
) -> LadderView:
    assert view.exercise is not None
    own = {i.key for i in stock.items if view.facts and i.id in view.facts.items}
    kit = stock.kit.without(frozenset(stock.taken - own))
    facts, ladder = view.facts, None
    seen = store.lifts_of_client(con, trainer_id, view.client.id, view.exercise.id, MOST_SEEN)
    if facts is None:
        ladder = start_of(view.exercise, kit, view.client.body, view.client.limits)
        if ladder is None:
            return replace(view, problem=Said("nothing here loads this exercise"))
        facts = LiftFacts(
            setup=ladder.now.setup,
            said=UNSAID,
            pieces=ladder.now.pieces,
            reps=view.exercise.reps[1],
        )
    else:
        facts = replace(facts, setup=_of_client(facts.setup, view.client))
        ladder = _known(memo, kit, facts.setup, facts.pieces)
    aim = aim_of(con, trainer_id, view.client.id, view.exercise.id, facts.sets, facts.reps)
    aim = replace(aim, rule=view.ask.rule or aim.rule)
    question = LadderQuestion(
        setup=facts.setup,
        pieces=facts.pieces,
        kit=kit,
        aim=aim,
        seen=tuple(_occasions(seen, ladder)),
        today=today.toordinal(),
        tempo=Tempo(lowering_s=facts.lowering_s, lifting_s=facts.lifting_s),
        machine=_machine(kit, own, facts.pieces),
        two=_two_legs(con, trainer_id, view),
    )
    return replace(
        view,
        facts=facts,
        seen=seen,
        question=question,
        answer=answer(question, ladder),
        keys={item.id: item.key for item in stock.items},
    )


def _of_client(setup: Setup, client: store.ClientRow) -> Setup:
    """Return a set-up for the body as it is now."""
    return replace(setup, body=client.body, limits=client.limits)


def _known(memo: Memo, kit: Kit, setup: Setup, pieces: tuple[Piece, ...]) -> Ladder:
    """Return the ladder of a set-up, computed once for a kit as it is."""
    document = json.dumps(scenario_document(setup), sort_keys=True)
    key = "ladder", memo.scope("ladder", kit.signature()), document, pieces
    return memo.once(key, lambda: ladder_of(setup, pieces, kit))


def _machine(kit: Kit, own: set[str], pieces: Sequence[Piece]) -> Machine | None:
    used = own | {piece.item for piece in pieces}
    return next((m for m in kit.machines if m.id in used), None)


def _occasions(seen: Sequence[store.LiftDone], ladder: Ladder) -> list[Occasion]:
    """Return what was done by day as the rules see it, its effort by the ladder's measure."""
    days: dict[str, list[store.LiftDone]] = {}
    for one in seen:
        days.setdefault(one.day, []).append(one)
    found = []
    for day, lifts in days.items():
        sets = tuple(_seen(s, one.lift) for one in lifts for s in one.sets)
        effort = effort_of(lifts[-1].lift.scenario) or ladder.now.effort
        found.append(Occasion(day=date.fromisoformat(day).toordinal(), sets=sets, effort=effort))
    return found


def _seen(row: store.SetRow, lift: store.LiftRow) -> SetSeen:
    rep_s = lift.lowering_s + lift.hold_s + lift.lifting_s
    return SetSeen(
        reps=row.reps,
        side=row.side,
        reserve=row.reserve,
        form=row.form,
        pain=row.pain or 0,
        seconds=row.held_s if row.held_s is not None else row.reps * rep_s,
    )


@lru_cache(maxsize=2048)
def effort_of(scenario: str) -> float:
    """Return what a kept scenario (JSON) asks, by the measure of ladders; 0 where it cannot be set
    up any more.
    """
    try:
        setup, _ = parse_scenario(json.loads(scenario))
        return float(efforts_of(curve(replace(setup, samples=101), lowering=False))[0])
    except (InputError, PostureError, RangeError):
        return 0.0


def _two_legs(con: store.Connection, trainer_id: int, view: LadderView) -> Setup | None:
    """Return the newest lift of two legs that this one splits."""
    assert view.exercise is not None
    for id_ in view.lifts:
        if is_two_legged_for(view.exercise.id, id_):
            done = store.lifts_of_client(con, trainer_id, view.client.id, id_, 1)
            setup, _ = parse_scenario(json.loads(done[-1].lift.scenario))
            return _of_client(setup, view.client)
    return None


def facts_at(view: LadderView, index: int, reps: int, sets: int) -> LiftFacts:
    """Return a rung as a lift to do. InputError where there is no such rung."""
    rungs = () if view.answer is None else view.answer.ladder.rungs
    if view.facts is None or not 0 <= index < len(rungs):
        raise InputError("rung", index, Said("a rung of this ladder"))
    rung = rungs[index]
    used = {*rung.items, *(piece.item for piece in rung.pieces)}
    before = {piece.item for piece in view.facts.pieces}
    kept = [i for i in view.facts.items if view.keys.get(i) not in before]
    there = [i for i, key in view.keys.items() if key in used]
    return replace(
        view.facts,
        setup=rung.setup,
        pieces=rung.pieces,
        items=tuple(dict.fromkeys([*kept, *there])),
        reps=reps,
        sets=sets,
        uid="",
    )


@store.at_once
def agree(
    con: store.Connection,
    trainer_id: int,
    view: LadderView,
    index: int,
    reps: int,
    sets: int,
    *,
    now: str,
) -> tuple[int, int]:
    """Put a rung on the client's session there, begun where there is none; return the ids of both.
    InputError where there is no such rung.
    """
    facts = facts_at(view, index, reps, sets)
    return begin_with(con, trainer_id, view.client.id, view.place.id, facts, now=now)
