"""A ladder for a request on a file, as the pages compute it."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date
from typing import Any

from widearc.core.progression.aims import Occasion
from widearc.core.progression.answer import LadderQuestion, answer
from widearc.core.progression.ladder import ladder_of
from widearc.formats.ladder import ladder_document, parse_ladder_request


def answer_ladder(document: Any, *, today: date, clock: Callable[[], float]) -> dict[str, Any]:
    """Return the wide-arc/ladder document for a wide-arc/ladder-request; `clock` gives seconds for
    elapsed_ms.
    """
    request = parse_ladder_request(document, today=today)
    start = clock()
    ladder = ladder_of(request.setup, request.pieces, request.kit)
    now = ladder.now.effort
    seen = tuple(
        Occasion(day=day, sets=sets, effort=now if effort is None else effort)
        for day, sets, effort in request.seen
    )
    question = LadderQuestion(
        setup=request.setup,
        pieces=request.pieces,
        kit=request.kit,
        aim=request.aim,
        seen=seen,
        today=request.today,
        tempo=request.tempo,
        machine=request.machine,
        two=request.two,
    )
    return ladder_document(answer(question, ladder), 1000.0 * (clock() - start))
