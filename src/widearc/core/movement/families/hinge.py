"""Hinge: the hips go back, the knees keep their bend.

Closure: knee bend and trunk lean are given; the shank's lean is solved for balance about the
pressure point. The arms' own weight rides with the trunk (one piece). Dumbbells hang under the
shoulder, so the shoulder has no moment. A bar is kept over the pressure point by the arms: its
moment at the shoulder is reported and counted in the audit.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import PORTS, Body
from widearc.core.body import segments as s
from widearc.core.errors import InputError
from widearc.core.geometry import bracketed_root, lean, spread, turning_root, vec
from widearc.core.movement.legs import Foot, add_leg, flat, pressure_m, stand_on
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach, only_weights, pulls
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import ARM_COM, Trunk
from widearc.core.units import DEG, G
from widearc.core.words import Angle, Said

FAMILY = "hinge"

SHANK_RANGE = (-50 * DEG, 60 * DEG)


def solve(lift: Lift) -> Motion:
    """Return the hinge's motion for options `o` (radians, metres) at `position` (1, samples)."""
    body, limits, o, loads = lift.body, lift.limits, lift.o, lift.loads
    trunk_lean = lift.through("trunk")
    shape = lift.shape(trunk_lean)
    legs = int(o["legs"])
    motion = lift.motion(shape, legs=legs)
    pose = _Pose(lift, trunk_lean)
    shank_lean, found = pose.balanced_lean(shape)
    motion.fail(~found, Said("cannot balance over the foot: bend the knees more or lean less"))
    pose.place_at(shank_lean)

    add_leg(motion, body, pose.foot, pose.knee, pose.hip, legs=legs)
    for name, share, com in pose.upper_body():
        motion.add_segment(name, share * body.mass_kg, com)
    for mass, along in pose.free_leg:
        motion.add_segment("free_thigh", mass, pose.free_point(along))
    attach(motion, loads, pose.port, lowering=lift.lowering)
    stand_on(motion, pose.sole)

    motion.points |= {
        "shoulder": pose.trunk.shoulder,
        "pressure": motion.full(pose.sole),
        "hand": pose.hand,
    }
    bend = motion.full(o["knee"])
    arm = pose.hand - pose.trunk.shoulder
    motion.angles |= {
        "knee": bend,
        "hip": bend - shank_lean + motion.full(trunk_lean),
        "ankle": shank_lean,
        # the arm's swing forward of the trunk's line
        "shoulder": np.arctan2(arm[0], -arm[1]) + motion.full(trunk_lean),
    }
    if legs == 1:
        motion.angles["free_hip"] = motion.full(o["free_leg"])
    motion.marks |= {"bar_x": pose.hand[0], "trunk_lean": motion.full(trunk_lean)}
    motion.fail(
        shank_lean > limits.dorsiflexion + 1e-9,
        Said("ankle limit {angle} passed", angle=Angle.of_deg(limits.dorsiflexion_deg)),
    )
    motion.assumptions += [
        Said("Quasi-static and in the side view; knee bend kept, the shank leans as balance asks."),
        Said("The bar is kept over the pressure point.")
        if o["hold"] == "bar"
        else Said("The weights hang under the shoulders."),
    ]
    return motion


