"""Which kinds of load an exercise takes."""

from __future__ import annotations

from widearc.core.equipment import LOADS, AtPort, Load
from widearc.core.exercises import Exercise

PRESSED = ("sled", "band", "cable")
"""What a calf raise on a press takes: as the press does."""


ROLLED = ("spring", "band", "cable", "sled")
"""What acts on a carriage where nothing can be held or worn; a sled: its own weight on its
rails.
"""


def _only(entry: Exercise) -> tuple[str, ...]:
    """Return the only kinds that act at an exercise's ports; none: every kind does."""
    if entry.variant == "press":
        return PRESSED
    return ROLLED if entry.ports == ("carriage",) else entry.law.takes


def kinds_of(entry: Exercise) -> tuple[type[Load], ...]:
    """Return the kinds of load that an exercise takes, in the order of lists."""
    only = _only(entry)
    return tuple(
        kind
        for kind in LOADS.values()
        if kind.kind in entry.kinds or (issubclass(kind, AtPort) and entry.ports)
        if not only or kind.kind in only
    )
