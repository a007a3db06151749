"""Squats with the back on a swinging arm."""

from __future__ import annotations

from widearc.core.exercises.families.common import PRESSURE_POINT, number, of_body, specs
from widearc.core.exercises.family import Family

FAMILY = Family(
    name="arc squat",
    words="Squat machines",
    rank=7,
    options=specs(
        (),
        of_body("pivot_x_m", "pivot ahead of the ankles", -0.9, -2, 2),
        of_body("pivot_y_m", "pivot over the floor", 1.2, 0, 2.2),
        of_body("arm_m", "arm, pivot to shoulders", 0.9, 0.4, 1.8),
        number("counterweight_kg", "counterweight at the arm's length", 0, 0, 100),
        number("plate_tilt_deg", "plate tilted, toes away", 0, -20, 40),
        PRESSURE_POINT,
        number("knee_from_deg", "knee bend, lengthened end", 100, 20, 140),
        number("knee_to_deg", "knee bend, shortened end", 8, 0, 60),
    ),
    still=True,
    upright=True,
)
