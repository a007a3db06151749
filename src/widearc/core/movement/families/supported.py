"""Supported stance: a ball at a wall, a bar on rails, or a held handle takes a part of the balance.

Closure: the support fixes a path, so that trunk lean (given) and knee bend place the body: a ball
lets its contact climb the back by half the drop; a bar stays on its line and the shank's lean
follows; with a held handle lean and knee travel are given. The support pushes square to its path (a
handle: level, at the shoulder), as much as moments about the pressure point ask; the feet carry the
rest.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Limits
from widearc.core.errors import InputError
from widearc.core.exercises import Options
from widearc.core.geometry import cross, lean, spread, third_side, vec
from widearc.core.movement.families.stance import FIRST_LEAN, WEDGE_SPAN, foot_on
from widearc.core.movement.legs import add_leg, pressure_m
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.words import Angle, Said

FAMILY = "supported stance"


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians, metres) at `position` (1, samples).

    exercise.variant: "ball", "rail", "rail hinge" or "handle".
    """
    body, limits, o, loads, position = lift.body, lift.limits, lift.o, lift.loads, lift.position
    pose = _Pose(lift)
    motion = Motion(position=position.ravel(), shape=pose.shape, legs=2)
    add_leg(motion, body, pose.foot, pose.knee, pose.hip, legs=2)
    trunk = Trunk(body=body, hip=pose.hip, lean=pose.trunk_lean)
    add_upper_body(motion, trunk, one_piece=lift.exercise.one_piece)
    sole = spread(pose.foot.sole(pressure_m(body, o["pressure"])), (2, *pose.shape))
    places = {"sole": sole, "thigh": pose.hip + 0.9 * (pose.knee - pose.hip)}

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        point = places.get(name)
        point = trunk.port(name, o["belt_offset"]) if point is None else point
        if point is None:
            raise InputError("/loads/port", name, Said("a port that a supported squat has"))
        return point

    attach(motion, loads, place, lowering=lift.lowering)
    if lift.exercise.variant == "ball" and np.ptp(pose.trunk_lean, axis=1).any():
        pose.square = pose.square_to_the_ball(_Pose(lift.with_(position=position + A_STEP)))
    contact = spread(pose.contact(trunk), (2, *pose.shape))
    square = spread(pose.square, (2, *pose.shape))
    motion.close(
        lambda moved: _support(
            moved, contact, square, sole, works=lift.exercise.variant == "handle"
        )
    )
    motion.fail(
        ~pose.reached,
        Said("the support cannot be reached at this knee bend: move the feet or the support"),
    )
    ankle = pose.shank_lean - pose.wedge
    motion.fail(
        motion.full(ankle) > limits.dorsiflexion + 1e-9,
        Said("ankle limit {angle} passed", angle=Angle.of_deg(limits.dorsiflexion_deg)),
    )
    motion.points |= {"shoulder": trunk.shoulder, "pressure": sole, "support": contact}
    motion.angles |= {
        "knee": motion.full(pose.bend),
        "hip": motion.full(pose.bend - pose.shank_lean + pose.trunk_lean),
        "ankle": motion.full(ankle),
    }
    if not lift.exercise.one_piece:
        motion.angles["shoulder"] = motion.full(pose.trunk_lean)
    motion.marks |= {
        "trunk_lean": motion.full(pose.trunk_lean),
        "shank_lean": motion.full(pose.shank_lean),
    }
    motion.assumptions += [
        Said(
            "Quasi-static and in the side view; feet flat, trunk lean as given, from start to end."
        ),
        _WORDS[lift.exercise.variant],
    ]
    pushes = motion.marks["support_n"]
    if lift.exercise.variant != "handle":
        wrong = (
            np.any(pushes < -1e-6, axis=1)
            if lift.exercise.variant == "ball"
            else np.zeros(pose.shape[0], dtype=bool)
        )
        motion.notice(
            "support-unloaded",
            Said("the back would leave the ball in part of the range: feet further ahead"),
            wrong,
        )
    return motion


_WORDS = {
    "ball": Said(
        "The ball rolls: its contact climbs the back by half the drop and pushes square to the "
        "path."
    ),
    "rail": Said("The bar stays on its rails, which push square to themselves."),
    "rail hinge": Said(
        "The bar stays on its rails, which push square to themselves; the knees keep their bend."
    ),
    "handle": Said(
        "The hands hold a post or handle: a level force at the height of the shoulders keeps the "
        "balance."
    ),
}


