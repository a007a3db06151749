"""The loads on a figure: discs with their weight, and lines to where they come from."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment import AtPort, FreeMass, Load
from widearc.core.statics import Curve
from widearc.web.words.words import kg as kg_text


def _load_point(curve: Curve, index: int) -> Array:
    forces = [f for f in curve.motion.forces if f.source == f"load {index}"]
    return np.asarray(curve.motion.full(forces[-1].point)[:, 0])


def _loads(curve: Curve, points: dict[str, Array]) -> list[dict[str, Any]]:
    drawn: list[dict[str, Any]] = []
    for index, load in enumerate(curve.setup.loads):
        key = f"load{index}"
        if load.on_path:
            drawn.append(_on_path(key, load, points))
        elif _is_none(load):
            continue
        elif isinstance(load, AtPort) and load.port in ("sled", "carriage"):
            # only what can be there or not is drawn: the rest belongs to the machine
            if load.can_be_none:
                here = points["plate"] if "plate" in points else points["pressure"]
                drawn.append(_line_load(key, load.far_end(here), here))
        elif _acts(curve, index):
            drawn += _at_body(key, load, _load_point(curve, index), points)
    return drawn


def _at_body(
    key: str, load: Load, here: Array, points: dict[str, Array]
) -> Iterator[dict[str, Any]]:
    """Yield the line to where a load comes from, and the disc of its weight."""
    far = points.get("pressure", here) if load.other_port else load.far_end(here)
    if far is not None:
        yield _line_load(key, far, here)
    if load.disc_kg is not None:
        yield _disc(f"{key}w" if far is not None else key, load, here)


def _disc(key: str, load: Load, here: Array) -> dict[str, Any]:
    kg, radius = load.disc_kg or 0.0, 0.1
    if isinstance(load, FreeMass):
        bar = load.port in ("back-high", "back-low", "front-rack")
        radius = 0.15 if bar else 0.055 + 0.0018 * min(kg, 40)
        kg = kg / 2 if load.port == "hands" else kg
    elif isinstance(load, AtPort):
        radius = 0.06
    return {"key": key, "line": False, "a": here, "text": kg_text(kg), "r": radius}


def _on_path(key: str, load: Load, points: dict[str, Array]) -> dict[str, Any]:
    """Return the disc of a sled behind its plate, at the pad, or under the feet."""
    if "plate" in points:
        away = points["plate"] - points["ankle"]
        centre, radius = points["plate"] + away / np.hypot(*away) * 0.24, 0.19
    elif "pad" in points:
        centre, radius = points["pad"] + np.array([[-0.2], [0.1]]), 0.13
    else:
        centre, radius = points["pressure"] + np.array([[0.0], [-0.1]]), 0.13
    return {
        "key": key,
        "line": False,
        "a": centre,
        "text": kg_text(load.disc_kg or 0.0),
        "r": radius,
    }


def _acts(curve: Curve, index: int) -> bool:
    return any(f.source == f"load {index}" for f in curve.motion.forces)


def _is_none(load: Load) -> bool:
    return load.can_be_none and float(np.ravel(load.value(load.amount))[0]) <= 0


def _line_load(key: str, far: Array | None, here: Array) -> dict[str, Any]:
    return {"key": key, "line": True, "a": far, "b": here, "text": "", "r": 0.0}
