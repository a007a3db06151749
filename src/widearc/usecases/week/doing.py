"""A planned day on the floor, and the next week from this one by the rules' proposals."""

from __future__ import annotations

import json
from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta

from widearc import store
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.search import Memo
from widearc.core.words import UNSAID, Said
from widearc.formats import parse_scenario, scenario_document
from widearc.usecases.floor.lifts import LiftFacts, add_lift
from widearc.usecases.floor.sessions import begin
from widearc.usecases.ladder import LadderAsk, LadderView, facts_at, ladder_view
from widearc.usecases.week import plans
from widearc.words import again, kept


def facts_of_slot(row: store.SlotRow) -> LiftFacts:
    """Return a slot as a lift to do. InputError where it cannot be set up."""
    if row.scenario is None:
        raise InputError("slot", row.exercise, Said("a slot that is set up"))
    setup, _ = parse_scenario(json.loads(row.scenario))
    return LiftFacts(
        setup=setup,
        said=again(row.said) or UNSAID,
        sets=row.sets_high,
        reps=row.reps_high,
        pieces=row.pieces,
        items=row.items,
        asked=row.asked,
        lowering_s=row.lowering_s,
        hold_s=row.hold_s,
        lifting_s=row.lifting_s,
        rest_s=row.rest_s,
        slot_id=row.id,
    )


@store.at_once
def start_day(
    con: store.Connection, trainer_id: int, day_id: int, *, now: str
) -> tuple[int, tuple[str, ...]]:
    """Begin the session of a planned day, or go on with it; return its id, and the names of what
    cannot be set up. InputError for a template's day.
    """
    day = plans.day_row(con, trainer_id, day_id)
    week = plans.week_row(con, trainer_id, day.week_id)
    if week.client_id is None:
        raise InputError("day", day_id, Said("a day of a client's week"))
    session_id = begin(con, trainer_id, week.client_id, day.place_id, now=now, day_id=day.id)
    there = {lift.slot_id for lift in store.lifts(con, trainer_id, session_id)}
    left = []
    for row in store.slots_of(con, trainer_id, week.id):
        if row.day_id != day.id or row.kind == "mobility" or row.id in there:
            continue
        try:
            add_lift(con, trainer_id, session_id, facts_of_slot(row), now=now)
        except InputError:
            left.append(EXERCISES[row.exercise].name if row.exercise in EXERCISES else row.exercise)
    return session_id, tuple(left)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class SlotProposal:
    """What the rule of a slot's lift proposes for the next week: the ladder, the rung, and the slot
    as it would be; changes: whether that is another one.
    """

    slot: store.SlotRow
    view: LadderView
    then: store.SlotRow
    changes: bool

    @property
    def reason(self) -> Said:
        """Return why."""
        assert self.view.answer is not None
        return self.view.answer.advice.proposal.reason


def proposals(
    con: store.Connection, trainer_id: int, week: store.WeekRow, memo: Memo, *, today: date
) -> tuple[SlotProposal, ...]:
    """Return what the rules propose for the next week's lifts, of those with a ladder."""
    if week.client_id is None:
        return ()
    places = {d.id: d.place_id for d in store.days_of(con, trainer_id, week.id)}
    found = []
    for row in store.slots_of(con, trainer_id, week.id):
        if row.kind != "lift" or row.scenario is None or row.exercise not in EXERCISES:
            continue
        ask = LadderAsk(
            client_id=week.client_id,
            place_id=places[row.day_id],
            exercise=row.exercise,
            rule=row.rule,
        )
        facts = facts_of_slot(row)
        view = ladder_view(con, trainer_id, ask, memo, today=today, setup=facts)
        if view.answer is None:
            continue
        then = _then(row, view)
        found.append(SlotProposal(slot=row, view=view, then=then, changes=then != row))
    return tuple(found)


def _then(row: store.SlotRow, view: LadderView) -> store.SlotRow:
    """Return a slot as its rule proposes it."""
    assert view.answer is not None
    advice = view.answer.advice
    reps, sets = advice.proposal.reps, advice.proposal.sets
    facts = facts_at(view, advice.rung, reps, sets)
    changed = replace(row, reps_high=max(reps, 1), reps_low=min(row.reps_low, reps))
    if advice.rung == view.answer.ladder.present:
        return changed
    document = scenario_document(facts.setup)
    return replace(
        changed,
        scenario=json.dumps(document, separators=(",", ":")),
        said=kept(facts.said) if facts.said else "",
        pieces=facts.pieces,
        items=facts.items,
    )


@store.at_once
def next_week(
    con: store.Connection,
    trainer_id: int,
    week: store.WeekRow,
    agreed: Collection[int],
    found: Sequence[SlotProposal],
    *,
    now: str,
) -> int:
    """Make the next week from this one, with the proposals that are agreed to (ids of slots);
    return its id. InputError where it is planned already.
    """
    if week.client_id is None or week.monday is None:
        raise InputError("week", week.id, Said("a client's week"))
    monday = (date.fromisoformat(week.monday) + timedelta(days=7)).isoformat()
    made = plans.copy_week(
        con, trainer_id, week.id, client_id=week.client_id, monday=monday, now=now
    )
    before = store.slots_of(con, trainer_id, week.id)
    after = store.slots_of(con, trainer_id, made)
    then = {p.slot.id: p.then for p in found if p.slot.id in agreed}
    for old, new in zip(before, after, strict=True):
        if old.id in then:
            changed = replace(then[old.id], id=new.id, day_id=new.day_id, position=new.position)
            store.change_slot(con, trainer_id, changed)
    return made
