"""The whole catalogue by id."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from types import MappingProxyType

from widearc.core.errors import UnknownNameError
from widearc.core.exercises.entries.carriages import CARRIAGES
from widearc.core.exercises.entries.hips import HIPS
from widearc.core.exercises.entries.isolation import ISOLATION
from widearc.core.exercises.entries.lunges import LUNGES
from widearc.core.exercises.entries.presses import PRESSES
from widearc.core.exercises.entries.squats import SQUATS
from widearc.core.exercises.entries.supports import SUPPORTS
from widearc.core.exercises.entries.swings import SWINGS
from widearc.core.exercises.exercise import Exercise
from widearc.core.exercises.ways import WAYS

EXERCISES: Mapping[str, Exercise] = MappingProxyType(
    {
        entry.id: entry if entry.ways else replace(entry, ways=WAYS.get(entry.id, ()))
        for entry in (*SQUATS, *SUPPORTS, *LUNGES, *PRESSES, *ISOLATION, *HIPS, *SWINGS, *CARRIAGES)
    }
)
"""Every exercise by its stable id."""


def exercise(id_: str, where: str = "/exercise") -> Exercise:
    """Return the exercise of that id; UnknownNameError lists those that exist."""
    if not isinstance(id_, str) or id_ not in EXERCISES:
        raise UnknownNameError(where, id_, EXERCISES)
    return EXERCISES[id_]
