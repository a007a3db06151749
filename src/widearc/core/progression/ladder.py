"""The rungs that a kit makes of a set-up, in order of what they ask."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import pairwise

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment import Band, Load, SpringLoad
from widearc.core.kit import Kit, Piece
from widearc.core.movement import Setup
from widearc.core.progression.weights import weight_of
from widearc.core.setups import ELASTIC, Batch, LoadedSetup, Range, batches_of
from widearc.core.statics import Curve, curve, leg_effort, peak_effort, whole_effort
from widearc.core.units import to_deg

SAME = 0.01
"""Rungs that differ by no more are one."""

WIDE = 0.10
"""A wider step is a wide one (common practice, no source)."""

NEXT_FROM, NEXT_TO = 0.025, 0.10
"""How much more the next step is: of the load where one weight changes, of whole effort otherwise
(common practice, no source).
"""

TURN = 0.02
"""Of the greatest demand: a joint's change that is told."""
GUESS_SAMPLES, SAMPLES = 21, 101
MOST_PULLS, MOST_ROWS, MOST_SAME = 40, 4000, 3
LIGHTER_BY = 0.002  # of the demand: less is the same


@dataclass(frozen=True, slots=True, kw_only=True)
class Lighter:
    """Where on its way a lift asks less than another does: from and to, of its travel, 0 to 1."""

    start: float
    end: float


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Rung:
    """One set-up of a ladder.

    effort: its place, by the ladder's measure; peak: the greatest share of usual strength that any
    joint is asked, leg: whole effort of the working leg, None without one; demand_nm: mean on the
    joint that is asked most; joints: mean demand by joint, N·m; pull_n: of all its loads together
    at start, middle and end of the lift, N; elastic_n: of its bands and springs, mean; kg: its
    weight, where one can be changed. step: how much more than the rung below (None for the lowest),
    of the load where of_load; effort_step: of effort always. lighter: where it asks less than the
    rung below all the same. same: others that ask as much.
    """

    setup: Setup
    pieces: tuple[Piece, ...]
    bands: tuple[str, ...]
    kg: float | None
    effort: float
    peak: float | None
    leg: float | None
    demand_nm: float
    joints: Mapping[str, float]
    pull_n: tuple[float, float, float]
    elastic_n: float
    step: float | None = None
    effort_step: float | None = None
    of_load: bool = False
    lighter: Lighter | None = None
    same: tuple[tuple[Piece, ...], ...] = ()
    _asked: Array = field(repr=False)

    @property
    def wide(self) -> bool:
        """Return whether the step to it is a wide one."""
        return self.step is not None and self.step > WIDE + 1e-9

    @property
    def size(self) -> float:
        """Return its weight (kg) where one can be changed, its effort otherwise: what a share of
        it is a share of.
        """
        return self.kg or self.effort


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Ladder:
    """Rungs from the least to the most that is asked. measure: "whole effort", "demand" (N·m) or
    "force" (N), by what is known; joint: the one that is asked most, None where none is; present:
    which rung is what is done now; next: the next step, None where the next rung is too wide or
    there is none. turning: the rung from which more pull of springs or bands is harder and less is
    harder too; None where one of them is not.
    """

    rungs: tuple[Rung, ...]
    measure: str
    joint: str | None
    present: int
    next: int | None
    turning: int | None

    @property
    def now(self) -> Rung:
        """Return the rung that is done now."""
        return self.rungs[self.present]

    @property
    def above(self) -> Rung | None:
        """Return the rung above the present one."""
        return self.rungs[self.present + 1] if self.present + 1 < len(self.rungs) else None

    @property
    def below(self) -> Rung | None:
        """Return the rung below the present one."""
        return self.rungs[self.present - 1] if self.present else None

    def no_more_than(self, share: float) -> int:
        """Return which rung is the highest that is no more than a share of the present one; the
        lowest where none is.
        """
        most = share * self.now.size * (1.0 + 1e-9)
        fits = [i for i, r in enumerate(self.rungs) if _size_beside(r, self.now) <= most]
        return max(fits, default=0)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class _Made:
    """A set-up that the kit makes: what it is of, and its effort by a few samples."""

    effort: float
    batch: Batch
    row: LoadedSetup


