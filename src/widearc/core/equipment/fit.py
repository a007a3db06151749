"""Laws fitted to a band's readings, with what they miss."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc.core.equipment.band import BandLaw, LinearLaw, PointsLaw, check_table
from widearc.core.errors import InputError


@dataclass(frozen=True, slots=True, kw_only=True)
class BandFit:
    """A law and its residuals: reading less law, N, in the order of the readings; notes in words."""

    law: BandLaw
    residuals_n: tuple[float, ...]
    notes: tuple[str, ...] = ()

    @property
    def rms_n(self) -> float:
        """Return the root mean square of the residuals, N."""
        return float(np.sqrt(np.mean(np.square(self.residuals_n))))


def fit_points(length_m: tuple[float, ...], force_n: tuple[float, ...], rest_m: float | None = None) -> BandFit:
    """Return the monotone cubic through readings of length (m) and pull (N).

    rest_m as measured, or None: then the last length read at 0 N, else where the line through the
    first two readings meets 0 (said in the notes). Raises InputError with the row's pointer.
    """
    check_table(length_m, force_n)
    notes: list[str] = []
    if rest_m is None:
        slack = [L for L, f in zip(length_m, force_n, strict=True) if f == 0]
        if slack:
            rest_m = slack[-1]
        else:
            rest_m = _rest_from_line(length_m, force_n)
            notes.append(f"rest length {100 * rest_m:.0f} cm assumed from the first two readings; measure it")
    pulling = tuple((L, f) for L, f in zip(length_m, force_n, strict=True) if f > 0)
    if pulling and rest_m >= pulling[0][0]:
        raise InputError("rest_m", rest_m, f"shorter than the first length that pulls, {pulling[0][0]:g} m")
    if not pulling:
        raise InputError("force_n", max(force_n), "one reading above 0 N at least")
    law = PointsLaw(rest_m=rest_m, length_m=length_m, force_n_at=force_n)
    residuals = np.asarray(force_n) - law.force_n(np.asarray(length_m))
    return BandFit(law=law, residuals_n=tuple(float(r) for r in residuals), notes=tuple(notes))


def _rest_from_line(length_m: tuple[float, ...], force_n: tuple[float, ...]) -> float:
    rate = (force_n[1] - force_n[0]) / (length_m[1] - length_m[0])
    rest = length_m[0] - force_n[0] / rate if rate > 0 else 0.0
    # a steep start of the curve puts the crossing too low: rubber is stiffest at its first stretch
    return max(rest, 0.5 * length_m[0])


def fit_linear(length_m: tuple[float, ...], force_n: tuple[float, ...]) -> BandFit:
    """Return the straight line with slack, max(0, k (L - L0)), closest to the readings (m, N).

    Least squares over all readings: for every choice of which longest readings are taut the line is
    fitted, and the choice that misses least overall is kept. Raises InputError when fewer than two
    readings pull or no line rises.
    """
    check_table(length_m, force_n)
    x, y = np.asarray(length_m), np.asarray(force_n)
    if np.count_nonzero(y > 0) < 2:
        raise InputError("force_n", int(np.count_nonzero(y > 0)), "two readings above 0 N or more")
    found = []
    for first in range(len(x) - 1):
        rate, offset = (float(v) for v in np.polyfit(x[first:], y[first:], 1))
        if rate > 0:
            missed = y - np.maximum(0.0, rate * x + offset)
            found.append((float(missed @ missed), -offset / rate, rate))
    if not found:
        raise InputError("force_n", force_n[-1], "a pull that grows with length")
    _, rest, rate = min(found)
    notes: tuple[str, ...] = ()
    if rest < 0.02:
        notes = ("the line meets 0 N at no length a band can have: read closer to its rest length",)
        rest = 0.02
        rate = float(np.sum(y * (x - rest)) / np.sum((x - rest) ** 2))
    law = LinearLaw(rest_m=rest, rate_n_per_m=rate)
    residuals = y - law.force_n(x)
    return BandFit(law=law, residuals_n=tuple(float(r) for r in residuals), notes=notes)
