"""Default isometric strength curves, one leg.

Source: Anderson, Madigan & Nussbaum, J. Biomech. 40 (2007) 3105-3113, isometric part. Coefficients
FROM MEMORY; the male rows are likely right, the female rows less sure. Young adults.
"""

from __future__ import annotations

from types import MappingProxyType

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import UnknownNameError
from widearc.core.units import DEG

# action: (C1, C2, C3 rad); T = C1 · mass · 9.81 · stature · cos(C2 (θ - C3)), flexion positive
_MALE = {
    "hip_extension": (0.161, 0.958, 0.932),
    "hip_flexion": (0.113, 0.738, -0.214),
    "knee_extension": (0.163, 1.258, 1.133),
    "knee_flexion": (0.087, 0.869, 0.522),
    "plantarflexion": (0.095, 1.391, 0.408),
    "dorsiflexion": (0.033, 1.510, -0.187),
}
_FEMALE = {
    "hip_extension": (0.181, 0.697, 1.242),
    "hip_flexion": (0.127, 0.650, -0.350),
    "knee_extension": (0.159, 1.187, 1.274),
    "knee_flexion": (0.080, 0.873, 0.635),
    "plantarflexion": (0.104, 1.399, 0.424),
    "dorsiflexion": (0.027, 1.079, -0.302),
}
_TABLES = MappingProxyType({"male": (_MALE,), "female": (_FEMALE,), "mean": (_MALE, _FEMALE)})
_SOURCE_G = 9.81  # the value the coefficients were fitted with

ACTIONS = tuple(_MALE)
HOLD_BEYOND = 100 * DEG  # knee and hip extension keep their value past here
KNEE_FLOOR, KNEE_FLOOR_BELOW = 0.45, 30 * DEG
FLOOR = 0.30  # of the peak, for every action


def strength_nm(action: str, angle: Array, *, mass_kg: float, stature_m: float, sex: str) -> Array:
    """Return the strength (N·m, one leg, positive) of an action at joint angles (rad, flexion
    positive).

    Same shape as `angle`. Beyond 100° knee and hip extension hold their value; knee extension is at
    least 0.45 of its peak below 30°; every action at least 0.30 of its peak. sex: male, female,
    mean.
    """
    if action not in ACTIONS:
        raise UnknownNameError("action", action, ACTIONS)
    extends = action in ("knee_extension", "hip_extension")
    held = np.minimum(angle, HOLD_BEYOND) if extends else np.asarray(angle, dtype=float)
    tables = _TABLES[sex]
    total = np.zeros_like(held, dtype=float)
    for table in tables:
        c1, c2, c3 = table[action]
        peak = c1 * mass_kg * _SOURCE_G * stature_m
        torque = peak * np.cos(np.clip(c2 * (held - c3), -np.pi / 2, np.pi / 2))
        torque = np.maximum(torque, FLOOR * peak)
        if action == "knee_extension":
            torque = np.where(
                held < KNEE_FLOOR_BELOW, np.maximum(torque, KNEE_FLOOR * peak), torque
            )
        total = total + torque / len(tables)
    return total
