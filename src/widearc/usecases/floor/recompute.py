"""What lifts ask a rep, computed anew where an older model did it."""

from __future__ import annotations

from dataclasses import dataclass

from widearc import store
from widearc.core.errors import InputError
from widearc.usecases.floor.asks import MODEL, measured


@dataclass(frozen=True, slots=True, kw_only=True)
class Renewed:
    """How many lifts were computed anew, were of this model already, and cannot be set up any
    more.
    """

    renewed: int
    current: int
    left: int


@store.at_once
def recompute(con: store.Connection, trainer_id: int) -> Renewed:
    """Compute anew what every lift of an older model asks; what was done stays as it was."""
    renewed = left = 0
    old = store.lifts_of_older(con, trainer_id, MODEL)
    for lift_id, scenario in old:
        try:
            asks = measured(scenario)
        except InputError:
            left += 1
            continue
        store.put_measure(
            con,
            trainer_id,
            lift_id,
            asks.actions,
            asks.muscles,
            tilt=asks.tilt,
            hardest=asks.hardest,
            model=MODEL,
        )
        renewed += 1
    every = store.number_of_lifts(con, trainer_id)
    return Renewed(renewed=renewed, current=every - len(old), left=left)
