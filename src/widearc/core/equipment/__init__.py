"""Loads and their laws: what pulls, how hard, and what energy it stores. Knows no body."""

from widearc.core.equipment.band import Band, BandLaw, LinearLaw, MooneyRivlinLaw, PointsLaw
from widearc.core.equipment.cable import Cable
from widearc.core.equipment.chain import Chain
from widearc.core.equipment.corner_bar import CornerBar
from widearc.core.equipment.described import (
    KINDS,
    ItemKind,
    Quantity,
    Source,
    check_quantity,
    kind_of,
    rail_angle_deg,
    shim_bend_deg,
    weakest,
    wedge_relief_deg,
)
from widearc.core.equipment.fit import (
    CLOSE_ENOUGH,
    BandFit,
    BandFits,
    fit_band,
    fit_linear,
    fit_mooney_rivlin,
    fit_points,
)
from widearc.core.equipment.hold import Hold, HoldKind, Margin, gives_way, margin, stands
from widearc.core.equipment.lever import Lever, Pendulum
from widearc.core.equipment.machine_fit import FITS, MachineFit, fit_machine
from widearc.core.equipment.masses import FreeMass, Sled
from widearc.core.equipment.pair import PairMatch, folded_pull_n, pair_match
from widearc.core.equipment.scaling import scaled, scaled_law
from widearc.core.equipment.spread import (
    drawn_pulls,
    law_error_share,
    pull_error_n,
    scale_verdict,
    trust,
)
from widearc.core.equipment.spring import Spring, SpringLoad, hung_rest_m, lighter_until_m, parallel
from widearc.core.equipment.stack import Stack

__all__ = [
    "CLOSE_ENOUGH",
    "FITS",
    "KINDS",
    "Band",
    "BandFit",
    "BandFits",
    "BandLaw",
    "Cable",
    "Chain",
    "CornerBar",
    "FreeMass",
    "Hold",
    "HoldKind",
    "ItemKind",
    "Lever",
    "LinearLaw",
    "Load",
    "MachineFit",
    "Margin",
    "MooneyRivlinLaw",
    "PairMatch",
    "Pendulum",
    "PointsLaw",
    "Quantity",
    "Sled",
    "Source",
    "Spring",
    "SpringLoad",
    "Stack",
    "check_quantity",
    "drawn_pulls",
    "fit_band",
    "fit_linear",
    "fit_machine",
    "fit_mooney_rivlin",
    "fit_points",
    "folded_pull_n",
    "gives_way",
    "hung_rest_m",
    "kind_of",
    "law_error_share",
    "lighter_until_m",
    "margin",
    "pair_match",
    "parallel",
    "pull_error_n",
    "rail_angle_deg",
    "scale_verdict",
    "scaled",
    "scaled_law",
    "shim_bend_deg",
    "stands",
    "trust",
    "weakest",
    "wedge_relief_deg",
]

Load = FreeMass | Band | Sled | Cable | Chain | CornerBar | Stack | SpringLoad | Lever | Pendulum
"""Every kind of load."""
