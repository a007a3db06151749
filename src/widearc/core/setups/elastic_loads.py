"""Bands and springs of many set-ups as loads: one for each kind that any of them uses."""

from __future__ import annotations

from collections.abc import Iterator

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
    far, high = (
        _column(table.of_pulls(values), times)
        for values in (
            [end[1] if end else 0.0 for end in ends],
            [end[0].height_m if end else 0.0 for end in ends],
        )
    )
    for (_, strands), (band, number) in table.counts.items():
        count = _column(number, times)
        if way.from_ == "feet":
            law = band.standing_law()
            yield Band(
                law=law,
                port=way.port,
                anchor_port="sole",
                strands=strands,
                count=count,
                hysteresis=band.hysteresis,
            )
        elif way.from_ == "thighs":
            yield Band(
                law=band.law,
                port=way.port,
                anchor_port=way.port,
                strands=strands,
                count=count,
                hysteresis=band.hysteresis,
            )
        else:
            yield Band(
                law=band.law,
                port=way.port,
                anchor=(far, high, 0.0),
                strands=strands,
                count=count,
                hysteresis=band.hysteresis,
                lead_m=lead_m,
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
