"""What a curve asks of the muscles: the joints that they, and no seat or pad, answer for."""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.statics.demand import Curve, demand_nm, held_joints
from widearc.core.units import DEG

MOST_POINTED = -50 * DEG  # a foot laid flat behind a kneeling shank is drawn at -90° (assumed)
SAGITTAL = ("hip", "knee", "ankle")


def asked_of_muscles(curve: Curve, row: int = 0) -> tuple[dict[str, Array], dict[str, Array]]:
    """Return angles (rad) and demands (N·m) of hip, knee and ankle, (samples,) by joint; none where
    no leg joint is asked anything.

    Where the foot hangs free, or a pad holds the leg above the ankle, the ankle is free: it must
    carry the foot's own weight, so that no calf muscle bends the knee for nothing.
    """
    demand = {j: curve.demand_nm[j][row] for j in SAGITTAL if j in curve.demand_nm}
    if not demand:
        return {}, {}
    if "ankle" in held_joints(curve.setup):
        demand["ankle"] = demand_nm(curve.motion, "ankle")[row]
    angles = {j: curve.motion.angles[j][row] for j in SAGITTAL if j in curve.motion.angles}
    if "ankle" in angles:
        angles["ankle"] = np.maximum(angles["ankle"], MOST_POINTED)
    return angles, {j: np.asarray(moment) for j, moment in demand.items()}
