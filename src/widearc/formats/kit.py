"""A kit as a part of a document: read and written side by side."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType
from typing import Any

from widearc.core.equipment import Spring, Stack
from widearc.core.errors import InputError
from widearc.core.kit import (
    CAST,
    READ,
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
from widearc.formats.laws import law_part, parse_law


def parse_kit(part: Mapping[str, Any]) -> Kit:
    """Return a kit from its document part."""
    weights = [
        Weight(
            id=item["id"],
            kind=kind,
            kg=float(item["kg"]),
            count=item.get("count", 1),
            name=item.get("name", ""),
            error=_error(item, CAST),
        )
        for key, kind in _WEIGHTS
        for item in part.get(key, [])
    ]
    bands = [
        BandStock(
            id=item["id"],
            name=item.get("name", item["id"]),
            shape=BandShape(item["shape"]),
            law=parse_law(item["law"], f"/kit/bands/{index}/law"),
            count=item.get("count", 1),
            hysteresis=item.get("hysteresis", 0.0),
            error=_error(item),
        )
        for index, item in enumerate(part.get("bands", []))
    ]
    return Kit(
        weights=tuple(weights),
        bands=tuple(bands),
        furniture=tuple(Furniture(**{"name": i["id"], **i}) for i in part.get("furniture", [])),
        anchors=tuple(Anchor(**{"name": i["id"], **i}) for i in part.get("anchors", [])),
        presses=tuple(
            SledPress(**{"name": i["id"], **{k: v for k, v in i.items() if k in _PRESS}})
            for i in part.get("machines", [])
            if i["kind"] == "sled press"
        ),
        machines=tuple(
            _machine(i, f"/kit/machines/{index}")
            for index, i in enumerate(part.get("machines", []))
            if i["kind"] != "sled press"
        ),
        springs=tuple(
            _spring(i, f"/kit/springs/{index}") for index, i in enumerate(part.get("springs", []))
        ),
        things=tuple(
            Thing(**{"name": i.get("name", i["kind"]), **i}) for i in part.get("things", [])
        ),
    )


_WEIGHTS = (
    ("bars", "bar"),
    ("trap_bars", "trap bar"),
    ("plates", "plate"),
    ("dumbbells", "dumbbell"),
    ("kettlebells", "kettlebell"),
)


_PRESS = (
    "id",
    "name",
    "rail_deg",
    "empty_kg",
    "backrest_deg",
    "plate_tilt_deg",
    "friction",
    "peg_m",
    "error",
)


_WORDS = ("id", "name", "kind", "dials", "error")


def _error(item: Mapping[str, Any], usual: float = READ) -> float:
    return float(item.get("error", usual))


def _machine(item: Mapping[str, Any], where: str) -> Machine:
    dials = []
    for index, dial in enumerate(item.get("dials", [])):
        cam = (tuple(map(float, dial["angle_deg"])), tuple(map(float, dial["radius_m"])))
        try:
            Stack(kg=1.0, angle_deg=cam[0], radius_m=cam[1])
        except InputError as error:
            raise InputError(
                f"{where}/dials/{index}/{error.where}", error.value, error.allowed
            ) from None
        dials.append((dial.get("setting", ""), cam))
    quantities = {name: float(value) for name, value in item.items() if name not in _WORDS}
    return Machine(
        id=item["id"],
        name=item.get("name", item["kind"]),
        kind=item["kind"],
        dials=tuple(dials),
        quantities=MappingProxyType(quantities),
        error=_error(item),
    )


def _spring(item: Mapping[str, Any], where: str) -> SpringStock:
    try:
        spring = Spring(start_n=item["start_n"], end_n=item["end_n"], travel_m=item["travel_m"])
    except InputError as error:
        raise InputError(f"{where}/{error.where}", error.value, error.allowed) from None
    return SpringStock(
        id=item["id"],
        name=item.get("name", item["id"]),
        spring=spring,
        count=item.get("count", 1),
        error=_error(item),
    )


def kit_part(kit: Kit) -> dict[str, Any]:
    """Return a kit as its document part."""

    def given(item: object, *names: str) -> dict[str, Any]:
        return {n: getattr(item, n) for n in names if getattr(item, n) not in (None, "")}

    part: dict[str, Any] = {
        key: [
            {**given(w, "id", "name"), "kg": w.kg, "count": w.count, "error": w.error}
            for w in kit.weights
            if w.kind == kind
        ]
        for key, kind in _WEIGHTS
    }
    part["bands"] = [
        {
            "id": b.id,
            "name": b.name,
            "shape": b.shape.value,
            "count": b.count,
            "law": law_part(b.law),
            "error": b.error,
            **({"hysteresis": b.hysteresis} if b.hysteresis else {}),
        }
        for b in kit.bands
    ]
    part["furniture"] = [
        given(f, "id", "name", "kind", "height_m", "own_kg", "depth_m") for f in kit.furniture
    ]
    part["anchors"] = [
        given(a, "id", "name", "height_m", "holds_n", "own_kg", "depth_m") for a in kit.anchors
    ]
    part["machines"] = [{"kind": "sled press", **given(p, *_PRESS)} for p in kit.presses] + [
        {
            **given(m, "id", "name", "kind", "error"),
            **{n: v for n, v in m.quantities.items() if n in _MACHINE},
            "dials": [
                {"setting": s, "angle_deg": list(a), "radius_m": list(r)} for s, (a, r) in m.dials
            ],
        }
        for m in kit.machines
    ]
    part["springs"] = [
        {
            "id": s.id,
            "name": s.name,
            "start_n": s.spring.start_n,
            "end_n": s.spring.end_n,
            "travel_m": s.spring.travel_m,
            "count": s.count,
            "error": s.error,
        }
        for s in kit.springs
    ]
    part["things"] = [
        {**given(t, "id", "name", "kind"), **({"thick_m": t.thick_m} if t.thick_m else {})}
        for t in kit.things
    ]
    return part


_MACHINE = (
    "rail_deg",
    "empty_kg",
    "friction",
    "smallest_kg",
    "largest_kg",
    "step_kg",
    "ratio",
    "height_m",
    "travel_m",
    "sleeve_m",
    "hand_m",
    "arm_kg",
    "arm_m",
    "user_arm_m",
    "angle_deg",
)
