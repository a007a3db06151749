"""Preset shapes of a wanted loading, each a school of practice (common practice, no source; numbers
are ours).

A shape keeps the range and the mean demand of what it is put on, and lays the demand out anew from
the lengthened to the shortened end.
"""

from __future__ import annotations

from collections.abc import Mapping
from enum import Enum
from types import MappingProxyType

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import InputError
from widearc.core.words import Said

STRETCH = (1.3, 0.7)  # of the mean, lengthened to shortened end


class Shape(Enum):
    """How the demand is to lie over the range."""

    ORIGINAL = "original"
    STRETCH = "stretch"
    EVEN = "even"
    SQUEEZE = "squeeze"
    STRENGTH = "strength"


SHAPES: Mapping[Shape, str] = MappingProxyType(
    {
        Shape.ORIGINAL: "as the original",
        Shape.STRETCH: "heavier where lengthened",
        Shape.EVEN: "even all the way",
        Shape.SQUEEZE: "heavier where shortened",
        Shape.STRENGTH: "along the strength curve",
    }
)
HOLDS: Mapping[Shape, str] = MappingProxyType(
    {
        Shape.ORIGINAL: "What the wanted exercise asks, place by place.",
        Shape.STRETCH: (
            "Its followers hold that a long muscle under tension grows: falls from 1.3 to 0.7 of "
            "the "
            "mean."
        ),
        Shape.EVEN: "Its followers want the same demand all the way.",
        Shape.SQUEEZE: (
            "Its followers want it hardest at the end of the lift: rises from 0.7 to 1.3 of the "
            "mean."
        ),
        Shape.STRENGTH: (
            "Its followers want the same effort all the way: follows a usual strength curve."
        ),
    }
)


def shaped(bins: Array, direction: int, shape: Shape, strength: Array | None = None) -> Array:
    """Return a demand on the 1° grid (N·m, same length as `bins`) in a shape, with its range and
    mean kept.

    direction: +1 where the lengthened end is at the small angles, -1 where at the large ones.
    strength: N·m on the same grid, for the shape that follows it; InputError where that action has
    none. The share of a degree that is covered at the ends of the range is kept.
    """
    used = np.flatnonzero(bins > 0)
    if shape is Shape.ORIGINAL or len(used) == 0:
        return bins
    first, last = int(used[0]), int(used[-1])
    span = np.arange(first, last + 1)
    along = (span - first) / max(last - first, 1)
    if direction < 0:
        along = 1.0 - along
    if shape is Shape.STRENGTH:
        if strength is None:
            raise InputError(
                "shape",
                shape.value,
                Said("a shape without strength: none is known for this action"),
            )
        weight = strength[span]
    else:
        start, end = {Shape.STRETCH: STRETCH, Shape.EVEN: (1.0, 1.0), Shape.SQUEEZE: STRETCH[::-1]}[
            shape
        ]
        weight = start + (end - start) * along
    made = np.zeros_like(bins)
    made[span] = weight * (bins[span].mean() / weight.mean())
    return made
