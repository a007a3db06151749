"""Squats that a ball, rails or a handle support."""

from __future__ import annotations

from widearc.core.exercises.families.common import LEAN, STANCE, number, specs
from widearc.core.exercises.family import Family

RAIL_HINGE = (
    number("knee_deg", "knee bend kept", 15, 0, 60),
    number("trunk_from_deg", "trunk lean, lengthened end", 60, 20, 90),
    number("trunk_to_deg", "trunk lean, shortened end", 5, 0, 30),
)

FAMILY = Family(
    name="supported stance",
    words="Squats with a support",
    rank=2,
    options=specs(
        ("belt_offset_m",),
        *STANCE,
        LEAN,
        number("foot_ahead_m", "feet ahead of the support", 0.25, 0, 0.6),
        number("support_m", "height of the support at the end", 1.0, 0.3, 1.8),
        number("rail_tilt_deg", "rails tilted", 0, 0, 15),
    ),
    still=True,
    weighted=True,
    upright=True,
)
