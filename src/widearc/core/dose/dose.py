"""Dose: demand times the time spent at each degree of a joint, over the lifting and lowering
phases.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.curve import CENTRES_DEG, GRID_FROM, Action
from widearc.core.dose.style import RepStyle, StyleKind
from widearc.core.errors import InputError
from widearc.core.statics import Curve
from widearc.core.units import to_deg
from widearc.core.words import Said

SPREAD_DEG = 8.0  # half the width of the triangle over which a pause is spread (assumed)
PARTS = 10  # of each sample's interval: an interval may straddle two degrees


@dataclass(frozen=True, slots=True, kw_only=True)
class Tempo:
    """Seconds of one rep's phases, 0.1 to 120: lowering, lifting."""

    lowering_s: float = 2.0
    lifting_s: float = 1.0

    def __post_init__(self) -> None:
        """Check both phases."""
        for name in ("lowering_s", "lifting_s"):
            value = getattr(self, name)
            if not math.isfinite(value) or not 0.1 <= value <= 120:
                raise InputError(f"/tempo/{name}", value, Said("from 0.1 to 120 s"))


PLAIN, USUAL = RepStyle(), Tempo()


def dose_on_grid(
    curve: Curve, action: Action, style: RepStyle = PLAIN, tempo: Tempo = USUAL, row: int = 0
) -> Array:
    """Return one rep's dose over the 1° grid of an action's joint, (220,), N·m·s per degree.

    Even speed within each phase; what asks for the opposite action counts as 0. Zeros where the
    joint is held. Pauses are spread as a triangle of ±8°; the named quarter of a one-and-a-quarter
    rep is passed twice as often; partials cut the range.
    """
    bins = np.zeros(len(CENTRES_DEG))
    if action.joint not in curve.demand_nm:
        return bins
    angle = to_deg(curve.motion.angles[action.joint][row])
    up = np.maximum(0.0, curve.demand_nm[action.joint][row] * action.sign)
    lowered = (curve.lowering_nm or curve.demand_nm)[action.joint][row]
    down = np.maximum(0.0, lowered * action.sign)
    lowering_s = (
        style.seconds
        if style.kind is StyleKind.SLOW_LOWERING and style.seconds
        else tempo.lowering_s
    )
    if style.kind is not StyleKind.LOWERING_ONLY:
        bins += _passed(angle, up, tempo.lifting_s)
    bins += _passed(angle, down, lowering_s)
    if style.kind is StyleKind.ONE_AND_A_QUARTER:
        bins[_quarter(angle, style.end)] *= 2.0
    if style.kind is StyleKind.PARTIALS:
        low, high = sorted((float(style.from_deg or 0.0), float(style.to_deg or 0.0)))
        bins[(low > CENTRES_DEG) | (high < CENTRES_DEG)] = 0.0
    if style.kind in (StyleKind.PAUSE, StyleKind.HOLD):
        bins += _held(angle, up, float(style.at_deg or 0.0), float(style.seconds or 0.0))
    return bins


def _passed(angle: Array, demand: Array, seconds: float) -> Array:
    """Return the dose of one pass at even speed, N·m·s per degree; its sum is the impulse."""
    inner = (np.arange(PARTS) + 0.5) / PARTS
    dt = seconds / (len(angle) - 1) / PARTS
    theta = angle[:-1, None] + np.diff(angle)[:, None] * inner
    value = demand[:-1, None] + np.diff(demand)[:, None] * inner
    bins = np.zeros(len(CENTRES_DEG))
    place = np.clip(np.floor(theta - GRID_FROM).astype(int), 0, len(bins) - 1)
    np.add.at(bins, place.ravel(), value.ravel() * dt)
    return bins


def _held(angle: Array, demand: Array, at_deg: float, seconds: float) -> Array:
    """Return a pause's dose, spread as a triangle, N·m·s per degree."""
    order = np.argsort(angle)
    inside = float(np.clip(at_deg, angle.min(), angle.max()))
    weight = np.maximum(0.0, 1.0 - np.abs(CENTRES_DEG - inside) / SPREAD_DEG)
    return np.asarray(
        float(np.interp(inside, angle[order], demand[order])) * seconds * weight / weight.sum()
    )


def _quarter(angle: Array, end: str) -> Array:
    """Return which degrees lie in the named quarter of the range."""
    first, last = float(angle[0]), float(angle[-1])
    part = 0.25 * (last - first)
    here, there = (first, first + part) if end == "lengthened" else (last - part, last)
    return np.asarray((min(here, there) <= CENTRES_DEG) & (max(here, there) >= CENTRES_DEG))
