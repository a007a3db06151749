"""Step-ups: the front foot stands on a box, the rear foot pushes off the floor.

Closure: as a lunge's, the front foot raised by the box.
"""

from __future__ import annotations

from widearc.core.movement.families.lunge import PUSHES_OFF
from widearc.core.movement.families.steps import Step, stepped
from widearc.core.movement.lift import Lift
from widearc.core.movement.motion import Motion

FAMILY = "split"
VARIANTS = ("step-up",)
LIKE = "lunge"  # the same steps: set-ups of both are computed in one call


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians, metres) at `position` (1, samples)."""
    return stepped(lift, Step.rear_share, stays=False, says=PUSHES_OFF)
