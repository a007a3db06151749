"""From two legs to one: what asks the working leg as much, beside half the load."""

from __future__ import annotations

from dataclasses import dataclass, replace

from widearc.core.errors import InputError, PostureError
from widearc.core.exercises import EXERCISES, LIFTS
from widearc.core.movement import Setup
from widearc.core.progression.bridge import is_on_one_leg
from widearc.core.progression.rung import Ladder, Rung
from widearc.core.progression.weights import weight_of
from widearc.core.statics import curve, leg_effort

SQUATS = (
    *("back-squat-high", "back-squat-low", "front-squat", "goblet-squat", "dumbbell-squat"),
    *("wide-squat", "heel-raised-squat", "corner-bar-squat", "bodyweight-squat", "rail-squat"),
    *("belt-squat-lever", "belt-squat-pin", "belt-squat-cable", "belt-squat-home"),
)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class OneLegStart:
    """A start on one leg. leg: whole effort of each of two legs; rung: the highest of the ladder
    that asks the working leg no more, None where the lowest asks more; half_kg: half of what two
    legs bear; half: the rung nearest to it.
    """

    leg: float
    rung: Rung | None
    half_kg: float | None
    half: Rung | None


def is_two_legged_for(one_leg: str, two_leg: str) -> bool:
    """Return whether a lift (id) on two legs is what one on one leg splits: squats for lunges, else
    entries of the same lift.
    """
    if one_leg == two_leg:
        return False
    if two_leg in SQUATS:
        return is_split(one_leg)
    return any({one_leg, two_leg} <= lift for lift in LIFTS) and "one-leg" in one_leg


def is_split(exercise: str) -> bool:
    """Return whether an exercise (id) is a squat on one leg, the other in front, behind or free."""
    return exercise == "one-leg-squat" or EXERCISES[exercise].family == "split"


def one_leg_start(two: Setup, ladder: Ladder) -> OneLegStart | None:
    """Return where to start on one leg for as much effort of the working leg as of each of two,
    body weight counted. two: a set-up of one row that two legs do; ladder: of the lift on one. None
    where nothing can be compared.
    """
    leg = _leg(two) if is_on_one_leg(ladder.now.setup.exercise) else None
    if leg is None:
        return None
    kg = weight_of(two)
    fits = [r for r in ladder.rungs if r.leg is not None and r.leg <= leg * 1.005]
    return OneLegStart(
        leg=leg,
        rung=max(fits, key=lambda r: r.leg or 0.0, default=None),
        half_kg=None if kg is None else kg / 2.0,
        half=None if kg is None else _nearest(ladder, kg / 2.0),
    )


def _leg(two: Setup) -> float | None:
    """Return the whole effort of each of two legs, None where it cannot be told."""
    try:
        found = leg_effort(curve(replace(two, samples=51), lowering=False))
    except (PostureError, InputError):
        return None
    return None if found is None else float(found[0])


def _nearest(ladder: Ladder, kg: float) -> Rung | None:
    weighted = [r for r in ladder.rungs if r.kg is not None and r.bands == ladder.now.bands]
    return min(weighted, key=lambda r: abs((r.kg or 0.0) - kg), default=None)
