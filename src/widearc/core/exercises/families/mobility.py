"""Mobility work: no curve."""

from __future__ import annotations

from widearc.core.exercises.families.common import specs
from widearc.core.exercises.family import Family

FAMILY = Family(
    name="mobility",
    words="Mobility, no curve",
    rank=18,
    options=specs(()),
    own_legs=False,
    has_curve=False,
    compared=False,
)
