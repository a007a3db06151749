"""What a joint is asked at most, on either leg: a sore one may be any of the two."""

from __future__ import annotations

import numpy as np

from widearc.core.statics.demand import Curve, others_of
from widearc.core.statics.spine import lumbar

OTHER_LEG = ("rear", "other", "free")
LOW_BACK = "low back"


def joint_peak_nm(own: Curve, joint: str) -> float:
    """Return the greatest demand on a joint (hip, knee, ankle) of either leg, N·m of one set-up,
    whichever way it acts; of the low back the greatest moment. 0 where it is held or there is none.
    """
    if joint == LOW_BACK:
        found = lumbar(own.setup, own.motion)
        return 0.0 if found is None else float(np.nanmax(np.abs(found.moment_nm[0])))
    names = {f"{leg}_{joint}" for leg in OTHER_LEG} & own.motion.angles.keys()
    others = own.other_nm or (others_of(own.motion) if names else {})
    demands = [own.demand_nm.get(joint), *(others.get(name) for name in names)]
    return max((float(np.nanmax(np.abs(d[0]))) for d in demands if d is not None), default=0.0)
