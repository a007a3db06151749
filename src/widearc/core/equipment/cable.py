"""A weight stack on a cable: the same pull all the way, towards a pulley."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.masses import check_mass
from widearc.core.errors import InputError
from widearc.core.units import G


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Cable:
    """A stack of kg (float or (set-ups, 1)) whose cable pulls `ratio` of its weight from port to
    pulley.

    pulley: x, y in the room frame, m. friction 0 to 0.5: share of the pull added on the way up and
    taken on the way down.
    """

    kind: ClassVar[str] = "cable"
    kg: float | Array
    port: str
    pulley: tuple[float, float]
    ratio: float = 1.0
    friction: float = 0.0

    def __post_init__(self) -> None:
        """Check mass, ratio and friction."""
        check_mass("kg", self.kg)
        if not 0.05 <= self.ratio <= 4:
            raise InputError("ratio", self.ratio, "from 0.05 to 4")
        if not 0 <= self.friction <= 0.5:
            raise InputError("friction", self.friction, "from 0 to 0.5")

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
