"""Set-up options: names, ranges and defaults by family, and their way into SI."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import lru_cache
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

    unit: deg, m, share, N, kg, count, or "" for a choice; `also_number` lets a choice be given in
    metres. used: whether it changes the family's curve; the others are noted only.
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

    def check(self, value: object, where: str) -> float | str:
        """Return the value if it is allowed, else raise InputError naming `where`."""
        if self.choices:
            if value in self.choices and not isinstance(value, bool):
                return value
            if not self.also_number or isinstance(value, str):
                raise InputError(where, value, "one of " + ", ".join(str(c) for c in self.choices))
        if (
            isinstance(value, bool)
            or not isinstance(value, int | float)
            or not math.isfinite(value)
        ):
            raise InputError(
                where, value, f"a number from {self.low:g} to {self.high:g}{self._unit()}"
            )
        if not self.low <= value <= self.high:
            raise InputError(where, value, f"from {self.low:g} to {self.high:g}{self._unit()}")
        return float(value)

    def _unit(self) -> str:
        return {"deg": " degrees", "m": " m", "N": " N", "kg": " kg"}.get(self.unit, "")


def _n(name: str, label: str, default: float, low: float, high: float) -> OptionSpec:
    endings = {"_deg": "deg", "_m": "m", "_n": "N", "_kg": "kg"}
    unit = next((unit for ending, unit in endings.items() if name.endswith(ending)), "share")
    return OptionSpec(name=name, label=label, unit=unit, default=default, low=low, high=high)


def _choice(name: str, label: str, default: str, choices: tuple[str, ...]) -> OptionSpec:
    return OptionSpec(name=name, label=label, unit="", default=default, choices=choices)


_LEGS = OptionSpec(name="legs", label="legs working", unit="count", default=2, choices=(1, 2))


_SIDE = OptionSpec(
    name="side", label="side", unit="", default="right", choices=("left", "right"), used=False
)


_FREE_LEG = _n("free_leg_deg", "free leg forward", 45, -30, 120)


_SEAT = _n("seat_m", "seat height", 0.40, 0.1, 1.2)


_BELT = _n("belt_offset_m", "belt ring ahead of the hip", 0.12, 0, 0.25)


_PRESSURE = OptionSpec(
    name="pressure",
    label="pressure under the foot",
    unit="m",
    default="mid",
    choices=PRESSURE,
    also_number=True,
    low=-0.06,
    high=0.15,
)


_BOX = _n("box_m", "boxes under the feet", 0, 0, 0.6)


_LEAN = _n("trunk_lean_deg", "trunk lean", 10, 0, 60)


_PAIR = _n("horizontal_pair_n", "horizontal push between the feet", 0, -300, 300)


COMMON = (_LEGS, _SIDE, _FREE_LEG, _BELT, _SEAT)


def _specs(used: tuple[str, ...], *items: OptionSpec) -> Mapping[str, OptionSpec]:
    """Return a family's options: its own and the common ones, of which `used` change the curve."""
    own = {item.name: item for item in items}
    common = {item.name: replace(item, used=item.used and item.name in used) for item in COMMON}
    return MappingProxyType({**common, **own})


_STANCE = (
    _n("knee_from_deg", "knee bend, lengthened end", 110, 20, 140),
    _n("knee_to_deg", "knee bend, shortened end", 5, 0, 60),
    _n("knee_travel", "knee travel per knee bend", 0.33, 0, 0.6),
    _n("stance_m", "between the feet", 0.35, 0.1, 1.2),
    _n("heel_wedge_m", "wedge under the heels", 0, 0, 0.06),
    _BOX,
    _PRESSURE,
    replace(_n("toe_out_deg", "toes out (noted only)", 15, -20, 60), used=False),
)


_HIP_FROM, _HIP_TO = (
    _n(f"hip_{end}_deg", f"hip bend, {word} end", 90 if end == "from" else 0, -30, 120)
    for end, word in (("from", "lengthened"), ("to", "shortened"))
)


_OPENS = (
    _n("abduction_from_deg", "leg opened, start", 0, -20, 60),
    _n("abduction_to_deg", "leg opened, end", 35, 0, 60),
)


