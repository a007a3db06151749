"""The measuring sheet of anything but a band: readings, the law through them, check readings, what
they set.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

from widearc import store
from widearc.core.equipment import (
    FITS,
    MOST_CHECKS,
    MOST_READINGS,
    ItemKind,
    MachineFit,
    Source,
    Spring,
    check_quantity,
    hung_rest_m,
    kind_of,
    trust,
)
from widearc.core.errors import InputError, said_of
from widearc.core.units import FORCE_N, G
from widearc.core.words import (
    UNSAID,
    Count,
    Figure,
    Length,
    Name,
    Said,
    Term,
    Words,
    measured,
    sentences,
)
from widearc.store.errors import MissingError
from widearc.usecases.bench.columns import COLUMNS, NAMES, Columns, fit_of
from widearc.usecases.room.kit import badge_of
from widearc.usecases.room.room import scope
from widearc.usecases.sheet import SheetError, cell
from widearc.words import say, sign_of

LONGEST_SETTING = 40


@dataclass(frozen=True, slots=True, kw_only=True)
class Check:
    """One check reading beside the prediction, N; off as a share of the reading; says: what
    follows.
    """

    reading: store.MachineReading
    predicted_n: float
    off: float
    says: str


@dataclass(frozen=True, slots=True, kw_only=True)
class MachineSheet:
    """An item with its readings and the law through them, one for each dial setting; refused: why
    there is none.
    """

    item: store.ItemRow
    kind: ItemKind
    badge: str
    readings: tuple[store.MachineReading, ...]
    fits: Mapping[str, MachineFit]
    refused: Mapping[str, str]
    checks: tuple[Check, ...]

    @property
    def columns(self) -> Columns | None:
        """Return what is read of this kind, None where nothing is fitted."""
        return COLUMNS.get(self.kind.fit)

    def of(self, setting: str) -> tuple[store.MachineReading, ...]:
        """Return the readings of a dial setting."""
        return tuple(r for r in self.readings if r.setting == setting)


def machine_sheet(con: store.Connection, trainer_id: int, item_id: int) -> MachineSheet:
    """Return the sheet of an item that is not a band; MissingError if it is not there."""
    item = store.item(con, trainer_id, item_id)
    if item.kind == "band":
        raise MissingError(
            Said("{name} is a band: it has a sheet of its own", name=Name(item.name))
        )
    kind = kind_of(item.kind)
    rows = store.machine_readings(con, trainer_id, item_id)
    read = tuple(r for r in rows if r.purpose == "fit")
    fits: dict[str, MachineFit] = {}
    refused: dict[str, str] = {}
    if kind.fit:
        for setting in dict.fromkeys(r.setting for r in read):
            try:
                fits[setting] = fit_of(
                    kind.fit, [r for r in read if r.setting == setting], item.quantities
                )
            except InputError as error:
                refused[setting] = f"{error.value} is not enough: {say(error.allowed)}"
    checks = tuple(
        _checked(kind.fit, fits, r) for r in rows if r.purpose == "check" and r.setting in fits
    )
    return MachineSheet(
        item=item,
        kind=kind,
        badge=badge_of(item, len(read)),
        readings=read,
        fits=MappingProxyType(fits),
        refused=MappingProxyType(refused),
        checks=checks,
    )


def rows_from(
    fit: str, columns: Mapping[str, Sequence[Any]], setting: str = ""
) -> tuple[store.MachineReading, ...]:
    """Return readings from a fit's columns, all of one dial setting."""
    count = len(columns["force_n"])
    at = columns[NAMES[fit]] if fit in NAMES else [0.0] * count
    arm = columns.get("pad_m" if fit == "stack" else "arm_m", [None] * count)
    way = columns.get("direction", [None] * count)
    return tuple(
        store.MachineReading(at=a, force_n=f, arm_m=m, direction=d, setting=setting)
        for a, f, m, d in zip(at, columns["force_n"], arm, way, strict=True)
    )


def _checked(
    fit: str,
    fits: Mapping[str, MachineFit],
    reading: store.MachineReading,
) -> Check:
    found = fits[reading.setting]
    pushed = reading.direction == "push"
    predicted = FITS[fit].pull_n(found, reading.at, reading.arm_m or 1.0, pushed)
    if predicted is None:
        return Check(
            reading=reading,
            predicted_n=float("nan"),
            off=0.0,
            says="outside the readings: no prediction",
        )
    error = found.spread_n if found.spread_n is not None else 0.02 * abs(predicted)
    off, says = trust(predicted, error, reading.force_n)
    return Check(reading=reading, predicted_n=predicted, off=off, says=says)


