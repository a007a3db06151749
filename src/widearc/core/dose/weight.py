"""How much longer a rep style keeps each degree of a joint under demand than a plain rep does."""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.curve import CENTRES_DEG
from widearc.core.dose.dose import SPREAD_DEG, Tempo
from widearc.core.dose.style import RepStyle, StyleKind


def style_weight(style: RepStyle, tempo: Tempo, ends_deg: tuple[float, float]) -> Array:
    """Return the time at each degree over that of a plain rep at the same tempo, (220,), 1 outside
    the range.

    ends_deg: lengthened and shortened end of the joint's range. Even speed over the angle
    (assumed): demand times this is the dose of the style, in the plain rep's unit. Partials give 0
    outside their part. A pause is spread as a triangle of ±8° and keeps its whole time inside the
    range.
    """
    low, high = sorted(ends_deg)
    inside = (low <= CENTRES_DEG) & (high >= CENTRES_DEG)
    weight = np.ones(len(CENTRES_DEG))
    plain_s = tempo.lifting_s + tempo.lowering_s
    if style.kind is StyleKind.SLOW_LOWERING and style.seconds:
        weight[inside] = (tempo.lifting_s + style.seconds) / plain_s
    elif style.kind is StyleKind.LOWERING_ONLY:
        weight[inside] = tempo.lowering_s / plain_s
    elif style.kind is StyleKind.ONE_AND_A_QUARTER:
        first, last = ends_deg
        here = (
            (first, first + 0.25 * (last - first))
            if style.end == "lengthened"
            else (last, last - 0.25 * (last - first))
        )
        weight[(min(here) <= CENTRES_DEG) & (max(here) >= CENTRES_DEG)] = 2.0
    elif style.kind is StyleKind.PARTIALS:
        part = sorted((float(style.from_deg or 0.0), float(style.to_deg or 0.0)))
        weight[(part[0] > CENTRES_DEG) | (part[1] < CENTRES_DEG)] = 0.0
    elif style.kind in (StyleKind.PAUSE, StyleKind.HOLD):
        at = float(np.clip(style.at_deg or 0.0, low, high))
        spread = np.where(inside, np.maximum(0.0, 1.0 - np.abs(CENTRES_DEG - at) / SPREAD_DEG), 0.0)
        per_degree_s = plain_s / max(high - low, 1.0)
        weight = (
            weight
            + spread / max(float(spread.sum()), 1e-9) * float(style.seconds or 0.0) / per_degree_s
        )
    return weight
