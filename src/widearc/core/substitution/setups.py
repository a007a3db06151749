"""Every set-up a kit admits for an exercise: geometry with bands and anchors (frames) × totals of the stock (picks)."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import PORTS, Body, Limits
from widearc.core.catalogue import Exercise, LoadWay
from widearc.core.equipment import Band, Cable, CornerBar, FreeMass, Load, Sled, SpringLoad, Stack
from widearc.core.movement import Setup
from widearc.core.substitution.geometry import Range, geometry
from widearc.core.substitution.kit import (
    Anchor,
    BandStock,
    Furniture,
    Kit,
    Machine,
    Pick,
    Piece,
    SledPress,
    SpringStock,
    Thing,
    bar_picks,
    one_hand_picks,
    pair_picks,
    plate_picks,
    rail_picks,
    single_picks,
    sled_picks,
    stack_picks,
)

MOST_BANDS = 3  # pulled together
ELASTIC = ("band", "spring")
NOTHING = Pick(kg=0.0)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Row:
    """One set-up: its options (degrees, metres), pieces to pick up, and words about geometry.

    bands: with the strands of each; anchor: with how far ahead of the room's origin it is, m. extra: what the plain
    set-up does without ("" for the plain one), offered as a tweak.
    """

    options: Mapping[str, float | str]
    pieces: tuple[Piece, ...] = ()
    kg: float = 0.0
    bands: tuple[tuple[BandStock, int], ...] = ()
    springs: tuple[tuple[SpringStock, int], ...] = ()
    anchor: tuple[Anchor, float] | None = None
    furniture: tuple[Furniture, ...] = ()
    things: tuple[Thing, ...] = ()
    machine: str = ""
    place: str = ""
    extra: str = ""
    _used: tuple[str, ...] = field(init=False, repr=False)

    def __post_init__(self) -> None:
        """Gather the ids of everything the set-up uses."""
        used = [piece.item for piece in self.pieces]
        used += [band.id for band, _ in self.bands] + [spring.id for spring, _ in self.springs]
        used += [self.anchor[0].id] if self.anchor else []
        used += [self.machine] if self.machine else []
        used += [f.id for f in self.furniture] + [t.id for t in self.things]
        object.__setattr__(self, "_used", tuple(dict.fromkeys(used)))

    def items(self) -> tuple[str, ...]:
        """Return the ids of everything the set-up uses."""
        return self._used

    def with_pick(self, pick: Pick) -> Row:
        """Return the set-up with a total of the stock."""
        if not pick.pieces and pick.kg == 0:
            return self
        return replace(self, kg=pick.kg, pieces=(*pick.pieces, *self.pieces))


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Batch:
    """Set-ups of one exercise and one way of loading: every frame with every pick. machine: what it is done on."""

    exercise: Exercise
    way: tuple[LoadWay, ...]
    frames: tuple[Row, ...]
    picks: tuple[Pick, ...] = (NOTHING,)
    machine: Machine | SledPress | None = None

    @property
    def stock(self) -> str:
        """Return what the picks are made of: bar, dumbbells, sled and so on; empty where they are not."""
        return next((w.stock for w in self.way if w.stock not in ELASTIC), "")

    @property
    def size(self) -> int:
        """Return how many set-ups this is."""
        return len(self.frames) * len(self.picks)

    def row(self, frame: int, pick: int) -> Row:
        """Return one set-up."""
        return self.frames[frame].with_pick(self.picks[pick])

    def setup(
        self, body: Body, limits: Limits, rows: tuple[Row, ...], samples: int = 101, kg: Array | None = None
    ) -> Setup:  # fmt: skip
        """Return set-ups of this batch as one of arrays; kg: totals each of which loads every row in turn."""
        times = 1 if kg is None else len(kg)
        options: dict[str, Any] = {}
        for name, value in rows[0].options.items():
            each = [row.options[name] for row in rows]
            # what is equal for all stays one number: arrays of it would be solved for nothing
            alike = isinstance(value, str) or each.count(value) == len(each)
            options[name] = value if alike else np.repeat(np.array(each, dtype=float), times)
        totals = np.array([row.kg for row in rows]) if kg is None else np.tile(kg, len(rows))
        return Setup(
            exercise=self.exercise, body=body, limits=limits, options=options,
            loads=tuple(self._loads(rows, totals[:, None], times)), samples=samples,
        )  # fmt: skip

    def _loads(self, rows: tuple[Row, ...], kg: Array, times: int) -> Iterator[Load]:
        for way in self.way:
            if way.stock not in ELASTIC:
                yield self._mass(way, kg)
        for way in self.way:
            if way.stock == "band":
                yield from _bands(way, rows, times)
            elif way.stock == "spring":
                yield from _springs(way, rows, times)

    def _mass(self, way: LoadWay, kg: Array) -> Load:
        if isinstance(self.machine, SledPress):
            return Sled(kg=kg, empty_kg=self.machine.empty_kg, friction=self.machine.friction)
        q = {} if self.machine is None else self.machine.quantities
        friction = float(q.get("friction", 0.0))
        if way.stock == "hack":
            return Sled(kg=kg, empty_kg=q.get("empty_kg", 0.0), friction=friction)
        if way.stock == "stack":
            assert self.machine is not None and self.machine.cam is not None
            angles, radii = self.machine.cam
            # the cam was read at the pad on a slow pull: what rubs is in it
            return Stack(kg=kg, angle_deg=angles, radius_m=radii, ratio=float(q.get("ratio", 1.0)))
        if way.stock == "cable":
            high = float(q.get("height_m", 0.0))
            far = _FAR.get(way.from_, 0.1)
            return Cable(kg=kg, port=way.port, pulley=(far, high), ratio=float(q.get("ratio", 1.0)), friction=friction)
        if way.stock == "corner":
            return CornerBar(
                plate_kg=kg, bar_kg=q.get("bar_kg", 20.0), bar_m=q.get("length_m", 2.2),
                sleeve_m=q.get("sleeve_m", 2.0), hand_m=q.get("hand_m", 2.1), port=way.port,
            )  # fmt: skip
        return FreeMass(kg=kg, port=way.port)


_FAR: Mapping[str, float] = {"ahead": 1.0, "behind": -0.8, "under": 0.1}
"""How far ahead of the room's origin a pulley stands, m (assumed; by where the exercise needs it)."""


