"""A swap request answered without its tweaks, which take most of the time and do not change what is
ranked.
"""

from __future__ import annotations

from widearc.core.search import Question, grouped, ranked, wanted_again
from widearc.core.statics import curve
from widearc.formats import parse_swap_request, swap_document


def swapped(document):
    """The wide-arc/swap document of a request for a set-up, every candidate without tweaks."""
    request = parse_swap_request(document)
    question = Question(
        asked=curve(request.wanted, lowering=False),
        kit=request.kit,
        body=request.body,
        limits=request.limits,
        rules=request.rules,
        taken=request.taken,
        shown_effort=request.shown_effort,
    )
    ranking = ranked(question)
    groups = grouped(ranking.candidates, question)
    return swap_document(
        ranking, groups, 0.0, {}, {}, wanted_again(question), request.wanted.exercise.id
    )
