"""What a person can produce against joint angle: default isometric strength curves, scaled from
sets that were done.
"""

from widearc.core.strength.curves import ACTIONS, strength_nm
from widearc.core.strength.equal import EqualReps, effort_ratios, equal_effort_reps, hardest
from widearc.core.strength.scale import (
    FORMULAS,
    MOST_REPS,
    Scale,
    can_predict,
    current,
    effort_of_reps,
    reps_left_words,
    scales_of_set,
)

__all__ = [
    "ACTIONS",
    "FORMULAS",
    "MOST_REPS",
    "EqualReps",
    "Scale",
    "can_predict",
    "current",
    "effort_of_reps",
    "effort_ratios",
    "equal_effort_reps",
    "hardest",
    "reps_left_words",
    "scales_of_set",
    "strength_nm",
]
