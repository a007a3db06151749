"""Loops of tests that say how much they looked at: one over nothing asserts nothing."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import TypeVar

T = TypeVar("T")


def looked(items: Iterable[T], least: int = 1) -> Iterator[T]:
    """Yield every item, then fail if fewer than `least` were there."""
    count = 0
    for count, item in enumerate(items, 1):  # noqa: B007
        yield item
    assert count >= least, f"looked at {count}, wanted {least} or more"
