"""Carriage work kneeling or on the hands.

Closure: the hip is held; the moving foot carries `weight_share` of the leg's own weight besides the
springs.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import segments as s
from widearc.core.body.segments import HIP_CENTRE
from widearc.core.exercises import STATURE_M
from widearc.core.geometry import spread, vec
from widearc.core.movement.families.carriage_ride import Ride, finish, leg_between, ride_of
from widearc.core.movement.legs import Foot, add_leg, flat
from widearc.core.movement.lift import Lift
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.units import DEG, G
from widearc.core.words import Said

FAMILY = "carriage"
VARIANTS = ("kick", "knees")


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians, metres) at `position` (1, samples)."""
    ride = ride_of(lift, -1.0 if lift.exercise.variant == "kick" else 1.0)
    return finish(_held_hip(ride), ride, lift.limits)


def _held_hip(ride: Ride) -> Motion:
    body, o, shape = ride.body, ride.o, ride.shape
    kick = ride.exercise.variant == "kick"
    # on hands and knees the hip stands a thigh over the floor; on the hands, half of that more than
    # a shank
    taller = body.stature_m / STATURE_M
    height = body.thigh_m + 0.05 * taller if kick else body.shank_m + 0.25 * taller
    motion = Motion(
        position=ride.position.ravel(), shape=shape, legs=1 if kick else 2, complete=False
    )
    hip = spread(flat(0.0, height), (2, *shape))
    ankle = np.stack((ride.foot_x, np.full(shape, body.sole_m(s.BALL))))
    knee, bend, shank, reached = leg_between(body, hip, ankle)
    motion.fail(~reached, Said("the leg cannot reach the carriage: less travel or start closer"))
    # on the ball of the foot, heel up: the foot stands upright behind its toes
    upright = Foot(
        body,
        ankle,
        vec(np.zeros((1, 1)), -np.ones((1, 1))),
        vec(-np.ones((1, 1)), np.zeros((1, 1))),
    )
    add_leg(motion, body, upright, knee, hip, legs=motion.legs)
    trunk_lean = np.full(shape, 90 * DEG if kick else 70 * DEG)
    trunk = Trunk(body=body, hip=hip, lean=trunk_lean)
    add_upper_body(motion, trunk, one_piece=ride.exercise.one_piece)
    ball = upright.sole(body.sole_m(s.BALL))
    hand = np.stack((trunk.shoulder[0], np.zeros(shape)))
    motion.points |= {
        "shoulder": trunk.shoulder,
        "hand": hand,
        "pressure": spread(ball, (2, *shape)),
    }
    leg_kg = motion.legs * (s.M_FOOT + s.M_SHANK + s.M_THIGH) * body.mass_kg
    carried = spread(np.atleast_2d(o["weight_share"]) * leg_kg * G, shape)
    ride.refuse_others()
    level = ride.push_on_foot(motion, carried)
    motion.angles |= {
        "knee": motion.full(bend),
        "hip": motion.full(bend - shank + trunk_lean),
        "ankle": motion.full(shank - 90 * DEG),
    }

    def closure(moved: Motion) -> None:
        """Add the contacts that balance what acts on the body."""
        speeding: Array = sum((by for inertia, by in moved.speeding), np.zeros(moved.shape))
        moved.add_force(
            "foot", moved.points["pressure"], vec(level - speeding, carried), "contact carriage"
        )

    motion.close(closure)
    motion.assumptions += [
        (
            Said(
                "Quasi-static and in the side view; hip and trunk are held still by the arms and "
                "the other leg."
            )
        )
        if kick
        else Said(
            "Quasi-static and in the side view; hip and trunk are held still over the hands."
        ),
        Said("The foot carries a given share of the leg's own weight; heel up, on the ball."),
    ]
    return motion


def _straight_legs(motion: Motion, ride: Ride) -> Array:
    """Add both straight legs to a motion seen from the front; return the pelvis's middle (m): it
    stays level.
    """
    body, shape = ride.body, ride.shape
    leg_m = body.thigh_m + body.shank_m
    half = HIP_CENTRE * body.stature_m
    other_foot = np.stack((np.zeros(shape), np.full(shape, body.ankle_height_m)))
    foot_x = ride.foot_x
    # level pelvis, legs of one length: the hips' middle lies half way between the feet at every
    # share
    middle = 0.5 * foot_x
    reach = 0.5 * foot_x - half
    motion.fail(
        motion.full(np.abs(reach)) > 0.9 * leg_m,
        Said("the legs cannot reach that far apart: less travel"),
    )
    height = body.ankle_height_m + np.sqrt(np.maximum(leg_m**2 - reach**2, 0.01))
    hip = np.stack((middle + half, height))
    other_hip = np.stack((middle - half, height))
    ankle = np.stack((foot_x, np.full(shape, body.ankle_height_m)))
    knee = hip + (body.thigh_m / leg_m) * (ankle - hip)
    other_knee = other_hip + (body.thigh_m / leg_m) * (other_foot - other_hip)
    straight = vec(np.ones((1, 1)), np.zeros((1, 1)))
    down = vec(np.zeros((1, 1)), -np.ones((1, 1)))
    add_leg(motion, body, Foot(body, ankle, 0.0 * straight, down), knee, hip)
    for name, share_m, a, b, at in (
        ("other_shank", s.M_SHANK, other_knee, other_foot, s.COM_SHANK),
        ("other_thigh", s.M_THIGH, other_hip, other_knee, s.COM_THIGH),
    ):
        motion.add_segment(name, share_m * body.mass_kg, a + at * (b - a))
    motion.add_segment(
        "other_foot", s.M_FOOT * body.mass_kg, other_foot + 0.5 * body.ankle_height_m * down
    )
    motion.points |= {"other_hip": other_hip, "other_knee": other_knee, "other_ankle": other_foot}
    return np.stack((middle, height))
