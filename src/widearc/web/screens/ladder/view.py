"""Ladder: the rungs of a client's lift in a place, where it stands, the next step and why."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from typing import Any
from urllib.parse import parse_qsl, urlencode

from flask import Blueprint, Response, current_app, redirect, request, session, url_for
from flask.typing import ResponseReturnValue

from widearc import usecases
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.progression.aims import ACTS, EVENT_WORDS
from widearc.core.progression.rules import RULE_WORDS
from widearc.core.words import Said
from widearc.formats.ladder import ladder_document, ladder_request_document
from widearc.store import OwnRuleRow, RuleRow
from widearc.usecases import floor, ladder
from widearc.usecases.ladder import LadderAsk, LadderView
from widearc.web.db import connection, held, now, trainer
from widearc.web.drawing.ladder import ladder_drawing
from widearc.web.forms.typed import Texts, address_part, back_or, integer, known_id, number
from widearc.web.gate import in_turn
from widearc.web.page import rendered
from widearc.web.screens.arc.query import asked
from widearc.web.units import by_feel as by_feel_on
from widearc.web.words.refused import not_used, sentence
from widearc.web.words.rungs import (
    effort_words,
    lighter_words,
    rung_by_feel,
    rung_words,
    turn_words,
)
from widearc.web.words.words import piece_words
from widearc.words import tr

blueprint = Blueprint("ladder", __name__, url_prefix="/ladder")


@blueprint.get("/")
@in_turn
def show() -> ResponseReturnValue:
    """Show the ladder of the lift of the address: of the record, a kept decision, an exercise, or a
    set-up of Arc.
    """
    if not held().places or not held().clients:
        return redirect(url_for("home.show"))
    return _page(_ask(request.args))


def _ask(source: Mapping[str, str]) -> LadderAsk:
    """Return what an address asks; who and where are remembered."""
    what = tr("a whole number")
    clients, places = [c.id for c in held().clients], [p.id for p in held().places]
    if not clients or not places:
        raise InputError("client", source.get("client"), Said("a client of the list"))
    client = known_id(source.get("client") or str(session.get("client", "")), clients)
    client = client or clients[0]
    exercise = source.get("exercise", "")[:60]
    known = exercise if exercise in EXERCISES else ""
    place = known_id(source.get("place", ""), places) or _place_of(client, known, places)
    session["client"], session["place"] = client, place
    return LadderAsk(
        client_id=client,
        place_id=place,
        exercise=known,
        lift_id=integer(source, "lift", 0, what=what),
        decision_id=integer(source, "decision", 0, what=what),
    )


def _place_of(client_id: int, exercise: str, places: list[int]) -> int:
    """Return where a client did an exercise last, else the place that was looked at last."""
    last = ladder.place_of(connection(), trainer(), client_id, exercise)
    return last or known_id(str(session.get("place", "")), places) or places[0]


def _set_up(source: Mapping[str, str]) -> floor.LiftFacts | None:
    """Return the set-up of Arc that an address carries, None without one."""
    arc = address_part(source, "arc")
    if not arc:
        return None
    ask = asked(dict(parse_qsl(arc)), doubt=False)
    if ask.found is None or ask.found.curve is None:
        raise InputError("arc", ask.entry.id, Said("an exercise that is set up"))
    setup = ask.found.curve.setup
    return floor.LiftFacts(setup=setup, said=ask.kept_value, reps=ask.entry.reps[1])


def _view(source: Mapping[str, str]) -> LadderView:
    return ladder.ladder_view(
        connection(),
        trainer(),
        _ask(source),
        current_app.extensions["memo"],
        today=date.fromisoformat(now()[:10]),
        setup=_set_up(source),
    )


def _query(source: Mapping[str, str], ask: LadderAsk) -> dict[str, Any]:
    """Return the parts of an address of this page."""
    query: dict[str, Any] = {"client": str(ask.client_id), "place": str(ask.place_id)}
    query |= {"exercise": ask.exercise} if ask.exercise else {}
    query |= {"lift": str(ask.lift_id)} if ask.lift_id else {}
    query |= {"decision": str(ask.decision_id)} if ask.decision_id else {}
    return query | ({"arc": source["arc"]} if source.get("arc") else {})


def _page(ask: LadderAsk, messages: Mapping[str, str] | None = None) -> str:
    source = request.args if request.method == "GET" else request.form
    view = _view(source)
    query = _query(source, view.ask)
    found = view.answer
    drawing = None if found is None else ladder_drawing(found.ladder)
    change = held().last_change(ladder.scope(view.client.id))
    template = "ladder/_answer.html" if request.headers.get("X-Part") else "ladder/show.html"
    return rendered(
        template,
        view=view,
        found=found,
        drawing=drawing,
        aim=None if view.question is None else view.question.aim,
        clients=held().clients,
        places=held().places,
        exercises=EXERCISES,
        query=query,
        here=url_for("ladder.show", **query),
        feel=by_feel_on(),
        rules=RULE_WORDS,
        acts=ACTS,
        events=EVENT_WORDS,
        rung_words=rung_words,
        beside=rung_by_feel,
        effort=effort_words,
        sentence=sentence,
        lighter=lighter_words,
        turns=turn_words,
        piece_words=piece_words,
        messages=Texts(messages or {}),
        typed=Texts(request.form if request.method == "POST" else {}),
        change=change,
    )


@blueprint.get("/request.json")
@in_turn
def request_file() -> ResponseReturnValue:
    """Send what is asked as a file that `wide-arc ladder` reads."""
    view = _view(request.args)
    if view.question is None:
        raise InputError("ladder", "this lift", Said("a lift with a ladder here"))
    return _file(ladder_request_document(view.question), "ladder-request.json")


@blueprint.get("/answer.json")
@in_turn
def answer_file() -> ResponseReturnValue:
    """Send the answer as a file, as `wide-arc ladder` gives it."""
    view = _view(request.args)
    if view.answer is None:
        raise InputError("ladder", "this lift", Said("a lift with a ladder here"))
    return _file(ladder_document(view.answer, 0.0), "ladder.json")


def _file(document: object, name: str) -> Response:
    text = current_app.json.dumps(document)
    headers = {"Content-Disposition": f"attachment; filename={name}"}
    return Response(text, mimetype="application/json", headers=headers)


@blueprint.post("/agree")
def agree() -> ResponseReturnValue:
    """Put a rung on the client's session."""
    view = _view(request.form)
    what = tr("a whole number")
    rung = integer(request.form, "rung", -1, what=what)
    reps = integer(request.form, "reps", 10, what=what)
    sets = integer(request.form, "sets", 3, what=what)
    made, lift = ladder.agree(connection(), trainer(), view, rung, reps, sets, now=now())
    return redirect(url_for("floor.show", session_id=made, lift=lift))


