"""The wall elevation: heights of anchors, boxes and machines to scale, in px."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

from widearc import store
from widearc.core.equipment import ANCHORS, FURNITURE, MACHINES, kind_of
from widearc.web.words.words import whole
from widearc.words import sign_of, size_of, tell

WIDTH, HEIGHT, LEFT, FLOOR = 620.0, 244.0, 44.0, 206.0
TOP_M = 2.2
PX_PER_M = (FLOOR - 14.0) / TOP_M
PX_A_LETTER = 8.0  # of a label, on a phone
LABEL_FILL = 0.9  # most letters are narrower
LABEL_LINE, TOP_LABEL = 13.0, 14.0  # between the lines of two labels; the highest line
LABEL_STEPS = (0.0, -14.0, -28.0, 18.0, 32.0)
USUAL_M = 1.25  # a machine's height is not asked: drawn at a usual one


@dataclass(frozen=True, slots=True, kw_only=True)
class Wall:
    """The drawing: marks of height, things that stand on the floor, anchors on the wall, zone
    names.
    """

    ticks: tuple[tuple[float, str], ...]
    standing: tuple[dict[str, Any], ...]
    anchors: tuple[dict[str, Any], ...]
    zones: tuple[tuple[float, str], ...]


_WIDTHS = {
    "bench": 84.0,
    "box": 46.0,
    "rack": 54.0,
    "sled press": 116.0,
    "couch": 100.0,
    "table": 70.0,
    "post": 10.0,
    "cable": 16.0,
    "ball": 40.0,
    "heel wedge": 24.0,
    "bench 45": 60.0,
}


_NOT_DRAWN = ("dip belt", "corner pivot", "pad")


HEIGHTS = {"cm": (0, 50, 100, 150, 200), "in": (0, 20, 40, 60, 80)}
"""What the wall is marked with, in the unit that is spoken."""


def _ticks() -> tuple[tuple[float, str], ...]:
    unit, size = sign_of("cm"), 0.01 * size_of("cm")
    return tuple((round(FLOOR - size * at * PX_PER_M, 1), f"{at}") for at in HEIGHTS[unit])


def _is_drawn(kind: str) -> bool:
    return kind_of(kind).group in (FURNITURE, MACHINES, ANCHORS) and kind not in _NOT_DRAWN


def elevation_of(items: tuple[store.ItemRow, ...]) -> Wall | None:
    """Return the elevation of what has a height, zone by zone from left to right; None when nothing
    has.
    """
    shown = [i for i in items if _is_drawn(i.kind)]
    if not shown:
        return None
    zones = sorted({i.zone for i in shown})
    widths = _zone_widths(shown, zones)
    standing: list[dict[str, Any]] = []
    anchors: list[dict[str, Any]] = []
    names = []
    left = LEFT
    for zone, width in zip(zones, widths, strict=True):
        if zone:
            names.append((round(left + 4, 1), tell("zone {zone}", zone=zone)))
        _zone([i for i in shown if i.zone == zone], left, width, standing, anchors)
        left += width
    _part_labels(standing)
    return Wall(
        ticks=_ticks(), standing=tuple(standing), anchors=tuple(anchors), zones=tuple(names)
    )


def _part_labels(standing: list[dict[str, Any]]) -> None:
    """Move labels that lie on one another: a line or two higher, or down into the thing where there
    is no room over it.

    A label that has room nowhere is left out: its thing is in the list below the drawing, with its
    name.
    """
    placed: list[dict[str, Any]] = []
    for thing in standing:
        for y in (thing["y"] + step for step in LABEL_STEPS):
            if TOP_LABEL <= y <= FLOOR - 4 and not any(
                _overlap(thing, y, other) for other in placed
            ):
                thing["y"] = round(y, 1)
                placed.append(thing)
                break
        else:
            thing["label"] = ""


def _overlap(thing: dict[str, Any], y: float, other: dict[str, Any]) -> bool:
    half = PX_A_LETTER / 2 * LABEL_FILL * (len(thing["label"]) + len(other["label"]))
    return bool(abs(thing["middle"] - other["middle"]) < half and abs(y - other["y"]) < LABEL_LINE)


def _zone_widths(shown: list[store.ItemRow], zones: list[str]) -> list[float]:
    """Return a width for each zone in proportion to what stands there, at least a tenth of the
    wall.
    """
    wanted = [
        sum(
            90.0 / 4 if i.kind == "anchor" else _WIDTHS.get(i.kind, 62.0) + 10
            for i in shown
            if i.zone == z
        )
        + 60.0
        for z in zones
    ]
    total = sum(wanted)
    return [(WIDTH - LEFT) * w / total for w in wanted]


def _zone(
    here: list[store.ItemRow],
    left: float,
    width: float,
    standing: list[dict[str, Any]],
    anchors: list[dict[str, Any]],
) -> None:
    eyes = sorted((i for i in here if i.kind == "anchor"), key=lambda i: i.height_m or 0.0)
    floor_things = [i for i in here if i.kind != "anchor"]
    at = left + 10
    room = width - 20 - 66 * bool(eyes)
    scale = min(1.0, room / max(1.0, sum(_WIDTHS.get(i.kind, 62.0) + 10 for i in floor_things)))
    for item in floor_things:
        wide = _WIDTHS.get(item.kind, 62.0) * scale
        standing.append(_standing(item, at, wide))
        at += wide + 10 * scale
    last = 1e9
    for item in eyes:
        y = FLOOR - min(item.height_m or 0.0, TOP_M) * PX_PER_M
        # two eyes at one height: the label of the second would lie on the first
        labelled = last - y >= 12
        last = y if labelled else last
        anchors.append(
            {
                "item": item,
                "x": round(left + width - 18, 1),
                "y": round(y, 1),
                "text": _short(item) if labelled else "",
            }
        )


def _short(item: store.ItemRow) -> str:
    name = item.name.removeprefix("Eye ")
    return f"{name[:10]}, {whole(100 * (item.height_m or 0.0) / size_of('cm'))}"


def _standing(item: store.ItemRow, x: float, wide: float) -> dict[str, Any]:
    """Return a thing's outline: a path for what has a shape of its own, else a box; label over
    it.
    """
    tall = item.height_m if item.height_m is not None else item.quantities.get("across_m", USUAL_M)
    tall = item.quantities.get("thick_m", tall)
    height = min(tall, TOP_M) * PX_PER_M
    path = f"M{x:.1f} {FLOOR}V{FLOOR - height:.1f}H{x + wide:.1f}V{FLOOR}Z"
    if item.kind == "sled press":
        # the rails at their own angle, as long as the place in the drawing allows
        rise = math.tan(math.radians(min(item.quantities.get("rail_deg", 45.0), 80.0)))
        height = min(wide * rise, TOP_M * PX_PER_M - 20)
        run = height / rise if rise > 0 else wide
        path = f"M{x:.1f} {FLOOR}L{x + run:.1f} {FLOOR - height:.1f}V{FLOOR}Z"
    elif item.kind == "ball":
        r = height / 2
        path = (
            f"M{x:.1f} {FLOOR - r:.1f}a{r:.1f} {r:.1f} 0 1 0 {2 * r:.1f} 0a{r:.1f} {r:.1f} 0 1 0 "
            f"{-2 * r:.1f} 0Z"
        )
    elif item.kind == "cable":
        column = TOP_M * PX_PER_M - 8
        path = (
            f"M{x:.1f} {FLOOR}V{FLOOR - column:.1f}H{x + 8:.1f}V{FLOOR}ZM{x + 8:.1f} "
            f"{FLOOR - height:.1f}h8"
        )
        height = column
    elif item.kind == "heel wedge":
        path = f"M{x:.1f} {FLOOR}H{x + wide:.1f}V{FLOOR - max(height, 3):.1f}Z"
    most = max(8, int((wide + 14) / 6.2))
    label = item.name
    label = label if len(label) <= most else label[: most - 1] + "…"
    half = PX_A_LETTER / 2 * len(label)
    return {
        "item": item,
        "path": path,
        "label": label,
        # a name over a narrow thing at the left would run into the heights, at the right out of the
        # drawing
        "middle": round(min(max(x + wide / 2, LEFT + half), WIDTH - half - 4), 1),
        "y": max(TOP_LABEL, round(FLOOR - height - 5, 1)),
    }
