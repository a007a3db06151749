"""Why an exercise that the trainer expected higher is not: left out, or how far under the best and
where.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from widearc.core.exercises import Exercise
from widearc.core.kit import left_out
from widearc.core.search import LEAST_MATCH, Candidate, Question, Ranking, chance_better, make_sure
from widearc.core.search.groups import ALIKE
from widearc.core.words import UNSAID, Count, Listed, Said, Share, Term, Words, joined, sentences


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class WhyNot:
    """The answer: words; the stand-in as it would be where it can be computed at all (also one that
    is left out).
    """

    exercise: Exercise
    words: Words
    candidate: Candidate | None


def why_not_higher(exercise: Exercise, ranking: Ranking, question: Question) -> WhyNot:
    """Return why an exercise is not higher in a ranking: the computed difference, with angles."""
    own = next((c for c in ranking.candidates if c.exercise.id == exercise.id), None)
    if own is not None:
        make_sure(ranking.candidates)
        best = max(ranking.candidates, key=lambda c: c.uncertainty.usual)
        return WhyNot(exercise=exercise, words=_beside(own, best, ranking), candidate=own)
    out = next((e for e in ranking.excluded if e.exercise.id == exercise.id), None)
    reason = out.reason if out is not None else NO_CURVE
    name = Term(exercise.name)
    as_if = _as_if(exercise, question)
    if as_if is None or (
        question.wanted.exercise is not None and question.wanted.exercise.id == exercise.id
    ):
        words = Said("{exercise} is left out: {reason}.", exercise=name, reason=reason)
        return WhyNot(exercise=exercise, words=words, candidate=None)
    lost = left_out(
        exercise, question.kit, question.limits, question.rules, question.taken, question.names
    )
    here = (
        "{exercise} is left out: {reason}. Were that not so it would match {share}: {differs}"
        if lost is not None or as_if.match >= LEAST_MATCH
        else "{exercise} is left out: {reason}. At its best it would match {share}: {differs}"
    )
    share, differs = Share(as_if.match), as_if.sentence
    words = Said(here, exercise=name, reason=reason, share=share, differs=differs)
    return WhyNot(exercise=exercise, words=words, candidate=as_if)


NO_CURVE = Said("it has no curve that could be compared")


def _as_if(exercise: Exercise, question: Question) -> Candidate | None:
    """Return the exercise's best set-up with nothing taken and nothing ruled out, None where none
    can be made.
    """
    open_to_all = replace(question, taken=frozenset(), rules=replace(question.rules, grip_kg=None))
    best = open_to_all.best(exercise)
    return None if best is None else open_to_all.candidate(best)


def _beside(own: Candidate, best: Candidate, ranking: Ranking) -> Words:
    name = Term(own.exercise.name)
    if own is best:
        return Said(
            "{exercise} is the best that can be made here: {differs}",
            exercise=name,
            differs=own.sentence,
        )
    alike = chance_better(own.uncertainty, best.uncertainty) >= ALIKE
    parts = [
        Said(
            "{exercise} is {apart} {best} as computed, alike as far as can be known"
            if alike
            else "{exercise} is {apart} {best} as computed",
            exercise=name,
            apart=_apart(round(100 * best.match) - round(100 * own.match)),
            best=Term(best.exercise.name, lower=True),
        )
    ]
    joints = joined(*_joints(own, best, ranking), by="; ")
    summed = Said("{both}.", both=Listed((*parts, joints) if joints else tuple(parts), ": "))
    return sentences((summed, own.sentence, _level(own, best)))


def _apart(under: int) -> Said:
    """Return how many points of match one is under another, in words that go before its name."""
    if not under:
        return Said("as close as")
    points = Count(abs(under))
    if under > 0:
        return Said("{points} point under", "{points} points under", points=points)
    return Said("{points} point over", "{points} points over", points=points)


def _joints(own: Candidate, best: Candidate, ranking: Ranking) -> Iterator[Said]:
    """Yield the joints in which two matches differ by three points or more."""
    for index, action in enumerate(ranking.target.actions):
        here, there = (float(c.comparison.by_joint[index][0]) for c in (own, best))
        if abs(round(100 * here) - round(100 * there)) >= 3:
            yield Said(
                "{joint} {here} against {there}",
                joint=Term(action.joint.replace("_", " ")),
                here=Share(here),
                there=Share(there),
            )


def _level(own: Candidate, best: Candidate) -> Said:
    if not (own.shape > best.shape + 0.03 and own.match < best.match):
        return UNSAID
    words = (
        "Its shape is closer ({share}), but what is here makes it too light."
        if own.level < 1
        else "Its shape is closer ({share}), but what is here makes it too heavy."
    )
    return Said(words, share=Share(own.shape))
