"""A weight stack over a cam: a moment about the machine's axis that changes with the angle."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.loads.fields import FRICTION, RATIO, Number, Table
from widearc.core.equipment.loads.load import Load
from widearc.core.equipment.loads.mass import weight
from widearc.core.errors import InputError
from widearc.core.units import CENTIMETRE, DEG, DEGREE, G
from widearc.core.words import Count, Figure, Name, Said


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Stack(Load):
    """A stack of kg (float or (set-ups, 1)) pulling `ratio` of its weight at a cam's radius.

    angle_deg rising, radius_m: the cam's radius against the moving joint's angle, joined by
    straight lines and held beyond the ends. friction 0 to 0.5: share added on the way up, taken on
    the way down.
    """

    kind = "stack"
    words = "weight stack"
    short = "stack"
    again = "read the stack's pull again at the pad, at three angles or more"
    rank = 5
    FIELDS = (
        weight("kg", "weight", usual=40.0),
        RATIO,
        Table(
            name="radius",
            words="cam, degrees: radius in cm",
            key="cam",
            columns=(
                Number(name="angle_deg", words="", unit=DEGREE, low=-180.0, high=180.0),
                Number(name="radius_m", words="", unit=CENTIMETRE, low=0.0, high=1.0),
            ),
            usual="0: 11, 60: 14, 110: 12",
        ),
        replace(FRICTION, usual=0.05),
    )
    amount = "kg"
    kg: float | Array
    angle_deg: tuple[float, ...]
    radius_m: tuple[float, ...]
    ratio: float = 1.0
    friction: float = 0.0

    def __post_init__(self) -> None:
        """Check the table and the numbers."""
        self.check_numbers()
        if len(self.angle_deg) != len(self.radius_m) or not self.angle_deg:
            raise InputError(
                "radius/radius_m",
                len(self.radius_m),
                Said(
                    "as many as {name}, {count}",
                    name=Name("angle_deg"),
                    count=Count(len(self.angle_deg)),
                ),
            )
        for row, (before, after) in enumerate(
            zip(self.angle_deg, self.angle_deg[1:], strict=False), start=1
        ):
            if after <= before:
                raise InputError(
                    f"radius/angle_deg/{row}",
                    after,
                    Said("more than the angle before, {angle}", angle=Figure(before)),
                )
        for row, radius in enumerate(self.radius_m):
            if not np.isfinite(radius) or not 0 <= radius <= 1:
                raise InputError(f"radius/radius_m/{row}", radius, Said("from 0 to 1 m"))

    def radius(self, angle: Array) -> Array:
        """Return the cam's radius (m) at the joint's angle (rad)."""
        return np.asarray(np.interp(angle, np.asarray(self.angle_deg) * DEG, self.radius_m))

    def moment_nm(self, angle: Array, *, lowering: bool = False) -> Array:
        """Return the moment about the axis (N·m, against the lift) at the joint's angle (rad)."""
        sign = -1.0 if lowering else 1.0
        return np.asarray(
            np.asarray(self.kg) * G * self.ratio * self.radius(angle) * (1.0 + sign * self.friction)
        )
