"""The order of a day: large lifts first, then the second, one leg or isolation, calves, a finisher,
mobility (common practice, no source). A breach is a finding, not a ban.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

from widearc.core.coverage.seen import SlotSeen

COMPOUND = frozenset(
    {
        *("stance", "supported stance", "sled squat", "arc squat", "hinge", "sled press"),
        "bridge",
    }
)
WARM_UP, LARGE, ONE_OR_ISOLATED, CALVES, FINISHER, MOBILITY = range(6)


def rank_of(slot: SlotSeen) -> int:
    """Return where a slot belongs on its day: smaller is earlier."""
    by_kind = {"warm-up": WARM_UP, "finisher": FINISHER, "mobility": MOBILITY}
    if slot.kind in by_kind:
        return by_kind[slot.kind]
    exercise = slot.exercise
    if exercise.family == "mobility":
        return MOBILITY
    if exercise.family == "calf":
        return CALVES
    return LARGE if exercise.family in COMPOUND and not slot.traits.one_leg else ONE_OR_ISOLATED


def breaches(slots: Sequence[SlotSeen]) -> tuple[tuple[SlotSeen, SlotSeen], ...]:
    """Return pairs of slots of one day, each before one that belongs earlier."""
    ordered = sorted(slots, key=lambda s: (s.day, s.position))
    return tuple(
        (first, then)
        for first, then in pairwise(ordered)
        if first.day == then.day and rank_of(first) > rank_of(then)
    )
