"""What a closure is asked: an exercise as set up, and the places of the lift to solve."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import Array
from widearc.core.body import Body, Limits
from widearc.core.body.many import body_rows, limits_rows
from widearc.core.equipment import Load
from widearc.core.exercises import Exercise, Options
from widearc.core.movement.loading import load_shape
from widearc.core.movement.motion import Motion


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Lift:
    """An exercise with its options `o` (radians, metres) and loads, at `position` (1, samples).

    lowering: with the loads of the way down.
    """

    exercise: Exercise
    body: Body
    limits: Limits
    o: Options
    loads: Sequence[Load]
    position: Array
    lowering: bool = False

    def with_(
        self,
        *,
        o: Options | None = None,
        loads: Sequence[Load] | None = None,
        position: Array | None = None,
    ) -> Lift:
        """Return the same lift with other options or loads, or at other places."""
        return replace(
            self,
            o=self.o if o is None else o,
            loads=self.loads if loads is None else loads,
            position=self.position if position is None else position,
        )

    def of_rows(self, rows: NDArray[np.intp]) -> Lift:
        """Return the lift of some of its bodies, where it has many."""
        return replace(self, body=body_rows(self.body, rows), limits=limits_rows(self.limits, rows))

    def through(self, name: str) -> Array:
        """Return an option at each sample, evenly from its first end to its last, (…, samples)."""
        first, last = self.o[f"{name}_from"], self.o[f"{name}_to"]
        return np.atleast_2d(first + (last - first) * self.position)

    def shape(self, *arrays: Array) -> tuple[int, int]:
        """Return (set-ups, samples) of all that differs: loads, options, and these arrays."""
        each = (load_shape(self.loads, self.o), *(array.shape for array in arrays))
        rows, samples = np.broadcast_shapes((1, self.position.shape[-1]), *each)
        return rows, samples

    def motion(
        self,
        shape: tuple[int, ...],
        *,
        legs: int = 1,
        plane_cos: Array | None = None,
        complete: bool = True,
    ) -> Motion:
        """Return a motion of that shape with nothing in it yet; see Motion."""
        turned = np.ones((1, 1)) if plane_cos is None else plane_cos
        return Motion(
            position=self.position.ravel(),
            shape=(shape[0], shape[1]),
            legs=legs,
            plane_cos=turned,
            complete=complete,
        )
