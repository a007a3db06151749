"""The best stand-in that a kit can make: stock, set-ups, search and reasons."""

from widearc.core.substitution.admission import Excluded, Rules
from widearc.core.substitution.kit import (
    CAST,
    READ,
    Anchor,
    BandShape,
    BandStock,
    Furniture,
    Kit,
    Machine,
    Pick,
    Piece,
    SledPress,
    SpringStock,
    Thing,
    Weight,
    sled_picks,
)
from widearc.core.substitution.people import notes_for
from widearc.core.substitution.prepared import Memo
from widearc.core.substitution.question import Candidate, Question
from widearc.core.substitution.reasons import sentence
from widearc.core.substitution.search import Ranking, ranked, search
from widearc.core.substitution.setups import MACHINES, presses_for
from widearc.core.substitution.trainable import Trainable, trainable

__all__ = [
    "CAST",
    "MACHINES",
    "READ",
    "Anchor",
    "BandShape",
    "BandStock",
    "Candidate",
    "Excluded",
    "Furniture",
    "Kit",
    "Machine",
    "Memo",
    "Pick",
    "Piece",
    "Question",
    "Ranking",
    "Rules",
    "SledPress",
    "SpringStock",
    "Thing",
    "Trainable",
    "Weight",
    "notes_for",
    "presses_for",
    "ranked",
    "search",
    "sentence",
    "sled_picks",
    "trainable",
]
