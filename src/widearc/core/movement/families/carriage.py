"""Sliding carriage on springs: standing, one foot moves with it.

Closure: the moving foot rides level at the other foot's height and carries a given share of the
weight; the standing leg's knee bend runs evenly between two given values, the trunk keeps its lean,
and the hip's place is solved for balance. The moving foot bears the springs' force, the standing
foot its opposite.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import segments as s
from widearc.core.errors import InputError
from widearc.core.geometry import bracketed_root, lean, spread, third_side, vec
from widearc.core.movement.families.carriage_ride import (
    Ride,
    at_ankle,
    finish,
    flat_foot,
    leg_between,
    ride_of,
)
from widearc.core.movement.legs import add_leg, flat
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach, pulls
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import Trunk, add_upper_body, upper_body_terms
from widearc.core.units import DEG, G
from widearc.core.words import Said

FAMILY = "carriage"
VARIANTS = ("out", "home", "back")


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians, metres) at `position` (1, samples)."""
    ride = ride_of(lift, -1.0)
    return finish(_standing(ride), ride, lift.limits)


class _Stance:
    """Both legs and the trunk, with the hip over the standing foot at a trial lean of the line to
    it.
    """

    def __init__(self, ride: Ride) -> None:
        body, o, shape = ride.body, ride.o, ride.shape
        self.ride, self.body = ride, body
        self.share = spread(np.atleast_2d(o["weight_share"]), shape)
        self.other_ankle = spread(flat(0.0, body.ankle_height_m), (2, *shape))
        self.ankle = np.stack((ride.foot_x, np.full(shape, body.ankle_height_m)))
        self.feet = flat_foot(body, self.ankle), flat_foot(body, self.other_ankle)
        mid = body.sole_m(s.MID)
        self.pressure, self.other_pressure = (foot.sole(mid) for foot in self.feet)
        self.other_bend = np.atleast_2d(
            o["other_knee_from"] + (o["other_knee_to"] - o["other_knee_from"]) * ride.position
        )
        self.reach = third_side(body.thigh_m, body.shank_m, self.other_bend)
        self.other_turn = at_ankle(body, self.other_bend)
        self.trunk_lean = spread(np.atleast_2d(o["trunk_lean"]), shape)

    def place_at(self, leg_lean: Array) -> None:
        """Put knees, hip and trunk where this lean (rad) puts them."""
        body = self.body
        self.hip = self.other_ankle + self.reach * lean(leg_lean)
        self.knee, self.bend, self.shank, self.reached = leg_between(body, self.hip, self.ankle)
        self.other_shank = leg_lean + self.other_turn
        self.other_knee = self.other_ankle + body.shank_m * lean(self.other_shank)
        self.trunk = Trunk(body=body, hip=self.hip, lean=self.trunk_lean)

    def port(self, name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        point = self.trunk.port(name, self.ride.o["belt_offset"])
        if point is None:
            raise InputError(
                "/loads/port", name, Said("carriage, or a port of the trunk, hands or belt")
            )
        return point

    def moment(self, leg_lean: Array) -> Array:
        """Return the moment of everything about the standing foot, the carriage's lift included,
        N·m anticlockwise.
        """
        self.place_at(leg_lean)
        body, about = self.body, self.other_pressure
        parts = [
            (s.M_SHANK, self.knee + s.COM_SHANK * (self.ankle - self.knee)),
            (s.M_THIGH, self.hip + s.COM_THIGH * (self.knee - self.hip)),
            (s.M_SHANK, self.other_knee + s.COM_SHANK * (self.other_ankle - self.other_knee)),
            (s.M_THIGH, self.hip + s.COM_THIGH * (self.other_knee - self.hip)),
            *((s.M_FOOT, foot.com) for foot in self.feet),
            *(
                (mass / body.mass_kg, self.trunk.place(along))
                for mass, along in upper_body_terms(body, one_piece=self.ride.exercise.one_piece)
            ),
        ]
        total: Array = np.zeros((1, 1))
        down = 0.0
        for share, com in parts:
            total = total - share * body.mass_kg * G * (com[0] - about[0])
            down += share * body.mass_kg * G
        pulled, up = pulls(self.ride.at_body, self.port, about, lowering=self.ride.lowering)
        carried = self.share * (down - up)
        return np.asarray(total + pulled + (self.pressure[0] - about[0]) * carried)

    def motion(self) -> Motion:
        """Return the motion of the posture placed last, without contacts."""
        body, ride = self.body, self.ride
        motion = Motion(position=ride.position.ravel(), shape=ride.shape, legs=1)
        add_leg(motion, body, self.feet[0], self.knee, self.hip)
        add_leg(motion, body, self.feet[1], self.other_knee, self.hip, prefix="other_")
        add_upper_body(motion, self.trunk, one_piece=ride.exercise.one_piece)
        attach(motion, ride.loads, self.port, lowering=ride.lowering, handled=ride.on_carriage)
        motion.points |= {
            "shoulder": self.trunk.shoulder,
            "pressure": self.pressure,
            "other_pressure": self.other_pressure,
        }
        motion.angles |= {
            "knee": motion.full(self.bend),
            "hip": motion.full(self.bend - self.shank + self.trunk_lean),
            "ankle": motion.full(self.shank),
            "other_knee": motion.full(self.other_bend),
            "other_hip": motion.full(self.other_bend - self.other_shank + self.trunk_lean),
            "other_ankle": motion.full(self.other_shank),
        }
        motion.fail(
            ~self.reached,
            Said("the moving leg cannot reach: less travel, or bend the standing leg more"),
        )
        return motion


def _standing(ride: Ride) -> Motion:
    stance, shape = _Stance(ride), ride.shape
    low, high = np.full(shape, -50 * DEG), np.full(shape, 50 * DEG)
    leg_lean, found = bracketed_root(stance.moment, low, high)
    stance.place_at(np.where(found, leg_lean, 0.0))
    motion = stance.motion()
    motion.fail(
        ~found,
        Said("cannot balance between the feet with this share of the weight on the carriage"),
    )
    level = ride.push_on_foot(motion, -stance.share * motion.total_force()[1])

    def closure(moved: Motion) -> None:
        """Add the contacts that balance what acts on the body."""
        force = -moved.total_force()
        speeding: Array = sum((by for inertia, by in moved.speeding), np.zeros(moved.shape))
        carried = vec(level - speeding, stance.share * force[1])
        moved.add_force("foot", moved.points["pressure"], carried, "contact carriage", works=False)
        if moved.dynamic:
            moved.couples.append(
                ("other_foot", -moved.moment_about(moved.points["other_pressure"]), "contact foot")
            )
        moved.add_force(
            "other_foot", moved.points["other_pressure"], -moved.total_force(), "contact foot"
        )

    motion.close(closure)
    motion.marks["trunk_lean"] = stance.trunk_lean
    motion.assumptions += [
        Said(
            "Quasi-static and in the side view; the moving foot carries a given share of the "
            "weight."
        ),
        Said(
            "The standing leg's knee bend runs evenly, the trunk keeps its lean; the hip "
            "goes where balance asks."
        ),
    ]
    return motion
