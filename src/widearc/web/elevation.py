"""The wall elevation: heights of anchors, boxes and machines to scale, in px."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from widearc import store

WIDTH, HEIGHT, LEFT, FLOOR = 620.0, 232.0, 44.0, 206.0
TOP_M = 2.2
PX_PER_M = (FLOOR - 14.0) / TOP_M


@dataclass(frozen=True, slots=True, kw_only=True)
class Wall:
    """The drawing: marks of height, things that stand on the floor, anchors on the wall, zone names."""

    ticks: tuple[tuple[float, str], ...]
    standing: tuple[dict[str, Any], ...]
    anchors: tuple[dict[str, Any], ...]
    zones: tuple[tuple[float, str], ...]


_WIDTHS = {"bench": 92.0, "box": 46.0, "rack": 58.0, "sled press": 120.0}


def elevation(items: tuple[store.ItemRow, ...]) -> Wall | None:
    """Return the elevation of what has a height, zone by zone from left to right; None when nothing has."""
    shown = [i for i in items if i.height_m is not None or i.kind == "sled press"]
    if not shown:
        return None
    zones = sorted({i.zone for i in shown})
    width = (WIDTH - LEFT) / len(zones)
    standing, anchors, names = [], [], []
    for number, zone in enumerate(zones):
        left = LEFT + number * width
        if zone:
            names.append((round(left + 4, 1), f"zone {zone}"))
        here = [i for i in shown if i.zone == zone]
        floor_things = [i for i in here if i.kind != "anchor"]
        eyes = [i for i in here if i.kind == "anchor"]
        at = left + 10
        room = width - 24 - 76 * bool(eyes)
        scale = min(1.0, room / max(1.0, sum(_WIDTHS[i.kind] + 10 for i in floor_things)))
        for item in floor_things:
            wide = _WIDTHS[item.kind] * scale
            height = (item.height_m or 0.9) * PX_PER_M
            standing.append(_box(item, at, wide, height))
            at += wide + 10 * scale
        for item in eyes:
            y = FLOOR - min(item.height_m or 0.0, TOP_M) * PX_PER_M
            anchors.append({"item": item, "x": round(left + width - 18, 1), "y": round(y, 1)})
    ticks = tuple((round(FLOOR - m * PX_PER_M, 1), f"{100 * m:.0f}") for m in (0.0, 0.5, 1.0, 1.5, 2.0))
    return Wall(ticks=ticks, standing=tuple(standing), anchors=tuple(anchors), zones=tuple(names))


def _box(item: store.ItemRow, x: float, wide: float, height: float) -> dict[str, Any]:
    return {
        "item": item,
        "x": round(x, 1),
        "y": round(FLOOR - height, 1),
        "width": round(wide, 1),
        "height": round(height, 1),
        "middle": round(x + wide / 2, 1),
    }
