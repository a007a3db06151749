"""Loads and their laws: what pulls, how hard, and what energy it stores. Knows no body."""

from widearc.core.equipment.items.angles import rail_angle_deg, shim_bend_deg, wedge_relief_deg
from widearc.core.equipment.items.band_fit import (
    CLOSE_ENOUGH,
    BandFit,
    BandFits,
    fit_band,
    fit_linear,
    fit_mooney_rivlin,
    fit_points,
    points_law,
)
from widearc.core.equipment.items.fitted import MachineFit
from widearc.core.equipment.items.hold import (
    Hold,
    HoldKind,
    Margin,
    gives_way,
    held_down,
    margin,
    stands,
)
from widearc.core.equipment.items.kinds import ANCHORS, FURNITURE, KINDS, MACHINES, kind_of
from widearc.core.equipment.items.machine_fit import FITS, fit_machine
from widearc.core.equipment.items.pair import PairMatch, folded_pull_n, pair_match
from widearc.core.equipment.items.quantity import (
    MOST_CHECKS,
    MOST_READINGS,
    ItemKind,
    Quantity,
    Source,
    check_quantity,
    weakest,
)
from widearc.core.equipment.items.spread import (
    drawn_pulls,
    law_error_share,
    pull_error_n,
    scale_verdict,
    trust,
)
from widearc.core.equipment.loads import LOADS
from widearc.core.equipment.loads.band import Band
from widearc.core.equipment.loads.cable import Cable
from widearc.core.equipment.loads.chain import Chain
from widearc.core.equipment.loads.corner_bar import CornerBar
from widearc.core.equipment.loads.fields import Choice, Field, Law, Number, Point, Port, Table, Tie
from widearc.core.equipment.loads.lever import Lever
from widearc.core.equipment.loads.load import AtPort, Line, Load, Stored
from widearc.core.equipment.loads.mass import FreeMass, height_j
from widearc.core.equipment.loads.pendulum import Pendulum
from widearc.core.equipment.loads.rubber import (
    REFUSED_STRETCH,
    SAFE_STRETCH,
    BandLaw,
    LinearLaw,
    MooneyRivlinLaw,
    PointsLaw,
)
from widearc.core.equipment.loads.sled import Sled
from widearc.core.equipment.loads.spring import (
    Spring,
    SpringLoad,
    hung_rest_m,
    lighter_until_m,
    parallel,
)
from widearc.core.equipment.loads.stack import Stack

__all__ = [
    "ANCHORS",
    "CLOSE_ENOUGH",
    "FITS",
    "FURNITURE",
    "KINDS",
    "LOADS",
    "MACHINES",
    "MOST_CHECKS",
    "MOST_READINGS",
    "REFUSED_STRETCH",
    "SAFE_STRETCH",
    "AtPort",
    "Band",
    "BandFit",
    "BandFits",
    "BandLaw",
    "Cable",
    "Chain",
    "Choice",
    "CornerBar",
    "Field",
    "FreeMass",
    "Hold",
    "HoldKind",
    "ItemKind",
    "Law",
    "Lever",
    "Line",
    "LinearLaw",
    "Load",
    "MachineFit",
    "Margin",
    "MooneyRivlinLaw",
    "Number",
    "PairMatch",
    "Pendulum",
    "Point",
    "PointsLaw",
    "Port",
    "Quantity",
    "Sled",
    "Source",
    "Spring",
    "SpringLoad",
    "Stack",
    "Stored",
    "Table",
    "Tie",
    "check_quantity",
    "drawn_pulls",
    "fit_band",
    "fit_linear",
    "fit_machine",
    "fit_mooney_rivlin",
    "fit_points",
    "folded_pull_n",
    "gives_way",
    "height_j",
    "held_down",
    "hung_rest_m",
    "kind_of",
    "law_error_share",
    "lighter_until_m",
    "margin",
    "pair_match",
    "parallel",
    "points_law",
    "pull_error_n",
    "rail_angle_deg",
    "scale_verdict",
    "shim_bend_deg",
    "stands",
    "trust",
    "weakest",
    "wedge_relief_deg",
]
