"""Kneeling, the body straight."""

from __future__ import annotations

from typing import TYPE_CHECKING

from widearc.core.exercises.families.common import choice, number, specs
from widearc.core.exercises.family import Family
from widearc.core.exercises.options import Options

if TYPE_CHECKING:
    from widearc.core.exercises.exercise import Exercise


def _kept(exercise: Exercise) -> bool:
    return "pivot" in exercise.options and exercise.options["pivot"].default == "knee"


def _held(options: Options) -> frozenset[str]:
    return frozenset() if options["pivot"] == "toe" else frozenset({"ankle"})


FAMILY = Family(
    name="kneeling",
    words="Kneeling",
    rank=8,
    options=specs(
        (),
        number("lean_from_deg", "lean, lengthened end", 60, 0, 90),
        number("lean_to_deg", "lean, shortened end", 0, 0, 90),
        number("hip_deg", "hip bend kept", 0, -10, 60),
        choice("pivot", "turns about", "knee", ("knee", "toe")),
    ),
    held=_held,
    kept=_kept,
)
