"""What gravity pulls: a free mass at a port, and a sled on straight rails."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import InputError
from widearc.core.units import G

HEAVIEST_KG = 1000.0


def check_mass(where: str, value: float | Array) -> None:
    """Refuse a mass (kg, float or array) that is not finite, below 0 or above 1000."""
    # what is not a number is not between either
    low, high = (value.min(), value.max()) if isinstance(value, np.ndarray) else (value, value)
    if not (low >= 0 and high <= HEAVIEST_KG):
        raise InputError(where, value, f"from 0 to {HEAVIEST_KG:g} kg")


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class FreeMass:
    """A mass hanging or resting at a port: m·g straight down. kg is a float or (set-ups, 1), 0 to
    1000.
    """

    kind: ClassVar[str] = "mass"
    kg: float | Array
    port: str

    def __post_init__(self) -> None:
        """Check the mass."""
        check_mass("kg", self.kg)

    @property
    def weight_n(self) -> Array:
        """Return the weight, N."""
        return np.asarray(self.kg) * G


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Sled:
    """A sled on straight rails: plates kg on a sled that weighs empty_kg (floats or (set-ups, 1)).

    friction is the coefficient between sled and rails, 0 to 0.5: it adds to the push and takes from
    the return in proportion to the weight square to the rails.
    """

    kind: ClassVar[str] = "sled"
    kg: float | Array
    empty_kg: float | Array
    friction: float = 0.0

    def __post_init__(self) -> None:
        """Check the masses and the friction."""
        check_mass("kg", self.kg)
        check_mass("empty_kg", self.empty_kg)
        if not 0 <= self.friction <= 0.5:
            raise InputError("friction", self.friction, "from 0 to 0.5")

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
