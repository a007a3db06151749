"""How strong an action is now, from sets of any exercise, place and machine over some weeks."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array

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
    weeks = -np.array([p.weeks for p in exact])
    found, errors = solved(exact, np.column_stack((np.ones(len(exact)), weeks)), (0.0, GAIN_SD))
    return Estimate(
        kappa=max(float(np.exp(found[0])), bound),
        sd=float(errors[0]),
        gain=float(found[1]),
        sets=len(exact),
    )


def solved(points: Sequence[Point], columns: Array, sds: Sequence[float]) -> tuple[Array, Array]:
    """Return the unknowns of log κ = columns·unknowns + b(exercise), and their standard errors:
    least squares, each set weighed by its own error (reps misjudged, 2 % of the load).

    columns: (sets, unknowns); sds: standard deviations of the unknowns' priors, 0 for a free one.
    """
    lifts = sorted({p.exercise for p in points})
    own = np.array([[p.exercise == lift for lift in lifts] for p in points], dtype=float)
    design = np.hstack((columns, own))
    weight = 1.0 / np.array([p.error_share**2 + LOAD_SD**2 for p in points])
    free = [0.0 if sd == 0.0 else sd**-2 for sd in sds]
    prior = np.r_[free, np.full(len(lifts), LIFTS_SD**-2)]
    normal = (design.T * weight) @ design + np.diag(prior)
    found = np.linalg.solve(normal, (design.T * weight) @ np.log([p.kappa for p in points]))
    errors = np.sqrt(np.diag(np.linalg.inv(normal)))
    return found[: len(sds)], errors[: len(sds)]
