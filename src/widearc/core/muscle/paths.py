"""Lengths and moment arms of the leg's muscles at any joint angles."""

from __future__ import annotations

import functools
from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body
from widearc.core.muscle.data import GROUPS, HOLD_DEG, MODEL_LEG_M, PATHS
from widearc.core.units import DEG

JOINTS = ("hip", "knee", "ankle")
MUSCLES = tuple(PATHS)
FMAX_N = np.array([PATHS[name][1] for name in MUSCLES])
"""Greatest isometric forces of the model, N: about twice what people produce; only their ratios are
used.
"""


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Paths:
    """Muscle-tendon lengths (m, (muscles, …)) and moment arms (m, (muscles, joints, …)), in the
    order of MUSCLES.

    Arms: -dL/dq, positive flexes (hip, knee) or dorsiflexes (ankle); zero where a muscle does not
    span a joint.
    """

    length_m: Array
    arm_m: Array


def _raw(name: str, q: Mapping[str, Array]) -> tuple[Array, dict[str, Array]]:
    """Return the polynomial's length and arms as they are, at q (rad), without holding."""
    joints, _, expo, coef, _ = PATHS[name]
    powers = {j: [np.ones_like(q[j])] for j in joints}
    for j in joints:
        for _ in range(max(e[joints.index(j)] for e in expo)):
            powers[j].append(powers[j][-1] * q[j])
    length = np.zeros_like(q[joints[0]])
    arms = {j: np.zeros_like(length) for j in joints}
    for c, e in zip(coef, expo, strict=True):
        term = c * np.ones_like(length)
        for j, k in zip(joints, e, strict=True):
            term = term * powers[j][k]
        length = length + term
        for i, j in enumerate(joints):
            if e[i]:
                slope = c * e[i] * powers[j][e[i] - 1]
                for other, k in zip(joints, e, strict=True):
                    if other != j:
                        slope = slope * powers[other][k]
                arms[j] = arms[j] - slope
    return length, arms


def scale_of(body: Body) -> float:
    """Return the one factor by which all lengths and arms of the model are this body's: (thigh +
    shank) / 0.804 m.
    """
    return (body.thigh_m + body.shank_m) / MODEL_LEG_M


def paths_of(angles: Mapping[str, Array], scale: float = 1.0) -> Paths:
    """Return lengths and arms at joint angles (rad, by joint, alike in shape); a joint that is
    missing stands at 0.

    Beyond hip -10 to 110, knee 0 to 100, ankle -30 to 30 degrees the arm is held and the length
    goes on along it: L - r (q - limit). `scale` as from `scale_of`.
    """
    shape = np.broadcast_shapes(*(np.shape(angles[j]) for j in JOINTS if j in angles))
    q = {j: np.broadcast_to(np.asarray(angles.get(j, 0.0), dtype=float), shape) for j in JOINTS}
    held = {j: np.clip(q[j], low * DEG, high * DEG) for j, (low, high) in HOLD_DEG.items()}
    lengths, arms = np.zeros((len(MUSCLES), *shape)), np.zeros((len(MUSCLES), len(JOINTS), *shape))
    for m, name in enumerate(MUSCLES):
        length, by_joint = _raw(name, held)
        for j, arm in by_joint.items():
            length = length - arm * (q[j] - held[j])
            arms[m, JOINTS.index(j)] = arm
        lengths[m] = length
    return Paths(length_m=lengths * scale, arm_m=arms * scale)


def ranges_m(scale: float = 1.0) -> Array:
    """Return each muscle's shortest and longest length over the joints' ranges of HOLD_DEG, m
    (muscles, 2).
    """
    return _model_ranges_m() * scale


@functools.cache
def _model_ranges_m() -> Array:
    sides = [np.linspace(low, high, 15) * DEG for low, high in HOLD_DEG.values()]
    grid = dict(zip(HOLD_DEG, np.meshgrid(*sides, indexing="ij"), strict=True))
    lengths = paths_of(grid).length_m.reshape(len(MUSCLES), -1)
    found = np.stack((lengths.min(axis=1), lengths.max(axis=1)), axis=1)
    found.setflags(write=False)
    return found


MEMBERS: Mapping[str, Array] = MappingProxyType(
    {group: np.array([MUSCLES.index(m) for m in members]) for group, members in GROUPS.items()}
)
"""For each group the numbers of its muscles in the order of MUSCLES."""
