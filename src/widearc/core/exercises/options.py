"""Set-up options: names, ranges and defaults by family, and their way into SI."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from functools import lru_cache
from types import MappingProxyType
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import InputError, RangeError, UnknownNameError, one_of
from widearc.core.units import DEG
from widearc.core.words import Figure, Said

Options = Mapping[str, Any]
"""Resolved options: radians and metres as floats or (set-ups, 1) arrays, choices as text."""


PRESSURE = ("heel", "mid", "ball")

STATURE_M = 1.80  # at which the defaults of lengths that belong to the body are given


@dataclass(frozen=True, slots=True, kw_only=True)
class OptionSpec:
    """One option of a set-up: numbers from low to high, or one of `choices`.

    unit: deg, m, share, N, kg, count, or "" for a choice; `also_number` lets a choice be given in
    metres. used: whether it changes the family's curve; the others are noted only. formerly: a name
    that older files have for it. of_body: a length of the body: its default is the one at 1.80 m.
    """

    name: str
    label: str
    unit: str
    default: float | str
    low: float = -math.inf
    high: float = math.inf
    choices: tuple[str | int, ...] = ()
    also_number: bool = False
    used: bool = True
    formerly: str = ""
    of_body: bool = False

    def usual(self, stature_m: float) -> float | str:
        """Return the default for a body: a length that belongs to it is a share of its stature."""
        if not self.of_body or isinstance(self.default, str):
            return self.default
        return round(self.default * stature_m / STATURE_M, 3)

    def check(self, value: object, where: str) -> float | str:
        """Return the value if it is allowed, else raise InputError naming `where`."""
        if self.choices:
            if value in self.choices and not isinstance(value, bool):
                return value
            if not self.also_number or isinstance(value, str):
                raise InputError(where, value, one_of(map(str, self.choices)))
        if (
            isinstance(value, bool)
            or not isinstance(value, int | float)
            or not math.isfinite(value)
        ):
            raise InputError(
                where,
                value,
                Said(
                    "a number from {low} to {high}",
                    low=Figure(self.low),
                    high=Figure(self.high, self._unit()),
                ),
            )
        if not self.low <= value <= self.high:
            raise RangeError(where, value, self.low, self.high, self._unit())
        return float(value)

    def _unit(self) -> str:
        return {"deg": " degrees", "m": " m", "N": " N", "kg": " kg"}.get(self.unit, "")


MOST_USUAL = 500
MOST_STATURES = 100


def with_defaults(
    options: Mapping[str, OptionSpec],
    defaults: Mapping[str, float | str],
    more: tuple[OptionSpec, ...] = (),
    without: tuple[str, ...] = (),
    legs: tuple[int, ...] | None = None,
) -> Mapping[str, OptionSpec]:
    """Return a family's options with some defaults moved, `more` added, `without` some; legs: those
    allowed.
    """
    specs = {name: spec for name, spec in options.items() if name not in without}
    specs |= {spec.name: spec for spec in more}
    for name, value in defaults.items():
        specs[name] = replace(specs[name], default=value)
    if legs is not None and "legs" in specs:
        default = specs["legs"].default if specs["legs"].default in legs else legs[0]
        specs["legs"] = replace(specs["legs"], choices=legs, default=default)
    return MappingProxyType(specs)


def renamed(specs: Mapping[str, OptionSpec], given: Mapping[str, Any]) -> Mapping[str, Any]:
    """Return options by the names of today: older files may have former ones."""
    former = {spec.formerly: name for name, spec in specs.items() if spec.formerly}
    if not former.keys() & given.keys():
        return given
    return {former.get(name, name): value for name, value in given.items()}


def resolve(
    specs: Mapping[str, OptionSpec],
    given: Mapping[str, Any],
    where: str = "/options",
    *,
    stature_m: float,
) -> Options:
    """Return every option in SI: `given` (degrees, metres; numbers or (set-ups,) arrays) over the
    defaults of a body.

    Keys lose their `_deg`, `_m`, `_n` ending; arrays come back shaped (set-ups, 1). Raises
    UnknownNameError for a name the exercise lacks and InputError for a value out of its range.
    """
    for name, value in given.items():
        if name not in specs:
            raise UnknownNameError(f"{where}/{name}", name, specs)
        items = (
            {float(value.min()), float(value.max())} if isinstance(value, np.ndarray) else (value,)
        )
        for item in items:
            specs[name].check(item, f"{where}/{name}")
    return in_si(specs, given, stature_m)


def in_si(specs: Mapping[str, OptionSpec], given: Mapping[str, Any], stature_m: float) -> Options:
    """Return what `resolve` does of options that were checked before."""
    resolved: dict[str, float | str | Array] = dict(_usual(specs, stature_m))
    for name, value in given.items():
        if isinstance(value, np.ndarray):
            resolved[_bare(name)] = _si(name, np.asarray(value, dtype=float)[:, None])
        elif isinstance(value, str):
            resolved[_bare(name)] = value
        else:
            # a choice stays as it is written: legs are counted
            resolved[_bare(name)] = (
                value if value in specs[name].choices else _si(name, float(value))
            )
    return MappingProxyType(resolved)


Usual = dict[float, dict[str, float | str]]
_USUAL: dict[int, tuple[Mapping[str, OptionSpec], Usual]] = {}
"""An exercise's resolved defaults by the identity of its options, which are kept with them so that
it stays theirs, and by stature.
"""


def _usual(specs: Mapping[str, OptionSpec], stature_m: float) -> Mapping[str, float | str]:
    """Return every default in SI: asked for with each of a search's set-ups, worked out once an
    exercise and stature.
    """
    known = _USUAL.get(id(specs))
    if known is None or known[0] is not specs:
        if len(_USUAL) > MOST_USUAL:
            _USUAL.clear()
        known = _USUAL[id(specs)] = specs, {}
    by_stature = known[1]
    if stature_m not in by_stature:
        if len(by_stature) > MOST_STATURES:
            by_stature.clear()
        by_stature[stature_m] = dict(_usual_in_si(specs, stature_m))
    return by_stature[stature_m]


def _usual_in_si(
    specs: Mapping[str, OptionSpec], stature_m: float
) -> Iterator[tuple[str, float | str]]:
    for name, spec in specs.items():
        value = spec.check(spec.usual(stature_m), name)
        yield _bare(name), value if isinstance(value, str) else _si(name, value)


@lru_cache(maxsize=200)
def _bare(name: str) -> str:
    for ending in ("_deg", "_m", "_n", "_kg"):
        name = name.removesuffix(ending)
    return name


def _si(name: str, value: Any) -> Any:
    return value * DEG if name.endswith("_deg") else value
