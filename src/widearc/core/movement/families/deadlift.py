"""Deadlifts: from the floor, the knees open as the weight rises.

Closure: knee bend falls linearly with the weight's height. A bar is kept over the pressure point,
so the arms lead the trunk to it; weights at the sides hang under the shoulders. The shank's lean is
solved for balance of the whole about the pressure point. The arms' own weight rides with the trunk.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import segments as s
from widearc.core.errors import InputError
from widearc.core.geometry import bracketed_root, lean, spread, vec
from widearc.core.movement.families.stance import leg_plane_cosine, turned
from widearc.core.movement.legs import Foot, add_leg, flat, pressure_m, stand_on
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach, pulls
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import Trunk
from widearc.core.units import DEG, G
from widearc.core.words import Angle, Said

FAMILY = "hinge"
VARIANTS = ("deadlift",)

SHANK_RANGE = (-25 * DEG, 50 * DEG)


def solve(lift: Lift) -> Motion:
    """Return the deadlift's motion for options `o` (radians, metres) at `position` (1, samples)."""
    body, limits, o, loads, position = lift.body, lift.limits, lift.o, lift.loads, lift.position
    bend = lift.through("knee")
    cos_turn = leg_plane_cosine(body, o["stance"])
    shape = lift.shape(bend)
    motion = lift.motion(shape, legs=2, plane_cos=cos_turn)
    pose = _Pose(lift, spread(bend, shape), cos_turn)
    pose.lift_between(position)
    low, high = (np.full(shape, edge) for edge in SHANK_RANGE)
    shank_lean, found = bracketed_root(pose.moment, low, high, np.full(shape, 0.1))
    motion.fail(
        ~found,
        Said(
            "cannot balance with the weight at this height: bend the knees more or raise the weight"
        ),
    )
    pose.place_at(shank_lean)
    motion.fail(
        ~pose.reached,
        Said("the hands cannot reach the weight: bend the knees more or raise the weight"),
    )
    add_leg(motion, body, pose.foot, pose.knee, pose.hip, legs=2)
    motion.add_segment(
        "trunk", s.M_ONE_PIECE * body.mass_kg, pose.trunk.place(s.COM_ONE_PIECE * body.trunk_m)
    )
    attach(motion, loads, pose.port, lowering=lift.lowering)
    stand_on(motion, spread(pose.sole, (2, *shape)))
    arm = pose.hand - pose.trunk.shoulder
    motion.points |= {
        "shoulder": pose.trunk.shoulder,
        "pressure": motion.full(pose.sole),
        "hand": motion.full(pose.hand),
    }
    trunk_lean = motion.full(pose.trunk_lean)
    motion.angles |= {
        "knee": motion.full(pose.bend),
        "hip": motion.full(pose.bend - shank_lean + trunk_lean * cos_turn),
        "ankle": motion.full(shank_lean),
        "shoulder": np.arctan2(arm[0], -arm[1]) + trunk_lean,
    }
    motion.marks |= {"trunk_lean": trunk_lean, "shank_lean": motion.full(shank_lean)}
    motion.fail(
        motion.full(shank_lean) > limits.dorsiflexion + 1e-9,
        Said("ankle limit {angle} passed", angle=Angle.of_deg(limits.dorsiflexion_deg)),
    )
    motion.assumptions += [
        Said("Quasi-static and in the side view; knee bend falls evenly as the weight rises."),
        Said("The bar is kept over the pressure point.")
        if pose.bar
        else Said("The weights hang under the shoulders."),
    ]
    return motion


