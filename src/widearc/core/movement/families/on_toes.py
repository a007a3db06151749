"""Kneeling about the toes: heels up, hips straight, the knees travel forward over the balls of the
feet.

Closure: foot and shank stay square to each other and turn about the ball as one; their lean is
solved so that the whole body balances over the ball. The floor's force passes through the ball, so
the toes have no moment.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import segments as s
from widearc.core.errors import InputError
from widearc.core.geometry import ahead, balanced_angle, lean, spread
from widearc.core.movement.legs import Foot, add_leg, flat, stand_on
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach, only_weights
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.units import DEG
from widearc.core.words import Angle, Said

SHANK_RANGE = (-20 * DEG, 100 * DEG)


def solve(lift: Lift) -> Motion:
    """Return the motion of a lean back on the toes for options `o` (radians) at `position` (1,
    samples).
    """
    body, limits, o, loads = lift.body, lift.limits, lift.o, lift.loads
    back = lift.through("lean")
    shape = lift.shape(back)
    back = spread(back, shape)
    ball = flat(0.0, 0.0)

    def motion_at(shank_lean: Array) -> Motion:
        """Return the motion with the shank leaning so far (rad)."""
        motion = lift.motion(shape, legs=2)
        towards_toe, down = ahead(shank_lean), -lean(shank_lean)
        ankle = ball - body.sole_m(s.BALL) * towards_toe - body.ankle_height_m * down
        knee = ankle + body.shank_m * lean(shank_lean)
        hip = knee + body.thigh_m * lean(-back)
        add_leg(motion, body, Foot(body, ankle, towards_toe, down), knee, hip, legs=2)
        trunk = Trunk(body=body, hip=hip, lean=np.asarray(o["hip"] - back))
        add_upper_body(motion, trunk, one_piece=lift.exercise.one_piece)

        def place(name: str) -> Array:
            """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
            there.
            """
            point = trunk.port(name, o["belt_offset"])
            if point is None:
                raise InputError("/loads/port", name, Said("a port of the trunk, hands or belt"))
            return point

        attach(motion, loads, place, lowering=lift.lowering)
        motion.points["shoulder"] = trunk.shoulder
        motion.angles |= {
            "knee": motion.full(shank_lean + back),
            "hip": motion.full(o["hip"]),
            "ankle": motion.full(0.0),
            "mtp": motion.full(shank_lean),
        }
        if not lift.exercise.one_piece:
            motion.angles["shoulder"] = motion.full(o["hip"] - back)
        return motion

    shank_lean, found = balanced_angle(
        lambda x: motion_at(spread(x, shape)).moment_about(ball),
        SHANK_RANGE,
        shape,
        turning=only_weights(loads),
        start=np.full((), 0.5),
    )
    motion = motion_at(shank_lean)
    motion.fail(~found, Said("cannot balance over the toes: hold something or lean less"))
    motion.fail(
        motion.angles["knee"] > limits.knee + 1e-9,
        Said("knee limit {angle} passed; lean less", angle=Angle.of_deg(limits.knee_deg)),
    )
    stand_on(motion, spread(ball, (2, *shape)), "toes", "contact ball")
    motion.points["mtp"] = spread(ball, (2, *shape))
    motion.marks["shank_lean"] = motion.full(shank_lean)
    motion.assumptions += [
        Said(
            "Quasi-static and in the side view; straight from knee to shoulder, heels up, "
            "ankles square."
        ),
        Said("The shanks lean as far forward as balance over the balls of the feet asks."),
    ]
    return motion
