"""One closure a file: how a family, or some of its forms, moves and what decides its contacts.

A closure says which `FAMILY` it closes, and in which `VARIANTS` (all others where it names none).
This folder is the list of them; what it returns for an exercise is loaded when it is first asked.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from importlib import import_module
from pkgutil import iter_modules

from widearc.core.exercises import Exercise
from widearc.core.movement.lift import Lift
from widearc.core.movement.motion import Motion


@cache
def _closures() -> dict[tuple[str, str | None], Callable[[Lift], Motion]]:
    found: dict[tuple[str, str | None], Callable[[Lift], Motion]] = {}
    for item in iter_modules(__path__):
        module = import_module(f"{__name__}.{item.name}")
        family: str = getattr(module, "FAMILY", "")
        variants: tuple[str | None, ...] = getattr(module, "VARIANTS", (None,))
        if family:
            found |= {(family, variant): module.solve for variant in variants}
    return found


@cache
def _like() -> dict[tuple[str, str], str]:
    found: dict[tuple[str, str], str] = {}
    for item in iter_modules(__path__):
        module = import_module(f"{__name__}.{item.name}")
        if hasattr(module, "LIKE"):
            found |= {(module.FAMILY, variant): module.LIKE for variant in module.VARIANTS}
    return found


def form_of(exercise: Exercise) -> tuple[str, str]:
    """Return the family and the variant whose steps an exercise's movement takes."""
    own = exercise.family, exercise.variant
    return own[0], _like().get(own, own[1])


def closure_of(exercise: Exercise) -> Callable[[Lift], Motion]:
    """Return what moves an exercise."""
    known = _closures()
    own = known.get((exercise.family, exercise.variant))
    return own if own is not None else known[exercise.family, None]
