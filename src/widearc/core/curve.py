"""Resistance curves over a joint's angle, and the common 1° grid on which curves are compared.

Bins are one degree wide from GRID_FROM to GRID_TO; a bin holds the mean demand (N·m) over that
degree times the share of the degree the movement really covers, so that a sum over bins times one
degree is work.
"""

from __future__ import annotations

from enum import Enum

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.errors import UnknownNameError
from widearc.core.units import DEG, to_deg

GRID_FROM, GRID_TO = -40, 180
EDGES_DEG = np.arange(GRID_FROM, GRID_TO + 1, dtype=float)
CENTRES_DEG = EDGES_DEG[:-1] + 0.5
ROWS_AT_ONCE = 256  # on the grid: stays in the processor's cache
STILL = 5 * DEG  # a prime joint that travels less is not compared (mechanics, matching)


class Action(Enum):
    """A joint action: its code in the catalogue, the joint, and the sign of its demand.

    direction: which way the joint's angle goes when the action shortens (flexion positive).
    """

    KE = ("knee_extension", "knee", 1, -1)
    HE = ("hip_extension", "hip", 1, -1)
    KF = ("knee_flexion", "knee", -1, 1)
    HF = ("hip_flexion", "hip", -1, 1)
    PF = ("plantarflexion", "ankle", 1, -1)
    AB = ("hip_abduction", "hip_abduction", 1, 1)
    AD = ("hip_adduction", "hip_abduction", -1, -1)

    def __init__(self, label: str, joint: str, sign: int, direction: int) -> None:
        self.label, self.joint, self.sign, self.direction = label, joint, sign, direction

    @property
    def words(self) -> str:
        """Return the action as a person says it."""
        return self.label.replace("_", " ")

    @property
    def place(self) -> str:
        """Return the joint as a person says it."""
        return "hip to the side" if self.joint == "hip_abduction" else self.joint

    @classmethod
    def named(cls, label: str, where: str = "action") -> Action:
        """Return the action of that label ("knee_extension"); UnknownNameError lists the others."""
        for action in cls:
            if action.label == label:
                return action
        raise UnknownNameError(where, label, [a.label for a in cls])


def on_grid(angle: Array, demand: Array, action: Action, *, signed: bool = False) -> Array:
    """Return demand over the 1° grid, shape (set-ups, 220), N·m, for an action.

    angle rad and demand N·m shaped (set-ups, samples), demand signed as the joint's; it is taken
    positive in the action's own sense and what asks for the opposite action counts as 0 (signed: as
    negative, so that grids add up as forces do). Where the
    angle turns back, demand·|dθ| is summed over the parts that move with the action. A joint that
    travels under 5° gives zeros.
    """
    theta = to_deg(np.atleast_2d(angle)) * action.direction
    wanted = np.atleast_2d(demand) * action.sign
    if not signed:
        wanted = np.maximum(0.0, wanted)
    theta, wanted = np.broadcast_arrays(theta, wanted)
    edges = EDGES_DEG if action.direction > 0 else -EDGES_DEG[::-1]
    still = np.ptp(theta, axis=1) < to_deg(STILL)
    theta, wanted, rising = _without_ways_back(theta, wanted)
    bins = np.zeros((theta.shape[0], len(edges) - 1))
    # only the degrees that anything moves through
    first = max(0, int(np.searchsorted(edges, np.nanmin(theta, initial=edges[-1]))) - 1)
    last = min(len(edges), int(np.searchsorted(edges, np.nanmax(theta, initial=edges[0]))) + 1)
    near, some = edges[first:last], bins[:, first : last - 1]
    if len(near) < 2:
        return bins
    if rising.all():
        some[:] = _bins_of_rising(theta, wanted, near)
    elif rising.any():
        some[rising] = _bins_of_rising(theta[rising], wanted[rising], near)
    if not rising.all():
        some[~rising] = _bins_of_turning(theta[~rising], wanted[~rising], near)
    bins[still] = 0.0
    return bins if action.direction > 0 else bins[:, ::-1]


def _without_ways_back(theta: Array, wanted: Array) -> tuple[Array, Array, BoolArray]:
    """Return angles and demands of rows without what comes before and after their one rise, and
    which rise no more.

    What is left out stands still at the ends of the rise, and so does all of what never rises: it
    covers no degree.
    """
    rises = np.diff(theta, axis=1) > 1e-9
    all_the_way: BoolArray = np.all(rises, axis=1)
    if all_the_way.all():
        return theta, wanted, all_the_way
    # a rise begins where the step before did not rise
    begins = rises.copy()
    begins[:, 1:] &= ~rises[:, :-1]
    number = np.count_nonzero(begins, axis=1)
    once = np.asarray(number <= 1)
    turns = np.flatnonzero((number == 1) & ~all_the_way)
    first = rises[turns].argmax(axis=1)[:, None]
    last = rises.shape[1] - rises[turns, ::-1].argmax(axis=1)[:, None]
    kept = np.clip(np.arange(theta.shape[1]), first, last)
    theta, wanted = theta.copy(), wanted.copy()
    theta[turns], wanted[turns] = theta[turns[:, None], kept], wanted[turns[:, None], kept]
    theta[number == 0], wanted[number == 0] = 0.0, 0.0
    return theta, wanted, once


def _bins_of_rising(theta: Array, wanted: Array, edges: Array) -> Array:
    """Return bins of rows whose angle only rises: trapezoids between the bins' clipped edges."""
    bins = np.empty((theta.shape[0], len(edges) - 1))
    for start in range(0, len(bins), ROWS_AT_ONCE):
        some = slice(start, start + ROWS_AT_ONCE)
        angle = theta[some]
        # one interpolation for these rows: each is moved to its own stretch of the number line
        offset = np.arange(len(angle))[:, None] * 1000.0
        clipped = np.clip(edges[None, :], angle[:, :1], angle[:, -1:])
        flat = np.interp((clipped + offset).ravel(), (angle + offset).ravel(), wanted[some].ravel())
        at_edges = np.asarray(flat).reshape(clipped.shape)
        bins[some] = 0.5 * (at_edges[:, 1:] + at_edges[:, :-1]) * np.diff(clipped, axis=1)
    return bins


def _bins_of_turning(theta: Array, wanted: Array, edges: Array) -> Array:
    """Return bins of rows whose angle also turns back: the parts that move with the action,
    summed.
    """
    rows, last = theta.shape[0], len(edges) - 2
    start, end = theta[:, :-1], theta[:, 1:]
    low, slope = (
        wanted[:, :-1],
        np.diff(wanted, axis=1) / np.where(end - start > 1e-9, end - start, np.inf),
    )
    with np.errstate(invalid="ignore"):
        moves = end - start > 1e-9
    first = np.clip(np.floor(np.nan_to_num(start) - edges[0]).astype(int), 0, last)
    reach = np.clip(np.floor(np.nan_to_num(end) - edges[0]).astype(int), 0, last) - first
    total = np.zeros(rows * (last + 1))
    offset = np.arange(rows)[:, None] * (last + 1)
    for more in range(int(reach[moves].max(initial=0)) + 1):
        place = np.minimum(first + more, last)
        a, b = np.maximum(start, edges[place]), np.minimum(end, edges[place + 1])
        inside = moves & (b > a) & (more <= reach)
        middle = low + slope * (0.5 * (a + b) - start)
        total += np.bincount(
            (offset + place)[inside],
            weights=(middle * (b - a))[inside],
            minlength=rows * (last + 1),
        )
    return total.reshape(rows, last + 1)
