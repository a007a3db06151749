"""What a place has, and every total its stock can make."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from enum import Enum

import numpy as np

from widearc.core.equipment import (
    BandLaw,
    Hold,
    HoldKind,
    LinearLaw,
    MooneyRivlinLaw,
    PointsLaw,
    Spring,
)
from widearc.core.errors import InputError

SHORT_LOOP_M = 0.45  # flat length up to which a loop is put round the thighs (assumed)
# one standard error of a weight that nobody weighed: cast plates vary (common practice, no source)
CAST = 0.02
READ = 0.04  # of a band's pull, where its readings are not known (assumed)


class BandShape(Enum):
    """How a band is made: a loop has two strands, a long band one with two ends."""

    LOOP = "loop"
    LONG = "long"


@dataclass(frozen=True, slots=True, kw_only=True)
class Weight:
    """A weight in stock: kind bar, plate, dumbbell or kettlebell; kg each; count pieces; error as a
    share of it.
    """

    id: str
    kind: str
    kg: float
    count: int = 1
    name: str = ""
    error: float = CAST


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class BandStock:
    """A band in stock; law speaks for one unfolded strand of the whole band; hysteresis: share not
    given back.

    error: one standard error of its pull as a share of it.
    """

    id: str
    name: str
    shape: BandShape
    law: BandLaw
    count: int = 1
    assumed: bool = False
    hysteresis: float = 0.0
    error: float = READ

    @property
    def goes_round_thighs(self) -> bool:
        """Return whether it is a loop short enough to lie round both thighs."""
        return self.shape is BandShape.LOOP and self.law.rest_m <= SHORT_LOOP_M

    def standing_law(self) -> BandLaw:
        """Return the law of one strand when the band is stood on and held at both sides.

        A loop keeps its two strands at full length; a long band is halved by the feet.
        """
        return self.law if self.shape is BandShape.LOOP else halved(self.law)


def halved(law: BandLaw) -> BandLaw:
    """Return the law of half a strand: the same pull at half the length."""
    if isinstance(law, LinearLaw):
        return LinearLaw(rest_m=law.rest_m / 2, rate_n_per_m=law.rate_n_per_m * 2)
    if isinstance(law, MooneyRivlinLaw):
        return replace(law, rest_m=law.rest_m / 2)
    lengths = tuple(length / 2 for length in law.length_m)
    return PointsLaw(rest_m=law.rest_m / 2, length_m=lengths, force_n_at=law.force_n_at)


@dataclass(frozen=True, slots=True, kw_only=True)
class Furniture:
    """Something to sit, stand or rack on: kind bench, box, rack, couch or table; height of its top,
    m.
    """

    id: str
    name: str
    kind: str
    height_m: float
    own_kg: float | None = None
    depth_m: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Thing:
    """Anything else that an exercise may need: its kind is one of the equipment's KINDS; thick_m:
    of a wedge or pad.
    """

    id: str
    name: str
    kind: str
    thick_m: float = 0.0


Cam = tuple[tuple[float, ...], tuple[float, ...]]


@dataclass(frozen=True, slots=True, kw_only=True)
class Machine:
    """A machine as measured or described: kind and quantities as the equipment's KINDS, SI by name.

    dials: by its dial's setting ("" without one), a stack's cam as read at the pad: degrees of the
    joint, rising, and radius m at each. dial: the setting chosen. error: one standard error of its
    resistance as a share of it.
    """

    id: str
    name: str
    kind: str
    quantities: Mapping[str, float]
    dials: tuple[tuple[str, Cam], ...] = ()
    dial: str = ""
    error: float = READ

    @property
    def cam(self) -> Cam | None:
        """Return the cam at the chosen setting, None where it was not read."""
        return dict(self.dials).get(self.dial)

    def key(self) -> tuple[object, ...]:
        """Return a hashable value that is equal for machines alike."""
        return (
            self.id,
            self.name,
            self.kind,
            tuple(sorted(self.quantities.items())),
            self.dials,
            self.dial,
            self.error,
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class SpringStock:
    """Springs alike in stock: their law, how many, error as a share of the pull."""

    id: str
    name: str
    spring: Spring
    count: int = 1
    error: float = READ


@dataclass(frozen=True, slots=True, kw_only=True)
class Anchor:
    """A point for a band: height over the floor, m; what it holds, N (None: not known).

    own_kg, depth_m: of a loose weight or a piece of furniture that is tied to, from its near foot
    back.
    """

    id: str
    name: str
    height_m: float
    holds_n: float | None = None
    own_kg: float | None = None
    depth_m: float | None = None


def hold_of(anchor: Anchor) -> Hold:
    """Return what holds an anchor: its own weight, as furniture or loose, else its rating."""
    if anchor.own_kg is None:
        return Hold(kind="eye", holds_n=anchor.holds_n)
    kind: HoldKind = "furniture" if anchor.depth_m is not None else "weight"
    return Hold(
        kind=kind, kg=anchor.own_kg, height_m=anchor.height_m, depth_m=anchor.depth_m or 0.5
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class SledPress:
    """A sled press: rail angle in degrees, empty sled kg with its error as a share, and how its
    seat is set.

    peg_m: from the frame's peg to the sled's along the rails, the sled at its start; None: nothing
    to tie a band to.
    """

    id: str
    name: str
    rail_deg: float
    empty_kg: float
    backrest_deg: float = 15.0
    plate_tilt_deg: float = 10.0
    error: float = CAST
    friction: float = 0.0
    peg_m: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Kit:
    """Everything that is in a place."""

    weights: tuple[Weight, ...] = ()
    bands: tuple[BandStock, ...] = ()
    furniture: tuple[Furniture, ...] = ()
    anchors: tuple[Anchor, ...] = ()
    presses: tuple[SledPress, ...] = ()
    things: tuple[Thing, ...] = ()
    machines: tuple[Machine, ...] = ()
    springs: tuple[SpringStock, ...] = ()

    def __post_init__(self) -> None:
        """Refuse two items of one id."""
        seen: set[str] = set()
        for item in self.items():
            if item.id in seen:
                raise InputError("/kit", item.id, "an id of its own for every item")
            seen.add(item.id)

    def items(self) -> tuple[Item, ...]:
        """Return every item."""
        return (
            *self.weights,
            *self.bands,
            *self.furniture,
            *self.anchors,
            *self.presses,
            *self.things,
            *self.machines,
            *self.springs,
        )

    def without(self, taken: frozenset[str]) -> Kit:
        """Return the kit less the items of these ids."""
        return replace(
            self,
            weights=tuple(w for w in self.weights if w.id not in taken),
            bands=tuple(b for b in self.bands if b.id not in taken),
            furniture=tuple(f for f in self.furniture if f.id not in taken),
            anchors=tuple(a for a in self.anchors if a.id not in taken),
            presses=tuple(p for p in self.presses if p.id not in taken),
            things=tuple(t for t in self.things if t.id not in taken),
            machines=tuple(m for m in self.machines if m.id not in taken),
            springs=tuple(s for s in self.springs if s.id not in taken),
        )

    def signature(self) -> tuple[object, ...]:
        """Return a hashable value that is equal for kits of equal content."""
        bands = tuple(
            (b.id, b.name, b.shape, b.count, b.hysteresis, b.error, _law_key(b.law))
            for b in self.bands
        )
        machines = tuple(m.key() for m in self.machines)
        return (
            self.weights,
            bands,
            self.furniture,
            self.anchors,
            self.presses,
            self.things,
            machines,
            self.springs,
        )

    def of(self, kind: str) -> tuple[Weight, ...]:
        """Return the weights of a kind, lightest first."""
        return tuple(sorted((w for w in self.weights if w.kind == kind), key=lambda w: w.kg))


Item = Weight | BandStock | Furniture | Anchor | SledPress | Thing | Machine | SpringStock
"""Anything that can be in a place."""


def _law_key(law: BandLaw) -> tuple[object, ...]:
    if isinstance(law, LinearLaw):
        return (law.rest_m, law.rate_n_per_m)
    if isinstance(law, MooneyRivlinLaw):
        return (law.rest_m, law.area_m2, law.c1_pa, law.c2_pa)
    return (law.rest_m, law.length_m, law.force_n_at)


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """So many of one thing to pick up: kind as in the kit (or band), its label, kg each (0 for a
    band).
    """

    item: str
    kind: str
    label: str
    number: int
    kg: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Pick:
    """A load the stock can make: kg in all, the pieces to pick up, and an unequal pair's share in
    the left hand.
    """

    kg: float
    pieces: tuple[Piece, ...] = field(default=())
    left_share: float | None = None


def bar_picks(kit: Kit) -> tuple[Pick, ...]:
    """Return every total of bar and plates loaded in pairs, lightest first, with the fewest
    plates.
    """
    picks: dict[float, Pick] = {}
    for bar in kit.of("bar"):
        base = Piece(item=bar.id, kind="bar", label=bar.name or "bar", number=1, kg=bar.kg)
        for pick in _plate_pairs(kit):
            total = round(bar.kg + pick.kg, 6)
            found = Pick(kg=total, pieces=(base, *pick.pieces))
            if total not in picks or _plates(found) < _plates(picks[total]):
                picks[total] = found
    return tuple(picks[kg] for kg in sorted(picks))


def _plates(pick: Pick) -> int:
    return sum(piece.number for piece in pick.pieces)


def _plate_pairs(kit: Kit) -> tuple[Pick, ...]:
    """Return every total of plates in pairs, from none, each with the fewest plates."""
    best: dict[float, tuple[Piece, ...]] = {0.0: ()}
    # heaviest first, so that equal totals are met with few large plates before many small ones
    for plate in reversed(kit.of("plate")):
        grown = dict(best)
        for pairs in range(1, plate.count // 2 + 1):
            piece = Piece(
                item=plate.id, kind="plate", label=f"{plate.kg:g}", number=2 * pairs, kg=plate.kg
            )
            for total, pieces in best.items():
                heavier = round(total + 2 * pairs * plate.kg, 6)
                more = (*pieces, piece)
                if heavier not in grown or sum(p.number for p in more) < sum(
                    p.number for p in grown[heavier]
                ):
                    grown[heavier] = more
        best = grown
    return tuple(Pick(kg=total, pieces=best[total]) for total in sorted(best))


def sled_picks(kit: Kit) -> tuple[Pick, ...]:
    """Return every load of plates in pairs on a sled, from none, lightest first."""
    return _plate_pairs(kit)


def pair_picks(kit: Kit) -> tuple[Pick, ...]:
    """Return one equal pair in the hands, for each size that is there twice; kg in all."""
    return tuple(
        Pick(
            kg=2 * w.kg,
            pieces=(Piece(item=w.id, kind=w.kind, label=f"{w.kg:g}", number=2, kg=w.kg),),
        )
        for kind in ("dumbbell", "kettlebell")
        for w in kit.of(kind)
        if w.count >= 2
    )


def unequal_picks(kit: Kit) -> tuple[Pick, ...]:
    """Return every pair of two sizes, one for each total: that whose heavier one has nearest 70 %
    (common practice).
    """
    best: dict[float, tuple[float, Pick]] = {}
    for kind in ("dumbbell", "kettlebell"):
        sizes = kit.of(kind)
        for i, light in enumerate(sizes):
            for heavy in sizes[i + 1 :]:
                if heavy.kg <= light.kg:
                    continue
                total = round(light.kg + heavy.kg, 6)
                pieces = tuple(
                    Piece(item=w.id, kind=kind, label=f"{w.kg:g}", number=1, kg=w.kg)
                    for w in (heavy, light)
                )
                off = abs(heavy.kg / total - USUAL_HEAVY)
                if total not in best or off < best[total][0] - 1e-9:
                    best[total] = (
                        off,
                        Pick(kg=total, pieces=pieces, left_share=round(heavy.kg / total, 4)),
                    )
    return tuple(best[kg][1] for kg in sorted(best))


def single_picks(kit: Kit, *, kettlebells: bool) -> tuple[Pick, ...]:
    """Return one dumbbell (or kettlebell where it can be held), lightest first."""
    kinds = ("dumbbell", "kettlebell") if kettlebells else ("dumbbell",)
    picks = [
        Pick(kg=w.kg, pieces=(Piece(item=w.id, kind=w.kind, label=f"{w.kg:g}", number=1, kg=w.kg),))
        for kind in kinds
        for w in kit.of(kind)
    ]
    return tuple(sorted(picks, key=lambda p: p.kg))


def stack_picks(machine: Machine) -> tuple[Pick, ...]:
    """Return every weight that a stack's pin can choose, lightest first."""
    q = machine.quantities
    low, high, step = q.get("smallest_kg", 5.0), q.get("largest_kg", 100.0), q.get("step_kg", 5.0)
    totals = np.arange(max(low, 0.1), high + 1e-6, step)
    return tuple(
        Pick(
            kg=round(float(kg), 6),
            pieces=(
                Piece(
                    item=machine.id,
                    kind="stack",
                    label=machine.name.lower(),
                    number=1,
                    kg=float(kg),
                ),
            ),
        )
        for kg in totals
    )