def ladder_of(setup: Setup, pieces: tuple[Piece, ...], kit: Kit) -> Ladder:
    """Return the ladder of a set-up of one row from what a kit has free.

    pieces: what it is loaded with now; empty: the plainest that makes its loads. Options stay as
    they are: only what loads it changes. Where no band or spring is on it now, some come in only
    above what weights make. ValueError for a set-up that cannot be done.
    """
    found = curve(replace(setup, samples=SAMPLES), lowering=False)
    measure, joint = _measure(found), _most_asked(found)
    (now,) = _rungs(found, [setup], [pieces], joint)
    coarse = curve(replace(setup, samples=GUESS_SAMPLES), lowering=False)
    guessed = float(np.ravel(efforts_of(coarse))[0])  # beside what is made: by as few samples
    banded = any(_elastic(load) for load in setup.loads)
    made = sorted(_all_made(setup, kit, banded), key=lambda m: (m.effort, _plainness(m.row)))
    if not banded:
        plain = [m.effort for m in made if not (m.row.bands or m.row.springs)]
        top = max([*plain, guessed])
        made = [m for m in made if not (m.row.bands or m.row.springs) or m.effort > top]
    if not pieces and setup.loads:
        pieces = _made_of(now.kg, guessed, made)
        now = replace(now, pieces=pieces, bands=_bands(pieces))
    rungs = [r for r in _exact(_thinned(made, pieces), setup, joint) if _differs(r, now)]
    same = [r for r in rungs if _is(r, now)]
    held = [*rungs, *([] if same else [now])]
    stepped = tuple(_stepped(sorted(held, key=lambda r: r.effort), found.motion.position))
    present = next(i for i, r in enumerate(stepped) if _is(r, now))
    return Ladder(
        rungs=stepped,
        measure=measure,
        joint=joint,
        present=present,
        next=_next(stepped, present),
        turning=_turning(stepped),
    )


def _made_of(kg: float | None, effort: float, made: Sequence[_Made]) -> tuple[Piece, ...]:
    """Return the plainest pieces that ask as much with the same weight, none where nothing does."""
    alike = [
        m
        for m in made
        if abs(m.effort / effort - 1.0) <= SAME / 2
        and (not kg or abs(_kg_of(m) - kg) <= SAME * kg or _on_machine(m))
    ]
    best = min(alike, key=lambda m: _plainness(m.row), default=None)
    return () if best is None else best.row.pieces


def _on_machine(made: _Made) -> bool:
    return made.batch.machine is not None


def _kg_of(made: _Made) -> float:
    return sum(piece.kg * piece.number for piece in made.row.pieces)


def _differs(rung: Rung, now: Rung) -> bool:
    """Return whether a rung is one of its own beside the present one, or that one itself."""
    if rung.kg and now.kg and rung.bands == now.bands:
        return abs(rung.kg / now.kg - 1.0) > SAME or _is(rung, now)
    return abs(rung.effort / now.effort - 1.0) > SAME or _is(rung, now)


def _is(rung: Rung, now: Rung) -> bool:
    return rung is now or (abs(rung.effort / now.effort - 1.0) <= 1e-4 and rung.kg == now.kg)


def _next(rungs: Sequence[Rung], present: int) -> int | None:
    """Return the smallest rung that is 2.5 to 10 % over the present one."""
    here = rungs[present]
    for i in range(present + 1, len(rungs)):
        share = share_of(here, rungs[i])[0]
        if share > NEXT_TO:
            return None
        if share >= NEXT_FROM - 1e-9:
            return i
    return None


def share_of(below: Rung, above: Rung) -> tuple[float, bool]:
    """Return how much more a rung is than another: of the load where one weight alone changes, of
    its effort otherwise; and which of them.
    """
    if below.kg and above.kg and below.bands == above.bands and above.kg > below.kg:
        return above.kg / below.kg - 1.0, True
    return above.effort / below.effort - 1.0, False


def _size_beside(rung: Rung, now: Rung) -> float:
    """Return what a rung is in the measure of another's size: its weight where that alone differs,
    else its effort on that scale.
    """
    if now.kg and rung.bands == now.bands:
        return rung.kg or 0.0
    return now.size * rung.effort / now.effort


