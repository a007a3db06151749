"""The best stand-in that a kit can make: stock, set-ups, search and reasons."""

from widearc.core.substitution.kit import (
    Anchor,
    BandShape,
    BandStock,
    Furniture,
    Kit,
    Pick,
    Piece,
    SledPress,
    Weight,
    sled_picks,
)
from widearc.core.substitution.prepared import Memo
from widearc.core.substitution.reasons import sentence
from widearc.core.substitution.search import Candidate, Excluded, Ranking, Rules, search

__all__ = [
    "Anchor",
    "BandShape",
    "BandStock",
    "Candidate",
    "Excluded",
    "Furniture",
    "Kit",
    "Memo",
    "Pick",
    "Piece",
    "Ranking",
    "Rules",
    "SledPress",
    "Weight",
    "search",
    "sentence",
    "sled_picks",
]
