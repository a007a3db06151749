"""Which set-ups of an exercise a kit makes: geometry by family, what pulls, totals of the stock."""

from widearc.core.setups.batches import NOTHING, Batch, Listed, batches, extras_here, picks_of
from widearc.core.setups.frames import Row, pieces_to_carry, table_of, users_of
from widearc.core.setups.geometry import Range
from widearc.core.setups.pulls import ELASTIC

__all__ = [
    "ELASTIC",
    "NOTHING",
    "Batch",
    "Listed",
    "Range",
    "Row",
    "batches",
    "extras_here",
    "picks_of",
    "pieces_to_carry",
    "table_of",
    "users_of",
]
