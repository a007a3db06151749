"""Squats: feet flat, balance decides the lean."""

from __future__ import annotations

from widearc.core.exercises.families.common import STANCE, specs
from widearc.core.exercises.family import Family

FAMILY = Family(
    name="stance",
    words="Squats",
    rank=1,
    options=specs(("legs", "free_leg_deg", "belt_offset_m"), *STANCE),
    weighted=True,
    upright=True,
)
