"""What a place has."""

from __future__ import annotations

import itertools
from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import Enum

from widearc.core.equipment import (
    BandLaw,
    Hold,
    HoldKind,
    Spring,
)
from widearc.core.errors import InputError
from widearc.core.words import Said

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
        return self.law if self.shape is BandShape.LOOP else self.law.halved()


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
        """Refuse two items of one id; an anchor or a hold may be a part of furniture, by its id."""
        whole = {item.id for item in self.furniture}
        seen: set[str] = set()
        for item in self.items():
            part = isinstance(item, Anchor | Thing) and item.id in whole
            if item.id in seen and not part:
                raise InputError("/kit", item.id, Said("an id of its own for every item"))
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
            (b.id, b.name, b.shape, b.count, b.hysteresis, b.error, b.law.key()) for b in self.bands
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


ALIKE_M = 0.02  # two boxes may differ by so much


def box_pairs(kit: Kit, low: float, high: float) -> tuple[tuple[Furniture, Furniture], ...]:
    """Return pairs of boxes of one height (m, to 2 cm) to stand on, one for each height."""
    boxes = sorted(
        (f for f in kit.furniture if f.kind == "box" and low <= f.height_m <= high),
        key=lambda f: f.height_m,
    )
    pairs: list[tuple[Furniture, Furniture]] = []
    for a, b in itertools.pairwise(boxes):
        if b.height_m - a.height_m <= ALIKE_M and (
            not pairs or a.height_m - pairs[-1][0].height_m > ALIKE_M
        ):
            pairs.append((a, b))
    return tuple(pairs)
