"""Laws fitted to a band's readings, with what they miss."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.loads.rubber import (
    BandLaw,
    LinearLaw,
    MooneyRivlinLaw,
    PointsLaw,
    check_table,
)
from widearc.core.errors import InputError
from widearc.core.words import Distance, Length, Said


@dataclass(frozen=True, slots=True, kw_only=True)
class BandFit:
    """A law and its residuals: reading less law, N, in the order of the readings; notes in
    words.
    """

    law: BandLaw
    residuals_n: tuple[float, ...]
    notes: tuple[Said, ...] = ()

    @property
    def rms_n(self) -> float:
        """Return the root mean square of the residuals, N."""
        return float(np.sqrt(np.mean(np.square(self.residuals_n))))


def fit_points(
    length_m: tuple[float, ...], force_n: tuple[float, ...], rest_m: float | None = None
) -> BandFit:
    """Return the monotone cubic through readings of length (m) and pull (N).

    rest_m as measured, or None: then the last length read at 0 N, else where the line through the
    first two readings meets 0 (said in the notes). Raises InputError with the row's pointer.
    """
    law, notes = points_law(length_m, force_n, rest_m)
    residuals = np.asarray(force_n) - law.force_n(np.asarray(length_m))
    return BandFit(law=law, residuals_n=tuple(float(r) for r in residuals), notes=notes)


def points_law(
    length_m: tuple[float, ...], force_n: tuple[float, ...], rest_m: float | None = None
) -> tuple[PointsLaw, tuple[Said, ...]]:
    """Return the law of `fit_points` alone, which nobody has pulled yet, and notes in words."""
    check_table(length_m, force_n)
    notes: tuple[Said, ...] = ()
    if rest_m is None:
        rest_m, notes = _rest_of(length_m, force_n)
    pulling = tuple((L, f) for L, f in zip(length_m, force_n, strict=True) if f > 0)
    if pulling and rest_m >= pulling[0][0]:
        raise InputError(
            "rest_m",
            rest_m,
            Said(
                "shorter than the first length that pulls, {distance}",
                distance=Distance(pulling[0][0]),
            ),
        )
    if not pulling:
        raise InputError("force_n", max(force_n), Said("one reading above 0 N at least"))
    law = PointsLaw(rest_m=rest_m, length_m=length_m, force_n_at=force_n)
    return law, notes


def _rest_of(
    length_m: tuple[float, ...], force_n: tuple[float, ...]
) -> tuple[float, tuple[Said, ...]]:
    slack = [L for L, f in zip(length_m, force_n, strict=True) if f == 0]
    if slack:
        return slack[-1], ()
    rest_m = _rest_from_line(length_m, force_n)
    words = Said(
        "rest length {length} assumed from the first two readings; measure it",
        length=Length(rest_m),
    )
    return rest_m, (words,)


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
        raise InputError(
            "force_n", int(np.count_nonzero(y > 0)), Said("two readings above 0 N or more")
        )
    found = []
    for first in range(len(x) - 1):
        rate, offset = (float(v) for v in np.polyfit(x[first:], y[first:], 1))
        if rate > 0:
            missed = y - np.maximum(0.0, rate * x + offset)
            found.append((float(missed @ missed), -offset / rate, rate))
    if not found:
        raise InputError("force_n", force_n[-1], Said("a pull that grows with length"))
    _, rest, rate = min(found)
    notes: tuple[Said, ...] = ()
    if rest < 0.02:
        notes = (
            Said("the line meets 0 N at no length a band can have: read closer to its rest length"),
        )
        rest = 0.02
        rate = float(np.sum(y * (x - rest)) / np.sum((x - rest) ** 2))
    law = LinearLaw(rest_m=rest, rate_n_per_m=rate)
    residuals = y - law.force_n(x)
    return BandFit(law=law, residuals_n=tuple(float(r) for r in residuals), notes=notes)


def fit_mooney_rivlin(
    length_m: tuple[float, ...],
    force_n: tuple[float, ...],
    rest_m: float | None = None,
    area_m2: float = 1e-4,
) -> BandFit:
    """Return the Mooney-Rivlin law closest to the readings (m, N) by least squares.

    At a given rest length the law is linear in A0·C1 and A0·C2; only those products are determined,
    so the section is set to `area_m2`. rest_m None: the rest length that misses least, searched
    between half the shortest length that pulls and that length. Needs three readings that pull (two
    with rest_m).
    """
    check_table(length_m, force_n)
    x, y = np.asarray(length_m), np.asarray(force_n)
    pulling = y > 0
    if np.count_nonzero(pulling) < (3 if rest_m is None else 2):
        raise InputError(
            "force_n", int(np.count_nonzero(pulling)), Said("three readings above 0 N or more")
        )
    shortest = float(x[pulling].min())
    notes = [Said("the section is taken as 1 cm²: only section times constant is determined")]
    if rest_m is None:
        from scipy.optimize import minimize_scalar

        found = minimize_scalar(
            lambda rest: _rubber(x, y, rest)[0],
            bounds=(0.5 * shortest, 0.999 * shortest),
            method="bounded",
        )
        rest_m = float(found.x)
        notes.append(Said("rest length {length} fitted; measure it", length=Length(rest_m)))
    elif rest_m >= shortest:
        raise InputError(
            "rest_m",
            rest_m,
            Said(
                "shorter than the first length that pulls, {distance}", distance=Distance(shortest)
            ),
        )
    _, c1, c2 = _rubber(x, y, rest_m)
    law = MooneyRivlinLaw(rest_m=rest_m, area_m2=area_m2, c1_pa=c1 / area_m2, c2_pa=c2 / area_m2)
    # the law itself answers for 3 times its rest length only; readings may go further
    if np.any(np.diff(law.force_n(np.linspace(rest_m, float(x.max()), 50))) < 0):
        raise InputError(
            "force_n",
            float(y[-1]),
            Said("readings that rubber gives: its law would fall at the longest ones"),
        )
    residuals = y - law.force_n(x)
    return BandFit(law=law, residuals_n=tuple(float(r) for r in residuals), notes=tuple(notes))


def _rubber(x: Array, y: Array, rest_m: float) -> tuple[float, float, float]:
    """Return the summed square of what is missed, and A0·C1 and A0·C2 (N) at a rest length (m)."""
    stretch = np.maximum(x / rest_m, 1.0)
    shape = 2.0 * (stretch - stretch**-2)
    design = np.column_stack((shape, shape / stretch))
    (c1, c2), *_ = np.linalg.lstsq(design, y, rcond=None)
    missed = y - design @ (c1, c2)
    return float(missed @ missed), float(c1), float(c2)


def corrected_akaike(residuals: tuple[float, ...], parameters: int) -> float | None:
    """Return the corrected Akaike score of least-squares residuals, None with too few readings for
    so many parameters.

    n·ln(RSS/n) + 2k + 2k(k+1)/(n−k−1), k the parameters and the variance (Hurvich & Tsai 1989). A
    fit better than 0.01 N counts as 0.01 N: no scale reads finer.
    """
    n, k = len(residuals), parameters + 1
    if n - k - 1 <= 0:
        return None
    spread = max(float(np.mean(np.square(residuals))), 1e-4)
    return float(n * np.log(spread) + 2 * k + 2 * k * (k + 1) / (n - k - 1))


CLOSE_ENOUGH = (
    0.05  # of the largest pull: a law that misses a reading by more is not used by itself
)


@dataclass(frozen=True, slots=True, kw_only=True)
class BandFits:
    """Every law that the readings allow by its kind, scores (lower is better), why others are not,
    the choice.
    """

    fits: Mapping[str, BandFit]
    scores: Mapping[str, float]
    refused: Mapping[str, Said]
    chosen: str


def fit_band(
    length_m: tuple[float, ...], force_n: tuple[float, ...], rest_m: float | None = None
) -> BandFits:
    """Return all band laws fitted to readings of length (m) and pull (N), and the one to use.

    Among line and rubber the lower corrected Akaike score wins, unless it misses a reading by more
    than a twentieth of the largest pull: then, or with too few readings to score, the cubic through
    every reading is used. Raises InputError when the table itself is refused.
    """
    check_table(length_m, force_n)
    ways: dict[str, Callable[[], BandFit]] = {
        "points": lambda: fit_points(length_m, force_n, rest_m),
        "linear": lambda: fit_linear(length_m, force_n),
        "mooney-rivlin": lambda: fit_mooney_rivlin(length_m, force_n, rest_m),
    }
    # the rubber law's rest length is a parameter only where it was not measured
    parameters = {"linear": 2, "mooney-rivlin": 2 if rest_m is not None else 3}
    fits: dict[str, BandFit] = {}
    scores: dict[str, float] = {}
    refused: dict[str, Said] = {}
    for kind, make in ways.items():
        try:
            fits[kind] = make()
        except InputError as error:
            refused[kind] = error.allowed
            continue
        if kind in parameters:
            score = corrected_akaike(fits[kind].residuals_n, parameters[kind])
            scores |= {} if score is None else {kind: score}
    if not fits:
        fit_points(length_m, force_n, rest_m)  # raises with the reason
    most = CLOSE_ENOUGH * max(force_n)
    good = [kind for kind in scores if max(map(abs, fits[kind].residuals_n)) <= most]
    chosen = min(good, key=lambda kind: scores[kind]) if good else "points"
    return BandFits(
        fits=fits,
        scores=scores,
        refused=refused,
        chosen=chosen if chosen in fits else next(iter(fits)),
    )
