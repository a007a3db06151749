"""The exercises as data: one entry each, read by movement. Knows no body and no load."""

from widearc.core.exercises.catalogue import EXERCISES, exercise_of
from widearc.core.exercises.exercise import Exercise, LoadWay
from widearc.core.exercises.families import FAMILIES
from widearc.core.exercises.lifts import LIFTS, is_same_lift
from widearc.core.exercises.options import STATURE_M, Options, OptionSpec, in_si, renamed, resolve

__all__ = [
    "EXERCISES",
    "FAMILIES",
    "LIFTS",
    "STATURE_M",
    "Exercise",
    "LoadWay",
    "OptionSpec",
    "Options",
    "exercise_of",
    "in_si",
    "is_same_lift",
    "renamed",
    "resolve",
]
