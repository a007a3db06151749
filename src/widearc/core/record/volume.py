"""What a set counts for: one set of the group that works most, a part of one for the others."""

from __future__ import annotations

from collections.abc import Mapping

COUNTED = 0.005
"""A group that does less than this share of the most worked one's work is not counted."""


def shares_of_set(work_j: Mapping[str, float]) -> Mapping[str, float]:
    """Return what one set counts for each group, from the group's positive work while shortening,
    J a rep: 1 for the group that is worked most, the others in proportion.

    Empty where nothing works.
    """
    positive = {group: max(0.0, work) for group, work in work_j.items()}
    most = max(positive.values(), default=0.0)
    if most <= 0.0:
        return {}
    shares = {group: work / most for group, work in positive.items()}
    return {group: share for group, share in shares.items() if share >= COUNTED}
