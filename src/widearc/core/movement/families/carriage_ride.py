"""A carriage along its travel: what its springs and friction do, and the legs that stand on it."""

from __future__ import annotations

from functools import partial

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import Body, Limits
from widearc.core.equipment import Line, Load, Sled, SpringLoad
from widearc.core.errors import InputError
from widearc.core.geometry import flexion_for, lean, spread, vec
from widearc.core.movement.legs import Foot
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import book_pull
from widearc.core.movement.motion import Inertia, Motion
from widearc.core.units import G
from widearc.core.words import Angle, Length, Said

HANDS_ON = ("carriage", "sled")


class Ride:
    """The carriage along its travel, and what its springs and friction do."""

    def __init__(self, lift: Lift, foot_x: Array, way: float) -> None:
        self.exercise, self.body, self.o = lift.exercise, lift.body, lift.o
        self.loads, self.position, self.lowering = lift.loads, lift.position, lift.lowering
        self.foot_x, self.way = foot_x, way
        self.shape = (foot_x.shape[0], foot_x.shape[1])
        self.helps = self.o["spring_side"] == "help"

    @property
    def spring_travel(self) -> Array:
        """Return the springs' travel, m: from the first mark at the end where they pull least."""
        gone = np.abs(self.foot_x - self.foot_x[..., :1])
        return gone[..., -1:] - gone if self.helps else gone

    @property
    def on_carriage(self) -> list[int]:
        """Return the numbers of the loads that act on the carriage."""
        return [
            i
            for i, load in enumerate(self.loads)
            if getattr(load, "port", "carriage") in HANDS_ON or isinstance(load, Sled)
        ]

    @property
    def at_body(self) -> list[Load]:
        """Return the other loads: at ports of the body."""
        return [load for i, load in enumerate(self.loads) if i not in self.on_carriage]

    def refuse_others(self) -> None:
        """Refuse loads at the body where only the carriage bears any."""
        for i, load in enumerate(self.loads):
            if i not in self.on_carriage:
                raise InputError(
                    f"/loads/{i}/port", getattr(load, "port", ""), Said("springs on the carriage")
                )

    def _book_sled(self, motion: Motion, load: Sled, rub: Array) -> None:
        """Book the work that rubbing (N) takes, and the carriage's mass."""
        gone = np.abs(self.foot_x - self.foot_x[..., :1])
        steps = 0.5 * (rub[:, 1:] + rub[:, :-1]) * np.diff(gone, axis=1)
        rubbed = np.concatenate((np.zeros((motion.shape[0], 1)), np.cumsum(steps, axis=1)), axis=1)
        motion.friction_work_j = motion.friction_work_j + rubbed
        motion.inertias.append(
            Inertia(
                segment="sled",
                point=motion.points["pressure"],
                kg=np.asarray(load.total_kg),
                towards=vec(np.ones((1, 1)), np.zeros((1, 1))),
                travel=self.foot_x,
            )
        )

    def push_on_foot(self, motion: Motion, carried: Array) -> Array:
        """Return the carriage's level force on the foot (N, +x forward), booking springs, mass and
        friction.

        carried: the weight on the carriage (N).
        """
        with_lift = -1.0 if not self.helps else 1.0  # the springs' pull along the lift's way
        total: Array = np.zeros(motion.shape)
        for index, load in enumerate(self.loads):
            if isinstance(load, SpringLoad) and load.port in HANDS_ON:
                travel = self.spring_travel
                total = total + with_lift * load.tension_n(travel) * self.way
                motion.load_lengths[index] = motion.full(travel)
                motion.load_elastic.append(partial(load.energy_j, travel))
                motion.fail(
                    motion.full(load.past_stop(travel)) > 0,
                    Said(
                        "the spring passes its stop at {distance}",
                        distance=Length(load.spring.travel_m),
                    ),
                )
            elif isinstance(load, Line) and load.on_parts and load.port in HANDS_ON:
                point = np.stack((self.foot_x, np.zeros(motion.shape)))
                total = total + load.force(point, lowering=self.lowering)[0]
                book_pull(motion, index, load, point, "foot")
            elif isinstance(load, Sled):
                rub = load.friction * (load.total_kg * G + carried)
                total = total + (1.0 if self.lowering else -1.0) * rub * self.way
                self._book_sled(motion, load, rub)
        motion.path_force = -total * self.way
        return np.asarray(total)


def leg_between(body: Body, hip: Array, ankle: Array) -> tuple[Array, Array, Array, BoolArray]:
    """Return knee (m), knee bend, shank lean (rad) of a leg between hip and ankle, knee ahead; and
    where it reaches.
    """
    gap = hip - ankle
    far = np.hypot(gap[0], gap[1])
    bend = flexion_for(body.thigh_m, body.shank_m, far)
    reached = np.isfinite(bend)
    bend = np.nan_to_num(bend)
    shank = np.arctan2(gap[0], gap[1]) + at_ankle(body, bend)
    return ankle + body.shank_m * lean(shank), bend, shank, reached


def at_ankle(body: Body, bend: Array) -> Array:
    """Return the angle (rad) at the ankle between shank and line to the hip, for a knee bend
    (rad).
    """
    return np.asarray(
        np.arctan2(body.thigh_m * np.sin(bend), body.shank_m + body.thigh_m * np.cos(bend))
    )


def flat_foot(body: Body, ankle: Array) -> Foot:
    """Return the foot flat on the carriage with its ankle at a point, m (2, …)."""
    return Foot(
        body, ankle, vec(np.ones((1, 1)), np.zeros((1, 1))), vec(np.zeros((1, 1)), -np.ones((1, 1)))
    )


def ride_of(lift: Lift, way: float) -> Ride:
    """Return the ride whose foot goes `way` (+1 forward); InputError for what a
    carriage refuses.
    """
    o, (rows, samples) = lift.o, lift.shape()
    foot_x = spread(
        np.atleast_2d(o["start"]) + way * np.atleast_2d(o["travel"]) * lift.position,
        (rows, samples),
    )
    for index, load in enumerate(lift.loads):
        on_it = getattr(load, "port", "") in HANDS_ON
        if on_it and not (isinstance(load, SpringLoad) or load.on_parts):
            allowed = Said("springs, a band, a cable or a sled on the carriage")
            raise InputError(f"/loads/{index}/kind", load.kind, allowed)
    return Ride(lift, foot_x, way)


def finish(motion: Motion, ride: Ride, limits: Limits | None) -> Motion:
    """Return a motion with its travel, refused where the client's joints end (None: not asked)."""
    if limits is not None:
        knee = Said(
            "knee limit {angle} passed: start further out", angle=Angle.of_deg(limits.knee_deg)
        )
        motion.fail(motion.angles["knee"] > limits.knee + 1e-9, knee)
        hip = Said("hip limit {angle} passed", angle=Angle.of_deg(limits.hip_flexion_deg))
        motion.fail(motion.angles["hip"] > limits.hip_flexion + 1e-9, hip)
    motion.path_travel = motion.full(np.abs(ride.foot_x - ride.foot_x[..., :1]))
    return motion
