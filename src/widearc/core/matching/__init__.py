"""How alike two loadings are across the range of motion: match, shape, reach, level."""

from widearc.core.matching.match import ROUNDED_NM, Comparison, compare
from widearc.core.matching.measure import COARSE, GRAINS, covered, of_work, unwanted
from widearc.core.matching.target import (
    Target,
    compared_style,
    reshaped,
    styled,
    target_of,
    target_of_intent,
)

__all__ = [
    "COARSE",
    "GRAINS",
    "ROUNDED_NM",
    "Comparison",
    "Target",
    "compare",
    "compared_style",
    "covered",
    "of_work",
    "reshaped",
    "styled",
    "target_of",
    "target_of_intent",
    "unwanted",
]
