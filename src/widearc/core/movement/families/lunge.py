"""Lunges: the front foot stays, the rear foot pushes off and leaves the floor.

Closure: the front leg follows the stance law, shank lean min(5° + τ·knee bend, ankle limit). At the
start the trunk's lean is given and the rear foot's share solved from balance; then that share falls
evenly to 0 at a tenth of the lift and stays 0, with the lean solved for balance. The rear foot
keeps its place until then; from there the free leg swings to hang under the hip, its knee bent as
far as the floor asks, within the next three tenths.
"""

from __future__ import annotations

from widearc.core.movement.families.steps import Step, stepped
from widearc.core.movement.lift import Lift
from widearc.core.movement.motion import Motion

FAMILY = "split"
VARIANTS = ("lunge",)

PUSHES_OFF = "The rear foot pushes off within the first tenth of the lift, then the free leg hangs."


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians, metres) at `position` (1, samples)."""
    return stepped(lift, Step.rear_share, stays=False, says=PUSHES_OFF)
