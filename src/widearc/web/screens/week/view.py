"""Week: a client's days and slots, what they cover, what is found, the sheet that goes along."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date, timedelta
from typing import Any

from flask import Blueprint, Response, current_app, flash, redirect, request, session, url_for
from flask.typing import ResponseReturnValue

from widearc import store, usecases
from widearc.core.coverage import GROUPS, WEEKDAYS
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.muscle import NAMES
from widearc.core.progression.rules import RULE_WORDS
from widearc.core.words import Said
from widearc.usecases.week import answers, plans, presets
from widearc.usecases.week import calendar as calendars
from widearc.usecases.week.coverage import WeekView, week_view
from widearc.usecases.week.doing import next_week as make_next
from widearc.usecases.week.doing import proposals, start_day
from widearc.web.db import connection, held, now, trainer
from widearc.web.drawing.coverage import rows_of
from widearc.web.forms.typed import Texts, integer, known_id
from widearc.web.gate import in_turn
from widearc.web.page import rendered
from widearc.web.screens.week.choices import by_shelf, slot_typed
from widearc.web.screens.week.sheet import sheet_values
from widearc.web.screens.week.wants import (
    as_asked,
    ask_at,
    asked_of,
    wanted_by,
    words_of,
)
from widearc.web.words.refused import not_used, sentence
from widearc.web.words.rungs import rung_words
from widearc.web.words.words import piece_words
from widearc.words import tr

blueprint = Blueprint("week", __name__, url_prefix="/week")

WEEKS_BACK, WEEKS_ON = 8, 5


@blueprint.get("/")
@in_turn
def show() -> ResponseReturnValue:
    """Show a client's week, or a template."""
    if not held().places or not held().clients:
        return redirect(url_for("home.show"))
    return _page(request.args)


def _client(source: Mapping[str, str]) -> store.ClientRow:
    clients = held().clients
    if not clients:
        raise InputError("client", source.get("client"), Said("a client of the list"))
    known = [c.id for c in clients]
    found = known_id(source.get("client") or str(session.get("client", "")), known) or known[0]
    session["client"] = found
    return held().client(found)


def _monday(source: Mapping[str, str]) -> str:
    return plans.monday_of(source.get("monday") or now())


def _place() -> int:
    places = held().places
    if not places:
        raise InputError("place", None, Said("a place of the list"))
    return known_id(str(session.get("place", "")), [p.id for p in places]) or places[0].id


def _week(source: Mapping[str, str]) -> store.WeekRow | None:
    template = integer(source, "template", 0, what=tr("a whole number"))
    if template:
        return plans.week_row(connection(), trainer(), template)
    return store_week(_client(source).id, _monday(source))


def store_week(client_id: int, monday: str) -> store.WeekRow | None:
    """Return a client's week, None where none is planned."""
    return plans.planned_week(connection(), trainer(), client_id, monday)


def _mondays() -> list[str]:
    first = date.fromisoformat(plans.monday_of(now()))
    return [(first + timedelta(weeks=n)).isoformat() for n in range(WEEKS_ON, -WEEKS_BACK - 1, -1)]


def _today() -> date:
    return date.fromisoformat(now()[:10])


def _view(week: store.WeekRow) -> WeekView:
    memo = current_app.extensions["memo"]
    return week_view(connection(), trainer(), week, memo, today=_today(), held=held())


def _page(
    source: Mapping[str, str],
    messages: Mapping[str, str] | None = None,
    *,
    slot: int = 0,
    day: int = 0,
) -> str:
    week = _week(source)
    view = None if week is None else _view(week)
    template = "week/_answer.html" if request.headers.get("X-Part") else "week/show.html"
    return rendered(
        template,
        view=view,
        places=held().places,
        place_id=_place(),
        weekdays=WEEKDAYS,
        muscle_names=NAMES,
        exercises=EXERCISES,
        groups=by_shelf(),
        kinds=plans.KINDS,
        rules=RULE_WORDS,
        intents=held().intents,
        wanted_words=words_of,
        presets=[(id_, words) for id_, (words, _) in presets.PRESETS.items()],
        piece_words=piece_words,
        messages=Texts(messages or {}),
        open=slot,
        open_day=day,
        here=_here(source),
        **_drawn(view),
        **_whose(source, week),
    )


