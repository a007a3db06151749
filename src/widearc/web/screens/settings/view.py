"""Settings: what a trainer reads and types, for every page."""

from __future__ import annotations

from pathlib import Path

from flask import Blueprint, current_app, redirect, request, url_for
from flask.typing import ResponseReturnValue

from widearc import usecases
from widearc.usecases.safe.safe import backup_age
from widearc.web.db import connection, now, trainer
from widearc.web.forms.typed import back_or
from widearc.web.page import rendered

blueprint = Blueprint("settings", __name__, url_prefix="/settings")


@blueprint.get("/")
def show() -> ResponseReturnValue:
    """Show every setting."""
    return _page(usecases.time_zone(connection(), trainer()), {})


def _page(zone: str, messages: dict[str, str]) -> ResponseReturnValue:
    page = rendered(
        "settings/show.html",
        backup=backup_age(Path(current_app.config["DATABASE"]), now()[:10]),
        zone=zone,
        clock=now(),
        reads=usecases.reading_of(connection(), trainer()),
        messages=messages,
    )
    return page, 422 if messages else 200


@blueprint.post("/zone")
def set_zone() -> ResponseReturnValue:
    """Set the zone that days are counted in; empty: the browser's."""
    name = request.form.get("zone", "")
    try:
        usecases.set_time_zone(connection(), trainer(), name)
    except usecases.SheetError as error:
        return _page(name, error.messages)
    return redirect(url_for("settings.show"))


@blueprint.post("/units")
def set_units() -> ResponseReturnValue:
    """Set the units that are read and typed, and go back to the page."""
    usecases.set_units(connection(), trainer(), request.form.get("choose", ""))
    return _back()


@blueprint.post("/language")
def set_language() -> ResponseReturnValue:
    """Set the language that is read, and go back to the page."""
    usecases.set_language(connection(), trainer(), request.form.get("choose", ""))
    return _back()


@blueprint.post("/by-feel")
def by_feel() -> ResponseReturnValue:
    """Read Swap, Floor and Ladder with numbers or without, and go back to the page."""
    usecases.set_by_feel(connection(), trainer(), on=request.form.get("choose") == "feel")
    return _back()


@blueprint.post("/how/away")
def put_away() -> ResponseReturnValue:
    """Put the short how-to of a screen away, for good, and go back to the page."""
    usecases.put_how_away(connection(), trainer(), request.form.get("screen", ""))
    return _back()


@blueprint.post("/how/again")
def how_again() -> ResponseReturnValue:
    """Show the short how-to of every screen again."""
    usecases.show_how_again(connection(), trainer())
    return redirect(url_for("settings.show"))


def _back() -> ResponseReturnValue:
    return redirect(back_or(request.form.get("back", ""), url_for("settings.show")))
