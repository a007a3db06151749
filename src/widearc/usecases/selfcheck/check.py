"""One check value and how it is judged."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from enum import Enum
from typing import Any

from widearc.core.body import Body, Limits
from widearc.core.equipment import Load
from widearc.core.exercises import EXERCISES
from widearc.core.movement import Setup
from widearc.core.statics import Curve, curve


class Group(Enum):
    """Where a check's expected value comes from."""

    PUBLISHED = "published"
    WORKED = "worked"
    STATICS = "statics by hand"
    TRADE = "common practice, no source"


@dataclass(frozen=True, slots=True, kw_only=True)
class Check:
    """Expected numbers with unit, tolerance (in the same unit) and source; `compute` gives what the
    program gets.
    """

    group: Group
    name: str
    unit: str
    expected: tuple[float, ...]
    tolerance: float
    source: str
    compute: Callable[[], Sequence[float]]

    def got(self) -> tuple[float, ...]:
        """Return what the program computes, as many numbers as are expected."""
        return tuple(float(v) for v in self.compute())

    def passes(self, got: Sequence[float]) -> bool:
        """Return whether every number lies within the tolerance."""
        return len(got) == len(self.expected) and all(
            math.isfinite(g) and abs(g - e) <= self.tolerance
            for g, e in zip(got, self.expected, strict=True)
        )


def check_of(
    group: Group,
    name: str,
    unit: str,
    expected: Sequence[float],
    tolerance: float,
    source: str,
    compute: Callable[..., Sequence[float]],
) -> Check:
    """Return a check of its parts in the order of a line; `compute` takes what it was given as
    defaults.
    """
    return Check(
        group=group,
        name=name,
        unit=unit,
        expected=tuple(expected),
        tolerance=tolerance,
        source=source,
        compute=compute,
    )


def curve_of(
    name: str,
    options: dict[str, Any] | None = None,
    loads: Sequence[Load] = (),
    *,
    body: Body | None = None,
    **limits: float,
) -> Curve:
    """Return a curve of a catalogue exercise for the default body, hip limit lifted to 155° unless
    given.
    """
    allowed = Limits(**{"hip_flexion_deg": 155.0, **limits})  # type: ignore[arg-type]
    return curve(
        Setup(
            exercise=EXERCISES[name],
            body=body or Body(),
            options=options or {},
            loads=loads,
            limits=allowed,
        )
    )
