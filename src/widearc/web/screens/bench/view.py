"""Bench: weigh a band once, then trust it."""

from __future__ import annotations

from datetime import date
from typing import Any

from flask import (
    Blueprint,
    redirect,
    request,
    url_for,
)
from flask.typing import ResponseReturnValue

from widearc import store, usecases
from widearc.core.equipment import kind_of
from widearc.core.errors import InputError
from widearc.core.units import FORCE_N, LENGTH_M
from widearc.core.words import Count
from widearc.formats import ReadingRow, read_readings, write_readings
from widearc.formats.readings import row_of
from widearc.usecases.bench.bands import (
    LAWS,
    band_checks,
    band_uses,
    check_band,
    gives_back,
    pairs_of,
    parse_rows,
    shown_row,
)
from widearc.usecases.room.kit import badge_of
from widearc.usecases.room.room import scope
from widearc.usecases.sheet import SheetError
from widearc.web.db import connection, held, now, trainer
from widearc.web.download import sent
from widearc.web.drawing.fit import fit_chart
from widearc.web.forms.fields import Sheet
from widearc.web.forms.typed import Texts, number
from widearc.web.page import rendered
from widearc.web.screens.bench.sheet import band_numbers
from widearc.web.words.refused import not_kept
from widearc.words import sign_of, tell, tr

blueprint = Blueprint("bench", __name__, url_prefix="/bench")


SPARE_ROWS = 3
LOOK_AGAIN_DAYS = 90  # common practice, no source
TOLD = ("heel wedge", "pad")  # nothing is fitted, but their sheet says what they come to
FIELDS = ("length_unit", "force_unit", "shape", "strands", "law", "looked")


@blueprint.get("/")
def bands() -> ResponseReturnValue:
    """List what can be weighed in every place, with what is known of it."""
    return _listed({}, {})


def _listed(typed: dict[str, str], messages: dict[str, str]) -> ResponseReturnValue:
    places = held().places
    listed = [(place, _weighed(place.id)) for place in places]
    page = rendered(
        "bench/list.html",
        listed=listed,
        places=places,
        typed=Texts(typed),
        messages=Texts(messages),
    )
    return page, 422 if messages else 200


def _weighed(place_id: int) -> list[dict[str, Any]]:
    """Return a place's items that a scale, tape or level tells something of."""
    rows = []
    read = held().readings_of(place_id)
    for item in held().items(place_id):
        kind = kind_of(item.kind)
        if item.kind != "band" and not kind.fit and item.kind not in TOLD:
            continue
        count = read.get(item.id, 0)
        rows.append({"item": item, "kind": kind, "count": count, "badge": badge_of(item, count)})
    return sorted(
        rows, key=lambda r: (r["kind"].id != "band", r["badge"] == "measured", r["item"].name)
    )


@blueprint.post("/")
def add() -> ResponseReturnValue:
    """Add a band without readings and open its sheet."""
    typed = request.form.to_dict()
    try:
        place = int(number(typed, "place", 0, what=tr("a place of the list")))
        facts = usecases.ItemFacts(
            kind="band",
            name=typed.get("name", ""),
            zone=typed.get("zone", ""),
            quantities={},
            sources={},
            shape=typed.get("shape", ""),
        )
        item = usecases.add_item(connection(), trainer(), place, facts, now=now())
    except usecases.SheetError as error:
        return _listed(typed, error.messages)
    return redirect(url_for("bench.band", item_id=item))


@blueprint.get("/item/<int:item_id>")
def item(item_id: int) -> ResponseReturnValue:
    """Open an item's sheet, whatever its kind."""
    row = held().item(item_id)
    name = "bench.band" if row.kind == "band" else "machine.show"
    return redirect(url_for(name, item_id=item_id))


@blueprint.get("/band/<int:item_id>")
def band(item_id: int) -> ResponseReturnValue:
    """Show a band's sheet."""
    sheet = usecases.band_sheet(connection(), trainer(), item_id)
    length_unit, force_unit = (
        _unit("length_unit", LENGTH_M, sign_of("cm")),
        _unit("force_unit", FORCE_N, sign_of("N")),
    )
    rows = [shown_row(r, length_unit, force_unit) for r in sheet.readings]
    typed = {
        "length_unit": length_unit,
        "force_unit": force_unit,
        "shape": sheet.item.shape,
        "strands": str(sheet.item.strands),
        "law": sheet.item.law,
        "looked": sheet.item.looked_over_on or "",
    }
    return _sheet(sheet, typed, rows, band_numbers(length_unit, None, _kept(sheet)))


def _kept(sheet: usecases.BandSheet) -> dict[str, float | None]:
    return {"rest": sheet.item.rest_m, "back": sheet.item.back_share}


def _unit(name: str, known: Any, default: str) -> str:
    unit = request.args.get(name, default)
    return unit if unit in known else default


