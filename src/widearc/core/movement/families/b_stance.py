"""B-stance: the rear foot stays on its ball and only steadies.

Closure: the front leg follows the stance law, shank lean min(5° + τ·knee bend, ankle limit); the
rear foot carries a given share, the trunk's lean is solved for balance.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.geometry import spread
from widearc.core.movement.families.steps import RearFoot, Step, stepped
from widearc.core.movement.lift import Lift
from widearc.core.movement.motion import Motion
from widearc.core.words import Said

FAMILY = "split"
VARIANTS = ("b-stance",)


def solve(lift: Lift) -> Motion:
    """Return the motion for options `o` (radians, metres) at `position` (1, samples)."""

    def given(step: Step, _pair: Array) -> Array:
        return spread(np.atleast_2d(lift.o["rear_share"]), step.pose.shape)

    return stepped(lift, RearFoot(), given, says=Said("The rear foot carries a given share."))
