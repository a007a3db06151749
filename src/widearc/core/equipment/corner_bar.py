"""A bar whose one end pivots in a corner: a lever with a nearly constant hand force."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.masses import check_mass
from widearc.core.errors import InputError
from widearc.core.units import G


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class CornerBar:
    """A bar of bar_kg and bar_m pivoting at its end, plate_kg at sleeve_m, met by the hands at hand_m (from the pivot).

    The hand's force is straight up: constant at any bar angle (common practice, no source for the
    worked value; the law is the lever's). plate_kg: float or (set-ups, 1).
    """

    kind: ClassVar[str] = "corner-bar"
    plate_kg: float | Array
    bar_kg: float
    bar_m: float
    sleeve_m: float
    hand_m: float
    port: str = "goblet"

    def __post_init__(self) -> None:
        """Check masses and lengths."""
        check_mass("plate_kg", self.plate_kg)
        check_mass("bar_kg", self.bar_kg)
        for name in ("bar_m", "sleeve_m", "hand_m"):
            value = getattr(self, name)
            if not np.isfinite(value) or not 0.3 <= value <= 3.0:
                raise InputError(name, value, "from 0.3 to 3 m")

    @property
    def hand_n(self) -> Array:
        """Return the hand force straight up, N: (m_bar·L/2 + m_plate·d)·g / r."""
        moment = self.bar_kg * self.bar_m / 2.0 + np.asarray(self.plate_kg) * self.sleeve_m
        return np.asarray(moment * G / self.hand_m)
