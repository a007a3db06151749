"""A client's record at the desk: sets typed later in a grid, and a log that comes in as CSV."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, time, timedelta

from flask import Blueprint, redirect, request, session, url_for
from flask.typing import ResponseReturnValue

from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.units import LB_KG
from widearc.usecases.floor import imported, typed
from widearc.web.db import connection, held, now, trainer
from widearc.web.forms.typed import Texts, known_id
from widearc.web.page import rendered
from widearc.web.units import typed_in
from widearc.web.words.refused import not_used
from widearc.web.zone import day_of, zone
from widearc.words import spoken, tell, tr

blueprint = Blueprint("record", __name__, url_prefix="/clients/<int:client_id>")

ROWS = 18
CELLS = ("exercise", "load", "side", "reps", "reserve", "note")
SHOWN_ROWS, SHOWN_ERRORS = 8, 25


@dataclass(frozen=True, slots=True, kw_only=True)
class GridRow:
    """A row of the grid: what was typed, what is offered in its place, and what is refused."""

    typed: Mapping[str, str]
    offered: Mapping[str, str]
    problems: Mapping[str, str]


@blueprint.get("/sets")
def grid(client_id: int) -> ResponseReturnValue:
    """Show the grid, with what was done last time."""
    return _grid(client_id, {}, {})


@blueprint.post("/sets")
def keep(client_id: int) -> ResponseReturnValue:
    """Keep the rows that say reps; all of them or none."""
    problems: dict[str, str] = {}
    rows = _typed_rows(client_id, problems)
    if not problems and not rows:
        problems["reps-0"] = tr("One row at least says how many reps.")
    if not problems:
        try:
            typed.keep_rows(connection(), trainer(), client_id, rows, now=now())
        except typed.RowsError as error:
            problems = {f"{_cell(e.where)}-{row}": not_used(e) for row, e in error.errors}
    if problems:
        return _grid(client_id, request.form, problems), 422
    return redirect(url_for("clients.over_time", client_id=client_id))


def _cell(where: str) -> str:
    return where if where in CELLS else "exercise"


def _grid(client_id: int, source: Mapping[str, str], problems: Mapping[str, str]) -> str:
    row = held().client(client_id)
    offered = _offered(client_id)
    rows = [
        GridRow(
            typed=Texts({name: source.get(f"{name}-{i}", "") for name in CELLS}),
            offered=Texts(offered[i] if i < len(offered) else {}),
            problems=Texts({name: problems.get(f"{name}-{i}", "") for name in CELLS}),
        )
        for i in range(ROWS)
    ]
    return rendered(
        "clients/sets.html",
        row=row,
        rows=rows,
        places=held().places,
        place_id=known_id(source.get("place", ""), [p.id for p in held().places]) or _here(),
        day=source.get("day", "") or day_of(now()),
        problem=problems.get("day", "") or problems.get("place", ""),
        exercises=[e for e in EXERCISES.values() if e.has_curve],
        unit="lb" if spoken().units == "imperial" else "kg",
    )


def _here() -> int | None:
    return known_id(str(session.get("place", "")), [p.id for p in held().places])


def _offered(client_id: int) -> list[dict[str, str]]:
    per = LB_KG if spoken().units == "imperial" else 1.0
    return [
        {
            "exercise": tr(EXERCISES[o.exercise].name),
            "load": "" if o.load_kg is None else format(round(o.load_kg / per, 2), "g"),
            "side": "" if o.side == "both" else tr(o.side),
            "reps": str(o.reps),
            "reserve": "" if o.reserve is None else str(o.reserve),
        }
        for o in typed.offered_rows(connection(), trainer(), client_id, ROWS)
    ]


def _typed_rows(client_id: int, problems: dict[str, str]) -> list[typed.TypedSet]:
    """Return the rows that say reps. A cell left empty is what was offered in it, else what the row
    above says; problems: what is refused, by cell.
    """
    form = request.form
    held().client(client_id)
    place = known_id(form.get("place", ""), [p.id for p in held().places])
    if place is None:
        problems["place"] = tr("Choose a place of the list.")
    noon = _noon(form.get("day", ""), problems)
    offered = _offered(client_id)
    found: list[typed.TypedSet] = []
    above: dict[str, str] = {}
    for i in range(ROWS):
        cells = {name: form.get(f"{name}-{i}", "").strip() for name in CELLS}
        if not cells["reps"]:
            if any(cells.values()):
                problems[f"reps-{i}"] = tr("How many reps?")
            continue
        cells = _completed(cells, offered[i] if i < len(offered) else {}, above)
        above = cells
        try:
            found.append(_set_of(i, cells, place or 0, noon + timedelta(minutes=len(found))))
        except InputError as error:
            problems[f"{error.where}-{i}"] = not_used(error)
    return found


def _completed(
    cells: Mapping[str, str], offered: Mapping[str, str], above: Mapping[str, str]
) -> dict[str, str]:
    """Return a row with its empty cells filled: from the offer for the same exercise, else from
    above.
    """
    done = dict(cells)
    done["exercise"] = cells["exercise"] or offered.get("exercise", "") or above.get("exercise", "")
    for source in (offered, above):
        if source.get("exercise", "").casefold() == done["exercise"].casefold():
            for name in ("load", "side"):
                done[name] = done[name] or source.get(name, "")
    return done


def _noon(day: str, problems: dict[str, str]) -> datetime:
    try:
        there = date.fromisoformat(day.strip())
        if not 1970 <= there.year <= 2100:
            raise ValueError
    except ValueError:
        problems["day"] = tr("A date such as 2026-11-24.")
        there = date(2000, 1, 1)
    return datetime.combine(there, time(12), tzinfo=zone()).astimezone(UTC)


def _set_of(i: int, cells: Mapping[str, str], place: int, at: datetime) -> typed.TypedSet:
    """Return a row as a set. InputError names the cell."""
    how = imported.Reading(
        columns={},
        order="dmy",
        unit="lb" if typed_in().units == "imperial" else "kg",
        place_id=place,
        zone=zone(),
    )
    cell = {**cells, "date": at.isoformat(timespec="seconds")}
    side = cells.get("side", "").casefold()
    for name in ("left", "right"):
        if side == tr(name).casefold():
            cell["side"] = name
    return replace(imported.row_of(i, cell, how), row=i)


@blueprint.get("/import")
def bring(client_id: int) -> ResponseReturnValue:
    """Show where a log can come in."""
    return _bring(client_id, "", {})


@blueprint.post("/import")
def brought(client_id: int) -> ResponseReturnValue:
    """Look at a log, or keep all of it."""
    upload = request.files.get("file")
    text = request.form.get("csv", "")
    if upload is not None and upload.filename:
        try:
            text = upload.read().decode("utf-8-sig")
        except UnicodeDecodeError:
            return _bring(client_id, "", {"csv": tr("A text file in UTF-8.")}), 422
    try:
        table = imported.table_of(text)
    except InputError as error:
        return _bring(client_id, text, {"csv": not_used(error)}), 422
    how = _reading(table)
    places = {p.name: p.id for p in held().places}
    problems: dict[str, str] = {}
    errors: Sequence[tuple[int, InputError]] = ()
    rows: tuple[typed.TypedSet, ...] = ()
    try:
        rows = imported.rows_of(table, how, places)
        if request.form.get("action") == "keep":
            typed.keep_rows(connection(), trainer(), client_id, rows, now=now())
            return redirect(url_for("clients.over_time", client_id=client_id))
    except typed.RowsError as error:
        errors = error.errors
    except InputError as error:
        problems[error.where] = not_used(error)
    page = _bring(client_id, text, problems, table=table, how=how, rows=rows, errors=errors)
    return page, 422 if problems or errors else 200


def _reading(table: imported.Table) -> imported.Reading:
    """Return how the table is read: as chosen, else as its header says."""
    form = request.form
    guessed = imported.guessed(table.header)
    columns = {}
    for field in imported.COLUMNS:
        chosen = form.get(f"column-{field}")
        at = guessed.get(field) if chosen is None else known_id(chosen, range(len(table.header)))
        if at is not None:
            columns[field] = at
    place = known_id(form.get("place", ""), [p.id for p in held().places]) or _here()
    unit = form.get("unit", "") or imported.unit_of(table.header, columns)
    return imported.Reading(
        columns=columns,
        order=form.get("order", "dmy") if form.get("order") in imported.ORDERS else "dmy",
        unit=unit if unit in ("kg", "lb") else "kg",
        place_id=place or (held().places[0].id if held().places else 0),
        zone=zone(),
    )


def _bring(
    client_id: int,
    text: str,
    problems: Mapping[str, str],
    *,
    table: imported.Table | None = None,
    how: imported.Reading | None = None,
    rows: Sequence[typed.TypedSet] = (),
    errors: Sequence[tuple[int, InputError]] = (),
) -> str:
    known = typed.kept_before(connection(), trainer(), client_id, rows) if rows else ()
    return rendered(
        "clients/import.html",
        row=held().client(client_id),
        text=text,
        table=table,
        how=how,
        rows=rows[:SHOWN_ROWS],
        number=len(rows),
        known=len(known),
        errors=[(line, _told(error)) for line, error in errors[:SHOWN_ERRORS]],
        more=max(0, len(errors) - SHOWN_ERRORS),
        places=held().places,
        place_names={p.id: p.name for p in held().places},
        exercises=EXERCISES,
        columns=imported.COLUMNS,
        orders=imported.ORDERS,
        needed=imported.NEEDED,
        most=typed.MOST_ROWS,
        problems=Texts(problems),
    )


def _told(error: InputError) -> str:
    words = imported.COLUMNS.get(error.where, (error.where, ()))[0]
    return tell("{column}: {why}", column=tr(words), why=not_used(error))
