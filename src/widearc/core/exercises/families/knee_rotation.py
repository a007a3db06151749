"""Knee extensions and curls."""

from __future__ import annotations

from widearc.core.exercises.families.common import number, of_body, specs
from widearc.core.exercises.family import Family
from widearc.core.exercises.options import OptionSpec

FAMILY = Family(
    name="knee rotation",
    words="Extensions and curls",
    rank=9,
    options=specs(
        ("legs", "seat_m"),
        number("hip_deg", "hip bend of the seat", 90, -10, 120),
        number("knee_from_deg", "knee bend, start", 100, 0, 130),
        number("knee_to_deg", "knee bend, end", 5, 0, 130),
        of_body("pad_m", "shin pad below the knee", 0.35, 0.1, 0.5),
        number("pad_extra_m", "extra pad before the shin pad", 0, 0, 0.08),
        number("pivot_x_m", "machine's pivot ahead of the knee", 0, -0.1, 0.1),
        number("pivot_y_m", "machine's pivot over the knee", 0, -0.1, 0.1),
        OptionSpec(
            name="dial",
            label="dial (noted only)",
            unit="count",
            default=1,
            low=1,
            high=20,
            used=False,
        ),
    ),
    still=True,
    held=lambda _: frozenset({"hip", "ankle"}),
    pad_slides=True,
)
