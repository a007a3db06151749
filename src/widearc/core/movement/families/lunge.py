"""Lunges: the front foot stays, the rear foot pushes off and leaves the floor.

Closure: the front leg follows the stance law, shank lean min(5° + τ·knee bend, ankle limit). At the
start the trunk's lean is given and the rear foot's share solved from balance; then that share falls
evenly to 0 at three tenths of the lift, or where the rear leg ends, and stays 0, with the lean
solved for balance. The rear ball keeps its place until then, the heel rising as the leg's length
asks; from there the free leg swings to hang under the hip, its knee bent as far as the floor asks,
within three tenths. The feet push apart as costs the least effort.
"""

from __future__ import annotations

import numpy as np

from widearc.core.movement.families.steps import HIGHEST_HEEL, RearFoot, Step, stepped
from widearc.core.movement.lift import Lift
from widearc.core.movement.motion import Motion
from widearc.core.words import Said

FAMILY = "split"
VARIANTS = ("lunge",)

PUSHES_OFF = Said(
    "The rear foot gives its share of the weight away evenly and leaves the floor; then the free "
    "leg hangs."
)


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians, metres) at `position` (1, samples)."""
    foot = RearFoot(most=HIGHEST_HEEL, leaves=np.atleast_2d(lift.o["leaves_at"]))
    return stepped(lift, foot, Step.rear_share, says=PUSHES_OFF)
