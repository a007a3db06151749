"""The exercises as data: one entry each, read by movement. Knows no body and no load."""

from widearc.core.catalogue.entries import EXERCISES, Exercise, exercise
from widearc.core.catalogue.options import Options, OptionSpec, resolve

__all__ = ["EXERCISES", "Exercise", "OptionSpec", "Options", "exercise", "resolve"]
