"""Clients: who is trained, what their body allows, and the rule that each fact drives."""

from __future__ import annotations

from collections.abc import Mapping

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
from widearc.core.exercises import EXERCISES
from widearc.core.muscle import NAMES
from widearc.usecases.client import history
from widearc.usecases.client.client import EXPERIENCE, GOAL_SETS, GOALS, SORE_JOINTS, TAPES
from widearc.usecases.client.over_time import trends
from widearc.usecases.floor.log import log_csv, sessions_of
from widearc.web.db import connection, held, now, trainer
from widearc.web.download import sent
from widearc.web.drawing.strip import strip_alone
from widearc.web.drawing.trend import trend_plot
from widearc.web.drawing.weeks import bars, width
from widearc.web.forms.fields import Sheet
from widearc.web.forms.typed import Texts, integer
from widearc.web.page import rendered
from widearc.web.screens.client.sheet import CELLS, facts_of, kept_sheet, measure, typed_sheet
from widearc.web.words.refused import not_used
from widearc.words import tr

blueprint = Blueprint("clients", __name__, url_prefix="/clients")


@blueprint.get("/")
def listed() -> ResponseReturnValue:
    """List the clients with what is known of them."""
    rows = held().clients
    change = held().last_change("clients")
    return rendered(
        "clients/list.html", rows=rows, change=change, goals=GOALS, experience=EXPERIENCE
    )


@blueprint.get("/new")
def new() -> ResponseReturnValue:
    """Show an empty sheet."""
    return _shown(None, kept_sheet(None))


@blueprint.get("/<int:client_id>")
def show(client_id: int) -> ResponseReturnValue:
    """Show a client's sheet."""
    row = held().client(client_id)
    session["client"] = client_id
    return _shown(row, kept_sheet(row))


def _shown(
    row: store.ClientRow | None, sheet: Sheet, measured: dict[str, str] | None = None
) -> ResponseReturnValue:
    page = rendered(
        "clients/sheet.html",
        row=row,
        sheet=sheet,
        messages=sheet.messages,
        measured=Texts(measured or {}),
        goal_sets=GOAL_SETS,
        tapes=tuple(TAPES),
        sore=tuple(f"sore-{joint}" for joint in SORE_JOINTS),
        change=held().last_change("clients"),
        sets=[(s, strip_alone(s.strip)) for s in held().strength_sets(row.id) if s.id]
        if row
        else [],
        strength=usecases.strength_of(connection(), trainer(), row.id) if row else {},
    )
    return page, 422 if sheet.messages else 200


@blueprint.get("/<int:client_id>/time")
def over_time(client_id: int) -> ResponseReturnValue:
    """Show a client's strength and volume over time."""
    return _time(client_id, {})


def _time(client_id: int, problems: Mapping[str, str]) -> str:
    """Return the page of a client over time."""
    row, con = held().client(client_id), connection()
    found = trends(con, trainer(), client_id, now=now())
    past = history.history_of(con, trainer(), client_id, found, now=now())
    profiles = past.profiles
    return rendered(
        "clients/time.html",
        row=row,
        trends=[(trend, trend_plot(trend)) for trend in found],
        weeks=[(m, bars(m.sets, m.thirds, past.most_sets)) for m in past.muscles],
        most=past.most_sets,
        profiles=profiles,
        profile_bars=bars([float(n > 0) for n in profiles.sets], profiles.weeks, 1.0),
        wide=width(history.WEEKS),
        felt=past.felt,
        due=past.due,
        notes=past.notes,
        exercises=EXERCISES,
        sessions=sessions_of(con, trainer(), client_id),
        muscle_names=NAMES,
        problems=Texts(dict(problems)),
        typed=request.form.get("words", ""),
        change=held().last_change("sessions"),
    )


@blueprint.post("/<int:client_id>/notes")
def note(client_id: int) -> ResponseReturnValue:
    """Keep a note, or remove one."""
    gone = integer(request.form, "remove", 0, what=tr("a note of the list"))
    if gone:
        history.remove_note(connection(), trainer(), gone, now=now())
        return redirect(url_for("clients.over_time", client_id=client_id))
    try:
        history.note(connection(), trainer(), client_id, request.form.get("words", ""), now=now())
    except InputError as error:
        return _time(client_id, {"words": not_used(error)}), 422
    return redirect(url_for("clients.over_time", client_id=client_id))


@blueprint.get("/<int:client_id>/log.csv")
def log(client_id: int) -> ResponseReturnValue:
    """Send every set of a client as CSV, SI."""
    row = held().client(client_id)
    return sent(log_csv(connection(), trainer(), client_id), f"log {row.name}", "csv")


@blueprint.post("/")
@blueprint.post("/<int:client_id>")
def save(client_id: int | None = None) -> ResponseReturnValue:
    """Keep a client's sheet, or work a joint's limit out of what was measured and keep nothing
    yet.
    """
    row = None if client_id is None else held().client(client_id)
    sheet = typed_sheet(request.form, row)
    step = request.form.get("action", "").removeprefix("measure-")
    if step in CELLS:
        said = measure(sheet, step)
        return _shown(row, sheet, {step: said} if said else None)
    try:
        facts = facts_of(sheet)
        if row is None:
            client_id = usecases.new_client(connection(), trainer(), facts, now=now())
        else:
            usecases.change_client(connection(), trainer(), row.id, facts, now=now())
    except usecases.SheetError as error:
        sheet.refuse(error.messages)
        return _shown(row, sheet)
    session["client"] = client_id
    return redirect(url_for("clients.listed"))


@blueprint.post("/<int:client_id>/remove")
def remove(client_id: int) -> ResponseReturnValue:
    """Remove a client; undo brings everything back."""
    usecases.remove_client(connection(), trainer(), client_id, now=now())
    return redirect(url_for("clients.listed"))


@blueprint.post("/set/<int:set_id>/remove")
def remove_set(set_id: int) -> ResponseReturnValue:
    """Remove a logged set; undo brings it back."""
    client_id = usecases.remove_set(connection(), trainer(), set_id, now=now())
    return redirect(url_for("clients.show", client_id=client_id))
