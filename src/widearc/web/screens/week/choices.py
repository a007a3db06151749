"""What a slot may be: exercises by shelf, and what was typed of it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from widearc import store
from widearc.core.exercises import EXERCISES, FAMILIES
from widearc.web.forms.typed import integer, number
from widearc.words import tr


def by_shelf() -> Sequence[tuple[str, list[tuple[str, str]]]]:
    """Return every exercise by its family's words."""
    shelves: dict[str, list[tuple[str, str]]] = {}
    for exercise in EXERCISES.values():
        words = FAMILIES[exercise.family].words
        shelves.setdefault(words, []).append((exercise.id, exercise.name))
    return list(shelves.items())


def slot_typed(row: store.SlotRow, form: Mapping[str, str]) -> store.SlotRow:
    """Return a slot as its form was typed. InputError for what is no number."""
    what = tr("a whole number")
    if row.minutes is not None:
        minutes = number(form, "minutes", row.minutes, what=tr("a number of minutes"))
        row = replace(row, minutes=minutes)
    else:
        names = ("sets_low", "sets_high", "reps_low", "reps_high", "rest_s")
        typed: dict[str, Any] = {n: integer(form, n, getattr(row, n), what=what) for n in names}
        seconds = tr("a number of seconds")
        for n in ("lowering_s", "hold_s", "lifting_s"):
            typed[n] = number(form, n, getattr(row, n), what=seconds)
        row = replace(row, **typed)
    note, rule = form.get("note", row.note).strip(), form.get("rule", row.rule)
    return replace(row, kind=form.get("kind", row.kind), note=note, rule=rule)
