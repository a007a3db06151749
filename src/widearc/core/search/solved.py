"""What was solved at once, on the 1° grid; and what of it is not offered."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import Array, BoolArray
from widearc.core.curve import CENTRES_DEG, Action, on_grid
from widearc.core.equipment import Band, gives_way
from widearc.core.kit import hold_of
from widearc.core.movement import Setup
from widearc.core.search.plans import KNOTS
from widearc.core.setups import LoadedSetup, table_of
from widearc.core.statics import Curve, Gathered, Share, computed, gathered

# every 9° or so is enough to choose, with a cubic between; what is chosen is computed at 101
SEARCH_SAMPLES = 11


KEPT_CUTS = 4  # choices of degrees: those of a question's two joints and of the one before


NOT_OFFERED = (
    "rear-knee-floor",
    "feet-touch-floor",
    "band-overstretch",
    "sled-pulled-away",
    "band-idle",
)


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

    def at_samples(self, joint: str) -> tuple[Array, Array] | None:
        """Return a joint's angle (rad) and signed demand (N·m), (set-ups × loads, samples) each, or
        None without such a joint.
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
    few = np.setdiff1d(np.arange(len(angle)), np.concatenate(many))
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

    def at_samples(self, joint: str) -> tuple[Array, Array] | None:
        """Return a joint's angle (rad) and signed demand (N·m), (set-ups × loads, samples) each, or
        None without such a joint.
        """
        curves = self.whole.curves
        if joint not in curves.demand:
            return None
        return curves.angles[joint][self.rows], curves.demand[joint][self.rows]


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
            for at, none in zip(curves.at, bad, strict=True):
                done[at[~none]] = True
            whole = Solved(curves=curves, samples=samples, done=np.flatnonzero(done), knots=knots)
            for n, at, none in zip(numbers, curves.at, bad, strict=True):
                parts[n] = Part(share=shares[n], whole=whole, rows=at, bad=none)
        return [parts[n] for n in range(len(shares))]
