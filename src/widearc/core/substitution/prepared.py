"""Curves of every set-up of an exercise, computed once and kept: marking an item taken only filters them."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from typing import Any, TypeVar

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import Body, Limits
from widearc.core.catalogue import Exercise
from widearc.core.curve import CENTRES_DEG, Action, on_grid
from widearc.core.errors import PostureError
from widearc.core.matching import Target
from widearc.core.statics import Curve, curve
from widearc.core.substitution.kit import Kit, Piece, bar_picks
from widearc.core.substitution.setups import Batch, Range, batches

KEPT_TARGETS = 4  # a load that was changed back is answered at once
CHUNK = 2000  # set-ups a batch: keeps the arrays of one call under some 60 MB
SEARCH_SAMPLES = 51  # every 2° is enough to choose; the chosen set-up is computed at 101
KEPT_SHARED = 20
T = TypeVar("T")
NOT_OFFERED = ("rear-knee-floor", "feet-touch-floor", "band-overstretch", "sled-pulled-away")


@dataclass(slots=True, kw_only=True, eq=False)
class PreparedBatch:
    """A batch with its curves at the search's samples, and which rows may be offered, (set-ups,)."""

    batch: Batch
    angles: dict[str, Array]
    demand: dict[str, Array]
    usable: BoolArray
    pieces: Array
    _users: dict[str, BoolArray]
    _iron: frozenset[str]
    _bins: dict[Action, Array] = field(default_factory=dict)
    _exact: dict[int, Curve] = field(default_factory=dict)
    _matches: OrderedDict[bytes, Array] = field(default_factory=OrderedDict)
    kept: OrderedDict[object, Any] = field(default_factory=OrderedDict)

    @property
    def _on_a_bar(self) -> bool:
        return any(way.stock == "bar" for way in self.batch.way)

    def bins(self, action: Action) -> Array:
        """Return the rows' demand over the 1° grid, (set-ups, 220), zeros where the joint is held."""
        if action not in self._bins:
            rows = len(self.batch.rows)
            if action.joint in self.demand:
                grid = np.nan_to_num(on_grid(self.angles[action.joint], self.demand[action.joint], action))
            else:
                grid = np.zeros((rows, len(CENTRES_DEG)))
            self._bins[action] = grid
        return self._bins[action]

    def uses(self, taken: frozenset[str], free: Kit) -> BoolArray:
        """Return which rows cannot be made without an item that is taken, (set-ups,).

        A bar's total counts as makeable when the plates that are free make it, in whatever way.
        """
        mask = np.zeros(len(self.batch.rows), dtype=bool)
        iron = self._on_a_bar and not taken.isdisjoint(self._iron)
        for item in taken & self._users.keys():
            if item not in self._iron:
                mask |= self._users[item]
        if iron:
            totals = {pick.kg for pick in bar_picks(free)}
            mask |= np.array([row.kg not in totals for row in self.batch.rows])
        return mask

    def pieces_of(self, row: int, taken: frozenset[str], free: Kit) -> tuple[Piece, ...]:
        """Return what to pick up for a row, from what is free."""
        chosen = self.batch.rows[row]
        if not self._on_a_bar or taken.isdisjoint(self._iron):
            return chosen.pieces
        iron = next(pick.pieces for pick in bar_picks(free) if pick.kg == chosen.kg)
        return iron + tuple(piece for piece in chosen.pieces if piece.kind not in ("bar", "plate"))

    def match(self, target: Target) -> Array:
        """Return every row's match with the target, 0 to 1: (S + Q - D) / (S + Q + D); the last few are kept.

        Where the target has no level, each row is first brought to its work: the shape.
        """
        if target.key not in self._matches:
            self._matches[target.key] = self._match(target)
            while len(self._matches) > KEPT_TARGETS:
                self._matches.popitem(last=False)
        return self._matches[target.key]

    def _match(self, target: Target) -> Array:
        asked = sum(float(b.sum()) for b in target.bins)
        apart: Array = np.zeros(len(self.batch.rows))
        owns = [self.bins(action) for action in target.actions]
        given = np.asarray(sum(own.sum(axis=1) for own in owns))
        factor = np.ones(len(given))
        if not target.has_level:
            factor = np.divide(asked, given, out=np.zeros_like(given), where=given > 0)
            given = given * factor
        for own, wanted in zip(owns, target.bins, strict=True):
            apart = apart + np.abs(own * factor[:, None] - wanted).sum(axis=1)
        return np.asarray((asked + given - apart) / (asked + given + apart))

    def exact(self, row: int, body: Body, limits: Limits) -> Curve:
        """Return one row's curve at full samples."""
        if row not in self._exact:
            self._exact[row] = curve(self.batch.setup(body, limits, [row]), lowering=False)
        return self._exact[row]

    def step(self, row: int, target: Target) -> float | None:
        """Return how much harder the next heavier set-up of the same geometry is (share of mean demand), or None."""
        level: Array = sum((self.bins(a).sum(axis=1) for a in target.actions), np.zeros(len(self.batch.rows)))
        here = self.batch.rows[row].options
        same = np.array([other.options == here for other in self.batch.rows])
        heavier = level[same & self.usable & (level > level[row] * 1.005)]
        return float(heavier.min() / level[row] - 1.0) if heavier.size and level[row] > 0 else None


