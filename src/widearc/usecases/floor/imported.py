"""A log that comes in as a table: its columns, and its rows as sets."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta, tzinfo
from types import MappingProxyType

from widearc.core.errors import InputError, one_of
from widearc.core.units import LB_KG
from widearc.core.words import Count, Figure, Said
from widearc.usecases.floor.typed import (
    MOST_ROWS,
    SIDES,
    RowsError,
    TypedSet,
    exercise_named,
)
from widearc.words import plain_number

COLUMNS: Mapping[str, tuple[str, tuple[str, ...]]] = MappingProxyType(
    {
        "date": ("date", ("date", "day", "time", "tanggal")),
        "exercise": ("exercise", ("exercise", "lift", "latihan", "gerakan")),
        "reps": ("reps", ("reps", "repetitions", "rep", "repetisi")),
        "load": ("load", ("load_kg", "load", "weight", "kg", "lb", "beban")),
        "side": ("side", ("side", "leg", "sisi")),
        "reserve": ("reps in reserve", ("rir", "reserve", "left", "sisa")),
        "place": ("place", ("place", "gym", "where", "tempat")),
        "note": ("note", ("note", "notes", "comment", "catatan")),
    }
)
"""What a column can be: its words, and the headers by which it is guessed."""

NEEDED = ("date", "exercise", "reps")
ORDERS = MappingProxyType({"dmy": "day, month, year", "mdy": "month, day, year"})
"""How a date of three numbers is read where the year stands last."""

LONGEST_CELL, EARLIEST = 500, 1970


@dataclass(frozen=True, slots=True, kw_only=True)
class Table:
    """A table as it came: its header, and its rows with the lines where they begin."""

    header: tuple[str, ...]
    rows: tuple[tuple[int, tuple[str, ...]], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Reading:
    """How a table is read: which column (from 0) is what, the order of a date's numbers, the unit
    of loads, where it was done if no column says so, and by whose clock.
    """

    columns: Mapping[str, int]
    order: str
    unit: str
    place_id: int
    zone: tzinfo | None


def table_of(text: str) -> Table:
    """Return the table in a text: parted by commas, semicolons or tabs, as its header is.
    InputError at "csv" where there is none.
    """
    text = text.lstrip("\ufeff")
    first = next((line for line in text.splitlines() if line.strip()), "")
    if not first:
        raise InputError("csv", "", Said("a table with a header and a row for each set"))
    parted = max(",;\t", key=first.count)
    read = csv.reader(io.StringIO(text), delimiter=parted)
    found: list[tuple[int, tuple[str, ...]]] = []
    try:
        for cells in read:
            if any(cell.strip() for cell in cells):
                found.append((read.line_num, tuple(cell.strip() for cell in cells)))
            if len(found) > MOST_ROWS + 1:
                raise InputError(
                    "csv", len(found), Said("at most {most} rows", most=Count(MOST_ROWS))
                )
    except csv.Error as error:
        raise InputError(
            "csv", str(error), Said("a table in CSV; line {line}", line=Count(read.line_num))
        ) from None
    if len(found) < 2:
        raise InputError("csv", first[:40], Said("a table with a header and a row for each set"))
    return Table(header=found[0][1], rows=tuple(found[1:]))


def guessed(header: Sequence[str]) -> Mapping[str, int]:
    """Return which column is what, as far as the header says."""
    words = [re.sub(r"\W+", "_", name.casefold()).strip("_") for name in header]
    found: dict[str, int] = {}
    for field, (_, names) in COLUMNS.items():
        at = (i for name in names for i, word in enumerate(words) if _says(word, name))
        free = next((i for i in at if i not in found.values()), None)
        if free is not None:
            found[field] = free
    return found


def _says(word: str, name: str) -> bool:
    """Return whether a header's words are a name, or a name with its unit behind it."""
    return word == name or word in (f"{name}_kg", f"{name}_lb", f"{name}_lbs")


def unit_of(header: Sequence[str], columns: Mapping[str, int]) -> str:
    """Return the unit of loads that the header says: "lb" or "kg"."""
    at = columns.get("load")
    return "lb" if at is not None and re.search(r"\blbs?\b|_lb", header[at].casefold()) else "kg"


def rows_of(table: Table, how: Reading, places: Mapping[str, int]) -> tuple[TypedSet, ...]:
    """Return the table's rows as sets; places: their ids by name. RowsError names every cell that
    cannot be read; InputError the column that is lacking.
    """
    for needed in NEEDED:
        if needed not in how.columns:
            raise InputError(
                f"column-{needed}", "", Said("a column of the table: each set needs it")
            )
    known = {name.casefold(): place for name, place in places.items()}
    found: list[TypedSet] = []
    errors: list[tuple[int, InputError]] = []
    days: dict[date, int] = {}
    for line, cells in table.rows:
        cell = {field: cells[at] if at < len(cells) else "" for field, at in how.columns.items()}
        try:
            found.append(_row(line, cell, how, known, days))
        except InputError as error:
            errors.append((line, error))
    if errors:
        raise RowsError(errors)
    return tuple(found)


