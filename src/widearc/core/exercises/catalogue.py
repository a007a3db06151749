"""The whole catalogue by id: what the folder `entries` holds, shelf after shelf."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import fields, replace
from importlib import import_module
from pkgutil import iter_modules
from types import MappingProxyType

from widearc.core.errors import UnknownNameError
from widearc.core.exercises import entries
from widearc.core.exercises.cards import CARDS
from widearc.core.exercises.exercise import Exercise
from widearc.core.exercises.ways import WAYS


def _entries() -> Iterator[Exercise]:
    modules = [
        import_module(f"{entries.__name__}.{m.name}") for m in iter_modules(entries.__path__)
    ]
    for module in sorted(modules, key=lambda shelf: shelf.SHELF):
        yield from module.ENTRIES


def _with_card(entry: Exercise) -> Exercise:
    """Return an entry with its own texts."""
    card = CARDS.get(entry.id)
    if card is None:
        return entry
    own = {f.name: getattr(card, f.name) for f in fields(card) if getattr(card, f.name)}
    return replace(entry, **own)


EXERCISES: Mapping[str, Exercise] = MappingProxyType(
    {
        entry.id: _with_card(entry if entry.ways else replace(entry, ways=WAYS.get(entry.id, ())))
        for entry in _entries()
    }
)
"""Every exercise by its stable id."""


def exercise_of(id_: str, where: str = "/exercise") -> Exercise:
    """Return the exercise of that id; UnknownNameError lists those that exist."""
    if not isinstance(id_, str) or id_ not in EXERCISES:
        raise UnknownNameError(where, id_, EXERCISES)
    return EXERCISES[id_]
