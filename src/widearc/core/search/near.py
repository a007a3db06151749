"""How near a guess must come to the best to be computed exactly."""

from __future__ import annotations

from widearc.core.movement import SAMPLES
from widearc.core.search.plans import KNOTS, Plan, is_linear
from widearc.core.search.solved import Part, References
from widearc.core.setups import Batch

CLOSE = 0.016  # match: rows this close to the best guess are computed exactly before one is chosen


CLOSE_STEP = 0.04  # the same in steps and lunges, whose hip turns back


CLOSE_CUT = 0.08  # the same where a range that the hip limit ends changes with the load


CLOSE_LINEAR = 0.003  # the same where a guess is only as coarse as its samples


CLOSE_EXACT = 0.0005  # the same where a guess is exact but for its number format


def near_by(batch: Batch, plan: Plan, found: References) -> float:
    """Return how near a guessed match (share) must come to the best one to be computed exactly
    before one is chosen.
    """
    samples = found.samples
    if plan.own is not None and samples == SAMPLES:
        return CLOSE_EXACT
    if not is_linear(batch):
        near = CLOSE_STEP if batch.exercise.variant in KNOTS else CLOSE
        return CLOSE_CUT if isinstance(found, Part) and found.is_cut else near
    # a press's push square to its rails has a limit, and demand a knee there: it is never at full
    # samples
    return CLOSE_EXACT if samples == SAMPLES else CLOSE_LINEAR
