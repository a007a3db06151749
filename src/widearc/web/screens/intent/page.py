"""What Intent's page shows: the loading that is wanted, and the kept ones."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any
from urllib.parse import parse_qsl

from flask import request, url_for

from widearc import store, usecases
from widearc.core.body import Body
from widearc.core.dose import StyleKind
from widearc.core.intent import HOLDS, SHAPES, Intent, Shape
from widearc.web.db import held
from widearc.web.drawing import intent as drawing
from widearc.web.forms.typed import Texts
from widearc.web.screens.intent.query import ASKS, LONGEST, Read, address, read

STYLES = [k.value for k in StyleKind]
MOST_SCALE = 2000


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class IntentPage:
    """Intent's page: what is typed always; ribbons and words where it is an intent."""

    found: Read
    typed: Texts
    problems: Texts
    actions: Sequence[Any]
    shapes: Sequence[tuple[str, str]]
    holds: Texts
    styles: Sequence[tuple[str, str]]
    asks: Sequence[Any]
    kept: Sequence[Any]
    change: store.Change | None
    here: str
    keep_name: str
    messages: Texts
    told: str
    handles: Sequence[int] = range(5)
    fans: Sequence[drawing.Fan] = ()
    quarters: Sequence[Any] = ()
    dose_words: str = ""
    words: str = ""
    table: Sequence[Any] = ()


def _asks(style: str) -> Any:
    """Return what a rep style asks for beside its name."""
    return ASKS.get(StyleKind(style), ()) if style in STYLES else ASKS.get(StyleKind.PLAIN, ())


def intent_page(
    body: Body, name: str = "", messages: Mapping[str, str] | None = None
) -> IntentPage:
    """Return the page of the address, or of a form that was sent with messages at its fields."""
    asked = request.method == "GET"
    kept_query = dict(parse_qsl(request.form.get("query", "")[:LONGEST]))
    found = read(request.args if asked else kept_query, body)
    return IntentPage(
        found=found,
        typed=Texts(found.typed),
        problems=Texts(found.problems),
        actions=drawing.action_choices(),
        shapes=[(s.value, SHAPES[s]) for s in Shape if s is not Shape.ORIGINAL],
        holds=Texts({s.value: HOLDS[s] for s in Shape}),
        styles=[(k.value, k.words) for k in StyleKind if k is not StyleKind.BURN_OUT],
        asks=_asks(found.typed.get("style", "plain")),
        kept=_kept(body),
        change=held().last_change(usecases.INTENTS),
        here=request.full_path.rstrip("?") if asked else url_for("intent.show"),
        keep_name=name,
        messages=Texts(messages or {}),
        told=request.args.get("told", "")[:200],
        **(_drawn(found.intent, body) if found.intent else {}),
    )


def _drawn(intent: Intent, body: Body) -> dict[str, Any]:
    scale = request.headers.get("X-Scale", "")
    keep_scale = (
        float(scale)
        if scale.isascii() and scale.isdecimal() and 0 < int(scale) <= MOST_SCALE
        else None
    )
    return {
        "fans": drawing.fans(intent, body, keep_scale),
        "quarters": drawing.quarters(intent, body),
        "dose_words": drawing.dose_words(intent),
        "words": usecases.intent_words(intent),
        "table": drawing.table(intent, body),
    }


def _kept(body: Body) -> list[Any]:
    return [
        (
            row,
            address(row.intent, body),
            usecases.intent_words(row.intent),
            drawing.strip_of_intent(row.intent, body),
        )
        for row in held().intents
    ]
