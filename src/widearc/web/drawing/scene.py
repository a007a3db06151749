"""What stands around the figure: seat, bench, boxes, rails, wall, pivot. In metres; computes no
mechanics.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import HIP_OVER_SEAT_M
from widearc.core.equipment import Band, Cable, Lever, SpringLoad
from widearc.core.statics import Curve

Point = tuple[float, float]
Piece = tuple[Point, Point, str]
"""A line of the scene: from, to (m), kind: furniture, rail, wall or pulley."""


Moving = tuple[Array, Array, str]
"""A line that moves with the lift: from, to (m, (2, samples)), kind."""


def scene_of(curve: Curve, points: dict[str, Array]) -> tuple[list[Piece], list[Moving]]:
    """Return what stands still around a figure and what moves with it."""
    o = curve.setup.resolved
    pieces = list(_FAMILIES.get(curve.setup.exercise.family, _none)(curve, points, o))
    pieces += _boxes(points, o)
    pieces += _anchors(curve)
    return pieces, list(_moving(curve, points))


def _number(value: Any) -> float:
    return float(np.ravel(value)[0])


def _block(x1: float, x2: float, top: float, bottom: float = 0.0) -> Iterator[Piece]:
    """Yield a block's outline: top, both sides, down to `bottom`."""
    yield (x1, top), (x2, top), "furniture"
    yield (x1, top), (x1, bottom), "furniture"
    yield (x2, top), (x2, bottom), "furniture"


def _bench(x1: float, x2: float, top: float) -> Iterator[Piece]:
    """Yield a bench: its top and two legs."""
    yield (x1, top), (x2, top), "furniture"
    for x in (x1 + 0.05, x2 - 0.05):
        yield (x, top), (x, 0.0), "furniture"


def _boxes(points: dict[str, Array], o: Any) -> list[Piece]:
    pieces: list[Piece] = []
    if "box" in o and _number(o["box"]) > 0 and "heel" in points:
        x1, x2 = float(points["heel"][0].min()) - 0.04, float(points["toe"][0].max()) + 0.04
        pieces += _block(x1, x2, _number(o["box"]))
    if "rear" in o and _number(o["rear"]) > 0:
        x = float(points["rear_ball"][0, 0])
        pieces += _bench(x - 0.3, x + 0.12, _number(o["rear"]))
    return pieces


def _anchors(curve: Curve) -> list[Piece]:
    """Return posts to which bands, cables, springs and levers are tied."""
    pieces: list[Piece] = []
    for load in curve.setup.loads:
        end: Any = None
        if isinstance(load, Band | SpringLoad):
            end = load.anchor
        elif isinstance(load, Cable):
            end = load.pulley
        elif isinstance(load, Lever):
            end = load.pivot
        if end is not None:
            x, y = _number(end[0]), _number(end[1])
            if y > 0.08:
                pieces.append(((x, 0.0), (x, y + (0.2 if isinstance(load, Band) else 0.0)), "wall"))
            pieces += [
                ((x - 0.03, y), (x + 0.03, y), "pulley"),
                ((x, y - 0.03), (x, y + 0.03), "pulley"),
            ]
    return pieces


def _none(curve: Curve, points: dict[str, Array], o: Any) -> Iterator[Piece]:
    return iter(())


def _knee_rotation(curve: Curve, points: dict[str, Array], o: Any) -> Iterator[Piece]:
    hip, variant = points["hip"][:, 0], curve.setup.exercise.variant
    top = float(hip[1]) - HIP_OVER_SEAT_M
    if variant == "standing":
        yield (float(hip[0]) + 0.12, 0.0), (float(hip[0]) + 0.12, float(hip[1]) + 0.1), "furniture"
    elif variant == "prone":
        yield from _bench(-0.36, 0.55, top)
    else:
        yield from _bench(-0.2, 0.34, top)


