"""The address at which Arc shows a stand-in as it was found: its options and loads as Arc's form
types them.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

import numpy as np

from widearc.core.equipment import (
    Band,
    Cable,
    CornerBar,
    FreeMass,
    Lever,
    Load,
    Pendulum,
    Sled,
    SpringLoad,
    Stack,
)
from widearc.core.search import Candidate
from widearc.web.arcform import factor_of


def arc_query(candidate: Candidate, client_id: int) -> dict[str, str] | None:
    """Return the parts of Arc's address for a stand-in; None where its form cannot say a load as it
    is.
    """
    name = candidate.exercise.id
    query = {"exercise": name, "for": name, "client": str(client_id)}
    specs = candidate.exercise.options
    for option, value in candidate.row.options.items():
        query[f"o-{option}"] = (
            value if isinstance(value, str) else _number(value / factor_of(specs[option]))
        )
    for index, load in enumerate(candidate.curve.setup.loads):
        typed = _load(load, candidate)
        if typed is None:
            return None
        query[f"l{index}"] = load.kind
        query |= {
            f"l{index}-{key}": value if isinstance(value, str) else _number(value)
            for key, value in typed.items()
        }
    return query


def _number(value: float) -> str:
    return f"{float(np.ravel(value)[0]):.6g}"


def _one(value: Any) -> float:
    return float(np.ravel(value)[0])


def _load(load: Load, candidate: Candidate) -> dict[str, str | float] | None:
    """Return a load's typed fields, numbers in the form's units."""
    if isinstance(load, Band):
        return _band(load, candidate)
    if isinstance(load, Cable) and load.friction:
        return None
    return _TYPED[type(load)](load) if type(load) in _TYPED else None


_TYPED: Mapping[type, Callable[[Any], dict[str, str | float]]] = {
    FreeMass: lambda x: {"kg": _one(x.kg), "port": x.port},
    Sled: lambda x: {"kg": _one(x.kg), "empty": _one(x.empty_kg), "friction": x.friction},
    SpringLoad: lambda x: {
        "start": x.spring.start_n,
        "end": x.spring.end_n,
        "travel": 100 * x.spring.travel_m,
        "count": _one(x.count),
        "port": x.port,
    },
    Stack: lambda x: {
        "kg": _one(x.kg),
        "ratio": x.ratio,
        "friction": x.friction,
        "cam": ", ".join(
            f"{a:.6g}: {100 * r:.6g}" for a, r in zip(x.angle_deg, x.radius_m, strict=True)
        ),
    },
    Lever: lambda x: {
        "kg": _one(x.kg),
        "arm": 100 * x.arm_m,
        "angle": x.angle_deg,
        "x": 100 * x.pivot[0],
        "y": 100 * x.pivot[1],
        "own": x.own_kg,
        "ownarm": 100 * x.own_arm_m,
        "port": x.port,
    },
    Pendulum: lambda x: {"kg": _one(x.kg), "arm": 100 * x.arm_m},
    Cable: lambda x: {
        "kg": _one(x.kg),
        "ratio": x.ratio,
        "x": 100 * x.pulley[0],
        "y": 100 * x.pulley[1],
        "port": x.port,
    },
    CornerBar: lambda x: {
        "plate": _one(x.plate_kg),
        "bar": x.bar_kg,
        "long": 100 * x.bar_m,
        "sleeve": 100 * x.sleeve_m,
        "hand": 100 * x.hand_m,
        "port": x.port,
    },
}


def _band(load: Band, candidate: Candidate) -> dict[str, str | float] | None:
    stock = next((band for band, _ in candidate.row.bands if band.law == load.law), None)
    bench = next(
        (piece.item for piece in candidate.pieces if stock is not None and piece.item == stock.id),
        None,
    )
    # half a long band, or one whose readings are not at the Bench, cannot be chosen there
    if stock is None or bench is None or ("folded" in stock.name and load.strands != 4):
        return None
    typed: dict[str, str | float] = {
        "band": bench,
        "port": load.port,
        "strands": str(load.strands),
        "count": _one(load.count),
        "back": 100 * load.hysteresis,
        "lead": 100 * load.lead_m,
    }
    if load.anchor is None:
        return typed | {"tie": "feet" if load.anchor_port == "sole" else "thigh"}
    return typed | {
        "tie": "point",
        "x": 100 * _one(load.anchor[0]),
        "y": 100 * _one(load.anchor[1]),
    }
