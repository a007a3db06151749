"""What pulls: bands and springs, one or several together, folded, with what they are tied to and
where that stands.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import replace

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body
from widearc.core.exercises import Exercise, LoadWay
from widearc.core.kit import (
    BEHIND_M,
    HIGHEST_M,
    LOW_M,
    Anchor,
    BandShape,
    BandStock,
    Kit,
    Piece,
    SpringStock,
)
from widearc.core.kit.differing import (
    CENTIMETRE_SHARE,
    LENGTHS_M,
    band_pull,
    shares,
    spread,
    spring_pull,
)
from widearc.core.words import Count, Length, Said

MOST_BANDS = 3  # pulled together
MOST_SPRINGS = 4  # alike, hooked on together
MOST_PULLS, LEAST_PULLS = 120, 12  # tried of one way of loading
MOST_ROWS = 1500  # places with pulls, tried of one way of loading
STRAND_SHARE = 0.03  # a band folded differs from one that is not, whatever it pulls
ELASTIC = ("band", "spring")
FOLDED = Said("band folded once")
LEADS_M = (0.1, 0.2)  # of chain before the band: each link further down lets the band go slacker


def chain_words(lead_m: float) -> Said:
    """Return how a chain of that length (m) before a band is said."""
    return Said("{length} of chain before the band", length=Length(lead_m))


def elastic_extras(way: tuple[LoadWay, ...]) -> tuple[Said, ...]:
    """Return the extras that a way's band can have: folded once, or a chain before it."""
    part = next((w for w in way if w.stock == "band"), None)
    if part is None or part.from_ in ("feet", "thighs", "frame"):
        return ()
    return tuple(map(chain_words, LEADS_M)) if part.from_ == "base" else (FOLDED,)


def folded(band: BandStock) -> tuple[BandStock, int]:
    """Return a band folded once, with its strands: a loop's four, a long one's two, each of half
    the length.
    """
    name = f"{band.name}, folded once"
    if band.shape is BandShape.LOOP:
        return replace(band, name=name), 4
    return replace(band, name=name, law=band.law.halved()), 2


Elastic = tuple[
    tuple[tuple[BandStock, int], ...],
    tuple[tuple[SpringStock, int], ...],
    tuple[Anchor, float] | None,
]
"""Bands with strands, springs with how many, and the anchor used."""


def elastic(
    exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit, body: Body, *, fold: bool = False
) -> Iterator[Elastic]:
    """Yield bands with their strands or springs, one or several together, and the anchor used;
    fold: bands folded.
    """
    part = next((w for w in way if w.stock in ELASTIC), None)
    if part is None:
        yield (), (), None
    elif part.stock == "spring":
        yield from (((), chosen, None) for chosen in spring_sets(kit))
    elif part.from_ == "thighs":
        yield from ((((band, 2),), (), None) for band in kit.bands if band.goes_round_thighs)
    elif part.from_ == "frame":
        for band in (b for b in kit.bands if not b.goes_round_thighs):
            # the pegs are closer than most bands are long
            yield from (((hooked,), (), None) for hooked in (_whole(band), folded(band)))
    elif part.from_ == "base":
        bases = _bases(kit, held=len(way) > 1)
        for anchor, chosen, half in itertools.product(bases, band_sets(kit, 2), (False, True)):
            yield tuple(map(folded if half else _whole, chosen)), (), (anchor, BASE_AHEAD_M)
    elif part.from_ == "feet":
        for chosen in band_sets(kit):
            yield tuple((band, 2) for band in chosen), (), None
    else:
        for anchor, band in itertools.product(_anchors(part.from_, kit), kit.bands):
            hooked = folded(band) if fold else _whole(band)
            # where it is just straight depends on how long it is folded
            long = replace(band, law=band.law.halved()) if fold else band
            for far in _away(exercise, part.from_, long, anchor, body):
                yield (hooked,), (), (anchor, far)


def _whole(band: BandStock) -> tuple[BandStock, int]:
    return band, 2 if band.shape is BandShape.LOOP else 1


BASE_AHEAD_M = 0.06  # mid-foot ahead of the ankle
BASE_HIGH_M = 0.2  # a kettlebell's handle (assumed)
LEAST_BASE_KG = 16.0  # less lifts off under any band worth it


def _bases(kit: Kit, *, held: bool) -> tuple[Anchor, ...]:
    """Return what a band under the feet can be clipped to: eyes in the floor, and the heaviest
    kettlebell.

    held: a weight is held besides, so that one kettlebell cannot be both.
    """
    bells = [b for b in kit.of("kettlebell") if b.count >= 2 or not held]
    low = tuple(a for a in kit.anchors if a.height_m <= LOW_M)
    if not bells or bells[-1].kg < LEAST_BASE_KG:
        return low
    bell = bells[-1]
    base = Anchor(
        id=bell.id,
        name="Kettlebell on the floor",
        height_m=BASE_HIGH_M,
        own_kg=bell.kg,
    )
    return (*low, base)


