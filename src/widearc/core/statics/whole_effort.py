"""Whole effort: what a lift asks of both legs, over what legs usually give.

h = √(mean over the lift of Σ (M/S)²) over hip, knee and ankle of both legs, S the usual strength of
the action that is asked there. One number for lifts whose joints are asked more and less at once.
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from widearc.core.arrays import Array
from widearc.core.statics.demand import Curve
from widearc.core.strength import strength_nm

ACTIONS = {
    "hip": ("hip_extension", "hip_flexion"),
    "knee": ("knee_extension", "knee_flexion"),
    "ankle": ("plantarflexion", "dorsiflexion"),
}
OTHER_LEG = ("rear_", "other_", "free_")


def whole_effort(curve: Curve) -> Array | None:
    """Return the whole effort of a curve's set-ups, (set-ups,), 1 where a leg's joints together are
    asked what one gives; None where no joint with a usual strength is asked.

    Joints that a seat or pad holds are left out; working legs that move alike both count. Usual
    strengths: of the body and sex, without any client's own scale.
    """
    total: Array = np.zeros(curve.motion.shape)
    counted = False
    for legs, share in _shares(curve):
        counted = True
        total = total + legs * share**2
    return np.sqrt(total.mean(axis=1)) if counted else None


def leg_effort(curve: Curve) -> Array | None:
    """Return the whole effort of the one leg that works, or of one of two that work alike,
    (set-ups,); None where no joint with a usual strength is asked.
    """
    total: Array = np.zeros(curve.motion.shape)
    counted = False
    for _, share in _shares(curve, own_leg=True):
        counted = True
        total = total + share**2
    return np.sqrt(total.mean(axis=1)) if counted else None


def peak_effort(curve: Curve) -> Array | None:
    """Return the greatest share of its usual strength that any joint is asked at any place, by
    set-up, (set-ups,): of what gives out first; None where no joint with one is asked.
    """
    peaks = [np.abs(share).max(axis=1) for _, share in _shares(curve)]
    return np.max(np.broadcast_arrays(*peaks), axis=0) if peaks else None


def _shares(curve: Curve, *, own_leg: bool = False) -> Iterator[tuple[int, Array]]:
    """Yield what every joint is asked over its usual strength, (set-ups, samples), and how many
    legs it stands for; own_leg: of the leg that works alone.
    """
    motion, body = curve.motion, curve.setup.body
    others = {} if own_leg else curve.other_nm
    for name, demand in (*curve.demand_nm.items(), *others.items()):
        joint = next((name.removeprefix(p) for p in OTHER_LEG if name.startswith(p)), name)
        if joint not in ACTIONS:
            continue
        given = [
            strength_nm(
                action,
                motion.angles[name],
                mass_kg=body.mass_kg,
                stature_m=body.stature_m,
                sex=body.sex.value,
            )
            for action in ACTIONS[joint]
        ]
        legs = motion.legs if name in curve.demand_nm else 1
        yield legs, demand / np.where(demand >= 0, given[0], given[1])
