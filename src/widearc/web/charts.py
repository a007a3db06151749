"""Numbers to drawings: curve areas, strips and cursors as SVG path strings. Computes no mechanics.

Order, colours and patterns are those of docs/decisions/0003-look.md: met, short, over, actual edge,
casing, comb, intended line.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.curve import CENTRES_DEG, Action

STEP_DEG = 0.5
COMB_DEG, COMB_PX = 2, 7.0
TALLEST_PX = 400.0
PLOT_WIDTH, LEFT, RIGHT = 520.0, 34.0, 8.0
MOST_PX_PER_DEG = 3.89


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Line:
    """A curve to draw: values (N·m) over a common grid of angles from lengthened to shortened; NaN
    outside.
    """

    angle_deg: Array
    value: Array


@dataclass(frozen=True, slots=True, kw_only=True)
class Areas:
    """SVG paths of one comparison, in the order of drawing."""

    met: str
    short: str
    over: str
    edge: str
    line: str
    comb: str
    halo: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Tick:
    """A mark on an axis: position px, its text (may be empty); bold: said on a narrow screen
    too.
    """

    at: float
    text: str = ""
    bold: bool = False


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


def grid(bins: list[Array], action: Action) -> Array:
    """Return angles (degrees) from lengthened to shortened over all the bins in use, a degree wider
    at each end.
    """
    used = np.flatnonzero(np.any([b > 0 for b in bins], axis=0))
    low, high = CENTRES_DEG[used.min()] - 0.5, CENTRES_DEG[used.max()] + 0.5
    angles = np.arange(np.floor(low), np.ceil(high) + STEP_DEG / 2, STEP_DEG)
    return angles[:: action.direction]


def line_of(angle_deg: Array, demand: Array, action: Action, angles: Array) -> Line:
    """Return a curve's demand (in the action's sense, not below 0) over the grid; NaN where it does
    not go.
    """
    order = np.argsort(angle_deg)
    value = np.interp(angles, angle_deg[order], np.maximum(0.0, demand * action.sign)[order])
    outside = (angles < angle_deg.min() - STEP_DEG / 2) | (angles > angle_deg.max() + STEP_DEG / 2)
    return Line(angle_deg=angles, value=np.where(outside, np.nan, value))


def nothing(angles: Array) -> Line:
    """Return a curve that is nowhere: a joint that the candidate holds."""
    return Line(angle_deg=angles, value=np.full(len(angles), np.nan))


def areas(
    intended: Line,
    actual: Line,
    x: Array,
    base: float,
    px_per_nm: float,
    *,
    comb: bool = True,
    doubt: Array | None = None,
) -> Areas:
    """Return the paths of intended against actual; x px for every angle of the grid, base line at
    `base` px.

    doubt: one standard error of the actual, N·m; the halo is two of them to each side.
    """
    t, c = intended.value, actual.value
    has_t, has_c = np.isfinite(t), np.isfinite(c)
    y_t, y_c = base - px_per_nm * np.nan_to_num(t), base - px_per_nm * np.nan_to_num(c)
    floor = np.full(len(x), base)
    low = np.maximum(y_t, y_c)  # px grow downwards
    return Areas(
        met=_band(x, floor, low, has_t & has_c),
        short=_band(x, np.where(has_c, y_c, floor), y_t, has_t & (~has_c | (y_c > y_t + 0.01))),
        over=_band(x, np.where(has_t, y_t, floor), y_c, has_c & (~has_t | (y_c < y_t - 0.01))),
        edge=_open(x, y_c, has_c, None),
        line=_open(x, y_t, has_t, base),
        comb=_comb(intended.angle_deg, x, y_t, has_t, base) if comb else "",
        halo=""
        if doubt is None
        else _halo(x, y_c, has_c, 2.0 * px_per_nm * np.nan_to_num(doubt), base),
    )


def _halo(x: Array, y: Array, where: BoolArray, half: Array, base: float) -> str:
    return _band(x, np.minimum(y + half, base), y - half, where)


def _band(x: Array, y_from: Array, y_to: Array, where: BoolArray) -> str:
    """Return a closed path per run of `where` between two edges; a run takes its neighbours' shared
    point.
    """
    parts = []
    for start, end in _runs(where):
        if end - start < 2:
            continue
        forth = [f"{x[i]:.1f} {y_to[i]:.1f}" for i in range(start, end)]
        back = [f"{x[i]:.1f} {y_from[i]:.1f}" for i in range(end - 1, start - 1, -1)]
        parts.append("M" + "L".join(forth + back) + "Z")
    return "".join(parts)


def _open(x: Array, y: Array, where: BoolArray, base: float | None) -> str:
    parts = []
    for start, end in _runs(where):
        points = [f"{x[i]:.1f} {y[i]:.1f}" for i in range(start, end)]
        if base is not None and points:
            points = [f"{x[start]:.1f} {base:.1f}", *points, f"{x[end - 1]:.1f} {base:.1f}"]
        parts.append("M" + "L".join(points))
    return "".join(parts)


def _comb(angle_deg: Array, x: Array, y: Array, where: BoolArray, base: float) -> str:
    parts = []
    for i in np.flatnonzero(where & (np.abs(angle_deg % COMB_DEG) < 1e-6)):
        foot = min(base, y[i] + COMB_PX)
        if foot - y[i] > 0.5:
            parts.append(f"M{x[i]:.1f} {y[i]:.1f}V{foot:.1f}")
    return "".join(parts)


def _runs(where: BoolArray) -> list[tuple[int, int]]:
    edges = np.flatnonzero(np.diff(np.concatenate(([0], where.astype(int), [0]))))
    return [(int(a), int(b)) for a, b in zip(edges[::2], edges[1::2], strict=True)]


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
    drawn = areas(t, c, x, base, per_nm, doubt=doubt)
    return Plot(
        joint=action.joint,
        action=action.words,
        width=PLOT_WIDTH,
        height=round(height, 1),
        base=round(base, 1),
        left=LEFT,
        right=round(float(x[-1]), 1),
        areas=drawn,
        x_ticks=_x_ticks(t.angle_deg, x),
        y_ticks=_y_ticks(peak, base, per_nm),
        labels=tuple(_labels(t, c, x, base, per_nm, names, first=first)),
        base_lines=tuple(
            (round(float(x[a]), 1), round(float(x[b - 1]), 1))
            for a, b in _runs(np.isfinite(c.value))
        ),
    )


def _x_ticks(angle_deg: Array, x: Array) -> tuple[Tick, ...]:
    ticks = []
    for i in np.flatnonzero(np.abs(angle_deg % 10) < 1e-6):
        text = f"{angle_deg[i]:.0f}°".replace("-", "−") if abs(angle_deg[i] % 30) < 1e-6 else ""
        ticks.append(Tick(at=round(float(x[i]), 1), text=text))
    return tuple(ticks)


def _y_ticks(peak: float, base: float, per_nm: float) -> tuple[Tick, ...]:
    step = next(s for s in (10, 20, 40, 50, 100, 200, 400, 1000, 5000) if s * per_nm >= 28)
    return tuple(
        Tick(at=round(base - value * per_nm, 1), text=f"{value:.0f}")
        for value in np.arange(0, peak * 1.02, step)
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
    for gap, low, kind, words in (
        (short, np.where(has_c, c0, 0.0), "short", "short"),
        (over, np.where(has_t, t0, 0.0), "over", "over"),
        (met, np.zeros(len(x)), "met", f"actual: {names[1]}" if first else ""),
    ):
        found = _widest(gap, x, 18.0 if kind != "met" else 26.0)
        if words and found is not None and found[1] - found[0] > 6.4 * len(words) + 10:
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
                text=f"intended: {names[0]}",
                kind="intended",
            )
        )
    return labels


def _widest(gap: Array, x: Array, tall_px: float) -> tuple[float, float] | None:
    runs = [(x[a], x[b - 1]) for a, b in _runs(gap > tall_px)]
    return max(runs, key=lambda r: r[1] - r[0]) if runs else None


STRIP_WIDTH, STRIP_BASE, STRIP_PEAK = 160.0, 17.5, 17.0


def strip(intended: Line, actual: Line, ends_deg: tuple[float, float]) -> Areas:
    """Return the 160×18 strip of the wanted range: base at 17.5, the greatest intended demand 17 px
    high.
    """
    long_end, short_end = ends_deg
    angle = intended.angle_deg
    inside = (angle <= max(ends_deg) + 1e-6) & (angle >= min(ends_deg) - 1e-6)
    # a degree is under 2 px here: every second grid point draws the same strip at half the weight
    inside &= np.arange(len(angle)) % 2 == 0
    x = STRIP_WIDTH * np.abs(angle - long_end) / abs(short_end - long_end)
    scale = STRIP_PEAK / float(np.nanmax(intended.value))
    t = Line(angle_deg=angle[inside], value=intended.value[inside])
    # what is higher than the strip is cut at its upper edge
    c = Line(
        angle_deg=angle[inside], value=np.minimum(actual.value[inside], (STRIP_BASE - 0.5) / scale)
    )
    return areas(t, c, x[inside], STRIP_BASE, scale, comb=False)


def strip_of_points(points: tuple[tuple[float, float], ...]) -> Areas | None:
    """Return the strip of intended and actual N·m in even steps, lengthened first; None where
    nothing was kept.
    """
    if len(points) < 2 or max(t for t, _ in points) <= 0:
        return None
    at = np.arange(len(points), dtype=float)
    t, c = np.array(points).T
    # even steps stand for the wanted range; a zero is a slack place, not one that is not reached
    fine = np.arange(0, len(points) - 0.99, 0.25)
    wide = np.interp(fine, at, t), np.interp(fine, at, c)
    along = np.arange(len(wide[0]), dtype=float)
    line, own = (Line(angle_deg=along, value=v) for v in wide)
    return strip(line, own, (0.0, float(along[-1])))


def strip_alone(demand_nm: Sequence[float] | Array) -> Areas | None:
    """Return the strip of an exercise by itself: its own demand in even steps, lengthened first;
    None under 1 N·m.
    """
    demand = np.asarray(demand_nm, dtype=float)
    if len(demand) < 2 or float(demand.max()) < 1.0:
        return None
    own = Line(angle_deg=np.arange(len(demand), dtype=float), value=demand)
    made = strip(own, own, (0.0, float(len(demand) - 1)))
    return Areas(met=made.met, short="", over="", edge=made.edge, line="", comb="")
