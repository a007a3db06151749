"""Clients: who is trained, what their body allows, and the rule that each fact drives."""

from __future__ import annotations

from dataclasses import fields
from types import MappingProxyType
from typing import Any

from flask import (
    Blueprint,
    redirect,
    render_template,
    request,
    session,
    url_for,
)
from flask.typing import ResponseReturnValue

from widearc import store, usecases
from widearc.core.body import (
    Body,
    MeasuredAngle,
    Sex,
    bend_by_levels,
    bend_by_tape,
    shank_lean_at_wall,
)
from widearc.core.errors import InputError
from widearc.usecases.client.client import (
    EXPERIENCE,
    GOAL_SETS,
    GOALS,
    SORE_JOINTS,
    SORE_SIDES,
    STRONGER,
    TAPES,
)
from widearc.web.db import connection, held, now, trainer
from widearc.web.drawing.strip import strip_alone
from widearc.web.forms.typed import Texts, optional

blueprint = Blueprint("clients", __name__, url_prefix="/clients")


# form field, unit as typed, SI per unit
NUMBERS = (
    ("mass_kg", "kg", 1.0),
    ("stature_m", "cm", 0.01),
    ("dorsiflexion_deg", "°", 1.0),
    ("hip_flexion_deg", "°", 1.0),
    ("knee_deg", "°", 1.0),
    ("to_shoulders_kg", "kg", 1.0),
    ("grip_kg", "kg", 1.0),
    *((name, "cm", 0.01) for name in TAPES),
)


STEPS = ("ankle", "hip", "knee")


CHOICES: dict[str, Any] = {
    "goals": GOALS,
    "experience": EXPERIENCE,
    "stronger": STRONGER,
    "tapes": TAPES,
    "sore_joints": SORE_JOINTS,
    "sore_sides": SORE_SIDES,
    "goal_sets": GOAL_SETS,
}


@blueprint.get("/")
def listed() -> ResponseReturnValue:
    """List the clients with what is known of them."""
    rows = held().clients
    change = held().last_change("clients")
    return render_template(
        "clients/list.html", rows=rows, change=change, goals=GOALS, experience=EXPERIENCE
    )


@blueprint.get("/new")
def new() -> ResponseReturnValue:
    """Show an empty sheet."""
    return _sheet(None, _typed(None), {})


@blueprint.get("/<int:client_id>")
def show(client_id: int) -> ResponseReturnValue:
    """Show a client's sheet."""
    row = held().client(client_id)
    session["client"] = client_id
    return _sheet(row, _typed(row), {})


def _sheet(
    row: store.ClientRow | None,
    typed: dict[str, str],
    messages: dict[str, str],
    measured: dict[str, str] | None = None,
) -> ResponseReturnValue:
    page = render_template(
        "clients/sheet.html",
        row=row,
        typed=Texts(typed),
        messages=Texts(messages or {}),
        measured=Texts(measured or {}),
        choices=CHOICES,
        change=held().last_change("clients"),
        sets=[(s, strip_alone(s.strip)) for s in held().strength_sets(row.id)] if row else [],
        strength=usecases.strength_of(connection(), trainer(), row.id) if row else {},
    )
    return page, 422 if messages else 200


_YES_NO = {None: "", True: "yes", False: "no"}


def _typed(row: store.ClientRow | None) -> dict[str, str]:
    """Return the sheet's texts for what is kept."""
    if row is None:
        return {"sex": "mean"}
    typed = {
        f.name: "" if (v := getattr(row, f.name)) is None else str(v)
        for f in fields(store.ClientFacts)
    }
    for name, _, per in NUMBERS:
        value = getattr(row, name)
        typed[name] = "" if value is None else f"{round(value / per, 6):g}"
    typed["sex"] = row.sex.value
    typed["no_axial_load"] = "yes" if row.no_axial_load else ""
    typed["trains_alone"] = _YES_NO[row.trains_alone]
    typed |= {f"sore-{joint}": row.sore.get(joint, "") for joint in SORE_JOINTS}
    return typed


