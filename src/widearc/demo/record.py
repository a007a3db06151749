"""Fourteen invented weeks of three clients: what each could do decides the reps, so that every
chart says what happened.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from random import Random

from widearc import store
from widearc.core.strength import effort_of_reps
from widearc.usecases import floor
from widearc.usecases.floor.asks import Measured, measured
from widearc.usecases.floor.lifts import row_of
from widearc.usecases.floor.typed import SetUps, TypedSet

WEEKS = 14
DECK, CABIN, HARBOUR = 0, 1, 2
MOST_REPS, WANTED_REPS, TOLD_RESERVE = 16, 10, 5
SORE_CLIENT, SORE_WEEKS = 2, (4, 5)
SLEEP = ("Slept badly, watch at night", "Sea state 4: nothing on one leg", "Asked for more calves")


@dataclass(frozen=True, slots=True, kw_only=True)
class Lift:
    """An exercise with the loads that the place makes of it, lightest first; None: no weight."""

    exercise: str
    loads: tuple[float | None, ...] = (None,)
    sets: int = 3


@dataclass(frozen=True, slots=True, kw_only=True)
class Day:
    """A day of the plan: its days after Monday, and what is done at each place."""

    after: int
    at: Mapping[int, tuple[Lift, ...]]


@dataclass(frozen=True, slots=True, kw_only=True)
class Life:
    """A client by the place in the list: strength over the usual at first, its gain a week, the
    week from which it stays as it is, and by how much the right is stronger.
    """

    client: int
    kappa: float
    gain: float
    plateau: int
    right: float
    days: tuple[Day, ...]
    away: Mapping[int, int]


_PRESS = Lift(exercise="leg-press-45", loads=tuple(range(40, 180, 10)))
_SPLIT = Lift(exercise="rear-raised-split-squat", loads=(16, 24, 32, 40))
_LUNGE = Lift(exercise="reverse-lunge", loads=(16, 24, 32, 40))
_CABIN_SPLIT = Lift(exercise="rear-raised-split-squat", loads=(6, 12, 20))
_HINGE = Lift(exercise="romanian-deadlift", loads=tuple(range(30, 95, 5)))
_CALF = Lift(exercise="calf-raise-step", loads=(16, 24, 32, 40), sets=2)
_BAND_CURL = Lift(exercise="leg-curl-band")
_BACK = Lift(exercise="back-squat-high", loads=tuple(range(40, 130, 5)))
_INSTEAD = Lift(exercise="split-squat", loads=(16, 24, 32, 40))
_EXTENSION = Lift(exercise="leg-extension", loads=tuple(range(20, 95, 5)), sets=2)
_CURL = Lift(exercise="seated-leg-curl", loads=tuple(range(15, 80, 5)), sets=2)

LIVES = (
    Life(
        client=0,
        kappa=1.3,
        gain=0.010,
        plateau=8,
        right=1.09,
        days=(
            Day(
                after=0,
                at={
                    DECK: (_PRESS, _LUNGE, _CALF),
                    CABIN: (_CABIN_SPLIT, _BAND_CURL),
                    HARBOUR: (_BACK, _EXTENSION),
                },
            ),
            Day(
                after=3,
                at={
                    DECK: (_HINGE, _LUNGE, _CALF),
                    CABIN: (_CABIN_SPLIT, _BAND_CURL),
                    HARBOUR: (_HINGE, _CURL),
                },
            ),
        ),
        away={5: CABIN, 6: CABIN, 4: HARBOUR, 9: HARBOUR, 13: HARBOUR},
    ),
    Life(
        client=1,
        kappa=0.9,
        gain=0.014,
        plateau=WEEKS,
        right=1.0,
        days=(
            Day(
                after=1,
                at={DECK: (_PRESS, _SPLIT), CABIN: (_CABIN_SPLIT,), HARBOUR: (_BACK, _CURL)},
            ),
            Day(
                after=4,
                at={DECK: (_HINGE, _CALF), CABIN: (_CABIN_SPLIT,), HARBOUR: (_EXTENSION, _CURL)},
            ),
        ),
        away={3: CABIN, 10: HARBOUR, 11: HARBOUR},
    ),
    Life(
        client=2,
        kappa=1.1,
        gain=0.004,
        plateau=WEEKS,
        right=1.0,
        days=(
            Day(
                after=2,
                at={DECK: (_PRESS, _SPLIT), CABIN: (_CABIN_SPLIT,), HARBOUR: (_PRESS, _CURL)},
            ),
        ),
        away={7: HARBOUR, 8: HARBOUR},
    ),
)


def load_record(con: store.Connection, *, now: str) -> None:
    """Add the demo's fourteen weeks up to now, unless a session is there already, or the demo's
    clients and places are not.
    """
    trainer = store.local_trainer(con, now=now)
    clients, places = store.clients(con, trainer), store.places(con, trainer)
    there = store.sessions(con, trainer, most=1)
    if there or len(clients) < len(LIVES) or len(places) <= HARBOUR:
        return
    monday = datetime.fromisoformat(store.monday_of(now) + "T16:00:00+00:00")
    with store.transaction(con):
        for life in LIVES:
            client = clients[life.client]
            writes = _Writer(con, trainer, client, [p.id for p in places], life)
            for session in _sessions(life, monday, datetime.fromisoformat(now)):
                writes.session(*session)
            for i, words in enumerate(SLEEP[: 3 - life.client]):
                at = (monday - timedelta(weeks=3 * i + 1)).isoformat()
                store.add_note(con, trainer, client.id, words, at=at)


def _sessions(
    life: Life, monday: datetime, now: datetime
) -> Iterator[tuple[int, datetime, int, tuple[Lift, ...]]]:
    """Yield (week, when, place, lifts) of every session before now, the first week first."""
    for week in range(WEEKS):
        start = monday - timedelta(weeks=WEEKS - 1 - week)
        place = life.away.get(week, DECK)
        for day in life.days:
            when = start + timedelta(days=day.after)
            if when < now - timedelta(hours=2):
                yield week, when, place, day.at[place]


class _Writer:
    """Writes sessions of one client, with what could be done in each week."""

    def __init__(
        self,
        con: store.Connection,
        trainer: int,
        client: store.ClientRow,
        places: Sequence[int],
        life: Life,
    ) -> None:
        self._con, self._trainer, self._client, self._places = con, trainer, client, places
        self._life, self._luck = life, Random(100 + life.client)
        self._makes = SetUps(con, trainer, client)
        self._at: dict[str, int] = {}
        self._n = 0

    def session(self, week: int, when: datetime, place: int, lifts: Sequence[Lift]) -> None:
        """Write one session."""
        done = timedelta(minutes=12 * len(lifts) + 20)
        row = store.SessionRow(
            client_id=self._client.id,
            place_id=self._places[place],
            started_at=_iso(when),
            ended_at=_iso(when + done),
        )
        session_id = store.add_session(self._con, self._trainer, row)
        for i, lift in enumerate(lifts):
            self._lift(session_id, week, when + timedelta(minutes=12 * i + 5), place, lift)

    def _lift(self, session_id: int, week: int, when: datetime, place: int, lift: Lift) -> None:
        facts, asks = self._loaded(week, place, lift)
        instead_of, why = None, ""
        if lift is _PRESS and week in (2, 11) and self._life.client == 0:
            # the press was taken: what was done in its place stands for it
            instead_of = floor.put_lift(self._con, self._trainer, session_id, facts)
            facts, asks = self._loaded(week, place, _INSTEAD)
            why = "taken"
        facts = replace(facts, sets=lift.sets)
        made = floor.put_lift(
            self._con, self._trainer, session_id, facts, instead_of=instead_of, why=why
        )
        sides = ("left", "right") if asks.one_sided else ("both",)
        for number in range(lift.sets):
            for side in sides:
                self._set(made, week, when + timedelta(minutes=3 * number), side, asks)

    def _loaded(self, week: int, place: int, lift: Lift) -> tuple[floor.LiftFacts, Measured]:
        """Return a lift with the load at which about ten reps can be done: a step up once sixteen
        can.
        """
        at = self._at.get(lift.exercise, 0) if place == DECK else 0
        while True:
            facts = self._facts(place, lift, lift.loads[at])
            asks = measured(row_of(0, 0, facts).scenario)
            can = self._can(week, "left", asks)
            if can <= MOST_REPS or at + 1 >= len(lift.loads):
                break
            at += 1
        if place == DECK:
            self._at[lift.exercise] = at
        return facts, asks

    def _facts(self, place: int, lift: Lift, load: float | None) -> floor.LiftFacts:
        row = TypedSet(
            row=0,
            done_at="",
            place_id=self._places[place],
            exercise=lift.exercise,
            reps=WANTED_REPS,
            load_kg=load,
        )
        return self._makes.facts(row)

    def _kappa(self, week: int, side: str) -> float:
        life = self._life
        right = life.right if side == "right" else 1.0
        return life.kappa * (1.0 + life.gain) ** min(week, life.plateau) * right

    def _can(self, week: int, side: str, asks: Measured) -> int:
        """Return how many reps can be done in a week, with luck: up to thirty."""
        effort = max((a.ratio or 0.0 for a in asks.actions), default=0.0)
        if effort <= 0.0:
            return 15
        share = effort / self._kappa(week, side)
        return next((r for r in range(30, 0, -1) if effort_of_reps(r) >= share), 1)

    def _set(self, lift_id: int, week: int, when: datetime, side: str, asks: Measured) -> None:
        can = self._can(week, side, asks) + self._luck.randint(-1, 1)
        reps = max(1, min(15, can - self._luck.randint(1, 3)))
        left = max(0, can - reps)
        felt = (asks.hardest or "") if self._luck.random() < 0.8 else "middle"
        self._n += 1
        facts = floor.SetFacts(
            uid=f"demo-{self._life.client}-{self._n:05d}",
            side=side,
            reps=reps,
            reserve=left if left <= TOLD_RESERVE else None,
            felt=felt if self._n % 4 == 0 else "",
            done_at=_iso(when),
        )
        if self._life.client == SORE_CLIENT and week in SORE_WEEKS and side != "right":
            facts = replace(facts, pain_joint="knee", pain_side="left", pain=3)
        floor.put_set(self._con, self._trainer, lift_id, facts, now=_iso(when))


def _iso(moment: datetime) -> str:
    return moment.isoformat(timespec="seconds")
