"""How bodies move in an exercise: joint positions for every sample, and every force that acts.

One module per family; each says in its docstring what closes the problem where equilibrium alone
does not. Strength is known here only for the press's push of least effort.
"""

from widearc.core.movement.families.knee_rotation import clear_of_floor_deg
from widearc.core.movement.loading import only_weights
from widearc.core.movement.motion import (
    JOINTS,
    WORKING_JOINTS,
    Force,
    Inertia,
    Joint,
    Motion,
    Notice,
    Segment,
    place_of,
)
from widearc.core.movement.moving import move
from widearc.core.movement.setup import LENGTHENED_ENDS, SAMPLES, Setup
from widearc.core.movement.takes import kinds_of

__all__ = [
    "JOINTS",
    "LENGTHENED_ENDS",
    "SAMPLES",
    "WORKING_JOINTS",
    "Force",
    "Inertia",
    "Joint",
    "Motion",
    "Notice",
    "Segment",
    "Setup",
    "clear_of_floor_deg",
    "kinds_of",
    "move",
    "only_weights",
    "place_of",
]
