"""Leg swings."""

from __future__ import annotations

from dataclasses import replace

from widearc.core.exercises.families.common import (
    HIP_FROM,
    HIP_TO,
    OPENS,
    SEAT,
    number,
    of_body,
    specs,
)
from widearc.core.exercises.family import Family

FAMILY = Family(
    name="hip rotation leg",
    words="Leg swings",
    rank=13,
    options=specs(
        ("legs", "seat_m"),
        replace(SEAT, default=0.9),
        HIP_FROM,
        HIP_TO,
        number("knee_deg", "knee bend kept", 0, 0, 120),
        of_body("pad_m", "pad below the hip", 0.38, 0.1, 0.8),
        *OPENS,
    ),
    still=True,
    held=lambda _: frozenset({"ankle"}),
)
