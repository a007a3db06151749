"""The load at which another exercise asks the same."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc.core.curve import CENTRES_DEG
from widearc.core.errors import InputError
from widearc.core.kit import Piece
from widearc.core.matching import compare
from widearc.core.search import Candidate, PreparedBatch, Question
from widearc.core.setups import LoadedSetup, extras_here, pulled_otherwise
from widearc.core.statics import curve
from widearc.core.words import UNSAID, Angle, Said

MOST_LOADS = 60


@dataclass(frozen=True, slots=True, kw_only=True)
class EqualLoad:
    """A load of the stock that equals what is wanted in one respect; off: how much more it gives, a
    share of it. kg: of its weights; pieces: to pick up, bands and springs among them.
    """

    by: Said
    kg: float
    off: float
    pieces: tuple[Piece, ...] = ()


def equal_loads(
    chosen: Candidate, question: Question, at_deg: float | None = None
) -> tuple[EqualLoad, ...]:
    """Return the load here, of the chosen geometry, that comes closest in work, in peak and at an
    angle (degrees): of its weights, or of other bands or springs at the same place.

    By the target's joint with the most work. Empty where there is nothing to choose. Raises
    InputError for an angle that the wanted range does not have.
    """
    target = question.target
    main = target.main
    found = _frame_of(chosen, question)
    if found is None:
        return ()
    part, pairs = found
    rows = tuple(part.batch.row(*pair) for pair in pairs)
    made = curve(
        part.batch.setup(question.body, question.limits, rows), strict=False, lowering=False
    )
    bins = compare(target, made.motion.angles, made.demand_nm, len(rows)).bins[main]
    wanted = target.bins[main]
    asked: list[tuple[Said, float, np.ndarray]] = [
        (Said("in work"), float(wanted.sum()), bins.sum(axis=1)),
        (Said("in peak"), float(wanted.max()), bins.max(axis=1)),
    ]
    if at_deg is not None:
        degree = int(np.argmin(np.abs(CENTRES_DEG - at_deg)))
        if wanted[degree] <= 0:
            low, high = sorted(target.range_deg(main))
            raise InputError(
                "at",
                round(at_deg, 1),
                Said(
                    "an angle that is wanted, from {angle} to {angle_2}",
                    angle=Angle.of_deg(low),
                    angle_2=Angle.of_deg(high),
                ),
            )
        asked.append(
            (Said("at {angle}", angle=Angle.of_deg(at_deg)), float(wanted[degree]), bins[:, degree])
        )
    answers = []
    for by, want, gives in asked:
        best = int(np.nanargmin(np.abs(gives - want)))
        pieces = part.pieces_of(pairs[best], question.taken, question.free)
        off = float(gives[best] / want - 1.0)
        answers.append(EqualLoad(by=by, kg=rows[best].kg, off=off, pieces=pieces))
    return tuple(answers)


def _same(bare: LoadedSetup, row: LoadedSetup) -> bool:
    return (bare.options, bare.bands, bare.words) == (row.options, row.bands, row.words)


def _frame_of(
    chosen: Candidate, question: Question
) -> tuple[PreparedBatch, list[tuple[int, int]]] | None:
    """Return the batch of a stand-in's geometry, with the set-ups (unloaded, total) of that
    geometry that are free; None where there is but one.
    """
    extras = extras_here(chosen.exercise, question.tried, question.body, question.wanted.knee)
    extra = chosen.extra if chosen.extra in extras else UNSAID
    for part in question.prepared(chosen.exercise, extra).parts:
        mask = question.allowed(part)
        for index, bare in enumerate(part.batch.unloaded):
            if _same(bare, chosen.row):
                rows = pulled_otherwise(part.batch.unloaded, index)
                pairs = [(int(rows[i]), int(k)) for i, k in np.argwhere(mask[rows])]
                if len(pairs) > 1:
                    return part, pairs[:: max(1, len(pairs) // MOST_LOADS)]
    return None
