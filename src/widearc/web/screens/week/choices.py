"""Exercises to choose from, by shelf."""

from __future__ import annotations

from collections.abc import Sequence

from widearc.core.exercises import EXERCISES, FAMILIES


def by_shelf() -> Sequence[tuple[str, list[tuple[str, str]]]]:
    """Return every exercise by its family's words."""
    shelves: dict[str, list[tuple[str, str]]] = {}
    for exercise in EXERCISES.values():
        words = FAMILIES[exercise.family].words
        shelves.setdefault(words, []).append((exercise.id, exercise.name))
    return list(shelves.items())
