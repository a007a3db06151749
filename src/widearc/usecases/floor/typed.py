"""Sets that are typed at the desk later, or come from a table: rows, all of them or none."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import TypeVar

from widearc import store
from widearc.core.errors import InputError, PostureError
from widearc.core.exercises import EXERCISES, Exercise
from widearc.core.movement import Setup
from widearc.core.progression.weights import weight_of, with_weight
from widearc.core.statics import curve
from widearc.core.words import UNSAID, Count, Mass, Name, Said, Value
from widearc.formats import parse_scenario
from widearc.usecases.floor.lifts import LiftFacts, put_lift
from widearc.usecases.floor.sets import SetFacts, put_set
from widearc.usecases.holdings import Holdings
from widearc.usecases.room.room import room_view
from widearc.usecases.swap.wanted import (
    SwapAsk,
    asks_depth,
    depths_of,
    kits_for,
    wantable,
    wanted_setup,
)
from widearc.words import LANGUAGES, again
from widearc.words.catalogue import translated

MOST_ROWS = 2000
STEP_DEG = 5.0  # of knee bend, where a body does not go deeper
SIDES: Mapping[str, str] = {
    "": "",
    "both": "both",
    "b": "both",
    "left": "left",
    "l": "left",
    "right": "right",
    "r": "right",
}
"""A side as it is typed; "": not said."""


@dataclass(frozen=True, slots=True, kw_only=True)
class TypedSet:
    """A set as it was typed: done_at ISO; load_kg None: as last time, or none; reserve None: not
    said; row: where it stands, to be named.
    """

    row: int
    done_at: str
    place_id: int
    exercise: str
    reps: int
    side: str = "both"
    load_kg: float | None = None
    reserve: int | None = None
    note: str = ""


class RowsError(Exception):
    """Rows that cannot be kept: each with its number, column, value and what is allowed."""

    def __init__(self, errors: Sequence[tuple[int, InputError]]) -> None:
        super().__init__(f"{len(errors)} rows")
        self.errors = tuple(errors)


@lru_cache(maxsize=1)
def _names() -> Mapping[str, str]:
    found: dict[str, str] = {}
    for entry in EXERCISES.values():
        for name in (entry.id, entry.name, *entry.aliases):
            for language in LANGUAGES:
                found.setdefault(translated(name, language).casefold(), entry.id)
    return found


def exercise_named(text: str) -> Exercise | None:
    """Return the exercise of an id, name or other name, in any language; None for none."""
    found = _names().get(" ".join(text.split()).casefold())
    return EXERCISES[found] if found else None


def kept_before(
    con: store.Connection, trainer_id: int, client_id: int, rows: Sequence[TypedSet]
) -> tuple[TypedSet, ...]:
    """Return the rows that are kept already: the same table that came in before."""
    return tuple(
        row
        for row, uid in zip(rows, _uids(client_id, rows), strict=True)
        if store.set_of_uid(con, trainer_id, uid) is not None
    )


@store.at_once
def keep_rows(
    con: store.Connection, trainer_id: int, client_id: int, rows: Sequence[TypedSet], *, now: str
) -> int:
    """Keep rows as sessions (a day and place each), lifts (an exercise and load each, one after the
    other) and sets; return how many sets are new. RowsError names every row that cannot be kept;
    nothing is kept then. A row that came in before is kept once.
    """
    client = store.client(con, trainer_id, client_id)
    if len(rows) > MOST_ROWS:
        raise InputError("csv", len(rows), Said("at most {most} rows", most=Count(MOST_ROWS)))
    named = list(zip(_uids(client_id, rows), rows, strict=True))
    new = [(uid, r) for uid, r in named if store.set_of_uid(con, trainer_id, uid) is None]
    if not new:
        return 0
    makes = SetUps(con, trainer_id, client)
    errors: list[tuple[int, InputError]] = []
    for _, row in new:
        try:
            makes.facts(row)
        except InputError as error:
            errors.append((row.row, error))
        except PostureError as error:
            errors.append((row.row, InputError("exercise", row.exercise, error.reason)))
    if errors:
        raise RowsError(errors)
    words = Said("sets typed for {name}", name=Name(client.name, lower=True))
    with store.recorded(con, trainer_id, scope="sessions", kind="session", words=words, now=now):
        for key, group in _grouped(new, lambda r: (r.done_at[:10], r.place_id)):
            _keep_session(con, trainer_id, client_id, key[1], group, makes, now=now)
    return len(new)


_Named = tuple[str, TypedSet]
K = TypeVar("K")


def _grouped(
    rows: Sequence[_Named], key: Callable[[TypedSet], K]
) -> Iterator[tuple[K, list[_Named]]]:
    """Yield (key, rows) for rows that stand one after the other with one key."""
    held: list[_Named] = []
    for pair in rows:
        if held and key(held[-1][1]) != key(pair[1]):
            yield key(held[0][1]), held
            held = []
        held.append(pair)
    if held:
        yield key(held[0][1]), held


def _keep_session(
    con: store.Connection,
    trainer_id: int,
    client_id: int,
    place_id: int,
    rows: Sequence[_Named],
    makes: SetUps,
    *,
    now: str,
) -> None:
    store.place(con, trainer_id, place_id)
    times = sorted(row.done_at for _, row in rows)
    session = store.SessionRow(
        client_id=client_id, place_id=place_id, started_at=times[0], ended_at=times[-1]
    )
    session_id = store.add_session(con, trainer_id, session)
    for _, group in _grouped(rows, lambda r: (r.exercise, r.load_kg)):
        facts = replace(makes.facts(group[0][1]), sets=min(20, max(1, len(group))))
        lift = put_lift(con, trainer_id, session_id, facts)
        for uid, row in group:
            done = SetFacts(
                uid=uid,
                side=row.side,
                reps=row.reps,
                reserve=row.reserve,
                note=row.note,
                done_at=row.done_at,
            )
            put_set(con, trainer_id, lift, done, now=now)


def _uids(client_id: int, rows: Sequence[TypedSet]) -> list[str]:
    """Return an id for each row that is the same when the same table comes again."""
    seen: dict[str, int] = {}
    found = []
    for row in rows:
        parts = (client_id, row.done_at, row.place_id, row.exercise, row.side, row.reps)
        text = repr((*parts, row.load_kg, row.reserve, row.note))
        seen[text] = seen.get(text, 0) + 1
        found.append("t" + hashlib.sha256(f"{text} {seen[text]}".encode()).hexdigest()[:31])
    return found


class SetUps:
    """Set-ups of exercises with loads for one client: as last time, else as usual here."""

    def __init__(self, con: store.Connection, trainer_id: int, client: store.ClientRow) -> None:
        self._con, self._trainer_id, self._client = con, trainer_id, client
        self._held = Holdings(con, trainer_id)
        self._made: dict[tuple[str, float | None, int], LiftFacts] = {}

    def facts(self, row: TypedSet) -> LiftFacts:
        """Return a row's exercise and load as a lift. InputError for a load that it cannot take."""
        key = (row.exercise, row.load_kg, row.place_id)
        if key not in self._made:
            entry = EXERCISES[row.exercise]
            self._made[key] = self._as_last_time(entry, row) or self._as_usual(entry, row)
        return self._made[key]

    def _as_last_time(self, entry: Exercise, row: TypedSet) -> LiftFacts | None:
        last = store.last_lift(self._con, self._trainer_id, self._client.id, entry.id)
        if last is None:
            return None
        setup, _ = parse_scenario(json.loads(last.scenario))
        if row.load_kg is None or row.load_kg == weight_of(setup):
            return LiftFacts(
                setup=setup,
                said=again(last.said) or UNSAID,
                pieces=last.pieces,
                reps=row.reps or last.reps,
                lowering_s=last.lowering_s,
                hold_s=last.hold_s,
                lifting_s=last.lifting_s,
            )
        if not weight_of(setup):
            return None
        other = with_weight(setup, row.load_kg)
        return LiftFacts(setup=other, said=_told(row.load_kg), reps=max(1, row.reps))

    def _as_usual(self, entry: Exercise, row: TypedSet) -> LiftFacts:
        return LiftFacts(
            setup=self._usual(entry, row), said=_told(row.load_kg), reps=max(1, row.reps)
        )

    def _usual(self, entry: Exercise, row: TypedSet) -> Setup:
        _takes(entry, row.load_kg)
        if entry not in wantable():
            return Setup(exercise=entry, body=self._client.body, limits=self._client.limits)
        ask = SwapAsk(
            place_id=row.place_id,
            client_id=self._client.id,
            exercise=entry.id,
            kg=row.load_kg or 0.0,
        )
        seen = room_view(self._con, self._trainer_id, row.place_id, self._client, self._held)
        kits = kits_for(seen, self._held)
        made = wanted_setup(ask, self._client, kits).setup
        if row.load_kg and weight_of(made) != row.load_kg:
            raise InputError("load", row.load_kg, Said("nothing: it is not loaded by weight"))
        # as deep as this body goes: nobody was measured at the desk
        least = depths_of(entry)[0] + STEP_DEG
        while asks_depth(entry) and ask.depth_deg >= least and not _can_be(made):
            ask = replace(ask, depth_deg=ask.depth_deg - STEP_DEG)
            made = wanted_setup(ask, self._client, kits).setup
        return made


