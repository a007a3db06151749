"""Knee rotation: the thigh is held, the shank swings about the knee; seated, lying prone or
standing.

Closure: the hip is held by seat or pad, so only the knee's demand is had, from the shank's side.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import partial
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body
from widearc.core.equipment import Lever, Load, Stack
from widearc.core.errors import InputError
from widearc.core.geometry import slope, spread
from widearc.core.movement.legs import TOE, Foot, add_leg, flat
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import add_couple_of_stack, attach
from widearc.core.movement.motion import Inertia, Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.units import DEG, to_deg
from widearc.core.words import Distance, Said

FAMILY = "knee rotation"

THIGH_ANGLE = {
    "seated": 0.0,
    "prone": 180 * DEG,
    "standing": -90 * DEG,
}  # thigh, hip to knee, from level


DUMBBELL_BELOW_M = 0.05  # how far a dumbbell held by the feet hangs below the soles (assumed)
FREE_OF_FLOOR_M = 0.02
FARTHEST_PIVOT_M = 0.2  # a lever's pivot from the knee: further off it is another machine


def solve(lift: Lift) -> Motion:
    """Return the motion of a leg extension or curl for options `o` (radians, metres)."""
    body, o, loads, position = lift.body, lift.o, lift.loads, lift.position
    bends = bool(np.all(np.asarray(o["knee_to"]) > np.asarray(o["knee_from"])))
    # a pad laid before the shin pad: the same lever meets a knee that is more bent (a curl: less
    # bent)
    extra = np.arctan2(np.atleast_2d(o["pad_extra"]), np.atleast_2d(o["pad"]))
    start = np.atleast_2d(o["knee_from"]) + (0.0 if bends else 1.0) * extra
    shift = extra if bends else -extra
    knee_bend = start + (np.atleast_2d(o["knee_to"]) - start) * position
    shape = lift.shape(knee_bend)
    legs = int(o["legs"])
    motion = lift.motion(shape, legs=legs, complete=False)
    thigh = THIGH_ANGLE[lift.exercise.variant or "seated"]
    hip = spread(flat(0.0, o["seat"]), (2, *shape))
    knee = hip + body.thigh_m * slope(np.full((1, 1), thigh))
    # bending turns the shank clockwise from the thigh's line, seen with the body facing +x
    shank = slope(thigh - knee_bend)
    foot = Foot(body, spread(knee + body.shank_m * shank, (2, *shape)), _turned_left(shank), shank)
    add_leg(motion, body, foot, knee, hip, legs=legs)
    # straight, the trunk goes on from the thigh; bending the hip turns it clockwise; its lean is
    # from the vertical
    trunk_lean = 90 * DEG - (thigh + 180 * DEG - np.atleast_2d(o["hip"]))
    trunk = Trunk(body=body, hip=hip, lean=spread(trunk_lean, shape))
    add_upper_body(motion, trunk, one_piece=True)

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        if name == "ankle":
            return foot.ankle
        if name == "sole":
            return foot.sole(0.0)
        if name in ("shin-pad", "pad"):
            # five centimetres before the shank's line; behind it for a curl
            return (
                knee
                + np.atleast_2d(o["pad"]) * shank
                + (-0.05 if bends else 0.05) * _turned_left(shank)
            )
        raise InputError("/loads/port", name, Said("ankle, shin-pad or sole on a knee rotation"))

    _add_machine(
        motion,
        dict(o),
        loads,
        knee,
        shank,
        knee_bend,
        1.0 if bends else -1.0,
        shift,
        lowering=lift.lowering,
    )
    attach(motion, loads, place, lowering=lift.lowering, skip=("stack", "lever"), pad="shank")
    motion.points |= {"shoulder": trunk.shoulder}
    motion.angles |= {
        "knee": motion.full(knee_bend),
        "hip": motion.full(o["hip"]),
        "ankle": motion.full(0.0),
    }
    _note_floor(motion, body, foot)
    motion.assumptions += [
        Said("Quasi-static and in the side view; thighs held by seat or pad."),
        Said("The foot stays square to the shank."),
    ]
    return motion


def _turned_left(vector: Array) -> Array:
    """Return a vector turned by 90° anticlockwise: from the shank's line to the toes."""
    return np.stack((-vector[1], vector[0]))


