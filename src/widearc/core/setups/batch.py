"""Set-ups of one exercise and one way of loading: every geometry and pull with every total."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body, Limits
from widearc.core.equipment import Load
from widearc.core.exercises import Exercise, LoadWay
from widearc.core.kit import STOCKS, On, Total
from widearc.core.movement import Setup
from widearc.core.setups.elastic_loads import _bands, _springs
from widearc.core.setups.pulls import ELASTIC
from widearc.core.setups.unloaded import LoadedSetup, SetupTable, table_of

NOTHING = Total(kg=0.0)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Batch:
    """Set-ups of one exercise and one way of loading: every unloaded set-up with every total.
    machine: what it is done on.
    """

    exercise: Exercise
    way: tuple[LoadWay, ...]
    unloaded: Sequence[LoadedSetup]
    totals: tuple[Total, ...] = (NOTHING,)
    machine: On = None

    @property
    def stock(self) -> str:
        """Return what the totals are made of: bar, dumbbells, sled and so on; empty where they are
        not.
        """
        return next((w.stock for w in self.way if w.stock not in ELASTIC), "")

    @property
    def size(self) -> int:
        """Return how many set-ups this is."""
        return len(self.unloaded) * len(self.totals)

    def row(self, bare: int, total: int) -> LoadedSetup:
        """Return one set-up."""
        return self.unloaded[bare].with_total(self.totals[total])

    def setup(
        self,
        body: Body,
        limits: Limits,
        rows: Sequence[LoadedSetup],
        samples: int = 101,
        kg: Array | None = None,
    ) -> Setup:
        """Return set-ups of this batch as one of arrays; kg: totals each of which loads every row
        in turn.
        """
        times = 1 if kg is None else len(kg)
        table = table_of(rows)
        options: dict[str, Any] = {}
        for name, value in table.geometries[0].options.items():
            each = [geometry.options[name] for geometry in table.geometries]
            # what is equal for all stays one number: arrays of it would be solved for nothing
            alike = isinstance(value, str) or each.count(value) == len(each)
            options[name] = (
                value if alike else np.repeat(np.array(each, dtype=float)[table.at_geometry], times)
            )
        totals = np.array([row.kg for row in rows]) if kg is None else np.tile(kg, len(rows))
        lead = rows[0].lead_m
        setup = Setup(
            exercise=self.exercise,
            body=body,
            limits=limits,
            options=options,
            loads=tuple(self._loads(table, totals[:, None], times, lead)),
            samples=samples,
        )
        return setup.repeated(len(rows) * times)

    def _loads(self, table: SetupTable, kg: Array, times: int, lead_m: float) -> Iterator[Load]:
        for way in self.way:
            if way.stock not in ELASTIC:
                yield STOCKS[way.stock].load(way, self.machine, kg)
        for way in self.way:
            if way.stock == "band":
                yield from _bands(way, table, times, lead_m)
            elif way.stock == "spring":
                yield from _springs(way, table, times)