@blueprint.post("/band/<int:item_id>")
def save(item_id: int) -> ResponseReturnValue:
    """Keep a band's readings, or show at each row what is wrong with everything as it was typed."""
    form = request.form
    if form.get("action") == "check":
        return _check(item_id)
    pairs = list(zip(form.getlist("length"), form.getlist("force"), strict=False))
    typed = {name: form.get(name, "") for name in FIELDS}
    sheet = usecases.band_sheet(connection(), trainer(), item_id)
    numbers = band_numbers(typed["length_unit"], form, _kept(sheet))
    try:
        numbers.settled()
        back = numbers.value("back")
        if form.get("action") == "import":
            rows, read_back = _import(form.get("csv", ""))
            back = back if read_back is None else read_back
        else:
            rows = parse_rows(pairs, typed["length_unit"], typed["force_unit"], sheet.readings)
        usecases.save_band(
            connection(),
            trainer(),
            item_id,
            rows=rows,
            rest_m=numbers.value("rest"),
            strands=int(typed["strands"]) if typed["strands"] in ("1", "2") else 0,
            shape=typed["shape"],
            law=typed["law"],
            back_share=back,
            looked_over_on=typed["looked"].strip() or None,
            now=now(),
        )
    except SheetError as error:
        numbers.refuse(error.messages)
        return _sheet(sheet, typed, pairs, numbers, csv=form.get("csv", "")), 422
    units: dict[str, Any] = {"length_unit": typed["length_unit"], "force_unit": typed["force_unit"]}
    return redirect(url_for("bench.band", item_id=item_id, **units))


def _check(item_id: int) -> ResponseReturnValue:
    """Keep one check reading; what else was typed on the sheet is not touched by it."""
    form = request.form
    try:
        check_band(
            connection(),
            trainer(),
            item_id,
            form.get("check_length", ""),
            form.get("check_force", ""),
            form.get("length_unit", ""),
            form.get("force_unit", ""),
            now=now(),
        )
    except SheetError as error:
        sheet = usecases.band_sheet(connection(), trainer(), item_id)
        rows = list(zip(form.getlist("length"), form.getlist("force"), strict=False))
        typed = {name: form.get(name, "") for name in (*FIELDS, "check_length", "check_force")}
        numbers = band_numbers(typed["length_unit"], form, _kept(sheet))
        numbers.refuse(error.messages)
        return _sheet(sheet, typed, rows, numbers), 422
    units: dict[str, Any] = {
        "length_unit": form.get("length_unit"),
        "force_unit": form.get("force_unit"),
    }
    return redirect(url_for("bench.band", item_id=item_id, **units))


def _import(text: str) -> tuple[tuple[store.Reading, ...], float | None]:
    """Return the loading readings of a CSV, and the share not given back where it has unloading
    ones.
    """
    try:
        rows = read_readings(text)
    except InputError as error:
        raise SheetError({"csv": not_kept(error)}) from None
    loading = tuple(
        store.Reading(length_m=r.length_m, force_n=r.force_n)
        for r in rows
        if r.direction == "loading"
    )
    return loading, gives_back([(r.length_m, r.force_n, r.direction) for r in rows])


@blueprint.get("/band/<int:item_id>.csv")
def export(item_id: int) -> ResponseReturnValue:
    """Send a band's readings as CSV, all strands of the scale together."""
    sheet = usecases.band_sheet(connection(), trainer(), item_id)
    text = write_readings(
        ReadingRow(length_m=r.length_m, force_n=r.force_n) for r in sheet.readings
    )
    return sent(text, sheet.item.name, "csv")


def _sheet(
    sheet: usecases.BandSheet,
    typed: dict[str, Any],
    rows: list[tuple[str, str]],
    numbers: Sheet,
    csv: str = "",
) -> str:
    place = held().place(sheet.item.place_id)
    messages = numbers.messages
    empty = [("", "")] * max(SPARE_ROWS, 5 - len(rows))
    return rendered(
        "bench/band.html",
        sheet=sheet,
        place=place,
        typed=Texts(typed),
        numbers=numbers,
        rows=[*rows, *([] if messages and len(rows) >= 5 else empty)],
        laws=LAWS,
        stale=_stale(sheet.item.looked_over_on),
        messages=Texts({row_of(key): text for key, text in messages.items()}),
        csv=csv,
        chart=fit_chart(sheet, typed["length_unit"], typed["force_unit"]),
        units=(tuple(LENGTH_M), tuple(u for u in FORCE_N if u not in ("kg", "lb"))),
        change=held().last_change(scope(sheet.item.place_id)),
        uses=band_uses(sheet),
        pairs=pairs_of(connection(), trainer(), sheet),
        checks=band_checks(connection(), trainer(), sheet),
    )


def _stale(day: str | None) -> str:
    """Return words where a band should be looked over again, else an empty text."""
    if day is None:
        return tr("Not looked over yet: look for cuts, cracks and thin places, then put the date.")
    days = (date.fromisoformat(now()[:10]) - date.fromisoformat(day)).days
    if days <= LOOK_AGAIN_DAYS:
        return ""
    return tell("Looked over {days} days ago: look again.", days=Count(days))
