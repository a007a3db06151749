"""Set-up options: names, ranges and defaults by family, and their way into SI."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Any

import numpy as np

from widearc.core.arrays import Array
from widearc.core.errors import InputError, UnknownNameError
from widearc.core.units import DEG

Options = Mapping[str, Any]
"""Resolved options: radians and metres as floats or (set-ups, 1) arrays, choices as text."""

PRESSURE = ("heel", "mid", "ball")


@dataclass(frozen=True, slots=True, kw_only=True)
class OptionSpec:
    """One option of a set-up: numbers from low to high, or one of `choices`.

    unit: deg, m, share, N, count, or "" for a choice; `also_number` lets a choice be given in metres.
    """

    name: str
    label: str
    unit: str
    default: float | str
    low: float = -math.inf
    high: float = math.inf
    choices: tuple[str | int, ...] = ()
    also_number: bool = False

    def check(self, value: object, where: str) -> float | str:
        """Return the value if it is allowed, else raise InputError naming `where`."""
        if self.choices:
            if value in self.choices and not isinstance(value, bool):
                return value
            if not self.also_number or isinstance(value, str):
                raise InputError(where, value, "one of " + ", ".join(str(c) for c in self.choices))
        if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
            raise InputError(where, value, f"a number from {self.low:g} to {self.high:g}{self._unit()}")
        if not self.low <= value <= self.high:
            raise InputError(where, value, f"from {self.low:g} to {self.high:g}{self._unit()}")
        return float(value)

    def _unit(self) -> str:
        return {"deg": " degrees", "m": " m", "N": " N"}.get(self.unit, "")


def _n(name: str, label: str, default: float, low: float, high: float) -> OptionSpec:
    unit = "deg" if name.endswith("_deg") else "m" if name.endswith("_m") else "N" if name.endswith("_n") else "share"
    return OptionSpec(name=name, label=label, unit=unit, default=default, low=low, high=high)


def _choice(name: str, label: str, default: str, choices: tuple[str, ...]) -> OptionSpec:
    return OptionSpec(name=name, label=label, unit="", default=default, choices=choices)


_LEGS = OptionSpec(name="legs", label="legs working", unit="count", default=2, choices=(1, 2))
_FREE_LEG = _n("free_leg_deg", "free leg forward", 45, -30, 100)
_SEAT = _n("seat_m", "seat height", 0.40, 0.1, 1.2)
_PRESSURE = OptionSpec(
    name="pressure", label="pressure under the foot", unit="m", default="mid", choices=PRESSURE,
    also_number=True, low=-0.06, high=0.15,
)  # fmt: skip


def _specs(*items: OptionSpec) -> Mapping[str, OptionSpec]:
    return MappingProxyType({item.name: item for item in items})


FAMILY_OPTIONS: Mapping[str, Mapping[str, OptionSpec]] = MappingProxyType(
    {
        "stance": _specs(
            _LEGS, _FREE_LEG,
            _n("knee_from_deg", "knee bend, lengthened end", 110, 20, 140),
            _n("knee_to_deg", "knee bend, shortened end", 5, 0, 60),
            _n("knee_travel", "knee travel per knee bend", 0.33, 0, 0.6),
            _n("stance_m", "between the feet", 0.35, 0.1, 1.2),
            _n("heel_wedge_m", "wedge under the heels", 0, 0, 0.06),
            _n("box_m", "boxes under the feet", 0, 0, 0.6),
            _PRESSURE,
            _n("belt_offset_m", "belt ring ahead of the hip", 0.12, 0, 0.25),
            _n("toe_out_deg", "toes out (noted only)", 15, -20, 60),
        ),
        "split": _specs(
            _n("step_m", "front ankle to rear ball", 0.75, 0.2, 1.3),
            _n("rear_m", "rear foot raised", 0, 0, 0.6),
            _n("hip_back", "hip behind the front ankle, share of the step", 0.45, 0.3, 0.6),
            _n("knee_from_deg", "front knee bend, lengthened end", 95, 20, 140),
            _n("knee_to_deg", "front knee bend, shortened end", 10, 0, 60),
            _n("trunk_lean_deg", "trunk lean", 10, 0, 60),
            _n("box_m", "box under the front foot", 0, 0, 0.6),
            _PRESSURE,
            _n("horizontal_pair_n", "horizontal push between the feet", 0, -300, 300),
        ),
        "sled press": _specs(
            _LEGS, _SEAT,
            _n("rail_deg", "rails above level", 45, 0, 90),
            _n("backrest_deg", "backrest above level", 15, 0, 80),
            _n("foot_height_m", "ankle above the hip line along the rails", 0.10, -0.15, 0.30),
            _n("plate_tilt_deg", "plate tilted, toes away", 10, -20, 30),
            _n("foot_width_m", "between the feet", 0.35, 0.1, 0.9),
            _PRESSURE,
            OptionSpec(name="push", label="push square to the rails", unit="", default="least-effort",
                       choices=("least-effort", "none")),
            _n("knee_from_deg", "knee bend, lengthened end", 90, 20, 140),
            _n("knee_to_deg", "knee bend, shortened end", 8, 0, 60),
        ),
        "knee rotation": _specs(
            _LEGS, _SEAT,
            _n("hip_deg", "hip bend of the seat", 90, -10, 120),
            _n("knee_from_deg", "knee bend, start", 100, 0, 130),
            _n("knee_to_deg", "knee bend, end", 5, 0, 130),
            _choice("body_place", "body", "seated", ("seated", "prone", "standing")),
        ),
        "kneeling": _specs(
            _n("lean_from_deg", "lean, lengthened end", 45, 0, 90),
            _n("lean_to_deg", "lean, shortened end", 0, 0, 90),
            _n("hip_deg", "hip bend kept", 0, -10, 60),
            _choice("lean_way", "lean", "back", ("back", "forward")),
        ),
        "hinge": _specs(
            _LEGS, replace(_FREE_LEG, default=0),
            _n("knee_deg", "knee bend kept", 15, 0, 60),
            _n("trunk_from_deg", "trunk lean, lengthened end", 80, 20, 100),
            _n("trunk_to_deg", "trunk lean, shortened end", 0, 0, 30),
            _n("box_m", "box under the feet", 0, 0, 0.6),
            _PRESSURE,
            _choice("hold", "what the hands hold", "bar", ("bar", "hang")),
        ),
        "calf": _specs(
            _LEGS,
            _n("step_m", "step under the balls of the feet", 0.08, 0, 0.3),
            _n("ankle_from_deg", "ankle bend, lengthened end", 15, -20, 40),
            _n("ankle_to_deg", "ankle bend, shortened end", -30, -50, 20),
        ),
        "bridge": _specs(
            _n("bench_m", "bench edge over the floor", 0.4, 0.2, 0.7),
            _n("foot_m", "feet raised", 0, 0, 0.5),
            _n("hip_from_deg", "hip bend, lengthened end", 80, 20, 110),
            _n("hip_to_deg", "hip bend, shortened end", 0, -10, 40),
            _PRESSURE,
            _n("horizontal_pair_n", "feet pushing away from the bench", 0, -300, 300),
        ),
        "hip rotation trunk": _specs(
            replace(_SEAT, default=0.9),
            _n("hip_from_deg", "hip bend, lengthened end", 90, 0, 120),
            _n("hip_to_deg", "hip bend, shortened end", 0, -30, 60),
            _n("leg_deg", "legs above level", 45, 0, 60),
            _n("pad_below_hip_m", "pad centre below the hip", 0.10, 0, 0.3),
        ),
    }
)  # fmt: skip
"""Every family's options; an exercise may move a default."""


