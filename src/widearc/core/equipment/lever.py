"""A weighted lever arm about a fixed pivot, and a pendulum on the moving limb."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.masses import check_mass
from widearc.core.errors import InputError
from widearc.core.units import DEG, G


def _within(name: str, value: float | Array, low: float, high: float, unit: str) -> None:
    if (
        not np.all(np.isfinite(value))
        or np.any(np.asarray(value) < low)
        or np.any(np.asarray(value) > high)
    ):
        raise InputError(name, value, f"from {low:g} to {high:g} {unit}")


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Lever:
    """A lever arm about `pivot` (x, y in the room frame, m, floats or (set-ups, 1)), met by the
    user at a port.

    kg (float or (set-ups, 1)) at arm_m from the pivot, angle_deg above the level at the start of
    the lift, measured the way the lift turns the arm; own_kg, own_arm_m, own_angle_deg: the bare
    arm's weight likewise. user_arm_m: from the pivot to where the user meets it (None: taken from
    the port). sense (+1 anticlockwise) and start_rad (the port's angle about the pivot at the
    start) are read off the movement where they are not known.
    """

    kind: ClassVar[str] = "lever"
    pivot: tuple[float | Array, float | Array]
    kg: float | Array
    arm_m: float
    angle_deg: float = 0.0
    own_kg: float = 0.0
    own_arm_m: float = 0.0
    own_angle_deg: float = 0.0
    user_arm_m: float | None = None
    port: str = "shin-pad"
    sense: float | Array = 0.0
    start_rad: float | Array | None = None

    def __post_init__(self) -> None:
        """Check masses, lengths and angles."""
        check_mass("kg", self.kg)
        check_mass("own_kg", self.own_kg)
        _within("arm_m", self.arm_m, 0.0, 5.0, "m")
        _within("own_arm_m", self.own_arm_m, 0.0, 5.0, "m")
        _within("angle_deg", self.angle_deg, -360, 360, "degrees")
        _within("own_angle_deg", self.own_angle_deg, -360, 360, "degrees")
        for axis, value in zip(("x_m", "y_m"), self.pivot, strict=True):
            _within(f"pivot/{axis}", value, -5, 5, "m")
        if self.user_arm_m is not None:
            _within("user_arm_m", self.user_arm_m, 0.02, 3.0, "m")

    @property
    def pivot_m(self) -> Array:
        """Return the pivot, m (2, set-ups or 1, 1)."""
        return np.stack(np.broadcast_arrays(*(np.atleast_2d(value) for value in self.pivot)))

    def turned(self, angle: Array) -> Array:
        """Return the arm's turn since the start (rad, positive with the lift) from its angle in the
        room (rad).
        """
        unwrapped = np.unwrap(angle, axis=-1)
        turn = unwrapped - unwrapped[..., :1]
        if self.start_rad is not None:
            first = angle[..., :1] - self.start_rad
            turn = turn + np.arctan2(np.sin(first), np.cos(first))
        return np.asarray(turn * self.way(turn))

    def way(self, turn: Array) -> Array:
        """Return +1 where the lift turns the arm anticlockwise, else -1, (…, 1)."""
        if np.any(np.asarray(self.sense) != 0):
            return np.asarray(self.sense, dtype=float)
        return np.asarray(np.where(turn[..., -1:] < 0, -1.0, 1.0))

    def moment_nm(self, turn: Array) -> Array:
        """Return the moment against the lift about the pivot (N·m) after a turn (rad): (m·d·cos +
        m0·d0·cos)·g.
        """
        main = np.asarray(self.kg) * self.arm_m * np.cos(turn + self.angle_deg * DEG)
        own = self.own_kg * self.own_arm_m * np.cos(turn + self.own_angle_deg * DEG)
        return np.asarray((main + own) * G)

    def energy_j(self, turn: Array) -> Array:
        """Return the energy of height (J) after a turn (rad)."""
        main = np.asarray(self.kg) * self.arm_m * np.sin(turn + self.angle_deg * DEG)
        own = self.own_kg * self.own_arm_m * np.sin(turn + self.own_angle_deg * DEG)
        return np.asarray((main + own) * G)

    @property
    def inertia_kgm2(self) -> Array:
        """Return the moment of inertia about the pivot, kg·m²: weights as points (the bare arm
        too).
        """
        return np.asarray(np.asarray(self.kg) * self.arm_m**2 + self.own_kg * self.own_arm_m**2)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Pendulum:
    """A weight kg (float or (set-ups, 1)) at arm_m from the turning joint, in line with the moving
    limb.
    """

    kind: ClassVar[str] = "pendulum"
    kg: float | Array
    arm_m: float

    def __post_init__(self) -> None:
        """Check mass and length."""
        check_mass("kg", self.kg)
        _within("arm_m", self.arm_m, 0.1, 3.0, "m")

    @property
    def period_s(self) -> float:
        """Return the period of a small free swing of the weight alone, s: 2π √(l / g)."""
        return float(2.0 * np.pi * np.sqrt(self.arm_m / G))
