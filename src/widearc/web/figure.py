"""The side-view figure: limbs, loads and equipment in px for every sample. Draws only, computes no mechanics."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import PORTS, Body
from widearc.core.equipment import Band, FreeMass, Sled
from widearc.core.statics import Curve

WIDTH, HEIGHT, MARGIN = 226.0, 330.0, 10.0
HEAD_RADIUS = 0.065  # of stature
HEAD_UP = 0.105  # of stature, head's centre beyond the shoulder along the trunk
# name: (from point, to point, half width m)
LIMBS = (
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
    floor: float
    frames: dict[str, list[list[float]]]
    joints: tuple[str, ...]


def figure(curve: Curve) -> Figure:
    """Return the figure of a single set-up's curve."""
    points = _points(curve)
    loads = _loads(curve, points)
    place = _Placing(points, loads, curve)
    frames: dict[str, list[list[float]]] = {}
    limbs = []
    for name, a, b, half in LIMBS:
        if a in points and b in points:
            limbs.append(Limb(name=name, half=round(half * place.scale, 1)))
            frames[name] = place.lines(points[a], points[b])
    frames["head"] = place.dots(points["head"])
    joints = tuple(name for name in ("hip", "knee", "ankle") if name in points)
    for name in joints:
        frames[f"joint_{name}"] = place.dots(points[name])
    for item in loads:
        key = item["key"]
        frames[key] = place.lines(item["a"], item["b"]) if item["line"] else place.dots(item["a"])
    return Figure(
        limbs=tuple(limbs),
        head=round(HEAD_RADIUS * curve.setup.body.stature_m * place.scale, 1),
        masses=tuple(
            {"key": i["key"], "text": i["text"], "r": round(i["r"] * place.scale, 1)} for i in loads if not i["line"]
        ),
        bands=tuple(i["key"] for i in loads if i["line"]),
        scene=tuple(_scene(curve, place)),
        floor=round(place.y(0.0), 1),
        frames=frames,
        joints=joints,
    )


def _points(curve: Curve) -> dict[str, Array]:
    motion, body = curve.motion, curve.setup.body
    points = {name: motion.full(point)[:, 0] for name, point in motion.points.items()}
    trunk = points["shoulder"] - points["hip"]
    points["head"] = points["shoulder"] + trunk / np.hypot(*trunk) * HEAD_UP * body.stature_m
    hand = _hand(curve, points, body)
    points["hand"] = hand
    points["elbow"] = _elbow(points["shoulder"], hand, body)
    return points


def _hand(curve: Curve, points: dict[str, Array], body: Body) -> Array:
    """Return where the hand is drawn: at a load it holds, on a handle, or reaching forward."""
    shoulder = points["shoulder"]
    for index, load in enumerate(curve.setup.loads):
        port = getattr(load, "port", "")
        if port == "shoulders":
            return np.asarray(shoulder + np.array([[0.16], [-0.1]]))
        if port in PORTS and PORTS[port].segment in ("trunk", "arms"):
            return _load_point(curve, index)
    if curve.setup.exercise.family in ("sled press", "knee rotation"):
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


def _load_point(curve: Curve, index: int) -> Array:
    forces = [f for f in curve.motion.forces if f.source == f"load {index}"]
    return np.asarray(curve.motion.full(forces[-1].point)[:, 0])


def _loads(curve: Curve, points: dict[str, Array]) -> list[dict[str, Any]]:
    drawn: list[dict[str, Any]] = []
    for index, load in enumerate(curve.setup.loads):
        key = f"load{index}"
        if isinstance(load, FreeMass):
            kg = float(np.ravel(load.kg)[0])
            if kg > 0:
                text = f"{kg / 2:g}" if load.port == "hands" else f"{kg:g}"
                size = 0.15 if load.port in ("back-high", "back-low", "front-rack") else 0.055 + 0.0018 * min(kg, 40)
                drawn.append({"key": key, "line": False, "a": _load_point(curve, index), "text": text, "r": size})
        elif isinstance(load, Band):
            if float(np.ravel(load.count)[0]) > 0:
                here = _load_point(curve, index)
                if load.anchor_port:
                    far = points["pressure"]
                else:
                    assert load.anchor is not None
                    x, y = (float(np.ravel(v)[0]) for v in load.anchor[:2])
                    far = np.array([[x], [y]]) * np.ones_like(here)
                drawn.append({"key": key, "line": True, "a": far, "b": here, "text": "", "r": 0.0})
        elif isinstance(load, Sled):
            plate = points["plate"]
            away = plate - points["ankle"]
            centre = plate + away / np.hypot(*away) * 0.24
            text = f"{float(np.ravel(load.kg)[0]):g}"
            drawn.append({"key": key, "line": False, "a": centre, "text": text, "r": 0.19})
    return drawn


