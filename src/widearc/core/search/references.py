"""Reference loads of set-ups: solved together, on the 1° grid, so that every total lies between two
of them.

Demand is linear in the load where the posture does not depend on it: there two references say all,
and what bands pulled together ask is the sum of what each asks.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache, partial
from operator import itemgetter
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import Array, BoolArray
from widearc.core.body import Body, Limits
from widearc.core.curve import CENTRES_DEG, Action, on_grid
from widearc.core.equipment import Band, gives_way
from widearc.core.kit import hold_of
from widearc.core.movement import SAMPLES, Setup
from widearc.core.setups import ELASTIC, NOTHING, Batch, LoadedSetup, table_of
from widearc.core.statics import Curve, Gathered, Share, computed, gathered

# every 9° or so is enough to choose, with a cubic between; what is chosen is computed at 101
SEARCH_SAMPLES = 11
KNOTS = {"lunge": (1, 4), "step-up": (1, 4)}
"""Samples by a movement's variant at which it changes its way: a lunge's rear foot leaves the
floor, the leg hangs.
"""


# curves: so few are computed at full samples at once, and nothing needs to be computed again
SMALL = 60
CLOSE = 0.016  # match: rows this close to the best guess are computed exactly before one is chosen
CLOSE_STEP = 0.024  # the same in steps and lunges, whose hip turns back
CLOSE_CUT = 0.08  # the same where a range that the hip limit ends changes with the load
CLOSE_LINEAR = 0.003  # the same where a guess is only as coarse as its samples
CLOSE_EXACT = 0.0005  # the same where a guess is exact but for its number format


NOT_OFFERED = (
    "rear-knee-floor",
    "feet-touch-floor",
    "band-overstretch",
    "sled-pulled-away",
    "band-idle",
)


REFERENCES = {
    True: (0.0, 120.0, 1000.0),
    False: (
        0.0,
        5.0,
        10.0,
        15.0,
        20.0,
        30.0,
        45.0,
        65.0,
        95.0,
        140.0,
        200.0,
        300.0,
        450.0,
        650.0,
        1000.0,
    ),
}
"""Reference loads in kg, by whether the family is linear. Fixed, so that no answer depends on what
else is here.
"""


KEPT_CUTS = 4  # choices of degrees: those of a question's two joints and of the one before
FEW = 5  # totals: so few are their own references


def is_linear(batch: Batch) -> bool:
    """Return whether a batch's posture does not depend on its loads."""
    exercise = batch.exercise
    if exercise.law.kept_in_hands and not _in_hands(batch):
        return False
    return exercise.law.keeps_posture(exercise)


def _in_hands(batch: Batch) -> bool:
    weights = (way.port == "hands" and way.stock not in ELASTIC for way in batch.way)
    return bool(batch.way) and all(weights)


def refused(share: Share, rows: Sequence[LoadedSetup], times: int = 1) -> BoolArray:
    """Return which set-ups cannot be done or are not offered: rows, each so many times, (rows ×
    times,).
    """
    return _not_offered(share.whole)[share.rows] | _gives_way(share, rows, times)


def _not_offered(found: Curve) -> BoolArray:
    bad = np.zeros(found.motion.shape[0], dtype=bool)
    bad[list(found.motion.failed)] = True
    for notice in found.motion.notices:
        if notice.code in NOT_OFFERED:
            bad |= notice.where
    return bad


def _gives_way(share: Share, rows: Sequence[LoadedSetup], times: int) -> BoolArray:
    """Return where what a band is tied to would lift, slide, tip or break: only as far as that is
    known.
    """
    bad = np.zeros(len(rows) * times, dtype=bool)
    if not any(isinstance(load, Band) and load.anchor is not None for load in share.setup.loads):
        return bad
    table = table_of(rows)
    holds = {
        i: hold_of(pull.anchor[0]) for i, pull in enumerate(table.pulls) if pull.anchor is not None
    }
    known = {i: hold for i, hold in holds.items() if hold.holds_n is not None or hold.kg > 0}
    if not known:
        return bad
    motion = share.whole.motion
    pull = np.zeros((2, *motion.shape))
    for index, load in enumerate(share.whole.setup.loads):
        if isinstance(load, Band) and load.anchor is not None:
            pull -= next(motion.full(f.force) for f in motion.forces if f.source == f"load {index}")
    pull = np.nan_to_num(pull)
    at = np.repeat(table.at_pull, times)
    for number, hold in known.items():
        there = np.flatnonzero(at == number)
        bad[there] = gives_way(hold, *pull[:, share.rows[there]])
    return bad