class _Pose:
    """Foot, knee, hip and lean at every sample."""

    def __init__(self, lift: Lift) -> None:
        body, limits, o, position = lift.body, lift.limits, lift.o, lift.position
        self.variant, self.body = lift.exercise.variant, body
        self.wedge = np.atleast_2d(
            np.arcsin(np.clip(o["heel_wedge"] / (WEDGE_SPAN * body.foot_m), 0.0, 1.0))
        )
        self.foot = foot_on(body, o, self.wedge)
        if self.variant == "rail hinge":
            bend = np.atleast_2d(o["knee"] + 0.0 * position)
            lean_by = lift.through("trunk")
        else:
            bend, lean_by = lift.through("knee"), _leaning(o, position)
        self.shape = shape = lift.shape(bend, lean_by)
        self.bend, self.trunk_lean = spread(bend, shape), spread(lean_by, shape)
        self.reach = third_side(body.thigh_m, body.shank_m, self.bend)
        self.reached = np.ones(shape, dtype=bool)
        if self.variant == "handle":
            self._with_handle(o, limits)
        else:
            self._on_path(*self._path(o))

    def _with_handle(self, o: Options, limits: Limits) -> None:
        self.shank_lean = np.minimum(
            FIRST_LEAN + o["knee_travel"] * self.bend, limits.dorsiflexion + self.wedge
        )
        self.knee = self.foot.ankle + self.body.shank_m * lean(self.shank_lean)
        self.hip = self.knee + self.body.thigh_m * lean(self.shank_lean - self.bend)
        self.square = vec(np.ones((1, 1)), np.zeros((1, 1)))

    def _path(self, o: Options) -> tuple[Array, Array]:
        """Return the hip's path x = a + b·y as (a, b), m over the room's x and the height over the
        ankle.
        """
        behind = -np.atleast_2d(o["foot_ahead"])
        height = np.atleast_2d(o["support"]) + np.atleast_2d(o["box"])
        ankle_y = self.foot.ankle[1]
        if self.variant == "ball":
            # straight: the back meets the ball at `support`; x_hip = behind - tan·(support - y)
            tan = np.tan(_leaning(o, np.ones((1, 1))))
            straight = third_side(self.body.thigh_m, self.body.shank_m, np.atleast_2d(o["knee_to"]))
            last = self._height_on(behind - tan * (height - ankle_y), tan, straight)
            self.climb = (height, last + ankle_y)
            tan = np.tan(self.trunk_lean)
            return behind - tan * (height - 0.5 * (last + ankle_y) - 0.5 * ankle_y), 0.5 * tan
        port = Trunk(body=self.body, hip=np.zeros((2, *self.shape)), lean=self.trunk_lean).port(
            "back-high"
        )
        assert port is not None
        slope = np.tan(np.atleast_2d(o["rail_tilt"]))
        # the bar's line passes `foot_ahead` behind the ankle at the height of the support
        return behind + slope * (ankle_y + port[1] - height) - port[0], spread(slope, self.shape)

    def square_to_the_ball(self, ahead: _Pose) -> Array:
        """Return the way square to how the back's point at the ball moves, where the trunk turns as
        it rises; ahead: the pose a step later.
        """
        hip = (ahead.hip - self.hip) / A_STEP
        turns = (ahead.trunk_lean - self.trunk_lean) / A_STEP
        trunk = Trunk(body=self.body, hip=self.hip, lean=self.trunk_lean)
        arm = self.contact(trunk) - self.hip
        moves = hip + turns * vec(arm[1], -arm[0])
        return np.asarray(vec(moves[1], -moves[0]) / np.hypot(moves[0], moves[1]))

    def _height_on(self, a: Array, b: Array, reach: Array) -> Array:
        """Return the hip's height over the ankle (m) where the leg's reach meets x = a + b·y."""
        discriminant = (a * b) ** 2 - (1.0 + b**2) * (a**2 - reach**2)
        self.reached = self.reached & (discriminant >= 0)
        return np.asarray((-a * b + np.sqrt(np.maximum(discriminant, 0.0))) / (1.0 + b**2))

    def _on_path(self, a: Array, b: Array) -> None:
        up = self._height_on(a, b, self.reach)
        self.hip = self.foot.ankle + vec(a + b * up, up)
        line = np.arctan2(a + b * up, up)
        bend = self.bend
        at_ankle = np.arctan2(
            self.body.thigh_m * np.sin(bend), self.body.shank_m + self.body.thigh_m * np.cos(bend)
        )
        self.shank_lean = line + at_ankle
        self.knee = self.foot.ankle + self.body.shank_m * lean(self.shank_lean)
        turn = np.arctan(b)
        self.square = vec(np.cos(turn), -np.sin(turn))

    def contact(self, trunk: Trunk) -> Array:
        """Return where the support pushes, m."""
        if self.variant == "handle":
            return trunk.shoulder
        if self.variant == "ball":
            height, last = self.climb
            at = height - 0.5 * (last - trunk.hip[1])
            return trunk.hip + vec(np.tan(self.trunk_lean) * (at - trunk.hip[1]), at - trunk.hip[1])
        port = trunk.port("back-high")
        assert port is not None
        return port


A_STEP = 1e-5  # of the lift: to see how a point moves


def _leaning(o: Options, position: Array) -> Array:
    """Return the trunk's lean (rad) at places of the lift."""
    first, last = o["trunk_lean"], o["trunk_lean_to"]
    if isinstance(last, str):  # the same
        return np.atleast_2d(first)
    return np.atleast_2d(first + (last - first) * position)


def _support(motion: Motion, contact: Array, square: Array, sole: Array, *, works: bool) -> None:
    """Add the support's push along `square` and the feet's force; mark the push, N."""
    push = -motion.moment_about(sole) / cross(contact - sole, square)
    motion.add_force("trunk", contact, push * square, "contact support", works=works)
    motion.add_force("foot", sole, -motion.total_force(), "contact foot")
    motion.marks["support_n"] = push
