"""Guesses: the match of every set-up and total of a batch, mixed from its references' curves."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from scipy.linalg import block_diag

from widearc.core.arrays import Array
from widearc.core.matching import COARSE, GRAINS, ROUNDED_NM, Target, of_work, unwanted
from widearc.core.search.solved import Narrow, References

CHUNK_NM = 150_000  # numbers at once while matching: stays in the processor's cache
MANY = 3  # totals a reference


def guessed(references: References, mix: Array, target: Target) -> tuple[Narrow, Narrow]:
    """Return every set-up's match with a target (0 to 1) and its positive demand over the target's
    joints, N·m·°, both (unloaded, totals).

    mix: how much of each reference makes a total, (totals, references). Where the target has no
    level, each is first brought to its work: the shape.
    """
    narrow, points = mix.astype(np.float32), mix.shape[1]
    given, asked, coarse = _laid_out(references, target)
    asked_coarse, total = asked @ coarse, float(asked.sum())
    if len(mix) > MANY * points:
        # where there is much to do, degrees at which none of these gives anything are left out
        there = np.flatnonzero(given.max(axis=0) > 0)
        given, asked, coarse = given[:, there], asked[there], coarse[there]
    degrees = len(asked)
    given = given.reshape(len(given) // points, points, degrees)
    beside = _beside(references, points, target)
    match, work = (np.empty((len(given), len(mix)), dtype=np.float32) for _ in range(2))
    step = max(1, CHUNK_NM // max(1, len(mix) * degrees))
    # a product with ones sums rows several times as fast as a sum does
    every = np.ones(degrees, dtype=np.float32)
    grains = np.ones(coarse.shape[1], dtype=np.float32)
    for start in range(0, len(given), step):
        part = slice(start, start + step)
        own = np.matmul(narrow, given[part])
        q = np.maximum(own, 0.0, out=own) @ every
        level, factor = q, np.ones_like(q)
        if not target.has_level:
            some = q > ROUNDED_NM * degrees
            factor = np.divide(total, q, out=np.zeros_like(q), where=some)
            own *= factor[:, :, None]
            level = np.where(some, total, 0.0)
        covers = np.minimum(own @ coarse, asked_coarse) @ grains
        covers += np.minimum(own, asked, out=own) @ every
        other = _over(beside, narrow, part, factor)
        match[part] = of_work(covers / GRAINS, total, level, other)
        work[part] = q
    return match, work


def _laid_out(references: References, target: Target) -> tuple[Narrow, Narrow, Narrow]:
    """Return the references' signed demand and the wanted one over the target's joints side by
    side, (set-ups × loads, degrees) and (degrees,), only where something is asked or given, and
    what sums them into coarse grains, each joint's own.
    """
    used = [
        np.flatnonzero((wanted > 0) | references.loaded(action))
        for action, wanted in zip(target.actions, target.bins, strict=True)
    ]
    given = [references.bins(a, u) for a, u in zip(target.actions, used, strict=True)]
    asked = [wanted[u] for wanted, u in zip(target.bins, used, strict=True)]
    coarse = block_diag(*(COARSE[u] for u in used))
    return (
        np.concatenate(given, axis=1),
        np.concatenate(asked).astype(np.float32),
        coarse.astype(np.float32),
    )


def _beside(references: References, points: int, target: Target) -> list[tuple[Narrow, float]]:
    """Return the references' signed demand in each unwanted hip and knee action, (unloaded,
    references, degrees), with what the wanted lift itself asks there, N·m·°.
    """
    found = []
    for action in unwanted(target.actions):
        used = np.flatnonzero(references.loaded(action))
        if used.size:
            bins = references.bins(action, used)
            shape = len(bins) // points, points, used.size
            found.append((bins.reshape(shape), target.works.get(action, 0.0)))
    return found


def _over(
    beside: Sequence[tuple[Narrow, float]], mix: Narrow, part: slice, factor: Narrow
) -> Narrow:
    """Return what set-ups, scaled by a factor, ask beside what the wanted lift asks itself, N·m·°
    (unloaded, totals).
    """
    total = np.zeros_like(factor)
    for bins, own in beside:
        given = np.matmul(mix, bins[part])
        asks = np.maximum(given, 0.0, out=given) @ np.ones(given.shape[2], dtype=np.float32)
        total += np.maximum(factor * asks - own, 0.0)
    return total
