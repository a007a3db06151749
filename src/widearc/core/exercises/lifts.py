"""Which entries are the same lift with another load, or on one leg: these are offered first. Common
practice, no source.
"""

from __future__ import annotations

LIFTS: tuple[frozenset[str], ...] = tuple(
    frozenset(ids)
    for ids in (
        ("leg-press-45", "leg-press-one-leg", "leg-press-banded"),
        ("leg-press-flat", "leg-press-one-leg"),
        (
            *("hip-thrust", "hip-thrust-one-leg", "hip-thrust-raised-feet"),
            *("hip-thrust-band", "hip-thrust-machine", "hip-thrust-couch-table"),
        ),
        ("leg-extension", "leg-extension-dumbbell", "leg-extension-band", "leg-extension-cable"),
        (
            *("lying-leg-curl", "leg-curl-dumbbell", "leg-curl-band"),
            *("lying-curl-cable", "lying-curl-band-couch"),
        ),
        ("abduction-machine", "abduction-loop"),
        ("pendulum-abduction", "side-lying-raise", "side-lying-raise-edge", "abduction-cable"),
        (
            *("calf-raise-standing", "calf-raise-bar", "calf-raise-step"),
            *("calf-raise-one-leg",),
        ),
        ("adduction-machine", "adduction-cable", "adduction-band"),
        ("calf-raise-seated", "calf-raise-seated-weights"),
        ("belt-squat-cable", "belt-squat-lever", "belt-squat-pin", "belt-squat-home"),
        ("front-squat", "goblet-squat"),
        ("hack-squat", "hack-squat-ball-band", "hack-squat-doubled-band"),
        ("glute-ham-raise", "glute-ham-ball"),
        ("back-extension-45", "back-extension-flat", "back-extension-couch"),
        ("pendulum-hip-extension", "pendulum-hip-extension-couch"),
        ("good-morning", "rail-good-morning"),
        ("romanian-deadlift", "one-leg-romanian-deadlift"),
        ("multi-hip", "kickback"),
    )
)
"""Entries of one lift each; an entry may belong to several."""


def is_same_lift(one: str, other: str) -> bool:
    """Return whether two exercises (ids) are the same lift with another load or on one leg."""
    return one == other or any({one, other} <= lift for lift in LIFTS)
