"""Arc: one exercise as set up: figure, line of force, curves per joint, and its card."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from itertools import groupby
from typing import Any
from urllib.parse import parse_qsl

from flask import Blueprint, Response, jsonify, redirect, render_template, request, session, url_for
from flask.typing import ResponseReturnValue

from widearc import store, usecases
from widearc.core.body import PORTS
from widearc.core.catalogue import EXERCISES
from widearc.core.errors import InputError
from widearc.core.muscle import sentences
from widearc.core.statics import Curve, grip_n
from widearc.core.units import G
from widearc.formats import curve_document
from widearc.usecases.arc import Arc
from widearc.web import arcform, arcplot, muscleplot, overlay
from widearc.web.asked import asked
from widearc.web.db import connection, now, trainer
from widearc.web.errors import sentence
from widearc.web.figure import figure
from widearc.web.forms import back_or, integer
from widearc.web.words import MINUS, whole

blueprint = Blueprint("arc", __name__, url_prefix="/arc")
FIGURE = (430.0, 446.0, 300.0)
FAMILY_WORDS = {
    "stance": "Squats", "supported stance": "Squats with a support", "hinge": "Hinges", "split": "Split and one leg",
    "sled press": "Presses", "sled squat": "Squat machines", "arc squat": "Squat machines", "kneeling": "Kneeling",
    "knee rotation": "Extensions and curls", "plank knee bend": "Kneeling", "bridge": "Bridges",
    "hip rotation trunk": "Back extensions", "hip rotation leg": "Leg swings", "thigh spread": "Thighs apart",
    "calf": "Calves", "carriage": "Sprung carriage", "plain path": "Handle only", "mobility": "Mobility, no curve",
}  # fmt: skip


@blueprint.get("/")
def show() -> ResponseReturnValue:
    """Show an exercise with the options, loads and tempo of the address."""
    ask = asked(request.args)
    entry, found = ask.entry, ask.found
    if ask.client is not None:
        session["client"] = ask.client.id
    values: dict[str, Any] = {
        "entry": entry,
        "groups": _groups(),
        "clients": ask.clients,
        "client": ask.client,
        "fields": ask.fields,
        "loads": arcform.load_rows(ask.loads, entry, ask.laws, {p: PORTS[p].label for p in PORTS}),
        "kinds": arcform.kinds_for(entry),
        "problems": ask.problems,
        "pins": _pins(),
        "set_typed": {"reps": "8", "reserve": "2", "side": "both", "formula": "epley"},
        "set_problems": {},
        "typed": {name: request.args.get(name, "") for name in ("lift", "lower")},
        "found": found,
        "card": usecases.card(connection(), trainer(), entry),
        "section_words": usecases.SECTION_WORDS,
        "card_change": store.last_change(connection(), trainer(), usecases.card_scope(entry.id)),
        "here": request.full_path.rstrip("?"),
        "query": request.query_string.decode(),
    }
    if found is not None and found.curve is not None:
        known = usecases.strength_of(connection(), trainer(), ask.client.id) if ask.client is not None else {}
        values |= _drawn(found, usecases.efforts(found.curve, known))
        values["against"] = _against_first_pin(found.curve)
    template = "arc/_answer.html" if request.headers.get("X-Part") else "arc/show.html"
    return render_template(template, **values)


def _drawn(found: Arc, efforts: tuple[usecases.Effort, ...]) -> dict[str, Any]:
    """Return figure, plots, script and words of a curve."""
    curve = found.curve
    assert curve is not None
    drawn = arcplot.curves(curve, found.fast, found.error_nm, efforts)
    width, height, most = FIGURE
    lines = [plot.joint for plot in drawn.plots if plot.joint in curve.demand_nm]
    picture = (
        figure(
            curve,
            width=width,
            height=height,
            most_px=most,
            lines=lines,
            arcs=curve.setup.exercise.family != "thigh spread",
        )
        if curve.motion.points
        else None
    )
    use = usecases.muscles(curve)
    return {
        "efforts": efforts,
        "muscles": muscleplot.rows(use) if use is not None else (),
        "muscle_words": sentences(use) if use is not None else (),
        "curves": drawn,
        "figure": picture,
        "lines": lines,
        "width": width,
        "height": height,
        "script": {
            "joints": drawn.script,
            "frames": picture.frames if picture else {},
            "n": len(curve.motion.position),
            "tempo": [found.tempo.lifting_s, found.tempo.lowering_s] if found.tempo else [2.0, 2.0],
        },
        "path_words": arcplot.path_words(curve),
        "posture_words": arcplot.posture_words(curve),
        "hand_words": _hand_words(curve),
        "tempo_words": arcplot.tempo_words(found.tempo, found.fast, curve),
        "notices": [n.text for n in curve.motion.notices if n.where[0]],
        "assumptions": curve.motion.assumptions,
        "balances": bool(usecases.balances(curve)),
        "joint_names": arcplot.NAMES,
    }


def _hand_words(curve: Curve) -> str:
    """Return what one hand holds at most, in kg; empty where the hands are free."""
    force = grip_n(curve.setup, curve.motion)
    return "" if force is None else f"each hand holds up to {whole(float(force[0].max()) / G)} kg"


def _groups() -> list[tuple[str, list[tuple[str, str]]]]:
    """Return the catalogue by kind of movement, in the order of the families."""
    order = list(dict.fromkeys(FAMILY_WORDS.values()))
    listed = sorted(EXERCISES.values(), key=lambda e: (order.index(FAMILY_WORDS[e.family]), e.name))
    return [
        (words, [(e.id, e.name) for e in entries])
        for words, entries in groupby(listed, key=lambda e: FAMILY_WORDS[e.family])
    ]


@blueprint.post("/set")
def log_set() -> ResponseReturnValue:
    """Keep a set that a client did of the exercise as it is set up; what is wrong is shown at its field."""
    form = request.form
    ask = asked(dict(parse_qsl(form.get("query", "")[:4000])), doubt=False)
    if ask.client is None or ask.found is None or ask.found.curve is None:
        raise InputError("set", ask.entry.id, "an exercise that is set up, and a client")
    typed = {name: form.get(name, "") for name in ("reps", "reserve", "side", "formula")}
    messages: dict[str, str] = {}
    counts = {}
    for name in ("reps", "reserve"):
        try:
            counts[name] = integer(typed, name, 0, what="a whole number of reps")
        except InputError as error:
            messages[name] = sentence(f"“{str(error.value)[:20]}” is not used: {error.allowed}")
    try:
        if messages:
            raise usecases.SheetError(messages)
        usecases.log_set(
            connection(), trainer(), ask.client.id, ask.found.curve, ask.words, side=typed["side"],
            formula=typed["formula"], now=now(), **counts,
        )  # fmt: skip
    except usecases.SheetError as error:
        page = render_template(
            "arc/set.html", ask=ask, typed=typed, messages=error.messages | messages, query=form.get("query", "")
        )
        return page, 422
    return redirect(url_for("arc.show") + "?" + form.get("query", ""))


MOST_PINS = 5
LETTERS = "ABCDE"


def _pins() -> list[str]:
    """Return the pinned addresses of this visitor, as queries."""
    kept = session.get("pins", [])
    return [pin for pin in kept if isinstance(pin, str)][:MOST_PINS]


def _against_first_pin(curve: Curve) -> str:
    """Return how a curve differs from pin A, in a sentence; empty without a pin or where they cannot be compared."""
    pins = _pins()
    if not pins:
        return ""
    try:
        first = asked(dict(parse_qsl(pins[0])), doubt=False)
    except InputError:
        return ""
    if first.found is None or first.found.curve is None or not curve.demand_nm or not first.found.curve.demand_nm:
        return ""
    words = overlay.against(first.found.curve, curve)
    return f"Against A, {first.words}: {words}" if words else ""


@blueprint.post("/pin")
def pin() -> ResponseReturnValue:
    """Pin an exercise as it is set up now, or take every pin away."""
    query = request.form.get("query", "")[:4000]
    if request.form.get("action") == "clear":
        session["pins"] = []
    elif request.form.get("action") == "pin" and query not in _pins():
        session["pins"] = [*_pins(), query][-MOST_PINS:]
    back = request.form.get("back", "")
    return redirect(back_or(back if back.startswith("/arc/") else "", url_for("arc.show")))


@blueprint.get("/compare")
@blueprint.get("/compare.<any(csv):form>")
def compare(form: str = "") -> ResponseReturnValue:
    """Compare up to five pinned exercises: one drawing, differences in words, who works; or its values as CSV."""
    pins = request.args.getlist("pin") or _pins()
    if not pins:
        return render_template("arc/compare.html", shown=None, left_out=[], pins=[])
    taken, left_out = [], []
    for letter, query in zip(LETTERS, pins, strict=False):
        source = dict(parse_qsl(query))
        try:
            ask = asked(source, doubt=False)
        except InputError as error:
            left_out.append((letter, "an address that is not used", sentence(str(error))))
            continue
        if ask.found is None or ask.found.curve is None or not ask.found.curve.demand_nm:
            why = ask.found.problem if ask.found is not None else " ".join(ask.problems.values())
            left_out.append((letter, ask.entry.name, sentence(why or "it has no curve at a leg joint")))
            continue
        taken.append(overlay.Pinned(letter=letter, words=ask.words, query=query, curve=ask.found.curve))
    joint = request.args.get("joint", "")
    own = request.args.get("scale") == "own"
    shown = overlay.compared(taken, joint, own_peak=own) if taken else None
    if form and shown is not None:
        unit = "% of its peak" if own else "N*m"
        head = [f"{shown.joint} bend, degrees", *(f"{d.letter}, {unit}" for d in shown.drawn)]
        return _csv("compare", [head, *shown.table])
    return render_template("arc/compare.html", shown=shown, left_out=left_out, pins=pins[:MOST_PINS], own=own)


@blueprint.get("/<any(scenario, curve):what>.json")
def document(what: str) -> ResponseReturnValue:
    """Give the address's scenario, or its curve, as a file for the command line."""
    ask = asked(request.args, doubt=False)
    found = ask.found
    if found is None or found.curve is None:
        where, words = found.refused if found is not None and found.refused else ("exercise", "")
        reason = words or (found.problem if found is not None else " ".join(ask.problems.values()))
        raise InputError(where, None, reason or "no curve")
    if what == "scenario":
        return jsonify(ask.document)
    return jsonify(curve_document(found.curve, style=found.style if found.tempo else None, tempo=found.tempo))


