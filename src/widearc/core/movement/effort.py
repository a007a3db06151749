"""The push of least effort: what decides a contact force that equilibrium alone leaves open.

Of all pushes that balance, the one with the least Σ(M/S)² over hip, knee and ankle, S the default
strength of hip extension, knee extension and plantarflexion at that angle, whatever the sign of the
demand M, and without any client's scale: so that no demand depends on logged sets.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body
from widearc.core.geometry import cross
from widearc.core.movement.motion import JOINTS, Motion, place_of
from widearc.core.strength import strength_nm

STRENGTH_OF = {"hip": "hip_extension", "knee": "knee_extension", "ankle": "plantarflexion"}


def usual_strength_nm(motion: Motion, body: Body, joint: str) -> Array:
    """Return the usual strength (N·m, one leg, (set-ups, samples)) that a leg joint's push is
    weighed by.
    """
    return strength_nm(
        STRENGTH_OF[joint.removeprefix("rear_")],
        motion.angles[joint],
        mass_kg=body.mass_kg,
        stature_m=body.stature_m,
        sex=body.sex.value,
    )


@dataclass(frozen=True, slots=True, eq=False)
class Push:
    """What acts on a foot at a point (m): the force N without the push, and per newton of it.

    joints: those of its leg. force and per_newton (2, set-ups, samples).
    """

    joints: Sequence[str]
    point: Array
    force: Array
    per_newton: Array

    def at(self, push: Array) -> Array:
        """Return the force (N) on the foot at a push (N)."""
        return np.asarray(self.force + push * self.per_newton)


def least_effort_n(motion: Motion, body: Body, feet: Sequence[Push]) -> Array:
    """Return the push (N, (set-ups, samples)) of least effort, not bounded yet.

    The motion holds every force but these feet's own.
    """
    top, bottom = np.zeros(motion.shape), np.zeros(motion.shape)
    for foot in feet:
        for name in foot.joints:
            without, per_newton = _demands(motion, name, foot)
            weight = per_newton / usual_strength_nm(motion, body, name) ** 2
            top, bottom = top + without * weight, bottom + per_newton * weight
    return np.asarray(-top / np.maximum(bottom, 1e-18))


def _demands(motion: Motion, name: str, foot: Push) -> tuple[Array, Array]:
    """Return a joint's demand without the push (N·m), and its change per newton of it."""
    joint, centre = JOINTS[name], motion.points[place_of(name)]
    sums = (own for segment, own in motion.wrenches().items() if segment in joint.distal)
    vertical, level = motion.moments_about(centre, sums)
    arm = foot.point - centre
    without = vertical + level + cross(arm, foot.force)
    return joint.sign * without, joint.sign * cross(arm, foot.per_newton)


def within(push: Array, limits: Sequence[tuple[Array, Array]]) -> Array:
    """Return a push (N) brought within ± (a + b·push) for every pair (a, b), N and share.

    Where nothing satisfies them all the answer is the push that comes nearest to none.
    """
    low, high = np.full(push.shape, -np.inf), np.full(push.shape, np.inf)
    for a, b in limits:
        # h ≤ a + b h and -h ≤ a + b h, b under 1: a bound that moves less than the push does
        high = np.minimum(high, a / (1.0 - b))
        low = np.maximum(low, -a / (1.0 + b))
    return np.clip(push, np.minimum(low, 0.0), np.maximum(high, 0.0))
