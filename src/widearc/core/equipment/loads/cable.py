"""A weight stack on a cable: the same pull all the way, towards a pulley."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import partial

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.loads.fields import FRICTION, RATIO, Port, place
from widearc.core.equipment.loads.load import Line, Moving, Stored
from widearc.core.equipment.loads.mass import weight
from widearc.core.units import G


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Cable(Line):
    """A stack of kg (float or (set-ups, 1)) whose cable pulls `ratio` of its weight from port to
    pulley.

    pulley: x, y in the room frame, m. friction 0 to 0.5: share of the pull added on the way up and
    taken on the way down.
    """

    kind = "cable"
    words = "cable"
    short = "cable"
    again = "read the cable's pull and the pulley's height again"
    rank = 8
    FIELDS = (
        weight("kg", "weight", usual=20.0),
        RATIO,
        place("pulley", ("pulley ahead", "pulley height"), 50.0, 10.0),
        Port(),
        replace(FRICTION, key=""),
    )
    amount = "kg"
    on_parts = True
    kg: float | Array
    port: str
    pulley: tuple[float, float]
    ratio: float = 1.0
    friction: float = 0.0

    def __post_init__(self) -> None:
        """Check mass, ratio and friction."""
        self.check_numbers()

    @property
    def fixed_at(self) -> tuple[float, float]:
        """Return the pulley, m."""
        return self.pulley

    def tension_n(self, *, lowering: bool = False) -> Array:
        """Return the pull of the cable, N."""
        sign = -1.0 if lowering else 1.0
        return np.asarray(np.asarray(self.kg) * G * self.ratio * (1.0 + sign * self.friction))

    def energy_j(self, length: Array) -> Array:
        """Return the stack's energy of height (J) when `length` (m) of cable is out."""
        return np.asarray(np.asarray(self.kg) * G * self.ratio * length)

    def friction_j(self, length: Array) -> Array:
        """Return the work lost to friction (J) by the time `length` (m) is out, on the way up."""
        return self.energy_j(length) * self.friction

    def pull_n(self, length: Array, *, lowering: bool) -> Array:
        """Return the pull (N), the same over any length."""
        return self.tension_n(lowering=lowering)

    def stores_along(self, length: Array, towards: Array) -> Stored:
        """Return the stack's energy of height, what rubs, and its mass."""
        return Stored(
            gravity_j=partial(self.energy_j, length),
            friction_j=self.friction_j(length) if self.friction else None,
            length=length,
            # the stack moves `ratio` times as far as the port
            moving=Moving(kg=np.asarray(self.kg) * self.ratio**2, towards=-towards, travel=length),
        )