def closeness(batch: Batch, plan: Plan, found: References) -> float:
    """Return how near a guessed match (share) must come to the best one to be computed exactly
    before one is chosen.
    """
    samples = found.samples
    if plan.own is not None and samples == SAMPLES:
        return CLOSE_EXACT
    if not is_linear(batch):
        near = CLOSE_STEP if batch.exercise.variant in KNOTS else CLOSE
        return CLOSE_CUT if isinstance(found, Part) and found.is_cut else near
    # a press's push square to its rails has a limit, and demand a knee there: it is never at full
    # samples
    return CLOSE_EXACT if samples == SAMPLES else CLOSE_LINEAR


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Plan:
    """The reference loads of some totals, kg, and how much of each makes each total, (totals,
    references).

    own: where every total is a reference itself, which one, (totals,); else None.
    """

    points: Array
    mix: Array
    own: NDArray[np.intp] | None


def plan_of(batch: Batch, mass_kg: float) -> Plan:
    """Return the reference loads of a batch: those beside any of its totals; few totals are their
    own.
    """
    return _plan(tuple(pick.kg for pick in batch.totals), is_linear(batch), mass_kg)


@lru_cache(maxsize=500)  # most batches of a search are loaded with the same few stocks
def _plan(totals: tuple[float, ...], linear: bool, mass_kg: float) -> Plan:
    kg = np.array(totals)
    few = 2 if linear else FEW
    points = np.unique(kg if len(set(totals)) <= few else _around(kg, np.array(REFERENCES[linear])))
    at = np.minimum(np.searchsorted(points, kg), len(points) - 1)
    own = at if np.all(points[at] == kg) else None
    return Plan(points=points, mix=mix_of(kg, points, mass_kg, linear=linear), own=own)


def _around(kg: Array, references: Array) -> Array:
    """Return the references that lie next to any of the loads."""
    below = np.searchsorted(references, kg, side="right") - 1
    above = np.minimum(below + 1, len(references) - 1)
    exact = references[below] == kg
    return np.asarray(references[np.unique(np.concatenate([below, above[~exact]]))])


def mix_of(kg: Array, points: Array, mass_kg: float, *, linear: bool) -> Array:
    """Return how much of each reference load makes each load, (loads, references): the two beside
    it.

    Where balance sets the posture, it changes as u = 1 / (body + load): there demand times u is
    weighed by u, which is right for a demand that is linear in the load as well as for arms that
    are linear in u.
    """
    mix = np.zeros((len(kg), len(points)))
    at = np.minimum(np.searchsorted(points, kg), len(points) - 1)
    own = points[at] == kg
    mix[np.flatnonzero(own), at[own]] = 1.0
    rows, high = np.flatnonzero(~own), at[~own]
    value, below, above = kg[rows], points[high - 1], points[high]
    if linear:
        share = (value - below) / (above - below)
        mix[rows, high - 1], mix[rows, high] = 1.0 - share, share
        return mix
    u, u_below, u_above = (1.0 / (mass_kg + m) for m in (value, below, above))
    share = (u_below - u) / (u_below - u_above)
    mix[rows, high - 1], mix[rows, high] = (1.0 - share) * u_below / u, share * u_above / u
    return mix


Narrow = NDArray[np.float32]
"""Bins to choose by: a guess needs no more digits."""


Columns = NDArray[np.intp]
EVERY: Columns = np.arange(len(CENTRES_DEG))
"""All degrees of the grid."""


class References(Protocol):
    """Curves of set-ups × reference loads; bad is (set-ups × loads,)."""

    @property
    def bad(self) -> BoolArray:
        """Return which cannot be done."""

    @property
    def samples(self) -> int:
        """Return at how many places of the lift they were computed."""

    def bins(self, action: Action, columns: Columns = EVERY) -> Narrow:
        """Return signed demand over the 1° grid, N·m, (set-ups × loads, degrees), zeros where the
        joint is held.

        columns: which degrees.
        """

    def loaded(self, action: Action) -> BoolArray:
        """Return at which degrees any of them asks anything, (220,): those of others may be among
        them.
        """


