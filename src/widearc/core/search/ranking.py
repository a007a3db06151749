"""The search: every admissible set-up against the target, the best of each exercise, and what is
left out.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from widearc.core.body import Body, Limits
from widearc.core.dose import RepStyle, Tempo
from widearc.core.exercises import EXERCISES, Exercise
from widearc.core.intent import Intent, Shape
from widearc.core.kit import (
    MACHINES,
    STOCKS,
    BandStock,
    Excluded,
    Kit,
    Rules,
    Weight,
    left_out,
    step_by_step,
    taken_words,
)
from widearc.core.kit.differing import untried
from widearc.core.matching import Target
from widearc.core.search.candidate import Candidate
from widearc.core.search.groups import FAIL_ORDER
from widearc.core.search.memo import Memo, Prepared
from widearc.core.search.question import Question
from widearc.core.setups.pulls import untried_sets
from widearc.core.statics import BodyUncertainty, Curve
from widearc.core.words import Listed, Name, Said, Share, Term

AS_IT_IS = Said("this is the exercise to replace")
LEAST_MATCH = 0.05  # less is named among what is left out, not ranked
NO_RULES = Rules()
USUAL_DOUBT = BodyUncertainty()
PLAIN, USUAL_TEMPO = RepStyle(), Tempo()


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Ranking:
    """Candidates best first, what is excluded and why, how many set-ups were computed, and in words
    what of a large kit was not tried.
    """

    target: Target
    candidates: tuple[Candidate, ...]
    excluded: tuple[Excluded, ...]
    tried: int
    untried: tuple[Said, ...] = ()


def search(
    asked: Curve | Intent,
    kit: Kit,
    *,
    body: Body,
    limits: Limits,
    rules: Rules = NO_RULES,
    taken: frozenset[str] = frozenset(),
    limit: int | None = None,
    names: Mapping[str, str | Said] | None = None,
    memo: Memo | None = None,
    body_uncertainty: BodyUncertainty = USUAL_DOUBT,
    shape: Shape = Shape.ORIGINAL,
    style: RepStyle = PLAIN,
    tempo: Tempo = USUAL_TEMPO,
) -> Ranking:
    """Return every catalogue exercise ranked against a wanted curve or intent; the parts are those
    of Question.

    limit: how many candidates at most.
    """
    question = Question(
        asked=asked,
        kit=kit,
        body=body,
        limits=limits,
        rules=rules,
        taken=taken,
        names=names or {},
        memo=memo or Memo(),
        body_uncertainty=body_uncertainty,
        shape=shape,
        style=style,
        tempo=tempo,
    )
    return ranked(question, limit=limit)


def ranked(question: Question, *, limit: int | None = None) -> Ranking:
    """Return every catalogue exercise ranked for a question, at most so many.

    Where an intent has no level, candidates are ranked by shape. The order is the same for the same
    question: by match in whole percents, and where those are equal, by failing safely alone, then
    steadiness, then name.
    """
    kit, taken, names, wanted = question.kit, question.taken, question.names, question.wanted
    left = [(exercise, _left_out(exercise, question)) for exercise in compared_exercises()]
    admitted = [exercise for exercise, out in left if out is None]
    prepared = {e.id: made for e, made in zip(admitted, question.prepare(admitted), strict=True)}
    # what shares next to nothing is not computed exactly
    hopeless = frozenset(e.id for e in admitted if question.hopeless(e, LEAST_MATCH))
    question.score(e for e in admitted if e.id not in hopeless)
    found: list[Candidate] = []
    excluded: list[Excluded] = []
    for exercise, out in left:
        if out is not None:
            excluded.append(out)
            continue
        best = None if exercise.id in hopeless else question.best(exercise)
        own = wanted.exercise is not None and exercise.id == wanted.exercise.id
        if own and best is None:
            excluded.append(Excluded(exercise=exercise, reason=AS_IT_IS))
        elif best is None and exercise.id not in hopeless:
            excluded.append(_nothing_made(exercise, kit, taken, prepared[exercise.id], names))
        elif best is None or best[0] < LEAST_MATCH:
            reason = Said(
                "under {share} of the work in common with what is wanted", share=Share(LEAST_MATCH)
            )
            excluded.append(Excluded(exercise=exercise, reason=reason))
        else:
            found.append(question.candidate(best))
    tried = sum(one.tried for one in prepared.values())
    ordered = step_by_step(_ordered(found), question.rules)
    return Ranking(
        target=wanted.target,
        candidates=tuple(ordered[:limit]),
        excluded=tuple(excluded),
        tried=tried,
        untried=(*untried(question.kit, question.tried), *untried_sets(question.tried)),
    )


def _left_out(exercise: Exercise, question: Question) -> Excluded | None:
    """Return why an exercise is not even tried, or None."""
    kit, taken, names, wanted = question.kit, question.taken, question.names, question.wanted
    out = left_out(exercise, kit, question.limits, question.rules, taken, names)
    if out is None and frozenset(wanted.target.actions).isdisjoint(exercise.prime):
        # the first thing a trainer asks of a stand-in: that it trains the wanted action
        trained = Listed(tuple(Term(action.words) for action in exercise.prime), "and")
        reason = Said("trains {trained}, not what is wanted", trained=trained)
        return Excluded(exercise=exercise, reason=reason)
    return out


def compared_exercises() -> tuple[Exercise, ...]:
    """Return the exercises that have a joint to compare."""
    return tuple(e for e in EXERCISES.values() if e.compared)


def _ordered(found: Iterable[Candidate]) -> list[Candidate]:
    """Return candidates best first; equal percents by failing safely alone, then steadiness, then
    name.
    """
    return sorted(
        found,
        key=lambda c: (
            -round(100 * c.match),
            FAIL_ORDER[c.exercise.fails_alone],
            -c.exercise.steadiness,
            c.exercise.name,
        ),
    )


def _nothing_made(
    exercise: Exercise,
    kit: Kit,
    taken: frozenset[str],
    prepared: Prepared,
    names: Mapping[str, str | Said],
) -> Excluded:
    """Return the reason why an admitted exercise has no set-up."""
    if prepared.reasons and not any(part.usable.any() for part in prepared.parts):
        return Excluded(
            exercise=exercise, reason=max(prepared.reasons, key=lambda r: prepared.reasons[r])
        )
    stocked: tuple[Weight | BandStock, ...] = kit.weights + kit.bands
    lost = [item for item in stocked if item.id in taken]
    if "short loop" in exercise.needs and not any(b.goes_round_thighs for b in kit.bands):
        return Excluded(
            exercise=exercise,
            reason=Said("its loop is not weighed"),
            admits=Said("its pull, read at the Bench"),
        )
    framed = any(way.from_ == "frame" for ways in exercise.ways for way in ways)
    if framed and all(press.peg_m is None for press in kit.presses):
        reason = Said("no pegs for a band are measured on the press")
        return Excluded(
            exercise=exercise,
            reason=reason,
            admits=Said("the distance between its pegs, at the Bench"),
        )
    unread = [
        m
        for m in kit.machines
        if MACHINES.get(next(iter(exercise.needs), "")) == m.kind and not m.dials
    ]
    if unread and any(way.stock == "stack" for ways in exercise.ways for way in ways):
        reason = Said("{name} is not read at the pad yet", name=Name(unread[0].name, lower=True))
        return Excluded(
            exercise=exercise,
            reason=reason,
            admits=Said("its pull at three angles, with the weight on the pin"),
        )
    if "step" in exercise.needs and not prepared.tried:
        return Excluded(
            exercise=exercise,
            reason=Said("needs a step of a fitting height: none here"),
            admits=Said("a lower step"),
        )
    stock = sorted({way.stock for ways in exercise.ways for way in ways})
    pulls = any(way.stock == "band" for ways in exercise.ways for way in ways)
    if pulls and not lost and kit.bands and "short loop" not in exercise.needs:
        return Excluded(
            exercise=exercise,
            reason=Said("every band here hangs slack in it, or stretches too far"),
            admits=Said("a band of another length"),
        )
    kinds = {
        "bar": ("bar",),
        "dumbbell": ("dumbbell", "kettlebell"),
        "dumbbells": ("dumbbell", "kettlebell"),
    }
    for item in lost:
        kind = getattr(item, "kind", "band")
        if any(kind in kinds.get(s, (s,)) for s in stock):
            state = names.get(item.id, "taken")
            return Excluded(
                exercise=exercise, reason=taken_words(item.name or kind, state), taken=(item.id,)
            )
    needs = Listed(tuple(Term(w) for w in dict.fromkeys(STOCKS[n].words for n in stock)), "or")
    return Excluded(
        exercise=exercise,
        reason=Said("needs {needs}: none here", needs=needs),
        admits=Said("{needs}", needs=needs),
    )
