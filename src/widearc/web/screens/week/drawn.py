"""A slot as a drawing: both ends of its lift, and the strip of its demand."""

from __future__ import annotations

import json
from dataclasses import replace

from widearc import store
from widearc.core.errors import InputError, PostureError, RangeError
from widearc.core.statics import curve
from widearc.formats import parse_scenario
from widearc.web.drawing.areas import Areas
from widearc.web.drawing.coverage import Pose, pose_of
from widearc.web.drawing.strip import strip_alone


def drawn(row: store.SlotRow) -> tuple[Pose | None, Areas | None]:
    """Return how a slot's lift begins and ends, and its strip; None where it is not set up."""
    if row.scenario is None:
        return None, None
    try:
        setup, _ = parse_scenario(json.loads(row.scenario))
        found = curve(replace(setup, samples=41), lowering=False)
    except (InputError, PostureError, RangeError):
        return None, None
    demands = [abs(nm[0]) for nm in found.demand_nm.values()]
    most = max(demands, key=lambda nm: float(nm.max()), default=None)
    return pose_of(found), None if most is None else strip_alone(most)