def _drawn(view: WeekView | None) -> dict[str, Any]:
    """Return the map of a week, and its days by name."""
    if view is None:
        return {"rows": (), "day_names": {}}
    return {
        "rows": rows_of(GROUPS, view.planned, view.done, view.missed),
        "day_names": {d.row.id: WEEKDAYS[d.row.weekday] for d in view.days},
    }


def _whose(source: Mapping[str, str], week: store.WeekRow | None) -> dict[str, Any]:
    """Return of whom and when a week is, and what may be chosen instead."""
    client, monday = _client(source), _monday(source)
    every = plans.every_week(connection(), trainer())
    mondays = sorted({*_mondays(), monday}, reverse=True)
    scope = f"client:{client.id}" if week is None else plans.scope(week.id)
    return {
        "client": client,
        "clients": held().clients,
        "monday": monday,
        "mondays": mondays,
        "templates": [w for w in every if w.monday is None],
        "template_id": week.id if week is not None and week.monday is None else 0,
        "before": any(w.client_id == client.id and (w.monday or "") < monday for w in every),
        "decisions": _decisions(client.id),
        "change": held().last_change(scope),
    }


def _decisions(client_id: int) -> list[store.DecisionRow]:
    """Return a client's newest stand-ins that can be done as they were set up."""
    return [d for d in held().decisions if d.client_id == client_id and d.scenario][:8]


def _here(source: Mapping[str, str]) -> str:
    kept = ("client", "monday", "template")
    query: dict[str, Any] = {k: source[k] for k in kept if source.get(k)}
    return url_for("week.show", **query)


def _back() -> ResponseReturnValue:
    return redirect(_here(request.form))


def _refused(error: InputError, *, slot: int = 0, day: int = 0) -> ResponseReturnValue:
    return _page(request.form, {error.where: not_used(error)}, slot=slot, day=day), 422


@blueprint.post("/begin")
@in_turn
def begin() -> ResponseReturnValue:
    """Begin a client's week: empty, ready, from a template or from the week before."""
    form, con, who = request.form, connection(), trainer()
    client, monday = _client(form), _monday(form)
    place = known_id(form.get("place", ""), [p.id for p in held().places]) or _place()
    preset = form.get("preset", "")
    if preset == "before":
        return redirect(url_for("week.next_week", week_id=_before(client.id, monday).id))
    if preset.startswith("template-"):
        which = integer({"t": preset.removeprefix("template-")}, "t", 0, what=tr("a template"))
        plans.copy_week(con, who, which, client_id=client.id, monday=monday, now=now())
        return _back()
    presets.begin(con, who, client.id, monday, preset, place, now=now())
    return _back()


def _before(client_id: int, monday: str) -> store.WeekRow:
    every = plans.every_week(connection(), trainer())
    weeks = [w for w in every if w.client_id == client_id and (w.monday or "") < monday]
    if not weeks:
        raise InputError("preset", "before", Said("a week that was planned before"))
    return max(weeks, key=lambda w: w.monday or "")


@blueprint.post("/<int:week_id>/day")
def add_day(week_id: int) -> ResponseReturnValue:
    """Put a day on a week, or say where and when it is."""
    form, what = request.form, tr("a whole number")
    try:
        plans.add_day(
            connection(),
            trainer(),
            week_id,
            integer(form, "weekday", 0, what=what),
            integer(form, "place", 0, what=what),
            starts_at=form.get("starts_at", "09:00").strip(),
            now=now(),
        )
    except InputError as error:
        return _refused(error)
    return _back()


@blueprint.post("/day/<int:day_id>")
def day_action(day_id: int) -> ResponseReturnValue:
    """Copy a day to another weekday, or take it off."""
    form = request.form
    try:
        if form.get("action") == "remove":
            plans.remove_day(connection(), trainer(), day_id, now=now())
        else:
            weekday = integer(form, "weekday", 0, what=tr("a whole number"))
            plans.copy_day(connection(), trainer(), day_id, weekday, now=now())
    except InputError as error:
        return _refused(error, day=day_id)
    return _back()


