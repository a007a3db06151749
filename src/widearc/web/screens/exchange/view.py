"""Exchange: a place's kit out to a file, and in from one after a preview."""

from __future__ import annotations

import json
from typing import Any

from flask import (
    Blueprint,
    redirect,
    request,
    session,
    url_for,
)
from flask.typing import ResponseReturnValue

from widearc import store, usecases
from widearc.core.errors import InputError
from widearc.core.words import Said
from widearc.formats import load_json
from widearc.usecases.safe.safe import export_all, import_all
from widearc.web.db import connection, held, now, trainer
from widearc.web.download import sent
from widearc.web.forms.typed import known_id
from widearc.web.limits import LARGEST_FILE
from widearc.web.page import rendered
from widearc.words import say, tell, tr

blueprint = Blueprint("exchange", __name__, url_prefix="/exchange")

SHOWN_CHANGES = 300


@blueprint.get("/")
def show() -> ResponseReturnValue:
    """Show what can go out and come in, for one place."""
    return _page(_place(request.args.get("place", "")), "", None, "")


def _place(text: str) -> store.PlaceRow | None:
    places = {p.id: p for p in held().places}
    named = known_id(text, places)
    if named is not None:
        return places[named]
    return places.get(session.get("place", 0)) or next(iter(places.values()), None)


def _page(
    place: store.PlaceRow | None,
    text: str,
    plan: usecases.ImportPlan | None,
    problem: str,
    archive_problem: str = "",
) -> ResponseReturnValue:
    page = rendered(
        "exchange/show.html",
        place=place,
        places=held().places,
        text=text,
        plan=plan,
        problem=problem,
        archive_problem=archive_problem,
        most_mb=LARGEST_FILE // 1_000_000,
        change=held().last_change(f"place:{place.id}") if place else None,
    )
    return page, 422 if problem or archive_problem else 200


@blueprint.get("/<int:place_id>.json")
def export(place_id: int) -> ResponseReturnValue:
    """Send a place's kit as a file."""
    document = usecases.export_kit(connection(), trainer(), place_id)
    text = json.dumps(document, ensure_ascii=False)
    return sent(text, document["place"]["name"], "json")


@blueprint.get("/all.zip")
def everything() -> ResponseReturnValue:
    """Send everything that is kept as one file."""
    content = export_all(connection(), trainer(), now=now())
    return sent(content, f"wide-arc-{now()[:10]}", "zip")


@blueprint.get("/changes")
def changes() -> ResponseReturnValue:
    """List what was changed, when and by whom."""
    return rendered("exchange/changes.html", rows=held().changes(SHOWN_CHANGES))


@blueprint.post("/all")
def bring_everything() -> ResponseReturnValue:
    """Put a file of everything in the place of all that is here; undo brings it back."""
    upload = request.files.get("archive")
    content = upload.read() if upload is not None else b""
    try:
        if not content:
            raise InputError("file", "nothing", Said("choose the file that was sent out"))
        import_all(connection(), trainer(), content, now=now())
    except InputError as error:
        said = tell(
            "{where}: {value} is not taken; {allowed}.",
            where=error.where,
            value=str(error.value)[:60],
            allowed=error.allowed,
        )
        return _page(_place(""), "", None, "", said)
    return redirect(url_for("room.home"))


@blueprint.post("/")
def bring() -> ResponseReturnValue:
    """Preview an import, or do it; a file that is not a kit changes nothing and says where it is
    wrong.
    """
    place = _place(request.form.get("place", ""))
    if place is None:
        return redirect(url_for("room.new"))
    text = request.form.get("text", "")
    upload = request.files.get("file")
    if upload is not None and upload.filename:
        try:
            text = upload.read().decode("utf-8")
        except UnicodeDecodeError:
            return _page(place, "", None, tr("The file is not UTF-8 text, so it is no kit."))
    try:
        if not text.strip():
            raise InputError("file", "nothing", Said("choose a file or paste its text"))
        document: Any = load_json(text)
        if request.form.get("action") == "import":
            usecases.import_kit(connection(), trainer(), place.id, document, now=now())
            return redirect(url_for("room.show", place_id=place.id))
        plan = usecases.plan_import(connection(), trainer(), place.id, document)
    except InputError as error:
        return _page(
            place,
            text,
            None,
            f"{error.where}: {str(error.value)[:60]} is not taken; {say(error.allowed)}.",
        )
    return _page(place, text, plan, "")