def _bands(way: LoadWay, rows: tuple[Row, ...], times: int) -> Iterator[Load]:
    """Yield one band load for every band and folding that any row uses, counts as an array; each row so many times."""
    used = {(band.id, strands): band for row in rows for band, strands in row.bands}
    for (band_id, strands), band in sorted(used.items(), key=lambda item: item[0]):
        count = _column([float(sum(b.id == band_id and n == strands for b, n in row.bands)) for row in rows], times)
        if way.from_ == "feet":
            law = band.standing_law()
            yield Band(
                law=law, port=way.port, anchor_port="sole", strands=strands, count=count, hysteresis=band.hysteresis
            )
        else:
            far = _column([row.anchor[1] if row.anchor else 0.0 for row in rows], times)
            high = _column([row.anchor[0].height_m if row.anchor else 0.0 for row in rows], times)
            yield Band(
                law=band.law, port=way.port, anchor=(far, high, 0.0), strands=strands, count=count,
                hysteresis=band.hysteresis,
            )  # fmt: skip


def _column(values: list[float], times: int) -> Array:
    """Return a number for each row, each so many times, as a column (set-ups, 1)."""
    return np.repeat(np.array(values), times)[:, None]


def _springs(way: LoadWay, rows: tuple[Row, ...], times: int) -> Iterator[Load]:
    """Yield one load for every kind of spring that any row hooks on, counts as an array; each row so many times."""
    used = {spring.id: spring for row in rows for spring, _ in row.springs}
    for spring_id, stock in sorted(used.items()):
        count = _column([float(sum(n for s, n in row.springs if s.id == spring_id)) for row in rows], times)
        yield SpringLoad(spring=stock.spring, port=way.port, count=count)


def batches(
    exercise: Exercise, kit: Kit, body: Body, limits: Limits, wanted: Range | None, extra: str = ""
) -> Iterator[Batch]:
    """Yield every batch of set-ups that kit and client admit for an exercise, over the wanted knee range.

    extra: "" for the plain set-ups, else those with that one thing more.
    """
    for way in exercise.ways:
        if limits.no_axial_load and is_axial(way):
            continue
        for machine in _machines(exercise, way, kit):
            picks = _picks(way, kit, machine)
            frames = tuple(
                _racked(exercise, way, kit, tuple(_frames(exercise, way, kit, body, wanted, machine, extra)))
            )
            if frames and picks:
                yield Batch(exercise=exercise, way=way, frames=frames, picks=picks, machine=machine)


