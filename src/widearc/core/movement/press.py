"""Sled press: hip and backrest fixed, the foot rides a plate along straight rails.

Closure: the sled's force along the rails is known; square to them the feet add the push of least
effort, t = -Σ(M0·c/S²)/Σ(c²/S²) over hip, knee and ankle, clipped to ±0.3 of the rail force (option:
none). S is the default strength curve without any client's scale, so that no demand depends on
logged sets. t does no work. The force acts at the pressure point.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body, Limits
from widearc.core.catalogue import Exercise, Options
from widearc.core.equipment import Band, Load, Sled
from widearc.core.errors import InputError
from widearc.core.geometry import slope, third_side, vec
from widearc.core.movement.legs import Foot, add_leg, flat, pressure_m
from widearc.core.movement.loading import Trunk, add_upper_body, band_ends, load_shape, note_band
from widearc.core.movement.motion import JOINTS, LEG_JOINTS, Motion
from widearc.core.strength import strength_nm
from widearc.core.units import DEG, G, to_deg

PUSH_SHARE = 0.3
STRENGTH_OF = {"hip": "hip_extension", "knee": "knee_extension", "ankle": "plantarflexion"}


def solve(
    exercise: Exercise,
    body: Body,
    limits: Limits,
    o: Options,
    loads: Sequence[Load],
    position: Array,
    *,
    lowering: bool,
) -> Motion:
    """Return the press's motion for options `o` (radians, metres) at `position` (1, samples)."""
    knee_bend = o["knee_from"] + (o["knee_to"] - o["knee_from"]) * position
    reach = third_side(body.thigh_m, body.shank_m, knee_bend)
    rail, tilt, height = (np.atleast_2d(o[name]) for name in ("rail", "plate_tilt", "foot_height"))
    along = np.sqrt(np.maximum(reach**2 - height**2, 0.0))
    up_rail, square = slope(rail), slope(rail + 90 * DEG)
    towards_toe = square * np.cos(tilt) + up_rail * np.sin(tilt)
    away = up_rail * np.cos(tilt) - square * np.sin(tilt)

    shape = np.broadcast_shapes(reach.shape, along.shape, (1, 1), load_shape(loads))
    legs = int(o["legs"])
    motion = Motion(position=position.ravel(), shape=(shape[0], shape[1]), legs=legs, complete=False)
    hip = flat(0.0, o["seat"])
    ankle = hip + along * up_rail + height * square
    thigh_angle = rail + np.arctan2(height, along) + _angle_at_hip(body, knee_bend)
    knee = hip + body.thigh_m * slope(thigh_angle)
    hip, ankle, knee = (np.broadcast_to(p, (2, *shape)) for p in (hip, ankle, knee))
    foot = Foot(body, ankle, towards_toe, away)
    add_leg(motion, body, foot, knee, hip, legs=legs)

    # the trunk lies back: leaning backwards from the vertical by what the backrest is short of upright
    back_lean = np.broadcast_to(np.atleast_2d(o["backrest"]) - 90 * DEG, shape)
    trunk = Trunk(body=body, hip=hip, lean=back_lean)
    add_upper_body(motion, trunk, one_piece=exercise.one_piece)
    motion.angles |= {
        "knee": motion.full(knee_bend),
        "hip": motion.full(thigh_angle + o["backrest"]),
        "ankle": motion.full(knee_bend + rail - thigh_angle - tilt),
    }
    _refuse_ankle(motion, limits)

    plate = ankle + body.ankle_height_m * away
    rail_force = _rail_force(motion, loads, rail, along, height, square, up_rail, plate, o["seat"], lowering=lowering)
    sole = foot.sole(pressure_m(body, o["pressure"]))
    push = _push(motion, body, rail_force, sole, up_rail, square, o["push"])
    motion.add_force("foot", np.broadcast_to(sole, (2, *shape)), -rail_force * up_rail - push * square, "contact foot")
    motion.path_travel = motion.full(along - along[..., :1])
    motion.path_force = motion.full(rail_force)
    motion.points |= {"shoulder": trunk.shoulder, "pressure": motion.full(sole), "plate": motion.full(plate)}
    motion.marks["push"] = motion.full(push)
    motion.assumptions += [
        "Quasi-static and in the side view; hip and back do not move on the pad.",
        "The feet push square to the rails as costs the least effort, at most 0.3 of the rail force."
        if o["push"] == "least-effort"
        else "The feet push along the rails only.",
    ]
    return motion


