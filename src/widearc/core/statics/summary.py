"""A curve in a few numbers: work, the joints' shares, what is left near straight, the low back
beside another's.
"""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from widearc.core.statics.demand import Curve
from widearc.core.statics.spine import lumbar
from widearc.core.units import to_deg

LEG = ("hip", "knee", "ankle")
STRAIGHT_DEG = 15.0


def joint_work_j(curve: Curve, row: int = 0) -> float:
    """Return the work of the working leg's joints over the lifting phase, J: the sum of -∫M dθ, of
    opening the hip +∫M dθ.
    """
    return float(
        sum(
            (1.0 if j == "hip_abduction" else -1.0)
            * np.trapezoid(d[row], curve.motion.angles[j][row])
            for j, d in curve.demand_nm.items()
            if j in (*LEG, "hip_abduction")
        )
    )


def mean_split(curve: Curve, row: int = 0, *, extension: bool = False) -> Mapping[str, float]:
    """Return each leg joint's share (0 to 1) of the mean demand; extension: only what asks to
    extend counts.
    """
    mean = {}
    for joint in LEG:
        demand = curve.demand_nm[joint][row] if joint in curve.demand_nm else np.zeros(1)
        mean[joint] = float((np.maximum(demand, 0.0) if extension else np.abs(demand)).mean())
    total = sum(mean.values())
    return {joint: value / total if total > 0 else 0.0 for joint, value in mean.items()}


def share_near_straight(curve: Curve, joint: str, row: int = 0) -> float | None:
    """Return the share of a joint's peak left in the last 15° before straight; None where the lift
    stops short.
    """
    if joint not in curve.demand_nm:
        return None
    angle, demand = (
        np.abs(to_deg(curve.motion.angles[joint][row])),
        np.abs(curve.demand_nm[joint][row]),
    )
    peak = float(demand.max())
    if peak < 1.0 or angle.min() > STRAIGHT_DEG - 5.0:
        return None
    return float(demand[angle <= STRAIGHT_DEG].max()) / peak


def low_back_ratio(first: Curve, other: Curve) -> float | None:
    """Return the greatest lumbar moment of `other` over that of `first`; None where either has no
    estimate.
    """
    here, there = lumbar(first.setup, first.motion), lumbar(other.setup, other.motion)
    if here is None or there is None:
        return None
    most = float(np.abs(here.moment_nm[0]).max())
    return float(np.abs(there.moment_nm[0]).max()) / most if most > 0 else None
