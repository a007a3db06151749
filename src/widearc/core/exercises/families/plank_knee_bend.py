"""Knee bends with the hands on the floor."""

from __future__ import annotations

from widearc.core.exercises.families.common import number, specs
from widearc.core.exercises.family import Family

FAMILY = Family(
    name="plank knee bend",
    words="Kneeling",
    rank=10,
    options=specs(
        ("legs",),
        number("couch_m", "couch over the floor", 0.45, 0.2, 0.8),
        number("knee_from_deg", "knee bend, lengthened end", 90, 20, 120),
        number("knee_to_deg", "knee bend, shortened end", 5, 0, 60),
    ),
    still=True,
)
