"""The side-view figure: limbs, loads and equipment in px for every sample. Draws only, computes no
mechanics.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import PORTS, Body
from widearc.core.movement import place_of
from widearc.core.statics import Curve, line_of_force
from widearc.web.drawing.figure_loads import _load_point, _loads
from widearc.web.drawing.ribbon import Ribbon, ribbons
from widearc.web.drawing.scene import Piece, scene_of

WIDTH, HEIGHT, MARGIN = 226.0, 330.0, 10.0
HEAD_RADIUS = 0.065  # of stature
HEAD_UP = 0.105  # of stature, head's centre beyond the shoulder along the trunk


# name: (from point, to point, half width m)
LIMBS = (
    ("other_thigh", "hip", "other_knee", 0.075),
    ("other_shank", "other_knee", "other_ankle", 0.05),
    ("other_foot", "other_heel", "other_toe", 0.028),
    ("rear_thigh", "hip", "rear_knee", 0.075),
    ("rear_shank", "rear_knee", "rear_ankle", 0.05),
    ("rear_foot", "rear_heel", "rear_ball", 0.028),
    ("trunk", "hip", "shoulder", 0.105),
    ("thigh", "hip", "knee", 0.085),
    ("shank", "knee", "ankle", 0.055),
    ("foot", "heel", "toe", 0.028),
    ("upper_arm", "shoulder", "elbow", 0.042),
    ("forearm", "elbow", "hand", 0.034),
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Limb:
    """A limb: its half width in px."""

    name: str
    half: float


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Figure:
    """A figure ready to draw: limbs in order, frames of px per sample, and the fixed scene."""

    limbs: tuple[Limb, ...]
    head: float
    masses: tuple[dict[str, Any], ...]
    bands: tuple[str, ...]
    scene: tuple[dict[str, Any], ...]
    moving: tuple[dict[str, str], ...]
    has_head: bool
    floor: float
    top: float
    frames: dict[str, list[list[float]]]
    joints: tuple[str, ...]
    place: _Placing
    ribbons: tuple[Ribbon, ...] = ()

    @property
    def scale(self) -> float:
        """Return px a metre."""
        return self.place.scale

    def dots(self, at: Array) -> list[list[float]]:
        """Return the px of a point at every sample; at: m (2, samples)."""
        return self.place.dots(at)


def figure_of(
    curve: Curve,
    *,
    width: float = WIDTH,
    height: float = HEIGHT,
    most_px: float = 150.0,
    lines: Sequence[str] = (),
    arcs: bool = False,
    over: Sequence[Any] = (),
) -> Figure:
    """Return the figure of a single set-up's curve, fitted into width × height px, at most most_px
    a metre.

    lines: joints whose line of force and moment arm are drawn; arcs: with each joint's ribbon;
    over: what is wanted of a joint (arcplot.Intended), outlined on it.
    """
    points = points_of(curve)
    loads = _loads(curve, points)
    fixed, moving = scene_of(curve, points)
    place = _Placing(points, loads, fixed, width=width, height=height, most_px=most_px)
    frames: dict[str, list[list[float]]] = {}
    limbs = []
    for name, a, b, half in LIMBS:
        if a in points and b in points:
            limbs.append(Limb(name=name, half=round(half * place.scale, 1)))
            frames[name] = place.lines(points[a], points[b])
    if "head" in points:
        frames["head"] = place.dots(points["head"])
    for index, (a_, b_, _) in enumerate(moving):
        frames[f"moving{index}"] = place.lines(a_, b_)
    for joint in lines:
        frames |= _force_frames(curve, points, joint, place)
    pins = ("hip", "knee", "ankle") if "hip" in points else ("hand",)
    joints = tuple(name for name in pins if name in points)
    for name in joints:
        frames[f"joint_{name}"] = place.dots(points[name])
    for item in loads:
        key = item["key"]
        frames[key] = place.lines(item["a"], item["b"]) if item["line"] else place.dots(item["a"])
    made = ribbons(curve, points, place.scale, frames, place, over) if arcs else ()
    return Figure(
        ribbons=made,
        limbs=tuple(limbs),
        head=round(HEAD_RADIUS * curve.setup.body.stature_m * place.scale, 1),
        masses=tuple(
            {"key": i["key"], "text": i["text"], "r": round(i["r"] * place.scale, 1)}
            for i in loads
            if not i["line"]
        ),
        bands=tuple(i["key"] for i in loads if i["line"]),
        scene=tuple(
            {
                "kind": kind,
                "x1": place.px(a[0]),
                "y1": place.py(a[1]),
                "x2": place.px(b[0]),
                "y2": place.py(b[1]),
            }
            for a, b, kind in fixed
        ),
        moving=tuple({"key": f"moving{i}", "kind": kind} for i, (_, _, kind) in enumerate(moving)),
        has_head="head" in points,
        floor=round(place.y(0.0), 1),
        top=_top(frames, fixed, place, HEAD_RADIUS * curve.setup.body.stature_m),
        frames=frames,
        joints=joints,
        place=place,
    )


def _top(
    frames: dict[str, list[list[float]]], fixed: Sequence[Piece], place: _Placing, head_m: float
) -> float:
    """Return the highest px that is drawn, less a margin: a lying body leaves no empty sky."""
    ys: list[float] = [
        row[i]
        for name, rows in frames.items()
        if not name.startswith("force_")
        for row in rows
        for i in range(1, len(row), 2)
    ]
    ys += [place.py(p[1]) for a, b, _ in fixed for p in (a, b)]
    return round(max(0.0, min(ys, default=0.0) - head_m * place.scale - 2 * MARGIN), 1)


def points_of(curve: Curve) -> dict[str, Array]:
    """Return the points of a single set-up's figure, m (2, samples), the drawn head and arm with
    them.
    """
    motion, body = curve.motion, curve.setup.body
    points = {name: motion.full(point)[:, 0] for name, point in motion.points.items()}
    if "shoulder" not in points or "hip" not in points:
        return points
    if "mtp" in points and "heel" in points:
        # on the ball of the foot the toes lie flat: what is drawn ends where it turns
        points["toe"] = points["mtp"]
    trunk = points["shoulder"] - points["hip"]
    points["head"] = points["shoulder"] + trunk / np.hypot(*trunk) * HEAD_UP * body.stature_m
    hand = _hand(curve, points, body)
    points["hand"] = hand
    points["elbow"] = _elbow(points["shoulder"], hand, body)
    return points


def _hand_at_load(curve: Curve, shoulder: Array) -> Array | None:
    for index, load in enumerate(curve.setup.loads):
        port = getattr(load, "port", "")
        if port == "shoulders":
            return np.asarray(shoulder + np.array([[0.16], [-0.1]]))
        if port in PORTS and PORTS[port].segment in ("trunk", "arms"):
            return _load_point(curve, index)
    return None


def _hand(curve: Curve, points: dict[str, Array], body: Body) -> Array:
    """Return where the hand is drawn: at a load it holds, on a handle, or reaching forward."""
    shoulder = points["shoulder"]
    held = _hand_at_load(curve, shoulder)
    if held is not None:
        return held
    if "hand" in points:
        return np.asarray(points["hand"])
    if curve.setup.exercise.variant == "hanging":
        return np.asarray(shoulder + np.array([[0.0], [body.arm_m]]))
    if curve.setup.exercise.variant == "handle":
        return np.asarray(shoulder + np.array([[0.6], [0.0]]))
    if curve.setup.exercise.family in (
        "sled press",
        "knee rotation",
        "sled squat",
        "arc squat",
        "hip rotation leg",
    ):
        hip = points["hip"]
        return np.asarray(hip + np.array([[0.12], [0.02]]) + 0.12 * (shoulder - hip))
    if not curve.setup.exercise.one_piece:
        return np.asarray(shoulder - np.array([[0.0], [body.arm_m]]))
    return np.asarray(shoulder + np.array([[0.5], [-0.1]]))


def _elbow(shoulder: Array, hand: Array, body: Body) -> Array:
    """Return the elbow of a drawn arm: two links from shoulder to hand, elbow down and forward."""
    upper, lower = 0.186 * body.stature_m, 0.2 * body.stature_m
    gap = hand - shoulder
    far = np.clip(np.hypot(*gap), 1e-6, upper + lower - 1e-6)
    along = (upper**2 - lower**2 + far**2) / (2 * far)
    off = np.sqrt(np.maximum(upper**2 - along**2, 0.0))
    unit = gap / np.maximum(np.hypot(*gap), 1e-6)
    side = np.stack((-unit[1], unit[0]))
    side = np.where(side[1:2] > 0, -side, side)
    return np.asarray(shoulder + along * unit + off * side)


ARROW_M_PER_N, LONGEST_ARROW_M, SHORTEST_ARROW_M = 1 / 2500, 0.5, 0.12
LINE_HALF_M = 0.9
FARTHEST_ARM_M = 1.2  # a longer arm is a turning pair, not a line to look at


def _force_frames(
    curve: Curve, points: dict[str, Array], joint: str, place: _Placing
) -> dict[str, list[list[float]]]:
    """Return the px of a joint's line of force, its arrow (ending where it is nearest) and its
    moment arm.
    """
    found = line_of_force(curve.motion, joint)
    force, nearest = found.force[:, 0], found.nearest[:, 0]
    size = np.hypot(*force)
    with np.errstate(invalid="ignore", divide="ignore"):
        way = force / size
    # where next to nothing acts the line shrinks into the joint
    lost = ~np.isfinite(nearest[0]) | (found.arm[0] > FARTHEST_ARM_M)
    centre = points[place_of(joint)]
    nearest, way = np.where(lost, centre, nearest), np.where(lost | (size < 1e-9), 0.0, way)
    tail = np.clip(size * ARROW_M_PER_N, SHORTEST_ARROW_M, LONGEST_ARROW_M)
    return {
        f"force_{joint}": place.lines(nearest - LINE_HALF_M * way, nearest + LINE_HALF_M * way),
        f"arrow_{joint}": place.lines(nearest - tail * way, nearest),
        f"arm_{joint}": place.lines(centre, nearest),
    }


class _Placing:
    """Metres to px: the whole movement fits the drawing, the floor lies near its lower edge."""

    def __init__(
        self,
        points: dict[str, Array],
        loads: list[dict[str, Any]],
        fixed: Sequence[Piece],
        *,
        width: float,
        height: float,
        most_px: float,
    ) -> None:
        everything = list(points.values())
        for item in loads:
            everything += [item["a"] - item["r"], item["a"] + item["r"]]
            everything += [item["b"]] if item["line"] else []
        for a, b, _ in fixed:
            everything += [np.array(a)[:, None], np.array(b)[:, None]]
        cloud = np.concatenate(everything, axis=1)
        low, high = np.nanmin(cloud, axis=1) - 0.1, np.nanmax(cloud, axis=1) + 0.1
        low[1] = min(low[1], -0.04)
        span = high - low
        self.scale = float(
            min((width - 2 * MARGIN) / span[0], (height - 2 * MARGIN) / span[1], most_px)
        )
        self.left = MARGIN + (width - 2 * MARGIN - span[0] * self.scale) / 2 - low[0] * self.scale
        self.bottom = height - MARGIN + low[1] * self.scale

    def px(self, metres: float) -> float:
        return round(float(self.x(metres)), 1)

    def py(self, metres: float) -> float:
        return round(float(self.y(metres)), 1)

    def x(self, metres: Any) -> Any:
        return self.left + metres * self.scale

    def y(self, metres: Any) -> Any:
        return self.bottom - metres * self.scale

    def dots(self, p: Array) -> list[list[float]]:
        return [
            [round(float(a), 1), round(float(b), 1)]
            for a, b in zip(self.x(p[0]), self.y(p[1]), strict=True)
        ]

    def lines(self, a: Array, b: Array) -> list[list[float]]:
        return [[*one, *two] for one, two in zip(self.dots(a), self.dots(b), strict=True)]
