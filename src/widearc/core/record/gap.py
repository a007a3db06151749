"""How much stronger one side is than the other, from sets that were done on one side."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from widearc.core.record.estimate import GAIN_SD, WEEKS, Point, solved

GAP_GAIN_SD = 0.01  # a week: what a gap may open or close (assumed)
FEWEST = 2  # sets of each side


@dataclass(frozen=True, slots=True, kw_only=True)
class Gap:
    """How much stronger the right is than the left, as a share (negative: weaker), with one
    standard error; week: by how much that changes a week; sets: of both sides together.
    """

    share: float
    sd: float
    week: float
    sets: int

    @property
    def known(self) -> bool:
        """Return whether the sides differ by more than twice the standard error."""
        return abs(self.share) > 2.0 * self.sd


def gap_of(left: Sequence[Point], right: Sequence[Point]) -> Gap | None:
    """Return what sets of one side each say of the gap now; None with fewer than two exact ones of
    either side in the last ten weeks.

    Least squares of log κ = a + g·weeks + b(exercise) ± (d + e·weeks)/2, + for the right, with the
    priors of `estimate_of` and one of 0.01 a week for e: what the model errs on a lift it errs on
    both sides alike, so that the gap is known better than either side.
    """
    rows = [
        (point, sign)
        for points, sign in ((left, -0.5), (right, 0.5))
        for point in points
        if not point.at_least and point.kappa > 0.0 and 0.0 <= point.weeks <= WEEKS
    ]
    signs = np.array([sign for _, sign in rows])
    if min(int((signs < 0).sum()), int((signs > 0).sum())) < FEWEST:
        return None
    points = [point for point, _ in rows]
    weeks = -np.array([p.weeks for p in points])
    columns = np.column_stack((np.ones(len(points)), weeks, signs, signs * weeks))
    found, errors = solved(points, columns, (0.0, GAIN_SD, 0.0, GAP_GAIN_SD))
    return Gap(
        share=float(np.exp(found[2]) - 1.0),
        sd=float(errors[2]),
        week=float(found[3]),
        sets=len(points),
    )