FAMILY_OPTIONS: Mapping[str, Mapping[str, OptionSpec]] = MappingProxyType(
    {
        "stance": _specs(("legs", "free_leg_deg", "belt_offset_m"), *_STANCE),
        "supported stance": _specs(
            ("belt_offset_m",),
            *_STANCE,
            _LEAN,
            _n("foot_ahead_m", "feet ahead of the support", 0.25, 0, 0.6),
            _n("support_m", "height of the support at the end", 1.0, 0.3, 1.8),
            _n("rail_tilt_deg", "rails tilted", 0, 0, 15),
        ),
        "split": _specs(
            ("belt_offset_m",),
            replace(_LEGS, default=1, choices=(1,)),
            _n("step_m", "front ankle to rear ball", 0.75, 0.2, 1.3),
            _n("rear_m", "rear foot raised", 0, 0, 0.6),
            _n("hip_back", "hip behind the front ankle, share of the step", 0.45, 0.3, 0.6),
            _n("knee_from_deg", "front knee bend, lengthened end", 95, 20, 140),
            _n("knee_to_deg", "front knee bend, shortened end", 10, 0, 60),
            _n("knee_travel", "knee travel per knee bend", 0.33, 0, 0.6),
            _LEAN,
            _n("rear_share", "share of the weight on the rear foot", 0.15, 0, 0.5),
            _n("load_left_share", "share of the hands' load on the left", 0.5, 0, 1),
            replace(_BOX, label="box under the front foot"),
            _PRESSURE,
            _PAIR,
        ),
        "sled press": _specs(
            ("legs", "seat_m"),
            _n("rail_deg", "rails above level", 45, 0, 90),
            _n("backrest_deg", "backrest above level", 15, 0, 80),
            _n("foot_height_m", "ankle above the hip line along the rails", 0.10, -0.15, 0.30),
            _n("plate_tilt_deg", "plate tilted, toes away", 10, -20, 30),
            replace(_n("foot_width_m", "between the feet", 0.35, 0.1, 0.9), used=False),
            _PRESSURE,
            OptionSpec(
                name="push",
                label="push square to the rails",
                unit="",
                default="least-effort",
                choices=("least-effort", "none"),
            ),
            _n("knee_from_deg", "knee bend, lengthened end", 90, 20, 140),
            _n("knee_to_deg", "knee bend, shortened end", 8, 0, 60),
        ),
        "sled squat": _specs(
            (),
            _n("rail_deg", "rails above level", 60, 30, 90),
            _n("foot_ahead_m", "feet ahead of the hip's line", 0.3, 0, 0.6),
            _n("pad_at", "back pad's force, hip to shoulder", 0.3, 0, 1),
            _n("plate_tilt_deg", "plate tilted, toes away", 0, -20, 40),
            _PRESSURE,
            _n("knee_from_deg", "knee bend, lengthened end", 100, 20, 140),
            _n("knee_to_deg", "knee bend, shortened end", 8, 0, 60),
        ),
        "arc squat": _specs(
            (),
            _n("pivot_x_m", "pivot ahead of the ankles", -0.9, -2, 2),
            _n("pivot_y_m", "pivot over the floor", 1.2, 0, 2.2),
            _n("arm_m", "arm, pivot to shoulders", 0.9, 0.4, 1.8),
            _n("counterweight_kg", "counterweight at the arm's length", 0, 0, 100),
            _n("plate_tilt_deg", "plate tilted, toes away", 0, -20, 40),
            _PRESSURE,
            _n("knee_from_deg", "knee bend, lengthened end", 100, 20, 140),
            _n("knee_to_deg", "knee bend, shortened end", 8, 0, 60),
        ),
        "knee rotation": _specs(
            ("legs", "seat_m"),
            _n("hip_deg", "hip bend of the seat", 90, -10, 120),
            _n("knee_from_deg", "knee bend, start", 100, 0, 130),
            _n("knee_to_deg", "knee bend, end", 5, 0, 130),
            _n("pad_m", "shin pad below the knee", 0.35, 0.1, 0.5),
            _n("pad_extra_m", "extra pad before the shin pad", 0, 0, 0.08),
            _n("pivot_x_m", "machine's pivot ahead of the knee", 0, -0.1, 0.1),
            _n("pivot_y_m", "machine's pivot over the knee", 0, -0.1, 0.1),
            OptionSpec(
                name="dial",
                label="dial (noted only)",
                unit="count",
                default=1,
                low=1,
                high=20,
                used=False,
            ),
        ),
        "kneeling": _specs(
            (),
            _n("lean_from_deg", "lean, lengthened end", 60, 0, 90),
            _n("lean_to_deg", "lean, shortened end", 0, 0, 90),
            _n("hip_deg", "hip bend kept", 0, -10, 60),
            _choice("pivot", "turns about", "knee", ("knee", "toe")),
        ),
        "hinge": _specs(
            ("legs", "free_leg_deg", "belt_offset_m"),
            replace(_FREE_LEG, default=0),
            _n("knee_deg", "knee bend kept", 15, 0, 60),
            _n("trunk_from_deg", "trunk lean, lengthened end", 80, 20, 100),
            _n("trunk_to_deg", "trunk lean, shortened end", 0, 0, 30),
            _n("deficit_m", "feet raised over the weight's floor", 0, 0, 0.3),
            _BOX,
            _PRESSURE,
            _choice("hold", "what the hands hold", "bar", ("bar", "hang")),
        ),
        "calf": _specs(
            ("legs",),
            _n("step_m", "step under the balls of the feet", 0.08, 0, 0.3),
            _n("knee_deg", "knee bend", 0, 0, 110),
            _n("ankle_from_deg", "ankle bend, lengthened end", 15, -20, 40),
            _n("ankle_to_deg", "ankle bend, shortened end", -30, -50, 20),
        ),
        "bridge": _specs(
            ("legs", "free_leg_deg"),
            _n("bench_m", "bench edge over the floor", 0.4, 0.2, 0.7),
            OptionSpec(
                name="foot_ahead_m",
                label="feet ahead of the bench",
                unit="m",
                default="vertical shin",
                choices=("vertical shin",),
                also_number=True,
                low=0.3,
                high=1.4,
            ),
            _n("foot_m", "feet raised", 0, 0, 0.5),
            replace(_HIP_FROM, default=80, low=20, high=110),
            replace(_HIP_TO, low=-10, high=40),
            _PRESSURE,
            replace(_PAIR, label="feet pushing away from the bench"),
        ),
        "hip rotation trunk": _specs(
            ("seat_m",),
            replace(_SEAT, default=0.9),
            replace(_HIP_FROM, low=0),
            replace(_HIP_TO, high=60),
            _n("leg_deg", "legs above level", 45, 0, 60),
            _n("pad_below_hip_m", "pad centre below the hip", 0.10, 0, 0.3),
        ),
        "hip rotation leg": _specs(
            ("legs", "seat_m"),
            replace(_SEAT, default=0.9),
            _HIP_FROM,
            _HIP_TO,
            _n("knee_deg", "knee bend kept", 0, 0, 120),
            _n("pad_m", "pad below the hip", 0.38, 0.1, 0.8),
            *_OPENS,
        ),
        "plank knee bend": _specs(
            ("legs",),
            _n("couch_m", "couch over the floor", 0.45, 0.2, 0.8),
            _n("knee_from_deg", "knee bend, lengthened end", 90, 20, 120),
            _n("knee_to_deg", "knee bend, shortened end", 5, 0, 60),
        ),
        "carriage": _specs(
            (),
            replace(_LEGS, default=1, choices=(1,)),
            _n("travel_m", "carriage travel", 0.5, 0.1, 1.0),
            _n("weight_share", "share of the weight on the carriage", 0.5, 0, 0.9),
            _choice("spring_side", "springs", "resist", ("resist", "help")),
            _n("start_m", "carriage foot ahead of the other at the start", -0.10, -1.2, 1.2),
            _n("other_knee_from_deg", "standing leg's knee bend, start", 75, 5, 120),
            _n("other_knee_to_deg", "standing leg's knee bend, end", 20, 5, 120),
            _LEAN,
        ),
        "thigh spread": _specs(
            (),
            _n("hip_deg", "hip bend of the seat", 90, 0, 120),
            *(replace(spec, low=0) for spec in _OPENS),
        ),
        "plain path": _specs(
            (),
            _n("travel_m", "travel of the hands", 0.5, 0.05, 2),
            _n("direction_deg", "direction over level, forward", 90, -180, 180),
            _n("start_x_m", "start ahead", 0, -3, 3),
            _n("start_y_m", "start over the floor", 0, 0, 3),
        ),
        "mobility": MappingProxyType({}),
    }
)
"""Every family's options; an exercise may move a default or add its own."""


