"""What of a large stock is tried: things that differ, chosen best first under a budget.

Sixty bands make 36,000 sets of up to three; most pull like another one within what a scale can
tell. A small kit is tried as it is.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import Array
from widearc.core.kit.stock import Anchor, BandShape, BandStock, Kit, SpringStock
from widearc.core.words import Count, Said, Term

MOST_BANDS_TRIED, MOST_SPRINGS_TRIED, MOST_ANCHORS_TRIED = 12, 5, 8
MOST_MACHINES_TRIED = 6  # of a kind
MOST_PLACES_TRIED = 6  # boxes, benches, racks, pads: of a kind
CROWDED_BANDS = 7  # so many make 63 sets of up to three
ALIKE = 0.01  # share of the pull: nearer ones count as one, a scale tells no less (assumed)
LENGTHS_M = (0.8, 1.2, 1.8)  # between foot, hip and shoulder, where bands are pulled
FLOOR_N = 20.0  # below it a difference in pull is none in a lift
CENTIMETRE_SHARE = 0.005  # an anchor a centimetre higher counts as half a per cent of pull

UNTRIED = {
    "bands": ("bands",),
    "springs": ("springs",),
    "anchors": ("anchors",),
    "boxes, benches, racks and pads": ("furniture", "things"),
    "machines": ("machines", "presses"),
}

T = TypeVar("T")


def spread(features: Array, most: int, first: int = 0) -> tuple[NDArray[np.intp], float]:
    """Return which rows to try, in their order, and how far any other lies from those.

    features: (rows, numbers), a difference of 0.01 in any is one per cent; the first `first` rows
    stay. Each next row is the one that lies farthest from all chosen, until `most` are or none
    lies farther than ALIKE.
    """
    chosen = list(range(min(first, most))) or [0]
    off = np.full(len(features), np.inf)
    for row in chosen:
        off = np.minimum(off, np.abs(features - features[row]).max(axis=1))
    while len(chosen) < most and float(off.max()) > ALIKE:
        chosen.append(int(off.argmax()))
        off = np.minimum(off, np.abs(features - features[chosen[-1]]).max(axis=1))
    return np.array(sorted(chosen)), float(off.max())


def band_pull(band: BandStock) -> Array:
    """Return a band's pull, all strands, at LENGTHS_M, N, (3,)."""
    strands = 2.0 if band.shape is BandShape.LOOP else 1.0
    return np.asarray(strands * band.law.force_n(np.array(LENGTHS_M)))


def spring_pull(spring: SpringStock) -> Array:
    """Return a spring's pull at both ends of its travel and half way, N, (3,)."""
    return np.linspace(spring.spring.start_n, spring.spring.end_n, len(LENGTHS_M))


def shares(pull_n: Array) -> Array:
    """Return pulls, N, so that equal differences are equal shares."""
    return np.asarray(np.log(np.maximum(pull_n, 0.0) + FLOOR_N))


def _band_features(band: BandStock) -> Array:
    # a loop round the thighs is never tried in place of a long one
    kind = 10.0 * band.goes_round_thighs + 20.0 * (band.shape is BandShape.LOOP)
    return np.array([*shares(band_pull(band)), np.log(band.law.rest_m), kind, band.hysteresis])


def _spring_features(spring: SpringStock) -> Array:
    return shares(spring_pull(spring))


def _anchor_features(anchor: Anchor) -> Array:
    # what holds more of two at one height comes first in the list, so it is met first
    return np.array([CENTIMETRE_SHARE * 100.0 * anchor.height_m])


def _differing(
    stock: Sequence[T],
    features: Callable[[T], Array],
    taken: frozenset[str],
    most: int,
    crowded: int,
) -> tuple[T, ...]:
    """Return what of a stock is tried: all where there are no more than `crowded`, else what is
    free, at most so many.
    """
    if len(stock) <= crowded:
        return tuple(stock)
    free = [thing for thing in stock if _id(thing) not in taken] or list(stock)
    if len(free) <= most:
        return tuple(free)
    at, _ = spread(np.stack([features(thing) for thing in free]), most)
    return tuple(free[i] for i in at)


def _id(thing: object) -> str:
    return str(getattr(thing, "id", ""))


def _of_each_kind(
    things: Sequence[T], taken: frozenset[str], most: int, size: Callable[[T], float] | None = None
) -> tuple[T, ...]:
    """Return at most so many things of each kind, in their order: those whose size (m) differs
    most, without one the first; free ones before taken ones.
    """
    of_kind: dict[str, list[T]] = {}
    for thing in things:
        of_kind.setdefault(str(getattr(thing, "kind", "")), []).append(thing)
    kept: set[int] = set()
    for alike in of_kind.values():
        if len(alike) > most:
            alike = [thing for thing in alike if _id(thing) not in taken] or alike
            sizes = np.array([[size(thing) if size else 0.0] for thing in alike])
            at = spread(sizes, most)[0] if size else range(min(most, len(alike)))
            alike = [alike[i] for i in at]
        kept |= {id(thing) for thing in alike}
    return tuple(thing for thing in things if id(thing) in kept)


def tried_of(kit: Kit, taken: frozenset[str]) -> Kit:
    """Return the kit that a search tries: itself, but of many bands, springs, anchors and machines
    those that differ, out of the free ones.
    """
    return replace(
        kit,
        bands=_differing(kit.bands, _band_features, taken, MOST_BANDS_TRIED, CROWDED_BANDS),
        springs=_differing(
            kit.springs, _spring_features, taken, MOST_SPRINGS_TRIED, MOST_SPRINGS_TRIED
        ),
        anchors=_differing(
            kit.anchors, _anchor_features, taken, MOST_ANCHORS_TRIED, MOST_ANCHORS_TRIED
        ),
        furniture=_of_each_kind(kit.furniture, taken, MOST_PLACES_TRIED, lambda f: f.height_m),
        things=_of_each_kind(kit.things, taken, MOST_PLACES_TRIED, lambda t: t.thick_m),
        machines=_of_each_kind(kit.machines, taken, MOST_MACHINES_TRIED),
        presses=_of_each_kind(kit.presses, taken, MOST_MACHINES_TRIED),
    )


def untried(kit: Kit, tried: Kit) -> tuple[Said, ...]:
    """Return in words what of a kit was not tried, nothing where all of it was."""
    said = []
    for words, names in UNTRIED.items():
        there = sum(len(getattr(kit, name)) for name in names)
        used = sum(len(getattr(tried, name)) for name in names)
        if used < there:
            said.append(
                Said(
                    "Of {there} {things}, {used} were tried: free ones that differ most.",
                    there=Count(there),
                    things=Term(words),
                    used=Count(used),
                )
            )
    return tuple(said)
