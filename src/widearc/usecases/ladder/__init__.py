"""The ladder of a lift: its rungs here, and the next step."""

from widearc.usecases.ladder.ladder import (
    LadderAsk,
    LadderView,
    agree,
    facts_at,
    ladder_view,
    place_of,
)
from widearc.usecases.ladder.request import answer_ladder
from widearc.usecases.ladder.rules import choose_rule, keep_own_rule, scope

__all__ = [
    "LadderAsk",
    "LadderView",
    "agree",
    "answer_ladder",
    "choose_rule",
    "facts_at",
    "keep_own_rule",
    "ladder_view",
    "place_of",
    "scope",
]
