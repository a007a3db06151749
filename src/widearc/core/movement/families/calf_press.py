"""Calf raises on a sled press.

Closure: the legs keep still, the ball slides on the plate without friction, and the sled's force
acts at the ball along the rails.
"""

from __future__ import annotations

from functools import partial

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import segments as s
from widearc.core.equipment import Line, Sled
from widearc.core.errors import InputError
from widearc.core.geometry import slope, spread
from widearc.core.movement.legs import Foot, add_leg, flat
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import book_pull
from widearc.core.movement.motion import Inertia, Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.units import DEG, G
from widearc.core.words import Angle, Said

FAMILY = "calf"
VARIANTS = ("press",)


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians, metres)."""
    bend = lift.through("ankle")
    shape = lift.shape(bend)
    motion = lift.motion(shape, legs=int(lift.o["legs"]), complete=False)
    bend = spread(bend, shape)
    _press(motion, lift, bend)
    limit = lift.limits.dorsiflexion_deg
    over = bend > lift.limits.dorsiflexion + 1e-9
    motion.fail(over, Said("ankle limit {angle} passed", angle=Angle.of_deg(limit)))
    return motion


def _press(motion: Motion, lift: Lift, bend: Array) -> None:
    body, o, loads = lift.body, lift.o, lift.loads
    shape, legs = motion.shape, motion.legs
    rail, knee_bend = np.atleast_2d(o["rail"]), np.atleast_2d(o["knee"])
    up_rail = slope(rail)
    hip = spread(flat(0.0, 0.4), (2, *shape))
    at_hip = np.arctan2(
        body.shank_m * np.sin(knee_bend), body.thigh_m + body.shank_m * np.cos(knee_bend)
    )
    thigh = rail + at_hip
    knee = hip + body.thigh_m * slope(thigh)
    shank_way = slope(thigh - knee_bend)
    ankle = spread(knee + body.shank_m * shank_way, (2, *shape))
    # bent up by the ankle's bend, the foot points square to the shank, towards the face
    across = np.stack((-shank_way[1], shank_way[0]))
    towards_toe = across * np.cos(bend) - shank_way * np.sin(bend)
    away = shank_way * np.cos(bend) + across * np.sin(bend)
    foot = Foot(body, ankle, towards_toe, away)
    add_leg(motion, body, foot, knee, hip, legs=legs)
    trunk = Trunk(body=body, hip=hip, lean=spread(np.atleast_2d(o["backrest"]) - 90 * DEG, shape))
    add_upper_body(motion, trunk, one_piece=lift.exercise.one_piece)
    ball = spread(foot.sole(body.sole_m(s.BALL)), (2, *shape))
    along = ball[0] * up_rail[0] + ball[1] * up_rail[1]
    # the plate keeps its line: what the ball slides across it does not move the sled
    plate = ball[..., :1] + (along - along[..., :1]) * up_rail
    for index, load in enumerate(loads):
        if isinstance(load, Sled):
            force = motion.full(load.along_rail_n(rail, lowering=lift.lowering))
            motion.load_gravity.append(
                partial(np.multiply, load.total_kg * G * np.sin(rail), along)
            )
            rub = load.friction_n(rail) * (along - along[..., :1])
            motion.friction_work_j = motion.friction_work_j + motion.full(rub)
            motion.inertias.append(
                Inertia(
                    segment="toes",
                    point=ball,
                    kg=np.asarray(load.total_kg),
                    towards=up_rail,
                    travel=along,
                )
            )
        elif isinstance(load, Line) and load.on_parts and load.port == "sled":
            pull = load.force(plate, lowering=lift.lowering)
            force = -(pull[0] * up_rail[0] + pull[1] * up_rail[1])
            book_pull(motion, index, load, plate, "toes")
        else:
            raise InputError(
                f"/loads/{index}/kind", load.kind, Said("a sled, or a band or cable on the sled")
            )
        motion.add_force("toes", ball, -force * up_rail, f"load {index}")
    motion.path_travel = motion.full(along - along[..., :1])
    motion.points |= {"shoulder": trunk.shoulder, "mtp": ball, "plate": spread(plate, (2, *shape))}
    motion.angles |= {
        "ankle": bend,
        "knee": motion.full(knee_bend),
        "hip": motion.full(thigh + o["backrest"]),
        "mtp": motion.full(-bend),
    }
    motion.assumptions += [
        Said(
            "Quasi-static and in the side view; the legs keep still, the ball slides on the "
            "plate without friction."
        ),
        Said("The sled's force acts along the rails at the ball of the foot."),
    ]
