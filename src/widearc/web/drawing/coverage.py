"""A week's map: three bars for a muscle group and day, long, middle and short, planned outlined,
done filled, missed hatched; and a body at the ends of a lift. Numbers to px; computes no mechanics.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.statics import Curve

HIGH, STEP, PER_SET = 34.0, 14.0, 7.0
THIRDS = ("long", "middle", "short")


@dataclass(frozen=True, slots=True, kw_only=True)
class Bar:
    """A bar from the foot: x, px; heights planned, done, missed, px."""

    x: float
    planned: float
    done: float
    missed: float


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Row:
    """A muscle group through the days: bars of each day, unit sets of each, of the week planned and
    done.
    """

    group: str
    days: tuple[tuple[Bar, ...], ...]
    units: tuple[tuple[float, float, float], ...]
    planned: float
    done: float


def rows_of(
    groups: tuple[str, ...],
    planned: Mapping[str, Array],
    done: Mapping[str, Array],
    missed: Mapping[str, Array],
) -> tuple[Row, ...]:
    """Return a map's rows; each: unit sets by group, (7 days, 3 thirds)."""
    most = max((float(planned[g].max()) for g in groups), default=0.0)
    most = max(most, max((float(done[g].max()) for g in groups), default=0.0), HIGH / PER_SET)
    found = []
    for group in groups:
        days = tuple(
            tuple(
                Bar(
                    x=round(STEP * third, 1),
                    planned=_px(planned[group][day, third], most),
                    done=_px(done[group][day, third], most),
                    missed=_px(missed[group][day, third], most),
                )
                for third in range(3)
            )
            for day in range(7)
        )
        units = tuple(
            (float(a), float(b), float(c)) for a, b, c in np.round(planned[group], 1).tolist()
        )
        found.append(
            Row(
                group=group,
                days=days,
                units=units,
                planned=float(planned[group].sum()),
                done=float(done[group].sum()),
            )
        )
    return tuple(found)


def _px(units: float, most: float) -> float:
    return round(HIGH * min(1.0, float(units) / most), 1)


POSE = 84.0
CHAIN = ("toe", "heel", "ankle", "knee", "hip", "shoulder")


@dataclass(frozen=True, slots=True, kw_only=True)
class Pose:
    """A body at the lengthened (faint) and the shortened end of a lift, as paths; floor: px."""

    long: str
    short: str
    floor: float


def pose_of(curve: Curve) -> Pose | None:
    """Return a set-up of one row as two stick figures, None where its points are not known."""
    points = curve.motion.points
    names = [name for name in CHAIN if name in points]
    if len(names) < 3:
        return None
    every = np.array([np.broadcast_to(points[n], (2, *curve.motion.shape))[:, 0] for n in names])
    ends = every[:, :, [0, -1]]
    low, high = ends.min(axis=(0, 2)), ends.max(axis=(0, 2))
    scale = (POSE - 8.0) / max(float((high - low).max()), 1e-6)
    paths = []
    for end in (0, 1):
        across = [4.0 + scale * float(p[0, end] - low[0]) for p in ends]
        up = [POSE - 4.0 - scale * float(p[1, end] - low[1]) for p in ends]
        xy = zip(across, up, strict=True)
        paths.append("M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in xy))
    floor = POSE - 4.0 - scale * float(0.0 - low[1])
    return Pose(long=paths[0], short=paths[1], floor=round(min(floor, POSE - 1.0), 1))
