"""The loads on a figure: discs with their weight, and lines to where they come from."""

from __future__ import annotations

from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment import (
    Band,
    Cable,
    Chain,
    CornerBar,
    FreeMass,
    Lever,
    Pendulum,
    Sled,
    SpringLoad,
)
from widearc.core.statics import Curve


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
                size = (
                    0.15
                    if load.port in ("back-high", "back-low", "front-rack")
                    else 0.055 + 0.0018 * min(kg, 40)
                )
                drawn.append(
                    {
                        "key": key,
                        "line": False,
                        "a": _load_point(curve, index),
                        "text": text,
                        "r": size,
                    }
                )
        elif isinstance(load, Band):
            if float(np.ravel(load.count)[0]) > 0 and load.port in ("sled", "carriage"):
                here = points["plate"] if "plate" in points else points["pressure"]
                drawn.append(_line_load(key, _fixed(load.anchor or (0.0, 0.0, 0.0), here), here))
            elif float(np.ravel(load.count)[0]) > 0:
                here = _load_point(curve, index)
                end = load.anchor or (0.0, 0.0, 0.0)
                far = points.get("pressure", here) if load.anchor_port else _fixed(end, here)
                drawn.append(_line_load(key, far, here))
        elif isinstance(load, Cable | SpringLoad | Lever) and load.port not in ("sled", "carriage"):
            here = _load_point(curve, index)
            held = (
                load.pulley
                if isinstance(load, Cable)
                else load.pivot
                if isinstance(load, Lever)
                else load.anchor
            )
            drawn.append(_line_load(key, _fixed(held or (0.0, 0.0), here), here))
            if isinstance(load, Lever):
                drawn.append(
                    {"key": f"{key}w", "line": False, "a": here, "text": _kg(load.kg), "r": 0.06}
                )
        elif isinstance(load, CornerBar):
            here = _load_point(curve, index)
            corner = load.pivot or (float(here[0, 0]) + load.hand_m * 0.9, 0.05)
            drawn.append(_line_load(key, _fixed(corner, here), here))
        elif isinstance(load, Chain):
            here = _load_point(curve, index)
            drawn.append(
                _line_load(key, np.stack((here[0], np.maximum(here[1] - load.length_m, 0.0))), here)
            )
        elif isinstance(load, Pendulum):
            drawn.append(
                {
                    "key": key,
                    "line": False,
                    "a": _load_point(curve, index),
                    "text": _kg(load.kg),
                    "r": 0.1,
                }
            )
        elif isinstance(load, Sled) and "plate" in points:
            plate = points["plate"]
            away = plate - points["ankle"]
            centre = plate + away / np.hypot(*away) * 0.24
            drawn.append({"key": key, "line": False, "a": centre, "text": _kg(load.kg), "r": 0.19})
        elif isinstance(load, Sled):
            at = points.get("pad", points["pressure"])
            behind = np.array([[-0.2], [0.1]]) if "pad" in points else np.array([[0.0], [-0.1]])
            drawn.append(
                {"key": key, "line": False, "a": at + behind, "text": _kg(load.kg), "r": 0.13}
            )
    return drawn


def _kg(value: Any) -> str:
    return f"{float(np.ravel(value)[0]):g}"


def _fixed(end: Any, here: Array) -> Array:
    """Return a fixed point (m) as many times as there are samples."""
    x, y = (float(np.ravel(v)[0]) for v in end[:2])
    return np.array([[x], [y]]) * np.ones_like(here)


def _line_load(key: str, far: Array, here: Array) -> dict[str, Any]:
    return {"key": key, "line": True, "a": far, "b": here, "text": "", "r": 0.0}
