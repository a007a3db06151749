"""The numbers of the Bench's sheets: their fields, and what they come to."""

from __future__ import annotations

from functools import partial

from werkzeug.datastructures import MultiDict
from wtforms.fields.core import UnboundField

from widearc.core.body import MeasuredAngle, bend_by_levels, bend_by_points, bend_by_tape
from widearc.core.equipment import rail_angle_deg
from widearc.core.errors import InputError
from widearc.core.units import LENGTH_M
from widearc.core.words import Name, Said
from widearc.usecases.bench.machines import MachineSheet, hung_test
from widearc.web.forms.fields import QuantityField, Sheet, shown_as_typed
from widearc.web.words.refused import does_not_fit, not_used
from widearc.words import say, tr

_cm = partial(QuantityField, unit="cm", per=0.01)
_weighed = partial(
    QuantityField, unit="kg", low=0.5, high=300.0, allowed="from 0.5 to 300 kg", needed=True
)
SCALE: dict[str, UnboundField] = {
    "known": _weighed("It weighs"),
    "reads": _weighed("The scale reads"),
}
# a joint's bend: the fields of each way
WAYS: dict[str, dict[str, UnboundField]] = {
    "tape": {
        "upper_m": _cm("1, upper limb", needed=True),
        "lower_m": _cm("2, lower limb", needed=True),
        "across_m": _cm("3, across", needed=True),
    },
    "level": {
        "upper_deg": QuantityField("Upper limb", unit="°", needed=True),
        "lower_deg": QuantityField("Lower limb", unit="°", needed=True),
    },
    "photo": {
        name: QuantityField(words, what=Said("a number of picture points"))
        for name, words in {
            "x1": "upper x",
            "y1": "y",
            "x2": "joint x",
            "y2": "y",
            "x3": "lower x",
            "y3": "y",
        }.items()
    },
}
# what is measured beside the readings of a machine, by its fit: field's name and words
BESIDE = {
    "sled": {"rail_deg": "level on the rail"},
    "stack": {"read_kg": "weight on the pin"},
    "lever": {"user_arm_m": "pivot to pad", "pivot_off_m": "pivot off the joint"},
    "pendulum": {"arm_m": "pivot to weight"},
    "carriage": {"empty_kg": "carriage alone"},
    "corner-bar": {"hand_m": "pivot to hands"},
}
RISE: dict[str, UnboundField] = {
    "rise": _cm("or rise"),
    "run": _cm("over run"),
}
HUNG: dict[str, UnboundField] = {
    "carriage": QuantityField("carriage", unit="kg"),
    "rests": _cm("rests at"),
}


def band_numbers(
    unit: str, typed: MultiDict[str, str] | None, kept: dict[str, float | None] | None = None
) -> Sheet:
    """Return a band's rest length, in a unit of length, and the share it does not give back."""
    per = LENGTH_M.get(unit, 1.0)
    rest = QuantityField(
        "rest length",
        unit=unit,
        per=per,
        low=0.02,
        high=10.0,
        allowed="from 2 cm to 10 m" if unit in ("mm", "cm", "m") else "",
        what=Said("a length in {unit}", unit=Name(unit)),
    )
    back = QuantityField("gives back less", unit="%", per=0.01, what=Said("a percentage"))
    return Sheet({"rest": rest, "back": back}, typed, kept)


def machine_numbers(sheet: MachineSheet, typed: MultiDict[str, str] | None) -> Sheet:
    """Return what is measured beside the readings of a machine of this kind."""
    beside = {
        f"q-{name}": QuantityField(
            words, unit=sheet.kind.quantity(name).unit, per=sheet.kind.quantity(name).per
        )
        for name, words in BESIDE.get(sheet.kind.fit, {}).items()
    }
    return Sheet(beside | RISE, typed)


def measured_beside(numbers: Sheet, sheet: MachineSheet) -> dict[str, float]:
    """Return the quantities measured beside the readings, SI: a rail's angle by level or by rise
    over run, lengths. Raises SheetError at the field.
    """
    values = {name: numbers.value(f"q-{name}") for name in BESIDE.get(sheet.kind.fit, {})}
    found = {name: value for name, value in values.items() if value is not None}
    rise, run = numbers.value("rise"), numbers.value("run")
    if rise is not None and run is not None:
        try:
            found["rail_deg"] = rail_angle_deg(rise, run)
        except InputError as error:
            shown = shown_as_typed(error, numbers, "run")
            numbers.refuse({"run": not_used(error, shown)})
    elif rise is not None or run is not None:
        numbers.refuse({"run": tr("type rise and run, both")})
    numbers.settled()
    return found


def hung_words(numbers: Sheet, sheet: MachineSheet) -> str:
    """Return the hung-carriage test in words; an empty text where nothing was asked or a field is
    refused.
    """
    carriage = numbers.value("carriage")
    if carriage is None or numbers.messages:
        return ""
    try:
        return say(hung_test(sheet.item, carriage, numbers.value("rests")).words)
    except InputError as error:
        shown = shown_as_typed(error, numbers, error.where)
        numbers.refuse({error.where: not_used(error, shown)})
        return ""


def joint_angle(way: str, sheet: Sheet) -> MeasuredAngle | None:
    """Return a joint's bend from a sheet of WAYS; None where a field is empty or refused."""
    names = tuple(WAYS[way])
    if way == "photo" and any(sheet.value(name) is None for name in names):
        sheet.refuse({"photo": tr("tap three points first")})
    if sheet.messages:
        return None
    values = [sheet.value(name) for name in names]
    try:
        if way == "tape":
            return bend_by_tape(*values)
        if way == "level":
            return bend_by_levels(*values)
        x1, y1, x2, y2, x3, y3 = values
        return bend_by_points((x1, y1), (x2, y2), (x3, y3))
    except InputError as error:
        known = error.where in names
        shown = shown_as_typed(error, sheet, error.where) if known else str(error.value)
        name = error.where if known else way
        sheet.refuse({name: does_not_fit(error, shown)})
        return None