def finer(values: Array, knots: tuple[int, ...] = ()) -> Array:
    """Return values at even steps (…, n) with those half way between (…, 2n - 1): cubics through
    the nearest four.

    knots: none reaches across these. Where a stretch has less than four values, they are joined by
    lines.
    """
    if knots:
        ends = itertools.pairwise((0, *knots, values.shape[-1] - 1))
        parts = [finer(values[..., start : end + 1]) for start, end in ends]
        return np.concatenate([parts[0], *(part[..., 1:] for part in parts[1:])], axis=-1)
    made = np.empty((*values.shape[:-1], 2 * values.shape[-1] - 1))
    if values.shape[-1] < 4:
        made[..., ::2], made[..., 1::2] = values, 0.5 * (values[..., 1:] + values[..., :-1])
        return made
    made[..., ::2] = values
    made[..., 3:-3:2] = (
        9.0 * (values[..., 1:-2] + values[..., 2:-1]) - values[..., :-3] - values[..., 3:]
    ) / 16.0
    end = np.array([5.0, 15.0, -5.0, 1.0]) / 16.0
    made[..., 1], made[..., -2] = values[..., :4] @ end, values[..., :-5:-1] @ end
    return made


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Solved:
    """Everything that was solved at once, at equal samples: laid on the grid in one go for each
    action asked for.

    done: the rows that can be done; the others ask for nothing.
    """

    curves: Gathered
    samples: int
    done: NDArray[np.intp]
    knots: tuple[int, ...] = ()
    _grids: dict[Action, Narrow] = field(default_factory=dict)
    _cut: dict[tuple[Action, bytes], Narrow] = field(default_factory=dict)
    _loaded: dict[Action, BoolArray] = field(default_factory=dict)

    def bins(self, action: Action, columns: Columns = EVERY) -> Narrow:
        """Return signed demand over the 1° grid, (set-ups × loads, degrees), zeros where held."""
        if columns is not EVERY:
            # most parts ask for the same degrees
            key = action, columns.tobytes()
            if key not in self._cut:
                if len(self._cut) >= KEPT_CUTS:
                    self._cut.clear()
                self._cut[key] = np.ascontiguousarray(self.bins(action)[:, columns])
            return self._cut[key]
        if action not in self._grids:
            there, joint = self.curves, action.joint
            grid = np.zeros((there.rows, len(CENTRES_DEG)), dtype=np.float32)
            if joint in there.demand:
                angle, demand = there.angles[joint][self.done], there.demand[joint][self.done]
                if self.samples == SEARCH_SAMPLES:
                    angle, demand = finer(angle, self.knots), finer(demand, self.knots)
                grid[self.done] = _on_grid(angle, demand, action)
            self._grids[action] = grid
        return self._grids[action]

    def loaded(self, action: Action) -> BoolArray:
        """Return at which degrees any of them asks anything, (220,)."""
        if action not in self._loaded:
            self._loaded[action] = (self.bins(action) != 0).any(axis=0)
        return self._loaded[action]


def _on_grid(angle: Array, demand: Array, action: Action) -> Narrow:
    """Return signed demand over the 1° grid, (set-ups, 220), N·m, of angles (rad) many of which are
    alike.

    It is linear in the demand: where many set-ups move a joint alike, as most bend the knee, one
    matrix serves them.
    """
    alike: dict[bytes, list[int]] = {}
    for row, key in enumerate(np.ascontiguousarray(angle)):
        alike.setdefault(key.tobytes(), []).append(row)
    samples = angle.shape[1]
    many = [np.array(rows) for rows in alike.values() if len(rows) > 2 * samples]
    if not many:
        return on_grid(angle, demand, action, signed=True).astype(np.float32)
    grid = np.empty((len(angle), len(CENTRES_DEG)), dtype=np.float32)
    for rows in many:
        grid[rows] = demand[rows] @ on_grid(angle[rows[0]], np.eye(samples), action, signed=True)
    few = np.array(
        [row for rows in alike.values() if len(rows) <= 2 * samples for row in rows], dtype=np.intp
    )
    if few.size:
        grid[few] = on_grid(angle[few], demand[few], action, signed=True)
    return grid


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Part:
    """One set-up's rows of what was solved at once: its curves, and their numbers in `whole`."""

    share: Share
    whole: Solved
    rows: NDArray[np.intp]
    bad: BoolArray

    @property
    def samples(self) -> int:
        """Return at how many places of the lift they were computed."""
        return self.whole.samples

    @property
    def is_cut(self) -> bool:
        """Return whether the client's joints end the range of any of them."""
        notices = self.share.whole.motion.notices
        return any(
            notice.code == "range-cut" and notice.where[self.share.rows].any() for notice in notices
        )

    def bins(self, action: Action, columns: Columns = EVERY) -> Narrow:
        """Return signed demand over the 1° grid, (set-ups × loads, degrees), zeros where held."""
        return self.whole.bins(action, columns)[self.rows]

    def loaded(self, action: Action) -> BoolArray:
        """Return at which degrees any of them asks anything, (220,)."""
        return self.whole.loaded(action)


