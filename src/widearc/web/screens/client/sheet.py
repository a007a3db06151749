"""A client's sheet: its fields, what they say of a client, and a limit worked out of a tape."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import fields
from functools import partial
from types import MappingProxyType
from typing import Any

from werkzeug.datastructures import MultiDict
from wtforms.fields.core import UnboundField

from widearc import store
from widearc.core.body import (
    Body,
    MeasuredAngle,
    Sex,
    bend_by_levels,
    bend_by_tape,
    shank_lean_at_wall,
)
from widearc.core.errors import InputError
from widearc.core.words import Angle
from widearc.usecases.client.client import (
    EXPERIENCE,
    GOALS,
    SORE_JOINTS,
    SORE_SIDES,
    STRONGER,
    TAPES,
)
from widearc.web.forms.fields import (
    ChoiceField,
    QuantityField,
    Sheet,
    TextField,
    TickField,
    shown_as_typed,
)
from widearc.web.words.refused import does_not_fit
from widearc.words import tell

_cm = partial(QuantityField, unit="cm", per=0.01)
_kg = partial(QuantityField, unit="kg")
_degrees = partial(QuantityField, unit="°")
TRAINS_ALONE = {"": "as the place says", "yes": "yes", "no": "no"}
SEXES = {"mean": "mean of both", "female": "female", "male": "male"}


def _asked(choices: Mapping[str, str]) -> dict[str, str]:
    return {"": "not asked", **choices}


def _sore(joint: str) -> UnboundField:
    if joint == "low back":
        return ChoiceField("Low back", choices={"": "no", "both": "sore"})
    return ChoiceField(
        joint.capitalize(), choices={"": "no", **{side: side for side in SORE_SIDES}}
    )


NUMBERS: dict[str, UnboundField] = {
    "mass_kg": _kg("Mass"),
    "stature_m": _cm("Stature"),
    "dorsiflexion_deg": _degrees("Ankle, shank leans to"),
    "hip_flexion_deg": _degrees("Hip, before the pelvis rolls"),
    "knee_deg": _degrees("Knee, bends to"),
    "to_shoulders_kg": _kg("Brings to the shoulders"),
    "grip_kg": _kg("One hand holds for a set"),
    **{name: _cm(words) for name, words in TAPES.items()},
}
CELLS: dict[str, dict[str, UnboundField]] = {
    "ankle": {
        "m-toe": _cm("toe to wall"),
        "m-knee-height": _cm("floor to knee"),
    },
    "hip": {
        "m-bench": _degrees("bench"),
        "m-thigh": _degrees("thigh"),
    },
    "knee": {
        "m-upper": _cm("1, hip to knee"),
        "m-lower": _cm("2, knee to ankle"),
        "m-across": _cm("3, hip to ankle"),
    },
}
FIELDS: dict[str, UnboundField] = {
    "name": TextField("Name or role"),
    "goal": ChoiceField("Goal", choices=_asked(GOALS)),
    "experience": ChoiceField("Experience", choices=_asked(EXPERIENCE)),
    "trains_alone": ChoiceField("Trains alone", choices=TRAINS_ALONE),
    "stronger_side": ChoiceField("Stronger side", choices=_asked(STRONGER)),
    "no_axial_load": TickField("No load on the spine"),
    "sex": ChoiceField("Strength tables", choices=SEXES, usual="mean"),
    "note": TextField("Note"),
    **{f"sore-{joint}": _sore(joint) for joint in SORE_JOINTS},
    **NUMBERS,
    **{name: field for cells in CELLS.values() for name, field in cells.items()},
}
# which limit a step measures, and the argument of its formula that each cell is
LIMITS = {"ankle": "dorsiflexion_deg", "hip": "hip_flexion_deg", "knee": "knee_deg"}
ARGUMENTS = {
    "toe_to_wall_m": "m-toe",
    "knee_height_m": "m-knee-height",
    "upper_deg": "m-bench",
    "lower_deg": "m-thigh",
    "upper_m": "m-upper",
    "lower_m": "m-lower",
    "across_m": "m-across",
}
_YES_NO = {None: "", True: "yes", False: "no"}


def kept_sheet(row: store.ClientRow | None) -> Sheet:
    """Return the sheet of what is kept, or an empty one."""
    return Sheet(FIELDS, kept=_kept(row))


def _kept(row: store.ClientRow | None) -> dict[str, Any]:
    if row is None:
        return {"sex": "mean"}
    kept: dict[str, Any] = {f.name: getattr(row, f.name) for f in fields(store.ClientFacts)}
    kept |= {"sex": row.sex.value, "trains_alone": _YES_NO[row.trains_alone]}
    kept |= {f"sore-{joint}": row.sore.get(joint, "") for joint in SORE_JOINTS}
    return kept


def typed_sheet(typed: MultiDict[str, str], row: store.ClientRow | None) -> Sheet:
    """Return the sheet as it was typed, with a message at every field that cannot be read."""
    sheet = Sheet(FIELDS, typed, _kept(row))
    sex = sheet.value("sex")
    if sex not in SEXES:
        sheet.refuse({"sex": tell("{sex} is not kept: male, female or mean", sex=sex[:20])})
    return sheet


def facts_of(sheet: Sheet) -> store.ClientFacts:
    """Return what a sheet says of a client. Raises SheetError where a field was refused."""
    sheet.settled()
    numbers = {name: sheet.value(name) for name in NUMBERS}
    chosen = {name: sheet.value(name) or None for name in ("goal", "experience", "stronger_side")}
    sides = {joint: sheet.value(f"sore-{joint}") for joint in SORE_JOINTS}
    return store.ClientFacts(
        name=" ".join(sheet.value("name").split()),
        sex=Sex(sheet.value("sex")),
        no_axial_load=sheet.value("no_axial_load"),
        trains_alone={"yes": True, "no": False}.get(sheet.value("trains_alone")),
        note=sheet.value("note").strip(),
        sore=MappingProxyType({joint: side for joint, side in sides.items() if side}),
        **chosen,
        **numbers,
    )


def measure(sheet: Sheet, step: str) -> str:
    """Work a joint's limit out of what was measured; fill it in and say what it is, or refuse the
    cells.
    """
    cells = CELLS[step]
    empty = {
        name: tell("empty: type it in {unit}", unit=sheet[name].unit)
        for name in cells
        if sheet.value(name) is None
    }
    sheet.refuse(empty)
    if any(sheet.messages[name] for name in cells):
        return ""
    try:
        found = _angle(step, [sheet.value(name) for name in cells], sheet.value("stature_m"))
    except InputError as error:
        name = ARGUMENTS[error.where]
        shown = shown_as_typed(error, sheet, name)
        sheet.refuse({name: does_not_fit(error, shown)})
        return ""
    sheet.fill(LIMITS[step], f"{found.angle_deg:.0f}")
    error_deg = max(1, round(found.error_deg))
    return tell(
        "{angle}, give or take {error}. Keep the sheet to use it.",
        angle=Angle.of_deg(found.angle_deg),
        error=Angle.of_deg(error_deg),
    )


def _angle(step: str, values: list[float], stature_m: float | None) -> MeasuredAngle:
    if step == "ankle":
        # a stature that is refused at its own field counts as none
        if stature_m is None or not 1.0 <= stature_m <= 2.4:
            return shank_lean_at_wall(values[0], values[1], Body())
        return shank_lean_at_wall(values[0], values[1], Body(stature_m=stature_m))
    if step == "hip":
        return bend_by_levels(*values)
    return bend_by_tape(*values)
