"""The ladder of a lift: its rungs here, and the next step."""

from widearc.usecases.ladder.request import answer_ladder

__all__ = ["answer_ladder"]
