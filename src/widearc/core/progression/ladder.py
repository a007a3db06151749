"""The rungs that a kit makes of a set-up, in order of what they ask."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

import numpy as np

from widearc.core.kit import Kit, Piece
from widearc.core.movement import Setup
from widearc.core.progression.rung import (
    SAMPLES,
    Ladder,
    Rung,
    bands_of,
    efforts_of,
    measure_of,
    most_asked,
    rungs_of,
)
from widearc.core.progression.steps import next_of, stepped, turning_of
from widearc.core.progression.stock import (
    GUESS_SAMPLES,
    SAME,
    Chosen,
    as_now,
    made_beside,
    made_of,
    thinned,
)
from widearc.core.statics import curve


def ladder_of(setup: Setup, pieces: tuple[Piece, ...], kit: Kit) -> Ladder:
    """Return the ladder of a set-up of one row from what a kit has free.

    pieces: what it is loaded with now; where they are not known, the plainest that make its loads.
    Options stay as they are: only what loads it changes. Where no band or spring is on it now, some
    come in only above what weights make. ValueError for a set-up that cannot be done.
    """
    found = curve(replace(setup, samples=SAMPLES), lowering=False)
    measure, joint = measure_of(found), most_asked(found)
    (now,) = rungs_of(found, [setup], [pieces], joint)
    coarse = curve(replace(setup, samples=GUESS_SAMPLES), lowering=False)
    guessed = float(np.ravel(efforts_of(coarse))[0])  # beside what is made: by as few samples
    made = made_beside(setup, kit, guessed)
    if setup.loads and not _are_known(pieces):
        pieces = made_of(now.kg, guessed, made) or pieces
        now = replace(now, pieces=pieces, bands=bands_of(pieces))
    rungs = [r for r in _exact(thinned(made, pieces), setup, joint) if _differs(r, now)]
    held = rungs if any(_is(r, now) for r in rungs) else [*rungs, now]
    steps = tuple(stepped(sorted(held, key=lambda r: r.effort), found.motion.position))
    present = _place_of(now, steps)
    return Ladder(
        rungs=steps,
        measure=measure,
        joint=joint,
        present=present,
        next=next_of(steps, present),
        turning=turning_of(steps),
    )


def _are_known(pieces: tuple[Piece, ...]) -> bool:
    return bool(pieces) and all(piece.item for piece in pieces)


def _place_of(now: Rung, steps: Sequence[Rung]) -> int:
    return next(i for i, rung in enumerate(steps) if _is(rung, now))


def _differs(rung: Rung, now: Rung) -> bool:
    """Return whether a rung is one of its own beside the present one, or that one itself."""
    if rung.kg and now.kg and rung.bands == now.bands:
        return abs(rung.kg / now.kg - 1.0) > SAME or _is(rung, now)
    return abs(rung.effort / now.effort - 1.0) > SAME or _is(rung, now)


def _is(rung: Rung, now: Rung) -> bool:
    return rung is now or (abs(rung.effort / now.effort - 1.0) <= 1e-4 and rung.kg == now.kg)


def _exact(chosen: Sequence[Chosen], setup: Setup, joint: str | None) -> Iterator[Rung]:
    """Yield the rungs of what was chosen, those of a batch computed together."""
    by_batch: dict[int, list[Chosen]] = {}
    for one in chosen:
        by_batch.setdefault(id(one.made.batch), []).append(one)
    for own in by_batch.values():
        batch, rows = own[0].made.batch, [one.made.row for one in own]
        many = as_now(batch, batch.setup(setup.body, setup.limits, rows), setup)
        found = curve(many, strict=False, lowering=False)
        # each for itself has no load that it does not use
        alone = [as_now(batch, batch.setup(setup.body, setup.limits, [r]), setup) for r in rows]
        rungs = rungs_of(found, alone, [row.pieces for row in rows], joint)
        for one, rung in zip(own, rungs, strict=True):
            yield replace(rung, same=one.same, items=tuple(one.made.row.items()))
