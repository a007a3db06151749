"""The same load a little heavier or stiffer: what an error of a reading does to everything built on
it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from types import MappingProxyType
from typing import Any

from widearc.core.equipment.band import Band, BandLaw, LinearLaw, MooneyRivlinLaw, PointsLaw
from widearc.core.equipment.cable import Cable
from widearc.core.equipment.chain import Chain
from widearc.core.equipment.corner_bar import CornerBar
from widearc.core.equipment.lever import Lever, Pendulum
from widearc.core.equipment.masses import FreeMass, Sled
from widearc.core.equipment.spring import Spring, SpringLoad
from widearc.core.equipment.stack import Stack

_HEAVY: Mapping[type, tuple[str, ...]] = MappingProxyType(
    {
        FreeMass: ("kg",),
        Sled: ("kg", "empty_kg"),
        Cable: ("kg",),
        Chain: ("kg_per_m",),
        CornerBar: ("plate_kg", "bar_kg"),
        Stack: ("kg",),
        Lever: ("kg", "own_kg"),
        Pendulum: ("kg",),
    }
)


def scaled_law(law: BandLaw, factor: float) -> BandLaw:
    """Return a band's law whose pull is `factor` times as much at every length."""
    if isinstance(law, LinearLaw):
        return replace(law, rate_n_per_m=law.rate_n_per_m * factor)
    if isinstance(law, MooneyRivlinLaw):
        return replace(law, area_m2=law.area_m2 * factor)
    pulls = tuple(f * factor for f in law.force_n_at)
    return PointsLaw(rest_m=law.rest_m, length_m=law.length_m, force_n_at=pulls)


def scaled(load: Any, factor: float) -> Any:
    """Return a load of any kind whose forces are `factor` times as much, everything else alike."""
    if isinstance(load, Band):
        return replace(load, law=scaled_law(load.law, factor))
    if isinstance(load, SpringLoad):
        spring = load.spring
        return replace(
            load,
            spring=Spring(
                start_n=spring.start_n * factor,
                end_n=spring.end_n * factor,
                travel_m=spring.travel_m,
            ),
        )
    return replace(load, **{name: getattr(load, name) * factor for name in _HEAVY[type(load)]})
