"""The invented vessel: clients by role, three places, readings nobody took."""

from __future__ import annotations

from typing import Any

# name, mass kg, stature m, sex, ankle °, hip °, heaviest bar to the shoulders kg, no load on the spine
CLIENTS: tuple[tuple[str, float, float, str, float, float, float | None, bool], ...] = (
    ("Bosun", 84.0, 1.81, "male", 35.0, 125.0, 40.0, False),
    ("Cook", 71.0, 1.68, "female", 30.0, 120.0, None, False),
    ("Second engineer", 93.0, 1.90, "male", 25.0, 115.0, 50.0, True),
)

Item = tuple[str, str, str, dict[str, Any], tuple[tuple[float, float], ...]]

_LIGHT = ((0.98, 0.0), (1.10, 31.0), (1.30, 62.0), (1.55, 88.0), (1.80, 110.0), (2.10, 137.0))
_MEDIUM = ((0.99, 0.0), (1.10, 58.0), (1.30, 118.0), (1.55, 168.0), (1.80, 209.0), (2.10, 262.0))
_HEAVY = ((1.00, 0.0), (1.10, 96.0), (1.30, 198.0), (1.55, 285.0), (1.80, 356.0), (2.05, 431.0))
_LONG = ((1.90, 0.0), (2.20, 34.0), (2.60, 63.0), (3.10, 90.0), (3.60, 113.0), (4.10, 138.0))


def _press(rail_deg: float, empty_kg: float, backrest_deg: float) -> dict[str, Any]:
    return {"rail_deg": rail_deg, "empty_kg": empty_kg, "backrest_deg": backrest_deg, "plate_tilt_deg": 10.0}


def _weights(kind: str, zone: str, *sizes: tuple[float, int]) -> tuple[Item, ...]:
    return tuple((kind, f"{kind.capitalize()} {kg:g}", zone, {"kg": kg, "count": n}, ()) for kg, n in sizes)


def _band(name: str, shape: str, zone: str, rest_m: float, read: tuple[tuple[float, float], ...]) -> Item:
    strands = 2 if shape == "loop" else 1
    return (
        "band",
        name,
        zone,
        {"shape": shape, "strands": strands, "rest_m": rest_m, "law": "points", "looked_over_on": "2026-11-02"},
        read,
    )


def _eye(name: str, zone: str, height_m: float, holds_n: float = 4000.0) -> Item:
    return ("anchor", name, zone, {"height_m": height_m, "holds_n": holds_n}, ())


_DECK: tuple[Item, ...] = (
    ("sled press", "Sled press", "A", _press(40.0, 38.0, 20.0), ()),
    ("bar", "Bar 20", "B", {"kg": 20.0, "count": 1}, ()),
    *_weights("plate", "B", (20, 4), (15, 2), (10, 4), (5, 4), (2.5, 2), (1.25, 2)),
    *_weights("dumbbell", "B", (8, 2), (12, 2), (16, 2), (20, 2)),
    *_weights("kettlebell", "B", (16, 1), (24, 1)),
    _band("Light loop", "loop", "C", 0.98, _LIGHT),
    _band("Medium loop", "loop", "C", 0.99, _MEDIUM),
    _band("Heavy loop", "loop", "C", 1.00, _HEAVY),
    _band("Long band", "long", "C", 1.90, _LONG),
    ("bench", "Bench", "B", {"height_m": 0.43}, ()),
    ("box", "Box 30", "C", {"height_m": 0.30}, ()),
    ("box", "Box 52", "C", {"height_m": 0.52}, ()),
    _eye("Eye A1", "A", 0.08),
    _eye("Eye A2", "A", 1.10),
    _eye("Eye B1", "B", 0.08),
    _eye("Eye B2", "B", 0.45),
    _eye("Eye C1", "C", 1.50),
    _eye("Eye C2", "C", 2.05),
)  # fmt: skip

_CABIN: tuple[Item, ...] = (
    *_weights("dumbbell", "", (6, 2), (10, 2)),
    _band("Cabin loop", "loop", "", 0.97, tuple((length, round(force * 0.8, 0)) for length, force in _MEDIUM)),
    ("box", "Sea chest 46", "", {"height_m": 0.46}, ()),
    _eye("Door eye", "", 0.10, 1500.0),
)

_HARBOUR: tuple[Item, ...] = (
    ("sled press", "Harbour press", "1", _press(45.0, 47.0, 15.0), ()),
    ("rack", "Rack", "2", {"height_m": 1.20}, ()),
    ("bar", "Bar 20", "2", {"kg": 20.0, "count": 1}, ()),
    *_weights("plate", "2", (25, 4), (20, 4), (10, 4), (5, 4), (2.5, 4), (1.25, 2)),
    *_weights("dumbbell", "3", (10, 2), (14, 2), (18, 2), (22, 2), (26, 2), (30, 2)),
    *_weights("kettlebell", "3", (16, 2), (24, 2), (32, 1)),
    ("bench", "Bench", "3", {"height_m": 0.44}, ()),
    ("box", "Box 50", "3", {"height_m": 0.50}, ()),
    _band("Harbour loop", "loop", "3", 1.00, _HEAVY),
    _eye("Rack foot", "2", 0.06, 5000.0),
)  # fmt: skip

PLACES: tuple[tuple[str, str, tuple[Item, ...]], ...] = (
    ("Deck container", "Gym in a container aft, press welded on board, no rack", _DECK),
    ("Cabin 14", "One body width of floor", _CABIN),
    ("Harbour gym", "Ashore between trips", _HARBOUR),
)