def _stepped(rungs: Sequence[Rung], position: Array) -> Iterator[Rung]:
    for i, rung in enumerate(rungs):
        if i == 0:
            yield rung
            continue
        below = rungs[i - 1]
        share, of_load = share_of(below, rung)
        # where that joint is asked less all in all, others are asked more: see `turns`
        more = rung.demand_nm > below.demand_nm
        yield replace(
            rung,
            step=share,
            effort_step=rung.effort / below.effort - 1.0,
            of_load=of_load,
            lighter=lighter_part(below._asked, rung._asked, position) if more else None,
        )


def turns(below: Rung, above: Rung) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Return the joints that a step asks more and those that it asks less, where both are; the
    strongest change first.
    """
    most = max(max(below.joints.values(), default=0.0), 1e-9)
    change = {
        j: (above.joints[j] - nm) / most for j, nm in below.joints.items() if j in above.joints
    }
    up = tuple(sorted((j for j in change if change[j] > TURN), key=lambda j: -change[j]))
    down = tuple(sorted((j for j in change if change[j] < -TURN), key=lambda j: change[j]))
    return (up, down) if up and down else ((), ())


def lighter_part(below: Array, above: Array, position: Array) -> Lighter | None:
    """Return the longest part of the way in which a curve lies under another, None where it never
    does; both and their positions (samples,).
    """
    if not below.size:
        return None
    less = below - above
    edges = np.flatnonzero(np.diff(np.signbit(less)))
    share = [float(less[i] / (less[i] - less[i + 1])) for i in edges]
    crossings = [
        float(position[i] + part * (position[i + 1] - position[i]))
        for i, part in zip(edges, share, strict=True)
    ]
    parts = [
        Lighter(start=start, end=end)
        for start, end in pairwise([float(position[0]), *crossings, float(position[-1])])
        if _deepest(less, position, start, end) > LIGHTER_BY * float(below.max())
    ]
    return max(parts, key=lambda part: part.end - part.start, default=None)


def _deepest(less: Array, position: Array, start: float, end: float) -> float:
    inside = less[(position >= start) & (position <= end)]
    return float(inside.max()) if inside.size else 0.0


def _turning(rungs: Sequence[Rung]) -> int | None:
    """Return the least of the rungs where it lies between springs of less and of more pull, no
    weight changed.
    """
    alike = [i for i, r in enumerate(rungs) if r.kg == rungs[0].kg]
    pulls = [rungs[i].elastic_n for i in alike]
    least = alike[0]
    inside = min(pulls) < rungs[least].elastic_n - 1.0 < max(pulls) - 2.0
    return least if inside else None


def _most_asked(found: Curve) -> str | None:
    most = {j: float(np.abs(nm[0]).max()) for j, nm in found.demand_nm.items()}
    return max(most, key=lambda j: most[j], default=None)


def _measure(found: Curve) -> str:
    if whole_effort(found) is not None:
        return "whole effort"
    return "demand" if found.demand_nm else "force"


def efforts_of(found: Curve) -> Array:
    """Return what set-ups ask, (set-ups,): whole effort where usual strengths are known, else mean
    demand on the joint that is asked most, N·m, else the mean pull of their loads, N.
    """
    whole = whole_effort(found)
    if whole is not None:
        return whole
    joint = _most_asked(found)
    if joint is not None:
        return np.asarray(np.abs(found.demand_nm[joint]).mean(axis=1))
    return np.asarray(pulls_of(found).mean(axis=1))


def pulls_of(found: Curve, loads: Sequence[int] | None = None) -> Array:
    """Return what all loads of set-ups pull together, N, (set-ups, samples); loads: only those.
    What pulls a carriage acts on the body through it.
    """
    total: Array = np.zeros(found.motion.shape)
    wanted = range(len(found.setup.loads)) if loads is None else loads
    sources = {f"load {i}" for i in wanted}
    for force in found.motion.forces:
        if force.source in sources:
            total = total + np.hypot(force.force[0], force.force[1])
    for i in wanted:
        load = found.setup.loads[i]
        if isinstance(load, SpringLoad) and load.port == "carriage":
            total = total + load.pull_n(found.motion.load_lengths[i], lowering=False)
    return total


def _rungs(
    found: Curve, setups: Sequence[Setup], pieces: Sequence[tuple[Piece, ...]], joint: str | None
) -> list[Rung]:
    """Return the rungs that a curve's rows are; joint: the one that is asked most."""
    rows = len(setups)
    efforts = np.broadcast_to(efforts_of(found), (rows,))
    peaks, legs = (_of_rows(f(found), rows) for f in (peak_effort, leg_effort))
    pulls = np.broadcast_to(pulls_of(found), (rows, SAMPLES))
    elastic = [i for i, load in enumerate(found.setup.loads) if _elastic(load)]
    springs = np.broadcast_to(pulls_of(found, elastic), (rows, SAMPLES)).mean(axis=1)
    demands = {j: np.broadcast_to(np.abs(nm), (rows, SAMPLES)) for j, nm in found.demand_nm.items()}
    asked = demands.get(joint or "", np.zeros((rows, 0)))
    return [
        Rung(
            setup=setups[i],
            pieces=pieces[i],
            bands=_bands(pieces[i]),
            kg=weight_of(setups[i]),
            effort=float(efforts[i]),
            peak=None if peaks is None else float(peaks[i]),
            leg=None if legs is None else float(legs[i]),
            demand_nm=float(asked[i].mean()) if asked[i].size else 0.0,
            joints={j: float(nm[i].mean()) for j, nm in demands.items()},
            pull_n=(float(pulls[i, 0]), float(pulls[i, SAMPLES // 2]), float(pulls[i, -1])),
            elastic_n=float(springs[i]),
            _asked=asked[i],
        )
        for i in range(rows)
    ]


def _of_rows(values: Array | None, rows: int) -> Array | None:
    return None if values is None else np.broadcast_to(values, (rows,))


def _exact(chosen: Sequence[_Chosen], setup: Setup, joint: str | None) -> Iterator[Rung]:
    """Yield the rungs of what was chosen, those of a batch computed together."""
    batches = {id(one.made.batch): one.made.batch for one in chosen}
    for id_, batch in batches.items():
        own = [one for one in chosen if id(one.made.batch) == id_]
        rows = [one.made.row for one in own]
        many = _as_now(batch, batch.setup(setup.body, setup.limits, rows), setup)
        found = curve(many, strict=False, lowering=False)
        one_each = [many.part(i, i + 1) for i in range(len(rows))]
        rungs = _rungs(found, one_each, [row.pieces for row in rows], joint)
        for one, rung in zip(own, rungs, strict=True):
            yield replace(rung, same=one.same)


def _as_now(batch: Batch, many: Setup, setup: Setup) -> Setup:
    """Return set-ups of a batch with the options of the one that is done now; what a machine sets
    stays the machine's where nothing was said of it.
    """
    specs, stature = setup.exercise.options, setup.body.stature_m
    own = dict(many.options)
    if batch.machine is None:
        own |= {name: specs[name].usual(stature) for name in own}
    return many.like({**own, **setup.options}, many.loads)


def _elastic(load: Load) -> bool:
    return getattr(load, "made_of", "") == "elastic"


def _all_made(setup: Setup, kit: Kit, banded: bool) -> Iterator[_Made]:
    """Yield what the kit makes of an exercise, its options as they are now."""
    for batch in batches_of(setup.exercise, kit, setup.body, setup.limits, _range(setup)):
        if not _same_place(batch, setup):
            continue
        elastic = any(part.stock in ELASTIC for part in batch.way)
        rows = _nearest(batch, setup)[:MOST_PULLS]
        # above what weights make alone: bands beside the heaviest of them
        totals = batch.totals if banded or not elastic else batch.totals[-1:]
        totals = totals[:: max(1, len(rows) * len(totals) // MOST_ROWS)]
        if not rows or not totals:
            continue
        kg = np.array([t.kg for t in totals])
        many = batch.setup(setup.body, setup.limits, rows, samples=GUESS_SAMPLES, kg=kg)
        many = _as_now(batch, many, setup)
        found = curve(many, strict=False, lowering=False)
        efforts = np.broadcast_to(efforts_of(found), (len(rows) * len(totals),))
        for index, effort in enumerate(efforts.tolist()):
            if index not in found.motion.failed and np.isfinite(effort) and effort > 0.0:
                bare, total = divmod(index, len(totals))
                yield _Made(effort=effort, batch=batch, row=rows[bare].with_total(totals[total]))


def _range(setup: Setup) -> Range | None:
    if not {"knee_from", "knee_to"} <= setup.resolved.keys():
        return None
    ends = (setup.resolved[name] for name in ("knee_from", "knee_to"))
    first, last = (float(np.ravel(to_deg(end))[0]) for end in ends)
    return Range(from_deg=first, to_deg=last)


def _nearest(batch: Batch, setup: Setup) -> list[LoadedSetup]:
    """Return a batch's rows of the one geometry that is nearest to a set-up's own, bands tied as
    high as its own.
    """
    rows = list(batch.unloaded)
    anchor = next((load.anchor for load in setup.loads if isinstance(load, Band)), None)
    specs, stature = setup.exercise.options, setup.body.stature_m

    def off(row: LoadedSetup) -> int:
        wanted = {n: setup.options.get(n, specs[n].usual(stature)) for n in row.options}
        return sum(value != wanted[name] for name, value in row.options.items())

    def apart(row: LoadedSetup) -> float:
        if anchor is None or row.anchor is None:
            return 0.0
        return round(abs(float(np.ravel(anchor[1])[0]) - row.anchor[0].height_m), 3)

    if not rows:
        return []
    best = min(rows, key=off)
    alike = [row for row in rows if row.options == best.options]
    least = min(apart(row) for row in alike)
    return [row for row in alike if apart(row) == least]


def _same_place(batch: Batch, setup: Setup) -> bool:
    """Return whether a batch's weights lie where a set-up's own does; any where it has none."""
    ports = {getattr(load, "port", "") for load in setup.loads if not _elastic(load)}
    own = {part.port for part in batch.way if part.stock not in ELASTIC}
    return not ports or not own or own == ports or ports == {""}


def _plainness(row: LoadedSetup) -> tuple[int, int]:
    """Return how much is picked up for a set-up: bands and springs first, then pieces."""
    return len(row.bands) + len(row.springs), sum(piece.number for piece in row.pieces)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class _Chosen:
    """One of several set-ups that ask the same, the plainest, with the others' pieces."""

    made: _Made
    same: tuple[tuple[Piece, ...], ...]


def _thinned(made: Sequence[_Made], pieces: tuple[Piece, ...]) -> list[_Chosen]:
    """Return one set-up of each that ask the same; made: by effort; pieces: in use now. Where one
    weight changes what is the same is told by it.
    """
    kinds, bands = kinds_of_pieces(pieces), _bands(pieces)
    groups: list[list[_Made]] = []
    for one in _distinct(
        m for m in made if (kinds_of_pieces(m.row.pieces), _bands(m.row.pieces)) == (kinds, bands)
    ):
        groups.append([one])
    own = len(groups)
    efforts = np.array([group[0].effort for group in groups])
    taken = {id(group[0]) for group in groups}
    for one in (m for m in made if id(m) not in taken):
        near = np.flatnonzero(np.abs(efforts / one.effort - 1.0) <= SAME)
        if near.size:
            groups[int(near[0])].append(one)
        elif len(groups) > own and one.effort <= groups[-1][0].effort * (1.0 + SAME):
            groups[-1].append(one)
        else:
            groups.append([one])
    return [_chosen(group, first=i < own) for i, group in enumerate(groups)]


def _distinct(made: Iterable[_Made]) -> Iterator[_Made]:
    """Yield the plainest of every weight; made: by effort."""
    before = 0.0
    for one in made:
        kg = _kg_of(one)
        if kg == 0.0 or kg > before * (1.0 + SAME):
            yield one
            before = kg


def _chosen(group: Sequence[_Made], *, first: bool) -> _Chosen:
    """Return the first, or the plainest."""
    best = group[0] if first else min(group, key=lambda m: _plainness(m.row))
    same = tuple(m.row.pieces for m in group if m is not best)
    return _Chosen(made=best, same=same[:MOST_SAME])


def kinds_of_pieces(pieces: Sequence[Piece]) -> frozenset[str]:
    """Return what kinds of things are picked up, plates aside: they go on any bar."""
    return frozenset(piece.kind for piece in pieces) - {"plate"}


def _bands(pieces: Sequence[Piece]) -> tuple[str, ...]:
    """Return the bands and springs among what is picked up, each as often as it is there."""
    elastic = (p for p in pieces if p.kind in ELASTIC)
    return tuple(sorted(p.label for p in elastic for _ in range(p.number)))
