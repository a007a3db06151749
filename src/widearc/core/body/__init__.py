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
from widearc.core.body.ports import PORTS, TRUNK_PORTS, Port
from widearc.core.body.segments import SEGMENTS, Body, Sex

__all__ = [
    "PORTS",
    "SEGMENTS",
    "TRUNK_PORTS",
    "Body",
    "Limits",
    "MeasuredAngle",
    "Port",
    "Sex",
    "bend_by_levels",
    "bend_by_points",
    "bend_by_tape",
    "shank_lean_at_wall",
]
