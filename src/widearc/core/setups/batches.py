"""Every set-up a kit admits for an exercise: geometry with bands and anchors (unloaded) × totals of
the stock (totals).
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace
from typing import Any, TypeVar

from widearc.core.body import PORTS, Body, Limits
from widearc.core.exercises import Exercise, LoadWay
from widearc.core.kit import (
    BELL_PORTS,
    STOCKS,
    Kit,
    Machine,
    On,
    Piece,
    SledPress,
    Total,
    is_axial,
)
from widearc.core.setups.batch import NOTHING, Batch
from widearc.core.setups.geometry import Geometry, Range, geometries
from widearc.core.setups.machines import _machines, with_pegs, with_pivot
from widearc.core.setups.pulls import (
    ELASTIC,
    FOLDED,
    LEADS_M,
    band_piece,
    chain_words,
    differing,
    elastic,
    elastic_extras,
    most_pulls,
)
from widearc.core.setups.unloaded import Pull, UnloadedSetups
from widearc.core.words import UNSAID, Name, Said, joined

T = TypeVar("T")


def batches_of(
    exercise: Exercise,
    kit: Kit,
    body: Body,
    limits: Limits,
    wanted: Range | None,
    extra: Said = UNSAID,
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
            plain = _unloaded(exercise, way, kit, body, wanted, machine, extra, listed)
            unloaded = _racked(exercise, way, kit, plain)
            if not (unloaded and totals):
                continue
            if isinstance(machine, Machine) and any(part.stock == "lever" for part in way):
                # where its pivot lies from the body depends on the set-up
                for bare in unloaded:
                    there = with_pivot(
                        exercise, way, machine, bare, body, limits, totals[len(totals) // 2].kg
                    )
                    yield Batch(
                        exercise=exercise, way=way, unloaded=(bare,), totals=totals, machine=there
                    )
            elif isinstance(machine, SledPress) and any(part.from_ == "frame" for part in way):
                pegged = with_pegs(exercise, way, machine, unloaded, body, limits)
                yield Batch(
                    exercise=exercise, way=way, unloaded=pegged, totals=totals, machine=machine
                )
            else:
                yield Batch(
                    exercise=exercise, way=way, unloaded=unloaded, totals=totals, machine=machine
                )


def extras_here(exercise: Exercise, kit: Kit, body: Body, wanted: Range | None) -> tuple[Said, ...]:
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
    return tuple(sorted(placed | pulled, key=repr))


def _racked(
    exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit, unloaded: UnloadedSetups
) -> UnloadedSetups:
    """Return set-ups with the rack that a bar on the trunk is taken from, where the exercise itself
    names none.
    """
    on_trunk = any(part.stock == "bar" and PORTS[part.port].segment == "trunk" for part in way)
    if not on_trunk or not {"rack", "rack or clean"}.isdisjoint(exercise.needs):
        return unloaded
    racks = [f for f in kit.furniture if f.kind == "rack"]
    geometries = (
        replace(geometry, furniture=(*geometry.furniture, rack))
        for rack in racks
        for geometry in unloaded.geometries
    )
    return replace(unloaded, geometries=tuple(geometries))


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


def _unloaded(
    exercise: Exercise,
    way: tuple[LoadWay, ...],
    kit: Kit,
    body: Body,
    wanted: Range | None,
    machine: On,
    extra: Said,
    listed: OnceCache,
) -> UnloadedSetups:
    of_band = extra in elastic_extras(way)
    identity = "" if machine is None else machine.id
    dialled = isinstance(machine, Machine) and machine.dial
    dial = Said("dial {dial}", dial=Name(dialled)) if dialled else UNSAID
    geometric = UNSAID if of_band else extra
    found = listed.once(
        ("places", exercise.id, identity, dial, geometric),
        lambda: _dialled(geometries(exercise, kit, body, wanted, machine, geometric), dial),
    )
    if of_band:
        found = tuple(replace(p, words=joined(p.words, extra)) for p in found)
    pulled = next(((w.stock, w.from_) for w in way if w.stock in ELASTIC), ("", ""))
    # bands that are stood on are pulled alike on every exercise; where others are tied depends on
    # it
    whose = "" if pulled[1] in ("", "feet") else exercise.id
    most = most_pulls(len(found))
    pulls = listed.once(
        ("pulls", *pulled, whose, len(way) > 1, extra == FOLDED, most),
        lambda: _pulls(exercise, way, kit, body, most, fold=of_band and extra == FOLDED),
    )
    return UnloadedSetups(
        geometries=found,
        pulls=pulls,
        machine=identity,
        extra=extra,
        lead_m=next((m for m in LEADS_M if chain_words(m) == extra), 0.0),
    )


def _dialled(geometries: Iterable[Geometry], dial: Said) -> Iterator[Geometry]:
    for geometry in geometries:
        yield (replace(geometry, words=joined(dial, geometry.words)) if dial else geometry)


def _pulls(
    exercise: Exercise, way: tuple[LoadWay, ...], kit: Kit, body: Body, most: int, *, fold: bool
) -> Iterator[Pull]:
    found = [*elastic(exercise, way, kit, body, fold=fold)]
    for bands, springs, anchor in differing(found, most):
        pieces = (
            *(band_piece(band) for band, _ in bands),
            *(
                Piece(item=spring.id, kind="spring", label=spring.name, number=n)
                for spring, n in springs
            ),
        )
        yield Pull(bands=bands, springs=springs, anchor=anchor, pieces=pieces)