def shown_row(reading: store.MachineReading, fit: str, force_unit: str) -> dict[str, str]:
    """Return a reading as the sheet shows it: cells by name."""
    arm = reading.arm_m
    return {
        "at": f"{round(reading.at / COLUMNS[fit].per, 6):g}",
        "force": f"{reading.force_n / FORCE_N[force_unit]:.4g}",
        "arm": "" if arm is None else f"{round(100 * arm, 4):g}",
        "direction": reading.direction or "",
        "setting": reading.setting,
    }


def _cells(row: Mapping[str, str]) -> tuple[str, ...]:
    return tuple(row.get(n, "").strip() for n in ("at", "force", "arm", "direction", "setting"))


def parse_readings(
    fit: str,
    typed: Sequence[Mapping[str, str]],
    force_unit: str,
    *,
    kept: Sequence[store.MachineReading] = (),
    purpose: str = "fit",
    read_on: str | None = None,
) -> tuple[store.MachineReading, ...]:
    """Return readings in SI from typed rows; rows without a force are passed over.

    kept: a row that is shown for one of these is that one, with all its digits.

    Raises SheetError with a message at each wrong cell ("row-2-at").
    """
    columns = COLUMNS[fit]
    messages: dict[str, Words] = {}
    per_force = FORCE_N.get(force_unit)
    if per_force is None:
        raise SheetError(
            {
                "force_unit": Said(
                    "{force_unit} is not a unit of force known here",
                    force_unit=Name(force_unit[:10]),
                )
            }
        )
    rows: list[store.MachineReading] = []
    known = {_cells(shown_row(r, fit, force_unit)): r for r in kept}
    prefix = "row" if purpose == "fit" else "check"
    for index, row in enumerate(typed):
        if not any(row.get(name, "").strip() for name in ("at", "force")):
            continue
        if (before := known.get(_cells(row))) is not None:
            rows.append(before)
            continue
        key = f"{prefix}-{index}"
        at = (
            cell(
                row.get("at", ""),
                f"{key}-at",
                Said("a number of {unit}", unit=Name(sign_of(columns.unit))),
                messages,
            )
            if columns.unit
            else 0.0
        )
        force = cell(
            row.get("force", ""),
            f"{key}-force",
            Said("a pull in {unit}", unit=Name(force_unit)),
            messages,
        )
        arm = (
            cell(
                row.get("arm", ""),
                f"{key}-arm",
                Said("a length in {unit}", unit=Name(sign_of("cm"))),
                messages,
            )
            if columns.arm
            else None
        )
        if force is not None and not 0 <= force * per_force <= 20000:
            messages[f"{key}-force"] = Said(
                "{force} is not kept: from 0 to {most}",
                force=Figure(force, f" {force_unit}"),
                most=Figure(round(20000 / per_force)),
            )
        if at is not None and not -1000 <= at * columns.per <= 1000:
            messages[f"{key}-at"] = Said(
                "{at} is not kept: from {low} to {high}",
                at=measured(columns.unit, at),
                low=measured(columns.unit, -1000.0),
                high=measured(columns.unit, 1000.0),
            )
        if arm is not None and not 2 <= arm <= 300:
            messages[f"{key}-arm"] = Said(
                "{arm} is not kept: from {low} to {high}",
                arm=Length(arm / 100),
                low=Length(0.02),
                high=Length(3.0),
            )
        direction = row.get("direction", "") if columns.direction else None
        if columns.direction and direction not in ("push", "return"):
            messages[f"{key}-direction"] = Said("push or return")
        setting = _setting(row, messages) if columns.setting else ""
        if not messages and at is not None and force is not None:
            rows.append(
                store.MachineReading(
                    at=at * columns.per,
                    force_n=force * per_force,
                    arm_m=None if arm is None else arm / 100,
                    direction=direction,
                    setting=setting,
                    purpose=purpose,
                    read_on=read_on,
                )
            )
    if messages:
        raise SheetError(messages)
    return tuple(rows)


def _setting(row: Mapping[str, str], messages: dict[str, Words]) -> str:
    """Return a dial's setting as typed, with a message where it is too long."""
    setting = " ".join(row.get("setting", "").split())
    if len(setting) > LONGEST_SETTING:
        messages["rows"] = Said(
            "a dial of {setting} characters is too long: at most 40", setting=Count(len(setting))
        )
    return setting


