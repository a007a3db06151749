"""Calf raises: the foot turns about its ball, the straight body leans so that it balances there.

Closure: the floor's force passes through the ball, so the toes have no moment; the whole straight
body (knees and hips straight) leans as balance asks.
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

FAMILY = "calf"

LEAN_RANGE = (-40 * DEG, 40 * DEG)


def solve(lift: Lift) -> Motion:
    """Return the calf raise's motion for options `o` (radians, metres) at `position` (1,
    samples).
    """
    body, limits, o, loads = lift.body, lift.limits, lift.o, lift.loads
    bend = lift.through("ankle")
    shape = lift.shape(bend)
    legs = int(o["legs"])
    bend = spread(bend, shape)
    ball = flat(body.sole_m(s.BALL), o["step"])

    def motion_at(body_lean: Array) -> Motion:
        """Return the motion with the straight body leaning so far forward (rad)."""
        motion = lift.motion(shape, legs=legs)
        # ankle bend = lean of the shank less pitch of the foot (heel up positive)
        pitch = body_lean - bend
        towards_toe, down = ahead(pitch), -lean(pitch)
        ankle = ball - body.sole_m(s.BALL) * towards_toe - body.ankle_height_m * down
        knee = ankle + body.shank_m * lean(body_lean)
        hip = knee + body.thigh_m * lean(body_lean)
        add_leg(motion, body, Foot(body, ankle, towards_toe, down), knee, hip, legs=legs)
        if legs == 1:
            # the free leg hangs beside the working one, its foot still against its shank
            for part in list(motion.segments):
                sole_m = body.ankle_height_m / 2
                com = ankle - sole_m * lean(body_lean) if part.name == "foot" else part.com
                motion.add_segment(f"free_{part.name}", part.mass_kg, com)
        trunk = Trunk(body=body, hip=hip, lean=body_lean)
        add_upper_body(motion, trunk, one_piece=lift.exercise.one_piece)

        def place(name: str) -> Array:
            """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
            there.
            """
            point = trunk.port(name)
            if point is None:
                raise InputError(
                    "/loads/port", name, Said("a port of the trunk, hands or belt in a calf raise")
                )
            return point

        attach(motion, loads, place, lowering=lift.lowering)
        motion.points["shoulder"] = trunk.shoulder
        motion.angles |= {
            "ankle": bend,
            "knee": motion.full(0.0),
            "hip": motion.full(0.0),
            "mtp": pitch,
        }
        if not lift.exercise.one_piece:
            motion.angles["shoulder"] = body_lean
        return motion

    body_lean, found = balanced_angle(
        lambda x: motion_at(spread(x, shape)).moment_about(ball),
        LEAN_RANGE,
        shape,
        turning=only_weights(loads),
        start=np.zeros(()),
    )
    motion = motion_at(body_lean)
    motion.fail(
        ~found, Said("cannot balance over the ball of the foot: hold something or ease the band")
    )
    motion.fail(
        bend > limits.dorsiflexion + 1e-9,
        Said("ankle limit {angle} passed", angle=Angle.of_deg(limits.dorsiflexion_deg)),
    )
    stand_on(motion, spread(ball, (2, *shape)), "toes", "contact ball")
    motion.points["mtp"] = spread(ball, (2, *shape))
    motion.assumptions += [
        Said(
            "Quasi-static and in the side view; knees and hips straight, the body leans to "
            "balance over the ball."
        ),
        Said("Hold something: balance is solved, not felt."),
    ]
    if legs == 1:
        motion.assumptions.append(Said("The free leg stays beside the working one."))
    return motion
