"""How sure a curve is: each source of doubt moves it a little, and the moves add up as squares.

Linear propagation: one curve more for each source, one standard error up; sources are taken as
independent. How a set-up is hit is in `hits`.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from types import MappingProxyType

import numpy as np

from widearc.core.arrays import Array
from widearc.core.body import Body
from widearc.core.errors import PostureError, RangeError
from widearc.core.movement import Setup
from widearc.core.statics.demand import Curve, curve

TAPED_SHARE = 0.02  # of a thigh, measured by tape (assumed)
TABLE_SHARE = 0.03  # of a thigh, by the table's share of a known stature (assumed)
UNKNOWN_SHARE = 0.06  # of a thigh, where the stature is assumed too (assumed)
MASS_SHARE, UNKNOWN_MASS_SHARE = (
    0.01,
    0.12,
)  # of a body mass that is known, and of one that is assumed


@dataclass(frozen=True, slots=True, kw_only=True)
class BodyUncertainty:
    """One standard error of the body's mass and of thigh's and shank's length, as shares."""

    mass: float = MASS_SHARE
    thigh: float = TABLE_SHARE
    shank: float = TABLE_SHARE


def uncertainty_of(*, mass_known: bool, stature_known: bool, thigh_taped: bool) -> BodyUncertainty:
    """Return a body's doubt from what was asked and taped."""
    table = TABLE_SHARE if stature_known else UNKNOWN_SHARE
    return BodyUncertainty(
        mass=MASS_SHARE if mass_known else UNKNOWN_MASS_SHARE,
        thigh=TAPED_SHARE if thigh_taped else table,
        shank=table,
    )


def body_variants(setup: Setup, doubt: BodyUncertainty) -> Mapping[str, Setup]:
    """Return the set-up for the same body one standard error heavier ("mass"), and longer in the
    thigh ("thigh") and the shank ("shank").
    """
    return {
        name: replace(setup, body=body_moved(setup.body, {name: 1.0}, doubt))
        for name in ("mass", "thigh", "shank")
    }


def body_moved(body: Body, errors: Mapping[str, float], doubt: BodyUncertainty) -> Body:
    """Return a body so many standard errors heavier and longer in thigh and shank; by as much the
    other way where that would end the known range.
    """
    if not any(errors.values()):
        return body
    try:
        return _moved(body, errors, doubt, 1.0)
    except RangeError:
        return _moved(body, errors, doubt, -1.0)


def _moved(body: Body, errors: Mapping[str, float], doubt: BodyUncertainty, way: float) -> Body:
    lengths = {
        f"{name}_m": getattr(body, f"{name}_m") * (1.0 + way * errors[name] * getattr(doubt, name))
        for name in ("thigh", "shank")
        if errors.get(name, 0.0)
    }
    return replace(
        body,
        mass_kg=body.mass_kg * (1.0 + way * errors.get("mass", 0.0) * doubt.mass),
        segments=MappingProxyType({**body.segments, **lengths}),
    )


def load_variants(setup: Setup, shares: tuple[float, ...]) -> Mapping[str, Setup]:
    """Return the set-up with each load one standard error heavier; a share of 0 makes none."""
    found = {}
    for index, share in enumerate(shares):
        if share > 0:
            loads = tuple(
                x.scaled(1.0 + share) if i == index else x for i, x in enumerate(setup.loads)
            )
            found[f"load {index}"] = replace(setup, loads=loads)
    return found


def variant_curve(setup: Setup) -> Curve | None:
    """Return a variant's curve, None where that posture cannot be reached: it then says nothing."""
    try:
        return curve(setup, lowering=False)
    except (PostureError, ValueError):
        return None


def demand_error_nm(base: Curve, variants: Mapping[str, Setup]) -> Mapping[str, Array]:
    """Return one standard error of each demand, N·m (set-ups, samples), by joint name, at each
    place of the rep.
    """
    squares = {name: np.zeros_like(values) for name, values in base.demand_nm.items()}
    for setup in variants.values():
        moved = variant_curve(setup)
        if moved is None:
            continue
        for name, total in squares.items():
            total += (moved.demand_nm[name] - base.demand_nm[name]) ** 2
    return {name: np.sqrt(total) for name, total in squares.items()}
