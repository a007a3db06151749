"""Readings of a band as CSV, and their fit as a document. Every refusal names the row."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from widearc.core.equipment import BandFit, fit_linear, fit_points
from widearc.core.errors import InputError
from widearc.formats.documents import check
from widearc.formats.scenario import law_part

HEADERS = ("length_m", "force_n")
MOST_ROWS = 500


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadingRow:
    """One reading: length m, pull N."""

    length_m: float
    force_n: float


def read_readings(text: str) -> tuple[ReadingRow, ...]:
    """Return the readings of a CSV with the headers length_m,force_n (a third, direction, may be "loading").

    Raises InputError whose `where` is "row N", counted from 1 below the header.
    """
    lines = list(csv.reader(io.StringIO(text.lstrip("\ufeff"))))
    lines = [line for line in lines if any(cell.strip() for cell in line)]
    if not lines:
        raise InputError("header", "an empty file", "a header length_m,force_n and rows below it")
    header = tuple(cell.strip() for cell in lines[0])
    if header not in (HEADERS, (*HEADERS, "direction")):
        raise InputError("header", ",".join(header), "length_m,force_n or length_m,force_n,direction")
    if len(lines) - 1 > MOST_ROWS:
        raise InputError("rows", len(lines) - 1, f"at most {MOST_ROWS}")
    rows = []
    for number, line in enumerate(lines[1:], start=1):
        if len(line) != len(header):
            raise InputError(f"row {number}", ",".join(line), f"{len(header)} columns")
        if len(header) == 3 and line[2].strip() not in ("", "loading"):
            raise InputError(f"row {number}, direction", line[2].strip(), "loading (unloading is not taken yet)")
        rows.append(
            ReadingRow(length_m=_number(number, "length_m", line[0]), force_n=_number(number, "force_n", line[1]))
        )
    return tuple(rows)


def _number(row: int, column: str, text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        raise InputError(f"row {row}, {column}", text.strip(), "a number") from None
    if not math.isfinite(value):
        raise InputError(f"row {row}, {column}", text.strip(), "a finite number")
    return value


def write_readings(rows: Iterable[ReadingRow]) -> str:
    """Return readings as CSV with a header."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(HEADERS)
    writer.writerows((f"{row.length_m:.6g}", f"{row.force_n:.6g}") for row in rows)
    return out.getvalue()


def fit_document(rows: Sequence[ReadingRow], rest_m: float | None = None) -> dict[str, Any]:
    """Return the wide-arc/fit document of a band's readings: both laws with residuals, and the chosen one.

    The monotone cubic is chosen: it goes through every reading. A law that the readings do not
    allow is listed under "refused"; when neither fits, InputError names the row.
    """
    lengths, forces = tuple(r.length_m for r in rows), tuple(r.force_n for r in rows)
    try:
        points = fit_points(lengths, forces, rest_m)
    except InputError as error:
        raise InputError(row_of(error.where), error.value, error.allowed) from None
    document: dict[str, Any] = {
        "format": "wide-arc/fit",
        "version": 1,
        "kind": "band",
        "readings": {"length_m": list(lengths), "force_n": list(forces)},
        "points": _fit(points),
        "chosen": "points",
    }
    try:
        document["linear"] = _fit(fit_linear(lengths, forces))
    except InputError as error:
        document["refused"] = {"linear": str(error)}
    check(document, "fit")
    return document


def row_of(where: str) -> str:
    """Return "row N, column" for the pointer of a table's cell ("force_n/2"), other pointers unchanged."""
    column, _, index = where.partition("/")
    return f"row {int(index) + 1}, {column}" if index.isdigit() else where


def _fit(fit: BandFit) -> dict[str, Any]:
    return {
        "law": law_part(fit.law),
        "residuals_n": [round(r, 4) for r in fit.residuals_n],
        "rms_n": round(fit.rms_n, 4),
        "notes": list(fit.notes),
    }
