"""Sled press: hip and backrest fixed, the foot rides a plate along straight rails.

Closure: the sled's force along the rails is known; square to them the feet add a share, by default
half (option), of the push of least effort, t = -Σ(M0·c/S²)/Σ(c²/S²) over hip, knee and ankle,
clipped to ±0.3 of the rail force. S is the default strength curve without any client's scale, so
that no demand depends on logged sets. t does no work. The force acts at the pressure point. With
none of it the feet's height would decide nearly all between hip and knee, with the whole nearly
nothing; practice lies between.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body, Limits
from widearc.core.equipment import Line, Load, Sled
from widearc.core.errors import InputError
from widearc.core.geometry import slope, spread, third_side
from widearc.core.movement.effort import Push, least_effort_n
from widearc.core.movement.legs import Foot, add_leg, flat, pressure_m
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import book_pull
from widearc.core.movement.motion import LEG_JOINTS, Inertia, Motion
from widearc.core.movement.trunk import Trunk, add_upper_body
from widearc.core.units import DEG, G, to_deg
from widearc.core.words import Angle, Said, Term, Times

FAMILY = "sled press"

PUSH_SHARE = 0.3
PUSHES = {"none": 0.0, "least-effort": 1.0}


def solve(lift: Lift) -> Motion:
    """Return the press's motion for options `o` (radians, metres) at `position` (1, samples)."""
    body, limits, o, loads = lift.body, lift.limits, lift.o, lift.loads
    knee_bend = lift.through("knee")
    reach = third_side(body.thigh_m, body.shank_m, knee_bend)
    rail, tilt, height = (np.atleast_2d(o[name]) for name in ("rail", "plate_tilt", "foot_height"))
    along = np.sqrt(np.maximum(reach**2 - height**2, 0.0))
    up_rail, square = slope(rail), slope(rail + 90 * DEG)
    towards_toe = square * np.cos(tilt) + up_rail * np.sin(tilt)
    away = up_rail * np.cos(tilt) - square * np.sin(tilt)

    shape = lift.shape(reach)
    legs = int(o["legs"])
    motion = lift.motion(shape, legs=legs, complete=False)
    hip = flat(0.0, o["seat"])
    ankle = hip + along * up_rail + height * square
    thigh_angle = rail + np.arctan2(height, along) + _angle_at_hip(body, knee_bend)
    knee = hip + body.thigh_m * slope(thigh_angle)
    hip, ankle, knee = (spread(p, (2, *shape)) for p in (hip, ankle, knee))
    foot = Foot(body, ankle, towards_toe, away)
    add_leg(motion, body, foot, knee, hip, legs=legs)

    # the trunk lies back: leaning backwards from the vertical by what the backrest is short of
    # upright
    back_lean = spread(np.atleast_2d(o["backrest"]) - 90 * DEG, shape)
    trunk = Trunk(body=body, hip=hip, lean=back_lean)
    add_upper_body(motion, trunk, one_piece=lift.exercise.one_piece)
    motion.angles |= {
        "knee": motion.full(knee_bend),
        "hip": motion.full(thigh_angle + o["backrest"]),
        "ankle": motion.full(knee_bend + rail - thigh_angle - tilt),
    }
    _refuse_ankle(motion, limits)

    plate = ankle + body.ankle_height_m * away
    sole = spread(foot.sole(pressure_m(body, o["pressure"])), (2, *shape))
    rails = _Rails(motion.shape, loads, rail, along, plate, up_rail, square)
    rails.book(motion, o["seat"], height)
    share = np.atleast_2d(PUSHES[o["push"]] if isinstance(o["push"], str) else o["push"])
    motion.close(lambda moved: _on_plate(moved, rails, body, sole, share, lowering=lift.lowering))
    if rails.rubs:
        work = motion.marks["rail_rub_n"] * np.sign(1 if not lift.lowering else -1)
        steps = 0.5 * (work[:, 1:] + work[:, :-1]) * np.diff(motion.full(along), axis=1)
        motion.friction_work_j = np.concatenate(
            (np.zeros((shape[0], 1)), np.cumsum(steps, axis=1)), axis=1
        )
    motion.path_travel = motion.full(along - along[..., :1])
    motion.points |= {
        "shoulder": trunk.shoulder,
        "pressure": motion.full(sole),
        "plate": motion.full(plate),
    }
    motion.assumptions += [
        Said("Quasi-static and in the side view; hip and back do not move on the pad."),
        _push_says(share),
        Said("A foot can also push across the plate: how much, nobody knows."),
    ]
    return motion


def _push_says(share: Array) -> Said:
    if not np.any(share):
        return Said("The feet push along the rails only.")
    part = NAMED.get(float(share.max()), OTHER) if np.ptp(share) == 0 else OTHER
    return Said(
        "The feet add {part} square to the rails that costs the least effort, at most {most} of "
        "the rail force.",
        part=Term(part),
        most=Times(PUSH_SHARE),
    )


NAMED = {1.0: "the push", 0.5: "half of the push"}
OTHER = "a share of the push"


def _angle_at_hip(body: Body, knee_bend: Array) -> Array:
    """Return the angle (rad) at the hip between the thigh and the line from hip to ankle."""
    return np.arctan2(
        body.shank_m * np.sin(knee_bend), body.thigh_m + body.shank_m * np.cos(knee_bend)
    )


