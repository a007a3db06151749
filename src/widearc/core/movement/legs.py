"""Leg chains: foot, shank and thigh with their weights, and where a foot's landmarks lie."""

from __future__ import annotations

from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body
from widearc.core.body import segments as s
from widearc.core.geometry import vec
from widearc.core.movement.motion import Motion

LANDMARKS = {"heel": s.HEEL, "mid": s.MID, "ball": s.BALL}
TOE = 1.0 + s.HEEL


def pressure_m(body: Body, pressure: Any) -> Array | float:
    """Return how far along the sole ahead of the ankle (m) the pressure point lies."""
    if isinstance(pressure, str):
        return body.sole_m(LANDMARKS[pressure])
    return np.asarray(pressure, dtype=float)


class Foot:
    """A foot from its ankle (2, …), its sole direction heel to toe and the direction away from the
    shank.
    """

    def __init__(self, body: Body, ankle: Array, towards_toe: Array, down: Array) -> None:
        self.body, self.ankle, self.towards_toe, self.down = body, ankle, towards_toe, down

    def sole(self, ahead_m: Array | float) -> Array:
        """Return the point of the sole `ahead_m` ahead of the ankle, m (2, …)."""
        return self.ankle + self.body.ankle_height_m * self.down + ahead_m * self.towards_toe

    @property
    def com(self) -> Array:
        """Return the centre of mass: half way along the foot, half the ankle's height."""
        half = (s.HEEL + s.COM_FOOT) * self.body.foot_m
        return self.ankle + 0.5 * self.body.ankle_height_m * self.down + half * self.towards_toe


def add_leg(
    motion: Motion,
    body: Body,
    foot: Foot,
    knee: Array,
    hip: Array,
    *,
    legs: int = 1,
    prefix: str = "",
) -> None:
    """Add one leg's segments and points (or both legs' as one when they move alike)."""
    motion.points[f"{prefix}ankle"], motion.points[f"{prefix}knee"] = foot.ankle, knee
    motion.points[f"{prefix}hip" if not prefix else "hip"] = hip
    motion.points[f"{prefix}toe"] = foot.sole(body.sole_m(TOE))
    motion.points[f"{prefix}heel"] = foot.sole(body.sole_m(s.HEEL))
    motion.add_segment(f"{prefix}foot", legs * s.M_FOOT * body.mass_kg, foot.com)
    shank_com = knee + s.COM_SHANK * (foot.ankle - knee)
    motion.add_segment(f"{prefix}shank", legs * s.M_SHANK * body.mass_kg, shank_com)
    motion.add_segment(
        f"{prefix}thigh", legs * s.M_THIGH * body.mass_kg, hip + s.COM_THIGH * (knee - hip)
    )


def stand_on(
    motion: Motion, point: Array, segment: str = "foot", source: str = "contact foot"
) -> None:
    """Add the one contact that carries everything at `point` (m), where the posture balances.

    In a fast lift the floor's force moves along the sole; it is kept at the point, with its moment.
    """

    def closure(moved: Motion) -> None:
        """Add the contacts that balance what acts on the body."""
        if moved.dynamic:
            moved.couples.append((segment, -moved.moment_about(point), source))
        moved.add_force(segment, point, -moved.total_force(), source)

    motion.close(closure)


def flat(x: Array | float, y: Array | float) -> Array:
    """Return a constant point (2, 1, 1) or (2, set-ups, 1) from numbers or (set-ups, 1) arrays."""
    return vec(np.atleast_2d(np.asarray(x, dtype=float)), np.atleast_2d(np.asarray(y, dtype=float)))
