"""The one place where units meet: everything inside the core is SI, everything outside passes
here.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from types import MappingProxyType
from typing import TYPE_CHECKING, overload

if TYPE_CHECKING:
    from widearc.core.arrays import Array

G = 9.80665
"""Standard gravity, m/s² (exact by definition, 3rd CGPM 1901)."""

DEG = math.pi / 180.0
"""Radians in one degree."""

LB_KG = 0.45359237
"""Kilograms in one pound (exact, international yard and pound agreement 1959)."""

IN_M = 0.0254
"""Metres in one inch (exact, same agreement)."""

LENGTH_M = MappingProxyType({"m": 1.0, "cm": 0.01, "mm": 0.001, "in": IN_M, "ft": 12 * IN_M})
"""Metres per unit of length that a person may type."""

FORCE_N = MappingProxyType({"N": 1.0, "kgf": G, "kg": G, "lbf": LB_KG * G, "lb": LB_KG * G})
"""Newtons per unit of force; a hanging scale that reads kg or lb means kgf or lbf."""

MASS_KG = MappingProxyType({"kg": 1.0, "lb": LB_KG})
"""Kilograms per unit of mass."""


@overload
def to_rad(degrees: float) -> float: ...
@overload
def to_rad(degrees: Array) -> Array: ...
def to_rad(degrees: float | Array) -> float | Array:
    """Return radians for degrees."""
    return degrees * DEG


@overload
def to_deg(radians: float) -> float: ...
@overload
def to_deg(radians: Array) -> Array: ...
def to_deg(radians: float | Array) -> float | Array:
    """Return degrees for radians."""
    return radians / DEG


@dataclass(frozen=True, slots=True, kw_only=True)
class Unit:
    """A unit in which a number is typed: its sign, and how much of the number as kept one of it is.

    kept: the words for the unit it is kept in (SI, angles in degrees).
    """

    sign: str
    per: float
    kept: str

    def shown(self, value: float) -> str:
        """Return a number as kept, as it is typed, with its sign."""
        return self.typed(value) + self.said

    @property
    def said(self) -> str:
        """Return its sign as it stands after a number, with its space."""
        return {"": "", "°": "°"}.get(self.sign, f" {self.sign}")

    def typed(self, value: float) -> str:
        """Return a number as kept, as it is typed."""
        return f"{value / self.per:.6g}"


KILOGRAM = Unit(sign="kg", per=1.0, kept=" kg")
KILOGRAM_A_METRE = Unit(sign="kg", per=1.0, kept=" kg/m")
CENTIMETRE = Unit(sign="cm", per=0.01, kept=" m")
NEWTON = Unit(sign="N", per=1.0, kept=" N")
NEWTON_PER_10_CM = Unit(sign="N/10 cm", per=10.0, kept=" N/m")
DEGREE = Unit(sign="°", per=1.0, kept=" degrees")
PERCENT = Unit(sign="%", per=0.01, kept="")
PLAIN = Unit(sign="", per=1.0, kept="")
