"""Many bodies at once: what is not quite known of one is tried on a set-up a row."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import Array, changed
from widearc.core.body.limits import Limits
from widearc.core.body.segments import Body
from widearc.core.units import DEG

VARIED = ("mass_kg", "thigh_m", "shank_m")


def alike(body: Body) -> tuple[object, ...]:
    """Return what bodies must share to be computed together."""
    others = {n: v for n, v in body.segments.items() if n not in VARIED}
    return body.stature_m, body.sex, tuple(sorted(others.items()))


def together(bodies: Sequence[Body]) -> Body:
    """Return bodies that differ in mass, thigh and shank only as one, these (set-ups, 1)."""
    if all(body is bodies[0] for body in bodies):
        return bodies[0]
    values = {n: np.array([[getattr(body, n)] for body in bodies]) for n in VARIED}
    return changed(bodies[0], **values)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class ManyLimits(Limits):
    """Limits that differ in the ankle only: `ankles` (rad, (set-ups, 1)); said as the first's."""

    ankles: Array

    @property
    def dorsiflexion(self) -> Array:  # type: ignore[override]
        """Return the ankles' limits, rad (set-ups, 1)."""
        return self.ankles


def limits_alike(limits: Limits) -> tuple[object, ...]:
    """Return what limits must share to be computed together."""
    return tuple(v for n, v in limits_of(limits).items() if n != "dorsiflexion_deg")


def limits_of(limits: Limits) -> dict[str, object]:
    """Return limits by name."""
    return {name: getattr(limits, name) for name in Limits.__slots__}


def limits_together(limits: Sequence[Limits]) -> Limits:
    """Return limits that differ in the ankle only as one."""
    if all(one is limits[0] for one in limits):
        return limits[0]
    ankles = np.array([[one.dorsiflexion_deg * DEG] for one in limits])
    return ManyLimits(**limits_of(limits[0]), ankles=ankles)  # type: ignore[arg-type]


def body_rows(body: Body, rows: NDArray[np.intp]) -> Body:
    """Return some of many bodies; a single one as it is."""
    values = {name: np.asarray(getattr(body, name)) for name in VARIED}
    if not values["mass_kg"].ndim:
        return body
    return changed(body, **{name: value[rows] for name, value in values.items()})


def limits_rows(limits: Limits, rows: NDArray[np.intp]) -> Limits:
    """Return some of many limits; single ones as they are."""
    if not isinstance(limits, ManyLimits):
        return limits
    return ManyLimits(**limits_of(limits), ankles=limits.ankles[rows])  # type: ignore[arg-type]
