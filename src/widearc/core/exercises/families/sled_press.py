"""Presses on a sled."""

from __future__ import annotations

from dataclasses import replace

from widearc.core.exercises.families.common import PRESSURE_POINT, number, specs
from widearc.core.exercises.family import Family
from widearc.core.exercises.options import OptionSpec

FAMILY = Family(
    name="sled press",
    words="Presses",
    rank=5,
    options=specs(
        ("legs", "seat_m"),
        number("rail_deg", "rails above level", 45, 0, 90),
        number("backrest_deg", "backrest above level", 15, 0, 80),
        number("foot_height_m", "ankle above the hip line along the rails", 0.10, -0.15, 0.30),
        number("plate_tilt_deg", "plate tilted, toes away", 10, -20, 30),
        replace(number("foot_width_m", "between the feet", 0.35, 0.1, 0.9), used=False),
        PRESSURE_POINT,
        OptionSpec(
            name="push",
            label="push square to the rails, share of least effort",
            unit="share",
            default=0.5,
            choices=("least-effort", "none"),
            also_number=True,
            low=0.0,
            high=1.0,
        ),
        number("knee_from_deg", "knee bend, lengthened end", 90, 20, 140),
        number("knee_to_deg", "knee bend, shortened end", 8, 0, 60),
    ),
    still=True,
    takes=("sled", "band", "cable"),
)
