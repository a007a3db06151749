"""Units that a person reads and types, by the metric sign that the program thinks in ("kg", "cm",
"m", "N", "N/cm").
"""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from types import MappingProxyType

from widearc.core.units import FORCE_N, IN_M, LB_KG
from widearc.words.how import PLAIN, UNITS, How, spoken

_LBF = FORCE_N["lbf"]
_IN = 100.0 * IN_M

IMPERIAL: Mapping[str, tuple[str, float]] = MappingProxyType(
    {
        "kg": ("lb", LB_KG),
        "cm": ("in", _IN),
        "mm": ("in", 10.0 * _IN),
        "m": ("ft", 12.0 * IN_M),
        "N": ("lbf", _LBF),
        "N/cm": ("lbf/in", _LBF / _IN),
        "N/10 cm": ("lbf/in", 10.0 * _LBF / _IN),
        "kg/m": ("lb/ft", LB_KG / (12.0 * IN_M)),
    }
)
"""What is read and typed in place of a metric sign, and how much of that sign one of it is."""

_STIFF = {"N/cm": 1.0, "lbf/in": _LBF / _IN, "lb/in": _LBF / _IN}
_LENGTHS = {"mm": 0.1, "cm": 1.0, "m": 100.0, "in": _IN, '"': _IN, "ft": 12 * _IN, "'": 12 * _IN}
SUFFIXES: Mapping[str, Mapping[str, float]] = MappingProxyType(
    {
        "kg": {"g": 0.001, "kg": 1.0, "lb": LB_KG, "lbs": LB_KG},
        "cm": _LENGTHS,
        "m": {suffix: size / 100.0 for suffix, size in _LENGTHS.items()},
        "N": {**FORCE_N, "lbs": _LBF},
        "N/cm": _STIFF,
        "N/10 cm": {suffix: 10.0 * size for suffix, size in _STIFF.items()},
        "°": {"°": 1.0, "deg": 1.0},
        "%": {"%": 1.0},
        "s": {"s": 1.0},
    }
)
"""What may be written behind a number, and how much of the metric sign it is."""

_NUMBER = re.compile(r"([-+−]?[0-9.,eE+-]*[0-9.,])\s*([^\W0-9_]*(?:/[a-z]+)?|[\"'°%])")


def sign_of(sign: str, how: How | None = None) -> str:
    """Return the unit that is read and typed in place of a metric sign (None: as is spoken)."""
    return _of(sign, how)[0]


def size_of(sign: str, how: How | None = None) -> float:
    """Return how much of a metric sign one of the unit is that is read and typed for it."""
    return _of(sign, how)[1]


def _of(sign: str, how: How | None) -> tuple[str, float]:
    how = spoken() if how is None else how
    return IMPERIAL.get(sign, (sign, 1.0)) if how.units == "imperial" else (sign, 1.0)


def plain_number(text: str) -> float | None:
    """Return the number that a text is (a comma is a point, any minus is one); None for no finite
    number.
    """
    try:
        value = float(text.strip().replace(",", ".").replace("−", "-"))
    except ValueError:
        return None
    return value if math.isfinite(value) else None


def metric_text(text: str, sign: str, how: How) -> str:
    """Return what was typed as text in a metric sign; as it is where it is so already, or is no
    number of that kind.
    """
    if not sign or (how.units == "metric" and plain_number(text) is not None):
        return text
    value = typed_number(text, sign, how)
    return text if value is None else f"{value:.6g}"


def how_of(units: str) -> How:
    """Return how bare numbers are typed where units are named, or something that is none: SI."""
    return How(units=units) if units in UNITS else PLAIN


def typed_number(text: str, sign: str, how: How) -> float | None:
    """Return what was typed, in a metric sign: in the unit that `how` is typed in, or in one that
    is written behind it ("45 lb", "17.5in", "20,4 kg"). None for no finite number of that kind.
    """
    bare = plain_number(text)
    if bare is not None:
        return bare * size_of(sign, how)
    found = _NUMBER.fullmatch(text.strip())
    if found is None or found[2] not in SUFFIXES.get(sign, {}):
        return None
    value = plain_number(found[1])
    return None if value is None else value * SUFFIXES[sign][found[2]]


def spoken_text(text: str, sign: str, how: How | None = None) -> str:
    """Return a number that is typed in a metric sign as it is typed in what is spoken; as it is
    where it is no number.
    """
    size, value = size_of(sign, how), plain_number(text)
    return text if size == 1.0 or value is None else f"{value / size:.4g}"


def suffix_of(text: str) -> str:
    """Return the unit that is written behind a number, "" for none."""
    found = _NUMBER.fullmatch(text.strip())
    return found[2] if found is not None and plain_number(text) is None else ""
