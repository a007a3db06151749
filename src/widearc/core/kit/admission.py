"""What place, people and client allow: why an exercise is left out, and what would admit it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Protocol, TypeVar

from widearc.core.body import Limits
from widearc.core.exercises import Exercise
from widearc.core.kit.machines import is_axial
from widearc.core.kit.needs import NEEDS
from widearc.core.kit.rules import Rules
from widearc.core.kit.stock import Kit
from widearc.core.words import UNSAID, Duration, Said

LONG_MINUTES = 3.0  # a longer set-up is hidden in a packed place (assumed)


@dataclass(frozen=True, slots=True, kw_only=True)
class Excluded:
    """An exercise that is left out: the reason, what would admit it, taken items' ids, and the need
    that is not met.
    """

    exercise: Exercise
    reason: Said
    admits: Said = UNSAID
    taken: tuple[str, ...] = ()
    need: str = ""


def left_out(
    exercise: Exercise,
    kit: Kit,
    limits: Limits,
    rules: Rules,
    taken: frozenset[str],
    names: Mapping[str, str | Said],
) -> Excluded | None:
    """Return why place, people or client rule the exercise out, or None. names: a word for a taken
    item's state.
    """
    out = unmet(exercise, kit, rules, taken, names)
    if out is not None:
        return out
    if limits.no_axial_load and exercise.ways and all(is_axial(way) for way in exercise.ways):
        return Excluded(
            exercise=exercise,
            reason=Said("no load on the spine for this client"),
        )
    return _by_rule(exercise, rules)


def unmet(
    exercise: Exercise,
    kit: Kit,
    rules: Rules,
    taken: frozenset[str],
    names: Mapping[str, str | Said],
) -> Excluded | None:
    """Return the first of an exercise's needs that nothing here meets, or None."""
    for name in exercise.needs:
        lack = NEEDS[name].lack(kit, rules, taken, names)
        if lack is not None:
            return Excluded(
                exercise=exercise,
                reason=lack.reason,
                admits=lack.admits,
                taken=lack.taken,
                need="" if NEEDS[name].people or NEEDS[name].lacking else name,
            )
    return None


def _by_rule(exercise: Exercise, rules: Rules) -> Excluded | None:
    travels = "floor to walk" in exercise.needs
    if rules.beginner and travels:
        return Excluded(
            exercise=exercise,
            reason=Said("no walking lunge for a beginner"),
            admits=Said("a lunge on the spot"),
        )
    if rules.alone and exercise.fails_alone == "no":
        return Excluded(
            exercise=exercise,
            reason=Said("cannot be failed safely alone"),
            admits=Said("a partner"),
        )
    if rules.packed and travels:
        return Excluded(
            exercise=exercise,
            reason=Said("packed: it travels"),
            admits=Said("show what takes room or time"),
        )
    if rules.packed and exercise.minutes > LONG_MINUTES:
        reason = Said(
            "packed: {time} to set up", time=Duration(60.0 * exercise.minutes, minutes=True)
        )
        return Excluded(
            exercise=exercise, reason=reason, admits=Said("show what takes room or time")
        )
    return None


STAGES = (("split-squat",), ("rear-raised-split-squat",), ("offset-lunge",))
"""The order in which a beginner is offered split work (common practice, no source)."""


class _Ranked(Protocol):
    @property
    def exercise(self) -> Exercise: ...


T = TypeVar("T", bound=_Ranked)


def stage_of(exercise_id: str) -> int | None:
    """Return the stage of split work that an exercise is, 0 first; None for any other."""
    return next((n for n, ids in enumerate(STAGES) if exercise_id in ids), None)


def step_by_step(ordered: list[T], rules: Rules) -> list[T]:
    """Return candidates with, for a beginner, no later stage of split work before an earlier
    one.
    """
    if not rules.beginner:
        return ordered
    stage = {exercise: n for n, ids in enumerate(STAGES) for exercise in ids}
    places = [i for i, c in enumerate(ordered) if c.exercise.id in stage]
    staged = sorted((ordered[i] for i in places), key=lambda c: stage[c.exercise.id])
    result = list(ordered)
    for place, candidate in zip(places, staged, strict=True):
        result[place] = candidate
    return result
