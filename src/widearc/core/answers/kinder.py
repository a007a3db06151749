"""What asks less of a sore joint at the same work: other set-ups, as options to try, never as
treatment.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc.core.curve import Action
from widearc.core.search import Candidate, PreparedBatch, Question
from widearc.core.setups import extras_here
from widearc.core.statics import joint_peak_nm
from widearc.core.words import UNSAID, Said, Words

ALIKE = 0.1  # of the work: a set-up that differs by no more asks "the same work"
LEAST_LESS = 0.05  # of the peak: less is not worth a change
MOST_KINDER = 3
MOST_COMPUTED = 12  # exactly: of a guess the other leg's joint is left out
MOST_GUESSED = 800
ACTIONS = {"knee": Action.KE, "hip": Action.HE, "ankle": Action.PF}
"""Whose demand is looked at for a sore joint."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Kinder:
    """A set-up that asks less of a joint: where it differs in words, change of the joint's peak
    (share, negative).

    match: its own (share), work: of the target's joints over the chosen one's.
    """

    words: Words
    candidate: Candidate
    change: float
    match: float
    work: float


def kinder_setups(chosen: Candidate, question: Question, joint: str) -> tuple[Kinder, ...]:
    """Return set-ups of the chosen exercise that ask less of a joint (hip, knee, ankle) at the same
    work, best first.

    The work of the target's joints stays within a tenth; peaks are those of the exact curves. Empty
    for a joint that the exercise holds, and where nothing asks a twentieth less.
    """
    if joint not in ACTIONS or joint not in chosen.curve.demand_nm:
        return ()
    here = joint_peak_nm(chosen.curve, joint)
    if here < 1.0:
        return ()
    guesses: dict[Words, tuple[float, PreparedBatch, tuple[int, int]]] = {}
    for extra in (
        UNSAID,
        *extras_here(chosen.exercise, question.tried, question.body, question.wanted.knee),
    ):
        for part in question.prepared(chosen.exercise, extra).parts:
            for words, peak, row in _gentlest(part, chosen, question, ACTIONS[joint]):
                if words not in guesses or peak < guesses[words][0]:
                    guesses[words] = peak, part, row
    found = []
    for _, part, row in sorted(guesses.values(), key=lambda g: g[0])[:MOST_COMPUTED]:
        other = question.candidate((0.0, part, row))
        change = joint_peak_nm(other.curve, joint) / here - 1.0
        work = float(other.comparison.level[0] / chosen.comparison.level[0])
        if change <= -LEAST_LESS and abs(work - 1.0) <= ALIKE:
            words = other.row.words or Said("as it is")
            found.append(
                Kinder(words=words, candidate=other, change=change, match=other.match, work=work)
            )
    return tuple(sorted(found, key=lambda k: k.change)[:MOST_KINDER])


def _gentlest(
    part: PreparedBatch, chosen: Candidate, question: Question, action: Action
) -> list[tuple[Words, float, tuple[int, int]]]:
    """Return (words, guessed peak N·m, row) of the gentlest set-up of each geometry of a batch but
    the chosen one, at about the chosen work.
    """
    mask = question.allowed(part)
    wanted = float(chosen.comparison.level[0]) * sum(float(b.sum()) for b in question.target.bins)
    off = np.where(mask, np.abs(part.work(question.target) / wanted - 1.0), np.inf)
    pairs = np.argwhere(off <= ALIKE)
    pairs = pairs[:: max(1, len(pairs) // MOST_GUESSED)]
    if not len(pairs):
        return []
    bare, total = pairs.T
    own = np.einsum("fr,frb->fb", part.mix[total], part.bins(action)[bare])
    peaks = np.abs(own).max(axis=1)
    best: dict[Words, tuple[float, tuple[int, int]]] = {}
    for peak, g, k in zip(peaks.tolist(), bare.tolist(), total.tolist(), strict=True):
        words = part.batch.unloaded[g].words
        if words != chosen.row.words and peak < best.get(words, (np.inf,))[0]:
            best[words] = peak, (g, k)
    return [(words, peak, row) for words, (peak, row) in best.items()]
