"""Both legs of a step at every sample, and the trunk that balances over them."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import Body, Limits
from widearc.core.body import segments as s
from widearc.core.errors import InputError
from widearc.core.exercises import Options
from widearc.core.geometry import (
    ahead,
    balanced_angle,
    cross,
    flexion_for,
    lean,
    spread,
    third_side,
    vec,
)
from widearc.core.movement.effort import Push
from widearc.core.movement.families.stance import FIRST_LEAN, LEAN_RANGE
from widearc.core.movement.legs import Foot, add_leg, flat, pressure_m
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach, only_weights, pulls
from widearc.core.movement.motion import Motion
from widearc.core.movement.pair import AS_GIVEN, LEG, PAIR_SAYS, REAR_LEG, pair_n, refuse_broken
from widearc.core.movement.trunk import Trunk, add_upper_body, upper_body_terms
from widearc.core.units import DEG, G
from widearc.core.words import Said

REAR_PITCH = 60 * DEG  # of a rear foot on its ball
HIGHEST_HEEL = 75 * DEG  # pitch at which a foot on its ball leaves the floor
STRAIGHTEST = 10 * DEG  # the rear knee: from here on the heel rises instead
SWINGS = 0.3  # of the lift: from the floor until the free leg hangs
CLEARANCE = 0.055  # of stature: the free foot's ankle over the floor while it hangs (assumed)
GRID = np.linspace(0.0, 1.0, 101)[None, :]  # on which the last place that the leg reaches is found
SOONEST = 0.01  # of the lift: a rear foot that must leave before has no room to give its share away
ROUNDS = 6  # pair and balance, where the feet stand at two heights: each decides the other


@dataclass(frozen=True, slots=True, kw_only=True)
class RearFoot:
    """How the rear foot behaves: its pitch (rad) while it stands, from `least` to `most`.

    leaves: the part of the lift at which it is off the floor at the latest; None where it stays.
    """

    least: Array | float = REAR_PITCH
    most: float = REAR_PITCH
    leaves: Array | float | None = None


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Stood:
    """A rear leg on its ball: pitch, knee bend and shank lean (rad), and whether it reaches."""

    pitch: Array
    bend: Array
    shank: Array
    reaches: BoolArray

    @property
    def thigh(self) -> Array:
        """Return the thigh's lean, rad."""
        return np.asarray(self.shank - self.bend)


def front_leg(body: Body, limits: Limits, o: Options, bend: Array) -> tuple[Array, Array, Array]:
    """Return shank lean (rad), knee and hip (m) of a flat front foot at a knee bend (rad)."""
    shank_lean = np.minimum(
        FIRST_LEAN + np.atleast_2d(o["knee_travel"]) * bend, limits.dorsiflexion
    )
    ankle = flat(0.0, o["box"] + body.ankle_height_m)
    knee = ankle + body.shank_m * lean(shank_lean)
    return shank_lean, knee, knee + body.thigh_m * lean(shank_lean - bend)


def stood(body: Body, hip: Array, ball: Array, foot: RearFoot) -> Stood:
    """Return the rear leg between hip and ball (m): the heel rises only as the leg's length
    asks.
    """
    sole, high = body.sole_m(s.BALL), body.ankle_height_m
    radius, slant = np.hypot(sole, high), np.arctan2(high, sole)
    gap = hip - ball
    far, rises = np.hypot(gap[0], gap[1]), np.arctan2(gap[1], -gap[0])
    straight = third_side(body.thigh_m, body.shank_m, STRAIGHTEST)
    with np.errstate(invalid="ignore"):
        turn = np.arccos((far**2 + radius**2 - straight**2) / (2.0 * far * radius))
    asked = rises - turn - slant
    reaches = np.asarray(np.isfinite(asked) & (asked <= foot.most + 1e-9))
    # nearer than the straightest leg from any pitch: no need to rise
    close = far + radius <= straight
    pitch = np.where(close, foot.least, np.clip(np.nan_to_num(asked), foot.least, foot.most))
    ankle = ball - sole * ahead(pitch) + high * lean(pitch)
    gap = hip - ankle
    bend = flexion_for(body.thigh_m, body.shank_m, np.hypot(gap[0], gap[1]))
    at_ankle = np.arctan2(body.thigh_m * np.sin(bend), body.shank_m + body.thigh_m * np.cos(bend))
    return Stood(
        pitch=pitch,
        bend=bend,
        shank=np.arctan2(gap[0], gap[1]) + at_ankle,
        reaches=np.asarray((reaches | close) & np.isfinite(bend)),
    )


