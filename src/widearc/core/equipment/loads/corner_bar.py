"""A bar whose one end pivots in a corner: a lever with a nearly constant hand force."""

from __future__ import annotations

from dataclasses import dataclass
from functools import partial

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.loads.fields import Choice, Number, Port, place
from widearc.core.equipment.loads.load import AtPort, Moving, Stored
from widearc.core.equipment.loads.mass import height_j, weight
from widearc.core.errors import InputError
from widearc.core.geometry import vec
from widearc.core.units import CENTIMETRE, G
from widearc.core.words import Said


def _length(name: str, words: str, key: str, usual: float) -> Number:
    return Number(name=name, words=words, unit=CENTIMETRE, low=0.3, high=3.0, key=key, usual=usual)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class CornerBar(AtPort):
    """A bar of bar_kg and bar_m pivoting at its end, plate_kg at sleeve_m, met by the hands at
    hand_m (from the pivot).

    direction "up": the hand's force is straight up and constant at any bar angle (common practice,
    no source for the worked value; the law is the lever's). "perpendicular": square to the bar,
    times the cosine of its angle β over the level, tilted towards the pivot by β; needs `pivot` (x,
    y, m), and the hand slides along the bar without friction. plate_kg: float or (set-ups, 1).
    """

    kind = "corner-bar"
    words = "corner bar"
    short = "bar"
    again = "measure from the pivot to the hands again"
    rank = 9
    FIELDS = (
        weight("plate_kg", "plates", key="plate", usual=20.0),
        weight("bar_kg", "bar", key="bar", usual=20.0),
        _length("bar_m", "bar length", "long", 2.2),
        _length("sleeve_m", "plates from the pivot", "sleeve", 2.0),
        _length("hand_m", "hands from the pivot", "hand", 2.1),
        Port(optional=True),
        Choice(
            name="direction",
            words="",
            choices=(("up", "straight up"), ("perpendicular", "square to the bar")),
            default="up",
        ),
        place("pivot", ("", ""), 0.0, 0.0, optional=True, typed=False),
    )
    amount = "plate_kg"
    sideways = False
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
        self.check_numbers()
        if self.direction not in ("up", "perpendicular"):
            raise InputError("direction", self.direction, Said("up or perpendicular"))
        if self.direction == "perpendicular" and self.pivot is None:
            raise InputError("pivot", None, Said("the pivot's place for a force square to the bar"))

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

    @property
    def hangs(self) -> bool:
        """Return whether the hands' force is straight up, whatever the bar's angle."""
        return self.direction == "up"

    @property
    def fixed_at(self) -> tuple[float, float] | None:
        """Return the pivot, m, where it is known."""
        return self.pivot

    def force(self, point: Array, *, lowering: bool) -> Array:
        """Return the force (N, (2, …)) on the hands."""
        if self.direction == "perpendicular":
            return np.asarray(self.square_to_bar(point)[0])
        return vec(np.zeros((1, 1)), -np.atleast_2d(self.hand_n))

    def stores(self, point: Array) -> Stored:
        """Return the bar's energy of height and its inertia as felt at the hands."""
        up = vec(np.zeros((1, 1)), np.ones((1, 1)))
        gravity = (
            partial(np.asarray, self.square_to_bar(point)[1])
            if self.direction == "perpendicular"
            else partial(height_j, self.hand_n / G, point)
        )
        return Stored(
            gravity_j=gravity,
            moving=Moving(kg=self.inertia_kgm2 / self.hand_m**2, towards=up, travel=point[1]),
        )

    def far_end(self, here: Array) -> Array:
        """Return where it pivots for hands at `here`, m (2, …): as known, else in a
        corner ahead.
        """
        x, y = self.pivot or (float(here[0, 0]) + 0.9 * self.hand_m, 0.05)
        return np.array([[x], [y]]) * np.ones_like(here)
