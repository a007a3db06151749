"""Calf raises."""

from __future__ import annotations

from typing import TYPE_CHECKING

from widearc.core.exercises.families.common import number, specs
from widearc.core.exercises.family import Family

if TYPE_CHECKING:
    from widearc.core.exercises.exercise import Exercise


def _kept(exercise: Exercise) -> bool:
    return exercise.variant == "press"


CALF_PRESS = (
    number("rail_deg", "rails above level", 45, 0, 90),
    number("backrest_deg", "backrest above level", 15, 0, 80),
)

FAMILY = Family(
    name="calf",
    words="Calves",
    rank=15,
    options=specs(
        ("legs",),
        number("step_m", "step under the balls of the feet", 0.08, 0, 0.3),
        number("knee_deg", "knee bend", 0, 0, 110),
        number("ankle_from_deg", "ankle bend, lengthened end", 15, -20, 40),
        number("ankle_to_deg", "ankle bend, shortened end", -30, -50, 20),
    ),
    kept=_kept,
)