def with_defaults(family: str, defaults: Mapping[str, float | str]) -> Mapping[str, OptionSpec]:
    """Return a family's options with some defaults moved."""
    specs = dict(FAMILY_OPTIONS[family])
    for name, value in defaults.items():
        specs[name] = replace(specs[name], default=value)
    return MappingProxyType(specs)


def resolve(specs: Mapping[str, OptionSpec], given: Mapping[str, Any], where: str = "/options") -> Options:
    """Return every option in SI: `given` (degrees, metres; numbers or (set-ups,) arrays) over the defaults.

    Keys lose their `_deg`, `_m`, `_n` ending; arrays come back shaped (set-ups, 1). Raises
    UnknownNameError for a name the exercise lacks and InputError for a value out of its range.
    """
    for name in given:
        if name not in specs:
            raise UnknownNameError(f"{where}/{name}", name, specs)
    resolved: dict[str, float | str | Array] = {}
    for name, spec in specs.items():
        value = given.get(name, spec.default)
        if isinstance(value, np.ndarray):
            for item in {float(np.min(value)), float(np.max(value))}:
                spec.check(item, f"{where}/{name}")
            resolved[_bare(name)] = _si(name, np.asarray(value, dtype=float)[:, None])
        else:
            checked = spec.check(value, f"{where}/{name}")
            resolved[_bare(name)] = checked if isinstance(checked, str) else _si(name, checked)
    return MappingProxyType(resolved)


def _bare(name: str) -> str:
    for ending in ("_deg", "_m", "_n"):
        name = name.removesuffix(ending)
    return name


def _si(name: str, value: Any) -> Any:
    return value * DEG if name.endswith("_deg") else value
