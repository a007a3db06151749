"""Whole effort: what a lift asks of both legs, over what legs usually give.

h = √(mean over the lift of Σ (M/S)²) over hip, knee and ankle of both legs, S the usual strength of
the action that is asked there. One number for lifts whose joints are asked more and less at once.
"""

from __future__ import annotations

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
    motion, body = curve.motion, curve.setup.body
    total: Array = np.zeros(motion.shape)
    counted = 0
    for name, demand in (*curve.demand_nm.items(), *curve.other_nm.items()):
        joint = next((name.removeprefix(p) for p in OTHER_LEG if name.startswith(p)), name)
        if joint not in ACTIONS:
            continue
        counted += 1
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
        share = demand / np.where(demand >= 0, given[0], given[1])
        legs = motion.legs if name in curve.demand_nm else 1
        total = total + legs * share**2
    return np.sqrt(total.mean(axis=1)) if counted else None
