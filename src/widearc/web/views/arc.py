"""Arc: one exercise as set up: figure, line of force, curves per joint, and its card."""

from __future__ import annotations

from itertools import groupby
from typing import Any

from flask import Blueprint, jsonify, redirect, render_template, request, session, url_for
from flask.typing import ResponseReturnValue

from widearc import store, usecases
from widearc.core.body import PORTS
from widearc.core.catalogue import EXERCISES, Exercise, exercise
from widearc.core.errors import InputError
from widearc.core.muscle import sentences
from widearc.core.statics import doubt_of
from widearc.core.substitution import CAST, READ
from widearc.formats import curve_document
from widearc.formats.scenario import law_part
from widearc.usecases.arc import Arc
from widearc.usecases.kit import doubt_of_client, kit_of
from widearc.web import arcform, arcplot, muscleplot
from widearc.web.db import connection, now, trainer
from widearc.web.errors import sentence
from widearc.web.figure import figure
from widearc.web.forms import number

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
    entry = exercise(request.args.get("exercise", "back-squat-high"), "exercise")
    clients = store.clients(connection(), trainer())
    client = next((c for c in clients if c.id == _client(clients)), None)
    laws = _bands()
    loads = arcform.typed_loads(request.args, entry)
    fields = _fields(entry, loads)
    problems: dict[str, str] = {}
    document = _document(entry.id, client, problems, fields, loads, laws)
    errors = tuple(_error(load, laws) for load in loads)
    doubt = doubt_of_client(client) if client is not None else UNKNOWN
    found = usecases.arc(document, errors, doubt) if not problems else None
    if found is not None and found.refused:
        problems[arcform.field_of(found.refused[0])] = sentence(found.refused[1])
    if client is not None:
        session["client"] = client.id
    values: dict[str, Any] = {
        "entry": entry,
        "groups": _groups(),
        "clients": clients,
        "client": client,
        "fields": fields,
        "loads": arcform.load_rows(loads, entry, laws, {p: PORTS[p].label for p in PORTS}),
        "kinds": arcform.kinds_for(entry),
        "problems": problems,
        "typed": {name: request.args.get(name, "") for name in ("lift", "lower")},
        "found": found,
        "card": usecases.card(connection(), trainer(), entry),
        "section_words": usecases.SECTION_WORDS,
        "card_change": store.last_change(connection(), trainer(), usecases.card_scope(entry.id)),
        "here": request.full_path.rstrip("?"),
        "query": request.query_string.decode(),
    }
    if found is not None and found.curve is not None:
        values |= _drawn(found)
    template = "arc/_answer.html" if request.headers.get("X-Part") else "arc/show.html"
    return render_template(template, **values)


UNKNOWN = doubt_of(mass_known=False, stature_known=False, thigh_taped=False)


def _error(load: dict[str, str], laws: dict[str, arcform.BenchBand]) -> float:
    """Return one standard error of a load of the form as a share: a weighed band's own, else as cast iron."""
    if load["kind"] == "band":
        known = laws.get(load.get("band", ""))
        return known.error if known is not None else READ
    return CAST


def _drawn(found: Arc) -> dict[str, Any]:
    """Return figure, plots, script and words of a curve."""
    curve = found.curve
    assert curve is not None
    drawn = arcplot.curves(curve, found.fast, found.error_nm)
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
        },
        "path_words": arcplot.path_words(curve),
        "tempo_words": arcplot.tempo_words(found.tempo, found.fast, curve),
        "notices": [n.text for n in curve.motion.notices if n.where[0]],
        "assumptions": curve.motion.assumptions,
        "balances": bool(usecases.balances(curve)),
        "joint_names": arcplot.NAMES,
    }


def _fields(entry: Exercise, loads: list[dict[str, str]]) -> list[arcform.Field]:
    ports = [load.get("port") or next(iter(entry.ports), "") for load in loads]
    return arcform.option_fields(entry, request.args, belted="hip-belt" in ports)


