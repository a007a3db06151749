"""Set-ups of an exercise prepared once: reference loads solved, every total's demand in between; then only filtered.

Demand is linear in the load where the posture does not depend on it; elsewhere the reference loads lie so close that
what is between them is right to well under a percent of the match. What is offered is computed exactly afterwards.
"""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, TypeVar

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import PORTS, Body, Limits
from widearc.core.catalogue import Exercise
from widearc.core.curve import CENTRES_DEG, Action, on_grid
from widearc.core.errors import PostureError
from widearc.core.matching import Target, compare
from widearc.core.statics import Curve, curve
from widearc.core.substitution.geometry import Range
from widearc.core.substitution.kit import Kit, Machine, Pick, Piece
from widearc.core.substitution.setups import NOTHING, Batch, Row, batches, picks_of

KEPT_TARGETS = 4  # a load that was changed back is answered at once
CHUNK_NM = 600_000  # numbers at once while matching: stays in the processor's cache
SEARCH_SAMPLES = 31  # every 3° is enough to choose; what is chosen is computed at 101
KEPT_SHARED = 20
T = TypeVar("T")
Narrow = NDArray[np.float32]
NOT_OFFERED = ("rear-knee-floor", "feet-touch-floor", "band-overstretch", "sled-pulled-away")
LINEAR = ("knee rotation", "bridge", "hip rotation trunk", "hip rotation leg", "thigh spread", "plank knee bend")
"""Families whose posture does not depend on the load: two references say all. Static split squats are so too."""
REFERENCES = {
    True: (0.0, 120.0, 1000.0),
    False: (0.0, 5.0, 10.0, 15.0, 20.0, 30.0, 45.0, 65.0, 95.0, 140.0, 200.0, 300.0, 450.0, 650.0, 1000.0),
}
"""Reference loads in kg, by whether the family is linear. Fixed, so that no answer depends on what else is here."""
FEW = 5  # totals: so few are their own references
CLOSE = 0.016  # match: rows this close to the best guess are computed exactly before one is chosen
CLOSE_LINEAR = 0.005  # the same where a guess is only as coarse as its samples
MOST_EXACT = 50


def is_linear(batch: Batch) -> bool:
    """Return whether a batch's posture does not depend on its loads."""
    exercise = batch.exercise
    return exercise.family in LINEAR or (exercise.family == "split" and exercise.variant == "")


