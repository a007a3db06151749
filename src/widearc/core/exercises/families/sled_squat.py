"""Squats with the back on a sled."""

from __future__ import annotations

from widearc.core.exercises.families.common import PRESSURE_POINT, number, of_body, specs
from widearc.core.exercises.family import Family

FAMILY = Family(
    name="sled squat",
    words="Squat machines",
    rank=6,
    options=specs(
        (),
        number("rail_deg", "rails above level", 60, 30, 90),
        of_body("foot_ahead_m", "feet ahead of the hip's line", 0.3, 0, 0.6),
        number("pad_at", "back pad's force, hip to shoulder", 0.3, 0, 1),
        number("plate_tilt_deg", "plate tilted, toes away", 0, -20, 40),
        PRESSURE_POINT,
        number("knee_from_deg", "knee bend, lengthened end", 100, 20, 140),
        number("knee_to_deg", "knee bend, shortened end", 8, 0, 60),
    ),
    still=True,
    upright=True,
    takes=("sled", "band", "cable"),
)
