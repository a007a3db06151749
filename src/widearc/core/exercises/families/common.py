"""Options that several families share, and how a family puts its own together."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from types import MappingProxyType

from widearc.core.exercises.options import PRESSURE, OptionSpec


def number(name: str, label: str, default: float, low: float, high: float) -> OptionSpec:
    """Return an option that is a number; its unit is in its name."""
    endings = {"_deg": "deg", "_m": "m", "_n": "N", "_kg": "kg"}
    unit = next((unit for ending, unit in endings.items() if name.endswith(ending)), "share")
    return OptionSpec(name=name, label=label, unit=unit, default=default, low=low, high=high)


def of_body(name: str, label: str, default: float, low: float, high: float) -> OptionSpec:
    """Return an option that is a length of the body; default: at a stature of 1.80 m."""
    return replace(number(name, label, default, low, high), of_body=True)


def choice(name: str, label: str, default: str, choices: tuple[str, ...]) -> OptionSpec:
    """Return an option that is one of a few words."""
    return OptionSpec(name=name, label=label, unit="", default=default, choices=choices)


LEGS = OptionSpec(name="legs", label="legs working", unit="count", default=2, choices=(1, 2))

SIDE = OptionSpec(
    name="side", label="side", unit="", default="right", choices=("left", "right"), used=False
)

FREE_LEG = number("free_leg_deg", "free leg forward", 45, -30, 120)

SEAT = number("seat_m", "seat height", 0.40, 0.1, 1.2)

BELT = number("belt_offset_m", "belt ring ahead of the hip", 0.12, 0, 0.25)

PRESSURE_POINT = OptionSpec(
    name="pressure",
    label="pressure under the foot",
    unit="m",
    default="mid",
    choices=PRESSURE,
    also_number=True,
    low=-0.06,
    high=0.15,
)

BOX = number("box_m", "boxes under the feet", 0, 0, 0.6)

LEAN = number("trunk_lean_deg", "trunk lean", 10, 0, 60)

PAIR = OptionSpec(
    name="horizontal_pair",
    label="level push between the feet",
    unit="N",
    default="least-effort",
    choices=("least-effort",),
    also_number=True,
    low=-300,
    high=300,
    formerly="horizontal_pair_n",
)
"""The front foot pushes forward with it, the rear foot back."""

GIVEN_PAIR = replace(PAIR, default=0, choices=(), also_number=False)
"""Where the other foot only steadies, or pushes off from another height."""

PAIR_SHARE = number("pair_share", "share of the push of least effort", 1, 0, 2)

COMMON = (LEGS, SIDE, FREE_LEG, BELT, SEAT)


def specs(used: tuple[str, ...], *items: OptionSpec) -> Mapping[str, OptionSpec]:
    """Return a family's options: its own and the common ones, of which `used` change the curve."""
    own = {item.name: item for item in items}
    common = {item.name: replace(item, used=item.used and item.name in used) for item in COMMON}
    return MappingProxyType({**common, **own})


STANCE = (
    number("knee_from_deg", "knee bend, lengthened end", 110, 20, 140),
    number("knee_to_deg", "knee bend, shortened end", 5, 0, 60),
    number("knee_travel", "knee travel per knee bend", 0.33, 0, 0.6),
    of_body("stance_m", "between the feet", 0.35, 0.1, 1.2),
    number("heel_wedge_m", "wedge under the heels", 0, 0, 0.06),
    BOX,
    PRESSURE_POINT,
    replace(number("toe_out_deg", "toes out (noted only)", 15, -20, 60), used=False),
)

HIP_FROM, HIP_TO = (
    number(f"hip_{end}_deg", f"hip bend, {word} end", 90 if end == "from" else 0, -30, 120)
    for end, word in (("from", "lengthened"), ("to", "shortened"))
)

OPENS = (
    number("abduction_from_deg", "leg opened, start", 0, -20, 60),
    number("abduction_to_deg", "leg opened, end", 35, 0, 60),
)
