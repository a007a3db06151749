"""A batch solved for its reference loads: matches by mixing, what is close exactly."""

from __future__ import annotations

import threading
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from functools import partial
from typing import Any, TypeVar

import numpy as np
from cachetools import LRUCache
from numpy.typing import NDArray

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import Body, Limits
from widearc.core.curve import CENTRES_DEG, Action
from widearc.core.kit import Kit, Machine, Piece, Total
from widearc.core.matching import ROUNDED_NM, Comparison, Target, compare
from widearc.core.search.ceilings import Ceilings, has_load, worst
from widearc.core.search.guesses import guessed
from widearc.core.search.solved import Narrow, References, refused
from widearc.core.setups import (
    NOTHING,
    Batch,
    pieces_to_carry,
    pulled_otherwise,
    totals_of,
    users_of,
)
from widearc.core.statics import Curve, Share, computed, curve, gathered

KEPT_TARGETS = 4  # a load that was changed back is answered at once
MOST_EXACT = 50
KEPT_CANDIDATES = 3  # a batch: enough for a room that changes back and forth
KEPT_OVER = 6  # actions: those of one client, and of another beside them
KEPT_EXACT = 4  # curves a batch: a room that changes back finds them

T = TypeVar("T")


@dataclass(slots=True, kw_only=True, eq=False)
class PreparedBatch:
    """A batch with its reference curves, and which set-ups may be offered, (unloaded, totals).

    mix: how much of each reference makes a total, (totals, references). close: how near to the best
    guess a set-up is computed exactly. own: where the references are the set-ups themselves at full
    samples, their curves and which reference each total is.
    """

    batch: Batch
    references: References
    usable: BoolArray
    mix: Array
    close: float
    _bins: dict[Action, Narrow] = field(default_factory=dict)
    _lock: threading.RLock = field(default_factory=threading.RLock)  # several threads ask
    _matches: LRUCache[bytes, tuple[Narrow, Narrow]] = field(
        default_factory=partial(LRUCache, KEPT_TARGETS)
    )
    _exact: LRUCache[tuple[int, int], Curve] = field(default_factory=partial(LRUCache, KEPT_EXACT))
    _compared: LRUCache[tuple[bytes, tuple[int, int]], Comparison] = field(
        default_factory=partial(LRUCache, KEPT_EXACT)
    )
    _many: tuple[Share | None, dict[tuple[int, int], int]] = (
        None,
        {},
    )  # the last ones computed together
    _scores: LRUCache[bytes, dict[tuple[int, int], float]] = field(
        default_factory=partial(LRUCache, KEPT_TARGETS)
    )
    _kept: LRUCache[object, Any] = field(default_factory=partial(LRUCache, KEPT_CANDIDATES))
    _over: LRUCache[tuple[Action, float], tuple[Narrow, float]] = field(
        default_factory=partial(LRUCache, KEPT_OVER)
    )
    _under: LRUCache[object, BoolArray | None] = field(
        default_factory=partial(LRUCache, KEPT_TARGETS)
    )
    own: tuple[Share, NDArray[np.intp]] | None = None
    _users: dict[str, BoolArray] | None = None  # what is never asked for is never worked out
    _carried: Array | None = None

    @property
    def users(self) -> dict[str, BoolArray]:
        """Return which unloaded set-ups use each thing, (unloaded,) by its id."""
        if self._users is None:
            self._users = users_of(self.batch.unloaded)
        return self._users

    @property
    def carried(self) -> Array:
        """Return how many pieces are carried there, (unloaded, totals)."""
        if self._carried is None:
            weights = np.array(
                [sum(p.number for p in total.pieces) for total in self.batch.totals], dtype=float
            )
            self._carried = pieces_to_carry(self.batch.unloaded)[:, None] + weights
        return self._carried

    def bins(self, action: Action) -> Narrow:
        """Return the references' signed demand over the 1° grid, (unloaded, references, 220), zeros
        where held.
        """
        if action not in self._bins:
            shape = (len(self.batch.unloaded), self.mix.shape[1], len(CENTRES_DEG))
            self._bins[action] = self.references.bins(action).reshape(shape)
        return self._bins[action]

    def allowed(self, taken: frozenset[str], free: Kit) -> BoolArray:
        """Return which set-ups can be made of what is free, (unloaded, totals), whatever they
        ask.
        """
        mask = self.usable.copy()
        for item in taken & self.users.keys() if taken else ():
            mask &= ~self.users[item][:, None]
        return mask & self._makeable(taken, free)[None, :]

    def over(self, ceilings: Ceilings) -> dict[str, BoolArray]:
        """Return which set-ups are over each ceiling, (unloaded or 1, totals), by its name; those
        that none is over are left out.

        Demand without any load is over none: it is shown with a caution.
        """
        found = dict(ceilings.over_port(self.batch))
        for action in ceilings.actions(self.batch.exercise):
            worst, most = self._worst(action, ceilings)
            allowed = ceilings.most_nm(action) + ROUNDED_NM
            if most > allowed:
                found[action.label] = worst > allowed
        return found

    def under(self, ceilings: Ceilings) -> BoolArray | None:
        """Return which set-ups are under every ceiling, (unloaded or 1, totals), None where all
        are; the last few are kept.
        """

        def make() -> BoolArray | None:
            over = list(self.over(ceilings).values())
            return None if not over else ~np.logical_or.reduce(np.broadcast_arrays(*over))

        return self._once(self._under, ceilings.key, make)

    def _worst(self, action: Action, ceilings: Ceilings) -> tuple[Narrow, float]:
        """Return what set-ups with a load ask of an action over usual strength, (unloaded, totals),
        and the most of it.
        """
        factor = ceilings.factor(action)

        def make() -> tuple[Narrow, float]:
            found = worst(self.references, self.mix, action, ceilings.body, factor)
            found = found * has_load(self.batch) if found.any() else found
            return found, float(found.max(initial=0.0))

        return self._once(self._over, (action, factor), make)

    def _makeable(self, taken: frozenset[str], free: Kit) -> BoolArray:
        """Return which totals the free stock makes, in whatever way, (totals,)."""
        totals = self.batch.totals
        if not taken or taken.isdisjoint(
            {piece.item for total in totals for piece in total.pieces}
        ):
            return np.ones(len(totals), dtype=bool)
        weights = {total.kg for total in self._free_totals(free)}
        return np.array([total.kg in weights for total in totals])

    def _free_totals(self, free: Kit) -> tuple[Total, ...]:
        if self.batch.stock == "":
            return (NOTHING,)
        machine = self.batch.machine
        if isinstance(machine, Machine) and all(m.id != machine.id for m in free.machines):
            return ()
        port = next(w.port for w in self.batch.way if w.stock == self.batch.stock)
        return totals_of(self.batch.stock, port, free, machine)

    def pieces_of(
        self, row: tuple[int, int], taken: frozenset[str], free: Kit
    ) -> tuple[Piece, ...]:
        """Return what to pick up for a set-up, from what is free."""
        bare, total = self.batch.unloaded[row[0]], self.batch.totals[row[1]]
        if not taken.isdisjoint({piece.item for piece in total.pieces}):
            total = next(p for p in self._free_totals(free) if p.kg == total.kg)
        return (*total.pieces, *bare.pieces)

    def match(self, target: Target) -> Narrow:
        """Return every set-up's match with the target, 0 to 1, (unloaded, totals); the last few are
        kept.

        Where the target has no level, each is first brought to its work: the shape.
        """
        return self._matched(target)[0]

    def work(self, target: Target) -> Narrow:
        """Return every set-up's positive demand over the target's joints, N·m·°, (unloaded,
        totals).
        """
        return self._matched(target)[1]

    def _matched(self, target: Target) -> tuple[Narrow, Narrow]:
        return self._once(
            self._matches, target.key, lambda: guessed(self.references, self.mix, target)
        )

    def close_rows(self, target: Target, mask: BoolArray) -> list[tuple[int, int]]:
        """Return (unloaded, total) of the set-ups of a mask that come close to its best guess, best
        first.
        """
        guess = np.where(mask, self.match(target), -1.0)
        flat = np.flatnonzero(guess.ravel() >= float(guess.max()) - self.close)
        flat = flat[np.argsort(-guess.ravel()[flat], kind="stable")][:MOST_EXACT]
        return [(int(i) // guess.shape[1], int(i) % guess.shape[1]) for i in flat]

    def best(
        self, target: Target, mask: BoolArray, body: Body, limits: Limits
    ) -> tuple[float, tuple[int, int]] | None:
        """Return match and (unloaded, total) of the best set-up of a mask: of equal ones, the
        fewest pieces to carry.

        Close ones are computed exactly first, so that what is found is not beaten.
        """
        if not mask.any():
            return None
        rows = self.close_rows(target, mask)
        score_together([(self, rows)], target, body, limits)
        scores = self.known(target)
        row = (
            rows[0]
            if len(rows) == 1
            else min(rows, key=lambda r: (-round(scores[r], 6), self.carried[r], r))
        )
        return (scores[row], row) if scores[row] >= 0 else None

    def compared(self, target: Target, row: tuple[int, int], exact: Curve) -> Comparison:
        """Return one set-up's comparison with a target; exact: its curve. The last few are kept."""
        return self._once(
            self._compared,
            (target.key, row),
            lambda: compare(target, exact.motion.angles, exact.demand_nm, 1),
        )

    def known(self, target: Target) -> dict[tuple[int, int], float]:
        """Return the exact matches with a target that were computed before, -1 for what cannot be
        done after all.

        Those of the last few targets are kept.
        """
        return self._once(self._scores, target.key, dict)

    def own_share(self, rows: list[tuple[int, int]]) -> Share:
        """Return rows out of the references, where these are the set-ups themselves."""
        assert self.own is not None
        share, which = self.own
        return share.only(
            np.array([bare * self.mix.shape[1] + which[total] for bare, total in rows])
        )

    def take(
        self,
        target: Target,
        rows: list[tuple[int, int]],
        share: Share,
        every: Comparison,
        at: NDArray[np.intp],
        bad: BoolArray,
    ) -> None:
        """Keep rows that were computed exactly: their share of the curves, the comparisons at `at`,
        what is refused.
        """
        score = every.score(target)[at]
        best = max(range(len(rows)), key=lambda i: (not bad[i], score[i]))
        with self._lock:
            self._compared[(target.key, rows[best])] = every.row(int(at[best]))
        self.known(target).update(
            {row: -1.0 if bad[i] else float(score[i]) for i, row in enumerate(rows)}
        )
        self._many = share, {row: i for i, row in enumerate(rows) if not bad[i]}

    def exact(self, row: tuple[int, int], body: Body, limits: Limits) -> Curve:
        """Return one set-up's curve at full samples."""

        def make() -> Curve:
            together, geometries = self._many
            if together is not None and row in geometries:
                return together.row(geometries[row])
            return curve(self.batch.setup(body, limits, (self.batch.row(*row),)), lowering=False)

        return self._once(self._exact, row, make)

    def once(self, key: object, make: Callable[[], T]) -> T:
        """Return what `make` gave for a key before, or make it; the last few are kept."""
        kept: T = self._once(self._kept, key, make)
        return kept

    def _once(self, cache: LRUCache[Any, T], key: object, make: Callable[[], T]) -> T:
        # not `cachedmethod`: its wrappers hold the batch, whose arrays would then wait for the
        # collector
        with self._lock:
            if key in cache:
                return cache[key]
        made = make()
        with self._lock:
            kept: T = cache.setdefault(key, made)
        return kept

    def step(self, row: tuple[int, int], target: Target, mask: BoolArray) -> float | None:
        """Return how much harder the next harder set-up of the same geometry is (share of mean
        demand), by another total or by other bands or springs at the same place; None where there
        is none.
        """
        every = self._matched(target)[1]
        here = float(every[row])
        rows = pulled_otherwise(self.batch.unloaded, row[0])
        work = every[rows]
        heavier = work[mask[rows] & (work > here * 1.005)]
        return float(heavier.min()) / here - 1.0 if heavier.size and here > 0 else None


def score_together(
    asked: Sequence[tuple[PreparedBatch, list[tuple[int, int]]]],
    target: Target,
    body: Body,
    limits: Limits,
) -> None:
    """Compute set-ups of many batches exactly, at full samples, and let each batch keep its own."""
    new = []
    for part, rows in asked:
        missing = [row for row in rows if row not in part.known(target)]
        if missing:
            new.append((part, missing, tuple(part.batch.row(*row) for row in missing)))
    if not new:
        return
    solved = {
        n: part.own_share(missing)
        for n, (part, missing, _) in enumerate(new)
        if part.own is not None
    }
    others = [n for n in range(len(new)) if n not in solved]
    solved |= dict(
        zip(
            others,
            computed([new[n][0].batch.setup(body, limits, new[n][2]) for n in others]),
            strict=True,
        )
    )
    together = gathered([solved[n] for n in range(len(new))])
    compared = compare(target, together.angles, together.demand, together.rows)
    for number, (part, missing, made) in enumerate(new):
        share = solved[number]
        part.take(target, missing, share, compared, together.at[number], refused(share, made))
