"""Room: what is here and what is free."""

from __future__ import annotations

from itertools import groupby

from flask import Blueprint, abort, redirect, render_template, request, session, url_for
from flask.typing import ResponseReturnValue

from widearc import store, usecases
from widearc.web.db import connection, now, trainer
from widearc.web.elevation import elevation

blueprint = Blueprint("room", __name__)


@blueprint.get("/")
def home() -> ResponseReturnValue:
    """Go to the last place, or say what to do first."""
    places = store.places(connection(), trainer())
    if not places:
        return render_template("room/empty.html")
    known = {p.id for p in places}
    last = session.get("place")
    return redirect(url_for("room.show", place_id=last if last in known else places[0].id))


@blueprint.get("/room/<int:place_id>")
def show(place_id: int) -> ResponseReturnValue:
    """Show a place's equipment with its states."""
    view = usecases.room(connection(), trainer(), place_id)
    session["place"] = place_id
    zones = [(zone, list(items)) for zone, items in groupby(_by_zone(view.items), key=lambda i: i.zone)]
    template = "room/_answer.html" if request.headers.get("X-Part") else "room/show.html"
    return render_template(template, view=view, zones=zones, wall=elevation(view.items))


def _by_zone(items: tuple[store.ItemRow, ...]) -> list[store.ItemRow]:
    order = {kind: i for i, kind in enumerate(("sled press", "rack", "bar", "plate", "dumbbell", "kettlebell", "band"))}
    return sorted(items, key=lambda i: (i.zone, order.get(i.kind, 9), i.kg or i.height_m or 0.0, i.id))


@blueprint.post("/room/item/<int:item_id>/state")
def state(item_id: int) -> ResponseReturnValue:
    """Mark an item free, taken or broken; kept at once."""
    try:
        wanted = store.State(request.form.get("state", ""))
    except ValueError:
        abort(400)
    item = usecases.mark(connection(), trainer(), item_id, wanted, now=now())
    return redirect(_back(item.place_id))


@blueprint.post("/room/<int:place_id>/undo/<int:change_id>")
def undo(place_id: int, change_id: int) -> ResponseReturnValue:
    """Take the last change back."""
    usecases.take_back(connection(), trainer(), change_id, now=now())
    return redirect(_back(place_id))


def _back(place_id: int) -> str:
    """Return the page the form came from, if it is one of ours, else the place."""
    back = request.form.get("back", "")
    # one slash only: two would name another host
    if back.startswith("/") and not back.startswith(("//", "/\\")):
        return back
    return url_for("room.show", place_id=place_id)
