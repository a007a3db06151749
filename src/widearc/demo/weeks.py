"""The demo's plans: this week as the last one was done, with what was done of it so far."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, timedelta

from widearc import store
from widearc.usecases.floor.lifts import facts_of
from widearc.usecases.week.plans import slot_of


def _of_week(sessions: Sequence[store.SessionRow], monday: date) -> list[store.SessionRow]:
    return [s for s in sessions if _week(s.started_at) == monday]


def load_weeks(con: store.Connection, *, now: str) -> None:
    """Plan this week for every client of the demo as the last one went, unless one is planned."""
    trainer = store.local_trainer(con, now=now)
    if store.weeks(con, trainer):
        return
    monday = date.fromisoformat(store.monday_of(now))
    with store.transaction(con):
        for client in store.clients(con, trainer):
            sessions = store.sessions(con, trainer, client_id=client.id, most=20)
            before = _of_week(sessions, monday - timedelta(days=7))
            if not before:
                continue
            row = store.WeekRow(client_id=client.id, monday=monday.isoformat())
            week = store.add_week(con, trainer, row)
            done = {_day(s.started_at): s for s in _of_week(sessions, monday)}
            for session in sorted(before, key=lambda s: s.started_at):
                own = done.get(_day(session.started_at))
                _plan(con, trainer, week, own or session, own)


def _plan(
    con: store.Connection,
    trainer: int,
    week: int,
    session: store.SessionRow,
    done: store.SessionRow | None,
) -> None:
    """Plan a day as a session was, and say what another session did of it."""
    if any(d.weekday == _day(session.started_at) for d in store.days_of(con, trainer, week)):
        return
    day = store.add_day(
        con,
        trainer,
        store.DayRow(week_id=week, weekday=_day(session.started_at), place_id=session.place_id),
    )
    answered = [] if done is None else list(store.lifts(con, trainer, done.id))
    for position, lift in enumerate(store.lifts(con, trainer, session.id)):
        slot = store.add_slot(con, trainer, slot_of(day, position, lift.exercise, facts_of(lift)))
        own = next((one for one in answered if one.exercise == lift.exercise), None)
        if own is not None:
            store.answer_slot(con, trainer, own.id, slot)


def _week(started_at: str) -> date:
    return date.fromisoformat(store.monday_of(started_at))


def _day(started_at: str) -> int:
    return date.fromisoformat(started_at[:10]).weekday()
