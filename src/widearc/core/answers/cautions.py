"""What to mind with a stand-in as it is set up: the exercise's own cautions, then what this set-up
adds. Common practice, no source; never a diagnosis.
"""

from __future__ import annotations

from collections.abc import Iterator

from widearc.core.curve import CENTRES_DEG
from widearc.core.dose import StyleKind
from widearc.core.search import Candidate
from widearc.core.words import Said, Term, Value

BAND = Said("Look the band over first; keep your face out of its line of recoil.")
BOXES = Said("Heels wholly on the boxes; the boxes stand flat and do not rock.")
PARTNER = Said("Agree on the word that stops the set before it begins.")
WARM_UP = Said("Warm up with two or three lighter sets before the first heavy one.")
LIGHTER = Said("Done so it is harder: a lighter load or fewer reps than plain ones.")
DEEPER = Said("Deeper than what it stands in for: lighter at first.")
DEEPER_DEG = 10.0
HEAVY_SHARE = 0.5  # of body mass: from there on a free bar or weight is warmed up for
HARDER = frozenset(StyleKind) - {StyleKind.PLAIN, StyleKind.PARTIALS}


def cautions_of(chosen: Candidate) -> tuple[Value, ...]:
    """Return the cautions of a stand-in as it is set up, each once."""
    return tuple(dict.fromkeys((*map(Said, chosen.exercise.cautions), *_added(chosen))))


def _added(chosen: Candidate) -> Iterator[Said]:
    row, exercise = chosen.row, chosen.exercise
    for action in chosen.over_strength:
        yield Said(
            "Asks more {action} than is usual for this body, with no load at all: help with the "
            "hands or shorten the range first.",
            action=Term(action.words),
        )
    if row.bands:
        yield BAND
    on_belt = any(getattr(load, "port", "") == "hip-belt" for load in chosen.curve.setup.loads)
    if on_belt and float(row.options.get("box_m", 0.0)) > 0:
        yield BOXES
    if "partner" in exercise.needs:
        yield PARTNER
    if chosen.style.kind in HARDER:
        yield LIGHTER
    if _deeper_deg(chosen) > DEEPER_DEG:
        yield DEEPER
    if row.kg >= HEAVY_SHARE * chosen.curve.setup.body.mass_kg:
        yield WARM_UP


def _deeper_deg(chosen: Candidate) -> float:
    """Return by how many degrees a loaded set-up begins longer than what is wanted, on the joint
    with the most wanted work.
    """
    target = chosen.target
    action = target.actions[target.main]
    used = CENTRES_DEG[chosen.comparison.bins[target.main][0] > 0]
    if not used.size or not chosen.row.kg:
        return 0.0
    own = used.max() if action.direction < 0 else used.min()
    return float(-action.direction * (own - target.range_deg(target.main)[0]))
