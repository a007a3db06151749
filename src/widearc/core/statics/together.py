"""Set-ups of many exercises computed in few calls: what one call costs is mostly its steps, not its
set-ups.

Set-ups go together where the movement takes the same steps and only numbers differ. A mass or band
that some of them lack weighs or pulls nothing there.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, TypeVar

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import Array, changed
from widearc.core.body.many import alike, limits_alike, limits_together, together
from widearc.core.equipment import Load
from widearc.core.errors import WideArcError
from widearc.core.exercises import Exercise
from widearc.core.movement import Setup, only_weights
from widearc.core.movement.families import form_of
from widearc.core.statics.demand import Curve, curve
from widearc.core.statics.rows import row_of

T = TypeVar("T")


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Share:
    """One asked set-up's rows of what was computed together: where each is in `whole`, which holds
    no row twice.

    loads: the numbers of its own loads among the whole's.
    """

    setup: Setup
    whole: Curve
    rows: NDArray[np.intp]
    loads: tuple[int, ...]

    def only(self, index: NDArray[np.intp]) -> Share:
        """Return some of its rows."""
        setup = self.setup.taken(index) if len(self.rows) > 1 else self.setup
        return Share(setup=setup, whole=self.whole, rows=self.rows[index], loads=self.loads)

    def row(self, index: int) -> Curve:
        """Return the curve of one of its rows as if computed alone; raises PostureError where that
        one fails.
        """
        own = self.setup.part(index, index + 1) if len(self.rows) > 1 else self.setup
        return row_of(self.whole, int(self.rows[index]), own, self.loads)


def computed(setups: Sequence[Setup]) -> list[Share]:
    """Return each set-up's curves (lifting only, without `other_nm`), in their order; failures are
    listed.

    Where set-ups cannot be computed together after all, each is by itself, and what it raises is
    raised.
    """
    groups: dict[object, list[int]] = {}
    for index, setup in enumerate(setups):
        groups.setdefault(_steps(setup), []).append(index)
    made: dict[int, Share] = {}
    for numbers in groups.values():
        group = [setups[i] for i in numbers]
        try:
            shares = _shares(group)
        except WideArcError:
            shares = [share for setup in group for share in _shares([setup])]
        made |= dict(zip(numbers, shares, strict=True))
    return [made[i] for i in range(len(setups))]


def computed_across(setups: Sequence[Setup]) -> list[Share]:
    """Return what `computed` does of set-ups of one row each, those of bodies and ankles that
    differ a little in one call.

    Their rows can be read, not taken out as curves of their own.
    """
    groups: dict[object, list[int]] = {}
    for index, setup in enumerate(setups):
        groups.setdefault(_steps(setup, across=True), []).append(index)
    made: dict[int, Share] = {}
    for numbers in groups.values():
        group = [setups[i] for i in numbers]
        try:
            shares = _shares_across(group)
        except WideArcError:
            shares = computed(group)
        made |= dict(zip(numbers, shares, strict=True))
    return [made[i] for i in range(len(setups))]


def _shares_across(group: list[Setup]) -> list[Share]:
    bodies, limits = (together([s.body for s in group]), limits_together([s.limits for s in group]))
    if bodies is group[0].body and limits is group[0].limits:
        return _shares(group)
    every, loads = _joined(group)
    found = curve(
        changed(every, body=bodies, limits=limits), strict=False, lowering=False, others=False
    )
    return [
        Share(setup=setup, whole=found, rows=np.array([row]), loads=own)
        for row, (setup, own) in enumerate(zip(group, loads, strict=True))
    ]


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Gathered:
    """The rows of shares of equal samples one after the other: angles rad, demand N·m by joint,
    (set-ups, samples).

    Zeros where a curve has no such joint. at: where the rows of each share are; what two share
    is there once.
    """

    angles: Mapping[str, Array]
    demand: Mapping[str, Array]
    at: list[NDArray[np.intp]]
    rows: int


def gathered(shares: Sequence[Share]) -> Gathered:
    """Return the curves of some shares as arrays over all of their set-ups."""
    used: dict[int, list[NDArray[np.intp]]] = {}
    for share in shares:
        used.setdefault(id(share.whole), []).append(share.rows)
    kept = {key: np.unique(np.concatenate(rows)) for key, rows in used.items()}
    ends = np.cumsum([0, *map(len, kept.values())])
    first = dict(zip(kept, ends.tolist(), strict=False))
    curves = {id(share.whole): share.whole for share in shares}
    shape = (int(ends[-1]), shares[0].setup.samples)
    joints = dict.fromkeys(name for c in curves.values() for name in c.demand_nm)

    def every(name: str, of: Callable[[Curve], Array]) -> Array:
        """Return what curves have at a joint, row after row."""
        made = np.zeros(shape)
        for key, c in curves.items():
            if name in c.demand_nm:
                made[first[key] : first[key] + len(kept[key])] = c.motion.full(of(c))[kept[key]]
        return made

    at = [first[id(s.whole)] + np.searchsorted(kept[id(s.whole)], s.rows) for s in shares]
    return Gathered(
        angles=_ByJoint(joints, lambda name: every(name, lambda c: c.motion.angles[name])),
        demand=_ByJoint(joints, lambda name: every(name, lambda c: c.demand_nm[name])),
        at=at,
        rows=shape[0],
    )


class _ByJoint(Mapping[str, Array]):
    """Arrays by joint, each put together when it is first asked for: a search asks for one or two
    of them.
    """

    def __init__(self, joints: Iterable[str], make: Callable[[str], Array]) -> None:
        self._made: dict[str, Array | None] = dict.fromkeys(joints)
        self._make = make

    def __getitem__(self, name: str) -> Array:
        made = self._made[name]
        if made is None:
            made = self._made[name] = self._make(name)
        return made

    def __contains__(self, name: object) -> bool:
        return name in self._made

    def __iter__(self) -> Iterator[str]:
        return iter(self._made)

    def __len__(self) -> int:
        return len(self._made)


def _shares(group: list[Setup]) -> list[Share]:
    every, loads = _joined(group)
    # rows of one set-up differ, and those of several may be alike
    first, at = (
        _distinct(every) if len(group) > 1 else (np.arange(every.rows), np.arange(every.rows))
    )
    found = curve(
        every if len(first) == len(at) else every.taken(first),
        strict=False,
        lowering=False,
        others=False,
    )
    ends = np.cumsum([0, *(setup.rows for setup in group)])
    return [
        Share(setup=setup, whole=found, rows=at[a:b], loads=own)
        for setup, own, (a, b) in zip(group, loads, itertools.pairwise(ends), strict=True)
    ]


def _distinct(setup: Setup) -> tuple[NDArray[np.intp], NDArray[np.intp]]:
    """Return the rows of a set-up that differ from those before, and for each row which of these it
    is.
    """
    rows = setup.rows
    numbers: list[Any] = [v[:, None] for v in setup.options.values() if isinstance(v, np.ndarray)]
    for load in setup.loads:
        values = [getattr(load, name) for name in load.given()]
        numbers += [
            v
            for v in itertools.chain(values, *(v for v in values if isinstance(v, tuple)))
            if isinstance(v, np.ndarray) and v.shape == (rows, 1)
        ]
    if not numbers:
        return np.zeros(1, dtype=np.intp), np.zeros(1, dtype=np.intp)
    table = np.ascontiguousarray(np.concatenate(numbers, axis=1))
    # rows are told apart by their bytes
    keys: list[Any] = (
        table.view(np.dtype((np.void, table.shape[1] * table.itemsize))).ravel().tolist()
    )
    known: dict[bytes, int] = {}
    at = [known.setdefault(key, len(known)) for key in keys]
    if len(known) == rows:
        return np.arange(rows), np.arange(rows)
    first = {
        number: index for index, number in zip(range(rows - 1, -1, -1), reversed(at), strict=True)
    }
    return np.array([first[n] for n in range(len(known))]), np.array(at)


def _steps(setup: Setup, *, across: bool = False) -> object:
    """Return what must be equal of set-ups for one call: all that is not a number which may differ
    from row to row; across: bodies and ankles may differ a little.
    """
    exercise, options = setup.exercise, setup.resolved
    words = tuple((n, v) for n, v in options.items() if isinstance(v, str) or n == "legs")
    fixed = tuple(load.alike() for load in setup.loads if not load.can_be_none)
    return (
        form_of(exercise),
        exercise.one_piece,
        setup.samples,
        alike(setup.body) if across else setup.body,
        limits_alike(setup.limits) if across else setup.limits,
        tuple(options),
        words,
        fixed,
        # a load that pulls at a slant is balanced by a search: the others are spared it
        only_weights(load for load in setup.loads if load.can_be_none),
    )


def _with_all_ports(group: list[Setup]) -> Exercise:
    """Return the set-ups' exercise, with the ports and kinds of load that any of them has."""
    exercises = {id(setup.exercise): setup.exercise for setup in group}.values()
    first = group[0].exercise
    if len(exercises) == 1:
        return first
    ports, kinds = (_every(getattr(e, n) for e in exercises) for n in ("ports", "kinds"))
    return changed(first, ports=ports, kinds=kinds)


