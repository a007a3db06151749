"""The energy audit: joint work against the change of height and stretch energy."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from widearc.core.arrays import Array
from widearc.core.movement import Motion

if TYPE_CHECKING:
    from widearc.core.statics.demand import Curve

LEAST_J = 1.0  # below this a curve has no work worth a percentage
WANTED = 0.005  # 0.5 % at 101 samples


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Audit:
    """Work at the joints and change of energy over the lifting phase, J, and their difference as a
    share.

    All shaped (set-ups,). relative_error = |work - change| / max(|change|, Σ∫|M dθ|, 1 J).
    """

    joint_work_j: Array
    energy_change_j: Array
    relative_error: Array

    @property
    def balances(self) -> Array:
        """Return where the error is at most 0.5 %, (set-ups,) of bool."""
        return np.asarray(self.relative_error <= WANTED)


BROKEN = 0.02  # error past which a pose is no pose: it is refused


def audit(curve: Curve) -> Audit:
    """Return the energy audit of a curve: Σ over moving joints of -∫M dθ (abduction +) and of
    moving contacts' work, against the change of energy, friction included."""
    return audit_of(curve.motion, curve.demand_nm, curve.other_nm)


def audit_of(
    motion: Motion, demand_nm: Mapping[str, Array], other_nm: Mapping[str, Array]
) -> Audit:
    """Return the same of a motion and its demands, N·m (set-ups, samples)."""
    work, gross = np.zeros(motion.shape[0]), np.zeros(motion.shape[0])
    for name, demand in (*demand_nm.items(), *other_nm.items()):
        legs = motion.legs if name in demand_nm else 1
        angle = motion.angles[name]
        mean = 0.5 * (demand[:, 1:] + demand[:, :-1])
        # abduction is the one joint whose demand is positive where its own angle's action answers
        sign = 1.0 if name == "hip_abduction" else -1.0
        part = sign * mean * np.diff(angle, axis=1) * legs
        work += part.sum(axis=1)
        gross += np.abs(part).sum(axis=1)
    contacts = motion.contact_work_j()[:, -1]
    work += contacts
    gross += np.abs(contacts)
    if motion.path_force is not None and not demand_nm:
        # a plain path has no joints: the handle does the work
        mean = 0.5 * (motion.path_force[:, 1:] + motion.path_force[:, :-1])
        steps = mean * np.diff(np.asarray(motion.path_travel), axis=1)
        work += steps.sum(axis=1)
        gross += np.abs(steps).sum(axis=1)
    change = _change(motion)
    scale = np.maximum(np.maximum(np.abs(change), gross), LEAST_J)
    return Audit(
        joint_work_j=work, energy_change_j=change, relative_error=np.abs(work - change) / scale
    )


def _change(motion: Motion) -> Array:
    energy = motion.gravity_j() + motion.elastic_j() + motion.friction_work_j
    return np.asarray(energy[:, -1] - energy[:, 0])
