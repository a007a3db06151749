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


def closure_of(exercise: Exercise) -> Callable[[Lift], Motion]:
    """Return what moves an exercise."""
    known = _closures()
    own = known.get((exercise.family, exercise.variant))
    return own if own is not None else known[exercise.family, None]
