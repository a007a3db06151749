"""The trained body: segments from stature and mass, ports where loads meet it, limits that bound
it.

Knows no equipment and no exercise.
"""

from widearc.core.body.limits import Limits
from widearc.core.body.measured import (
    MeasuredAngle,
    bend_by_levels,
    bend_by_points,
    bend_by_tape,
    shank_lean_at_wall,
)
from widearc.core.body.ports import PORTS, TRUNK_PORTS
from widearc.core.body.segments import HIP_OVER_SEAT_M, SEGMENTS, Body, Sex

__all__ = [
    "HIP_OVER_SEAT_M",
    "PORTS",
    "SEGMENTS",
    "TRUNK_PORTS",
    "Body",
    "Limits",
    "MeasuredAngle",
    "Sex",
    "bend_by_levels",
    "bend_by_points",
    "bend_by_tape",
    "shank_lean_at_wall",
]
