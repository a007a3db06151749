"""How a set-up is hit: nobody bends, leans or steps twice alike. One standard error each
(assumed).
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from types import MappingProxyType

import numpy as np

from widearc.core.arrays import changed
from widearc.core.body import segments as s
from widearc.core.movement import LENGTHENED_ENDS, Setup
from widearc.core.statics.uncertainty import BodyUncertainty, body_moved

LANDMARKS = {"heel": s.HEEL, "mid": s.MID, "ball": s.BALL}
WORDS = {"none": 0.0, "least-effort": 1.0}

DEPTH_DEG = LEAN_DEG = 4.0
LIMIT_DEG = 3.0
HIT = MappingProxyType(
    {
        "lean": ("trunk_lean_deg", LEAN_DEG),
        "pressure": ("pressure", 0.015),
        "knee travel": ("knee_travel", 0.05),
        "foot height": ("foot_height_m", 0.02),
        "step": ("step_m", 0.05),
        "push": ("push", 0.25),
        "pair": ("pair_share", 0.3),
        "leaving": ("leaves_at", 0.1),
    }
)
"""By source: an option and one standard error in its unit. Push, pair and leaving are no hits but
what nobody knows of a press's push across its plate and of two feet: the same for all set-ups.
"""

BODY = ("mass", "thigh", "shank")
SHARED = frozenset({*BODY, "push", "pair", "leaving"})
"""What errs alike for a wanted lift and all its stand-ins."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Doubt:
    """What may be wrong with a set-up: its body, and its loads (one standard error each as a
    share).
    """

    body: BodyUncertainty
    loads: tuple[float, ...] = ()


def sources_of(setup: Setup, doubt: Doubt) -> tuple[str, ...]:
    """Return what can err in a set-up of one row, by name."""
    specs = setup.exercise.options
    there = [source for source, (option, _) in HIT.items() if _varies(setup, option)]
    bodies = [name for name in BODY if getattr(doubt.body, name)]
    depth = ["depth"] if _depth(setup) else []
    limit = ["ankle limit"] if "knee_travel" in specs else []
    loads = [f"load {i}" for i, share in enumerate(doubt.loads) if share > 0]
    return (*bodies, *loads, *depth, *limit, *there)


def moved(setup: Setup, errors: Mapping[str, float], doubt: Doubt) -> Setup:
    """Return a set-up of one row with so many standard errors of each source added, as far as its
    options reach.
    """
    options = dict(setup.options)
    if _varies(setup, "pressure"):
        # a number in all of them, so that they are computed together
        options["pressure"] = _value(setup, "pressure")
    for option, value in _options(setup, errors):
        options[option] = value
    loads = tuple(
        load.scaled(1.0 + errors.get(f"load {i}", 0.0) * share) if share > 0 else load
        for i, (load, share) in enumerate(
            zip(setup.loads, doubt.loads or (0.0,) * len(setup.loads), strict=True)
        )
    )
    made = setup.like(options, loads)
    body = body_moved(setup.body, {name: errors.get(name, 0.0) for name in BODY}, doubt.body)
    limits = setup.limits
    if by := errors.get("ankle limit", 0.0):
        least, most = 0.0, 60.0
        degrees = float(np.clip(limits.dorsiflexion_deg + LIMIT_DEG * by, least, most))
        limits = replace(limits, dorsiflexion_deg=degrees)
    if body is setup.body and limits is setup.limits:
        return made
    return changed(made, body=body, limits=limits)


def closure_variants(setup: Setup) -> Mapping[str, Setup]:
    """Return a set-up of one row with what nobody knows of its pushes one standard error up."""
    doubt = Doubt(body=BodyUncertainty())
    return {
        source: moved(setup, {source: 1.0}, doubt)
        for source in ("push", "pair", "leaving")
        if _varies(setup, HIT[source][0])
    }


def _options(setup: Setup, errors: Mapping[str, float]) -> Iterator[tuple[str, float]]:
    """Yield the options that err, with their values."""
    for source, by in errors.items():
        if by == 0.0:
            continue
        option, size = (
            (_depth(setup), DEPTH_DEG) if source == "depth" else HIT.get(source, ("", 0.0))
        )
        if option and _varies(setup, option):
            spec = setup.exercise.options[option]
            yield option, float(np.clip(_value(setup, option) + by * size, spec.low, spec.high))


def _depth(setup: Setup) -> str:
    """Return the option at which the range starts, an empty text where none says."""
    specs = setup.exercise.options
    return next((f"{end}_deg" for end in LENGTHENED_ENDS if f"{end}_deg" in specs), "")


def _varies(setup: Setup, option: str) -> bool:
    spec = setup.exercise.options.get(option)
    if spec is None or not spec.used:
        return False
    if option == "pair_share":
        return isinstance(setup.resolved["horizontal_pair"], str)
    return True


def _value(setup: Setup, option: str) -> float:
    """Return an option of a set-up of one row as a number, in its unit."""
    value = setup.options.get(option, setup.exercise.options[option].usual(setup.body.stature_m))
    if isinstance(value, str):
        return setup.body.sole_m(LANDMARKS[value]) if option == "pressure" else WORDS[value]
    return float(np.ravel(value)[0])
