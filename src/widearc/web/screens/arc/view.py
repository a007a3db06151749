"""Arc: one exercise as set up: figure, line of force, curves per joint, and its card."""

from __future__ import annotations

from flask import jsonify, request, session
from flask.typing import ResponseReturnValue

from widearc import usecases
from widearc.core.errors import InputError
from widearc.core.words import Said
from widearc.formats import curve_document
from widearc.web.db import connection, trainer
from widearc.web.download import csv_response
from widearc.web.drawing import curves as curve_drawing
from widearc.web.drawing import muscles as muscle_drawing
from widearc.web.drawing import views as view_drawing
from widearc.web.page import shown
from widearc.web.screens.arc.blueprint import blueprint
from widearc.web.screens.arc.page import arc_page, solo_view
from widearc.web.screens.arc.pins import first_pin
from widearc.web.screens.arc.query import asked, told_of


@blueprint.get("/")
def show() -> ResponseReturnValue:
    """Show an exercise with the options, loads and tempo of the address."""
    dragging = "X-Drag" in request.headers
    ask = asked(request.args, doubt=not dragging)
    if ask.client is not None:
        session["client"] = ask.client.id
    return shown("arc", arc_page(ask, dragging=dragging))


@blueprint.get("/<any(scenario, curve):what>.json")
def document(what: str) -> ResponseReturnValue:
    """Give the address's scenario, or its curve, as a file for the command line."""
    ask = asked(request.args, doubt=False)
    found = ask.found
    if found is None or found.curve is None:
        if found is not None and found.refused is not None:
            raise found.refused
        reason = found.problem if found is not None else told_of(ask)
        raise InputError("exercise", None, reason or Said("no curve"))
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
        raise InputError("exercise", ask.entry.id, Said("a set-up that has a curve"))
    if request.args.get("view") == "muscles":
        use = usecases.muscles(found.curve)
        return csv_response(
            ask.entry.id,
            [muscle_drawing.COLUMNS, *(muscle_drawing.values(use) if use is not None else ())],
        )
    solo = solo_view(request.args.get("view", ""), found.curve, first_pin())
    if solo is not None:
        columns, table = view_drawing.table(solo[0], solo[1])
    else:
        known = (
            usecases.strength_of(connection(), trainer(), ask.client.id)
            if ask.client is not None
            else {}
        )
        drawn = curve_drawing.curves_of(
            found.curve, found.fast, efforts=usecases.efforts(found.curve, known)
        )
        columns, table = drawn.columns, drawn.table
    return csv_response(ask.entry.id, [columns, *table])
