"""Bench: a guided sheet for every kind of machine, joint angles three ways, and a scale's own
check.
"""

from __future__ import annotations

from typing import Any

from flask import (
    Blueprint,
    Response,
    abort,
    redirect,
    render_template,
    request,
    url_for,
)
from flask.typing import ResponseReturnValue

from widearc import store
from widearc.core.body import MeasuredAngle, bend_by_levels, bend_by_points, bend_by_tape
from widearc.core.equipment import (
    FITS,
    rail_angle_deg,
    scale_verdict,
    shim_bend_deg,
    wedge_relief_deg,
)
from widearc.core.errors import InputError
from widearc.core.units import FORCE_N
from widearc.formats import read_columns, write_columns
from widearc.usecases.bench.columns import columns_of
from widearc.usecases.bench.machines import (
    MachineSheet,
    add_check,
    hung_test,
    machine_sheet,
    parse_readings,
    rows_from,
    save_readings,
)
from widearc.usecases.room.room import scope
from widearc.usecases.sheet import SheetError
from widearc.web.db import connection, held, now, trainer
from widearc.web.drawing.fit import machine_chart
from widearc.web.forms.typed import Texts, optional

blueprint = Blueprint("machine", __name__, url_prefix="/bench")


SPARE_ROWS = 2
CELLS = ("at", "force", "arm", "direction", "setting")
FORCES = tuple(u for u in FORCE_N if u not in ("kg", "lb"))
LEVERS_M = (0.30, 0.35, 0.40, 0.45)


@blueprint.get("/machine/<int:item_id>")
def show(item_id: int) -> ResponseReturnValue:
    """Show an item's sheet."""
    sheet = machine_sheet(connection(), trainer(), item_id)
    unit = request.args.get("force_unit", "N")
    unit = unit if unit in FORCES else "N"
    return _sheet(sheet, _rows(sheet, unit), {"force_unit": unit, **request.args.to_dict()}, {})


def _rows(sheet: MachineSheet, unit: str) -> list[dict[str, str]]:
    columns = sheet.columns
    if columns is None:
        return []
    return [
        {
            "at": f"{round(r.at / columns.per, 6):g}",
            "force": f"{r.force_n / FORCE_N[unit]:.4g}",
            "arm": "" if r.arm_m is None else f"{round(100 * r.arm_m, 4):g}",
            "direction": r.direction or "",
            "setting": r.setting,
        }
        for r in sheet.readings
    ]


def _sheet(
    sheet: MachineSheet, rows: list[dict[str, str]], typed: dict[str, str], messages: dict[str, str]
) -> ResponseReturnValue:
    arm = rows[-1]["arm"] if rows else ""
    # push and return by turns, as they are read
    spare = [
        dict.fromkeys(CELLS, "") | {"arm": arm, "direction": "return" if n % 2 else "push"}
        for n in range(len(rows), max(len(rows) + SPARE_ROWS, 4))
    ]
    page = render_template(
        "bench/machine.html",
        sheet=sheet,
        rows=[*rows, *spare],
        typed=Texts(typed),
        messages=Texts(messages),
        place=held().place(sheet.item.place_id),
        forces=FORCES,
        charts=[
            (setting, machine_chart(sheet, setting, typed["force_unit"])) for setting in sheet.fits
        ],
        change=held().last_change(scope(sheet.item.place_id)),
        hung=_hung(sheet, typed, messages),
        words=_words(sheet),
        headers=",".join(FITS[sheet.kind.fit].columns) if sheet.kind.fit else "",
    )
    return page, 422 if messages else 200


def _hung(sheet: MachineSheet, typed: dict[str, str], messages: dict[str, str]) -> str:
    """Return the hung-carriage test in words; an empty text where nothing was asked."""
    if sheet.kind.fit != "spring" or not typed.get("carriage", "").strip():
        return ""
    carriage = optional(typed, "carriage", messages, per=1.0, unit="kg")
    rests = optional(typed, "rests", messages, per=0.01, unit="cm")
    if carriage is None or ("rests" in messages):
        return ""
    try:
        return hung_test(sheet.item, carriage, rests).words
    except InputError as error:
        shown = (
            f"{100 * float(str(error.value)):g} cm"
            if error.where == "rests"
            else f"{error.value} kg"
        )
        messages[error.where] = f"{shown} is not used: {error.allowed}"
        return ""