@blueprint.post("/day/<int:day_id>/add")
@in_turn
def add(day_id: int) -> ResponseReturnValue:
    """Put an exercise, a kept stand-in, or what answers an intent on a day."""
    chosen = request.form.get("exercise", "")
    try:
        if chosen.startswith("decision-"):
            id_ = integer({"d": chosen[9:]}, "d", 0, what=tr("a kept decision"))
            plans.add_decision(connection(), trainer(), day_id, id_, now=now())
        elif chosen.startswith("intent-"):
            _add_intent(day_id, integer({"i": chosen[7:]}, "i", 0, what=tr("a kept intent")))
        else:
            memo = current_app.extensions["memo"]
            plans.add_exercise(connection(), trainer(), day_id, chosen, now=now(), memo=memo)
    except InputError as error:
        return _refused(error, day=day_id)
    return _back()


def _add_intent(day_id: int, intent_id: int) -> None:
    con, who, memo = connection(), trainer(), current_app.extensions["memo"]
    wanted = wanted_by(intent_id)
    ask = ask_at(plans.day_row(con, who, day_id), wanted)
    answers.add_wanted(con, who, day_id, ask, as_asked(wanted), memo, now=now())


@blueprint.post("/slot/<int:slot_id>")
@in_turn
def change(slot_id: int) -> ResponseReturnValue:
    """Keep what a slot is, choose what answers it again, copy or move it, or take it off."""
    form, con, who = request.form, connection(), trainer()
    row, action = plans.slot_row(con, who, slot_id), form.get("action", "keep")
    try:
        if action == "keep":
            plans.change_slot(con, who, slot_typed(row, form), now=now())
        elif action == "copy":
            plans.copy_slot(con, who, slot_id, now=now())
        elif action == "again":
            _again(row)
        elif action == "remove":
            week = plans.day_row(con, who, row.day_id).week_id
            plans.remove_slots(con, who, week, [slot_id], now=now())
        else:
            _move(row, action)
    except InputError as error:
        return _refused(error, slot=slot_id)
    return _back()


def _again(row: store.SlotRow) -> None:
    con, who, memo = connection(), trainer(), current_app.extensions["memo"]
    ask = ask_at(plans.day_row(con, who, row.day_id), asked_of(row))
    answers.choose_again(con, who, row.id, ask, memo, now=now())


def _move(row: store.SlotRow, action: str) -> None:
    con, who = connection(), trainer()
    steps = {"earlier": -1, "later": 1}
    if action in steps:
        at = max(0, row.position + steps[action])
        plans.move_slot(con, who, row.id, row.day_id, at, now=now())
        return
    day = integer({"day": action.removeprefix("to-")}, "day", 0, what=tr("a day of the week"))
    plans.move_slot(con, who, row.id, day, plans.MOST_SLOTS, now=now())


@blueprint.post("/slot/<int:slot_id>/move")
def move(slot_id: int) -> ResponseReturnValue:
    """Put a slot that was dragged where it was dropped."""
    what = tr("a whole number")
    day = integer(request.form, "day", 0, what=what)
    position = integer(request.form, "position", 0, what=what)
    plans.move_slot(connection(), trainer(), slot_id, day, position, now=now())
    return _back()


@blueprint.post("/<int:week_id>/remedy")
@in_turn
def remedy(week_id: int) -> ResponseReturnValue:
    """Do what mends a finding: put an exercise on a day, or move what is there."""
    week = plans.week_row(connection(), trainer(), week_id)
    exercise, memo = request.form.get("exercise", ""), current_app.extensions["memo"]
    if exercise:
        day = integer(request.form, "day", 0, what=tr("a whole number"))
        plans.add_exercise(connection(), trainer(), day, exercise, now=now(), memo=memo)
        return _back()
    named = request.form.get("finding", "")
    mend = next((f.mend for f in _view(week).findings if f.finding.id == named and f.mend), None)
    if mend is None:
        raise InputError("finding", named[:40], Said("a finding of this week that can be mended"))
    plans.take_mend(connection(), trainer(), week_id, mend, now=now())
    return _back()


@blueprint.post("/<int:week_id>/aside")
def aside(week_id: int) -> ResponseReturnValue:
    """Set a finding aside, because."""
    form = request.form
    finding, reason = form.get("finding", ""), form.get("reason", "")
    try:
        plans.set_finding_aside(connection(), trainer(), week_id, finding, reason, now=now())
    except InputError as error:
        return _refused(error)
    return _back()


@blueprint.post("/<int:week_id>/take-up")
def take_up(week_id: int) -> ResponseReturnValue:
    """Take a finding up again."""
    finding = request.form.get("finding", "")
    plans.set_finding_aside(connection(), trainer(), week_id, finding, None, now=now())
    return _back()