class Legs:
    """Both legs at every sample."""

    def __init__(self, lift: Lift, bend: Array, foot: RearFoot) -> None:
        body, o = lift.body, lift.o
        self.lift, self.exercise, self.body, self.o = lift, lift.exercise, body, o
        self.bend, self.foot = bend, foot
        self.shape = shape = (bend.shape[0], bend.shape[1])
        self.position = lift.position
        self.shank_lean, knee, hip = front_leg(body, lift.limits, o, bend)
        self.knee, self.hip = spread(knee, (2, *shape)), spread(hip, (2, *shape))
        across, down = flat(1.0, 0.0), flat(0.0, -1.0)
        ankle = spread(flat(0.0, o["box"] + body.ankle_height_m), (2, *shape))
        self.front = Foot(body, ankle, across, down)
        self.sole = spread(self.front.sole(pressure_m(body, o["pressure"])), (2, *shape))
        self.ball = spread(flat(-np.atleast_2d(o["step"]), np.atleast_2d(o["rear"])), (2, *shape))
        self._rear()

    def _rear(self) -> None:
        """Place the rear leg: by its foot while that stands, then turning to where it hangs."""
        body, hip = self.body, self.hip
        stands = stood(body, hip, self.ball, self.foot)
        bend, shank, pitch = stands.bend, stands.shank, spread(stands.pitch, self.shape)
        self.leaves = self._leaves()
        self.reaches = stands.reaches
        if self.leaves is not None:
            placed = np.broadcast_to(self.position <= self.leaves + 1e-12, self.shape)
            self.reaches = (stands.reaches | ~placed) & (self.leaves >= SOONEST)
            last = self._stood_at(self.leaves)
            part = np.clip((self.position - self.leaves) / SWINGS, 0.0, 1.0)
            room = hip[1] - body.thigh_m - CLEARANCE * body.stature_m
            hangs = np.arccos(np.clip(room / body.shank_m, 0.0, 1.0))
            thigh = np.where(placed, shank - bend, (1.0 - part) * last.thigh)
            bend = np.where(placed, bend, (1.0 - part) * last.bend + part * hangs)
            shank = thigh + bend
            # the free foot keeps its last angle to the shank
            pitch = np.where(placed, pitch, shank - (last.shank - last.pitch))
        self.rear_bend, self.rear_shank, self.rear_pitch = bend, shank, pitch
        self.rear_knee = hip - body.thigh_m * lean(shank - bend)
        rear_ankle = self.rear_knee - body.shank_m * lean(shank)
        self.rear = Foot(body, rear_ankle, ahead(pitch), -lean(pitch))

    def _stood_at(self, position: Array) -> Stood:
        """Return the standing rear leg at other positions of the lift."""
        lift = self.lift
        first, last = (np.atleast_2d(lift.o[f"knee_{end}"]) for end in ("from", "to"))
        hip = front_leg(self.body, lift.limits, lift.o, first + (last - first) * position)[2]
        return stood(self.body, hip, self.ball[..., :1], self.foot)

    def _leaves(self) -> Array | None:
        """Return the part of the lift at which the rear foot leaves, (set-ups, 1): as asked, or
        where its leg ends.
        """
        if self.foot.leaves is None:
            return None
        reaches = self._stood_at(GRID).reaches
        lost = np.where(reaches.all(axis=-1), GRID.size, np.argmin(reaches, axis=-1))
        ends = GRID[0, np.maximum(lost - 1, 0)][:, None]
        return np.asarray(np.minimum(np.atleast_2d(self.foot.leaves), ends))


class Step:
    """The whole body with its loads at a trial lean of the trunk."""

    def __init__(self, pose: Legs, lift: Lift) -> None:
        self.pose, self.loads, self.lowering = pose, lift.loads, lift.lowering
        self.level = not np.any(pose.ball[1] - pose.sole[1])
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
            raise InputError("/loads/port", name, Said("a port that a lunge has"))
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
        motion.marks["trunk_lean"] = motion.full(trunk_lean)
        if not exercise.one_piece:
            motion.angles["shoulder"] = motion.full(trunk_lean)
        return motion

    def rear_share(self, pair: Array) -> Array:
        """Return the rear foot's share of the weight along the lift: solved at the start, then
        falling evenly until it leaves.
        """
        pose = self.pose
        moment, down = self._carried(np.atleast_2d(pose.o["trunk_lean"]))
        level = pair * (pose.ball[1] - pose.sole[1])
        first = ((level - moment) / (-down * (pose.ball[0] - pose.sole[0])))[..., :1]
        left = (
            1.0
            if pose.leaves is None
            else np.clip(1.0 - pose.position / np.maximum(pose.leaves, 1e-9), 0.0, 1.0)
        )
        return np.asarray(spread(first * left, pose.shape))

    def moment(self, trunk_lean: Array, share: Array, pair: Array) -> Array:
        """Return the moment of everything, the rear foot's force included, about the front pressure
        point, N·m.
        """
        pose = self.pose
        moment, down = self._carried(trunk_lean)
        return np.asarray(moment + cross(pose.ball - pose.sole, vec(pair, -share * down)))

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