@store.at_once
def save_readings(
    con: store.Connection,
    trainer_id: int,
    item_id: int,
    rows: Sequence[store.MachineReading],
    measured: Mapping[str, float],
    *,
    now: str,
) -> None:
    """Keep an item's readings, what they set, and quantities that were measured beside them (SI),
    with undo.

    SheetError when a quantity is out of range or the readings allow no law; nothing is kept then.
    """
    sheet = machine_sheet(con, trainer_id, item_id)
    if not measured and tuple(rows) == tuple(sheet.readings):
        return  # as it is kept: what was described or corrected since stays so
    quantities, sources = dict(sheet.item.quantities), dict(sheet.item.sources)
    messages: dict[str, Words] = {}
    for name, value in measured.items():
        try:
            quantities[name] = check_quantity(sheet.kind.quantity(name), value, name)
            sources[name] = Source.MEASURED
        except InputError as error:
            messages[name] = Said(
                "{value} is not kept: {allowed}", value=said_of(error.value), allowed=error.allowed
            )
    if len(rows) > MOST_READINGS:
        messages["rows"] = Said(
            "{rows} readings are too many: at most {most} of a thing",
            rows=Count(len(rows)),
            most=Count(MOST_READINGS),
        )
    if messages:
        raise SheetError(messages)
    for setting in dict.fromkeys(r.setting for r in rows):
        own = [r for r in rows if r.setting == setting]
        try:
            found = fit_of(sheet.kind.fit, own, quantities)
        except InputError as error:
            told = "{value}: not enough for a law; it takes {allowed}"
            if setting:
                told = "{value} of dial {dial}: not enough for a law; it takes {allowed}"
            messages["rows"] = Said(
                told, value=said_of(error.value), dial=Name(setting), allowed=error.allowed
            )
            continue
        for name, value in FITS[sheet.kind.fit].settles(found.law, quantities).items():
            quantity = sheet.kind.quantity(name)
            if quantity.low <= value <= quantity.high:
                quantities[name], sources[name] = value, Source.MEASURED
            else:
                messages["rows"] = Said(
                    "the readings make {words} {value} {unit}: it should lie from {low} to "
                    "{high}; read again",
                    words=Term(quantity.words),
                    value=Name(str(quantity.shown(value))),
                    unit=Name(quantity.unit),
                    low=Name(str(quantity.shown(quantity.low))),
                    high=Name(str(quantity.shown(quantity.high))),
                )
    if messages:
        raise SheetError(messages)
    checks = [r for r in store.machine_readings(con, trainer_id, item_id) if r.purpose == "check"]
    words = Said("{name}: readings kept", name=Name(sheet.item.name))
    with store.recorded(
        con, trainer_id, scope=scope(sheet.item.place_id), kind="readings", words=words, now=now
    ):
        store.replace_machine_readings(con, trainer_id, item_id, [*rows, *checks])
        store.set_quantities(con, trainer_id, item_id, quantities, sources)


@store.at_once
def add_check(
    con: store.Connection,
    trainer_id: int,
    item_id: int,
    rows: Sequence[store.MachineReading],
    *,
    now: str,
) -> None:
    """Keep check readings beside the others, with undo."""
    item = store.item(con, trainer_id, item_id)
    old = store.machine_readings(con, trainer_id, item_id)
    words = Said("{name}: check reading kept", name=Name(item.name))
    with store.recorded(
        con, trainer_id, scope=scope(item.place_id), kind="readings", words=words, now=now
    ):
        checks = [*(row for row in old if row.purpose == "check"), *rows][-MOST_CHECKS:]
        others = [row for row in old if row.purpose != "check"]
        store.replace_machine_readings(con, trainer_id, item_id, [*others, *checks])


@dataclass(frozen=True, slots=True, kw_only=True)
class HungTest:
    """The hung-carriage test: where it should rest, m from the first mark; words: whether readings
    and test agree.
    """

    predicted_m: float
    words: Words


def hung_test(item: store.ItemRow, carriage_kg: float, rests_m: float | None) -> HungTest:
    """Return where a carriage hung from a spring should rest, and whether it was seen there.

    Raises InputError for a carriage or place out of range or a spring without its numbers.
    """
    q = item.quantities
    if not 0.1 <= carriage_kg <= 200:
        raise InputError("carriage", carriage_kg, Said("from 0.1 to 200 kg"))
    spring = Spring(start_n=q["start_n"], end_n=q["end_n"], travel_m=q["travel_m"])
    if rests_m is not None and not 0 <= rests_m <= spring.travel_m + 0.01:
        raise InputError(
            "rests",
            rests_m,
            Said("from 0 to the full travel, {length}", length=Length(spring.travel_m)),
        )
    found = hung_rest_m(spring, carriage_kg * G)
    place = Said("It should rest {length} past the first mark.", length=Length(found))
    if found >= spring.travel_m:
        place = Said("It should rest at the stop.")
    elif found <= 0:
        place = Said("It should rest at the first mark.")
    seen = UNSAID
    if rests_m is not None:
        seen = Said("It does: readings and test agree.")
        if abs(rests_m - found) > 0.1 * spring.travel_m:
            seen = Said(
                "It rests {length} from there: the spring or the carriage’s weight is not as read.",
                length=Length(abs(rests_m - found)),
            )
    return HungTest(predicted_m=found, words=sentences((place, seen)))