class _Pose:
    """The body at a trial lean of the shank, and the balance that decides it."""

    def __init__(self, lift: Lift, trunk_lean: Array) -> None:
        body, o = lift.body, lift.o
        self.body, self.o, self.loads, self.lowering = body, o, lift.loads, lift.lowering
        self.trunk_lean = trunk_lean
        self.bar, self.one_piece = o["hold"] == "bar", lift.exercise.one_piece
        height = o["box"] + o["deficit"] + body.ankle_height_m
        across, down = (
            vec(np.ones((1, 1)), np.zeros((1, 1))),
            vec(np.zeros((1, 1)), -np.ones((1, 1))),
        )
        self.foot = Foot(body, flat(0.0, height), across, down)
        self.sole = self.foot.sole(pressure_m(body, o["pressure"]))
        self.legs = int(o["legs"])
        self.free_leg = _free_leg(body) if self.legs == 1 else []

    def place_at(self, shank_lean: Array) -> None:
        """Put knee, hip, trunk, hands and arms where this lean of the shank (rad) puts them."""
        body = self.body
        bend = np.atleast_2d(self.o["knee"])
        self.knee = self.foot.ankle + body.shank_m * lean(shank_lean)
        self.hip = self.knee + body.thigh_m * lean(shank_lean - bend)
        self.trunk = Trunk(body=body, hip=self.hip, lean=self.trunk_lean)
        shoulder = self.trunk.shoulder
        if self.bar:
            ahead_m = self.sole[0] - shoulder[0]
            drop = np.sqrt(np.maximum(body.arm_m**2 - ahead_m**2, 0.0))
            self.hand = shoulder + vec(ahead_m, -drop)
        else:
            self.hand = shoulder - flat(0.0, body.arm_m)
        self.arm_com = shoulder + ARM_COM * (self.hand - shoulder)

    def upper_body(self) -> list[tuple[str, float, Array]]:
        """Return (segment, share of body mass, centre of mass m): in one piece, or with the arms as
        they hang.
        """
        trunk_m = self.body.trunk_m
        if self.one_piece:
            return [("trunk", s.M_ONE_PIECE, self.trunk.place(s.COM_ONE_PIECE * trunk_m))]
        return [
            ("trunk", s.M_TRUNK, self.trunk.place(s.COM_TRUNK * trunk_m)),
            ("arms", 2 * s.M_ARM, self.arm_com),
        ]

    def port(self, name: str) -> Array:
        """Return a port's point, m."""
        if PORTS[name].segment == "arms":
            return np.asarray(self.hand)
        point = self.trunk.port(name, self.o["belt_offset"])
        if point is None and name == "sole":
            point = spread(self.sole, self.hip.shape)
        if point is None:
            raise InputError("/loads/port", name, Said("a port that a hinge has"))
        return point

    def free_point(self, along: float) -> Array:
        """Return a point of the straight free leg, `along` it from the hip (m), at its hip
        angle.
        """
        turn = self.trunk_lean - self.o["free_leg"]
        return np.asarray(self.hip - along * lean(turn))

    def moment(self, shank_lean: Array) -> Array:
        """Return the moment of everything about the pressure point, N·m anticlockwise."""
        self.place_at(shank_lean)
        body = self.body
        parts = [
            (self.legs * s.M_SHANK, self.knee + s.COM_SHANK * (self.foot.ankle - self.knee)),
            (self.legs * s.M_THIGH, self.hip + s.COM_THIGH * (self.knee - self.hip)),
            *((share, com) for _, share, com in self.upper_body()),
            (self.legs * s.M_FOOT, self.foot.com),
            *((mass / body.mass_kg, self.free_point(along)) for mass, along in self.free_leg),
        ]
        total: Array = np.zeros((1, 1))
        for share, com in parts:
            total = total - share * body.mass_kg * G * (com[0] - self.sole[0])
        return np.asarray(
            total + pulls(self.loads, self.port, self.sole, lowering=self.lowering)[0]
        )

    def balanced_lean(self, shape: tuple[int, ...]) -> tuple[Array, BoolArray]:
        """Return the shank's lean (rad) that balances, and where there is one.

        Closed form A sin α + B cos α + C = 0 for weights; with pulls that turn it starts a root
        search.
        """
        at_0, at_90, at_180 = (self.moment(np.full((1, 1), turn * np.pi / 2)) for turn in (0, 1, 2))
        start = spread(turning_root(at_0, at_90, at_180)[0], shape)
        low, high = (np.full(shape, edge) for edge in SHANK_RANGE)
        if only_weights(self.loads):
            found = (np.abs(self.moment(start)) < 1e-6) & (start >= low) & (start <= high)
            return np.where(found, start, np.nan), found
        return bracketed_root(self.moment, low, high, start)


def _free_leg(body: Body) -> list[tuple[float, float]]:
    """Return (mass kg, distance from the hip m) of the straight free leg's parts."""
    return [
        (s.M_THIGH * body.mass_kg, s.COM_THIGH * body.thigh_m),
        (s.M_SHANK * body.mass_kg, body.thigh_m + s.COM_SHANK * body.shank_m),
        (s.M_FOOT * body.mass_kg, body.thigh_m + body.shank_m + body.ankle_height_m / 2),
    ]
