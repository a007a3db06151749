"""The best stand-in that a kit can make: stock, set-ups, search and reasons."""

from widearc.core.substitution.admission import Excluded, Rules, meeting, near
from widearc.core.substitution.closer import Tweak, applied, ready_for_tweaks, tweaks
from widearc.core.substitution.columns import (
    COLUMNS,
    FILTERS,
    MOST_WEIGHT,
    Beside,
    beside,
    muscle_match,
    muscle_thirds,
    sorted_by,
    weighted,
)
from widearc.core.substitution.kinder import Kinder, kinder
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
    hold_of,
    sled_picks,
)
from widearc.core.substitution.pairs import Pair, best_pair, needs_pair
from widearc.core.substitution.people import notes_for
from widearc.core.substitution.prepared import Memo
from widearc.core.substitution.question import Candidate, Question, make_sure
from widearc.core.substitution.reasons import sentence
from widearc.core.substitution.reverse import (
    Bought,
    EqualLoad,
    Needed,
    equal_loads,
    needed,
    purchases,
)
from widearc.core.substitution.search import Ranking, compared_exercises, ranked, search
from widearc.core.substitution.setups import MACHINES, presses_for
from widearc.core.substitution.trainable import Trainable, trainable
from widearc.core.substitution.why import WhyNot, why_not

__all__ = [
    "CAST",
    "COLUMNS",
    "FILTERS",
    "MACHINES",
    "MOST_WEIGHT",
    "READ",
    "Anchor",
    "BandShape",
    "BandStock",
    "Beside",
    "Bought",
    "Candidate",
    "EqualLoad",
    "Excluded",
    "Furniture",
    "Kinder",
    "Kit",
    "Machine",
    "Memo",
    "Needed",
    "Pair",
    "Pick",
    "Piece",
    "Question",
    "Ranking",
    "Rules",
    "SledPress",
    "SpringStock",
    "Thing",
    "Trainable",
    "Tweak",
    "Weight",
    "WhyNot",
    "applied",
    "beside",
    "best_pair",
    "compared_exercises",
    "equal_loads",
    "hold_of",
    "kinder",
    "make_sure",
    "meeting",
    "muscle_match",
    "muscle_thirds",
    "near",
    "needed",
    "needs_pair",
    "notes_for",
    "presses_for",
    "purchases",
    "ranked",
    "ready_for_tweaks",
    "search",
    "sentence",
    "sled_picks",
    "sorted_by",
    "trainable",
    "tweaks",
    "weighted",
    "why_not",
]
