"""What loads an exercise: each sort of stock with the totals it makes and the load it becomes."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from types import MappingProxyType

from widearc.core.arrays import Array
from widearc.core.equipment import (
    Cable,
    CornerBar,
    FreeMass,
    Lever,
    Load,
    Pendulum,
    Sled,
    Stack,
)
from widearc.core.exercises import LoadWay
from widearc.core.kit.stock import Kit, Machine, SledPress
from widearc.core.kit.totals import (
    Total,
    bar_totals,
    one_hand_totals,
    pair_totals,
    plate_totals,
    rail_totals,
    single_totals,
    sled_totals,
    stack_totals,
    unequal_totals,
)

BELL_PORTS = ("goblet", "hip-belt", "hands")  # where a kettlebell can be held as well as a dumbbell
PULLEY_AHEAD_M: Mapping[str, float] = MappingProxyType(
    {"ahead": 1.0, "behind": -0.8, "past the feet": -1.4, "under": 0.1, "across": -0.9}
)
"""How far ahead of the room's origin a pulley stands, m (assumed; by where the exercise needs
it).
"""

On = Machine | SledPress | None
"""What a way of loading is done on."""
Totals = tuple[Total, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Stock:
    """A sort of stock.

    words: what is said to be missing. totals: every total it makes, lightest first, by kit, machine
    and port; load: a total (kg, (set-ups, 1)) as the load it becomes. here: whether there is any of
    it for a way of loading. on_machine: it is a machine's own, whose need is looked at before;
    own_totals: what it makes depends on the machine. loose: iron that is picked up. elastic: bands
    and springs, which are not totals but pulls.
    """

    name: str
    words: str
    totals: Callable[[Kit, On, str], Totals] = lambda kit, on, port: ()
    load: Callable[[LoadWay, On, Array], Load] = lambda way, on, kg: FreeMass(kg=kg, port=way.port)
    here: Callable[[Kit, LoadWay], bool] = lambda kit, way: True
    on_machine: bool = False
    own_totals: bool = False
    loose: bool = False
    elastic: bool = False


def _number(on: On, name: str, usual: float) -> float:
    return usual if not isinstance(on, Machine) else float(on.quantities.get(name, usual))


def _sled(way: LoadWay, on: On, kg: Array) -> Load:
    if isinstance(on, SledPress):
        return Sled(kg=kg, empty_kg=on.empty_kg, friction=on.friction)
    friction = _number(on, "friction", 0.0)
    return Sled(kg=kg, empty_kg=_number(on, "empty_kg", 0.0), friction=friction)


def _stack(way: LoadWay, on: On, kg: Array) -> Load:
    assert isinstance(on, Machine)
    assert on.cam is not None
    angles, radii = on.cam
    # the cam was read at the pad on a slow pull: what rubs is in it
    return Stack(kg=kg, angle_deg=angles, radius_m=radii, ratio=_number(on, "ratio", 1.0))


def lever_load(machine: Machine, pivot: tuple[float, float], kg: Array | float, port: str) -> Lever:
    """Return a lever machine's arm with weights (kg) on it, its pivot (m) placed in the room."""
    angle = _number(machine, "angle_deg", 0.0)
    return Lever(
        pivot=pivot,
        kg=kg,
        arm_m=_number(machine, "arm_m", 1.0),
        angle_deg=angle,
        own_kg=_number(machine, "arm_kg", 0.0),
        own_arm_m=_number(machine, "user_arm_m", 0.4),
        own_angle_deg=angle,
        port=port,
    )


def _lever(way: LoadWay, on: On, kg: Array) -> Load:
    assert isinstance(on, Machine)
    pivot = on.quantities["pivot_x_m"], on.quantities["pivot_y_m"]
    return lever_load(on, pivot, kg, way.port)


def _pendulum(way: LoadWay, on: On, kg: Array) -> Load:
    return Pendulum(kg=kg + _number(on, "arm_kg", 0.0), arm_m=_number(on, "arm_m", 0.9))


def _cable(way: LoadWay, on: On, kg: Array) -> Load:
    return Cable(
        kg=kg,
        port=way.port,
        pulley=(PULLEY_AHEAD_M.get(way.from_, 0.1), _number(on, "height_m", 0.0)),
        ratio=_number(on, "ratio", 1.0),
        friction=_number(on, "friction", 0.0),
    )


def _corner(way: LoadWay, on: On, kg: Array) -> Load:
    return CornerBar(
        plate_kg=kg,
        bar_kg=_number(on, "bar_kg", 20.0),
        bar_m=_number(on, "length_m", 2.2),
        sleeve_m=_number(on, "sleeve_m", 2.0),
        hand_m=_number(on, "hand_m", 2.1),
        port=way.port,
    )


