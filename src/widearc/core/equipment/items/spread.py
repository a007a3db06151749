"""How sure a fitted law is: readings have a stated error, and the law carries a band.

A hanging scale is taken to err by 2 % of its reading or 1 N, whichever is more, one standard error;
a tape by 0.5 cm (assumed). Both are drawn again and again with a fixed seed, and every draw gives a
law.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array

SCALE_SHARE, SCALE_N, TAPE_M = 0.02, 1.0, 0.005
DRAWS, SEED = 400, 20_261
LARGEST_SHARE = 0.5  # near slack the share of next to nothing says nothing


def pull_error_n(length_m: Array, force_n: Array) -> Array:
    """Return one standard error of each reading of a band (N): the scale's, and the tape's through
    the slope.
    """
    length, force = np.asarray(length_m, dtype=float), np.asarray(force_n, dtype=float)
    scale = np.where(force > 0, np.maximum(SCALE_SHARE * force, SCALE_N), 0.0)
    if len(length) < 2:
        return scale
    slope = np.gradient(force, length)
    return np.asarray(np.hypot(scale, np.where(force > 0, slope, 0.0) * TAPE_M))


def drawn_pulls(length_m: Array, force_n: Array, reach_m: Array) -> Array:
    """Return pulls (N, (draws, lengths)) at `reach_m` of laws through readings drawn with their
    error.

    Drawn pulls never fall as the band gets longer; outside the readings the first and last are
    continued along their own slopes.
    """
    from scipy.interpolate import PchipInterpolator

    length, force = np.asarray(length_m, dtype=float), np.asarray(force_n, dtype=float)
    error = pull_error_n(length, force)
    random = np.random.default_rng(SEED)
    # half of the scale's error is its own and the same for every reading, half differs from one to
    # the next
    shared = random.standard_normal((DRAWS, 1)) * np.sqrt(0.5)
    single = random.standard_normal((DRAWS, len(length))) * np.sqrt(0.5)
    pulls = np.maximum.accumulate(np.maximum(force + error * (shared + single), 0.0), axis=1)
    law = PchipInterpolator(length, pulls, axis=1, extrapolate=False)
    inside = np.clip(reach_m, length[0], length[-1])
    slope = (pulls[:, -1:] - pulls[:, -2:-1]) / (length[-1] - length[-2])
    return np.asarray(law(inside) + slope * np.maximum(np.asarray(reach_m) - length[-1], 0.0))


def law_error_share(length_m: tuple[float, ...], force_n: tuple[float, ...]) -> float:
    """Return one standard error of a band's pull as a share of it, over its measured range.

    Weighted by the pull, so that the ends that matter count; 0.5 at most.
    """
    if len(length_m) < 2:
        return LARGEST_SHARE
    length, force = np.asarray(length_m), np.asarray(force_n)
    reach = np.linspace(length[0], length[-1], 60)
    pulls = drawn_pulls(length, force, reach)
    mean = pulls.mean(axis=0)
    if float(mean.sum()) <= 0:
        return LARGEST_SHARE
    return min(LARGEST_SHARE, float(pulls.std(axis=0).sum() / mean.sum()))


def trust(predicted_n: float, error_n: float, read_n: float) -> tuple[float, str]:
    """Return how far a check reading lies from the prediction (share of the reading) and what that
    says.

    error_n: one standard error of the prediction; the new reading has its own. "trust": within two
    standard errors or 5 %; "read again": up to 10 %; else "weigh anew" (5 and 10 %: common
    practice, no source).
    """
    own = max(SCALE_SHARE * read_n, SCALE_N)
    off = (read_n - predicted_n) / max(read_n, 1e-9)
    if abs(read_n - predicted_n) <= 2.0 * float(np.hypot(own, error_n)) or abs(off) <= 0.05:
        return off, "trust"
    return off, "read again" if abs(off) <= 0.10 else "weigh anew"


def scale_verdict(known_kg: float, reads_kg: float) -> tuple[float, str]:
    """Return how far a scale is off by a known weight (share, positive: reads too much) and what
    that says.

    "true" within 1 %, "fits" within 3 % (readings are taken to err by 2 %), else "off" (common
    practice, no source).
    """
    off = reads_kg / known_kg - 1.0
    return off, "true" if abs(off) <= 0.01 else "fits" if abs(off) <= 0.03 else "off"
