"""Every set-up a kit admits for an exercise: geometry × loads, as arrays for one batch."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from widearc.core.body import PORTS, Body, Limits
from widearc.core.catalogue import Exercise, LoadWay
from widearc.core.equipment import Band, FreeMass, Load
from widearc.core.movement import Setup
from widearc.core.movement.knee_rotation import clear_of_floor_deg
from widearc.core.substitution.kit import (
    Anchor,
    BandStock,
    Furniture,
    Kit,
    Pick,
    Piece,
    bar_picks,
    pair_picks,
    single_picks,
)

HIP_OVER_SEAT_M = 0.09  # hip centre over the seat's top (assumed: half a thigh's depth)
SPLIT_STEPS = (0.55, 0.65, 0.75, 0.85)
SPLIT_LEANS = (10.0, 25.0)
SPLIT_BACK = (0.35, 0.45)


@dataclass(frozen=True, slots=True, kw_only=True)
class Range:
    """The knee range the target asks for, degrees; lengthened end first."""

    from_deg: float
    to_deg: float


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Row:
    """One set-up: its options (degrees, metres), pieces to pick up, and words about geometry."""

    options: Mapping[str, float | str]
    pieces: tuple[Piece, ...] = ()
    kg: float = 0.0
    bands: tuple[tuple[BandStock, int], ...] = ()
    anchor: tuple[Anchor, float] | None = None
    furniture: tuple[Furniture, ...] = ()
    place: str = ""

    def items(self) -> tuple[str, ...]:
        """Return the ids of everything the set-up uses."""
        used = [piece.item for piece in self.pieces]
        used += [self.anchor[0].id] if self.anchor else []
        return (*used, *(f.id for f in self.furniture))


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Batch:
    """Set-ups of one exercise and one way of loading, ready for one call of `curve`."""

    exercise: Exercise
    way: tuple[LoadWay, ...]
    rows: tuple[Row, ...]

    def setup(self, body: Body, limits: Limits, which: slice | list[int] = slice(None), samples: int = 101) -> Setup:
        """Return the rows (all, or those of `which`) as one set-up of arrays."""
        rows = self.rows[which] if isinstance(which, slice) else tuple(self.rows[i] for i in which)
        options = {
            name: np.array([float(row.options[name]) for row in rows]) if isinstance(value, int | float) else value
            for name, value in rows[0].options.items()
        }
        loads = tuple(self._loads(rows))
        return Setup(
            exercise=self.exercise,
            body=body,
            limits=limits,
            options=options,
            loads=loads,
            samples=samples,
        )

    def _loads(self, rows: tuple[Row, ...]) -> Iterator[Load]:
        for way in self.way:
            if way.stock != "band":
                yield FreeMass(kg=np.array([[row.kg] for row in rows]), port=way.port)
        for way in self.way:
            if way.stock == "band":
                yield from _bands(way, rows)


def _bands(way: LoadWay, rows: tuple[Row, ...]) -> Iterator[Load]:
    """Yield one band load for every band and folding that any row uses, counts as an array."""
    used = {(band.id, strands): band for row in rows for band, strands in row.bands}
    for (band_id, strands), band in sorted(used.items(), key=lambda item: item[0]):
        count = np.array([[float(sum(b.id == band_id and n == strands for b, n in row.bands))] for row in rows])
        if way.from_ == "feet":
            law = band.standing_law()
            yield Band(
                law=law, port=way.port, anchor_port="sole", strands=strands, count=count, hysteresis=band.hysteresis
            )
        else:
            far = np.array([[row.anchor[1] if row.anchor else 0.0] for row in rows])
            high = np.array([[row.anchor[0].height_m if row.anchor else 0.0] for row in rows])
            yield Band(
                law=band.law, port=way.port, anchor=(far, high, 0.0), strands=strands, count=count,
                hysteresis=band.hysteresis,
            )  # fmt: skip


def batches(exercise: Exercise, kit: Kit, body: Body, limits: Limits, wanted: Range | None) -> Iterator[Batch]:
    """Yield every batch of set-ups that kit and client admit for an exercise, over the wanted knee range."""
    for way in exercise.ways:
        if limits.no_axial_load and is_axial(way):
            continue
        rows = tuple(_rows(exercise, way, kit, body, wanted))
        if rows:
            yield Batch(exercise=exercise, way=way, rows=rows)


def is_axial(way: tuple[LoadWay, ...]) -> bool:
    """Return whether a way of loading presses on the spine."""
    return any(PORTS[part.port].axial for part in way)


def _rows(exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit, body: Body, wanted: Range | None) -> Iterator[Row]:
    geometry = tuple(_geometry(exercise, kit, body, wanted))
    masses = _masses(way, kit)
    bands = tuple(_band_choices(way, kit, body))
    for (options, place, furniture), pick, (used, anchor) in itertools.product(geometry, masses, bands):
        pieces = pick.pieces + tuple(_band_piece(band) for band, _ in used)
        yield Row(
            options=options, pieces=pieces, kg=pick.kg, bands=used, anchor=anchor, place=place, furniture=furniture
        )


def _masses(way: tuple[LoadWay, ...], kit: Kit) -> tuple[Pick, ...]:
    stock = next((w for w in way if w.stock != "band"), None)
    if stock is None:
        return (Pick(kg=0.0),)
    if stock.stock == "bar":
        return bar_picks(kit)
    if stock.stock == "dumbbells":
        return pair_picks(kit)
    return single_picks(kit, kettlebells=stock.port == "goblet")


def _band_choices(
    way: tuple[LoadWay, ...], kit: Kit, body: Body
) -> Iterator[tuple[tuple[tuple[BandStock, int], ...], tuple[Anchor, float] | None]]:
    """Yield bands with their strands, one or two different ones together, and the anchor used."""
    band_way = next((w for w in way if w.stock == "band"), None)
    if band_way is None:
        yield (), None
        return
    if band_way.from_ == "feet":
        for size in (1, 2):
            for chosen in itertools.combinations(kit.bands, size):
                yield tuple((band, 2) for band in chosen), None
        return
    shoulder_m = body.ankle_height_m + body.thigh_m + body.trunk_m
    for anchor, band in itertools.product(kit.anchors, kit.bands):
        strands = 2 if band.shape.value == "loop" else 1
        rise = anchor.height_m - shoulder_m
        # kneel where the band is just straight when upright, else it pulls the body over its knees
        if abs(rise) < band.law.rest_m:
            away = float(np.sqrt(band.law.rest_m**2 - rise**2))
            yield ((band, strands),), (anchor, body.shank_m + away)


def _band_piece(band: BandStock) -> Piece:
    return Piece(item=band.id, kind="band", label=band.name, number=1)


Geometry = tuple[dict[str, float | str], str, tuple[Furniture, ...]]
"""Options (degrees, metres), the set-up in words, and the furniture it uses."""

LOW_STEP_M, STEP_M = 0.2, 0.35  # highest box to stand on for a deficit, and for calves or feet (assumed)


def _geometry(exercise: Exercise, kit: Kit, body: Body, wanted: Range | None) -> Iterator[Geometry]:
    """Yield options, words and furniture for the geometry, over the knee range that is wanted."""
    specs = exercise.options
    if exercise.family == "kneeling":
        deepest = 45.0 if wanted is None else max(10.0, min(45.0, wanted.from_deg - 90.0))
        for lean in sorted({deepest, 30.0, 45.0}):
            yield {"lean_from_deg": lean}, f"lean to {lean:.0f}°", ()
        return
    if "knee_from_deg" not in specs or exercise.prime[0].direction > 0:
        # nothing to fit to a knee range: its own range, on the furniture that is there
        yield from _furnished(exercise, kit)
        return
    low, high = specs["knee_from_deg"].low, specs["knee_from_deg"].high
    start = float(np.clip(round(wanted.from_deg, 1) if wanted else float(specs["knee_from_deg"].default), low, high))
    end = float(specs["knee_to_deg"].default)
    if wanted is not None and max(round(wanted.to_deg, 1), specs["knee_to_deg"].low) <= start - 20:
        end = max(round(wanted.to_deg, 1), specs["knee_to_deg"].low)
    if exercise.family == "split":
        yield from _splits(exercise, kit, start, end)
    elif "seat" in exercise.needs:
        for seat in _seats(kit):
            hip = seat.height_m + HIP_OVER_SEAT_M
            clear = min(start, clear_of_floor_deg(body, hip))
            if clear > end + 10:
                words = f"on the {seat.name.lower()}"
                yield {"seat_m": hip, "knee_from_deg": clear, "knee_to_deg": end}, words, (seat,)
    else:
        yield {"knee_from_deg": start, "knee_to_deg": end}, "", ()


def _splits(exercise: Exercise, kit: Kit, start: float, end: float) -> Iterator[Geometry]:
    """Yield split squats: step, lean, hip place and depth, the rear foot on the floor or on each bench."""
    depths = sorted({start, min(start, 95.0), min(start, 85.0)})
    benches: list[Furniture | None] = [None]
    if "bench" in exercise.needs:
        benches = [f for f in kit.furniture if f.kind == "bench" and f.height_m <= 0.6]
    for bench in benches:
        raised = {} if bench is None else {"rear_m": bench.height_m}
        behind = "" if bench is None else f", rear foot on the {bench.name.lower()}"
        for step, lean, back, depth in itertools.product(SPLIT_STEPS, SPLIT_LEANS, SPLIT_BACK, depths):
            options = {"step_m": step, "trunk_lean_deg": lean, "hip_back": back, **raised}
            words = f"step {100 * step:.0f} cm{behind}"
            yield {**options, "knee_from_deg": depth, "knee_to_deg": end}, words, () if bench is None else (bench,)


def _furnished(exercise: Exercise, kit: Kit) -> Iterator[Geometry]:
    """Yield the exercise's own range on every bench and step that its set-up takes."""
    specs = exercise.options
    benches = [f for f in kit.furniture if f.kind == "bench"] if "bench" in exercise.needs else [None]
    highest = LOW_STEP_M if "trunk_from_deg" in specs else STEP_M
    steps = (
        [f for f in kit.furniture if f.kind == "box" and f.height_m <= highest] if "step" in exercise.needs else [None]
    )
    for bench, step in itertools.product(benches, steps):
        options: dict[str, float | str] = {}
        words = []
        if bench is not None:
            words.append(f"on the {bench.name.lower()}")
            if "bench_m" in specs:
                options["bench_m"] = bench.height_m
        if step is not None:
            name = next(n for n in ("foot_m", "box_m", "step_m") if n in specs)
            options[name] = min(step.height_m, specs[name].high)
            words.append(f"feet on the {step.name.lower()}")
        yield options, ", ".join(words), tuple(f for f in (bench, step) if f is not None)


def _seats(kit: Kit) -> tuple[Furniture, ...]:
    return tuple(f for f in kit.furniture if f.kind in ("bench", "box") and 0.3 <= f.height_m <= 1.0)
