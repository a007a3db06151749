"""What is kept of training: strength over time, what a set asked, and what it counts for."""

from widearc.core.record.estimate import Estimate, Point, estimate_of
from widearc.core.record.gap import Gap, gap_of
from widearc.core.record.volume import shares_of_set

__all__ = ["Estimate", "Gap", "Point", "estimate_of", "gap_of", "shares_of_set"]
