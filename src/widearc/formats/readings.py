"""Readings of a band as CSV, and their fit as a document. Every refusal names the row."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from widearc.core.equipment import FITS, MOST_READINGS, BandFit, fit_band, fit_machine
from widearc.core.errors import InputError, UnknownNameError
from widearc.core.words import Figure, Listed, Name, Said
from widearc.formats.documents import check
from widearc.formats.laws import law_part
from widearc.words import plain

HEADERS = ("length_m", "force_n")
RANGES = {
    "travel_m": (0.0, 3.0),
    "force_n": (0.0, 20000.0),
    "angle_deg": (-360.0, 360.0),
    "pad_m": (0.02, 2.0),
    "arm_m": (0.02, 3.0),
    "stack_kg": (0.0, 1000.0),
    "plate_kg": (0.0, 1000.0),
    "on_kg": (0.0, 1000.0),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadingRow:
    """One reading: length m, pull N, while loading or unloading."""

    length_m: float
    force_n: float
    direction: str = "loading"


def read_readings(text: str) -> tuple[ReadingRow, ...]:
    """Return the readings of a CSV with the headers length_m,force_n and perhaps direction (loading
    or unloading).

    Raises InputError whose `where` is "row N", counted from 1 below the header.
    """
    lines = _lines(text, HEADERS, "direction")
    header = tuple(cell.strip() for cell in lines[0])
    rows = []
    for number, line in enumerate(lines[1:], start=1):
        direction = (line[2].strip() if len(header) == 3 else "") or "loading"
        if direction not in ("loading", "unloading"):
            raise InputError(f"row {number}, direction", direction, Said("loading or unloading"))
        rows.append(
            ReadingRow(
                length_m=_number(number, "length_m", line[0]),
                force_n=_number(number, "force_n", line[1]),
                direction=direction,
            )
        )
    return tuple(rows)


def _lines(text: str, headers: tuple[str, ...], may_follow: str = "") -> list[list[str]]:
    """Return the lines of a CSV with its header first, all of one width; InputError names header or
    row.
    """
    lines = list(csv.reader(io.StringIO(text.lstrip("\ufeff"))))
    lines = [line for line in lines if any(cell.strip() for cell in line)]
    wanted = ",".join(headers)
    allowed = (wanted, f"{wanted},{may_follow}") if may_follow else (wanted,)
    if not lines:
        raise InputError(
            "header",
            "an empty file",
            Said("a header {wanted} and rows below it", wanted=Name(str(wanted))),
        )
    header = tuple(cell.strip() for cell in lines[0])
    if header != headers and not (may_follow and header == (*headers, may_follow)):
        raise InputError(
            "header",
            ",".join(header),
            Said("{headers}", headers=Listed(tuple(map(Name, allowed)), "or")),
        )
    if len(lines) - 1 > MOST_READINGS:
        raise InputError("rows", len(lines) - 1, Said("at most {_}", _=Name(str(MOST_READINGS))))
    for number, line in enumerate(lines[1:], start=1):
        if len(line) != len(header):
            raise InputError(
                f"row {number}",
                ",".join(line),
                Said("{header} columns", header=Name(str(len(header)))),
            )
    return lines


def _number(
    row: int, column: str, text: str, low: float = -math.inf, high: float = math.inf
) -> float:
    try:
        value = float(text)
    except ValueError:
        raise InputError(f"row {row}, {column}", text.strip(), Said("a number")) from None
    if not math.isfinite(value):
        raise InputError(f"row {row}, {column}", text.strip(), Said("a finite number"))
    if not low <= value <= high:
        raise InputError(
            f"row {row}, {column}",
            text.strip(),
            Said("from {low} to {high}", low=Figure(low), high=Figure(high)),
        )
    return value


def write_readings(rows: Iterable[ReadingRow]) -> str:
    """Return readings as CSV with a header."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(HEADERS)
    writer.writerows((f"{row.length_m:.6g}", f"{row.force_n:.6g}") for row in rows)
    return out.getvalue()


