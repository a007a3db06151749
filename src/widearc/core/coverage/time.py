"""How long slots take, and what to drop when there is less time."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from widearc.core.coverage.seen import GROUPS, SlotSeen, units

MINUTES_BETWEEN = 1.0
"""From one thing to the next (assumed)."""


def minutes_of(slot: SlotSeen) -> float:
    """Return how long a slot takes, minutes: setting it up, its sets with reps and rest; a side
    after the other where one leg works.
    """
    if slot.minutes is not None:
        return slot.minutes
    sides = 2 if slot.traits.one_leg else 1
    a_set_s = sides * slot.reps * slot.rep_s + slot.rest_s
    return float(slot.exercise.minutes) + slot.sets * a_set_s / 60.0


def whole_minutes(slots: Sequence[SlotSeen]) -> float:
    """Return how long slots of one day take together, with the ways between them."""
    if not slots:
        return 0.0
    return sum(map(minutes_of, slots)) + MINUTES_BETWEEN * (len(slots) - 1)


def to_drop(slots: Sequence[SlotSeen], minutes: float) -> tuple[SlotSeen, ...]:
    """Return which slots of a day to drop so that the rest fits into so many minutes, first what
    loses least coverage for its time.
    """
    left, gone = list(slots), []
    while left and whole_minutes(left) > minutes + 1e-9:
        worth = _worth(left)
        losses = [
            (worth - _worth([s for s in left if s is not slot])) / max(minutes_of(slot), 0.1)
            for slot in left
        ]
        gone.append(left.pop(int(np.argmin(losses))))
    return tuple(gone)


def _worth(slots: Sequence[SlotSeen]) -> float:
    """Return what slots cover: each further unit set of a group and third is worth less."""
    found = units(slots)
    return float(sum(np.log1p(found[group].sum(axis=0)).sum() for group in GROUPS))
