"""Reference loads: which are solved for a batch, and how much of each makes a total."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import Array
from widearc.core.setups import ELASTIC, Batch

KNOTS = {"lunge": (3, 6), "step-up": (1, 4)}
"""Samples by a movement's variant near which it changes its way: a rear foot leaves the floor, the
leg hangs.
"""


REFERENCES = {
    True: (0.0, 120.0, 1000.0),
    False: (
        0.0,
        5.0,
        10.0,
        15.0,
        20.0,
        30.0,
        45.0,
        65.0,
        95.0,
        140.0,
        200.0,
        300.0,
        450.0,
        650.0,
        1000.0,
    ),
}
"""Reference loads in kg, by whether the family is linear. Fixed, so that no answer depends on what
else is here.
"""


FEW = 5  # totals: so few are their own references


def is_linear(batch: Batch) -> bool:
    """Return whether a batch's posture does not depend on its loads."""
    exercise = batch.exercise
    if exercise.law.kept_in_hands and not _in_hands(batch):
        return False
    return exercise.law.keeps_posture(exercise)


def _in_hands(batch: Batch) -> bool:
    weights = (way.port == "hands" and way.stock not in ELASTIC for way in batch.way)
    return bool(batch.way) and all(weights)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Plan:
    """The reference loads of some totals, kg, and how much of each makes each total, (totals,
    references).

    own: where every total is a reference itself, which one, (totals,); else None.
    """

    points: Array
    mix: Array
    own: NDArray[np.intp] | None


def plan_of(batch: Batch, mass_kg: float) -> Plan:
    """Return the reference loads of a batch: those beside any of its totals; few totals are their
    own.
    """
    return _plan(tuple(total.kg for total in batch.totals), is_linear(batch), mass_kg)


@lru_cache(maxsize=500)  # most batches of a search are loaded with the same few stocks
def _plan(totals: tuple[float, ...], linear: bool, mass_kg: float) -> Plan:
    kg = np.array(totals)
    few = 2 if linear else FEW
    points = np.unique(kg if len(set(totals)) <= few else _around(kg, np.array(REFERENCES[linear])))
    at = np.minimum(np.searchsorted(points, kg), len(points) - 1)
    own = at if np.all(points[at] == kg) else None
    return Plan(points=points, mix=mix_of(kg, points, mass_kg, linear=linear), own=own)


def _around(kg: Array, references: Array) -> Array:
    """Return the references that lie next to any of the loads."""
    below = np.searchsorted(references, kg, side="right") - 1
    above = np.minimum(below + 1, len(references) - 1)
    exact = references[below] == kg
    return np.asarray(references[np.unique(np.concatenate([below, above[~exact]]))])


def mix_of(kg: Array, points: Array, mass_kg: float, *, linear: bool) -> Array:
    """Return how much of each reference load makes each load, (loads, references): the two beside
    it.

    Where balance sets the posture, it changes as u = 1 / (body + load): there demand times u is
    weighed by u, which is right for a demand that is linear in the load as well as for arms that
    are linear in u.
    """
    mix = np.zeros((len(kg), len(points)))
    at = np.minimum(np.searchsorted(points, kg), len(points) - 1)
    own = points[at] == kg
    mix[np.flatnonzero(own), at[own]] = 1.0
    rows, high = np.flatnonzero(~own), at[~own]
    value, below, above = kg[rows], points[high - 1], points[high]
    if linear:
        share = (value - below) / (above - below)
        mix[rows, high - 1], mix[rows, high] = 1.0 - share, share
        return mix
    u, u_below, u_above = (1.0 / (mass_kg + m) for m in (value, below, above))
    share = (u_below - u) / (u_below - u_above)
    mix[rows, high - 1], mix[rows, high] = (1.0 - share) * u_below / u, share * u_above / u
    return mix
