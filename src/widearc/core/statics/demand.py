"""Demand: the moment of the outside forces about a joint, signed by the action that must answer
it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import PostureError
from widearc.core.movement import JOINTS, SAMPLES, WORKING_JOINTS, Motion, Setup, move, place_of
from widearc.core.statics.energy_audit import BROKEN, audit_of
from widearc.core.words import Said, Share


def demand_nm(motion: Motion, name: str) -> Array:
    """Return the demand (N·m, (set-ups, samples)) at a joint, per working leg.

    From the far side of the joint, contacts and weights included. Positive: hip extension, knee
    extension, plantarflexion, hip abduction; at any other joint the action opposite to its positive
    angle.
    """
    joint = JOINTS[name]
    from_heights, level = _moment(motion, name, lambda segment: segment in joint.distal)
    if name not in WORKING_JOINTS:
        return np.asarray(joint.sign * (from_heights + level))
    # a leg plane turned by ψ: offsets in it are longer than they look, level forces act by their
    # part along it
    turned = from_heights / motion.plane_cos + level * motion.plane_cos
    return np.asarray(joint.sign * turned / motion.legs)


def demand_from_above_nm(motion: Motion, name: str) -> Array:
    """Return the same demand from the near side; only where `motion.complete` (every force
    known).
    """
    joint = JOINTS[name]
    from_heights, level = _moment(motion, name, lambda segment: segment not in joint.distal)
    sagittal = -(from_heights + level)
    if name not in WORKING_JOINTS:
        return np.asarray(joint.sign * sagittal)
    _, below = _moment(motion, name, lambda segment: segment in joint.distal)
    turned = (sagittal - below * (1.0 - motion.plane_cos**2)) / motion.plane_cos
    return np.asarray(joint.sign * turned / motion.legs)


def twist_nm(motion: Motion) -> Array:
    """Return both hips' moment across their turned leg planes (N·m): level forces times the plane's
    sine.
    """
    _, level = _moment(motion, "hip", lambda segment: segment in JOINTS["hip"].distal)
    return np.asarray(level * np.sqrt(1.0 - motion.plane_cos**2))


def _moment(motion: Motion, name: str, counts: Callable[[str], bool]) -> tuple[Array, Array]:
    """Return the moment (N·m anticlockwise) of vertical forces and couples, and of level forces,
    about a joint.
    """
    sums = (wrench for segment, wrench in motion.wrenches().items() if counts(segment))
    return motion.moments_about(motion.points[place_of(name)], sums)


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
    return setup.exercise.law.held(setup.resolved)


def _turn_hips(motion: Motion) -> None:
    """Add the angle by which leaning over turned legs also opens the hips across their planes: the
    audit counts it.
    """
    if np.any(motion.plane_cos < 1.0 - 1e-9) and "trunk_lean" in motion.marks:
        motion.angles["hip_twist"] = motion.marks["trunk_lean"] * np.sqrt(1.0 - motion.plane_cos**2)


def curve(
    setup: Setup, *, strict: bool = True, lowering: bool = True, others: bool = True
) -> Curve:
    """Return a set-up's resistance curves; `strict` and failures as in `move`.

    lowering: also compute the way down where friction or hysteresis makes it differ. others: also
    the joints beside the working leg's (else `other_nm` is empty).
    """
    motion = move(setup, strict=strict)
    held = held_joints(setup)
    working = [name for name in WORKING_JOINTS if name in motion.angles.keys() - held]
    demand = {name: demand_nm(motion, name) for name in working}
    _turn_hips(motion)
    other = others_of(motion) if others else {}
    if strict and others:
        _refuse_broken(setup, motion, demand, other)
    down = None
    if lowering and _differs_down(setup):
        down_motion = move(setup, lowering=True, strict=strict)
        down = {name: demand_nm(down_motion, name) for name in demand}
    return Curve(setup=setup, motion=motion, demand_nm=demand, other_nm=other, lowering_nm=down)


def _refuse_broken(
    setup: Setup, motion: Motion, demand: dict[str, Array], other: dict[str, Array]
) -> None:
    """Raise PostureError where energy shows that a pose is no pose; few samples say nothing."""
    if setup.samples < SAMPLES:
        curve(replace(setup, samples=SAMPLES), lowering=False)
        return
    off = audit_of(motion, demand, other).relative_error
    if np.any(off > BROKEN):
        raise PostureError(
            0.0,
            Said(
                "the set-up does not hold together: its energy is off by {share}",
                share=Share(np.nanmax(off)),
            ),
        )


PART = 400  # set-ups at once: more gain no speed and take memory


def curves_in_parts(setup: Setup, rows: int = PART) -> Iterator[Curve]:
    """Yield the curves of a set-up of many, some rows at a time: fast, and in little memory.
    Failures as NaN.
    """
    for start in range(0, setup.rows, rows):
        yield curve(setup.part(start, min(start + rows, setup.rows)), strict=False, lowering=False)


def others_of(motion: Motion) -> dict[str, Array]:
    """Return the demands (N·m) of every moving joint that is not the working leg's."""
    return {name: _other(motion, name) for name in motion.angles if name not in WORKING_JOINTS}


def _other(motion: Motion, name: str) -> Array:
    return twist_nm(motion) if name == "hip_twist" else demand_nm(motion, name)


def _differs_down(setup: Setup) -> bool:
    return any(
        getattr(load, "hysteresis", 0.0) > 0 or getattr(load, "friction", 0.0) > 0
        for load in setup.loads
    )
