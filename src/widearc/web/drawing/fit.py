"""A band's readings with every law through them, and what each misses, as px."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment import BandFit
from widearc.core.units import FORCE_N, LENGTH_M
from widearc.usecases import BandSheet
from widearc.usecases.bench.bands import spread_at
from widearc.usecases.bench.machines import MachineSheet
from widearc.web.drawing import path
from widearc.web.drawing.axis import Tick, scale_ticks
from widearc.words import size_of

WIDTH, LEFT, RIGHT, TOP, BASE = 620.0, 48.0, 14.0, 16.0, 300.0
MIDDLE, HALF = 372.0, 34.0  # residual plot: its zero line and half height


SHIFTS = {
    "points": -4.0,
    "linear": 0.0,
    "mooney-rivlin": 4.0,
}  # px, so that residual bars stand side by side


@dataclass(frozen=True, slots=True, kw_only=True)
class FitChart:
    """Everything to draw: law paths, reading points, residual bars, ticks, all px."""

    paths: Mapping[str, str]
    dots: tuple[tuple[float, float], ...]
    outlier: tuple[float, float] | None
    residuals: Mapping[str, tuple[tuple[float, float], ...]]
    residual_scale: str
    x_ticks: tuple[Tick, ...]
    y_ticks: tuple[Tick, ...]
    halo: str = ""


def fit_chart(sheet: BandSheet, length_unit: str, force_unit: str) -> FitChart | None:
    """Return the chart in the units chosen, or None while there are no two readings."""
    if len(sheet.readings) < 2:
        return None
    per_length = LENGTH_M.get(length_unit, 1.0)
    per_force = FORCE_N.get(force_unit, 1.0)
    lengths = np.array([r.length_m for r in sheet.readings])
    forces = np.array([r.force_n for r in sheet.readings])
    rests = [fit.law.rest_m for fit in sheet.fits.values()]
    low, high = min([lengths.min(), *rests]), lengths.max()
    low, high = low - 0.06 * (high - low), high + 0.06 * (high - low)
    most = max(forces.max() * 1.12, 1.0)
    measured = np.linspace(lengths.min(), lengths.max(), 60)
    band = spread_at(sheet, measured)
    reach = np.linspace(low, high, 160)

    def x(value: Array) -> Array:
        return np.asarray(LEFT + (value - low) / (high - low) * (WIDTH - LEFT - RIGHT))

    def y(value: Array) -> Array:
        return np.asarray(BASE - value / most * (BASE - TOP))

    def law_path(fit: BandFit) -> str:
        return path.line(x(reach), np.maximum(y(fit.law.force_n(reach)), TOP - 12))

    worst = max([1.0, *(abs(r) for fit in sheet.fits.values() for r in fit.residuals_n)])

    def residuals(fit: BandFit, shift: float) -> tuple[tuple[float, float], ...]:
        tops = MIDDLE - np.asarray(fit.residuals_n) / worst * HALF
        return _dots(x(lengths) + shift, tops)

    dots = _dots(x(lengths), y(forces))
    return FitChart(
        paths={kind: law_path(fit) for kind, fit in sheet.fits.items()},
        dots=dots,
        outlier=None if sheet.outlier is None else dots[sheet.outlier],
        residuals={kind: residuals(fit, SHIFTS[kind]) for kind, fit in sheet.fits.items()},
        residual_scale=f"{worst / per_force:.2g}",
        x_ticks=scale_ticks(low / per_length, high / per_length, lambda v: x(v * per_length)),
        y_ticks=scale_ticks(0.0, most / per_force, lambda v: y(v * per_force)),
        halo="" if band is None else path.between(x(measured), y(band[1]), y(band[0])),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class MachineChart:
    """Readings and the law of a machine, px: the law's path, its band, the points, and ticks."""

    path: str
    halo: str
    dots: tuple[tuple[float, float], ...]
    outlier: tuple[float, float] | None
    x_ticks: tuple[Tick, ...]
    y_ticks: tuple[Tick, ...]


MACHINE_BASE = 250.0


def _dots(x: Array, y: Array) -> tuple[tuple[float, float], ...]:
    return tuple((round(float(a), 1), round(float(b), 1)) for a, b in zip(x, y, strict=True))


def machine_chart(sheet: MachineSheet, setting: str, force_unit: str) -> MachineChart | None:
    """Return the chart of one dial setting, None where there is nothing to draw against (a
    sled).
    """
    columns, rows, found = sheet.columns, sheet.of(setting), sheet.fits[setting]
    if columns is None or not columns.unit or len(rows) < 2:
        return None
    per_force = FORCE_N.get(force_unit, 1.0)
    per_at = columns.per * size_of(columns.unit)
    at = np.array([r.at for r in rows])
    read = np.array([r.force_n for r in rows])
    law = read - np.asarray(found.residuals_n)
    low, high = float(at.min()), float(at.max())
    margin = 0.06 * max(high - low, 1e-6)
    most = max(float(read.max()) * 1.15, 1.0)

    def x(value: Array) -> Array:
        return np.asarray(
            LEFT + (value - low + margin) / (high - low + 2 * margin) * (WIDTH - LEFT - RIGHT)
        )

    def y(value: Array) -> Array:
        return np.asarray(MACHINE_BASE - np.maximum(value, 0.0) / most * (MACHINE_BASE - TOP))

    order = np.argsort(at)
    line = path.line(x(at[order]), y(law[order]))
    spread = found.spread_n
    halo = (
        ""
        if spread is None
        else path.between(x(at[order]), y(law[order] + 2 * spread), y(law[order] - 2 * spread))
    )
    dots = _dots(x(at), y(read))
    return MachineChart(
        path=line,
        halo=halo,
        dots=dots,
        outlier=None if found.outlier is None else dots[found.outlier],
        x_ticks=scale_ticks(
            (low - margin) / per_at,
            (high + margin) / per_at,
            lambda v: x(v * per_at),
        ),
        y_ticks=scale_ticks(0.0, most / per_force, lambda v: y(v * per_force)),
    )
