"""What a client's joints allow: limits bound the movement and are named when they do."""

from __future__ import annotations

import math
from dataclasses import dataclass, fields

from widearc.core.errors import RangeError
from widearc.core.units import DEG

_RANGES = {
    "dorsiflexion_deg": (0.0, 60.0),
    "hip_flexion_deg": (60.0, 160.0),
    "knee_deg": (30.0, 160.0),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Limits:
    """Joint limits in degrees as a trainer states them, and whether the spine may be loaded.

    dorsiflexion_deg 0 to 60 (default 35), hip_flexion_deg 60 to 160 before the pelvis rolls under
    (default 125), knee_deg 30 to 160 (default 140). Raises InputError outside.
    """

    dorsiflexion_deg: float = 35.0
    hip_flexion_deg: float = 125.0
    knee_deg: float = 140.0
    no_axial_load: bool = False

    def __post_init__(self) -> None:
        """Check every number once."""
        for item in fields(self):
            if item.name in _RANGES:
                value, (low, high) = getattr(self, item.name), _RANGES[item.name]
                if not math.isfinite(value) or not low <= value <= high:
                    raise RangeError(f"/limits/{item.name}", value, low, high, " degrees")

    @property
    def dorsiflexion(self) -> float:
        """Return the ankle limit, rad."""
        return self.dorsiflexion_deg * DEG

    @property
    def hip_flexion(self) -> float:
        """Return the hip limit, rad."""
        return self.hip_flexion_deg * DEG

    @property
    def knee(self) -> float:
        """Return the knee limit, rad."""
        return self.knee_deg * DEG
