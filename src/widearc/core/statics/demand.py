"""Demand: the moment of the outside forces about a joint, signed by the action that must answer it."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.movement import JOINTS, Motion, Setup, move

_LEG = ("hip", "knee", "ankle")


def demand_nm(motion: Motion, name: str) -> Array:
    """Return the demand (N·m, (set-ups, samples)) at a joint, per working leg.

    From the far side of the joint, contacts and weights included. Positive: hip extension, knee
    extension, plantarflexion; at any other joint the action opposite to its positive angle.
    """
    joint = JOINTS[name]
    return _signed(motion, name, _moment(motion, name, lambda segment: segment in joint.distal))


def demand_from_above_nm(motion: Motion, name: str) -> Array:
    """Return the same demand from the near side; only where `motion.complete` (every force known)."""
    joint = JOINTS[name]
    return _signed(motion, name, -_moment(motion, name, lambda segment: segment not in joint.distal))


def _moment(motion: Motion, name: str, counts) -> Array:  # type: ignore[no-untyped-def]
    centre = motion.points[_place(name)]
    total = np.zeros(motion.shape)
    for item in motion.forces:
        if counts(item.segment):
            rx, ry = item.point[0] - centre[0], item.point[1] - centre[1]
            total = total + rx * item.force[1] - ry * item.force[0]
    for segment, moment in motion.couples:
        if counts(segment):
            total = total + moment
    return total


def _signed(motion: Motion, name: str, moment: Array) -> Array:
    if name in _LEG:
        return np.asarray(JOINTS[name].sign * moment / (motion.legs * motion.plane_cos))
    return np.asarray(JOINTS[name].sign * moment)


def _place(name: str) -> str:
    return "hip" if name in ("rear_hip", "free_hip") else name


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Curve:
    """A motion with its demands: joints of the working leg, and every other moving joint.

    demand_nm and other_nm: N·m (set-ups, samples) by joint name; the lowering ones are None where
    they do not differ. A held joint's demand is left out: seat or pad carries it.
    """

    setup: Setup
    motion: Motion
    demand_nm: dict[str, Array]
    other_nm: dict[str, Array]
    lowering_nm: dict[str, Array] | None


def held_joints(setup: Setup) -> frozenset[str]:
    """Return the leg joints that seat, pad or floor holds in this exercise."""
    family = setup.exercise.family
    if family == "knee rotation":
        return frozenset({"hip", "ankle"})
    return frozenset({"ankle"}) if family in ("kneeling", "hip rotation trunk") else frozenset()


def curve(setup: Setup, *, strict: bool = True, lowering: bool = True) -> Curve:
    """Return a set-up's resistance curves; `strict` and failures as in `move`.

    lowering: also compute the way down where friction or hysteresis makes it differ.
    """
    motion = move(setup, strict=strict)
    held = held_joints(setup)
    demand = {name: demand_nm(motion, name) for name in _LEG if name in motion.angles and name not in held}
    other = {name: demand_nm(motion, name) for name in motion.angles if name not in _LEG}
    down = None
    if lowering and _differs_down(setup):
        down_motion = move(setup, lowering=True, strict=strict)
        down = {name: demand_nm(down_motion, name) for name in demand}
    return Curve(setup=setup, motion=motion, demand_nm=demand, other_nm=other, lowering_nm=down)


def _differs_down(setup: Setup) -> bool:
    return any(getattr(load, "hysteresis", 0.0) > 0 or getattr(load, "friction", 0.0) > 0 for load in setup.loads)