def _joined(group: list[Setup]) -> tuple[Setup, list[tuple[int, ...]]]:
    """Return set-ups as one, row after row, and the numbers of each one's own loads in it."""
    if len(group) == 1:
        return group[0], [tuple(range(len(group[0].loads)))]
    sizes = [setup.rows for setup in group]
    first = group[0].exercise
    exercise = _with_all_ports(group)
    options = {}
    for name, spec in first.options.items():
        values = [
            setup.options.get(name, setup.exercise.options[name].usual(setup.body.stature_m))
            for setup in group
        ]
        usual = spec.usual(group[0].body.stature_m)
        if any(isinstance(v, np.ndarray) or v != usual for v in values):
            options[name] = _rows(values, sizes)
    loads, own = _joined_loads(group, sizes)
    return group[0].like(options, loads, exercise).repeated(sum(sizes)), own


def _every(each: Iterable[tuple[str, ...]]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(itertools.chain(*each)))


def _rows(values: list[Any], sizes: list[int]) -> Any:
    """Return an option of every row, (set-ups,); one number or word where all are alike."""
    if not any(isinstance(v, np.ndarray) for v in values) and all(v == values[0] for v in values):
        return values[0]
    return np.concatenate(
        [
            np.broadcast_to(np.asarray(v, dtype=float), (n,))
            for v, n in zip(values, sizes, strict=True)
        ]
    )


