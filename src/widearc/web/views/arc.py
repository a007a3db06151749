"""Arc: one exercise as set up: figure, line of force, curves per joint, and its card."""

from __future__ import annotations

import csv
import io
from collections.abc import Mapping, Sequence
from itertools import groupby
from typing import Any
from urllib.parse import parse_qsl

from flask import Blueprint, Response, jsonify, redirect, render_template, request, session, url_for
from flask.typing import ResponseReturnValue

from widearc import store, usecases
from widearc.core.body import PORTS
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.muscle import sentences
from widearc.core.statics import Curve, grip_n
from widearc.core.strength import Scale
from widearc.core.units import G
from widearc.formats import curve_document
from widearc.web import arcform, arcplot, arcviews, muscleplot, overlay
from widearc.web.asked import Asked, asked
from widearc.web.db import connection, now, trainer
from widearc.web.errors import sentence
from widearc.web.figure import figure
from widearc.web.forms import back_or, integer
from widearc.web.grips import grips
from widearc.web.over import choices, laid_over
from widearc.web.words import MINUS, whole

blueprint = Blueprint("arc", __name__, url_prefix="/arc")
FIGURE = (430.0, 446.0, 300.0)
FAMILY_WORDS = {
    "stance": "Squats",
    "supported stance": "Squats with a support",
    "hinge": "Hinges",
    "split": "Split and one leg",
    "sled press": "Presses",
    "sled squat": "Squat machines",
    "arc squat": "Squat machines",
    "kneeling": "Kneeling",
    "knee rotation": "Extensions and curls",
    "plank knee bend": "Kneeling",
    "bridge": "Bridges",
    "hip rotation trunk": "Back extensions",
    "hip rotation leg": "Leg swings",
    "thigh spread": "Thighs apart",
    "calf": "Calves",
    "carriage": "Sprung carriage",
    "plain path": "Handle only",
    "mobility": "Mobility, no curve",
}


@blueprint.get("/")
def show() -> ResponseReturnValue:
    """Show an exercise with the options, loads and tempo of the address."""
    dragging = "X-Drag" in request.headers
    ask = asked(request.args, doubt=not dragging)
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
        "overs": choices(_pins()),
        "over": request.args.get("over", "want" if request.args.get("want") else ""),
        "want": request.args.get("want", "")[:2000],
        "views": arcviews.VIEWS,
        "view": request.args.get("view", "joints"),
        "thirds": usecases.THIRDS,
        "here": request.full_path.rstrip("?"),
        "query": request.query_string.decode(),
    }
    if found is not None and found.curve is not None:
        known = (
            usecases.strength_of(connection(), trainer(), ask.client.id)
            if ask.client is not None
            else {}
        )
        first = _first_pin()
        over = laid_over(found.curve, first)
        view = request.args.get("view", "joints")
        ghost = _ghost(found.curve)
        values |= _drawn(
            ask, usecases.efforts(found.curve, known), over, view, first, ghost, dragging=dragging
        )
        values["against"] = _against(first, found.curve, known)
        if ask.client is not None and found.curve.demand_nm:
            values["felt"] = usecases.felt_of(connection(), trainer(), ask.client.id, found.curve)
    template = "arc/_answer.html" if request.headers.get("X-Part") else "arc/show.html"
    return render_template(template, **values)


