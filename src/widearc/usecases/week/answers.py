"""Slots that say what is wanted: the best that a day's place has answers an intent or a lift."""

from __future__ import annotations

from dataclasses import replace

from widearc import store
from widearc.core.errors import InputError
from widearc.core.search import Memo
from widearc.core.words import Said
from widearc.usecases.floor.lifts import LiftFacts, facts_offered
from widearc.usecases.intent.intents import intent_words
from widearc.usecases.swap.swap import candidate_of, swap_view
from widearc.usecases.swap.wanted import SwapAsk
from widearc.usecases.week import plans
from widearc.words import plain


def answer_of(
    con: store.Connection, trainer_id: int, ask: SwapAsk, asked: str, memo: Memo
) -> LiftFacts:
    """Return the first stand-in for what is asked, in what is free at its place, as a lift to do;
    asked: its address. InputError where nothing there comes close.
    """
    view = swap_view(con, trainer_id, ask, memo)
    found = candidate_of(view, None)
    if found is None:
        what = ask.exercise if ask.intent is None else plain(intent_words(ask.intent))
        raise InputError("exercise", what, Said("what something free there comes close to"))
    return replace(facts_offered(view, found), asked=asked)


@store.at_once
def add_wanted(
    con: store.Connection,
    trainer_id: int,
    day_id: int,
    ask: SwapAsk,
    asked: str,
    memo: Memo,
    *,
    now: str,
) -> int:
    """Put what answers something wanted at the end of a day; return the slot's id."""
    day = plans.day_row(con, trainer_id, day_id)
    facts = answer_of(con, trainer_id, ask, asked, memo)
    at = plans.free_place(con, trainer_id, day)
    row = plans.slot_of(day_id, at, facts.setup.exercise.id, facts)
    row = replace(row, reps_low=facts.reps, reps_high=facts.reps)
    return plans.put_slot(con, trainer_id, day.week_id, row, now=now)


@store.at_once
def choose_again(
    con: store.Connection,
    trainer_id: int,
    slot_id: int,
    ask: SwapAsk,
    memo: Memo,
    *,
    now: str,
) -> None:
    """Let a slot be answered by what is free at its day's place now; its dose, rule and note
    stay.
    """
    row = plans.slot_row(con, trainer_id, slot_id)
    facts = answer_of(con, trainer_id, ask, row.asked, memo)
    found = plans.slot_of(row.day_id, row.position, facts.setup.exercise.id, facts)
    kept = {n: getattr(row, n) for n in STAYS}
    plans.change_slot(con, trainer_id, replace(found, id=row.id, **kept), now=now)


STAYS = (
    *("sets_low", "sets_high", "reps_low", "reps_high", "rest_s", "kind", "note", "rule"),
    *("lowering_s", "hold_s", "lifting_s"),
)
