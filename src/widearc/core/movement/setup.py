"""A set-up and its motion: options resolved, limits applied, the family's solver called."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import changed
from widearc.core.body import Body, Limits
from widearc.core.equipment import AtPort, Load
from widearc.core.errors import InputError, one_of
from widearc.core.exercises import Exercise, Options, in_si, renamed, resolve
from widearc.core.movement.loading import load_shape
from widearc.core.movement.takes import kinds_of
from widearc.core.units import DEG, to_deg
from widearc.core.words import Listed, Name, Said, Term, Times

SAMPLES = 101
LEAST_TRAVEL = 1 * DEG

LENGTHENED_ENDS = (
    "lean_from",
    "knee_from",
    "trunk_from",
    "hip_from",
    "abduction_from",
    "ankle_from",
)
"""Options at which a range starts, by the joint that leads."""


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
        object.__setattr__(self, "options", renamed(self.exercise.options, self.options))
        usual = resolve(self.exercise.options, self.options, stature_m=self.body.stature_m)
        object.__setattr__(self, "resolved", usual)
        self._check_ways()
        if not isinstance(self.samples, int) or not 11 <= self.samples <= 2001:
            raise InputError("/samples", self.samples, Said("a whole number from 11 to 2001"))
        if not self.exercise.has_curve:
            raise InputError(
                "/exercise",
                self.exercise.id,
                Said("an exercise with a curve: mobility work has none"),
            )
        for index, load in enumerate(self.loads):
            self._check_load(index, load)
        object.__setattr__(self, "rows", load_shape(self.loads, self.resolved)[0])

    def _check_ways(self) -> None:
        """Refuse a range that runs backwards: its lengthened end comes first."""
        specs, o = self.exercise.options, self.resolved
        for start in LENGTHENED_ENDS:
            end = start.removesuffix("from") + "to"
            first, last = f"{start}_deg", f"{end}_deg"
            if first not in specs or last not in specs:
                continue
            way = np.sign(float(specs[last].default) - float(specs[first].default))
            travel = np.ravel(way * (np.asarray(o[end]) - o[start]))
            if np.all(travel >= LEAST_TRAVEL - 1e-9):
                continue
            ends = np.broadcast_arrays(*(np.ravel(to_deg(o[name])) for name in (start, end)))
            value, other = (float(part[np.argmin(travel)]) for part in ends)
            allowed = Said(
                "a degree or more over the shortened end, {angle} degrees"
                if way < 0
                else "a degree or more under the shortened end, {angle} degrees",
                angle=Times(other, digits=2),
            )
            raise InputError(f"/options/{first}", round(value, 6), allowed)

    def repeated(self, rows: int) -> Setup:
        """Return set-ups that are all alike as so many rows; as it is where they differ."""
        if self.rows == rows:
            return self
        specs = self.exercise.options.items()
        name, spec = next((n, s) for n, s in specs if not (isinstance(s.default, str) or s.choices))
        return replace(
            self,
            options={
                **self.options,
                name: np.full(rows, self.options.get(name, spec.usual(self.body.stature_m))),
            },
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
        resolved = in_si(exercise.options, options, self.body.stature_m)
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
        taken, kinds = self.exercise, kinds_of(self.exercise)
        if type(load) not in kinds:
            names = Listed(tuple(Name(kind.kind) for kind in kinds) or (Said("no load"),))
            allowed = Said(
                "a load that {exercise} takes: {names}",
                exercise=Term(taken.name, lower=True),
                names=names,
            )
            raise InputError(f"/loads/{index}/kind", load.kind, allowed)
        if not isinstance(load, AtPort):
            return
        port = load.port
        if port not in taken.ports:
            raise InputError(
                f"/loads/{index}/port",
                port,
                one_of(taken.ports) if taken.ports else Said("no load"),
            )


def _load_part(load: Load, whole: int, rows: slice | NDArray[np.intp]) -> Load:
    """Return a load with its per-set-up arrays cut to a part of the set-ups."""

    def cut(value: Any) -> Any:
        """Return a number, array or tuple of them with only the asked set-ups."""
        if isinstance(value, np.ndarray) and value.ndim == 2 and value.shape[0] == whole > 1:
            return value[rows]
        return tuple(cut(v) for v in value) if isinstance(value, tuple) else value

    return changed(load, **{name: cut(getattr(load, name)) for name in type(load).__slots__})
