"""Whether a batch of set-ups holds the wanted lift itself, loaded as it is asked for."""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import BoolArray
from widearc.core.search.ceilings import carried_of
from widearc.core.search.prepared import PreparedBatch
from widearc.core.statics import Curve

SAME_KG = 0.02  # of a load: who can make it so nearly can do the lift itself


def repeats(part: PreparedBatch, asked: Curve, mask: BoolArray) -> bool:
    """Return whether any set-up of a mask, (unloaded, totals), is a lift as it is asked for: on its
    machine, with bands or springs, or with as much weight at the same places.
    """
    kinds = {load.kind for load in asked.setup.loads}
    pulled = not kinds.isdisjoint(("band", "spring"))
    if part.batch.machine is not None or (pulled and part.batch.stock == ""):
        return bool(mask.any())
    carried = carried_of(asked)
    if {way.port for way in part.batch.way} != carried.keys():
        return False
    kg = sum(carried.values())
    made = np.array([abs(total.kg - kg) <= SAME_KG * kg for total in part.batch.totals])
    return bool((mask & made).any())