def rail_picks(kit: Kit, machine: Machine) -> tuple[Pick, ...]:
    """Return every total of a bar on rails (as it hangs) with plates in pairs, lightest first; kg
    in all.
    """
    own = machine.quantities.get("empty_kg", 0.0)
    base = Piece(item=machine.id, kind="rail bar", label=machine.name.lower(), number=1, kg=own)
    return tuple(Pick(kg=round(own + p.kg, 6), pieces=(base, *p.pieces)) for p in _plate_pairs(kit))


MOST_PLATES = 4
USUAL_HEAVY = (
    0.7  # of an unequal pair's weight, opposite the working leg (common practice, no source)
)


def plate_picks(kit: Kit) -> tuple[Pick, ...]:
    """Return every total of up to four single plates (one side of a machine, a pin, a bar end),
    with the fewest.
    """
    best: dict[float, tuple[Piece, ...]] = {0.0: ()}
    for plate in reversed(kit.of("plate")):
        grown = dict(best)
        for total, pieces in best.items():
            used = sum(p.number for p in pieces)
            for number in range(1, min(plate.count, MOST_PLATES - used) + 1):
                heavier = round(total + number * plate.kg, 6)
                more = (
                    *pieces,
                    Piece(
                        item=plate.id,
                        kind="plate",
                        label=f"{plate.kg:g}",
                        number=number,
                        kg=plate.kg,
                    ),
                )
                if heavier not in grown or used + number < sum(p.number for p in grown[heavier]):
                    grown[heavier] = more
        best = grown
    return tuple(Pick(kg=total, pieces=best[total]) for total in sorted(best))


def one_hand_picks(kit: Kit) -> tuple[Pick, ...]:
    """Return one dumbbell or kettlebell in one hand, lightest first."""
    return single_picks(kit, kettlebells=True)
