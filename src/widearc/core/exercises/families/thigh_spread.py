"""Thighs opened apart."""

from __future__ import annotations

from dataclasses import replace

from widearc.core.exercises.families.common import OPENS, number, specs
from widearc.core.exercises.family import Family

FAMILY = Family(
    name="thigh spread",
    words="Thighs apart",
    rank=14,
    options=specs(
        (),
        number("hip_deg", "hip bend of the seat", 90, 0, 120),
        *(replace(spec, low=0) for spec in OPENS),
    ),
    still=True,
    pad_slides=True,
    from_above=True,
    takes=("band", "stack", "lever", "cable", "spring"),
)