def _refuse_ankle(motion: Motion, limits: Limits) -> None:
    """Fail set-ups that pass the ankle's limit, naming the depth that is still possible."""
    over = motion.angles["ankle"] > limits.dorsiflexion + 1e-9
    for row in np.flatnonzero(over.any(axis=1)):
        fine = to_deg(motion.angles["knee"][row][~over[row]])
        still = (
            Said(
                "possible up to {angle} of knee bend",
                angle=Angle.of_deg(float(np.floor(fine.max()))),
            )
            if fine.size
            else Said("not possible at any depth")
        )
        mask = np.zeros(motion.shape, dtype=bool)
        mask[row] = over[row]
        motion.fail(
            mask,
            Said(
                "ankle limit {angle} passed; {still}, or set the feet higher",
                angle=Angle.of_deg(limits.dorsiflexion_deg),
                still=still,
            ),
        )


def _on_sled(load: Load) -> bool:
    """Return whether a load is a band or cable that pulls at the sled."""
    return isinstance(load, Line) and load.on_parts and load.port == "sled"


class _Rails:
    """What acts on the sled: its weight, what pulls at it, and the friction that the push across
    the rails adds to.
    """

    def __init__(
        self,
        shape: tuple[int, int],
        loads: Sequence[Load],
        rail: Array,
        along: Array,
        plate: Array,
        up_rail: Array,
        square: Array,
    ) -> None:
        self.shape, self.loads, self.rail, self.along = shape, loads, rail, along
        self.plate, self.up_rail, self.square = spread(plate, (2, *shape)), up_rail, square
        for index, load in enumerate(loads):
            if not (isinstance(load, Sled) or _on_sled(load)):
                allowed = Said("a sled, or a band or cable on the sled")
                raise InputError(f"/loads/{index}/kind", load.kind, allowed)

    @property
    def rubs(self) -> bool:
        """Return whether any sled has friction."""
        return any(isinstance(load, Sled) and load.friction > 0 for load in self.loads)

    def book(self, motion: Motion, seat: Array | float, height: Array) -> None:
        """Book the energy and inertia of sled and pulls."""
        for index, load in enumerate(self.loads):
            if isinstance(load, Sled):
                sled_height = seat + self.along * np.sin(self.rail) + height * self.square[1]
                motion.load_gravity.append(partial(np.multiply, load.total_kg * G, sled_height))
                motion.inertias.append(
                    Inertia(
                        segment="sled",
                        point=self.plate,
                        kg=np.asarray(load.total_kg),
                        towards=self.up_rail,
                        travel=self.along,
                    )
                )
            elif isinstance(load, Line):
                book_pull(motion, index, load, self.plate, "sled")

    def frictionless_n(self, *, lowering: bool) -> tuple[Array, Array]:
        """Return the force down the rails and the one pressing square on them, both without
        friction, N.
        """
        down: Array = np.zeros(self.shape)
        press: Array = np.zeros(self.shape)
        for load in self.loads:
            if isinstance(load, Sled):
                down = down + load.total_kg * G * np.sin(self.rail)
                press = press + load.total_kg * G * np.cos(self.rail)
            elif isinstance(load, Line):
                pull = load.force(self.plate, lowering=lowering)
                down = down - (pull[0] * self.up_rail[0] + pull[1] * self.up_rail[1])
                press = press - (pull[0] * self.square[0] + pull[1] * self.square[1])
        return down, press

    @property
    def friction(self) -> float:
        """Return the greatest coefficient of the sleds."""
        return max((load.friction for load in self.loads if isinstance(load, Sled)), default=0.0)


def _on_plate(
    motion: Motion, rails: _Rails, body: Body, sole: Array, share: Array, *, lowering: bool
) -> None:
    """Add the plate's force on the feet: what acts down the rails with friction, and the share of
    the push of least effort across them.
    """
    down, press = rails.frictionless_n(lowering=lowering)
    for inertia, speeding in motion.speeding:
        if inertia.segment == "sled":
            down = down + speeding
    rail_force, push = down, np.zeros(motion.shape)
    with_force, alone = _least_effort(motion, body, sole, rails) if np.any(share) else (0.0, 0.0)
    # friction depends on the push and the push on the rail force: a contraction, since the
    # coefficient is under 1
    for _ in range(12 if rails.friction else 1):
        most = PUSH_SHARE * np.abs(rail_force)
        push = motion.full(share * np.clip(rail_force * with_force + alone, -most, most))
        rub = rails.friction * np.abs(press - push)
        rail_force = down - rub if lowering else down + rub
    motion.marks |= {
        "push": motion.full(push),
        "rail_rub_n": motion.full(rails.friction * np.abs(press - push)),
    }
    motion.path_force = motion.full(rail_force)
    motion.notice(
        "sled-pulled-away",
        Said("the bands lift the sled off the feet in part of the range"),
        np.any(rail_force < 0, axis=1),
    )
    motion.add_force(
        "foot", sole, -rail_force * rails.up_rail - push * rails.square, "contact foot"
    )


def _least_effort(motion: Motion, body: Body, sole: Array, rails: _Rails) -> tuple[Array, Array]:
    """Return the push across the rails towards the toes that costs least: N per newton of rail
    force, and N besides.

    The plate answers with its opposite. Not bounded yet.
    """
    square, along = (
        spread(-rails.square, (2, *motion.shape)),
        spread(-rails.up_rail, (2, *motion.shape)),
    )
    own, per_newton = (
        least_effort_n(motion, body, (Push(LEG_JOINTS, sole, force, square),))
        for force in (np.zeros_like(along), along)
    )
    return per_newton - own, own
