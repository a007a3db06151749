"""Arc, compare: up to five set-ups over one joint."""

from __future__ import annotations

from urllib.parse import parse_qsl

from flask import redirect, request, session, url_for
from flask.typing import ResponseReturnValue

from widearc.core.errors import InputError
from widearc.core.words import Said
from widearc.web.download import csv_response
from widearc.web.drawing import overlay
from widearc.web.forms.typed import address_part, back_or
from widearc.web.page import rendered
from widearc.web.screens.arc.blueprint import blueprint
from widearc.web.screens.arc.pins import LETTERS, MOST_PINS, felt_words, pinned
from widearc.web.screens.arc.query import asked
from widearc.web.words.refused import sentence
from widearc.words import say, tr

MOST_PINNED = 2500  # characters: browsers keep no cookie over 4 kB


@blueprint.post("/pin")
def pin() -> ResponseReturnValue:
    """Pin an exercise as it is set up now, or take every pin away."""
    query = address_part(request.form, "query")
    if request.form.get("action") == "clear":
        session["pins"] = []
    elif request.form.get("action") == "pin" and query not in pinned():
        pins = [*pinned(), query][-MOST_PINS:]
        if sum(map(len, pins)) > MOST_PINNED:
            raise InputError(
                "pin", f"{len(query)} characters", Said("fewer pins, or shorter set-ups")
            )
        session["pins"] = pins
    back = request.form.get("back", "")
    return redirect(back_or(back if back.startswith("/arc/") else "", url_for("arc.show")))


@blueprint.get("/compare")
@blueprint.get("/compare.<any(csv):form>")
def compare(form: str = "") -> ResponseReturnValue:
    """Compare up to five pinned exercises: one drawing, differences in words, who works; or its
    values as CSV.
    """
    pins = request.args.getlist("pin") or pinned()
    if not pins:
        return rendered("arc/compare.html", shown=None, left_out=[], pins=[])
    taken, left_out = [], []
    for letter, query in zip(LETTERS, pins, strict=False):
        source = dict(parse_qsl(query))
        try:
            ask = asked(source, doubt=False)
        except InputError as error:
            left_out.append((letter, "an address that is not used", sentence(say(error.said))))
            continue
        if ask.found is None or ask.found.curve is None or not ask.found.curve.demand_nm:
            why = ask.found.problem if ask.found is not None else " ".join(ask.problems.values())
            left_out.append(
                (letter, ask.entry.name, sentence(why or tr("it has no curve at a leg joint")))
            )
            continue
        words = felt_words(ask)
        taken.append(
            overlay.Pinned(
                letter=letter, words=ask.words, query=query, curve=ask.found.curve, felt=words
            )
        )
    joint = request.args.get("joint", "")
    own = request.args.get("scale") == "own"
    shown = overlay.overlaid(taken, joint, own_peak=own) if taken else None
    if form and shown is not None:
        unit = "% of its peak" if own else "N*m"
        head = [f"{shown.joint} bend, degrees", *(f"{d.letter}, {unit}" for d in shown.drawn)]
        return csv_response("compare", [head, *shown.table])
    return rendered(
        "arc/compare.html", shown=shown, left_out=left_out, pins=pins[:MOST_PINS], own=own
    )
