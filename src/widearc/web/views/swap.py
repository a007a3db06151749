"""Swap: what to do instead, and the decisions that were kept."""

from __future__ import annotations

import csv
import io
from typing import Any

import numpy as np
from flask import (
    Blueprint,
    Response,
    current_app,
    jsonify,
    redirect,
    render_template,
    request,
    session,
    url_for,
)
from flask.typing import ResponseReturnValue

from widearc import store, usecases
from widearc.core.answers import (
    COLUMNS,
    FILTERS,
    MOST_WEIGHT,
    WhyNot,
    best_pair,
    equal_loads,
    needed,
    needs_pair,
    sorted_by,
    tweaks,
    weighted,
    why_not,
)
from widearc.core.curve import CENTRES_DEG
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.intent import HOLDS, SHAPES
from widearc.core.muscle import NAMES
from widearc.core.search import Candidate, compared_exercises, make_sure
from widearc.formats import swap_request_document
from widearc.usecases.room import scope
from widearc.usecases.swap import SwapView, asks_depth, candidate_of
from widearc.web.charts import strip_of_points
from widearc.web.db import connection, now, trainer
from widearc.web.drawing import drawing_of, main_joint, strip_of
from widearc.web.forms import back_or, number
from widearc.web.onarc import arc_query
from widearc.web.swapask import ask_of, field_of, query_of, refusal_of
from widearc.web.words import load_words, piece_words

blueprint = Blueprint("swap", __name__)
FIELDS = ("exercise", "kg", "depth", "sets", "reps", "client", "place")


@blueprint.get("/swap")
def show() -> ResponseReturnValue:
    """Show the ranking for what the address asks, with one candidate drawn."""
    if not store.places(connection(), trainer()) or not store.clients(connection(), trainer()):
        return render_template("room/empty.html")
    problems: dict[str, str] = {}
    try:
        ask = ask_of(request.args)
    except InputError as error:
        problems[field_of(error.where)] = refusal_of(error)
        ask = ask_of(
            {key: value for key, value in request.args.items() if key in ("client", "place")},
            lenient=True,
        )
    view = usecases.swap_view(connection(), trainer(), ask, current_app.extensions["memo"])
    session["place"], session["client"] = ask.place_id, ask.client_id
    values = _page(view, request.args.get("pick"), problems)
    values |= _asides(view, request.args, values)
    template = "swap/_answer.html" if request.headers.get("X-Part") else "swap/show.html"
    return render_template(template, **values)


@blueprint.post("/swap/use")
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
    )
    return redirect(url_for("swap.kept"))


@blueprint.post("/swap/favourite")
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
            values = _page(view, pick, dict(error.messages))
            values |= _asides(view, request.form, values)
            values["reason_typed"] = request.form.get("reason", "")
            template = "swap/_answer.html" if request.headers.get("X-Part") else "swap/show.html"
            return render_template(template, **values), 422
    return redirect(back_or(request.form.get("back", ""), url_for("swap.show")))


@blueprint.post("/swap/aside")
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
def document() -> ResponseReturnValue:
    """Give what is asked as a file for the command line, which answers it the same."""
    ask = ask_of(request.args)
    view = usecases.swap_view(connection(), trainer(), ask, current_app.extensions["memo"])
    if view.question is None:
        raise InputError(
            "exercise", ask.exercise, view.problem or "an exercise that can be computed"
        )
    return jsonify(swap_request_document(view.question, sets=ask.sets, reps=ask.reps))


