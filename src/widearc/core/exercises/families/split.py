"""Split squats, lunges, step-ups and the b-stance."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from widearc.core.exercises.families.common import (
    BOX,
    LEAN,
    LEGS,
    PAIR,
    PAIR_SHARE,
    PRESSURE_POINT,
    number,
    of_body,
    specs,
)
from widearc.core.exercises.family import Family

if TYPE_CHECKING:
    from widearc.core.exercises.exercise import Exercise


def _kept(exercise: Exercise) -> bool:
    return exercise.variant == ""


FAMILY = Family(
    name="split",
    words="Split and one leg",
    rank=4,
    options=specs(
        ("belt_offset_m",),
        replace(LEGS, default=1, choices=(1,)),
        of_body("step_m", "front ankle to rear ball", 0.75, 0.1, 1.3),
        number("rear_m", "rear foot raised", 0, 0, 0.6),
        number("hip_back", "hip behind the front ankle, share of the step", 0.45, 0.3, 0.6),
        number("knee_from_deg", "front knee bend, lengthened end", 95, 20, 140),
        number("knee_to_deg", "front knee bend, shortened end", 10, 0, 60),
        number("knee_travel", "knee travel per knee bend", 0.33, 0, 0.6),
        LEAN,
        number("rear_share", "share of the weight on the rear foot", 0.15, 0, 0.5),
        number("leaves_at", "rear foot off the floor at, share of the lift", 0.3, 0.1, 0.6),
        number("load_left_share", "share of the hands' load on the left", 0.5, 0, 1),
        replace(BOX, label="box under the front foot"),
        PRESSURE_POINT,
        PAIR,
        PAIR_SHARE,
    ),
    weighted=True,
    own_legs=False,
    upright=True,
    one_leg=True,
    kept=_kept,
)
