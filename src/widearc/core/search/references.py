"""Reference loads of set-ups: solved together, on the 1° grid, so that every total lies between two
of them.

Demand is linear in the load where the posture does not depend on it: there two references say all,
and what bands pulled together ask is the sum of what each asks.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import partial
from operator import itemgetter

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import Body, Limits
from widearc.core.curve import Action
from widearc.core.movement import SAMPLES
from widearc.core.search.plans import is_linear, plan_of
from widearc.core.search.solved import (
    EVERY,
    SEARCH_SAMPLES,
    Columns,
    Narrow,
    Part,
    References,
    SolveQueue,
)
from widearc.core.setups import ELASTIC, NOTHING, Batch, LoadedSetup, table_of
from widearc.core.words import Said

# curves: so few are computed at full samples at once, and nothing needs to be computed again
SMALL = 60


_Made = Callable[[list[Part]], References]


def solved_together(
    exercises: Sequence[Sequence[Batch]], body: Body, limits: Limits
) -> list[list[References]]:
    """Return the reference curves of the batches of some exercises, in their order, computed in few
    calls.
    """
    call = SolveQueue()
    makers = [_asked(batches, body, limits, call) for batches in exercises]
    parts = call.solve()
    return [[make(parts) for make in made] for made in makers]


def why_none(batches: Sequence[Batch], body: Body, limits: Limits) -> dict[Said, int]:
    """Return why set-ups of one exercise cannot be done, and how many each: asked of that exercise
    alone.
    """
    call = SolveQueue()
    _asked(batches, body, limits, call)
    reasons: dict[Said, int] = {}
    for part in call.solve():
        failed = part.share.whole.motion.failed
        for _, reason in (failed[row] for row in part.share.rows.tolist() if row in failed):
            reasons[reason] = reasons.get(reason, 0) + 1
    return reasons


def _asked(batches: Sequence[Batch], body: Body, limits: Limits, call: SolveQueue) -> list[_Made]:
    """Put the set-ups of one exercise's batches into a call; return what makes each batch's
    references of its parts.
    """
    known = _Known()
    plans = [plan_of(batch, body.mass_kg) for batch in batches]
    planned = list(zip(batches, plans, strict=True))
    every = sum(len(batch.unloaded) * len(plan.points) for batch, plan in planned)
    exact = all(is_linear(batch) or plan.own is not None for batch, plan in planned)
    # a press's guesses are off by the knee in its push at any number of places
    pressed = bool(batches) and batches[0].exercise.family == "sled press"
    samples = SAMPLES if every <= SMALL and exact and not pressed else SEARCH_SAMPLES
    made: list[_Made] = []
    for batch, plan in planned:
        if _adds_up(batch):
            made.append(_superposed(batch, plan.points, body, limits, call, known))
        else:
            setup = batch.setup(body, limits, batch.unloaded, samples=samples, kg=plan.points)
            made.append(itemgetter(call.add(setup, batch.unloaded, len(plan.points))))
    return made


def _adds_up(batch: Batch) -> bool:
    """Return whether a batch's bands are many enough, and stood on, to be solved each alone and
    added.
    """
    stood = any(way.from_ == "feet" for way in batch.way)
    several = any(len(pull.bands) > 1 for pull in table_of(batch.unloaded).pulls)
    return is_linear(batch) and stood and several and len(batch.unloaded) > 8


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class _Superposed:
    """Places with their loads, each kind of band alone, and how many of each every set-up has.

    base: places × loads; alone: places with nothing, then kinds × places. at_geometry (set-ups,);
    counts (set-ups, kinds).
    """

    base: Part
    alone: Part
    at_geometry: NDArray[np.intp]
    counts: Array
    points: int
    bad: BoolArray
    samples: int = SEARCH_SAMPLES

    def bins(self, action: Action, columns: Columns = EVERY) -> Narrow:
        """Return signed demand over the 1° grid, (set-ups × loads, degrees), zeros where held."""
        base = self.base.bins(action, columns)
        base = base.reshape(-1, self.points, base.shape[1])
        alone = self.alone.bins(action, columns).reshape(
            1 + self.counts.shape[1], len(base), base.shape[2]
        )
        own = alone[1:] - alone[:1]
        added = np.zeros((len(self.at_geometry), base.shape[2]), dtype=np.float32)
        for kind in range(self.counts.shape[1]):
            added += self.counts[:, kind, None].astype(np.float32) * own[kind, self.at_geometry]
        return np.asarray((base[self.at_geometry] + added[:, None, :]).reshape(-1, base.shape[2]))

    def loaded(self, action: Action) -> BoolArray:
        """Return at which degrees any of them asks anything, (220,)."""
        return self.base.loaded(action) | self.alone.loaded(action)

    def at_samples(self, joint: str) -> tuple[Array, Array] | None:
        """Return a joint's angle (rad) and signed demand (N·m), (set-ups × loads, samples) each, or
        None without such a joint.
        """
        base, alone = self.base.at_samples(joint), self.alone.at_samples(joint)
        if base is None or alone is None:
            return None
        angle, demand = (x.reshape(-1, self.points, x.shape[1]) for x in base)
        each = alone[1].reshape(1 + self.counts.shape[1], len(demand), -1)
        own = each[1:] - each[:1]
        added = sum(
            self.counts[:, kind, None] * own[kind, self.at_geometry]
            for kind in range(self.counts.shape[1])
        )
        total = demand[self.at_geometry] + np.asarray(added)[:, None, :]
        samples = total.shape[2]
        return angle[self.at_geometry].reshape(-1, samples), total.reshape(-1, samples)


_Known = dict[tuple[object, ...], int]
"""The numbers of the parts in which bands are solved alone, by places and kinds: ways with other
loads share them.
"""


def _superposed(
    batch: Batch, points: Array, body: Body, limits: Limits, call: SolveQueue, known: _Known
) -> Callable[[list[Part]], References]:
    """Return how the references come about where every force adds to the demand by itself: each
    band solved alone.
    """
    table = table_of(batch.unloaded)
    bases = tuple(LoadedSetup(options=geometry.options) for geometry in table.geometries)
    counted = table.counts
    weights = tuple(way for way in batch.way if way.stock not in ELASTIC)
    bare = replace(batch, way=weights, unloaded=bases)
    base = call.add(
        bare.setup(body, limits, bases, samples=SEARCH_SAMPLES, kg=points), bases, len(points)
    )
    bands = tuple(way for way in batch.way if way.stock in ELASTIC)
    key = (tuple(tuple(row.options.items()) for row in bases), tuple(counted), bands)
    if key not in known:
        pulled = replace(batch, way=bands, totals=(NOTHING,))
        hooked = [((band, strands),) for (_, strands), (band, _) in counted.items()]
        rows = (*bases, *(replace(row, bands=one) for one in hooked for row in bases))
        known[key] = call.add(pulled.setup(body, limits, rows, samples=SEARCH_SAMPLES), rows)
    counts = np.stack([number for _, number in counted.values()], axis=1)
    return partial(
        _added,
        base=base,
        alone=known[key],
        at_geometry=table.at_geometry,
        counts=counts,
        points=len(points),
    )


def _added(
    parts: list[Part],
    *,
    base: int,
    alone: int,
    at_geometry: NDArray[np.intp],
    counts: Array,
    points: int,
) -> References:
    bands = parts[alone].bad.reshape(1 + counts.shape[1], -1)[1:]
    pulled: BoolArray = np.any((counts > 0) & bands.T[at_geometry], axis=1)
    bad = parts[base].bad.reshape(-1, points)[at_geometry] | pulled[:, None]
    return _Superposed(
        base=parts[base],
        alone=parts[alone],
        at_geometry=at_geometry,
        counts=counts,
        points=points,
        bad=bad.ravel(),
    )
