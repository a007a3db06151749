"""Plank knee bend: hands on the floor, insteps on a couch, hips straight; the knees drop and
straighten.

Closure: hands and insteps keep their places, the body is straight from knee to shoulder, the arms
are straight and stand upright when the knees are straight; hands and insteps carry vertical forces.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import segments as s
from widearc.core.errors import InputError
from widearc.core.geometry import slope, spread, third_side, vec
from widearc.core.movement.legs import Foot, add_leg, flat
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import ARM_COM, Trunk
from widearc.core.units import DEG
from widearc.core.words import Angle, Said

FAMILY = "plank knee bend"


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians, metres) at `position` (1, samples); the head is
    ahead (+x).
    """
    body, limits, o, loads = lift.body, lift.limits, lift.o, lift.loads
    bend = lift.through("knee")
    shape = lift.shape(bend)
    legs = int(o["legs"])
    motion = lift.motion(shape, legs=legs)
    bend = spread(bend, shape)
    ankle = spread(flat(0.0, o["couch"] + 0.5 * body.ankle_height_m), (2, *shape))
    straight_m = body.thigh_m + body.trunk_m
    reach = third_side(body.shank_m, straight_m, bend)
    # the arms stand upright at the last sample
    rise = body.arm_m - ankle[1]
    hand_x = np.sqrt(np.maximum(reach[..., -1:] ** 2 - rise**2, 0.01))
    hand = np.stack((spread(hand_x, shape), np.zeros(shape)))
    shoulder, met = _shoulder(ankle, reach, hand, body.arm_m)
    motion.fail(~met, Said("hands and couch are too far apart for this knee bend"))
    gap = shoulder - ankle
    line = np.arctan2(gap[1], gap[0])
    # the knee hangs below the line from instep to shoulder
    at_ankle = np.arctan2(straight_m * np.sin(bend), body.shank_m + straight_m * np.cos(bend))
    knee = ankle + body.shank_m * slope(line - at_ankle)
    along = (shoulder - knee) / straight_m
    hip = knee + body.thigh_m * along
    foot = Foot(
        body, ankle, vec(-np.ones((1, 1)), np.zeros((1, 1))), vec(np.zeros((1, 1)), np.ones((1, 1)))
    )
    add_leg(motion, body, foot, knee, hip, legs=legs)
    if legs == 1:
        for name, mass, com in (
            ("free_thigh", s.M_THIGH, hip - s.COM_THIGH * body.thigh_m * along),
            ("free_shank", s.M_SHANK, hip - (body.thigh_m + s.COM_SHANK * body.shank_m) * along),
            ("free_foot", s.M_FOOT, hip - (body.thigh_m + body.shank_m) * along),
        ):
            motion.add_segment(name, mass * body.mass_kg, com)
    trunk = Trunk(body=body, hip=hip, lean=np.arctan2(along[0], along[1]))
    motion.add_segment("trunk", s.M_TRUNK * body.mass_kg, trunk.place(s.COM_TRUNK * body.trunk_m))
    motion.add_segment("arms", 2 * s.M_ARM * body.mass_kg, shoulder + ARM_COM * (hand - shoulder))

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        if name == "thigh":
            return np.asarray(hip + 0.9 * (knee - hip))
        point = trunk.port(name, o["belt_offset"]) if name != "hands" else None
        if point is None:
            raise InputError("/loads/port", name, Said("thigh, hip-belt or a port of the trunk"))
        return point

    attach(motion, loads, place, lowering=lift.lowering)
    motion.close(lambda moved: _hands_and_feet(moved, hand, ankle))
    arm = hand - shoulder
    motion.points |= {"shoulder": shoulder, "hand": hand}
    motion.angles |= {
        "knee": bend,
        "hip": motion.full(0.0),
        # the foot lies still, toes behind, while the shank turns
        "ankle": motion.full(at_ankle - line - 90 * DEG),
        "shoulder": np.arctan2(arm[0], -arm[1]) + trunk.lean,
    }
    if legs == 1:
        motion.angles["free_hip"] = motion.full(0.0)
    motion.fail(
        bend > limits.knee + 1e-9,
        Said("knee limit {angle} passed", angle=Angle.of_deg(limits.knee_deg)),
    )
    motion.assumptions += [
        Said("Quasi-static and in the side view; hips and arms straight, hands and insteps stay."),
        Said("Hands and insteps carry vertical forces; they do not push against each other."),
    ]
    if legs == 1:
        motion.assumptions.append(Said("The free leg is held in line with the trunk."))
    return motion


def _shoulder(ankle: Array, reach: Array, hand: Array, arm_m: float) -> tuple[Array, BoolArray]:
    """Return the shoulder (m), `reach` from the instep and an arm from the hand, above; and where
    they meet.
    """
    gap = hand - ankle
    far = np.hypot(gap[0], gap[1])
    a = (reach**2 - arm_m**2 + far**2) / (2 * far)
    h2 = reach**2 - a**2
    unit = gap / far
    return ankle + a * unit + np.sqrt(np.maximum(h2, 0.0)) * np.stack(
        (-unit[1], unit[0])
    ), h2 >= -1e-9


def _hands_and_feet(motion: Motion, hand: Array, ankle: Array) -> None:
    """Add the vertical forces of hands and insteps; level pulls of loads go to the hands."""
    total = motion.total_force()
    moment = motion.moment_about(ankle)
    hand_x = -total[0]
    # about the instep: what acts, and the hands' force, have no moment
    hand_y = (-moment + (hand[1] - ankle[1]) * hand_x) / (hand[0] - ankle[0])
    motion.add_force("arms", hand, vec(hand_x, hand_y), "contact hands")
    motion.add_force(
        "foot", ankle, vec(np.zeros(motion.shape), -total[1] - hand_y), "contact instep"
    )
    motion.fail(
        (hand_y < -1e-6) | (-total[1] - hand_y < -1e-6),
        Said("hands or feet would lift: change the place of the load"),
    )
    motion.marks["hands_n"] = hand_y
