"""Chains: the part lifted off the floor weighs."""

from __future__ import annotations

from dataclasses import dataclass
from functools import partial

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.loads.fields import Number, Port
from widearc.core.equipment.loads.load import AtPort, Moving, Stored
from widearc.core.geometry import vec
from widearc.core.units import CENTIMETRE, KILOGRAM_A_METRE, G


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Chain(AtPort):
    """Chains hanging from a port to the floor: kg_per_m (all together) over length_m, both per
    hanging end.
    """

    kind = "chain"
    words = "chains"
    short = "chain"
    again = "weigh the chain and measure its length again"
    rank = 10
    FIELDS = (
        Number(
            name="kg_per_m",
            words="per metre",
            unit=KILOGRAM_A_METRE,
            low=0.01,
            high=100.0,
            key="kgm",
            usual=6.0,
            weighs=True,
        ),
        Number(
            name="length_m",
            words="length",
            unit=CENTIMETRE,
            low=0.01,
            high=5.0,
            key="long",
            usual=1.2,
        ),
        Port(),
    )
    sideways = False
    kg_per_m: float
    length_m: float
    port: str

    def __post_init__(self) -> None:
        """Check both numbers."""
        self.check_numbers()

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

    def far_end(self, here: Array) -> Array:
        """Return where it ends under its port at `here`, m (2, …): at the floor, or in the air."""
        return np.stack((here[0], np.maximum(here[1] - self.length_m, 0.0)))

    def force(self, point: Array, *, lowering: bool) -> Array:
        """Return the weight (N, (2, …)) of the part that hangs from its port."""
        return vec(np.zeros_like(point[1]), -self.weight_n(point[1]))

    def stores(self, point: Array) -> Stored:
        """Return the lifted part's energy of height and mass."""
        return Stored(
            gravity_j=partial(self.energy_j, point[1]),
            moving=Moving(kg=self.weight_n(point[1]) / G),
        )
