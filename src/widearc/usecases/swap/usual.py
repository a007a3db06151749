"""What is taken as usual where a place does not have what is asked for: said to be assumed. Common
practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from types import MappingProxyType

from widearc.core.curve import Action
from widearc.core.equipment import KINDS, LOADS, MACHINES, ItemKind, LinearLaw, Spring, Table
from widearc.core.exercises import Exercise
from widearc.core.kit import (
    Anchor,
    BandShape,
    BandStock,
    Furniture,
    Kit,
    Machine,
    SledPress,
    SpringStock,
    Thing,
    Weight,
)

ASSUMED = "as it usually is"
"""Said of what is nowhere described."""

_NEEDED = {"rail_deg": 60.0, "empty_kg": 20.0, "arm_m": 0.9, "height_m": 0.1}
"""Machines' numbers that have no usual value on their sheets."""


LONG_ARMS = ("arc squat", "standing calf")
NO_MACHINES = ("sled press", "dip belt")  # a press has its own row; a belt is a loose thing


def _cam() -> tuple[tuple[float, ...], tuple[float, ...]]:
    table = next(field for field in LOADS["stack"].FIELDS if isinstance(field, Table))
    rows = [pair.split(":") for pair in table.usual.split(",")]
    return tuple(float(a) for a, _ in rows), tuple(0.01 * float(r) for _, r in rows)


def _numbers(kind: ItemKind) -> Mapping[str, float]:
    usual = {q.name: _NEEDED.get(q.name) if q.usual is None else q.usual for q in kind.quantities}
    numbers = {name: value for name, value in usual.items() if value is not None}
    # from an arc squat's pivot to its pad is over a whole body; a calf machine's pads follow
    # shoulders that go forty centimetres back
    return MappingProxyType(numbers | ({"user_arm_m": 0.9} if kind.id in LONG_ARMS else {}))


def _machines() -> Iterator[Machine]:
    for kind in (k for k in KINDS.values() if k.group == MACHINES and k.id not in NO_MACHINES):
        yield Machine(
            id=f"usual {kind.id}",
            name=f"{kind.words}, {ASSUMED}",
            kind=kind.id,
            quantities=_numbers(kind),
            dials=(("", _cam()),) if kind.fit == "stack" else (),
        )


def _band(id_: str, shape: BandShape, rest_m: float, rate: float) -> BandStock:
    law = LinearLaw(rest_m=rest_m, rate_n_per_m=rate)
    return BandStock(id=f"usual {id_}", name=f"{id_}, {ASSUMED}", shape=shape, law=law)


USUAL_KIT = Kit(
    weights=(
        Weight(id="usual bar", kind="bar", kg=20),
        Weight(id="usual plate", kind="plate", kg=10, count=8),
        Weight(id="usual dumbbell", kind="dumbbell", kg=10, count=2),
        Weight(id="usual kettlebell", kind="kettlebell", kg=24, count=2),
    ),
    bands=(
        _band("a loop", BandShape.LOOP, 1.0, 120.0),
        _band("a middling loop", BandShape.LOOP, 0.55, 200.0),
        _band("a short loop", BandShape.LOOP, 0.28, 250.0),
    ),
    furniture=tuple(
        Furniture(id=f"usual {name}", name=name, kind=kind, height_m=height)
        for name, kind, height in (
            ("bench", "bench", 0.43),
            ("box", "box", 0.30),
            ("box like it", "box", 0.30),
            ("low box", "box", 0.12),
            ("couch", "couch", 0.45),
            ("table", "table", 0.75),
            ("rack", "rack", 1.2),
        )
    ),
    anchors=tuple(
        Anchor(id=f"usual eye {h}", name="an eye", height_m=h) for h in (0.08, 0.3, 1.1, 2.1)
    ),
    presses=tuple(
        SledPress(id=f"usual press {deg}", name="a press", rail_deg=deg, empty_kg=40, peg_m=0.6)
        for deg in (0.0, 45.0, 90.0)
    ),
    things=tuple(
        Thing(id=f"usual {kind}", name=kind, kind=kind, thick_m=0.03)
        for kind in (
            *("heel wedge", "ball", "dip belt", "post", "peg rail", "high bar", "pad"),
            *("bench 45", "bench level", "glute-ham bench", "ankle hold"),
        )
    ),
    machines=tuple(_machines()),
    springs=(
        SpringStock(
            id="usual spring",
            name="a spring",
            spring=Spring(start_n=40.0, end_n=200.0, travel_m=0.9),
            count=4,
        ),
    ),
)
"""One of everything, by its usual values: every number of it is assumed."""

_KG = {
    "sled": 120.0,
    "hack": 60.0,
    "stack": 40.0,
    "cable": 20.0,
    "lever": 30.0,
    "pendulum": 20.0,
    "corner": 20.0,
    "rail": 40.0,
    "plate": 20.0,
    "bar": 40.0,
    "trap bar": 60.0,
    "dumbbell": 16.0,
    "dumbbells": 24.0,
    "one hand": 16.0,
    "unequal pair": 24.0,
}
_BAR_KG = {"back-high": 60.0, "back-low": 60.0, "hip-crease": 80.0}
_AT_ANKLE = {("pendulum", Action.HE): 20.0}  # both legs swing a pendulum
LIGHT_KG = 5.0  # at the end of a whole leg, or of a shank


def usual_kg(item: Exercise) -> float:
    """Return the load that an exercise is first asked for with, kg in all; 0 for body weight."""
    part = next((part for ways in item.ways for part in ways if part.stock in _KG), None)
    if part is None:
        return 0.0
    if part.port == "ankle" and part.stock in ("dumbbell", "pendulum"):
        return _AT_ANKLE.get((part.stock, item.prime[0]), LIGHT_KG)
    return _BAR_KG.get(part.port, _KG["bar"]) if part.stock == "bar" else _KG[part.stock]
