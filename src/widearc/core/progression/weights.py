"""The same set-up with other weights: what a stock makes in place of the load that it has."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from widearc.core.equipment import Cable, CornerBar, FreeMass, Lever, Load, Sled, Stack
from widearc.core.exercises import LoadWay
from widearc.core.kit import STOCKS, Kit, Machine, Piece, Total
from widearc.core.movement import Setup

_SORTS: dict[type, tuple[str, ...]] = {
    FreeMass: ("bar", "trap bar", "dumbbells", "dumbbell", "one hand", "plate", "rail"),
    Sled: ("sled", "hack"),
    Stack: ("stack",),
    Cable: ("cable",),
    CornerBar: ("corner",),
    Lever: ("lever",),
}
"""Which stocks become which load."""

_KINDS = {
    "bar": {"bar", "plate"},
    "trap bar": {"trap bar", "plate"},
    "rail": {"rail bar", "plate"},
    "dumbbells": {"dumbbell", "kettlebell"},
    "dumbbell": {"dumbbell", "kettlebell"},
    "one hand": {"dumbbell", "kettlebell"},
    "plate": {"plate"},
    "sled": {"plate"},
    "hack": {"plate"},
    "corner": {"plate"},
    "lever": {"plate"},
    "stack": {"stack"},
    "cable": {"stack"},
}
"""What a stock is picked up as."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Weighted:
    """A set-up with another weight: kg in all, what to pick up for it."""

    kg: float
    pieces: tuple[Piece, ...]
    setup: Setup


def weight_of(setup: Setup) -> float | None:
    """Return the weight (kg) of the one load whose weight can be changed, None without one."""
    index = _weight_at(setup)
    return None if index is None else _kg(setup.loads[index])


def with_weight(setup: Setup, kg: float) -> Setup:
    """Return a set-up with another weight (kg) in place of the one that can be changed, whatever
    stock makes it. ValueError without one.
    """
    index = _weight_at(setup)
    if index is None:
        raise ValueError("no weight that can be changed")
    loads = [*setup.loads]
    loads[index] = _with_kg(setup.loads[index], kg)
    return setup.like(setup.options, tuple(loads))


def other_weights(
    setup: Setup, pieces: tuple[Piece, ...], kit: Kit, machine: Machine | None = None
) -> tuple[Weighted, ...]:
    """Return a set-up of one row with every total of the stock that its weight is made of, lightest
    first; empty where no weight loads it, or where its stock is not here.

    pieces: what it is made of now (none: any stock that the exercise takes there). machine: whose
    stack or rail it is.
    """
    index = _weight_at(setup)
    if index is None:
        return ()
    held = {p.kind for p in pieces if p.kg > 0.0}
    found: dict[float, Total] = {}
    for way in _ways(setup, setup.loads[index]):
        for total in _totals(way, kit, machine) if held <= _KINDS[way.stock] else ():
            found.setdefault(total.kg, total)
    if isinstance(setup.loads[index], FreeMass):
        found.pop(0.0, None)  # nothing in the hand is another set-up
    rest = tuple(p for p in pieces if p.kg == 0.0)  # bands and springs stay
    return tuple(
        Weighted(kg=kg, pieces=(*found[kg].pieces, *rest), setup=with_weight(setup, kg))
        for kg in sorted(found)
    )


def _totals(way: LoadWay, kit: Kit, machine: Machine | None) -> list[Total]:
    """Return the totals that a way of loading can have here."""
    stock = STOCKS[way.stock]
    if stock.own_totals and machine is None:
        return []
    if not stock.on_machine and not stock.here(kit, way):
        return []
    most = np.inf if way.most_kg is None else way.most_kg
    return [total for total in stock.totals(kit, machine, way.port) if total.kg <= most]


def _weight_at(setup: Setup) -> int | None:
    at = [i for i, load in enumerate(setup.loads) if isinstance(load, tuple(_SORTS))]
    return at[0] if len(at) == 1 else None


def _ways(setup: Setup, load: Load) -> list[LoadWay]:
    sorts = _SORTS[type(load)]
    port = getattr(load, "port", None)
    return [
        way
        for ways in setup.exercise.ways
        for way in ways
        if way.stock in sorts and (port is None or way.port == port)
    ]


def _kg(load: Load) -> float:
    kg = load.plate_kg if isinstance(load, CornerBar) else load.kg  # type: ignore[attr-defined]
    return float(np.ravel(kg)[0])


def _with_kg(load: Load, kg: float) -> Load:
    if isinstance(load, CornerBar):
        return replace(load, plate_kg=kg)
    return replace(load, kg=kg)  # type: ignore[type-var]
