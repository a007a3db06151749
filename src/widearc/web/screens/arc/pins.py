"""Pinned set-ups, and how a curve differs from the first of them."""

from __future__ import annotations

from collections.abc import Mapping
from urllib.parse import parse_qsl

from flask import session

from widearc import usecases
from widearc.core.errors import InputError
from widearc.core.statics import Curve
from widearc.core.strength import Scale
from widearc.core.words import Count, Name, Term
from widearc.web.db import connection, trainer
from widearc.web.drawing import overlay
from widearc.web.screens.arc.query import Asked, asked
from widearc.words import tell

MOST_PINS = 5
LETTERS = "ABCDE"


def pinned() -> list[str]:
    """Return the pinned addresses of this visitor, as queries."""
    kept = session.get("pins", [])
    return [pin for pin in kept if isinstance(pin, str)][:MOST_PINS]


def first_pin() -> Asked | None:
    """Return what pin A asks, None without a pin or where it has no curve."""
    pins = pinned()
    if not pins:
        return None
    try:
        first = asked(dict(parse_qsl(pins[0])), doubt=False)
    except InputError:
        return None
    return (
        None
        if first.found is None or first.found.curve is None or not first.found.curve.demand_nm
        else first
    )


def against(first: Asked | None, curve: Curve, known: Mapping[str, Scale]) -> str:
    """Return how a curve differs from pin A, in sentences: demand, effort, reps of equal effort;
    empty without one.
    """
    if first is None or first.found is None or first.found.curve is None or not curve.demand_nm:
        return ""
    other = first.found.curve
    words = overlay.against(other, curve)
    if not words:
        return ""
    effort = usecases.effort_words(other, curve)
    reps = usecases.equal_reps(other, curve, known, first.entry.reps[1])
    said = [tell("Against A, {first}: {words}", first=first.words, words=words)]
    if effort:
        said.append(tell("{sentence}.", sentence=effort.beginning()))
    if known:
        said.append(tell("{sentence}.", sentence=reps.words.beginning()))
    return " ".join(said)


def felt_words(ask: Asked) -> str:
    """Return where a pinned set-up is computed to be hardest and where its client felt it, in a
    sentence.
    """
    assert ask.found is not None and ask.found.curve is not None
    if ask.client is None:
        return ""
    found = usecases.felt_of(connection(), trainer(), ask.client.id, ask.found.curve)
    said = [r for r in found.said if r.words == ask.kept_words[:300]]
    words = tell(
        "Computed hardest {computed}; felt hardest {felt} by the {who}."
        if said
        else "Computed hardest {computed}; not rated yet by the {who}.",
        computed=Term(usecases.WHERE[found.computed]),
        felt=Term(usecases.WHERE[said[-1].felt]) if said else Name(""),
        who=Name(ask.client.name, lower=True),
    )
    if not found.again:
        return words
    return tell(
        "{words} Apart {times} times: {again}.",
        words=words,
        times=Count(found.apart),
        again=found.again,
    )
