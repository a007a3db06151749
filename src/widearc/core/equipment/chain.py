"""Chains: the part lifted off the floor weighs."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import InputError
from widearc.core.units import G


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Chain:
    """Chains hanging from a port to the floor: kg_per_m (all together) over length_m, both per
    hanging end.
    """

    kind: ClassVar[str] = "chain"
    kg_per_m: float
    length_m: float
    port: str

    def __post_init__(self) -> None:
        """Check both numbers."""
        for name, high, unit in (("kg_per_m", 100.0, "kg/m"), ("length_m", 5.0, "m")):
            value = getattr(self, name)
            if not np.isfinite(value) or not 0 < value <= high:
                raise InputError(name, value, f"more than 0, up to {high:g} {unit}")

    def weight_n(self, height: Array) -> Array:
        """Return the weight (N) hanging from a port `height` (m) over the floor."""
        return np.asarray(self.kg_per_m * G * np.clip(height, 0.0, self.length_m))

    def energy_j(self, height: Array) -> Array:
        """Return the energy of height (J) of the lifted part: its middle is lifted half as far as
        the port.
        """
        hanging = np.clip(height, 0.0, self.length_m)
        above = np.maximum(height - self.length_m, 0.0)
        return np.asarray(self.kg_per_m * G * (0.5 * hanging**2 + self.length_m * above))
