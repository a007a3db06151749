"""The exercises as data: one entry each, read by movement. Knows no body and no load."""

from widearc.core.exercises.catalogue import EXERCISES, exercise
from widearc.core.exercises.exercise import Exercise, LoadWay
from widearc.core.exercises.families import FAMILIES
from widearc.core.exercises.family import Family
from widearc.core.exercises.options import Options, OptionSpec, in_si, resolve

__all__ = [
    "EXERCISES",
    "FAMILIES",
    "Exercise",
    "Family",
    "LoadWay",
    "OptionSpec",
    "Options",
    "exercise",
    "in_si",
    "resolve",
]
