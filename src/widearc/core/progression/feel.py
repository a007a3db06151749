"""Progress by feel: ordinal steps, with no number."""

from __future__ import annotations

from collections.abc import Sequence

from widearc.core.progression.aims import Aim, Occasion, Proposal
from widearc.core.progression.rules import MINUTE_S, short_of, stay
from widearc.core.words import Said

OF_RANGE = frozenset({"depth lost", "heels lift", "hips lift"})
OF_TEMPO = frozenset({"swing", "breath"})
"""Which breaks of form are of the range and of the tempo; others are of form itself."""


def by_feel(aim: Aim, seen: Sequence[Occasion]) -> Proposal:
    """Return the next step without a number: form, range, tempo and duration are earned in that
    order, a harder set-up last.
    """
    if not seen:
        return stay(aim, Said("The easiest that feels like work, to see how it moves."))
    sets = seen[-1].sets
    if any(s.pain for s in sets):
        words = Said("It hurt: an easier set-up, or another lift.")
        return Proposal(step=-1, sets=aim.sets, reps=aim.low, reason=words)
    broken = {s.form for s in sets} - {""}
    if broken:
        return stay(aim, _first_to_earn(broken))
    if short_of(sets, aim.high) is not None and min(s.seconds for s in sets) < MINUTE_S:
        return stay(aim, Said("Then duration: the same again, a little longer."))
    words = Said("Form, range, tempo and duration are there: a step harder.")
    return Proposal(step=1, sets=aim.sets, reps=aim.low, reason=words)


def _first_to_earn(broken: set[str]) -> Said:
    """Return what comes first of what broke."""
    if broken - OF_RANGE - OF_TEMPO:
        return Said("First form: the same again until every rep looks alike.")
    if broken & OF_RANGE:
        return Said("Then range: the same again, all the way each time.")
    return Said("Then tempo: the same again, slow and steady.")
