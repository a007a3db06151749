"""The range of a lift, cut where the client's joints end."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import Array, BoolArray
from widearc.core.errors import PostureError
from widearc.core.movement.motion import Motion
from widearc.core.movement.setup import LENGTHENED_ENDS, Setup
from widearc.core.units import DEG, to_deg
from widearc.core.words import Angle, Listed, Said, Term

_CLOSE = 0.01 * DEG
LOW_BACK = 15 * DEG  # that it gives to a trunk that folds over the thighs (assumed)
MOST_ZOOMS = 6  # on the step in which balance is lost: each as fine again as the samples
RISES = 2.6  # times the last step: see _highest


def _cut_lean(setup: Setup, options: dict[str, Any], words: Said) -> dict[str, Said]:
    """Shorten a lean over bent knees, the same way."""
    on_knees = setup.exercise.variant != "forward" and options["pivot"] == "knee"
    most = setup.limits.knee - 90 * DEG
    if not on_knees or not np.any(options["lean_from"] > most + _CLOSE):
        return {}
    options["lean_from"] = np.minimum(options["lean_from"], most)
    if np.any(options["lean_from"] <= options["lean_to"]):
        raise PostureError(
            0.0,
            Said(
                "{limit} leaves no range for {exercise}",
                limit=words,
                exercise=Term(setup.exercise.name, lower=True),
            ),
        )
    return {"knee": words}


def _cut_knee(setup: Setup, options: dict[str, Any]) -> dict[str, Said]:
    """Shorten the range to the client's knee limit; return what was cut and why."""
    limit = setup.limits.knee
    words = Said("knee limit {angle}", angle=Angle.of_deg(setup.limits.knee_deg))
    if "lean_from" in options:
        return _cut_lean(setup, options, words)
    cut = {}
    for end in ("knee_from", "knee_to"):
        if end in options and np.any(options[end] > limit + _CLOSE):
            options[end] = np.minimum(options[end], limit)
            cut["knee"] = words
    most = _hip_limit(setup)
    if "hip_from" in options and np.any(options["hip_from"] > most + _CLOSE):
        options["hip_from"] = np.minimum(options["hip_from"], most)
        cut["hip"] = Said("hip limit {angle}", angle=Angle.of_deg(setup.limits.hip_flexion_deg))
    return cut


def _hip_limit(setup: Setup) -> float:
    """Return how far trunk and thigh may fold, rad: in hinges, deadlifts and bridges the low back
    gives a little past the hip's own limit.
    """
    folds = setup.exercise.law.low_back_gives or setup.exercise.variant == "rail hinge"
    return setup.limits.hip_flexion + (LOW_BACK if folds else 0.0)


def note_low_back(motion: Motion, setup: Setup) -> None:
    """Say where the low back gives what the hip does not."""
    if "hip" not in motion.angles or _hip_limit(setup) == setup.limits.hip_flexion:
        return
    past = np.nanmax(motion.angles["hip"], axis=1, initial=-np.inf) - setup.limits.hip_flexion
    motion.notice(
        "low-back-gives",
        Said(
            "trunk and thigh fold past the hip limit of {angle}: the low back gives the rest "
            "(assumed, at most {angle_2})",
            angle=Angle.of_deg(setup.limits.hip_flexion_deg),
            angle_2=Angle(float(LOW_BACK)),
        ),
        past > 0.5 * DEG,
    )


STRAIGHT_MOST, BENT_MOST = -10 * DEG, 170 * DEG


def refuse_broken_knees(motion: Motion) -> None:
    """Fail set-ups in which a knee bends backwards, or further than any does."""
    for name in motion.angles:
        if not name.endswith("knee"):
            continue
        bend = motion.angles[name]
        for bad, far in (
            (bend < STRAIGHT_MOST - _CLOSE, np.nanmin(bend, initial=0.0)),
            (bend > BENT_MOST + _CLOSE, np.nanmax(bend, initial=0.0)),
        ):
            which = name.replace("_", " ")
            motion.fail(
                bad,
                Said(
                    "the {joint} would bend to {angle}: no knee does",
                    joint=Term(which),
                    angle=Angle(float(far)),
                ),
            )


Between = Callable[[NDArray[np.intp], Mapping[str, Array]], Motion]
"""The motion of some set-ups, by number, between other ends (rad, (set-ups, 1) by option)."""


