"""Marks of an axis: where they stand, px to a tenth, and what is written there."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.web.words.words import MINUS

# a scale counts in ones, twos and fives
STEPS = (0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000)
NAMED_DEG = 30


@dataclass(frozen=True, slots=True, kw_only=True)
class Tick:
    """A mark on an axis: position px, its text (may be empty); bold: said on a narrow screen
    too.
    """

    at: float
    text: str = ""
    bold: bool = False


def every(step: float, low: float, high: float) -> Array:
    """Return the multiples of a step from low to high; an end that is one belongs to them."""
    slack = 1e-6 * step
    return np.arange(np.ceil((low - slack) / step) * step, high + slack, step)


def named(degrees: float) -> bool:
    """Return whether an angle is one of those that are written, every 30°."""
    return bool(abs(degrees - NAMED_DEG * np.round(degrees / NAMED_DEG)) < 1e-6)


def figures(value: float, end: str = "") -> str:
    """Return a value as its tick says it: no zero has a sign, a minus is one."""
    return f"{round(float(value), 9) + 0:.6g}{end}".replace("-", MINUS)


def marks(
    values: Iterable[float], at: Iterable[float], text: Callable[[float], str]
) -> tuple[Tick, ...]:
    """Return a tick for each value at its place, px."""
    return tuple(
        Tick(at=round(float(x), 1), text=text(float(v))) for v, x in zip(values, at, strict=True)
    )


def degree_ticks(angle_deg: Array, x: Array) -> tuple[Tick, ...]:
    """Return the ticks of a motion over a joint's bend, which may go either way: every 10°, every
    30° written.
    """
    order = np.argsort(angle_deg)
    values = every(10, float(angle_deg.min()), float(angle_deg.max()))
    at = np.interp(values, angle_deg[order], x[order])
    return marks(values, at, lambda v: figures(v, "°") if named(v) else "")


def share_ticks(x: Array) -> tuple[Tick, ...]:
    """Return start, middle and end of a lift along x, px."""
    at = np.interp((0, 0.5, 1), (0, 1), (x[0], x[-1]))
    return marks((0, 50, 100), at, lambda v: figures(v, " %"))


def value_ticks(
    low: float, high: float, zero: float, per: float, *, gap: float = 26.0, least: float = 0.1
) -> tuple[Tick, ...]:
    """Return the ticks of a quantity that stands `per` px high a unit over `zero` px, `gap` px or
    more apart, steps no smaller than `least`.
    """
    step = next((s for s in STEPS if s >= least and s * per >= gap), STEPS[-1])
    values = every(step, low, high)
    return marks(values, zero - per * values, figures)


def scale_ticks(low: float, high: float, place: Callable[[Array], Array]) -> tuple[Tick, ...]:
    """Return at most eight ticks of a scale from low to high, each at `place` px."""
    size = 10.0 ** np.floor(np.log10(high - low))
    step = next(s * size for s in (0.1, 0.2, 0.5, 1.0, 2.0) if high - low <= 7 * s * size)
    values = every(float(step), low, high)
    return marks(values, place(values), figures)