def band_sets(kit: Kit, most: int = MOST_BANDS) -> Iterator[tuple[BandStock, ...]]:
    """Yield one to `most` bands pulled together, as many of each as there are; single first."""
    reach = [band for band in kit.bands if not band.goes_round_thighs]
    for size in range(1, most + 1):
        for chosen in itertools.combinations_with_replacement(reach, size):
            if all(chosen.count(band) <= band.count for band in set(chosen)):
                yield chosen


def spring_sets(kit: Kit) -> Iterator[tuple[tuple[SpringStock, int], ...]]:
    """Yield every set of springs that can be hooked on together, one or more."""
    counts = [range(min(s.count, MOST_SPRINGS) + 1) for s in kit.springs]
    for numbers in itertools.product(*counts):
        if any(numbers):
            yield tuple((s, n) for s, n in zip(kit.springs, numbers, strict=True) if n)


def most_pulls(places: int) -> int:
    """Return how many pulls are tried at each of so many places."""
    return min(MOST_PULLS, max(LEAST_PULLS, MOST_ROWS // max(1, places)))


def differing(found: Sequence[Elastic], most: int) -> tuple[Elastic, ...]:
    """Return the pulls that are tried: all, or so many that differ most."""
    if len(found) <= most:
        return tuple(found)
    # of two that pull alike, the one with fewer pieces is met first
    first = sorted(range(len(found)), key=lambda i: len(found[i][0]) + len(found[i][1]))
    features = _features(found)[first]
    at, _ = spread(features, most)
    return tuple(found[first[i]] for i in at)


def untried_sets(kit: Kit) -> tuple[Said, ...]:
    """Return in words which sets of a kit's bands and springs were not all tried."""
    said = []
    for words, number in (
        (
            Said("sets of up to {most} bands", most=Count(MOST_BANDS)),
            sum(1 for _ in band_sets(kit)),
        ),
        (Said("sets of springs"), sum(1 for _ in spring_sets(kit))),
    ):
        if number > MOST_PULLS:
            said.append(
                Said(
                    "Of {there} {things}, {most} or fewer were tried: the most unlike.",
                    there=Count(number),
                    things=words,
                    most=Count(MOST_PULLS),
                )
            )
    return tuple(said)


def _features(found: Sequence[Elastic]) -> Array:
    """Return what tells pulls apart, (pulls, numbers): as `spread` reads it."""
    own = {id(b): band_pull(b) for bands, _, _ in found for b, _ in bands}
    hooked = {id(s): spring_pull(s) for _, springs, _ in found for s, _ in springs}
    pull_n = np.zeros((len(found), len(LENGTHS_M)))
    place = np.zeros((len(found), 2))
    for row, (bands, springs, anchor) in enumerate(found):
        for band, _ in bands:
            pull_n[row] += own[id(band)]
        for spring, number in springs:
            pull_n[row] += number * hooked[id(spring)]
        if anchor is not None:
            place[row] = anchor[0].height_m, anchor[1]
    strands = [max((n for _, n in bands), default=0) for bands, _, _ in found]
    folds = STRAND_SHARE * np.array(strands, dtype=float)[:, None]
    return np.hstack([shares(pull_n), 100.0 * CENTIMETRE_SHARE * place, folds])


def _anchors(from_: str, kit: Kit) -> tuple[Anchor, ...]:
    highest = {"eye-under": LOW_M, "eye-behind": BEHIND_M}.get(from_, HIGHEST_M)
    return tuple(a for a in kit.anchors if a.height_m <= highest)


def _away(
    exercise: Exercise, from_: str, band: BandStock, anchor: Anchor, body: Body
) -> Iterator[float]:
    """Yield how far ahead of the room's origin (m) an anchor stands: the client moves until the
    band is right.

    Just straight at the start of the lift, or a fifth longer; nothing where the anchor is too high
    or low for it.
    """
    if from_ == "eye-under":
        yield 0.1
        return
    (x, y), stretches = (
        _start(exercise, body),
        (1.0,) if exercise.family == "kneeling" else (1.0, 1.2),
    )
    sign = -1.0 if from_ == "eye-behind" else 1.0
    for stretch in stretches:
        gap = (stretch * band.law.rest_m) ** 2 - (anchor.height_m - y) ** 2
        if gap > 0:
            yield x + sign * float(np.sqrt(gap))


def _start(exercise: Exercise, body: Body) -> tuple[float, float]:
    """Return about where a band is held at the lengthened end, m in the room frame."""
    if exercise.family == "kneeling":
        # kneel where the band is straight when upright, else it pulls the body over its knees
        return body.shank_m, body.ankle_height_m + body.thigh_m + body.trunk_m
    if exercise.family == "knee rotation":
        return (
            (-(body.thigh_m + body.shank_m), 0.3)
            if exercise.variant == "prone"
            else (body.thigh_m, 0.12)
        )
    return (0.0, 0.1) if exercise.family == "hip rotation leg" else (-0.1, 0.95)


def band_piece(band: BandStock) -> Piece:
    """Return a band as a thing to pick up."""
    return Piece(item=band.id, kind="band", label=band.name, number=1)
