"""Numbers to drawings: curve areas, strips and cursors as SVG path strings. Computes no mechanics.

Order, colours and patterns are those of docs/decisions/0003-look.md: met, short, over, actual edge,
casing, comb, intended line.
"""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np

from widearc.core.arrays import Array
from widearc.core.curve import Action
from widearc.core.words import Name, Said
from widearc.web.drawing.areas import TALLEST_PX, Areas, Line, _runs, areas_between
from widearc.web.drawing.axis import Tick, degree_ticks, value_ticks
from widearc.words import say, tell, tr

PLOT_WIDTH, LEFT, RIGHT = 520.0, 34.0, 8.0
LETTER_PX = 8.6  # of a drawing 520 wide that is shown 358 wide
MOST_PX_PER_DEG = 3.89


@dataclass(frozen=True, slots=True, kw_only=True)
class Label:
    """A word on the drawing."""

    x: float
    y: float
    text: str
    kind: str
    anchor: str = "start"


@dataclass(frozen=True, slots=True, kw_only=True)
class Plot:
    """One joint's plot, ready to place: paths, ticks and words, all px."""

    joint: str
    action: str
    width: float
    height: float
    base: float
    left: float
    right: float
    areas: Areas
    x_ticks: tuple[Tick, ...]
    y_ticks: tuple[Tick, ...]
    labels: tuple[Label, ...]
    base_lines: tuple[tuple[float, float], ...]
    cursor: tuple[float, ...] = field(default=())


def plots(
    pairs: list[tuple[Action, Line, Line]],
    names: tuple[str, str],
    doubts: list[Array | None] | None = None,
) -> list[Plot]:
    """Return a plot per joint, all with the same px per degree and per N·m, so that equal areas
    mean equal work.

    pairs: action, intended and actual line; names: what is intended and what is actual, in words;
    doubts: one standard error of each actual, N·m over its grid.
    """
    doubts = doubts or [None] * len(pairs)
    spans = [np.ptp(t.angle_deg) for _, t, _ in pairs]
    per_deg = min(MOST_PX_PER_DEG, (PLOT_WIDTH - LEFT - RIGHT) / max(spans))
    peaks = [
        max(float(np.nanmax(np.concatenate(([10.0], t.value, c.value)))) for _, t, c in [pair])
        for pair in pairs
    ]
    per_nm = min(TALLEST_PX - 110.0 * len(pairs) + 110, TALLEST_PX - 60 * len(pairs)) / sum(peaks)
    per_nm = min(per_nm, 1.8)
    return [
        _plot(action, t, c, per_deg, per_nm, peak, names, first=index == 0, doubt=doubts[index])
        for index, ((action, t, c), peak) in enumerate(zip(pairs, peaks, strict=True))
    ]


def _plot(
    action: Action,
    t: Line,
    c: Line,
    per_deg: float,
    per_nm: float,
    peak: float,
    names: tuple[str, str],
    *,
    first: bool,
    doubt: Array | None,
) -> Plot:
    top = 34.0
    height = top + max(peak * per_nm, 40.0) + 46.0
    base = height - 46.0
    x = LEFT + np.abs(t.angle_deg - t.angle_deg[0]) * per_deg
    drawn = areas_between(t, c, x, base, per_nm, doubt=doubt)
    return Plot(
        joint=action.joint,
        action=action.words,
        width=PLOT_WIDTH,
        height=round(height, 1),
        base=round(base, 1),
        left=LEFT,
        right=round(float(x[-1]), 1),
        areas=drawn,
        x_ticks=degree_ticks(t.angle_deg, x),
        y_ticks=value_ticks(0.0, 1.02 * peak, base, per_nm, gap=28.0, least=10),
        labels=tuple(_labels(t, c, x, base, per_nm, names, first=first)),
        base_lines=tuple(
            (round(float(x[a]), 1), round(float(x[b - 1]), 1))
            for a, b in _runs(np.isfinite(c.value))
        ),
    )


def _labels(
    t: Line, c: Line, x: Array, base: float, per_nm: float, names: tuple[str, str], *, first: bool
) -> list[Label]:
    """Return words for what is drawn, each only where it fits on its mark."""
    labels = []
    has_t, has_c = np.isfinite(t.value), np.isfinite(c.value)
    t0, c0 = np.nan_to_num(t.value), np.nan_to_num(c.value)
    short = np.where(has_t, t0 - np.where(has_c, c0, 0.0), 0.0) * per_nm
    over = np.where(has_c, c0 - np.where(has_t, t0, 0.0), 0.0) * per_nm
    met = np.where(has_t & has_c, np.minimum(t0, c0), 0.0) * per_nm
    for gap, low, kind, text in (
        (short, np.where(has_c, c0, 0.0), "short", tr("lacks")),
        (over, np.where(has_t, t0, 0.0), "over", tr("over")),
        (
            met,
            np.zeros(len(x)),
            "met",
            say(Said("actual: {name}", name=Name(names[1]))) if first else "",
        ),
    ):
        found = _widest(gap, x, 18.0 if kind != "met" else 26.0)
        words = _fitting(found, text)
        if words and found is not None:
            i = int(np.argmin(np.abs(x - (found[0] + found[1]) / 2)))
            # in the middle of the gap, by its height there
            y = base - per_nm * low[i] - gap[i] / 2 + 4
            labels.append(
                Label(
                    x=round(float(x[i]), 1),
                    y=round(float(y), 1),
                    text=words,
                    kind=kind,
                    anchor="middle",
                )
            )
    if first and has_t.any():
        at = int(np.flatnonzero(has_t)[int(0.3 * has_t.sum())])
        highest = base - per_nm * max(t0[at], c0[at])
        labels.append(
            Label(
                x=round(float(x[at]) + 8, 1),
                y=round(float(highest) - 9, 1),
                text=tell("intended: {name}", name=names[0]),
                kind="intended",
            )
        )
    return labels


def _fitting(found: tuple[float, float] | None, words: str) -> str:
    """Return the words that stand within a run of x, on a phone too, where letters are larger: all
    of them, only which curve it is, or none.
    """
    room = (found[1] - found[0] - 10) / LETTER_PX if found is not None else 0.0
    return next((w for w in (words, words.partition(":")[0]) if len(w) < room), "")


def _widest(gap: Array, x: Array, tall_px: float) -> tuple[float, float] | None:
    runs = [(x[a], x[b - 1]) for a, b in _runs(gap > tall_px)]
    return max(runs, key=lambda r: r[1] - r[0]) if runs else None
