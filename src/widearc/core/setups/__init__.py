"""Which set-ups of an exercise a kit makes: geometry by family, what pulls, totals of the stock."""

from widearc.core.setups.batch import NOTHING, Batch
from widearc.core.setups.batches import OnceCache, batches_of, extras_here, totals_of
from widearc.core.setups.geometry.asked import Range
from widearc.core.setups.pulls import ELASTIC
from widearc.core.setups.unloaded import (
    LoadedSetup,
    pieces_to_carry,
    pulled_otherwise,
    table_of,
    users_of,
)

__all__ = [
    "ELASTIC",
    "NOTHING",
    "Batch",
    "LoadedSetup",
    "OnceCache",
    "Range",
    "batches_of",
    "extras_here",
    "pieces_to_carry",
    "pulled_otherwise",
    "table_of",
    "totals_of",
    "users_of",
]
