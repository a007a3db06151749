"""Calf raises seated, with a load on the thighs.

Closure: hip and knee have no moment; the force at the ball follows from that. The seat has the
thighs level at the flat foot.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import segments as s
from widearc.core.errors import InputError
from widearc.core.geometry import ahead, bracketed_root, lean, spread, vec
from widearc.core.movement.legs import Foot, add_leg, flat
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.units import DEG
from widearc.core.words import Angle, Said

FAMILY = "calf"
VARIANTS = ("seated",)


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians, metres)."""
    bend = lift.through("ankle")
    shape = lift.shape(bend)
    motion = lift.motion(shape, legs=int(lift.o["legs"]), complete=False)
    bend = spread(bend, shape)
    _seated(motion, lift, bend)
    limit = lift.limits.dorsiflexion_deg
    over = bend > lift.limits.dorsiflexion + 1e-9
    motion.fail(over, Said("ankle limit {angle} passed", angle=Angle.of_deg(limit)))
    return motion


def _seated(motion: Motion, lift: Lift, bend: Array) -> None:
    body, o, loads = lift.body, lift.o, lift.loads
    shape, legs = motion.shape, motion.legs
    ball = flat(body.sole_m(s.BALL), o["step"])
    # at the flat foot the shank leans by what the knee's bend leaves of a right angle, thighs level
    shank_flat = np.atleast_2d(o["knee"]) - 90 * DEG
    knee_flat = flat(0.0, np.atleast_2d(o["step"]) + body.ankle_height_m) + body.shank_m * lean(
        shank_flat
    )
    hip = spread(knee_flat - flat(body.thigh_m, 0.0), (2, *shape))

    def knee_at(pitch: Array) -> tuple[Array, Array]:
        """Return knee and ankle, m, at a pitch of the foot (rad)."""
        ankle = ball - body.sole_m(s.BALL) * ahead(pitch) + body.ankle_height_m * lean(pitch)
        return ankle + body.shank_m * lean(bend + pitch), ankle

    def gap(pitch: Array) -> Array:
        """Return by how much the knee is further from the hip than a thigh, m."""
        knee, _ = knee_at(pitch)
        return np.asarray(np.hypot(*(knee - hip)) - body.thigh_m)

    # the heel rises as the ankle opens: near the branch on which pitch = -bend
    pitch, found = bracketed_root(gap, -bend - 25 * DEG, -bend + 25 * DEG, -bend)
    motion.fail(~found, Said("the seat cannot be reached at this ankle bend"))
    knee, ankle = knee_at(pitch)
    add_leg(motion, body, Foot(body, ankle, ahead(pitch), -lean(pitch)), knee, hip, legs=legs)
    trunk = Trunk(body=body, hip=hip, lean=np.zeros(shape))
    add_upper_body(motion, trunk, one_piece=lift.exercise.one_piece)
    on_thigh = hip + 0.9 * (knee - hip)

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        if name != "thigh":
            raise InputError("/loads/port", name, Said("thigh on a seated calf raise"))
        return on_thigh

    attach(motion, loads, place, lowering=lift.lowering)
    toe_point = spread(ball, (2, *shape))
    motion.close(lambda moved: _ball_force(moved, knee, hip, toe_point))
    thigh_angle = np.arctan2(knee[1] - hip[1], knee[0] - hip[0])
    motion.points |= {"shoulder": trunk.shoulder, "mtp": toe_point}
    motion.angles |= {
        "ankle": bend,
        "knee": motion.full(thigh_angle + 90 * DEG + bend + pitch),
        "hip": motion.full(thigh_angle + 90 * DEG),
        "mtp": motion.full(pitch),
    }
    motion.assumptions += [
        Said(
            "Quasi-static and in the side view; hip and knee bear no moment, the thighs are "
            "level at the flat foot."
        ),
        Said("The floor's force passes through the ball of the foot."),
    ]


def _ball_force(motion: Motion, knee: Array, hip: Array, ball: Array) -> None:
    """Add the force at the ball that leaves no moment at knee and hip."""
    shank_side = _moment(motion, knee, ("foot", "shank"))
    leg_side = _moment(motion, hip, ("foot", "shank", "thigh"))
    a, b = ball - knee, ball - hip
    # a × R = -shank_side, b × R = -leg_side
    determinant = a[0] * b[1] - a[1] * b[0]
    rx = (-shank_side * b[0] + leg_side * a[0]) / determinant
    ry = (-shank_side * b[1] + leg_side * a[1]) / determinant
    motion.add_force("toes", ball, vec(rx, ry), "contact ball")


def _moment(motion: Motion, point: Array, segments: tuple[str, ...]) -> Array:
    total: Array = np.zeros(motion.shape)
    for item in motion.forces:
        if item.segment in segments:
            r = item.point - point
            total = total + r[0] * item.force[1] - r[1] * item.force[0]
    for segment, moment, _ in motion.couples:
        if segment in segments:
            total = total + moment
    return total