@dataclass(slots=True, kw_only=True, eq=False)
class Prepared:
    """All batches of one exercise, how many set-ups were computed, and why others failed (reason: count)."""

    parts: list[PreparedBatch] = field(default_factory=list)
    tried: int = 0
    reasons: dict[str, int] = field(default_factory=dict)


class Memo:
    """Keeps prepared exercises of the last requests, so that a changed target or taken item costs little.

    What is taken only filters what was computed for the whole kit. Holds at most `most` exercises.
    """

    def __init__(self, most: int = 400) -> None:
        self._most = most
        self._kept: OrderedDict[object, Prepared] = OrderedDict()
        self._shared: OrderedDict[object, Any] = OrderedDict()
        self._scopes: dict[tuple[object, ...], int] = {}
        self._lock = threading.Lock()  # the server asks from several threads

    def scope(self, *parts: object) -> int:
        """Return a number for what an answer depends on; equal parts get the same one (hashed once a request)."""
        with self._lock:
            if len(self._scopes) > 4 * self._most:
                self._scopes.clear()
                self._kept.clear()
            return self._scopes.setdefault(parts, len(self._scopes))

    def once(self, key: object, make: Callable[[], T]) -> T:
        """Return what `make` gave for a key the last time, or make it: for the few that every answer shares."""
        with self._lock:
            if key in self._shared:
                self._shared.move_to_end(key)
                kept: T = self._shared[key]
                return kept
        made = make()
        with self._lock:
            self._shared[key] = made
            while len(self._shared) > KEPT_SHARED:
                self._shared.popitem(last=False)
        return made

    def prepared(
        self,
        exercise: Exercise,
        kit: Kit,
        body: Body,
        limits: Limits,
        to_shoulders_kg: float | None,
        wanted: Range,
        scope: int,
    ) -> Prepared:
        """Return the exercise prepared for a whole kit, body and knee range; `scope` as given for them."""
        key = (exercise.id, scope)
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key]
        made = _prepare(exercise, kit, body, limits, to_shoulders_kg, wanted)
        with self._lock:
            self._kept[key] = made
            while len(self._kept) > self._most:
                self._kept.popitem(last=False)
        return made


def _prepare(
    exercise: Exercise, kit: Kit, body: Body, limits: Limits, to_shoulders_kg: float | None, wanted: Range
) -> Prepared:
    made = Prepared()
    for batch in batches(exercise, kit, body, limits, wanted):
        for part in _parts(batch, to_shoulders_kg):
            try:
                result = curve(part.setup(body, limits, samples=SEARCH_SAMPLES), strict=False, lowering=False)
            except PostureError as error:
                made.reasons[error.reason] = made.reasons.get(error.reason, 0) + len(part.rows)
                continue
            made.tried += len(part.rows)
            for _, reason in result.motion.failed.values():
                made.reasons[reason] = made.reasons.get(reason, 0) + 1
            made.parts.append(_prepared_batch(part, result, kit))
    return made


def _parts(batch: Batch, to_shoulders_kg: float | None) -> Iterator[Batch]:
    """Yield the batch's admissible rows in chunks."""
    rows = batch.rows
    if "rack or clean" in batch.exercise.needs and to_shoulders_kg is not None:
        rows = tuple(row for row in rows if row.kg <= to_shoulders_kg)
    for start in range(0, len(rows), CHUNK):
        yield Batch(exercise=batch.exercise, way=batch.way, rows=rows[start : start + CHUNK])


def _prepared_batch(part: Batch, result: Curve, kit: Kit) -> PreparedBatch:
    usable = np.ones(len(part.rows), dtype=bool)
    usable[list(result.motion.failed)] = False
    # what pulls a band past its safe stretch or goes through the floor is not offered
    for notice in result.motion.notices:
        if notice.code in NOT_OFFERED:
            usable &= ~notice.where
    users: dict[str, BoolArray] = {}
    for index, row in enumerate(part.rows):
        for item in row.items():
            users.setdefault(item, np.zeros(len(part.rows), dtype=bool))[index] = True
    return PreparedBatch(
        batch=part,
        angles={name: result.motion.angles[name] for name in result.demand_nm},
        demand=result.demand_nm,
        usable=usable,
        pieces=np.array([sum(piece.number for piece in row.pieces) for row in part.rows], dtype=float),
        _users=users,
        _iron=frozenset(w.id for w in kit.weights if w.kind in ("bar", "plate")),
    )
