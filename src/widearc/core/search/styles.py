"""How long a stand-in's rep style holds each degree of what is wanted."""

from __future__ import annotations

from widearc.core.arrays import Array
from widearc.core.dose import RepStyle, style_weight
from widearc.core.matching import Target
from widearc.core.statics import Curve
from widearc.core.units import to_deg


def style_weights(curve: Curve, target: Target, style: RepStyle) -> tuple[Array, ...]:
    """Return how much longer than in a plain rep each degree of the target's joints is held, (220,)
    each.

    Angles of the style are those of the target's first joint; the others pass their own range with
    it.
    """
    ends = []
    for action in target.actions:
        angle = curve.motion.angles.get(action.joint)
        if angle is None:
            ends.append((0.0, 1.0))
            continue
        deg = to_deg(angle[0])
        ends.append(
            (float(deg[0]), float(deg[-1]))
            if abs(deg[-1] - deg[0]) > 1.0
            else (float(deg[0]), deg[0] + 1.0)
        )
    return tuple(
        style_weight(style if i == 0 else style.moved(ends[0], e), target.tempo, e)
        for i, e in enumerate(ends)
    )