DEADLIFT = (
    _n("knee_from_deg", "knee bend on the floor", 70, 20, 130),
    _n("knee_to_deg", "knee bend at the end", 5, 0, 40),
    _n("bar_m", "grip over the weight's floor at the start", 0.225, 0.05, 0.6),
    _n("stance_m", "between the feet", 0.35, 0.1, 1.2),
)


RAIL_HINGE = (
    _n("knee_deg", "knee bend kept", 15, 0, 60),
    _n("trunk_from_deg", "trunk lean, lengthened end", 60, 20, 90),
    _n("trunk_to_deg", "trunk lean, shortened end", 5, 0, 30),
)


CALF_PRESS = (
    _n("rail_deg", "rails above level", 45, 0, 90),
    _n("backrest_deg", "backrest above level", 15, 0, 80),
)


MOST_USUAL = 500


def with_defaults(
    family: str,
    defaults: Mapping[str, float | str],
    more: tuple[OptionSpec, ...] = (),
    without: tuple[str, ...] = (),
    legs: tuple[int, ...] | None = None,
) -> Mapping[str, OptionSpec]:
    """Return a family's options with some defaults moved, `more` added, `without` some; legs: those
    allowed.
    """
    specs = {name: spec for name, spec in FAMILY_OPTIONS[family].items() if name not in without}
    specs |= {spec.name: spec for spec in more}
    for name, value in defaults.items():
        specs[name] = replace(specs[name], default=value)
    if legs is not None and "legs" in specs:
        default = specs["legs"].default if specs["legs"].default in legs else legs[0]
        specs["legs"] = replace(specs["legs"], choices=legs, default=default)
    return MappingProxyType(specs)


