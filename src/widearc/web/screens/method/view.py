"""Method: formulas, sources, assumptions, cautions, and the look."""

from __future__ import annotations

import functools
from pathlib import Path
from typing import Any

from flask import Blueprint, current_app, redirect, request, url_for
from flask.typing import ResponseReturnValue

from widearc import usecases
from widearc.usecases import check_document
from widearc.usecases.safe.safe import backup_age
from widearc.web.db import connection, now, trainer
from widearc.web.forms.typed import back_or
from widearc.web.page import rendered

blueprint = Blueprint("method", __name__, url_prefix="/method")


@blueprint.get("/")
def show() -> ResponseReturnValue:
    """Show what the numbers rest on, with every check value recomputed."""
    return _page(usecases.time_zone(connection(), trainer()), {})


@blueprint.post("/zone")
def set_zone() -> ResponseReturnValue:
    """Set the zone that days are counted in; empty: the browser's."""
    name = request.form.get("zone", "")
    try:
        usecases.set_time_zone(connection(), trainer(), name)
    except usecases.SheetError as error:
        return _page(name, error.messages)
    return redirect(url_for("method.show") + "#settings")


@blueprint.post("/units")
def set_units() -> ResponseReturnValue:
    """Set the units that are read and typed, and go back to the page."""
    usecases.set_units(connection(), trainer(), request.form.get("choose", ""))
    return redirect(back_or(request.form.get("back", ""), url_for("method.show")))


@blueprint.post("/language")
def set_language() -> ResponseReturnValue:
    """Set the language that is read, and go back to the page."""
    usecases.set_language(connection(), trainer(), request.form.get("choose", ""))
    return redirect(back_or(request.form.get("back", ""), url_for("method.show")))


def _page(zone: str, messages: dict[str, str]) -> ResponseReturnValue:
    page = rendered(
        "method/show.html",
        check=_checked(),
        backup=backup_age(Path(current_app.config["DATABASE"]), now()[:10]),
        zone=zone,
        clock=now(),
        messages=messages,
    )
    return page, 422 if messages else 200


@functools.cache
def _checked() -> dict[str, Any]:
    """Return the self-check: it depends on the program alone, so once a run is enough."""
    return check_document()


@blueprint.get("/look")
def look() -> ResponseReturnValue:
    """Show every token of the look, in light and dark."""
    return rendered("method/look.html")