def feet(motion: Motion, pose: Legs, share: Array) -> tuple[Push, Push]:
    """Return what acts on the front and the rear foot (N) without a pair, and per newton of it."""
    total = motion.total_force()
    one, none = np.ones(motion.shape), np.zeros(motion.shape)
    rear = vec(none, -share * total[1])
    return (
        Push(LEG, pose.sole, -total - rear, vec(-one, none)),
        Push(REAR_LEG, pose.ball, rear, vec(one, none)),
    )


def ground(motion: Motion, pose: Legs, share: Array, pair: Array) -> None:
    """Add both feet's forces; in a fast lift the front foot's moment answers the rest."""
    rear = feet(motion, pose, share)[1].at(pair)
    motion.add_force("rear_foot", pose.ball, rear, "contact rear foot")
    if motion.dynamic:
        motion.couples.append(("foot", -motion.moment_about(pose.sole), "contact foot"))
    motion.add_force("foot", pose.sole, -motion.total_force(), "contact foot")


def _pair(motion: Motion, pose: Legs, share: Array) -> Array:
    """Return the pair between the feet, N; a given one fades with the rear foot's share."""
    pair = pair_n(motion, pose.body, pose.o, *feet(motion, pose, share))
    if isinstance(pose.o["horizontal_pair"], str):
        return pair
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.asarray(pair * np.nan_to_num(share / share[..., :1]))


ShareOf = Callable[[Step, Array], Array]
"""The rear foot's share of the weight (set-ups, samples) at a pair (N)."""


def _settled(trial: Step, lift: Lift, share_of: ShareOf) -> tuple[Motion, Array, Array, BoolArray]:
    """Return the balanced motion without contacts, share, pair (N), and where there is balance.

    On a level floor a pair leaves the balance alone; else pair and balance are solved by turns.
    """
    pose = trial.pose
    pair, asked = np.zeros(pose.shape), lift.o["horizontal_pair"]
    paired = isinstance(asked, str) or bool(np.any(asked))
    for turn in range(ROUNDS if paired and not trial.level else 1):
        share = share_of(trial, pair)
        trunk_lean, found = balanced_angle(
            partial(trial.moment, share=share, pair=pair),
            LEAN_RANGE,
            pose.shape,
            turning=only_weights(lift.loads),
            start=np.atleast_2d(lift.o.get("trunk_lean", 0.0)),
        )
        motion = trial.motion_at(trunk_lean)
        if paired and (trial.level or turn < ROUNDS - 1):
            pair = np.nan_to_num(_pair(motion, pose, share))
    return motion, share, pair, found


def stepped(lift: Lift, foot: RearFoot, share_of: ShareOf, *, says: Said) -> Motion:
    """Return a step's motion; share_of: the rear foot's share of the weight.

    foot: how the rear foot behaves. says: what that closure assumes, in words.
    """
    bend = lift.through("knee")
    pose = Legs(lift, spread(bend, lift.shape(bend)), foot)
    motion, share, pair, found = _settled(Step(pose, lift), lift, share_of)
    refuse_broken(motion, pair, *feet(motion, pose, share))
    ground(motion, pose, share, pair)
    motion.closure = lambda moved: ground(moved, pose, share, pair)
    motion.fail(
        ~found,
        Said("cannot balance over the front foot: shorten the step, lean more or reduce depth"),
    )
    motion.fail(
        share < -1e-9,
        Said("cannot balance at the start: all weight is ahead of the front foot; lean less"),
    )
    motion.fail(
        share > 1 + 1e-9,
        Said("cannot balance at the start: all weight is behind the rear foot; lean forward"),
    )
    motion.fail(
        ~pose.reaches, Said("the rear leg cannot reach: shorten the step or lower the rear foot")
    )
    motion.marks |= {"front_share": motion.full(1.0 - share), "pair_n": pair}
    motion.assumptions += [
        Said(
            "Quasi-static and in the side view; the front shank leans 5° plus a fixed share "
            "of the knee bend."
        ),
        says,
        PAIR_SAYS if isinstance(lift.o["horizontal_pair"], str) else AS_GIVEN,
    ]
    return motion