def _of_stack(kit: Kit, on: On, port: str) -> Totals:
    assert isinstance(on, Machine)
    return stack_totals(on)


def _of_rail(kit: Kit, on: On, port: str) -> Totals:
    assert isinstance(on, Machine)
    return rail_totals(kit, on)


def _of_pendulum(kit: Kit, on: On, port: str) -> Totals:
    own = _number(on, "arm_kg", 0.0)
    return tuple(total for total in plate_totals(kit) if total.kg + own > 0)


def _of_sled(kit: Kit, on: On, port: str) -> Totals:
    return sled_totals(kit)


def _of_lever(kit: Kit, on: On, port: str) -> Totals:
    # on the thighs plates lie one by one, on an arm in pairs
    return plate_totals(kit) if port == "thigh" else sled_totals(kit)


def _of_plates(kit: Kit, on: On, port: str) -> Totals:
    return plate_totals(kit)


def _in_hand(kit: Kit, way: LoadWay) -> bool:
    return bool(kit.of("dumbbell") or kit.of("kettlebell"))


def _pair_here(kit: Kit, way: LoadWay) -> bool:
    return any(w.count >= 2 for w in (*kit.of("dumbbell"), *kit.of("kettlebell")))


def _unequal_here(kit: Kit, way: LoadWay) -> bool:
    return any(len({w.kg for w in kit.of(kind)}) > 1 for kind in ("dumbbell", "kettlebell"))


def _band_here(kit: Kit, way: LoadWay) -> bool:
    if way.from_ == "thighs":
        return any(band.goes_round_thighs for band in kit.bands)
    return bool(kit.bands)


_HELD = "a dumbbell or kettlebell"

STOCKS: Mapping[str, Stock] = MappingProxyType(
    {
        stock.name: stock
        for stock in (
            Stock(
                name="bar",
                words="a bar",
                totals=lambda kit, on, port: bar_totals(kit),
                here=lambda kit, way: bool(kit.of("bar")),
                loose=True,
            ),
            Stock(
                name="trap bar",
                words="a trap bar",
                totals=lambda kit, on, port: bar_totals(kit, "trap bar"),
                here=lambda kit, way: bool(kit.of("trap bar")),
                loose=True,
            ),
            Stock(
                name="dumbbell",
                words=_HELD,
                totals=lambda kit, on, port: single_totals(kit, kettlebells=port in BELL_PORTS),
                here=_in_hand,
                loose=True,
            ),
            Stock(
                name="dumbbells",
                words="a pair of equal dumbbells",
                totals=lambda kit, on, port: pair_totals(kit),
                here=_pair_here,
                loose=True,
            ),
            Stock(
                name="one hand",
                words=_HELD,
                totals=lambda kit, on, port: one_hand_totals(kit),
                here=_in_hand,
                loose=True,
            ),
            Stock(
                name="unequal pair",
                words="unequal pair",
                totals=lambda kit, on, port: unequal_totals(kit),
                here=_unequal_here,
            ),
            Stock(
                name="plate",
                words="plates",
                totals=_of_plates,
                here=lambda kit, way: bool(kit.of("plate")),
                loose=True,
            ),
            Stock(
                name="sled",
                words="plates",
                totals=_of_sled,
                load=_sled,
                on_machine=True,
                loose=True,
            ),
            Stock(name="hack", words="plates", totals=_of_sled, load=_sled, on_machine=True),
            Stock(
                name="stack",
                words="stack",
                totals=_of_stack,
                load=_stack,
                on_machine=True,
                own_totals=True,
            ),
            Stock(
                name="cable",
                words="cable",
                totals=_of_stack,
                load=_cable,
                on_machine=True,
                own_totals=True,
            ),
            Stock(name="rail", words="rail", totals=_of_rail, on_machine=True, own_totals=True),
            Stock(name="corner", words="plates", totals=_of_plates, load=_corner, on_machine=True),
            Stock(name="lever", words="plates", totals=_of_lever, load=_lever, on_machine=True),
            Stock(
                name="pendulum",
                words="plates",
                totals=_of_pendulum,
                load=_pendulum,
                on_machine=True,
                own_totals=True,
            ),
            Stock(name="band", words="a band", here=_band_here, elastic=True),
            Stock(
                name="spring",
                words="springs, weighed or described",
                here=lambda kit, way: bool(kit.springs),
                elastic=True,
            ),
        )
    }
)
"""Every sort of stock by the name that a way of loading gives it."""
