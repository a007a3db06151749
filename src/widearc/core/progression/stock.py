"""What a kit makes of a set-up, one of each that ask the same."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from widearc.core.equipment import Band
from widearc.core.kit import Kit, Piece, Total
from widearc.core.movement import Setup
from widearc.core.progression.rung import bands_of, efforts_of, is_elastic, kinds_of_pieces
from widearc.core.setups import ELASTIC, Batch, LoadedSetup, Range, batches_of
from widearc.core.statics import curve
from widearc.core.units import to_deg

SAME = 0.01
"""Rungs that differ by no more are one."""

GUESS_SAMPLES = 21
MOST_PULLS, MOST_ROWS, MOST_SAME = 40, 4000, 3


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Made:
    """A set-up that the kit makes: what it is of, and its effort by a few samples."""

    effort: float
    batch: Batch
    row: LoadedSetup

    @property
    def bands(self) -> tuple[str, ...]:
        """Return the bands and springs of it by name."""
        return bands_of(self.row.pieces)


def made_beside(setup: Setup, kit: Kit, effort: float) -> list[Made]:
    """Return what a kit makes of an exercise with its options as they are, by effort; effort: of
    what is done now, by GUESS_SAMPLES. Where nothing elastic is on it, bands and springs come in
    only above what weights make.
    """
    banded = any(is_elastic(load) for load in setup.loads)
    made = sorted(_all_made(setup, kit, banded), key=lambda m: (m.effort, plainness(m.row)))
    if banded:
        return made
    top = max([effort, *(m.effort for m in made if not _is_banded(m))])
    return [m for m in made if m.effort > top or not _is_banded(m)]


def _is_banded(made: Made) -> bool:
    return bool(made.row.bands or made.row.springs)


def _all_made(setup: Setup, kit: Kit, banded: bool) -> Iterator[Made]:
    for batch in batches_of(setup.exercise, kit, setup.body, setup.limits, _range(setup)):
        rows = _nearest(batch, setup)[:MOST_PULLS] if _same_place(batch, setup) else []
        elastic = any(part.stock in ELASTIC for part in batch.way)
        # above what weights make alone: bands beside the heaviest of them
        totals = batch.totals if banded or not elastic else batch.totals[-1:]
        totals = totals[:: max(1, len(rows) * len(totals) // MOST_ROWS)]
        if rows and totals:
            yield from _made_in(batch, setup, rows, totals)


def _made_in(
    batch: Batch, setup: Setup, rows: Sequence[LoadedSetup], totals: Sequence[Total]
) -> Iterator[Made]:
    """Yield the rows of a batch with every total that can be done."""
    kg = np.array([t.kg for t in totals])
    many = batch.setup(setup.body, setup.limits, rows, samples=GUESS_SAMPLES, kg=kg)
    found = curve(as_now(batch, many, setup), strict=False, lowering=False)
    efforts = np.broadcast_to(efforts_of(found), (len(rows) * len(totals),))
    for index, effort in enumerate(efforts.tolist()):
        if index not in found.motion.failed and np.isfinite(effort) and effort > 0.0:
            bare, total = divmod(index, len(totals))
            yield Made(effort=effort, batch=batch, row=rows[bare].with_total(totals[total]))


def as_now(batch: Batch, many: Setup, setup: Setup) -> Setup:
    """Return set-ups of a batch with the options of the one that is done now; what a machine sets
    stays the machine's where nothing was said of it.
    """
    specs, stature = setup.exercise.options, setup.body.stature_m
    own = dict(many.options)
    if batch.machine is None:
        own |= {name: specs[name].usual(stature) for name in own}
    return many.like({**own, **setup.options}, many.loads)


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
    ports = {getattr(load, "port", "") for load in setup.loads if not is_elastic(load)}
    own = {part.port for part in batch.way if part.stock not in ELASTIC}
    return not ports or not own or own == ports or ports == {""}


def plainness(row: LoadedSetup) -> tuple[int, int]:
    """Return how much is picked up for a set-up: bands and springs first, then pieces."""
    return len(row.bands) + len(row.springs), sum(piece.number for piece in row.pieces)


def made_of(kg: float | None, effort: float, made: Sequence[Made]) -> tuple[Piece, ...]:
    """Return the plainest pieces that ask as much with the same weight, none where nothing does."""
    alike = [
        m
        for m in made
        if abs(m.effort / effort - 1.0) <= SAME / 2
        and (not kg or abs(kg_of(m) - kg) <= SAME * kg or _on_machine(m))
    ]
    best = min(alike, key=lambda m: plainness(m.row), default=None)
    return () if best is None else best.row.pieces


def _on_machine(made: Made) -> bool:
    return made.batch.machine is not None


def kg_of(made: Made) -> float:
    """Return the weight of all that a set-up picks up, kg."""
    return sum(piece.kg * piece.number for piece in made.row.pieces)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Chosen:
    """One of several set-ups that ask the same, the plainest, with the others' pieces."""

    made: Made
    same: tuple[tuple[Piece, ...], ...]


def thinned(made: Sequence[Made], pieces: tuple[Piece, ...]) -> list[Chosen]:
    """Return one set-up of each that ask the same; made: by effort; pieces: in use now. Where one
    weight changes what is the same is told by it.
    """
    alike = kinds_of_pieces(pieces), bands_of(pieces)
    own = [*_distinct(m for m in made if (kinds_of_pieces(m.row.pieces), m.bands) == alike)]
    groups = [[one] for one in own]
    efforts = np.array([one.effort for one in own])
    others: list[list[Made]] = []
    for one in made:
        near = np.flatnonzero(np.abs(efforts / one.effort - 1.0) <= SAME)
        if near.size:
            groups[int(near[0])].append(one)
        elif others and one.effort <= others[-1][0].effort * (1.0 + SAME):
            others[-1].append(one)
        else:
            others.append([one])
    plain = [_chosen(group, min(group, key=lambda m: plainness(m.row))) for group in others]
    return [*(_chosen(group, group[0]) for group in groups), *plain]


def _distinct(made: Iterable[Made]) -> Iterator[Made]:
    """Yield the plainest of every weight; made: by effort."""
    before = 0.0
    for one in made:
        kg = kg_of(one)
        if kg == 0.0 or kg > before * (1.0 + SAME):
            yield one
            before = kg


def _chosen(group: Sequence[Made], best: Made) -> Chosen:
    same = tuple(m.row.pieces for m in group if m is not best)
    return Chosen(made=best, same=same[:MOST_SAME])
