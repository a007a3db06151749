"""Hip rotation with the trunk: legs fixed on a bench, the trunk swings about the hip.

Closure: the thighs lie on a pad whose centre is `pad_below_hip` from the hip towards the knees; the
ankles are held by a roller or a partner whose force follows from moments about the pad's centre.
The knee-flexion demand that this asks, and the force at the ankles, are reported.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import InputError
from widearc.core.geometry import slope, spread
from widearc.core.movement.legs import Foot, add_leg, flat
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach, load_shape
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.units import DEG
from widearc.core.words import Said

FAMILY = "hip rotation trunk"


def solve(lift: Lift) -> Motion:
    """Return the back extension's motion for options `o` (radians, metres) at `position` (1,
    samples).
    """
    body, o, loads = lift.body, lift.o, lift.loads
    hip_bend = lift.through("hip")
    rise = np.atleast_2d(o["leg"])
    shape = np.broadcast_shapes(hip_bend.shape, rise.shape, load_shape(loads, o))
    motion = lift.motion(shape, legs=2)
    # face down: the straight body rises by `leg` from the level, feet behind
    legs_way = slope(rise + 180 * DEG)
    hip = spread(flat(0.0, o["seat"]), (2, *shape))
    knee = spread(hip + body.thigh_m * legs_way, (2, *shape))
    ankle = spread(knee + body.shank_m * legs_way, (2, *shape))
    foot = Foot(body, ankle, np.stack((-legs_way[1], legs_way[0])), legs_way)
    add_leg(motion, body, foot, knee, hip, legs=2)
    trunk_lean = spread(90 * DEG - (rise - hip_bend), shape)
    trunk = Trunk(body=body, hip=hip, lean=trunk_lean)
    add_upper_body(motion, trunk, one_piece=lift.exercise.one_piece)

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        point = trunk.port(name)
        if point is None:
            raise InputError(
                "/loads/port", name, Said("a port of the trunk or hands on a back extension")
            )
        return point

    attach(motion, loads, place, lowering=lift.lowering)
    motion.close(lambda moved: _hold(moved, hip + o["pad_below_hip"] * legs_way, ankle, legs_way))
    motion.points["shoulder"] = trunk.shoulder
    motion.angles |= {
        "hip": motion.full(hip_bend),
        "knee": motion.full(0.0),
        "ankle": motion.full(0.0),
    }
    if not lift.exercise.one_piece:
        motion.angles["shoulder"] = trunk_lean
    motion.assumptions += [
        Said(
            "Quasi-static and in the side view; legs straight and still, the trunk turns "
            "about the hip."
        ),
        Said("The ankles' hold pushes square to the legs; the pad carries the rest."),
    ]
    return motion


def _hold(motion: Motion, pad: Array, ankle: Array, legs_way: Array) -> None:
    """Add the roller's force at the ankles, square to the legs, and the pad's; mark the hold, N."""
    pad = spread(pad, (2, *motion.shape))
    moment = motion.moment_about(pad)
    square = spread(np.stack((-legs_way[1], legs_way[0])), (2, *motion.shape))
    arm = ankle - pad
    hold = -moment / (arm[0] * square[1] - arm[1] * square[0])
    motion.add_force("foot", ankle, hold * square, "contact ankles")
    motion.add_force("thigh", pad, -motion.total_force(), "contact pad")
    motion.marks["ankle_hold_n"] = np.abs(hold)
