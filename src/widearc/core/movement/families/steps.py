"""Both legs of a step at every sample, and the trunk that balances over them."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import segments as s
from widearc.core.errors import InputError
from widearc.core.geometry import ahead, balanced_angle, cross, flexion_for, lean, spread, vec
from widearc.core.movement.families.stance import FIRST_LEAN, LEAN_RANGE
from widearc.core.movement.legs import Foot, add_leg, flat, pressure_m
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach, only_weights, pulls
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import Trunk, add_upper_body, upper_body_terms
from widearc.core.units import DEG, G

REAR_PITCH = 60 * DEG


LEAVES, HANGS = 0.1, 0.4  # of the lift: the rear foot leaves the floor; the free leg hangs


CLEARANCE_M = 0.10  # of the free foot's ankle over the floor while it hangs (assumed)


class Legs:
    """Both legs at every sample."""

    def __init__(self, lift: Lift, bend: Array, *, stays: bool) -> None:
        body, limits, o, position = lift.body, lift.limits, lift.o, lift.position
        self.exercise, self.body, self.o, self.bend = lift.exercise, body, o, bend
        self.stays = stays
        self.shape = shape = (bend.shape[0], bend.shape[1])
        self.position = position
        self.shank_lean = np.minimum(
            FIRST_LEAN + np.atleast_2d(o["knee_travel"]) * bend, limits.dorsiflexion
        )
        across, down = (
            vec(np.ones((1, 1)), np.zeros((1, 1))),
            vec(np.zeros((1, 1)), -np.ones((1, 1))),
        )
        ankle = spread(flat(0.0, o["box"] + body.ankle_height_m), (2, *shape))
        self.front = Foot(body, ankle, across, down)
        self.knee = ankle + body.shank_m * lean(self.shank_lean)
        self.hip = self.knee + body.thigh_m * lean(self.shank_lean - bend)
        self.sole = spread(self.front.sole(pressure_m(body, o["pressure"])), (2, *shape))
        self._rear(np.atleast_2d(o["step"]), np.atleast_2d(o["rear"]))

    def _rear(self, step: Array, raised: Array) -> None:
        """Place the rear leg: by its foot while that stands, then turning to where it hangs."""
        body, hip = self.body, self.hip
        pitch = np.full((1, 1), REAR_PITCH)
        towards_toe, down = ahead(pitch), -lean(pitch)
        self.ball = spread(flat(-step, raised), (2, *self.shape))
        stood = self.ball - body.sole_m(s.BALL) * towards_toe - body.ankle_height_m * down
        stays = self.stays
        placed = spread(self.position, self.shape) <= LEAVES + 1e-12
        gap = hip - stood
        far = np.hypot(gap[0], gap[1])
        needed = placed | stays
        bend = flexion_for(body.thigh_m, body.shank_m, np.where(needed, far, 0.5))
        self.rear_reaches = np.isfinite(bend)
        bend = np.nan_to_num(bend)
        at_ankle = np.arctan2(
            body.thigh_m * np.sin(bend), body.shank_m + body.thigh_m * np.cos(bend)
        )
        shank = np.arctan2(gap[0], gap[1]) + at_ankle
        if not stays:
            # from the last standing sample the thigh's and knee's angles run evenly to the hanging
            # ones
            last = int(np.flatnonzero(self.position.ravel() <= LEAVES + 1e-12)[-1])
            part = np.clip(
                (self.position - self.position[..., last : last + 1]) / (HANGS - LEAVES), 0.0, 1.0
            )
            thigh_last, bend_last = (shank - bend)[..., last][..., None], bend[..., last][..., None]
            room = hip[1] - body.thigh_m - CLEARANCE_M
            bend_hangs = np.arccos(np.clip(room / body.shank_m, 0.0, 1.0))
            thigh = np.where(placed, shank - bend, (1.0 - part) * thigh_last)
            bend = np.where(placed, bend, (1.0 - part) * bend_last + part * bend_hangs)
            shank = thigh + bend
        self.rear_bend, self.rear_shank = bend, shank
        self.rear_knee = hip - body.thigh_m * lean(shank - bend)
        rear_ankle = self.rear_knee - body.shank_m * lean(shank)
        # the free foot keeps its last angle to the shank
        if stays:
            turn = np.full(self.shape, REAR_PITCH)
        else:
            held = shank[..., last][..., None] - REAR_PITCH
            turn = np.where(placed, REAR_PITCH, shank - held)
        self.rear = Foot(body, rear_ankle, ahead(turn), -lean(turn))
        self.rear_pitch = turn


class Step:
    """The whole body with its loads at a trial lean of the trunk."""

    def __init__(self, pose: Legs, lift: Lift) -> None:
        self.pose, self.loads, self.lowering = pose, lift.loads, lift.lowering
        self._legs: tuple[Array, Array] | None = None

    def _with_legs(self) -> Motion:
        pose = self.pose
        motion = Motion(position=pose.position.ravel(), shape=pose.shape, legs=1)
        add_leg(motion, pose.body, pose.front, pose.knee, pose.hip)
        add_leg(motion, pose.body, pose.rear, pose.rear_knee, pose.hip, prefix="rear_")
        return motion

    def _place(self, name: str, trunk: Trunk) -> Array:
        point = self.pose.sole if name == "sole" else trunk.port(name, self.pose.o["belt_offset"])
        if point is None:
            raise InputError("/loads/port", name, "a port that a lunge has")
        return point

    def motion_at(self, trunk_lean: Array) -> Motion:
        """Return the motion without contacts at this lean (rad)."""
        pose = self.pose
        body, exercise = pose.body, pose.exercise
        motion = self._with_legs()
        trunk = Trunk(body=body, hip=pose.hip, lean=spread(trunk_lean, pose.shape))
        add_upper_body(motion, trunk, one_piece=exercise.one_piece)
        attach(motion, self.loads, lambda name: self._place(name, trunk), lowering=self.lowering)
        motion.points |= {"shoulder": trunk.shoulder, "pressure": pose.sole, "rear_ball": pose.ball}
        motion.angles |= {
            "knee": motion.full(pose.bend),
            "hip": motion.full(pose.bend - pose.shank_lean + trunk_lean),
            "ankle": motion.full(pose.shank_lean),
            "rear_knee": motion.full(pose.rear_bend),
            "rear_hip": motion.full(pose.rear_bend - pose.rear_shank + trunk_lean),
            "rear_ankle": motion.full(pose.rear_shank - pose.rear_pitch),
        }
        if not exercise.one_piece:
            motion.angles["shoulder"] = motion.full(trunk_lean)
        return motion

    def rear_share(self) -> Array:
        """Return the rear foot's share of the weight along the lift: solved at the start, 0 from a
        tenth on.
        """
        pose = self.pose
        moment, down = self._carried(np.atleast_2d(pose.o["trunk_lean"]))
        level = np.atleast_2d(pose.o["horizontal_pair"]) * (pose.ball[1] - pose.sole[1])
        first = ((level - moment) / (-down * (pose.ball[0] - pose.sole[0])))[..., :1]
        return np.asarray(
            spread(first * np.clip(1.0 - pose.position / LEAVES, 0.0, 1.0), pose.shape)
        )

    def moment(self, trunk_lean: Array, share: Array) -> Array:
        """Return the moment of everything, the rear foot's force included, about the front pressure
        point, N·m.
        """
        pose = self.pose
        moment, down = self._carried(trunk_lean)
        return np.asarray(moment + cross(pose.ball - pose.sole, _rear_force(-down, pose, share)))

    def _carried(self, trunk_lean: Array) -> tuple[Array, Array]:
        """Return moment (N·m, about the front pressure point) and vertical force (N) of body and
        loads, feet apart.
        """
        pose, body = self.pose, self.pose.body
        if self._legs is None:
            legs = self._with_legs()
            self._legs = legs.moment_about(pose.sole), legs.total_force()[1]
        total, down = self._legs
        trunk = Trunk(body=body, hip=pose.hip, lean=trunk_lean)
        for mass, along in upper_body_terms(body, one_piece=pose.exercise.one_piece):
            total = total - mass * G * (trunk.place(along)[0] - pose.sole[0])
            down = down - mass * G
        moment, up = pulls(
            self.loads, lambda n: self._place(n, trunk), pose.sole, lowering=self.lowering
        )
        return total + moment, down + up


def _rear_force(weight: Array, pose: Legs, share: Array) -> Array:
    """Return the rear foot's force (N): its share of the weight (N), and the level pair while it
    stands.
    """
    pair = np.where(share > 0, np.atleast_2d(pose.o["horizontal_pair"]), 0.0)
    return vec(spread(pair, pose.shape), share * weight)


def ground(motion: Motion, pose: Legs, share: Array) -> None:
    """Add both feet's forces; in a fast lift the front foot's moment answers the rest."""
    rear = _rear_force(-motion.total_force()[1], pose, share)
    motion.add_force("rear_foot", pose.ball, rear, "contact rear foot")
    if motion.dynamic:
        motion.couples.append(("foot", -motion.moment_about(pose.sole), "contact foot"))
    motion.add_force("foot", pose.sole, -motion.total_force(), "contact foot")


def stepped(lift: Lift, share_of: Callable[[Step], Array], *, stays: bool, says: str) -> Motion:
    """Return a step's motion; share_of: the rear foot's share of the weight, (set-ups, samples).

    stays: the rear foot keeps its place all the way. says: what that closure assumes, in words.
    """
    o, loads = lift.o, lift.loads
    bend = lift.through("knee")
    pose = Legs(lift, spread(bend, lift.shape(bend)), stays=stays)
    trial = Step(pose, lift)
    share = share_of(trial)
    trunk_lean, found = balanced_angle(
        lambda x: trial.moment(x, share),
        LEAN_RANGE,
        pose.shape,
        turning=only_weights(loads),
        start=np.atleast_2d(o.get("trunk_lean", 0.0)),
    )
    motion = trial.motion_at(trunk_lean)
    ground(motion, pose, share)
    motion.closure = lambda moved: ground(moved, pose, share)
    motion.fail(
        ~found, "cannot balance over the front foot: shorten the step, lean more or reduce depth"
    )
    motion.fail(
        share < -1e-9,
        "cannot balance at the start: all weight is ahead of the front foot; lean less",
    )
    motion.fail(
        share > 1 + 1e-9,
        "cannot balance at the start: all weight is behind the rear foot; lean forward",
    )
    motion.fail(
        ~pose.rear_reaches, "the rear leg cannot reach: shorten the step or lower the rear foot"
    )
    motion.marks |= {"front_share": motion.full(1.0 - share), "trunk_lean": motion.full(trunk_lean)}
    motion.assumptions += [
        (
            "Quasi-static and in the side view; the front shank leans 5° plus a fixed share of the "
            "knee bend."
        ),
        says,
        "The feet do not push against each other.",
    ]
    return motion