class SolveQueue:
    """Set-ups, gathered to be computed in few calls."""

    def __init__(self) -> None:
        self._setups: list[Setup] = []
        self._rows: list[tuple[Sequence[LoadedSetup], int]] = []

    def add(self, setup: Setup, rows: Sequence[LoadedSetup], times: int = 1) -> int:
        """Take a set-up of rows, each so many times, in; return its number among the parts."""
        self._setups.append(setup)
        self._rows.append((rows, times))
        return len(self._setups) - 1

    def solve(self) -> list[Part]:
        """Return each set-up's part of the answer."""
        shares = computed(self._setups)
        alike: dict[tuple[int, tuple[int, ...]], list[int]] = {}
        for number, share in enumerate(shares):
            knots: tuple[int, ...] = KNOTS.get(share.setup.exercise.variant, ())
            alike.setdefault((share.setup.samples, knots), []).append(number)
        parts: dict[int, Part] = {}
        for (samples, knots), numbers in alike.items():
            curves = gathered([shares[n] for n in numbers])
            bad = [refused(shares[n], *self._rows[n]) for n in numbers]
            done = np.zeros(curves.rows, dtype=bool)
            for at, none in zip(curves.places, bad, strict=True):
                done[at[~none]] = True
            whole = Solved(curves=curves, samples=samples, done=np.flatnonzero(done), knots=knots)
            for n, at, none in zip(numbers, curves.places, bad, strict=True):
                parts[n] = Part(share=shares[n], whole=whole, rows=at, bad=none)
        return [parts[n] for n in range(len(shares))]


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


def why_none(batches: Sequence[Batch], body: Body, limits: Limits) -> dict[str, int]:
    """Return why set-ups of one exercise cannot be done, and how many each: asked of that exercise
    alone.
    """
    call = SolveQueue()
    _asked(batches, body, limits, call)
    reasons: dict[str, int] = {}
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
    every = sum(
        len(batch.frames) * len(plan.points) for batch, plan in zip(batches, plans, strict=True)
    )
    exact = all(
        is_linear(batch) or plan.own is not None for batch, plan in zip(batches, plans, strict=True)
    )
    # a press's guesses are off by the knee in its push at any number of places
    pressed = bool(batches) and batches[0].exercise.family == "sled press"
    samples = SAMPLES if every <= SMALL and exact and not pressed else SEARCH_SAMPLES
    made: list[_Made] = []
    for batch, points in zip(batches, (plan.points for plan in plans), strict=True):
        if _adds_up(batch):
            made.append(_superposed(batch, points, body, limits, call, known))
        else:
            setup = batch.setup(body, limits, batch.frames, samples=samples, kg=points)
            made.append(itemgetter(call.add(setup, batch.frames, len(points))))
    return made


def _adds_up(batch: Batch) -> bool:
    """Return whether a batch's bands are many enough, and stood on, to be solved each alone and
    added.
    """
    stood = any(way.from_ == "feet" for way in batch.way)
    several = any(len(pull.bands) > 1 for pull in table_of(batch.frames).pulls)
    return is_linear(batch) and stood and several and len(batch.frames) > 8


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class _Superposed:
    """Places with their loads, each kind of band alone, and how many of each every set-up has.

    base: places × loads; alone: places with nothing, then kinds × places. place (set-ups,); counts
    (set-ups, kinds).
    """

    base: Part
    alone: Part
    place: NDArray[np.intp]
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
        added = np.zeros((len(self.place), base.shape[2]), dtype=np.float32)
        for kind in range(self.counts.shape[1]):
            added += self.counts[:, kind, None].astype(np.float32) * own[kind, self.place]
        return np.asarray((base[self.place] + added[:, None, :]).reshape(-1, base.shape[2]))

    def loaded(self, action: Action) -> BoolArray:
        """Return at which degrees any of them asks anything, (220,)."""
        return self.base.loaded(action) | self.alone.loaded(action)


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
    table = table_of(batch.frames)
    bases = tuple(LoadedSetup(options=place.options) for place in table.places)
    counted = table.counts
    weights = tuple(way for way in batch.way if way.stock not in ELASTIC)
    bare = replace(batch, way=weights, frames=bases)
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
        _added, base=base, alone=known[key], place=table.at_place, counts=counts, points=len(points)
    )


def _added(
    parts: list[Part], *, base: int, alone: int, place: NDArray[np.intp], counts: Array, points: int
) -> References:
    bands = parts[alone].bad.reshape(1 + counts.shape[1], -1)[1:]
    pulled: BoolArray = np.any((counts > 0) & bands.T[place], axis=1)
    bad = parts[base].bad.reshape(-1, points)[place] | pulled[:, None]
    return _Superposed(
        base=parts[base],
        alone=parts[alone],
        place=place,
        counts=counts,
        points=points,
        bad=bad.ravel(),
    )
