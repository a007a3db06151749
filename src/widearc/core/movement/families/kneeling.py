"""Kneeling: the body stays straight from knee to shoulder and leans about the knees, back or
forward.

Closure: the floor's reaction under the shanks lies where the whole body balances; it must fall
between the toes and the knees, or the lean is refused. Leaning forward the ankles are held: pad and
strap carry vertical forces that balance the body.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body
from widearc.core.body import segments as s
from widearc.core.errors import InputError
from widearc.core.geometry import lean, spread, vec
from widearc.core.movement.families import on_toes
from widearc.core.movement.legs import TOE, Foot, add_leg, flat
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.units import DEG
from widearc.core.words import Said

FAMILY = "kneeling"


def solve(lift: Lift) -> Motion:
    """Return the reverse nordic's motion for options `o` (radians) at `position` (1, samples)."""
    body, o, loads = lift.body, lift.o, lift.loads
    if o["pivot"] == "toe":
        return on_toes.solve(lift)
    forward = lift.exercise.variant == "forward"
    back = lift.through("lean") * (-1.0 if forward else 1.0)
    shape = lift.shape(back)
    motion = lift.motion(shape, legs=2)
    back = spread(back, shape)
    height = body.ankle_height_m
    ankle = spread(flat(0.0, height), (2, *shape))
    knee = spread(flat(body.shank_m, height), (2, *shape))
    hip = knee + body.thigh_m * lean(-back)
    # the foot lies flat behind: toes back, sole up
    foot = Foot(
        body, ankle, vec(-np.ones((1, 1)), np.zeros((1, 1))), vec(np.zeros((1, 1)), np.ones((1, 1)))
    )
    add_leg(motion, body, foot, knee, hip, legs=2)
    trunk = Trunk(body=body, hip=hip, lean=np.asarray(o["hip"] - back))
    add_upper_body(motion, trunk, one_piece=lift.exercise.one_piece)

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        point = trunk.port(name, o["belt_offset"])
        if point is None:
            raise InputError("/loads/port", name, Said("a port that a kneeling exercise has"))
        return point

    attach(motion, loads, place, lowering=lift.lowering)
    if forward:
        motion.close(lambda moved: _held(moved, knee, ankle))
    else:
        motion.close(lambda moved: _floor(moved, body, knee, ankle))
    motion.points |= {"shoulder": trunk.shoulder}
    motion.angles |= {
        "knee": motion.full(back + 90 * DEG),
        "hip": motion.full(o["hip"]),
        "ankle": motion.full(-90 * DEG),
    }
    motion.assumptions += [
        Said("Quasi-static and in the side view; straight from knee to shoulder."),
        Said("Pad under the knees and strap over the ankles carry vertical forces.")
        if forward
        else Said("The floor carries the shanks wherever balance asks."),
    ]
    return motion


def _floor(motion: Motion, body: Body, knee: Array, ankle: Array) -> None:
    """Add the floor's force under the shank, at the point that balances the body."""
    total = motion.total_force()
    moment = motion.moment_about(knee)
    # the floor answers -total at (x, 0): its moment about the knee must cancel the rest
    up = -total[1]
    drop = -knee[1]
    with np.errstate(divide="ignore", invalid="ignore"):
        ahead_of_knee = (-moment + drop * -total[0]) / up
    point = vec(knee[0] + ahead_of_knee, np.zeros(motion.shape))
    toes = ankle[0] - body.sole_m(TOE)
    motion.fail(
        (up <= 0) | (point[0] < toes),
        Said("falls back: the weight passes behind the feet; lean less"),
    )
    motion.fail(
        point[0] > knee[0] + s.ANKLE_HEIGHT * body.stature_m,
        Said("falls forward over the knees; lean back or ease the band"),
    )
    motion.add_force("shank", point, -total, "contact floor")


def _held(motion: Motion, knee: Array, ankle: Array) -> None:
    """Add the pad's force under the knees and the strap's at the ankles; the strap's pull is a
    mark, N.
    """
    total = motion.total_force()
    moment = motion.moment_about(knee)
    span = ankle[0] - knee[0]
    strap = -moment / span
    zero = np.zeros(motion.shape)
    motion.add_force("shank", ankle, vec(zero, strap), "contact strap")
    motion.add_force("shank", knee, vec(-total[0], -total[1] - strap), "contact pad")
    motion.marks["strap_n"] = -strap