@blueprint.post("/")
@blueprint.post("/<int:client_id>")
def save(client_id: int | None = None) -> ResponseReturnValue:
    """Keep a client's sheet, or work a joint's limit out of what was measured and keep nothing
    yet.
    """
    row = None if client_id is None else held().client(client_id)
    typed = request.form.to_dict()
    step = typed.get("action", "").removeprefix("measure-")
    if step in STEPS:
        return _measure(row, typed, step)
    messages: dict[str, str] = {}
    facts = _facts(typed, messages)
    if not messages:
        try:
            if row is None:
                client_id = usecases.new_client(connection(), trainer(), facts, now=now())
            else:
                usecases.change_client(connection(), trainer(), row.id, facts, now=now())
        except usecases.SheetError as error:
            messages = error.messages
    if messages:
        return _sheet(row, typed, messages)
    session["client"] = client_id
    return redirect(url_for("clients.listed"))


def _sore(typed: dict[str, str]) -> MappingProxyType[str, str]:
    sides = {joint: typed.get(f"sore-{joint}", "") for joint in SORE_JOINTS}
    return MappingProxyType({joint: side for joint, side in sides.items() if side})


def _facts(typed: dict[str, str], messages: dict[str, str]) -> store.ClientFacts:
    numbers: dict[str, Any] = {
        name: optional(typed, name, messages, per=per, unit=unit) for name, unit, per in NUMBERS
    }
    sex = typed.get("sex", "mean")
    if sex not in {s.value for s in Sex}:
        messages["sex"] = f"{sex[:20]} is not kept: male, female or mean"
        sex = "mean"
    chosen: dict[str, Any] = {
        name: typed.get(name) or None for name in ("goal", "experience", "stronger_side")
    }
    return store.ClientFacts(
        name=" ".join(typed.get("name", "").split()),
        sex=Sex(sex),
        no_axial_load=typed.get("no_axial_load") == "yes",
        trains_alone={"yes": True, "no": False}.get(typed.get("trains_alone", "")),
        note=typed.get("note", "").strip(),
        sore=_sore(typed),
        **chosen,
        **numbers,
    )


MEASURES: dict[str, tuple[str, tuple[tuple[str, str, float], ...]]] = {
    "ankle": ("dorsiflexion_deg", (("m-toe", "cm", 0.01), ("m-knee-height", "cm", 0.01))),
    "hip": ("hip_flexion_deg", (("m-bench", "°", 1.0), ("m-thigh", "°", 1.0))),
    "knee": (
        "knee_deg",
        (("m-upper", "cm", 0.01), ("m-lower", "cm", 0.01), ("m-across", "cm", 0.01)),
    ),
}


_CELLS = {
    "toe_to_wall_m": "m-toe",
    "knee_height_m": "m-knee-height",
    "upper_deg": "m-bench",
    "lower_deg": "m-thigh",
    "upper_m": "m-upper",
    "lower_m": "m-lower",
    "across_m": "m-across",
}


def _measure(row: store.ClientRow | None, typed: dict[str, str], step: str) -> ResponseReturnValue:
    field, cells = MEASURES[step]
    messages: dict[str, str] = {}
    values = []
    for name, unit, per in cells:
        value = optional(typed, name, messages, per=per, unit=unit)
        if value is None:
            messages.setdefault(name, f"empty: type it in {unit}")
        values.append(value or 0.0)
    found: MeasuredAngle | None = None
    if not messages:
        try:
            found = _angle(step, values, typed)
        except InputError as error:
            name = _CELLS.get(error.where, error.where)
            shown = (
                f"{100 * float(str(error.value)):.4g} cm"
                if error.where.endswith("_m")
                else str(error.value)
            )
            messages[name] = f"{shown} does not fit: {error.allowed}"
    if found is None:
        return _sheet(row, typed, messages)
    typed[field] = f"{found.angle_deg:.0f}"
    said = (
        f"{found.angle_deg:.0f}°, give or take {max(1, round(found.error_deg)):.0f}°. Keep the "
        "sheet "
        "to use it."
    )
    return _sheet(row, typed, {}, {step: said})


def _angle(step: str, values: list[float], typed: dict[str, str]) -> MeasuredAngle:
    if step == "ankle":
        stature = optional(typed, "stature_m", {}, per=0.01, unit="cm")
        body = Body() if stature is None or not 1.0 <= stature <= 2.4 else Body(stature_m=stature)
        return shank_lean_at_wall(values[0], values[1], body)
    if step == "hip":
        return bend_by_levels(values[0], values[1])
    return bend_by_tape(values[0], values[1], values[2])


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
