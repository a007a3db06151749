"""Carriage push-out to the side (x to the side of the moving leg).

Closure: both legs straight, the pelvis level; the trunk leans until the given share of the weight
rests on the carriage.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import segments as s
from widearc.core.geometry import spread, vec
from widearc.core.movement.families.carriage_held import _straight_legs
from widearc.core.movement.families.carriage_ride import Ride, finish, ride_of
from widearc.core.movement.lift import Lift
from widearc.core.movement.motion import Motion
from widearc.core.units import G
from widearc.core.words import Said

FAMILY = "carriage"
VARIANTS = ("side",)


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians, metres) at `position` (1, samples)."""
    ride = ride_of(lift, 1.0)
    return finish(_sideways(ride), ride, None)


def _sideways(ride: Ride) -> Motion:
    """Both legs straight, seen from the front: the moving leg opens as its foot goes out."""
    body, o, shape = ride.body, ride.o, ride.shape
    motion = Motion(position=ride.position.ravel(), shape=shape, legs=1)
    share = spread(np.atleast_2d(o["weight_share"]), shape)
    pelvis = _straight_legs(motion, ride)
    hip, other_hip = motion.points["hip"], motion.points["other_hip"]
    ankle, other_foot = motion.points["ankle"], motion.points["other_ankle"]
    # the trunk leans sideways until the given share rests on the carriage
    feet = (ankle, other_foot)  # the feet tip at the ankles: the floor's forces pass through them
    motion.points |= {"pressure": feet[0], "other_pressure": feet[1]}
    trunk_n = s.M_ONE_PIECE * body.mass_kg * G
    weight = trunk_n - motion.total_force()[1]
    upright = motion.moment_about(feet[1]) - trunk_n * (pelvis[0] - feet[1][0])
    along = s.COM_ONE_PIECE * body.trunk_m
    sine = (share * weight * ride.foot_x + upright) / (trunk_n * along)
    motion.fail(
        np.abs(sine) > 0.7,
        Said("cannot put this share of the weight on the carriage: change weight_share"),
    )
    tilt = np.arcsin(np.clip(sine, -0.7, 0.7))
    trunk_way = np.stack((np.sin(tilt), np.cos(tilt)))
    motion.add_segment("trunk", s.M_ONE_PIECE * body.mass_kg, pelvis + along * trunk_way)
    motion.points["shoulder"] = pelvis + body.trunk_m * trunk_way
    ride.refuse_others()
    level = ride.push_on_foot(motion, share * weight)
    opened = np.arctan2(ankle[0] - hip[0], hip[1] - ankle[1])
    motion.points["lumbar"] = pelvis
    motion.angles |= {
        "hip_abduction": motion.full(opened),
        "other_abduction": motion.full(
            np.arctan2(other_hip[0] - other_foot[0], other_hip[1] - other_foot[1])
        ),
        "lumbar": motion.full(tilt),
    }

    def closure(moved: Motion) -> None:
        """Add the contacts that balance what acts on the body."""
        force = -moved.total_force()
        speeding: Array = sum((by for inertia, by in moved.speeding), np.zeros(moved.shape))
        moved.add_force(
            "foot", feet[0], vec(level - speeding, share * force[1]), "contact carriage"
        )
        if moved.dynamic:
            moved.couples.append(("other_foot", -moved.moment_about(feet[1]), "contact foot"))
        moved.add_force("other_foot", feet[1], -moved.total_force(), "contact foot")

    motion.close(closure)
    motion.assumptions += [
        Said(
            "Quasi-static and seen from the front; both knees straight, the pelvis level, "
            "the feet tip at the ankles."
        ),
        Said("The trunk leans sideways until the given share of the weight rests on the carriage."),
    ]
    return motion