def _sled_press(curve: Curve, points: dict[str, Array], o: Any) -> Iterator[Piece]:
    plate, hip = points["plate"], points["hip"][:, 0]
    along = plate[:, -1] - plate[:, 0]
    along = along / np.hypot(*along)
    start, end = plate[:, 0] - 0.25 * along, plate[:, -1] + 0.3 * along
    drop = np.array([along[1], -along[0]]) * 0.3
    yield _pair(start + drop), _pair(end + drop), "rail"
    shoulder = points["shoulder"][:, 0]
    back = (shoulder - hip) / np.hypot(*(shoulder - hip))
    under = np.array([back[1], -back[0]]) * -0.14
    yield _pair(hip - 0.08 * back + under), _pair(shoulder + 0.1 * back + under), "furniture"


def _sled_squat(curve: Curve, points: dict[str, Array], o: Any) -> Iterator[Piece]:
    rail = _number(o["rail"])
    up, behind = (
        np.array([-np.cos(rail), np.sin(rail)]),
        np.array([-np.sin(rail), -np.cos(rail)]) * 0.2,
    )
    pad = points["pad"]
    yield _pair(pad[:, 0] - 0.5 * up + behind), _pair(pad[:, -1] + 0.6 * up + behind), "rail"
    heel, toe = points["heel"][:, 0], points["toe"][:, 0]
    yield _pair(heel), _pair(toe + 0.1 * (toe - heel)), "furniture"


def _supported(curve: Curve, points: dict[str, Array], o: Any) -> Iterator[Piece]:
    contact, variant = points["support"], curve.setup.exercise.variant
    if variant == "ball":
        wall = float(contact[0].min()) - 0.45
        yield (wall, 0.0), (wall, float(points["head"][1].max()) + 0.1), "wall"
    elif variant in ("rail", "rail hinge"):
        low, high = contact[:, 0], contact[:, -1]
        way = (high - low) / max(float(np.hypot(*(high - low))), 1e-6)
        yield _pair(low - way * low[1] / max(float(way[1]), 0.3)), _pair(high + 0.35 * way), "rail"
    else:
        x = float(points["shoulder"][0].max()) + 0.62
        yield (x, 0.0), (x, float(points["shoulder"][1].max())), "wall"


def _bridge(curve: Curve, points: dict[str, Array], o: Any) -> Iterator[Piece]:
    edge = points["bench"][:, 0]
    yield from _bench(float(edge[0]) - 0.42, float(edge[0]) + 0.02, float(edge[1]) - 0.02)
    if _number(o["foot"]) > 0:
        x1, x2 = float(points["heel"][0].min()) - 0.04, float(points["toe"][0].max()) + 0.04
        yield from _block(x1, x2, _number(o["foot"]))


def _calf(curve: Curve, points: dict[str, Array], o: Any) -> Iterator[Piece]:
    if "step" in o and _number(o["step"]) > 0 and "mtp" in points:
        x = float(points["mtp"][0, 0])
        yield from _block(x - 0.03, x + 0.28, _number(o["step"]))
    if curve.setup.exercise.variant == "seated":
        hip = points["hip"][:, 0]
        yield from _bench(
            float(hip[0]) - 0.18, float(hip[0]) + 0.2, float(hip[1]) - HIP_OVER_SEAT_M
        )
    if curve.setup.exercise.variant == "press":
        yield from _sled_press(curve, points, o)


def _extension(curve: Curve, points: dict[str, Array], o: Any) -> Iterator[Piece]:
    hip, ankle = points["hip"][:, 0], points["ankle"][:, 0]
    along = (ankle - hip) / np.hypot(*(ankle - hip))
    under = np.array([along[1], -along[0]])
    under = under * (0.1 if under[1] < 0 else -0.1)
    yield _pair(hip + 0.02 * along + under), _pair(hip + 0.5 * along + under), "furniture"
    middle = hip + 0.26 * along + under
    yield _pair(middle), (float(middle[0]), 0.0), "furniture"


