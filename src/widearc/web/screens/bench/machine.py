"""Bench: a guided sheet for every kind of machine, joint angles three ways, and a scale's own
check.
"""

from __future__ import annotations

from flask import (
    Blueprint,
    abort,
    redirect,
    request,
    url_for,
)
from flask.typing import ResponseReturnValue

from widearc import store
from widearc.core.equipment import (
    FITS,
    scale_verdict,
    shim_bend_deg,
    wedge_relief_deg,
)
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES
from widearc.core.units import FORCE_N
from widearc.core.words import Angle, Count, Figure, Length, Listed, Said, Share, Times
from widearc.formats import read_columns, write_columns
from widearc.usecases.bench.columns import Columns, columns_of
from widearc.usecases.bench.machines import (
    LONGEST_SETTING,
    MachineSheet,
    add_check,
    machine_sheet,
    parse_readings,
    rows_from,
    save_readings,
    shown_row,
)
from widearc.usecases.room.room import scope
from widearc.usecases.sheet import SheetError
from widearc.web.db import connection, held, now, trainer
from widearc.web.download import sent
from widearc.web.drawing.fit import machine_chart
from widearc.web.forms.fields import Sheet
from widearc.web.forms.typed import Texts
from widearc.web.page import rendered
from widearc.web.screens.bench.sheet import (
    BESIDE,
    HUNG,
    SCALE,
    WAYS,
    hung_words,
    joint_angle,
    machine_numbers,
    measured_beside,
)
from widearc.web.units import typed_in
from widearc.web.words.refused import not_kept
from widearc.words import metric_text, sign_of, spoken_text, tell, tr

blueprint = Blueprint("machine", __name__, url_prefix="/bench")


SPARE_ROWS = 2
CELLS = ("at", "force", "arm", "direction", "setting")
FORCES = tuple(u for u in FORCE_N if u not in ("kg", "lb"))
LEVERS_M = (0.30, 0.35, 0.40, 0.45)


@blueprint.get("/machine/<int:item_id>")
def show(item_id: int) -> ResponseReturnValue:
    """Show an item's sheet."""
    sheet = machine_sheet(connection(), trainer(), item_id)
    unit = request.args.get("force_unit", "")
    unit = unit if unit in FORCES else sign_of("N")
    return _sheet(sheet, _rows(sheet, unit), {"force_unit": unit, **request.args.to_dict()})


def _rows(sheet: MachineSheet, unit: str) -> list[dict[str, str]]:
    columns = sheet.columns
    if columns is None:
        return []
    return [_spoken(shown_row(r, sheet.kind.fit, unit), columns) for r in sheet.readings]


def _spoken(row: dict[str, str], columns: Columns) -> dict[str, str]:
    """Return a row of metric texts as it is typed in the units that are spoken."""
    return row | {name: spoken_text(row[name], sign) for name, sign in _signs(columns).items()}


def _signs(columns: Columns) -> dict[str, str]:
    return {"at": columns.unit, "arm": "cm"}


def _metric(row: dict[str, str], columns: Columns | None) -> dict[str, str]:
    """Return a row as typed with what has a unit of its own in metric texts."""
    if columns is None:
        return row
    how = typed_in()
    return row | {n: metric_text(row[n], sign, how) for n, sign in _signs(columns).items()}


def _sheet(
    sheet: MachineSheet,
    rows: list[dict[str, str]],
    typed: dict[str, str],
    numbers: Sheet | None = None,
) -> ResponseReturnValue:
    hung = Sheet(HUNG, request.args if typed.get("carriage", "").strip() else None)
    said = hung_words(hung, sheet) if sheet.kind.fit == "spring" else ""
    numbers = numbers or machine_numbers(sheet, None)
    messages = Texts(numbers.messages | hung.messages)
    page = rendered(
        "bench/machine.html",
        sheet=sheet,
        rows=[*rows, *_spare(rows)],
        typed=Texts(typed),
        numbers=numbers,
        beside=tuple(BESIDE.get(sheet.kind.fit, {})),
        hung=hung,
        messages=messages,
        place=held().place(sheet.item.place_id),
        forces=FORCES,
        charts=[
            (setting, machine_chart(sheet, setting, typed["force_unit"])) for setting in sheet.fits
        ],
        change=held().last_change(scope(sheet.item.place_id)),
        said=said,
        words=_words(sheet),
        ladders=_ladders(sheet),
        headers=",".join(FITS[sheet.kind.fit].columns) if sheet.kind.fit else "",
    )
    return page, 422 if messages else 200


