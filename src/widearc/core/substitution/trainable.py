"""Which joint actions a room can train now, and by which exercises."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

from widearc.core.body import PORTS, Limits
from widearc.core.catalogue import EXERCISES, Exercise, LoadWay
from widearc.core.curve import Action
from widearc.core.substitution.admission import Rules, left_out
from widearc.core.substitution.kit import Kit
from widearc.core.substitution.setups import is_axial


@dataclass(frozen=True, slots=True, kw_only=True)
class Trainable:
    """A joint action with the exercises that train it here now, and those that only a taken item holds up."""

    action: Action
    now: tuple[Exercise, ...]
    held_up: tuple[Exercise, ...]


_ASKS: Mapping[str, str] = MappingProxyType(
    {
        "deadlift": "bar", "wide-deadlift": "bar", "rail-good-morning": "", "belt-hinge-boxes": "band",
        "belt-squat-home": "weight", "belt-squat-pin": "weight", "belt-squat-lever": "plate",
        "corner-bar-squat": "bar", "corner-bar-wide-squat": "bar", "banded-bar-squat": "bar",
        "offset-lunge": "weight", "hack-squat-ball-band": "band", "leg-extension-band": "band",
        "leg-curl-band": "band", "hip-thrust-band": "band", "kickback": "band", "leg-press-banded": "band",
        "hip-thrust-machine": "plate", "calf-raise-seated": "plate", "arc-squat": "plate",
    }
)  # fmt: skip
"""What the exercises that are not made from stock yet are loaded with here."""


def trainable(kit: Kit, *, taken: frozenset[str], limits: Limits, rules: Rules) -> tuple[Trainable, ...]:
    """Return every joint action with what trains it in what is free of a kit, by this client's and place's rules."""
    free = kit.without(taken)
    now: dict[Action, list[Exercise]] = {action: [] for action in Action}
    held_up: dict[Action, list[Exercise]] = {action: [] for action in Action}
    for exercise in EXERCISES.values():
        if not exercise.has_curve or exercise.family == "plain path":
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


def _possible(exercise: Exercise, kit: Kit, free: Kit, limits: Limits, rules: Rules, taken: frozenset[str]) -> bool:
    if left_out(exercise, kit, limits, rules, taken, {}) is not None:
        return False
    if exercise.ways:
        return any(_stocked(way, free) and not (limits.no_axial_load and is_axial(way)) for way in exercise.ways)
    if limits.no_axial_load and exercise.ports and PORTS[exercise.ports[0]].axial:
        return False
    return _has(_ASKS.get(exercise.id, ""), free)


def _stocked(way: tuple[LoadWay, ...], free: Kit) -> bool:
    return all(_has(part.stock, free) for part in way)


def _has(stock: str, free: Kit) -> bool:
    if stock in ("", "sled", "hack", "stack", "cable", "rail", "corner"):
        return True  # what it needs is a machine: looked at before
    if stock == "spring":
        return bool(free.springs)
    if stock == "one hand":
        return bool(free.of("dumbbell") or free.of("kettlebell"))
    if stock == "band":
        return bool(free.bands)
    if stock == "weight":
        return any(w.kind != "bar" for w in free.weights)
    if stock == "dumbbell":
        return bool(free.of("dumbbell") or free.of("kettlebell"))
    if stock == "dumbbells":
        return any(w.count >= 2 for w in (*free.of("dumbbell"), *free.of("kettlebell")))
    return bool(free.of(stock))