def resolve(
    specs: Mapping[str, OptionSpec], given: Mapping[str, Any], where: str = "/options"
) -> Options:
    """Return every option in SI: `given` (degrees, metres; numbers or (set-ups,) arrays) over the
    defaults.

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
    return in_si(specs, given)


def in_si(specs: Mapping[str, OptionSpec], given: Mapping[str, Any]) -> Options:
    """Return what `resolve` does of options that were checked before."""
    resolved: dict[str, float | str | Array] = dict(_usual(specs))
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


_USUAL: dict[int, tuple[Mapping[str, OptionSpec], Mapping[str, float | str]]] = {}
"""An exercise's resolved defaults by the identity of its options, which are kept with them so that
it stays theirs.
"""


def _usual(specs: Mapping[str, OptionSpec]) -> Mapping[str, float | str]:
    """Return every default in SI: asked for with each of a search's set-ups, worked out once an
    exercise.
    """
    known = _USUAL.get(id(specs))
    if known is None or known[0] is not specs:
        resolved: dict[str, float | str] = {}
        for name, spec in specs.items():
            value = spec.check(spec.default, name)
            resolved[_bare(name)] = value if isinstance(value, str) else _si(name, value)
        if len(_USUAL) > MOST_USUAL:
            _USUAL.clear()
        known = _USUAL[id(specs)] = specs, resolved
    return known[1]


@lru_cache(maxsize=200)
def _bare(name: str) -> str:
    for ending in ("_deg", "_m", "_n", "_kg"):
        name = name.removesuffix(ending)
    return name


def _si(name: str, value: Any) -> Any:
    return value * DEG if name.endswith("_deg") else value
