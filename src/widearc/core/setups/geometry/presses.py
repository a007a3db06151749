"""Presses: where the feet stand on the plate, and how deep."""

from __future__ import annotations

import itertools
from collections.abc import Iterator

import numpy as np

from widearc.core.kit import SledPress
from widearc.core.setups.geometry.asked import Asked, Geometry, Rule
from widearc.core.words import Length, Said

FOOT_HEIGHTS_M = (0.0, 0.05, 0.10, 0.15, 0.20, 0.25)
USUAL_DEG = 90.0  # of knee bend


def _applies(asked: Asked) -> bool:
    return isinstance(asked.machine, SledPress) and asked.exercise.family == "sled press"


def _make(asked: Asked) -> Iterator[Geometry]:
    press, specs = asked.machine, asked.specs
    assert isinstance(press, SledPress)
    knee, foot = specs["knee_from_deg"], specs["foot_height_m"]
    deep = round(asked.wanted.from_deg, 1) if asked.wanted else USUAL_DEG
    start = float(np.clip(deep, knee.low, knee.high))
    heights = {h for h in FOOT_HEIGHTS_M if foot.low <= h <= foot.high}
    depths = sorted({start, min(start, USUAL_DEG)})
    for depth, height in itertools.product(
        depths, sorted({*heights, asked.usual("foot_height_m")})
    ):
        yield Geometry(
            options={
                "rail_deg": press.rail_deg,
                "backrest_deg": press.backrest_deg,
                "plate_tilt_deg": press.plate_tilt_deg,
                "foot_height_m": height,
                "knee_from_deg": depth,
                "knee_to_deg": asked.usual("knee_to_deg"),
            },
            words=Said("ankles {length} over the hip line", length=Length(height)),
        )


RULE = Rule(rank=3, applies=_applies, make=_make)
