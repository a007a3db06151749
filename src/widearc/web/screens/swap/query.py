"""What an address or form of the Swap page asks, and the address that asks it again."""

from __future__ import annotations

from typing import Any

from flask import session

from widearc import usecases
from widearc.core.body import Body
from widearc.core.errors import InputError, one_of
from widearc.core.exercises import exercise_of
from widearc.core.intent import Intent, Shape
from widearc.core.words import Name, Said
from widearc.store.errors import MissingError
from widearc.usecases.client.client import GOAL_SETS
from widearc.usecases.swap.usual import usual_kg
from widearc.usecases.swap.wanted import AS_USUAL, SwapAsk, depths_of
from widearc.web.db import held
from widearc.web.forms.metric import in_metric
from widearc.web.forms.typed import integer, number
from widearc.web.screens.intent.query import address, intent_of
from widearc.web.screens.swap.asking import set_up_of
from widearc.web.words.refused import not_used
from widearc.words import tr


def ask_of(source: Any, *, lenient: bool = False, kept: usecases.Holdings | None = None) -> SwapAsk:
    """Return what is asked from an address or form; missing parts come from the last visit or the
    start values.
    """
    kept = kept or held()
    places = [p.id for p in kept.places]
    goals = {c.id: c.goal for c in kept.clients}
    clients = list(goals)
    try:
        place = integer(source, "place", _last("place", places), what=tr("a place of the list"))
        client = integer(
            source, "client", _last("client", clients), what=tr("a client of the list")
        )
    except InputError:
        if not lenient:
            raise
        place, client = _last("place", places), _last("client", clients)
    intent = _intent(source.get("want", ""), client)
    sets, reps = GOAL_SETS.get(goals.get(client) or "muscle", (3, 10))
    name = source.get("exercise", SwapAsk.__dataclass_fields__["exercise"].default)
    entry = exercise_of(name, "exercise")
    source = in_metric(source, entry)
    given = dict(source.items())
    if "for" in source and source.get("for") != name:
        # what was asked before was another exercise's: its load says nothing of this one's
        given.pop("kg", None)
        low, high = depths_of(entry)
        if not low <= number(given, "depth", 95.0, what="") <= high:
            given.pop("depth", None)
    body = next((c.body for c in kept.clients if c.id == client), Body())
    return SwapAsk(
        place_id=place,
        client_id=client,
        exercise=name,
        kg=number(given, "kg", usual_kg(entry), what=tr("kilograms, from 0 to 500")),
        set_up=AS_USUAL if lenient else set_up_of(source, entry, body, kept),
        depth_deg=number(given, "depth", 95.0, what=tr("degrees of knee bend, from 30 to 140")),
        sets=intent.sets
        if intent
        else integer(source, "sets", sets, what=tr("a whole number of sets, from 1 to 20")),
        reps=intent.reps
        if intent
        else integer(source, "reps", reps, what=tr("a whole number of reps, from 1 to 100")),
        show_all=source.get("all") == "1",
        sore_last=source.get("sore") != "any",
        by_dose=source.get("dose") == "1",
        shape=_shape(source.get("shape", Shape.ORIGINAL.value)),
        intent=intent,
    )


def _intent(want: str, client_id: int) -> Intent | None:
    if not want:
        return None
    who = next((c for c in held().clients if c.id == client_id), None)
    return intent_of(want, who.body if who is not None else Body())


def _shape(text: str) -> Shape:
    try:
        return Shape(text)
    except ValueError:
        raise InputError("shape", text, one_of(s.value for s in Shape)) from None


def _last(name: str, known: list[int]) -> int:
    if not known:
        raise MissingError(Said("there is no {name} yet: add one first", name=Name(str(name))))
    last = session.get(name)
    return last if last in known else known[0]


def query_of(ask: SwapAsk, body: Body | None = None) -> dict[str, Any]:
    """Return what is asked as the parts of an address."""
    query: dict[str, Any] = {
        "exercise": ask.exercise,
        "kg": f"{ask.kg:g}",
        "depth": f"{ask.depth_deg:g}",
        "sets": ask.sets,
        "reps": ask.reps,
        "client": ask.client_id,
        "place": ask.place_id,
    }
    if ask.set_up.typed:
        query |= {"for": ask.exercise, **ask.set_up.typed}
    if ask.show_all:
        query["all"] = "1"
    if ask.by_dose:
        query["dose"] = "1"
    if not ask.sore_last:
        query["sore"] = "any"
    if ask.shape is not Shape.ORIGINAL:
        query["shape"] = ask.shape.value
    if ask.intent is not None:
        want = address(ask.intent, body or Body())
        query |= {"want": want, "sets": ask.intent.sets, "reps": ask.intent.reps}
    return query


def field_of(where: str) -> str:
    """Return the field of the page that a refusal belongs to."""
    return {"depth_deg": "depth", "place_id": "place", "client_id": "client"}.get(where, where)


def refusal_of(error: InputError) -> str:
    """Return a refusal as a sentence that says what was typed."""
    return not_used(error)
