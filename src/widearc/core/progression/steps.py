"""From rung to rung: how much more, where less all the same, which joints."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import pairwise

import numpy as np

from widearc.core.arrays import Array
from widearc.core.progression.rung import Lighter, Rung

NEXT_FROM, NEXT_TO = 0.025, 0.10
"""How much more the next step is: of the load where one weight changes, of whole effort otherwise
(common practice, no source).
"""

TURN = 0.02
"""Of the greatest demand: a joint's change that is told."""

LIGHTER_BY = 0.002  # of the demand: less is the same


def next_of(rungs: Sequence[Rung], present: int) -> int | None:
    """Return the smallest rung that is 2.5 to 10 % over the present one."""
    here = rungs[present]
    for i in range(present + 1, len(rungs)):
        share = share_of(here, rungs[i])[0]
        if share > NEXT_TO:
            return None
        if share >= NEXT_FROM - 1e-9:
            return i
    return None


def share_of(below: Rung, above: Rung) -> tuple[float, bool]:
    """Return how much more a rung is than another: of the load where one weight alone changes, of
    its effort otherwise; and which of them.
    """
    if below.kg and above.kg and below.bands == above.bands and above.kg > below.kg:
        return above.kg / below.kg - 1.0, True
    return above.effort / below.effort - 1.0, False


def stepped(rungs: Sequence[Rung], position: Array) -> Iterator[Rung]:
    """Yield rungs, lightest first, each with its step from the one below, as a share of the load
    or of effort; position: samples of the lift, 0 to 1.
    """
    for i, rung in enumerate(rungs):
        if i == 0:
            yield rung
            continue
        below = rungs[i - 1]
        share, of_load = share_of(below, rung)
        # where that joint is asked less all in all, others are asked more: see `turns`
        more = rung.demand_nm > below.demand_nm
        yield replace(
            rung,
            step=share,
            effort_step=rung.effort / below.effort - 1.0,
            of_load=of_load,
            lighter=lighter_part(below.asked_nm, rung.asked_nm, position) if more else None,
        )


def turns(below: Rung, above: Rung) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Return the joints that a step asks more and those that it asks less, where both are; the
    strongest change first.
    """
    most = max(max(below.joints.values(), default=0.0), 1e-9)
    change = {
        j: (above.joints[j] - nm) / most for j, nm in below.joints.items() if j in above.joints
    }
    up = tuple(sorted((j for j in change if change[j] > TURN), key=lambda j: -change[j]))
    down = tuple(sorted((j for j in change if change[j] < -TURN), key=lambda j: change[j]))
    return (up, down) if up and down else ((), ())


def lighter_part(below: Array, above: Array, position: Array) -> Lighter | None:
    """Return the longest part of the way in which a curve lies under another, None where it never
    does; both and their positions (samples,).
    """
    if not below.size:
        return None
    less = below - above
    edges = np.flatnonzero(np.diff(np.signbit(less)))
    share = [float(less[i] / (less[i] - less[i + 1])) for i in edges]
    crossings = [
        float(position[i] + part * (position[i + 1] - position[i]))
        for i, part in zip(edges, share, strict=True)
    ]
    parts = [
        Lighter(start=start, end=end)
        for start, end in pairwise([float(position[0]), *crossings, float(position[-1])])
        if _deepest(less, position, start, end) > LIGHTER_BY * float(below.max())
    ]
    return max(parts, key=lambda part: part.end - part.start, default=None)


def _deepest(less: Array, position: Array, start: float, end: float) -> float:
    inside = less[(position >= start) & (position <= end)]
    return float(inside.max()) if inside.size else 0.0


def turning_of(rungs: Sequence[Rung]) -> int | None:
    """Return the least of the rungs where it lies between springs of less and of more pull, no
    weight changed.
    """
    alike = [i for i, r in enumerate(rungs) if r.kg == rungs[0].kg]
    pulls = [rungs[i].elastic_n for i in alike]
    least = alike[0]
    inside = min(pulls) < rungs[least].elastic_n - 1.0 < max(pulls) - 2.0
    return least if inside else None