@blueprint.post("/day/<int:day_id>/drop")
@in_turn
def drop(day_id: int) -> ResponseReturnValue:
    """Leave out of a day what does not fit into forty minutes."""
    con, who = connection(), trainer()
    day = plans.day_row(con, who, day_id)
    view = _view(plans.week_row(con, who, day.week_id))
    gone = [s.row.id for d in view.days if d.row.id == day_id for s in d.drop]
    plans.remove_slots(con, who, day.week_id, gone, now=now())
    return _back()


@blueprint.post("/<int:week_id>/copy")
def copy(week_id: int) -> ResponseReturnValue:
    """Copy a week to another client or monday, or keep it as a template."""
    form, con, who = request.form, connection(), trainer()
    try:
        if form.get("action") == "template":
            name = form.get("name", "")
            made = plans.copy_week(
                con, who, week_id, client_id=None, monday=None, name=name, now=now()
            )
            return redirect(url_for("week.show", template=made))
        client = integer(form, "to_client", 0, what=tr("a client of the list"))
        monday = form.get("to", "")
        plans.copy_week(con, who, week_id, client_id=client, monday=monday, now=now())
    except InputError as error:
        return _refused(error)
    return redirect(url_for("week.show", client=client, monday=monday))


@blueprint.post("/<int:week_id>/remove")
def remove(week_id: int) -> ResponseReturnValue:
    """Remove a week."""
    plans.remove_week(connection(), trainer(), week_id, now=now())
    query = {k: request.form[k] for k in ("client", "monday") if request.form.get(k)}
    return redirect(url_for("week.show", **query))  # type: ignore[arg-type]


@blueprint.post("/day/<int:day_id>/start")
@in_turn
def start(day_id: int) -> ResponseReturnValue:
    """Begin the session of a planned day."""
    made, left = start_day(connection(), trainer(), day_id, now=now())
    if left:
        flash(", ".join(tr(name) for name in left))
    return redirect(url_for("floor.show", session_id=made))


@blueprint.route("/<int:week_id>/next", methods=["GET", "POST"])
@in_turn
def next_week(week_id: int) -> ResponseReturnValue:
    """Show what the rules propose for the next week, and make it from what is agreed to."""
    con, who = connection(), trainer()
    week = plans.week_row(con, who, week_id)
    memo = current_app.extensions["memo"]
    found = proposals(con, who, week, memo, today=_today())
    messages = Texts()
    if request.method == "POST":
        agreed = {int(text) for text in request.form.getlist("agreed") if text.isdigit()}
        try:
            made = make_next(con, who, week, agreed, found, now=now())
            row = plans.week_row(con, who, made)
            return redirect(url_for("week.show", client=row.client_id, monday=row.monday))
        except InputError as error:
            messages[error.where] = not_used(error)
    page = rendered(
        "week/next.html",
        week=week,
        found=found,
        exercises=EXERCISES,
        rung_words=rung_words,
        sentence=sentence,
        messages=messages,
    )
    return page, 422 if messages else 200


@blueprint.get("/<int:week_id>.ics")
@in_turn
def calendar(week_id: int) -> ResponseReturnValue:
    """Send a client's week as a calendar file."""
    view = _view(plans.week_row(connection(), trainer(), week_id))
    zone = usecases.time_zone(connection(), trainer())
    text = calendars.calendar_of(
        view,
        zone or "",
        now=now(),
        address=lambda day: url_for("week.sheet", week_id=week_id, day=day.row.id, _external=True),
    )
    headers = {"Content-Disposition": "attachment; filename=week.ics"}
    return Response(text, mimetype=calendars.MIME, headers=headers)


@blueprint.get("/<int:week_id>/sheet")
@in_turn
def sheet(week_id: int) -> ResponseReturnValue:
    """Show the sheet that goes along: a page a day, or one day's; with `file`, as a file by
    itself.
    """
    view = _view(plans.week_row(connection(), trainer(), week_id))
    only = integer(request.args, "day", 0, what=tr("a whole number"))
    days = [d for d in view.days if only in (0, d.row.id) and d.slots]
    values = sheet_values(view, days, alone=bool(request.args.get("file")))
    page = rendered("week/sheet.html", **values)
    if not request.args.get("file"):
        return page
    headers = {"Content-Disposition": "attachment; filename=week.html"}
    return Response(page, mimetype="text/html", headers=headers)
