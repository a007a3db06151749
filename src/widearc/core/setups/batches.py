"""Every set-up a kit admits for an exercise: geometry with bands and anchors (frames) × totals of
the stock (totals).
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Any, TypeVar

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import PORTS, Body, Limits
from widearc.core.equipment import (
    Band,
    FreeMass,
    Load,
    SpringLoad,
)
from widearc.core.exercises import Exercise, LoadWay
from widearc.core.geometry import slope
from widearc.core.kit import (
    BELL_PORTS,
    MACHINES,
    STOCKS,
    Anchor,
    Kit,
    Machine,
    On,
    Piece,
    SledPress,
    Total,
    is_axial,
    lever_load,
    presses_for,
)
from widearc.core.movement import Setup, move
from widearc.core.setups.frames import LoadedSetup, Pull, SetupTable, UnloadedSetups, table_of
from widearc.core.setups.geometry import Geometry, Range, geometries
from widearc.core.setups.pulls import (
    ELASTIC,
    FOLDED,
    LEADS_M,
    band_piece,
    chain_words,
    elastic,
    elastic_extras,
)
from widearc.core.units import DEG

T = TypeVar("T")
NOTHING = Total(kg=0.0)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Batch:
    """Set-ups of one exercise and one way of loading: every frame with every pick. machine: what it
    is done on.
    """

    exercise: Exercise
    way: tuple[LoadWay, ...]
    frames: Sequence[LoadedSetup]
    totals: tuple[Total, ...] = (NOTHING,)
    machine: On = None

    @property
    def stock(self) -> str:
        """Return what the totals are made of: bar, dumbbells, sled and so on; empty where they are
        not.
        """
        return next((w.stock for w in self.way if w.stock not in ELASTIC), "")

    @property
    def size(self) -> int:
        """Return how many set-ups this is."""
        return len(self.frames) * len(self.totals)

    def row(self, frame: int, pick: int) -> LoadedSetup:
        """Return one set-up."""
        return self.frames[frame].with_total(self.totals[pick])

    def setup(
        self,
        body: Body,
        limits: Limits,
        rows: Sequence[LoadedSetup],
        samples: int = 101,
        kg: Array | None = None,
    ) -> Setup:
        """Return set-ups of this batch as one of arrays; kg: totals each of which loads every row
        in turn.
        """
        times = 1 if kg is None else len(kg)
        table = table_of(rows)
        options: dict[str, Any] = {}
        for name, value in table.places[0].options.items():
            each = [place.options[name] for place in table.places]
            # what is equal for all stays one number: arrays of it would be solved for nothing
            alike = isinstance(value, str) or each.count(value) == len(each)
            options[name] = (
                value if alike else np.repeat(np.array(each, dtype=float)[table.at_place], times)
            )
        totals = np.array([row.kg for row in rows]) if kg is None else np.tile(kg, len(rows))
        lead = rows[0].lead_m
        setup = Setup(
            exercise=self.exercise,
            body=body,
            limits=limits,
            options=options,
            loads=tuple(self._loads(table, totals[:, None], times, lead)),
            samples=samples,
        )
        return setup.repeated(len(rows) * times)

    def _loads(self, table: SetupTable, kg: Array, times: int, lead_m: float) -> Iterator[Load]:
        for way in self.way:
            if way.stock not in ELASTIC:
                yield STOCKS[way.stock].load(way, self.machine, kg)
        for way in self.way:
            if way.stock == "band":
                yield from _bands(way, table, times, lead_m)
            elif way.stock == "spring":
                yield from _springs(way, table, times)


def _bands(way: LoadWay, table: SetupTable, times: int, lead_m: float) -> Iterator[Load]:
    """Yield one band load for every band and folding that any row uses, counts as an array; each
    row so many times.
    """
    ends = [pull.anchor for pull in table.pulls]
    far, high = (
        _column(table.of_pulls(values), times)
        for values in (
            [end[1] if end else 0.0 for end in ends],
            [end[0].height_m if end else 0.0 for end in ends],
        )
    )
    for (_, strands), (band, number) in table.counts.items():
        count = _column(number, times)
        if way.from_ == "feet":
            law = band.standing_law()
            yield Band(
                law=law,
                port=way.port,
                anchor_port="sole",
                strands=strands,
                count=count,
                hysteresis=band.hysteresis,
            )
        elif way.from_ == "thighs":
            yield Band(
                law=band.law,
                port=way.port,
                anchor_port=way.port,
                strands=strands,
                count=count,
                hysteresis=band.hysteresis,
            )
        else:
            yield Band(
                law=band.law,
                port=way.port,
                anchor=(far, high, 0.0),
                strands=strands,
                count=count,
                hysteresis=band.hysteresis,
                lead_m=lead_m,
            )


def _column(values: Array, times: int) -> Array:
    """Return a number for each row, each so many times, as a column (set-ups, 1)."""
    return np.repeat(values, times)[:, None]


def _springs(way: LoadWay, table: SetupTable, times: int) -> Iterator[Load]:
    """Yield one load for every kind of spring that any row hooks on, counts as an array; each row
    so many times.
    """
    used = {spring.id: spring for pull in table.pulls for spring, _ in pull.springs}
    for spring_id, stock in sorted(used.items()):
        number = [
            float(sum(n for s, n in pull.springs if s.id == spring_id)) for pull in table.pulls
        ]
        yield SpringLoad(
            spring=stock.spring, port=way.port, count=_column(table.of_pulls(number), times)
        )


def batches_of(
    exercise: Exercise,
    kit: Kit,
    body: Body,
    limits: Limits,
    wanted: Range | None,
    extra: str = "",
    listed: OnceCache | None = None,
) -> Iterator[Batch]:
    """Yield every batch of set-ups that kit and client admit for an exercise, over the wanted knee
    range.

    extra: "" for the plain set-ups, else those with that one thing more. listed: for others of the
    same kit, client and range before.
    """
    listed = OnceCache() if listed is None else listed
    for way in exercise.ways:
        if limits.no_axial_load and is_axial(way):
            continue
        for machine in _machines(exercise, way, kit):
            totals = _totals(way, kit, machine, listed)
            plain = _frames(exercise, way, kit, body, wanted, machine, extra, listed)
            frames = _racked(exercise, way, kit, plain)
            if not (frames and totals):
                continue
            if isinstance(machine, Machine) and any(part.stock == "lever" for part in way):
                # where its pivot lies from the body depends on the set-up
                for frame in frames:
                    there = with_pivot(
                        exercise, way, machine, frame, body, limits, totals[len(totals) // 2].kg
                    )
                    yield Batch(
                        exercise=exercise, way=way, frames=(frame,), totals=totals, machine=there
                    )
            elif isinstance(machine, SledPress) and any(part.from_ == "frame" for part in way):
                pegged = with_pegs(exercise, way, machine, frames, body, limits)
                yield Batch(
                    exercise=exercise, way=way, frames=pegged, totals=totals, machine=machine
                )
            else:
                yield Batch(
                    exercise=exercise, way=way, frames=frames, totals=totals, machine=machine
                )


PIVOT_BEHIND: Mapping[str, bool] = {
    "hip thrust machine": True,
    "standing calf": True,
    "seated calf": False,
    "belt squat lever": False,
}
"""Whether a lever's pivot lies behind the person or ahead (assumed, as most are built: common
practice, no source).
"""


def with_pivot(
    exercise: Exercise,
    way: tuple[LoadWay, ...],
    machine: Machine,
    frame: LoadedSetup,
    body: Body,
    limits: Limits,
    middle_kg: float,
) -> Machine:
    """Return a lever machine with its pivot placed (m in the room): where its arm meets the body at
    the start.

    So far from the pad and so high over level as it was measured; an arc squat's place is in its
    options.
    """
    q = machine.quantities
    if exercise.family == "arc squat":
        x, y = (
            float(frame.options.get(name, exercise.options[name].default))
            for name in ("pivot_x_m", "pivot_y_m")
        )
    else:
        port = next(part.port for part in way if part.stock == "lever")
        arm = q.get("user_arm_m", 0.4) * slope(q.get("angle_deg", 0.0) * DEG)
        arm = arm if PIVOT_BEHIND[machine.kind] else arm * np.array([-1.0, 1.0])
        load: Load = FreeMass(kg=0.0, port=port)
        # a standing body leans with its load: a second round brings pivot and shoulders within some
        # 2 cm
        for _ in range(2 if exercise.family == "calf" and exercise.variant == "" else 1):
            tried = Setup(
                exercise=exercise,
                body=body,
                limits=limits,
                options=frame.options,
                samples=11,
                loads=(load,),
            )
            motion = move(tried, strict=False)
            point = next(
                motion.full(f.point)[:, 0, 0] for f in motion.forces if f.source == "load 0"
            )
            x, y = (float(v) if np.isfinite(v) else 0.0 for v in point - arm)
            load = lever_load(machine, (x, y), middle_kg, port)
    # a set-up that cannot be had is placed anywhere: it fails by itself, with its own reason
    return replace(machine, quantities=MappingProxyType({**q, "pivot_x_m": x, "pivot_y_m": y}))


def with_pegs(
    exercise: Exercise,
    way: tuple[LoadWay, ...],
    press: SledPress,
    frames: Sequence[LoadedSetup],
    body: Body,
    limits: Limits,
) -> tuple[LoadedSetup, ...]:
    """Return frames with the press's own peg as the anchor of their band: so far down the rails
    from the plate.
    """
    assert press.peg_m is not None
    sled = tuple(part for part in way if part.stock == "sled")
    bare = Batch(exercise=exercise, way=sled, frames=frames, machine=press).setup(
        body, limits, frames, samples=11
    )
    start = move(bare, strict=False).points["plate"][..., 0]
    x, y = start - press.peg_m * slope(press.rail_deg * DEG)[:, None]
    return tuple(
        replace(
            frame,
            anchor=(
                Anchor(id=press.id, name="the press's frame", height_m=float(y[i])),
                float(x[i]),
            ),
        )
        for i, frame in enumerate(frames)
    )


def extras_here(exercise: Exercise, kit: Kit, body: Body, wanted: Range | None) -> tuple[str, ...]:
    """Return the words of every extra that an exercise can have on what is here."""
    machines = {id(m): m for way in exercise.ways for m in _machines(exercise, way, kit)}
    placed = {
        p.extra
        for m in machines.values()
        for p in geometries(exercise, kit, body, wanted, m, extra=None)
    }
    pulled = (
        {extra for way in exercise.ways for extra in elastic_extras(way)} if kit.bands else set()
    )
    return tuple(sorted(placed | pulled))


def _racked(
    exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit, frames: UnloadedSetups
) -> UnloadedSetups:
    """Return frames with the rack that a bar on the trunk is taken from, where the exercise itself
    names none.
    """
    on_trunk = any(part.stock == "bar" and PORTS[part.port].segment == "trunk" for part in way)
    if not on_trunk or not {"rack", "rack or clean"}.isdisjoint(exercise.needs):
        return frames
    racks = [f for f in kit.furniture if f.kind == "rack"]
    places = (
        replace(place, furniture=(*place.furniture, rack))
        for rack in racks
        for place in frames.places
    )
    return replace(frames, places=tuple(places))


def _machines(exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit) -> tuple[On, ...]:
    """Return the machines that a way of loading can be done on; (None,) where it needs none."""
    stocks = {w.stock for w in way}
    if "sled" in stocks:
        pegged = any(w.from_ == "frame" for w in way)
        return tuple(p for p in presses_for(exercise, kit) if p.peg_m is not None or not pegged)
    kinds = {MACHINES[need] for need in exercise.needs if need in MACHINES}
    if "cable" in stocks and not kinds:
        kinds = {"cable"}
    if stocks & {"stack", "cable", "hack", "rail", "corner", "spring", "lever", "pendulum"}:
        found = tuple(m for m in kit.machines if m.kind in kinds)
        if "stack" not in stocks:
            return found
        return tuple(replace(m, dial=dial) for m in found for dial, _ in m.dials)
    return (None,)


class OnceCache:
    """What ways and exercises share: the totals of the stock, places and pulls, each listed
    once.
    """

    def __init__(self) -> None:
        self._known: dict[tuple[object, ...], tuple[Any, ...]] = {}

    def once(self, key: tuple[object, ...], make: Callable[[], Iterable[T]]) -> tuple[T, ...]:
        """Return what is listed under a key, or list what `make` gives."""
        if key not in self._known:
            self._known[key] = tuple(make())
        return self._known[key]


def _totals(
    way: tuple[LoadWay, ...], kit: Kit, machine: On, listed: OnceCache
) -> tuple[Total, ...]:
    stock = next((w for w in way if w.stock not in ELASTIC), None)
    if stock is None:
        return (NOTHING,)
    own = machine.id if machine is not None and STOCKS[stock.stock].own_totals else ""
    key = "totals", stock.stock, stock.port in BELL_PORTS, stock.port == "thigh", own
    return listed.once(key, lambda: totals_of(stock.stock, stock.port, kit, machine))


def totals_of(stock: str, port: str, kit: Kit, machine: On) -> tuple[Total, ...]:
    """Return every total that a sort of stock makes, lightest first."""
    return STOCKS[stock].totals(kit, machine, port)


def _frames(
    exercise: Exercise,
    way: tuple[LoadWay, ...],
    kit: Kit,
    body: Body,
    wanted: Range | None,
    machine: On,
    extra: str,
    listed: OnceCache,
) -> UnloadedSetups:
    of_band = extra in elastic_extras(way)
    identity = "" if machine is None else machine.id
    dial = f"dial {machine.dial}" if isinstance(machine, Machine) and machine.dial else ""
    geometric = "" if of_band else extra
    places = listed.once(
        ("places", exercise.id, identity, dial, geometric),
        lambda: _dialled(geometries(exercise, kit, body, wanted, machine, geometric), dial),
    )
    if of_band:
        places = tuple(
            replace(p, words=", ".join(w for w in (p.words, extra) if w)) for p in places
        )
    pulled = next(((w.stock, w.from_) for w in way if w.stock in ELASTIC), ("", ""))
    # bands that are stood on are pulled alike on every exercise; where others are tied depends on
    # it
    whose = "" if pulled[1] in ("", "feet") else exercise.id
    pulls = listed.once(
        ("pulls", *pulled, whose, len(way) > 1, extra == FOLDED),
        lambda: _pulls(exercise, way, kit, body, fold=of_band and extra == FOLDED),
    )
    return UnloadedSetups(
        places=places,
        pulls=pulls,
        machine=identity,
        extra=extra,
        lead_m=next((m for m in LEADS_M if chain_words(m) == extra), 0.0),
    )


def _dialled(places: Iterable[Geometry], dial: str) -> Iterator[Geometry]:
    for place in places:
        yield (
            replace(place, words=", ".join(w for w in (dial, place.words) if w)) if dial else place
        )


def _pulls(
    exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit, body: Body, *, fold: bool
) -> Iterator[Pull]:
    for bands, springs, anchor in elastic(exercise, way, kit, body, fold=fold):
        pieces = (
            *(band_piece(band) for band, _ in bands),
            *(
                Piece(item=spring.id, kind="spring", label=spring.name, number=n)
                for spring, n in springs
            ),
        )
        yield Pull(bands=bands, springs=springs, anchor=anchor, pieces=pieces)
