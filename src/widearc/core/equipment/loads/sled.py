"""A sled on straight rails."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.loads.fields import FRICTION
from widearc.core.equipment.loads.load import Load
from widearc.core.equipment.loads.mass import weight
from widearc.core.units import G


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Sled(Load):
    """A sled on straight rails: plates kg on a sled that weighs empty_kg (floats or (set-ups, 1)).

    friction is the coefficient between sled and rails, 0 to 0.5: it adds to the push and takes from
    the return in proportion to the weight square to the rails.
    """

    kind = "sled"
    words = "sled"
    short = "sled"
    again = "weigh the empty sled again and read the rails' angle"
    rank = 3
    FIELDS = (
        weight("kg", "plates", usual=100.0),
        weight("empty_kg", "empty sled", key="empty", usual=38.0),
        FRICTION,
    )
    amount = "kg"
    on_path = True
    kg: float | Array
    empty_kg: float | Array
    friction: float = 0.0

    def __post_init__(self) -> None:
        """Check the masses and the friction."""
        self.check_numbers()

    @property
    def disc_kg(self) -> float:
        """Return the plates, kg."""
        return float(np.ravel(self.kg)[0])

    @property
    def total_kg(self) -> Array:
        """Return plates and sled together, kg."""
        return np.asarray(np.add(self.kg, self.empty_kg), dtype=float)

    def friction_n(self, rail: Array | float) -> Array:
        """Return the friction force (N, 0 or more) on rails that rise by `rail` (rad)."""
        return np.asarray(self.total_kg * G * self.friction * np.cos(rail))

    def along_rail_n(self, rail: Array | float, *, lowering: bool = False) -> Array:
        """Return the force (N) down the rails that the feet must meet, rails rising by `rail`
        (rad).

        m·g·sin(rail), plus friction while pushing, less friction while the sled comes back.
        """
        sign = -1.0 if lowering else 1.0
        return np.asarray(self.total_kg * G * np.sin(rail) + sign * self.friction_n(rail))
