"""Thigh spread: seated, the thighs open, or close, against a band, a pad or a lever.

Closure: seen from above (x to the side of the working leg, y forward), so that gravity does not
act; both legs alike, the seat carries everything else. Demand per leg about the hip.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body.segments import HIP_CENTRE
from widearc.core.equipment import Band, Stack
from widearc.core.errors import InputError
from widearc.core.geometry import spread, vec
from widearc.core.movement.lift import Lift
from widearc.core.movement.loading import add_couple_of_stack, attach, book
from widearc.core.movement.motion import Motion
from widearc.core.words import Said

FAMILY = "thigh spread"

PORT_AT = 0.9  # of hip to knee


SHARE_OF_READINGS = {"one thigh": 1.0, "both": 0.5}
READINGS_SAY = {
    1.0: Said("The stack’s readings are taken to be for one thigh, the other pad held."),
    0.5: Said("The stack’s readings are taken to be for both thighs: each answers half."),
}


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians) at `position` (1, samples)."""
    body, loads = lift.body, lift.loads
    opened = lift.through("abduction")
    shape = lift.shape(opened)
    motion = lift.motion(shape, legs=1, complete=False)
    opened = spread(opened, shape)
    half = HIP_CENTRE * body.stature_m
    hip = spread(vec(np.full((1, 1), half), np.zeros((1, 1))), (2, *shape))
    # opening turns the right thigh clockwise seen from above; the picture is mirrored so that it is
    # anticlockwise
    along = np.stack((-np.sin(opened), np.cos(opened)))
    hip = hip * np.array([-1.0, 1.0])[:, None, None]
    knee = hip + body.thigh_m * along
    port = hip + PORT_AT * body.thigh_m * along

    def place(name: str) -> Array:
        """Return a port's point, m (2, set-ups, samples); InputError for a port that is not
        there.
        """
        if name not in ("thigh", "pad"):
            raise InputError("/loads/port", name, Said("thigh when the thighs open"))
        return np.asarray(port)

    motion.angles["hip_abduction"] = opened
    motion.points |= {"hip": hip, "knee": knee, "pad": port}
    loops = set()
    for index, load in enumerate(loads):
        if isinstance(load, Stack):
            share = SHARE_OF_READINGS[lift.o.get("readings_for", "one thigh")]
            way = 1.0 if np.all(opened[..., -1] >= opened[..., 0]) else -1.0
            add_couple_of_stack(
                motion, load, "thigh", opened, opened, way, lowering=lift.lowering, gear=share
            )
            motion.assumptions.append(READINGS_SAY[share])
        elif isinstance(load, Band) and load.anchor_port:
            _loop(motion, index, load, port, lowering=lift.lowering)
            loops.add(index)
        elif not load.sideways:
            allowed = Said("a band, cable, lever, spring or stack: weight does not act sideways")
            raise InputError(f"/loads/{index}/kind", load.kind, allowed)
    attach(
        motion, loads, place, lowering=lift.lowering, skip=("stack",), pad="thigh", handled=loops
    )
    motion.assumptions += [
        Said(
            "Quasi-static and seen from above: gravity does not act, trunk upright or "
            "leaning changes nothing here."
        ),
        Said(
            "Both legs alike; the seat carries the rest. A loop lies at nine tenths of the thigh."
        ),
    ]
    return motion


def _loop(motion: Motion, index: int, band: Band, port: Array, *, lowering: bool) -> None:
    """Add a loop round both thighs: each is pulled towards the other; half its energy is this
    leg's.
    """
    length = 2.0 * np.abs(port[0])
    pull = band.tension_n(length, lowering=lowering)
    motion.add_force("thigh", port, vec(pull, np.zeros(motion.shape)), f"load {index}")
    stored = band.stores_along(length, np.zeros((2, *motion.shape)))
    book(motion, index, stored, port, "thigh")
    motion.load_elastic[-1] = lambda: 0.5 * band.energy_j(length)
