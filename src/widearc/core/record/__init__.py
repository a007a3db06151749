"""What is kept of training: strength over time, what a set asked, and what it counts for."""

from widearc.core.record.estimate import Estimate, Point, estimate_of
from widearc.core.record.volume import shares_of_set

__all__ = ["Estimate", "Point", "estimate_of", "shares_of_set"]