def _swing(curve: Curve, points: dict[str, Array], o: Any) -> Iterator[Piece]:
    hip, shoulder, variant = (
        points["hip"][:, 0],
        points["shoulder"][:, 0],
        curve.setup.exercise.variant,
    )
    if variant in ("supine", "prone", "side"):
        x1, x2 = sorted(
            (float(hip[0]), float(shoulder[0] + 1.2 * np.sign(shoulder[0] - hip[0]) * 0.3))
        )
        yield from _bench(x1, x2, float(hip[1]) - 0.12)
    elif variant == "hanging":
        top = float(points["hand"][1, 0]) if "hand" in points else float(shoulder[1]) + 0.7
        yield (float(shoulder[0]) - 0.3, top), (float(shoulder[0]) + 0.3, top), "rail"


def _plank(curve: Curve, points: dict[str, Array], o: Any) -> Iterator[Piece]:
    if curve.setup.exercise.variant == "supine":
        return  # what the heels rest on moves with them
    yield from _bench(-0.35, 0.12, _number(o["couch"]))


def _carriage(curve: Curve, points: dict[str, Array], o: Any) -> Iterator[Piece]:
    x = points["pressure"][0]
    yield (float(x.min()) - 0.35, -0.03), (float(x.max()) + 0.35, -0.03), "rail"


def _spread(curve: Curve, points: dict[str, Array], o: Any) -> Iterator[Piece]:
    yield (-0.3, -0.1), (0.3, -0.1), "furniture"


def _path(curve: Curve, points: dict[str, Array], o: Any) -> Iterator[Piece]:
    hand = points["hand"]
    yield _pair(hand[:, 0]), _pair(hand[:, -1]), "wall"


def _pair(p: Array) -> Point:
    return float(p[0]), float(p[1])


_FAMILIES = {
    "knee rotation": _knee_rotation,
    "sled press": _sled_press,
    "sled squat": _sled_squat,
    "supported stance": _supported,
    "bridge": _bridge,
    "calf": _calf,
    "hip rotation trunk": _extension,
    "hip rotation leg": _swing,
    "plank knee bend": _plank,
    "carriage": _carriage,
    "thigh spread": _spread,
    "plain path": _path,
}


def _moving(curve: Curve, points: dict[str, Array]) -> Iterator[Moving]:
    """Yield lines that move: a swinging arm, the carriage, the ball's width, the pad of a
    machine.
    """
    family, variant = curve.setup.exercise.family, curve.setup.exercise.variant
    if family == "arc squat":
        yield points["pivot"], points["shoulder"], "rail"
    elif family == "carriage":
        across = np.array([[0.2], [0.0]])
        yield points["pressure"] - across, points["pressure"] + across, "rail"
    elif family == "supported stance" and variant == "ball":
        contact = points["support"]
        yield contact, contact - np.array([[0.36], [0.0]]), "rail"
    elif family == "plank knee bend" and variant == "supine":
        heel = points["heel"]
        yield from _round(heel - np.array([[0.0], [1.0]]) * 0.5 * heel[1], 0.5 * heel[1])
    elif family == "knee rotation" and "pad" in points and _has_machine(curve):
        yield points["knee"], points["pad"], "rail"
    elif family == "thigh spread":
        mirror = np.array([[-1.0], [1.0]])
        yield points["hip"] * mirror, points["knee"] * mirror, "wall"


RIM = 12  # sides of a ball's rim as it is drawn


def _round(centre: Array, radius: Array) -> Iterator[Moving]:
    """Yield the rim of a ball that moves; nothing of one that has no size."""
    if float(np.max(radius)) < 0.05:
        return
    corners = [
        centre + radius * np.array([[np.cos(a)], [np.sin(a)]])
        for a in np.linspace(0.0, 2.0 * np.pi, RIM + 1)
    ]
    for one, other in itertools.pairwise(corners):
        yield one, other, "furniture"


def _has_machine(curve: Curve) -> bool:
    return any(load.kind in ("stack", "lever") for load in curve.setup.loads)
