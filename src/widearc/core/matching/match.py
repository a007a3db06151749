"""How much candidates have in common with a wanted loading, on the 1° grid.

The measure itself is in `measure`.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from widearc.core.arrays import Array
from widearc.core.curve import CENTRES_DEG, Action, on_grid
from widearc.core.matching.measure import covered, of_work, unwanted
from widearc.core.matching.target import Target, centroid, long_third_share

ROUNDED_NM = 1e-6  # over a degree: less is what rounding leaves, and would make a shape of nothing
REACH_SHARE = 0.10  # of the candidate's own peak: less does not count as reached


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Comparison:
    """Candidates against a target; shares 0 to 1 (level may exceed 1), all shaped (set-ups,).

    by_joint: match per prime joint, in the target's order. bins: the candidates' own, (set-ups,
    220) per joint. covered, extra: per prime joint, as shares of its wanted work; other: asked in
    unwanted hip and knee actions, as a share of all that is wanted. load_centre_deg: where the
    middle of the work lies.
    """

    match: Array
    shape: Array
    level: Array
    reach: Array
    by_joint: tuple[Array, ...]
    bins: tuple[Array, ...]
    covered: tuple[Array, ...]
    extra: tuple[Array, ...]
    other: Array
    peak_deg: tuple[Array, ...]
    load_centre_deg: tuple[Array, ...]
    long_third_share: tuple[Array, ...]

    def row(self, index: int) -> Comparison:
        """Return one candidate's comparison, (1,) each."""
        one = slice(index, index + 1)
        return Comparison(
            match=self.match[one],
            shape=self.shape[one],
            level=self.level[one],
            reach=self.reach[one],
            by_joint=tuple(v[one] for v in self.by_joint),
            bins=tuple(v[one] for v in self.bins),
            covered=tuple(v[one] for v in self.covered),
            extra=tuple(v[one] for v in self.extra),
            other=self.other[one],
            peak_deg=tuple(v[one] for v in self.peak_deg),
            load_centre_deg=tuple(v[one] for v in self.load_centre_deg),
            long_third_share=tuple(v[one] for v in self.long_third_share),
        )

    def shift_deg(self, target: Target, index: int) -> Array:
        """Return how much more bent candidates' work lies than what is wanted of a prime joint,
        degrees (set-ups,); NaN without work.
        """
        return np.asarray(self.load_centre_deg[index] - target.load_centre_deg(index))

    def score(self, target: Target) -> Array:
        """Return what candidates are ranked by, (set-ups,): the match, or the shape where no level
        is wanted.
        """
        return self.match if target.has_level else self.shape


def compare(
    target: Target,
    angles: Mapping[str, Array],
    demand: Mapping[str, Array],
    rows: int,
    weights: tuple[Array, ...] | None = None,
) -> Comparison:
    """Return the comparison of candidates with a target; weights: of their own rep style, per prime
    joint (220,).

    angles rad and demand N·m, each (set-ups, samples) by joint name; a prime joint that the
    candidates hold (no demand) counts as nothing over the whole target range.
    """
    bins = []
    for index, action in enumerate(target.actions):
        if action.joint in demand:
            own = np.nan_to_num(on_grid(angles[action.joint], demand[action.joint], action))
            own[own < ROUNDED_NM] = 0.0
            bins.append(own if weights is None else own * weights[index])
        else:
            bins.append(np.zeros((rows, len(CENTRES_DEG))))
    total_t, total_c = float(sum(w.sum() for w in target.bins)), _sum(bins)
    gives = [b.sum(axis=1) for b in bins]
    covers = [covered(w, b) for w, b in zip(target.bins, bins, strict=True)]
    beside = _beside(target, angles, demand, rows)
    other = _over(beside, target, np.ones(rows))
    factor = np.divide(total_t, total_c, out=np.zeros_like(total_c), where=total_c > 0)
    scaled = sum(covered(w, b * factor[:, None]) for w, b in zip(target.bins, bins, strict=True))
    wanted = [b[None, :] for b in target.bins]
    asks = [max(float(w.sum()), 1e-12) for w in target.bins]
    return Comparison(
        match=np.asarray(of_work(sum(covers), total_t, total_c, other)),
        shape=np.asarray(of_work(scaled, total_t, factor * total_c, _over(beside, target, factor))),
        covered=tuple(c / w for c, w in zip(covers, asks, strict=True)),
        extra=tuple((g - c) / w for g, c, w in zip(gives, covers, asks, strict=True)),
        other=np.asarray(other / total_t),
        level=total_c / total_t,
        reach=_reach(wanted, bins),
        by_joint=tuple(of_work(c, w, g, 0.0) for c, w, g in zip(covers, asks, gives, strict=True)),
        bins=tuple(bins),
        peak_deg=tuple(CENTRES_DEG[np.argmax(b, axis=1)] for b in bins),
        load_centre_deg=tuple(centroid(b) for b in bins),
        long_third_share=tuple(
            long_third_share(b, target.range_deg(i)) for i, b in enumerate(bins)
        ),
    )


def _beside(
    target: Target, angles: Mapping[str, Array], demand: Mapping[str, Array], rows: int
) -> list[tuple[Action, Array]]:
    """Return candidates' positive work in each unwanted hip and knee action, N·m·°, (set-ups,)."""
    return [
        (action, np.nan_to_num(on_grid(angles[action.joint], demand[action.joint], action)).sum(1))
        for action in unwanted(target.actions)
        if action.joint in demand
    ]


def _over(beside: list[tuple[Action, Array]], target: Target, factor: Array) -> Array:
    """Return what candidates, scaled by a factor, ask beside the wanted lift's own, N·m·°."""
    total = np.zeros(len(factor))
    for action, work in beside:
        total = total + np.maximum(factor * work - target.works.get(action, 0.0), 0.0)
    return total


def _sum(bins: list[Array]) -> Array:
    return np.asarray(sum(b.sum(axis=1) for b in bins))


def _reach(wanted: list[Array], bins: list[Array]) -> Array:
    """Return the share of the target's degrees in which a candidate gives a tenth of its own
    peak.
    """
    degrees = sum(int((w > 0).sum()) for w in wanted)
    counted: Array = np.zeros(bins[0].shape[0])
    for w, b in zip(wanted, bins, strict=True):
        enough = (b >= REACH_SHARE * b.max(axis=1, keepdims=True)) & (b > 0)
        counted = counted + (enough & (w > 0)).sum(axis=1)
    return counted / degrees
