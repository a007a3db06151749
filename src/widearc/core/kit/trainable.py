"""Which joint actions a room can train now, and by which exercises."""

from __future__ import annotations

from dataclasses import dataclass

from widearc.core.body import Limits
from widearc.core.curve import Action
from widearc.core.exercises import EXERCISES, Exercise
from widearc.core.kit.admission import left_out
from widearc.core.kit.machines import is_axial
from widearc.core.kit.rules import Rules
from widearc.core.kit.stock import Kit
from widearc.core.kit.stocks import STOCKS


@dataclass(frozen=True, slots=True, kw_only=True)
class Trainable:
    """A joint action with the exercises that train it here now, and those that only a taken item
    holds up.
    """

    action: Action
    now: tuple[Exercise, ...]
    held_up: tuple[Exercise, ...]


_COMPARED = tuple(exercise for exercise in EXERCISES.values() if exercise.compared)


def trainable_here(
    kit: Kit, *, taken: frozenset[str], limits: Limits, rules: Rules
) -> tuple[Trainable, ...]:
    """Return every joint action with what trains it in what is free of a kit, by this client's and
    place's rules.
    """
    free = kit.without(taken)
    now: dict[Action, list[Exercise]] = {action: [] for action in Action}
    held_up: dict[Action, list[Exercise]] = {action: [] for action in Action}
    for exercise in _COMPARED:
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
        all(STOCKS[part.stock].here(free, part) for part in way)
        and not (limits.no_axial_load and is_axial(way))
        for way in exercise.ways
    )
