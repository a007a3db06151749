"""Arc squat: the trunk is fixed to an arm that swings about a pivot.

Closure: the arm's weights push square to it at the shoulders; the arm's push along itself and the
foot's force follow from the three equations of balance. Trunk and arm stand square to each other:
upright when the arm is level. The pivot is placed from the ankles.
"""

from __future__ import annotations

from functools import partial

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.errors import InputError
from widearc.core.geometry import slope, spread, third_side, vec
from widearc.core.movement.families.sled_squat import support
from widearc.core.movement.legs import Foot, add_leg, flat, pressure_m
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach
from widearc.core.movement.motion import Inertia, Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.units import DEG, G
from widearc.core.words import Angle, Said

FAMILY = "arc squat"


def solve(lift: Lift) -> Motion:
    """Return the arc squat's motion for options `o` (radians, metres, kg) at `position` (1,
    samples).
    """
    body, limits, o, loads = lift.body, lift.limits, lift.o, lift.loads
    bend = lift.through("knee")
    pivot = flat(o["pivot_x"], o["pivot_y"])
    arm, tilt = np.atleast_2d(o["arm"]), np.atleast_2d(o["plate_tilt"])
    reach = third_side(body.thigh_m, body.shank_m, bend)
    shape = lift.shape(reach)
    motion = lift.motion(shape, legs=2)
    ankle = spread(flat(0.0, body.ankle_height_m), (2, *shape))
    hip, met = _circles(pivot, np.hypot(arm, body.trunk_m), ankle, reach)
    motion.fail(
        ~np.broadcast_to(met, shape),
        Said("arm and legs do not meet at this knee bend: move pivot or feet"),
    )
    gap = hip - pivot
    turn = np.arctan2(gap[1], gap[0]) + np.arctan2(body.trunk_m, arm)
    along, upward = slope(turn), slope(turn + 90 * DEG)
    trunk = Trunk(body=body, hip=hip, lean=-turn)
    line = np.arctan2(hip[0] - ankle[0], hip[1] - ankle[1])
    shank = line + np.arctan2(
        body.thigh_m * np.sin(bend), body.shank_m + body.thigh_m * np.cos(bend)
    )
    knee = ankle + body.shank_m * vec(np.sin(shank), np.cos(shank))
    foot = Foot(body, ankle, slope(-tilt), slope(-tilt - 90 * DEG))
    add_leg(motion, body, foot, knee, hip, legs=2)
    add_upper_body(motion, trunk, one_piece=lift.exercise.one_piece)
    shoulder = spread(trunk.shoulder, (2, *shape))

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        point = shoulder if name in ("pad", "sled") else trunk.port(name, o["belt_offset"])
        if point is None:
            raise InputError("/loads/port", name, Said("the pad or a port of the trunk"))
        return point

    attach(motion, loads, place, lowering=lift.lowering)
    _counterweight(motion, np.atleast_2d(o["counterweight"]), arm, turn, upward, shoulder)
    sole = spread(foot.sole(pressure_m(body, o["pressure"])), (2, *shape))
    square = spread(along, (2, *shape))
    motion.close(lambda moved: support(moved, shoulder, square, sole, "arm_n"))
    motion.points |= {"shoulder": shoulder, "pressure": sole, "pivot": spread(pivot, (2, *shape))}
    ankle_bend = motion.full(shank - tilt)
    motion.angles |= {
        "knee": motion.full(bend),
        "hip": motion.full(bend - shank - turn),
        "ankle": ankle_bend,
    }
    motion.fail(
        ankle_bend > limits.dorsiflexion + 1e-9,
        Said(
            "ankle limit {angle} passed: feet further ahead",
            angle=Angle.of_deg(limits.dorsiflexion_deg),
        ),
    )
    motion.assumptions += [
        Said(
            "Quasi-static and in the side view; the trunk is fixed to the arm, which pushes "
            "along itself as balance asks."
        ),
    ]
    return motion


def _circles(centre: Array, radius: Array, other: Array, reach: Array) -> tuple[Array, BoolArray]:
    """Return where two circles meet (m), behind the line between their centres, and whether they
    do.
    """
    gap = other - centre
    far = np.hypot(gap[0], gap[1])
    a = (radius**2 - reach**2 + far**2) / (2 * far)
    h2 = radius**2 - a**2
    unit = gap / far
    h = np.sqrt(np.maximum(h2, 0.0))
    # above the line from pivot to ankle
    return centre + a * unit + h * np.stack((-unit[1], unit[0])), h2 >= 0


def _counterweight(
    motion: Motion, kg: Array, arm: Array, turn: Array, upward: Array, shoulder: Array
) -> None:
    """Add a counterweight on the arm's other side, at the arm's length: it lifts square to the
    arm.
    """
    if not np.any(kg):
        return
    motion.add_force(
        "trunk",
        shoulder,
        spread(kg * G * np.cos(turn) * upward, (2, *motion.shape)),
        "load counterweight",
    )
    motion.load_gravity.append(partial(np.multiply, -kg * G * arm, np.sin(turn)))
    motion.inertias.append(
        Inertia(segment="trunk", point=shoulder, kg=kg, towards=upward, travel=arm * turn)
    )