def _words(sheet: MachineSheet) -> list[str]:
    """Return what an item's numbers come to, in sentences."""
    q = sheet.item.quantities
    if sheet.kind.id == "heel wedge":
        return [
            (
                f"Relieves the ankle by {wedge_relief_deg(q['thick_m']):.1f}° over 18 cm from heel "
                "to ball."
            )
        ]
    if sheet.kind.id == "pad":
        parts = ", ".join(
            f"{shim_bend_deg(q['thick_m'], x):.1f}° at {100 * x:.0f} cm" for x in LEVERS_M
        )
        return [
            (
                "Before the shin pad it bends the knee more at the start, by the pad’s distance "
                f"from the knee: {parts}."
            )
        ]
    if sheet.kind.id == "plate":
        odd = sheet.item.count % 2
        return [
            (
                f"{sheet.item.count // 2} "
                f"pairs{' and one over: a bar takes pairs only' if odd else ''}."
            )
        ]
    if sheet.kind.fit == "lever" and q.get("pivot_off_m", 0.0) > 0:
        slide = 100 * q["pivot_off_m"]
        return [
            f"The pivot sits {slide:.0f} cm off the joint: the pad slides by up to about that much."
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
    messages: dict[str, str] = {}
    try:
        if sheet.columns is None:
            return redirect(url_for("room.item", item_id=item_id))
        if typed.get("action") == "check":
            one = {name: typed.get(f"check_{name}", "") for name in CELLS}
            found = parse_readings(
                sheet.kind.fit, [one], typed["force_unit"], purpose="check", read_on=now()[:10]
            )
            if not found:
                raise SheetError({"check-0-force": "empty: type what the scale reads"})
            add_check(connection(), trainer(), item_id, found, now=now())
        elif typed.get("action") == "import":
            setting = (
                " ".join(typed.get("csv_setting", "").split())[:40] if sheet.columns.setting else ""
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
            measured = _measured(sheet, typed, messages)
            if messages:
                raise SheetError(messages)
            readings = parse_readings(sheet.kind.fit, rows, typed["force_unit"])
            save_readings(connection(), trainer(), item_id, readings, measured, now=now())
    except SheetError as error:
        keep = filled if typed.get("action") not in ("check", "import") else _rows(sheet, "N")
        return _sheet(sheet, _numbered(rows, error.messages) or keep, typed, error.messages)
    return redirect(url_for("machine.show", item_id=item_id, force_unit=typed["force_unit"]))


def _imported(
    sheet: MachineSheet, typed: dict[str, str], setting: str
) -> tuple[store.MachineReading, ...]:
    try:
        return rows_from(
            sheet.kind.fit, read_columns(typed.get("csv", ""), sheet.kind.fit), setting
        )
    except InputError as error:
        raise SheetError(
            {"csv": f"{error.where}: “{str(error.value)[:40]}” is not kept; {error.allowed}"}
        ) from None


@blueprint.get("/machine/<int:item_id>.csv")
def export(item_id: int) -> ResponseReturnValue:
    """Send the readings of one dial setting as CSV, SI."""
    sheet = machine_sheet(connection(), trainer(), item_id)
    if sheet.columns is None:
        abort(404)
    rows = sheet.of(request.args.get("setting", ""))
    text = write_columns(sheet.kind.fit, columns_of(sheet.kind.fit, rows))
    name = "".join(c if c.isalnum() else "-" for c in sheet.item.name.lower())
    return Response(
        text,
        mimetype="text/csv",
        headers={"Content-Disposition": f'attachment; filename="{name}.csv"'},
    )


def _numbered(rows: list[dict[str, str]], messages: dict[str, str]) -> list[dict[str, str]]:
    """Return the rows as typed, empty ones too, where a message counts them by number."""
    return rows if any(key.startswith("row-") for key in messages) else []


def _measured(
    sheet: MachineSheet, typed: dict[str, str], messages: dict[str, str]
) -> dict[str, float]:
    """Return the quantities measured beside the readings: a rail's angle by level or by rise over
    run, lengths.
    """
    found: dict[str, float] = {}
    for q in sheet.kind.quantities:
        value = optional(typed, f"q-{q.name}", messages, per=q.per, unit=q.unit)
        if value is not None:
            found[q.name] = value
    rise = optional(typed, "rise", messages, per=0.01, unit="cm")
    run = optional(typed, "run", messages, per=0.01, unit="cm")
    if rise is not None or run is not None:
        if rise is None or run is None:
            messages["run"] = "type rise and run, both"
        else:
            try:
                found["rail_deg"] = rail_angle_deg(rise, run)
            except InputError as error:
                messages["run"] = (
                    f"{100 * float(str(error.value)):g} cm is not used: {error.allowed}"
                )
    return found


@blueprint.route("/angles", methods=["GET", "POST"])
def angles() -> ResponseReturnValue:
    """Work out a joint's bend by tape, by a level, or from three taps on a photo that stays on the
    device.
    """
    typed = request.form.to_dict() if request.method == "POST" else {}
    messages: dict[str, str] = {}
    found: dict[str, str] = {}
    way = typed.get("action", "")
    if way in WAYS:
        try:
            angle = _angle(way, typed, messages)
            if angle is not None:
                found[way] = (
                    f"{angle.angle_deg:.0f}°, give or take {max(1.0, round(angle.error_deg)):.0f}°"
                )
        except InputError as error:
            name = error.where if error.where in WAYS[way] else way
            shown = (
                f"{100 * float(str(error.value)):g} cm"
                if error.where.endswith("_m")
                else str(error.value)
            )
            messages[name] = f"{shown} does not fit: {error.allowed}"
    page = render_template(
        "bench/angles.html", typed=Texts(typed), messages=Texts(messages), found=Texts(found)
    )
    return page, 422 if messages else 200


WAYS: dict[str, tuple[str, ...]] = {
    "tape": ("upper_m", "lower_m", "across_m"),
    "level": ("upper_deg", "lower_deg"),
    "photo": ("x1", "y1", "x2", "y2", "x3", "y3"),
}


def _angle(way: str, typed: dict[str, str], messages: dict[str, str]) -> MeasuredAngle | None:
    unit, per = {"tape": ("cm", 0.01), "level": ("°", 1.0), "photo": ("picture points", 1.0)}[way]
    values: list[float] = []
    for name in WAYS[way]:
        value = optional(typed, name, messages, per=per, unit=unit)
        if value is None:
            key = "photo" if way == "photo" else name
            messages.setdefault(
                key, "tap three points first" if way == "photo" else f"empty: type it in {unit}"
            )
        else:
            values.append(value)
    if messages:
        return None
    if way == "tape":
        return bend_by_tape(values[0], values[1], values[2])
    if way == "level":
        return bend_by_levels(values[0], values[1])
    return bend_by_points((values[0], values[1]), (values[2], values[3]), (values[4], values[5]))


def _kg(typed: dict[str, Any], name: str, messages: dict[str, str]) -> float | None:
    """Return a weight as typed, kg; None, with a message, where it cannot be used."""
    value = optional(typed, name, messages, per=1.0, unit="kg")
    if value is None:
        messages.setdefault(name, "empty: type it in kg")
    elif not 0.5 <= value <= 300:
        messages[name] = f"{value:g} kg is not used: from 0.5 to 300 kg"
    return value


@blueprint.route("/scale", methods=["GET", "POST"])
def scale() -> ResponseReturnValue:
    """Say how far a scale is off by a known weight."""
    typed: dict[str, Any] = request.form.to_dict() if request.method == "POST" else {}
    messages: dict[str, str] = {}
    said = ""
    if typed:
        known, reads = (_kg(typed, name, messages) for name in ("known", "reads"))
        if known and reads and not messages:
            said = _scale_words(known, reads)
    page = render_template(
        "bench/scale.html", typed=Texts(typed), messages=Texts(messages), said=said
    )
    return page, 422 if messages else 200


def _scale_words(known: float, reads: float) -> str:
    off, verdict = scale_verdict(known, reads)
    if verdict == "true":
        return "It reads true to within 1 %: trust it."
    words = f"It reads {100 * abs(off):.0f} % {'too much' if off > 0 else 'too little'}."
    if verdict == "fits":
        return f"{words} Readings are taken to err by 2 %, so this still fits."
    fix = f"divide what it reads by {reads / known:.2f}"
    again = "check it once more with another weight"
    return f"{words} Take another scale, or {fix} before typing; {again}."
