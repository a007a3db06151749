"""Hinges and deadlifts."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from widearc.core.exercises.families.common import (
    BOX,
    FREE_LEG,
    PRESSURE_POINT,
    choice,
    number,
    of_body,
    specs,
)
from widearc.core.exercises.family import Family

if TYPE_CHECKING:
    from widearc.core.exercises.exercise import Exercise


def _kept(exercise: Exercise) -> bool:
    # a bar kept over the foot: whatever it weighs, balance asks the same posture
    return exercise.options["hold"].default == "bar"


DEADLIFT = (
    number("knee_from_deg", "knee bend on the floor", 70, 20, 130),
    number("knee_to_deg", "knee bend at the end", 5, 0, 40),
    number("bar_m", "grip over the weight's floor at the start", 0.225, 0.05, 0.6),
    of_body("stance_m", "between the feet", 0.35, 0.1, 1.2),
)

FAMILY = Family(
    name="hinge",
    words="Hinges",
    rank=3,
    options=specs(
        ("legs", "free_leg_deg", "belt_offset_m"),
        replace(FREE_LEG, default=0),
        number("knee_deg", "knee bend kept", 15, 0, 60),
        number("trunk_from_deg", "trunk lean, lengthened end", 80, 20, 100),
        number("trunk_to_deg", "trunk lean, shortened end", 0, 0, 30),
        number("deficit_m", "feet raised over the weight's floor", 0, 0, 0.3),
        BOX,
        PRESSURE_POINT,
        choice("hold", "what the hands hold", "bar", ("bar", "hang")),
    ),
    weighted=True,
    kept=_kept,
    kept_in_hands=True,
    low_back_gives=True,
)
