"""Segment lengths, masses and centres of mass.

Source: Winter, Biomechanics and Motor Control of Human Movement, 4th ed. 2009, table 4.1 and
fig. 4.1 (after Drillis & Contini 1966; Dempster 1955). From memory until a copy is at hand.
"""

from __future__ import annotations

import dataclasses
import math
from dataclasses import dataclass, field
from enum import Enum
from types import MappingProxyType

from widearc.core.errors import RangeError, UnknownNameError


class Sex(Enum):
    """Which published strength coefficients apply; MEAN averages both."""

    MALE = "male"
    FEMALE = "female"
    MEAN = "mean"


# length / stature
FOOT_LENGTH, ANKLE_HEIGHT, SHANK, THIGH, TRUNK = 0.152, 0.039, 0.246, 0.245, 0.288
UPPER_ARM, FOREARM, HAND = 0.186, 0.146, 0.108
HIP_CENTRE, OUTER_HIP_BREADTH = 0.05, 0.191
# mass / body mass, one limb
M_FOOT, M_SHANK, M_THIGH, M_TRUNK, M_ARM = 0.0145, 0.0465, 0.100, 0.578, 0.050
# centre of mass from the proximal end, share of length
HIP_OVER_SEAT_M = 0.09  # hip centre over the seat's top (assumed: half a thigh's depth)
COM_FOOT, COM_SHANK, COM_THIGH, COM_TRUNK = 0.50, 0.433, 0.433, 0.66
M_ONE_PIECE, COM_ONE_PIECE = 0.678, 0.626  # head, arms and trunk with the arms folded or on a bar
# landmarks along the sole from under the ankle, share of foot length (common practice, no source)
HEEL, MID, BALL = -0.23, 0.22, 0.43
GRIP = 0.5  # the grip's centre along the hand, share of hand length (assumed)

SEGMENTS = MappingProxyType(
    {
        "foot_m": FOOT_LENGTH,
        "shank_m": SHANK,
        "thigh_m": THIGH,
        "trunk_m": TRUNK,
        "upper_arm_m": UPPER_ARM,
        "forearm_m": FOREARM,
    }
)
"""Lengths a tape measure may override, with their share of stature."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Body:
    """A person's lengths (m) and masses (kg).

    mass_kg 25 to 300, stature_m 1.0 to 2.4; `segments` overrides lengths by tape measure, each
    within 40 % of the table's share of stature. Raises InputError outside those ranges. foot_m:
    heel to toe; shank_m: knee to ankle; thigh_m: hip to knee; trunk_m: hip to shoulder; arm_m:
    shoulder to the grip's centre, straight.
    """

    mass_kg: float = 80.0
    stature_m: float = 1.80
    sex: Sex = Sex.MEAN
    segments: MappingProxyType[str, float] = field(default_factory=lambda: MappingProxyType({}))
    foot_m: float = field(init=False, repr=False, compare=False)
    shank_m: float = field(init=False, repr=False, compare=False)
    thigh_m: float = field(init=False, repr=False, compare=False)
    trunk_m: float = field(init=False, repr=False, compare=False)
    arm_m: float = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        """Check every number once."""
        for name, low, high, unit in (("mass_kg", 25, 300, "kg"), ("stature_m", 1.0, 2.4, "m")):
            value = getattr(self, name)
            if not math.isfinite(value) or not low <= value <= high:
                raise RangeError(f"/body/{name}", value, low, high, f" {unit}")
        for name, value in self.segments.items():
            if name not in SEGMENTS:
                raise UnknownNameError(f"/body/segments/{name}", name, SEGMENTS)
            usual = SEGMENTS[name] * self.stature_m
            if not math.isfinite(value) or not 0.6 * usual <= value <= 1.4 * usual:
                where = f"/body/segments/{name}"
                low, high = round(0.6 * usual, 3), round(1.4 * usual, 3)
                raise RangeError(where, value, low, high, " m")
        # read hundreds of times a curve: worked out once
        for name in ("foot_m", "shank_m", "thigh_m", "trunk_m"):
            object.__setattr__(self, name, self._length(name))
        arm = self._length("upper_arm_m") + self._length("forearm_m") + GRIP * HAND * self.stature_m
        object.__setattr__(self, "arm_m", arm)

    def __hash__(self) -> int:
        """Return a hash over the values, so that curves can be cached by body."""
        return hash((self.mass_kg, self.stature_m, self.sex, tuple(sorted(self.segments.items()))))

    def _length(self, name: str) -> float:
        return self.segments.get(name, SEGMENTS[name] * self.stature_m)

    @property
    def ankle_height_m(self) -> float:
        """Return the ankle's height over the sole, m."""
        return ANKLE_HEIGHT * self.stature_m

    @property
    def outer_hip_breadth_m(self) -> float:
        """Return the breadth over the hips, m."""
        return OUTER_HIP_BREADTH * self.stature_m

    def sole_m(self, landmark: float) -> float:
        """Return the distance along the sole ahead of the ankle (m) of a landmark (share of foot
        length).
        """
        return landmark * self.foot_m

    def replaced(self, **changes: float) -> Body:
        """Return the same body with other mass or stature."""
        return dataclasses.replace(self, **changes)  # type: ignore[arg-type]