@blueprint.get("/values.csv")
def values() -> ResponseReturnValue:
    """Send the table of values of the address as CSV."""
    ask = asked(request.args, doubt=False)
    found = ask.found
    if found is None or found.curve is None:
        raise InputError("exercise", ask.entry.id, "a set-up that has a curve")
    drawn = arcplot.curves(found.curve, found.fast)
    return _csv(ask.entry.id, [drawn.columns, *drawn.table])


def _csv(name: str, rows: list[Sequence[str]]) -> Response:
    """Return rows of text as a CSV file: plain numbers, an empty cell where there is none."""
    out = io.StringIO()
    plain = ([cell.replace(MINUS, "-").rstrip("°").replace("–", "") for cell in row] for row in rows)
    csv.writer(out, lineterminator="\n").writerows(plain)
    headers = {"Content-Disposition": f'attachment; filename="{name}.csv"'}
    return Response(out.getvalue(), mimetype="text/csv", headers=headers)


@blueprint.post("/card/<exercise_id>/<section>")
def card(exercise_id: str, section: str) -> ResponseReturnValue:
    """Keep own words for a section of an exercise's card."""
    usecases.edit_card(connection(), trainer(), exercise_id, section, request.form.get("words", ""), now=now())
    return redirect(_back(exercise_id))


def _back(exercise_id: str) -> str:
    back = request.form.get("back", "")
    if back.startswith("/arc/") and not back.startswith(("//", "/\\")):
        return back
    return url_for("arc.show", exercise=exercise_id)
