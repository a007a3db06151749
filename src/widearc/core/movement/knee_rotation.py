"""Knee rotation: the thigh is held level, the shank swings about the knee.

Closure: the hip is held by seat or pad, so only the knee's demand is had, from the shank's side.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body, Limits
from widearc.core.catalogue import Exercise, Options
from widearc.core.equipment import Load
from widearc.core.errors import InputError
from widearc.core.geometry import ahead, lean
from widearc.core.movement.legs import TOE, Foot, add_leg, flat
from widearc.core.movement.loading import Trunk, add_upper_body, attach
from widearc.core.movement.motion import Motion
from widearc.core.units import DEG, to_deg

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
    """Return the motion of a seated leg extension for options `o` (radians, metres)."""
    knee_bend = np.atleast_2d(o["knee_from"] + (o["knee_to"] - o["knee_from"]) * position)
    sizes = [np.shape(getattr(load, "kg", getattr(load, "count", 1))) for load in loads]
    shape = np.broadcast_shapes(knee_bend.shape, np.shape(o["seat"]), np.shape(o["hip"]), (1, 1), *sizes)
    legs = int(o["legs"])
    motion = Motion(position=position.ravel(), shape=(shape[0], shape[1]), legs=legs, complete=False)
    hip = np.broadcast_to(flat(0.0, o["seat"]), (2, *shape))
    knee = hip + flat(body.thigh_m, 0.0)
    # straight the shank points forward, bent by 90° straight down
    down_shank = ahead(knee_bend)
    foot = Foot(body, np.broadcast_to(knee + body.shank_m * down_shank, (2, *shape)), lean(knee_bend), down_shank)
    add_leg(motion, body, foot, knee, hip, legs=legs)
    trunk = Trunk(body=body, hip=hip, lean=np.broadcast_to(np.atleast_2d(o["hip"]) - 90 * DEG, shape))
    add_upper_body(motion, trunk, one_piece=True)

    def place(name: str) -> Array:
        if name == "ankle":
            return foot.ankle
        if name == "sole":
            return foot.sole(0.0)
        raise InputError("/loads/port", name, "ankle or sole on a leg extension")

    attach(motion, loads, place, lowering=lowering)
    motion.points |= {"shoulder": trunk.shoulder}
    motion.angles |= {"knee": motion.full(knee_bend), "hip": motion.full(o["hip"]), "ankle": motion.full(0.0)}
    _note_floor(motion, body, foot, knee_bend)
    motion.assumptions += [
        "Quasi-static and in the side view; thighs level and held by the seat.",
        "The foot stays square to the shank.",
    ]
    return motion


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


def _note_floor(motion: Motion, body: Body, foot: Foot, knee_bend: Array) -> None:
    low = np.minimum(foot.sole(body.sole_m(-0.23))[1], foot.sole(body.sole_m(TOE))[1])
    motion.notice(
        "feet-touch-floor",
        "the feet would touch the floor at the bent end: sit higher or start less bent",
        np.any(motion.full(low) < 0.0, axis=1),
    )
