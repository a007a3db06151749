"""Hinges: how far the knees are bent and the trunk goes down, on each low step where one is
needed.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator

from widearc.core.setups.geometry.asked import Asked, Geometry, Rule
from widearc.core.setups.geometry.furnishing import furnished, on_boxes
from widearc.core.words import Angle, Said

KNEES_DEG = (5.0, 15.0, 25.0)
TRUNKS_DEG = (80.0, 65.0, 50.0)


def _applies(asked: Asked) -> bool:
    return asked.exercise.family == "hinge" and "knee_deg" in asked.specs


def _make(asked: Asked) -> Iterator[Geometry]:
    usual = asked.usual("knee_deg")
    stiff = asked.exercise.id == "stiff-leg-deadlift"
    knees = [usual] if stiff else sorted({usual, *KNEES_DEG})
    based = any(way.from_ == "base" for ways in asked.exercise.ways for way in ways)
    for base in on_boxes(asked) if based else furnished(asked):
        for knee, trunk in itertools.product(knees, TRUNKS_DEG):
            words = Said(
                "knees {angle}, trunk to {angle_2}",
                angle=Angle.of_deg(knee),
                angle_2=Angle.of_deg(trunk),
            )
            yield base.more({"knee_deg": knee, "trunk_from_deg": trunk}, words)


RULE = Rule(rank=2, applies=_applies, make=_make)