def row_of(line: int, cell: Mapping[str, str], how: Reading) -> TypedSet:
    """Return a row of cells, by field, as a set. InputError names the field."""
    return _row(line, cell, how, {}, {})


def _row(
    line: int,
    cell: Mapping[str, str],
    how: Reading,
    places: Mapping[str, int],
    days: dict[date, int],
) -> TypedSet:
    for field, text in cell.items():
        if len(text) > LONGEST_CELL:
            raise InputError(
                field, text[:40], Said("at most {most} characters", most=Count(LONGEST_CELL))
            )
    reserve = _number(cell, "reserve", 0.0, 20.0)
    return TypedSet(
        row=line,
        exercise=_exercise(cell["exercise"]),
        side=_side(cell.get("side", "")),
        place_id=_place(cell.get("place", ""), how, places),
        load_kg=_load(cell, how),
        reserve=None if reserve is None else round(reserve),
        reps=_reps(cell),
        done_at=_moment(cell["date"], how, days),
        note=cell.get("note", "")[:300],
    )


def _exercise(text: str) -> str:
    entry = exercise_named(text)
    if entry is None or not entry.has_curve:
        allowed = Said("an exercise of this program with a curve, by name")
        raise InputError("exercise", text, allowed)
    return entry.id


def _side(text: str) -> str:
    side = SIDES.get(text.casefold())
    if side is None:
        raise InputError("side", text, one_of(("both", "left", "right")))
    return side or "both"


def _place(text: str, how: Reading, places: Mapping[str, int]) -> int:
    if text and text.casefold() not in places:
        raise InputError("place", text, Said("a place of yours, or no text"))
    return places.get(text.casefold(), how.place_id)


def _load(cell: Mapping[str, str], how: Reading) -> float | None:
    load = _number(cell, "load", 0.0, 1200.0)
    if load is None:
        return None
    return round(load if how.unit == "kg" else load * LB_KG, 4)


def _reps(cell: Mapping[str, str]) -> int:
    reps = _number(cell, "reps", 0.0, 100.0)
    if reps is None or reps != int(reps):
        raise InputError("reps", cell["reps"], Said("a whole number of reps"))
    return int(reps)


def _number(cell: Mapping[str, str], field: str, low: float, high: float) -> float | None:
    text = cell.get(field, "")
    if not text:
        return None
    value = plain_number(text)
    if value is None or not low <= value <= high:
        raise InputError(
            field, text, Said("a number from {low} to {high}", low=Figure(low), high=Figure(high))
        )
    return value


_NUMBERS = re.compile(r"(\d{1,4})[./-](\d{1,2})[./-](\d{1,4})(?:[ T,]+(\d{1,2}):(\d{2}))?$")


def _moment(text: str, how: Reading, days: dict[date, int]) -> str:
    """Return a date or time as ISO in UTC; sets of a day without a time stand a minute apart, from
    noon of the trainer's clock.
    """
    try:
        moment = datetime.fromisoformat(text)
        timed = len(text) > 10
    except ValueError:
        moment, timed = _by_numbers(text, how.order)
    if not EARLIEST <= moment.year <= 2100:
        raise InputError("date", text, Said("a year from 1970 to 2100"))
    if not timed:
        number = days[moment.date()] = days.get(moment.date(), -1) + 1
        moment = datetime.combine(moment.date(), time(12)) + timedelta(minutes=number)
    if moment.tzinfo is None:
        moment = moment.replace(tzinfo=how.zone) if how.zone else moment.astimezone()
    return moment.astimezone(UTC).isoformat(timespec="seconds")


def _by_numbers(text: str, order: str) -> tuple[datetime, bool]:
    allowed = Said("a date such as 2026-11-24, with a time or without")
    read = _NUMBERS.match(text)
    if read is None:
        raise InputError("date", text, allowed)
    first, second, third = (int(read[n]) for n in (1, 2, 3))
    if order == "mdy" and "." not in text:
        first, second = second, first
    day, month, year = first, second, third
    if year < 100:
        year += 2000
    try:
        hour, minute = (int(read[4]), int(read[5])) if read[4] else (0, 0)
        return datetime(year, month, day, hour, minute), bool(read[4])
    except ValueError:
        raise InputError("date", text, allowed) from None
