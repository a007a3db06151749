"""How strong this person is: a scale on the usual curve, from a set that was done.

A set of reps with some in reserve says how near its hardest place came to the limit: Epley 1985, or
Brzycki 1993 by choice. The joint it speaks for is the one nearest its usual curve; for the others
it says "at least". There is no usual scale of 1: without a set nothing is known but ratios. A
one-repetition maximum is never shown.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import InputError, UnknownNameError
from widearc.core.words import Count, Said

FORMULAS = ("epley", "brzycki")
MOST_REPS = {"epley": 30, "brzycki": 20}  # beyond, reps say too little of strength
MISJUDGED = 2.0  # reps in reserve, one standard error (assumed)
LEAST_NM = 5.0
NEAR = 0.30  # of the logged demand: further off nothing is predicted
LIGHT = 0.5  # an effort below this is "30+ reps"


@dataclass(frozen=True, slots=True, kw_only=True)
class Scale:
    """Strength of an action over its usual curve; error_share: one standard error; demand_nm: asked
    at most.

    at_least: another joint gave out first, so it may be more.
    """

    action: str
    kappa: float
    error_share: float
    demand_nm: float
    at_least: bool


def effort_of_reps(reps: float, formula: str = "epley") -> float:
    """Return the effort (share of the limit) at which so many reps can just be done: 1 / (1 +
    n/30), or (37 - n) / 36.

    n from 1 to 30 (20 for Brzycki). Raises InputError outside.
    """
    if formula not in FORMULAS:
        raise UnknownNameError("formula", formula, FORMULAS)
    if not 0 < reps <= MOST_REPS[formula]:
        raise InputError(
            "reps",
            reps,
            Said("at most {reps}: more say too little", reps=Count(MOST_REPS[formula])),
        )
    return 1.0 / (1.0 + reps / 30.0) if formula == "epley" else (37.0 - reps) / 36.0


def scales_of_set(
    demand_nm: Mapping[str, Array],
    strength_nm: Mapping[str, Array],
    *,
    reps: int,
    reserve: int,
    formula: str = "epley",
) -> tuple[Scale, ...]:
    """Return what a set says of each action: the first is the one it speaks for, the others "at
    least".

    demand_nm and strength_nm: N·m (samples,) by action, demand positive in the action's sense,
    strength of the usual curve. Raises InputError where nothing is asked of any.
    """
    effort = effort_of_reps(reps + reserve, formula)
    asked = {
        a: float(np.max(np.maximum(d, 0.0) / strength_nm[a]))
        for a, d in demand_nm.items()
        if float(np.max(d)) >= LEAST_NM
    }
    if not asked:
        raise InputError(
            "set",
            "this exercise",
            Said("one that asks an action with a strength curve for 5 N·m or more"),
        )
    low = effort_of_reps(max(reps + reserve - MISJUDGED, 0.5), formula)
    error = abs(low - effort) / effort
    first = max(asked, key=lambda a: asked[a])
    return tuple(
        Scale(
            action=a,
            kappa=asked[a] / effort,
            error_share=error,
            demand_nm=float(np.max(demand_nm[a])),
            at_least=a != first,
        )
        for a in sorted(asked, key=lambda a: -asked[a])
    )


def current(scales: list[Scale]) -> Mapping[str, Scale]:
    """Return what is known of each action from scales, newest last.

    The newest that speaks for an action, unless a later "at least" is more.
    """
    known: dict[str, Scale] = {}
    for scale in scales:
        before = known.get(scale.action)
        if before is None or not scale.at_least or scale.kappa > before.kappa:
            known[scale.action] = scale
    return known


def can_predict(scale: Scale, demand_nm: float) -> bool:
    """Return whether a demand (N·m, greatest) is near enough to what was logged for an effort to be
    said.
    """
    return abs(demand_nm / scale.demand_nm - 1.0) <= NEAR


def reps_left_words(effort: float) -> Said:
    """Return how many reps an effort (share of the limit at the hardest place) allows, in words, by
    Epley.
    """
    if effort >= 1.0:
        return Said("above the estimate")
    if effort < LIGHT:
        return Said("30+ reps")
    reps = Count(max(1, round(30.0 * (1.0 / effort - 1.0))))
    return Said("about {reps} rep to the limit", "about {reps} reps to the limit", reps=reps)