class _Pose:
    """The body at a trial lean of the shank, with the hands at a given height."""

    def __init__(self, lift: Lift, bend: Array, cos_turn: Array) -> None:
        body, o = lift.body, lift.o
        self.body, self.o, self.loads, self.lowering = body, o, lift.loads, lift.lowering
        self.bend = bend
        self.bar, self.turn = o["hold"] == "bar", turned(cos_turn)
        height = o["box"] + body.ankle_height_m
        across, down = (
            vec(np.ones((1, 1)), np.zeros((1, 1))),
            vec(np.zeros((1, 1)), -np.ones((1, 1))),
        )
        self.foot = Foot(body, flat(0.0, height), across, down)
        self.sole = self.foot.sole(pressure_m(body, o["pressure"]) * cos_turn)
        self.hand_y: Array = np.zeros((1, 1))
        self.standing: Array | None = None

    def lift_between(self, position: Array) -> None:
        """Set the hands' height (m) along the lift: from the weight on its floor to where it hangs,
        standing.

        The last posture is balanced with the trunk's lean given; its hands' height ends the lift.
        """
        start = (
            np.atleast_2d(self.o["bar"])
            + np.atleast_2d(self.o["box"])
            - np.atleast_2d(self.o["deficit"])
        )
        self.standing = spread(np.atleast_2d(self.o["trunk_to"]), self.bend[:, -1:].shape)
        whole, self.bend = self.bend, self.bend[:, -1:]
        low, high = (np.full(self.bend.shape, edge) for edge in SHANK_RANGE)
        last, found = bracketed_root(self.moment, low, high, np.full(self.bend.shape, 0.1))
        self.place_at(np.where(found, last, 0.1))
        # a millimetre short: there trunk and arms stand almost in one line, and their lean is read
        # sharply
        end = self.hand[1] - 0.001
        self.bend, self.standing = whole, None
        self.hand_y = start + (end - start) * position

    def place_at(self, shank_lean: Array) -> None:
        """Put knee, hip, trunk and hands where this lean of the shank (rad) puts them."""
        body = self.body
        self.knee = self.foot.ankle + body.shank_m * lean(shank_lean) * self.turn
        self.hip = self.knee + body.thigh_m * lean(shank_lean - self.bend) * self.turn
        if self.standing is not None:
            self.trunk_lean, self.reached = self.standing, np.ones(self.bend.shape, dtype=bool)
        elif self.bar:
            self.trunk_lean, self.reached = self._over_the_foot()
        else:
            cosine = (self.hand_y + body.arm_m - self.hip[1]) / body.trunk_m
            self.reached = np.abs(cosine) <= 1.0 + 1e-6
            self.trunk_lean = np.arccos(np.clip(cosine, -1.0, 1.0))
        self.trunk = Trunk(body=body, hip=self.hip, lean=self.trunk_lean)
        shoulder = self.trunk.shoulder
        if not self.bar:
            self.hand = shoulder - flat(0.0, body.arm_m)
        elif self.standing is not None:
            ahead_m = self.sole[0] - shoulder[0]
            self.hand = shoulder + vec(
                ahead_m, -np.sqrt(np.maximum(body.arm_m**2 - ahead_m**2, 0.01))
            )
        else:
            self.hand = vec(self.sole[0], spread(self.hand_y, shoulder.shape[1:]))

    def _over_the_foot(self) -> tuple[Array, Array]:
        """Return the trunk's lean (rad) at which the arms reach a bar over the pressure point, and
        where they do.
        """
        body = self.body
        gap = vec(self.sole[0], self.hand_y) - self.hip
        far = np.hypot(gap[0], gap[1])
        cosine = (far**2 + body.trunk_m**2 - body.arm_m**2) / (2.0 * far * body.trunk_m)
        # lean of the line hip to hand, less the triangle's angle at the hip: the shoulder lies
        # above the line
        # (a hand just behind a hip above it is half a turn and a little more, not almost a whole
        # turn back)
        line = np.mod(np.arctan2(gap[0], gap[1]), 2.0 * np.pi)
        return line - np.arccos(np.clip(cosine, -1.0, 1.0)), np.abs(cosine) <= 1.0 + 1e-6

    def port(self, name: str) -> Array:
        """Return a port's point, m."""
        if name in ("hands", "hand-left", "hand-right"):
            return np.asarray(self.hand)
        point = self.trunk.port(name, self.o["belt_offset"])
        if point is None and name == "sole":
            point = spread(self.sole, self.hip.shape)
        if point is None:
            raise InputError("/loads/port", name, Said("a port that a deadlift has"))
        return point

    def moment(self, shank_lean: Array) -> Array:
        """Return the moment of everything about the pressure point, N·m anticlockwise."""
        self.place_at(shank_lean)
        body = self.body
        parts = (
            (2 * s.M_FOOT, self.foot.com),
            (2 * s.M_SHANK, self.knee + s.COM_SHANK * (self.foot.ankle - self.knee)),
            (2 * s.M_THIGH, self.hip + s.COM_THIGH * (self.knee - self.hip)),
            (s.M_ONE_PIECE, self.trunk.place(s.COM_ONE_PIECE * body.trunk_m)),
        )
        total: Array = np.zeros((1, 1))
        for share, com in parts:
            total = total - share * body.mass_kg * G * (com[0] - self.sole[0])
        return np.asarray(
            total + pulls(self.loads, self.port, self.sole, lowering=self.lowering)[0]
        )
