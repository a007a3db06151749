"""What a place has, what its stock makes, and what it admits."""

from widearc.core.kit.admission import STAGES, Excluded, left_out, stage_of, step_by_step
from widearc.core.kit.machines import MACHINES, is_axial, presses_for, presses_on_spine
from widearc.core.kit.needs import BEHIND_M, HIGHEST_M, LOW_M, meeting, near, taken_words
from widearc.core.kit.rules import Rules
from widearc.core.kit.stock import (
    CAST,
    READ,
    Anchor,
    BandShape,
    BandStock,
    Furniture,
    Kit,
    Machine,
    SledPress,
    SpringStock,
    Thing,
    Weight,
    box_pairs,
    hold_of,
)
from widearc.core.kit.stocks import BELL_PORTS, STOCKS, On, lever_load
from widearc.core.kit.totals import Piece, Total, sled_totals
from widearc.core.kit.trainable import Trainable, trainable_here

__all__ = [
    "BEHIND_M",
    "BELL_PORTS",
    "CAST",
    "HIGHEST_M",
    "LOW_M",
    "MACHINES",
    "READ",
    "STAGES",
    "STOCKS",
    "Anchor",
    "BandShape",
    "BandStock",
    "Excluded",
    "Furniture",
    "Kit",
    "Machine",
    "On",
    "Piece",
    "Rules",
    "SledPress",
    "SpringStock",
    "Thing",
    "Total",
    "Trainable",
    "Weight",
    "box_pairs",
    "hold_of",
    "is_axial",
    "left_out",
    "lever_load",
    "meeting",
    "near",
    "presses_for",
    "presses_on_spine",
    "sled_totals",
    "stage_of",
    "step_by_step",
    "taken_words",
    "trainable_here",
]
