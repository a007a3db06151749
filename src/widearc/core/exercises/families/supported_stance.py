"""Squats that a ball, rails or a handle support."""

from __future__ import annotations

from dataclasses import replace

from widearc.core.exercises.families.common import LEAN, STANCE, number, of_body, specs
from widearc.core.exercises.family import Family

RAIL_HINGE = (
    number("knee_deg", "knee bend kept", 15, 0, 60),
    number("trunk_from_deg", "trunk lean, lengthened end", 60, 20, 90),
    number("trunk_to_deg", "trunk lean, shortened end", 5, 0, 30),
)

LEAN_TO = number("trunk_lean_to_deg", "trunk lean, shortened end", 0, 0, 60)

ON_A_BALL = replace(LEAN_TO, default="same", choices=("same",), also_number=True)
"""The back keeps its lean against a ball, unless told."""

FAMILY = Family(
    name="supported stance",
    words="Squats with a support",
    rank=2,
    options=specs(
        ("belt_offset_m",),
        *STANCE,
        replace(LEAN, label="trunk lean, lengthened end"),
        LEAN_TO,
        of_body("foot_ahead_m", "feet ahead of the support", 0.25, 0, 0.6),
        of_body("support_m", "height of the support at the end", 1.0, 0.3, 2.4),
        number("rail_tilt_deg", "rails tilted", 0, 0, 15),
    ),
    still=True,
    weighted=True,
    upright=True,
)
