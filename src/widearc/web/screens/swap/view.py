"""Swap: what to do instead, and the decisions that were kept."""

from __future__ import annotations

import csv
import io
from dataclasses import replace
from urllib.parse import urlencode

import numpy as np
from flask import (
    Blueprint,
    current_app,
    jsonify,
    redirect,
    request,
    session,
    url_for,
)
from flask.typing import ResponseReturnValue

from widearc import usecases
from widearc.core.curve import CENTRES_DEG
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.words import Said
from widearc.formats import swap_request_document
from widearc.usecases.room.room import scope
from widearc.usecases.swap.swap import SwapView, candidate_of
from widearc.web.db import connection, held, now, trainer
from widearc.web.download import sent
from widearc.web.drawing.strip import strip_of_points
from widearc.web.forms.loads import refusal
from widearc.web.forms.typed import Texts, back_or
from widearc.web.gate import in_turn
from widearc.web.page import rendered, shown
from widearc.web.screens.swap.page import swap_page
from widearc.web.screens.swap.query import ask_of, field_of, query_of, refusal_of
from widearc.web.words.refused import sentence
from widearc.web.words.words import piece_words

blueprint = Blueprint("swap", __name__)


@blueprint.get("/swap")
@in_turn
def show() -> ResponseReturnValue:
    """Show the ranking for what the address asks, with one candidate drawn."""
    kept = held()
    if not kept.places or not kept.clients:
        return redirect(url_for("home.show"))
    problems = Texts()
    try:
        ask = ask_of(request.args, kept=kept)
    except InputError as error:
        problems[field_of(error.where)] = refusal_of(error)
        ask = ask_of(
            {key: value for key, value in request.args.items() if key in ("client", "place")},
            lenient=True,
            kept=kept,
        )
    view = _viewed(ask, kept, problems)
    session["place"], session["client"] = ask.place_id, ask.client_id
    return shown("swap", swap_page(view, request.args, request.args.get("pick"), problems))


def _viewed(ask: usecases.SwapAsk, kept: usecases.Holdings, problems: Texts) -> SwapView:
    """Return the answer; with the usual set-up where what was typed of it is refused at its
    field.
    """
    memo = current_app.extensions["memo"]
    try:
        return usecases.swap_view(connection(), trainer(), ask, memo, kept)
    except InputError as error:
        if not error.where.startswith(("/options", "/loads")):
            raise
        kinds = [part["kind"] for part in ask.set_up.loads or ()]
        name, words = refusal(error, kinds, EXERCISES[ask.exercise])
        problems[name] = sentence(words)
    usual = replace(ask, set_up=usecases.AS_USUAL)
    return usecases.swap_view(connection(), trainer(), usual, memo, kept)


@blueprint.post("/swap/use")
@in_turn
def use() -> ResponseReturnValue:
    """Keep the decision, then show the list of what was decided."""
    ask = ask_of(request.form)
    usecases.decide(
        connection(),
        trainer(),
        ask,
        request.form.get("pick", ""),
        current_app.extensions["memo"],
        now=now(),
        tweak=request.form.get("tweak", ""),
        ticks=request.form.getlist("tick"),
        asked=urlencode(query_of(ask)),
    )
    return redirect(url_for("swap.kept"))


@blueprint.post("/swap/favourite")
@in_turn
def favourite() -> ResponseReturnValue:
    """Pin a stand-in with a reason, or unpin it."""
    ask, pick = ask_of(request.form), request.form.get("pick", "")
    if request.form.get("action") == "drop":
        usecases.drop_favourite(connection(), trainer(), ask, pick, now=now())
    else:
        try:
            usecases.keep_favourite(
                connection(), trainer(), ask, pick, request.form.get("reason", ""), now=now()
            )
        except usecases.SheetError as error:
            view = usecases.swap_view(connection(), trainer(), ask, current_app.extensions["memo"])
            typed = request.form.get("reason", "")
            page = swap_page(view, request.form, pick, Texts(error.messages), reason_typed=typed)
            return shown("swap", page), 422
    return redirect(back_or(request.form.get("back", ""), url_for("swap.show")))


@blueprint.post("/swap/aside")
@in_turn
def aside() -> ResponseReturnValue:
    """Set what a stand-in uses aside for its client, or free all that the client has."""
    ask = ask_of(request.form)
    if request.form.get("action") == "back":
        usecases.give_back(connection(), trainer(), ask, now=now())
    else:
        memo = current_app.extensions["memo"]
        usecases.set_aside(
            connection(), trainer(), ask, request.form.get("pick", ""), memo, now=now()
        )
    return redirect(back_or(request.form.get("back", ""), url_for("swap.show")))


@blueprint.get("/swap/request.json")
@in_turn
def document() -> ResponseReturnValue:
    """Give what is asked as a file for the command line, which answers it the same."""
    ask = ask_of(request.args)
    view = usecases.swap_view(connection(), trainer(), ask, current_app.extensions["memo"])
    if view.question is None:
        raise InputError(
            "exercise", ask.exercise, view.problem or Said("an exercise that can be computed")
        )
    return jsonify(swap_request_document(view.question, sets=ask.sets, reps=ask.reps))


@blueprint.get("/swap/values.csv")
@in_turn
def values() -> ResponseReturnValue:
    """Send intended and actual demand of the chosen stand-in as CSV, every degree."""
    ask = ask_of(request.args)
    view = usecases.swap_view(connection(), trainer(), ask, current_app.extensions["memo"])
    chosen = candidate_of(view, request.args.get("pick"), request.args.get("tweak", ""))
    if view.ranking is None or chosen is None:
        raise InputError(
            "exercise", ask.exercise, view.problem or Said("one of the stand-ins listed now")
        )
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\n")
    rows.writerow(["action", "angle_deg", "intended_nm", "actual_nm"])
    target = view.ranking.target.at_level_of(chosen.comparison)
    for action, wanted, own in zip(
        target.actions, target.bins, chosen.comparison.bins, strict=True
    ):
        for i in np.flatnonzero((wanted > 0) | (own[0] > 0))[:: action.direction]:
            rows.writerow(
                [action.label, f"{CENTRES_DEG[i]:g}", f"{wanted[i]:.1f}", f"{own[0][i]:.1f}"]
            )
    return sent(out.getvalue(), chosen.exercise.id, "csv")


@blueprint.get("/kept")
def kept() -> ResponseReturnValue:
    """List past decisions, newest first."""
    rows = held().decisions
    change = held().last_change(scope(rows[0].place_id)) if rows else None
    shown = [
        (row, ", ".join(piece_words(row.pieces)) or "body weight only", strip_of_points(row.strip))
        for row in rows
    ]
    return rendered("swap/kept.html", rows=shown, change=change, exercises=EXERCISES)
