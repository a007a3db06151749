"""A set-up and its motion: options resolved, limits applied, the family's solver called."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from types import MappingProxyType
from typing import Any

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import Body, Limits
from widearc.core.catalogue import Exercise, Options, in_si, resolve
from widearc.core.equipment import Cable, FreeMass, Lever, Load, SpringLoad
from widearc.core.errors import InputError, PostureError
from widearc.core.movement import (
    arc_squat,
    back_extension,
    bridge,
    calf,
    carriage,
    hinge,
    knee_rotation,
    kneeling,
    plain_path,
    plank,
    press,
    sled_squat,
    split,
    stance,
    supported,
    swing,
    thigh_spread,
)
from widearc.core.movement.loading import lever_angle, line_to, load_shape
from widearc.core.movement.motion import Motion
from widearc.core.records import changed
from widearc.core.units import DEG, to_deg

FAMILIES = MappingProxyType(
    {
        "stance": stance.solve,
        "supported stance": supported.solve,
        "hinge": hinge.solve,
        "split": split.solve,
        "sled press": press.solve,
        "sled squat": sled_squat.solve,
        "arc squat": arc_squat.solve,
        "knee rotation": knee_rotation.solve,
        "hip rotation trunk": back_extension.solve,
        "hip rotation leg": swing.solve,
        "kneeling": kneeling.solve,
        "bridge": bridge.solve,
        "calf": calf.solve,
        "plank knee bend": plank.solve,
        "carriage": carriage.solve,
        "thigh spread": thigh_spread.solve,
        "plain path": plain_path.solve,
    }
)
"""Every family with a curve by its name."""

POSTURE_KEPT = (
    "knee rotation",
    "bridge",
    "hip rotation trunk",
    "hip rotation leg",
    "thigh spread",
    "plank knee bend",
    "sled press",
    "sled squat",
    "arc squat",
    "supported stance",
)
"""Families whose posture does not depend on the load. Some forms of others are so too."""

PORTLESS = ("sled", "stack", "pendulum")
LENGTHENED_ENDS = (
    "lean_from",
    "knee_from",
    "trunk_from",
    "hip_from",
    "abduction_from",
    "ankle_from",
)
SAMPLES = 101
_CLOSE = 0.01 * DEG
MOST_ZOOMS = 6  # on the step in which balance is lost: each as fine again as the samples
RISES = 2.6  # times the last step: see _highest
MOST_TRIALS = 12  # to find where a spring is hooked: each trial brings it some ten times closer
HOOKED_M = 1e-6


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Setup:
    """One exercise in one or many set-ups: options in degrees and metres, numbers or (set-ups,)
    arrays.

    Loads may carry (set-ups, 1) arrays. samples 11 to 2001 along the lifting phase. rows: how many
    set-ups this is.
    """

    exercise: Exercise
    body: Body = field(default_factory=Body)
    limits: Limits = field(default_factory=Limits)
    options: Mapping[str, Any] = field(default_factory=dict)
    loads: Sequence[Load] = ()
    samples: int = SAMPLES
    resolved: Options = field(init=False, repr=False)
    rows: int = field(init=False, repr=False)

    def __post_init__(self) -> None:
        """Check what needs no mechanics: samples, options and ports; keep the options in SI as
        `resolved`.
        """
        object.__setattr__(self, "resolved", resolve(self.exercise.options, self.options))
        if not isinstance(self.samples, int) or not 11 <= self.samples <= 2001:
            raise InputError("/samples", self.samples, "a whole number from 11 to 2001")
        if self.exercise.family not in FAMILIES:
            raise InputError(
                "/exercise", self.exercise.id, "an exercise with a curve: mobility work has none"
            )
        for index, load in enumerate(self.loads):
            self._check_load(index, load)
        object.__setattr__(self, "rows", load_shape(self.loads, self.resolved)[0])

    def repeated(self, rows: int) -> Setup:
        """Return set-ups that are all alike as so many rows; as it is where they differ."""
        if self.rows == rows:
            return self
        specs = self.exercise.options.items()
        name, spec = next((n, s) for n, s in specs if not (isinstance(s.default, str) or s.choices))
        return replace(
            self,
            options={**self.options, name: np.full(rows, self.options.get(name, spec.default))},
        )

    def part(self, start: int, stop: int) -> Setup:
        """Return the set-ups from start up to stop."""
        return self.taken(slice(start, stop))

    def taken(self, rows: slice | NDArray[np.intp]) -> Setup:
        """Return some of the set-ups, in the order given."""
        whole = self.rows
        options = {n: v[rows] if isinstance(v, np.ndarray) else v for n, v in self.options.items()}
        loads = tuple(_load_part(load, whole, rows) for load in self.loads)
        return self.like(options, loads)

    def like(
        self, options: Mapping[str, Any], loads: Sequence[Load], exercise: Exercise | None = None
    ) -> Setup:
        """Return other set-ups of this kind, of options and loads that were checked in set-ups of
        theirs.
        """
        exercise = exercise or self.exercise
        resolved = in_si(exercise.options, options)
        return changed(
            self,
            exercise=exercise,
            options=options,
            loads=loads,
            resolved=resolved,
            rows=load_shape(loads, resolved)[0],
        )

    def _check_load(self, index: int, load: Load) -> None:
        """Refuse a load that this exercise does not take."""
        taken = self.exercise
        if load.kind in PORTLESS:
            if load.kind not in taken.kinds:
                allowed = ", ".join(
                    (*taken.kinds, "loads at " + ", ".join(taken.ports))
                    if taken.ports
                    else taken.kinds
                )
                raise InputError(
                    f"/loads/{index}/kind",
                    load.kind,
                    f"a load that {taken.name.lower()} takes: {allowed}",
                )
            return
        port = getattr(load, "port", "")
        if port not in taken.ports:
            raise InputError(
                f"/loads/{index}/port",
                port,
                "one of " + ", ".join(taken.ports) if taken.ports else "no load",
            )


def _load_part(load: Load, whole: int, rows: slice | NDArray[np.intp]) -> Load:
    """Return a load with its per-set-up arrays cut to a part of the set-ups."""

    def cut(value: Any) -> Any:
        """Return a number, array or tuple of them with only the asked set-ups."""
        if isinstance(value, np.ndarray) and value.ndim == 2 and value.shape[0] == whole > 1:
            return value[rows]
        return tuple(cut(v) for v in value) if isinstance(value, tuple) else value

    return changed(load, **{name: cut(getattr(load, name)) for name in type(load).__slots__})


def move(setup: Setup, *, lowering: bool = False, strict: bool = True) -> Motion:
    """Return the motion of a set-up, its range cut where the client's joints end.

    lowering: with the loads of the way down (bands give back less, friction helps). strict: a
    set-up that cannot be reached or balanced raises PostureError; otherwise it is listed in
    `failed` and its arrays hold NaN or are meaningless.
    """
    options = dict(setup.resolved)
    position = np.linspace(0.0, 1.0, setup.samples)[None, :]
    cut_words = _cut_knee(setup, options)
    loads = _referred(setup, options, position)

    def solved(options: Mapping[str, Any], loads: Sequence[Load]) -> Motion:
        """Return the family's motion for options (radians, metres) and loads."""
        solve = FAMILIES[setup.exercise.family]
        return solve(
            setup.exercise, setup.body, setup.limits, options, loads, position, lowering=lowering
        )

    def between(rows: NDArray[np.intp], ends: Mapping[str, Array]) -> Motion:
        """Return the motion of some set-ups between other ends of their range."""
        cut = {
            n: v[rows] if isinstance(v, np.ndarray) and len(v) > 1 else v
            for n, v in options.items()
        }
        # what none of them has pulls nothing
        own = (_load_part(load, setup.rows, rows) for load in loads)
        return solved({**cut, **ends}, [load for load in own if np.any(getattr(load, "count", 1))])

    key = next((k for k in LENGTHENED_ENDS if k in options), "")
    for _ in range(4):
        motion = solved(options, loads)
        shorter = _shorter_for_hip(motion, setup, key, between)
        if shorter is None:
            break
        options[key] = shorter
        cut_words["hip"] = f"hip limit {setup.limits.hip_flexion_deg:.0f}°"
    _note_cuts(motion, cut_words, setup)
    if strict and motion.failed:
        raise PostureError(*motion.failed[min(motion.failed)])
    return motion


