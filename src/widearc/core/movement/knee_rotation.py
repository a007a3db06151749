"""Knee rotation: the thigh is held, the shank swings about the knee; seated, lying prone or standing.

Closure: the hip is held by seat or pad, so only the knee's demand is had, from the shank's side.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body, Limits
from widearc.core.catalogue import Exercise, Options
from widearc.core.equipment import Load, Stack
from widearc.core.errors import InputError
from widearc.core.geometry import slope
from widearc.core.movement.legs import TOE, Foot, add_leg, flat
from widearc.core.movement.loading import Trunk, add_upper_body, attach, load_shape
from widearc.core.movement.motion import Motion
from widearc.core.units import DEG, to_deg

THIGH_ANGLE = {"seated": 0.0, "prone": 180 * DEG, "standing": -90 * DEG}  # thigh, hip to knee, from level
DUMBBELL_BELOW_M = 0.05  # how far a dumbbell held by the feet hangs below the soles (assumed)
FREE_OF_FLOOR_M = 0.02


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
    """Return the motion of a leg extension or curl for options `o` (radians, metres)."""
    knee_bend = np.atleast_2d(o["knee_from"] + (o["knee_to"] - o["knee_from"]) * position)
    shape = np.broadcast_shapes(knee_bend.shape, np.shape(o["seat"]), np.shape(o["hip"]), load_shape(loads))
    legs = int(o["legs"])
    motion = Motion(position=position.ravel(), shape=(shape[0], shape[1]), legs=legs, complete=False)
    thigh = THIGH_ANGLE[str(o["body_place"])]
    hip = np.broadcast_to(flat(0.0, o["seat"]), (2, *shape))
    knee = hip + body.thigh_m * slope(np.full((1, 1), thigh))
    # bending turns the shank clockwise from the thigh's line, seen with the body facing +x
    shank = slope(thigh - knee_bend)
    foot = Foot(body, np.broadcast_to(knee + body.shank_m * shank, (2, *shape)), _turned_left(shank), shank)
    add_leg(motion, body, foot, knee, hip, legs=legs)
    # straight, the trunk goes on from the thigh; bending the hip turns it clockwise; its lean is from the vertical
    trunk_lean = 90 * DEG - (thigh + 180 * DEG - np.atleast_2d(o["hip"]))
    trunk = Trunk(body=body, hip=hip, lean=np.broadcast_to(trunk_lean, shape))
    add_upper_body(motion, trunk, one_piece=True)

    def place(name: str) -> Array:
        if name == "ankle":
            return foot.ankle
        if name == "sole":
            return foot.sole(0.0)
        raise InputError("/loads/port", name, "ankle or sole on a knee rotation")

    lifts = 1.0 if np.all(np.asarray(o["knee_to"]) > np.asarray(o["knee_from"])) else -1.0
    _add_stacks(motion, loads, knee_bend, lifts, lowering=lowering)
    attach(motion, loads, place, lowering=lowering, skip="stack")
    motion.points |= {"shoulder": trunk.shoulder}
    motion.angles |= {"knee": motion.full(knee_bend), "hip": motion.full(o["hip"]), "ankle": motion.full(0.0)}
    _note_floor(motion, body, foot)
    motion.assumptions += [
        "Quasi-static and in the side view; thighs held by seat or pad.",
        "The foot stays square to the shank.",
    ]
    return motion


def _turned_left(vector: Array) -> Array:
    """Return a vector turned by 90° anticlockwise: from the shank's line to the toes."""
    return np.stack((-vector[1], vector[0]))


def _add_stacks(motion: Motion, loads: Sequence[Load], knee_bend: Array, lifts: float, *, lowering: bool) -> None:
    """Add cam stacks as moments on the shank against the lift; their energy is the moment's work so far."""
    for load in loads:
        if isinstance(load, Stack):
            moment = load.moment_nm(knee_bend, lowering=lowering)
            # resisting a bending knee means turning the shank anticlockwise
            motion.couples.append(("shank", motion.full(lifts * moment)))
            weight = load.moment_nm(knee_bend) / (1.0 + load.friction)
            steps = 0.5 * (weight[:, 1:] + weight[:, :-1]) * np.abs(np.diff(knee_bend, axis=1))
            risen = np.concatenate((np.zeros((steps.shape[0], 1)), np.cumsum(steps, axis=1)), axis=1)
            motion.load_gravity.append(partial(motion.full, risen))
            motion.friction_work_j = motion.friction_work_j + motion.full(risen * load.friction)


def clear_of_floor_deg(body: Body, seat_m: float) -> float:
    """Return the knee bend (degrees, 0 to 130) up to which feet and dumbbell stay clear of the floor.

    seat_m: height of the hip's centre, m. A dumbbell is taken to hang 5 cm below the soles (assumed).
    """
    bend = np.linspace(0.0, 130.0, 1301) * DEG
    lowest = _lowest_below_knee(body, bend)
    clear = seat_m - lowest >= FREE_OF_FLOOR_M
    return float(to_deg(bend[clear].max())) if clear.all() or clear[0] else 0.0


def _lowest_below_knee(body: Body, bend: Array) -> Array:
    """Return how far feet and dumbbell reach below the knee, m."""
    shank = (body.shank_m + body.ankle_height_m) * np.sin(bend)
    heel = body.sole_m(-0.23) * -np.cos(bend)
    return np.asarray(np.maximum(shank + np.maximum(heel, 0.0), shank + DUMBBELL_BELOW_M * np.sin(bend)))


def _note_floor(motion: Motion, body: Body, foot: Foot) -> None:
    low = np.minimum(foot.sole(body.sole_m(-0.23))[1], foot.sole(body.sole_m(TOE))[1])
    motion.notice(
        "feet-touch-floor",
        "the feet would touch the floor at the bent end: sit higher or start less bent",
        np.any(motion.full(low) < 0.0, axis=1),
    )
