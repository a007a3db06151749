"""The load at which another exercise asks the same."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc.core.curve import CENTRES_DEG
from widearc.core.errors import InputError
from widearc.core.matching import compare
from widearc.core.search import Candidate, PreparedBatch, Question
from widearc.core.setups import LoadedSetup, extras_here
from widearc.core.statics import curve

MOST_LOADS = 60


@dataclass(frozen=True, slots=True, kw_only=True)
class EqualLoad:
    """A load of the stock that equals what is wanted in one respect; off: how much more it gives, a
    share of it.
    """

    by: str
    kg: float
    off: float


def equal_loads(
    chosen: Candidate, question: Question, at_deg: float | None = None
) -> tuple[EqualLoad, ...]:
    """Return the total here, of the chosen geometry, that comes closest in work, in peak and at an
    angle (degrees).

    By the target's joint with the most work. Empty where no weight is picked. Raises InputError for
    an angle that the wanted range does not have.
    """
    target = question.target
    main = target.main
    found = _frame_of(chosen, question)
    if found is None:
        return ()
    part, bare, totals = found
    rows = tuple(part.batch.row(bare, k) for k in totals)
    made = curve(
        part.batch.setup(question.body, question.limits, rows), strict=False, lowering=False
    )
    bins = compare(target, made.motion.angles, made.demand_nm, len(rows)).bins[main]
    kg = np.array([part.batch.totals[k].kg for k in totals])
    wanted = target.bins[main]
    asked: list[tuple[str, float, np.ndarray]] = [
        ("in work", float(wanted.sum()), bins.sum(axis=1)),
        ("in peak", float(wanted.max()), bins.max(axis=1)),
    ]
    if at_deg is not None:
        degree = int(np.argmin(np.abs(CENTRES_DEG - at_deg)))
        if wanted[degree] <= 0:
            low, high = sorted(target.range_deg(main))
            raise InputError(
                "at", f"{at_deg:g}°", f"an angle that is wanted, from {low:.0f}° to {high:.0f}°"
            )
        asked.append((f"at {at_deg:.0f}°", float(wanted[degree]), bins[:, degree]))
    answers = []
    for by, want, gives in asked:
        best = int(np.argmin(np.abs(gives - want)))
        answers.append(EqualLoad(by=by, kg=float(kg[best]), off=float(gives[best] / want - 1.0)))
    return tuple(answers)


def _same(bare: LoadedSetup, row: LoadedSetup) -> bool:
    return (bare.options, bare.bands, bare.words) == (row.options, row.bands, row.words)


def _frame_of(
    chosen: Candidate, question: Question
) -> tuple[PreparedBatch, int, tuple[int, ...]] | None:
    """Return the batch, the set-up without its load of a stand-in's geometry in it, and the totals
    that are free; None without any.
    """
    extras = extras_here(chosen.exercise, question.tried, question.body, question.wanted.knee)
    extra = chosen.extra if chosen.extra in extras else ""
    parts = question.prepared(chosen.exercise, extra).parts
    for part in (p for p in parts if len(p.batch.totals) > 1):
        mask = question.allowed(part)
        for index, bare in enumerate(part.batch.unloaded):
            if _same(bare, chosen.row) and mask[index].any():
                totals = np.flatnonzero(mask[index])
                return (
                    part,
                    index,
                    tuple(int(k) for k in totals[:: max(1, len(totals) // MOST_LOADS)]),
                )
    return None
