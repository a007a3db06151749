"""Hip rotation with the leg: the trunk is held, straight or bent legs swing about the hip.

Closure: the trunk lies, hangs or stands still, held by bench, floor or hands, so only the leg's
side is needed. exercise.variant: "supine", "hanging", "standing", "prone", or, in the frontal plane
(x to the side of the working leg), "side" lying and "upright" standing on the other leg.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment import Pendulum, Stack
from widearc.core.errors import InputError
from widearc.core.geometry import lean, slope, spread
from widearc.core.movement.legs import Foot, add_leg, flat
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import add_couple_of_stack, add_pendulum, attach
from widearc.core.movement.motion import Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.units import DEG
from widearc.core.words import Angle, Said

FAMILY = "hip rotation leg"

TRUNK_LEAN = {
    "supine": -90 * DEG,
    "hanging": 0.0,
    "standing": 0.0,
    "prone": 90 * DEG,
    "bent": 45 * DEG,
}

SIDEWAYS = {"side": 0.0, "upright": -90 * DEG}
"""Where the straight leg points in the frontal plane, from level (rad): lying, and hanging from a
standing hip."""


def solve(lift: Lift) -> Motion:
    """Return the swing's motion for options `o` (radians, metres) at `position` (1, samples)."""
    body, limits, o, loads, position = lift.body, lift.limits, lift.o, lift.loads, lift.position
    side = lift.exercise.variant in SIDEWAYS
    begin, end = (o[f"{'abduction' if side else 'hip'}_{word}"] for word in ("from", "to"))
    angle = np.atleast_2d(begin + (end - begin) * position)
    knee_bend = np.atleast_2d(0.0 if side else o["knee"])
    shape = lift.shape(angle)
    legs = 1 if side else int(o["legs"])
    motion = lift.motion(shape, legs=legs, complete=False)
    angle = spread(angle, shape)
    hip = spread(flat(0.0, o["seat"]), (2, *shape))
    if side:
        # lying on the side, head to the left, or standing: the working leg opens anticlockwise
        lying = SIDEWAYS[lift.exercise.variant]
        thigh = slope(angle + lying)
        shank, trunk_lean, turns = thigh, np.full(shape, -90 * DEG - lying), 1.0
    else:
        # bending the hip turns the thigh anticlockwise from the trunk's own line, for a person
        # facing forward
        held = TRUNK_LEAN[lift.exercise.variant]
        thigh, shank = -lean(held - angle), -lean(held - angle + knee_bend)
        trunk_lean, turns = np.full(shape, held), 1.0
    knee = hip + body.thigh_m * thigh
    ankle = knee + body.shank_m * shank
    foot = Foot(body, ankle, np.stack((-shank[1], shank[0])), shank)
    add_leg(motion, body, foot, knee, hip, legs=legs)
    trunk = Trunk(body=body, hip=hip, lean=trunk_lean)
    add_upper_body(motion, trunk, one_piece=True)
    places = {
        "thigh": hip + 0.9 * body.thigh_m * thigh,
        "pad": hip + np.atleast_2d(o["pad"]) * thigh,
        "ankle": ankle,
        "sole": foot.sole(0.0),
        "shin-pad": knee + 0.35 * shank,
    }

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        if name not in places:
            raise InputError(
                "/loads/port", name, Said("thigh, pad, shin-pad, ankle or sole on a leg swing")
            )
        return places[name]

    way = turns * np.sign(float(np.mean(angle[..., -1] - angle[..., 0])) or 1.0)
    for index, load in enumerate(loads):
        if isinstance(load, Stack):
            add_couple_of_stack(motion, load, "thigh", angle, angle, way, lowering=lift.lowering)
        elif isinstance(load, Pendulum):
            add_pendulum(motion, index, load, "thigh", hip, thigh)
    attach(motion, loads, place, lowering=lift.lowering, skip=("stack", "pendulum"), pad="thigh")
    motion.points |= {"shoulder": trunk.shoulder, "pad": spread(places["pad"], (2, *shape))}
    if side:
        motion.angles["hip_abduction"] = angle
    else:
        motion.angles |= {"hip": angle, "knee": motion.full(knee_bend)}
        motion.fail(
            angle > limits.hip_flexion + 1e-9,
            Said("hip limit {angle} passed", angle=Angle.of_deg(limits.hip_flexion_deg)),
        )
    motion.assumptions += [
        Said("Quasi-static, seen from the front; the trunk is still, the leg is straight.")
        if side
        else Said(
            "Quasi-static and in the side view; the trunk is held still, the knee keeps its bend."
        ),
        Said("The foot stays square to the shank."),
    ]
    return motion
