"""The search: a question, set-ups guessed, the close ones exact, the best of each exercise."""

from widearc.core.search.again import wanted_again
from widearc.core.search.candidate import Candidate, make_sure
from widearc.core.search.groups import Groups, grouped, is_first, variants_of
from widearc.core.search.memo import Memo
from widearc.core.search.prepared import PreparedBatch
from widearc.core.search.question import Question
from widearc.core.search.ranking import LEAST_MATCH, Ranking, compared_exercises, ranked, search
from widearc.core.search.reasons import sentence
from widearc.core.search.sore import Sore, sore_of
from widearc.core.search.uncertainty import Uncertainty, chance_better

__all__ = [
    "LEAST_MATCH",
    "Candidate",
    "Groups",
    "Memo",
    "PreparedBatch",
    "Question",
    "Ranking",
    "Sore",
    "Uncertainty",
    "chance_better",
    "compared_exercises",
    "grouped",
    "is_first",
    "make_sure",
    "ranked",
    "search",
    "sentence",
    "sore_of",
    "variants_of",
    "wanted_again",
]
