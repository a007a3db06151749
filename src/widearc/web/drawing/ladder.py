"""A ladder at its true spacing: rungs, rails, wide gaps. Numbers to px; computes no mechanics."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

from widearc.core.progression.rung import Ladder, Rung

WIDTH, LEFT, RIGHT, TOP, FOOT = 360.0, 106.0, 196.0, 14.0, 14.0
LEAST_STEP, MOST_HIGH, LEAST_HIGH = 20.0, 430.0, 230.0
APART = 14.5
BELOW, ABOVE = 4, 7


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Drawn:
    """A rung: its height, its words' height, px; dots: its lighter part from and to, px, None: it
    has none; gap: height of the middle of a wide step below it, None where that is none.
    """

    index: int
    rung: Rung
    y: float
    text_y: float
    dots: tuple[float, float] | None
    gap: float | None


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class LadderDrawing:
    """The rungs about the present one, highest first; height, px; rails: between rungs, from and
    to, px, and whether it is a wide step.
    """

    rungs: tuple[Drawn, ...]
    height: float
    rails: tuple[tuple[float, float, bool], ...]


def ladder_drawing(ladder: Ladder) -> LadderDrawing:
    """Return a ladder about its present rung as px."""
    first, last = max(0, ladder.present - BELOW), ladder.present + ABOVE
    shown = list(enumerate(ladder.rungs))[first : last + 1]
    efforts = [rung.effort for _, rung in shown]
    span = max(efforts[-1] - efforts[0], 1e-9)
    steps = [b - a for a, b in itertools.pairwise(efforts)]
    wanted = LEAST_STEP * span / max(min(steps, default=span), 1e-9)
    high = min(MOST_HIGH, max(LEAST_HIGH if len(shown) > 4 else 150.0, wanted))
    if len(shown) == 1:
        high = 0.0
    ys = [TOP + high * (efforts[-1] - effort) / span for effort in efforts]
    drawn = [
        _drawn(index, rung, y, text_y, below)
        for (index, rung), y, text_y, below in zip(
            shown, ys, _apart(ys), [None, *ys[:-1]], strict=True
        )
    ]
    rails = [(round(ys[i], 1), round(ys[i - 1], 1), shown[i][1].wide) for i in range(1, len(shown))]
    return LadderDrawing(
        rungs=tuple(reversed(drawn)), height=round(TOP + high + FOOT, 1), rails=tuple(rails)
    )


def _drawn(index: int, rung: Rung, y: float, text_y: float, below: float | None) -> Drawn:
    """Return a rung as px; below: height of the one under it, None for the lowest that is shown."""
    part, dots, gap = rung.lighter, None, None
    if part is not None and below is not None:
        wide = RIGHT - LEFT
        dots = round(LEFT + wide * part.start, 1), round(LEFT + wide * part.end, 1)
    if below is not None and rung.wide and below - y >= 2.4 * APART:
        gap = round((y + below) / 2.0, 1)
    return Drawn(index=index, rung=rung, y=round(y, 1), text_y=round(text_y, 1), dots=dots, gap=gap)


def _apart(ys: Sequence[float]) -> list[float]:
    """Return heights of words near heights (falling), none closer than words are high."""
    found = list(ys)
    for _ in range(60):
        moved = False
        for i in range(len(found) - 1):
            short = APART - (found[i] - found[i + 1])
            if short > 0.01:
                found[i] += short / 2.0
                found[i + 1] -= short / 2.0
                moved = True
        if not moved:
            break
    low = max(0.0, 11.0 - min(found, default=11.0))
    return [y + low for y in found]
