"""Supine curls: shoulder blades on the floor, hips up, the heels slide on the floor or roll a ball
in and out.

Closure: the shoulders keep their place on the floor, the body is straight from shoulder to knee but
for the hip's own bend, the heels stay at their height and slide or roll: shoulders and heels carry
vertical forces, what rubs under the heels is left out (said).
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import segments as s
from widearc.core.errors import InputError
from widearc.core.geometry import slope, spread, third_side, vec
from widearc.core.movement.legs import Foot, add_leg, flat
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.words import Said

FAMILY = "plank knee bend"
VARIANTS = ("supine",)
SHOULDER_M = 0.12  # over the floor, lying on the shoulder blades (assumed)
HANDS_AHEAD = 0.95  # of an arm's length: drawn flat on the floor beside the body
HEEL_M = 0.06  # from the ankle to what the heel rests on, toes up (assumed)


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians, metres) at `position` (1, samples); the head is
    behind (-x), the feet ahead.
    """
    body, o = lift.body, lift.o
    bend = lift.through("knee")
    shape = lift.shape(bend)
    legs = int(o["legs"])
    motion = lift.motion(shape, legs=legs)
    bend, hip_bend = spread(bend, shape), spread(np.atleast_2d(o["hip"]), shape)
    shoulder = spread(flat(0.0, SHOULDER_M), (2, *shape))
    # shoulder to knee is the third side of trunk and thigh; with the shank it reaches the heel
    upper = third_side(body.trunk_m, body.thigh_m, hip_bend)
    at_knee = _angle(upper, body.thigh_m, body.trunk_m)
    reach = third_side(body.shank_m, upper, bend + at_knee)
    rise = o["couch"] + HEEL_M - SHOULDER_M
    ahead2 = reach**2 - np.atleast_2d(rise) ** 2
    motion.fail(ahead2 <= 0.01, Said("the heels cannot come so near: bend the knees less"))
    ankle = shoulder + np.stack(
        (np.sqrt(np.maximum(ahead2, 0.01)), spread(np.atleast_2d(rise), shape))
    )
    gap = ankle - shoulder
    line = np.arctan2(gap[1], gap[0])
    knee = shoulder + upper * slope(line + _angle(reach, upper, body.shank_m))
    along = np.arctan2(knee[1] - shoulder[1], knee[0] - shoulder[0])
    # a bent hip hangs below the line from shoulder to knee
    hip = shoulder + body.trunk_m * slope(along - _angle(upper, body.trunk_m, body.thigh_m))
    shank = (ankle - knee) / body.shank_m
    foot = Foot(body, ankle, np.stack((-shank[1], shank[0])), shank)
    add_leg(motion, body, foot, knee, hip, legs=legs)
    up = (shoulder - hip) / body.trunk_m
    trunk = Trunk(body=body, hip=hip, lean=np.arctan2(up[0], up[1]))
    add_upper_body(motion, trunk, one_piece=True)
    if legs == 1:
        _free_leg(motion, lift, hip, (hip - shoulder) / body.trunk_m)

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        if name == "ankle":
            return np.asarray(ankle)
        point = trunk.port(name)
        if point is None:
            raise InputError("/loads/port", name, Said("ankle, hip-crease or a port of the trunk"))
        return point

    attach(motion, lift.loads, place, lowering=lift.lowering)
    heel = ankle - np.array([0.0, HEEL_M])[:, None, None]
    motion.close(lambda moved: _shoulders_and_heels(moved, shoulder, heel))
    beside = spread(flat(HANDS_AHEAD * body.arm_m, 0.03), (2, *shape))
    motion.points |= {"shoulder": shoulder, "heel": heel, "hand": beside}
    motion.angles |= {
        "knee": bend,
        "hip": hip_bend,
        "ankle": motion.full(np.zeros((1, 1))),
    }
    motion.assumptions += [
        Said(
            "Quasi-static and in the side view; the shoulder blades keep their place on the floor."
        ),
        Said(
            "Heels slide or roll freely: what rubs there is left out; it asks a little more "
            "going in."
        ),
    ]
    return motion


def _angle(one: Array | float, other: Array | float, across: Array | float) -> Array:
    """Return the angle (rad) between two sides of a triangle, across from the third."""
    cosine = (np.square(one) + np.square(other) - np.square(across)) / (2.0 * one * other)
    return np.asarray(np.arccos(np.clip(cosine, -1.0, 1.0)))


def _free_leg(motion: Motion, lift: Lift, hip: Array, along: Array) -> None:
    """Add a free leg, held straight in line with the trunk."""
    body = lift.body
    for name, mass, far in (
        ("free_thigh", s.M_THIGH, s.COM_THIGH * body.thigh_m),
        ("free_shank", s.M_SHANK, body.thigh_m + s.COM_SHANK * body.shank_m),
        ("free_foot", s.M_FOOT, body.thigh_m + body.shank_m),
    ):
        motion.add_segment(name, mass * body.mass_kg, hip + far * along)
    motion.assumptions.append(Said("The free leg is held straight, in line with the trunk."))


def _shoulders_and_heels(motion: Motion, shoulder: Array, heel: Array) -> None:
    """Add the vertical forces of shoulders and heels; level pulls of loads go to the shoulders."""
    total = motion.total_force()
    moment = motion.moment_about(shoulder)
    heel_y = -moment / (heel[0] - shoulder[0])
    motion.add_force("foot", heel, vec(np.zeros(motion.shape), heel_y), "contact heel")
    motion.add_force("trunk", shoulder, vec(-total[0], -total[1] - heel_y), "contact shoulders")
    motion.fail(
        (heel_y < -1e-6) | (-total[1] - heel_y < -1e-6),
        Said("shoulders or heels would lift: change the place of the load"),
    )