@dataclass(slots=True, kw_only=True, eq=False)
class PreparedBatch:
    """A batch with its reference curves, and which set-ups may be offered, (frames, picks).

    angles rad and demand N·m by joint, ((frames × references), samples). mix: how much of each reference makes a pick,
    (picks, references). least_pieces: to carry, (frames, picks).
    """

    batch: Batch
    angles: dict[str, Array]
    demand: dict[str, Array]
    usable: BoolArray
    mix: Array
    linear: bool
    _items: dict[str, BoolArray]
    _bins: dict[Action, Narrow] = field(default_factory=dict)
    _matches: OrderedDict[bytes, tuple[Narrow, Narrow]] = field(default_factory=OrderedDict)
    _exact: dict[tuple[int, int], Curve] = field(default_factory=dict)
    _scores: OrderedDict[bytes, dict[tuple[int, int], float]] = field(default_factory=OrderedDict)
    kept: OrderedDict[object, Any] = field(default_factory=OrderedDict)
    pieces: Array = field(init=False)
    plain: BoolArray = field(init=False)

    def __post_init__(self) -> None:
        """Count pieces, and note which frames are plain."""
        frames, picks = self.batch.frames, self.batch.picks
        own = np.array([sum(p.number for p in f.pieces) + len(f.things) for f in frames], dtype=float)
        self.pieces = own[:, None] + np.array([sum(p.number for p in pick.pieces) for pick in picks], dtype=float)
        self.plain = np.array([not f.extra for f in frames], dtype=bool)

    def bins(self, action: Action) -> Narrow:
        """Return the references' signed demand over the 1° grid, (frames, references, 220), zeros where held."""
        if action not in self._bins:
            shape = (len(self.batch.frames), self.mix.shape[1], len(CENTRES_DEG))
            if action.joint in self.demand:
                grid = np.nan_to_num(on_grid(self.angles[action.joint], self.demand[action.joint], action, signed=True))
                self._bins[action] = np.asarray(grid.astype(np.float32).reshape(shape))
            else:
                self._bins[action] = np.asarray(np.zeros(shape, dtype=np.float32))
        return self._bins[action]

    def allowed(self, taken: frozenset[str], free: Kit, grip_kg: float | None) -> BoolArray:
        """Return which set-ups can be made of what is free and held in the hands, (frames, picks)."""
        mask = self.usable.copy()
        for item in taken & self._items.keys():
            mask &= ~self._items[item][:, None]
        return mask & self._makeable(taken, free)[None, :] & self._held(grip_kg)[None, :]

    def _makeable(self, taken: frozenset[str], free: Kit) -> BoolArray:
        """Return which picks the free stock makes, in whatever way, (picks,)."""
        picks = self.batch.picks
        used = {piece.item for pick in picks for piece in pick.pieces}
        if taken.isdisjoint(used):
            return np.ones(len(picks), dtype=bool)
        totals = {pick.kg for pick in self._free_picks(free)}
        return np.array([pick.kg in totals for pick in picks])

    def _free_picks(self, free: Kit) -> tuple[Pick, ...]:
        if self.batch.stock == "":
            return (NOTHING,)
        machine = self.batch.machine
        if isinstance(machine, Machine) and all(m.id != machine.id for m in free.machines):
            return ()
        port = next(w.port for w in self.batch.way if w.stock == self.batch.stock)
        return picks_of(self.batch.stock, port, free, machine)

    def _held(self, grip_kg: float | None) -> BoolArray:
        """Return which picks ask no more of a hand than it holds, (picks,): weights only.

        What is held in both hands is shared evenly; what a band pulls is looked at for the chosen set-up alone.
        """
        kg = np.array([pick.kg for pick in self.batch.picks])
        way = next((w for w in self.batch.way if w.stock == self.batch.stock and PORTS[w.port].hands), None)
        if grip_kg is None or way is None:
            return np.ones(len(kg), dtype=bool)
        return np.asarray(kg / (2.0 if way.port == "hands" else 1.0) <= grip_kg + 1e-9)

    def pieces_of(self, row: tuple[int, int], taken: frozenset[str], free: Kit) -> tuple[Piece, ...]:
        """Return what to pick up for a set-up, from what is free."""
        frame, pick = self.batch.frames[row[0]], self.batch.picks[row[1]]
        if not taken.isdisjoint({piece.item for piece in pick.pieces}):
            pick = next(p for p in self._free_picks(free) if p.kg == pick.kg)
        return (*pick.pieces, *frame.pieces)

    def match(self, target: Target) -> Narrow:
        """Return every set-up's match with the target, 0 to 1, (frames, picks); the last few are kept.

        (S + Q - D) / (S + Q + D); where the target has no level, each is first brought to its work: the shape.
        """
        return self._matched(target)[0]

    def _matched(self, target: Target) -> tuple[Narrow, Narrow]:
        if target.key not in self._matches:
            self._matches[target.key] = self._match(target)
            while len(self._matches) > KEPT_TARGETS:
                self._matches.popitem(last=False)
        return self._matches[target.key]

    def _match(self, target: Target) -> tuple[Narrow, Narrow]:
        owns = [self.bins(action) for action in target.actions]
        # only degrees where something is asked or given
        used = [
            np.flatnonzero((wanted > 0) | (own != 0).any(axis=(0, 1)))
            for own, wanted in zip(owns, target.bins, strict=True)
        ]
        given = np.concatenate([own[:, :, u] for own, u in zip(owns, used, strict=True)], axis=2)
        asked = np.concatenate([wanted[u] for wanted, u in zip(target.bins, used, strict=True)]).astype(np.float32)
        mix, total = self.mix.astype(np.float32), float(asked.sum())
        frames, picks = given.shape[0], mix.shape[0]
        match, work = np.empty((frames, picks), dtype=np.float32), np.empty((frames, picks), dtype=np.float32)
        step = max(1, CHUNK_NM // max(1, picks * given.shape[2]))
        for start in range(0, frames, step):
            own = np.matmul(mix, given[start : start + step])
            np.maximum(own, 0.0, out=own)
            q = own.sum(axis=2)
            if not target.has_level:
                own *= np.divide(total, q, out=np.zeros_like(q), where=q > 0)[:, :, None]
            own -= asked
            apart = np.abs(own, out=own).sum(axis=2)
            level = q if target.has_level else np.where(q > 0, total, 0.0)
            match[start : start + step] = (total + level - apart) / (total + level + apart)
            work[start : start + step] = q
        return match, work

    def best(self, target: Target, mask: BoolArray, body: Body, limits: Limits) -> tuple[float, tuple[int, int]] | None:
        """Return match and (frame, pick) of the best set-up of a mask: of equal ones, the fewest pieces to carry.

        Close ones are computed exactly first, so that what is found is not beaten.
        """
        if not mask.any():
            return None
        guess = np.where(mask, self.match(target), -1.0)
        top = float(guess.max())
        flat = np.flatnonzero(guess.ravel() >= top - (CLOSE_LINEAR if self.linear else CLOSE))
        flat = flat[np.argsort(-guess.ravel()[flat], kind="stable")][:MOST_EXACT]
        rows = [(int(i) // guess.shape[1], int(i) % guess.shape[1]) for i in flat]
        if len(rows) == 1:
            return self._alone(target, rows[0], body, limits)
        scores = self._scored(target, rows, body, limits)
        row = min(rows, key=lambda r: (-round(scores[r], 6), self.pieces[r], r))
        return (scores[row], row) if scores[row] >= 0 else None

    def _alone(
        self, target: Target, row: tuple[int, int], body: Body, limits: Limits
    ) -> tuple[float, tuple[int, int]] | None:
        """Return match and row of a set-up that nothing else comes close to; None if it cannot be done after all."""
        try:
            found = self.exact(row, body, limits)
        except PostureError:
            return None
        if _refused(found, 1)[0]:
            return None
        return float(compare(target, found.motion.angles, found.demand_nm, 1).score(target)[0]), row

    def _scored(
        self, target: Target, rows: list[tuple[int, int]], body: Body, limits: Limits
    ) -> dict[tuple[int, int], float]:
        """Return exact matches of some set-ups, at full samples; -1 for one that cannot be done after all."""
        known = self._scores.setdefault(target.key, {})
        while len(self._scores) > KEPT_TARGETS:
            self._scores.popitem(last=False)
        new = [row for row in rows if row not in known]
        if new:
            found = curve(
                self.batch.setup(body, limits, tuple(self.batch.row(*r) for r in new)), strict=False, lowering=False
            )
            score = compare(target, found.motion.angles, found.demand_nm, len(new)).score(target)
            bad = _refused(found, len(new))
            known |= {row: -1.0 if bad[i] else float(score[i]) for i, row in enumerate(new)}
        return known

    def exact(self, row: tuple[int, int], body: Body, limits: Limits) -> Curve:
        """Return one set-up's curve at full samples."""
        if row not in self._exact:
            self._exact[row] = curve(self.batch.setup(body, limits, (self.batch.row(*row),)), lowering=False)
        return self._exact[row]

    def step(self, row: tuple[int, int], target: Target, mask: BoolArray) -> float | None:
        """Return how much harder the next heavier total of the same geometry is (share of mean demand), or None."""
        work = self._matched(target)[1][row[0]]
        here = float(work[row[1]])
        heavier = work[mask[row[0]] & (work > here * 1.005)]
        return float(heavier.min()) / here - 1.0 if heavier.size and here > 0 else None


def _refused(found: Curve, rows: int) -> BoolArray:
    """Return which set-ups of a curve cannot be done or are not offered, (set-ups,)."""
    bad = np.zeros(rows, dtype=bool)
    bad[list(found.motion.failed)] = True
    for notice in found.motion.notices:
        if notice.code in NOT_OFFERED:
            bad |= notice.where
    return bad


@dataclass(slots=True, kw_only=True, eq=False)
class Prepared:
    """All batches of one exercise, how many set-ups they hold, and why others failed (reason: count)."""

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
        light = _liftable(batch, to_shoulders_kg)
        if light is None:
            continue
        try:
            made.parts += _prepared(light, body, limits, made.reasons)
        except PostureError as error:
            made.reasons[error.reason] = made.reasons.get(error.reason, 0) + light.size
    made.tried = sum(part.batch.size for part in made.parts)
    return made


def _liftable(batch: Batch, to_shoulders_kg: float | None) -> Batch | None:
    """Return the batch without picks that the client cannot bring to the shoulders; None where none is left."""
    if "rack or clean" not in batch.exercise.needs or to_shoulders_kg is None:
        return batch
    picks = tuple(pick for pick in batch.picks if pick.kg <= to_shoulders_kg)
    return Batch(exercise=batch.exercise, way=batch.way, frames=batch.frames, picks=picks) if picks else None


def _prepared(batch: Batch, body: Body, limits: Limits, reasons: dict[str, int]) -> list[PreparedBatch]:
    """Return a batch with its reference curves; set-ups next to a reference that fails are a part of their own."""
    linear = is_linear(batch)
    kg = np.array([pick.kg for pick in batch.picks])
    # a load above the last pick's neighbour is not needed; few picks are their own references
    few = 2 if linear else FEW
    points = kg if len(set(kg.tolist())) <= few else _around(kg, np.array(REFERENCES[linear]))
    points = np.unique(points)
    mix = _mix(kg, points, body.mass_kg, linear=linear)
    angles, demand, bad = (
        _superposed(batch, points, body, limits, reasons)
        if linear and len(batch.frames) > 8 and any(len(f.bands) > 1 for f in batch.frames)
        else _solved(batch, points, body, limits, reasons)
    )
    fine = ~bad.reshape(len(batch.frames), len(points))
    whole = (mix[None, :, :] > 0) & ~fine[:, None, :]
    usable: BoolArray = np.asarray(~whole.any(axis=2))
    made = [_made(batch, angles, demand, usable, mix, linear=linear)] if usable.any() else []
    # between a load that can be done and one that cannot, each total is asked for itself
    some = (mix[None, :, :] > 0) & fine[:, None, :]
    edge = np.argwhere(~usable & some.any(axis=2))
    if len(edge):
        made += _one_by_one(batch, [(int(g), int(k)) for g, k in edge], body, limits)
    return made


def _around(kg: Array, references: Array) -> Array:
    """Return the references that lie next to any of the loads."""
    below = np.searchsorted(references, kg, side="right") - 1
    above = np.minimum(below + 1, len(references) - 1)
    exact = references[below] == kg
    return np.asarray(references[np.unique(np.concatenate([below, above[~exact]]))])


def _mix(kg: Array, points: Array, mass_kg: float, *, linear: bool) -> Array:
    """Return how much of each reference load makes each load, (loads, references): the two beside it.

    Where balance sets the posture, it changes as u = 1 / (body + load): there demand times u is weighed by u, which is
    right for a demand that is linear in the load as well as for arms that are linear in u.
    """
    mix = np.zeros((len(kg), len(points)))
    for row, value in enumerate(kg):
        above = int(np.searchsorted(points, value))
        if points[min(above, len(points) - 1)] == value:
            mix[row, above] = 1.0
            continue
        low, high = points[above - 1], points[above]
        if linear:
            mix[row, above - 1 : above + 1] = (high - value) / (high - low), (value - low) / (high - low)
            continue
        u, u_low, u_high = (1.0 / (mass_kg + m) for m in (value, low, high))
        share = (u_low - u) / (u_low - u_high)
        mix[row, above - 1] = (1.0 - share) * u_low / u
        mix[row, above] = share * u_high / u
    return mix


def _solved(
    batch: Batch, points: Array, body: Body, limits: Limits, reasons: dict[str, int]
) -> tuple[dict[str, Array], dict[str, Array], BoolArray]:
    """Return angles, demand ((frames × references), samples) and which of them cannot be done."""
    rows = tuple(_loaded(frame, float(kg)) for frame in batch.frames for kg in points)
    found = curve(batch.setup(body, limits, rows, samples=SEARCH_SAMPLES), strict=False, lowering=False)
    for _, reason in found.motion.failed.values():
        reasons[reason] = reasons.get(reason, 0) + 1
    full = {name: np.broadcast_to(d, (len(rows), SEARCH_SAMPLES)) for name, d in found.demand_nm.items()}
    angles = {name: np.broadcast_to(found.motion.angles[name], (len(rows), SEARCH_SAMPLES)) for name in found.demand_nm}
    return angles, full, _refused(found, len(rows))


def _loaded(frame: Row, kg: float) -> Row:
    return frame if kg == 0 else Row(**{**_fields(frame), "kg": kg})


_ROW_FIELDS = ("options", "pieces", "kg", "bands", "springs", "anchor", "furniture", "things", "machine", "place",
               "extra")  # fmt: skip


def _fields(row: Row) -> dict[str, Any]:
    return {name: getattr(row, name) for name in _ROW_FIELDS}


def _superposed(
    batch: Batch, points: Array, body: Body, limits: Limits, reasons: dict[str, int]
) -> tuple[dict[str, Array], dict[str, Array], BoolArray]:
    """Return the same as `_solved` where every force adds to the demand by itself: each band is solved once alone."""
    places: dict[int, int] = {}
    bases: list[Row] = []
    for frame in batch.frames:
        if id(frame.options) not in places:
            places[id(frame.options)] = len(bases)
            bases.append(Row(**{**_fields(frame), "bands": (), "pieces": ()}))
    kinds = {(band.id, strands): (band, strands) for frame in batch.frames for band, strands in frame.bands}
    order = sorted(kinds)
    rows = [_loaded(base, float(kg)) for base in bases for kg in points]
    # with the lightest load, so that what a band adds is the difference to that
    alone = [_loaded(Row(**{**_fields(b), "bands": (kinds[key],)}), float(points[0])) for key in order for b in bases]
    # one call for all: loads of a set-up without a band count none of it
    found = curve(batch.setup(body, limits, (*rows, *alone), samples=SEARCH_SAMPLES), strict=False, lowering=False)
    for _, reason in found.motion.failed.values():
        reasons[reason] = reasons.get(reason, 0) + 1
    refused = _refused(found, len(rows) + len(alone))
    base_bad = refused[: len(rows)].reshape(len(bases), len(points))
    band_bad = refused[len(rows) :].reshape(len(order), len(bases))
    place = np.array([places[id(frame.options)] for frame in batch.frames])
    counts = np.array(
        [[sum((b.id, n) == key for b, n in frame.bands) for key in order] for frame in batch.frames], dtype=float
    )
    demand, angles = {}, {}
    for name, values in found.demand_nm.items():
        full = np.nan_to_num(np.broadcast_to(values, (len(refused), SEARCH_SAMPLES)))
        base = full[: len(rows)].reshape(len(bases), len(points), SEARCH_SAMPLES)
        lightest = base[:, 0]
        own = full[len(rows) :].reshape(len(order), len(bases), SEARCH_SAMPLES) - lightest[None]
        added = np.einsum("fb,bfs->fs", counts, own[:, place])
        demand[name] = (base[place] + added[:, None, :]).reshape(-1, SEARCH_SAMPLES)
        turn = np.broadcast_to(found.motion.angles[name], (len(refused), SEARCH_SAMPLES))[: len(rows)]
        angles[name] = turn.reshape(base.shape)[place].reshape(-1, SEARCH_SAMPLES)
    bad = base_bad[place] | ((counts > 0) & band_bad.T[place]).any(axis=1)[:, None]
    return angles, demand, bad.ravel()


def _one_by_one(batch: Batch, pairs: list[tuple[int, int]], body: Body, limits: Limits) -> list[PreparedBatch]:
    """Return set-ups each with its own total as a part of their own: none is between two references."""
    frames = tuple(batch.row(g, k) for g, k in pairs)
    single = Batch(exercise=batch.exercise, way=batch.way, frames=frames, picks=(NOTHING,), machine=batch.machine)
    found = curve(single.setup(body, limits, frames, samples=SEARCH_SAMPLES), strict=False, lowering=False)
    usable = np.asarray(~_refused(found, len(frames))[:, None])
    if not usable.any():
        return []
    shape = (len(frames), SEARCH_SAMPLES)
    angles = {name: np.broadcast_to(found.motion.angles[name], shape) for name in found.demand_nm}
    demand = {name: np.broadcast_to(d, shape) for name, d in found.demand_nm.items()}
    return [_made(single, angles, demand, usable, np.ones((1, 1)), linear=True)]


def _made(
    batch: Batch, angles: dict[str, Array], demand: dict[str, Array], usable: BoolArray, mix: Array, *, linear: bool
) -> PreparedBatch:
    users: dict[str, BoolArray] = {}
    for index, frame in enumerate(batch.frames):
        for item in frame.items():
            users.setdefault(item, np.zeros(len(batch.frames), dtype=bool))[index] = True
    return PreparedBatch(batch=batch, angles=angles, demand=demand, usable=usable, mix=mix, linear=linear, _items=users)
