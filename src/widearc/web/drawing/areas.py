"""What is intended against what is there, as areas over joint angle: met, short, over."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.curve import CENTRES_DEG, Action

STEP_DEG = 0.5
COMB_DEG, COMB_PX = 2, 7.0
TALLEST_PX = 400.0


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


def areas_between(
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