def extras_here(exercise: Exercise, kit: Kit, body: Body, wanted: Range | None) -> tuple[str, ...]:
    """Return the words of every extra that an exercise can have on what is here."""
    machines = {id(m): m for way in exercise.ways for m in _machines(exercise, way, kit)}
    return tuple(
        sorted({p.extra for m in machines.values() for p in geometry(exercise, kit, body, wanted, m, extra=None)})
    )


def _racked(exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit, frames: tuple[Row, ...]) -> Iterator[Row]:
    """Yield frames with the rack that a bar on the trunk is taken from, where the exercise itself names none."""
    on_trunk = any(part.stock == "bar" and PORTS[part.port].segment == "trunk" for part in way)
    if not on_trunk or not {"rack", "rack or clean"}.isdisjoint(exercise.needs):
        yield from frames
        return
    for rack in (f for f in kit.furniture if f.kind == "rack"):
        for frame in frames:
            yield replace(frame, furniture=(*frame.furniture, rack))


def is_axial(way: tuple[LoadWay, ...]) -> bool:
    """Return whether a way of loading presses on the spine."""
    return any(PORTS[part.port].axial for part in way)


MACHINES: Mapping[str, str] = {
    "leg extension machine": "leg extension", "seated curl machine": "seated curl", "lying curl machine": "lying curl",
    "standing curl machine": "standing curl", "multi-hip machine": "multi-hip",
    "abduction machine": "abduction machine", "cable pulley": "cable", "belt-squat machine": "belt squat cable",
    "hack squat machine": "hack squat", "bar on rails": "rail bar", "corner for a bar end": "corner pivot",
    "sprung carriage": "sprung carriage",
}  # fmt: skip
"""Which kind of machine meets a need."""


def presses_for(exercise: Exercise, kit: Kit) -> tuple[SledPress, ...]:
    """Return the sled presses of a kit whose rails suit an exercise."""
    low, high = {"level press": (0.0, 15.0), "vertical press": (75.0, 90.0)}.get(
        next((n for n in exercise.needs if n.endswith("press")), ""), (15.0, 75.0)
    )
    return tuple(p for p in kit.presses if low <= p.rail_deg <= high)


def _machines(exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit) -> tuple[Machine | SledPress | None, ...]:
    """Return the machines that a way of loading can be done on; (None,) where it needs none."""
    stocks = {w.stock for w in way}
    if "sled" in stocks:
        return presses_for(exercise, kit)
    kinds = {MACHINES[need] for need in exercise.needs if need in MACHINES}
    if "cable" in stocks and not kinds:
        kinds = {"cable"}
    if stocks & {"stack", "cable", "hack", "rail", "corner", "spring"}:
        found = tuple(m for m in kit.machines if m.kind in kinds)
        if "stack" not in stocks:
            return found
        return tuple(replace(m, dial=dial) for m in found for dial, _ in m.dials)
    return (None,)


def _picks(way: tuple[LoadWay, ...], kit: Kit, machine: Machine | SledPress | None) -> tuple[Pick, ...]:
    stock = next((w for w in way if w.stock not in ELASTIC), None)
    if stock is None:
        return (NOTHING,)
    return picks_of(stock.stock, stock.port, kit, machine)


def picks_of(stock: str, port: str, kit: Kit, machine: Machine | SledPress | None) -> tuple[Pick, ...]:
    """Return every total that a kind of stock makes, lightest first."""
    if stock in ("stack", "cable"):
        assert isinstance(machine, Machine)
        return stack_picks(machine)
    if stock == "rail":
        assert isinstance(machine, Machine)
        return rail_picks(kit, machine)
    if stock in ("sled", "hack"):
        return sled_picks(kit)
    if stock in ("plate", "corner"):
        return plate_picks(kit)
    if stock == "bar":
        return bar_picks(kit)
    if stock == "dumbbells":
        return pair_picks(kit)
    if stock == "one hand":
        return one_hand_picks(kit)
    return single_picks(kit, kettlebells=port in ("goblet", "hip-belt", "hands"))


