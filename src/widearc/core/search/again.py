"""The wanted lift set up once more: how like itself it is on another day."""

from __future__ import annotations

from widearc.core.matching import compare
from widearc.core.search.question import Question
from widearc.core.search.uncertainty import WANTED_LOAD, Uncertainty, Unsure, uncertainties_of


def wanted_again(question: Question) -> Uncertainty | None:
    """Return how sure the wanted lift matches itself; None for an intent.

    Whatever comes within it is as like the lift as the lift is like itself.
    """
    curve, target = question.wanted.curve, question.target
    if curve is None:
        return None
    weights = target.weights or None

    def made() -> Uncertainty:
        """Return it, computed once a question."""
        unsure = Unsure(
            own=curve,
            compared=compare(target, curve.motion.angles, curve.demand_nm, 1, weights),
            target=target,
            wanted=question.wanted_uncertainty,
            errors=(WANTED_LOAD,) * len(curve.setup.loads),
        )
        return uncertainties_of([unsure])[0]

    who = (question.body, question.limits, question.body_uncertainty)
    return question.memo.once(("again", target.key, *who, question.shape), made)
