"""Places in a lift that people speak of: thighs level, the ankle's limit, the hip's limit, knees
past the toes.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc.core.statics.demand import Curve
from widearc.core.units import DEG

AT_LIMIT = 0.5 * DEG
THIGHS_LEVEL, ANKLE_LIMIT, HIP_LIMIT = WORDS = ("thighs level", "ankle limit", "hip limit")


@dataclass(frozen=True, slots=True, kw_only=True)
class Point:
    """One place: its name, the sample (number) where it lies, and the joints on whose curves it is
    drawn.
    """

    name: str
    sample: int
    joints: tuple[str, ...]


def points_of(curve: Curve, row: int = 0) -> tuple[Point, ...]:
    """Return the places of one set-up's lifting phase that exist there, lengthened end first.

    Thighs level: hip and knee at one height. Ankle limit and hip limit: the last sample, seen from
    the lengthened end, at which the client's own limit holds the posture.
    """
    motion, setup = curve.motion, curve.setup
    found = []
    if setup.exercise.law.upright and "hip" in motion.points and "knee" in motion.points:
        rise = (
            motion.full(motion.points["hip"])[1][row] - motion.full(motion.points["knee"])[1][row]
        )
        crossed = np.flatnonzero(np.diff(np.sign(rise)) != 0)
        if len(crossed):
            found.append(
                Point(name=THIGHS_LEVEL, sample=int(crossed[0]) + 1, joints=("knee", "hip"))
            )
    limits = (
        (ANKLE_LIMIT, "ankle", setup.limits.dorsiflexion),
        (HIP_LIMIT, "hip", setup.limits.hip_flexion),
    )
    for name, joint, limit in limits:
        if joint not in motion.angles or not np.ptp(motion.angles[joint][row]) > 0:
            continue
        held = np.flatnonzero(motion.angles[joint][row] >= limit - AT_LIMIT)
        # a limit that is only touched at the very end of the range holds nothing back
        if len(held) > 1:
            found.append(Point(name=name, sample=int(held[-1]), joints=("knee", "hip")))
    return tuple(sorted(found, key=lambda p: p.sample))


def knee_past_toes_m(curve: Curve, row: int = 0) -> float | None:
    """Return how far the knee goes ahead of the toes at most, m, None where nobody stands on the
    foot.
    """
    motion = curve.motion
    if (
        not curve.setup.exercise.law.upright
        or "toe" not in motion.points
        or "knee" not in motion.points
    ):
        return None
    ahead = motion.full(motion.points["knee"])[0][row] - motion.full(motion.points["toe"])[0][row]
    return float(np.max(ahead))