def _angle_at_hip(body: Body, knee_bend: Array) -> Array:
    """Return the angle (rad) at the hip between the thigh and the line from hip to ankle."""
    return np.arctan2(body.shank_m * np.sin(knee_bend), body.thigh_m + body.shank_m * np.cos(knee_bend))


def _refuse_ankle(motion: Motion, limits: Limits) -> None:
    """Fail set-ups that pass the ankle's limit, naming the depth that is still possible."""
    over = motion.angles["ankle"] > limits.dorsiflexion + 1e-9
    for row in np.flatnonzero(over.any(axis=1)):
        fine = to_deg(motion.angles["knee"][row][~over[row]])
        still = f"possible up to {np.floor(fine.max()):.0f}° of knee bend" if fine.size else "not possible at any depth"
        mask = np.zeros(motion.shape, dtype=bool)
        mask[row] = over[row]
        motion.fail(mask, f"ankle limit {limits.dorsiflexion_deg:.0f}° passed; {still}, or set the feet higher")


def _rail_force(
    motion: Motion, loads: Sequence[Load], rail: Array, along: Array, height: Array, square: Array,
    up_rail: Array, plate: Array, seat: Array | float, *, lowering: bool,
) -> Array:  # fmt: skip
    """Return the force (N) down the rails at the feet, and book the sled's and bands' energy."""
    total: Array = np.zeros(motion.shape)
    for index, load in enumerate(loads):
        if isinstance(load, Sled):
            total = total + load.along_rail_n(rail, lowering=lowering)
            sled_height = seat + along * np.sin(rail) + height * square[1]
            motion.load_gravity.append(partial(np.multiply, load.total_kg * G, sled_height))
            friction = load.friction_n(rail)
            motion.friction_work_j = motion.friction_work_j + motion.full(friction * (along - along[..., :1]))
        elif isinstance(load, Band):
            if load.anchor_port:
                raise InputError(f"/loads/{index}/anchor", load.anchor_port, "a point of the room on a sled")
            length, towards = band_ends(load, np.asarray(plate), None)
            pull = load.tension_n(length, lowering=lowering) * (towards[0] * up_rail[0] + towards[1] * up_rail[1])
            total = total - pull
            note_band(motion, index, load, length)
        else:
            raise InputError(f"/loads/{index}/kind", load.kind, "a sled or a band on a sled press")
    motion.notice(
        "sled-pulled-away",
        "the bands lift the sled off the feet in part of the range",
        np.any(total < 0, axis=1),
    )
    return total


def _push(
    motion: Motion, body: Body, rail_force: Array, sole: Array, up_rail: Array, square: Array, choice: str
) -> Array:
    """Return the push square to the rails towards the toes (N); the plate answers with -push."""
    if choice == "none":
        return np.zeros(motion.shape)
    top, bottom = np.zeros(motion.shape), np.zeros(motion.shape)
    for name in LEG_JOINTS:
        joint, centre = JOINTS[name], motion.points[name]
        r = vec(sole[0] - centre[0], sole[1] - centre[1])
        alone = -rail_force * (r[0] * up_rail[1] - r[1] * up_rail[0])
        for force in motion.forces:
            if force.segment in joint.distal:
                arm = force.point - centre
                alone = alone + arm[0] * force.force[1] - arm[1] * force.force[0]
        per_newton = -(r[0] * square[1] - r[1] * square[0]) * joint.sign
        strength = strength_nm(
            STRENGTH_OF[name],
            motion.angles[name],
            mass_kg=body.mass_kg,
            stature_m=body.stature_m,
            sex=body.sex.value,
        )
        top = top + joint.sign * alone * per_newton / strength**2
        bottom = bottom + per_newton**2 / strength**2
    most = PUSH_SHARE * np.abs(rail_force)
    return np.clip(-top / np.maximum(bottom, 1e-18), -most, most)
