"""Reps of a substitute that come as close to failure, and efforts beside each other where strength
is not known.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.strength.scale import LEAST_NM, LIGHT
from widearc.core.words import Count, Said


@dataclass(frozen=True, slots=True, kw_only=True)
class EqualReps:
    """Reps of the substitute with as many left in reserve; None where none can be said, then words
    say why.
    """

    reps: int | None
    words: Said


def equal_effort_reps(first: float, other: float, reps: int) -> EqualReps:
    """Return how many reps of another exercise leave as many in reserve as `reps` of the first
    (Epley 1985).

    first, other: effort at the hardest place, share of the limit, over 0. Under half the limit reps
    say nothing.
    """
    if first >= 1.0 or other >= 1.0:
        return EqualReps(reps=None, words=Said("above what this client is estimated to move"))
    if first < LIGHT or other < LIGHT:
        return EqualReps(
            reps=None, words=Said("under half the limit: more than 30 reps, effort says little")
        )
    reserve = _limit(first) - reps
    if reserve < 0:
        return EqualReps(
            reps=None,
            words=Said(
                "{reps} rep of what is wanted is more than this client is estimated to do",
                "{reps} reps of what is wanted are more than this client is estimated to do",
                reps=Count(reps),
            ),
        )
    same = round(_limit(other) - reserve)
    if same < 1:
        return EqualReps(
            reps=None, words=Said("so much heavier that not one rep leaves as many in reserve")
        )
    return EqualReps(
        reps=same,
        words=Said(
            "{same} rep comes as close to failure as {reps} of what is wanted",
            "{same} reps come as close to failure as {reps} of what is wanted",
            same=Count(same),
            reps=Count(reps),
        ),
    )


def _limit(effort: float) -> float:
    return 30.0 * (1.0 / effort - 1.0)


def hardest(
    demand_nm: Mapping[str, Array], strength_nm: Mapping[str, Array]
) -> tuple[str, float, int] | None:
    """Return action, demand over strength, and sample of the hardest place; None where nothing of 5
    N·m is asked.

    Both by action, N·m (samples,), demand positive in the action's sense.
    """
    found = [
        (
            action,
            float((demand / strength_nm[action]).max()),
            int(np.argmax(demand / strength_nm[action])),
        )
        for action, demand in demand_nm.items()
        if float(demand.max()) >= LEAST_NM
    ]
    return max(found, key=lambda f: f[1]) if found else None


def effort_ratios(
    first: tuple[Mapping[str, Array], Mapping[str, Array]],
    other: tuple[Mapping[str, Array], Mapping[str, Array]],
) -> Mapping[str, float]:
    """Return the greatest effort of another exercise over that of the first, by action; a person's
    scale cancels.

    Each: demand and usual strength by action, N·m (samples,).
    """
    ratios = {}
    for action, demand in first[0].items():
        if action in other[0] and float(demand.max()) >= LEAST_NM:
            most = float((demand / first[1][action]).max())
            ratios[action] = float((other[0][action] / other[1][action]).max()) / most
    return ratios
