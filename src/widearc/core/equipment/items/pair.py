"""Two bands side by side, and one band folded: what the hands feel."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment.loads.rubber import BandLaw
from widearc.core.errors import InputError
from widearc.core.words import Distance, Said

LIKE = 0.05  # a pair within 5 % counts as equal (common practice, no source)


class PairMatch(NamedTuple):
    """How far the second of a pair pulls from the first, at the worst length: share of the
    stronger, m.
    """

    off: float
    at_m: float
    alike: bool


def pair_match(first: BandLaw, second: BandLaw, longest_m: float) -> PairMatch:
    """Return the largest difference of two strands over the lengths (m) at which both pull, up to
    `longest_m`.

    off is positive where the second pulls more. Raises InputError where no length stretches both.
    """
    low = max(first.rest_m, second.rest_m) * 1.1
    if longest_m <= low:
        raise InputError(
            "longest_m",
            longest_m,
            Said("longer than {distance}, where both pull", distance=Distance(low)),
        )
    reach = np.linspace(low, longest_m, 60)
    one, other = first.force_n(reach), second.force_n(reach)
    share = (other - one) / np.maximum(np.maximum(one, other), 1.0)
    worst = int(np.argmax(np.abs(share)))
    return PairMatch(
        off=float(share[worst]), at_m=float(reach[worst]), alike=bool(np.all(np.abs(share) <= LIKE))
    )


def folded_pull_n(strand: BandLaw, length_m: Array, *, strands: int = 4) -> Array:
    """Return the pull (N) of a loop folded once: `strands` half-length strands, at a hand distance
    (m).

    A half strand at L pulls as the whole strand at 2 L.
    """
    return np.asarray(strands * strand.force_n(2.0 * np.asarray(length_m)))
