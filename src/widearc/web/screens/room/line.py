"""A place in a minute: one line is typed, looked at as rows, and kept."""

from __future__ import annotations

from flask import Blueprint, redirect, request, session, url_for
from flask.typing import ResponseReturnValue

from widearc.core.equipment.items.line import Line, read_line
from widearc.usecases.room.line import STARTS, keep_things
from widearc.usecases.sheet import SheetError
from widearc.web.db import connection, held, now, trainer
from widearc.web.page import rendered
from widearc.words import spoken, tr

blueprint = Blueprint("line", __name__)

LONGEST = 2000


@blueprint.get("/room/<int:place_id>/line")
def show(place_id: int) -> ResponseReturnValue:
    """Offer a field for what is there, and rooms to begin with."""
    start = request.args.get("start", "")
    text = STARTS[start][1] if start in STARTS else request.args.get("text", "")[:LONGEST]
    return _page(place_id, text, assumed=start in STARTS, looked=bool(text))


@blueprint.post("/room/<int:place_id>/line")
def look(place_id: int) -> ResponseReturnValue:
    """Show what a line says as rows to check, or keep those that are ticked."""
    held().place(place_id)
    form = request.form
    text, assumed = form.get("text", "")[:LONGEST], form.get("assumed") == "1"
    if form.get("action") != "keep":
        return _page(place_id, text, assumed=assumed, looked=True)
    line = _read(text, assumed=assumed)
    ticked = {int(n) for n in form.getlist("thing") if n.isdigit()}
    things = [thing for n, thing in enumerate(line.things) if n in ticked]
    try:
        keep_things(connection(), trainer(), place_id, things, now=now())
    except SheetError as error:
        problem = "; ".join(tr(str(words)) for words in error.messages.values())
        return _page(place_id, text, assumed=assumed, looked=True, problem=problem), 422
    session["place"] = place_id
    if line.left:
        return _page(place_id, ", ".join(line.left), assumed=assumed, looked=True)
    if not held().clients:
        return redirect(url_for("home.show"))
    return redirect(url_for("room.show", place_id=place_id))


def _read(text: str, *, assumed: bool) -> Line:
    return read_line(text, imperial=spoken().units != "metric", assumed=assumed)


def _page(place_id: int, text: str, *, assumed: bool, looked: bool, problem: str = "") -> str:
    return rendered(
        "room/line.html",
        place=held().place(place_id),
        text=text,
        line=_read(text, assumed=assumed) if looked else Line(),
        looked=looked,
        assumed=assumed,
        problem=problem,
        starts=[(id_, words) for id_, (words, _) in STARTS.items()],
    )
