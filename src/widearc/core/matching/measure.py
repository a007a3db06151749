"""The measure: how much of a wanted loading a stand-in covers, and what it asks beside it.

match = covered / (wanted + ½·extra + ¼·other), all in work over angle (N·m·°). Covered is the mean
over four grains: degree by degree, in triangles of 20° and of 60°, over the whole range. Work at
the right bend counts fully, 15° off mostly, at quite another bend a quarter; what lacks weighs
more than what is over. (Grains: pyramid match, Grauman & Darrell, J. Mach. Learn. Res. 8 (2007)
725-760; unequal weights: Tversky, Psychol. Rev. 84 (1977) 327-352; both from memory.)
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.curve import CENTRES_DEG, Action

SPACINGS_DEG = (20.0, 60.0)
FIRST_KNOT_DEG = -60.0
GRAINS = 1 + len(SPACINGS_DEG) + 1
EXTRA_WEIGHT, OTHER_WEIGHT = 0.5, 0.25
BESIDE = (Action.HE, Action.HF, Action.KE, Action.KF)
"""Actions that are asked of a body whether they are wanted or not; the ankle is left out."""


def _hats(spacing: float) -> Array:
    """Return linear hats that add up to one at every degree, (220, hats)."""
    knots = np.arange(FIRST_KNOT_DEG - spacing, CENTRES_DEG[-1] + 2 * spacing, spacing)
    hats = np.maximum(0.0, 1.0 - np.abs(CENTRES_DEG[:, None] - knots) / spacing)
    return np.asarray(hats[:, hats.any(axis=0)])


COARSE = np.concatenate([*map(_hats, SPACINGS_DEG), np.ones((len(CENTRES_DEG), 1))], axis=1)
"""What sums bins into the three coarse grains, (220, grains' numbers)."""


def unwanted(actions: Sequence[Action]) -> tuple[Action, ...]:
    """Return the hip and knee actions that a target does not want."""
    return tuple(action for action in BESIDE if action not in actions)


def covered(wanted: Array, given: Array) -> Array:
    """Return how much of wanted bins (220,) given ones (…, 220) cover, N·m·°, (…)."""
    fine = np.minimum(wanted, given).sum(axis=-1)
    coarse = np.minimum(wanted @ COARSE, given @ COARSE).sum(axis=-1)
    return np.asarray((fine + coarse) / GRAINS)


def of_work(covers: Any, wanted: Any, given: Any, other: Any) -> Any:
    """Return the match, 0 to 1, from what is covered, wanted, given in the wanted actions and asked
    in others, N·m·°; numbers or arrays.
    """
    return covers / (wanted + EXTRA_WEIGHT * (given - covers) + OTHER_WEIGHT * other)