@blueprint.get("/swap/values.csv")
def values() -> ResponseReturnValue:
    """Send intended and actual demand of the chosen stand-in as CSV, every degree."""
    ask = ask_of(request.args)
    view = usecases.swap_view(connection(), trainer(), ask, current_app.extensions["memo"])
    chosen = candidate_of(view, request.args.get("pick"), request.args.get("tweak", ""))
    if view.ranking is None or chosen is None:
        raise InputError(
            "exercise", ask.exercise, view.problem or "one of the stand-ins listed now"
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
    headers = {"Content-Disposition": f'attachment; filename="{chosen.exercise.id}.csv"'}
    return Response(out.getvalue(), mimetype="text/csv", headers=headers)


@blueprint.get("/kept")
def kept() -> ResponseReturnValue:
    """List past decisions, newest first."""
    rows = store.decisions(connection(), trainer())
    change = store.last_change(connection(), trainer(), scope(rows[0].place_id)) if rows else None
    shown = [
        (row, ", ".join(piece_words(row.pieces)) or "body weight only", strip_of_points(row.strip))
        for row in rows
    ]
    return render_template("swap/kept.html", rows=shown, change=change, exercises=EXERCISES)


def _page(view: SwapView, pick: str | None, problems: dict[str, str]) -> dict[str, Any]:
    """Return everything the templates place."""
    ask, ranking = view.ask, view.ranking
    query = query_of(ask, view.client.body)
    query |= {name: request.args[name] for name in KEPT_ARGS if request.args.get(name)}
    tweak = request.args.get("tweak", "")
    chosen = candidate_of(view, pick, tweak)
    values: dict[str, Any] = {
        "view": view,
        "query": query,
        "typed": {name: request.args.get(name, query[name]) for name in FIELDS},
        "problems": problems,
        "wantable": usecases.wantable(),
        "shapes": [(s.value, words, HOLDS[s]) for s, words in SHAPES.items()],
        "feel": ask.intent is not None and ask.intent.by_feel,
        "has_level": ranking is None or ranking.target.has_level,
        "shape_words": SHAPES[ask.shape],
        "wanted_name": _wanted_name(view),
        "asks_depth": asks_depth(EXERCISES[ask.exercise]),
        "back": url_for("swap.show", **query, pick=chosen.exercise.id if chosen else None),
        "chosen": chosen,
    }
    if ranking is None:
        return values
    make_sure(ranking.candidates)
    target, wanted = ranking.target, view.wanted
    main = main_joint(target)
    long_end, short_end = target.range_deg(main)
    values |= {
        "rows": [(c, load_words(c), strip_of(target, wanted, c)) for c in ranking.candidates],
        "strip_joint": target.actions[main].joint,
        "strip_ends": (long_end, short_end),
        "drawing": drawing_of(target, wanted, chosen) if chosen else None,
        "chosen_load": load_words(chosen) if chosen else "",
        "known": _known(view, chosen) if chosen else "",
        "client_notes": usecases.client_notes(view, chosen) if chosen else (),
        "elsewhere": usecases.elsewhere(connection(), trainer(), view),
        "on_arc": arc_query(chosen, view.client.id) if chosen else None,
        "packed": view.room.place.crowding == "packed",
        "notices": [n.text for n in chosen.curve.motion.notices if n.where[0]] if chosen else [],
        "assumptions": chosen.curve.motion.assumptions if chosen else [],
    }
    return values


def _weights(source: Any) -> dict[str, float]:
    """Return the typed weights of columns, those over 0; InputError names the field."""
    found = {}
    for name in WEIGHED:
        value = number(source, f"w-{name}", 0.0, what=f"a weight from 0 to {MOST_WEIGHT:g}")
        if not 0 <= value <= MOST_WEIGHT:
            raise InputError(
                f"w-{name}", source.get(f"w-{name}"), f"a weight from 0 to {MOST_WEIGHT:g}"
            )
        if value > 0:
            found[name] = value
    return found


def _asides(view: SwapView, source: Any, page: dict[str, Any]) -> dict[str, Any]:
    """Return what stands beside the ranking: sorted and filtered rows, tweaks, what changes,
    questions turned round.
    """
    if view.ranking is None or view.question is None:
        return {}
    asked = {
        "why": _why(view, source.get("why", "")),
        "whys": [(e.id, e.name) for e in compared_exercises()],
    }
    if page.get("chosen") is None:
        return asked
    problems, chosen = page["problems"], page["chosen"]
    columns = usecases.columns_of(view)
    weights: dict[str, float] = {}
    muscle: dict[str, float] = {}
    by = source.get("sort", "match")
    group = source.get("muscle", "")
    try:
        weights = _weights(source)
        if group:
            muscle = usecases.muscle_column(view, group)
    except InputError as error:
        problems[error.where] = refusal_of(error)
    ordered = sorted_by(
        view.ranking.candidates, columns, by if by in COLUMNS or by == "sum" else "match", weights
    )
    if muscle:
        ordered = sorted(ordered, key=lambda c: -round(100 * muscle[c.exercise.id]))
    pinned = [c for c in ordered if c.exercise.id in view.favourites]
    ordered = pinned + [c for c in ordered if c.exercise.id not in view.favourites]
    only = {name for name in FILTERS if source.get(f"only-{name}") == "1"}
    shown = [c for c in ordered if columns[c.exercise.id].passes(only)]
    drawn = {c.exercise.id: (c, load, small) for c, load, small in page["rows"]}
    plain = candidate_of(view, chosen.exercise.id)
    values: dict[str, Any] = {
        "rows": [drawn[c.exercise.id] for c in shown],
        "filtered": len(ordered) - len(shown),
        "only": only,
        "columns": columns,
        "column_words": COLUMNS,
        "sort": by,
        "weighed": WEIGHED,
        "weights": {name: source.get(f"w-{name}", "") for name in WEIGHED},
        "sums": {i: weighted(d[0].match, columns[i], weights) for i, d in drawn.items()}
        if weights
        else {},
        "muscle": group,
        "muscles": muscle,
        "muscle_names": NAMES,
        "tweaks": tweaks(plain, view.question) if plain is not None else (),
        "tweak": source.get("tweak", "") if chosen is not plain else "",
        "style_words": "" if chosen.style.kind.value == "plain" else chosen.style.sentence,
        "checks": usecases.set_up_checks(chosen, view),
        "changes": usecases.changes(chosen, view.wanted, columns[chosen.exercise.id]),
        "kinder": {
            joint: [(k, load_words(k.candidate)) for k in ways]
            for joint, ways in usecases.kinder_ways(view, chosen).items()
        },
        "reps_words": usecases.reps_of(connection(), trainer(), view, chosen),
        "favourites": view.favourites,
        "pieces": chosen.pieces,
        **asked,
        "pair_offered": needs_pair(view.ranking.candidates[0], view.question),
        "mine_aside": sum(1 for client in view.aside.values() if client == view.client.id),
    }
    if source.get("pair") == "1":
        values["pair"] = best_pair(view.question)
        values["pair_asked"] = True
    return values | _turned(view, chosen, source, problems)


def _why(view: SwapView, exercise_id: str) -> WhyNot | None:
    if exercise_id not in EXERCISES or view.ranking is None or view.question is None:
        return None
    return why_not(EXERCISES[exercise_id], view.ranking, view.question)


def _turned(
    view: SwapView, chosen: Candidate, source: Any, problems: dict[str, str]
) -> dict[str, Any]:
    """Return the answers to the question turned round, when it is asked."""
    values: dict[str, Any] = {
        "turn_at": source.get("at", ""),
        "turn_least": source.get("least", ""),
    }
    if view.question is None or not ("at" in source or "least" in source):
        return values
    try:
        at = number(source, "at", 0.0, what="degrees") if source.get("at", "").strip() else None
        values["equal"] = equal_loads(chosen, view.question, at)
    except InputError as error:
        problems["at"] = refusal_of(error)
    try:
        if source.get("least", "").strip():
            least = number(source, "least", 0.0, what="percent, from 1 to 100") / 100.0
            values["needed"] = needed(chosen, view.question, least)
    except InputError as error:
        problems["least"] = refusal_of(error)
    return values


KEPT_ARGS = (
    "sort",
    "muscle",
    "only-alone",
    "only-spine",
    "only-quick",
    "only-step",
    "w-steady",
    "w-alone",
    "w-minutes",
    "w-step",
    "w-spine",
    "w-long",
)
WEIGHED = ("long", "steady", "alone", "minutes", "step", "spine")


def _known(view: SwapView, chosen: Candidate) -> str:
    """Return how what the set-up uses is known: measured, described or assumed, with the names."""
    used = {*chosen.row.items(), *(piece.item for piece in chosen.pieces)}
    badges: dict[str, list[str]] = {}
    for item in view.room.items:
        if item.key in used:
            badges.setdefault(view.room.badges[item.id], []).append(item.name.lower())
    return "; ".join(
        f"{badge}: {', '.join(names)}" for badge, names in sorted(badges.items(), reverse=True)
    )


def _wanted_name(view: SwapView) -> str:
    if view.ask.intent is not None:
        return usecases.intent_words(view.ask.intent)
    item = EXERCISES[view.ask.exercise]
    if item.family == "sled press" and view.press is not None:
        return f"{item.name.lower()} {view.press.rail_deg:.0f}°"
    return item.name.lower()
