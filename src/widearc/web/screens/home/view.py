"""Home: what is going on now, and the one next thing to do; an empty one begins from here."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date

from flask import Blueprint, redirect, request, session, url_for
from flask.typing import ResponseReturnValue

from widearc import store, usecases
from widearc.core.coverage import WEEKDAYS
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.words import Said
from widearc.demo import load_demo, load_record, load_weeks
from widearc.usecases import floor
from widearc.usecases.home.home import Home, home_view
from widearc.usecases.room.line import STARTS
from widearc.web.db import connection, held, now, trainer
from widearc.web.drawing.areas import Areas
from widearc.web.drawing.strip import strip_alone
from widearc.web.forms.typed import Texts, known_id
from widearc.web.page import rendered
from widearc.web.screens.week.drawn import drawn
from widearc.web.words.words import piece_words
from widearc.words import tr

blueprint = Blueprint("home", __name__)


@blueprint.get("/")
def show() -> ResponseReturnValue:
    """Show what is going on now, or what to do first."""
    return _page({}, {}), 200


def _page(typed: Mapping[str, str], messages: Mapping[str, str]) -> str:
    place = _present("place", [p.id for p in held().places])
    client = _present("client", [c.id for c in held().clients])
    today = date.fromisoformat(now()[:10])
    view = home_view(connection(), trainer(), place, client, today=today)
    part = request.headers.get("X-Part")
    return rendered(
        "home/_answer.html" if part else "home/show.html",
        view=view,
        places=held().places,
        clients=held().clients,
        weekdays=WEEKDAYS,
        exercises=EXERCISES,
        piece_words=piece_words,
        starts=[(id_, words) for id_, (words, _) in STARTS.items()],
        typed=Texts(typed),
        messages=Texts(messages),
        strips=_strips(view),
        change=held().last_change("places"),
    )


def _strips(view: Home) -> dict[int, Areas | None]:
    """Return the strips of the lifts that are next, by the id of the lift or slot."""
    if view.step == "session":
        return {p.lift.id: strip_alone(floor.strip_of(p.lift)) for p in view.going[0].lifts}
    if view.step == "day":
        return {slot.id: drawn(slot)[1] for slot in view.due[0][1].slots}
    return {}


def _present(name: str, known: list[int]) -> int | None:
    """Return the place or client that the address names, else the one of the last visit."""
    found = known_id(request.args.get(name, ""), known)
    if found is not None:
        session[name] = found
    return found or known_id(str(session.get(name, "")), known)


@blueprint.post("/begin")
def begin() -> ResponseReturnValue:
    """Make the first place, and go on to what is in it; or the first client, and go on to Swap."""
    form = request.form
    if form.get("what") == "client":
        return _begin_client(form.get("name", ""))
    start = form.get("start", "")
    name = form.get("name", "").strip() or (tr(STARTS[start][0]) if start in STARTS else "")
    try:
        made = usecases.new_place(connection(), trainer(), store.PlaceFacts(name=name), now=now())
    except usecases.SheetError as error:
        return _page(form, error.messages), 422
    session["place"] = made
    text = form.get("text", "").strip()
    kept = {"start": start} if start in STARTS else {"text": text} if text else {}
    return redirect(url_for("line.show", place_id=made, **kept))  # type: ignore[arg-type]


def _begin_client(name: str) -> ResponseReturnValue:
    try:
        facts = store.ClientFacts(name=name.strip())
        session["client"] = usecases.new_client(connection(), trainer(), facts, now=now())
    except usecases.SheetError as error:
        return _page(request.form, error.messages), 422
    return redirect(url_for("swap.show"))


@blueprint.post("/demo")
def demo() -> ResponseReturnValue:
    """Fill an empty database with the demo's places, clients and weeks."""
    if held().places or held().clients:
        raise InputError(
            "demo", "what is here", Said("an empty start: nothing is mixed with yours")
        )
    for load in (load_demo, load_record, load_weeks):
        load(connection(), now=now())
    return redirect(url_for("home.show"))
