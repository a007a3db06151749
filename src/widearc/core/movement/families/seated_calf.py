"""Calf raises with the hip held: seated with a load on the thighs, or on a sled press.

Closure, seated: hip and knee have no moment; the force at the ball follows from that. The seat has
the thighs level at the flat foot. On a press the legs keep still, the ball slides on the plate
without friction, and the sled's force acts at the ball along the rails.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body, Limits
from widearc.core.body import segments as s
from widearc.core.equipment import Line, Load, Sled
from widearc.core.errors import InputError
from widearc.core.exercises import Exercise, Options
from widearc.core.geometry import ahead, bracketed_root, lean, slope, spread, vec
from widearc.core.movement.legs import Foot, add_leg, flat
from widearc.core.movement.loading import attach, book_pull, load_shape
from widearc.core.movement.motion import Inertia, Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.units import DEG, G

FAMILY = "calf"
VARIANTS = (
    "seated",
    "press",
)


def solve(
    exercise: Exercise,
    body: Body,
    limits: Limits,
    o: Options,
    loads: Sequence[Load],
    position: Array,
    *,
    lowering: bool,
) -> Motion:
    """Return the motion for options `o` (radians, metres); exercise.variant "seated" or "press"."""
    bend = np.atleast_2d(o["ankle_from"] + (o["ankle_to"] - o["ankle_from"]) * position)
    shape = np.broadcast_shapes(bend.shape, load_shape(loads, o))
    motion = Motion(
        position=position.ravel(), shape=(shape[0], shape[1]), legs=int(o["legs"]), complete=False
    )
    bend = spread(bend, shape)
    make = _press if exercise.variant == "press" else _seated
    make(motion, exercise, body, o, loads, bend, lowering=lowering)
    motion.fail(
        bend > limits.dorsiflexion + 1e-9, f"ankle limit {limits.dorsiflexion_deg:.0f}° passed"
    )
    return motion


def _seated(
    motion: Motion,
    exercise: Exercise,
    body: Body,
    o: Options,
    loads: Sequence[Load],
    bend: Array,
    *,
    lowering: bool,
) -> None:
    shape, legs = motion.shape, motion.legs
    ball = flat(body.sole_m(s.BALL), o["step"])
    # at the flat foot the shank leans by what the knee's bend leaves of a right angle, thighs level
    shank_flat = np.atleast_2d(o["knee"]) - 90 * DEG
    knee_flat = flat(0.0, np.atleast_2d(o["step"]) + body.ankle_height_m) + body.shank_m * lean(
        shank_flat
    )
    hip = spread(knee_flat - flat(body.thigh_m, 0.0), (2, *shape))

    def knee_at(pitch: Array) -> tuple[Array, Array]:
        """Return knee and ankle, m, at a pitch of the foot (rad)."""
        ankle = ball - body.sole_m(s.BALL) * ahead(pitch) + body.ankle_height_m * lean(pitch)
        return ankle + body.shank_m * lean(bend + pitch), ankle

    def gap(pitch: Array) -> Array:
        """Return by how much the knee is further from the hip than a thigh, m."""
        knee, _ = knee_at(pitch)
        return np.asarray(np.hypot(*(knee - hip)) - body.thigh_m)

    # the heel rises as the ankle opens: near the branch on which pitch = -bend
    pitch, found = bracketed_root(gap, -bend - 25 * DEG, -bend + 25 * DEG, -bend)
    motion.fail(~found, "the seat cannot be reached at this ankle bend")
    knee, ankle = knee_at(pitch)
    add_leg(motion, body, Foot(body, ankle, ahead(pitch), -lean(pitch)), knee, hip, legs=legs)
    trunk = Trunk(body=body, hip=hip, lean=np.zeros(shape))
    add_upper_body(motion, trunk, one_piece=exercise.one_piece)
    on_thigh = hip + 0.9 * (knee - hip)

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        if name != "thigh":
            raise InputError("/loads/port", name, "thigh on a seated calf raise")
        return on_thigh

    attach(motion, loads, place, lowering=lowering)
    toe_point = spread(ball, (2, *shape))
    motion.close(lambda moved: _ball_force(moved, knee, hip, toe_point))
    thigh_angle = np.arctan2(knee[1] - hip[1], knee[0] - hip[0])
    motion.points |= {"shoulder": trunk.shoulder, "mtp": toe_point}
    motion.angles |= {
        "ankle": bend,
        "knee": motion.full(thigh_angle + 90 * DEG + bend + pitch),
        "hip": motion.full(thigh_angle + 90 * DEG),
        "mtp": motion.full(pitch),
    }
    motion.assumptions += [
        (
            "Quasi-static and in the side view; hip and knee bear no moment, the thighs are "
            "level at "
            "the flat foot."
        ),
        "The floor's force passes through the ball of the foot.",
    ]


def _ball_force(motion: Motion, knee: Array, hip: Array, ball: Array) -> None:
    """Add the force at the ball that leaves no moment at knee and hip."""
    shank_side = _moment(motion, knee, ("foot", "shank"))
    leg_side = _moment(motion, hip, ("foot", "shank", "thigh"))
    a, b = ball - knee, ball - hip
    # a × R = -shank_side, b × R = -leg_side
    determinant = a[0] * b[1] - a[1] * b[0]
    rx = (-shank_side * b[0] + leg_side * a[0]) / determinant
    ry = (-shank_side * b[1] + leg_side * a[1]) / determinant
    motion.add_force("toes", ball, vec(rx, ry), "contact ball")


def _moment(motion: Motion, point: Array, segments: tuple[str, ...]) -> Array:
    total: Array = np.zeros(motion.shape)
    for item in motion.forces:
        if item.segment in segments:
            r = item.point - point
            total = total + r[0] * item.force[1] - r[1] * item.force[0]
    for segment, moment, _ in motion.couples:
        if segment in segments:
            total = total + moment
    return total


def _press(
    motion: Motion,
    exercise: Exercise,
    body: Body,
    o: Options,
    loads: Sequence[Load],
    bend: Array,
    *,
    lowering: bool,
) -> None:
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
    add_upper_body(motion, trunk, one_piece=exercise.one_piece)
    ball = spread(foot.sole(body.sole_m(s.BALL)), (2, *shape))
    along = ball[0] * up_rail[0] + ball[1] * up_rail[1]
    # the plate keeps its line: what the ball slides across it does not move the sled
    plate = ball[..., :1] + (along - along[..., :1]) * up_rail
    for index, load in enumerate(loads):
        if isinstance(load, Sled):
            force = motion.full(load.along_rail_n(rail, lowering=lowering))
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
            pull = load.force(plate, lowering=lowering)
            force = -(pull[0] * up_rail[0] + pull[1] * up_rail[1])
            book_pull(motion, index, load, plate, "toes")
        else:
            raise InputError(
                f"/loads/{index}/kind", load.kind, "a sled, or a band or cable on the sled"
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
        (
            "Quasi-static and in the side view; the legs keep still, the ball slides on the plate "
            "without friction."
        ),
        "The sled's force acts along the rails at the ball of the foot.",
    ]
