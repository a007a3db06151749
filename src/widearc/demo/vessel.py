"""The invented vessel: clients by role, three places, readings nobody took."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from types import MappingProxyType
from typing import Any

from widearc.core.body import Sex
from widearc.core.curve import Action
from widearc.core.equipment import Source
from widearc.core.intent import Intent, Shape, WantedAction
from widearc.store import ClientFacts, MachineReading, PlaceFacts, PlannedRow

CLIENTS: tuple[ClientFacts, ...] = (
    ClientFacts(
        name="Bosun",
        mass_kg=84.0,
        stature_m=1.81,
        sex=Sex.MALE,
        dorsiflexion_deg=35.0,
        hip_flexion_deg=125.0,
        to_shoulders_kg=40.0,
        goal="muscle",
        experience="experienced",
        stronger_side="right",
    ),
    ClientFacts(
        name="Cook",
        mass_kg=71.0,
        stature_m=1.68,
        sex=Sex.FEMALE,
        dorsiflexion_deg=30.0,
        hip_flexion_deg=120.0,
        goal="strength",
        experience="beginner",
        grip_kg=22.0,
    ),
    ClientFacts(
        name="Second engineer",
        mass_kg=93.0,
        stature_m=1.90,
        sex=Sex.MALE,
        dorsiflexion_deg=25.0,
        hip_flexion_deg=115.0,
        to_shoulders_kg=50.0,
        no_axial_load=True,
        goal="muscle",
        experience="used",
        sore=MappingProxyType({"knee": "left", "low back": "both"}),
        thigh_m=0.475,
    ),
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Made:
    """One invented item with what was read of it."""

    kind: str
    name: str
    zone: str = ""
    side: str = ""
    hold: str = ""
    quantities: Mapping[str, float] = field(default_factory=dict)
    sources: Mapping[str, Source] = field(default_factory=dict)
    band: Mapping[str, Any] = field(default_factory=dict)
    read: tuple[tuple[float, float], ...] = ()
    machine_read: tuple[MachineReading, ...] = ()
    settings: tuple[tuple[str, str], ...] = ()


_LIGHT = ((0.98, 0.0), (1.10, 31.0), (1.30, 62.0), (1.55, 88.0), (1.80, 110.0), (2.10, 137.0))
_MEDIUM = ((0.99, 0.0), (1.10, 58.0), (1.30, 118.0), (1.55, 168.0), (1.80, 209.0), (2.10, 262.0))
_HEAVY = ((1.00, 0.0), (1.10, 96.0), (1.30, 198.0), (1.55, 285.0), (1.80, 356.0), (2.05, 431.0))
_LONG = ((1.90, 0.0), (2.20, 34.0), (2.60, 63.0), (3.10, 90.0), (3.60, 113.0), (4.10, 138.0))


def _measured(**quantities: float) -> dict[str, Any]:
    return {"quantities": quantities, "sources": dict.fromkeys(quantities, Source.MEASURED)}


def _assumed(measured: Mapping[str, float], **assumed: float) -> dict[str, Any]:
    sources = dict.fromkeys(measured, Source.MEASURED) | dict.fromkeys(assumed, Source.ASSUMED)
    return {"quantities": {**measured, **assumed}, "sources": sources}


def _press(
    rail_deg: float, empty_kg: float, backrest_deg: float, friction: float, **more: float
) -> dict[str, Any]:
    read = {
        "rail_deg": rail_deg,
        "empty_kg": empty_kg,
        "backrest_deg": backrest_deg,
        "friction": friction,
        **more,
    }
    return _assumed(read, plate_tilt_deg=10.0)


def _weights(kind: str, zone: str, *sizes: tuple[float, int]) -> tuple[Made, ...]:
    return tuple(
        Made(
            kind=kind,
            name=f"{kind.capitalize()} {kg:g}",
            zone=zone,
            quantities={"kg": kg, "count": n},
        )
        for kg, n in sizes
    )


def _bar(name: str, zone: str) -> Made:
    return Made(kind="bar", name=name, zone=zone, **_measured(kg=20.0, count=1, length_m=2.2))


def _band(
    name: str, shape: str, zone: str, rest_m: float, read: tuple[tuple[float, float], ...]
) -> Made:
    strands = 2 if shape == "loop" else 1
    columns = {
        "shape": shape,
        "strands": strands,
        "rest_m": rest_m,
        "law": "points",
        "looked_over_on": "2026-11-02",
    }
    return Made(kind="band", name=name, zone=zone, band=columns, read=read)


def _thing(kind: str, name: str, zone: str, **measured: float) -> Made:
    return Made(kind=kind, name=name, zone=zone, **_measured(**measured))


def _box(kind: str, name: str, zone: str, height_m: float, own_kg: float) -> Made:
    return Made(kind=kind, name=name, zone=zone, **_assumed({"height_m": height_m}, own_kg=own_kg))


def _eye(name: str, zone: str, height_m: float, side: str, holds_n: float = 4000.0) -> Made:
    return Made(
        kind="anchor",
        name=name,
        zone=zone,
        side=side,
        hold="eye",
        quantities={"height_m": height_m, "holds_n": holds_n},
        sources={"height_m": Source.MEASURED, "holds_n": Source.DESCRIBED},
    )


def _stack(
    kind: str, name: str, zone: str, whole_kg: float, read: tuple[tuple[float, float], ...]
) -> Made:
    described = {
        "smallest_kg": 5.0,
        "largest_kg": whole_kg,
        "step_kg": 5.0,
        "ratio": 1.0,
        "friction": 0.06,
        "read_kg": 30.0,
    }
    rows = tuple(
        MachineReading(at=at, force_n=force, arm_m=0.36, setting="1") for at, force in read
    )
    return Made(
        kind=kind,
        name=name,
        zone=zone,
        quantities=described,
        sources={"ratio": Source.ASSUMED, "friction": Source.MEASURED, "read_kg": Source.MEASURED},
        machine_read=rows,
        settings=(("seat", "hole 4"),),
    )


def _spring(name: str, zone: str, start_n: float, end_n: float) -> Made:
    travel_m = 0.9
    read = {"start_n": start_n, "end_n": end_n, "travel_m": travel_m, "count": 1}
    return Made(kind="spring", name=name, zone=zone, **_measured(**read))


_SHORT = ((0.28, 0.0), (0.36, 38.0), (0.44, 66.0), (0.52, 92.0), (0.60, 121.0))
_CURL = ((5.0, 118.0), (30.0, 141.0), (55.0, 150.0), (80.0, 139.0), (100.0, 117.0))
_EXTENSION = ((100.0, 121.0), (75.0, 166.0), (50.0, 189.0), (25.0, 172.0), (5.0, 138.0))

_DECK: tuple[Made, ...] = (
    Made(
        kind="sled press",
        name="Sled press",
        zone="A",
        settings=(("backrest", "hole 2"),),
        **_press(40.0, 38.0, 20.0, 0.04),
    ),
    _bar("Bar 20", "B"),
    *_weights("plate", "B", (20, 4), (15, 2), (10, 4), (5, 4), (2.5, 2), (1.25, 2)),
    *_weights("dumbbell", "B", (8, 2), (12, 2), (16, 2), (20, 2)),
    *_weights("kettlebell", "B", (16, 1), (24, 1)),
    _band("Light loop", "loop", "C", 0.98, _LIGHT),
    _band("Medium loop", "loop", "C", 0.99, _MEDIUM),
    _band("Heavy loop", "loop", "C", 1.00, _HEAVY),
    _band("Long band", "long", "C", 1.90, _LONG),
    _box("bench", "Bench", "B", 0.43, 20.0),
    _box("box", "Box 30", "C", 0.30, 10.0),
    _box("box", "Box 52", "C", 0.52, 10.0),
    _eye("Eye A1", "A", 0.08, "left"),
    _eye("Eye A2", "A", 1.10, "left"),
    _eye("Eye B1", "B", 0.08, "ahead"),
    _eye("Eye B2", "B", 0.45, "ahead"),
    _eye("Eye C1", "C", 1.50, "right"),
    _eye("Eye C2", "C", 2.05, "right"),
)

_CABIN: tuple[Made, ...] = (
    *_weights("dumbbell", "", (6, 2), (10, 2)),
    _band(
        "Cabin loop",
        "loop",
        "",
        0.97,
        tuple((length, round(force * 0.8, 0)) for length, force in _MEDIUM),
    ),
    _box("box", "Sea chest 46", "", 0.46, 18.0),
    _thing("couch", "Cabin couch", "", height_m=0.42, own_kg=38.0, depth_m=0.72),
    _eye("Door eye", "", 0.10, "ahead", 1500.0),
)

_HARBOUR: tuple[Made, ...] = (
    Made(
        kind="sled press",
        name="Harbour press",
        zone="1",
        **_press(45.0, 47.0, 15.0, 0.05, peg_m=0.62),
    ),
    _stack("leg extension", "Extension machine", "1", 95.0, _EXTENSION),
    _stack("seated curl", "Curl machine", "1", 75.0, _CURL),
    _thing(
        "cable",
        "Cable tower",
        "1",
        height_m=0.12,
        smallest_kg=2.5,
        largest_kg=80.0,
        step_kg=2.5,
        ratio=0.5,
        friction=0.07,
    ),
    _thing("rack", "Rack", "2", height_m=1.20),
    _bar("Bar 20", "2"),
    *_weights("plate", "2", (25, 4), (20, 4), (10, 4), (5, 4), (2.5, 4), (1.25, 2)),
    *_weights("dumbbell", "3", (10, 2), (14, 2), (18, 2), (22, 2), (26, 2), (30, 2)),
    *_weights("kettlebell", "3", (16, 2), (24, 2), (32, 1)),
    _box("bench", "Bench", "3", 0.44, 20.0),
    _thing("bench 45", "Back bench", "3", bench_deg=45.0),
    _box("box", "Box 50", "3", 0.50, 10.0),
    _thing("heel wedge", "Heel wedge", "3", thick_m=0.03),
    _band("Harbour loop", "loop", "3", 1.00, _HEAVY),
    _eye("Rack foot", "2", 0.06, "floor", 5000.0),
    Made(
        kind="hip thrust machine",
        name="Thrust machine",
        zone="1",
        **_assumed(
            {"arm_kg": 14.0, "arm_m": 1.05, "user_arm_m": 0.90, "angle_deg": -6.0}, pivot_off_m=0.0
        ),
    ),
    _band("Thigh loop", "loop", "3", 0.28, _SHORT),
    _thing("dip belt", "Dip belt", "3", ring_m=0.12),
    Made(
        kind="sprung carriage",
        name="Mat carriage",
        zone="4",
        settings=(("foot bar", "upper hole"),),
        **_measured(empty_kg=17.5, friction=0.05, travel_m=0.9),
    ),
    _spring("Spring A", "4", 14.0, 62.0),
    _spring("Spring B", "4", 22.0, 118.0),
    _spring("Spring C", "4", 41.0, 176.0),
    _spring("Spring D", "4", 58.0, 231.0),
)

PLACES: tuple[tuple[PlaceFacts, tuple[Made, ...]], ...] = (
    (
        PlaceFacts(
            name="Deck container",
            note="Gym in a container aft, press welded on board, no rack",
            floor_width_m=2.2,
            floor_length_m=3.5,
        ),
        _DECK,
    ),
    (
        PlaceFacts(
            name="Cabin 14", note="One body width of floor", crowding="empty", floor_width_m=0.7
        ),
        _CABIN,
    ),
    (
        PlaceFacts(
            name="Harbour gym",
            note="Ashore between trips",
            people="others",
            floor_width_m=6.0,
            floor_length_m=9.0,
        ),
        _HARBOUR,
    ),
)


def _planned(client: int, times: int, exercise: str, kg: float, reps: int) -> PlannedRow:
    return PlannedRow(
        place_id=0,
        client_id=client,
        monday="",
        times=times,
        sets=3,
        reps=reps,
        exercise=exercise,
        kg=kg,
        depth_deg=95.0,
        shape="original",
    )


PLANNED = (
    _planned(0, 2, "leg-press-45", 120.0, 10),
    _planned(0, 1, "split-squat", 48.0, 8),
    _planned(1, 2, "goblet-squat", 16.0, 6),
)
"""What is planned for the week in which the demo is made, in the first place; clients by their
order above.
"""

INTENTS = (
    (
        "Knee, heavy where lengthened",
        Intent(
            parts=(
                WantedAction(
                    action=Action.KE,
                    from_deg=95,
                    to_deg=10,
                    handles=((0.0, 120.0), (0.25, 125.0), (0.5, 110.0), (0.75, 80.0), (1.0, 40.0)),
                ),
            ),
            sets=3,
            reps=10,
        ),
    ),
    (
        "Hip, heavy where shortened",
        Intent(
            parts=(
                WantedAction(
                    action=Action.HE, from_deg=80, to_deg=0, shape=Shape.SQUEEZE, mean_nm=90.0
                ),
            ),
            sets=3,
            reps=12,
        ),
    ),
)
"""Wanted loadings that the demo's trainer kept (invented)."""
