"""What was computed for the last questions, so that a changed target or taken item costs little."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any, TypeVar

import numpy as np
from cachetools import LRUCache

from widearc.core.arrays import BoolArray
from widearc.core.body import Body, Limits
from widearc.core.exercises import Exercise
from widearc.core.kit import Kit
from widearc.core.movement import SAMPLES
from widearc.core.search.near import CLOSE_LINEAR, near_by
from widearc.core.search.plans import plan_of
from widearc.core.search.prepared import PreparedBatch
from widearc.core.search.references import solved_together, why_none
from widearc.core.search.solved import SEARCH_SAMPLES, Part, References, SolveQueue
from widearc.core.setups import NOTHING, Batch, OnceCache, Range, batches_of
from widearc.core.words import UNSAID, Said

KEPT_SHARED = 120  # a week's plan of questions among them
T = TypeVar("T")


@dataclass(slots=True, kw_only=True, eq=False)
class Prepared:
    """All batches of one exercise, how many set-ups they hold, and why others failed (reason:
    count).
    """

    parts: list[PreparedBatch] = field(default_factory=list)
    tried: int = 0
    reasons: dict[Said, int] = field(default_factory=dict)


class Memo:
    """Keeps prepared exercises of the last requests, so that a changed target or taken item costs
    little.

    What is taken only filters what was computed for the whole kit. Holds at most `most` exercises.
    """

    def __init__(self, most: int = 400) -> None:
        self._most = most
        self._kept: LRUCache[object, Prepared] = LRUCache(most)
        self._shared: LRUCache[object, Any] = LRUCache(KEPT_SHARED)
        self._scopes: dict[tuple[object, ...], int] = {}
        self._lock = threading.Lock()  # the server asks from several threads

    def scope(self, *parts: object) -> int:
        """Return a number for what an answer depends on; equal parts get the same one (hashed once
        a request).
        """
        with self._lock:
            if len(self._scopes) > 4 * self._most:
                self._scopes.clear()
                self._kept.clear()
            return self._scopes.setdefault(parts, len(self._scopes))

    def once(self, key: object, make: Callable[[], T]) -> T:
        """Return what `make` gave for a key the last time, or make it: for the few that every
        answer shares.
        """
        with self._lock:
            if key in self._shared:
                kept: T = self._shared[key]
                return kept
        made = make()
        with self._lock:
            self._shared[key] = made
        return made

    def prepared(
        self,
        exercises: Sequence[Exercise],
        kit: Kit,
        body: Body,
        limits: Limits,
        wanted: Range,
        scope: int,
        extra: Said = UNSAID,
    ) -> list[Prepared]:
        """Return exercises prepared for a whole kit, body and knee range; `scope` as given for
        them.

        extra: none for the plain set-ups, else those with that one thing more.
        """
        keys = {exercise.id: (exercise.id, extra, scope) for exercise in exercises}
        with self._lock:
            found = {id_: self._kept[key] for id_, key in keys.items() if key in self._kept}
        missing = [exercise for exercise in exercises if exercise.id not in found]
        if missing:
            made = _prepare(missing, kit, body, limits, wanted, extra)
            with self._lock:
                for exercise, one in zip(missing, made, strict=True):
                    self._kept[keys[exercise.id]] = found[exercise.id] = one
        return [found[exercise.id] for exercise in exercises]


def _prepare(
    exercises: Sequence[Exercise],
    kit: Kit,
    body: Body,
    limits: Limits,
    wanted: Range,
    extra: Said,
) -> list[Prepared]:
    """Return exercises prepared, in their order: what of them can be is computed together."""
    asked, listed = [], OnceCache()
    for exercise in exercises:
        asked.append(list(batches_of(exercise, kit, body, limits, wanted, extra, listed)))
    edges = SolveQueue()
    drafts = [
        [
            part
            for pair in zip(lifted, found, strict=True)
            for part in _drafted(*pair, body, limits, edges)
        ]
        for lifted, found in zip(asked, solved_together(asked, body, limits), strict=True)
    ]
    known = edges.solve()
    made = []
    for lifted, drafted in zip(asked, drafts, strict=True):
        parts = [part for part in (draft(known) for draft in drafted) if part.usable.any()]
        reasons = {} if parts else why_none(lifted, body, limits)
        made.append(
            Prepared(parts=parts, tried=sum(part.batch.size for part in parts), reasons=reasons)
        )
    return made


_Draft = Callable[[list[Part]], PreparedBatch]
"""What makes a part of an exercise, once the set-ups at the edge of what can be done are
computed.
"""


def _drafted(
    batch: Batch, found: References, body: Body, limits: Limits, edges: SolveQueue
) -> Iterator[_Draft]:
    """Yield a batch with its reference curves; set-ups next to a reference that fails become a part
    of their own.
    """
    plan = plan_of(batch, body.mass_kg)
    fine = ~found.bad.reshape(len(batch.unloaded), len(plan.points))
    used = (plan.mix > 0).astype(np.float32).T
    usable: BoolArray = np.ones((len(batch.unloaded), len(batch.totals)), dtype=bool)
    if not fine.all():
        usable = (~fine).astype(np.float32) @ used == 0
    if usable.any():
        close = near_by(batch, plan, found)
        made = PreparedBatch(
            batch=batch, references=found, usable=usable, mix=plan.mix, close=close
        )
        if isinstance(found, Part) and found.samples == SAMPLES and plan.own is not None:
            made.own = found.share, plan.own
        yield lambda parts: made
    if not usable.all():
        # between a load that can be done and one that cannot, each total is asked for itself
        edge = np.argwhere(~usable & (fine.astype(np.float32) @ used > 0))
        if len(edge):
            yield _one_by_one(batch, [(int(g), int(k)) for g, k in edge], body, limits, edges)


def _one_by_one(
    batch: Batch, pairs: list[tuple[int, int]], body: Body, limits: Limits, edges: SolveQueue
) -> _Draft:
    """Return set-ups each with its own total as a part of their own: none is between two
    references.
    """
    unloaded = tuple(batch.row(g, k) for g, k in pairs)
    single = Batch(
        exercise=batch.exercise,
        way=batch.way,
        unloaded=unloaded,
        totals=(NOTHING,),
        machine=batch.machine,
    )
    number = edges.add(single.setup(body, limits, unloaded, samples=SEARCH_SAMPLES), unloaded)

    def made(parts: list[Part]) -> PreparedBatch:
        """Return the part, once the set-ups at the edge are computed."""
        found = parts[number]
        usable = ~found.bad[:, None]
        return PreparedBatch(
            batch=single, references=found, usable=usable, mix=np.ones((1, 1)), close=CLOSE_LINEAR
        )

    return made
