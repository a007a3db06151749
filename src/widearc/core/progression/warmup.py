"""The sets before the first hard one: lighter rungs of the same ladder, reps falling."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from widearc.core.progression.rung import Ladder, Rung, kinds_of_pieces

SHARES, REPS = (0.40, 0.55, 0.70, 0.85), (8, 5, 3, 2)
"""Of the work load, and the reps there (common practice, no source)."""
FIRST_REPS = 8
LIGHT_KG, LIGHT_EFFORT = 20.0, 0.35
"""A work load under these is light: one set before it is enough (assumed)."""
MOST_SETS = 5
NEAR = 0.08
"""A rung further from its share of the work load than this part of it is not taken for it."""

APART = 0.08
"""Sets closer than this part of the work load are one."""


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class WarmUpSet:
    """One set before: the rung, its reps, and what it is of the work load, 0 to 1."""

    rung: Rung
    reps: int
    share: float


def warm_up(ladder: Ladder, *, again: bool = False) -> tuple[WarmUpSet, ...]:
    """Return the sets before the present rung, lightest first: the first with body weight or the
    least that the stock makes, then at about 40, 55, 70 and 85 % of the work load, only what is in
    stock; one where the lift is light, none where the same joints are warm already (again).
    """
    now = ladder.now
    below = _like(ladder.rungs[: ladder.present], now)
    if again or not below:
        return ()
    first = below[0]
    if is_light(now):
        return (WarmUpSet(rung=first, reps=FIRST_REPS, share=share_of_work(first, now)),)
    chosen: dict[int, WarmUpSet] = {}
    if _is_bare(first):
        own = share_of_work(first, now)
        chosen[id(first)] = WarmUpSet(rung=first, reps=FIRST_REPS, share=own)
    for share, reps in zip(SHARES, REPS, strict=True):
        rung = min(below, key=lambda r: abs(share_of_work(r, now) - share))
        own = share_of_work(rung, now)
        apart = all(own - one.share >= APART for one in chosen.values())
        if abs(own - share) <= NEAR and apart:
            chosen[id(rung)] = WarmUpSet(rung=rung, reps=reps, share=own)
    return tuple(sorted(chosen.values(), key=lambda s: s.rung.effort))[:MOST_SETS]


def _is_bare(rung: Rung) -> bool:
    """Return whether a rung is body weight, or a bar or sled with nothing on it."""
    return not rung.kg or {p.kind for p in rung.pieces} <= {"bar", "trap bar", "rail bar"}


def is_light(rung: Rung) -> bool:
    """Return whether a rung is light work: nothing needs a ramp to it."""
    return (rung.kg or 0.0) < LIGHT_KG and rung.effort < LIGHT_EFFORT


def share_of_work(rung: Rung, now: Rung) -> float:
    """Return what a rung is of the work load: of the weight where one is changed, of effort
    otherwise.
    """
    return (rung.kg or 0.0) / now.kg if now.kg else rung.effort / now.effort


def _like(rungs: Sequence[Rung], now: Rung) -> list[Rung]:
    """Return rungs without a band that is not on now, of what is in use now where two or more
    are.
    """
    fit = [r for r in rungs if set(r.bands) <= set(now.bands)]
    kinds = kinds_of_pieces(now.pieces)
    own = [r for r in fit if kinds_of_pieces(r.pieces) == kinds]
    bare = [r for r in fit if not r.pieces]
    return [*bare[:1], *own] if len(own) > 1 else fit
