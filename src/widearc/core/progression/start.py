"""Where to start a lift of which nothing is known yet, from what a kit makes."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from types import MappingProxyType

from widearc.core.body import Body, Limits
from widearc.core.exercises import Exercise
from widearc.core.kit import Kit
from widearc.core.progression.ladder import ladder_of
from widearc.core.progression.rung import Ladder
from widearc.core.progression.steps import next_of
from widearc.core.setups import ELASTIC, batches_of
from widearc.core.statics import curve

MOST_TRIED = 6
HEAVIEST, LIGHTEST, MIDDLE = "heaviest", "lightest", "middle"

FIRST: Mapping[str, str] = MappingProxyType(
    {
        "carriage-push": HEAVIEST,
        "carriage-side-push": HEAVIEST,
        "carriage-pull-back": LIGHTEST,
        "carriage-kick": LIGHTEST,
        "carriage-knee-drive": LIGHTEST,
        "carriage-lunge-front": MIDDLE,
    }
)
"""The first set on a carriage: the heaviest that moves the whole way, always the lightest, one in
the middle and then less help (common practice, no source).
"""


def start_of(exercise: Exercise, kit: Kit, body: Body, limits: Limits) -> Ladder | None:
    """Return the ladder of an exercise as a kit sets it up, its usual options, with the rung to
    start at as the present one: the lightest, on a carriage as practice has it; None where the kit
    makes nothing of it.
    """
    batches = sorted(
        batches_of(exercise, kit, body, limits, None),
        key=lambda b: any(part.stock in ELASTIC for part in b.way) and len(b.way) > 1,
    )
    for batch in batches[:MOST_TRIED]:
        row = batch.row(0, 0)
        setup = batch.setup(body, limits, [row])
        if not curve(replace(setup, samples=21), strict=False, lowering=False).motion.failed:
            ladder = ladder_of(setup, row.pieces, kit)
            return _at(ladder, first_rung(exercise.id, ladder))
    return None


def first_rung(exercise: str, ladder: Ladder) -> int:
    """Return which rung practice starts at."""
    way = FIRST.get(exercise, LIGHTEST)
    if way == HEAVIEST:
        can = [i for i, r in enumerate(ladder.rungs) if r.peak is None or r.peak < 1.0]
        return max(can, default=len(ladder.rungs) - 1)
    if way == MIDDLE and ladder.turning is not None:
        most = ladder.rungs[ladder.turning].elastic_n
        helped = [i for i, r in enumerate(ladder.rungs) if r.elastic_n <= most]
        return helped[len(helped) // 2]
    return 0


def _at(ladder: Ladder, present: int) -> Ladder:
    return replace(ladder, present=present, next=next_of(ladder.rungs, present))