def _takes(entry: Exercise, load_kg: float | None) -> None:
    """Refuse a load for what takes none, and none for what must have one."""
    if entry not in wantable():
        if load_kg:
            raise InputError("load", load_kg, Said("nothing: no load of it is known"))
    elif not load_kg and () not in entry.ways and _by_weight(entry):
        raise InputError("load", "", Said("a load in kg, as it was not done here before"))


def _can_be(setup: Setup) -> bool:
    try:
        curve(replace(setup, samples=101), lowering=False)
    except PostureError:
        return False
    return True


def _by_weight(entry: Exercise) -> bool:
    return any(part.stock not in ("band", "spring") for ways in entry.ways[:1] for part in ways)


def _told(kg: float | None) -> Value:
    return UNSAID if not kg else Said("{mass}", mass=Mass(kg))


@dataclass(frozen=True, slots=True, kw_only=True)
class Offered:
    """What is offered for a row: last time's set."""

    exercise: str
    load_kg: float | None
    side: str
    reps: int
    reserve: int | None


def offered_rows(
    con: store.Connection, trainer_id: int, client_id: int, most: int
) -> tuple[Offered, ...]:
    """Return the sets of the client's last session, to be taken over row by row."""
    found: list[Offered] = []
    for session in store.sessions(con, trainer_id, client_id=client_id, most=5):
        sets = store.sets_of(con, trainer_id, session.id)
        for lift in store.lifts(con, trainer_id, session.id):
            setup, _ = parse_scenario(json.loads(lift.scenario))
            kg = weight_of(setup)
            found += [
                Offered(
                    exercise=lift.exercise, load_kg=kg, side=s.side, reps=s.reps, reserve=s.reserve
                )
                for s in sets.get(lift.id, ())
                if lift.exercise in EXERCISES
            ]
        if found:
            break
    return tuple(found[:most])
