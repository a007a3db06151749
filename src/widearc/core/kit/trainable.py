"""Which joint actions a room can train now, and by which exercises."""

from __future__ import annotations

from dataclasses import dataclass

from widearc.core.body import Limits
from widearc.core.curve import Action
from widearc.core.exercises import EXERCISES, Exercise, LoadWay
from widearc.core.kit.admission import Rules, left_out
from widearc.core.kit.machines import is_axial
from widearc.core.kit.stock import Kit


@dataclass(frozen=True, slots=True, kw_only=True)
class Trainable:
    """A joint action with the exercises that train it here now, and those that only a taken item
    holds up.
    """

    action: Action
    now: tuple[Exercise, ...]
    held_up: tuple[Exercise, ...]


def trainable(
    kit: Kit, *, taken: frozenset[str], limits: Limits, rules: Rules
) -> tuple[Trainable, ...]:
    """Return every joint action with what trains it in what is free of a kit, by this client's and
    place's rules.
    """
    free = kit.without(taken)
    now: dict[Action, list[Exercise]] = {action: [] for action in Action}
    held_up: dict[Action, list[Exercise]] = {action: [] for action in Action}
    for exercise in EXERCISES.values():
        if not exercise.compared:
            continue
        if _possible(exercise, kit, free, limits, rules, taken):
            target = now
        elif taken and _possible(exercise, kit, kit, limits, rules, frozenset()):
            target = held_up
        else:
            continue
        for action in exercise.prime:
            target[action].append(exercise)
    return tuple(Trainable(action=a, now=tuple(now[a]), held_up=tuple(held_up[a])) for a in Action)


def _possible(
    exercise: Exercise, kit: Kit, free: Kit, limits: Limits, rules: Rules, taken: frozenset[str]
) -> bool:
    if left_out(exercise, kit, limits, rules, taken, {}) is not None:
        return False
    return any(
        all(_has(part, free) for part in way) and not (limits.no_axial_load and is_axial(way))
        for way in exercise.ways
    )


ON_MACHINES = ("sled", "hack", "stack", "cable", "rail", "corner", "lever", "pendulum")
"""Stock that is a machine's own: that it is here was looked at before, and it can be used without a
plate.
"""


def _has(part: LoadWay, free: Kit) -> bool:
    """Return whether there is anything of the stock that one part of a way of loading asks for."""
    small = (*free.of("dumbbell"), *free.of("kettlebell"))
    if part.stock in ON_MACHINES:
        return True
    if part.stock == "spring":
        return bool(free.springs)
    if part.stock == "band":
        return (
            any(band.goes_round_thighs for band in free.bands)
            if part.from_ == "thighs"
            else bool(free.bands)
        )
    if part.stock in ("one hand", "dumbbell"):
        return bool(small)
    if part.stock == "dumbbells":
        return any(weight.count >= 2 for weight in small)
    if part.stock == "unequal pair":
        return any(len({w.kg for w in free.of(kind)}) > 1 for kind in ("dumbbell", "kettlebell"))
    return bool(free.of(part.stock))
