"""Split squat: both feet stay, the hip moves on a vertical line between them.

Closure: the front knee's bend is given, the hip keeps `hip_back` × step behind the front ankle and
the front shank follows; the rear foot keeps a pitch of 60° (ankle above the ball), so its toes do
not move; the trunk's lean is given and the two feet's vertical shares are solved from balance. The
feet push apart as costs the least effort (`pair.py`; option). The rear force acts at the ball. The
working leg is the front one.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body
from widearc.core.body import segments as s
from widearc.core.errors import InputError
from widearc.core.exercises import Options
from widearc.core.geometry import ahead, flexion_for, lean, spread, third_side, vec
from widearc.core.movement.effort import Push
from widearc.core.movement.legs import Foot, add_leg, flat, pressure_m
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach
from widearc.core.movement.motion import Motion
from widearc.core.movement.pair import LEG, PAIR_SAYS, REAR_LEG, pair_n, refuse_broken
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.units import DEG
from widearc.core.words import Angle, Said

FAMILY = "split"

REAR_PITCH = 60 * DEG


def solve(lift: Lift) -> Motion:
    """Return the split squat's motion for options `o` (radians, metres) at `position` (1,
    samples).
    """
    body, limits, o, loads = lift.body, lift.limits, lift.o, lift.loads
    knee_bend = lift.through("knee")
    shape = lift.shape(knee_bend)
    motion = lift.motion(shape, legs=1)
    ankle, knee, hip, shank_lean = _front_leg(body, o, knee_bend, motion.shape)
    front = Foot(
        body, ankle, vec(np.ones((1, 1)), np.zeros((1, 1))), vec(np.zeros((1, 1)), -np.ones((1, 1)))
    )
    add_leg(motion, body, front, knee, hip)

    rear, rear_knee, rear_bend, rear_lean = _rear_leg(body, o, hip, np.atleast_2d(o["step"]))
    add_leg(motion, body, rear, rear_knee, hip, prefix="rear_")
    motion.fail(~np.isfinite(hip[1]), Said("the front leg cannot reach: shorten the step"))
    motion.fail(
        ~np.isfinite(motion.full(rear_bend)),
        Said("the rear leg cannot reach: shorten the step or lower the rear foot"),
    )
    motion.fail(
        motion.full(shank_lean) > limits.dorsiflexion + 1e-9,
        Said(
            "ankle limit {angle} passed by the front ankle; lengthen the step or reduce depth",
            angle=Angle.of_deg(limits.dorsiflexion_deg),
        ),
    )

    trunk_lean = spread(np.atleast_2d(o["trunk_lean"]), shape)
    trunk = Trunk(body=body, hip=hip, lean=trunk_lean)
    add_upper_body(motion, trunk, one_piece=lift.exercise.one_piece)
    sole = spread(front.sole(pressure_m(body, o["pressure"])), (2, *shape))
    ball = spread(rear.sole(body.sole_m(s.BALL)), (2, *shape))

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        point = trunk.port(name, o["belt_offset"])
        if point is None and name == "sole":
            point = sole
        if point is None:
            raise InputError("/loads/port", name, Said("a port that a split squat has"))
        return point

    attach(motion, loads, place, lowering=lift.lowering)
    motion.points |= {"shoulder": trunk.shoulder, "pressure": sole, "rear_ball": ball}
    hip_bend = knee_bend - shank_lean + trunk_lean
    rear_thigh_back = rear_bend - rear_lean
    motion.angles |= {
        "knee": motion.full(knee_bend),
        "hip": motion.full(hip_bend),
        "ankle": motion.full(shank_lean),
        "rear_knee": motion.full(rear_bend),
        "rear_hip": motion.full(rear_thigh_back + trunk_lean),
        "rear_ankle": motion.full(rear_lean - REAR_PITCH),
    }
    if not lift.exercise.one_piece:
        motion.angles["shoulder"] = motion.full(trunk_lean)
    motion.close(lambda moved: _ground(moved, body, o, sole, ball))
    lowest = np.nanmin(
        np.where(np.isfinite(motion.full(rear_knee[1])), motion.full(rear_knee[1]), 1.0), axis=1
    )
    motion.notice(
        "rear-knee-floor", Said("the rear knee would touch the floor: reduce depth"), lowest < 0.04
    )
    motion.assumptions += [
        Said("Quasi-static and in the side view; the hip moves straight down between the feet."),
        PAIR_SAYS,
    ]
    return motion


def _front_leg(
    body: Body, o: Options, knee_bend: Array, shape: tuple[int, int]
) -> tuple[Array, Array, Array, Array]:
    """Return ankle, knee and hip (m) and the shank's lean (rad); NaN where the leg cannot reach.

    The hip hangs a share of the step behind the ankle, as far over it as the bend leaves.
    """
    reach = third_side(body.thigh_m, body.shank_m, knee_bend)
    hip_x = -np.atleast_2d(o["step"]) * np.atleast_2d(o["hip_back"])
    with np.errstate(invalid="ignore"):
        drop = np.sqrt(np.where(reach**2 >= hip_x**2, reach**2 - hip_x**2, np.nan))
    ankle = flat(0.0, o["box"] + body.ankle_height_m)
    hip = spread(ankle + vec(spread(hip_x, drop.shape), drop), (2, *shape))
    # the hip-ankle line leans back; the knee lies ahead of it
    at_ankle = np.arctan2(
        body.thigh_m * np.sin(knee_bend), body.shank_m + body.thigh_m * np.cos(knee_bend)
    )
    shank_lean = np.arctan2(hip_x, drop) + at_ankle
    knee = ankle + body.shank_m * lean(shank_lean)
    return spread(ankle, (2, *shape)), spread(knee, (2, *shape)), hip, shank_lean


def _rear_leg(body: Body, o: Options, hip: Array, step: Array) -> tuple[Foot, Array, Array, Array]:
    """Return the rear foot, knee (m), knee bend and shank lean (rad); NaN where it cannot reach."""
    towards_toe, down = ahead(np.full((1, 1), REAR_PITCH)), -lean(np.full((1, 1), REAR_PITCH))
    ball = flat(-step, o["rear"])
    ankle = ball - body.sole_m(s.BALL) * towards_toe - body.ankle_height_m * down
    gap = hip - ankle
    distance = np.hypot(gap[0], gap[1])
    bend = flexion_for(body.thigh_m, body.shank_m, distance)
    at_ankle = np.arctan2(body.thigh_m * np.sin(bend), body.shank_m + body.thigh_m * np.cos(bend))
    shank_lean = np.arctan2(gap[0], gap[1]) + at_ankle
    knee = ankle + body.shank_m * lean(shank_lean)
    ankle = spread(ankle, hip.shape)
    return Foot(body, ankle, towards_toe, down), knee, bend, shank_lean


def _ground(motion: Motion, body: Body, o: Options, sole: Array, ball: Array) -> None:
    """Add both feet's forces; mark the front foot's share of the vertical force, and the pair.

    The pair: with it (N) the front foot pushes forward and the rear foot back; the floor holds the
    front foot back and drives the rear one.
    """
    total = motion.total_force()
    span_x, span_y = sole[0] - ball[0], sole[1] - ball[1]
    # about the rear ball: moment of everything + front force = 0
    front_y = (-motion.moment_about(ball) - span_y * total[0]) / span_x
    rear_y, tilt = -total[1] - front_y, motion.full(span_y / span_x)
    one = np.ones(motion.shape)
    front = Push(LEG, sole, vec(-total[0], front_y), vec(-one, -tilt))
    rear = Push(REAR_LEG, ball, vec(0.0 * one, rear_y), vec(one, tilt))
    pair = pair_n(motion, body, o, front, rear)
    refuse_broken(motion, pair, front, rear)
    front_y, rear_y = front_y - tilt * pair, rear_y + tilt * pair
    motion.add_force("foot", sole, front.at(pair), "contact foot")
    motion.add_force("rear_foot", ball, rear.at(pair), "contact rear foot")
    share = np.asarray(front_y / np.where(total[1] == 0, 1.0, -total[1]))
    motion.fail(
        rear_y < -1e-6,
        Said(
            "cannot balance: all weight is ahead of the front foot; lean less or shorten the step"
        ),
    )
    motion.fail(
        front_y < -1e-6, Said("cannot balance: all weight is behind the rear foot; lean forward")
    )
    motion.marks |= {"front_share": share, "pair_n": pair}
