"""What is said beside a ranking: columns, tweaks, why not, pairs, equal loads, what to buy."""

from widearc.core.answers.cautions import cautions_of
from widearc.core.answers.columns import (
    COLUMNS,
    FILTERS,
    MOST_WEIGHT,
    SORTED,
    WEIGHED,
    Beside,
    Column,
    beside,
    muscle_match,
    muscle_thirds,
    sorted_by,
    weighted,
)
from widearc.core.answers.equal_load import EqualLoad, equal_loads
from widearc.core.answers.kinder import Kinder, kinder_setups
from widearc.core.answers.needed import Needed, needed_for
from widearc.core.answers.notes import notes_for
from widearc.core.answers.pairs import Pair, best_pair, closer_pair, needs_pair
from widearc.core.answers.purchases import Bought, purchases_for
from widearc.core.answers.tweaks import Tweak, applied, ready_for_tweaks, tweaks_for
from widearc.core.answers.why_not import WhyNot, why_not_higher

__all__ = [
    "COLUMNS",
    "FILTERS",
    "MOST_WEIGHT",
    "SORTED",
    "WEIGHED",
    "Beside",
    "Bought",
    "Column",
    "EqualLoad",
    "Kinder",
    "Needed",
    "Pair",
    "Tweak",
    "WhyNot",
    "applied",
    "beside",
    "best_pair",
    "cautions_of",
    "closer_pair",
    "equal_loads",
    "kinder_setups",
    "muscle_match",
    "muscle_thirds",
    "needed_for",
    "needs_pair",
    "notes_for",
    "purchases_for",
    "ready_for_tweaks",
    "sorted_by",
    "tweaks_for",
    "weighted",
    "why_not_higher",
]