def _shorter_for_hip(motion: Motion, setup: Setup, key: str, between: Between) -> Array | None:
    """Return the range's new lengthened end (rad, (set-ups, 1)) where a hip passes its limit, else
    None.

    A set-up whose hip is past its limit all the way is failed instead.
    """
    limit = _hip_limit(setup)
    words = Said("hip limit {angle}", angle=Angle.of_deg(setup.limits.hip_flexion_deg))
    if "hip" not in motion.angles or setup.exercise.variant == "step-up":  # a box sets its depth
        return None
    hip = motion.angles["hip"]
    if setup.exercise.variant == "deadlift":
        motion.fail(hip > limit + _CLOSE, Said("{limit} passed: raise the weight", limit=words))
        return None
    driver = motion.marks["trunk_lean"] if key == "trunk_from" else motion.angles.get("knee", hip)
    if key not in ("knee_from", "trunk_from") or np.ptp(hip) < _CLOSE:
        motion.fail(hip > limit + _CLOSE, Said("{limit} passed all the way", limit=words))
        return None
    over = hip > limit + _CLOSE
    rows = np.flatnonzero(over.any(axis=1))
    start = np.array(driver[:, :1])
    always = over[:, -1:]
    if always.any():
        motion.fail(always & np.ones_like(over), Said("{limit} passed all the way", limit=words))
    for row in np.flatnonzero(over.any(axis=1) & ~over[:, -1]):
        start[row] = _crossing(hip[row], driver[row], limit, over[row])
    unseen = _unseen_crossings(motion, setup, key, driver, between)
    start[list(unseen), 0] = list(unseen.values())
    return start if rows.size or unseen else None


def _crossing(hip: Array, driver: Array, limit: float, over: BoolArray) -> float:
    """Return the driving angle (rad) at which a hip comes back within its limit for good."""
    last = int(np.flatnonzero(over)[-1])
    share = (hip[last] - limit) / (hip[last] - hip[last + 1])
    return float(driver[last] + share * (driver[last + 1] - driver[last]))


def _unseen_crossings(
    motion: Motion, setup: Setup, key: str, driver: Array, between: Between
) -> dict[int, float]:
    """Return by set-up the bend (rad) at which a hip passes its limit between two samples, the
    deeper one unbalanced.

    As balance is lost the trunk sinks level: the hip passes its limit before, maybe within one step
    of the samples. Not looked for where the posture at a bend depends on the range (a step).
    """
    limit, found = _hip_limit(setup), dict[int, float]()
    if key != "knee_from" or setup.exercise.variant == "lunge":
        return found
    hip, driver = motion.full(motion.angles["hip"]), motion.full(driver)
    rows = np.arange(len(hip))
    for _ in range(MOST_ZOOMS):
        over = hip > limit + _CLOSE
        hidden = (
            ~over.any(axis=1)
            & ~np.isfinite(hip[:, 0])
            & np.isfinite(hip[:, -1])
            & (_highest(hip) > limit)
        )
        rows, hip, driver = rows[hidden], hip[hidden], driver[hidden]
        if not rows.size:
            break
        at, first = np.arange(len(rows)), np.isfinite(hip).argmax(axis=1)
        ends = {
            key: driver[at, first - 1][:, None],
            key.replace("_from", "_to"): driver[at, first][:, None],
        }
        closer = between(rows, ends)
        hip, driver = closer.full(closer.angles["hip"]), closer.full(closer.angles["knee"])
        over = hip > limit + _CLOSE
        for i in np.flatnonzero(over.any(axis=1) & ~over[:, -1]):
            found[int(rows[i])] = _crossing(hip[i], driver[i], limit, over[i])
    return found


def _highest(hip: Array) -> Array:
    """Return how far a hip can rise before balance is lost (rad, (set-ups,)), by the two samples
    nearest to that.

    It rises as the root of what is left: at most 1 / (√2 - 1) = 2.4 times the last step's rise.
    """
    at, first = np.arange(len(hip)), np.isfinite(hip).argmax(axis=1)
    nearest, next_ = hip[at, first], hip[at, np.minimum(first + 1, hip.shape[1] - 1)]
    return np.asarray(
        nearest + np.where(first + 1 < hip.shape[1], RISES * (nearest - next_), np.inf)
    )


def _note_cuts(motion: Motion, words: dict[str, Said], setup: Setup) -> None:
    """Name the limit and the bend at which the range now ends."""
    if not words:
        return
    key = next(k for k in LENGTHENED_ENDS if k in setup.resolved)
    if key == "lean_from":
        wanted, now, what = setup.resolved[key] + 90 * DEG, motion.angles["knee"][:, 0], "knee bend"
    elif key == "trunk_from":
        wanted, now, what = setup.resolved[key], motion.marks["trunk_lean"][:, 0], "trunk lean"
    elif key == "hip_from":
        wanted, now, what = setup.resolved[key], motion.angles["hip"][:, 0], "hip bend"
    else:
        wanted, now, what = setup.resolved[key], motion.angles["knee"][:, 0], "knee bend"
    shorter = (
        now < np.broadcast_to(np.ravel(np.asarray(wanted, dtype=float)), now.shape) - 0.05 * DEG
    )
    ends = np.round(to_deg(now))
    for end in np.unique(ends[shorter]):
        text = Said(
            "the range ends at {angle} of {what}: {why}",
            angle=Angle.of_deg(end),
            what=Term(what),
            why=Listed(tuple(words.values()), "and"),
        )
        motion.notice("range-cut", text, shorter & (ends == end))
