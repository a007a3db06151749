"""Why an exercise that the trainer expected higher is not: left out, or how far under the best and
where.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from widearc.core.exercises import Exercise
from widearc.core.kit import left_out
from widearc.core.search import LEAST_MATCH, Candidate, Question, Ranking, chance_better, make_sure
from widearc.core.search.groups import ALIKE


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class WhyNot:
    """The answer: words; the stand-in as it would be where it can be computed at all (also one that
    is left out).
    """

    exercise: Exercise
    words: str
    candidate: Candidate | None


def why_not_higher(exercise: Exercise, ranking: Ranking, question: Question) -> WhyNot:
    """Return why an exercise is not higher in a ranking: the computed difference, with angles."""
    own = next((c for c in ranking.candidates if c.exercise.id == exercise.id), None)
    if own is not None:
        make_sure(ranking.candidates)
        best = max(ranking.candidates, key=lambda c: c.uncertainty.usual)
        return WhyNot(exercise=exercise, words=_beside(own, best, ranking), candidate=own)
    out = next((e for e in ranking.excluded if e.exercise.id == exercise.id), None)
    reason = out.reason if out is not None else "it has no curve that could be compared"
    as_if = _as_if(exercise, question)
    if as_if is None or (
        question.wanted.exercise is not None and question.wanted.exercise.id == exercise.id
    ):
        return WhyNot(
            exercise=exercise, words=f"{exercise.name} is left out: {reason}.", candidate=None
        )
    lost = left_out(
        exercise, question.kit, question.limits, question.rules, question.taken, question.names
    )
    here = "Were that not so" if lost is not None or as_if.match >= LEAST_MATCH else "At its best"
    words = (
        f"{exercise.name} is left out: {reason}. {here} it would match {100 * as_if.match:.0f} %: "
        f"{as_if.sentence}"
    )
    return WhyNot(exercise=exercise, words=words, candidate=as_if)


def _as_if(exercise: Exercise, question: Question) -> Candidate | None:
    """Return the exercise's best set-up with nothing taken and nothing ruled out, None where none
    can be made.
    """
    open_to_all = replace(question, taken=frozenset(), rules=replace(question.rules, grip_kg=None))
    best = open_to_all.best(exercise)
    return None if best is None else open_to_all.candidate(best)


def _beside(own: Candidate, best: Candidate, ranking: Ranking) -> str:
    if own is best:
        return f"{own.exercise.name} is the best that can be made here: {own.sentence}"
    under = round(100 * best.match) - round(100 * own.match)
    points = "1 point" if abs(under) == 1 else f"{abs(under)} points"
    apart = f"{points} {'under' if under > 0 else 'over'}" if under else "as close as"
    parts = [f"{own.exercise.name} is {apart} {best.exercise.name.lower()} as computed"]
    if chance_better(own.uncertainty, best.uncertainty) >= ALIKE:
        parts[0] += ", alike as far as can be known"
    joints = []
    for index, action in enumerate(ranking.target.actions):
        here, there = (round(100 * float(c.comparison.by_joint[index][0])) for c in (own, best))
        if abs(here - there) >= 3:
            joints.append(f"{action.joint.replace('_', ' ')} {here} against {there} %")
    if joints:
        parts.append("; ".join(joints))
    return f"{': '.join(parts)}. {own.sentence} {_level(own, best)}".strip()


def _level(own: Candidate, best: Candidate) -> str:
    if own.shape > best.shape + 0.03 and own.match < best.match:
        how = "light" if own.level < 1 else "heavy"
        return (
            f"Its shape is closer ({100 * own.shape:.0f} %), but what is here makes it too {how}."
        )
    return ""