def _add_machine(
    motion: Motion,
    o: Mapping[str, Any],
    loads: Sequence[Load],
    knee: Array,
    shank: Array,
    bend: Array,
    lifts: float,
    shift: Array,
    *,
    lowering: bool,
) -> None:
    """Add stacks and levers, which meet the shank through a pad that slides along it without
    friction.

    The pad keeps its distance from the machine's pivot; where that is off the knee it slides, and
    the machine's moment reaches the knee by the ratio of their turns.
    """
    pad, turn = _pad(motion, o, knee, shank, flat(o["pivot_x"], o["pivot_y"]))
    for index, load in enumerate(loads):
        if isinstance(load, Stack):
            add_couple_of_stack(
                motion, load, "shank", bend, bend + shift, -lifts, lowering=lowering, gear=turn
            )
        elif isinstance(load, Lever):
            off = load.pivot_m - knee
            if np.any(np.hypot(off[0], off[1]) > FARTHEST_PIVOT_M):
                raise InputError(
                    f"/loads/{index}/pivot",
                    load.pivot,
                    Said("within {distance} of the knee", distance=Distance(FARTHEST_PIVOT_M)),
                )
            radius = (
                np.full((1, 1), load.user_arm_m) if load.user_arm_m else np.atleast_2d(o["pad"])
            )
            pad, _ = _pad(motion, {"pad": radius}, knee, shank, off)
            _add_lever(motion, index, load, pad, shank, lifts)
    motion.points["pad"] = spread(pad, (2, *motion.shape))


def _pad(
    motion: Motion, o: Mapping[str, Any], knee: Array, shank: Array, off: Array
) -> tuple[Array, Array | float]:
    """Return the pad's place on the shank's line (m) and the machine's turn per turn of the knee.

    off: from the knee to the machine's pivot, m.
    """
    far = np.atleast_2d(o["pad"])
    if not np.any(off):
        return knee + far * shank, 1.0
    # |p·u - off| = r with r as at the middle of the range
    middle = shank[..., shank.shape[-1] // 2][..., None]
    radius = np.hypot(*(far * middle - off))
    along = off[0] * shank[0] + off[1] * shank[1]
    inside = radius**2 - (off[0] ** 2 + off[1] ** 2) + along**2
    motion.fail(
        motion.full(inside) <= 0,
        Said("the pad leaves the shank: the machine's pivot is too far from the knee"),
    )
    p = along + np.sqrt(np.maximum(inside, 1e-9))
    slide = np.ptp(motion.full(p), axis=1)
    motion.marks["pad_slide_m"] = spread(slide[:, None], motion.shape)
    motion.notice(
        "pad-slides",
        Said("the pad slides along the shin: the machine's pivot is off the knee"),
        slide > 0.02,
    )
    # the force square to the shank at the pad: p per newton at the knee, its arm about the pivot at
    # the machine
    arm = p * shank - off
    about_pivot = np.abs(arm[0] * shank[0] + arm[1] * shank[1])
    return knee + p * shank, p / np.maximum(about_pivot, 1e-6)


def _add_lever(
    motion: Motion, index: int, lever: Lever, pad: Array, shank: Array, lifts: float
) -> None:
    """Add a lever's pad force, square to the shank and against the lift."""
    turn = lever.turned(lever.angle_at(pad))
    arm = pad - lever.pivot_m
    # with the lift: a straightening shank turns anticlockwise, a bending one clockwise
    square = -lifts * np.stack((-shank[1], shank[0]))
    reach = arm[0] * square[1] - arm[1] * square[0]
    away = np.where(np.abs(reach) < 1e-6, 1e-6, np.abs(reach))
    force = -lever.moment_nm(turn) / away * square
    motion.add_force("shank", pad, force, f"load {index}")
    motion.load_gravity.append(partial(lever.energy_j, turn))
    radius = np.maximum(np.hypot(arm[0], arm[1]), 1e-3)
    motion.inertias.append(
        Inertia(
            segment="shank",
            point=pad,
            kg=lever.inertia_kgm2 / radius**2,
            towards=square,
            travel=turn * radius,
        )
    )


def clear_of_floor_deg(body: Body, seat_m: float) -> float:
    """Return the knee bend (degrees, 0 to 130) up to which feet and dumbbell stay clear of the
    floor.

    seat_m: height of the hip's centre, m. A dumbbell is taken to hang 5 cm below the soles
    (assumed).
    """
    bend = np.linspace(0.0, 130.0, 1301) * DEG
    lowest = _lowest_below_knee(body, bend)
    clear = seat_m - lowest >= FREE_OF_FLOOR_M
    return float(to_deg(bend[clear].max())) if clear.all() or clear[0] else 0.0


def _lowest_below_knee(body: Body, bend: Array) -> Array:
    """Return how far feet and dumbbell reach below the knee, m."""
    shank = (body.shank_m + body.ankle_height_m) * np.sin(bend)
    heel = body.sole_m(-0.23) * -np.cos(bend)
    return np.asarray(
        np.maximum(shank + np.maximum(heel, 0.0), shank + DUMBBELL_BELOW_M * np.sin(bend))
    )


def _note_floor(motion: Motion, body: Body, foot: Foot) -> None:
    low = np.minimum(foot.sole(body.sole_m(-0.23))[1], foot.sole(body.sole_m(TOE))[1])
    motion.notice(
        "feet-touch-floor",
        Said("the feet would touch the floor at the bent end: sit higher or start less bent"),
        np.any(motion.full(low) < 0.0, axis=1),
    )