def _frames(
    exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit, body: Body, wanted: Range | None,
    machine: Machine | SledPress | None, extra: str,
) -> Iterator[Row]:  # fmt: skip
    choices = tuple(_elastic(exercise, way, kit, body))
    identity = "" if machine is None else machine.id
    for place in geometry(exercise, kit, body, wanted, machine, extra):
        for bands, springs, anchor in choices:
            pieces = tuple(_band_piece(band) for band, _ in bands)
            pieces += tuple(Piece(item=s.id, kind="spring", label=s.name, number=n) for s, n in springs)
            dial = f"dial {machine.dial}" if isinstance(machine, Machine) and machine.dial else ""
            words = ", ".join(w for w in (dial, place.words) if w)
            yield Row(
                options=place.options, pieces=pieces, bands=bands, springs=springs, anchor=anchor, machine=identity,
                furniture=place.furniture, things=place.things, place=words, extra=place.extra,
            )  # fmt: skip


Elastic = tuple[tuple[tuple[BandStock, int], ...], tuple[tuple[SpringStock, int], ...], tuple[Anchor, float] | None]
"""Bands with strands, springs with how many, and the anchor used."""


def _elastic(exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit, body: Body) -> Iterator[Elastic]:
    """Yield bands with their strands or springs, one or several together, and the anchor used."""
    part = next((w for w in way if w.stock in ELASTIC), None)
    if part is None:
        yield (), (), None
    elif part.stock == "spring":
        yield from (((), chosen, None) for chosen in spring_sets(kit))
    elif part.from_ == "feet":
        for chosen in band_sets(kit):
            yield tuple((band, 2) for band in chosen), (), None
    else:
        for anchor, band in itertools.product(_anchors(part.from_, kit), kit.bands):
            strands = 2 if band.shape.value == "loop" else 1
            for far in _away(exercise, part.from_, band, anchor, body):
                yield ((band, strands),), (), (anchor, far)


def band_sets(kit: Kit) -> Iterator[tuple[BandStock, ...]]:
    """Yield one to three bands pulled together, as many of each as there are."""
    stock = [band for band in kit.bands for _ in range(min(band.count, MOST_BANDS))]
    seen = set()
    for size in range(1, min(MOST_BANDS, len(stock)) + 1):
        for chosen in itertools.combinations(stock, size):
            key = tuple(band.id for band in chosen)
            if key not in seen:
                seen.add(key)
                yield chosen


def spring_sets(kit: Kit) -> Iterator[tuple[tuple[SpringStock, int], ...]]:
    """Yield every set of springs that can be hooked on together, one or more."""
    counts = [range(s.count + 1) for s in kit.springs]
    for numbers in itertools.product(*counts):
        if any(numbers):
            yield tuple((s, n) for s, n in zip(kit.springs, numbers, strict=True) if n)


LOW_M, BEHIND_M = 0.25, 0.7  # an anchor "under" lies below the first, one "behind" below the second


def _anchors(from_: str, kit: Kit) -> tuple[Anchor, ...]:
    highest = {"eye-under": LOW_M, "eye-behind": BEHIND_M}.get(from_, 5.0)
    return tuple(a for a in kit.anchors if a.height_m <= highest)


def _away(exercise: Exercise, from_: str, band: BandStock, anchor: Anchor, body: Body) -> Iterator[float]:
    """Yield how far ahead of the room's origin (m) an anchor stands: the client moves until the band is right.

    Just straight at the start of the lift, or a fifth longer; nothing where the anchor is too high or low for it.
    """
    if from_ == "eye-under":
        yield 0.1
        return
    (x, y), stretches = _start(exercise, body), (1.0,) if exercise.family == "kneeling" else (1.0, 1.2)
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
        return (-(body.thigh_m + body.shank_m), 0.3) if exercise.variant == "prone" else (body.thigh_m, 0.12)
    return (0.0, 0.1) if exercise.family == "hip rotation leg" else (-0.1, 0.95)


def _band_piece(band: BandStock) -> Piece:
    return Piece(item=band.id, kind="band", label=band.name, number=1)
