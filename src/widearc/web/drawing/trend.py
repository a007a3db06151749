"""An action's strength over weeks: every set a mark, the estimate with its ± at the right. Numbers
to px; computes no mechanics.
"""

from __future__ import annotations

from dataclasses import dataclass

from widearc.core.record.estimate import WEEKS
from widearc.usecases.client.over_time import Trend
from widearc.web.drawing.axis import Tick, figures

WIDTH, HEIGHT, LEFT, RIGHT, TOP, FOOT = 360.0, 150.0, 40.0, 60.0, 10.0, 24.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Mark:
    """A set: where, px; side; bound: it says "at least"; words: exercise and day."""

    x: float
    y: float
    side: str
    bound: bool
    exercise: str
    done_at: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Bar:
    """A side's estimate: middle and ends of its ±, px; None: a lower bound, an arrow upwards."""

    side: str
    x: float
    y: float
    ends: tuple[float, float] | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Drawn:
    """The plot of a trend."""

    marks: tuple[Mark, ...]
    bars: tuple[Bar, ...]
    x_ticks: tuple[Tick, ...]
    y_ticks: tuple[Tick, ...]


def trend_plot(trend: Trend) -> Drawn:
    """Return an action's plot, ten weeks wide, in percent of the usual curve."""
    points = [s.point for rows in trend.said.values() for s in rows]
    values = [p.kappa for p in points if not p.at_least]
    values += [e.kappa * (1 + 2 * (e.sd or 0.0)) for e in trend.sides.values()]
    values += [e.kappa * (1 - 2 * (e.sd or 0.0)) for e in trend.sides.values()]
    low, high = 0.95 * min(values), 1.05 * max(values)
    step = 0.05 if high - low < 0.25 else 0.1 if high - low < 0.6 else 0.2

    def x(weeks: float) -> float:
        return round(LEFT + (WIDTH - LEFT - RIGHT) * (1.0 - weeks / WEEKS), 1)

    def y(kappa: float) -> float:
        return round(TOP + (HEIGHT - TOP - FOOT) * (high - kappa) / (high - low), 1)

    first = int(low / step) + 1
    ticks = [n * step for n in range(first, int(high / step) + 1)]
    bars = []
    for place, (side, found) in enumerate(sorted(trend.sides.items())):
        sd = found.sd
        ends = (
            None if sd is None else (y(found.kappa * (1 + 2 * sd)), y(found.kappa * (1 - 2 * sd)))
        )
        bars.append(Bar(side=side, x=WIDTH - RIGHT + 16 + 22 * place, y=y(found.kappa), ends=ends))
    return Drawn(
        marks=tuple(
            Mark(
                x=x(s.point.weeks),
                y=y(s.point.kappa),
                side=side,
                bound=s.point.at_least,
                exercise=s.point.exercise,
                done_at=s.done_at,
            )
            for side, rows in trend.said.items()
            for s in rows
            if low <= s.point.kappa <= high
        ),
        bars=tuple(bars),
        x_ticks=tuple(Tick(at=x(w), text=figures(w)) for w in (10, 8, 6, 4, 2, 0)),
        y_ticks=tuple(Tick(at=y(v), text=f"{round(100 * v)}") for v in ticks),
    )