def _drawn(
    ask: Asked,
    efforts: tuple[usecases.Effort, ...],
    over: tuple[arcplot.Intended, ...],
    view: str,
    first: Asked | None,
    ghost: Curve | None,
    *,
    dragging: bool,
) -> dict[str, Any]:
    """Return figure, plots, script and words of a curve; while dragging only what moves."""
    found = ask.found
    assert found is not None and found.curve is not None
    curve = found.curve
    drawn = arcplot.curves(curve, found.fast, found.error_nm, efforts, over, ghost)
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
            over=over,
        )
        if curve.motion.points
        else None
    )
    handles = grips(curve, picture, ask.fields, ask.loads) if picture is not None else ()
    plots, script, view_words = list(drawn.plots), drawn.script, ""
    shown = _view(view, curve, first)
    columns, table = drawn.columns, drawn.table
    if shown is not None:
        plots, more, view_words = shown
        script = script + more
        columns, table = arcviews.table(plots, more)
    rule, rule_ticks, rule_ends, rule_words = arcviews.rule(curve)
    use = usecases.muscles(curve) if view == "muscles" and not dragging else None
    return {
        "efforts": efforts,
        "muscles": muscleplot.rows(use) if use is not None else (),
        "muscle_words": sentences(use) if use is not None else (),
        "curves": drawn,
        "columns": columns,
        "table": table,
        "plots": plots,
        "view_words": view_words,
        "grips": handles,
        "rule_ticks": rule_ticks,
        "rule_ends": rule_ends,
        "rule_words": rule_words,
        "intended": over,
        "figure": picture,
        "lines": lines,
        "width": width,
        "height": height,
        "script": {
            "joints": [*script, rule],
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
        "balances": dragging or bool(usecases.balances(curve)),
        "joint_names": arcplot.NAMES,
    }


def _view(
    view: str, curve: Curve, first: Asked | None
) -> tuple[list[arcplot.Solo], list[dict[str, Any]], str] | None:
    """Return plots, cursors and words of the forces' or the low back's view, None for the
    others.
    """
    if view == "forces":
        return (*arcviews.forces(curve), "")
    if view == "spine":
        reference = first.found.curve if first is not None and first.found is not None else None
        return arcviews.spine(curve, reference)
    return None


def _ghost(found: Curve) -> Curve | None:
    """Return the curve from before the drag that is going on, None where there is none to draw."""
    before = request.headers.get("X-Was", "")[:4000]
    if not before:
        return None
    try:
        was = asked(dict(parse_qsl(before)), doubt=False)
    except InputError:
        return None
    if was.found is None or was.found.curve is None or was.entry.id != found.setup.exercise.id:
        return None
    return was.found.curve


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
    """Keep a set that a client did of the exercise as it is set up; what is wrong is shown at its
    field.
    """
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
            connection(),
            trainer(),
            ask.client.id,
            ask.found.curve,
            ask.words,
            side=typed["side"],
            formula=typed["formula"],
            now=now(),
            **counts,
        )
    except usecases.SheetError as error:
        page = render_template(
            "arc/set.html",
            ask=ask,
            typed=typed,
            messages=error.messages | messages,
            query=form.get("query", ""),
        )
        return page, 422
    return redirect(url_for("arc.show") + "?" + form.get("query", ""))


MOST_PINS = 5
LETTERS = "ABCDE"


def _pins() -> list[str]:
    """Return the pinned addresses of this visitor, as queries."""
    kept = session.get("pins", [])
    return [pin for pin in kept if isinstance(pin, str)][:MOST_PINS]


def _first_pin() -> Asked | None:
    """Return what pin A asks, None without a pin or where it has no curve."""
    pins = _pins()
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


def _against(first: Asked | None, curve: Curve, known: Mapping[str, Scale]) -> str:
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
    said = [f"Against A, {first.words}: {words}"]
    if effort:
        said.append(f"{effort[:1].upper()}{effort[1:]}.")
    if known:
        said.append(f"{reps.words[:1].upper()}{reps.words[1:]}.".replace("what is wanted", "A"))
    return " ".join(said)


@blueprint.post("/felt")
def felt() -> ResponseReturnValue:
    """Keep where the exercise as set up felt hardest."""
    query = request.form.get("query", "")[:4000]
    ask = asked(dict(parse_qsl(query)), doubt=False)
    if (
        ask.client is None
        or ask.found is None
        or ask.found.curve is None
        or not ask.found.curve.demand_nm
    ):
        raise InputError("felt", ask.entry.id, "an exercise that is set up, and a client")
    usecases.keep_felt(
        connection(),
        trainer(),
        ask.client.id,
        ask.found.curve,
        ask.words,
        request.form.get("felt", ""),
        now=now(),
    )
    return redirect(url_for("arc.show") + "?" + query)


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
    """Compare up to five pinned exercises: one drawing, differences in words, who works; or its
    values as CSV.
    """
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
            left_out.append(
                (letter, ask.entry.name, sentence(why or "it has no curve at a leg joint"))
            )
            continue
        words = _felt_words(ask)
        taken.append(
            overlay.Pinned(
                letter=letter, words=ask.words, query=query, curve=ask.found.curve, felt=words
            )
        )
    joint = request.args.get("joint", "")
    own = request.args.get("scale") == "own"
    shown = overlay.compared(taken, joint, own_peak=own) if taken else None
    if form and shown is not None:
        unit = "% of its peak" if own else "N*m"
        head = [f"{shown.joint} bend, degrees", *(f"{d.letter}, {unit}" for d in shown.drawn)]
        return _csv("compare", [head, *shown.table])
    return render_template(
        "arc/compare.html", shown=shown, left_out=left_out, pins=pins[:MOST_PINS], own=own
    )


