"""A set-up and its motion: options resolved, limits applied, the family's solver called."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from types import MappingProxyType
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body, Limits
from widearc.core.catalogue import Exercise, Options, resolve
from widearc.core.equipment import Load
from widearc.core.errors import InputError, PostureError
from widearc.core.movement import knee_rotation, kneeling, press, split, stance
from widearc.core.movement.motion import Motion
from widearc.core.units import DEG, to_deg

FAMILIES = MappingProxyType(
    {
        "stance": stance.solve,
        "sled press": press.solve,
        "knee rotation": knee_rotation.solve,
        "split": split.solve,
        "kneeling": kneeling.solve,
    }
)
SAMPLES = 101
_CLOSE = 0.01 * DEG


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Setup:
    """One exercise in one or many set-ups: options in degrees and metres, numbers or (set-ups,) arrays.

    Loads may carry (set-ups, 1) arrays. samples 11 to 2001 along the lifting phase.
    """

    exercise: Exercise
    body: Body = field(default_factory=Body)
    limits: Limits = field(default_factory=Limits)
    options: Mapping[str, Any] = field(default_factory=dict)
    loads: Sequence[Load] = ()
    samples: int = SAMPLES
    resolved: Options = field(init=False, repr=False)

    def __post_init__(self) -> None:
        """Check what needs no mechanics: samples, options and ports; keep the options in SI as `resolved`."""
        object.__setattr__(self, "resolved", resolve(self.exercise.options, self.options))
        if not isinstance(self.samples, int) or not 11 <= self.samples <= 2001:
            raise InputError("/samples", self.samples, "a whole number from 11 to 2001")
        for index, load in enumerate(self.loads):
            port = getattr(load, "port", "sled")
            if port not in self.exercise.ports:
                raise InputError(f"/loads/{index}/port", port, "one of " + ", ".join(self.exercise.ports))


def move(setup: Setup, *, lowering: bool = False, strict: bool = True) -> Motion:
    """Return the motion of a set-up, its range cut where the client's joints end.

    lowering: with the loads of the way down (bands give back less, friction helps). strict: a set-up
    that cannot be reached or balanced raises PostureError; otherwise it is listed in `failed` and its
    arrays hold NaN or are meaningless.
    """
    options = dict(setup.resolved)
    position = np.linspace(0.0, 1.0, setup.samples)[None, :]
    cut_words = _cut_knee(setup, options)
    for _ in range(4):
        motion = FAMILIES[setup.exercise.family](
            setup.exercise, setup.body, setup.limits, options, setup.loads, position, lowering=lowering
        )
        key = "lean_from" if "lean_from" in options else "knee_from"
        shorter = _shorter_for_hip(motion, setup.limits, key)
        if shorter is None:
            break
        options[key] = shorter
        cut_words["hip"] = f"hip limit {setup.limits.hip_flexion_deg:.0f}°"
    _note_cuts(motion, cut_words, setup)
    if strict and motion.failed:
        raise PostureError(*motion.failed[min(motion.failed)])
    return motion


def _cut_knee(setup: Setup, options: dict[str, Any]) -> dict[str, str]:
    """Shorten the range to the client's knee limit; return what was cut and why."""
    limit = setup.limits.knee
    words = f"knee limit {setup.limits.knee_deg:.0f}°"
    if "lean_from" in options:
        if np.any(options["lean_from"] + 90 * DEG > limit + _CLOSE):
            options["lean_from"] = np.minimum(options["lean_from"], limit - 90 * DEG)
            if np.any(options["lean_from"] <= options["lean_to"]):
                raise PostureError(0.0, f"{words} leaves no range for {setup.exercise.name.lower()}")
            return {"knee": words}
    elif np.any(options["knee_from"] > limit + _CLOSE):
        options["knee_from"] = np.minimum(options["knee_from"], limit)
        return {"knee": words}
    return {}


def _shorter_for_hip(motion: Motion, limits: Limits, key: str) -> Array | None:
    """Return the range's new lengthened end (rad, (set-ups, 1)) where a hip passes its limit, else None.

    A set-up whose hip is past its limit all the way is failed instead.
    """
    hip, driver = motion.angles["hip"], motion.angles["knee"]
    if key == "lean_from" or np.ptp(hip) < _CLOSE:
        motion.fail(hip > limits.hip_flexion + _CLOSE, f"hip limit {limits.hip_flexion_deg:.0f}° passed all the way")
        return None
    over = hip > limits.hip_flexion + _CLOSE
    rows = np.flatnonzero(over.any(axis=1))
    if not rows.size:
        return None
    start = np.array(driver[:, :1])
    for row in rows:
        last = int(np.flatnonzero(over[row])[-1])
        if last + 1 >= over.shape[1]:
            mask = np.zeros_like(over)
            mask[row] = True
            motion.fail(mask, f"hip limit {limits.hip_flexion_deg:.0f}° passed all the way")
            continue
        share = (hip[row, last] - limits.hip_flexion) / (hip[row, last] - hip[row, last + 1])
        start[row] = driver[row, last] + share * (driver[row, last + 1] - driver[row, last])
    return start


def _note_cuts(motion: Motion, words: dict[str, str], setup: Setup) -> None:
    """Name the limit and the bend at which the range now ends."""
    if not words:
        return
    asked = setup.options.get("knee_from_deg", None)
    default = setup.exercise.options.get("knee_from_deg")
    wanted = asked if asked is not None else (default.default if default else None)
    ends = to_deg(motion.angles["knee"][:, 0])
    if wanted is None:
        shorter = np.ones(motion.shape[0], dtype=bool)
    else:
        shorter = ends < np.broadcast_to(np.asarray(wanted, dtype=float).ravel(), ends.shape) - 0.05
    why = " and ".join(words.values())
    first = ends[shorter][0] if shorter.any() else 0.0
    motion.notice("range-cut", f"the range ends at {first:.0f}° of knee bend: {why}", shorter)
