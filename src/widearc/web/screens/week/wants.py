"""What a slot says that is wanted: asked of Swap for its day's place, and in words."""

from __future__ import annotations

from collections.abc import Mapping
from urllib.parse import parse_qsl, urlencode

from widearc import store
from widearc.core.body import Body
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.words import Said
from widearc.usecases.intent.intents import intent_words
from widearc.usecases.swap.wanted import SwapAsk
from widearc.usecases.week import plans
from widearc.web.db import connection, held, trainer
from widearc.web.screens.intent.query import address, intent_of
from widearc.web.screens.swap.query import ask_of
from widearc.words import say, tr


def ask_at(day: store.DayRow, asked: Mapping[str, str]) -> SwapAsk:
    """Return what is asked, for a day's place and its week's client."""
    week = plans.week_row(connection(), trainer(), day.week_id)
    client = week.client_id or held().clients[0].id
    return ask_of({**asked, "client": str(client), "place": str(day.place_id)}, lenient=True)


def wanted_by(intent_id: int) -> dict[str, str]:
    """Return a kept intent as an address; InputError where there is none."""
    found = next((row.intent for row in held().intents if row.id == intent_id), None)
    if found is None:
        raise InputError("exercise", intent_id, Said("a kept intent"))
    return {"want": address(found, Body())}


def as_asked(wanted: Mapping[str, str]) -> str:
    """Return what is wanted as a slot keeps it."""
    return urlencode(wanted)


def asked_of(row: store.SlotRow) -> dict[str, str]:
    """Return what a slot stands in for, as an address; empty where it is the lift itself."""
    return dict(parse_qsl(row.asked))


def words_of(row: store.SlotRow) -> str:
    """Return what a slot stands in for: a kept intent's name, an intent in words, or a lift."""
    asked = asked_of(row)
    if "want" in asked:
        for kept in held().intents:
            if address(kept.intent, Body()) == asked["want"]:
                return kept.name
        intent = intent_of(asked["want"], Body())
        return "" if intent is None else say(intent_words(intent))
    lift = asked.get("exercise", row.exercise)
    return tr(EXERCISES[lift].name).lower() if lift in EXERCISES and lift != row.exercise else ""