def _ladders(sheet: MachineSheet) -> list[tuple[str, str]]:
    """Return the exercises whose ladder the item's springs make, once they are read."""
    known = {"start_n", "end_n", "travel_m"} <= sheet.item.quantities.keys()
    if sheet.kind.fit not in ("spring", "carriage") or not (sheet.fits or known):
        return []
    return [(e.id, e.name) for e in EXERCISES.values() if e.family == "carriage"]


def _spare(rows: list[dict[str, str]]) -> list[dict[str, str]]:
    """Return empty rows to type in, push and return by turns, as they are read."""
    arm = rows[-1]["arm"] if rows else ""
    return [
        dict.fromkeys(CELLS, "") | {"arm": arm, "direction": "return" if n % 2 else "push"}
        for n in range(len(rows), max(len(rows) + SPARE_ROWS, 4))
    ]


def _words(sheet: MachineSheet) -> list[str]:
    """Return what an item's numbers come to, in sentences."""
    q = sheet.item.quantities
    if sheet.kind.id == "heel wedge":
        return [
            tell(
                "Relieves the ankle by {relief} over {foot} from heel to ball.",
                relief=Figure(round(wedge_relief_deg(q["thick_m"]), 1), "°"),
                foot=Length(0.18),
            )
        ]
    if sheet.kind.id == "pad":
        parts = Listed(
            tuple(
                Said(
                    "{bend} at {far}",
                    bend=Figure(round(shim_bend_deg(q["thick_m"], x), 1), "°"),
                    far=Length(x),
                )
                for x in LEVERS_M
            )
        )
        return [
            tell(
                "Before the shin pad it bends the knee more at the start, by the pad’s distance "
                "from the knee: {parts}.",
                parts=parts,
            )
        ]
    if sheet.kind.id == "plate":
        odd = sheet.item.count % 2
        return [
            tell(
                "{pairs} pairs and one over: a bar takes pairs only." if odd else "{pairs} pairs.",
                pairs=Count(sheet.item.count // 2),
            )
        ]
    if sheet.kind.fit == "lever" and q.get("pivot_off_m", 0.0) > 0:
        return [
            tell(
                "The pivot sits {far} off the joint: the pad slides by up to about that much.",
                far=Length(q["pivot_off_m"]),
            )
        ]
    return []


@blueprint.post("/machine/<int:item_id>")
def save(item_id: int) -> ResponseReturnValue:
    """Keep readings and what was measured beside them, or a check reading."""
    sheet = machine_sheet(connection(), trainer(), item_id)
    form = request.form
    typed = form.to_dict()
    typed.setdefault("force_unit", "N")
    lists = {name: form.getlist(name) for name in CELLS}
    length = max((len(values) for values in lists.values()), default=0)
    rows = [
        {name: v[i] if i < len(v := lists[name]) else "" for name in CELLS} for i in range(length)
    ]
    filled = [r for r in rows if r["at"].strip() or r["force"].strip()]
    numbers = machine_numbers(sheet, form)
    try:
        if sheet.columns is None:
            return redirect(url_for("room.item", item_id=item_id))
        if typed.get("action") == "check":
            one = {name: typed.get(f"check_{name}", "") for name in CELLS}
            found = parse_readings(
                sheet.kind.fit,
                [_metric(one, sheet.columns)],
                typed["force_unit"],
                purpose="check",
                read_on=now()[:10],
            )
            if not found:
                raise SheetError({"check-0-force": tr("empty: type what the scale reads")})
            add_check(connection(), trainer(), item_id, found, now=now())
        elif typed.get("action") == "import":
            setting = (
                " ".join(typed.get("csv_setting", "").split()) if sheet.columns.setting else ""
            )
            if len(setting) > LONGEST_SETTING:
                raise SheetError(
                    {
                        "csv": tell(
                            "a dial of {length} characters: at most {most}",
                            length=Count(len(setting)),
                            most=Count(LONGEST_SETTING),
                        )
                    }
                )
            others = tuple(r for r in sheet.readings if r.setting != setting)
            save_readings(
                connection(),
                trainer(),
                item_id,
                (*others, *_imported(sheet, typed, setting)),
                {},
                now=now(),
            )
        else:
            measured = measured_beside(numbers, sheet)
            readings = parse_readings(
                sheet.kind.fit,
                [_metric(row, sheet.columns) for row in rows],
                typed["force_unit"],
                kept=sheet.readings,
            )
            save_readings(connection(), trainer(), item_id, readings, measured, now=now())
    except SheetError as error:
        keep = (
            filled if typed.get("action") not in ("check", "import") else _rows(sheet, sign_of("N"))
        )
        numbers.refuse(error.messages)
        return _sheet(sheet, _numbered(rows, error.messages) or keep, typed, numbers)
    return redirect(url_for("machine.show", item_id=item_id, force_unit=typed["force_unit"]))


def _imported(
    sheet: MachineSheet, typed: dict[str, str], setting: str
) -> tuple[store.MachineReading, ...]:
    try:
        return rows_from(
            sheet.kind.fit, read_columns(typed.get("csv", ""), sheet.kind.fit), setting
        )
    except InputError as error:
        raise SheetError({"csv": not_kept(error)}) from None


@blueprint.get("/machine/<int:item_id>.csv")
def export(item_id: int) -> ResponseReturnValue:
    """Send the readings of one dial setting as CSV, SI."""
    sheet = machine_sheet(connection(), trainer(), item_id)
    if sheet.columns is None:
        abort(404)
    rows = sheet.of(request.args.get("setting", ""))
    text = write_columns(sheet.kind.fit, columns_of(sheet.kind.fit, rows))
    return sent(text, sheet.item.name, "csv")


def _numbered(rows: list[dict[str, str]], messages: dict[str, str]) -> list[dict[str, str]]:
    """Return the rows as typed, empty ones too, where a message counts them by number."""
    return rows if any(key.startswith("row-") for key in messages) else []


@blueprint.route("/angles", methods=["GET", "POST"])
def angles() -> ResponseReturnValue:
    """Work out a joint's bend by tape, by a level, or from three taps on a photo that stays on the
    device.
    """
    way = request.form.get("action", "")
    sheets = {
        name: Sheet(fields, request.form if name == way else None) for name, fields in WAYS.items()
    }
    found = {}
    angle = joint_angle(way, sheets[way]) if way in WAYS else None
    if angle is not None:
        error_deg = max(1.0, round(angle.error_deg))
        found[way] = tell(
            "{angle}, give or take {error}",
            angle=Angle.of_deg(angle.angle_deg),
            error=Angle.of_deg(error_deg),
        )
    messages = sheets[way].messages if way in WAYS else Texts()
    page = rendered("bench/angles.html", sheets=sheets, messages=messages, found=Texts(found))
    return page, 422 if messages else 200


@blueprint.route("/scale", methods=["GET", "POST"])
def scale() -> ResponseReturnValue:
    """Say how far a scale is off by a known weight."""
    sheet = Sheet(SCALE, request.form if request.method == "POST" else None)
    known, reads = sheet.value("known"), sheet.value("reads")
    said = _scale_words(known, reads) if known and reads and not sheet.messages else ""
    page = rendered("bench/scale.html", sheet=sheet, messages=sheet.messages, said=said)
    return page, 422 if sheet.messages else 200


def _scale_words(known: float, reads: float) -> str:
    off, verdict = scale_verdict(known, reads)
    if verdict == "true":
        return tr("It reads true to within 1 %: trust it.")
    words = Said(
        "It reads {share} too much." if off > 0 else "It reads {share} too little.",
        share=Share(abs(off)),
    )
    if verdict == "fits":
        return tell("{words} Readings are taken to err by 2 %, so this still fits.", words=words)
    return tell(
        "{words} Take another scale, or divide what it reads by {ratio} before typing; check it "
        "once more with another weight.",
        words=words,
        ratio=Times(reads / known, 2),
    )