def _joined_loads(
    group: list[Setup], sizes: list[int]
) -> tuple[tuple[Load, ...], list[tuple[int, ...]]]:
    """Return every load that any of the set-ups has, once, with its amount in each row, and who has
    which.
    """
    slots: dict[object, list[tuple[int, Load]]] = {}
    own: list[list[object]] = []
    for place, setup in enumerate(group):
        own.append([])
        for load in setup.loads:
            # the same band twice in one set-up is two loads
            again = itertools.count()
            key = next(k for k in ((load.alike(), n) for n in again) if k not in own[-1])
            slots.setdefault(key, []).append((place, load))
            own[-1].append(key)
    order = list(slots)
    loads = tuple(_with_rows(users, sizes) for users in slots.values())
    return loads, [tuple(order.index(key) for key in keys) for keys in own]


def _with_rows(users: list[tuple[int, Load]], sizes: list[int]) -> Load:
    """Return a load with its amount in every row (set-ups, 1): 0 where a set-up is without it."""
    first = users[0][1]
    every: dict[str, Any] = {
        name: _column([(place, getattr(load, name)) for place, load in users], sizes)
        for name in {first.amount, "count"}
        if name and hasattr(first, name)
    }
    where = first.held
    held = [
        (place, getattr(load, where))
        for place, load in users
        if where and getattr(load, where) is not None
    ]
    if held:
        # where a band is not, it pulls nothing: any place will do
        axes = range(len(held[0][1]))
        every[where] = tuple(
            _column([(place, point[axis]) for place, point in held], sizes) for axis in axes
        )
    return changed(first, **every)


def _column(values: list[tuple[int, float | Array]], sizes: list[int]) -> Array:
    starts = np.cumsum([0, *sizes])
    made = np.zeros((int(starts[-1]), 1))
    for place, value in values:
        made[starts[place] : starts[place + 1]] = value
    return made
