"""What a way of loading is done on, and where its pivot or pegs lie from the body."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from types import MappingProxyType

import numpy as np

from widearc.core.body import Body, Limits
from widearc.core.equipment import FreeMass, Load
from widearc.core.exercises import Exercise, LoadWay
from widearc.core.geometry import slope
from widearc.core.kit import (
    MACHINES,
    Anchor,
    Kit,
    Machine,
    On,
    SledPress,
    lever_load,
    presses_for,
)
from widearc.core.movement import Setup, move
from widearc.core.setups.batch import Batch
from widearc.core.setups.unloaded import LoadedSetup
from widearc.core.units import DEG

PIVOT_BEHIND: Mapping[str, bool] = {
    "hip thrust machine": True,
    "standing calf": True,
    "seated calf": False,
    "belt squat lever": False,
}
"""Whether a lever's pivot lies behind the person or ahead (assumed, as most are built: common
practice, no source).
"""


def with_pivot(
    exercise: Exercise,
    way: tuple[LoadWay, ...],
    machine: Machine,
    bare: LoadedSetup,
    body: Body,
    limits: Limits,
    middle_kg: float,
) -> Machine:
    """Return a lever machine with its pivot placed (m in the room): where its arm meets the body at
    the start.

    So far from the pad and so high over level as it was measured; an arc squat's place is in its
    options.
    """
    q = machine.quantities
    if exercise.family == "arc squat":
        x, y = (
            float(bare.options.get(name, exercise.options[name].usual(body.stature_m)))
            for name in ("pivot_x_m", "pivot_y_m")
        )
    else:
        port = next(part.port for part in way if part.stock == "lever")
        arm = q.get("user_arm_m", 0.4) * slope(q.get("angle_deg", 0.0) * DEG)
        arm = arm if PIVOT_BEHIND[machine.kind] else arm * np.array([-1.0, 1.0])
        load: Load = FreeMass(kg=0.0, port=port)
        # a standing body leans with its load: a second round brings pivot and shoulders within some
        # 2 cm
        for _ in range(2 if exercise.family == "calf" and exercise.variant == "" else 1):
            tried = Setup(
                exercise=exercise,
                body=body,
                limits=limits,
                options=bare.options,
                samples=11,
                loads=(load,),
            )
            motion = move(tried, strict=False)
            point = next(
                motion.full(f.point)[:, 0, 0] for f in motion.forces if f.source == "load 0"
            )
            x, y = (float(v) if np.isfinite(v) else 0.0 for v in point - arm)
            load = lever_load(machine, (x, y), middle_kg, port)
    # a set-up that cannot be had is placed anywhere: it fails by itself, with its own reason
    return replace(machine, quantities=MappingProxyType({**q, "pivot_x_m": x, "pivot_y_m": y}))


def with_pegs(
    exercise: Exercise,
    way: tuple[LoadWay, ...],
    press: SledPress,
    unloaded: Sequence[LoadedSetup],
    body: Body,
    limits: Limits,
) -> tuple[LoadedSetup, ...]:
    """Return set-ups with the press's own peg as the anchor of their band: so far down the rails
    from the plate.
    """
    assert press.peg_m is not None
    sled = tuple(part for part in way if part.stock == "sled")
    bare = Batch(exercise=exercise, way=sled, unloaded=unloaded, machine=press).setup(
        body, limits, unloaded, samples=11
    )
    start = move(bare, strict=False).points["plate"][..., 0]
    x, y = start - press.peg_m * slope(press.rail_deg * DEG)[:, None]
    return tuple(
        replace(
            bare,
            anchor=(
                Anchor(id=press.id, name="the press's frame", height_m=float(y[i])),
                float(x[i]),
            ),
        )
        for i, bare in enumerate(unloaded)
    )


def _machines(exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit) -> tuple[On, ...]:
    """Return the machines that a way of loading can be done on; (None,) where it needs none."""
    stocks = {w.stock for w in way}
    if "sled" in stocks:
        pegged = any(w.from_ == "frame" for w in way)
        return tuple(p for p in presses_for(exercise, kit) if p.peg_m is not None or not pegged)
    kinds = {MACHINES[need] for need in exercise.needs if need in MACHINES}
    if "cable" in stocks and not kinds:
        kinds = {"cable"}
    if stocks & {"stack", "cable", "hack", "rail", "corner", "spring", "lever", "pendulum"}:
        found = tuple(m for m in kit.machines if m.kind in kinds)
        if "stack" not in stocks:
            return found
        return tuple(replace(m, dial=dial) for m in found for dial, _ in m.dials)
    return (None,)
