"""What an anchor, box or band would have to be."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

import numpy as np

from widearc.core.errors import InputError
from widearc.core.kit import Anchor, Furniture, Kit
from widearc.core.search import Candidate, Question
from widearc.core.words import Name, Said, Term

ANCHORS_M = tuple(round(0.05 * i, 2) for i in range(47))
BOXES_M = tuple(round(0.05 * i, 2) for i in range(1, 21))
BAND_SHARES = (0.25, 0.35, 0.5, 0.7, 0.85, 1.0, 1.2, 1.4, 1.7, 2.0, 2.5, 3.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class Needed:
    """What one thing must be for a match of at least so much: words for the thing, from and to, the
    best, its match.
    """

    thing: Said
    unit: str
    low: float
    high: float
    best: float
    match: float


def needed_for(chosen: Candidate, question: Question, least: float) -> tuple[Needed, ...]:
    """Return where an anchor, box or band would have to be for the chosen exercise to match at
    least so much (share).

    Each thing by itself, the others as they are here. Empty where the exercise uses none.
    """
    if not 0.0 < least <= 1.0:
        raise InputError("least", round(100 * least), Said("from 1 to 100 %"))
    found = []
    for thing, unit, values, kit in _variations(chosen, question):
        matches = [_match(chosen, question, kit(v)) for v in values]
        best = int(np.argmax(matches))
        fine = [v for v, m in zip(values, matches, strict=True) if m >= least]
        if fine:
            found.append(
                Needed(
                    thing=thing,
                    unit=unit,
                    low=min(fine),
                    high=max(fine),
                    best=values[best],
                    match=matches[best],
                )
            )
        elif matches[best] > 0:
            found.append(
                Needed(
                    thing=thing,
                    unit=unit,
                    low=np.nan,
                    high=np.nan,
                    best=values[best],
                    match=matches[best],
                )
            )
    return tuple(found)


Variation = tuple[Said, str, tuple[float, ...], Callable[[float], Kit]]


def _variations(chosen: Candidate, question: Question) -> Iterator[Variation]:
    kit, row = question.free, chosen.row
    if row.anchor is not None:
        anchor = row.anchor[0]

        def moved(height: float) -> Kit:
            """Return the kit with its anchors at one height (m)."""
            return replace(kit, anchors=(Anchor(id=anchor.id, name=anchor.name, height_m=height),))

        yield Said("anchor height"), "m", ANCHORS_M, moved
    boxes = [f for f in row.furniture if f.kind in ("box", "bench", "couch", "table")]
    if boxes:
        box = boxes[0]

        def raised(height: float) -> Kit:
            """Return the kit with what is stood or sat on at one height (m)."""
            rest = tuple(f for f in kit.furniture if f.kind != box.kind)
            return replace(
                kit,
                furniture=(
                    *rest,
                    Furniture(id=box.id, name=box.name, kind=box.kind, height_m=height),
                ),
            )

        yield Said("{thing} height", thing=Term(box.kind)), "m", BOXES_M, raised
    if row.bands:
        band = row.bands[0][0]

        def stronger(share: float) -> Kit:
            """Return the kit with one band, its pull times a share."""
            return replace(kit, bands=(replace(band, law=band.law.scaled(share), count=1),))

        yield Said("{band}, times its pull", band=Name(band.name)), "", BAND_SHARES, stronger


def _match(chosen: Candidate, question: Question, kit: Kit) -> float:
    """Return the best match of the chosen exercise with another kit, 0 where none can be made."""
    other = replace(question, kit=kit, taken=frozenset(), memo=type(question.memo)())
    best = other.best(chosen.exercise)
    return 0.0 if best is None else best[0]
