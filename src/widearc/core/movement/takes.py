"""Which kinds of load an exercise takes."""

from __future__ import annotations

from widearc.core.equipment import LOADS, AtPort, Load
from widearc.core.exercises import Exercise

PRESSED = ("sled", "band", "cable")
"""What a calf raise on a press takes: as the press does."""


def kinds_of(entry: Exercise) -> tuple[type[Load], ...]:
    """Return the kinds of load that an exercise takes, in the order of lists."""
    only = PRESSED if entry.variant == "press" else entry.law.takes
    return tuple(
        kind
        for kind in LOADS.values()
        if kind.kind in entry.kinds or (issubclass(kind, AtPort) and entry.ports)
        if not only or kind.kind in only
    )
