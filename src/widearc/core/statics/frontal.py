"""The frontal plane of one-leg and offset work: how much the stance hip must hold the pelvis up.

Demand = Σ W·d − R_other·d_other, d the distance to the side of the stance hip, R_other the other
foot's reaction. A loop round both thighs adds its pull at nine tenths of the thigh.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body.segments import HIP_CENTRE
from widearc.core.equipment import Band
from widearc.core.movement import Motion, Setup

HAND_OUT_M = 0.05  # of a hanging hand outside the hip's outer breadth (assumed)
OTHER_LEG = ("free_", "rear_", "other_")


def frontal_nm(setup: Setup, motion: Motion) -> Array | None:
    """Return the abduction demand of the working hip (N·m, (set-ups, samples)), or None where there
    is none.

    Only the vertical parts of forces count; the pelvis is level and the stance foot under its hip.
    """
    loop = _loops(setup, motion)
    if motion.legs == 2:
        return loop
    if "hip_abduction" in motion.angles or not motion.complete:
        return None
    half = HIP_CENTRE * setup.body.stature_m
    total = np.zeros(motion.shape)
    for item in motion.forces:
        if item.segment.startswith(OTHER_LEG):
            out = np.full((1, 1), 2.0 * half)
        elif item.segment in ("trunk", "pelvis", "arms"):
            out = half + _hand_out(setup, item.source)
        else:
            continue
        total = total - out * item.force[1]
    return total if loop is None else total + loop


def _hand_out(setup: Setup, source: str) -> Array:
    """Return how far a load lies from the midline towards the other side, m."""
    if not source.startswith("load ") or not source[5:].isdigit():
        return np.zeros((1, 1))
    port = getattr(setup.loads[int(source[5:])], "port", "")
    hand = 0.5 * setup.body.outer_hip_breadth_m + HAND_OUT_M
    left_is_other = 1.0 if setup.resolved.get("side", "right") == "right" else -1.0
    if port == "hand-left":
        return np.full((1, 1), left_is_other * hand)
    if port == "hand-right":
        return np.full((1, 1), -left_is_other * hand)
    if port == "hands" and "load_left_share" in setup.resolved:
        return left_is_other * hand * (2.0 * np.atleast_2d(setup.resolved["load_left_share"]) - 1.0)
    return np.zeros((1, 1))


def _loops(setup: Setup, motion: Motion) -> Array | None:
    """Return the abduction demand per leg of loops round both thighs: the knees stay as wide as the
    feet.
    """
    total: Array | None = None
    for load in setup.loads:
        if isinstance(load, Band) and load.port == "thigh" and load.anchor_port == "thigh":
            apart = np.broadcast_to(np.atleast_2d(setup.resolved.get("stance", 0.35)), motion.shape)
            pull = load.tension_n(apart) * 0.9 * setup.body.thigh_m
            total = pull if total is None else total + pull
    return total


def grip_n(setup: Setup, motion: Motion) -> Array | None:
    """Return the force that one hand holds (N, (set-ups, samples)), the fuller hand; None where the
    hands are free.
    """
    left, right = np.zeros(motion.shape), np.zeros(motion.shape)
    held = False
    for item in motion.forces:
        if not item.source.startswith("load ") or not item.source[5:].isdigit():
            continue
        port = getattr(setup.loads[int(item.source[5:])], "port", "")
        size = np.hypot(item.force[0], item.force[1])
        share = np.atleast_2d(setup.resolved.get("load_left_share", 0.5))
        if port in ("hands", "hand-left", "hand-right", "goblet"):
            held = True
            part = {"hand-left": 1.0, "hand-right": 0.0, "goblet": 0.5}.get(port, share)
            left, right = left + part * size, right + (1.0 - part) * size
    return np.maximum(left, right) if held else None
