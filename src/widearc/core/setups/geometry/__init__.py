"""How an exercise is set up on what is here: a file for each sort of exercise, each with its
`RULE`. This folder is the list of them.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from importlib import import_module
from pkgutil import iter_modules

from widearc.core.body import Body
from widearc.core.exercises import Exercise
from widearc.core.kit import Kit, Machine, SledPress
from widearc.core.setups.geometry.asked import Asked, Geometry, Range, Rule
from widearc.core.setups.geometry.extras import narrower_stance_m, with_extras, within_reach
from widearc.core.words import UNSAID, Said

__all__ = ["Geometry", "Range", "geometries", "narrower_stance_m"]


@cache
def _rules() -> tuple[Rule, ...]:
    modules = (import_module(f"{__name__}.{item.name}") for item in iter_modules(__path__))
    found: list[Rule] = [module.RULE for module in modules if hasattr(module, "RULE")]
    return tuple(sorted(found, key=lambda rule: rule.rank))


def geometries(
    exercise: Exercise,
    kit: Kit,
    body: Body,
    wanted: Range | None,
    machine: Machine | SledPress | None,
    extra: Said | None = UNSAID,
) -> Iterator[Geometry]:
    """Yield every geometry of an exercise on what is here, over the knee range that is wanted.

    extra: none for the plain ones, an extra's words for those with it, None for those with any.
    """
    asked = Asked(exercise=exercise, kit=kit, body=body, wanted=wanted, machine=machine)
    for made in next(rule for rule in _rules() if rule.applies(asked)).make(asked):
        plain = within_reach(asked, made)
        if extra == UNSAID:
            yield plain
        else:
            more = with_extras(asked, plain)
            yield from (found for found in more if extra in (None, found.extra))