def _client(clients: tuple[store.ClientRow, ...]) -> int | None:
    known = [c.id for c in clients]
    asked = request.args.get("client", "")
    if asked.isdigit() and int(asked) in known:
        return int(asked)
    last = session.get("client")
    return last if last in known else (known[0] if known else None)


def _bands() -> dict[str, arcform.BenchBand]:
    """Return the measured bands of every place by id."""
    laws: dict[str, arcform.BenchBand] = {}
    for place in store.places(connection(), trainer()):
        items = store.items(connection(), trainer(), place.id)
        kit, _, _, _ = kit_of(connection(), trainer(), items, place.id)
        backs = {item.key: item.back_share for item in items}
        for band in kit.bands:
            laws[band.id] = arcform.BenchBand(
                law=law_part(band.law), name=f"{band.name}, {place.name}", back=backs[band.id], error=band.error
            )
    return laws


def _document(
    exercise_id: str, client: store.ClientRow | None, problems: dict[str, str], fields: list[arcform.Field],
    loads: list[dict[str, str]], laws: dict[str, arcform.BenchBand],
) -> dict[str, Any]:  # fmt: skip
    """Return the scenario of the form; what cannot be read goes to `problems` at its field."""
    entry = EXERCISES[exercise_id]
    document: dict[str, Any] = {"format": "wide-arc/scenario", "version": 1, "exercise": exercise_id}
    if client is not None:
        document["body"] = {
            "mass_kg": client.body.mass_kg, "stature_m": client.body.stature_m, "sex": client.body.sex.value,
            **({"segments": dict(client.body.segments)} if client.body.segments else {}),
        }  # fmt: skip
        limits = client.limits
        document["limits"] = {
            "dorsiflexion_deg": limits.dorsiflexion_deg, "hip_flexion_deg": limits.hip_flexion_deg,
            "knee_deg": limits.knee_deg, "no_axial_load": limits.no_axial_load,
        }  # fmt: skip
    try:
        document["options"] = arcform.options_document(entry, fields)
        document["loads"] = [arcform.load_document(load, i, entry, laws) for i, load in enumerate(loads)]
        lift = request.args.get("lift", "").strip()
        if lift:
            lower = request.args.get("lower", "").strip() or lift
            document["tempo"] = {
                "lifting_s": number({"lift": lift}, "lift", 1.0, what="seconds, from 0.1 to 120"),
                "lowering_s": number({"lower": lower}, "lower", 1.0, what="seconds, from 0.1 to 120"),
            }
    except InputError as error:
        problems[error.where] = sentence(f"“{str(error.value)[:30]}” is not used: {error.allowed}")
    return document


def _groups() -> list[tuple[str, list[tuple[str, str]]]]:
    """Return the catalogue by kind of movement, in the order of the families."""
    order = list(dict.fromkeys(FAMILY_WORDS.values()))
    listed = sorted(EXERCISES.values(), key=lambda e: (order.index(FAMILY_WORDS[e.family]), e.name))
    return [
        (words, [(e.id, e.name) for e in entries])
        for words, entries in groupby(listed, key=lambda e: FAMILY_WORDS[e.family])
    ]


@blueprint.get("/<any(scenario, curve):what>.json")
def document(what: str) -> ResponseReturnValue:
    """Give the address's scenario, or its curve, as a file for the command line."""
    entry = exercise(request.args.get("exercise", "back-squat-high"), "exercise")
    clients = store.clients(connection(), trainer())
    client = next((c for c in clients if c.id == _client(clients)), None)
    problems: dict[str, str] = {}
    loads = arcform.typed_loads(request.args, entry)
    fields = _fields(entry, loads)
    made = _document(entry.id, client, problems, fields, loads, _bands())
    found = usecases.arc(made) if not problems else None
    if found is None or found.curve is None:
        where, words = found.refused if found is not None and found.refused else ("exercise", "")
        reason = words or (found.problem if found is not None else " ".join(problems.values()))
        raise InputError(where, None, reason or "no curve")
    if what == "scenario":
        return jsonify(made)
    return jsonify(curve_document(found.curve, style=found.style if found.tempo else None, tempo=found.tempo))


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
