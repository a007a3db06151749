"""Loads and their laws: what pulls, how hard, and what energy it stores. Knows no body."""

from widearc.core.equipment.band import Band, BandLaw, LinearLaw, PointsLaw
from widearc.core.equipment.cable import Cable
from widearc.core.equipment.chain import Chain
from widearc.core.equipment.corner_bar import CornerBar
from widearc.core.equipment.fit import BandFit, fit_linear, fit_points
from widearc.core.equipment.masses import FreeMass, Sled
from widearc.core.equipment.spring import Spring, hung_rest_m, lighter_until_m, parallel
from widearc.core.equipment.stack import Stack

__all__ = [
    "Band",
    "BandFit",
    "BandLaw",
    "Cable",
    "Chain",
    "CornerBar",
    "FreeMass",
    "LinearLaw",
    "Load",
    "PointsLaw",
    "Sled",
    "Spring",
    "Stack",
    "fit_linear",
    "fit_points",
    "hung_rest_m",
    "lighter_until_m",
    "parallel",
]

Load = FreeMass | Band | Sled | Cable | Chain | CornerBar | Stack
"""Every kind of load that an exercise takes so far."""
