"""Weeks as bars: sets of a muscle in thirds of its length, and shares of profiles. Numbers to px;
computes no mechanics.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

STEP, WIDE, HIGH = 18.0, 13.0, 36.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """A part of a bar: px; which: 0 to 2, the first at the foot."""

    x: float
    y: float
    high: float
    which: int


def bars(
    totals: Sequence[float], shares: Sequence[tuple[float, float, float]], most: float
) -> tuple[Part, ...]:
    """Return the bars of weeks, oldest first; most: what a whole bar stands for."""
    found = []
    for week, (total, parts) in enumerate(zip(totals, shares, strict=True)):
        foot = HIGH
        for which, share in enumerate(parts):
            high = HIGH * share * min(1.0, total / most) if most > 0 else 0.0
            if high <= 0.0:
                continue
            foot -= high
            found.append(
                Part(x=round(STEP * week, 1), y=round(foot, 2), high=round(high, 2), which=which)
            )
    return tuple(found)


def width(weeks: int) -> float:
    """Return the width of so many weeks, px."""
    return STEP * weeks - (STEP - WIDE)
