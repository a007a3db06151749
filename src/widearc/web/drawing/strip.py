"""A lift in 160 x 18 px, for lists."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from widearc.core.arrays import Array
from widearc.web.drawing.areas import Areas, Line, areas_between

STRIP_WIDTH, STRIP_BASE, STRIP_PEAK = 160.0, 17.5, 17.0


def strip_between(intended: Line, actual: Line, ends_deg: tuple[float, float]) -> Areas:
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
    return areas_between(t, c, x[inside], STRIP_BASE, scale, comb=False)


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
    return strip_between(line, own, (0.0, float(along[-1])))


def strip_alone(demand_nm: Sequence[float] | Array) -> Areas | None:
    """Return the strip of an exercise by itself: its own demand in even steps, lengthened first;
    None under 1 N·m.
    """
    demand = np.asarray(demand_nm, dtype=float)
    if len(demand) < 2 or float(demand.max()) < 1.0:
        return None
    own = Line(angle_deg=np.arange(len(demand), dtype=float), value=demand)
    made = strip_between(own, own, (0.0, float(len(demand) - 1)))
    return Areas(met=made.met, short="", over="", edge=made.edge, line="", comb="")
