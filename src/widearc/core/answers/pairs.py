"""Two stand-ins together, where none alone covers both prime joints."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from widearc.core.arrays import Array
from widearc.core.curve import Action
from widearc.core.kit import left_out
from widearc.core.matching import Comparison, compare, covered, of_work
from widearc.core.search import Candidate, Question, compared_exercises

COVERED = 0.60  # match on a joint: less is not called covered
TRIED = 4  # best ones for each joint that are put together


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Pair:
    """Two stand-ins, each for one prime joint: their match together, and the share of each joint's
    work they cover.

    match: of the sum of both with what is wanted, 0 to 1. covers: by stand-in, by the target's
    joints, 0 to 1.
    """

    first: Candidate
    second: Candidate
    actions: tuple[Action, Action]
    match: float
    covers: tuple[tuple[float, float], tuple[float, float]]


def needs_pair(best: Candidate | None, question: Question) -> bool:
    """Return whether the best stand-in leaves one of two prime joints uncovered."""
    if len(question.target.actions) != 2:
        return False
    return best is None or min(float(m[0]) for m in best.comparison.by_joint) < COVERED


CLOSER = 0.01  # of match: what two together must gain to be worth two set-ups


def closer_pair(best: Candidate, question: Question) -> Pair | None:
    """Return the two stand-ins that come closer together than the best alone, None where none
    do.
    """
    pair = best_pair(question)
    return pair if pair is not None and pair.match > best.match + CLOSER else None


def best_pair(question: Question) -> Pair | None:
    """Return the two stand-ins whose sum has most in common with what is wanted, each chosen for
    its own joint.

    None where the target has one joint or nothing fits.
    """
    target = question.target
    if len(target.actions) != 2:
        return None
    chosen = [_for_joint(question, index) for index in range(2)]
    best: Pair | None = None
    for one in chosen[0]:
        for two in chosen[1]:
            if one.exercise.id == two.exercise.id:
                continue
            pair = _together(question, one, two)
            if best is None or pair.match > best.match + 1e-9:
                best = pair
    return best


def _for_joint(question: Question, index: int) -> list[Candidate]:
    """Return the best stand-ins for one joint of the target alone."""
    target = question.target
    own = replace(
        target,
        actions=(target.actions[index],),
        bins=(target.bins[index],),
        weights=(target.weights[index],) if target.weights else (),
    )
    found = []
    for exercise in compared_exercises():
        original = question.wanted.exercise
        if original is not None and exercise.id == original.id:
            continue
        if (
            left_out(
                exercise,
                question.kit,
                question.limits,
                question.rules,
                question.taken,
                question.names,
            )
            is not None
        ):
            continue
        best = question.best(exercise, target=own)
        if best is not None and best[0] > 0.05:
            found.append((best[0], exercise.name, best))
    found.sort(key=lambda f: (-round(f[0], 6), f[1]))
    return [question.candidate(best, target=own) for _, _, best in found[:TRIED]]


def _together(question: Question, one: Candidate, two: Candidate) -> Pair:
    target = question.target
    bins = [_bins(question, c) for c in (one, two)]
    covers_both = given = 0.0
    for i, wanted in enumerate(target.bins):
        both = bins[0][i] + bins[1][i]
        covers_both += float(covered(wanted, both))
        given += float(both.sum())
    asked = sum(float(wanted.sum()) for wanted in target.bins)
    other = asked * sum(float(_compared(question, c).other[0]) for c in (one, two))
    covers = tuple(
        tuple(
            float(np.minimum(own[i], wanted).sum() / wanted.sum())
            for i, wanted in enumerate(target.bins)
        )
        for own in bins
    )
    return Pair(
        first=one,
        second=two,
        actions=(target.actions[0], target.actions[1]),
        match=float(of_work(covers_both, asked, given, other)),
        covers=((covers[0][0], covers[0][1]), (covers[1][0], covers[1][1])),
    )


def _compared(question: Question, candidate: Candidate) -> Comparison:
    return compare(question.target, candidate.curve.motion.angles, candidate.curve.demand_nm, 1)


def _bins(question: Question, candidate: Candidate) -> list[Array]:
    return [b[0] for b in _compared(question, candidate).bins]
