"""How much longer a rep style keeps each degree of a joint under demand than a plain rep does."""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array, BoolArray
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
        from_, to = ends_deg if style.end == "lengthened" else ends_deg[::-1]
        here = from_, from_ + 0.25 * (to - from_)
        weight[(min(here) <= CENTRES_DEG) & (max(here) >= CENTRES_DEG)] = 2.0
    elif style.kind is StyleKind.PARTIALS:
        part = sorted((float(style.from_deg or 0.0), float(style.to_deg or 0.0)))
        weight[(part[0] > CENTRES_DEG) | (part[1] < CENTRES_DEG)] = 0.0
    elif style.kind in (StyleKind.PAUSE, StyleKind.HOLD):
        at = float(np.clip(style.at_deg or 0.0, low, high))
        seconds_a_degree = plain_s / max(high - low, 1.0)
        weight = weight + _pause(at, inside) * float(style.seconds or 0.0) / seconds_a_degree
    return weight


def _pause(at_deg: float, inside: BoolArray) -> Array:
    """Return a triangle about an angle inside a range, which sums to 1, (220,)."""
    triangle = np.maximum(0.0, 1.0 - np.abs(CENTRES_DEG - at_deg) / SPREAD_DEG)
    spread = np.where(inside, triangle, 0.0)
    return np.asarray(spread / max(float(spread.sum()), 1e-9))
