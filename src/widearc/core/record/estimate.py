"""How strong an action is now, from sets of any exercise, place and machine over some weeks."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

WEEKS = 10.0
"""Older sets are left out."""

GAIN_SD = 0.02  # a week: what a client may gain or lose (assumed)
LIFTS_SD = 0.07  # by how much the model errs from lift to lift (assumed)
LOAD_SD = 0.02  # plates, bands and machines that nobody weighed twice (assumed)


@dataclass(frozen=True, slots=True, kw_only=True)
class Point:
    """What one set says of an action and side. kappa: strength over the usual curve; error_share:
    one standard error of it, from reps misjudged; weeks: how long ago; at_least: another joint gave
    out first.
    """

    exercise: str
    kappa: float
    error_share: float
    weeks: float
    at_least: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Estimate:
    """Strength over the usual curve now. sd: one standard error, as a share; None where only lower
    bounds are known: then it is at least this. gain: share a week over the sets' own weeks; sets:
    how many speak for it.
    """

    kappa: float
    sd: float | None
    gain: float
    sets: int

    @property
    def at_least(self) -> bool:
        """Return whether only lower bounds are known."""
        return self.sd is None


def estimate_of(points: Sequence[Point]) -> Estimate | None:
    """Return what sets say of an action and side; None without any of the last ten weeks.

    Least squares of log κ = a + g·(weeks) + b(exercise), a free, g and b with normal priors of
    standard deviations 0.02 a week and 0.07; each set's own error is its reps misjudged and 2 % of
    the load. a is the strength now. A lower bound counts only where it lies above a, which then
    moves up to it.
    """
    recent = [p for p in points if 0.0 <= p.weeks <= WEEKS and p.kappa > 0.0]
    exact = [p for p in recent if not p.at_least]
    bound = max((p.kappa for p in recent if p.at_least), default=0.0)
    if not exact:
        return Estimate(kappa=bound, sd=None, gain=0.0, sets=0) if bound > 0.0 else None
    lifts = sorted({p.exercise for p in exact})
    design = np.zeros((len(exact), 2 + len(lifts)))
    design[:, 0] = 1.0
    design[:, 1] = [-p.weeks for p in exact]
    for row, point in enumerate(exact):
        design[row, 2 + lifts.index(point.exercise)] = 1.0
    weight = 1.0 / np.array([p.error_share**2 + LOAD_SD**2 for p in exact])
    prior = np.r_[0.0, GAIN_SD**-2, np.full(len(lifts), LIFTS_SD**-2)]
    normal = (design.T * weight) @ design + np.diag(prior)
    right = (design.T * weight) @ np.log([p.kappa for p in exact])
    found = np.linalg.solve(normal, right)
    sd = float(np.sqrt(np.linalg.inv(normal)[0, 0]))
    return Estimate(
        kappa=max(float(np.exp(found[0])), bound),
        sd=sd,
        gain=float(found[1]),
        sets=len(exact),
    )
