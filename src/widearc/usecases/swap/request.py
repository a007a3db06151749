"""A swap request of the command line, answered."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from widearc.core.answers import ready_for_tweaks, tweaks_for
from widearc.core.intent import Intent
from widearc.core.search import Question, grouped, ranked, wanted_again
from widearc.core.statics import curve
from widearc.formats import parse_swap_request, swap_document
from widearc.usecases.client.strength import equal_reps_scaled


def answer_request(document: Any, *, clock: Callable[[], float]) -> dict[str, Any]:
    """Return the wide-arc/swap document for a wide-arc/swap-request; `clock` gives seconds for
    elapsed_ms.
    """
    request = parse_swap_request(document)
    start = clock()
    asked = (
        request.wanted
        if isinstance(request.wanted, Intent)
        else curve(request.wanted, lowering=False)
    )
    question = Question(
        asked=asked,
        kit=request.kit,
        body=request.body,
        limits=request.limits,
        rules=request.rules,
        taken=request.taken,
        style=request.style,
        tempo=request.tempo,
        by_dose=request.by_dose,
        body_uncertainty=request.body_uncertainty,
        shown_effort=request.shown_effort,
    )
    ranking = ranked(question, limit=request.limit)
    elapsed = clock() - start
    groups = grouped(ranking.candidates, question)
    ready_for_tweaks(ranking.candidates, question)
    closer = {c.exercise.id: tweaks_for(c, question) for c in ranking.candidates}
    reps: dict[str, int | None] = {}
    if not isinstance(asked, Intent):
        reps = {
            c.exercise.id: equal_reps_scaled(asked, c.curve, request.strength_scale, request.reps)
            for c in ranking.candidates
        }
    wanted = question.wanted.exercise
    return swap_document(
        ranking,
        groups,
        1000.0 * elapsed,
        closer,
        reps,
        wanted_again(question),
        None if wanted is None else wanted.id,
    )
