"""Loads and their laws: what pulls, how hard, and what energy it stores. Knows no body."""

from widearc.core.equipment.band import Band, BandLaw, LinearLaw, PointsLaw
from widearc.core.equipment.fit import BandFit, fit_linear, fit_points
from widearc.core.equipment.masses import FreeMass, Sled

__all__ = [
    "Band",
    "BandFit",
    "BandLaw",
    "FreeMass",
    "LinearLaw",
    "Load",
    "PointsLaw",
    "Sled",
    "fit_linear",
    "fit_points",
]

Load = FreeMass | Band | Sled
"""Every kind of load so far."""