def _referred(setup: Setup, options: Mapping[str, Any], position: Array) -> Sequence[Load]:
    """Return the loads with what only the movement tells: a spring's first mark, which way a lever
    turns.

    Both are read off the movement without these loads, so that balance can be solved with them.
    """
    unread = [
        load
        for load in setup.loads
        if (isinstance(load, SpringLoad) and load.anchor is not None and load.mark_m is None)
        or isinstance(load, Lever)
    ]
    if not unread:
        return setup.loads
    others = [load for load in setup.loads if load not in unread]
    probes = [FreeMass(kg=0.0, port=load.port) for load in unread]
    slides = setup.exercise.family in (
        "thigh spread",
        "knee rotation",
    )  # there a lever's pad is not where its port is
    if slides:
        probes = [Cable(kg=0.0, port=load.port, pulley=(0.0, 0.0)) for load in unread]  # type: ignore[misc]

    def moved(loads: Sequence[Load]) -> Motion:
        """Return the lifting motion with these loads in the place of those unread."""
        solve = FAMILIES[setup.exercise.family]
        return solve(
            setup.exercise, setup.body, setup.limits, options, loads, position, lowering=False
        )

    motion = moved([*others, *probes])
    known: list[Any] = list(others)
    for index, load in enumerate(unread, start=len(others)):
        point = next(motion.full(f.point) for f in motion.forces if f.source == f"load {index}")
        if isinstance(load, Lever):
            angle = np.unwrap(lever_angle(load, np.nan_to_num(point)), axis=-1)
            sense = np.where(angle[:, -1:] < angle[:, :1], -1.0, 1.0)
            known.append(replace(load, sense=sense, start_rad=angle[:, :1]))
        else:
            known.append(replace(load, mark_m=_shortest(load, point)))
    for _ in range(0 if setup.exercise.family in POSTURE_KEPT and not slides else MOST_TRIALS):
        # a spring hooked at the shortest place moves that place; a lever has not turned yet at the
        # start
        motion, apart = moved(known), 0.0
        for index, load in enumerate(known[len(others) :], start=len(others)):
            point = next(motion.full(f.point) for f in motion.forces if f.source == f"load {index}")
            if isinstance(load, Lever):
                known[index] = replace(
                    load, start_rad=lever_angle(load, np.nan_to_num(point))[:, :1]
                )
            elif isinstance(load, SpringLoad):
                mark = _shortest(load, point)
                apart = max(apart, float(np.max(np.abs(mark - np.asarray(load.mark_m)))))
                known[index] = replace(load, mark_m=mark)
        if apart < HOOKED_M:
            break
    # in their own order: sources are counted by it
    order = [*others, *unread]
    return [known[order.index(load)] for load in setup.loads]


