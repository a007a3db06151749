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
    """A bar of bar_kg and bar_m pivoting at its end, plate_kg at sleeve_m, met by the hands at
    hand_m (from the pivot).

    direction "up": the hand's force is straight up and constant at any bar angle (common practice,
    no source for the worked value; the law is the lever's). "perpendicular": square to the bar,
    times the cosine of its angle β over the level, tilted towards the pivot by β; needs `pivot` (x,
    y, m), and the hand slides along the bar without friction. plate_kg: float or (set-ups, 1).
    """

    kind: ClassVar[str] = "corner-bar"
    plate_kg: float | Array
    bar_kg: float
    bar_m: float
    sleeve_m: float
    hand_m: float
    port: str = "goblet"
    direction: str = "up"
    pivot: tuple[float, float] | None = None

    def __post_init__(self) -> None:
        """Check masses and lengths."""
        check_mass("plate_kg", self.plate_kg)
        check_mass("bar_kg", self.bar_kg)
        for name in ("bar_m", "sleeve_m", "hand_m"):
            value = getattr(self, name)
            if not np.isfinite(value) or not 0.3 <= value <= 3.0:
                raise InputError(name, value, "from 0.3 to 3 m")
        if self.direction not in ("up", "perpendicular"):
            raise InputError("direction", self.direction, "up or perpendicular")
        if self.direction == "perpendicular" and self.pivot is None:
            raise InputError("pivot", None, "the pivot's place for a force square to the bar")

    @property
    def moment_kgm(self) -> Array:
        """Return mass times distance about the pivot, kg·m: m_bar·L/2 + m_plate·d."""
        return np.asarray(
            self.bar_kg * self.bar_m / 2.0 + np.asarray(self.plate_kg) * self.sleeve_m
        )

    @property
    def hand_n(self) -> Array:
        """Return the hand force straight up, N: (m_bar·L/2 + m_plate·d)·g / r."""
        return np.asarray(self.moment_kgm * G / self.hand_m)

    @property
    def inertia_kgm2(self) -> Array:
        """Return the moment of inertia about the pivot, kg·m²: a thin bar and a plate as a
        point.
        """
        return np.asarray(
            self.bar_kg * self.bar_m**2 / 3.0 + np.asarray(self.plate_kg) * self.sleeve_m**2
        )

    def square_to_bar(self, point: Array) -> tuple[Array, Array]:
        """Return the force on the body (N, (2, …)) square to the bar at `point` (m), and the bar's
        energy (J).
        """
        assert self.pivot is not None
        gap = point - np.array(self.pivot)[:, None, None]
        far = np.maximum(np.hypot(gap[0], gap[1]), 1e-9)
        across = np.abs(gap[0]) / far  # cos β
        # away from the pivot and down: the body is pushed square to the bar
        away = np.stack((np.sign(gap[0]) * gap[1] / far, -across))
        return np.asarray(self.moment_kgm * G * across / far * away), np.asarray(
            self.moment_kgm * G * gap[1] / far
        )
