"""Bands and springs of many set-ups as loads: one for each kind that any of them uses."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.equipment import Band, Load, SpringLoad
from widearc.core.exercises import LoadWay
from widearc.core.setups.unloaded import SetupTable


def _bands(way: LoadWay, table: SetupTable, times: int, lead_m: float) -> Iterator[Load]:
    """Yield one band load for every band and folding that any row uses, counts as an array; each
    row so many times.
    """
    ends = [pull.anchor for pull in table.pulls]
    places = [(end[1], end[0].height_m) if end else (0.0, 0.0) for end in ends]
    far = _column(table.of_pulls([x for x, _ in places]), times)
    high = _column(table.of_pulls([y for _, y in places]), times)
    for (_, strands), (band, number) in table.counts.items():
        where: dict[str, Any] = {"law": band.law, "anchor": (far, high, 0.0), "lead_m": lead_m}
        if way.from_ == "feet":
            where = {"law": band.standing_law(), "anchor_port": "sole"}
        elif way.from_ == "thighs":
            where = {"law": band.law, "anchor_port": way.port}
        yield Band(
            port=way.port,
            strands=strands,
            count=_column(number, times),
            hysteresis=band.hysteresis,
            **where,
        )


def _column(values: Array, times: int) -> Array:
    """Return a number for each row, each so many times, as a column (set-ups, 1)."""
    return np.repeat(values, times)[:, None]


def _springs(way: LoadWay, table: SetupTable, times: int) -> Iterator[Load]:
    """Yield one load for every kind of spring that any row hooks on, counts as an array; each row
    so many times.
    """
    used = {spring.id: spring for pull in table.pulls for spring, _ in pull.springs}
    for spring_id, stock in sorted(used.items()):
        number = [
            float(sum(n for s, n in pull.springs if s.id == spring_id)) for pull in table.pulls
        ]
        yield SpringLoad(
            spring=stock.spring, port=way.port, count=_column(table.of_pulls(number), times)
        )
