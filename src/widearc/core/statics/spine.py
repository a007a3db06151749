"""An estimate of what the lowest lumbar joint bears, shown only as a ratio to a reference exercise.

L5/S1 at 18 % of hip to shoulder; one extensor muscle with an arm of 0.06 m (both from memory). A
load on a belt acts below L5/S1 and adds nothing there. 3.4 kN is an occupational line (NIOSH 1981;
Waters et al. 1993, Ergonomics 36, from memory), never a verdict.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.geometry import cross
from widearc.core.movement import Motion, Setup
from widearc.core.units import G

LEVEL = 0.18  # of hip to shoulder (from memory)
MUSCLE_ARM_M = 0.06  # from memory
PELVIS_SHARE = 0.142  # of body mass, Winter 2009 table 4.1 (from memory): below L5/S1
OCCUPATIONAL_N = 3400.0


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Lumbar:
    """Moment (N·m, positive where the back's extensors must answer) and compression (N), (set-ups,
    samples).
    """

    moment_nm: Array
    compression_n: Array


def lumbar(setup: Setup, motion: Motion) -> Lumbar | None:
    """Return the estimate at L5/S1, or None where seat or pad carries the trunk or there is
    none.
    """
    if not motion.complete or "shoulder" not in motion.points or "hip_abduction" in motion.angles:
        return None
    hip, shoulder = motion.points["hip"], motion.points["shoulder"]
    joint = hip + LEVEL * (shoulder - hip)
    axis = (shoulder - hip) / np.maximum(np.hypot(*(shoulder - hip)), 1e-9)
    moment, along = np.zeros(motion.shape), np.zeros(motion.shape)
    for item in motion.forces:
        if item.segment in ("trunk", "arms"):
            moment = moment + cross(item.point - joint, item.force)
            along = along + item.force[0] * axis[0] + item.force[1] * axis[1]
    # the pelvis is part of the trunk's mass: its weight, half way up to the joint, is taken off
    # again
    pelvis = PELVIS_SHARE * setup.body.mass_kg * G
    below = hip + 0.5 * LEVEL * (shoulder - hip)
    moment = moment + (below[0] - joint[0]) * pelvis
    along = along + axis[1] * pelvis
    return Lumbar(
        moment_nm=-moment, compression_n=np.abs(moment) / MUSCLE_ARM_M + np.maximum(-along, 0.0)
    )
