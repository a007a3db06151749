"""Step-ups: the front foot stands on a box, the rear foot pushes off the floor.

Closure: the box sets the depth. At the start the rear foot stands flat, its knee at 10°, and the
front leg bends by the stance law as far as that asks; where this passes the client's knee or hip
limit the rear heel starts raised, at most 45°. Then the rear ball keeps its place while the heel
rises to 75°, and the foot leaves. Its share of the weight, solved at the start at the lean given,
falls evenly to 0 there, at three tenths of the lift at the latest. The feet do not push apart.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import partial

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import Body, Limits
from widearc.core.body import segments as s
from widearc.core.exercises import Options
from widearc.core.geometry import ahead, bracketed_root, lean, third_side, vec
from widearc.core.movement.families.steps import (
    HIGHEST_HEEL,
    STRAIGHTEST,
    RearFoot,
    Step,
    front_leg,
    stepped,
)
from widearc.core.movement.lift import Lift
from widearc.core.movement.motion import Motion
from widearc.core.units import DEG
from widearc.core.words import Angle, Length, Said

FAMILY = "split"
VARIANTS = ("step-up",)

HEEL_STARTS = 45 * DEG  # the most that the rear heel may be raised at the start
FLAT_FIRST = Said("At the start the rear foot stands flat and its knee is nearly straight.")


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians, metres) at `position` (1, samples)."""
    body, limits, o = lift.body, lift.limits, lift.o
    start = _start(body, limits, o)
    foot = RearFoot(least=start.pitch, most=HIGHEST_HEEL, leaves=np.atleast_2d(o["leaves_at"]))
    motion = stepped(
        lift.with_(o={**o, "knee_from": start.bend}), foot, Step.rear_share, says=FLAT_FIRST
    )
    for row in np.flatnonzero(np.broadcast_to(start.too_high[:, 0], motion.shape[0])):
        bad = np.zeros(motion.shape, dtype=bool)
        bad[row] = True
        motion.failed.pop(int(row), None)
        motion.fail(bad, _too_high(float(start.highest_m[row % len(start.highest_m), 0])))
    raised = np.broadcast_to(start.pitch[:, 0] > 0.5 * DEG, motion.shape[0])
    motion.notice(
        "rear-heel-raised", Said("the rear heel starts off the floor: a high box"), raised
    )
    _note_hip(motion, limits)
    return motion


def _too_high(highest_m: float) -> Said:
    most_m = 0.05 * float(np.floor(20.0 * highest_m + 1e-6))
    return Said(
        "the box is too high for these legs, hips and knees: at most {length}",
        length=Length(most_m),
    )


def _note_hip(motion: Motion, limits: Limits) -> None:
    """Say where the trunk must lean past the hip's limit to stand on one leg over so high a box."""
    over = motion.angles["hip"].max(axis=1) - limits.hip_flexion
    for row in np.flatnonzero(over > 0.5 * DEG):
        motion.notice(
            "hip-past-limit",
            Said(
                "as the rear foot leaves, the hip bends {angle} past its limit of {angle_2}, or "
                "the low back rounds: a lower box is kinder",
                angle=Angle(float(over[row])),
                angle_2=Angle.of_deg(limits.hip_flexion_deg),
            ),
            np.arange(motion.shape[0]) == row,
        )


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Start:
    """How a step-up begins, (set-ups, 1): front knee bend and rear pitch (rad), whether the box is
    too high, and the highest one, m.
    """

    bend: Array
    pitch: Array
    too_high: BoolArray
    highest_m: Array


def _start(body: Body, limits: Limits, o: Options) -> Start:
    """Return the start on a box, the rear heel raised only as the client's limits ask."""
    none = np.zeros(np.broadcast(*(np.atleast_2d(o[n]) for n in DECIDE)).shape)
    flat_bend, most = _bend_at(body, limits, o, none), _most_bend(limits, body, o, none)
    bend, raised = np.minimum(flat_bend, most), flat_bend > most
    pitch, _ = bracketed_root(
        lambda x: _spare_m(body, limits, o, x, bend), none, none + HEEL_STARTS
    )
    spare = _spare_m(body, limits, o, none + HEEL_STARTS, bend)
    return Start(
        bend=bend,
        pitch=np.where(raised, np.nan_to_num(pitch), 0.0),
        too_high=raised & (spare < -1e-9),
        highest_m=_highest_box_m(body, limits, o, most),
    )


DECIDE = ("box", "step", "rear", "knee_travel", "trunk_lean", "knee_to")


def _rear_ankle(body: Body, o: Options, pitch: Array) -> Array:
    """Return the rear ankle (m) over its ball at a pitch (rad)."""
    ball = vec(-np.atleast_2d(o["step"]), np.atleast_2d(o["rear"]))
    return np.asarray(ball - body.sole_m(s.BALL) * ahead(pitch) + body.ankle_height_m * lean(pitch))


def _spare_m(body: Body, limits: Limits, o: Options, pitch: Array, bend: Array) -> Array:
    """Return by how much (m) the nearly straight rear leg is longer than its way to the hip."""
    gap = front_leg(body, limits, o, bend)[2] - _rear_ankle(body, o, pitch)
    straight = third_side(body.thigh_m, body.shank_m, STRAIGHTEST)
    return np.asarray(straight - np.hypot(gap[0], gap[1]))


def _bend_at(body: Body, limits: Limits, o: Options, pitch: Array) -> Array:
    """Return the front knee's bend (rad) at which the nearly straight rear leg just stands at a
    pitch; with a low box no bend more than at the end.
    """
    spare = partial(_spare_m, body, limits, o, pitch)
    low, high = pitch + np.atleast_2d(o["knee_to"]), pitch + 170 * DEG
    bend, found = bracketed_root(spare, low, high)
    return np.where(found, bend, np.where(spare(low) > 0, low, high))


def _most_bend(limits: Limits, body: Body, o: Options, none: Array) -> Array:
    """Return the deepest front knee bend (rad) at the start within the client's knee and hip
    limits.
    """
    trunk = np.atleast_2d(o["trunk_lean"])

    def over(bend: Array) -> Array:
        return np.asarray(bend - front_leg(body, limits, o, bend)[0] + trunk - limits.hip_flexion)

    high = none + limits.knee
    bend, found = bracketed_root(over, none, high)
    return np.where(found, bend, high)


def _highest_box_m(body: Body, limits: Limits, o: Options, bend: Array) -> Array:
    """Return the highest box (m) on which these legs can start at that front knee bend (rad)."""
    hip = front_leg(body, limits, {**o, "box": 0.0}, bend)[2]
    ankle = _rear_ankle(body, o, np.zeros_like(bend) + HEEL_STARTS)
    straight = third_side(body.thigh_m, body.shank_m, STRAIGHTEST)
    across = np.minimum(np.abs(hip[0] - ankle[0]), straight)
    return np.asarray(ankle[1] + np.sqrt(straight**2 - across**2) - hip[1])
