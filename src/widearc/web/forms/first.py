"""The load that an exercise shows first on Arc, as typed fields."""

from __future__ import annotations

from collections.abc import Callable

from widearc.core.curve import Action
from widearc.core.exercises import Exercise
from widearc.core.movement import kinds_of

Typed = dict[str, str]
LIGHT_KG = "2"  # at the end of a whole leg
AT_ANKLE = {"hip rotation leg": LIGHT_KG, "knee rotation": "8"}
ON_LEVERS = ("arc-squat", "hip-thrust-machine", "calf-raise-seated")


def _by_machine(entry: Exercise) -> Typed | None:
    kinds = _kinds(entry)
    if "pendulum" in entry.id and "pendulum" in kinds:
        return {"kind": "pendulum"} | ({"kg": LIGHT_KG} if Action.AB in entry.prime else {})
    found: list[Typed] = [{"kind": kind} for kind in ("sled", "stack") if kind in kinds]
    return found[0] if found else None


def _by_lever(entry: Exercise) -> Typed | None:
    if "lever" not in entry.id and entry.id not in ON_LEVERS:
        return None
    return {"kind": "lever", "x": "-110", "y": "120" if entry.id == "arc-squat" else "100"}


def _by_name(entry: Exercise) -> Typed | None:
    if "corner-bar" in entry.id:
        return {"kind": "corner-bar"}
    kinds = _kinds(entry)
    named = (kind for kind in ("band", "cable") if kind in entry.id and kind in kinds)
    found: list[Typed] = [{"kind": kind} for kind in named]
    return found[0] if found else None


def _by_weight(entry: Exercise) -> Typed | None:
    held = [part for ways in entry.ways for part in ways if part.stock != "band"]
    if "mass" not in _kinds(entry) or not (held or (entry.law.weighted and entry.ways != ((),))):
        return None
    if entry.family == "kneeling" and () in entry.ways:
        return None  # the body alone is enough
    port = held[0].port if held else entry.ports[0]
    return {"kind": "mass", "port": port} | (
        {"kg": AT_ANKLE[entry.family]} if port == "ankle" else {}
    )


def _by_family(entry: Exercise) -> Typed | None:
    if entry.id == "abduction-loop":
        return {"kind": "band", "tie": "thigh", "rest": "25", "rate": "30"}
    return {
        "carriage": {"kind": "spring"},
        "plain path": {"kind": "band", "x": "0", "y": "0", "rest": "55"},
    }.get(entry.family)


def _kinds(entry: Exercise) -> tuple[str, ...]:
    return tuple(kind.kind for kind in kinds_of(entry))


RULES: tuple[Callable[[Exercise], Typed | None], ...] = (
    _by_family,
    _by_machine,
    _by_lever,
    _by_name,
    _by_weight,
)
"""The first that says anything."""


def first_load(entry: Exercise) -> list[Typed]:
    """Return the load that an exercise shows first, or none."""
    return [load for load in (rule(entry) for rule in RULES) if load is not None][:1]