class _Placing:
    """Metres to px: the whole movement fits the drawing, the floor lies near its lower edge."""

    def __init__(self, points: dict[str, Array], loads: list[dict[str, Any]], curve: Curve) -> None:
        everything = list(points.values())
        for item in loads:
            everything += [item["a"] - item["r"], item["a"] + item["r"]]
            everything += [item["b"]] if item["line"] else []
        cloud = np.concatenate(everything, axis=1)
        low, high = np.nanmin(cloud, axis=1) - 0.1, np.nanmax(cloud, axis=1) + 0.1
        low[1] = min(low[1], -0.04)
        span = high - low
        self.scale = float(min((WIDTH - 2 * MARGIN) / span[0], (HEIGHT - 2 * MARGIN) / span[1], 150.0))
        self.left = MARGIN + (WIDTH - 2 * MARGIN - span[0] * self.scale) / 2 - low[0] * self.scale
        self.bottom = HEIGHT - MARGIN + low[1] * self.scale

    def x(self, metres: Any) -> Any:
        return self.left + metres * self.scale

    def y(self, metres: Any) -> Any:
        return self.bottom - metres * self.scale

    def dots(self, p: Array) -> list[list[float]]:
        return [[round(float(a), 1), round(float(b), 1)] for a, b in zip(self.x(p[0]), self.y(p[1]), strict=True)]

    def lines(self, a: Array, b: Array) -> list[list[float]]:
        return [[*one, *two] for one, two in zip(self.dots(a), self.dots(b), strict=True)]


def _xyxy(a: Array, b: Array) -> tuple[float, float, float, float]:
    return float(a[0]), float(a[1]), float(b[0]), float(b[1])


def _scene(curve: Curve, place: _Placing) -> list[dict[str, Any]]:
    """Return the fixed things: seat, rails, backrest, floor-anchored eye."""
    scene: list[dict[str, Any]] = []
    motion, setup = curve.motion, curve.setup
    hip = motion.full(motion.points["hip"])[:, 0, 0]

    def line(x1: float, y1: float, x2: float, y2: float, kind: str) -> None:
        ends = {"x1": place.x(x1), "y1": place.y(y1), "x2": place.x(x2), "y2": place.y(y2)}
        scene.append({"kind": kind, **{k: round(float(v), 1) for k, v in ends.items()}})

    if setup.exercise.family == "knee rotation":
        top = float(hip[1]) - 0.09
        line(-0.2, top, 0.34, top, "furniture")
        line(-0.15, top, -0.15, 0.0, "furniture")
        line(0.29, top, 0.29, 0.0, "furniture")
    if setup.exercise.family == "sled press":
        plate = motion.full(motion.points["plate"])[:, 0]
        along = plate[:, -1] - plate[:, 0]
        along = along / np.hypot(*along)
        start, end = plate[:, 0] - 0.25 * along, plate[:, -1] + 0.3 * along
        drop = np.array([along[1], -along[0]]) * 0.3
        line(*_xyxy(start + drop, end + drop), "rail")
        shoulder = motion.full(motion.points["shoulder"])[:, 0, 0]
        back = (shoulder - hip) / np.hypot(*(shoulder - hip))
        under = np.array([back[1], -back[0]]) * -0.14
        line(*_xyxy(hip - 0.08 * back + under, shoulder + 0.1 * back + under), "furniture")
    for load in setup.loads:
        if isinstance(load, Band) and load.anchor is not None and float(np.ravel(load.count)[0]) > 0:
            x, y = (float(np.ravel(v)[0]) for v in load.anchor[:2])
            line(x, 0.0, x, y + 0.25, "wall")
    return scene
