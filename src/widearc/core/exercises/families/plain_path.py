"""A handle along a line."""

from __future__ import annotations

from widearc.core.exercises.families.common import number, specs
from widearc.core.exercises.family import Family

FAMILY = Family(
    name="plain path",
    words="Handle only",
    rank=17,
    options=specs(
        (),
        number("travel_m", "travel of the hands", 0.5, 0.05, 2),
        number("direction_deg", "direction over level, forward", 90, -180, 180),
        number("start_x_m", "start ahead", 0, -3, 3),
        number("start_y_m", "start over the floor", 0, 0, 3),
    ),
    compared=False,
)
