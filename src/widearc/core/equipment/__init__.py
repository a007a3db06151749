"""Loads and their laws: what pulls, how hard, and what energy it stores. Knows no body."""

from widearc.core.equipment.band import Band, BandLaw, LinearLaw, MooneyRivlinLaw, PointsLaw
from widearc.core.equipment.cable import Cable
from widearc.core.equipment.chain import Chain
from widearc.core.equipment.corner_bar import CornerBar
from widearc.core.equipment.fit import (
    CLOSE_ENOUGH,
    BandFit,
    BandFits,
    fit_band,
    fit_linear,
    fit_mooney_rivlin,
    fit_points,
)
from widearc.core.equipment.hold import Hold, Margin, margin
from widearc.core.equipment.lever import Lever, Pendulum
from widearc.core.equipment.machine_fit import FITS, MachineFit, fit_machine
from widearc.core.equipment.masses import FreeMass, Sled
from widearc.core.equipment.spring import Spring, SpringLoad, hung_rest_m, lighter_until_m, parallel
from widearc.core.equipment.stack import Stack

__all__ = [
    "CLOSE_ENOUGH",
    "FITS",
    "Band",
    "BandFit",
    "BandFits",
    "BandLaw",
    "Cable",
    "Chain",
    "CornerBar",
    "FreeMass",
    "Hold",
    "Lever",
    "LinearLaw",
    "Load",
    "MachineFit",
    "Margin",
    "MooneyRivlinLaw",
    "Pendulum",
    "PointsLaw",
    "Sled",
    "Spring",
    "SpringLoad",
    "Stack",
    "fit_band",
    "fit_linear",
    "fit_machine",
    "fit_mooney_rivlin",
    "fit_points",
    "hung_rest_m",
    "lighter_until_m",
    "margin",
    "parallel",
]

Load = FreeMass | Band | Sled | Cable | Chain | CornerBar | Stack | SpringLoad | Lever | Pendulum
"""Every kind of load."""
