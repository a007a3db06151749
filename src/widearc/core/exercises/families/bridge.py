"""Bridges and hip thrusts."""

from __future__ import annotations

from dataclasses import replace

from widearc.core.exercises.families.common import (
    HIP_FROM,
    HIP_TO,
    PRESSURE_POINT,
    number,
    specs,
)
from widearc.core.exercises.family import Family
from widearc.core.exercises.options import OptionSpec

FAMILY = Family(
    name="bridge",
    words="Bridges",
    rank=11,
    options=specs(
        ("legs", "free_leg_deg"),
        number("bench_m", "bench edge over the floor", 0.4, 0.2, 0.7),
        OptionSpec(
            name="foot_ahead_m",
            label="feet ahead of the bench",
            unit="m",
            default="vertical shin",
            choices=("vertical shin",),
            also_number=True,
            low=0.3,
            high=1.4,
        ),
        number("foot_m", "feet raised", 0, 0, 0.9),
        replace(HIP_FROM, default=80, low=20, high=110),
        replace(HIP_TO, low=-10, high=40),
        PRESSURE_POINT,
        number("horizontal_pair_n", "feet pushing away from the bench", 0, -300, 300),
    ),
    still=True,
    low_back_gives=True,
    weighted=True,
)
