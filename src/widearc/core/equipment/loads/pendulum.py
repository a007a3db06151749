"""A pendulum on the moving limb."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.loads.fields import Number
from widearc.core.equipment.loads.load import Load
from widearc.core.equipment.loads.mass import weight
from widearc.core.units import CENTIMETRE, G


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Pendulum(Load):
    """A weight kg (float or (set-ups, 1)) at arm_m from the turning joint, in line with the moving
    limb.
    """

    kind = "pendulum"
    words = "pendulum"
    short = "pendulum"
    again = "measure the pendulum's arm again"
    rank = 7
    FIELDS = (
        weight("kg", "weight", usual=20.0),
        Number(
            name="arm_m",
            words="from the joint",
            unit=CENTIMETRE,
            low=0.1,
            high=3.0,
            key="arm",
            usual=0.9,
        ),
    )
    amount = "kg"
    kg: float | Array
    arm_m: float

    def __post_init__(self) -> None:
        """Check mass and length."""
        self.check_numbers()

    @property
    def disc_kg(self) -> float:
        """Return the weight, kg."""
        return float(np.ravel(self.kg)[0])

    @property
    def period_s(self) -> float:
        """Return the period of a small free swing of the weight alone, s: 2π √(l / g)."""
        return float(2.0 * np.pi * np.sqrt(self.arm_m / G))
