"""Sliding carriage on springs: one foot (or both) moves with it.

Closure, standing: the moving foot rides level at the other foot's height and carries a given share
of the weight; the standing leg's knee bend runs evenly between two given values, the trunk keeps
its lean, and the hip's place is solved for balance. The moving foot bears the springs' force, the
standing foot its opposite. Kneeling or on the hands: the hip is held, the moving foot carries
`weight_share` of the leg's own weight besides the springs. Sideways (x to the side of the moving
leg): both legs straight, the pelvis level, the trunk leans until the given share of the weight
rests on the carriage.
"""

from __future__ import annotations

from functools import partial

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import Body
from widearc.core.body import segments as s
from widearc.core.body.segments import HIP_CENTRE
from widearc.core.equipment import Line, Load, Sled, SpringLoad
from widearc.core.errors import InputError
from widearc.core.geometry import bracketed_root, flexion_for, lean, spread, third_side, vec
from widearc.core.movement.legs import Foot, add_leg, flat
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach, book_pull, pulls
from widearc.core.movement.motion import Inertia, Motion
from widearc.core.movement.trunk import Trunk, add_upper_body, upper_body_terms
from widearc.core.units import DEG, G

FAMILY = "carriage"

HANDS_ON = ("carriage", "sled")


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o`; exercise.variant "out", "home", "back", "side", "kick" or
    "knees".
    """
    limits, o, loads, position = lift.limits, lift.o, lift.loads, lift.position
    shape = lift.shape()
    backward = lift.exercise.variant in ("out", "back", "kick")
    way = -1.0 if backward or lift.exercise.variant == "home" else 1.0
    foot_x = spread(
        np.atleast_2d(o["start"]) + way * np.atleast_2d(o["travel"]) * position,
        (shape[0], shape[1]),
    )
    for index, load in enumerate(loads):
        on_it = getattr(load, "port", "") in HANDS_ON
        if on_it and not (isinstance(load, SpringLoad) or load.on_parts):
            raise InputError(
                f"/loads/{index}/kind",
                load.kind,
                "springs, a band, a cable or a sled on the carriage",
            )
    ride = _Ride(lift, foot_x, way)
    if lift.exercise.variant in ("kick", "knees"):
        motion = _held_hip(ride)
    elif lift.exercise.variant == "side":
        motion = _sideways(ride)
    else:
        motion = _standing(ride)
    if lift.exercise.variant != "side":
        motion.fail(
            motion.angles["knee"] > limits.knee + 1e-9,
            f"knee limit {limits.knee_deg:.0f}° passed: start further out",
        )
        motion.fail(
            motion.angles["hip"] > limits.hip_flexion + 1e-9,
            f"hip limit {limits.hip_flexion_deg:.0f}° passed",
        )
    motion.path_travel = motion.full(np.abs(foot_x - foot_x[..., :1]))
    return motion


class _Ride:
    """The carriage along its travel, and what its springs and friction do."""

    def __init__(self, lift: Lift, foot_x: Array, way: float) -> None:
        self.exercise, self.body, self.o = lift.exercise, lift.body, lift.o
        self.loads, self.position, self.lowering = lift.loads, lift.position, lift.lowering
        self.foot_x, self.way = foot_x, way
        self.shape = (foot_x.shape[0], foot_x.shape[1])
        self.helps = self.o["spring_side"] == "help"

    @property
    def spring_travel(self) -> Array:
        """Return the springs' travel, m: from the first mark at the end where they pull least."""
        gone = np.abs(self.foot_x - self.foot_x[..., :1])
        return gone[..., -1:] - gone if self.helps else gone

    @property
    def on_carriage(self) -> list[int]:
        """Return the numbers of the loads that act on the carriage."""
        return [
            i
            for i, load in enumerate(self.loads)
            if getattr(load, "port", "carriage") in HANDS_ON or isinstance(load, Sled)
        ]

    @property
    def at_body(self) -> list[Load]:
        """Return the other loads: at ports of the body."""
        return [load for i, load in enumerate(self.loads) if i not in self.on_carriage]

    def refuse_others(self) -> None:
        """Refuse loads at the body where only the carriage bears any."""
        for i, load in enumerate(self.loads):
            if i not in self.on_carriage:
                raise InputError(
                    f"/loads/{i}/port", getattr(load, "port", ""), "springs on the carriage"
                )

    def push_on_foot(self, motion: Motion, carried: Array) -> Array:
        """Return the carriage's level force on the foot (N, +x forward), booking springs, mass and
        friction.

        carried: the weight on the carriage (N).
        """
        with_lift = -1.0 if not self.helps else 1.0  # the springs' pull along the lift's way
        total: Array = np.zeros(motion.shape)
        for index, load in enumerate(self.loads):
            if isinstance(load, SpringLoad) and load.port in HANDS_ON:
                travel = self.spring_travel
                total = total + with_lift * load.tension_n(travel) * self.way
                motion.load_lengths[index] = motion.full(travel)
                motion.load_elastic.append(partial(load.energy_j, travel))
                motion.fail(
                    motion.full(load.past_stop(travel)) > 0,
                    f"the spring passes its stop at {load.spring.travel_m:.2f} m",
                )
            elif isinstance(load, Line) and load.on_parts and load.port in HANDS_ON:
                point = np.stack((self.foot_x, np.zeros(motion.shape)))
                total = total + load.force(point, lowering=self.lowering)[0]
                book_pull(motion, index, load, point, "foot")
            elif isinstance(load, Sled):
                rub = load.friction * (load.total_kg * G + carried)
                total = total + (1.0 if self.lowering else -1.0) * rub * self.way
                gone = np.abs(self.foot_x - self.foot_x[..., :1])
                steps = 0.5 * (rub[:, 1:] + rub[:, :-1]) * np.diff(gone, axis=1)
                rubbed = np.concatenate(
                    (np.zeros((motion.shape[0], 1)), np.cumsum(steps, axis=1)), axis=1
                )
                motion.friction_work_j = motion.friction_work_j + rubbed
                motion.inertias.append(
                    Inertia(
                        segment="sled",
                        point=motion.points["pressure"],
                        kg=np.asarray(load.total_kg),
                        towards=vec(np.ones((1, 1)), np.zeros((1, 1))),
                        travel=self.foot_x,
                    )
                )
        motion.path_force = -total * self.way
        return np.asarray(total)


def _leg(body: Body, hip: Array, ankle: Array) -> tuple[Array, Array, Array, BoolArray]:
    """Return knee (m), knee bend, shank lean (rad) of a leg between hip and ankle, knee ahead; and
    where it reaches.
    """
    gap = hip - ankle
    far = np.hypot(gap[0], gap[1])
    bend = flexion_for(body.thigh_m, body.shank_m, far)
    reached = np.isfinite(bend)
    bend = np.nan_to_num(bend)
    shank = np.arctan2(gap[0], gap[1]) + _at_ankle(body, bend)
    return ankle + body.shank_m * lean(shank), bend, shank, reached


def _at_ankle(body: Body, bend: Array) -> Array:
    """Return the angle (rad) at the ankle between shank and line to the hip, for a knee bend
    (rad).
    """
    return np.asarray(
        np.arctan2(body.thigh_m * np.sin(bend), body.shank_m + body.thigh_m * np.cos(bend))
    )


def _flat_foot(body: Body, ankle: Array) -> Foot:
    return Foot(
        body, ankle, vec(np.ones((1, 1)), np.zeros((1, 1))), vec(np.zeros((1, 1)), -np.ones((1, 1)))
    )


class _Stance:
    """Both legs and the trunk, with the hip over the standing foot at a trial lean of the line to
    it.
    """

    def __init__(self, ride: _Ride) -> None:
        body, o, shape = ride.body, ride.o, ride.shape
        self.ride, self.body = ride, body
        self.share = spread(np.atleast_2d(o["weight_share"]), shape)
        self.other_ankle = spread(flat(0.0, body.ankle_height_m), (2, *shape))
        self.ankle = np.stack((ride.foot_x, np.full(shape, body.ankle_height_m)))
        self.feet = _flat_foot(body, self.ankle), _flat_foot(body, self.other_ankle)
        mid = body.sole_m(s.MID)
        self.pressure, self.other_pressure = (foot.sole(mid) for foot in self.feet)
        self.other_bend = np.atleast_2d(
            o["other_knee_from"] + (o["other_knee_to"] - o["other_knee_from"]) * ride.position
        )
        self.reach = third_side(body.thigh_m, body.shank_m, self.other_bend)
        self.other_turn = _at_ankle(body, self.other_bend)
        self.trunk_lean = spread(np.atleast_2d(o["trunk_lean"]), shape)

    def place_at(self, leg_lean: Array) -> None:
        """Put knees, hip and trunk where this lean (rad) puts them."""
        body = self.body
        self.hip = self.other_ankle + self.reach * lean(leg_lean)
        self.knee, self.bend, self.shank, self.reached = _leg(body, self.hip, self.ankle)
        self.other_shank = leg_lean + self.other_turn
        self.other_knee = self.other_ankle + body.shank_m * lean(self.other_shank)
        self.trunk = Trunk(body=body, hip=self.hip, lean=self.trunk_lean)

    def port(self, name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        point = self.trunk.port(name, self.ride.o["belt_offset"])
        if point is None:
            raise InputError("/loads/port", name, "carriage, or a port of the trunk, hands or belt")
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
            ~self.reached, "the moving leg cannot reach: less travel, or bend the standing leg more"
        )
        return motion


def _standing(ride: _Ride) -> Motion:
    stance, shape = _Stance(ride), ride.shape
    low, high = np.full(shape, -50 * DEG), np.full(shape, 50 * DEG)
    leg_lean, found = bracketed_root(stance.moment, low, high)
    stance.place_at(np.where(found, leg_lean, 0.0))
    motion = stance.motion()
    motion.fail(
        ~found, "cannot balance between the feet with this share of the weight on the carriage"
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
        "Quasi-static and in the side view; the moving foot carries a given share of the weight.",
        (
            "The standing leg's knee bend runs evenly, the trunk keeps its lean; the hip goes "
            "where "
            "balance asks."
        ),
    ]
    return motion


def _held_hip(ride: _Ride) -> Motion:
    body, o, shape = ride.body, ride.o, ride.shape
    kick = ride.exercise.variant == "kick"
    # on hands and knees the hip stands a thigh over the floor; on the hands, half of that more than
    # a shank
    height = body.thigh_m + 0.05 if kick else body.shank_m + 0.25
    motion = Motion(
        position=ride.position.ravel(), shape=shape, legs=1 if kick else 2, complete=False
    )
    hip = spread(flat(0.0, height), (2, *shape))
    ankle = np.stack((ride.foot_x, np.full(shape, body.sole_m(s.BALL))))
    knee, bend, shank, reached = _leg(body, hip, ankle)
    motion.fail(~reached, "the leg cannot reach the carriage: less travel or start closer")
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
            "Quasi-static and in the side view; hip and trunk are held still by the arms and the "
            "other leg."
        )
        if kick
        else "Quasi-static and in the side view; hip and trunk are held still over the hands.",
        "The foot carries a given share of the leg's own weight; heel up, on the ball.",
    ]
    return motion


def _straight_legs(motion: Motion, ride: _Ride) -> Array:
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
        "the legs cannot reach that far apart: less travel",
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


def _sideways(ride: _Ride) -> Motion:
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
        "cannot put this share of the weight on the carriage: change weight_share",
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
        (
            "Quasi-static and seen from the front; both knees straight, the pelvis level, the feet "
            "tip at the ankles."
        ),
        "The trunk leans sideways until the given share of the weight rests on the carriage.",
    ]
    return motion
