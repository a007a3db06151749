"""How alike two loadings are across the range of motion: match, shape, reach, level."""

from widearc.core.matching.match import (
    ROUNDED_NM,
    Comparison,
    Target,
    compare,
    of_work,
    reshaped,
    styled,
    target_of,
    target_of_intent,
)

__all__ = [
    "ROUNDED_NM",
    "Comparison",
    "Target",
    "compare",
    "of_work",
    "reshaped",
    "styled",
    "target_of",
    "target_of_intent",
]