def _felt_words(ask: Asked) -> str:
    """Return where a pinned set-up is computed to be hardest and where its client felt it, in a
    sentence.
    """
    assert ask.found is not None and ask.found.curve is not None
    if ask.client is None:
        return ""
    found = usecases.felt_of(connection(), trainer(), ask.client.id, ask.found.curve)
    said = [r for r in found.said if r.words == ask.words[:300]]
    felt = f"felt hardest {usecases.WHERE[said[-1].felt]}" if said else "not rated yet"
    who = ask.client.name.lower()
    words = f"Computed hardest {usecases.WHERE[found.computed]}; {felt} by the {who}."
    return f"{words} Apart {found.apart} times: {found.again}." if found.again else words


@blueprint.get("/<any(scenario, curve):what>.json")
def document(what: str) -> ResponseReturnValue:
    """Give the address's scenario, or its curve, as a file for the command line."""
    ask = asked(request.args, doubt=False)
    found = ask.found
    if found is None or found.curve is None:
        if found is not None and found.refused is not None:
            raise found.refused
        reason = found.problem if found is not None else " ".join(ask.problems.values())
        raise InputError("exercise", None, reason or "no curve")
    if what == "scenario":
        return jsonify(ask.document)
    return jsonify(
        curve_document(found.curve, style=found.style if found.tempo else None, tempo=found.tempo)
    )


@blueprint.get("/values.csv")
def values() -> ResponseReturnValue:
    """Send the table of values of the address as CSV."""
    ask = asked(request.args, doubt=False)
    found = ask.found
    if found is None or found.curve is None:
        raise InputError("exercise", ask.entry.id, "a set-up that has a curve")
    if request.args.get("view") == "muscles":
        use = usecases.muscles(found.curve)
        return _csv(
            ask.entry.id, [muscleplot.COLUMNS, *(muscleplot.values(use) if use is not None else ())]
        )
    shown = _view(request.args.get("view", ""), found.curve, _first_pin())
    if shown is not None:
        columns, table = arcviews.table(shown[0], shown[1])
    else:
        known = (
            usecases.strength_of(connection(), trainer(), ask.client.id)
            if ask.client is not None
            else {}
        )
        drawn = arcplot.curves(
            found.curve, found.fast, efforts=usecases.efforts(found.curve, known)
        )
        columns, table = drawn.columns, drawn.table
    return _csv(ask.entry.id, [columns, *table])


def _csv(name: str, rows: list[Sequence[str]]) -> Response:
    """Return rows of text as a CSV file: plain numbers, an empty cell where there is none."""
    out = io.StringIO()
    plain = (
        [cell.replace(MINUS, "-").rstrip("°").replace("–", "") for cell in row] for row in rows
    )
    csv.writer(out, lineterminator="\n").writerows(plain)
    headers = {"Content-Disposition": f'attachment; filename="{name}.csv"'}
    return Response(out.getvalue(), mimetype="text/csv", headers=headers)


@blueprint.post("/card/<exercise_id>/<section>")
def card(exercise_id: str, section: str) -> ResponseReturnValue:
    """Keep own words for a section of an exercise's card."""
    usecases.edit_card(
        connection(), trainer(), exercise_id, section, request.form.get("words", ""), now=now()
    )
    return redirect(_back(exercise_id))


def _back(exercise_id: str) -> str:
    back = request.form.get("back", "")
    if back.startswith("/arc/") and not back.startswith(("//", "/\\")):
        return back
    return url_for("arc.show", exercise=exercise_id)
