"""A free mass at a port: what gravity pulls straight down."""

from __future__ import annotations

from dataclasses import dataclass
from functools import partial

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.loads.fields import Number, Port
from widearc.core.equipment.loads.load import AtPort, Moving, Stored
from widearc.core.geometry import vec
from widearc.core.units import KILOGRAM, G

HEAVIEST_KG = 1000.0


def weight(name: str, words: str, *, key: str = "kg", usual: float, **more: object) -> Number:
    """Return a mass among a load's numbers, kg, from 0 to 1000; the load's forces grow with it."""
    return Number(
        name=name,
        words=words,
        unit=KILOGRAM,
        low=0.0,
        high=HEAVIEST_KG,
        key=key,
        usual=usual,
        weighs=True,
        **more,  # type: ignore[arg-type]
    )


def height_j(kg: float | Array, point: Array) -> Array:
    """Return the energy of height (J) of a mass (kg) at a point (m)."""
    return np.asarray(np.asarray(kg) * G * point[1])


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class FreeMass(AtPort):
    """A mass hanging or resting at a port: m·g straight down. kg is a float or (set-ups, 1), 0 to
    1000.
    """

    kind = "mass"
    words = "weight"
    short = "weight"
    again = "tape the thigh again, and look where the pressure is under the foot"
    rank = 1
    FIELDS = (weight("kg", "weight", usual=20.0), Port())
    made_of = "iron"
    amount = "kg"
    can_be_none = True
    sideways = False
    kg: float | Array
    port: str

    def __post_init__(self) -> None:
        """Check the mass."""
        self.check_numbers()

    @property
    def hangs(self) -> bool:
        """Return True: its weight does not depend on where it is."""
        return True

    @property
    def disc_kg(self) -> float:
        """Return the weight, kg."""
        return float(np.ravel(self.kg)[0])

    @property
    def weight_n(self) -> Array:
        """Return the weight, N."""
        return np.asarray(self.kg) * G

    def force(self, point: Array, *, lowering: bool) -> Array:
        """Return its weight (N, (2, …))."""
        return vec(np.zeros((1, 1)), -np.atleast_2d(self.weight_n))

    def stores(self, point: Array) -> Stored:
        """Return its energy of height and its mass."""
        return Stored(
            gravity_j=partial(height_j, self.kg, point), moving=Moving(kg=np.asarray(self.kg))
        )
