"""Sled squat: the back on a pad that rides rails, the shoulders carry the sled.

Closure: the shoulder pads carry the sled's force along the rails; the back pad's resultant acts at
`pad_at` of hip to shoulder, square to the rails; it and the foot's force follow from the three
equations of balance. The back is parallel to the rails, the plate square to them (option: tilted).
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment import Line, Load, Sled
from widearc.core.errors import InputError
from widearc.core.geometry import cross, slope, spread, third_side
from widearc.core.movement.legs import Foot, add_leg, flat, pressure_m
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import book_pull
from widearc.core.movement.motion import Inertia, Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.units import DEG, G
from widearc.core.words import Angle, Said

FAMILY = "sled squat"


def solve(lift: Lift) -> Motion:
    """Return the sled squat's motion for options `o` (radians, metres) at `position` (1,
    samples).
    """
    body, limits, o, loads = lift.body, lift.limits, lift.o, lift.loads
    bend = lift.through("knee")
    rail, tilt = np.atleast_2d(o["rail"]), np.atleast_2d(o["plate_tilt"])
    feet = np.atleast_2d(o["foot_ahead"])
    reach = third_side(body.thigh_m, body.shank_m, bend)
    shape = lift.shape(reach)
    motion = lift.motion(shape, legs=2)
    # the person faces forward and leans back: the rails rise backwards
    up_rail, forward = slope(180 * DEG - rail), slope(90 * DEG - rail)
    motion.fail(
        motion.full(reach**2 - feet**2) < 0,
        Said("the legs cannot reach: feet closer to the hip's line"),
    )
    along = np.sqrt(np.maximum(reach**2 - feet**2, 1e-6))
    ankle = spread(flat(0.0, body.ankle_height_m), (2, *shape))
    hip = spread(ankle + along * up_rail - feet * forward, (2, *shape))
    line = np.arctan2(feet, along)  # the leg's line leans back from the rails by this
    shank = (
        np.arctan2(body.thigh_m * np.sin(bend), body.shank_m + body.thigh_m * np.cos(bend)) - line
    )
    knee = spread(
        ankle + body.shank_m * (up_rail * np.cos(shank) + forward * np.sin(shank)), (2, *shape)
    )
    towards_toe = forward * np.cos(tilt) - up_rail * np.sin(tilt)
    away = -(up_rail * np.cos(tilt) + forward * np.sin(tilt))
    foot = Foot(body, ankle, towards_toe, away)
    add_leg(motion, body, foot, knee, hip, legs=2)
    trunk = Trunk(body=body, hip=hip, lean=spread(rail - 90 * DEG, shape))
    add_upper_body(motion, trunk, one_piece=lift.exercise.one_piece)
    _sled(motion, loads, rail, along, up_rail, trunk.shoulder, lowering=lift.lowering)
    sole = spread(foot.sole(pressure_m(body, o["pressure"])), (2, *shape))
    pad = spread(hip + np.atleast_2d(o["pad_at"]) * (trunk.shoulder - hip), (2, *shape))
    square = spread(forward, (2, *shape))
    motion.close(lambda moved: support(moved, pad, square, sole, "back_n"))
    motion.points |= {"shoulder": trunk.shoulder, "pressure": sole, "pad": pad}
    # the toes tilted away open the ankle
    ankle_bend = motion.full(shank - tilt)
    motion.angles |= {
        "knee": motion.full(bend),
        "hip": motion.full(bend - shank),
        "ankle": ankle_bend,
    }
    motion.fail(
        ankle_bend > limits.dorsiflexion + 1e-9,
        Said(
            "ankle limit {angle} passed: feet further ahead",
            angle=Angle.of_deg(limits.dorsiflexion_deg),
        ),
    )
    motion.path_travel = motion.full(along - along[..., :1])
    motion.assumptions += [
        Said(
            "Quasi-static and in the side view; the back lies on the pad, which runs without "
            "friction square to the rails."
        ),
        Said("The shoulder pads carry the sled along the rails."),
    ]
    return motion


def _sled(
    motion: Motion,
    loads: Sequence[Load],
    rail: Array,
    along: Array,
    up_rail: Array,
    shoulder: Array,
    *,
    lowering: bool,
) -> None:
    """Add the force on the shoulders along the rails from sled, bands and cables; book their
    energy.
    """
    total: Array = np.zeros(motion.shape)
    shoulder = spread(shoulder, (2, *motion.shape))
    for index, load in enumerate(loads):
        if isinstance(load, Sled):
            force = motion.full(load.along_rail_n(rail, lowering=lowering))
            motion.load_gravity.append(partial(np.multiply, load.total_kg * G, shoulder[1]))
            friction = load.friction_n(rail)
            motion.friction_work_j = motion.friction_work_j + motion.full(
                friction * (along - along[..., :1])
            )
            motion.inertias.append(
                Inertia(
                    segment="trunk",
                    point=shoulder,
                    kg=np.asarray(load.total_kg),
                    towards=up_rail,
                    travel=along,
                )
            )
        elif isinstance(load, Line) and load.on_parts and load.port in ("sled", "pad"):
            pull = load.force(shoulder, lowering=lowering)
            force = -(pull[0] * up_rail[0] + pull[1] * up_rail[1])
            book_pull(motion, index, load, shoulder, "trunk")
        else:
            raise InputError(
                f"/loads/{index}/kind", load.kind, Said("a sled, or a band or cable on the sled")
            )
        motion.add_force("trunk", shoulder, -force * up_rail, f"load {index}")
        total = total + force
    motion.path_force = total
    motion.notice(
        "sled-pulled-away",
        Said("the bands lift the sled off the shoulders in part of the range"),
        np.any(total < 0, axis=1),
    )


def support(motion: Motion, contact: Array, square: Array, sole: Array, mark: str) -> None:
    """Add a pad's push along `square` at `contact`, from moments about the sole, and the feet's
    force; mark it, N.
    """
    push = -motion.moment_about(sole) / cross(contact - sole, square)
    motion.add_force("trunk", contact, push * square, "contact pad")
    motion.add_force("foot", sole, -motion.total_force(), "contact foot")
    motion.marks[mark] = push