def _shortest(load: SpringLoad, point: Array) -> Array:
    """Return the shortest distance from a spring's anchor to its port (m, (set-ups, 1)); 0 where
    nothing was found.
    """
    length = np.nan_to_num(line_to(load.anchor or (0.0, 0.0), point)[0], nan=np.inf).min(axis=1)[
        :, None
    ]
    return np.where(np.isfinite(length), length, 0.0)


def _cut_knee(setup: Setup, options: dict[str, Any]) -> dict[str, str]:
    """Shorten the range to the client's knee limit; return what was cut and why."""
    limit = setup.limits.knee
    words = f"knee limit {setup.limits.knee_deg:.0f}°"
    if "lean_from" in options:
        if (
            setup.exercise.variant != "forward"
            and options["pivot"] == "knee"
            and np.any(options["lean_from"] + 90 * DEG > limit + _CLOSE)
        ):
            options["lean_from"] = np.minimum(options["lean_from"], limit - 90 * DEG)
            if np.any(options["lean_from"] <= options["lean_to"]):
                raise PostureError(
                    0.0, f"{words} leaves no range for {setup.exercise.name.lower()}"
                )
            return {"knee": words}
        return {}
    cut = {}
    for end in ("knee_from", "knee_to"):
        if end in options and np.any(options[end] > limit + _CLOSE):
            options[end] = np.minimum(options[end], limit)
            cut["knee"] = words
    if "hip_from" in options and np.any(options["hip_from"] > setup.limits.hip_flexion + _CLOSE):
        options["hip_from"] = np.minimum(options["hip_from"], setup.limits.hip_flexion)
        cut["hip"] = f"hip limit {setup.limits.hip_flexion_deg:.0f}°"
    return cut


Between = Callable[[NDArray[np.intp], Mapping[str, Array]], Motion]
"""The motion of some set-ups, by number, between other ends (rad, (set-ups, 1) by option)."""


def _shorter_for_hip(motion: Motion, setup: Setup, key: str, between: Between) -> Array | None:
    """Return the range's new lengthened end (rad, (set-ups, 1)) where a hip passes its limit, else
    None.

    A set-up whose hip is past its limit all the way is failed instead.
    """
    limits = setup.limits
    if "hip" not in motion.angles:
        return None
    hip = motion.angles["hip"]
    if setup.exercise.variant == "deadlift":
        motion.fail(
            hip > limits.hip_flexion + _CLOSE,
            f"hip limit {limits.hip_flexion_deg:.0f}° passed: raise the weight",
        )
        return None
    driver = motion.marks["trunk_lean"] if key == "trunk_from" else motion.angles.get("knee", hip)
    if key not in ("knee_from", "trunk_from") or np.ptp(hip) < _CLOSE:
        motion.fail(
            hip > limits.hip_flexion + _CLOSE,
            f"hip limit {limits.hip_flexion_deg:.0f}° passed all the way",
        )
        return None
    over = hip > limits.hip_flexion + _CLOSE
    rows = np.flatnonzero(over.any(axis=1))
    start = np.array(driver[:, :1])
    for row in rows:
        if over[row, -1]:
            mask = np.zeros_like(over)
            mask[row] = True
            motion.fail(mask, f"hip limit {limits.hip_flexion_deg:.0f}° passed all the way")
        else:
            start[row] = _crossing(hip[row], driver[row], limits.hip_flexion, over[row])
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
    limit, found = setup.limits.hip_flexion, dict[int, float]()
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


def _note_cuts(motion: Motion, words: dict[str, str], setup: Setup) -> None:
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
        text = f"the range ends at {end:.0f}° of {what}: {' and '.join(words.values())}"
        motion.notice("range-cut", text, shorter & (ends == end))