def fit_document(rows: Sequence[ReadingRow], rest_m: float | None = None) -> dict[str, Any]:
    """Return the wide-arc/fit document of a band's readings: every law with residuals and score,
    and the chosen one.

    Unloading readings give the hysteresis. A law that the readings do not allow is listed under
    "refused"; when none fits, InputError names the row.
    """
    loading = [(i, r) for i, r in enumerate(rows) if r.direction == "loading"]
    lengths, forces = tuple(r.length_m for _, r in loading), tuple(r.force_n for _, r in loading)
    try:
        found = fit_band(lengths, forces, rest_m)
    except InputError as error:
        column, _, index = error.where.partition("/")
        where = f"{column}/{loading[int(index)][0]}" if index.isdigit() else error.where
        raise InputError(row_of(where), error.value, error.allowed) from None
    document: dict[str, Any] = {
        "format": "wide-arc/fit",
        "version": 1,
        "kind": "band",
        "readings": {"length_m": list(lengths), "force_n": list(forces)},
        **{kind: _fit(fit) for kind, fit in found.fits.items()},
        "scores": {kind: round(score, 4) for kind, score in found.scores.items()},
        "chosen": found.chosen,
    }
    if found.refused:
        document["refused"] = {kind: plain(why) for kind, why in found.refused.items()}
    unloading = [r for r in rows if r.direction == "unloading"]
    if unloading:
        law = found.fits[found.chosen].law
        shares = [
            1.0 - r.force_n / float(law.force_n(np.array(r.length_m)))
            for r in unloading
            if float(law.force_n(np.array(r.length_m))) > 0
        ]
        if shares:
            document["hysteresis"] = round(max(0.0, float(np.mean(shares))), 4)
    check(document, "fit")
    return document


def read_columns(text: str, kind: str) -> dict[str, list[Any]]:
    """Return a machine's readings of a CSV as columns; InputError names header or row."""
    if kind not in FITS:
        raise UnknownNameError("--kind", kind, ("band", *FITS))
    headers = FITS[kind].columns
    lines = _lines(text, headers)
    columns: dict[str, list[Any]] = {name: [] for name in headers}
    for number, line in enumerate(lines[1:], start=1):
        for name, cell in zip(headers, line, strict=True):
            if name == "direction":
                if cell.strip() not in ("push", "return"):
                    raise InputError(
                        f"row {number}, direction", cell.strip(), Said("push or return")
                    )
                columns[name].append(cell.strip())
            else:
                columns[name].append(_number(number, name, cell, *RANGES[name]))
    return columns


def write_columns(kind: str, columns: Mapping[str, Sequence[Any]]) -> str:
    """Return a machine's readings as a CSV with the kind's header, that `read_columns` reads
    back.
    """
    headers = FITS[kind].columns
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(headers)
    writer.writerows(zip(*(columns[name] for name in headers), strict=True))
    return out.getvalue()


def machine_document(
    kind: str, columns: dict[str, list[Any]], given: Mapping[str, float]
) -> dict[str, Any]:
    """Return the wide-arc/fit document of a machine's readings."""
    found = fit_machine(kind, columns, given)
    document: dict[str, Any] = {
        "format": "wide-arc/fit",
        "version": 1,
        "kind": kind,
        "readings": columns,
        "law": {name: round(value, 6) for name, value in found.law.items()},
        "residuals_n": [round(value, 4) for value in found.residuals_n],
        "rms_n": round(found.rms_n, 4),
        "notes": [plain(note) for note in found.notes],
    }
    if found.tables:
        document["tables"] = {
            name: [round(v, 6) for v in values] for name, values in found.tables.items()
        }
    check(document, "fit")
    return document


def row_of(where: str) -> str:
    """Return "row N, column" for the pointer of a table's cell ("force_n/2"), other pointers
    unchanged.
    """
    column, _, index = where.partition("/")
    return f"row {int(index) + 1}, {column}" if index.isdigit() else where


def _fit(fit: BandFit) -> dict[str, Any]:
    return {
        "law": law_part(fit.law),
        "residuals_n": [round(r, 4) for r in fit.residuals_n],
        "rms_n": round(fit.rms_n, 4),
        "notes": [plain(note) for note in fit.notes],
    }
