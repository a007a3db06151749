"""What to buy for the ladders of a place's planned lifts."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from widearc import store
from widearc.core.exercises import EXERCISES
from widearc.core.progression.purchase import ForLadder
from widearc.core.search import Memo
from widearc.usecases.ladder import LadderAsk, ladder_view
from widearc.usecases.week.doing import facts_of_slot
from widearc.usecases.week.plans import monday_of


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Gap:
    """The widest gap of a client's lift, and the one thing that closes it."""

    client: str
    exercise: str
    bought: ForLadder


def planned_here(
    con: store.Connection, trainer_id: int, place_id: int, *, now: str
) -> tuple[tuple[store.WeekRow, store.SlotRow], ...]:
    """Return this week's lifts that are planned at a place, each exercise of a client once."""
    monday = monday_of(now)
    found: dict[tuple[int, str], tuple[store.WeekRow, store.SlotRow]] = {}
    for week in _weeks_of(con, trainer_id, monday):
        days = {d.id for d in store.days_of(con, trainer_id, week.id) if d.place_id == place_id}
        for slot in store.slots_of(con, trainer_id, week.id):
            if slot.day_id in days and _is_set_up(slot):
                found.setdefault((week.client_id or 0, slot.exercise), (week, slot))
    return tuple(found.values())


def _weeks_of(con: store.Connection, trainer_id: int, monday: str) -> list[store.WeekRow]:
    return [w for w in store.weeks(con, trainer_id) if w.monday == monday]


def _is_set_up(slot: store.SlotRow) -> bool:
    return slot.kind == "lift" and slot.scenario is not None and slot.exercise in EXERCISES


def gaps_here(
    con: store.Connection, trainer_id: int, place_id: int, memo: Memo, *, now: str
) -> tuple[Gap, ...]:
    """Return the widest gaps of the ladders of this week's lifts at a place that one thing closes,
    the widest first.
    """
    clients = {c.id: c.name for c in store.clients(con, trainer_id)}
    found = []
    for week, slot in planned_here(con, trainer_id, place_id, now=now):
        assert week.client_id is not None
        ask = LadderAsk(client_id=week.client_id, place_id=place_id, exercise=slot.exercise)
        today = date.fromisoformat(now[:10])
        facts = facts_of_slot(slot)
        view = ladder_view(con, trainer_id, ask, memo, today=today, setup=facts)
        if view.answer is not None and view.answer.purchase is not None:
            gap = Gap(
                client=clients[week.client_id],
                exercise=slot.exercise,
                bought=view.answer.purchase,
            )
            found.append(gap)
    return tuple(sorted(found, key=lambda g: -g.bought.gap))