@blueprint.post("/rule")
@in_turn
def choose() -> ResponseReturnValue:
    """Keep by which rule the lift goes on."""
    form, what = request.form, tr("a number")
    view = _view(form)
    if view.exercise is None:
        raise InputError("exercise", "", Said("an exercise of the catalogue"))
    try:
        row = RuleRow(
            client_id=view.client.id,
            exercise=view.exercise.id,
            rule=form.get("rule", ""),
            sets=integer(form, "sets", 3, what=what),
            low=integer(form, "low", 8, what=what),
            high=integer(form, "high", 12, what=what),
            percent=number(form, "percent", 2.5, what=what) / 100.0,
            weeks=integer(form, "weeks", 4, what=what),
            deload=number(form, "deload", 60.0, what=what) / 100.0,
        )
        ladder.choose_rule(connection(), trainer(), row, now=now())
    except InputError as error:
        return _page(view.ask, {error.where: not_used(error)}), 422
    return redirect(_back())


@blueprint.post("/own")
@in_turn
def own() -> ResponseReturnValue:
    """Keep what the trainer does where practice leaves it open."""
    form = request.form
    view = _view(form)
    try:
        row = OwnRuleRow(
            event=form.get("event", ""),
            act=form.get("act", ""),
            share=number(form, "share", 90.0, what=tr("a number")) / 100.0,
            reason=form.get("reason", "").strip(),
        )
        ladder.keep_own_rule(connection(), trainer(), view.client.id, row, now=now())
    except InputError as error:
        return _page(view.ask, {error.where: not_used(error)}), 422
    return redirect(_back())


@blueprint.post("/by-feel")
def by_feel() -> ResponseReturnValue:
    """Read Swap, Floor and Ladder with numbers or without, and go back to the page."""
    usecases.set_by_feel(connection(), trainer(), on=request.form.get("choose") == "feel")
    return redirect(back_or(request.form.get("back", ""), url_for("ladder.show")))


def _back() -> str:
    parts = {
        k: request.form[k]
        for k in ("client", "place", "exercise", "lift", "decision", "arc")
        if request.form.get(k)
    }
    return url_for("ladder.show") + ("?" + urlencode(parts) if parts else "")
