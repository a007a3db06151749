"""The line of force of what acts beyond a joint, and its moment arm: the picture of a demand."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.geometry import cross
from widearc.core.movement import JOINTS, Motion, place_of

LEAST_N = 5.0  # a weaker resultant has no line worth drawing


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class LineOfForce:
    """The resultant of all forces beyond a joint, both legs.

    force N (2, set-ups, samples); nearest: the point of its line closest to the joint, m; arm:
    distance to it, m (0 or more). Force times arm is the joint's moment of both legs; NaN where
    next to nothing acts.
    """

    force: Array
    nearest: Array
    arm: Array


def line_of_force(motion: Motion, joint: str) -> LineOfForce:
    """Return the line of force of what acts beyond a joint (its distal side: weights, loads and
    contacts).
    """
    distal, centre = JOINTS[joint].distal, motion.full(motion.points[place_of(joint)])
    force, moment = np.zeros((2, *motion.shape)), np.zeros(motion.shape)
    for item in motion.forces:
        if item.segment in distal:
            force = force + item.force
            moment = moment + cross(item.point - centre, item.force)
    for segment, couple, source in motion.couples:
        if segment in distal:
            moment = moment + couple
            if source == "load stack" and "pad" in motion.points:
                # a machine's moment comes as its pad's push, square to the limb
                r = motion.full(motion.points["pad"]) - centre
                far2 = np.maximum(r[0] ** 2 + r[1] ** 2, 1e-6)
                force = force + couple / far2 * np.stack((-r[1], r[0]))
    size2 = force[0] ** 2 + force[1] ** 2
    size2 = np.where(size2 < LEAST_N**2, np.nan, size2)
    # r × F = M with r square to F: r = (-F_y, F_x)·M / F² turned so that the cross product is M
    offset = np.stack((-force[1], force[0])) * (-moment / size2)
    return LineOfForce(force=force, nearest=centre + offset, arm=np.abs(moment) / np.sqrt(size2))
