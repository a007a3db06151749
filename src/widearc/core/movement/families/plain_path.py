"""Plain path: a handle moved along a straight line; only the handle's force is computed."""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import InputError
from widearc.core.geometry import slope, spread, vec
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import attach
from widearc.core.movement.motion import Motion
from widearc.core.words import Said

FAMILY = "plain path"


def solve(lift: Lift) -> Motion:
    """Return the path for options `o` (radians, metres) at `position` (1, samples): travel m and
    handle force N.
    """
    o, loads, position = lift.o, lift.loads, lift.position
    shape = lift.shape()
    motion = lift.motion(shape, legs=2, complete=False)
    travel = np.atleast_2d(o["travel"]) * position
    way = slope(np.atleast_2d(o["direction"]))
    hand = spread(
        vec(np.atleast_2d(o["start_x"]), np.atleast_2d(o["start_y"])) + travel * way, (2, *shape)
    )

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        if name not in ("hands", "shoulders"):
            raise InputError("/loads/port", name, Said("hands on a plain path"))
        return hand

    attach(motion, loads, place, lowering=lift.lowering)
    motion.points["hand"] = hand
    motion.path_travel = motion.full(travel)
    along: Array = np.zeros(motion.shape)
    for item in motion.forces:
        along = along - (item.force[0] * way[0] + item.force[1] * way[1])
    motion.path_force = along
    motion.assumptions.append(
        Said("Quasi-static; only the force along the hands' straight path, without the body.")
    )
    return motion
