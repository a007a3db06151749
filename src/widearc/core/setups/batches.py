"""Every set-up a kit admits for an exercise: geometry with bands and anchors (frames) × totals of
the stock (picks).
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
    Cable,
    CornerBar,
    FreeMass,
    Lever,
    Load,
    Pendulum,
    Sled,
    SpringLoad,
    Stack,
)
from widearc.core.exercises import Exercise, LoadWay
from widearc.core.geometry import slope
from widearc.core.kit import (
    MACHINES,
    Anchor,
    Kit,
    Machine,
    Pick,
    Piece,
    SledPress,
    bar_picks,
    is_axial,
    one_hand_picks,
    pair_picks,
    plate_picks,
    presses_for,
    rail_picks,
    single_picks,
    sled_picks,
    stack_picks,
    unequal_picks,
)
from widearc.core.movement import Setup, move
from widearc.core.setups.frames import Frames, Pull, Row, RowTable, table_of
from widearc.core.setups.geometry import Place, Range, geometry
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
NOTHING = Pick(kg=0.0)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Batch:
    """Set-ups of one exercise and one way of loading: every frame with every pick. machine: what it
    is done on.
    """

    exercise: Exercise
    way: tuple[LoadWay, ...]
    frames: Sequence[Row]
    picks: tuple[Pick, ...] = (NOTHING,)
    machine: Machine | SledPress | None = None

    @property
    def stock(self) -> str:
        """Return what the picks are made of: bar, dumbbells, sled and so on; empty where they are
        not.
        """
        return next((w.stock for w in self.way if w.stock not in ELASTIC), "")

    @property
    def size(self) -> int:
        """Return how many set-ups this is."""
        return len(self.frames) * len(self.picks)

    def row(self, frame: int, pick: int) -> Row:
        """Return one set-up."""
        return self.frames[frame].with_pick(self.picks[pick])

    def setup(
        self,
        body: Body,
        limits: Limits,
        rows: Sequence[Row],
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

    def _loads(self, table: RowTable, kg: Array, times: int, lead_m: float) -> Iterator[Load]:
        for way in self.way:
            if way.stock not in ELASTIC:
                yield self._mass(way, kg)
        for way in self.way:
            if way.stock == "band":
                yield from _bands(way, table, times, lead_m)
            elif way.stock == "spring":
                yield from _springs(way, table, times)

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
        if way.stock == "lever":
            return Lever(
                pivot=(q["pivot_x_m"], q["pivot_y_m"]),
                kg=kg,
                arm_m=q.get("arm_m", 1.0),
                angle_deg=q.get("angle_deg", 0.0),
                own_kg=q.get("arm_kg", 0.0),
                own_arm_m=q.get("user_arm_m", 0.4),
                own_angle_deg=q.get("angle_deg", 0.0),
                port=way.port,
            )
        if way.stock == "pendulum":
            return Pendulum(kg=kg + q.get("arm_kg", 0.0), arm_m=q.get("arm_m", 0.9))
        if way.stock == "cable":
            high = float(q.get("height_m", 0.0))
            far = _FAR.get(way.from_, 0.1)
            return Cable(
                kg=kg,
                port=way.port,
                pulley=(far, high),
                ratio=float(q.get("ratio", 1.0)),
                friction=friction,
            )
        if way.stock == "corner":
            return CornerBar(
                plate_kg=kg,
                bar_kg=q.get("bar_kg", 20.0),
                bar_m=q.get("length_m", 2.2),
                sleeve_m=q.get("sleeve_m", 2.0),
                hand_m=q.get("hand_m", 2.1),
                port=way.port,
            )
        return FreeMass(kg=kg, port=way.port)


_FAR: Mapping[str, float] = {"ahead": 1.0, "behind": -0.8, "under": 0.1}
"""How far ahead of the room's origin a pulley stands, m (assumed; by where the exercise needs
it).
"""


def _bands(way: LoadWay, table: RowTable, times: int, lead_m: float) -> Iterator[Load]:
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


def _springs(way: LoadWay, table: RowTable, times: int) -> Iterator[Load]:
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


def batches(
    exercise: Exercise,
    kit: Kit,
    body: Body,
    limits: Limits,
    wanted: Range | None,
    extra: str = "",
    listed: Listed | None = None,
) -> Iterator[Batch]:
    """Yield every batch of set-ups that kit and client admit for an exercise, over the wanted knee
    range.

    extra: "" for the plain set-ups, else those with that one thing more. listed: for others of the
    same kit, client and range before.
    """
    listed = Listed() if listed is None else listed
    for way in exercise.ways:
        if limits.no_axial_load and is_axial(way):
            continue
        for machine in _machines(exercise, way, kit):
            picks = _picks(way, kit, machine, listed)
            plain = _frames(exercise, way, kit, body, wanted, machine, extra, listed)
            frames = _racked(exercise, way, kit, plain)
            if not (frames and picks):
                continue
            if isinstance(machine, Machine) and any(part.stock == "lever" for part in way):
                # where its pivot lies from the body depends on the set-up
                for frame in frames:
                    there = with_pivot(
                        exercise, way, machine, frame, body, limits, picks[len(picks) // 2].kg
                    )
                    yield Batch(
                        exercise=exercise, way=way, frames=(frame,), picks=picks, machine=there
                    )
            elif isinstance(machine, SledPress) and any(part.from_ == "frame" for part in way):
                pegged = with_pegs(exercise, way, machine, frames, body, limits)
                yield Batch(exercise=exercise, way=way, frames=pegged, picks=picks, machine=machine)
            else:
                yield Batch(exercise=exercise, way=way, frames=frames, picks=picks, machine=machine)


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
    frame: Row,
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
            load = Lever(
                pivot=(x, y),
                kg=middle_kg,
                arm_m=q.get("arm_m", 1.0),
                angle_deg=q.get("angle_deg", 0.0),
                own_kg=q.get("arm_kg", 0.0),
                own_arm_m=q.get("user_arm_m", 0.4),
                own_angle_deg=q.get("angle_deg", 0.0),
                port=port,
            )
    # a set-up that cannot be had is placed anywhere: it fails by itself, with its own reason
    return replace(machine, quantities=MappingProxyType({**q, "pivot_x_m": x, "pivot_y_m": y}))


def with_pegs(
    exercise: Exercise,
    way: tuple[LoadWay, ...],
    press: SledPress,
    frames: Sequence[Row],
    body: Body,
    limits: Limits,
) -> tuple[Row, ...]:
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
        for p in geometry(exercise, kit, body, wanted, m, extra=None)
    }
    pulled = (
        {extra for way in exercise.ways for extra in elastic_extras(way)} if kit.bands else set()
    )
    return tuple(sorted(placed | pulled))


def _racked(exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit, frames: Frames) -> Frames:
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


def _machines(
    exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit
) -> tuple[Machine | SledPress | None, ...]:
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


class Listed:
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


BELL_PORTS = ("goblet", "hip-belt", "hands")  # where a kettlebell can be held as well as a dumbbell
OWN_TOTALS = ("stack", "cable", "rail", "pendulum")  # what these make depends on the machine


def _picks(
    way: tuple[LoadWay, ...], kit: Kit, machine: Machine | SledPress | None, listed: Listed
) -> tuple[Pick, ...]:
    stock = next((w for w in way if w.stock not in ELASTIC), None)
    if stock is None:
        return (NOTHING,)
    own = machine.id if machine is not None and stock.stock in OWN_TOTALS else ""
    key = "totals", stock.stock, stock.port in BELL_PORTS, stock.port == "thigh", own
    return listed.once(key, lambda: picks_of(stock.stock, stock.port, kit, machine))


def picks_of(
    stock: str, port: str, kit: Kit, machine: Machine | SledPress | None
) -> tuple[Pick, ...]:
    """Return every total that a kind of stock makes, lightest first."""
    if stock in ("stack", "cable"):
        assert isinstance(machine, Machine)
        return stack_picks(machine)
    if stock == "rail":
        assert isinstance(machine, Machine)
        return rail_picks(kit, machine)
    if stock in ("sled", "hack") or (stock == "lever" and port != "thigh"):
        return sled_picks(kit)
    if stock == "pendulum":
        own = machine.quantities.get("arm_kg", 0.0) if isinstance(machine, Machine) else 0.0
        return tuple(p for p in plate_picks(kit) if p.kg + own > 0)
    if stock in ("plate", "corner", "lever"):
        return plate_picks(kit)
    if stock == "bar":
        return bar_picks(kit)
    if stock == "dumbbells":
        return pair_picks(kit)
    if stock == "one hand":
        return one_hand_picks(kit)
    if stock == "unequal pair":
        return unequal_picks(kit)
    return single_picks(kit, kettlebells=port in BELL_PORTS)


def _frames(
    exercise: Exercise,
    way: tuple[LoadWay, ...],
    kit: Kit,
    body: Body,
    wanted: Range | None,
    machine: Machine | SledPress | None,
    extra: str,
    listed: Listed,
) -> Frames:
    of_band = extra in elastic_extras(way)
    identity = "" if machine is None else machine.id
    dial = f"dial {machine.dial}" if isinstance(machine, Machine) and machine.dial else ""
    geometric = "" if of_band else extra
    places = listed.once(
        ("places", exercise.id, identity, dial, geometric),
        lambda: _dialled(geometry(exercise, kit, body, wanted, machine, geometric), dial),
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
    return Frames(
        places=places,
        pulls=pulls,
        machine=identity,
        extra=extra,
        lead_m=next((m for m in LEADS_M if chain_words(m) == extra), 0.0),
    )


def _dialled(places: Iterable[Place], dial: str) -> Iterator[Place]:
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
