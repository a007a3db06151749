"""Copies of frozen records whose values were checked when they were first made."""

from __future__ import annotations

from typing import Any, TypeVar

T = TypeVar("T")


def changed(record: T, **values: Any) -> T:
    """Return a copy of a frozen dataclass with slots, some fields as given: nothing is checked or
    worked out anew.

    Only for values out of records of its kind that were checked (rows of them, or joined):
    elsewhere `replace` is used.
    """
    made = object.__new__(type(record))
    for name in type(record).__slots__:  # type: ignore[attr-defined]
        object.__setattr__(made, name, values[name] if name in values else getattr(record, name))
    return made
