"""Back extensions."""

from __future__ import annotations

from dataclasses import replace

from widearc.core.exercises.families.common import HIP_FROM, HIP_TO, SEAT, number, specs
from widearc.core.exercises.family import Family

FAMILY = Family(
    name="hip rotation trunk",
    words="Back extensions",
    rank=12,
    options=specs(
        ("seat_m",),
        replace(SEAT, default=0.9),
        replace(HIP_FROM, low=0),
        replace(HIP_TO, high=60),
        number("leg_deg", "legs above level", 45, 0, 60),
        number("pad_below_hip_m", "pad centre below the hip", 0.10, 0, 0.3),
    ),
    still=True,
    held=lambda _: frozenset({"ankle"}),
)
